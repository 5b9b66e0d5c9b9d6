//! Overall diameter against the factory's tire, in the house's bands.

use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::car::limits::HouseLimits;
use crate::parts::tire::dimensions::revolutions_worked;
use crate::values::coded::coded;
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity};

pub(super) const RULE: Rule = Rule {
    title: "Overall diameter",
    source: HouseLimits::SOURCE,
    asked: Asked::PerAxle(LineCode::OverallDiameter, judge),
    of_car: &[],
};

const CAUTION: &str = "Brakes, stability control and insurance know the factory's diameter: ask whether it must be approved. Local codes \
                       and a licensed inspector have the last word.";

/// A house band that a change of diameter lies in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum DiameterGrade {
    /// Ideal.
    Ideal,
    /// Good.
    Good,
    /// At the limit.
    AtTheLimit,
    /// Beyond it.
    Beyond,
}

coded!(DiameterGrade: Ideal = "ideal", Good = "good", AtTheLimit = "limit", Beyond = "beyond");

impl DiameterGrade {
    /// In the trade's words.
    pub fn words(self) -> &'static str {
        match self {
            Self::Ideal => "ideal",
            Self::Good => "good",
            Self::AtTheLimit => "at the limit",
            Self::Beyond => "beyond the limit",
        }
    }

    /// The band of a change in per cent. What is printed as the limit is inside: the last figure's rounding is let
    /// through.
    pub fn of(change_pct: f64, limits: &HouseLimits) -> Self {
        let within = |pct: f64| change_pct.abs() <= pct + 1e-9;
        if within(limits.diameter_ideal_pct) {
            Self::Ideal
        } else if within(limits.diameter_good_pct) {
            Self::Good
        } else if within(limits.diameter_limit_pct) {
            Self::AtTheLimit
        } else {
            Self::Beyond
        }
    }

    /// How a line in it stands.
    pub fn severity(self) -> Severity {
        match self {
            Self::Ideal | Self::Good => Severity::Good,
            // A taller or lower tire is told by what follows from it: dial, gearing, brakes, room, the maker's ratio. By itself
            // it stops nothing.
            Self::AtTheLimit | Self::Beyond => Severity::Mind,
        }
    }
}

fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let change = check.case.on_the_road(check.axle.axle);
    let figures =
        change.and_then(|change| change.overall_diameter_pct.as_ref().zip(change.overall_diameter.as_ref()));
    let Some((pct, by)) = figures else {
        return Some(Finding::unknown(
            "The planned tire must be stated, and the factory's or the fitted one.",
        ));
    };
    let which = check.case.reference(check.axle.axle).map_or("fitted", |reference| reference.which());
    let limits = check.case.limits;
    let band = DiameterGrade::of(pct.value(), limits);
    let severity = band.severity();
    let limit = match band {
        DiameterGrade::Ideal => {
            Phrase::new("house band ").quantity(Quantity::percent(limits.diameter_ideal_pct))
        }
        DiameterGrade::Good => {
            Phrase::new("house band ").quantity(Quantity::percent(limits.diameter_good_pct))
        }
        DiameterGrade::AtTheLimit => {
            Phrase::new("house band ").quantity(Quantity::percent(limits.diameter_limit_pct))
        }
        DiameterGrade::Beyond => {
            Phrase::new("house limit ").quantity(Quantity::percent(limits.diameter_limit_pct))
        }
    }
    .text(format!(" round the {which} tire"));
    let direction = if by.value() > 0.0 { " larger" } else { " smaller" };
    let mut says = if by.value() == 0.0 {
        Phrase::new(format!("The same diameter as the {which} tire."))
    } else {
        Phrase::default()
            .quantity(Quantity::length(Length::mm(by.value().abs())))
            .text(direction)
            .text(format!(" than the {which} tire."))
    };
    if let Some(rise) =
        check.change.ride_height.as_ref().map(|figure| figure.value()).filter(|rise| *rise != 0.0)
    {
        says = says
            .text(" Against what is fitted the car stands ")
            .quantity(Quantity::length(Length::mm(rise.abs())))
            .text(if rise > 0.0 { " higher here." } else { " lower here." });
    }
    let mut working = by.working.clone();
    working.extend(pct.working.iter().cloned());
    if let Some(tire) = check.planned.tire {
        working.extend(revolutions_worked(&tire.size));
    }
    Some(Finding {
        severity,
        word: band.words(),
        figure: Some(pct.quantity),
        limit,
        says,
        caution: (band == DiameterGrade::Beyond).then_some(CAUTION),
        working,
        points: Vec::new(),
    })
}
#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::line;

    #[test]
    fn the_bands_are_the_houses() {
        // 225/45R17 measures 634.3 mm; bands 1, 2 and 3 % (common practice).
        for (planned, severity, word) in [
            ("18x8 ET45 225/40R18", Severity::Good, "ideal"), // 637.2: +0.5 %
            ("18x8 ET45 235/40R18", Severity::Good, "good"),  // 645.2: +1.7 %
            ("18x8 ET45 245/40R18", Severity::Mind, "at the limit"), // 653.2: +3.0 %
            ("18x8 ET45 255/40R18", Severity::Mind, "beyond the limit"), // 661.2: +4.2 %
        ] {
            let line = line("overall-diameter", "17x7.5 ET45 225/45R17", planned, None);
            assert_eq!((line.severity, line.word), (severity, word), "{planned}: {:?}", line.figure);
        }
    }
}
