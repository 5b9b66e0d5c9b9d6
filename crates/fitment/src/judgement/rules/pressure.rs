//! The cold pressure at which a tire carries a load.
//!
//! What a pressure carries depends on what the tire is: the same size as extra load, light truck or commercial tire
//! carries its index at another reference pressure. A figure wrong by half must not be printed: where the reference is
//! not known, nothing is suggested and it is said what to ask.

use super::load::share_made_for;
use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::car::Fact;
use crate::judgement::case::half_rating_kg;
use crate::parts::tire::{LoadRange, LoadVersion, Prefix, Size, Tire};
use crate::values::working::{Figure, Phrase, Quantity, Source, Step};

/// Where the method comes from.
pub const SOURCE: Source =
    Source::from_memory("ETRTO and TRA, load and pressure: P = P_ref × (L / L_max)^(1 / n)");

/// What must stand beside every suggested pressure.
pub const CAUTION: &str = "A suggestion: the tire maker's load table, the sidewall maximum and the car's placard decide. Set it cold.";

/// No road car's tire is set lower, in kPa. Common practice.
pub const LEAST_ON_THE_ROAD_KPA: f64 = 180.0;

pub(super) const RULE: Rule = Rule {
    title: "Cold pressure",
    source: SOURCE,
    asked: Asked::PerAxle(LineCode::Pressure, judge),
    of_car: &[Fact::PlacardPressure],
};

/// At which pressure a tire carries its load index, and how load goes with pressure.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LoadTable {
    /// Reference pressure, in kPa.
    pub reference_kpa: f64,
    /// Load goes with this power of the pressure.
    pub exponent: f64,
    /// What the tire is, in words; what was assumed is said.
    pub is: &'static str,
    /// Nobody stated the load version: the one that asks for more pressure was taken.
    pub is_assumed: bool,
}

/// Why no pressure can be suggested, and what would open it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum NoPressure {
    /// No load index.
    Index,
    /// A light truck tire without its load range.
    LoadRange,
    /// A commercial tire: its reference is on the sidewall.
    Sidewall,
    /// A size of another table: racing, drag, classic.
    OtherTable,
}

impl NoPressure {
    /// What to ask for.
    pub fn says(self) -> &'static str {
        match self {
            Self::Index => "Name the planned tire's load index, as in 97Y.",
            Self::LoadRange => "Name the light truck tire's load range (C, D, E …): its pressure goes by it.",
            Self::Sidewall => {
                "The pressure of a commercial tire, of a dual index, or of a half-code rim stands on its sidewall: ask for it; nothing is suggested without."
            }
            Self::OtherTable => {
                "Racing, drag and classic sizes have no common load table: ask the tire's maker."
            }
        }
    }
}

