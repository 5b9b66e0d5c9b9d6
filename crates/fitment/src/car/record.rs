//! The car's record: what the factory built and what was done to it since.
//!
//! [`FACTS`] is the registry of what can be known about a car; a [`Car`] holds what is known about one. What is
//! not known is not there: there is no default for anything.

use std::collections::BTreeMap;
use std::fmt;

use crate::notation::NotationError;
use crate::setup::{Axle, Setup, SetupPair};

/// What a fact's value is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum FactKind {
    /// A few words, at most so many characters.
    Words(usize),
    /// A number: its unit, least and most.
    Number(&'static str, f64, f64),
    /// One of these.
    OneOf(&'static [&'static str]),
    /// A setup line.
    Setup,
}

/// Something that can be known about a car.
#[derive(Debug, Clone, Copy)]
pub struct FactFacts {
    /// The fact.
    pub fact: Fact,
    /// Its code, unit-suffixed where it is a number.
    pub code: &'static str,
    /// Its name.
    pub title: &'static str,
    /// Under which heading it stands.
    pub group: &'static str,
    /// What its value is.
    pub kind: FactKind,
    /// Whether it is known for each axle by itself.
    pub is_per_axle: bool,
    /// Whether it belongs to the one car and not to its model: it is not carried over to the next one.
    pub is_individual: bool,
    /// What it is good for, or what must be minded.
    pub note: &'static str,
}

/// What can be known about a car.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[allow(missing_docs, reason = "the facts by their names; see FACTS")]
pub enum Fact {
    Model,
    Body,
    Generation,
    BrakePackage,
    KerbMass,
    FrontShare,
    TopSpeed,
    VehicleClass,
    DialOverRead,
    FactorySetup,
    PlacardPressure,
    AxleRating,
    HubBore,
    HubLip,
    BoltCircle,
    Thread,
    Seat,
    FastenerKind,
    FastenerLength,
    HubKind,
    StudBeyondHub,
    PadToSeat,
    Torque,
    PressureSensors,
    RideHeight,
    Suspension,
    Dropped,
    Fender,
    Camber,
    Toe,
    SuspensionKind,
    Inclination,
    Caster,
    ScrubRadius,
    Trail,
    LockOutward,
    LockInward,
    BumpTravel,
    DroopTravel,
    TreadDepth,
    CamberBy,
    RearWheels,
    PlannedTreadDepth,
}

macro_rules! fact {
    ($fact:ident, $code:literal, $title:literal, $group:literal, $kind:expr, $per_axle:literal, $individual:literal, $note:literal) => {
        FactFacts {
            fact: Fact::$fact,
            code: $code,
            title: $title,
            group: $group,
            kind: $kind,
            is_per_axle: $per_axle,
            is_individual: $individual,
            note: $note,
        }
    };
}

