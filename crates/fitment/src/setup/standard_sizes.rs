//! Tire sizes that are made, rim by rim: what a size question is answered from before any arithmetic of widths and aspect
//! ratios.
//!
//! The tables of the standards (ETRTO Standards Manual, TRA Year Book, JATMA) are not free and are not copied here: this list
//! was written from memory of sizes commonly sold, and is not complete. What the price lists have counts as made as well.

use std::collections::HashSet;
use std::sync::OnceLock;

use crate::parts::tire::{Size, Tire};
use crate::values::working::Source;

/// Where the list comes from.
pub const SOURCE: Source =
    Source::from_memory("sizes commonly made, after ETRTO and TRA; the makers' and the price lists decide");

/// Metric sizes by rim code: section width and aspect ratio.
const METRIC: [(u32, &str); 14] = [
    (12, "145/80 155/70 155/80"),
    (
        13,
        "145/80 155/65 155/70 155/80 165/65 165/70 165/80 175/50 175/60 175/65 175/70 175/80 185/60 185/70 205/60",
    ),
    (
        14,
        "155/65 165/60 165/65 165/70 165/80 175/60 175/65 175/70 175/80 185/55 185/60 185/65 185/70 185/80 195/45 195/55 \
          195/60 195/65 195/70 195/80 205/60 205/70 215/60 225/60 225/70",
    ),
    (
        15,
        "145/65 155/60 165/50 165/60 165/65 165/80 175/50 175/55 175/60 175/65 175/80 185/50 185/55 185/60 185/65 185/70 \
          195/45 195/50 195/55 195/60 195/65 195/70 195/80 205/50 205/55 205/60 205/65 205/70 205/75 205/80 215/60 215/65 \
          215/70 215/75 215/80 225/45 225/50 225/60 225/70 225/75 235/60 235/70 235/75 245/50 255/60 255/70 265/50 265/70 \
          265/75 275/50 275/55 275/60 295/50",
    ),
    (
        16,
        "165/50 175/60 175/80 185/50 185/55 185/60 185/75 195/40 195/45 195/50 195/55 195/60 195/75 205/45 205/50 205/55 \
          205/60 205/65 205/75 205/80 215/40 215/45 215/50 215/55 215/60 215/65 215/70 215/75 215/80 215/85 225/45 225/50 \
          225/55 225/60 225/65 225/70 225/75 235/50 235/55 235/60 235/65 235/70 235/75 235/80 235/85 245/45 245/50 245/70 \
          245/75 255/50 255/65 255/70 265/70 265/75 275/70 285/75 305/70 315/75",
    ),
    (
        17,
        "185/60 195/40 195/45 205/40 205/45 205/50 205/55 205/60 215/40 215/45 215/50 215/55 215/60 215/65 215/70 225/45 \
          225/50 225/55 225/60 225/65 225/70 225/75 235/40 235/45 235/50 235/55 235/60 235/65 235/75 235/80 245/35 245/40 \
          245/45 245/50 245/55 245/60 245/65 245/70 245/75 255/40 255/45 255/50 255/55 255/60 255/65 255/70 255/75 255/80 \
          265/40 265/65 265/70 275/40 275/50 275/55 275/65 275/70 285/40 285/60 285/65 285/70 285/75 295/70 305/65 315/35 \
          315/70 335/35",
    ),
    (
        18,
        "205/40 215/35 215/40 215/45 215/50 215/55 225/35 225/40 225/45 225/50 225/55 225/60 225/65 235/35 235/40 235/45 \
          235/50 235/55 235/60 235/65 245/35 245/40 245/45 245/50 245/55 245/60 245/65 245/70 255/30 255/35 255/40 255/45 \
          255/50 255/55 255/60 255/65 255/70 265/30 265/35 265/40 265/45 265/60 265/65 265/70 275/30 275/35 275/40 275/45 \
          275/60 275/65 275/70 285/30 285/35 285/50 285/60 285/65 285/75 295/30 295/35 295/70 305/30 305/65 305/70 315/30 \
          325/30 325/65 335/30",
    ),
    (
        19,
        "215/35 225/35 225/40 225/45 225/50 225/55 235/35 235/40 235/45 235/50 235/55 245/30 245/35 245/40 245/45 245/50 \
          245/55 255/30 255/35 255/40 255/45 255/50 255/55 255/60 265/30 265/35 265/40 265/45 265/50 265/55 275/30 275/35 \
          275/40 275/45 275/55 285/30 285/35 285/40 285/45 295/30 295/35 295/40 305/30 325/30 345/30",
    ),
    (
        20,
        "225/30 225/35 225/40 235/30 235/35 235/45 235/50 235/55 245/30 245/35 245/40 245/45 245/50 255/30 255/35 255/40 \
          255/45 255/50 255/55 265/30 265/35 265/40 265/45 265/50 275/30 275/35 275/40 275/45 275/50 275/55 275/60 275/65 \
          285/25 285/30 285/35 285/40 285/45 285/50 285/55 285/65 295/25 295/30 295/35 295/40 295/45 295/55 295/60 295/65 \
          305/25 305/30 305/35 305/40 305/50 305/55 315/35 325/60 335/30",
    ),
    (
        21,
        "245/35 245/40 255/30 255/35 255/40 265/35 265/40 265/45 275/30 275/35 275/40 275/45 285/30 285/35 285/40 285/45 \
          295/30 295/35 295/40 305/30 315/30 315/35 315/40 325/30 325/35",
    ),
    (
        22,
        "245/30 255/30 265/30 265/35 265/40 265/50 275/40 275/45 275/50 285/25 285/30 285/35 285/40 285/45 285/50 295/25 \
          295/30 295/40 305/40 305/45 315/30 325/35 325/50 325/55",
    ),
    (23, "285/35 285/40 305/30 315/30"),
    (24, "255/30 275/25 275/30 285/40 295/35 305/35 315/40"),
    (26, "275/25 295/30 305/30 315/40"),
];