impl LoadTable {
    /// A tire's table. `sidewall_kpa` is the pressure that a commercial tire's sidewall names for its load.
    ///
    /// # Source
    /// Reference pressures in kPa: Euro-metric standard load 250, extra load and HL 290; P-metric 240 and 280; LT by load
    /// range B 240, C 350, D 450, E 550, F 650, G 760 (ETRTO, TRA, from memory). Exponents 0.8, LT 0.7; for P-metric 0.8
    /// is on the safe side of TRA's 0.5. A metric tire whose version nobody stated is taken as extra load: that asks for
    /// at most 16 % too much, never for too little. Its size and index say it for the common sizes ([`LoadVersion::by_table`]). A dual
    /// index, C, and rims of half a code are no passenger tire's: their sidewall says the pressure.
    ///
    /// # Errors
    /// Where the reference pressure is not known.
    pub fn of(tire: &Tire, sidewall_kpa: Option<f64>) -> Result<Self, NoPressure> {
        let table = |reference_kpa, exponent, is| Self { reference_kpa, exponent, is, is_assumed: false };
        if let Some(range) = tire.load_range
            && tire.size.prefix() != Some(Prefix::Commercial)
        {
            return light_truck(range)
                .map(|kpa| table(kpa, 0.7, "light truck tire of its load range"))
                .ok_or(NoPressure::LoadRange);
        }
        if tire.size.is_light_truck() || tire.size.is_flotation() {
            return Err(NoPressure::LoadRange);
        }
        let Size::Metric(_) = tire.size else { return Err(NoPressure::OtherTable) };
        // Twin wheels and rims of half a code are a van's or a truck's, whether the text says C or not.
        let is_for_twins = tire.service.is_some_and(|service| service.dual.is_some());
        let is_of_a_truck = is_for_twins || tire.size.rim().code().fract() != 0.0;
        let version = tire.load_version.or_else(|| LoadVersion::by_table(tire));
        Ok(match (tire.size.prefix(), version) {
            (prefix, _) if prefix == Some(Prefix::Commercial) || is_of_a_truck => {
                return sidewall_kpa
                    .map(|kpa| table(kpa, 0.8, "commercial tire, by its sidewall"))
                    .ok_or(NoPressure::Sidewall);
            }
            (Some(Prefix::Hl), _) => table(290.0, 0.8, "high load tire"),
            (Some(Prefix::P), Some(LoadVersion::Extra)) => table(280.0, 0.8, "P-metric extra load tire"),
            (Some(Prefix::P), _) => table(240.0, 0.8, "P-metric standard load tire"),
            (_, Some(LoadVersion::Extra)) => table(290.0, 0.8, "extra load tire"),
            (_, Some(LoadVersion::Standard)) => table(250.0, 0.8, "standard load tire"),
            (_, None) => Self {
                is_assumed: true,
                ..table(290.0, 0.8, "tire whose load version is not stated, taken as extra load")
            },
        })
    }

    /// The table of a tire that is replaced: of an unstated version the one that carried more at its pressure.
    fn of_the_replaced(tire: &Tire) -> Result<Self, NoPressure> {
        let table = Self::of(tire, None)?;
        Ok(if table.is_assumed { Self { reference_kpa: 250.0, ..table } } else { table })
    }

    /// What a tire carries at a pressure, in kilograms; above its reference no more than its index.
    pub fn carries_kg(&self, capacity_kg: f64, kpa: f64) -> f64 {
        capacity_kg * (kpa / self.reference_kpa).clamp(0.0, 1.0).powf(self.exponent)
    }

    /// The pressure at which a tire carries a load, in kPa; above the reference where it cannot.
    pub fn pressure_kpa(&self, capacity_kg: f64, load_kg: f64) -> f64 {
        self.reference_kpa * (load_kg.max(0.0) / capacity_kg).powf(1.0 / self.exponent)
    }
}

fn light_truck(range: LoadRange) -> Option<f64> {
    Some(match range.letter() {
        'B' => 240.0,
        'C' => 350.0,
        'D' => 450.0,
        'E' => 550.0,
        'F' => 650.0,
        'G' => 760.0,
        _ => return None,
    })
}

/// A tire that is replaced, with the pressure the car's placard has for it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Replaced {
    /// The tire.
    pub tire: Tire,
    /// Its cold pressure, in kPa.
    pub kpa: f64,
}

impl Replaced {
    /// What it carries there, in kilograms; `None` without its index, or where its table is not known.
    pub fn carries_kg(&self) -> Option<f64> {
        let capacity = self.tire.service?.single.capacity_kg();
        Some(LoadTable::of_the_replaced(&self.tire).ok()?.carries_kg(capacity, self.kpa))
    }
}

/// What is asked of a pressure.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct PressureFor {
    /// What one tire must carry, in kilograms: half of the axle's rating.
    pub load_kg: Option<f64>,
    /// The car's cold pressure on that axle, in kPa; the suggestion is never under it.
    pub placard_kpa: Option<f64>,
    /// The tire that carried the load before, at its pressure.
    pub replaces: Option<Replaced>,
    /// What a commercial tire's sidewall names, in kPa.
    pub sidewall_kpa: Option<f64>,
}

