//! Front against rear: the drift of the diameter ratio from the factory's own, and which axle stands taller.

use super::{Asked, Finding, LineCode, Rule, Severity};
use crate::car::Fact;
use crate::car::limits::{Drive, HouseLimits};
use crate::judgement::case::{Case, Reference};
use crate::setup::change::pair_change;
use crate::setup::{Arrangement, Axle, SetupPair};
use crate::values::length::Length;
use crate::values::working::{Figure, Phrase, Quantity};

pub(super) const RULE: Rule = Rule {
    title: "Front against rear",
    source: HouseLimits::SOURCE,
    asked: Asked::PerCar(LineCode::FrontToRear, judge),
    of_car: &[],
};

/// What must stand beside a ratio.
pub const CAUTION: &str = "The car maker's own limit rules, and many ask for less.";

/// What a car asks of its axles' diameters.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct AxleRatio {
    /// Front over rear diameter of the reference set; `None` while no set states both.
    pub reference: Option<f64>,
    /// What the house allows it to drift for this drive, in per cent.
    pub limit_pct: f64,
}

impl AxleRatio {
    /// A case's.
    pub fn of(case: &Case<'_>) -> Self {
        let pair = Reference::pair_of(&case.state.car, &case.fitted);
        let reference = pair.and_then(|pair| {
            Some(pair.front.setup.overall_diameter()? / pair.rear.setup.overall_diameter()?)
        });
        Self { reference, limit_pct: case.limits.ratio_pct(case.drive) }
    }

    /// How far a planned pair drifts, in per cent; zero while there is no reference.
    pub fn drift_pct(&self, front: Length, rear: Length) -> f64 {
        self.reference.map_or(0.0, |reference| (front / rear / reference - 1.0) * 100.0)
    }

    /// Whether a drift is inside the limit.
    pub fn allows(&self, drift_pct: f64) -> bool {
        drift_pct.abs() <= self.limit_pct + 1e-9
    }
}

/// A planned pair against a reference pair.
#[derive(Debug, Clone, PartialEq)]
pub struct Stagger {
    /// Drift of the front-to-rear diameter ratio from the reference's, in per cent, with its working.
    pub ratio_change: Figure,
    /// What the house allows for this drive, in per cent.
    pub limit_pct: f64,
    /// Whether it is inside.
    pub keeps_ratio: bool,
    /// The axle that stands taller; `None` when both are equal.
    pub taller: Option<Axle>,
    /// How much taller in diameter.
    pub height_difference: Length,
    /// Square or staggered.
    pub arrangement: Arrangement,
}

/// Judges a planned pair against another; `None` while not all four tires are stated.
pub fn stagger(
    reference: &SetupPair,
    planned: &SetupPair,
    drive: Option<Drive>,
    limits: &HouseLimits,
) -> Option<Stagger> {
    judged(pair_change(reference, planned).front_to_rear_ratio_pct?, planned, limits.ratio_pct(drive))
}

fn judged(ratio_change: Figure, planned: &SetupPair, limit_pct: f64) -> Option<Stagger> {
    let diameter = |axle| planned.on(axle)?.overall_diameter();
    let difference = diameter(Axle::Front)? - diameter(Axle::Rear)?;
    let ratio = AxleRatio { reference: None, limit_pct };
    Some(Stagger {
        keeps_ratio: ratio.allows(ratio_change.value()),
        ratio_change,
        limit_pct,
        taller: match difference.as_mm() {
            d if d > 0.0 => Some(Axle::Front),
            d if d < 0.0 => Some(Axle::Rear),
            _ => None,
        },
        height_difference: difference.abs(),
        arrangement: planned.arrangement()?,
    })
}

/// How far front and rear treads may differ on all-wheel drive: from the first it is watched, from the second it stops, in
/// millimetres. Common practice; no source.
const WORN_APART_MM: (f64, f64) = (2.0, 3.0);

