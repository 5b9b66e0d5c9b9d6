//! What one tire may carry against what the car asks for.

use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::car::{Car, Fact};
use crate::judgement::case::{Reference, half_rating_kg, has_twin_wheels};
use crate::parts::tire::{Prefix, Size, Tire};
use crate::setup::{Axle, SetupPair};
use crate::values::load_index;
use crate::values::speed_symbol::SpeedSymbol;
use crate::values::working::{Figure, Phrase, Quantity, Source, Step};

/// Where the rule comes from.
pub const SOURCE: Source = Source::from_memory(
    "49 CFR 571.110, UN R30: not below the factory's index, nor under half of the axle's rating at the car's top speed",
);
const DERATED: Source =
    Source::from_memory("UN R30, load at speed; 49 CFR 571.110 S4.2.2.2, passenger tire on a truck ÷ 1.10");

pub(super) const RULE: Rule = Rule {
    title: "Load index",
    source: SOURCE,
    asked: Asked::PerAxle(LineCode::LoadIndex, judge),
    of_car: &[Fact::AxleRating],
};

/// What stands beside a tire that carries too little or is too slow.
pub(super) const CAUTION: &str = "An overloaded or too slow tire can fail at speed. Hold it against the car's placard and the law where it is driven.";

/// What a passenger tire's load is divided by on a truck, van or trailer. 49 CFR 571.110 S4.2.2.2 (from memory).
const PASSENGER_TIRE_ON_A_TRUCK: f64 = 1.10;

/// How much of its index a tire carries at a speed, as a share: from each speed on the share beside it, straight lines
/// between.
///
/// # Source
/// UN R30, load variation with speed (from memory): V to 210 km/h, W to 240, Y to 270 in full.
const AT_SPEED: [(SpeedSymbol, &[(f64, f64)]); 4] = [
    (
        SpeedSymbol::V,
        &[
            (210.0, 1.0),
            (215.0, 0.985),
            (220.0, 0.97),
            (225.0, 0.955),
            (230.0, 0.94),
            (235.0, 0.925),
            (240.0, 0.91),
        ],
    ),
    (SpeedSymbol::W, &[(240.0, 1.0), (250.0, 0.95), (260.0, 0.90), (270.0, 0.85)]),
    (SpeedSymbol::Y, &[(270.0, 1.0), (280.0, 0.95), (290.0, 0.90), (300.0, 0.85)]),
    (SpeedSymbol::OverY, &[(270.0, 1.0), (280.0, 0.95), (290.0, 0.90), (300.0, 0.85)]),
];

/// The share of its index' load that a tire carries at a speed in km/h. Above the symbol's own speed the last share of the
/// table stands: what stops a plan there is the rule on speed, not this one.
pub fn share_at_speed(symbol: SpeedSymbol, kmh: f64) -> f64 {
    let Some((_, table)) = AT_SPEED.iter().find(|(known, _)| *known == symbol) else { return 1.0 };
    let mut share = 1.0;
    let mut before = table.first().copied().unwrap_or((kmh, 1.0));
    for (from, there) in table.iter().copied() {
        if kmh >= from {
            share = there;
        } else if kmh > before.0 {
            share = before.1 + (there - before.1) * (kmh - before.0) / (from - before.0);
            break;
        }
        before = (from, there);
    }
    share
}

/// The same; `None` at a speed that its symbol does not allow, where nobody states what it carries.
pub fn share_made_for(symbol: SpeedSymbol, kmh: f64) -> Option<f64> {
    (kmh <= symbol.top_speed_kmh()).then(|| share_at_speed(symbol, kmh))
}

/// What a car asks a tire to carry on one axle.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LoadRequirement {
    /// Half of the axle's rating, in kilograms.
    pub half_rating_kg: Option<f64>,
    /// The reference tire, and whose it is.
    pub reference: Option<(Tire, &'static str)>,
    /// The car's top speed, in km/h.
    pub top_speed_kmh: Option<f64>,
    /// A truck, van or trailer: passenger tires carry less on it.
    pub is_truck: bool,
    /// On twin wheels, where the second index counts.
    pub is_twin: bool,
}

