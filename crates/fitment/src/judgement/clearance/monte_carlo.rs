//! Drawn cases (JCGM 101): where the likely band and the straight sum lead to different words, everything that may be off is
//! drawn at once, the whole room worked out, and what comes of it counted.

use super::inputs::of_a_room;
use super::query::ClearanceQuery;
use super::shift::Shift;
use super::{Clearance, Verdict};
use crate::car::corner::Obstacle;
use crate::car::section::MountedSetup;
use crate::judgement::case::AxleCase;

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
    /// Of rooms in millimetres, and the least that the house wants.
    pub(super) fn of(rooms: &[f64], least_mm: f64) -> Self {
        let count = |of: &dyn Fn(f64) -> bool| rooms.iter().filter(|room| of(**room)).count() as u32;
        let (touches, short) = (count(&|room| room <= 0.0), count(&|room| room < least_mm));
        Self { cases: rooms.len() as u32, touches, short }
    }

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

/// The room from a setup to a part by drawn cases; `normal` gives figures of a standard normal distribution, one after another. `None` where another
/// wheel's shape is not known.
pub fn drawn(
    case: &AxleCase<'_>,
    obstacle: &Obstacle,
    stand: &MountedSetup,
    cases: u32,
    normal: impl FnMut() -> f64,
) -> Option<Drawn> {
    let rooms = rooms(&ClearanceQuery::of(case, obstacle, stand), cases, normal)?;
    Some(Drawn::of(&rooms, case.least(obstacle.feature).as_mm()))
}

/// The room in each drawn case, in millimetres; `normal` gives figures of a standard normal distribution. `None` where another
/// wheel's shape is not known.
fn rooms(query: &ClearanceQuery<'_>, cases: u32, mut normal: impl FnMut() -> f64) -> Option<Vec<f64>> {
    let nominal = query.as_written(query.stand.center_y());
    let may_be_off = of_a_room(query);
    let mut room = || {
        let mut shift = Shift::default();
        for one in &may_be_off {
            let share = normal() / NINE_OF_TEN;
            let is_limited = one.moves.is_made_to_limits();
            let share = if is_limited { share.clamp(-FURTHEST, FURTHEST) } else { share };
            one.moves.add(share, query, &mut shift);
        }
        shift.room(query, &nominal)
    };
    (0..cases).map(|_| room()).collect()
}

#[cfg(test)]
mod tests {
    use rand::rngs::StdRng;
    use rand::{RngExt, SeedableRng};

    use super::*;
    use crate::car::corner::{Corner, Feature, Obstacle, Reading};
    use crate::car::lever::Levers;
    use crate::car::limits::HouseLimits;
    use crate::judgement::case::AxleCase;
    use crate::judgement::clearance::{MountedSetup, drawn, uncertainty};
    use crate::setup::{Axle, Setup};
    use crate::values::length::Length;

    fn normal(rng: &mut StdRng) -> f64 {
        rng.sample(rand_distr::StandardNormal)
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
                let rooms =
                    rooms(&ClearanceQuery::of(case, obstacle, stand), 25_000, || normal(rng)).unwrap();
                (uncertainty(case, obstacle, stand).unwrap(), rooms)
            });
            let (low, high) = (band.likely_low().as_mm(), band.likely_high().as_mm());
            let inside = rooms.iter().filter(|room| (low..=high).contains(*room)).count();
            let share = inside as f64 / rooms.len() as f64;
            assert!((0.86..=0.95).contains(&share), "{feature:?}: {share} in {low} to {high}");
            let worst = rooms.iter().filter(|room| **room < band.worst_low().as_mm()).count();
            // One in ten of each is drawn beyond its range: where two make up most of the band, both are now and then.
            assert!((worst as f64) < 0.01 * rooms.len() as f64, "{feature:?}: {worst} beyond the worst");
        }
    }

    #[test]
    fn a_wheel_that_stays_leaves_the_instrument_alone() {
        // The same wheel and tire on a spacer: nothing but the reading may be off, in every case drawn.
        let rng = &mut StdRng::seed_from_u64(7);
        let fitted_on_a_spacer = "17x7.5 ET45 225/45R17 3mm spacer";
        with(read(Feature::FenderLateral, 12.0, None), fitted_on_a_spacer, |case, obstacle, stand| {
            for room in rooms(&ClearanceQuery::of(case, obstacle, stand), 500, || normal(rng)).unwrap() {
                assert!((room - 9.0).abs() < 4.5, "{room}");
            }
            let band = uncertainty(case, obstacle, stand).unwrap();
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
                drawn(case, obstacle, stand, 500, || normal(rng)).unwrap()
            })
        };
        assert_eq!(count(26.0), count(26.0));
        let (near, far) = (count(22.0), count(30.0));
        assert!(near.touches > far.touches && near.short >= near.touches, "{near:?} {far:?}");
    }
}
