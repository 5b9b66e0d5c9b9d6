//! The speedometer: true speed at the speeds on the signs, and UN R39.

use super::{Asked, Case, Finding, Rule, Severity};
use crate::limits::Drive;
use crate::setup::Axle;
use crate::speedometer::{DialAgainstR39, UN_R39, change_against_r39, true_speed_worked};
use crate::working::{Figure, Phrase, Quantity};

pub(super) const RULE: Rule =
    Rule { code: "speedometer", title: "Speedometer", source: UN_R39, asked: Asked::PerCar(judge) };

const CAUTION: &str = "A dial that shows too little is against UN R39 and the law in most places. Local codes \
                       decide; have it measured and corrected.";

/// At this shown speed the line's figure is given.
const SHOWN_KMH: f64 = 100.0;

impl Case<'_> {
    /// True over indicated speed, by the axle the dial follows: the driven one. On all-wheel drive, or while
    /// the drive is unknown, the axle that under-reads most.
    pub fn speedometer_ratio(&self) -> Option<(Axle, &Figure)> {
        let ratio = |axle: Axle| Some((axle, self.change(axle)?.true_speed_ratio.as_ref()?));
        match self.drive {
            Some(Drive::Front) => ratio(Axle::Front),
            Some(Drive::Rear) => ratio(Axle::Rear),
            Some(Drive::All) | None => match (ratio(Axle::Front), ratio(Axle::Rear)) {
                (Some(front), Some(rear)) if rear.1.value() > front.1.value() => Some(rear),
                (front, rear) => front.or(rear),
            },
        }
    }
}

fn judge(plan: &Case<'_>) -> Option<Finding> {
    let Some((axle, ratio_figure)) = plan.speedometer_ratio() else {
        return Some(Finding::unknown("The tires must be stated, fitted and planned."));
    };
    let ratio = ratio_figure.value();
    let figure = true_speed_worked(SHOWN_KMH, ratio);
    let mut working = ratio_figure.working.clone();
    working.extend(figure.working.iter().cloned());
    let limit = Phrase::new("UN R39, true at ").quantity(Quantity::speed(SHOWN_KMH)).text(" shown");
    let gearing = Quantity::percent((1.0 / ratio - 1.0) * 100.0).signed();
    let by = match (plan.drive, axle) {
        (None, Axle::Front) => " (front axle; drive not known)",
        (None, Axle::Rear) => " (rear axle; drive not known)",
        (Some(_), Axle::Front) => " (front axle)",
        (Some(_), Axle::Rear) => " (rear axle)",
    };
    let (standing, word, says) = match change_against_r39(ratio) {
        DialAgainstR39::UnderReads => {
            let says = Phrase::new("Shows less than the true speed")
                .text(by)
                .text(": it is lawful only if the dial over-read by ")
                .quantity(Quantity::percent((ratio - 1.0) * 100.0))
                .text(" or more before. Overall gearing ")
                .quantity(gearing)
                .text(".");
            (Severity::Stop, "under-reads", says)
        }
        DialAgainstR39::OverReadsTooMuch => {
            let says = Phrase::new("Shows more than a tenth and 4 km/h above the true speed")
                .text(by)
                .text(". Overall gearing ")
                .quantity(gearing)
                .text(".");
            (Severity::Stop, "over-reads", says)
        }
        DialAgainstR39::Within if ratio == 1.0 => {
            (Severity::Good, "unchanged", Phrase::new("Reads as with the fitted tires").text(by).text("."))
        }
        DialAgainstR39::Within => {
            let says = Phrase::new("Shows a little more than the true speed, as the law wants it")
                .text(by)
                .text(". Overall gearing ")
                .quantity(gearing)
                .text(".");
            (Severity::Good, "within", says)
        }
    };
    let caution = (standing == Severity::Stop).then_some(CAUTION);
    Some(Finding { standing, word, figure: Some(figure.quantity), limit, says, caution, working })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ledger::tests::line;

    #[test]
    fn a_larger_tire_makes_the_dial_under_read() {
        // 195/65R15 → 215/50R17: 634.5 → 646.8 mm, +1.9 % (arithmetic); UN R39 allows no under-reading.
        let line = line("speedometer", "15x6 ET40 195/65R15", "17x7 ET40 215/50R17", Some(Drive::Front));
        assert_eq!((line.standing, line.word), (Severity::Stop, "under-reads"));
        assert!((line.figure.unwrap().value - 101.9385).abs() < 1e-3);
        assert!(line.caution.is_some());
    }

    #[test]
    fn the_driven_axle_counts() {
        let fitted = "17x7.5 ET45 225/45R17";
        let planned = "F: 17x7.5 ET45 225/45R17 R: 17x7.5 ET45 235/45R17";
        for (drive, word) in [
            (Some(Drive::Front), "unchanged"),
            (Some(Drive::Rear), "under-reads"),
            (Some(Drive::All), "under-reads"),
            (None, "under-reads"),
        ] {
            assert_eq!(line("speedometer", fitted, planned, drive).word, word, "{drive:?}");
        }
    }

    #[test]
    fn a_smaller_tire_over_reads_within_the_law() {
        let line = line("speedometer", "17x7.5 ET45 225/45R17", "17x7.5 ET45 215/45R17", None);
        assert_eq!((line.standing, line.word), (Severity::Good, "within"));
    }
}
