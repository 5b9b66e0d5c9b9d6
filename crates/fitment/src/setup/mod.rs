//! What sits on one axle, and on both.
//!
//! - [`mod@line`]: the setup line, the way a setup is spoken. `listed`: what a list says of a part beats what its size says.
//! - [`tire_on_rim`], [`standard_sizes`]: what goes together, and which sizes are made.
//! - [`change`]: from one setup to another. [`adjust`]: one figure of it changed.
//! - [`catalogue`]: what can be ordered. [`spacers`]: what lies on the shelf.

pub mod adjust;
pub mod catalogue;
pub mod change;
pub mod line;
mod listed;
pub mod spacers;
pub mod standard_sizes;
pub mod tire_on_rim;

use std::fmt;
use std::str::FromStr;

use crate::notation::NotationError;
use crate::parts::tire::Tire;
use crate::parts::tire::dimensions;
use crate::parts::tire::rims::{self, PermittedRims, SECTION_PER_RIM_WIDTH};
use crate::parts::wheel::Wheel;
use crate::values::coded::coded;
use crate::values::codes::{Offset, RimWidth, Spacer};
use crate::values::date_code::DateCode;
use crate::values::length::Length;
use crate::values::working::{Figure, Quantity, Source, Step};

pub use listed::{Hundredths, Listed, ListedTire};

/// Front or rear.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Axle {
    /// The front axle.
    Front,
    /// The rear axle.
    Rear,
}

coded!(Axle: Front = "front", Rear = "rear");

impl Axle {
    /// Both, in the order they are spoken.
    pub const BOTH: [Self; 2] = [Self::Front, Self::Rear];
}

/// Wheel, tire and spacer on one axle. A part that was not named is `None`, never a default.
///
/// When both wheel and tire are there, their rim codes are the same: reading refuses anything else.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default)]
pub struct Setup {
    /// The wheel.
    pub wheel: Option<Wheel>,
    /// The tire.
    pub tire: Option<Tire>,
    /// A spacer behind the wheel.
    pub spacer: Option<Spacer>,
    /// The tire's date code, when a used one is planned.
    pub date_code: Option<DateCode>,
    /// What lists say of these very parts; not part of the line.
    pub listed: Listed,
}

impl Setup {
    /// Offset less the spacer, when the wheel states an offset.
    pub fn effective_offset(&self) -> Option<Offset> {
        self.wheel.and_then(|wheel| wheel.offset).map(|offset| offset.effective(self.spacer))
    }

    /// The same with what it leaves open taken from a fuller setup, when what it states agrees with that one; as it is
    /// otherwise. A spacer nobody spoke of is open only while no wheel is named either.
    #[must_use]
    pub fn completed_by(self, fuller: &Self) -> Self {
        let agrees = |wheel: Wheel, other: Wheel| {
            (wheel.diameter, wheel.width) == (other.diameter, other.width)
                && wheel.offset.is_none_or(|offset| other.offset == Some(offset))
        };
        let wheel = match (self.wheel, fuller.wheel) {
            (Some(wheel), Some(other)) if !agrees(wheel, other) => return self,
            (Some(wheel), Some(other)) => Some(Wheel { offset: wheel.offset.or(other.offset), ..wheel }),
            (wheel, other) => wheel.or(other),
        };
        if self.tire.zip(fuller.tire).is_some_and(|(tire, other)| tire.size != other.size) {
            return self;
        }
        let tire = self.tire.or(fuller.tire);
        if wheel.zip(tire).is_some_and(|(wheel, tire)| wheel.diameter != tire.size.rim()) {
            return self;
        }
        let spacer = if self.wheel.is_none() { self.spacer.or(fuller.spacer) } else { self.spacer };
        Self { wheel, tire, spacer, date_code: self.date_code, listed: self.listed }
    }

    /// Section width of the tire on this very rim: S = S₁ + 0.4 (A − A₁), S₁ and A₁ as listed, else by the size.
    pub fn section_width(&self) -> Option<Length> {
        self.section_width_on(self.wheel?.width)
    }

    /// Section width of the tire on a rim of another width.
    pub fn section_width_on(&self, rim: RimWidth) -> Option<Length> {
        let measured = self.named_section_width()?;
        let beyond = rim.between_flanges() - self.measuring_rim()?.between_flanges();
        Some(measured + beyond * SECTION_PER_RIM_WIDTH)
    }

