//! Load index and speed symbol against the fitted tires.

use super::{Check, Corner, Finding, Rule, Standing};
use crate::car::Fact;
use crate::choose::catalogue::TireKind;
use crate::load_index;
use crate::speed_symbol;
use crate::working::{Figure, Phrase, Quantity, Source, Step};

const RULE: Source = Source::from_memory(
    "49 CFR 571.110, UN R30 practice: not below the factory's; the fitted tire stands for it here",
);

pub(super) const LOAD_INDEX: Check =
    Check { code: "load-index", title: "Load index", source: RULE, rule: Rule::PerAxle(load) };

pub(super) const SPEED_SYMBOL: Check =
    Check { code: "speed-symbol", title: "Speed symbol", source: RULE, rule: Rule::PerAxle(speed) };

const CAUTION: &str = "An overloaded or too slow tire can fail at speed. Hold it against the car's placard \
                       and the law where it is driven.";

fn load(corner: &Corner<'_>) -> Option<Finding> {
    let tire = corner.planned.tire?;
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
    let fitted = corner.fitted.tire.and_then(|tire| tire.service);
    let half_rating =
        corner.plan.bay.car.number(Fact::AxleRating, Some(corner.trial.axle)).map(|rating| rating / 2.0);
    let (standing, word, limit, says) = match fitted {
        // Whichever is stricter: here the rating asks for more than the fitted tire carries, or stands alone.
        _ if half_rating.is_some_and(|half| {
            fitted.is_none_or(|fitted| half > fitted.single.capacity_kg()) || half > capacity
        }) =>
        {
            let half = Quantity::mass(half_rating.unwrap_or_default());
            let limit = Phrase::new("half of the axle's rating, ").quantity(half);
            if capacity >= half.value {
                let says = Phrase::new("Carries ").quantity(Quantity::mass(capacity)).text(".");
                (Standing::Good, "enough", limit, says)
            } else {
                let says = Phrase::new("Half of the axle's rating is ")
                    .quantity(half)
                    .text(", this tire carries ")
                    .quantity(Quantity::mass(capacity))
                    .text(".");
                (Standing::Stop, "too low", limit, says)
            }
        }
        None => (
            Standing::Measure,
            "check placard",
            Phrase::new("fitted index not stated"),
            Phrase::new("The fitted tire's index is not stated: hold this against the placard."),
        ),
        Some(fitted) => {
            let least = fitted.single.capacity_kg();
            let limit = Phrase::new(format!("fitted {}, ", fitted.single)).quantity(Quantity::mass(least));
            if capacity >= least {
                let says = Phrase::new("Carries ")
                    .quantity(Quantity::mass(capacity))
                    .text(", the fitted tire ")
                    .quantity(Quantity::mass(least))
                    .text(".");
                (Standing::Good, "enough", limit, says)
            } else {
                let says = Phrase::new("Carries ")
                    .quantity(Quantity::mass(least - capacity))
                    .text(" less than the fitted tire: choose index ")
                    .text(fitted.single.to_string())
                    .text(" or more.");
                (Standing::Stop, "too low", limit, says)
            }
        }
    };
    let caution = (standing == Standing::Stop).then_some(CAUTION);
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

fn speed(corner: &Corner<'_>) -> Option<Finding> {
    let tire = corner.planned.tire?;
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
    let fitted = corner.fitted.tire.and_then(|tire| tire.top_speed_kmh().zip(tire.speed_mark()));
    let (standing, word, limit, says) = match fitted {
        None => (
            Standing::Measure,
            "check placard",
            Phrase::new("fitted symbol not stated"),
            Phrase::new("The fitted tire's symbol is not stated: hold this against the car's top speed."),
        ),
        Some((least, fitted_mark)) => {
            let limit = Phrase::new(format!("fitted {fitted_mark}, ")).quantity(Quantity::speed(least));
            // "(Y)" and a bare ZR promise more than the figure they share with Y and V.
            let falls_short = corner.fitted.tire.is_some_and(|fitted| fitted.is_open_ended())
                && !tire.is_open_ended()
                && kmh <= least;
            if kmh >= least && !falls_short {
                (
                    Standing::Good,
                    "enough",
                    limit,
                    Phrase::new(format!("{mark}, made for ")).quantity(figure.quantity).text("."),
                )
            } else {
                let picked = corner.plan.bay.parts.tire_of(corner.planned).and_then(|row| row.kind);
                if picked.is_some_and(TireKind::may_be_slower) {
                    let says = Phrase::new(format!(
                        "{mark} is slower than the fitted {fitted_mark}: a winter tire may be, where the law allows. Set \
                         the tire's own limit before the driver's eyes, and keep to "
                    ))
                    .quantity(figure.quantity)
                    .text(".");
                    (Standing::Mind, "winter limit", limit, says)
                } else {
                    let says = Phrase::new(format!(
                        "{mark} is slower than the fitted {fitted_mark}. Winter tires may go lower where the law allows."
                    ));
                    (Standing::Stop, "too low", limit, says)
                }
            }
        }
    };
    let caution = matches!(standing, Standing::Stop | Standing::Mind).then_some(CAUTION);
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

#[cfg(test)]
mod tests {
    use super::super::tests::line;
    use super::*;

    #[test]
    fn load_and_speed_are_held_against_the_fitted_tire() {
        let fitted = "17x7.5 ET45 225/45R17 94W";
        // ISO 4000-1 tables: 94 is 670 kg, 91 is 615 kg, 97 is 730 kg; W 270, V 240, Y 300 km/h.
        for (service, load, speed) in [
            ("97Y", (Standing::Good, 730.0), (Standing::Good, 300.0)),
            ("94W", (Standing::Good, 670.0), (Standing::Good, 270.0)),
            ("91V", (Standing::Stop, 615.0), (Standing::Stop, 240.0)),
            ("(94Y)", (Standing::Good, 670.0), (Standing::Good, 300.0)),
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
            ("1300", "94W", Standing::Good),
            ("1300", "92W", Standing::Stop),
            ("1400", "94W", Standing::Stop),
            ("1200", "91W", Standing::Stop),
        ] {
            let mut car = crate::car::Car::default();
            car.note(Fact::AxleRating, Some(crate::Axle::Front), rating).unwrap();
            // Fitted 92 is 630 kg, 94 is 670, 91 is 615 (ISO 4000-1).
            let planned = format!("18x8 ET45 225/40R18 {planned}");
            let line = super::super::tests::line_on(car, "load-index", "17x7.5 ET45 225/45R17 92W", &planned);
            assert_eq!(line.unwrap().standing, standing, "{rating} {planned}");
        }
    }

    #[test]
    fn a_fitted_tire_without_an_upper_end_is_not_matched_by_its_figure() {
        // UN R30: (Y) is over 300 km/h, ZR alone over 240; Y and V end there.
        for (fitted, planned, standing) in [
            ("225/45ZR17 (94Y)", "225/40R18 94Y", Standing::Stop),
            ("225/45ZR17 (94Y)", "225/40ZR18 (94Y)", Standing::Good),
            ("225/45R17 94Y", "225/40ZR18 (94Y)", Standing::Good),
            ("225/45ZR17", "225/40R18 94V", Standing::Stop),
            ("225/45ZR17", "225/40R18 94W", Standing::Good),
            ("225/45ZR17", "225/40ZR18", Standing::Good),
            ("225/45R17 94Y", "225/40ZR18", Standing::Stop),
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
    fn without_the_fitted_marks_the_placard_decides() {
        for code in ["load-index", "speed-symbol"] {
            let line = line(code, "17x7.5 ET45 225/45R17", "18x8 ET45 225/40R18 92Y", None);
            assert_eq!((line.standing, line.word), (Standing::Measure, "check placard"));
        }
    }
}
