//! Parts that nobody read, and which of them decide.

use super::{Clearance, MountedSetup, Verdict, nearer_by, uncertainty};
use crate::car::corner::{Carrier, Feature, STEEL_RULE, TryOn};
use crate::judgement::case::AxleCase;
use crate::setup::Axle;
use crate::values::length::Length;

/// A part that nobody read and that the plan comes nearer to than anything that ran clean.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Unread {
    /// The part.
    pub feature: Feature,
    /// How much nearer the plan comes, in millimetres; `None` where that cannot be said before it is measured (another
    /// wheel's spokes).
    pub nearer_mm: Option<f64>,
    /// The gap that must be found with the fitted wheel for the plan to clear.
    pub must_find: Option<Length>,
    /// How likely it is to decide the plan, 0 to 1.
    pub power: f64,
}

/// From this power on an unread part decides: more often than not such a gap turns out too small.
pub const DECIDES_FROM: f64 = 0.5;
/// How likely another wheel's spokes are to decide. A judgement of ours.
const OTHER_SPOKES: f64 = 0.4;

impl Unread {
    /// Whether it decides more often than not.
    pub fn decides(&self) -> bool {
        self.power > DECIDES_FROM
    }
}

/// What ran clean on the car, each placed, and so cut, once.
pub(super) struct RanClean<'a> {
    fitted: Option<MountedSetup>,
    tries: Vec<(&'a TryOn, MountedSetup)>,
}

impl RanClean<'_> {
    /// As far as it proves room to a part: a trial with the wheel straight says nothing of full lock, one with the wheel
    /// hanging nothing of the body, a bare wheel nothing of where a tire reaches.
    fn of(&self, feature: Feature) -> impl Iterator<Item = &MountedSetup> {
        let clean = self.tries.iter().filter(move |(tried, _)| {
            (!feature.facts().at_lock || tried.steer.is_at_lock())
                && (!tried.is_hanging || feature.carrier() == Carrier::Upright)
                && (tried.setup.tire.is_some() || feature.is_of_the_brake())
        });
        self.fitted.iter().chain(clean.map(|(_, stand)| stand))
    }
}

/// What ran clean on the car: the fitted set, which is driven, and trials that met nothing.
pub(super) fn ran_clean<'a>(case: &'a AxleCase<'_>) -> RanClean<'a> {
    let camber = case.corner.camber();
    let tries = &case.evidence.tries;
    let clean = tries.iter().filter(|tried| {
        tried.ran_clean() && !tries.iter().any(|other| other.setup == tried.setup && other.touched())
    });
    RanClean {
        fitted: MountedSetup::of(case.fitted, camber),
        tries: clean.filter_map(|tried| Some((tried, MountedSetup::of(&tried.setup, camber)?))).collect(),
    }
}

/// Every part of this axle that nobody read and that the plan comes nearer to than what ran clean.
pub(super) fn unread(case: &AxleCase<'_>, stand: &MountedSetup) -> Vec<Unread> {
    let clean = ran_clean(case);
    Feature::ALL
        .into_iter()
        .filter(|feature| feature.is_read_on(case.axle) && !case.resolved.knows(*feature))
        .filter_map(|feature| unread_part(case, feature, stand, &clean))
        .collect()
}

pub(super) fn unread_part(
    case: &AxleCase<'_>,
    feature: Feature,
    stand: &MountedSetup,
    clean: &RanClean<'_>,
) -> Option<Unread> {
    let mut nearest: Option<f64> = None;
    let mut is_said = false;
    for proven in clean.of(feature) {
        is_said = true;
        if let Some(nearer) = nearer_by(case, feature, proven, stand) {
            nearest = Some(nearest.map_or(nearer, |least: f64| least.min(nearer)));
        }
    }
    if !is_said {
        return None;
    }
    let Some(nearer) = nearest else {
        return Some(Unread { feature, nearer_mm: None, must_find: None, power: OTHER_SPOKES });
    };
    if nearer <= 0.0 {
        return None;
    }
    let must_find = must_find(case, feature, nearer, stand);
    let (usual, spread) = feature.facts().usual_mm;
    // The chance that a usual car has less: a logistic curve is near enough to a normal one.
    let power = 1.0 / (1.0 + (-1.702 * (must_find.as_mm() - usual) / spread).exp());
    Some(Unread { feature, nearer_mm: Some(nearer), must_find: Some(must_find), power })
}

/// On a steered axle where the plan reaches further and nothing was read at lock: the part there that most likely
/// decides.
pub(super) fn deciding_at_lock(case: &AxleCase<'_>, unread: &[Unread]) -> Option<Feature> {
    let at_lock = |feature: Feature| feature.facts().at_lock;
    let known = Feature::ALL.into_iter().any(|feature| at_lock(feature) && case.resolved.knows(feature));
    if case.axle != Axle::Front || known {
        return None;
    }
    let of_lock = unread.iter().filter(|one| at_lock(one.feature));
    of_lock.max_by(|a, b| a.power.total_cmp(&b.power)).map(|one| one.feature)
}

/// A line that says what must be measured.
pub(super) fn line_to_measure(case: &AxleCase<'_>, one: &Unread) -> Clearance {
    Clearance {
        feature: one.feature,
        obstacle: None,
        drawn_at: None,
        band: None,
        as_read: None,
        limit: case.least(one.feature),
        verdict: Verdict::MeasureFirst,
        must_find: one.must_find,
        past_the_lip: None,
    }
}

/// Whether the plan comes nearer to no part than what ran clean.
pub(super) fn comes_no_nearer(case: &AxleCase<'_>, stand: &MountedSetup) -> bool {
    let clean = ran_clean(case);
    let read_here = Feature::ALL.into_iter().filter(|feature| feature.is_read_on(case.axle));
    let mut unknown = read_here.filter(|feature| !case.resolved.knows(*feature));
    clean.fitted.is_some() && unknown.all(|feature| unread_part(case, feature, stand, &clean).is_none())
}

/// The gap that must be found with the fitted wheel, read with a steel rule, for the plan to clear.
pub fn must_find(case: &AxleCase<'_>, feature: Feature, nearer_by_mm: f64, planned: &MountedSetup) -> Length {
    let usual = case.resolved.typical_gaps.of(feature, case.corner, case.fitted);
    let likely = usual.and_then(|usual| uncertainty(case, &usual, planned));
    let likely = likely.map_or(STEEL_RULE, |band| band.likely());
    Length::mm(nearer_by_mm) + case.least(feature) + likely
}
