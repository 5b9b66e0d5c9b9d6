//! Which load version a size and an index are, where the sidewall does not say it.

use super::{LoadVersion, Prefix, Size, Tire};
use crate::values::working::Source;

/// Where the table comes from.
pub const SOURCE: Source = Source::from_memory(
    "ETRTO standards manual, passenger tires: load index as standard load and as extra load",
);

/// Section, aspect, rim, then the index as standard and as extra load.
///
/// # Source
/// [`SOURCE`]: the common sizes.
const INDEX_BY_SIZE: [(u16, u8, f64, u8, u8); 45] = [
    (175, 65, 14.0, 82, 86),
    (185, 60, 15.0, 84, 88),
    (185, 65, 15.0, 88, 92),
    (195, 50, 15.0, 82, 86),
    (195, 65, 15.0, 91, 95),
    (205, 55, 16.0, 91, 94),
    (205, 60, 16.0, 92, 96),
    (215, 55, 17.0, 94, 98),
    (215, 45, 17.0, 87, 91),
    (215, 60, 17.0, 96, 100),
    (225, 45, 17.0, 91, 94),
    (225, 50, 17.0, 94, 98),
    (225, 65, 17.0, 102, 106),
    (225, 40, 18.0, 88, 92),
    (235, 40, 18.0, 91, 95),
    (235, 45, 18.0, 94, 98),
    (245, 40, 18.0, 93, 97),
    (245, 45, 18.0, 96, 100),
    (255, 35, 18.0, 90, 94),
    (255, 40, 18.0, 95, 99),
    (265, 35, 18.0, 93, 97),
    (275, 35, 18.0, 95, 99),
    (225, 35, 19.0, 84, 88),
    (235, 35, 19.0, 87, 91),
    (245, 35, 19.0, 89, 93),
    (245, 40, 19.0, 94, 98),
    (255, 35, 19.0, 92, 96),
    (255, 40, 19.0, 96, 100),
    (265, 30, 19.0, 89, 93),
    (275, 30, 19.0, 92, 96),
    (275, 35, 19.0, 96, 100),
    (235, 55, 19.0, 101, 105),
    (255, 50, 19.0, 103, 107),
    (245, 35, 20.0, 91, 95),
    (255, 35, 20.0, 93, 97),
    (275, 30, 20.0, 93, 97),
    (275, 35, 20.0, 98, 102),
    (275, 40, 20.0, 102, 106),
    (295, 35, 20.0, 101, 105),
    (315, 35, 20.0, 106, 110),
    (205, 50, 17.0, 89, 93),
    (215, 40, 17.0, 83, 87),
    (225, 55, 17.0, 97, 101),
    (235, 60, 18.0, 103, 107),
    (225, 55, 18.0, 98, 102),
];

impl LoadVersion {
    /// What a tire's size and single index are by the table; `None` for a size that is not in it, an index that is neither, a
    /// tire with a prefix of its own, and a dual index, which no passenger tire has.
    ///
    /// ```
    /// use fitment::{Tire, parts::tire::LoadVersion};
    /// let version = |text: &str| LoadVersion::by_table(&text.parse::<Tire>().unwrap());
    /// assert_eq!(version("225/40R18 88Y"), Some(LoadVersion::Standard));
    /// assert_eq!(version("225/40R18 92Y"), Some(LoadVersion::Extra));
    /// assert_eq!(version("225/40R18 90Y"), None);
    /// ```
    pub fn by_table(tire: &Tire) -> Option<Self> {
        let Size::Metric(size) = tire.size else { return None };
        let service = tire.service.filter(|service| service.dual.is_none())?;
        let is_plain = tire.size.prefix() == Some(Prefix::None);
        let rim = tire.size.rim().code();
        let of_size = INDEX_BY_SIZE.iter().filter(|_| is_plain).find(|(section, aspect, code, ..)| {
            (size.section_mm, size.aspect) == (*section, *aspect) && (rim - code).abs() < 1e-9
        });
        let (.., standard, extra) = of_size?;
        match service.single.index() {
            index if index == *standard => Some(Self::Standard),
            index if index == *extra => Some(Self::Extra),
            _ => None,
        }
    }
}
