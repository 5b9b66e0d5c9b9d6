//! How near a wheel comes to a part over what a use reaches, how sure that is, and the word for it.

use rayon::prelude::*;

use super::moved_corner::MovedCorner;
use super::places::parts_in_space;
use super::stretch::{Stretch, Stretched};
use super::words::says;
use super::{PartInSpace, SweepContext};
use crate::car::corner::Feature;
use crate::car::motion::{Carried, CloudAnswer, CloudMap, DistanceField, Pose};
use crate::judgement::clearance::{Fit, Verdict};
use crate::values::length::Length;
use crate::values::working::Phrase;

/// What a sweep says of a part.
#[derive(Debug, Clone, PartialEq)]
pub struct SweptPart {
    /// The part.
    pub part: PartInSpace,
    /// What was found over all that the use reaches.
    pub found: CloudAnswer,
    /// Stretch by stretch, in their order; at lock only where the axle steers.
    pub stretches: Vec<Stretched>,
    /// The worst word of them.
    pub verdict: Verdict,
    /// Its room in every pose of the map.
    pub map: Vec<f64>,
    /// In a sentence.
    pub says: Phrase,
}

impl SweptPart {
    /// One stretch.
    pub fn over(&self, stretch: Stretch) -> Option<&Stretched> {
        self.stretches.iter().find(|one| one.stretch == stretch)
    }

    /// Its name in a sentence.
    pub fn name(&self) -> &'static str {
        self.part.name()
    }

    /// Whether it is touched or comes too near over any stretch, whatever must still be measured of another.
    pub fn rules_out(&self) -> bool {
        self.stretches.iter().any(|one| one.verdict.rules_out())
    }

    /// How much less the room likely is at most, over all that the use reaches.
    pub fn plus_minus_mm(&self) -> f64 {
        self.over(Stretch::Together).map_or(self.part.plus_minus_mm, |one| one.plus_minus_mm)
    }

    /// The room from which on it clears: the house's least, and what the room may be less.
    pub fn clears_from(&self) -> f64 {
        self.part.least_mm + self.plus_minus_mm()
    }

    /// What is left over of the room; negative where it is short.
    pub fn left_mm(&self) -> f64 {
        self.found.least_mm - self.clears_from()
    }
}

