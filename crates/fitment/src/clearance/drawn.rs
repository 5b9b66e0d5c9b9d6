//! Drawn cases (JCGM 101): where the likely band and the straight sum lead to different words, everything that may be off is
//! drawn at once, the whole room worked out, and what comes of it counted.

use super::band::{
    CAMBER_DEG, CAMBER_UNKNOWN_DEG, CLOCK_OFF_DEG, Case, LEFT_TO_RIGHT, LOCK_OFF_DEG, LOCK_USUAL_OFF_DEG,
    OFFSET, OTHER_BARREL, STRUT_LEAN_OFF_DEG, rule_at_lock,
};
use super::room::Standing;
use super::{Clearance, MountedSetup, Verdict};
use crate::case::AxleCase;
use crate::clearance::band::ARM_SHARE;
use crate::corner::feature::BlocksFrom;
use crate::corner::obstacle::{CAMBER_STEP_DEG, Otherwise};
use crate::corner::{Carrier, Obstacle, ObstacleShape};
use crate::section::{PARTS, Part, Variants};

/// Cases that are drawn for a line of the ledger.
pub const CASES: u32 = 2000;
/// A half-range holds nine of ten: so many standard deviations of a normal distribution.
const NINE_OF_TEN: f64 = 1.645;

/// No part is further off its size, in half-ranges: a regulation's limits are kept by all but a few.
const FURTHEST: f64 = 1.25;

/// What came of drawn cases.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Drawn {
    /// How many were drawn.
    pub cases: u32,
    /// In how many of them it touches.
    pub touches: u32,
    /// In how many there is less room than the house wants.
    pub short: u32,
}

impl Drawn {
    /// How likely it is that it touches, in plain words.
    pub fn words(&self) -> String {
        match self.touches {
            0 => format!("none of {} drawn cases touches", self.cases),
            all if all * 2 > self.cases => format!("{} in 100 would touch", (all * 100).div_ceil(self.cases)),
            some => format!("1 in {} would touch", (f64::from(self.cases) / f64::from(some)).round()),
        }
    }
}

impl Clearance {
    /// Whether its word depends on how what may be off is added: then cases are worth drawing.
    pub fn is_bent(&self) -> bool {
        self.band.as_ref().is_some_and(|band| {
            let word = |low| Verdict::of(band.nominal, low, self.limit);
            let by_the_worst =
                if band.worst_low().as_mm() <= 0.0 { Verdict::Touches } else { word(band.worst_low()) };
            by_the_worst != word(band.likely_low())
        })
    }
}

