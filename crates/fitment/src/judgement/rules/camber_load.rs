//! Camber against what a tire carries: a leaning tire runs on a part of its tread.

use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::car::Fact;
use crate::values::working::{Phrase, Source};

const SOURCE: Source = Source::common_practice("beyond 2° of camber a tire carries less than its index says");

pub(super) const RULE: Rule = Rule {
    title: "Camber under load",
    source: SOURCE,
    asked: Asked::PerAxle(LineCode::CamberLoad, judge),
    of_car: &[],
};

const CAUTION: &str = "An index is for an upright tire. Nobody but the tire's maker can say what it carries leaning; inspect its inner \
                       shoulder often.";

/// From so much camber, either way, it takes load, in degrees.
const TAKES_LOAD_DEG: f64 = 2.0;
/// From so much on the tire's maker is asked, in degrees.
const ASK_DEG: f64 = 3.0;

/// `None` up to 2°, and while nobody measured the camber.
fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    check.planned.tire?;
    // As it was measured on the car, with what is set on top of it.
    let (car, axle) = (&check.case.state.car, check.axle.axle);
    let aligned = check.axle.corner.camber_deg.or_else(|| car.number(Fact::Camber, Some(axle)));
    let camber = aligned.unwrap_or_default() + check.axle.levers.camber_deg();
    // A figure just as it is written: 3.0 that came out of a sum is 3.
    let lean = (camber.abs() * 100.0).round() / 100.0;
    if lean <= TAKES_LOAD_DEG {
        return None;
    }
    let asks = lean >= ASK_DEG;
    let says = if asks {
        "its maker says what it carries, not the index: ask before it is driven loaded or fast."
    } else {
        "it carries less than its index says: no tire that is just enough."
    };
    Some(Finding {
        severity: if asks { Severity::Measure } else { Severity::Mind },
        word: if asks { "ask the maker" } else { "takes load" },
        figure: None,
        limit: Phrase::new(format!("asked from {ASK_DEG:.0}° on")),
        says: Phrase::new(format!("The tire leans by {lean}°: {says}")),
        caution: Some(CAUTION),
        working: Vec::new(),
        points: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::line_on;
    use crate::car::Car;
    use crate::setup::Axle;

    #[test]
    fn it_is_asked_from_three_degrees_on() {
        // Common practice, no published source.
        let setup = "17x7.5 ET45 225/45R17 91W";
        for (camber, stands) in [
            (None, None),
            (Some("-1.5"), None),
            (Some("-2"), None),
            (Some("-2.5"), Some(Severity::Mind)),
            (Some("-3"), Some(Severity::Measure)),
            (Some("-6"), Some(Severity::Measure)),
            (Some("3.5"), Some(Severity::Measure)),
        ] {
            let mut car = Car::default();
            if let Some(camber) = camber {
                car.note(Fact::Camber, Some(Axle::Front), camber).unwrap();
            }
            let line = line_on(car, "camber-load", setup, setup);
            assert_eq!(line.map(|line| line.severity), stands, "{camber:?}");
        }
    }
}