/// In the order of [`Fact`]'s variants. The ranges catch a slipped digit or unit; they are judgements.
pub const FACTS: &[FactFacts] = &[
    fact!(Model, "model", "Model", "The car", FactKind::Words(80), false, false, ""),
    fact!(
        Body,
        "body",
        "Body",
        "The car",
        FactKind::Words(40),
        false,
        false,
        "hatch, saloon, estate, coupé: wheel wells differ"
    ),
    fact!(
        Generation,
        "generation",
        "Generation",
        "The car",
        FactKind::Words(40),
        false,
        false,
        "years or code"
    ),
    fact!(
        BrakePackage,
        "brake_package",
        "Brakes",
        "The car",
        FactKind::Words(60),
        false,
        false,
        "another brake package is another car here"
    ),
    fact!(
        KerbMass,
        "kerb_mass_kg",
        "Kerb mass",
        "The car",
        FactKind::Number("kg", 400.0, 8000.0),
        false,
        false,
        ""
    ),
    fact!(
        FrontShare,
        "front_share_pct",
        "Front share",
        "The car",
        FactKind::Number("%", 30.0, 75.0),
        false,
        false,
        "of the mass, on the front axle"
    ),
    fact!(
        TopSpeed,
        "top_speed_kmh",
        "Top speed",
        "The car",
        FactKind::Number("km/h", 60.0, 450.0),
        false,
        false,
        "the tire's speed symbol is held against it"
    ),
    fact!(
        VehicleClass,
        "vehicle_class",
        "Class",
        "The car",
        FactKind::OneOf(&["passenger car", "light truck", "van", "trailer"]),
        false,
        false,
        "passenger tires carry a tenth less on a truck, van or trailer"
    ),
    fact!(
        DialOverRead,
        "dial_over_read_pct",
        "Dial over-reads by",
        "The car",
        FactKind::Number("%", 0.0, 12.0),
        false,
        true,
        "measured with satellite speed, on the factory's tires; unknown until then"
    ),
    fact!(
        FactorySetup,
        "factory_setup",
        "Factory wheel and tire",
        "From the factory",
        FactKind::Setup,
        true,
        false,
        ""
    ),
    fact!(
        PlacardPressure,
        "placard_kpa",
        "Placard pressure",
        "From the factory",
        FactKind::Number("kPa", 100.0, 850.0),
        true,
        false,
        "cold, as on the door pillar"
    ),
    fact!(
        AxleRating,
        "axle_rating_kg",
        "Axle load rating",
        "From the factory",
        FactKind::Number("kg", 200.0, 6000.0),
        true,
        false,
        "half of it is what one wheel must carry"
    ),
    fact!(
        HubBore,
        "hub_bore_mm",
        "Hub diameter",
        "Hub and fasteners",
        FactKind::Number("mm", 40.0, 250.0),
        true,
        false,
        "a wheel bore under it does not go on"
    ),
    fact!(
        HubLip,
        "hub_lip_mm",
        "Hub lip height",
        "Hub and fasteners",
        FactKind::Number("mm", 0.0, 40.0),
        true,
        false,
        "what centres the wheel; a spacer takes of it"
    ),
    fact!(
        BoltCircle,
        "bolt_circle",
        "Bolt circle",
        "Hub and fasteners",
        FactKind::Words(12),
        false,
        false,
        "count × diameter, as in 5x114.3"
    ),
    fact!(
        Thread,
        "thread",
        "Thread",
        "Hub and fasteners",
        FactKind::Words(16),
        false,
        false,
        "as in M14x1.5"
    ),
    fact!(
        Seat,
        "seat",
        "Seat",
        "Hub and fasteners",
        FactKind::OneOf(&["cone 60°", "ball R12", "ball R13", "ball R14", "flat with washer"]),
        false,
        false,
        "a cone in a ball seat works loose"
    ),
    fact!(
        FastenerKind,
        "fastener_kind",
        "Bolts or studs",
        "Hub and fasteners",
        FactKind::OneOf(&["bolts", "studs and nuts"]),
        false,
        false,
        "a slip-on spacer eats a stud's length, and asks for a longer bolt"
    ),
    fact!(
        FastenerLength,
        "fastener_length_mm",
        "Fitted fastener length",
        "Hub and fasteners",
        FactKind::Number("mm", 10.0, 120.0),
        false,
        true,
        "under the head"
    ),
    fact!(
        HubKind,
        "hub_kind",
        "Hub",
        "Hub and fasteners",
        FactKind::OneOf(&["bolts", "studs", "centre lock"]),
        false,
        false,
        "overrules bolts or studs"
    ),
    fact!(
        StudBeyondHub,
        "stud_beyond_hub_mm",
        "Studs beyond the hub",
        "Hub and fasteners",
        FactKind::Number("mm", 5.0, 150.0),
        true,
        true,
        "from the face that the wheel sits on, disc or drum in place"
    ),
    fact!(
        PadToSeat,
        "pad_to_seat_mm",
        "New wheel, pad to seat",
        "Hub and fasteners",
        FactKind::Number("mm", 1.0, 60.0),
        false,
        true,
        "from the planned wheel's mounting pad to the seat of its holes"
    ),
    fact!(
        Torque,
        "torque_nm",
        "Torque",
        "Hub and fasteners",
        FactKind::Number("N·m", 40.0, 1000.0),
        false,
        false,
        "from the car's handbook, never guessed"
    ),
    fact!(
        PressureSensors,
        "pressure_sensors",
        "Pressure sensors",
        "Hub and fasteners",
        FactKind::OneOf(&["none", "in the wheels", "through wheel speed"]),
        false,
        false,
        "those in the wheels must move over or be ordered"
    ),
    fact!(
        RideHeight,
        "ride_height_mm",
        "Hub to arch, factory",
        "Height and fender",
        FactKind::Number("mm", 200.0, 700.0),
        true,
        false,
        "hub centre straight up to the arch lip"
    ),
    fact!(
        Suspension,
        "suspension",
        "Suspension",
        "Height and fender",
        FactKind::OneOf(&["as built", "springs", "coilovers", "air", "lift"]),
        true,
        true,
        ""
    ),
    fact!(
        Dropped,
        "dropped_mm",
        "Dropped by",
        "Height and fender",
        FactKind::Number("mm", -250.0, 200.0),
        true,
        true,
        "minus is lifted"
    ),
    fact!(
        Fender,
        "fender",
        "Fender",
        "Height and fender",
        FactKind::OneOf(&["as built", "lip rolled", "pulled", "flared"]),
        true,
        true,
        ""
    ),
    fact!(
        Camber,
        "camber_deg",
        "Camber",
        "Alignment",
        FactKind::Number("°", -12.0, 5.0),
        true,
        true,
        "minus is top inward"
    ),
    fact!(
        Toe,
        "toe_deg",
        "Toe",
        "Alignment",
        FactKind::Number("°", -3.0, 3.0),
        true,
        true,
        "plus is toe-in, each wheel"
    ),
    fact!(
        SuspensionKind,
        "suspension_kind",
        "Kind of suspension",
        "Steering and travel",
        FactKind::OneOf(&["strut", "double wishbone", "multi-link", "light truck wishbones", "solid axle"]),
        true,
        false,
        "what stands in for what is not measured of steering and travel"
    ),
    fact!(
        Inclination,
        "inclination_deg",
        "Steering axis, leaning inboard",
        "Steering and travel",
        FactKind::Number("°", -30.0, 30.0),
        false,
        false,
        "front axle; from the alignment sheet"
    ),
    fact!(
        Caster,
        "caster_deg",
        "Caster",
        "Steering and travel",
        FactKind::Number("°", -20.0, 20.0),
        false,
        true,
        "front axle; from the alignment sheet"
    ),
    fact!(
        ScrubRadius,
        "scrub_radius_mm",
        "Scrub radius",
        "Steering and travel",
        FactKind::Number("mm", -200.0, 200.0),
        false,
        false,
        "front axle, with the fitted set; plus where the axis meets the ground inboard of the contact"
    ),
    fact!(
        Trail,
        "trail_mm",
        "Trail",
        "Steering and travel",
        FactKind::Number("mm", -200.0, 200.0),
        false,
        false,
        "front axle, with the fitted set; plus ahead of the contact"
    ),
    fact!(
        LockOutward,
        "lock_outward_deg",
        "Full lock, front edge outboard",
        "Steering and travel",
        FactKind::Number("°", 0.0, 60.0),
        false,
        false,
        "the inner wheel of a turn, on turn plates"
    ),
    fact!(
        LockInward,
        "lock_inward_deg",
        "Full lock, front edge inboard",
        "Steering and travel",
        FactKind::Number("°", 0.0, 60.0),
        false,
        false,
        "the outer wheel of a turn, on turn plates"
    ),
    fact!(
        BumpTravel,
        "bump_mm",
        "Bump travel left",
        "Steering and travel",
        FactKind::Number("mm", 0.0, 400.0),
        true,
        true,
        "gap at the bump stop × motion ratio"
    ),
    fact!(
        DroopTravel,
        "droop_mm",
        "Droop travel",
        "Steering and travel",
        FactKind::Number("mm", 0.0, 400.0),
        true,
        true,
        "from standing to hanging free"
    ),
    fact!(
        TreadDepth,
        "tread_depth_mm",
        "Tread depth of the fitted tire",
        "Steering and travel",
        FactKind::Number("mm", 0.0, 20.0),
        true,
        true,
        "a worn tire makes the arch seem higher than it is"
    ),
    fact!(
        CamberBy,
        "camber_by",
        "How another camber is had",
        "Steering and travel",
        FactKind::OneOf(&[
            "strut-top plates",
            "bolts at the strut's foot",
            "a shorter upper arm",
            "a longer lower arm",
        ]),
        true,
        false,
        "the ways differ at the strut and at the lip; unknown, the worst is reckoned with"
    ),
    fact!(
        RearWheels,
        "rear_wheels",
        "Rear wheels",
        "The car",
        FactKind::OneOf(&["single", "dual"]),
        false,
        false,
        "dual: four tires carry the rear axle, each at the second load index"
    ),
    fact!(
        PlannedTreadDepth,
        "planned_tread_depth_mm",
        "Planned tire's tread depth",
        "Alignment and tires",
        FactKind::Number("mm", 0.0, 25.0),
        true,
        true,
        "of used tires: on all-wheel drive front and rear may not differ by much"
    ),
];

