//! What is added to a tire for a while: growth at speed, snow chains, mud.

use super::{Outline, Point};
use crate::values::working::Source;

/// What a use adds to the outline of rim and tire.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Added {
    /// The speed that is driven, in km/h: a tire grows with it.
    pub speed_kmh: f64,
    /// What the maker of the chains says they take on tread and inner sidewall, in millimetres.
    pub chains_mm: f64,
    /// Stones and mud that cling to tread and sidewalls, in millimetres.
    pub mud_mm: f64,
}

/// Where the growth comes from.
pub const GROWTH_SOURCE: Source = Source::estimate(
    "belted radial: 0.4 % of the radius at 200 km/h, 1 % at 300; a drag tire grows much more, ask its maker",
);
/// Where the room for chains comes from.
pub const CHAINS_SOURCE: Source =
    Source::common_practice("the chain maker's figure, at least 12 mm on tread and inner sidewall");

/// Radius gained at two speeds, as a share: the estimate that the growth is laid through.
const GROWN: [(f64, f64); 2] = [(200.0, 0.004), (300.0, 0.010)];
/// No car on tires is faster, in km/h.
pub const FASTEST_KMH: f64 = 400.0;
/// Least and most that chains take, in millimetres.
pub const CHAINS_MM: (f64, f64) = (12.0, 40.0);
/// Most mud that is reckoned with, in millimetres.
pub const MOST_MUD_MM: f64 = 60.0;

/// By what share a belted radial's crown grows at a speed in km/h: the power of the speed that meets both estimates.
pub fn growth(speed_kmh: f64) -> f64 {
    let [(slow, little), (fast, much)] = GROWN;
    let power = (much / little).ln() / (fast / slow).ln();
    if speed_kmh > 0.0 { little * (speed_kmh / slow).powf(power) } else { 0.0 }
}

/// Height over the flange within which a sidewall comes to full addition: the bead itself neither grows nor carries chains.
const RAMP_MM: f64 = 12.0;

impl Added {
    /// Whether nothing is added.
    pub fn is_nothing(&self) -> bool {
        *self == Self::default()
    }

    /// What cannot be; empty when all of it can.
    pub fn fault(&self) -> Option<String> {
        let (least, most) = CHAINS_MM;
        if !(0.0..=FASTEST_KMH).contains(&self.speed_kmh) {
            return Some(format!("a speed goes from 0 to {FASTEST_KMH} km/h, not {}", self.speed_kmh));
        }
        if self.chains_mm != 0.0 && !(least..=most).contains(&self.chains_mm) {
            return Some(format!("chains take {least} to {most} mm, or 0 for none, not {}", self.chains_mm));
        }
        if !(0.0..=MOST_MUD_MM).contains(&self.mud_mm) {
            return Some(format!("mud takes 0 to {MOST_MUD_MM} mm, not {}", self.mud_mm));
        }
        None
    }

    /// An outline with it. `flange_top` is the height at which the wheel ends and the tire begins; without a tire above it
    /// nothing changes.
    ///
    /// What clings to the rubber lies square on it: mud all round, chains on the inner sidewall and on the tread.
    pub fn on(&self, outline: &Outline, flange_top: f64) -> Outline {
        let crown = outline.crown();
        let rubber = crown - flange_top;
        if self.is_nothing() || rubber <= RAMP_MM {
            return outline.clone();
        }
        let grown = growth(self.speed_kmh) * crown;
        let points = outline.points();
        let at = |place: usize| points[place % points.len()];
        let moved = (0..points.len()).map(|place| {
            let point = at(place);
            let above = point.r - flange_top;
            if above <= 0.0 {
                return point;
            }
            let (y, r) = outward(at(place + points.len() - 1), point, at(place + 1));
            let ramp = (above / RAMP_MM).min(1.0);
            // The tread looks up, a sidewall does not.
            let of_tread = ((r - 0.3) / 0.4).clamp(0.0, 1.0);
            let chains = self.chains_mm * if point.y < 0.0 { 1.0 } else { of_tread };
            let thick = (chains + self.mud_mm) * ramp;
            Point::new(point.y + y * thick, point.r + r * thick + grown * (above / rubber))
        });
        Outline::from_points(moved.collect())
    }
}

