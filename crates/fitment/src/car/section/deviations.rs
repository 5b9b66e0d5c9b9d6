//! By how much a wheel and tire differ from their sizes.

/// By how much a wheel and tire differ from what their sizes say, in millimetres.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Deviations {
    /// Half of what the tire is wider.
    pub half_section: f64,
    /// What its crown stands higher.
    pub radius: f64,
    /// What its shoulder stands further out, on each side.
    pub shoulder: f64,
    /// Half of what the rim is wider.
    pub half_rim: f64,
    /// How much more metal stands under its flanges.
    pub flange: f64,
}
