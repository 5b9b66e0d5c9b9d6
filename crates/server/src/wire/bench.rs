//! The bench: a plan drawn and judged, and plans side by side.

use app::bench::{self, AxleAnswer, BenchAnswer, BenchQuestion, JudgedAxle, Mark, RestOfAxle, StepRefused};
use app::compare;
use app::picked::SetPrice;
use fitment::answers::headline::{Cause, Headline, Outcome};
use fitment::answers::remedies::Proposal;
use fitment::car::limits::Drive;
use fitment::judgement::window;
use fitment::parts::wheel::Backspacing;
use fitment::setup::adjust::Adjustment;
use fitment::setup::catalogue::{TireRow, WheelRow};
use fitment::setup::{Axle, PerAxle as AxlePair, Setup};
use fitment::values::working::Phrase;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::change::{AxleChangeView, PairChangeView};
use super::corner::{
    ClearanceView, LeverAmount, MeasureGroupView, MeasureView, TireChoiceCode, VerdictCode, WidthView,
    WorkView, lever_amounts, measure_groups, work_of,
};
use super::drawing::Drawing;
use super::ledger::{
    FragmentView, KindCode, LedgerCode, LineOfLedger, QuantityView, StandingCode, TopicCode, by_code,
    fragments,
};
use super::measured::{WantedView, read_pair_levers, read_wanted};
use super::picked::PartView;
use super::read::FieldErrors;
use super::{ArrangementCode, AxleCode, DriveCode, Lines, PerAxle};
use crate::problem::ApiError;

/// A plan to be drawn and judged.
#[derive(Debug, Deserialize, ToSchema)]
pub struct BenchRequest {
    /// On the car.
    pub fitted: Lines,
    /// Planned.
    pub planned: Lines,
    /// Driven axles, when known.
    #[serde(default)]
    pub drive: Option<DriveCode>,
    /// Steps to take on the planned setups first, as the hand does on the drawing.
    #[serde(default)]
    pub adjust: Vec<Step>,
    /// The job whose car and readings the plan is held against.
    #[serde(default)]
    pub job: Option<i64>,
    /// What is done to the car; as the job has it when left out.
    #[serde(default)]
    pub levers: Option<PerAxle<Vec<LeverAmount>>>,
    /// How it is to stand; as the job has it when left out.
    #[serde(default)]
    pub wanted: Option<PerAxle<Option<WantedView>>>,
    /// Which tire the window puts on each rim width.
    #[serde(default)]
    pub tire_choice: Option<TireChoiceCode>,
}

/// Steps on one axle's planned setup.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
pub struct Step {
    /// Which axle.
    pub axle: AxleCode,
    /// Change of offset.
    #[serde(default)]
    pub offset_mm: f64,
    /// Change of rim width, in steps of a quarter inch.
    #[serde(default)]
    pub rim_width_quarter_in: i32,
    /// Change of the spacer's thickness.
    #[serde(default)]
    pub spacer_mm: f64,
    /// A place on the fit window to go to, after the steps.
    #[serde(default)]
    pub to: Option<PlaceOnWindow>,
}

/// A place on the fit window.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct PlaceOnWindow {
    pub rim_width_in: f64,
    pub offset_mm: f64,
}

impl BenchRequest {
    /// As the question that is asked.
    ///
    /// # Errors
    /// Every line that could not be read.
    pub fn read(&self) -> Result<BenchQuestion, ApiError> {
        let mut errors = FieldErrors::default();
        let step = |step: &Step| bench::Step {
            axle: step.axle.into(),
            by: Adjustment {
                offset_mm: step.offset_mm,
                width_quarter_inches: step.rim_width_quarter_in,
                spacer_mm: step.spacer_mm,
            },
            to: step.to.map(|place| (place.rim_width_in, place.offset_mm)),
        };
        let question = BenchQuestion {
            fitted: errors.pair("/fitted", &self.fitted),
            planned: errors.pair("/planned", &self.planned),
            drive: self.drive.map(Drive::from),
            tire_choice: self.tire_choice.unwrap_or_default().into(),
            steps: self.adjust.iter().map(step).collect(),
            levers: self.levers.as_ref().map(|levers| read_pair_levers(&mut errors, "/levers", levers)),
            wanted: self.wanted.as_ref().map(|wanted| read_wanted(&mut errors, "/wanted", wanted)),
        };
        errors.finish(question)
    }
}

