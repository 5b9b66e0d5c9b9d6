//! Load index and speed symbol against what the car asks for.

use super::{Asked, AxleCheck, Finding, Rule, Severity};
use crate::car::Fact;
use crate::case::{self, Reference, half_rating_kg};
use crate::catalogue::TireKind;
use crate::load_index;
use crate::speed_symbol;
use crate::working::{Figure, Phrase, Quantity, Step};

pub(super) const LOAD_INDEX: Rule =
    Rule { code: "load-index", title: "Load index", source: case::SOURCE, asked: Asked::PerAxle(load) };

pub(super) const SPEED_SYMBOL: Rule =
    Rule { code: "speed-symbol", title: "Speed symbol", source: case::SOURCE, asked: Asked::PerAxle(speed) };

const CAUTION: &str = "An overloaded or too slow tire can fail at speed. Hold it against the car's placard \
                       and the law where it is driven.";

fn load(check: &AxleCheck<'_>) -> Option<Finding> {
    let tire = check.planned.tire?;
    let Some(service) = tire.service else {
        return Some(Finding::unknown("Name the planned tire's load index, as in 97Y."));
    };
    let capacity = service.single.capacity_kg();
    let figure = Figure::of(Step {
        what: "load capacity of one tire",
        formula: "load index → kg, by table",
        put_in: vec![("load index", Quantity::count(f64::from(service.single.index())))],
        gives: Quantity::mass(capacity),
        source: load_index::SOURCE,
    });
    let (car, axle) = (&check.case.state.car, check.axle.axle);
    let reference = Reference::of(car, check.case.fitted, axle);
    let index = reference.and_then(|one| Some((one.tire.service?.single, one.which)));
    let half = half_rating_kg(car, axle);
    let by_rating = half.filter(|half| index.is_none_or(|(index, _)| *half > index.capacity_kg()));
    let carries = Phrase::new("Carries ").quantity(figure.quantity);
    let (standing, word, limit, says) = match (by_rating, index) {
        // Whichever is stricter: here the rating asks for more than the index, or stands alone.
        (Some(half), _) => {
            let half = Quantity::mass(half);
            let limit = Phrase::new("half of the axle's rating, ").quantity(half);
            if capacity >= half.value {
                (Severity::Good, "enough", limit, carries.text("."))
            } else {
                let says = Phrase::new("Half of the axle's rating is ")
                    .quantity(half)
                    .text(", this tire carries ")
                    .quantity(figure.quantity)
                    .text(".");
                (Severity::Stop, "too low", limit, says)
            }
        }
        (None, None) => (
            Severity::Measure,
            "check placard",
            Phrase::new("fitted index not stated"),
            Phrase::new("The fitted tire's index is not stated: hold this against the placard."),
        ),
        (None, Some((index, which))) => {
            let least = Quantity::mass(index.capacity_kg());
            let limit = Phrase::new(format!("{which} {index}, ")).quantity(least);
            if capacity >= least.value {
                let says = carries.text(format!(", the {which} tire ")).quantity(least).text(".");
                (Severity::Good, "enough", limit, says)
            } else {
                let says = Phrase::new("Carries ")
                    .quantity(Quantity::mass(least.value - capacity))
                    .text(format!(" less than the {which} tire: choose index {index} or more."));
                (Severity::Stop, "too low", limit, says)
            }
        }
    };
    let caution = (standing == Severity::Stop).then_some(CAUTION);
    Some(Finding {
        standing,
        word,
        figure: Some(figure.quantity),
        limit,
        says,
        caution,
        working: figure.working,
    })
}

