//! A setup placed in the corner frame.

use std::cell::OnceCell;

use crate::length::Length;
use crate::section::{Silhouette, Toward, silhouette};
use crate::setup::Setup;

/// A setup where it stands: rim centre plane at y = spacer − ET, leaned by its camber about the wheel centre.
///
/// Parts that move with the wheel meet the upright silhouette, parts of the body the leaned one.
#[derive(Debug, Clone, PartialEq)]
pub struct MountedSetup {
    setup: Setup,
    center_y: f64,
    camber_deg: f64,
    // Cut only when something is held against them: a fitted wheel is mostly asked for its tolerances.
    upright: OnceCell<Silhouette>,
    leaned: OnceCell<Silhouette>,
}

impl MountedSetup {
    /// Places a setup; `None` without a wheel and its offset.
    pub fn of(setup: &Setup, camber_deg: f64) -> Option<Self> {
        let center_y = -setup.effective_offset()?.as_mm();
        Some(Self { setup: *setup, center_y, camber_deg, upright: OnceCell::new(), leaned: OnceCell::new() })
    }

    /// The same wheel and tire with the rim's centre plane elsewhere: nothing else follows from an offset.
    pub fn moved_to(mut self, center_y: f64) -> Self {
        self.center_y = center_y;
        self
    }

    /// Where the rim's centre plane stands.
    pub fn center_y(&self) -> f64 {
        self.center_y
    }

    /// The setup.
    pub fn setup(&self) -> &Setup {
        &self.setup
    }

    /// What meets parts of the body (leaned) or of the upright.
    pub fn silhouette(&self, of_body: bool) -> &Silhouette {
        // A setup with an offset has a wheel, and so a silhouette.
        let upright = || self.upright.get_or_init(|| Silhouette::of(&self.setup).unwrap_or_default());
        if of_body && self.camber_deg != 0.0 {
            self.leaned.get_or_init(|| upright().leaned(self.camber_deg))
        } else {
            upright()
        }
    }

    /// How far it reaches from the hub face, positive toward that side.
    pub fn reach(&self, toward: Toward, of_body: bool) -> f64 {
        let reach = self.silhouette(of_body).reach(toward);
        match toward {
            Toward::Inboard => reach - self.center_y,
            Toward::Outboard => reach + self.center_y,
        }
    }

    /// Its highest point above the axle, leaned.
    pub fn top(&self) -> f64 {
        self.silhouette(true).top()
    }

    /// Radius of the crown, or of the flange without a tire.
    pub fn crown(&self) -> f64 {
        self.silhouette(false).top()
    }

    /// Radius of the bead seat: what the barrel's inside goes with. From 17 to 16 it loses 15.5 mm, not half an inch.
    pub fn rim_radius(&self) -> f64 {
        self.setup.wheel.map_or(0.0, |wheel| wheel.diameter.bead_seat().as_mm() / 2.0)
    }

    /// Whether UN R30 bounds the tire's dimensions; so it is said of a bare wheel too.
    pub fn is_under_r30(&self) -> bool {
        self.setup.tire.is_none_or(|tire| tire.size.is_under_r30())
    }

    /// Thickness of the spacer.
    pub fn spacer(&self) -> f64 {
        self.setup.spacer.map_or(0.0, |spacer| spacer.as_mm())
    }

    /// Whether it is the very wheel of another setup, as far as it was stated.
    pub fn has_the_wheel_of(&self, other: &Self) -> bool {
        self.setup.wheel == other.setup.wheel
    }

    /// Outer faces of rim flange and tire at the top, where style is read: each at its own height, camber
    /// applied. The tire's is `None` without one.
    pub fn outer_faces_at_the_top(&self) -> (f64, Option<f64>) {
        let (sin, cos) = self.camber_deg.to_radians().sin_cos();
        let half_rim = self.setup.over_flanges().map_or(0.0, |width| width.as_mm() / 2.0);
        let flange = silhouette::flange_top(&self.setup).unwrap_or(0.0);
        let rim = self.center_y + half_rim * cos + flange * sin;
        let tire = self
            .setup
            .section_width()
            .map(|width| self.center_y + width.as_mm() / 2.0 * cos + self.widest_radius() * sin);
        (rim, tire)
    }

    /// Radius at which it is widest: the tire's sidewall, or the flange where that stands proud.
    pub fn widest_radius(&self) -> f64 {
        let flange = silhouette::flange_top(&self.setup).unwrap_or(0.0);
        let half_rim = self.setup.over_flanges().map_or(0.0, |width| width.as_mm() / 2.0);
        let heights = self.setup.overall_diameter().zip(self.setup.sidewall());
        match (heights, self.setup.section_width()) {
            (Some((overall, sidewall)), Some(width)) if width.as_mm() / 2.0 >= half_rim => {
                (overall - sidewall).as_mm() / 2.0
            }
            _ => flange,
        }
    }

    /// Half of what a new tire's overall width may differ: ± 2 % of its section on each side.
    ///
    /// # Source
    /// UN R30 §6.1 (from memory): overall width at most 4 % over the design section width.
    pub fn width_tolerance(&self) -> Length {
        self.setup.section_width().map_or(Length::ZERO, |width| width * 0.02)
    }

    /// What a new tire's radius may differ: 4 % of its section height, the larger of the two limits.
    ///
    /// # Source
    /// UN R30 §6.1 (from memory): d + 2H × 0.97 … d + 2H × 1.04.
    pub fn height_tolerance(&self) -> Length {
        self.setup.sidewall().map_or(Length::ZERO, |height| height * 0.04)
    }
}
