//! Spacers as the house has them: one table for finder, brake bench, remedies and the line's own question.

/// What lies on the shelf, thinnest first, in millimetres. Common practice.
pub const SHELF_MM: [f64; 7] = [3.0, 5.0, 8.0, 10.0, 12.0, 15.0, 20.0];
/// The thickest that anybody proposes or may ask for, in millimetres. House figure.
pub const THICKEST_MM: u32 = 30;

/// The smallest spacer in whole millimetres that does: 0 where none is needed; `None` where none up to [`THICKEST_MM`] does.
///
/// ```
/// use fitment::setup::spacers::smallest_that;
/// assert_eq!(smallest_that(|mm| mm >= 4.5), Some(5.0));
/// assert_eq!(smallest_that(|_| false), None);
/// ```
pub fn smallest_that(does: impl Fn(f64) -> bool) -> Option<f64> {
    (0..=THICKEST_MM).map(f64::from).find(|mm| does(*mm))
}

/// No spacer, what lies on the shelf, and another thickness among them.
pub fn shelf_and(another_mm: Option<f64>) -> Vec<f64> {
    let mut all: Vec<f64> = std::iter::once(0.0).chain(SHELF_MM).chain(another_mm).collect();
    all.sort_by(f64::total_cmp);
    all.dedup();
    all
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn another_thickness_stands_in_its_place_and_once() {
        assert_eq!(shelf_and(Some(7.0))[..4], [0.0, 3.0, 5.0, 7.0]);
        assert_eq!(shelf_and(Some(5.0)).len(), SHELF_MM.len() + 1);
        assert_eq!(shelf_and(None).len(), SHELF_MM.len() + 1);
    }
}