impl PressureFor {
    /// What the planned tire must be able to carry, in kilograms: the larger of what the axle asks for and what the
    /// replaced tire carries at its pressure.
    pub fn needed_kg(&self) -> Option<f64> {
        [self.load_kg, self.replaces.and_then(|replaced| replaced.carries_kg())]
            .into_iter()
            .flatten()
            .reduce(f64::max)
    }

    /// Whether a tire is the one the placard is written for: the same size and index, and no other version stated.
    fn is_the_placards_own(&self, tire: &Tire) -> bool {
        let own = |replaced: Replaced| {
            let alike = (replaced.tire.size, replaced.tire.service) == (tire.size, tire.service);
            let versions = [replaced.tire.load_version, tire.load_version];
            alike && tire.service.is_some() && (versions.contains(&None) || versions[0] == versions[1])
        };
        self.placard_kpa.is_some() && self.replaces.is_some_and(own)
    }

    /// The most a passenger tire stands where its sidewall was not read, in kPa, and whether the placard is over it for certain;
    /// `None` while the placard is not over it.
    ///
    /// # Source
    /// Common practice: 300 or 350 as standard, 340 or 350 as extra load. Light truck and commercial tires stand what their
    /// own load asks for.
    fn over_the_sidewall(&self, tire: &Tire) -> Option<(f64, bool)> {
        const MOST_KPA: f64 = 350.0;
        let is_passenger = matches!(tire.size.prefix(), Some(Prefix::None | Prefix::P | Prefix::Hl));
        let placard = self.placard_kpa.filter(|_| is_passenger && tire.load_range.is_none())?;
        let version = tire.load_version.or_else(|| LoadVersion::by_table(tire));
        let least = if version == Some(LoadVersion::Standard) { 300.0 } else { 340.0 };
        (placard > least).then_some((if placard > MOST_KPA { MOST_KPA } else { least }, placard > MOST_KPA))
    }

    /// Whether a tire can carry that at all; `true` where nothing is known that says otherwise.
    pub fn can_be_met_by(&self, tire: &Tire) -> bool {
        let needed = self.needed_kg();
        let capacity = tire.service.map(|service| service.single.capacity_kg());
        needed.zip(capacity).is_none_or(|(needed, capacity)| needed <= capacity + 1e-9)
    }
}

/// A suggested cold pressure.
#[derive(Debug, Clone, PartialEq)]
pub struct Pressure {
    /// In kPa; never under the placard nor [`LEAST_ON_THE_ROAD_KPA`], and never over the reference pressure.
    pub kpa: f64,
    /// What the tire carries at its reference pressure, in kilograms: its load index.
    pub capacity_kg: f64,
    /// Whether it carries the load at all.
    pub is_enough: bool,
    /// Whether the placard, not the load, set it.
    pub by_placard: bool,
    /// The table it was read from.
    pub table: LoadTable,
    /// The working.
    pub figure: Figure,
}

