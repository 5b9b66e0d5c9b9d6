//! The speedometer: true speed at the speeds on the signs, against the factory's tire.
//!
//! UN R39 is a type-approval rule for the car with its listed tires, and dials leave the factory reading 1 to 5 % fast.
//! How fast this one reads is measured, not assumed: until then a change is judged by degrees.

use super::dial::{DialAgainstR39, UN_R39, change_against_r39, true_speed_worked};
use super::{Asked, Finding, LineCode, Rule, Severity};
use crate::car::Fact;
use crate::car::limits::Drive;
use crate::judgement::case::Case;
use crate::setup::Axle;
use crate::values::working::{Figure, Phrase, Quantity};

pub(super) const RULE: Rule = Rule {
    title: "Speedometer",
    source: UN_R39,
    asked: Asked::PerCar(LineCode::Speedometer, judge),
    of_car: &[],
};

const CAUTION: &str = "A dial that shows too little is against UN R39 and the law in most places. Local codes decide; have it measured and \
                       corrected.";

/// At this shown speed the line's figure is given.
const SHOWN_KMH: f64 = 100.0;
/// Tires of one size differ by so much, in per cent. Common practice.
const WITHIN_ONE_SIZE_PCT: f64 = 1.0;
/// Up to here a larger tire is to be checked, beyond it is not fitted before the dial was measured, in per cent.
const TO_BE_CHECKED_PCT: f64 = 2.5;

/// How a planned diameter stands on the dial.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Dial {
    /// As before.
    Unchanged,
    /// Within what it over-reads, or a little more than the true speed.
    Within,
    /// Under-reads by less than tires of one size differ.
    WithinOneSize,
    /// Under-reads by so much that it is to be checked.
    ToBeChecked,
    /// Under-reads by more than that, unless the dial over-reads by more, which nobody measured.
    ToBeMeasured,
    /// Under-reads.
    UnderReads,
    /// Shows more than the law allows.
    OverReadsTooMuch,
}

impl Dial {
    /// Judges true over indicated speed, the dial reading `over_reads_pct` too much with the reference tire where
    /// somebody measured that.
    ///
    /// # Source
    /// UN R39 (from memory) for what it shows too much; for what it shows too little the measured over-reading, and
    /// while nobody measured it common practice: to +1 % within what tires of one size differ, to +2.5 % to be checked.
    pub fn of(ratio: f64, over_reads_pct: Option<f64>) -> Self {
        let exact = 1.0 + over_reads_pct.unwrap_or(0.0) / 100.0;
        if change_against_r39(ratio / exact) == DialAgainstR39::OverReadsTooMuch {
            return Self::OverReadsTooMuch;
        }
        let larger_pct = (ratio - 1.0) * 100.0;
        match over_reads_pct {
            _ if ratio == 1.0 => Self::Unchanged,
            Some(over) if larger_pct <= over + 1e-9 => Self::Within,
            Some(_) => Self::UnderReads,
            None if larger_pct <= 0.0 => Self::Within,
            None if larger_pct <= WITHIN_ONE_SIZE_PCT + 1e-9 => Self::WithinOneSize,
            None if larger_pct <= TO_BE_CHECKED_PCT + 1e-9 => Self::ToBeChecked,
            None => Self::ToBeMeasured,
        }
    }

    /// How a line with it stands.
    pub fn severity(self) -> Severity {
        match self {
            Self::Unchanged | Self::Within | Self::WithinOneSize => Severity::Good,
            Self::ToBeChecked => Severity::Mind,
            Self::ToBeMeasured => Severity::Measure,
            Self::UnderReads | Self::OverReadsTooMuch => Severity::Stop,
        }
    }

    fn word(self) -> &'static str {
        match self {
            Self::Unchanged => "unchanged",
            Self::Within => "within",
            Self::WithinOneSize => "within one size",
            Self::ToBeChecked => "have it checked",
            Self::ToBeMeasured => "measure the dial",
            Self::UnderReads => "under-reads",
            Self::OverReadsTooMuch => "over-reads",
        }
    }
}

/// What the dial of a car asks of a planned diameter.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DialRequirement {
    /// By how much it was measured to over-read, in per cent.
    pub over_reads_pct: Option<f64>,
    drive: Option<Drive>,
}

