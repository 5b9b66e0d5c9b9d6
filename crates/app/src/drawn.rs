//! Drawn cases for a line of a ledger whose word depends on how what may be off is added.

use fitment::car::corner::Feature;
use fitment::judgement::case::AxleCase;
use fitment::judgement::clearance::{CASES, Drawn, MountedSetup, drawn};
use fitment::setup::Setup;
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use rand_distr::StandardNormal;

/// The same line is told the same every time.
const SEED: u64 = 101;

/// What drawn cases say of a part with a plan; `None` where its word is the same either way, or it was not read.
pub fn drawn_for(case: &AxleCase<'_>, planned: &Setup, feature: Feature) -> Option<Drawn> {
    let fit = case.fit(planned)?;
    let line = fit.line(feature).filter(|line| line.is_bent())?;
    let stand = MountedSetup::of(planned, case.planned_camber())?;
    let mut rng = StdRng::seed_from_u64(SEED);
    let normal = || rng.sample(StandardNormal);
    drawn(case, line.obstacle.as_ref()?, &stand, CASES, normal)
}
