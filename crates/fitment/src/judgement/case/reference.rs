//! What a plan is held against on the road.
//!
//! Overall diameter, speedometer, front to rear, balance, load and speed are held against the factory's set; where that
//! is not known, against an alternative the factory allowed; where neither is, against what is fitted, and it is said.
//! *Clearance* is another matter: it is held against what was on the car when it was read.

use crate::car::Car;
use crate::parts::tire::Tire;
use crate::setup::{Axle, PerAxle, Setup, SetupPair};

/// Whose set a reference is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ReferenceKind {
    /// The factory's.
    Factory,
    /// One that the factory allowed.
    Alternative,
    /// What is fitted, for want of better.
    Fitted,
}

/// What a planned setup is held against on one axle.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Reference {
    /// The setup; it has a tire.
    pub setup: Setup,
    /// Whose it is.
    pub kind: ReferenceKind,
}

impl Reference {
    /// In words: `factory`, `factory's alternative` or `fitted`.
    pub fn which(&self) -> &'static str {
        match self.kind {
            ReferenceKind::Factory => "factory",
            ReferenceKind::Alternative => "factory's alternative",
            ReferenceKind::Fitted => "fitted",
        }
    }

    /// Its tire.
    pub fn tire(&self) -> Option<Tire> {
        self.setup.tire
    }

    /// An axle's; `None` while no tire is stated anywhere.
    pub fn of(car: &Car, fitted: &SetupPair, axle: Axle) -> Option<Self> {
        Self::candidates(car, fitted).into_iter().find_map(|(pair, kind)| {
            let setup = *pair.on(axle)?;
            setup.tire.map(|_| Self { setup, kind })
        })
    }

    /// Both axles of one set: of the same kind, so that their ratio means something; `None` while no set states both
    /// tires.
    pub fn pair_of(car: &Car, fitted: &SetupPair) -> Option<PerAxle<Self>> {
        Self::candidates(car, fitted).into_iter().find_map(|(pair, kind)| {
            let on = |axle| {
                pair.on(axle).filter(|setup| setup.tire.is_some()).map(|setup| Self { setup: *setup, kind })
            };
            Some(PerAxle { front: on(Axle::Front)?, rear: on(Axle::Rear)? })
        })
    }

    fn candidates(car: &Car, fitted: &SetupPair) -> Vec<(SetupPair, ReferenceKind)> {
        let mut all = vec![(car.factory(), ReferenceKind::Factory)];
        all.extend(car.alternatives.iter().map(|one| (one.setups, ReferenceKind::Alternative)));
        all.push((*fitted, ReferenceKind::Fitted));
        all
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::{Alternative, Fact};

    #[test]
    fn the_factorys_set_comes_first_then_what_it_allowed_then_what_is_fitted() {
        let setup = |line: &str| Some(line.parse::<Setup>().unwrap());
        let fitted = SetupPair { front: setup("18x8 ET45 235/45R18"), rear: setup("18x8 ET45 235/45R18") };
        let mut car = Car::default();
        let kind = |car: &Car, axle| Reference::of(car, &fitted, axle).unwrap().kind;
        assert_eq!(kind(&car, Axle::Front), ReferenceKind::Fitted);
        let allowed =
            SetupPair { front: setup("17x7.5 ET45 225/45R17"), rear: setup("17x7.5 ET45 225/45R17") };
        car.alternatives.push(Alternative { name: "sport".into(), setups: allowed });
        assert_eq!(kind(&car, Axle::Front), ReferenceKind::Alternative);
        car.note(Fact::FactorySetup, Some(Axle::Front), "16x6.5 ET45 205/55R16").unwrap();
        assert_eq!(kind(&car, Axle::Front), ReferenceKind::Factory);
        assert_eq!(kind(&car, Axle::Rear), ReferenceKind::Alternative);
        // A ratio is of one set: the factory's rear is not known.
        assert_eq!(Reference::pair_of(&car, &fitted).unwrap().front.kind, ReferenceKind::Alternative);
    }
}