/// The pressure at which a tire carries what is asked.
///
/// # Errors
/// Where no pressure can be suggested: no index, no table.
pub fn pressure_for(tire: &Tire, asked: &PressureFor) -> Result<Pressure, NoPressure> {
    let capacity_kg = tire.service.ok_or(NoPressure::Index)?.single.capacity_kg();
    let table = LoadTable::of(tire, asked.sidewall_kpa)?;
    let needed = asked.needed_kg().unwrap_or(0.0);
    let is_enough = needed <= capacity_kg + 1e-9;
    let by_load = table.pressure_kpa(capacity_kg, needed).min(table.reference_kpa);
    let placard = asked.placard_kpa.or(asked.replaces.map(|replaced| replaced.kpa));
    let least = placard.unwrap_or(0.0).max(LEAST_ON_THE_ROAD_KPA);
    let kpa = by_load.max(least);
    let mut steps = Vec::new();
    if let Some((replaced, carries)) = asked.replaces.and_then(|one| Some((one, one.carries_kg()?))) {
        steps.push(Step {
            what: "what the replaced tire carries at its pressure",
            formula: "L_max1 × (P1 / P_ref1)^n1",
            inputs: vec![("P1", Quantity::pressure(replaced.kpa))],
            result: Quantity::mass(carries),
            source: SOURCE,
        });
    }
    steps.push(Step {
        what: "pressure at which it carries the load",
        formula: "P = P_ref × (L / L_max)^(1 / n)",
        inputs: vec![
            ("P_ref", Quantity::pressure(table.reference_kpa)),
            ("L", Quantity::mass(needed)),
            ("L_max", Quantity::mass(capacity_kg)),
            ("n", Quantity::ratio(table.exponent)),
        ],
        result: Quantity::pressure(by_load),
        source: SOURCE,
    });
    let figure = Figure::of(Step {
        what: "never under the placard, nor under what a road tire needs",
        formula: "max (P, placard, 180)",
        inputs: vec![("P", Quantity::pressure(by_load)), ("placard or least", Quantity::pressure(least))],
        result: Quantity::pressure(kpa),
        source: Source::common_practice("the placard is the least, and 180 kPa on the road"),
    })
    .after(steps);
    let by_placard = placard.is_some_and(|placard| placard >= by_load);
    Ok(Pressure { kpa, capacity_kg, is_enough, by_placard, table, figure })
}

/// `None` while neither the axle's rating nor the placard is written down: nothing says what must be carried.
fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let asked = check.case.pressure_for(check.axle.axle);
    if asked.load_kg.is_none() && asked.placard_kpa.is_none() {
        return None;
    }
    let tire = check.planned.tire?;
    let own = asked.placard_kpa.filter(|_| asked.is_the_placards_own(&tire));
    if let Some(kpa) = own {
        let kpa = Quantity::pressure(kpa);
        let step = Step {
            what: "cold pressure",
            formula: "the placard's, for the tire it is written for",
            inputs: Vec::new(),
            result: kpa,
            source: Source::common_practice("the placard stands for its own tire"),
        };
        return Some(Finding {
            severity: Severity::Good,
            word: "the placard's",
            figure: Some(kpa),
            limit: Phrase::new("placard ").quantity(kpa),
            says: Phrase::new("The size and index that the placard is written for: it stands."),
            caution: Some(CAUTION),
            working: vec![step],
            points: Vec::new(),
        });
    }
    if let Some((most, is_certain)) = asked.over_the_sidewall(&tire) {
        return Some(over_the_sidewall(&asked, most, is_certain));
    }
    let found = match pressure_for(&tire, &asked) {
        Ok(found) => found,
        Err(why) => return Some(Finding::unknown(why.says())),
    };
    let limit = match asked.placard_kpa {
        Some(kpa) => Phrase::new("placard ").quantity(Quantity::pressure(kpa)),
        None => Phrase::new("placard not written down"),
    };
    let needed = Quantity::mass(asked.needed_kg().unwrap_or(0.0));
    let (severity, word, says) = if !found.is_enough {
        let says = Phrase::new("To carry ")
            .quantity(needed)
            .text(", as the axle's rating or the tire before asks, this one is too small at any pressure.");
        (Severity::Stop, "too small", says)
    } else if found.by_placard {
        let says = Phrase::new("The placard is more than ")
            .quantity(needed)
            .text(" on each tire asks for: it stays.");
        (Severity::Good, "the placard's", says)
    } else {
        let why = if asked.load_kg.is_some_and(|load| load >= needed.value) {
            ", half of the axle's rating."
        } else {
            ", what the reference tire carries at the placard's pressure: the same pressure would carry less."
        };
        (Severity::Mind, "suggested", Phrase::new("To carry ").quantity(needed).text(why))
    };
    let says = says.text(format!(
        " Worked as {} {}.",
        if found.table.is.starts_with("extra") { "an" } else { "a" },
        found.table.is
    ));
    Some(Finding {
        severity,
        word,
        figure: Some(Quantity::pressure(found.kpa)),
        limit,
        says,
        caution: Some(CAUTION),
        working: found.figure.working,
        points: Vec::new(),
    })
}

