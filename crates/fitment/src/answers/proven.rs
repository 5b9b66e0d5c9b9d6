//! Proven fits: what finished jobs left, how near one is to a plan, and the envelope they make together.

use std::collections::BTreeMap;

use crate::car::limits::Drive;
use crate::setup::{Axle, Setup, SetupPair};
use crate::values::coded::coded;
use crate::values::verdict::Severity;
use crate::values::working::{Figure, Quantity, Source, Step};

/// Where nearness and envelope come from.
pub const SOURCE: Source =
    Source::estimate("millimetres at inner and outer face and at the crown; a judgement of ours");

/// How a fit rubbed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[allow(missing_docs, reason = "the outcomes by their names")]
pub enum Rub {
    None,
    AtLock,
    OverBumps,
    Constant,
}

coded!(Rub: None = "none", AtLock = "at_lock", OverBumps = "over_bumps", Constant = "constant");

impl Rub {
    /// In the trade's words.
    pub fn words(self) -> &'static str {
        match self {
            Self::None => "no rub",
            Self::AtLock => "rubs at lock",
            Self::OverBumps => "rubs over bumps",
            Self::Constant => "rubs all the time",
        }
    }

    /// How it stands.
    pub fn severity(self) -> Severity {
        match self {
            Self::None => Severity::Good,
            Self::AtLock | Self::OverBumps => Severity::Mind,
            Self::Constant => Severity::Stop,
        }
    }
}

/// Which car a fit is proven on: what tells wheel wells and brakes apart.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct ProvenCar {
    /// Model.
    pub model: String,
    /// Body.
    pub body: String,
    /// Generation.
    pub generation: String,
    /// Brakes.
    pub brakes: String,
    /// Driven axles.
    pub drive: Option<Drive>,
}

/// How one axle stood.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct ProvenAxle {
    /// Suspension, as in the car's record.
    pub suspension: String,
    /// Dropped by so many millimetres; minus is lifted.
    pub dropped_mm: Option<f64>,
    /// Fender work, as in the car's record.
    pub fender: String,
    /// Camber.
    pub camber_deg: Option<f64>,
    /// How it rubbed.
    pub rub: Option<Rub>,
}

/// A fit that a finished job left.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct ProvenFit {
    /// The car.
    pub car: ProvenCar,
    /// Front axle.
    pub front: ProvenAxle,
    /// Rear axle.
    pub rear: ProvenAxle,
    /// What was fitted before.
    pub before: SetupPair,
    /// What is proven.
    pub setups: SetupPair,
    /// Style.
    pub style: String,
    /// Use.
    pub uses: String,
    /// What the owner says.
    pub view: String,
    /// Which shop.
    pub shop: String,
    /// In which year.
    pub year: Option<i32>,
}

impl ProvenFit {
    /// One axle.
    pub fn on(&self, axle: Axle) -> &ProvenAxle {
        match axle {
            Axle::Front => &self.front,
            Axle::Rear => &self.rear,
        }
    }

    /// What makes two rows one fit: the car, the setups, and the state of the car; not what was said of it.
    pub fn key(&self) -> String {
        let car = &self.car;
        let axle = |one: &ProvenAxle| {
            let number = |value: Option<f64>| value.map_or(String::new(), |value| format!("{value:.0}"));
            format!("{}|{}|{}", one.suspension, number(one.dropped_mm), one.fender)
        };
        let words = [
            car.model.clone(),
            car.body.clone(),
            car.generation.clone(),
            car.brakes.clone(),
            axle(&self.front),
            axle(&self.rear),
            self.setups.to_string(),
        ];
        words.map(|word| word.trim().to_lowercase()).join("|")
    }

    /// How like the car another is: 4 for its model, one each for body, generation and brakes; 0 for another model.
    pub fn likeness(&self, car: &ProvenCar) -> u32 {
        let same = |a: &str, b: &str| !a.is_empty() && a.trim().eq_ignore_ascii_case(b.trim());
        if !same(&self.car.model, &car.model) {
            return 0;
        }
        let more = [
            same(&self.car.body, &car.body),
            same(&self.car.generation, &car.generation),
            same(&self.car.brakes, &car.brakes),
        ];
        4 + more.into_iter().filter(|is| *is).count() as u32
    }
}

/// Where a setup reaches on its hub, millimetres: outer face, inner face (both of rim flange or tire, whichever reaches
/// further), and crown.
fn reach(setup: &Setup) -> Option<(f64, f64, f64)> {
    let (wheel, offset) = (setup.wheel?, setup.effective_offset()?);
    let half = (setup.over_flanges()?.as_mm() / 2.0)
        .max(setup.section_width().map_or(0.0, |section| section.as_mm() / 2.0));
    let crown = setup.overall_diameter().unwrap_or(wheel.diameter.everyday()).as_mm() / 2.0;
    Some((half - offset.as_mm(), half + offset.as_mm(), crown))
}

/// How far one setup is from another, in millimetres: the root of the squares of what their outer and inner faces and
/// their crowns differ by. `None` while one cannot be placed.
pub fn distance(one: &Setup, other: &Setup) -> Option<Figure> {
    let (a, b) = (reach(one)?, reach(other)?);
    let (outer, inner, crown) = (b.0 - a.0, b.1 - a.1, b.2 - a.2);
    let length = |mm: f64| crate::Length::from_mm(mm).unwrap_or(crate::Length::ZERO);
    Some(Figure::of(Step {
        what: "distance between setups",
        formula: "√(Δ outer² + Δ inner² + Δ crown²)",
        inputs: vec![
            ("Δ outer", Quantity::length(length(outer)).signed()),
            ("Δ inner", Quantity::length(length(inner)).signed()),
            ("Δ crown", Quantity::length(length(crown)).signed()),
        ],
        result: Quantity::length(length((outer * outer + inner * inner + crown * crown).sqrt())),
        source: SOURCE,
    }))
}

