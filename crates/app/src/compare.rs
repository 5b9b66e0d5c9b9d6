//! A job's setups side by side: what is on the car, what is kept, what is on the bench.

use fitment::answers::ledger::Line;
use fitment::car::lever::PairLevers;
use fitment::car::limits::HouseLimits;
use fitment::judgement::clearance::{Clearance, JudgedCase, Verdict, style};
use fitment::setup::catalogue::{TireRow, WheelRow};
use fitment::setup::change::{AxleChange, PairChange};
use fitment::setup::{Axle, PerAxle, Setup, SetupPair};
use fitment::values::date_code::Day;
use store::jobs::{Candidate, JobContent};
use store::workshop::WheelTemplate;

use crate::bench::{TrueSpeeds, tightest, true_speeds};
use crate::picked::{SetPrice, price_of};
use crate::{JobKnowledge, JudgingContext};

/// The columns.
#[derive(Debug)]
pub struct SideBySide {
    /// On the car, with nothing done to it.
    pub fitted: Column,
    /// On the bench, when it is not one of the candidates.
    pub bench: Option<Column>,
    /// Kept.
    pub candidates: Vec<Column>,
}

/// A setup beside others, judged against what is fitted.
#[derive(Debug)]
pub struct Column {
    /// The candidate's letter; `None` for what is fitted and for what is on the bench.
    pub letter: Option<char>,
    /// What the advisor says about it.
    pub note: String,
    /// As it was typed.
    pub pair: SetupPair,
    /// The setups, with what the lists say of the picked rows.
    pub setups: PerAxle<Option<Setup>>,
    /// What changes against the fitted setup.
    pub changes: PerAxle<Option<AxleChange>>,
    /// What changes between the axles.
    pub between: PairChange,
    /// True speeds.
    pub true_speeds: Option<TrueSpeeds>,
    /// How it stands against what was measured.
    pub fits: PerAxle<Option<ColumnFit>>,
    /// What it counts as done to the car.
    pub levers: PairLevers,
    /// The wheels it is made of, as picked.
    pub wheels: PerAxle<Option<WheelRow>>,
    /// The tires it is made of, as picked.
    pub tires: PerAxle<Option<TireRow>>,
    /// What it costs by the rows that were picked; `None` while none was.
    pub price: Option<SetPrice>,
    /// The ledger.
    pub ledger: Vec<Line>,
}

/// One axle of a column against what was measured, in short.
#[derive(Debug)]
pub struct ColumnFit {
    /// The worst line.
    pub verdict: Verdict,
    /// The measured part with least to spare over its limit; `None` while nothing was measured.
    pub tightest: Option<Clearance>,
    /// At the fender line, in a word; `None` while the lip was not read.
    pub style: Option<&'static str>,
}

/// Whether a kept setup is the very plan on the bench: the same setups on the same work.
pub fn is_same_plan(kept: &Candidate, content: &JobContent) -> bool {
    kept.setups == content.planned && kept.levers == content.measurements.levers
}

impl SideBySide {
    /// Of a job, under the house's limits, on a day, with the insides of wheels that the house has measured.
    pub fn of(content: &JobContent, insides: Vec<WheelTemplate>, limits: HouseLimits, today: Day) -> Self {
        let known = JobKnowledge::of(content, insides);
        let column = |letter, note: &str, pair: &SetupPair, known: &JobKnowledge| {
            Column::of(letter, note, content, pair, &JudgingContext::of(known, limits, today))
        };
        let is_kept = content.candidates.iter().any(|kept| is_same_plan(kept, content));
        let is_there = content.planned != SetupPair::default();
        let mut as_it_stands = known.clone();
        as_it_stands.measurements.levers = PairLevers::default();
        let kept =
            |one: &Candidate| column(Some(one.letter), &one.note, &one.setups, &known.with_candidate(one));
        Self {
            fitted: column(None, "", &content.fitted, &as_it_stands),
            bench: (is_there && !is_kept).then(|| column(None, "", &content.planned, &known)),
            candidates: content.candidates.iter().map(kept).collect(),
        }
    }
}

impl Column {
    fn of(
        letter: Option<char>,
        note: &str,
        content: &JobContent,
        pair: &SetupPair,
        context: &JudgingContext,
    ) -> Self {
        let plan = context.case(&content.fitted, pair, content.drive);
        let judged = JudgedCase::of(&plan);
        let parts = &context.state.parts;
        let fit = |axle: Axle| {
            let (case, setup, fit) = (plan.axle(axle)?, plan.planned.on(axle)?, judged.fit(axle)?);
            Some(ColumnFit {
                verdict: fit.verdict,
                tightest: tightest(fit).cloned(),
                style: style(&case, setup).map(|style| style.style.word()),
            })
        };
        Self {
            letter,
            note: note.to_owned(),
            pair: *pair,
            setups: PerAxle::of(|axle| plan.planned.on(axle).copied()),
            changes: PerAxle::of(|axle| plan.change(axle).cloned()),
            between: plan.pair_change(),
            true_speeds: true_speeds(&plan),
            fits: PerAxle::of(fit),
            levers: context.state.levers,
            wheels: PerAxle::of(|axle| parts.wheel_of(pair.on(axle)?).cloned()),
            tires: PerAxle::of(|axle| parts.tire_of(pair.on(axle)?).cloned()),
            price: price_of(parts, pair),
            ledger: plan.ledger_of(&judged),
        }
    }
}