/// A placard that asks more than the tire stands.
fn over_the_sidewall(asked: &PressureFor, most_kpa: f64, is_certain: bool) -> Finding {
    let (placard, most) =
        (Quantity::pressure(asked.placard_kpa.unwrap_or(0.0)), Quantity::pressure(most_kpa));
    let asks = Phrase::new("The placard asks ").quantity(placard);
    let (severity, word, says) = if is_certain {
        let says = asks.text(", this tire stands ").quantity(most).text(" at most: another kind of tire.");
        (Severity::Stop, "more than it stands", says)
    } else {
        let says =
            asks.text(", many such tires stand ").quantity(most).text(": read the sidewall maximum first.");
        (Severity::Measure, "read the sidewall", says)
    };
    let step = Step {
        what: "sidewall maximum, where it was not read",
        formula: "300 or 350 kPa as standard load, 340 or 350 as extra load",
        inputs: Vec::new(),
        result: most,
        source: Source::common_practice("the figure on the sidewall decides"),
    };
    Finding {
        severity,
        word,
        figure: Some(most),
        limit: Phrase::new("placard ").quantity(placard),
        says,
        caution: Some(CAUTION),
        working: vec![step],
        points: Vec::new(),
    }
}

/// What a cold pressure is set for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum LoadCase {
    /// What the reference tire carries at the placard's pressure.
    AsPlacard,
    /// Half of the axle's rating.
    Full,
    /// The larger of the two, at the car's top speed.
    TopSpeed,
}

impl LoadCase {
    /// All of them.
    pub const ALL: [Self; 3] = [Self::AsPlacard, Self::Full, Self::TopSpeed];

    /// In words.
    pub fn words(self) -> &'static str {
        match self {
            Self::AsPlacard => "as the placard, equal load",
            Self::Full => "the axle's whole rating",
            Self::TopSpeed => "the car's top speed",
        }
    }
}

/// A cold pressure for a case: what the tire must carry then, and the pressure or why there is none.
#[derive(Debug, Clone, PartialEq)]
pub struct CasePressure {
    /// The case.
    pub case: LoadCase,
    /// What the tire must carry, in kilograms.
    pub load_kg: f64,
    /// The pressure; `None` when the tire is too small for the case at any, or not made for the speed.
    pub kpa: Option<f64>,
}