impl Fact {
    /// A number of this fact, in its unit, wherever it is stated: in the car's record or in a question about a bare corner.
    ///
    /// # Errors
    /// [`CarError::Range`] for what no road car has.
    pub fn checked(self, number: f64) -> Result<f64, CarError> {
        let facts = self.facts();
        match facts.kind {
            FactKind::Number(unit, least, most) if !(least..=most).contains(&number) => {
                Err(CarError::Range { title: facts.title, given: number, unit, least, most })
            }
            _ => Ok(number),
        }
    }

    /// What is known about the fact itself.
    pub fn facts(self) -> &'static FactFacts {
        &FACTS[self as usize]
    }

    /// The fact of this code.
    pub fn from_code(code: &str) -> Option<Self> {
        FACTS.iter().find(|row| row.code == code).map(|row| row.fact)
    }
}

/// What is known.
#[derive(Debug, Clone, PartialEq)]
pub enum Value {
    /// Words, or one of a list.
    Words(String),
    /// A number in the fact's unit.
    Number(f64),
    /// A setup.
    Setup(Box<Setup>),
}

/// As it is kept and typed again.
impl fmt::Display for Value {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Words(words) => f.write_str(words),
            Self::Number(number) => number.fmt(f),
            Self::Setup(setup) => setup.fmt(f),
        }
    }
}