fn speed(check: &AxleCheck<'_>) -> Option<Finding> {
    let tire = check.planned.tire?;
    let (Some(kmh), Some(mark)) = (tire.top_speed_kmh(), tire.speed_mark()) else {
        return Some(Finding::unknown("Name the planned tire's speed symbol, as in 97Y."));
    };
    let figure = Figure::of(Step {
        what: "speed the tire is made for",
        formula: "speed symbol → km/h, by table",
        put_in: Vec::new(),
        gives: Quantity::speed(kmh),
        source: speed_symbol::SOURCE,
    });
    let car = &check.case.state.car;
    if let Some(top_speed) = car.number(Fact::TopSpeed, None) {
        return Some(against_top_speed(check, figure, mark, top_speed));
    }
    let reference = Reference::of(car, check.case.fitted, check.axle.axle);
    let fitted = reference.and_then(|one| Some((one.tire.top_speed_kmh()?, one.tire.speed_mark()?, one)));
    let (standing, word, limit, says) = match fitted {
        None => (
            Severity::Measure,
            "check placard",
            Phrase::new("fitted symbol not stated"),
            Phrase::new("The fitted tire's symbol is not stated: hold this against the car's top speed."),
        ),
        Some((least, fitted_mark, reference)) => {
            let limit =
                Phrase::new(format!("{} {fitted_mark}, ", reference.which)).quantity(Quantity::speed(least));
            // "(Y)" and a bare ZR promise more than the figure they share with Y and V.
            let falls_short = reference.tire.is_open_ended() && !tire.is_open_ended() && kmh <= least;
            if kmh >= least && !falls_short {
                (
                    Severity::Good,
                    "enough",
                    limit,
                    Phrase::new(format!("{mark}, made for ")).quantity(figure.quantity).text("."),
                )
            } else {
                let (standing, word, says) = slower(
                    check,
                    &figure,
                    format!("{mark} is slower than the {} {fitted_mark}", reference.which),
                );
                (standing, word, limit, says)
            }
        }
    };
    let caution = matches!(standing, Severity::Stop | Severity::Mind).then_some(CAUTION);
    Some(Finding {
        standing,
        word,
        figure: Some(figure.quantity),
        limit,
        says,
        caution,
        working: figure.working,
    })
}

/// The car's own top speed comes before any symbol.
fn against_top_speed(check: &AxleCheck<'_>, figure: Figure, mark: &str, top_speed: f64) -> Finding {
    let limit = Phrase::new("the car's top speed, ").quantity(Quantity::speed(top_speed));
    let (standing, word, says) = if figure.value() >= top_speed {
        let says = Phrase::new(format!("{mark}, made for ")).quantity(figure.quantity).text(".");
        (Severity::Good, "enough", says)
    } else {
        slower(check, &figure, format!("{mark} is slower than the car"))
    };
    Finding {
        standing,
        word,
        figure: Some(figure.quantity),
        limit,
        says,
        caution: (standing != Severity::Good).then_some(CAUTION),
        working: figure.working,
    }
}