impl SweepContext<'_> {
    /// Every part that was read, judged; of the places of one part only the tightest. The tightest part over its limit first.
    pub(super) fn parts(&self, fit: Option<&Fit>) -> Vec<SweptPart> {
        let parts = parts_in_space(self.case, self.moving, self.planned);
        let &Self { case, moving, planned, wheel, reach, usage, .. } = self;
        // Each thread has distances of its own: they are worked out as they are asked for.
        let share = parts.len().div_ceil(rayon::current_num_threads()).max(1);
        let judged: Vec<Option<SweptPart>> = parts
            .par_chunks(share)
            .flat_map_iter(|some| {
                let field = DistanceField::of(&wheel.outline);
                let context = SweepContext { case, moving, planned, wheel, field: &field, reach, usage };
                some.iter().map(|part| context.judged(part.clone(), fit)).collect::<Vec<_>>()
            })
            .collect();
        let mut swept: Vec<SweptPart> = Vec::new();
        for one in judged.into_iter().flatten() {
            match swept.iter_mut().find(|other| other.part.feature == one.part.feature) {
                Some(other) if one.left_mm() < other.left_mm() => *other = one,
                Some(_) => {}
                None => swept.push(one),
            }
        }
        swept.sort_by(|a, b| a.left_mm().total_cmp(&b.left_mm()));
        swept
    }

    fn judged(&self, mut part: PartInSpace, fit: Option<&Fit>) -> Option<SweptPart> {
        let whole = self.sweep(self.reach, self.usage.envelope, part.least_mm);
        // What is carried along with the wheel keeps the ledger's gap, wherever that goes.
        if part.cloud.carried == Carried::SteeredUpright
            && self.usage.added.is_nothing()
            && let Some(band) = fit.and_then(|fit| fit.line(part.feature)?.band.as_ref())
        {
            part.cloud.given_back_mm += band.nominal.as_mm() - whole.room(&part.cloud, Pose::AT_REST);
        }
        let map = CloudMap::of(&whole, &part.cloud)?;
        let found = map.told(self.usage.envelope);
        let map = map.rooms().collect();
        let otherwise = self.otherwise(&part);
        let mut stretches = vec![self.at(&part, &[], Stretch::Standing, found.at_rest_mm, Pose::AT_REST)];
        if self.wheel.kinematics.axis.is_some() {
            stretches.push(self.stretched(&part, &otherwise, Stretch::AtLock)?);
        }
        stretches.push(self.stretched(&part, &otherwise, Stretch::OverBumps)?);
        stretches.push(self.at(&part, &otherwise, Stretch::Together, found.least_mm, found.at));
        self.apply_the_ledger(&part, fit, &mut stretches);
        let verdict = stretches.iter().map(|one| one.verdict).fold(Verdict::Clears, Verdict::max);
        let at_lock = part.is_read_at_lock().then(|| {
            [-self.reach.inward_deg, self.reach.outward_deg]
                .map(|steer_deg| whole.room(&part.cloud, Pose { steer_deg, travel_mm: 0.0 }))
        });
        let says = says(&part, &found, &stretches, at_lock);
        Some(SweptPart { part, found, stretches, verdict, map, says })
    }

    /// Gives a part the ledger's word, since one part has one word. The stretch "standing" is the ledger's own line; lip and arch
    /// are one edge here and take the worse word of the two. A part that was read at lock has its ledger line at lock, so no
    /// stretch that includes the lock gets a better word.
    fn apply_the_ledger(&self, part: &PartInSpace, fit: Option<&Fit>, stretches: &mut [Stretched]) {
        let fit = fit.filter(|_| self.usage.added.is_nothing());
        // A wheel that is meant to stand outside of the lip is judged by the lip's edge, which the sweep knows itself.
        let lines = part.features().iter().filter_map(|feature| fit?.line(*feature));
        let lines = lines.filter(|line| line.past_the_lip.is_none());
        let judged = lines.filter_map(|line| Some((line.verdict, line.band.as_ref()?)));
        let Some((verdict, band)) = judged.max_by_key(|(verdict, _)| *verdict) else { return };
        let as_the_ledger = |one: &mut Stretched| {
            one.room_mm = band.nominal.as_mm();
            one.plus_minus_mm = band.likely().as_mm();
            one.contributions = band.contributions.clone();
            (one.verdict, one.decided_by) = (verdict, None);
        };
        for one in stretches {
            // What is carried along with the wheel keeps its gap, wherever that goes.
            let is_carried_along = part.cloud.carried == Carried::SteeredUpright;
            match one.stretch {
                _ if is_carried_along && !part.is_read_at_lock() => as_the_ledger(one),
                Stretch::Standing if !part.is_read_at_lock() => as_the_ledger(one),
                Stretch::AtLock | Stretch::Together if part.is_read_at_lock() && verdict > one.verdict => {
                    // The figure goes with its word.
                    let at = one.at;
                    if band.nominal.as_mm() < one.room_mm {
                        as_the_ledger(one);
                    }
                    (one.verdict, one.decided_by, one.at) = (verdict, None, at);
                }
                _ => {}
            }
        }
    }

    /// The least room over a stretch.
    fn stretched(
        &self,
        part: &PartInSpace,
        otherwise: &[MovedCorner],
        stretch: Stretch,
    ) -> Option<Stretched> {
        let (reach, envelope) = stretch.of(self.reach, self.usage.envelope);
        let found = self.sweep(reach, envelope, part.least_mm).least(&part.cloud)?;
        Some(self.at(part, otherwise, stretch, found.room_mm, found.pose))
    }

    /// Over all that the use reaches, where many plans are looked at.
    pub(super) fn together_at_a_glance(&self, part: &PartInSpace) -> Option<Stretched> {
        let found =
            self.sweep(self.reach, self.usage.envelope, part.least_mm).least_at_a_glance(&part.cloud)?;
        Some(self.at(part, &self.otherwise(part), Stretch::Together, found.room_mm, found.pose))
    }

    /// What a least room comes to that was found in a pose.
    pub(super) fn at(
        &self,
        part: &PartInSpace,
        otherwise: &[MovedCorner],
        stretch: Stretch,
        room_mm: f64,
        at: Pose,
    ) -> Stretched {
        let (reach, envelope) = stretch.of(self.reach, self.usage.envelope);
        let off = self.may_be_off(part, otherwise, at, reach, envelope);
        let together = |all: &mut dyn Iterator<Item = Length>| Length::root_sum_square(all).as_mm();
        let plus_minus_mm = together(&mut off.iter().map(|(one, _)| one.down));
        let mut verdict = part.word(room_mm, plus_minus_mm);
        // What nobody measured rules nothing out when its mild end would not.
        let mild = together(&mut off.iter().filter(|(_, is_usual)| *is_usual).map(|(one, _)| one.up));
        let known = together(&mut off.iter().filter(|(_, is_usual)| !*is_usual).map(|(one, _)| one.down));
        let mut decided_by = None;
        if mild > 0.0 && verdict.rules_out() && !part.word(room_mm + mild, known).rules_out() {
            verdict = Verdict::MeasureFirst;
            let usual = off.iter().filter(|(_, is_usual)| *is_usual);
            decided_by =
                usual.max_by(|a, b| a.0.up.as_mm().total_cmp(&b.0.up.as_mm())).map(|(one, _)| one.input);
        }
        let contributions = off.into_iter().map(|(one, _)| one).collect();
        Stretched { stretch, room_mm, at, contributions, plus_minus_mm, verdict, decided_by }
    }
}

impl PartInSpace {
    /// Its name in a sentence.
    pub fn name(&self) -> &'static str {
        if self.is_with_the_arch { "lip and arch" } else { self.feature.facts().name }
    }

    /// Whether it was read at full lock, so that its place rests on the steering.
    pub(super) fn is_read_at_lock(&self) -> bool {
        self.feature.facts().at_lock
    }

    /// The parts of the ledger that it is: lip and arch are one edge of metal.
    pub(super) fn features(&self) -> &[Feature] {
        match self.feature {
            Feature::FenderLateral if self.is_with_the_arch => &[Feature::FenderLateral, Feature::Arch],
            Feature::FenderLateral => &[Feature::FenderLateral],
            _ => std::slice::from_ref(&self.feature),
        }
    }

    /// How so much room stands that may be less by so much.
    pub(super) fn word(&self, room_mm: f64, plus_minus_mm: f64) -> Verdict {
        let length = |mm: f64| Length::from_mm(mm).unwrap_or_default();
        Verdict::of(length(room_mm), length(room_mm - plus_minus_mm), length(self.least_mm))
    }
}