/// Why a value is not one.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum CarError {
    /// Not a number.
    #[error("{title}: {given:?} is not a number in {unit}")]
    NotANumber {
        /// The fact's name.
        title: &'static str,
        /// What was given.
        given: String,
        /// The unit.
        unit: &'static str,
    },
    /// Out of range.
    #[error("{title}: {given} {unit} is outside {least}–{most}")]
    Range {
        /// The fact's name.
        title: &'static str,
        /// What was given.
        given: f64,
        /// The unit.
        unit: &'static str,
        /// Least.
        least: f64,
        /// Most.
        most: f64,
    },
    /// Not one of the choices.
    #[error("{title}: {given:?} is not one of {}", choices.join(", "))]
    NotOneOf {
        /// The fact's name.
        title: &'static str,
        /// What was given.
        given: String,
        /// The choices.
        choices: &'static [&'static str],
    },
    /// Too long.
    #[error("{title} is longer than {most} characters")]
    TooLong {
        /// The fact's name.
        title: &'static str,
        /// Most characters.
        most: usize,
    },
    /// Known for each axle, or for the car as a whole.
    #[error("{0} is known for {1}")]
    Where(&'static str, &'static str),
    /// A setup line that cannot be read.
    #[error(transparent)]
    Notation(#[from] NotationError),
}

