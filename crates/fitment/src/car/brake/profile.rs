//! A profile: a line of points in the plane of y and r.

use crate::car::section::Point;

/// A line of two or more points; it may turn back in y, as a caliper's outline does.
#[derive(Debug, Clone, PartialEq)]
pub struct Profile(Vec<Point>);

/// Why points are no profile.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
pub enum ProfileError {
    /// Too few.
    #[error("a profile has at least two points, not {0}")]
    TooFew(usize),
    /// Too many.
    #[error("a profile has at most {most} points, not {given}", most = Profile::MOST)]
    TooMany {
        /// How many were given.
        given: usize,
    },
    /// A point out of any wheel.
    #[error("point {at}: y {y}, r {r} lies outside of what a wheel can be: y −{reach} to {reach}, r 0 to {reach} mm", reach = Profile::REACH_MM)]
    OutOfReach {
        /// Which, from 1.
        at: usize,
        /// Its y.
        y: f64,
        /// Its r.
        r: f64,
    },
}

impl Profile {
    /// Most points: a finely flattened drawing has a few hundred.
    pub const MOST: usize = 5000;
    /// Furthest from axis and hub face that a point may lie, in millimetres.
    pub const REACH_MM: f64 = 500.0;

    /// A profile through these points, in millimetres; points that repeat the one before are left out.
    ///
    /// # Errors
    /// Too few, too many, or a point that no wheel reaches.
    pub fn new(points: impl IntoIterator<Item = (f64, f64)>) -> Result<Self, ProfileError> {
        let mut kept: Vec<Point> = Vec::new();
        let mut given = 0;
        for (y, r) in points {
            given += 1;
            if given > Self::MOST {
                continue;
            }
            let within = y.is_finite() && r.is_finite() && y.abs() <= Self::REACH_MM;
            if !within || !(0.0..=Self::REACH_MM).contains(&r) {
                return Err(ProfileError::OutOfReach { at: given, y, r });
            }
            let point = Point::new(y, r);
            if kept.last() != Some(&point) {
                kept.push(point);
            }
        }
        if given > Self::MOST {
            return Err(ProfileError::TooMany { given });
        }
        if kept.len() < 2 {
            return Err(ProfileError::TooFew(kept.len()));
        }
        Ok(Self(kept))
    }

    /// Its points.
    pub fn points(&self) -> &[Point] {
        &self.0
    }

    /// Its pieces, one after the other.
    pub(super) fn segments(&self) -> impl Iterator<Item = (Point, Point)> + '_ {
        self.0.windows(2).map(|two| (two[0], two[1]))
    }

    /// Moved along the axis, + outboard.
    #[must_use]
    pub fn moved(&self, by_mm: f64) -> Self {
        Self(self.0.iter().map(|point| point.moved(by_mm)).collect())
    }

    /// The largest radius of it.
    pub fn outermost_r(&self) -> f64 {
        self.0.iter().map(|point| point.r).fold(f64::MIN, f64::max)
    }

    /// The furthest outboard of it.
    pub fn outboard_y(&self) -> f64 {
        self.0.iter().map(|point| point.y).fold(f64::MIN, f64::max)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_no_profile_is_refused() {
        assert_eq!(Profile::new([(0.0, 1.0)]), Err(ProfileError::TooFew(1)));
        assert_eq!(
            Profile::new([(0.0, 1.0), (0.0, 1.0)]),
            Err(ProfileError::TooFew(1)),
            "the same point twice"
        );
        for bad in [(f64::NAN, 1.0), (0.0, -1.0), (501.0, 1.0), (0.0, f64::INFINITY)] {
            let found = Profile::new([(0.0, 1.0), bad]);
            assert!(matches!(found, Err(ProfileError::OutOfReach { at: 2, .. })), "{bad:?}");
        }
        let many = (0..=Profile::MOST).map(|at| (at as f64 / 100.0, 10.0));
        assert_eq!(Profile::new(many), Err(ProfileError::TooMany { given: 5001 }));
    }
}