/// Flotation sizes: overall diameter, section and rim in inches, as marked.
const FLOTATION: &str = "27x8.50R14LT 30x9.50R15LT 31x10.50R15LT 32x11.50R15LT 33x10.50R15LT 33x12.50R15LT 35x12.50R15LT \
    33x10.50R17LT 33x12.50R17LT 34x10.50R17LT 35x10.50R17LT 35x12.50R17LT 37x12.50R17LT 37x13.50R17LT 39x13.50R17LT \
    40x13.50R17LT 33x12.50R18LT 35x11.50R18LT 35x12.50R18LT 37x12.50R18LT 37x13.50R18LT 33x12.50R20LT 34x12.50R20LT \
    35x11.50R20LT 35x12.50R20LT 37x11.50R20LT 37x12.50R20LT 37x13.50R20LT 38x13.50R20LT 40x13.50R20LT 33x12.50R22LT \
    35x12.50R22LT 37x12.50R22LT 37x13.50R22LT";

/// Every size of the list, small rims first.
pub fn all() -> &'static [Size] {
    static SIZES: OnceLock<Vec<Size>> = OnceLock::new();
    SIZES.get_or_init(|| {
        let metric = METRIC
            .iter()
            .flat_map(|(rim, sizes)| sizes.split_whitespace().map(move |size| format!("{size}R{rim}")));
        let marked = FLOTATION.split_whitespace().map(str::to_owned);
        metric.chain(marked).filter_map(|text| Some(text.parse::<Tire>().ok()?.size)).collect()
    })
}

/// Nominal section widths that sizes are looked for in: 135 to 345 by 10, in millimetres.
pub fn sections_mm() -> impl Iterator<Item = u32> {
    (135..=345).step_by(10)
}

/// Whether a size is on the list; the service prefix (P, LT) does not matter to that.
pub fn is_made(size: &Size) -> bool {
    static NAMES: OnceLock<HashSet<(u64, u64, u64)>> = OnceLock::new();
    NAMES.get_or_init(|| all().iter().map(key).collect()).contains(&key(size))
}

/// Width, height and rim to the tenth of a millimetre.
fn key(size: &Size) -> (u64, u64, u64) {
    let tenths = |mm: f64| (mm * 10.0).round() as u64;
    (
        tenths(size.named_section_width().as_mm()),
        tenths(crate::parts::tire::dimensions::overall_diameter(size).as_mm()),
        tenths(size.rim().code() * 25.4),
    )
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_line_of_the_list_can_be_read_and_stands_there_once() {
        let lines: usize = METRIC.iter().map(|(_, sizes)| sizes.split_whitespace().count()).sum();
        assert_eq!(all().len(), lines + FLOTATION.split_whitespace().count());
        let names: HashSet<_> = all().iter().map(key).collect();
        assert_eq!(names.len(), all().len());
    }

    #[test]
    fn what_is_made_and_what_is_only_arithmetic() {
        let made = |text: &str| is_made(&text.parse::<Tire>().unwrap().size);
        for size in ["225/45R17 94W", "205/55R16", "P265/70R17", "LT285/70R17", "35x12.50R17LT", "255/35R18"]
        {
            assert!(made(size), "{size}");
        }
        for size in ["345/20R13", "135/85R20", "225/85R17", "335/20R15"] {
            assert!(!made(size), "{size}");
        }
    }
}
