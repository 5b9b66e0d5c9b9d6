//! A plan turned and travelling past the parts that were read.
//!
//! - [`places`]: where each part stands in space, and what moves it.
//! - [`judged`]: how near the wheel comes to a part, how sure that is, and the word for it.
//! - `moved_corner`: what may be off of a corner in motion.
//! - [`words`]: a part in a sentence.
//! - [`window`]: the fit window that clears on the road as well as standing.
//! - [`remedies`]: what turns the verdict.
//! - [`lift`]: how tall a tire goes on at each height of lift.

mod judged;
pub mod lift;
mod moved_corner;
mod places;
pub mod remedies;
mod stretch;
mod window;
mod words;

pub use judged::SweptPart;
pub use places::{PartInSpace, parts_in_space};
pub use stretch::{Stretch, Stretched};
pub use window::window_in_motion;

use crate::car::corner::{Feature, Moving};
use crate::car::motion::axis::SCRUB_MATTERS_MM;
use crate::car::motion::sweep::GRID;
use crate::car::motion::{DistanceField, Envelope, MovingWheel, Pose, Reach, Sweep};
use crate::car::section::Added;
use crate::judgement::case::AxleCase;
use crate::judgement::clearance::Verdict;
use crate::setup::Setup;
use crate::values::working::Phrase;

/// What a plan is swept over.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Usage {
    /// Which poses are reached.
    pub envelope: Envelope,
    /// What is on the tire meanwhile.
    pub added: Added,
}

impl From<Envelope> for Usage {
    fn from(envelope: Envelope) -> Self {
        Self { envelope, added: Added::default() }
    }
}

/// A plan in motion.
#[derive(Debug, Clone, PartialEq)]
pub struct SweptAxle {
    /// The planned wheel, with what is on its tire.
    pub wheel: MovingWheel,
    /// How far the axle reaches.
    pub reach: Reach,
    /// What of it was taken as usual.
    pub assumed: Vec<&'static str>,
    /// The poses of the map, row by row from full droop to full bump, each from full inward to full outward lock.
    pub poses: Vec<Pose>,
    /// The parts, the tightest over its limit first.
    pub parts: Vec<SweptPart>,
    /// The worst of them; "measure first" while nothing that moves was read.
    pub verdict: Verdict,
    /// Scrub radius and trail with what is fitted and with the plan; `None` where the axle does not steer.
    pub on_the_ground: Option<[(f64, f64); 2]>,
    /// What must be minded of it, in sentences.
    pub says: Vec<Phrase>,
}

/// A plan ready to be swept: everything that a part is judged with.
#[derive(Debug, Clone, Copy)]
pub(super) struct SweepContext<'a> {
    case: &'a AxleCase<'a>,
    moving: &'a Moving,
    planned: &'a Setup,
    wheel: &'a MovingWheel,
    field: &'a DistanceField<'a>,
    reach: Reach,
    usage: Usage,
}

impl SweepContext<'_> {
    fn sweep(&self, reach: Reach, envelope: Envelope, least_mm: f64) -> Sweep<'_> {
        let &Self { field, wheel, .. } = self;
        let &MovingWheel { center_y, kinematics, .. } = wheel;
        Sweep { field, center_y, kinematics, reach, envelope, least_mm }
    }
}

impl AxleCase<'_> {
    /// A plan swept over what a use of the car reaches; `None` while wheel, offset or tire of plan or fitted set is missing.
    pub fn sweep(&self, planned: &Setup, usage: &Usage) -> Option<SweptAxle> {
        with_sweep_context(self, planned, usage, |context| {
            // The map shows all that the axle reaches, whatever the use.
            let poses = context.sweep(context.reach, Envelope::All, 0.0).poses().split_off(1);
            let fit = self.fit(planned);
            let parts = context.parts(fit.as_ref());
            // No better word than standing still: what nobody read, and what decides, is measured first.
            let standing = fit.map_or(Verdict::MeasureFirst, |fit| fit.verdict);
            let nothing_read = if parts.is_empty() { Verdict::MeasureFirst } else { Verdict::Clears };
            let verdict = parts.iter().map(|one| one.verdict).fold(standing.max(nothing_read), Verdict::max);
            let &SweepContext { wheel, moving, reach, .. } = context;
            let on_the_ground = moving.steering.zip(wheel.scrub_radius_mm.zip(wheel.trail_mm));
            let on_the_ground = on_the_ground
                .map(|(steering, planned)| [(steering.scrub_radius_mm, steering.trail_mm), planned]);
            let says = on_the_ground.and_then(scrub_matters).into_iter().collect();
            let assumed = moving.assumed.clone();
            SweptAxle { wheel: wheel.clone(), reach, assumed, poses, parts, verdict, on_the_ground, says }
        })
    }
}