/// A factory alternative: another wheel and tire the maker fitted.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Alternative {
    /// What it is called.
    pub name: String,
    /// Front and rear.
    pub setups: SetupPair,
}

/// What is known about one car.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Car {
    known: BTreeMap<(Fact, Option<AxleKey>), Value>,
    /// Other wheels and tires the factory offered.
    pub alternatives: Vec<Alternative>,
}

/// [`Axle`] with an order, for the map.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
enum AxleKey {
    Front,
    Rear,
}

fn key(axle: Axle) -> AxleKey {
    match axle {
        Axle::Front => AxleKey::Front,
        Axle::Rear => AxleKey::Rear,
    }
}

impl Car {
    /// Notes a fact as it was typed; blank means nobody knows it.
    ///
    /// # Errors
    /// When it cannot be a value of this fact; the car is unchanged then.
    pub fn note(&mut self, fact: Fact, axle: Option<Axle>, text: &str) -> Result<(), CarError> {
        let facts = fact.facts();
        // The studs are mostly alike on both axles, and said once.
        if fact == Fact::StudBeyondHub && axle.is_none() {
            return Axle::BOTH.into_iter().try_for_each(|axle| self.note(fact, Some(axle), text));
        }
        if facts.is_per_axle != axle.is_some() {
            let place = if facts.is_per_axle { "each axle" } else { "the whole car" };
            return Err(CarError::Where(facts.title, place));
        }
        let at = (fact, axle.map(key));
        match read(facts, text.trim())? {
            Some(value) => self.known.insert(at, value),
            None => self.known.remove(&at),
        };
        Ok(())
    }

    /// What is known, in the registry's order.
    pub fn known(&self) -> impl Iterator<Item = (Fact, Option<Axle>, &Value)> {
        self.known.iter().map(|((fact, axle), value)| {
            let axle = axle.map(|axle| match axle {
                AxleKey::Front => Axle::Front,
                AxleKey::Rear => Axle::Rear,
            });
            (*fact, axle, value)
        })
    }

    /// Whether nothing is known.
    pub fn is_unknown(&self) -> bool {
        self.known.is_empty() && self.alternatives.is_empty()
    }

    /// A fact's value.
    pub fn value(&self, fact: Fact, axle: Option<Axle>) -> Option<&Value> {
        self.known.get(&(fact, axle.map(key)))
    }

    /// A number.
    pub fn number(&self, fact: Fact, axle: Option<Axle>) -> Option<f64> {
        match self.value(fact, axle)? {
            Value::Number(number) => Some(*number),
            _ => None,
        }
    }

    /// Words.
    pub fn words(&self, fact: Fact, axle: Option<Axle>) -> Option<&str> {
        match self.value(fact, axle)? {
            Value::Words(words) => Some(words),
            _ => None,
        }
    }

    /// What the factory fitted.
    pub fn factory(&self) -> SetupPair {
        let setup = |axle| match self.value(Fact::FactorySetup, Some(axle)) {
            Some(Value::Setup(setup)) => Some(**setup),
            _ => None,
        };
        SetupPair { front: setup(Axle::Front), rear: setup(Axle::Rear) }
    }

    /// What the next car of this model shares with it: everything but what was done to this one.
    pub fn model_only(&self) -> Self {
        let known = self.known.iter().filter(|((fact, _), _)| !fact.facts().is_individual);
        Self {
            known: known.map(|(at, value)| (*at, value.clone())).collect(),
            alternatives: self.alternatives.clone(),
        }
    }
}

