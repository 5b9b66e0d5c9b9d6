//! A reading as it was taken and is kept: the value in the unit it was read in, and everything about how.

use super::{
    CarSide, Corner, Corners, Direction, Face, Measured, Moving, Reading, ReadingUnit, Steer, Suspension,
};
use crate::car::corner::ToRead;
use crate::car::{Car, Fact};
use crate::setup::{Axle, Setup, SetupPair};
use crate::values::length::Length;

/// A reading as taken.
///
/// Kept and sent as its fields, lengths in millimetres, what was fitted as a setup line: an empty one for what nobody
/// had typed yet, none for the bare hub.
#[derive(Debug, Clone, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize))]
pub struct RecordedReading {
    /// On which axle.
    pub axle: Axle,
    /// On which side, when it was noted.
    pub side: Option<CarSide>,
    /// What was read.
    pub what: ToRead,
    /// The figure, in the unit it was read in.
    pub value: f64,
    /// That unit.
    pub unit: ReadingUnit,
    /// Code of the instrument.
    pub instrument: String,
    /// How far it may be off.
    #[cfg_attr(feature = "serde", serde(rename = "plus_minus_mm"))]
    pub plus_minus: Length,
    /// What was fitted; `None` for the bare hub.
    #[cfg_attr(feature = "serde", serde(rename = "fitted"))]
    pub on: Option<Setup>,
    /// On the ground or hanging.
    pub stance: Suspension,
    /// Straight or at lock.
    pub steer: Steer,
    /// How far from the axle the smallest gap was.
    #[cfg_attr(feature = "serde", serde(rename = "radius_mm"))]
    pub radius: Option<Length>,
    /// From which face, when it was not the part's usual one.
    #[cfg_attr(feature = "serde", serde(default))]
    pub face: Option<Face>,
    /// Along which way, when it was not the part's usual one.
    #[cfg_attr(feature = "serde", serde(default))]
    pub direction: Option<Direction>,
    /// Where round the wheel, as hours of a clock, when it was not the part's usual place.
    #[cfg_attr(feature = "serde", serde(default))]
    pub clock: Option<f64>,
    /// Written over from the other side.
    pub is_copied: bool,
}

impl RecordedReading {
    /// The reading against what was fitted when it was taken, as far as that is known by now: what nobody had typed yet
    /// is what the job says is fitted. The bare hub stays the bare hub.
    #[must_use]
    pub fn once_named(mut self, fitted: &SetupPair) -> Self {
        if let (Some(on), Some(fitted)) = (self.on, fitted.on(self.axle)) {
            self.on = Some(on.completed_by(fitted));
        }
        self
    }

    /// The figure as a length.
    pub fn length(&self) -> Option<Length> {
        self.unit.length(self.value)
    }

    /// As a gap to a part; `None` for what is no gap.
    pub fn reading(&self) -> Option<Reading> {
        let ToRead::Gap(feature) = self.what else { return None };
        Some(Reading {
            feature,
            side: self.side,
            gap: self.length()?,
            plus_minus: self.plus_minus,
            on: self.on,
            stance: self.stance,
            steer: self.steer,
            radius: self.radius,
            face: self.face,
            direction: self.direction,
            clock: self.clock,
            is_copied: self.is_copied,
            tried: None,
        })
    }
}

/// The corners that readings and the car's record make together.
///
/// The second is, for each axle, which of `taken` each of the corner's readings is.
pub fn corners(taken: &[RecordedReading], car: &Car) -> (Corners, [Vec<usize>; 2]) {
    let corner = |axle: Axle| {
        let here = || taken.iter().enumerate().filter(move |(_, one)| one.axle == axle);
        let gaps = here().filter_map(|(at, one)| Some((at, one.reading()?)));
        let (which, readings): (Vec<usize>, Vec<Reading>) = gaps.unzip();
        // The latest is the one that stands: a tire is measured again after it was changed.
        let section = here().rfind(|(_, one)| one.what == ToRead::FittedSection);
        let fitted_section = section.and_then(|(_, one)| {
            let value = one.length().filter(|length| PLAUSIBLE_SECTION_MM.contains(&length.as_mm()))?;
            Some(Measured { value, plus_minus: one.plus_minus })
        });
        let camber_deg = car.number(Fact::Camber, Some(axle));
        let is_lowered = car.number(Fact::Dropped, Some(axle)).is_some_and(|dropped| dropped > 0.0);
        let tread_depth_mm = car.number(Fact::TreadDepth, Some(axle));
        let fitted = here().filter_map(|(_, one)| one.on).next_back();
        let moving = Some(Moving::of(car, axle, fitted.as_ref()));
        (Corner { readings, camber_deg, fitted_section, is_lowered, tread_depth_mm, moving }, which)
    };
    let (front, front_which) = corner(Axle::Front);
    let (rear, rear_which) = corner(Axle::Rear);
    (Corners { front, rear }, [front_which, rear_which])
}

/// What a tire's section can measure.
pub const PLAUSIBLE_SECTION_MM: std::ops::RangeInclusive<f64> = 90.0..=480.0;