impl AxleCase<'_> {
    /// Draws cases of the room to an obstacle; `normal` gives figures of a standard normal distribution, one after another.
    /// `None` where another wheel's shape is not known.
    pub fn drawn(
        &self,
        obstacle: &Obstacle,
        stand: &MountedSetup,
        cases: u32,
        normal: impl FnMut() -> f64,
    ) -> Option<Drawn> {
        let least = self.least(obstacle.feature).as_mm();
        let rooms = self.drawn_rooms(obstacle, stand, cases, normal)?;
        let count = |of: &dyn Fn(f64) -> bool| rooms.iter().filter(|room| of(**room)).count() as u32;
        Some(Drawn { cases, touches: count(&|room| room <= 0.0), short: count(&|room| room < least) })
    }

    /// The room in each of the cases.
    fn drawn_rooms(
        &self,
        obstacle: &Obstacle,
        stand: &MountedSetup,
        cases: u32,
        mut normal: impl FnMut() -> f64,
    ) -> Option<Vec<f64>> {
        let meeting = self.meeting(obstacle, stand);
        let (cut, nominal) = meeting.as_written(stand.center_y());
        let mut share = || normal() / NINE_OF_TEN;
        let mut room = || self.room_in_a_case(obstacle, stand, cut, nominal, &mut share);
        (0..cases).map(|_| room()).collect()
    }

    /// The room in one case: `share` gives how far each figure is off, as a share of its half-range.
    fn room_in_a_case(
        &self,
        obstacle: &Obstacle,
        stand: &MountedSetup,
        cut: &Variants,
        nominal: Case<'_>,
        share: &mut dyn FnMut() -> f64,
    ) -> Option<f64> {
        let (feature, reading) = (obstacle.feature, &obstacle.reading);
        let against = obstacle.against.unwrap_or_default();
        let stays = self.stays(reading, stand.setup());
        let is_of_body = feature.carrier() == Carrier::Body;
        let (mut along, mut higher, mut less) = (0.0, 0.0, 0.0);
        let mut faces = nominal.faces;
        let mut otherwise = |one: &Otherwise, by: f64, along: &mut f64| {
            *along += one.along * by;
            faces.crown += (one.faces.crown - against.faces.crown) * by;
            faces.outer += (one.faces.outer - against.faces.outer) * by;
            faces.inner += (one.faces.inner - against.faces.inner) * by;
        };
        along += share() * reading.plus_minus.as_mm();
        if reading.is_copied {
            along += share() * LEFT_TO_RIGHT.as_mm();
        }
        if let Some((off, at)) = against.read_at {
            let by = share();
            higher += by * off;
            along += by.abs() * at[usize::from(by > 0.0)];
        }
        let mut shares = [0.0; PARTS];
        for part in Part::ALL.into_iter().filter(|_| !feature.is_of_the_brake()) {
            if matches!(part, Part::Shoulder | Part::Flange)
                && !matches!(obstacle.place, ObstacleShape::Spot { .. } | ObstacleShape::Perch { .. })
            {
                continue;
            }
            // A tire that stays is as worn as it was.
            if part == Part::Wear && stays.tire {
                continue;
            }
            let new = share().clamp(-FURTHEST, FURTHEST);
            shares[part as usize] = new;
            if obstacle.against.is_some() {
                let is_one = if part.is_of_the_tire() { stays.tire } else { stays.wheel };
                let of_fitted = if is_one { new } else { share().clamp(-FURTHEST, FURTHEST) };
                let ends = &against.parts[part as usize];
                let end = match (ends[1].is_other_than(against.faces), of_fitted > 0.0) {
                    // One-sided: it is off to that side or not at all.
                    (false, _) => &ends[0],
                    (true, is_more) => &ends[usize::from(is_more)],
                };
                otherwise(end, of_fitted.abs(), &mut along);
            }
        }
        let outline = cut.off_by(&shares);
        let mut center_y = nominal.standing.center_y;
        if !stays.wheel {
            center_y += share() * OFFSET.as_mm();
            if obstacle.against.is_some() {
                along += share() * OFFSET.as_mm();
            }
        }
        let mut camber_deg = nominal.standing.camber_deg;
        if is_of_body && feature.blocks_from() != BlocksFrom::Above {
            let off = if self.corner.camber_deg.is_some() { CAMBER_DEG } else { CAMBER_UNKNOWN_DEG };
            let by = share() * off;
            camber_deg += by;
            otherwise(&against.camber[usize::from(by > 0.0)], by.abs() / CAMBER_STEP_DEG, &mut along);
            if self.levers.camber_deg() != 0.0 {
                camber_deg += share() * CAMBER_DEG;
            }
        }
        let mut place = nominal.place.moved(along).read_higher(higher);
        if let ObstacleShape::Edge { lean_deg, .. } = &mut place {
            *lean_deg += share() * STRUT_LEAN_OFF_DEG;
        }
        let lock = nominal.lock.map(|lock| {
            let off = if lock.is_usual { LOCK_USUAL_OFF_DEG } else { LOCK_OFF_DEG };
            let clock_off = if reading.clock.is_some() { CLOCK_OFF_DEG / 2.0 } else { CLOCK_OFF_DEG };
            let turned = lock.turned_by(share() * off);
            turned.read_round(share() * clock_off, against.faces.crown)
        });
        if lock.is_none() && reading.steer.is_at_lock() && feature.facts().at_lock {
            let (down, up) =
                rule_at_lock(reading, &Standing { outline: &outline, center_y, camber_deg }, against.faces);
            let by = share();
            less += by * if by > 0.0 { down } else { up };
        }
        if feature.blocks_from() == BlocksFrom::Barrel
            && !reading.on.is_some_and(|on| on.wheel == stand.setup().wheel)
        {
            less += share() * OTHER_BARREL.as_mm();
        }
        if feature.carrier() == Carrier::Arm {
            less += share() * self.levers.raised().abs() * ARM_SHARE;
        }
        let case = Case {
            place,
            faces,
            lock,
            standing: Standing { outline: &outline, center_y, camber_deg },
            ..nominal
        };
        Some(self.room(feature, reading, case)? - less)
    }
}

#[cfg(test)]
mod tests {
    use rand::rngs::StdRng;
    use rand::{RngExt, SeedableRng};

    use super::*;
    use crate::corner::{Corner, Feature, Reading};
    use crate::length::Length;
    use crate::lever::Levers;
    use crate::limits::HouseLimits;
    use crate::setup::{Axle, Setup};

    /// Standard normal figures, by Box and Muller.
    fn normal(rng: &mut StdRng) -> f64 {
        let radius = (-2.0 * (1.0 - rng.random_range(0.0..1.0f64)).ln()).sqrt();
        radius * (std::f64::consts::TAU * rng.random_range(0.0..1.0f64)).cos()
    }

