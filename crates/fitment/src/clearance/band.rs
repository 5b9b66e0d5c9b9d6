//! How sure a clearance is.

use super::AxleCase;
use super::quick_rule::LOST_AT_LOCK;
use super::stand::MountedSetup;
use crate::corner::feature::BlocksFrom;
use crate::corner::{Carrier, Feature, Reading};
use crate::length::Length;
use crate::working::Source;

/// Something that may be off, and by how much either way.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Contribution {
    /// What.
    pub what: &'static str,
    /// By how much, either way.
    pub plus_minus: Length,
    /// Where that comes from.
    pub source: Source,
}

/// A clearance with its contributions, largest first.
#[derive(Debug, Clone, PartialEq)]
pub struct Band {
    /// The clearance if everything is as written.
    pub nominal: Length,
    /// What may be off.
    pub contributions: Vec<Contribution>,
}

impl Band {
    /// Sorts the contributions, largest first; what contributes nothing is left out.
    pub fn new(nominal: Length, mut contributions: Vec<Contribution>) -> Self {
        contributions.retain(|one| one.plus_minus > Length::ZERO);
        contributions.sort_by(|a, b| b.plus_minus.as_mm().total_cmp(&a.plus_minus.as_mm()));
        Self { nominal, contributions }
    }

    /// Half of the likely band: the root of the sum of squares.
    pub fn likely(&self) -> Length {
        likely(&self.contributions)
    }

    /// Half of the worst case: the straight sum.
    pub fn worst(&self) -> Length {
        self.contributions.iter().fold(Length::ZERO, |sum, one| sum + one.plus_minus)
    }

    /// Lower end of the likely band.
    pub fn likely_low(&self) -> Length {
        self.nominal - self.likely()
    }

    /// Upper end of the likely band.
    pub fn likely_high(&self) -> Length {
        self.nominal + self.likely()
    }

    /// Lower end of the worst case.
    pub fn worst_low(&self) -> Length {
        self.nominal - self.worst()
    }

    /// Upper end of the worst case.
    pub fn worst_high(&self) -> Length {
        self.nominal + self.worst()
    }
}

/// The root of the sum of squares.
pub(super) fn likely(contributions: &[Contribution]) -> Length {
    Length::mm(contributions.iter().map(|one| one.plus_minus.as_mm().powi(2)).sum::<f64>().sqrt())
}

/// How far a wheel's rim may stand from where its size puts it.
pub const RIM: Length = Length::mm(0.5);
/// How far a wheel's offset may be off.
pub const OFFSET: Length = Length::mm(0.5);
/// How far a camber reading may be off, in degrees.
pub const CAMBER_DEG: f64 = 0.25;
/// … while nobody has read it: road cars are aligned within this of upright.
pub const CAMBER_UNKNOWN_DEG: f64 = 2.5;
/// How far left and right of one car may differ.
pub const LEFT_TO_RIGHT: Length = Length::mm(3.0);
/// How far the barrel of another wheel may stand from where its rim code puts it.
pub const OTHER_BARREL: Length = Length::mm(4.0);
/// Share of a change of ride height by which an arm may shift.
pub const ARM_SHARE: f64 = 0.5;

const READ: Source = Source { kind: crate::working::SourceKind::Measured, cite: "as read in the bay" };
const R30_WIDTH: Source =
    Source::from_memory("UN R30 §6.1: overall width up to 4 % over the section, half on each side");
const R30_HEIGHT: Source = Source::from_memory("UN R30 §6.1: section height up to 4 % over, 3 % under");
const NOT_UNDER_R30: Source = Source::estimate(
    "UN R30's limits do not apply to LT, flotation and racing sizes: its shares, until the tire is measured",
);
const PRACTICE: Source = Source::common_practice("what wheels and alignment are trusted for");

/// The regulation's share where it applies to the tire, and what is said where it does not.
fn under(stand: &MountedSetup, source: Source) -> Source {
    if stand.is_under_r30() { source } else { NOT_UNDER_R30 }
}

