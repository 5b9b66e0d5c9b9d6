//! The trial fit: what was tried on, what it hit, and what that says of everything not tried yet.
//!
//! - [`TryOn`]: one wheel tried on one corner. A contact is a measurement: it feeds the corner back as a reading.
//! - [`conclude`]: what an axle's trials come to, in sentences, and what to try next.
//!
//! # Source
//! Geometry and common practice; see each rule.

mod conclusion;

pub use crate::car::corner::try_on::{Contact, TryOn};
use crate::judgement::case::AxleCase;
use crate::judgement::clearance::Verdict;
pub use conclusion::{Conclusion, Kind, Line, Next, conclude};

/// How a tried wheel stood to what it met: a gap is held against the house's least.
pub fn trial_verdict(case: &AxleCase<'_>, tried: &TryOn) -> Verdict {
    match (tried.contact.feature(), tried.gap) {
        _ if tried.touched() => Verdict::Touches,
        (Some(feature), Some(gap)) => Verdict::of(gap, gap - tried.plus_minus, case.least(feature)),
        _ => Verdict::Clears,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::corner::{Corner, Steer};
    use crate::car::lever::Levers;
    use crate::car::limits::HouseLimits;
    use crate::setup::{Axle, Setup};
    use crate::values::length::Length;

    pub(super) fn tried(setup: &str, contact: Contact, gap: Option<f64>) -> TryOn {
        TryOn {
            axle: Axle::Rear,
            side: None,
            setup: setup.parse().unwrap(),
            contact,
            gap: gap.map(Length::mm),
            plus_minus: Length::mm(0.5),
            steer: Steer::Straight,
            is_hanging: false,
        }
    }

    fn verdict(tries: &[TryOn], setup: &str) -> Verdict {
        let fitted: Setup = "18x8 ET40 245/45R18".parse().unwrap();
        let corner = Corner {
            readings: tries.iter().filter_map(TryOn::reading).collect(),
            camber_deg: Some(0.0),
            ..Corner::default()
        };
        let (resolved, limits, levers) = (corner.resolve(), HouseLimits::DEFAULT, Levers::default());
        assert!(resolved.troubles.is_empty(), "{:?}", resolved.troubles);
        let trial = AxleCase::new(Axle::Rear, &corner, &resolved, &fitted, &limits, &levers);
        let contact = tries[0].contact.feature().unwrap();
        trial.fit(&setup.parse().unwrap()).unwrap().line(contact).unwrap().verdict
    }

    #[test]
    fn a_contact_judges_the_wheels_that_were_not_tried() {
        // The 17 stands 4 mm into the knuckle: by the bead seats (ETRTO) a 16 stands 15.5 mm
        // deeper, an 18 has 12.7 − 4.0 = 8.7 mm of room.
        let tries = [tried("17x8 ET40", Contact::BarrelKnuckle, Some(-4.0))];
        for (setup, wanted) in
            [("16x8 ET40", Verdict::Touches), ("17x8 ET40", Verdict::Touches), ("18x8 ET40", Verdict::Clears)]
        {
            assert_eq!(verdict(&tries, setup), wanted, "{setup}");
        }
    }

    #[test]
    fn a_contact_nobody_measured_rules_out_and_never_clears() {
        let tries = [tried("18x9.5 ET30 245/40R18", Contact::Fender, None)];
        assert_eq!(verdict(&tries, "18x9.5 ET25 245/40R18"), Verdict::Touches, "further out still");
        assert_eq!(
            verdict(&tries, "18x9.5 ET45 245/40R18"),
            Verdict::MeasureFirst,
            "nobody knows by how much"
        );
        // A measured gap beside it decides.
        let both = [tries[0], tried("18x8.5 ET45 245/40R18", Contact::Fender, Some(20.0))];
        assert_eq!(verdict(&both, "18x8.5 ET40 245/40R18"), Verdict::Clears);
    }
}