/// The readings of one side that the other side has none of, as copies for it.
pub fn copied_over(taken: &[RecordedReading], axle: Axle, from: CarSide) -> Vec<RecordedReading> {
    let to = if from == CarSide::Left { CarSide::Right } else { CarSide::Left };
    let has = |what: ToRead, side: CarSide, steer: Steer| {
        taken.iter().any(|one| {
            one.axle == axle
                && one.what == what
                && one.side == Some(side)
                && (one.steer == steer || !at_lock(what))
        })
    };
    taken
        .iter()
        .filter(|one| one.axle == axle && one.side == Some(from) && !one.is_copied)
        .filter(|one| !has(one.what, to, mirrored(one.steer)))
        .map(|one| RecordedReading {
            side: Some(to),
            steer: mirrored(one.steer),
            is_copied: true,
            ..one.clone()
        })
        .collect()
}

fn at_lock(what: ToRead) -> bool {
    matches!(what, ToRead::Gap(feature) if feature.facts().at_lock)
}

fn mirrored(steer: Steer) -> Steer {
    match steer {
        Steer::Straight => Steer::Straight,
        Steer::LockLeft => Steer::LockRight,
        Steer::LockRight => Steer::LockLeft,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn taken(code: &str, side: CarSide, value: f64, unit: ReadingUnit) -> RecordedReading {
        RecordedReading {
            axle: Axle::Rear,
            side: Some(side),
            what: ToRead::from_code(code).unwrap(),
            value,
            unit,
            instrument: "steel_rule".to_owned(),
            plus_minus: Length::mm(1.0),
            on: Some("17x7.5 ET45 225/45R17".parse().unwrap()),
            stance: Suspension::AtRideHeight,
            steer: Steer::Straight,
            radius: None,
            face: None,
            direction: None,
            clock: None,
            is_copied: false,
        }
    }

    #[test]
    fn readings_and_record_make_the_corners() {
        let mut car = Car::default();
        car.note(Fact::Camber, Some(Axle::Rear), "-1.5").unwrap();
        let all = vec![
            taken("fitted_section", CarSide::Left, 228.0, ReadingUnit::Millimetres),
            taken("strut", CarSide::Left, 9.0, ReadingUnit::Sixteenths),
            RecordedReading { axle: Axle::Front, ..taken("arch", CarSide::Right, 2.0, ReadingUnit::Fingers) },
        ];
        let (corners, which) = corners(&all, &car);
        assert_eq!(which, [vec![2], vec![1]]);
        assert_eq!((corners.front.camber_deg, corners.rear.camber_deg), (None, Some(-1.5)));
        assert_eq!(corners.rear.fitted_section.unwrap().value, Length::mm(228.0));
        assert!((corners.rear.readings[0].gap.as_mm() - 14.2875).abs() < 1e-9);
        assert_eq!(corners.front.readings[0].gap, Length::mm(36.0));
    }

    #[test]
    fn a_reading_taken_before_the_wheel_was_named_counts_as_soon_as_it_is() {
        let on = |line: &str| if line.is_empty() { Setup::default() } else { line.parse().unwrap() };
        let fitted = SetupPair { front: None, rear: Some(on("17x7.5 ET45 225/45R17 5mm spacer")) };
        for (taken_on, counts_on) in [
            (Some(""), Some("17x7.5 ET45 · 225/45R17 · 5 mm spacer")),
            (Some("225/45R17"), Some("17x7.5 ET45 · 225/45R17 · 5 mm spacer")),
            // A wheel named without a spacer had none.
            (Some("17x7.5"), Some("17x7.5 ET45 · 225/45R17")),
            // RecordedReading on other wheels: it stays with those.
            (Some("17x7"), Some("17x7")),
            (Some("205/50R17"), Some("205/50R17")),
            (Some("225/45R18"), Some("225/45R18")),
            (None, None),
        ] {
            let reading = RecordedReading {
                on: taken_on.map(on),
                ..taken("strut", CarSide::Left, 9.0, ReadingUnit::Millimetres)
            };
            let counted = reading.clone().once_named(&fitted);
            assert_eq!(counted.on.map(|on| on.to_string()).as_deref(), counts_on, "{taken_on:?}");
            assert_eq!(reading.clone().once_named(&SetupPair::default()), reading, "nothing is named yet");
        }
    }

    #[test]
    fn a_section_that_cannot_be_is_not_used() {
        let all = vec![taken("fitted_section", CarSide::Left, 22.0, ReadingUnit::Millimetres)];
        assert_eq!(corners(&all, &Car::default()).0.rear.fitted_section, None);
    }

    #[test]
    fn left_is_copied_to_right_where_nothing_was_read() {
        let mut all = vec![
            taken("strut", CarSide::Left, 14.0, ReadingUnit::Millimetres),
            taken("arch", CarSide::Left, 60.0, ReadingUnit::Millimetres),
            taken("arch", CarSide::Right, 58.0, ReadingUnit::Millimetres),
            RecordedReading {
                steer: Steer::LockLeft,
                ..taken("frame", CarSide::Left, 20.0, ReadingUnit::Millimetres)
            },
        ];
        let copies = copied_over(&all, Axle::Rear, CarSide::Left);
        let said: Vec<_> =
            copies.iter().map(|one| (one.what.code(), one.side, one.steer, one.is_copied)).collect();
        assert_eq!(
            said,
            [
                ("strut", Some(CarSide::Right), Steer::Straight, true),
                ("frame", Some(CarSide::Right), Steer::LockRight, true)
            ]
        );
        all.extend(copies);
        assert!(copied_over(&all, Axle::Rear, CarSide::Left).is_empty(), "once is enough");
        assert!(copied_over(&all, Axle::Rear, CarSide::Right).is_empty(), "a copy is not copied back");
    }
}