impl AxleCase<'_> {
    /// What may be off about the room to a part. None of it depends on the planned offset.
    pub(super) fn contributions(
        &self,
        feature: Feature,
        reading: &Reading,
        stand: &MountedSetup,
    ) -> Vec<Contribution> {
        let mut all = Vec::with_capacity(8);
        let mut add = |what, plus_minus: Length, source| all.push(Contribution { what, plus_minus, source });
        add("instrument", reading.plus_minus, READ);
        if reading.is_copied {
            add("left against right, copied", LEFT_TO_RIGHT, Source::estimate("road cars, side to side"));
        }
        let fitted = reading.on.and_then(|fitted| MountedSetup::of(&fitted, self.corner.camber()));
        let fitted = fitted.as_ref();
        match feature.blocks_from() {
            BlocksFrom::Inboard | BlocksFrom::Outboard => {
                self.add_widths(&mut add, 1.0, fitted, stand);
                if feature.carrier() == Carrier::Body {
                    self.add_camber(&mut add, fitted, stand);
                }
                if reading.steer.is_at_lock() {
                    self.add_heights(&mut add, fitted, stand);
                }
            }
            BlocksFrom::Above => self.add_heights(&mut add, fitted, stand),
            BlocksFrom::AheadOrBehind => {
                self.add_heights(&mut add, fitted, stand);
                if reading.steer.is_at_lock() {
                    self.add_widths(&mut add, LOST_AT_LOCK, fitted, stand);
                }
            }
            BlocksFrom::Barrel => {
                if !fitted.is_some_and(|fitted| stand.has_the_wheel_of(fitted)) {
                    add(
                        "barrel of another wheel, not measured",
                        OTHER_BARREL,
                        Source::estimate("rim code and width alone"),
                    );
                }
            }
            BlocksFrom::Spoke => {}
        }
        if feature.carrier() == Carrier::Arm {
            let shift = Length::mm(self.levers.raised().abs() * ARM_SHARE);
            add("arm shifts with ride height", shift, Source::estimate("an unmeasured share of the travel"));
        }
        all
    }

    fn add_widths(
        &self,
        add: &mut impl FnMut(&'static str, Length, Source),
        share: f64,
        fitted: Option<&MountedSetup>,
        stand: &MountedSetup,
    ) {
        if let Some(fitted) = fitted {
            match self.corner.fitted_section {
                Some(measured) => add("fitted tire, measured", measured.plus_minus * 0.5 * share, READ),
                None => add(
                    "fitted tire, against its size",
                    fitted.width_tolerance() * share,
                    under(fitted, R30_WIDTH),
                ),
            }
        }
        add("new tire, against its size", stand.width_tolerance() * share, under(stand, R30_WIDTH));
        add("rim width", RIM * share, PRACTICE);
        add("offset", OFFSET * share, PRACTICE);
    }

    fn add_heights(
        &self,
        add: &mut impl FnMut(&'static str, Length, Source),
        fitted: Option<&MountedSetup>,
        stand: &MountedSetup,
    ) {
        if let Some(fitted) = fitted {
            add("fitted tire's height", fitted.height_tolerance(), under(fitted, R30_HEIGHT));
        }
        add("new tire's height", stand.height_tolerance(), under(stand, R30_HEIGHT));
    }

    /// The camber error leans fitted and planned alike: what counts is how much higher the new one is widest.
    /// From the bare hub it counts in full. A change of camber is set, not read, and off by as much again.
    fn add_camber(
        &self,
        add: &mut impl FnMut(&'static str, Length, Source),
        fitted: Option<&MountedSetup>,
        stand: &MountedSetup,
    ) {
        let off_deg = if self.corner.camber_deg.is_some() { CAMBER_DEG } else { CAMBER_UNKNOWN_DEG };
        let higher = stand.widest_radius() - fitted.map_or(0.0, MountedSetup::widest_radius);
        let set = if self.levers.camber_deg() == 0.0 { 0.0 } else { CAMBER_DEG };
        let off = higher.abs() * off_deg.to_radians().sin() + stand.widest_radius() * set.to_radians().sin();
        add("camber", Length::mm(off), PRACTICE);
    }
}