/// The most that is proven without rub, for one kind of fender work on one axle.
#[derive(Debug, Clone, PartialEq)]
pub struct Envelope {
    /// Fender work.
    pub fender: String,
    /// How far out the furthest one reaches from the hub face, in millimetres.
    pub outer_mm: f64,
    /// How far in the furthest one reaches.
    pub inner_mm: f64,
    /// The setup that reaches furthest out.
    pub furthest_out: Setup,
    /// How many cars without rub are behind it.
    pub cars: usize,
    /// How many with the same fender work rubbed.
    pub rubbed: usize,
}

/// The envelope of fits on one axle, by fender work.
pub fn envelopes<'a>(fits: impl IntoIterator<Item = &'a ProvenFit>, axle: Axle) -> Vec<Envelope> {
    let mut by_work: BTreeMap<String, (Option<Envelope>, usize)> = BTreeMap::new();
    for fit in fits {
        let (on, Some(setup)) = (fit.on(axle), fit.setups.on(axle)) else { continue };
        let (Some(rub), Some((outer, inner, _))) = (on.rub, reach(setup)) else { continue };
        let fender = if on.fender.is_empty() { "not noted".to_owned() } else { on.fender.clone() };
        let (envelope, rubbed) = by_work.entry(fender.clone()).or_default();
        if rub != Rub::None {
            *rubbed += 1;
            continue;
        }
        match envelope {
            None => {
                *envelope = Some(Envelope {
                    fender,
                    outer_mm: outer,
                    inner_mm: inner,
                    furthest_out: *setup,
                    cars: 1,
                    rubbed: 0,
                });
            }
            Some(known) => {
                known.cars += 1;
                known.inner_mm = known.inner_mm.max(inner);
                if outer > known.outer_mm {
                    (known.outer_mm, known.furthest_out) = (outer, *setup);
                }
            }
        }
    }
    by_work
        .into_values()
        .filter_map(|(envelope, rubbed)| envelope.map(|envelope| Envelope { rubbed, ..envelope }))
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn fit(model: &str, rear: &str, fender: &str, rub: Rub) -> ProvenFit {
        ProvenFit {
            car: ProvenCar { model: model.to_owned(), ..ProvenCar::default() },
            rear: ProvenAxle { fender: fender.to_owned(), rub: Some(rub), ..ProvenAxle::default() },
            setups: SetupPair { front: None, rear: Some(rear.parse().unwrap()) },
            ..ProvenFit::default()
        }
    }

    #[test]
    fn the_distance_is_what_the_faces_and_crowns_differ_by() {
        let of = |a: &str, b: &str| distance(&a.parse().unwrap(), &b.parse().unwrap()).unwrap().value();
        let base = "18x8 ET45 225/40R18";
        assert_eq!(of(base, base), 0.0);
        // Ten millimetres of offset: both faces by ten.
        assert!((of(base, "18x8 ET35 225/40R18") - 200.0_f64.sqrt()).abs() < 1e-9);
        assert!(
            (of(base, "18x8 ET35 225/40R18") - of("18x8 ET35 225/40R18", base)).abs() < 1e-12,
            "either way"
        );
        assert_eq!(of(base, "18x8 ET55 225/40R18 10 mm spacer"), 0.0, "a spacer is offset");
    }

    #[test]
    fn the_envelope_is_the_furthest_that_did_not_rub() {
        let fits = [
            fit("Tarn", "18x9 ET30 255/35R18", "as built", Rub::None),
            fit("Tarn", "18x9 ET40 255/35R18", "as built", Rub::None),
            fit("Tarn", "18x9 ET15 255/35R18", "as built", Rub::OverBumps),
            fit("Tarn", "18x9.5 ET15 255/35R18", "pulled", Rub::None),
        ];
        let found = envelopes(&fits, Axle::Rear);
        assert_eq!(found.len(), 2);
        assert_eq!((found[0].fender.as_str(), found[0].cars, found[0].rubbed), ("as built", 2, 1));
        // 255/35R18 on its measuring rim of 9 in: half of 255 less 30.
        assert!((found[0].outer_mm - (127.5 - 30.0)).abs() < 0.01, "{}", found[0].outer_mm);
        assert_eq!(found[0].furthest_out, "18x9 ET30 255/35R18".parse().unwrap());
        assert!(envelopes(&fits, Axle::Front).is_empty());
    }

    #[test]
    fn one_fit_is_told_from_another_by_car_and_setup_not_by_words() {
        let one = fit("Tarn", "18x9 ET30 255/35R18", "as built", Rub::None);
        let said = ProvenFit { view: "lovely".into(), shop: "elsewhere".into(), ..one.clone() };
        assert_eq!(one.key(), said.key());
        assert_ne!(one.key(), fit("Tarn", "18x9 ET31 255/35R18", "as built", Rub::None).key());
        let car = ProvenCar { model: " tarn".into(), ..ProvenCar::default() };
        assert_eq!((one.likeness(&car), one.likeness(&ProvenCar::default())), (4, 0));
    }
}
