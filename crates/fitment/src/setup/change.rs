//! From one setup to another: per axle, and between the axles.
//!
//! With ΔW the change of rim width and ΔET the change of effective offset, the outer rim change is
//! ΔW/2 − ΔET and the inner one ΔW/2 + ΔET. The larger of rim flange and tire is what meets the car: on a
//! stretched tire the rim, on a square one the tire.
//!
//! # Frame
//! Outer change: + is further out. Inner change: + is further in, toward the strut. Ride height: + is up.
//! Arch gap: + is more room.

use crate::setup::{Setup, SetupPair};
use crate::values::codes::Offset;
use crate::values::length::Length;
use crate::values::working::{Figure, Quantity, Source, Step};

/// What reaches furthest toward one side of the car.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Reaches {
    /// The rim flange.
    Rim,
    /// The tire's sidewall.
    Tire,
}

/// How far a setup reaches from the hub face, toward one side.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Reach {
    /// Distance from the hub face, positive toward that side.
    pub distance: Length,
    /// What it is that reaches there.
    pub by: Reaches,
}

/// The rim's and the tire's faces of one setup, from the hub's bare mounting face.
///
/// `None` where the offset, the wheel or the tire is not stated.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Faces {
    /// Outer flange face, outboard positive.
    pub rim_outer: Length,
    /// Inner flange face, inboard positive.
    pub rim_inner: Length,
    /// Outermost tire, outboard positive.
    pub tire_outer: Option<Length>,
    /// Innermost tire, inboard positive.
    pub tire_inner: Option<Length>,
}

impl Faces {
    /// Where a setup's faces lie; `None` without a wheel and its offset.
    pub fn of(setup: &Setup) -> Option<Self> {
        let effective = setup.effective_offset()?.length();
        let half_rim = setup.over_flanges()? / 2.0;
        let half_tire = setup.section_width().map(|width| width / 2.0);
        Some(Self {
            rim_outer: half_rim - effective,
            rim_inner: half_rim + effective,
            tire_outer: half_tire.map(|half| half - effective),
            tire_inner: half_tire.map(|half| half + effective),
        })
    }

    /// What reaches furthest out; `None` without a tire.
    pub fn outermost(&self) -> Option<Reach> {
        self.tire_outer.map(|tire| furthest(self.rim_outer, tire))
    }

    /// What reaches furthest in; `None` without a tire.
    pub fn innermost(&self) -> Option<Reach> {
        self.tire_inner.map(|tire| furthest(self.rim_inner, tire))
    }
}

fn furthest(rim: Length, tire: Length) -> Reach {
    if rim > tire {
        Reach { distance: rim, by: Reaches::Rim }
    } else {
        Reach { distance: tire, by: Reaches::Tire }
    }
}

/// What changes on one axle. A figure is `None` when a setup does not state what it takes.
#[derive(Debug, Clone, PartialEq)]
pub struct AxleChange {
    /// Effective offset of the planned setup.
    pub effective_offset: Option<Figure>,
    /// Rim flange, outward.
    pub outer_rim: Option<Figure>,
    /// Rim flange, inward.
    pub inner_rim: Option<Figure>,
    /// Tire sidewall, outward.
    pub outer_tire: Option<Figure>,
    /// Tire sidewall, inward.
    pub inner_tire: Option<Figure>,
    /// Whichever of rim flange and tire reaches further, outward.
    pub outer: Option<Figure>,
    /// Whichever of rim flange and tire reaches further, inward.
    pub inner: Option<Figure>,
    /// Overall diameter.
    pub overall_diameter: Option<Figure>,
    /// Overall diameter, in per cent of the fitted one.
    pub overall_diameter_pct: Option<Figure>,
    /// Ride height.
    pub ride_height: Option<Figure>,
    /// Gap between tire top and arch.
    pub arch_gap: Option<Figure>,
    /// Track width.
    pub track: Option<Figure>,
    /// True over indicated speed.
    pub true_speed_ratio: Option<Figure>,
}