/// Outward at a point of an outline, long enough for both edges that meet there to be moved out by one. An outline goes over
/// the tire from outboard to inboard.
fn outward(before: Point, here: Point, after: Point) -> (f64, f64) {
    let normal = |from: Point, to: Point| {
        let (y, r) = (to.r - from.r, from.y - to.y);
        let length = (y * y + r * r).sqrt();
        if length > 0.0 { (y / length, r / length) } else { (0.0, 0.0) }
    };
    let ((a_y, a_r), (b_y, b_r)) = (normal(before, here), normal(here, after));
    let (y, r) = (a_y + b_y, a_r + b_r);
    let square = y * y + r * r;
    // No longer than at a right angle, however sharp the corner.
    if square > 1.0 { (2.0 * y / square, 2.0 * r / square) } else { (y, r) }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::section::outline::flange_top;
    use crate::setup::Setup;

    fn drawn(line: &str) -> (Outline, f64) {
        let setup: Setup = line.parse().unwrap();
        (Outline::of(&setup).unwrap(), flange_top(&setup).unwrap())
    }

    #[test]
    fn a_belted_radial_grows_as_estimated() {
        // From the shared notes on motion (estimates): 0.4 % at 200 km/h, 1 % at 300.
        assert!((growth(200.0) - 0.004).abs() < 1e-12 && (growth(300.0) - 0.010).abs() < 1e-12);
        assert_eq!(growth(0.0), 0.0);
        assert!(growth(100.0) < 0.001, "hardly anything on the road");
        let (outline, flange) = drawn("18x8.5 ET35 245/40R18");
        let fast = Added { speed_kmh: 300.0, ..Added::default() }.on(&outline, flange);
        let (was, is) = (outline.crown(), fast.crown());
        assert!((is / was - 1.01).abs() < 1e-9, "{was} {is}");
        assert_eq!(fast.bounds().0, outline.bounds().0, "it grows up, not out");
    }

    #[test]
    fn chains_cover_tread_and_inner_sidewall_and_nothing_else() {
        for line in ["18x8.5 ET35 245/40R18", "16x7 ET15 31x10.50R16LT", "15x6 ET45 185/65R15"] {
            let (outline, flange) = drawn(line);
            let chained = Added { chains_mm: 12.0, ..Added::default() }.on(&outline, flange);
            let ((inner, outer), (_, crown)) = outline.bounds();
            let least = |y: f64, r: f64| outline.signed_distance(y, r) - chained.signed_distance(y, r);
            for at in 0..=20u32 {
                let share = f64::from(at) / 20.0;
                // Beside the inner sidewall, above the bead, and above the tread.
                let r = flange + 24.0 + share * (crown - flange - 24.0);
                assert!(least(inner - 40.0, r) > 11.9, "{line} beside at {r}: {}", least(inner - 40.0, r));
                let y = inner * 0.8 * (1.0 - share) + outer * 0.8 * share;
                assert!(least(y, crown + 30.0) > 11.9, "{line} above at {y}: {}", least(y, crown + 30.0));
            }
            // The outer sidewall at its widest, and the wheel, stay where they are.
            assert!((chained.bounds().0.1 - outer).abs() < 0.5, "{line}");
            assert!((crown + 12.0 - chained.crown()).abs() < 0.05, "{line}");
            let rim = |of: &Outline| -> Vec<Point> {
                of.points().iter().copied().filter(|point| point.r <= flange).collect()
            };
            assert_eq!(rim(&chained), rim(&outline));
        }
    }

    #[test]
    fn mud_clings_on_both_sides_and_a_bare_rim_takes_none() {
        let (outline, flange) = drawn("18x8.5 ET35 245/40R18");
        let muddy = Added { mud_mm: 10.0, ..Added::default() }.on(&outline, flange);
        let ((a, b), (_, c)) = outline.bounds();
        let ((d, e), (_, f)) = muddy.bounds();
        assert!((a - d - 10.0).abs() < 0.05 && (e - b - 10.0).abs() < 0.05 && (f - c - 10.0).abs() < 0.05);
        let bare: Setup = "18x8.5 ET35".parse().unwrap();
        let rim = Outline::of(&bare).unwrap();
        assert_eq!(Added { mud_mm: 10.0, ..Added::default() }.on(&rim, flange), rim);
        assert_eq!(Added::default().on(&outline, flange), outline);
    }

    #[test]
    fn what_cannot_be_is_said() {
        for wrong in [
            Added { speed_kmh: 500.0, ..Added::default() },
            Added { chains_mm: 5.0, ..Added::default() },
            Added { mud_mm: f64::NAN, ..Added::default() },
        ] {
            assert!(wrong.fault().is_some(), "{wrong:?}");
        }
        assert_eq!(Added { speed_kmh: 130.0, chains_mm: 12.0, mud_mm: 0.0 }.fault(), None);
    }
}