impl From<StepRefused> for ApiError {
    fn from(StepRefused { at, error }: StepRefused) -> Self {
        Self::CannotAdjust(error, format!("/adjust/{at}"))
    }
}

/// What a setup is, with the figures that are written on the drawing.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit; the rules stand in fitment")]
pub struct SetupView {
    /// Canonical setup line.
    pub line: String,
    /// The wheel's size, `18x8.5`.
    pub wheel: Option<String>,
    /// The tire, `245/40R18 97Y`.
    pub tire: Option<String>,
    pub offset_mm: Option<f64>,
    pub effective_offset_mm: Option<f64>,
    pub spacer_mm: Option<f64>,
    pub backspacing_mm: Option<f64>,
    pub rim_diameter_mm: Option<f64>,
    pub rim_width_in: Option<f64>,
    pub rim_width_mm: Option<f64>,
    pub section_width_mm: Option<f64>,
    pub overall_diameter_mm: Option<f64>,
}

impl From<&Setup> for SetupView {
    fn from(setup: &Setup) -> Self {
        let wheel = setup.wheel;
        let offset = wheel.and_then(|wheel| wheel.offset);
        let rim = wheel.map(|wheel| wheel.diameter).or(setup.tire.map(|tire| tire.size.rim()));
        Self {
            line: setup.to_string(),
            wheel: wheel.map(|wheel| format!("{}x{}", wheel.diameter, wheel.width)),
            tire: setup.tire.map(|tire| tire.to_string()),
            offset_mm: offset.map(|offset| offset.as_mm()),
            effective_offset_mm: setup.effective_offset().map(|offset| offset.as_mm()),
            spacer_mm: setup.spacer.map(|spacer| spacer.as_mm()),
            backspacing_mm: wheel
                .zip(offset)
                .map(|(wheel, offset)| Backspacing::from_offset(wheel.width, offset).length().as_mm()),
            rim_diameter_mm: rim.map(|rim| rim.everyday().as_mm()),
            rim_width_in: wheel.map(|wheel| wheel.width.code()),
            rim_width_mm: wheel.map(|wheel| wheel.width.between_flanges().as_mm()),
            section_width_mm: setup.section_width().map(|width| width.as_mm()),
            overall_diameter_mm: setup.overall_diameter().map(fitment::Length::as_mm),
        }
    }
}

/// One axle on the bench.
#[derive(Debug, Serialize, ToSchema)]
pub struct BenchAxle {
    /// On the car.
    pub fitted: Option<SetupView>,
    /// Planned.
    pub planned: Option<SetupView>,
    /// The fitted setup, drawn.
    pub fitted_drawing: Option<Drawing>,
    /// The planned setup, drawn.
    pub planned_drawing: Option<Drawing>,
    /// What changes.
    pub change: Option<AxleChangeView>,
    /// The plan, or without one what is fitted, against what was measured.
    pub fit: Option<AxleFit>,
}

/// One axle against what was measured.
#[derive(Debug, Serialize, ToSchema)]
pub struct AxleFit {
    /// The worst line.
    pub verdict: VerdictCode,
    /// A line for each part.
    pub clearances: Vec<ClearanceView>,
    /// `tucked`, `flush` or `poke`; null while the fender lip was not read.
    pub style: Option<&'static str>,
    /// The fender line at the top of the arch.
    pub fender_line_y_mm: Option<f64>,
    /// Camber of the plan, as aligned and with what is done to the car; negative leans the top inward.
    pub camber_deg: f64,
    /// The window, narrowest rim first.
    pub window: Vec<WidthView>,
    /// What is fitted, planned and kept, as marks on the window.
    pub marks: Vec<MarkView>,
    /// The widest rim that clears and what stops the next half inch; empty while nothing was read.
    pub window_says: Vec<FragmentView>,
    /// The mildest set of levers that turns the verdict; null when nothing must be turned, or nothing known helps.
    pub proposal: Option<ProposalView>,
    /// What must still be read, the most decisive first.
    pub measure_list: Vec<MeasureView>,
}

/// What a mark on the window stands for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs, reason = "the marks by their names")]
pub enum MarkKind {
    Fitted,
    Planned,
    Kept,
}

/// A setup as a mark on the window.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MarkView {
    /// What it stands for.
    pub kind: MarkKind,
    /// A kept setup's letter.
    pub letter: Option<String>,
    /// Its rim width.
    pub rim_width_in: f64,
    /// On the window's scale: the offset that a wheel on the plan's spacer would have to stand there.
    pub offset_mm: f64,
    /// How the setup stands with its own tire.
    pub verdict: VerdictCode,
}