fn read(facts: &FactFacts, text: &str) -> Result<Option<Value>, CarError> {
    if text.is_empty() {
        return Ok(None);
    }
    let title = facts.title;
    Ok(Some(match facts.kind {
        FactKind::Words(most) if text.chars().count() > most => {
            return Err(CarError::TooLong { title, most });
        }
        FactKind::Words(_) => Value::Words(text.to_owned()),
        FactKind::OneOf(choices) if !choices.contains(&text) => {
            return Err(CarError::NotOneOf { title, given: text.to_owned(), choices });
        }
        FactKind::OneOf(_) => Value::Words(text.to_owned()),
        FactKind::Number(unit, ..) => {
            // A comma is a decimal point on half of the shop's keyboards; a minus may be typographic.
            let plain = text.replace(',', ".").replace('−', "-");
            let number: f64 =
                plain.parse().map_err(|_| CarError::NotANumber { title, given: text.to_owned(), unit })?;
            Value::Number(facts.fact.checked(number)?)
        }
        FactKind::Setup => Value::Setup(Box::new(text.parse()?)),
    }))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_fact_stands_in_its_own_row() {
        for (at, row) in FACTS.iter().enumerate() {
            assert_eq!(row.fact as usize, at, "{}", row.code);
            assert_eq!(Fact::from_code(row.code), Some(row.fact));
        }
        assert_eq!(Fact::from_code("shoe_size"), None);
    }

    #[test]
    fn unknown_is_a_value() {
        let mut car = Car::default();
        assert!(car.is_unknown());
        car.note(Fact::Camber, Some(Axle::Rear), "−1,5").unwrap();
        assert_eq!(car.number(Fact::Camber, Some(Axle::Rear)), Some(-1.5));
        assert_eq!(car.number(Fact::Camber, Some(Axle::Front)), None, "not read, not zero");
        car.note(Fact::Camber, Some(Axle::Rear), "  ").unwrap();
        assert!(car.is_unknown());
    }

    #[test]
    fn what_cannot_be_is_told_and_changes_nothing() {
        let mut car = Car::default();
        for (fact, axle, text, says) in [
            (Fact::KerbMass, None, "99999", "Kerb mass: 99999 kg is outside 400–8000"),
            (Fact::KerbMass, None, "heavy", "Kerb mass: \"heavy\" is not a number in kg"),
            (Fact::KerbMass, None, "NaN", "Kerb mass: NaN kg is outside 400–8000"),
            (Fact::KerbMass, Some(Axle::Front), "1400", "Kerb mass is known for the whole car"),
            (Fact::Camber, None, "-1", "Camber is known for each axle"),
            (
                Fact::Fender,
                Some(Axle::Front),
                "melted",
                "Fender: \"melted\" is not one of as built, lip rolled, pulled, flared",
            ),
            (Fact::Thread, None, "M14x1.5 and a lot of words", "Thread is longer than 16 characters"),
        ] {
            assert_eq!(car.note(fact, axle, text).unwrap_err().to_string(), says);
        }
        let line = car.note(Fact::FactorySetup, Some(Axle::Front), "17x7.5 ET45 225/145R17").unwrap_err();
        assert!(line.to_string().contains("aspect ratio 145"), "{line}");
        assert!(car.is_unknown());
    }

    #[test]
    fn the_next_car_of_a_model_shares_what_the_factory_built() {
        let mut car = Car::default();
        car.note(Fact::Model, None, "Halvard Tinde").unwrap();
        car.note(Fact::FactorySetup, Some(Axle::Front), "7.5x17 ET45 225/45R17").unwrap();
        car.note(Fact::Camber, Some(Axle::Front), "-2").unwrap();
        car.note(Fact::Fender, Some(Axle::Rear), "lip rolled").unwrap();
        let next = car.model_only();
        assert_eq!(next.words(Fact::Model, None), Some("Halvard Tinde"));
        assert_eq!(next.factory().front.unwrap().to_string(), "17x7.5 ET45 · 225/45R17");
        assert_eq!(next.value(Fact::Camber, Some(Axle::Front)), None);
        assert_eq!(next.value(Fact::Fender, Some(Axle::Rear)), None);
        assert_eq!(next.known().count(), 2);
    }
}
