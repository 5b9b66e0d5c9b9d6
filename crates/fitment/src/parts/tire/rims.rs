//! Which rims a tire is measured on and may be put on, and how wide it stands there.

use super::Size;
use super::dimensions::sidewall;
use crate::values::codes::RimWidth;
use crate::values::length::Length;
use crate::values::working::{Figure, Quantity, Source, Step};

/// Source of the measuring-rim ratios.
pub const MEASURING_RIM_SOURCE: Source = Source::from_memory("ISO 4000-1, rim-to-section ratios");
/// Source of the section-width rule.
pub const SECTION_ON_RIM_SOURCE: Source = Source::from_memory("UN R30 §6.1.1");
/// Source of the permitted widths.
pub const PERMITTED_SOURCE: Source = Source::estimate(
    "makers' tables from memory: measuring rim ± 0.5 in up to aspect ratio 30, −0.5…+1.0 above",
);

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

/// The rim width a tire is measured on, to the nearest half inch. A maker's own figure beats it.
///
/// # Source
/// Passenger sizes: ratio × section width (ISO 4000-1, from memory). Flotation: 0.80 × width (TRA, from memory: 8.5 for
/// 10.50, 10 for 12.50). Slicks and drag tires name their tread, and are measured on a rim of about that width (common
/// practice).
pub fn measuring_rim(size: &Size) -> RimWidth {
    RimWidth::nearest_half_inch(if let Some(tread) = size.named_tread_width() {
        tread
    } else if size.is_flotation() {
        size.named_section_width() * FLOTATION_RATIO
    } else {
        size.named_section_width() * rim_to_section_ratio(size)
    })
}

/// Measuring rim of flotation sizes as a share of their width (TRA, from memory).
const FLOTATION_RATIO: f64 = 0.80;

/// What a rim's width means for a tire.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum RimFit {
    /// It is one of the rims the tire may be put on.
    Permitted,
    /// It may be one: the tire maker must be asked.
    Ask,
    /// The tire must not be put on it.
    NotPermitted,
}

/// The rims a tire may be put on.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PermittedRims {
    /// Narrowest.
    pub least: RimWidth,
    /// Widest.
    pub most: RimWidth,
    /// Whether a list or the maker states them; else they are estimated.
    pub is_listed: bool,
    /// Rims outside that are to be asked about, narrowest and widest; what lies outside of these too is not permitted.
    ask: (RimWidth, RimWidth),
}

impl PermittedRims {
    /// As a list states them: nothing outside is permitted.
    pub fn listed(least: RimWidth, most: RimWidth) -> Self {
        Self { least, most, is_listed: true, ask: (least, most) }
    }

    /// Estimated round the measuring rim, while no maker's table is at hand.
    ///
    /// # Source
    /// Aspect ratio to 30: ± 0.5 in; 35 to 45: −0.5 … +1.0; from 50 the same, and one inch narrower to be asked
    /// (makers' tables, from memory). Flotation: 7.0–9.0 for 10.50, 8.5–11.0 for 12.50 (TRA, from memory). Slicks, racing
    /// and classic sizes: −0.5 … +1.0, and an estimate that never forbids.
    pub fn estimated(size: &Size) -> Self {
        let measuring = measuring_rim(size);
        let from = |quarters: i32| measuring.stepped(quarters).unwrap_or(measuring);
        let (least, most, ask) = if size.is_flotation() {
            let wide = size.named_section_width().as_inches() >= 12.0;
            (-6, if wide { 4 } else { 2 }, None)
        } else if !size.is_under_r30() && size.prefix().is_none() {
            (-2, 4, Some((RimWidth::MIN, RimWidth::MAX)))
        } else {
            match aspect_class(size) {
                a if a <= 30.0 => (-2, 2, None),
                a if a <= 45.0 => (-2, 4, None),
                _ => (-2, 4, Some((measuring.code() - 1.0, measuring.code() + 1.0))),
            }
        };
        let (least, most) = (from(least), from(most));
        let width = |code: f64, or| RimWidth::from_code(code).unwrap_or(or);
        let ask = ask.map_or((least, most), |(low, high)| (width(low, least), width(high, most)));
        Self { least, most, is_listed: false, ask }
    }

    /// What a rim's width means.
    pub fn judge(&self, rim: RimWidth) -> RimFit {
        if (self.least..=self.most).contains(&rim) {
            RimFit::Permitted
        } else if (self.ask.0..=self.ask.1).contains(&rim) {
            RimFit::Ask
        } else {
            RimFit::NotPermitted
        }
    }
}

/// Section width on a rim: S = S₁ + 0.4 (A − A₁), with A₁ the measuring rim.
///
/// ```
/// use fitment::{RimWidth, Tire, parts::tire::rims::section_width_on};
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
        inputs: vec![
            ("S₁", named),
            ("A", Quantity::length(rim.between_flanges())),
            ("A₁", Quantity::length(measuring.between_flanges())),
        ],
        result: Quantity::length(section_width_on(size, rim)),
        source: SECTION_ON_RIM_SOURCE,
    })
    .after(vec![measuring_rim_step(size)])
}

/// How the measuring rim was come by.
fn measuring_rim_step(size: &Size) -> Step {
    let named = Quantity::length(size.named_section_width());
    let (formula, inputs, source) = match size.named_tread_width() {
        Some(tread) => (
            "A₁ = tread width to the nearest ½ in",
            vec![("tread", Quantity::length(tread))],
            Source::common_practice("slicks and drag tires are measured on a rim of about their tread"),
        ),
        None if size.is_flotation() => (
            "A₁ = 0.80 × S₁ to the nearest ½ in",
            vec![("S₁", named)],
            Source::from_memory("TRA, flotation light truck tires"),
        ),
        None => (
            "A₁ = k × S₁ to the nearest ½ in",
            vec![("k", Quantity::ratio(rim_to_section_ratio(size))), ("S₁", named)],
            MEASURING_RIM_SOURCE,
        ),
    };
    Step {
        what: "measuring rim",
        formula,
        inputs,
        result: Quantity::rim_inches(measuring_rim(size).code()),
        source,
    }
}

/// A rough tread width, for want of the maker's figure: a share of the section width by aspect ratio.
///
/// # Source
/// Common practice; makers differ, even from size to size. Always shown as an estimate.
pub fn estimated_tread_width(size: &Size) -> Length {
    if let Some(tread) = size.named_tread_width() {
        return tread;
    }
    let share = match aspect_class(size) {
        a if a <= 35.0 => 0.90,
        a if a <= 45.0 => 0.88,
        a if a <= 60.0 => 0.83,
        _ => 0.78,
    };
    size.named_section_width() * share
}
