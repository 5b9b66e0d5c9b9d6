//! How much of the work that is allowed on a car a setup really needs.

use crate::car::lever::{Lever, Levers};
use crate::judgement::case::AxleCase;
use crate::setup::Setup;

/// The least of the allowed work with which a setup clears everything that was read; `None` when even all of it
/// does not do, or the setup cannot be placed.
pub fn least_of(case: &AxleCase<'_>, planned: &Setup, allowed: &Levers) -> Option<Levers> {
    let clears = |levers: &Levers| Some(!AxleCase { levers, ..*case }.rules_out(planned)?);
    if clears(case.levers)? {
        return Some(*case.levers);
    }
    least_work(case.levers, allowed, |levers| clears(levers) == Some(true))
}

/// The least work between two settings of the levers that does; `None` when even all of it does not. Hard work is given up before
/// mild: from the hardest lever on, each goes back as far as the others still do.
pub(crate) fn least_work(from: &Levers, allowed: &Levers, does: impl Fn(&Levers) -> bool) -> Option<Levers> {
    if !does(allowed) {
        return None;
    }
    let mut least = *allowed;
    for lever in Lever::ALL.into_iter().rev().filter(|lever| lever.is_on_the_car()) {
        let (from, to) = (from.amount(lever), allowed.amount(lever));
        let step = lever.facts().range.2;
        let steps = ((to - from).abs() / step).ceil() as u32;
        let enough = (0..steps)
            .map(|count| from + (to - from).signum() * step * f64::from(count))
            .find(|amount| does(&least.with(lever, *amount)));
        if let Some(amount) = enough {
            least = least.with(lever, amount);
        }
    }
    Some(least)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::corner::{Corner, Feature, Reading};
    use crate::car::limits::HouseLimits;
    use crate::setup::Axle;
    use crate::values::length::Length;

    #[test]
    fn no_more_is_done_than_the_setup_needs_and_hard_work_goes_first() {
        let fitted: Setup = "17x7.5 ET45 225/45R17".parse().unwrap();
        let read = |feature, gap: f64| Reading::new(feature, Length::mm(gap), Length::mm(0.5), fitted);
        let corner = Corner {
            readings: vec![read(Feature::FenderLateral, 10.0), read(Feature::Arch, 60.0)],
            camber_deg: Some(0.0),
            ..Corner::default()
        };
        let (resolved, limits, none) = (corner.resolve(), HouseLimits::DEFAULT, Levers::default());
        let trial = AxleCase::new(Axle::Rear, &corner, &resolved, &fitted, &limits, &none);
        let at = |offset: i32| format!("17x7.5 ET{offset} 225/45R17").parse::<Setup>().unwrap();
        let mut allowed = Levers::default();
        allowed.set(Lever::LipRolled, 10.0).unwrap();
        allowed.set(Lever::FenderPulled, 15.0).unwrap();
        assert_eq!(least_of(&trial, &at(45), &allowed), Some(none), "it clears as it is");
        let mild = least_of(&trial, &at(37), &allowed).unwrap();
        assert!(mild.amount(Lever::LipRolled) > 0.0 && mild.amount(Lever::FenderPulled) == 0.0, "{mild:?}");
        let hard = least_of(&trial, &at(25), &allowed).unwrap();
        let pulled = hard.amount(Lever::FenderPulled);
        assert!(pulled > 0.0 && pulled <= 15.0, "{hard:?}");
        // A step less does not do.
        let step = Lever::FenderPulled.facts().range.2;
        let fails = |levers: &Levers| AxleCase { levers, ..trial }.fit(&at(25)).unwrap().rules_out();
        assert!(fails(&hard.with(Lever::FenderPulled, pulled - step)));
        assert_eq!(least_of(&trial, &at(-20), &allowed), None, "even all of it is not enough");
    }
}