    fn with<T>(
        reading: Reading,
        planned: &str,
        ask: impl FnOnce(&AxleCase<'_>, &Obstacle, &MountedSetup) -> T,
    ) -> T {
        let fitted: Setup = "17x7.5 ET45 225/45R17".parse().unwrap();
        let corner = Corner { readings: vec![reading], camber_deg: Some(-1.0), ..Corner::default() };
        let (resolved, limits, levers) = (corner.resolve(), HouseLimits::DEFAULT, Levers::default());
        let case = AxleCase::new(Axle::Rear, &corner, &resolved, &fitted, &limits, &levers);
        let stand = MountedSetup::of(&planned.parse().unwrap(), case.planned_camber()).unwrap();
        let obstacle = resolved.of(reading.feature).next().unwrap();
        ask(&case, obstacle, &stand)
    }

    fn read(feature: Feature, gap: f64, radius: Option<f64>) -> Reading {
        let fitted = "17x7.5 ET45 225/45R17".parse().unwrap();
        let radius = radius.map(Length::mm);
        Reading { radius, ..Reading::new(feature, Length::mm(gap), Length::mm(1.0), fitted) }
    }

    #[test]
    fn nine_of_ten_drawn_cases_lie_in_the_likely_band_that_propagation_says() {
        // JCGM 101 against JCGM 100: 100 000 cases in all.
        let rng = &mut StdRng::seed_from_u64(101);
        for (reading, planned) in [
            (read(Feature::Strut, 14.0, Some(250.0)), "18x8.5 ET38 245/40R18"),
            (read(Feature::SpringPerch, 16.0, Some(300.0)), "18x8 ET45 225/40R18"),
            (read(Feature::FenderLateral, 18.0, None), "18x8.5 ET35 245/40R18"),
            (read(Feature::Knuckle, 16.0, Some(180.0)), "18x8 ET42 225/40R18"),
        ] {
            let feature = reading.feature;
            let (band, rooms) = with(reading, planned, |case, obstacle, stand| {
                let rooms = case.drawn_rooms(obstacle, stand, 25_000, || normal(rng)).unwrap();
                (case.band(obstacle, stand).unwrap(), rooms)
            });
            let (low, high) = (band.likely_low().as_mm(), band.likely_high().as_mm());
            let inside = rooms.iter().filter(|room| (low..=high).contains(*room)).count();
            let share = inside as f64 / rooms.len() as f64;
            assert!((0.86..=0.95).contains(&share), "{feature:?}: {share} in {low} to {high}");
            let worst = rooms.iter().filter(|room| **room < band.worst_low().as_mm()).count();
            assert!((worst as f64) < 0.004 * rooms.len() as f64, "{feature:?}: {worst} beyond the worst");
        }
    }

    #[test]
    fn a_wheel_that_stays_leaves_the_instrument_alone() {
        // The same wheel and tire on a spacer: nothing but the reading may be off, in every case drawn.
        let rng = &mut StdRng::seed_from_u64(7);
        let fitted_on_a_spacer = "17x7.5 ET45 225/45R17 3mm spacer";
        with(read(Feature::FenderLateral, 12.0, None), fitted_on_a_spacer, |case, obstacle, stand| {
            for room in case.drawn_rooms(obstacle, stand, 500, || normal(rng)).unwrap() {
                assert!((room - 9.0).abs() < 4.5, "{room}");
            }
            let band = case.band(obstacle, stand).unwrap();
            assert!((band.likely().as_mm() - 1.0).abs() < 0.1, "{band:?}");
        });
    }

    #[test]
    fn what_is_said_of_them() {
        let of = |touches| Drawn { cases: 2000, touches, short: 0 }.words();
        assert_eq!(of(0), "none of 2000 drawn cases touches");
        assert_eq!((of(167), of(1000)), ("1 in 12 would touch".to_owned(), "1 in 2 would touch".to_owned()));
        assert_eq!(of(1800), "90 in 100 would touch");
    }

    #[test]
    fn the_same_draws_give_the_same_counts_and_more_room_fewer_touches() {
        let count = |gap: f64| {
            let rng = &mut StdRng::seed_from_u64(3);
            with(read(Feature::FenderLateral, gap, None), "18x8.5 ET35 245/40R18", |case, obstacle, stand| {
                case.drawn(obstacle, stand, 500, || normal(rng)).unwrap()
            })
        };
        assert_eq!(count(26.0), count(26.0));
        let (near, far) = (count(22.0), count(30.0));
        assert!(near.touches > far.touches && near.short >= near.touches, "{near:?} {far:?}");
    }
}
