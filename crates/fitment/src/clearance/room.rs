//! The room from a setup to a part: one geometry for nominal and for every way in which it may be otherwise.

use crate::corner::ObstacleShape;
use crate::corner::feature::BlocksFrom;
use crate::section::{Outline, Point, Toward};

/// Heights below this, above the axle, a strut does not reach down to: there the knuckle begins. Estimate.
const STRUT_FROM_MM: f64 = 120.0;

/// A section as it stands, to be held against a part.
#[derive(Debug, Clone, Copy)]
pub(super) struct Standing<'a> {
    /// Rim and tire.
    pub outline: &'a Outline,
    /// Where the rim's centre plane stands, in millimetres outboard of the hub face.
    pub center_y: f64,
    /// How it leans against the part: nothing for what leans along.
    pub camber_deg: f64,
}

impl Standing<'_> {
    /// How far it reaches outboard of the hub face.
    pub(super) fn outer(&self) -> f64 {
        self.outline.reach(Toward::Outboard, self.center_y, self.camber_deg)
    }

    /// How far it reaches inboard of the hub face.
    pub(super) fn inner(&self) -> f64 {
        self.outline.reach(Toward::Inboard, self.center_y, self.camber_deg)
    }

    /// Signed distance to a part, in millimetres; `None` for a part that is known by the gap it left alone.
    pub(super) fn room_to(&self, place: ObstacleShape, blocks: BlocksFrom) -> Option<f64> {
        let &Self { outline, center_y, camber_deg } = self;
        Some(match place {
            ObstacleShape::Wall { y } if blocks == BlocksFrom::Outboard => y - self.outer(),
            ObstacleShape::Wall { y } => -y - self.inner(),
            ObstacleShape::Edge { y, height, lean_deg } => {
                let (sin, cos) = lean_deg.to_radians().sin_cos();
                let off = |at_y: f64, at_r: f64| (at_y + center_y - y) * cos + (at_r - height) * sin;
                let least_in = |low: Point, high: Point| {
                    let nearest_r = if sin >= 0.0 { low.r } else { high.r };
                    if high.r < STRUT_FROM_MM { f64::INFINITY } else { off(low.y, nearest_r) }
                };
                outline.least_of_points(least_in, |point| {
                    if point.r < STRUT_FROM_MM { f64::INFINITY } else { off(point.y, point.r) }
                })
            }
            ObstacleShape::Perch { y, height } => {
                let to_corner = |at_y: f64, at_r: f64| {
                    let (beside, below) = (at_y + center_y - y, height - at_r);
                    match (beside > 0.0, below > 0.0) {
                        (true, true) => (beside * beside + below * below).sqrt(),
                        _ => beside.max(below),
                    }
                };
                let nearest = outline.least_of_points(
                    |low, high| to_corner(low.y, high.r),
                    |point| to_corner(point.y, point.r),
                );
                nearest.min(outline.signed_distance(y - center_y, height))
            }
            ObstacleShape::Spot { y, height } => outline.distance_to_inboard_part(y - center_y, height),
            ObstacleShape::Ceiling { z } => z - outline.top(center_y, camber_deg),
            ObstacleShape::Beside { .. } => return None,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn outline(line: &str) -> Outline {
        Outline::of(&line.parse().unwrap()).unwrap()
    }

    #[test]
    fn a_larger_rim_does_not_pass_over_a_strut() {
        // Worked by hand in the shared findings: fitted 17x7.5 ET45 with its inner lip at −152.95; a strut 10 mm further in
        // at 232 mm leans by 14° and so stands at −167.9 at 252 mm; a 19x8.5 ET50 has its lip at −170.65: it touches.
        let strut = ObstacleShape::Edge { y: -162.95, height: 232.0, lean_deg: 14.0 };
        let planned = outline("19x8.5 ET50 225/35R19");
        let standing = Standing { outline: &planned, center_y: -50.0, camber_deg: 0.0 };
        let room = standing.room_to(strut, BlocksFrom::Inboard).unwrap();
        assert!(room < -1.0, "{room}");
        let upright = ObstacleShape::Edge { y: -162.95, height: 232.0, lean_deg: 0.0 };
        let room = standing.room_to(upright, BlocksFrom::Inboard).unwrap();
        assert!((room + 7.7).abs() < 0.05, "upright it is 7.7 mm: {room}");
    }

    #[test]
    fn a_perch_is_met_from_beside_and_from_below() {
        let tire = outline("18x8 ET45 225/40R18");
        let top = tire.bounds().1.1;
        let room = |y: f64, height: f64| {
            let perch = ObstacleShape::Perch { y, height };
            Standing { outline: &tire, center_y: 0.0, camber_deg: 0.0 }
                .room_to(perch, BlocksFrom::Inboard)
                .unwrap()
        };
        // Far inboard at the widest height: level distance to the sidewall.
        assert!((room(-130.0, 270.0) - (130.0 - 114.3)).abs() < 2.5);
        // Above the tread: what is between.
        assert!((room(0.0, top + 9.0) - 9.0).abs() < 1e-9);
        // The tire stands into it: negative, and more so the further.
        assert!(room(-90.0, 290.0) < -5.0 && room(-60.0, 290.0) < room(-90.0, 290.0));
    }
}
