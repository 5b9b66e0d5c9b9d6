//! A ladder of sizes held against a car and a catalogue: what carries the load, what is listed, what fits under the arch.

use std::collections::HashMap;

use fitment::answers::plus_sizes::Rung;
use fitment::car::corner::Feature;
use fitment::judgement::case::AxleCase;
use fitment::judgement::clearance::Clearance;
use fitment::judgement::rules::load::{Load, LoadRequirement};
use fitment::parts::tire::Size;
use fitment::parts::tire::rims::RimFit;
use fitment::setup::catalogue::Catalogue;
use fitment::values::codes::{RimDiameter, RimWidth};
use fitment::{Setup, Tire, Wheel};

/// How many tires of each size the catalogue has, and wheels of each rim.
#[derive(Debug)]
pub struct OnShelf {
    tires: HashMap<Size, (usize, usize)>,
    wheels: HashMap<(RimDiameter, RimWidth), usize>,
    knows_load: bool,
}

impl OnShelf {
    /// Of a catalogue; `load` is what a tire must carry, where that is known.
    pub fn of(catalogue: &Catalogue, load: Option<LoadRequirement>) -> Self {
        let mut shelf = Self { tires: HashMap::new(), wheels: HashMap::new(), knows_load: load.is_some() };
        for row in &catalogue.tires {
            let count = shelf.tires.entry(row.tire.size).or_default();
            count.0 += 1;
            count.1 += usize::from(load.is_some_and(|load| load.judge(&row.tire) == Load::Enough));
        }
        for row in &catalogue.wheels {
            *shelf.wheels.entry((row.wheel.diameter, row.wheel.width)).or_default() += 1;
        }
        shelf
    }

    /// Tires of a size.
    pub fn tires_of(&self, size: &Size) -> usize {
        self.tires.get(size).map_or(0, |count| count.0)
    }

    /// Those of them that carry the load; `None` while the load is not known.
    pub fn tires_that_carry(&self, size: &Size) -> Option<usize> {
        self.knows_load.then(|| self.tires.get(size).map_or(0, |count| count.1))
    }

    /// Wheels that a size may be put on.
    pub fn wheels_for(&self, rung: &Rung) -> usize {
        let may = |(diameter, width): &(RimDiameter, RimWidth)| {
            *diameter == rung.size.rim() && rung.permitted.judge(*width) == RimFit::Permitted
        };
        self.wheels.iter().filter(|(rim, _)| may(rim)).map(|(_, count)| count).sum()
    }
}

/// The arch with a size on its measuring rim, where the fitted wheel stands; `None` while it was not read.
pub fn under_the_arch(rung: &Rung, case: &AxleCase<'_>) -> Option<Clearance> {
    let wheel = Wheel { diameter: rung.size.rim(), width: rung.measuring_rim, ..case.fitted.wheel? };
    let setup = Setup { wheel: Some(wheel), tire: Some(Tire::plain(rung.size)), ..*case.fitted };
    case.fit(&setup)?.line(Feature::Arch).filter(|line| line.band.is_some()).cloned()
}
