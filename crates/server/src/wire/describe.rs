//! A tire or a wheel, described.

use fitment::parts::tire::{LoadRange, dimensions, rims};
use fitment::parts::wheel::{Backspacing, frontspacing};
use fitment::setup::line::ReadPart;
use fitment::{RimWidth, Tire, Wheel};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// Which tire.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct TireQuery {
    /// The tire as written.
    #[param(example = "225/45R17 94W")]
    pub size: String,
    /// A rim width in inches, to have the section width on it.
    #[param(example = 8.0)]
    pub rim_width_in: Option<f64>,
}

/// Everything that follows from a tire's size; null where the size does not say it.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit; the rules stand in fitment")]
pub struct TireView {
    pub canonical: String,
    pub section_width_mm: f64,
    pub aspect_ratio: Option<f64>,
    pub rim_diameter_in: f64,
    pub sidewall_mm: f64,
    pub overall_diameter_mm: f64,
    pub circumference_mm: f64,
    pub revolutions_per_mile: f64,
    pub rolling_revolutions_per_mile: f64,
    pub load_index: Option<u8>,
    pub load_capacity_kg: Option<f64>,
    pub speed_symbol: Option<String>,
    pub top_speed_kmh: Option<f64>,
    pub measuring_rim_in: f64,
    pub permitted_rim_min_in: f64,
    pub permitted_rim_max_in: f64,
    pub section_width_on_rim_mm: Option<f64>,
    /// By the design rim diameter of UN R30.
    pub design_overall_diameter_mm: f64,
    /// Limits of a new tire, UN R30 §6.1.
    pub overall_diameter_min_mm: f64,
    pub overall_diameter_max_mm: f64,
    pub overall_width_max_mm: f64,
    /// A rough estimate; makers differ.
    pub estimated_tread_width_mm: f64,
    /// False for a size off the grid that makers list from.
    pub is_listed_size: bool,
    /// `radial` or `bias`.
    pub construction: &'static str,
    /// The load version as stated: `SL`, `XL`, `HL`, `LT`, `C` or `P`; null where the text states none.
    pub version: Option<&'static str>,
    /// Load range letter, when stated.
    pub load_range: Option<char>,
    /// The car maker's mark, when one stands on it.
    pub factory_mark: Option<String>,
    /// Quantities above that nobody wrote: taken for want of better, to be confirmed.
    pub assumed: Vec<&'static str>,
    /// Words, names and quantities of the text that say nothing of the tire.
    pub left_aside: Vec<String>,
}

impl TireView {
    /// Describes a tire as it was read, on a rim when one is named.
    pub fn new(read: ReadPart<Tire>, rim: Option<RimWidth>) -> Self {
        let ReadPart { part: tire, left_aside, assumed } = read;
        let size = &tire.size;
        let permitted = rims::PermittedRims::estimated(size);
        let (least, most) = dimensions::overall_diameter_limits(size);
        Self {
            canonical: tire.to_string(),
            section_width_mm: size.named_section_width().as_mm(),
            aspect_ratio: size.stated_aspect_ratio(),
            rim_diameter_in: size.rim().code(),
            sidewall_mm: dimensions::sidewall(size).as_mm(),
            overall_diameter_mm: dimensions::overall_diameter(size).as_mm(),
            circumference_mm: dimensions::circumference(size).as_mm(),
            revolutions_per_mile: dimensions::revolutions_per_mile(size),
            rolling_revolutions_per_mile: dimensions::rolling_revolutions_per_mile(size),
            load_index: tire.service.map(|service| service.single.index()),
            load_capacity_kg: tire.service.map(|service| service.single.capacity_kg()),
            speed_symbol: tire.speed_mark().map(str::to_owned),
            top_speed_kmh: tire.top_speed_kmh(),
            measuring_rim_in: rims::measuring_rim(size).code(),
            permitted_rim_min_in: permitted.least.code(),
            permitted_rim_max_in: permitted.most.code(),
            section_width_on_rim_mm: rim.map(|rim| rims::section_width_on(size, rim).as_mm()),
            design_overall_diameter_mm: dimensions::design_overall_diameter(size).as_mm(),
            overall_diameter_min_mm: least.as_mm(),
            overall_diameter_max_mm: most.as_mm(),
            overall_width_max_mm: dimensions::greatest_overall_width(size.named_section_width()).as_mm(),
            estimated_tread_width_mm: rims::estimated_tread_width(size).as_mm(),
            is_listed_size: size.is_on_the_listed_grid(),
            construction: size.construction().word(),
            version: tire.stated_version(),
            load_range: tire.load_range.map(LoadRange::letter),
            factory_mark: tire.factory_mark.map(|mark| mark.to_string()),
            assumed,
            left_aside,
        }
    }
}

/// Which wheel.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct WheelQuery {
    /// The wheel as written.
    #[param(example = "18x8.5 ET35 5x114.3 CB67.1")]
    pub spec: String,
}

/// Everything that follows from a wheel's size; null where it is not stated.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit; the rules stand in fitment")]
pub struct WheelView {
    pub canonical: String,
    pub diameter_in: f64,
    pub width_in: f64,
    pub offset_mm: Option<f64>,
    pub backspacing_mm: Option<f64>,
    pub backspacing_in: Option<f64>,
    pub frontspacing_mm: Option<f64>,
    pub bolt_count: Option<u8>,
    pub bolt_circle_mm: Option<f64>,
    pub center_bore_mm: Option<f64>,
    /// Every bolt circle, as [count, diameter in mm]: two for a wheel that is drilled twice.
    pub bolt_circles: Vec<[f64; 2]>,
    /// Held by one nut in the middle.
    pub center_lock: bool,
    /// Quantities above that nobody wrote: taken for want of better, to be confirmed.
    pub assumed: Vec<&'static str>,
    /// Words, names and quantities of the text that say nothing of the wheel.
    pub left_aside: Vec<String>,
}

impl From<ReadPart<Wheel>> for WheelView {
    fn from(read: ReadPart<Wheel>) -> Self {
        let ReadPart { part: wheel, left_aside, assumed } = read;
        let backspacing = wheel.offset.map(|offset| Backspacing::from_offset(wheel.width, offset).length());
        Self {
            canonical: wheel.to_string(),
            diameter_in: wheel.diameter.code(),
            width_in: wheel.width.code(),
            offset_mm: wheel.offset.map(|offset| offset.as_mm()),
            backspacing_mm: backspacing.map(|length| length.as_mm()),
            backspacing_in: backspacing.map(|length| length.as_inches()),
            frontspacing_mm: wheel.offset.map(|offset| frontspacing(wheel.width, offset).as_mm()),
            bolt_count: wheel.bolt_circle.map(|circle| circle.count()),
            bolt_circle_mm: wheel.bolt_circle.map(|circle| circle.diameter().as_mm()),
            center_bore_mm: wheel.center_bore.map(|bore| bore.diameter().as_mm()),
            bolt_circles: wheel
                .circles()
                .map(|circle| [f64::from(circle.count()), circle.diameter().as_mm()])
                .collect(),
            center_lock: wheel.center_lock,
            assumed,
            left_aside,
        }
    }
}
