//! Load index: the code for the mass one tire carries.

use std::fmt;

use crate::values::working::Source;

/// Where the table comes from.
pub const SOURCE: Source = Source::standard("ISO 4000-1 / UN R30 annex, load capacity index table");

/// Kilograms for the indexes 60 to 160, in order.
const KG: [u16; 101] = [
    250, 257, 265, 272, 280, 290, 300, 307, 315, 325, 335, 345, 355, 365, 375, 387, 400, 412, 425, 437, 450,
    462, 475, 487, 500, 515, 530, 545, 560, 580, 600, 615, 630, 650, 670, 690, 710, 730, 750, 775, 800, 825,
    850, 875, 900, 925, 950, 975, 1000, 1030, 1060, 1090, 1120, 1150, 1180, 1215, 1250, 1285, 1320, 1360,
    1400, 1450, 1500, 1550, 1600, 1650, 1700, 1750, 1800, 1850, 1900, 1950, 2000, 2060, 2120, 2180, 2240,
    2300, 2360, 2430, 2500, 2575, 2650, 2725, 2800, 2900, 3000, 3075, 3150, 3250, 3350, 3450, 3550, 3650,
    3750, 3875, 4000, 4125, 4250, 4375, 4500,
];

/// A load index from 60 to 160.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct LoadIndex(u8);

impl LoadIndex {
    /// Lowest index in the table.
    pub const MIN: u8 = 60;
    /// Highest index in the table.
    pub const MAX: u8 = 160;

    /// `None` outside 60–160.
    pub fn new(index: u32) -> Option<Self> {
        (u32::from(Self::MIN)..=u32::from(Self::MAX)).contains(&index).then_some(Self(index as u8))
    }

    /// The lowest index that carries a load; `None` when none does.
    pub fn least_for(kg: f64) -> Option<Self> {
        (Self::MIN..=Self::MAX).map(Self).find(|index| index.capacity_kg() >= kg)
    }

    /// The index.
    pub fn index(self) -> u8 {
        self.0
    }

    /// What one tire may carry, in kilograms.
    pub fn capacity_kg(self) -> f64 {
        f64::from(KG[usize::from(self.0 - Self::MIN)])
    }
}

impl fmt::Display for LoadIndex {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        self.0.fmt(f)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_least_index_that_carries_a_load() {
        // ISO 4000-1: 91 is 615 kg, 92 is 630 kg.
        for (kg, index) in [(615.0, Some(91)), (615.5, Some(92)), (0.0, Some(60)), (1e6, None)] {
            assert_eq!(LoadIndex::least_for(kg).map(LoadIndex::index), index, "{kg}");
        }
    }

    #[test]
    fn capacities_are_the_tables() {
        // ISO 4000-1 load index table: ends, and rows spread over it.
        for (index, kg) in [
            (60, 250.0),
            (75, 387.0),
            (82, 475.0),
            (88, 560.0),
            (91, 615.0),
            (94, 670.0),
            (97, 730.0),
            (99, 775.0),
            (100, 800.0),
            (108, 1000.0),
            (112, 1120.0),
            (119, 1360.0),
            (121, 1450.0),
            (126, 1700.0),
            (129, 1850.0),
            (135, 2180.0),
            (140, 2500.0),
            (148, 3150.0),
            (160, 4500.0),
        ] {
            assert_eq!(LoadIndex::new(index).unwrap().capacity_kg(), kg, "index {index}, ISO 4000-1");
        }
        assert_eq!(LoadIndex::new(59), None);
        assert_eq!(LoadIndex::new(161), None);
    }

    #[test]
    fn every_step_carries_more() {
        // The indexes approximate a geometric series: 80 steps to the decade (the R80 preferred-number idea),
        // so each step is near 10^(1/80) = 2.9 %.
        for pair in KG.windows(2) {
            let step = f64::from(pair[1]) / f64::from(pair[0]);
            assert!((1.018..1.040).contains(&step), "{} to {} kg", pair[0], pair[1]);
        }
    }
}