    /// Section width of the tire on its measuring rim: as listed, else what the size means.
    pub fn named_section_width(&self) -> Option<Length> {
        let listed = self.listed.tire.section.map(Hundredths::length);
        listed.or_else(|| Some(self.tire?.size.named_section_width()))
    }

    /// The rim the tire is measured on: as listed, else by the rule.
    pub fn measuring_rim(&self) -> Option<RimWidth> {
        self.listed.tire.measuring_rim.or_else(|| Some(rims::measuring_rim(&self.tire?.size)))
    }

    /// The rims the tire may be put on: as listed, else estimated.
    pub fn permitted_rims(&self) -> Option<PermittedRims> {
        let listed = self.listed.tire.permitted.map(|(least, most)| PermittedRims::listed(least, most));
        listed.or_else(|| Some(PermittedRims::estimated(&self.tire?.size)))
    }

    /// Tread width of the tire, and whether a list states it.
    pub fn tread_width(&self) -> Option<(Length, bool)> {
        let listed = self.listed.tire.tread_width.map(|width| (width.length(), true));
        listed.or_else(|| Some((rims::estimated_tread_width(&self.tire?.size), false)))
    }

    /// Whether its tire has a band that guards the rim, or may have one: as its list says, else where most tires like it do.
    pub fn may_have_a_rim_guard(&self) -> bool {
        self.tire
            .is_some_and(|tire| self.listed.tire.has_rim_guard.unwrap_or_else(|| tire.is_for_performance()))
    }

    /// Overall diameter of the tire: as listed, else by everyday arithmetic.
    pub fn overall_diameter(&self) -> Option<Length> {
        let size = self.tire?.size;
        let listed = self.listed.tire.overall_diameter.map(Hundredths::length);
        Some(listed.unwrap_or_else(|| dimensions::overall_diameter(&size)))
    }

    /// [`Self::overall_diameter`] with its working.
    pub fn overall_diameter_worked(&self) -> Option<Figure> {
        let by_size = dimensions::overall_diameter_worked(&self.tire?.size);
        let Some(listed) = self.listed.tire.overall_diameter else { return Some(by_size) };
        let step = Step {
            what: "overall diameter, as listed",
            formula: "the list's own figure counts before the size's",
            inputs: vec![("by the size", by_size.quantity)],
            result: Quantity::length(listed.length()),
            source: Source::LISTED,
        };
        Some(Figure::of(step).after(by_size.working))
    }

    /// Height of the tire's sidewall: half of what its overall diameter leaves over the rim.
    pub fn sidewall(&self) -> Option<Length> {
        let size = self.tire?.size;
        match self.listed.tire.overall_diameter {
            Some(listed) => Some((listed.length() - size.rim().everyday()) / 2.0),
            None => Some(dimensions::sidewall(&size)),
        }
    }

    /// Width of the wheel over its flanges: as listed, else nominal width and half an inch a side.
    pub fn over_flanges(&self) -> Option<Length> {
        let wheel = self.wheel?;
        let listed = self.listed.wheel_overall_width.map(Hundredths::length);
        Some(
            listed
                .filter(|listed| *listed > wheel.width.between_flanges())
                .unwrap_or(wheel.width.over_flanges()),
        )
    }
}

/// The canonical setup line: `18x8.5 ET35 · 245/40R18 97Y · 5 mm spacer`.
impl fmt::Display for Setup {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let parts: [Option<&dyn fmt::Display>; 4] = [
            self.wheel.as_ref().map(|part| part as _),
            self.tire.as_ref().map(|part| part as _),
            self.date_code.as_ref().map(|part| part as _),
            self.spacer.as_ref().map(|part| part as _),
        ];
        for (at, part) in parts.into_iter().flatten().enumerate() {
            let separator = if at > 0 { " · " } else { "" };
            write!(f, "{separator}{part}")?;
        }
        Ok(())
    }
}

/// Reads one axle's setup strictly: every piece must be read.
///
/// ```
/// let setup: fitment::Setup = "8.5x18 ET35 245/40R18 5mm spacer".parse().unwrap();
/// assert_eq!(setup.to_string(), "18x8.5 ET35 · 245/40R18 · 5 mm spacer");
/// ```
impl FromStr for Setup {
    type Err = NotationError;

    fn from_str(text: &str) -> Result<Self, NotationError> {
        line::read_one_axle(text)
    }
}