/// A set of levers that turns the verdict.
#[derive(Debug, Serialize, ToSchema)]
pub struct ProposalView {
    /// The setup line with it.
    pub line: String,
    /// What is then done to the car.
    pub levers: Vec<LeverAmount>,
    /// In a sentence.
    pub says: Vec<FragmentView>,
    /// What each lever of it costs elsewhere, and its caution.
    pub costs: Vec<CostView>,
    /// Whether all of it can be undone.
    pub can_be_undone: bool,
}

/// What a lever costs.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::car::lever::Facts")]
pub struct CostView {
    pub title: &'static str,
    pub costs: &'static str,
    pub caution: &'static str,
}

impl From<Mark> for MarkView {
    fn from(mark: Mark) -> Self {
        let Mark { kind, rim_width_in, offset_mm, verdict } = mark;
        let (kind, letter) = match kind {
            bench::MarkKind::Fitted => (MarkKind::Fitted, None),
            bench::MarkKind::Planned => (MarkKind::Planned, None),
            bench::MarkKind::Kept(letter) => (MarkKind::Kept, Some(letter.to_string())),
        };
        Self { kind, letter, rim_width_in, offset_mm, verdict: verdict.into() }
    }
}

impl From<(Proposal, Phrase)> for ProposalView {
    fn from((proposal, says): (Proposal, Phrase)) -> Self {
        let costs = proposal.pulled.iter().map(|(lever, _)| lever.facts());
        Self {
            line: proposal.setup.to_string(),
            levers: lever_amounts(&proposal.levers),
            says: fragments(says),
            costs: costs
                .map(|facts| CostView { title: facts.title, costs: facts.costs, caution: facts.caution })
                .collect(),
            can_be_undone: proposal.can_be_undone(),
        }
    }
}

impl AxleFit {
    /// `None` where only what moves was asked for.
    fn of(judged: JudgedAxle) -> Option<Self> {
        let JudgedAxle { fit, style, camber_deg, window, rest } = judged;
        let RestOfAxle { fender_line_y_mm, marks, proposal, measure_list } = rest?;
        Some(Self {
            verdict: fit.verdict.into(),
            clearances: fit.clearances.iter().map(ClearanceView::new).collect(),
            style: style.map(|style| style.style.word()),
            fender_line_y_mm,
            camber_deg,
            marks: marks.into_iter().map(MarkView::from).collect(),
            window_says: window::says(&window).map(fragments).unwrap_or_default(),
            window: window.into_iter().map(WidthView::from).collect(),
            proposal: proposal.map(ProposalView::from),
            measure_list: measure_list.into_iter().map(MeasureView::from).collect(),
        })
    }
}

/// A shown speed and the true one.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct TrueSpeed {
    pub shown_kmh: f64,
    pub true_kmh: f64,
}

/// True speeds at the speeds on the signs.
#[derive(Debug, Serialize, ToSchema)]
pub struct TrueSpeeds {
    /// Which axle's tire the dial was taken to follow.
    pub by_axle: AxleCode,
    /// At 50, 100 and 130 km/h.
    pub metric: Vec<TrueSpeed>,
    /// At 30, 60 and 80 mph.
    pub imperial: Vec<TrueSpeed>,
}

/// A plan in a few words.
#[derive(Debug, Serialize, ToSchema)]
pub struct HeadlineView {
    /// How it stands.
    pub standing: StandingCode,
    /// What the plan comes to.
    pub word: OutcomeCode,
    /// In words, with metric figures.
    pub says: String,
    /// The same with its figures apart, to be shown in the reader's units.
    pub sentence: Vec<FragmentView>,
    /// What stands against it or must go with it, the worst first.
    pub causes: Vec<CauseView>,
    /// How many conditions are among them.
    pub conditions: usize,
    /// By which use it was judged.
    pub judged_for: String,
}

by_code! {
    /// What a plan comes to.
    OutcomeCode(Outcome)
}

/// One thing that stands against a plan, or must go with it.
#[derive(Debug, Serialize, ToSchema)]
pub struct CauseView {
    /// What it is about.
    pub topic: TopicCode,
    /// How it stands.
    pub kind: KindCode,
    /// On which axle; null for both and for the car as a whole.
    pub axle: Option<AxleCode>,
    /// The line of the ledger that says it.
    pub code: LedgerCode,
    /// In a sentence.
    pub says: Vec<FragmentView>,
    /// Its figure.
    pub figure: Option<QuantityView>,
    /// What clears it; null where nothing was sought or found.
    pub mend: Option<Vec<FragmentView>>,
    /// The other lines that come from the same thing.
    pub consequences: Vec<LedgerCode>,
}

