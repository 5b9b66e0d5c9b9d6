//! Which rims a tire is measured on and may be put on, and how wide it stands there.

use super::Size;
use super::dimensions::sidewall;
use crate::codes::RimWidth;
use crate::length::Length;
use crate::working::{Figure, Quantity, Source, Step};

/// Source of the measuring-rim ratios.
pub const MEASURING_RIM_SOURCE: Source = Source::from_memory("ISO 4000-1, rim-to-section ratios");
/// Source of the section-width rule.
pub const SECTION_ON_RIM_SOURCE: Source = Source::from_memory("UN R30 §6.1.1");
/// Source of the permitted widths.
pub const PERMITTED_SOURCE: Source =
    Source::estimate("common practice, measuring rim −0.5…+1.0 in (−1.0…+1.0 from aspect ratio 50 up)");

/// How much of a change of rim width the section follows.
///
/// # Source
/// UN R30 §6.1.1 (from memory). The trade says it as two tenths of an inch for each half inch of rim.
pub const SECTION_PER_RIM_WIDTH: f64 = 0.4;

/// The aspect ratio that the rim rules go by: the stated one, else H / S; to the nearest five.
fn aspect_class(size: &Size) -> f64 {
    let aspect =
        size.stated_aspect_ratio().unwrap_or_else(|| sidewall(size) / size.named_section_width() * 100.0);
    (aspect / 5.0).round() * 5.0
}

/// Rim width as a share of section width on the measuring rim, by aspect ratio.
///
/// # Source
/// ISO 4000-1 (from memory). Ratios between the listed ones take the nearest five.
pub fn rim_to_section_ratio(size: &Size) -> f64 {
    match aspect_class(size) {
        a if a >= 75.0 => 0.70,
        a if a >= 60.0 => 0.75,
        a if a >= 50.0 => 0.80,
        a if a >= 45.0 => 0.85,
        a if a >= 30.0 => 0.90,
        _ => 0.92,
    }
}

/// The rim width a tire is measured on: ratio × section width, to the nearest half inch. A maker's own
/// figure beats it.
pub fn measuring_rim(size: &Size) -> RimWidth {
    RimWidth::nearest_half_inch(size.named_section_width() * rim_to_section_ratio(size))
}

/// Narrowest and widest rim the tire may be put on.
///
/// An estimate round the measuring rim, used while no maker's table is at hand.
pub fn permitted_rims(size: &Size) -> (RimWidth, RimWidth) {
    let measuring = measuring_rim(size);
    let narrower = if aspect_class(size) <= 45.0 { -2 } else { -4 };
    (measuring.stepped(narrower).unwrap_or(measuring), measuring.stepped(4).unwrap_or(measuring))
}

/// Section width on a rim: S = S₁ + 0.4 (A − A₁), with A₁ the measuring rim.
///
/// ```
/// use fitment::{RimWidth, Tire, tire::rims::section_width_on};
/// let tire: Tire = "275/35R18".parse().unwrap();
/// let on_nine = section_width_on(&tire.size, RimWidth::from_code(9.0).unwrap());
/// assert!((on_nine.as_mm() - (275.0 - 5.08)).abs() < 1e-9);
/// ```
pub fn section_width_on(size: &Size, rim: RimWidth) -> Length {
    size.named_section_width()
        + (rim.between_flanges() - measuring_rim(size).between_flanges()) * SECTION_PER_RIM_WIDTH
}

/// [`section_width_on`] with its working.
pub fn section_width_on_worked(size: &Size, rim: RimWidth) -> Figure {
    let named = Quantity::length(size.named_section_width());
    let measuring = measuring_rim(size);
    Figure::of(Step {
        what: "section width on this rim",
        formula: "S = S₁ + 0.4 × (A − A₁)",
        put_in: vec![
            ("S₁", named),
            ("A", Quantity::length(rim.between_flanges())),
            ("A₁", Quantity::length(measuring.between_flanges())),
        ],
        gives: Quantity::length(section_width_on(size, rim)),
        source: SECTION_ON_RIM_SOURCE,
    })
    .after(vec![Step {
        what: "measuring rim",
        formula: "A₁ = k × S₁ to the nearest ½ in",
        put_in: vec![("k", Quantity::ratio(rim_to_section_ratio(size))), ("S₁", named)],
        gives: Quantity::rim_inches(measuring.code()),
        source: MEASURING_RIM_SOURCE,
    }])
}

/// A rough tread width, for want of the maker's figure: a share of the section width by aspect ratio.
///
/// # Source
/// Common practice; makers differ, even from size to size. Always shown as an estimate.
pub fn estimated_tread_width(size: &Size) -> Length {
    let share = match aspect_class(size) {
        a if a <= 35.0 => 0.90,
        a if a <= 45.0 => 0.88,
        a if a <= 60.0 => 0.83,
        _ => 0.78,
    };
    size.named_section_width() * share
}