/// One value for each axle.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize))]
pub struct PerAxle<T> {
    /// The front axle's.
    pub front: T,
    /// The rear axle's.
    pub rear: T,
}

impl<T> PerAxle<T> {
    /// From a function of the axle.
    pub fn of(mut make: impl FnMut(Axle) -> T) -> Self {
        Self { front: make(Axle::Front), rear: make(Axle::Rear) }
    }

    /// One axle's.
    pub fn on(&self, axle: Axle) -> &T {
        match axle {
            Axle::Front => &self.front,
            Axle::Rear => &self.rear,
        }
    }

    /// One axle's, to change it.
    pub fn on_mut(&mut self, axle: Axle) -> &mut T {
        match axle {
            Axle::Front => &mut self.front,
            Axle::Rear => &mut self.rear,
        }
    }
}

/// Both axles of a car. An axle nobody spoke of is `None`.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize))]
pub struct SetupPair {
    /// Front axle.
    pub front: Option<Setup>,
    /// Rear axle.
    pub rear: Option<Setup>,
}

/// How a pair's axles relate.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Arrangement {
    /// The same wheel and tire all round.
    Square,
    /// Any difference front to rear: width, rim diameter, offset or tire size.
    Staggered,
}

/// As its line; an empty line is a setup nobody has named yet.
#[cfg(feature = "serde")]
impl serde::Serialize for Setup {
    fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.collect_str(self)
    }
}

/// Read strictly: what is kept is canonical, so a word left aside is damage, not chatter.
#[cfg(feature = "serde")]
impl<'de> serde::Deserialize<'de> for Setup {
    fn deserialize<D: serde::Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        let line = <String as serde::Deserialize>::deserialize(deserializer)?;
        if line.is_empty() {
            return Ok(Self::default());
        }
        // Thousands of readings are against one and the same wheel: the line that was read last is not read again.
        std::thread_local! {
            static LAST: std::cell::RefCell<(String, Setup)> = std::cell::RefCell::default();
        }
        if let Some(setup) = LAST.with_borrow(|(last, setup)| (*last == line).then_some(*setup)) {
            return Ok(setup);
        }
        let setup: Self = line
            .parse()
            .map_err(|error| serde::de::Error::custom(format!("{line:?} cannot be read: {error}")))?;
        LAST.set((line, setup));
        Ok(setup)
    }
}

impl SetupPair {
    /// The same setup on both axles.
    pub fn square(setup: Setup) -> Self {
        Self { front: Some(setup), rear: Some(setup) }
    }

    /// One axle's setup.
    pub fn on(&self, axle: Axle) -> Option<&Setup> {
        match axle {
            Axle::Front => self.front.as_ref(),
            Axle::Rear => self.rear.as_ref(),
        }
    }

    /// One axle's setup, to change it.
    pub fn on_mut(&mut self, axle: Axle) -> &mut Option<Setup> {
        match axle {
            Axle::Front => &mut self.front,
            Axle::Rear => &mut self.rear,
        }
    }

    /// Square or staggered; `None` until both axles are known. What is stated beside the size (load index,
    /// date code) does not make a set staggered, and spacers stay on their axle when the wheels are rotated.
    pub fn arrangement(&self) -> Option<Arrangement> {
        let shape = |setup: Setup| (setup.wheel, setup.tire.map(|tire| tire.size));
        let (front, rear) = (self.front?, self.rear?);
        Some(if shape(front) == shape(rear) { Arrangement::Square } else { Arrangement::Staggered })
    }
}

impl SetupPair {
    /// Its arrangement in the trade's words, spacers told where they differ; `None` until both axles are known.
    pub fn arrangement_words(&self) -> Option<&'static str> {
        let spacers_differ = self.front?.spacer != self.rear?.spacer;
        Some(match self.arrangement()? {
            Arrangement::Square if spacers_differ => "square, other spacers front and rear",
            Arrangement::Square => "square",
            Arrangement::Staggered => "staggered",
        })
    }
}

/// `F: … R: …`, or one line when both axles carry the same.
impl fmt::Display for SetupPair {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match (&self.front, &self.rear) {
            (Some(front), Some(rear)) if front == rear => front.fmt(f),
            (Some(front), Some(rear)) => write!(f, "F: {front}  R: {rear}"),
            (Some(front), None) => write!(f, "F: {front}"),
            (None, Some(rear)) => write!(f, "R: {rear}"),
            (None, None) => Ok(()),
        }
    }
}