/// Works out one axle's change.
///
/// ```
/// let fitted = "7.5x17 ET32 225/45R17".parse().unwrap();
/// let planned = "8.5x17 ET30 245/40R17".parse().unwrap();
/// let change = fitment::setup::change::axle_change(&fitted, &planned);
/// assert!((change.inner_rim.unwrap().value() - 10.7).abs() < 1e-9);
/// ```
pub fn axle_change(fitted: &Setup, planned: &Setup) -> AxleChange {
    let offsets = fitted.effective_offset().zip(planned.effective_offset());
    let widths = fitted.wheel.zip(planned.wheel).map(|(a, b)| {
        (Quantity::length(b.width.between_flanges() - a.width.between_flanges()).signed(), Part::Rim)
    });
    let sections = fitted
        .section_width()
        .zip(planned.section_width())
        .map(|(a, b)| (Quantity::length(b - a).signed(), Part::Tire));
    let faces = Faces::of(fitted).zip(Faces::of(planned));
    let side = |width: Option<(Quantity, Part)>, side: Side| {
        let ((width, part), offsets) = width.zip(offsets)?;
        Some(side_change(part, side, width, offsets))
    };
    let diameters = fitted
        .overall_diameter()
        .zip(planned.overall_diameter())
        .map(|(fitted, planned)| Diameters { fitted, planned });
    let diameter_steps = || {
        let worked = [fitted, planned].into_iter().filter_map(Setup::overall_diameter_worked);
        worked.flat_map(|figure| figure.working).collect()
    };
    AxleChange {
        effective_offset: planned.effective_offset().map(|_| effective_offset(planned)),
        outer_rim: side(widths, Side::Outer),
        inner_rim: side(widths, Side::Inner),
        outer_tire: side(sections, Side::Outer),
        inner_tire: side(sections, Side::Inner),
        outer: faces.and_then(|(a, b)| Some(reach_change(a.outermost()?, b.outermost()?, Side::Outer))),
        inner: faces.and_then(|(a, b)| Some(reach_change(a.innermost()?, b.innermost()?, Side::Inner))),
        overall_diameter: diameters.map(|d| d.change().after(diameter_steps())),
        overall_diameter_pct: diameters.map(Diameters::change_pct),
        ride_height: diameters.map(|d| d.half("ride height change", "ΔOD / 2", 0.5)),
        arch_gap: diameters.map(|d| d.half("change of the gap between tire and arch", "−ΔOD / 2", -0.5)),
        track: offsets.map(track_change),
        true_speed_ratio: diameters.map(Diameters::ratio),
    }
}

#[derive(Clone, Copy)]
enum Part {
    Rim,
    Tire,
}

#[derive(Clone, Copy)]
enum Side {
    Outer,
    Inner,
}

fn effective_offset(setup: &Setup) -> Figure {
    let offset = setup.wheel.and_then(|wheel| wheel.offset);
    let mut inputs = Vec::with_capacity(2);
    if let Some(offset) = offset {
        inputs.push(("ET", Quantity::length(offset.length()).signed()));
    }
    if let Some(spacer) = setup.spacer {
        inputs.push(("spacer", Quantity::length(spacer.length())));
    }
    Figure::of(Step {
        what: "effective offset",
        formula: "ET − spacer thickness",
        inputs,
        result: Quantity::length(setup.effective_offset().map_or(Length::ZERO, Offset::length)).signed(),
        source: Source::GEOMETRY,
    })
}

fn side_change(part: Part, side: Side, width: Quantity, offsets: (Offset, Offset)) -> Figure {
    let by_offset = offsets.1.length() - offsets.0.length();
    let half = Length::mm(width.value) / 2.0;
    let (what, formula, gives) = match (part, side) {
        (Part::Rim, Side::Outer) => ("outer rim change", "ΔW / 2 − ΔET", half - by_offset),
        (Part::Rim, Side::Inner) => ("inner rim change", "ΔW / 2 + ΔET", half + by_offset),
        (Part::Tire, Side::Outer) => ("outer tire change", "ΔS / 2 − ΔET", half - by_offset),
        (Part::Tire, Side::Inner) => ("inner tire change", "ΔS / 2 + ΔET", half + by_offset),
    };
    let symbol = match part {
        Part::Rim => "ΔW",
        Part::Tire => "ΔS",
    };
    Figure::of(Step {
        what,
        formula,
        inputs: vec![(symbol, width), ("ΔET", Quantity::length(by_offset).signed())],
        result: Quantity::length(gives).signed(),
        source: Source::GEOMETRY,
    })
}