/// Too slow a tire: a winter tire may be, where the law allows it.
fn slower(check: &AxleCheck<'_>, figure: &Figure, what: String) -> (Severity, &'static str, Phrase) {
    let picked = check.case.state.parts.tire_of(check.planned).and_then(|row| row.kind);
    if picked.is_some_and(TireKind::may_be_slower) {
        let says = Phrase::new(what)
            .text(
                ": a winter tire may be, where the law allows. Set its own limit before the driver's eyes: ",
            )
            .quantity(figure.quantity)
            .text(".");
        (Severity::Mind, "winter limit", says)
    } else {
        let says = Phrase::new(what).text(". Winter tires may go lower where the law allows.");
        (Severity::Stop, "too low", says)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ledger::tests::line;

    #[test]
    fn load_and_speed_are_held_against_the_fitted_tire() {
        let fitted = "17x7.5 ET45 225/45R17 94W";
        // ISO 4000-1 tables: 94 is 670 kg, 91 is 615 kg, 97 is 730 kg; W 270, V 240, Y 300 km/h.
        for (service, load, speed) in [
            ("97Y", (Severity::Good, 730.0), (Severity::Good, 300.0)),
            ("94W", (Severity::Good, 670.0), (Severity::Good, 270.0)),
            ("91V", (Severity::Stop, 615.0), (Severity::Stop, 240.0)),
            ("(94Y)", (Severity::Good, 670.0), (Severity::Good, 300.0)),
        ] {
            let planned = format!("18x8 ET45 225/40R18 {service}");
            for (code, (standing, value)) in [("load-index", load), ("speed-symbol", speed)] {
                let line = line(code, fitted, &planned, None);
                assert_eq!(
                    (line.standing, line.figure.unwrap().value),
                    (standing, value),
                    "{code} {service}"
                );
            }
        }
    }

    /// 49 CFR 571.110 (memory): half of the axle's rated load, or the factory's index, whichever is stricter.
    #[test]
    fn half_of_the_axles_rating_counts_where_it_is_stricter() {
        for (rating, planned, standing) in [
            ("1300", "94W", Severity::Good),
            ("1300", "92W", Severity::Stop),
            ("1400", "94W", Severity::Stop),
            ("1200", "91W", Severity::Stop),
        ] {
            let mut car = crate::car::Car::default();
            car.note(Fact::AxleRating, Some(crate::Axle::Front), rating).unwrap();
            // Fitted 92 is 630 kg, 94 is 670, 91 is 615 (ISO 4000-1).
            let planned = format!("18x8 ET45 225/40R18 {planned}");
            let line =
                crate::ledger::tests::line_on(car, "load-index", "17x7.5 ET45 225/45R17 92W", &planned);
            assert_eq!(line.unwrap().standing, standing, "{rating} {planned}");
        }
    }

    #[test]
    fn a_fitted_tire_without_an_upper_end_is_not_matched_by_its_figure() {
        // UN R30: (Y) is over 300 km/h, ZR alone over 240; Y and V end there.
        for (fitted, planned, standing) in [
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
                line("speed-symbol", &fitted, &planned, None).standing,
                standing,
                "{fitted} → {planned}"
            );
        }
    }

    #[test]
    fn the_cars_top_speed_and_its_factory_tire_come_before_what_is_fitted() {
        let mut car = crate::car::Car::default();
        car.note(Fact::TopSpeed, None, "205").unwrap();
        car.note(Fact::FactorySetup, Some(crate::Axle::Front), "16x6.5 ET45 205/55R16 91V").unwrap();
        // ISO 4000-1: H is 210, T 190 km/h; 91 is 615 kg, 88 is 560. Fitted is more than the factory's.
        for (service, speed, load) in
            [("91H", Severity::Good, Severity::Good), ("88T", Severity::Stop, Severity::Stop)]
        {
            let planned = format!("17x7.5 ET45 225/45R17 {service}");
            let on = |code| {
                crate::ledger::tests::line_on(car.clone(), code, "17x7.5 ET45 225/45R17 94Y", &planned)
            };
            assert_eq!(on("speed-symbol").unwrap().standing, speed, "{service}");
            assert_eq!(on("load-index").unwrap().standing, load, "{service}");
        }
    }

    #[test]
    fn a_winter_tire_may_be_slower_with_its_caution() {
        let mut row = crate::catalogue::picked::tests::tire_row("225/40R18 92H");
        row.kind = Some(TireKind::Winter);
        let parts = crate::catalogue::PickedParts { tires: vec![row], ..Default::default() };
        let bay = crate::case::CarState::default().with_parts(parts);
        let (fitted, planned) = ("17x7.5 ET45 225/45R17 91W", "18x8 ET45 225/40R18 92H");
        let line = crate::ledger::tests::line_in_bay(bay, "speed-symbol", fitted, planned).unwrap();
        assert_eq!((line.standing, line.word), (Severity::Mind, "winter limit"));
        assert!(line.caution.is_some());
    }

    #[test]
    fn without_the_fitted_marks_the_placard_decides() {
        for code in ["load-index", "speed-symbol"] {
            let line = line(code, "17x7.5 ET45 225/45R17", "18x8 ET45 225/40R18 92Y", None);
            assert_eq!((line.standing, line.word), (Severity::Measure, "check placard"));
        }
    }
}
