//! What a job's trials come to, on the wire.

use fitment::case::Case;
use fitment::setup::{Axle, Setup, SetupPair};
use fitment::trial::{Conclusion, Kind, conclude};
use serde::Serialize;
use store::jobs::JobContent;
use utoipa::ToSchema;

use super::PerAxle;
use super::bench::Ground;
use super::corner::VerdictCode;
use super::ledger::{FragmentView, SourceView, fragments};
use super::workshop::{tries_of, try_on};

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
pub fn conclusions(content: &JobContent, ground: &Ground) -> TrialsView {
    let nothing = SetupPair::default();
    let plan = Case::new(&content.fitted, &nothing, content.drive, &ground.limits, None)
        .in_state(ground.bay.clone());
    let tries = tries_of(&content.workshop);
    let axle = |axle: Axle| {
        let at_hand = at_hand(content, axle);
        let Some(trial) = plan.axle(axle) else {
            return AxleConclusion { lines: Vec::new(), next: None, judged: Vec::new() };
        };
        let setups: Vec<Setup> = at_hand.iter().map(|(_, setup)| *setup).collect();
        let Conclusion { lines, next } = conclude(axle, &tries, &trial, &setups);
        let was_tried = |setup: &Setup| {
            content.workshop.trials.iter().filter_map(try_on).any(|one| {
                one.axle == axle && one.setup.wheel == setup.wheel && one.setup.spacer == setup.spacer
            })
        };
        let judged = at_hand.iter().filter_map(|(name, setup)| {
            Some(Judged {
                name: name.clone(),
                line: setup.to_string(),
                verdict: trial.fit(setup)?.verdict.into(),
                was_tried: was_tried(setup),
            })
        });
        AxleConclusion {
            lines: lines
                .into_iter()
                .map(|line| ConclusionLine {
                    kind: match line.kind {
                        Kind::Out => "out",
                        Kind::Open => "open",
                        Kind::ToFind => "to_find",
                    },
                    says: fragments(line.says),
                })
                .collect(),
            next: next.map(|next| fragments(next.says)),
            judged: judged.collect(),
        }
    };
    TrialsView {
        axles: PerAxle { front: axle(Axle::Front), rear: axle(Axle::Rear) },
        source: Conclusion::SOURCE.into(),
        caution: CAUTION,
    }
}

/// The plan on the bench and the kept candidates, each setup once.
fn at_hand(content: &JobContent, axle: Axle) -> Vec<(String, Setup)> {
    let bench = content.planned.on(axle).map(|setup| ("bench".to_owned(), *setup));
    let kept =
        content.candidates.iter().filter_map(|kept| Some((kept.letter.to_string(), *kept.setups.on(axle)?)));
    let mut all: Vec<(String, Setup)> = Vec::new();
    for one in bench.into_iter().chain(kept) {
        if all.iter().all(|(_, setup)| *setup != one.1) {
            all.push(one);
        }
    }
    all
}