/// How a tire stands to it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Load {
    /// No load index is stated.
    NotStated,
    /// Neither a rating nor a reference index says what is needed.
    CheckPlacard,
    /// Enough.
    Enough,
    /// Under half of the axle's rating.
    UnderRating,
    /// Under the reference tire's.
    UnderReference,
}

impl Load {
    /// How a line with it stands.
    pub fn severity(self) -> Severity {
        match self {
            Self::NotStated => Severity::Unknown,
            Self::CheckPlacard => Severity::Measure,
            Self::Enough => Severity::Good,
            Self::UnderRating | Self::UnderReference => Severity::Stop,
        }
    }
}

impl LoadRequirement {
    /// A car's on one axle.
    pub fn of(car: &Car, fitted: &SetupPair, axle: Axle) -> Self {
        let reference = Reference::of(car, fitted, axle).and_then(|one| Some((one.tire()?, one.which())));
        let class = car.words(Fact::VehicleClass, None);
        Self {
            half_rating_kg: half_rating_kg(car, axle),
            reference: reference.filter(|(tire, _)| tire.service.is_some()),
            top_speed_kmh: car.number(Fact::TopSpeed, None),
            is_truck: class.is_some_and(|class| class != "passenger car"),
            is_twin: has_twin_wheels(car, axle),
        }
    }

    /// What a tire's index counts for on this kind of vehicle, in kilograms.
    fn index_kg(&self, tire: &Tire) -> Option<f64> {
        let service = tire.service?;
        let index = service.dual.filter(|_| self.is_twin).unwrap_or(service.single);
        let kg = index.capacity_kg();
        Some(if self.is_truck && is_passenger(&tire.size) { kg / PASSENGER_TIRE_ON_A_TRUCK } else { kg })
    }

    /// What a tire carries on this car at its top speed, in kilograms; `None` without a load index.
    pub fn carries_kg(&self, tire: &Tire) -> Option<f64> {
        let share = match (tire.service, self.top_speed_kmh) {
            (Some(service), Some(kmh)) => share_at_speed(service.speed, kmh),
            _ => 1.0,
        };
        self.index_kg(tire).map(|kg| kg * share)
    }

    /// What an index must come to for this axle, in kilograms: half of the rating or the reference's, whichever is more;
    /// `None` while neither is known.
    pub fn needed_kg(&self) -> Option<f64> {
        let reference = self.reference.and_then(|(tire, _)| self.index_kg(&tire));
        [self.half_rating_kg, reference].into_iter().flatten().reduce(f64::max)
    }

    /// Judges a tire.
    pub fn judge(&self, tire: &Tire) -> Load {
        let Some((carries, index)) = self.carries_kg(tire).zip(self.index_kg(tire)) else {
            return Load::NotStated;
        };
        let reference = self.reference.and_then(|(tire, _)| self.index_kg(&tire));
        match (self.half_rating_kg, reference) {
            (None, None) => Load::CheckPlacard,
            (Some(half), _) if carries < half - 1e-9 => Load::UnderRating,
            (_, Some(reference)) if index < reference - 1e-9 => Load::UnderReference,
            _ => Load::Enough,
        }
    }
}

/// Which share of the axle's rating one tire carries.
fn share(is_twin: bool) -> &'static str {
    if is_twin { "A quarter" } else { "Half" }
}

/// A passenger car's tire: metric, and neither light truck nor commercial.
fn is_passenger(size: &Size) -> bool {
    matches!(size.prefix(), Some(Prefix::None | Prefix::P | Prefix::Hl))
}

fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let tire = check.planned.tire?;
    let requirement = LoadRequirement::of(&check.case.state.car, &check.case.fitted, check.axle.axle);
    let (Some(service), Some(carries)) = (tire.service, requirement.carries_kg(&tire)) else {
        return Some(Finding::unknown("Name the planned tire's load index, as in 97Y."));
    };
    let index = service.dual.filter(|_| requirement.is_twin).unwrap_or(service.single);
    let capacity = index.capacity_kg();
    let mut figure = Figure::of(Step {
        what: "load capacity of one tire",
        formula: "load index → kg, by table",
        inputs: vec![("load index", Quantity::count(f64::from(index.index())))],
        result: Quantity::mass(capacity),
        source: load_index::SOURCE,
    });
    if (carries - capacity).abs() > 1e-9 {
        figure = Figure::of(Step {
            what: "what it carries on this car, at its top speed",
            formula: "capacity × share at speed ÷ 1.10 on a truck",
            inputs: vec![
                ("capacity", Quantity::mass(capacity)),
                ("share", Quantity::ratio(carries / capacity)),
            ],
            result: Quantity::mass(carries),
            source: DERATED,
        })
        .after(figure.working);
    }
    let stands = requirement.judge(&tire);
    let half = requirement.half_rating_kg.map(Quantity::mass);
    let reference = requirement.reference.and_then(|(tire, which)| Some((tire.service?.single, which)));
    let reference_rules = reference.filter(|(index, _)| {
        half.is_none_or(|half| index.capacity_kg() >= half.value) || stands == Load::UnderReference
    });
    let limit = match (reference_rules, half) {
        (Some((index, which)), _) => {
            Phrase::new(format!("{which} {index}, ")).quantity(Quantity::mass(index.capacity_kg()))
        }
        (None, Some(half)) => {
            Phrase::new(format!("{} of the axle's rating, ", share(requirement.is_twin).to_lowercase()))
                .quantity(half)
        }
        (None, None) => Phrase::new("fitted index not stated"),
    };
    let carried = Phrase::new("Carries ").quantity(figure.quantity);
    let (word, says) = match (stands, half, reference) {
        (Load::UnderRating, Some(half), _) => (
            "too low",
            Phrase::new(format!("{} of the axle's rating is ", share(requirement.is_twin)))
                .quantity(half)
                .text(", this tire carries ")
                .quantity(figure.quantity)
                .text(if carries < capacity { " on this car at its top speed." } else { "." }),
        ),
        (Load::UnderReference, _, Some((index, which))) => (
            "too low",
            Phrase::new("Carries ")
                .quantity(Quantity::mass(index.capacity_kg() - capacity))
                .text(format!(" less than the {which} tire: choose index {index} or more.")),
        ),
        (Load::Enough, _, Some((index, which))) if reference_rules.is_some() => {
            let least = Quantity::mass(index.capacity_kg());
            ("enough", carried.text(format!(", the {which} tire ")).quantity(least).text("."))
        }
        (Load::Enough, ..) => ("enough", carried.text(".")),
        _ => (
            "check placard",
            Phrase::new("The fitted tire's index is not stated: hold this against the placard."),
        ),
    };
    // "Index enough" is not "pressure enough": the cold pressure has a line of its own.
    let severity = stands.severity();
    Some(Finding {
        severity,
        word,
        figure: Some(figure.quantity),
        limit,
        says,
        caution: (severity == Severity::Stop).then_some(CAUTION),
        working: figure.working,
        points: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::{line, line_on};

    #[test]
    fn load_is_held_against_the_reference_tire() {
        // ISO 4000-1: 94 is 670 kg, 91 is 615 kg, 97 is 730 kg.
        for (service, severity, kg) in
            [("97Y", Severity::Good, 730.0), ("94W", Severity::Good, 670.0), ("91V", Severity::Stop, 615.0)]
        {
            let planned = format!("18x8 ET45 225/40R18 {service}");
            let line = line("load-index", "17x7.5 ET45 225/45R17 94W", &planned, None);
            assert_eq!((line.severity, line.figure.unwrap().value), (severity, kg), "{service}");
        }
    }

    /// 49 CFR 571.110 (memory): half of the axle's rated load, or the factory's index, whichever is stricter.
    #[test]
    fn half_of_the_axles_rating_counts_where_it_is_stricter() {
        for (rating, planned, severity) in [
            ("1300", "94W", Severity::Good),
            ("1300", "92W", Severity::Stop),
            ("1400", "94W", Severity::Stop),
            ("1200", "91W", Severity::Stop),
        ] {
            let mut car = Car::default();
            car.note(Fact::AxleRating, Some(Axle::Front), rating).unwrap();
            // Fitted 92 is 630 kg, 94 is 670, 91 is 615 (ISO 4000-1).
            let planned = format!("18x8 ET45 225/40R18 {planned}");
            let line = line_on(car, "load-index", "17x7.5 ET45 225/45R17 92W", &planned);
            assert_eq!(line.unwrap().severity, severity, "{rating} {planned}");
        }
    }

    #[test]
    fn a_fast_car_takes_of_the_load() {
        // UN R30 (memory): the shares at their speeds, and between them.
        for (symbol, kmh, share) in [
            (SpeedSymbol::V, 210.0, 1.0),
            (SpeedSymbol::V, 215.0, 0.985),
            (SpeedSymbol::V, 230.0, 0.94),
            (SpeedSymbol::V, 240.0, 0.91),
            (SpeedSymbol::W, 240.0, 1.0),
            (SpeedSymbol::W, 250.0, 0.95),
            (SpeedSymbol::W, 255.0, 0.925),
            (SpeedSymbol::W, 270.0, 0.85),
            (SpeedSymbol::Y, 270.0, 1.0),
            (SpeedSymbol::Y, 300.0, 0.85),
            (SpeedSymbol::H, 210.0, 1.0),
        ] {
            assert!((share_at_speed(symbol, kmh) - share).abs() < 1e-9, "{symbol} at {kmh}");
            assert_eq!(share_made_for(symbol, kmh), Some(share_at_speed(symbol, kmh)));
        }
        for (symbol, kmh) in [(SpeedSymbol::H, 210.5), (SpeedSymbol::V, 241.0), (SpeedSymbol::OverY, 301.0)] {
            assert_eq!(share_made_for(symbol, kmh), None, "{symbol} at {kmh}");
        }
        let mut car = Car::default();
        car.note(Fact::AxleRating, Some(Axle::Front), "1250").unwrap();
        car.note(Fact::TopSpeed, None, "240").unwrap();
        // 94V: 670 × 0.91 = 609.7 kg, under 625; 94W carries 670 at 240.
        for (service, severity) in [("94V", Severity::Stop), ("94W", Severity::Good)] {
            let planned = format!("18x8 ET45 225/40R18 {service}");
            let line = line_on(car.clone(), "load-index", "17x7.5 ET45 225/45R17 94W", &planned).unwrap();
            assert_eq!(line.severity, severity, "{service}: {line:?}");
        }
    }

    #[test]
    fn a_passenger_tire_on_a_truck_counts_for_less() {
        // 49 CFR 571.110 S4.2.2.2 (memory): divided by 1.10. 115 is 1215 kg, so 1104.5; 121 of a light truck tire stays.
        let mut car = Car::default();
        car.note(Fact::AxleRating, Some(Axle::Front), "2300").unwrap();
        car.note(Fact::VehicleClass, None, "light truck").unwrap();
        for (tire, severity) in
            [("265/70R17 115T", Severity::Stop), ("LT265/70R17 121/118S E", Severity::Good)]
        {
            let planned = format!("17x8 ET25 {tire}");
            let line = line_on(car.clone(), "load-index", "17x8 ET25 265/70R17", &planned).unwrap();
            assert_eq!(line.severity, severity, "{tire}: {line:?}");
        }
    }

    #[test]
    fn twin_wheels_carry_a_quarter_each_at_the_second_index() {
        // UN R54 (from memory): of a dual index the second is for twin wheels. 121/120: 1450 and 1400 kg.
        let on = |wheels: Option<&str>, axle_kg: &str| {
            let mut car = Car::default();
            car.note(Fact::AxleRating, Some(Axle::Rear), axle_kg).unwrap();
            if let Some(wheels) = wheels {
                car.note(Fact::RearWheels, None, wheels).unwrap();
            }
            let setup = "16x6 ET100 LT225/75R16 121/120R E";
            let fitted = crate::setup::line::read(setup).unwrap().setups.unwrap();
            LoadRequirement { reference: None, ..LoadRequirement::of(&car, &fitted, Axle::Rear) }
                .judge(&fitted.rear.unwrap().tire.unwrap())
        };
        assert_eq!(on(None, "3200"), Load::UnderRating);
        assert_eq!(on(Some("single"), "2900"), Load::Enough);
        assert_eq!(on(Some("dual"), "5600"), Load::Enough);
        assert_eq!(on(Some("dual"), "5700"), Load::UnderRating);
    }
}