fn moving_wheel(case: &AxleCase<'_>, planned: &Setup, moving: &Moving, usage: &Usage) -> Option<MovingWheel> {
    let steering = moving.steering.as_ref();
    let camber = case.planned_camber();
    let mut wheel = MovingWheel::of(case.fitted, planned, steering, camber, &moving.travel)?;
    // A tire that stays on the car is as somebody measured it.
    let stays = case.evidence.keeps.tire.unwrap_or(planned.tire == case.fitted.tire);
    if stays && case.corner.is_fitted_tire_measured() {
        wheel.outline = case.corner.cut_of_fitted(planned)?.nominal().clone();
    }
    if !usage.added.is_nothing() {
        wheel.outline = usage.added.on(&wheel.outline, wheel.flange_top_r);
    }
    Some(wheel)
}

/// Asks something of a plan that is ready to be swept; `None` while wheel, offset or tire of plan or fitted set is missing.
fn with_sweep_context<T>(
    case: &AxleCase<'_>,
    planned: &Setup,
    usage: &Usage,
    ask: impl FnOnce(&SweepContext<'_>) -> T,
) -> Option<T> {
    let moving = case.moving();
    let wheel = moving_wheel(case, planned, &moving, usage)?;
    let field = DistanceField::of(&wheel.outline);
    let reach = case.reach(&moving);
    let (case, moving, wheel, field, usage) = (case, moving.as_ref(), &wheel, &field, *usage);
    Some(ask(&SweepContext { case, moving, planned, wheel, field, reach, usage }))
}

/// A change of scrub radius that must be minded.
fn scrub_matters([(before, _), (after, _)]: [(f64, f64); 2]) -> Option<Phrase> {
    ((after - before).abs() > SCRUB_MATTERS_MM).then(|| {
        Phrase::new(format!(
            "Scrub radius goes from {before:.0} to {after:.0} mm: the steering pulls harder under braking on split grip, and the bearings carry more."
        ))
    })
}

impl SweptAxle {
    /// What was found of a part. Lip and arch are one edge of metal: where both were read they are one part, the lip's.
    pub fn part(&self, feature: Feature) -> Option<&SweptPart> {
        let is = |wanted: Feature| self.parts.iter().find(move |one| one.part.feature == wanted);
        match feature {
            Feature::Arch => is(Feature::Arch)
                .or_else(|| is(Feature::FenderLateral).filter(|one| one.part.is_with_the_arch)),
            other => is(other),
        }
    }

    /// The worst of each stretch: by its word, then by how much is left over the house's least.
    pub fn worst(&self) -> impl Iterator<Item = (&SweptPart, &Stretched)> {
        Stretch::ALL.iter().filter_map(|stretch| {
            let all = self.parts.iter().filter_map(|part| Some((part, part.over(*stretch)?)));
            let left =
                |(part, one): &(&SweptPart, &Stretched)| one.room_mm - one.plus_minus_mm - part.part.least_mm;
            all.min_by(|a, b| b.1.verdict.cmp(&a.1.verdict).then(left(a).total_cmp(&left(b))))
        })
    }

    /// The outline of what a use reaches on the map: steer and travel, round it once.
    pub fn bounds(&self, envelope: Envelope) -> Vec<Pose> {
        let (down, up) = self.reach.travel(envelope);
        let rows = GRID.1 as u32;
        let travels = (0..rows).map(|at| down + (up - down) * f64::from(at) / f64::from(rows - 1));
        let sides: Vec<(Pose, Pose)> = travels
            .map(|travel_mm| {
                let (inward, outward) = self.reach.steer(envelope, travel_mm);
                (Pose { steer_deg: inward, travel_mm }, Pose { steer_deg: outward, travel_mm })
            })
            .collect();
        let back = sides.iter().rev().map(|(inward, _)| *inward);
        sides.iter().map(|(_, outward)| *outward).chain(back).collect()
    }
}