impl crate::judgement::case::Case<'_> {
    /// Cold pressures of a planned tire for each case that the car's record knows.
    ///
    /// # Errors
    /// Where no pressure can be suggested: no index, no table.
    pub fn pressures_by_case(
        &self,
        axle: crate::setup::Axle,
        tire: &Tire,
    ) -> Result<Vec<CasePressure>, NoPressure> {
        let asked = self.pressure_for(axle);
        let by_placard = PressureFor { load_kg: None, ..asked };
        let top_kmh = self.state.car.number(Fact::TopSpeed, None);
        // Beyond its symbol a tire carries nothing that anybody states.
        let share =
            tire.service.zip(top_kmh).map(|(service, kmh)| share_made_for(service.speed, kmh).unwrap_or(0.0));
        let mut all = Vec::new();
        for case in LoadCase::ALL {
            let (asked, share) = match case {
                LoadCase::AsPlacard => (by_placard, Some(1.0)),
                LoadCase::Full => (PressureFor { replaces: None, ..asked }, asked.load_kg.map(|_| 1.0)),
                LoadCase::TopSpeed => (asked, share),
            };
            let Some((needed, share)) = asked.needed_kg().zip(share) else { continue };
            // A tire that carries a share of its index at a speed stands as if it carried so much more.
            let found = pressure_for(tire, &PressureFor { load_kg: Some(needed / share), ..asked })?;
            all.push(CasePressure { case, load_kg: needed, kpa: found.is_enough.then_some(found.kpa) });
        }
        Ok(all)
    }

    /// What is asked of the cold pressure on an axle.
    pub fn pressure_for(&self, axle: crate::setup::Axle) -> PressureFor {
        let car = &self.state.car;
        let placard_kpa = car.number(Fact::PlacardPressure, Some(axle));
        // The placard belongs to the factory's tire, not to whatever is fitted now.
        let factory = car.factory().on(axle).and_then(|setup| setup.tire);
        let replaces = factory.zip(placard_kpa).map(|(tire, kpa)| Replaced { tire, kpa });
        PressureFor { load_kg: half_rating_kg(car, axle), placard_kpa, replaces, sidewall_kpa: None }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::line_on;
    use crate::car::Car;
    use crate::setup::Axle;

    fn tire(text: &str) -> Tire {
        text.parse().unwrap()
    }

    #[test]
    fn each_case_asks_for_its_own_load() {
        use crate::car::limits::HouseLimits;
        use crate::judgement::case::{CarState, Case};
        let pair = |line: &str| crate::setup::line::read(line).unwrap().setups.unwrap();
        let (fitted, planned) = (pair("17x7.5 ET45 225/45R17 91W SL"), pair("18x8 ET45 225/40R18 92Y XL"));
        let by_case = |facts: &[(Fact, Option<Axle>, &str)], tire: &Tire| {
            let mut car = Car::default();
            for (fact, axle, text) in facts {
                car.note(*fact, *axle, text).unwrap();
            }
            let limits = HouseLimits::DEFAULT;
            let case =
                Case::new(&fitted, &planned, None, &limits, None).in_state(CarState::default().of_car(car));
            case.pressures_by_case(Axle::Front, tire)
        };
        let all = [
            (Fact::PlacardPressure, Some(Axle::Front), "220"),
            (Fact::FactorySetup, Some(Axle::Front), "17x7.5 ET45 225/45R17 91W SL"),
            (Fact::AxleRating, Some(Axle::Front), "1160"),
            (Fact::TopSpeed, None, "290"),
        ];
        let planned = tire("225/40R18 92Y XL");
        let found = by_case(&all, &planned).unwrap();
        // Equal load: 615 × (220 / 250)^0.8 carried before; 580 is half of the rating; at 290 km/h a Y carries nine tenths.
        let carried = 615.0 * (220.0f64 / 250.0).powf(0.8);
        let kpa = |load: f64| 290.0 * (load / 630.0).powf(1.25);
        for (one, (case, load, wanted)) in found.iter().zip([
            (LoadCase::AsPlacard, carried, kpa(carried)),
            (LoadCase::Full, 580.0, kpa(580.0)),
            (LoadCase::TopSpeed, 580.0, kpa(580.0 / 0.9)),
        ]) {
            assert_eq!(one.case, case);
            assert!((one.load_kg - load).abs() < 1e-9, "{one:?}");
            match one.kpa {
                Some(kpa) => assert!((kpa - wanted).abs() < 1e-9, "{one:?}, not {wanted}"),
                // 580 / 0.9 is more than its index: too small at that speed.
                None => assert_eq!((case, 580.0 / 0.9 > 630.0), (LoadCase::TopSpeed, true)),
            }
        }
        assert_eq!(found.len(), 3);
        let slow = tire("225/40R18 92V XL");
        assert_eq!(by_case(&all, &slow).unwrap()[2].kpa, None, "not made for that speed");
        assert_eq!(
            by_case(&all[..2], &planned).unwrap().len(),
            1,
            "what nobody wrote down leaves its row out"
        );
        assert_eq!(by_case(&[], &planned).unwrap(), []);
        assert_eq!(by_case(&all, &tire("225/40R18")), Err(NoPressure::Index));
    }

    #[test]
    fn the_pressure_goes_by_what_the_tire_is() {
        // ETRTO and TRA references and exponents (memory); the figures follow by the formula beside each.
        for (text, load, kpa) in [
            ("LT285/70R17 121/118S E", 1450.0, 550.0),
            ("LT265/75R16 123/120Q E", 1100.0, 550.0 * (1100.0f64 / 1550.0).powf(1.0 / 0.7)),
            ("HL245/40R19 101Y", 800.0, 290.0 * (800.0f64 / 825.0).powf(1.25)),
            ("225/40R18 92Y XL", 560.0, 290.0 * (560.0f64 / 630.0).powf(1.25)),
            // Nobody said XL: the safe side is the higher pressure.
            ("225/40R18 92Y", 560.0, 290.0 * (560.0f64 / 630.0).powf(1.25)),
            ("225/45R17 91W SL", 575.0, 250.0 * (575.0f64 / 615.0).powf(1.25)),
            ("P215/65R16 98T", 600.0, 240.0 * (600.0f64 / 750.0).powf(1.25)),
            // A light load never goes under what a road tire needs.
            ("225/45R17 94W", 250.0, LEAST_ON_THE_ROAD_KPA),
        ] {
            let asked = PressureFor { load_kg: Some(load), ..PressureFor::default() };
            let found = pressure_for(&tire(text), &asked).unwrap();
            assert!((found.kpa - kpa).abs() < 1e-6, "{text}: {} kPa, should be {kpa}", found.kpa);
            assert!(found.is_enough, "{text}");
        }
        for (text, why) in [
            ("225/75R16C 121/120R", NoPressure::Sidewall),
            ("LT285/70R17 121/118S", NoPressure::LoadRange),
            ("33x12.50R17LT 114Q", NoPressure::LoadRange),
            ("26.0/10.0-15", NoPressure::Index),
            ("225/45R17", NoPressure::Index),
        ] {
            let asked = PressureFor { load_kg: Some(500.0), ..PressureFor::default() };
            assert_eq!(pressure_for(&tire(text), &asked), Err(why), "{text}");
        }
    }

    #[test]
    fn equal_load_needs_more_pressure_in_an_extra_load_tire() {
        // ETRTO (memory): 91 SL at 230 kPa carries 575 kg; a 92 XL needs 259 kPa for that and carries 523 at 230.
        let replaces = Replaced { tire: tire("205/55R16 91V SL"), kpa: 230.0 };
        assert!((replaces.carries_kg().unwrap() - 575.0).abs() < 1.0);
        let asked = PressureFor { replaces: Some(replaces), ..PressureFor::default() };
        let found = pressure_for(&tire("225/40R18 92Y XL"), &asked).unwrap();
        assert!((found.kpa - 259.0).abs() < 1.0, "{}", found.kpa);
        let table = LoadTable::of(&tire("225/40R18 92Y XL"), None).unwrap();
        assert!((table.carries_kg(630.0, 230.0) - 523.0).abs() < 1.0);
        // Never under the pressure of the tire before.
        let found = pressure_for(&tire("225/45R17 103Y XL"), &asked).unwrap();
        assert_eq!(found.kpa, 230.0);
    }

    #[test]
    fn a_tire_that_cannot_carry_it_is_too_small() {
        let asked = PressureFor { load_kg: Some(640.0), ..PressureFor::default() };
        let found = pressure_for(&tire("225/45R17 92W XL"), &asked).unwrap();
        assert!(!found.is_enough && found.kpa == 290.0 && !asked.can_be_met_by(&tire("225/45R17 92W XL")));
    }

    #[test]
    fn the_ledger_says_it_when_the_placard_would_carry_less() {
        let mut car = Car::default();
        car.note(Fact::FactorySetup, Some(Axle::Front), "16x6.5 ET45 205/55R16 91V SL").unwrap();
        car.note(Fact::PlacardPressure, Some(Axle::Front), "230").unwrap();
        let line =
            line_on(car.clone(), "pressure", "17x7.5 ET45 225/45R17 91W", "18x8 ET45 225/40R18 92Y XL")
                .unwrap();
        assert_eq!((line.severity, line.word), (Severity::Mind, "suggested"));
        assert!((line.figure.unwrap().value - 259.0).abs() < 1.0);
        // Neither placard nor rating: nothing is suggested.
        assert_eq!(
            line_on(Car::default(), "pressure", "17x7.5 ET45 225/45R17", "18x8 ET45 225/40R18 92Y"),
            None
        );
    }
}