impl From<Cause> for CauseView {
    fn from(cause: Cause) -> Self {
        Self {
            topic: TopicCode(cause.topic),
            kind: KindCode(cause.kind),
            axle: cause.axle.map(AxleCode::from),
            code: LedgerCode(cause.code),
            says: fragments(cause.says),
            figure: cause.figure.map(QuantityView::from),
            mend: cause.mend.map(fragments),
            consequences: cause.consequences.into_iter().map(LedgerCode).collect(),
        }
    }
}

/// A plan drawn and judged.
#[derive(Debug, Serialize, ToSchema)]
pub struct Bench {
    /// The planned lines, canonical, after the steps.
    pub planned: Lines,
    /// Front and rear.
    pub axles: PerAxle<BenchAxle>,
    /// What changes between the axles.
    pub pair: PairChangeView,
    /// Square or staggered; null until both axles are planned.
    pub arrangement: Option<ArrangementCode>,
    /// True speeds; null while a tire is not stated.
    pub true_speeds: Option<TrueSpeeds>,
    /// The plan in a few words.
    pub headline: HeadlineView,
    /// What it counts as done to the car.
    pub work: Vec<WorkView>,
    /// What must still be read on both axles, by what one reading answers.
    pub measure: Vec<MeasureGroupView>,
    /// The ledger.
    pub ledger: Vec<LineOfLedger>,
}

impl From<AxleAnswer> for BenchAxle {
    fn from(axle: AxleAnswer) -> Self {
        Self {
            fitted: axle.fitted.as_ref().map(SetupView::from),
            planned: axle.planned.as_ref().map(SetupView::from),
            fitted_drawing: axle.fitted.as_ref().and_then(Drawing::new),
            planned_drawing: axle.planned.as_ref().and_then(Drawing::new),
            change: axle.change.as_ref().map(AxleChangeView::from),
            fit: axle.judged.and_then(AxleFit::of),
        }
    }
}

impl From<BenchAnswer> for Bench {
    fn from(answer: BenchAnswer) -> Self {
        let to_read = |axle: &AxleAnswer| {
            let rest = axle.judged.as_ref().and_then(|judged| judged.rest.as_ref());
            rest.map_or_else(Vec::new, |rest| rest.measure_list.clone())
        };
        let on_both = [&answer.axles.front, &answer.axles.rear].into_iter().flat_map(to_read).collect();
        Self {
            work: work_of(&answer.levers),
            headline: HeadlineView::of(answer.headline, answer.judged_for),
            planned: Lines::from(&answer.planned),
            measure: measure_groups(on_both),
            axles: PerAxle { front: answer.axles.front.into(), rear: answer.axles.rear.into() },
            pair: PairChangeView::from(&answer.pair),
            arrangement: answer.planned.arrangement().map(ArrangementCode::from),
            true_speeds: answer.true_speeds.map(TrueSpeeds::from),
            ledger: answer.ledger.into_iter().map(LineOfLedger::from).collect(),
        }
    }
}

impl HeadlineView {
    /// A headline, judged for a use.
    pub fn of(headline: Headline, judged_for: String) -> Self {
        Self {
            standing: headline.severity.into(),
            word: OutcomeCode(headline.outcome),
            says: headline.says.to_string(),
            conditions: headline.conditions(),
            judged_for,
            sentence: fragments(headline.says),
            causes: headline.causes.into_iter().map(CauseView::from).collect(),
        }
    }
}

impl From<bench::TrueSpeeds> for TrueSpeeds {
    fn from(speeds: bench::TrueSpeeds) -> Self {
        let at = |speeds: [(f64, f64); 3]| {
            speeds.map(|(shown_kmh, true_kmh)| TrueSpeed { shown_kmh, true_kmh }).into()
        };
        Self { by_axle: speeds.by_axle.into(), metric: at(speeds.metric), imperial: at(speeds.imperial) }
    }
}

