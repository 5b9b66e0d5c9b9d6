//! The speed a tire is made for against what the car reaches.

use super::load::CAUTION;
use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::car::{Car, Fact};
use crate::judgement::case::Reference;
use crate::parts::tire::Tire;
use crate::setup::catalogue::TireKind;
use crate::setup::{Axle, SetupPair};
use crate::values::speed_symbol;
use crate::values::working::{Figure, Phrase, Quantity, Source, Step};

/// Where the rule comes from.
pub const SOURCE: Source = Source::from_memory(
    "UN R30, UN R142: not below the car's top speed; winter tires may be, where the law allows",
);

pub(super) const RULE: Rule = Rule {
    title: "Speed symbol",
    source: SOURCE,
    asked: Asked::PerAxle(LineCode::SpeedSymbol, judge),
    of_car: &[Fact::TopSpeed],
};

/// No road-legal winter tire is slower than this, in km/h: symbol Q. Common practice, and the law in the EU.
pub const LEAST_WINTER_KMH: f64 = 160.0;

/// What a car asks of its tires' speed on one axle.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SpeedRequirement {
    /// The car's top speed, in km/h.
    pub top_speed_kmh: Option<f64>,
    /// The reference tire, and whose it is.
    pub reference: Option<(Tire, &'static str)>,
}

/// How a tire stands to it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Speed {
    /// No speed is stated.
    NotStated,
    /// Nothing says what is needed.
    CheckPlacard,
    /// Fast enough.
    Enough,
    /// The car is faster than any symbol: the tire's maker must confirm speed and load.
    MakerConfirms,
    /// A winter tire slower than the car, within what the law allows.
    WinterLimit,
    /// Too slow.
    TooSlow,
}

impl Speed {
    /// How a line with it stands.
    pub fn severity(self) -> Severity {
        match self {
            Self::NotStated => Severity::Unknown,
            Self::CheckPlacard | Self::MakerConfirms => Severity::Measure,
            Self::Enough => Severity::Good,
            Self::WinterLimit => Severity::Mind,
            Self::TooSlow => Severity::Stop,
        }
    }
}

impl SpeedRequirement {
    /// A car's on one axle.
    pub fn of(car: &Car, fitted: &SetupPair, axle: Axle) -> Self {
        let reference = Reference::of(car, fitted, axle).and_then(|one| Some((one.tire()?, one.which())));
        Self { top_speed_kmh: car.number(Fact::TopSpeed, None), reference }
    }

    /// Judges a tire of a kind, where that is known.
    pub fn judge(&self, tire: &Tire, kind: Option<TireKind>) -> Speed {
        let Some(kmh) = tire.top_speed_kmh() else { return Speed::NotStated };
        let slower = || {
            let is_winter = kind.map_or(tire.snowflake, TireKind::may_be_slower);
            if is_winter && kmh >= LEAST_WINTER_KMH { Speed::WinterLimit } else { Speed::TooSlow }
        };
        if let Some(top_speed) = self.top_speed_kmh {
            return if top_speed <= kmh && !(tire.is_open_ended() && top_speed > kmh) {
                Speed::Enough
            } else if tire.is_open_ended() {
                Speed::MakerConfirms
            } else {
                slower()
            };
        }
        let Some((reference, least)) =
            self.reference.and_then(|(tire, _)| Some((tire, tire.top_speed_kmh()?)))
        else {
            return Speed::CheckPlacard;
        };
        // "(Y)" and a bare ZR promise more than the figure they share with Y and V.
        let falls_short = reference.is_open_ended() && !tire.is_open_ended() && kmh <= least;
        if kmh >= least && !falls_short { Speed::Enough } else { slower() }
    }
}

fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let tire = check.planned.tire?;
    let (Some(kmh), Some(mark)) = (tire.top_speed_kmh(), tire.speed_mark()) else {
        return Some(Finding::unknown("Name the planned tire's speed symbol, as in 97Y."));
    };
    let figure = Figure::of(Step {
        what: "speed the tire is made for",
        formula: "speed symbol → km/h, by table",
        inputs: Vec::new(),
        result: Quantity::speed(kmh),
        source: speed_symbol::SOURCE,
    });
    let requirement = SpeedRequirement::of(&check.case.state.car, &check.case.fitted, check.axle.axle);
    let kind = check.case.state.parts.kind_of(check.planned);
    let stands = requirement.judge(&tire, kind);
    let reference = requirement
        .reference
        .and_then(|(tire, which)| Some((tire.speed_mark()?, tire.top_speed_kmh()?, which)));
    let (limit, than) = match (requirement.top_speed_kmh, reference) {
        (Some(top_speed), _) => {
            (Phrase::new("the car's top speed, ").quantity(Quantity::speed(top_speed)), "the car".to_owned())
        }
        (None, Some((mark, least, which))) => (
            Phrase::new(format!("{which} {mark}, ")).quantity(Quantity::speed(least)),
            format!("the {which} {mark}"),
        ),
        (None, None) => (Phrase::new("fitted symbol not stated"), String::new()),
    };
    let (word, says) = match stands {
        Speed::NotStated | Speed::CheckPlacard => (
            "check placard",
            Phrase::new("The fitted tire's symbol is not stated: hold this against the car's top speed."),
        ),
        Speed::Enough => ("enough", Phrase::new(format!("{mark}, made for ")).quantity(figure.quantity).text(".")),
        Speed::MakerConfirms => (
            "maker confirms",
            Phrase::new(format!(
                "The car is faster than {mark} says by itself: the tire maker must confirm speed and load for this car in writing."
            )),
        ),
        Speed::WinterLimit => (
            "winter limit",
            Phrase::new(format!(
                "{mark} is slower than {than}: a winter tire may be, where the law allows. Set its own limit before the driver's eyes: "
            ))
            .quantity(figure.quantity)
            .text("."),
        ),
        Speed::TooSlow => (
            "too low",
            Phrase::new(format!("{mark} is slower than {than}. Winter tires may go lower where the law allows, to "))
                .quantity(Quantity::speed(LEAST_WINTER_KMH))
                .text("."),
        ),
    };
    let severity = stands.severity();
    Some(Finding {
        severity,
        word,
        figure: Some(figure.quantity),
        limit,
        says,
        caution: (!matches!(stands, Speed::Enough | Speed::CheckPlacard | Speed::NotStated))
            .then_some(CAUTION),
        working: figure.working,
        points: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::{line, line_in_state, line_on};

    #[test]
    fn speed_is_held_against_the_reference_tire() {
        // UN R30: W 270, V 240, Y 300 km/h.
        for (service, severity, kmh) in [
            ("97Y", Severity::Good, 300.0),
            ("94W", Severity::Good, 270.0),
            ("91V", Severity::Stop, 240.0),
            ("(94Y)", Severity::Good, 300.0),
        ] {
            let planned = format!("18x8 ET45 225/40R18 {service}");
            let line = line("speed-symbol", "17x7.5 ET45 225/45R17 94W", &planned, None);
            assert_eq!((line.severity, line.figure.unwrap().value), (severity, kmh), "{service}");
        }
    }

    #[test]
    fn a_reference_without_an_upper_end_is_not_matched_by_its_figure() {
        // UN R30: (Y) is over 300 km/h, ZR alone over 240; Y and V end there.
        for (fitted, planned, severity) in [
            ("225/45ZR17 (94Y)", "225/40R18 94Y", Severity::Stop),
            ("225/45ZR17 (94Y)", "225/40ZR18 (94Y)", Severity::Good),
            ("225/45R17 94Y", "225/40ZR18 (94Y)", Severity::Good),
            ("225/45ZR17", "225/40R18 94V", Severity::Stop),
            ("225/45ZR17", "225/40R18 94W", Severity::Good),
            ("225/45ZR17", "225/40ZR18", Severity::Good),
            ("225/45R17 94Y", "225/40ZR18", Severity::Stop),
        ] {
            let (fitted, planned) = (format!("17x7.5 ET45 {fitted}"), format!("18x8 ET45 {planned}"));
            assert_eq!(
                line("speed-symbol", &fitted, &planned, None).severity,
                severity,
                "{fitted} → {planned}"
            );
        }
    }

    #[test]
    fn above_300_only_what_is_open_ended_is_for_its_maker_to_confirm() {
        let mut car = Car::default();
        car.note(Fact::TopSpeed, None, "325").unwrap();
        for (service, severity) in
            [("(103Y)", Severity::Measure), ("103Y", Severity::Stop), ("103W", Severity::Stop)]
        {
            let planned = format!("20x11 ET50 305/30ZR20 {service}");
            let line = line_on(car.clone(), "speed-symbol", "20x11 ET50 305/30ZR20", &planned).unwrap();
            assert_eq!(line.severity, severity, "{service}: {line:?}");
        }
        // A bare ZR is over 240, and nobody but its maker knows by how much.
        let mut car = Car::default();
        car.note(Fact::TopSpeed, None, "270").unwrap();
        let line = line_on(car, "speed-symbol", "17x7.5 ET45 225/45ZR17", "17x7.5 ET45 225/45ZR17").unwrap();
        assert_eq!(line.severity, Severity::Measure);
    }

    #[test]
    fn the_cars_top_speed_and_its_factory_tire_come_before_what_is_fitted() {
        let mut car = Car::default();
        car.note(Fact::TopSpeed, None, "205").unwrap();
        car.note(Fact::FactorySetup, Some(Axle::Front), "16x6.5 ET45 205/55R16 91V").unwrap();
        // ISO 4000-1: H is 210, T 190 km/h; 91 is 615 kg, 88 is 560. Fitted is more than the factory's.
        for (service, speed, load) in
            [("91H", Severity::Good, Severity::Good), ("88T", Severity::Stop, Severity::Stop)]
        {
            let planned = format!("17x7.5 ET45 225/45R17 {service}");
            let on = |code| line_on(car.clone(), code, "17x7.5 ET45 225/45R17 94Y", &planned);
            assert_eq!(on("speed-symbol").unwrap().severity, speed, "{service}");
            assert_eq!(on("load-index").unwrap().severity, load, "{service}");
        }
    }

    #[test]
    fn a_winter_tire_may_be_slower_but_never_under_its_floor() {
        for (tire, word) in [("225/40R18 92H", "winter limit"), ("225/40R18 92P", "too low")] {
            let mut row = crate::setup::catalogue::picked::tests::tire_row(tire);
            row.kind = Some(TireKind::Winter);
            let parts = crate::setup::catalogue::PickedParts { tires: vec![row], ..Default::default() };
            let state = crate::judgement::case::CarState::default().with_parts(parts);
            let planned = format!("18x8 ET45 {tire}");
            let line = line_in_state(state, "speed-symbol", "17x7.5 ET45 225/45R17 91W", &planned).unwrap();
            assert_eq!(line.word, word, "{tire}");
            assert!(line.caution.is_some());
        }
    }

    #[test]
    fn without_the_fitted_marks_the_placard_decides() {
        for code in ["load-index", "speed-symbol"] {
            let line = line(code, "17x7.5 ET45 225/45R17", "18x8 ET45 225/40R18 92Y", None);
            assert_eq!((line.severity, line.word), (Severity::Measure, "check placard"));
        }
    }
}
