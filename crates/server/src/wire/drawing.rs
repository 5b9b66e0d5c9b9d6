//! A setup as it is drawn: profiles in the corner frame.

use fitment::Setup;
use fitment::car::section::{Point, rim_section, tire_section};
use serde::Serialize;
use utoipa::ToSchema;

/// A wheel, its tire and its spacer cut across.
///
/// Corner frame: y outboard from the hub's bare face, r from the spin axis, millimetres. Profiles are rounded
/// to 0.01 mm for drawing; figures to be read are elsewhere, at full precision.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Drawing {
    /// Closed outline of rim, spoke and pad.
    pub rim: Vec<[f64; 2]>,
    /// The rim's centre plane.
    pub center_y_mm: f64,
    /// Where the wheel's pad lies: the spacer's thickness.
    pub pad_y_mm: f64,
    /// Inner faces of the flanges, inboard and outboard.
    pub flange_faces_y_mm: [f64; 2],
    /// Outer faces of the flanges, inboard and outboard.
    pub flange_edges_y_mm: [f64; 2],
    /// Radius of the bead seat.
    pub bead_seat_r_mm: f64,
    /// Radius of the flange's top.
    pub flange_top_r_mm: f64,
    /// The tire, when there is one.
    pub tire: Option<TireDrawing>,
    /// Innermost and outermost of rim flange and tire.
    pub reach_y_mm: [f64; 2],
}

/// A tire cut across.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TireDrawing {
    /// Closed outline of the rubber.
    pub outline: Vec<[f64; 2]>,
    /// Grooves, each as a closed outline.
    pub grooves: Vec<Vec<[f64; 2]>>,
    /// Innermost and outermost rubber.
    pub faces_y_mm: [f64; 2],
    /// Radius where it is widest.
    pub widest_r_mm: f64,
    /// Radius of the crown.
    pub crown_r_mm: f64,
}

impl Drawing {
    /// Draws a setup; `None` without a wheel and its offset.
    pub fn new(setup: &Setup) -> Option<Self> {
        let rim = rim_section(&setup.wheel?)?;
        let out = setup.spacer.map_or(0.0, |spacer| spacer.as_mm());
        let place = |point: &Point| [to_hundredths(point.y + out), to_hundredths(point.r)];
        let both = |faces: (f64, f64)| [faces.0 + out, faces.1 + out];
        let tire = tire_section(setup).map(|tire| TireDrawing {
            outline: tire.outer.iter().chain(&tire.inner).map(place).collect(),
            grooves: tire
                .grooves
                .iter()
                .map(|groove| {
                    let (left, right) = (groove.y - groove.half_width, groove.y + groove.half_width);
                    [
                        (left, groove.top_r),
                        (left, groove.bottom_r),
                        (right, groove.bottom_r),
                        (right, groove.top_r),
                    ]
                    .map(|(y, r)| place(&Point::new(y, r)))
                    .to_vec()
                })
                .collect(),
            faces_y_mm: both(tire.faces_y),
            widest_r_mm: tire.widest_r,
            crown_r_mm: tire.crown_r,
        });
        let edges = both(rim.flange_edges_y);
        let reach = tire
            .as_ref()
            .map_or(edges, |tire| [edges[0].min(tire.faces_y_mm[0]), edges[1].max(tire.faces_y_mm[1])]);
        Some(Self {
            rim: rim.outline.iter().map(place).collect(),
            center_y_mm: rim.center_y + out,
            pad_y_mm: out,
            flange_faces_y_mm: both(rim.flange_faces_y),
            flange_edges_y_mm: edges,
            bead_seat_r_mm: rim.bead_seat_r,
            flange_top_r_mm: rim.flange_top_r,
            tire,
            reach_y_mm: reach,
        })
    }
}

fn to_hundredths(mm: f64) -> f64 {
    (mm * 100.0).round() / 100.0
}
