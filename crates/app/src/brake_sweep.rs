//! A catalogue's wheels over a job's brakes, with the ledger's own word.

use fitment::judgement::clearance::brake::brake_verdict;
use std::collections::{HashMap, HashSet};
use std::hash::{DefaultHasher, Hash, Hasher};

use fitment::car::brake::{Limits, ProfileSource, SpacerStep, verdict};
use fitment::judgement::case::{AxleCase, AxleEvidence, Needs};
use fitment::judgement::rules::mount;
use fitment::setup::catalogue::WheelRow;
use fitment::setup::{Axle, Setup, SetupPair};
use store::jobs::JobContent;

use crate::JudgingContext;
use crate::evidence::package_of;

/// A wheel of the catalogue over the brakes.
#[derive(Debug, Clone)]
pub struct SweptWheel {
    /// Its number in the catalogue.
    pub row: u32,
    /// Its line.
    pub line: String,
    /// As a setup line.
    pub setup: String,
    /// Where its inside is from.
    pub source: ProfileSource,
    /// Its gaps without a spacer, and how it stands.
    pub found: SpacerStep,
}

/// Which wheels are asked.
#[derive(Debug, Clone, Copy)]
pub struct SweepQuestion {
    /// On which axle.
    pub axle: Axle,
    /// Against the profiles of a planned upgrade, where there are some.
    pub planned_brakes: bool,
}

impl SweepQuestion {
    /// What an answer is worked out from, as a number: the same number, the same answer.
    pub fn key(self, content: &JobContent, context: &JudgingContext) -> u64 {
        let mut hasher = DefaultHasher::new();
        // Debug names every figure at full precision, and this is asked for once a page.
        format!("{self:?}{:?}{:?}{:?}", content.workshop, context.state, context.limits).hash(&mut hasher);
        format!("{:?}", content.fitted).hash(&mut hasher);
        hasher.finish()
    }

    /// Each line's size that goes on the hub, smallest rim first. `tell` is told how many rows were looked at.
    pub fn sweep(
        self,
        content: &JobContent,
        context: &JudgingContext,
        rows: &[WheelRow],
        mut tell: impl FnMut(usize),
    ) -> Vec<SweptWheel> {
        let nothing = SetupPair::default();
        let case = context.case(&content.fitted, &nothing, content.drive);
        let needs = Needs::of(&content.measurements.car, &content.fitted);
        let limits = Limits::from(&context.limits);
        let package = package_of(&content.workshop, self.axle, self.planned_brakes).0;
        let evidence = AxleEvidence { package, ..context.state.evidence.on(self.axle).clone() };
        let trial = case.axle(self.axle).map(|trial| AxleCase { evidence: &evidence, ..trial });
        // Like insides are asked once: a line's own where it was measured, else the size alone.
        let mut known = HashMap::new();
        let mut seen = HashSet::new();
        let mut all = Vec::new();
        for (count, row) in rows.iter().enumerate() {
            if count % 1000 == 0 {
                tell(count);
            }
            let wheel = row.wheel.placed();
            if !mount::goes_on(&needs, self.axle, row) || !seen.insert((&row.line, wheel.to_string())) {
                continue;
            }
            let own_line = evidence.has_inside_of(&wheel, &row.line).then_some(&row.line);
            let key = (own_line, wheel.diameter, wheel.width, wheel.offset);
            let found = known.entry(key).or_insert_with(|| {
                let inside = evidence.inside(&wheel, Some(&row.line))?;
                let gaps = verdict(&evidence.package, &inside, limits);
                let setup = Setup { wheel: Some(wheel), ..Setup::default() };
                let word = trial.as_ref().and_then(|trial| brake_verdict(trial, &setup, Some(&row.line)));
                Some((inside.source, SpacerStep { verdict: word.unwrap_or(gaps.verdict), ..gaps }))
            });
            if let Some((source, found)) = found {
                let order = (wheel.diameter, wheel.width, wheel.offset.map(|offset| -offset.as_mm() as i64));
                let (line, setup) = (row.line.to_string(), row.wheel.to_string());
                all.push((order, SweptWheel { row: row.id, line, setup, source: *source, found: *found }));
            }
        }
        all.sort_by(|a, b| a.0.cmp(&b.0).then_with(|| a.1.line.cmp(&b.1.line)));
        all.into_iter().map(|(_, wheel)| wheel).collect()
    }
}