fn reach_change(fitted: Reach, planned: Reach, side: Side) -> Figure {
    let name = |reach: Reach, planned: bool| match (reach.by, planned) {
        (Reaches::Rim, false) => "fitted, rim flange",
        (Reaches::Tire, false) => "fitted, tire",
        (Reaches::Rim, true) => "planned, rim flange",
        (Reaches::Tire, true) => "planned, tire",
    };
    let what = match side {
        Side::Outer => "outer change, by what reaches further",
        Side::Inner => "inner change, by what reaches further",
    };
    Figure::of(Step {
        what,
        formula: "planned reach − fitted reach, each the larger of rim flange and tire from the hub face",
        inputs: vec![
            (name(planned, true), Quantity::length(planned.distance)),
            (name(fitted, false), Quantity::length(fitted.distance)),
        ],
        result: Quantity::length(planned.distance - fitted.distance).signed(),
        source: Source::GEOMETRY,
    })
}

fn track_change((fitted, planned): (Offset, Offset)) -> Figure {
    let by_offset = planned.length() - fitted.length();
    Figure::of(Step {
        what: "track width change",
        formula: "−2 × ΔET",
        inputs: vec![("ΔET", Quantity::length(by_offset).signed())],
        result: Quantity::length(by_offset * -2.0).signed(),
        source: Source::GEOMETRY,
    })
}

#[derive(Clone, Copy)]
struct Diameters {
    fitted: Length,
    planned: Length,
}

impl Diameters {
    fn inputs(self) -> Vec<(&'static str, Quantity)> {
        vec![("OD new", Quantity::length(self.planned)), ("OD old", Quantity::length(self.fitted))]
    }

    fn change(self) -> Figure {
        Figure::of(Step {
            what: "overall diameter change",
            formula: "OD new − OD old",
            inputs: self.inputs(),
            result: Quantity::length(self.planned - self.fitted).signed(),
            source: Source::GEOMETRY,
        })
    }

    fn change_pct(self) -> Figure {
        Figure::of(Step {
            what: "overall diameter change",
            formula: "(OD new / OD old − 1) × 100 %",
            inputs: self.inputs(),
            result: Quantity::percent((self.planned / self.fitted - 1.0) * 100.0).signed(),
            source: Source::GEOMETRY,
        })
    }

    fn half(self, what: &'static str, formula: &'static str, factor: f64) -> Figure {
        let change = self.planned - self.fitted;
        Figure::of(Step {
            what,
            formula,
            inputs: vec![("ΔOD", Quantity::length(change).signed())],
            result: Quantity::length(change * factor).signed(),
            source: Source::GEOMETRY,
        })
    }

    fn ratio(self) -> Figure {
        Figure::of(Step {
            what: "true speed over indicated speed",
            formula: "OD new / OD old",
            inputs: self.inputs(),
            result: Quantity::ratio(self.planned / self.fitted),
            source: Source::GEOMETRY,
        })
    }
}

/// What changes between the axles.
#[derive(Debug, Clone, PartialEq)]
pub struct PairChange {
    /// Overall diameter planned in front.
    pub front_overall_diameter: Option<Figure>,
    /// Overall diameter planned behind.
    pub rear_overall_diameter: Option<Figure>,
    /// Drift of the front-to-rear diameter ratio against the set before, in per cent.
    pub front_to_rear_ratio_pct: Option<Figure>,
}

/// Works out what changes between the axles.
pub fn pair_change(fitted: &SetupPair, planned: &SetupPair) -> PairChange {
    let diameter = |setup: Option<Setup>| setup?.overall_diameter();
    let worked = |setup: Option<Setup>| setup?.overall_diameter_worked();
    let old = diameter(fitted.front).zip(diameter(fitted.rear));
    let new = diameter(planned.front).zip(diameter(planned.rear));
    PairChange {
        front_overall_diameter: worked(planned.front),
        rear_overall_diameter: worked(planned.rear),
        front_to_rear_ratio_pct: old.zip(new).map(|((old_front, old_rear), (new_front, new_rear))| {
            let (old, new) = (old_front / old_rear, new_front / new_rear);
            Figure::of(Step {
                what: "drift of the front-to-rear diameter ratio",
                formula: "((OD front / OD rear) planned / (OD front / OD rear) before − 1) × 100 %",
                inputs: vec![
                    ("OD front planned", Quantity::length(new_front)),
                    ("OD rear planned", Quantity::length(new_rear)),
                    ("OD front before", Quantity::length(old_front)),
                    ("OD rear before", Quantity::length(old_rear)),
                ],
                result: Quantity::percent((new / old - 1.0) * 100.0).signed(),
                source: Source::GEOMETRY,
            })
        }),
    }
}
