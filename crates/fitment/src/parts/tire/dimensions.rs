//! What follows from the size alone: heights, diameters, revolutions, and how far a new tire may differ.

use std::f64::consts::PI;

use super::Size;
use crate::values::length::{Length, MM_PER_MILE};
use crate::values::working::{Figure, Quantity, Source, Step};

/// Rolling circumference under load as a multiple of the overall diameter, radials.
///
/// # Source
/// ETRTO practice (from memory). π would be the unloaded tire; the difference is some 3 %.
pub const ROLLING_FACTOR: f64 = 3.05;

const R30: Source = Source::from_memory("UN R30 §6.1");

/// Sidewall (section) height H = S × AR / 100; for sizes that state the overall diameter, half of what it
/// leaves over the rim.
pub fn sidewall(size: &Size) -> Length {
    match (size.stated_overall_diameter(), size.stated_aspect_ratio()) {
        (None, Some(aspect)) => size.named_section_width() * (aspect / 100.0),
        (overall, _) => (overall.unwrap_or(size.rim().everyday()) - size.rim().everyday()) / 2.0,
    }
}

/// Overall diameter by everyday arithmetic: rim code × 25.4 + 2H.
///
/// ```
/// use fitment::{Tire, parts::tire::dimensions};
/// let tire: Tire = "265/70R18".parse().unwrap();
/// assert!((dimensions::overall_diameter(&tire.size).as_inches() - 32.6).abs() < 0.05);
/// ```
pub fn overall_diameter(size: &Size) -> Length {
    size.stated_overall_diameter().unwrap_or_else(|| size.rim().everyday() + sidewall(size) * 2.0)
}

/// Overall diameter by the design rim diameter of UN R30, d + 2H. Differs from everyday arithmetic by less
/// than a millimetre; a size that states its overall diameter is taken at its word.
pub fn design_overall_diameter(size: &Size) -> Length {
    size.stated_overall_diameter().unwrap_or_else(|| size.rim().r30_design() + sidewall(size) * 2.0)
}

/// Circumference of the unloaded tire, π · OD.
pub fn circumference(size: &Size) -> Length {
    overall_diameter(size) * PI
}

/// Revolutions a mile by simple arithmetic: 1 609 344 / (π · OD in mm).
pub fn revolutions_per_mile(size: &Size) -> f64 {
    MM_PER_MILE / circumference(size).as_mm()
}

/// Revolutions a mile on the road, loaded: 1 609 344 / (3.05 · OD in mm). The figure makers publish.
pub fn rolling_revolutions_per_mile(size: &Size) -> f64 {
    MM_PER_MILE / (overall_diameter(size) * ROLLING_FACTOR).as_mm()
}

/// Most that the overall width of a new tire may measure: design section width + 4 %.
///
/// # Source
/// UN R30 §6.1 (from memory).
pub fn greatest_overall_width(section_width: Length) -> Length {
    section_width * 1.04
}

/// Least and most that the overall diameter of a new tire may measure: d + 2H·0.97 … d + 2H·1.04.
///
/// # Source
/// UN R30 §6.1 (from memory).
pub fn overall_diameter_limits(size: &Size) -> (Length, Length) {
    let d = size.rim().r30_design();
    let sidewalls = sidewall(size) * 2.0;
    (d + sidewalls * 0.97, d + sidewalls * 1.04)
}

/// [`overall_diameter`] with its working: the design value and the limits of a new tire stand beside it.
pub fn overall_diameter_worked(size: &Size) -> Figure {
    let mut steps = Vec::with_capacity(5);
    let diameter = overall_diameter(size);
    if let Some(aspect) = size.stated_aspect_ratio() {
        steps.push(Step {
            what: "sidewall height",
            formula: "H = S × AR / 100",
            inputs: vec![
                ("S", Quantity::length(size.named_section_width())),
                ("AR", Quantity::percent(aspect)),
            ],
            result: Quantity::length(sidewall(size)),
            source: Source::standard("ISO 4000-1, definition of the aspect ratio"),
        });
        steps.push(Step {
            what: "overall diameter by the design rim diameter",
            formula: "d + 2H",
            inputs: vec![
                ("d", Quantity::length(size.rim().r30_design())),
                ("H", Quantity::length(sidewall(size))),
            ],
            result: Quantity::length(design_overall_diameter(size)),
            source: R30,
        });
    }
    let (least, most) = overall_diameter_limits(size);
    for (what, formula, gives) in [
        ("least a new tire may measure", "d + 2H × 0.97", least),
        ("most a new tire may measure", "d + 2H × 1.04", most),
    ] {
        steps.push(Step {
            what,
            formula,
            inputs: vec![
                ("d", Quantity::length(size.rim().r30_design())),
                ("2H", Quantity::length(sidewall(size) * 2.0)),
            ],
            result: Quantity::length(gives),
            source: R30,
        });
    }
    let last = if size.stated_overall_diameter().is_some() {
        Step {
            what: "overall diameter",
            formula: "OD as the size states it",
            inputs: Vec::new(),
            result: Quantity::length(diameter),
            source: Source::SIZE,
        }
    } else {
        Step {
            what: "overall diameter",
            formula: "OD = rim code × 25.4 + 2H",
            inputs: vec![
                ("rim code", Quantity::rim_inches(size.rim().code())),
                ("H", Quantity::length(sidewall(size))),
            ],
            result: Quantity::length(diameter),
            source: Source::common_practice("everyday arithmetic: the rim taken as code × 25.4 mm"),
        }
    };
    Figure::of(last).after(steps)
}

/// Both counts of revolutions a mile, each by its name, with their working: compare like with like.
pub fn revolutions_worked(size: &Size) -> [Step; 2] {
    let inputs = vec![("OD", Quantity::length(overall_diameter(size)))];
    [
        Step {
            what: "revolutions a mile, by simple arithmetic",
            formula: "1 609 344 / (π × OD)",
            inputs: inputs.clone(),
            result: Quantity::count(revolutions_per_mile(size)),
            source: Source::GEOMETRY,
        },
        Step {
            what: "revolutions a mile on the road, as makers publish them",
            formula: "1 609 344 / (3.05 × OD)",
            inputs,
            result: Quantity::count(rolling_revolutions_per_mile(size)),
            source: Source::from_memory("ETRTO practice, rolling circumference 3.05 × OD for radials"),
        },
    ]
}
