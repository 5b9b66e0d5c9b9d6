//! What moves with a hand on a lever: the figures and words of the bench without workings, reasons and drawings, rounded to
//! what is drawn. A drag asks many times a second, and fetches the whole when the hand lets go.

use app::bench::{AxleAnswer, BenchAnswer, JudgedAxle};
use fitment::answers::headline::Kind;
use fitment::answers::ledger::Line;
use fitment::judgement::window;
use fitment::values::working::Quantity;
use serde::Serialize;
use utoipa::ToSchema;

use super::bench::HeadlineView;
use super::corner::{VerdictCode, WidthView, WorkView, work_of};
use super::ledger::{FragmentView, LedgerCode, QuantityView, StandingCode, fragments};
use super::{AxleCode, PerAxle};

/// A line of the ledger as it moves.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::answers::ledger::Line")]
pub struct BriefLine {
    pub code: LedgerCode,
    pub axle: Option<AxleCode>,
    pub standing: StandingCode,
    pub word: &'static str,
    pub figure: Option<QuantityView>,
}

/// Room to a part as it moves.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::judgement::clearance::Clearance")]
pub struct BriefClearance {
    pub feature: &'static str,
    pub nominal_mm: Option<f64>,
    pub likely_low_mm: Option<f64>,
    pub likely_high_mm: Option<f64>,
    pub verdict: VerdictCode,
}

/// An axle as it moves.
#[derive(Debug, Serialize, ToSchema)]
pub struct BriefAxle {
    /// The worst line.
    pub verdict: VerdictCode,
    /// Part by part, in the order of the whole answer.
    pub clearances: Vec<BriefClearance>,
    /// At the fender line.
    pub style: Option<&'static str>,
    /// Camber of the plan.
    pub camber_deg: f64,
    /// The window.
    pub window: Vec<WidthView>,
    /// What it says.
    pub window_says: Vec<FragmentView>,
}

/// The bench as it moves.
#[derive(Debug, Serialize, ToSchema)]
pub struct BenchBrief {
    /// The plan in a few words, without its conditions.
    pub headline: HeadlineView,
    /// What it counts as done to the car.
    pub work: Vec<WorkView>,
    /// Line by line, in the order of the whole answer.
    pub ledger: Vec<BriefLine>,
    /// Front and rear; null where nothing is judged.
    pub axles: PerAxle<Option<BriefAxle>>,
}

fn hundredths(mm: f64) -> f64 {
    (mm * 100.0).round() / 100.0
}

fn rounded(figure: Quantity) -> QuantityView {
    let view = QuantityView::from(figure);
    QuantityView { value: hundredths(view.value), ..view }
}

impl From<Line> for BriefLine {
    fn from(line: Line) -> Self {
        Self {
            code: LedgerCode(line.code),
            axle: line.axle.map(AxleCode::from),
            standing: line.severity.into(),
            word: line.word,
            figure: line.figure.map(rounded),
        }
    }
}

impl From<JudgedAxle> for BriefAxle {
    fn from(judged: JudgedAxle) -> Self {
        let JudgedAxle { fit, style, camber_deg, window, .. } = judged;
        let clearances = fit.clearances.iter().map(|line| {
            let band = line.band.as_ref();
            BriefClearance {
                feature: line.feature.code(),
                nominal_mm: band.map(|band| hundredths(band.nominal.as_mm())),
                likely_low_mm: band.map(|band| hundredths(band.likely_low().as_mm())),
                likely_high_mm: band.map(|band| hundredths(band.likely_high().as_mm())),
                verdict: line.verdict.into(),
            }
        });
        Self {
            verdict: fit.verdict.into(),
            clearances: clearances.collect(),
            style: style.map(|style| style.style.word()),
            camber_deg,
            window_says: window::says(&window).map(fragments).unwrap_or_default(),
            window: window.into_iter().map(|one| WidthView::from(one).rounded()).collect(),
        }
    }
}

impl From<BenchAnswer> for BenchBrief {
    fn from(answer: BenchAnswer) -> Self {
        let axle = |axle: AxleAnswer| axle.judged.map(BriefAxle::from);
        let mut headline = answer.headline;
        // What it goes only with is read at rest, not while a hand moves.
        headline.causes.retain(|cause| cause.kind > Kind::Condition);
        Self {
            headline: HeadlineView::of(headline, answer.judged_for),
            work: work_of(&answer.levers),
            ledger: answer.ledger.into_iter().map(BriefLine::from).collect(),
            axles: PerAxle { front: axle(answer.axles.front), rear: axle(answer.axles.rear) },
        }
    }
}