impl DialRequirement {
    /// A case's.
    pub fn of(case: &Case<'_>) -> Self {
        Self { over_reads_pct: case.state.car.number(Fact::DialOverRead, None), drive: case.drive }
    }

    /// The ratio that counts, of those of both axles: the driven axle's; on all-wheel drive, or while the drive is
    /// unknown, the larger one.
    pub fn counting(&self, front: Option<f64>, rear: Option<f64>) -> Option<(Axle, f64)> {
        let front = front.map(|ratio| (Axle::Front, ratio));
        let rear = rear.map(|ratio| (Axle::Rear, ratio));
        match self.drive {
            Some(Drive::Front) => front,
            Some(Drive::Rear) => rear,
            Some(Drive::All) | None => match (front, rear) {
                (Some(front), Some(rear)) if rear.1 > front.1 => Some(rear),
                (front, rear) => front.or(rear),
            },
        }
    }

    /// Judges both axles' ratios of planned to reference diameter.
    pub fn judge(&self, front: Option<f64>, rear: Option<f64>) -> Option<Dial> {
        self.counting(front, rear).map(|(_, ratio)| Dial::of(ratio, self.over_reads_pct))
    }
}

impl Case<'_> {
    /// True over indicated speed against the reference tire, by the axle the dial follows.
    pub fn speedometer_ratio(&self) -> Option<(Axle, &Figure)> {
        let ratio = |axle: Axle| self.on_the_road(axle)?.true_speed_ratio.as_ref();
        let value = |axle| ratio(axle).map(Figure::value);
        let (axle, _) = DialRequirement::of(self).counting(value(Axle::Front), value(Axle::Rear))?;
        Some((axle, ratio(axle)?))
    }
}

