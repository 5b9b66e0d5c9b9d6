//! What a job's trials come to, on the wire.

use app::JudgingContext;
use app::trials::{self, AxleTrials, JudgedSetup};
use fitment::answers::trial::{Conclusion, Kind, Line};
use fitment::setup::Axle;
use serde::Serialize;
use store::jobs::JobContent;
use utoipa::ToSchema;

use super::PerAxle;
use super::corner::VerdictCode;
use super::ledger::{FragmentView, SourceView, fragments};

/// One sentence of a conclusion.
#[derive(Debug, Serialize, ToSchema)]
pub struct ConclusionLine {
    /// `out`, `open` or `to_find`.
    pub kind: &'static str,
    /// The sentence.
    pub says: Vec<FragmentView>,
}

/// A setup at hand, and how it stands after the trials.
#[derive(Debug, Serialize, ToSchema)]
pub struct Judged {
    /// `bench`, `fitted`, or a candidate's letter.
    pub name: String,
    /// Its setup line on this axle.
    pub line: String,
    /// How it stands.
    pub verdict: VerdictCode,
    /// Whether this very wheel was tried.
    pub was_tried: bool,
}

/// What an axle's trials come to.
#[derive(Debug, Serialize, ToSchema)]
pub struct AxleConclusion {
    /// In sentences.
    pub lines: Vec<ConclusionLine>,
    /// The next most useful trial; null when nothing is left to decide.
    pub next: Option<Vec<FragmentView>>,
    /// The setups at hand.
    pub judged: Vec<Judged>,
    /// Each trial, and how the wheel stood to what it met.
    pub tried: Vec<TriedView>,
}

/// A trial, and how the wheel stood.
#[derive(Debug, Serialize, ToSchema)]
pub struct TriedView {
    /// The trial's id.
    pub id: String,
    /// How it stood; null for a trial that can no longer be read.
    pub verdict: Option<VerdictCode>,
}

/// What a job's trials come to.
#[derive(Debug, Serialize, ToSchema)]
pub struct TrialsView {
    /// Front and rear.
    pub axles: PerAxle<AxleConclusion>,
    /// Where the rules come from.
    pub source: SourceView,
    /// What must stand beside it.
    pub caution: &'static str,
}

const CAUTION: &str = "Chock the car and support it on stands before a wheel comes off; never force a wheel on. What was tried bare or \
                       straight says nothing of the tire, of full lock, or of the loaded car.";

/// Draws the conclusions of a job's trials.
pub fn conclusions(content: &JobContent, context: &JudgingContext) -> TrialsView {
    let axle = |axle: Axle| AxleConclusion::from(trials::of_axle(content, context, axle));
    TrialsView {
        axles: PerAxle { front: axle(Axle::Front), rear: axle(Axle::Rear) },
        source: Conclusion::SOURCE.into(),
        caution: CAUTION,
    }
}

impl From<AxleTrials> for AxleConclusion {
    fn from(trials: AxleTrials) -> Self {
        let line = |line: Line| ConclusionLine {
            kind: match line.kind {
                Kind::Out => "out",
                Kind::Open => "open",
                Kind::ToFind => "to_find",
            },
            says: fragments(line.says),
        };
        let judged = |one: JudgedSetup| Judged {
            name: one.name,
            line: one.setup.to_string(),
            verdict: one.verdict.into(),
            was_tried: one.was_tried,
        };
        Self {
            lines: trials.conclusion.lines.into_iter().map(line).collect(),
            next: trials.conclusion.next.map(|next| fragments(next.says)),
            judged: trials.judged.into_iter().map(judged).collect(),
            tried: trials
                .tried
                .into_iter()
                .map(|(id, verdict)| TriedView { id, verdict: verdict.map(VerdictCode::from) })
                .collect(),
        }
    }
}