/// How far the planned tires' treads differ, and what that is of the diameter in per cent: 2·Δdepth/OD. `None` while one of them is
/// not stated.
fn worn_apart(case: &Case<'_>) -> Option<(Length, f64)> {
    let depth = |axle| case.state.car.number(Fact::PlannedTreadDepth, Some(axle));
    let apart = (depth(Axle::Front)? - depth(Axle::Rear)?).abs();
    let diameter = case.planned.on(Axle::Front)?.overall_diameter()?.as_mm();
    Some((Length::mm(apart), 2.0 * apart / diameter * 100.0))
}

fn judge(case: &Case<'_>) -> Option<Finding> {
    let found = case.between_the_axles().and_then(|(kind, change)| {
        let drift = change.front_to_rear_ratio_pct.clone()?;
        Some((kind, judged(drift, &case.planned, AxleRatio::of(case).limit_pct)?))
    });
    let Some((kind, found)) = found else {
        return Some(Finding::unknown("All four tires must be stated."));
    };
    let drive = match case.drive {
        Some(Drive::All) => "all-wheel drive, limit ",
        Some(Drive::Front) => "front drive, limit ",
        Some(Drive::Rear) => "rear drive, limit ",
        None => "drive not known, limit ",
    };
    let which = Reference { setup: Default::default(), kind }.which();
    let limit = Phrase::new(drive)
        .quantity(Quantity::percent(found.limit_pct))
        .text(format!(" from the {which} set's ratio"));
    let mut says = match found.taller {
        None => Phrase::new("Front and rear stand equally tall."),
        Some(axle) => Phrase::new(match axle {
            Axle::Front => "The front tire is ",
            Axle::Rear => "The rear tire is ",
        })
        .quantity(Quantity::length(found.height_difference))
        .text(" taller."),
    };
    if !found.keeps_ratio {
        says = says.text(match case.drive {
            Some(Drive::All) => {
                " The coupling between the axles would work all the time: choose closer diameters."
            }
            None => " Name the drive: on all-wheel drive this wears the coupling.",
            _ => " Anti-lock and stability control compare the axles: ask the car's maker, or choose closer diameters.",
        });
    }
    let worn = (case.drive == Some(Drive::All)).then(|| worn_apart(case)).flatten();
    if let Some((apart, taller)) = &worn
        && apart.as_mm() > WORN_APART_MM.0
    {
        says = says
            .text(" The treads differ by ")
            .quantity(Quantity::length(*apart))
            .text(", ")
            .quantity(Quantity::percent(*taller))
            .text(" of diameter: on all-wheel drive no more than 2 to 3 mm.");
    }
    // On all-wheel drive the coupling is destroyed; on two driven wheels brakes and stability control are confused, which the
    // car's maker answers for.
    let severity = match (found.keeps_ratio, case.drive) {
        (true, _) => Severity::Good,
        (false, Some(Drive::All)) => Severity::Stop,
        (false, Some(Drive::Front | Drive::Rear)) => Severity::Mind,
        (false, None) => Severity::Measure,
    };
    let by_wear = worn.map_or(Severity::Good, |(apart, _)| match apart.as_mm() {
        apart if apart > WORN_APART_MM.1 => Severity::Stop,
        apart if apart > WORN_APART_MM.0 => Severity::Mind,
        _ => Severity::Good,
    });
    let (keeps, severity) = (by_wear == Severity::Good && found.keeps_ratio, severity.max(by_wear));
    Some(Finding {
        severity,
        word: if keeps { "keeps ratio" } else { "drifts" },
        figure: Some(found.ratio_change.quantity),
        limit,
        says,
        caution: (!keeps).then_some(CAUTION),
        working: found.ratio_change.working,
        points: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::{line, line_on};
    use crate::car::Car;

    fn pair(text: &str) -> SetupPair {
        crate::setup::line::read(text).unwrap().setups.unwrap()
    }

    #[test]
    fn the_limit_follows_the_drive() {
        // 235/40R18 in front of 255/40R18: 645.2 / 661.2 = 0.9758, −2.42 % against a square fitted set.
        let fitted = "17x7.5 ET45 225/45R17";
        let planned = "F: 18x8.5 ET40 235/40R18 R: 18x9 ET40 255/40R18";
        for (drive, severity) in [
            (Some(Drive::All), Severity::Stop),
            (None, Severity::Measure),
            (Some(Drive::Rear), Severity::Good),
            (Some(Drive::Front), Severity::Good),
        ] {
            let line = line("front-to-rear", fitted, planned, drive);
            assert_eq!(line.severity, severity, "{drive:?}");
            assert!((line.figure.unwrap().value + 2.4198).abs() < 1e-3);
        }
    }

    #[test]
    fn a_square_set_made_staggered() {
        // By hand: 645.2 / 661.2 = 0.97580 against 1: −2.420 %; 16.0 mm in diameter.
        let planned = pair("F: 18x8.5 ET40 235/40R18 R: 18x9 ET40 255/40R18");
        let of =
            |drive| stagger(&pair("17x7.5 ET45 225/45R17"), &planned, drive, &HouseLimits::DEFAULT).unwrap();
        let rear = of(Some(Drive::Rear));
        assert!((rear.ratio_change.value() + 2.4198).abs() < 1e-3);
        assert_eq!((rear.taller, rear.keeps_ratio, rear.limit_pct), (Some(Axle::Rear), true, 2.5));
        assert!((rear.height_difference.as_mm() - 16.0).abs() < 1e-9);
        assert!(!of(Some(Drive::All)).keeps_ratio, "common practice: 1 % on all-wheel drive");
        assert_eq!(of(None).limit_pct, 1.0, "an unknown drive takes the stricter limit");
    }

    #[test]
    fn the_factorys_own_stagger_is_the_reference() {
        let factory = pair("F: 18x8 ET34 225/45R18 R: 18x8.5 ET47 245/40R18");
        let same = stagger(&factory, &factory, Some(Drive::All), &HouseLimits::DEFAULT).unwrap();
        assert!(same.ratio_change.value().abs() < 1e-12 && same.keeps_ratio);
        assert_eq!(same.taller, Some(Axle::Front), "659.7 in front of 653.2");
        // The same on a car that stands on square winter wheels now: going back is no drift.
        let mut car = Car::default();
        car.note(Fact::FactorySetup, Some(Axle::Front), "18x8 ET34 225/45R18").unwrap();
        car.note(Fact::FactorySetup, Some(Axle::Rear), "18x8.5 ET47 245/40R18").unwrap();
        let planned = "F: 18x8 ET34 225/45R18 R: 18x8.5 ET47 245/40R18";
        let back = line_on(car, "front-to-rear", "17x7.5 ET45 225/50R17", planned).unwrap();
        assert_eq!((back.severity, back.figure.unwrap().value.abs() < 1e-9), (Severity::Good, true));
    }

    #[test]
    fn worn_against_new_on_all_wheel_drive() {
        // Common practice: treads 2 to 3 mm apart at most; what differs is twice the depth of the diameter.
        let with = |front: &str, rear: &str, drive| {
            let mut car = Car::default();
            car.note(Fact::PlannedTreadDepth, Some(Axle::Front), front).unwrap();
            car.note(Fact::PlannedTreadDepth, Some(Axle::Rear), rear).unwrap();
            let line = "17x7.5 ET45 225/45R17 94W";
            let pair = pair(line);
            let limits = HouseLimits::DEFAULT;
            let case = Case::new(&pair, &pair, drive, &limits, None)
                .in_state(crate::judgement::case::CarState::default().of_car(car));
            judge(&case).unwrap().severity
        };
        assert_eq!(with("8", "7", Some(Drive::All)), Severity::Good);
        assert_eq!(with("8", "5.5", Some(Drive::All)), Severity::Mind);
        assert_eq!(with("3", "8", Some(Drive::All)), Severity::Stop);
        assert_eq!(with("3", "8", Some(Drive::Rear)), Severity::Good, "no coupling between the axles");
    }
}