fn judge(case: &Case<'_>) -> Option<Finding> {
    let Some((axle, ratio_figure)) = case.speedometer_ratio() else {
        return Some(Finding::unknown(
            "The tires must be stated, planned and the factory's or the fitted ones.",
        ));
    };
    let requirement = DialRequirement::of(case);
    let ratio = ratio_figure.value();
    let figure = true_speed_worked(SHOWN_KMH, ratio);
    let mut working = ratio_figure.working.clone();
    working.extend(figure.working.iter().cloned());
    let which = case.reference(axle).map_or("fitted", |reference| reference.which());
    let limit = match requirement.over_reads_pct {
        Some(over) => Phrase::new("dial measured to over-read by ").quantity(Quantity::percent(over)),
        None => Phrase::new(format!("against the {which} tire, true at "))
            .quantity(Quantity::speed(SHOWN_KMH))
            .text(" shown; the dial's own over-reading is not measured"),
    };
    let gearing = Quantity::percent((1.0 / ratio - 1.0) * 100.0).signed();
    let by = match (case.drive, axle) {
        (None, Axle::Front) => " (front axle; drive not known)",
        (None, Axle::Rear) => " (rear axle; drive not known)",
        (Some(_), Axle::Front) => " (front axle)",
        (Some(_), Axle::Rear) => " (rear axle)",
    };
    let larger = Quantity::percent((ratio - 1.0) * 100.0);
    let dial = Dial::of(ratio, requirement.over_reads_pct);
    let says = match dial {
        Dial::Unchanged => Phrase::new(format!("Reads as with the {which} tire")).text(by).text("."),
        Dial::Within if ratio > 1.0 => Phrase::new("Larger by ")
            .quantity(larger)
            .text(", less than the dial was measured to over-read")
            .text(by)
            .text(". Overall gearing ")
            .quantity(gearing)
            .text("."),
        Dial::Within => Phrase::new("Shows a little more than the true speed, as the law wants it")
            .text(by)
            .text(". Overall gearing ")
            .quantity(gearing)
            .text("."),
        Dial::WithinOneSize => Phrase::new("Larger by ")
            .quantity(larger)
            .text(by)
            .text(": within what tires of one size differ. Overall gearing ")
            .quantity(gearing)
            .text("."),
        Dial::ToBeChecked => Phrase::new("Larger by ")
            .quantity(larger)
            .text(by)
            .text(": most dials over-read by more, but nobody measured this one. Have it checked by satellite speed. Overall gearing ")
            .quantity(gearing)
            .text("."),
        Dial::ToBeMeasured => Phrase::new("Larger by ")
            .quantity(larger)
            .text(by)
            .text(": lawful only if the dial over-reads by as much, and nobody measured it. Measure it by satellite speed first, or have the computer told. Overall gearing ")
            .quantity(gearing)
            .text("."),
        Dial::UnderReads => Phrase::new("Shows less than the true speed")
            .text(by)
            .text(": it is lawful only if the dial over-reads by ")
            .quantity(larger)
            .text(" or more. Overall gearing ")
            .quantity(gearing)
            .text("."),
        Dial::OverReadsTooMuch => Phrase::new("Shows more than a tenth and 4 km/h above the true speed")
            .text(by)
            .text(". Overall gearing ")
            .quantity(gearing)
            .text("."),
    };
    let severity = dial.severity();
    let caution = (severity != Severity::Good).then_some(CAUTION);
    Some(Finding {
        severity,
        word: dial.word(),
        figure: Some(figure.quantity),
        limit,
        says,
        caution,
        working,
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
    fn a_larger_tire_is_judged_by_degrees() {
        // Common practice for the degrees; UN R39 (memory) for the upper bound.
        for (ratio, over, dial) in [
            (1.0, None, Dial::Unchanged),
            (0.98, None, Dial::Within),
            (1.0038, None, Dial::WithinOneSize),
            (1.01, None, Dial::WithinOneSize),
            (1.02, None, Dial::ToBeChecked),
            (1.03, None, Dial::ToBeMeasured),
            (1.03, Some(3.5), Dial::Within),
            (1.03, Some(2.0), Dial::UnderReads),
            (1.005, Some(0.0), Dial::UnderReads),
            // At 40 km/h true R39 allows 8 more: 20 %.
            (0.8, None, Dial::OverReadsTooMuch),
            (0.87, Some(5.0), Dial::OverReadsTooMuch),
        ] {
            assert_eq!(Dial::of(ratio, over), dial, "{ratio} {over:?}");
        }
    }

    #[test]
    fn the_driven_axle_counts() {
        // Everyday arithmetic: 225/45R17 634.3, 235/45R17 643.3 (+1.4 %).
        let (front, rear) = (Some(1.0), Some(643.3 / 634.3));
        for (drive, dial) in [
            (Some(Drive::Front), Dial::Unchanged),
            (Some(Drive::Rear), Dial::ToBeChecked),
            (Some(Drive::All), Dial::ToBeChecked),
            (None, Dial::ToBeChecked),
        ] {
            let requirement = DialRequirement { over_reads_pct: None, drive };
            assert_eq!(requirement.judge(front, rear), Some(dial), "{drive:?}");
        }
    }

    #[test]
    fn the_factory_is_the_reference_and_not_what_is_fitted() {
        // 205/55R16 is 631.9 mm, 235/45R18 is 668.7: 5.8 % more, whether it is fitted already or not.
        let mut car = Car::default();
        for axle in Axle::BOTH {
            car.note(Fact::FactorySetup, Some(axle), "16x6.5 ET45 205/55R16 91V").unwrap();
        }
        let with = "18x8 ET45 235/45R18 98Y";
        let line = line_on(car.clone(), "speedometer", with, with).unwrap();
        assert_eq!((line.severity, line.word), (Severity::Measure, "measure the dial"));
        let line = line_on(car, "overall-diameter", with, "16x6.5 ET45 205/55R16 91V").unwrap();
        assert_eq!(line.severity, Severity::Good);
        let line = line_on(Car::default(), "speedometer", with, with).unwrap();
        assert_eq!(line.word, "unchanged");
        assert!(format!("{:?}", line.says).contains("fitted"), "{:?}", line.says);
    }

    #[test]
    fn a_plus_size_of_a_few_millimetres_is_no_stop() {
        // Everyday arithmetic: 205/55R16 631.9, 225/45R17 634.3 (+0.38 %).
        let line =
            line_on(Car::default(), "speedometer", "16x6.5 ET45 205/55R16", "17x7.5 ET45 225/45R17").unwrap();
        assert_eq!((line.severity, line.word), (Severity::Good, "within one size"));
    }
}