/// A setup beside others: what is on the car, what is kept, what is on the bench.
#[derive(Debug, Serialize, ToSchema)]
pub struct Column {
    /// The candidate's letter; null for what is fitted and for what is on the bench.
    pub letter: Option<String>,
    /// What the advisor says about it.
    pub note: String,
    /// Canonical lines.
    pub lines: Lines,
    /// The setups.
    pub setups: PerAxle<Option<SetupView>>,
    /// What changes against the fitted setup.
    pub change: PerAxle<Option<AxleChangeView>>,
    /// What changes between the axles.
    pub pair: PairChangeView,
    /// Square or staggered.
    pub arrangement: Option<ArrangementCode>,
    /// True speeds.
    pub true_speeds: Option<TrueSpeeds>,
    /// How it stands against what was measured.
    pub fit: PerAxle<Option<ColumnFit>>,
    /// What it counts as done to the car.
    pub work: Vec<WorkView>,
    /// The wheels it is made of, as picked.
    pub wheels: PerAxle<Option<PartView>>,
    /// The tires it is made of, as picked.
    pub tires: PerAxle<Option<PartView>>,
    /// What it costs by the rows that were picked; null while none was.
    pub price: Option<PriceView>,
    /// The ledger.
    pub ledger: Vec<LineOfLedger>,
}

/// What a set costs.
#[derive(Debug, Serialize, ToSchema)]
pub struct PriceView {
    /// Of what has a price.
    pub amount: f64,
    /// Whether all four wheels and tires have one.
    pub is_whole: bool,
}

impl From<SetPrice> for PriceView {
    fn from(price: SetPrice) -> Self {
        Self { amount: price.hundredths as f64 / 100.0, is_whole: price.is_whole }
    }
}

/// One axle of a column against what was measured, in short.
#[derive(Debug, Serialize, ToSchema)]
pub struct ColumnFit {
    /// The worst line.
    pub verdict: VerdictCode,
    /// The measured part with least to spare over its limit; null while nothing was measured.
    pub tightest: Option<ClearanceView>,
    /// `tucked`, `flush` or `poke`; null while the fender lip was not read.
    pub style: Option<&'static str>,
}

impl From<compare::ColumnFit> for ColumnFit {
    fn from(fit: compare::ColumnFit) -> Self {
        Self {
            verdict: fit.verdict.into(),
            tightest: fit.tightest.as_ref().map(ClearanceView::new),
            style: fit.style,
        }
    }
}

impl From<compare::Column> for Column {
    fn from(column: compare::Column) -> Self {
        let AxlePair { front: front_wheel, rear: rear_wheel } = column.wheels;
        let AxlePair { front: front_tire, rear: rear_tire } = column.tires;
        let wheel = |row: Option<WheelRow>| row.as_ref().map(|row| PartView::of_wheel(row, ""));
        let tire = |row: Option<TireRow>| row.as_ref().map(|row| PartView::of_tire(row, ""));
        let AxlePair { front: front_fit, rear: rear_fit } = column.fits;
        let setup = |axle| column.setups.on(axle).as_ref().map(SetupView::from);
        let change = |axle| column.changes.on(axle).as_ref().map(AxleChangeView::from);
        Self {
            letter: column.letter.map(String::from),
            note: column.note,
            lines: Lines::from(&column.pair),
            setups: PerAxle { front: setup(Axle::Front), rear: setup(Axle::Rear) },
            change: PerAxle { front: change(Axle::Front), rear: change(Axle::Rear) },
            pair: PairChangeView::from(&column.between),
            arrangement: column.pair.arrangement().map(ArrangementCode::from),
            true_speeds: column.true_speeds.map(TrueSpeeds::from),
            fit: PerAxle { front: front_fit.map(ColumnFit::from), rear: rear_fit.map(ColumnFit::from) },
            work: work_of(&column.levers),
            wheels: PerAxle { front: wheel(front_wheel), rear: wheel(rear_wheel) },
            tires: PerAxle { front: tire(front_tire), rear: tire(rear_tire) },
            price: column.price.map(PriceView::from),
            ledger: column.ledger.into_iter().map(LineOfLedger::from).collect(),
        }
    }
}

impl From<compare::SideBySide> for SideBySide {
    fn from(all: compare::SideBySide) -> Self {
        Self {
            fitted: all.fitted.into(),
            bench: all.bench.map(Column::from),
            candidates: all.candidates.into_iter().map(Column::from).collect(),
        }
    }
}

/// A job's setups side by side.
#[derive(Debug, Serialize, ToSchema)]
pub struct SideBySide {
    /// On the car.
    pub fitted: Column,
    /// On the bench, when it is not one of the candidates.
    pub bench: Option<Column>,
    /// Kept.
    pub candidates: Vec<Column>,
}
