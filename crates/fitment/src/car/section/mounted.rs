//! A setup placed in the corner frame.

use std::cell::OnceCell;
use std::rc::Rc;

use super::outline::flange_top;
use super::{Deviations, Outline, Tolerances, Toward, Variants};
use crate::setup::Setup;

/// A setup where it stands: rim centre plane at y = spacer − ET, leaned by its camber about the x axis through the hub
/// face.
///
/// Parts that lean with the wheel meet it upright, parts of the body leaned.
#[derive(Debug, Clone)]
pub struct MountedSetup {
    setup: Setup,
    center_y: f64,
    camber_deg: f64,
    // Cut only when something is held against it, and once however it leans.
    cut: Rc<OnceCell<Variants>>,
}

impl MountedSetup {
    /// Places a setup; `None` without a wheel and its offset.
    pub fn of(setup: &Setup, camber_deg: f64) -> Option<Self> {
        let center_y = -setup.effective_offset()?.as_mm();
        Some(Self { setup: *setup, center_y, camber_deg, cut: Rc::default() })
    }

    /// The same wheel and tire with the rim's centre plane elsewhere: nothing else follows from an offset.
    pub fn moved_to(mut self, center_y: f64) -> Self {
        self.center_y = center_y;
        self
    }

    /// The same wheel and tire at the same place, leaning otherwise.
    pub(crate) fn leaned_to(&self, camber_deg: f64) -> Self {
        Self { camber_deg, ..self.clone() }
    }

    /// Where the rim's centre plane stands.
    pub fn center_y(&self) -> f64 {
        self.center_y
    }

    /// The setup.
    pub fn setup(&self) -> &Setup {
        &self.setup
    }

    /// How it leans.
    pub fn camber_deg(&self) -> f64 {
        self.camber_deg
    }

    /// Its outline, as it may truly be.
    pub fn cut(&self) -> &Variants {
        let cut = || {
            let cut = Variants::of(&self.setup, Deviations::default(), Tolerances::of(&self.setup));
            cut.or_else(|| {
                let whole = Setup { tire: None, ..self.setup };
                Variants::of(&whole, Deviations::default(), Tolerances::default())
            })
        };
        // A setup with an offset has a wheel, and so an outline.
        self.cut.get_or_init(|| cut().unwrap_or_else(Variants::nothing))
    }

    fn camber_against(&self, of_body: bool) -> f64 {
        if of_body { self.camber_deg } else { 0.0 }
    }

    /// How far it reaches from the hub face, positive toward that side.
    pub fn reach(&self, toward: Toward, of_body: bool) -> f64 {
        self.cut().nominal().reach(toward, self.center_y, self.camber_against(of_body))
    }

    /// Its highest point above the axle, leaned.
    pub fn top(&self) -> f64 {
        self.cut().nominal().top(self.center_y, self.camber_deg)
    }

    /// Radius of the crown, or of the flange without a tire.
    pub fn crown(&self) -> f64 {
        self.cut().nominal().crown()
    }

    /// How far its inner flange reaches inboard of the hub face.
    pub fn inner_flange(&self) -> f64 {
        self.setup.over_flanges().map_or(0.0, |width| width.as_mm() / 2.0) - self.center_y
    }

    /// How far its inner shoulder reaches inboard of the hub face, at [`SHOULDER_AT`] of its radius.
    pub fn inner_shoulder(&self) -> f64 {
        let height = SHOULDER_AT * self.crown();
        let inmost = self.cut().nominal().inmost_between(height, height);
        inmost.map_or_else(|| self.reach(Toward::Inboard, false), |y| -y - self.center_y)
    }

    /// Radius of the bead seat: what the barrel's inside goes with. From 17 to 16 it loses 15.5 mm, not half an inch.
    pub fn rim_radius(&self) -> f64 {
        self.setup.wheel.map_or(0.0, |wheel| wheel.diameter.bead_seat().as_mm() / 2.0)
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
        let flange = flange_top(&self.setup).unwrap_or(0.0);
        let rim = self.center_y + half_rim * cos + flange * sin;
        let tire = self
            .setup
            .section_width()
            .map(|width| self.center_y + width.as_mm() / 2.0 * cos + self.widest_radius() * sin);
        (rim, tire)
    }

    /// Radius at which it is widest: the tire's sidewall, or the flange where that stands proud.
    pub fn widest_radius(&self) -> f64 {
        let flange = flange_top(&self.setup).unwrap_or(0.0);
        let half_rim = self.setup.over_flanges().map_or(0.0, |width| width.as_mm() / 2.0);
        let heights = self.setup.overall_diameter().zip(self.setup.sidewall());
        match (heights, self.setup.section_width()) {
            (Some((overall, sidewall)), Some(width)) if width.as_mm() / 2.0 >= half_rim => {
                (overall - sidewall).as_mm() / 2.0
            }
            _ => flange,
        }
    }
}

/// Where a tire's shoulder is taken to be met, as a share of its radius. Estimate.
pub(crate) const SHOULDER_AT: f64 = 0.955;

/// An outline as it stands, to be held against a part.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Standing<'a> {
    /// Rim and tire.
    pub(crate) outline: &'a Outline,
    /// Where the rim's centre plane stands, in millimetres outboard of the hub face.
    pub(crate) center_y: f64,
    /// How it leans against the part: nothing for what leans along.
    pub(crate) camber_deg: f64,
}

impl Standing<'_> {
    /// How far it reaches outboard of the hub face.
    pub(crate) fn outer(&self) -> f64 {
        self.outline.reach(Toward::Outboard, self.center_y, self.camber_deg)
    }

    /// How far it reaches inboard of the hub face.
    pub(crate) fn inner(&self) -> f64 {
        self.outline.reach(Toward::Inboard, self.center_y, self.camber_deg)
    }
}
