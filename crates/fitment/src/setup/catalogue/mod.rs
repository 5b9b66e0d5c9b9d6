//! Wheels and tires that can be ordered, as rows of price lists.
//!
//! A row says what its list said; what it did not say stays `None` and is never taken for zero.

#[cfg(not(test))]
mod picked;
#[cfg(test)]
pub(crate) mod picked;

pub use picked::PickedParts;

use crate::parts::tire::Tire;
use crate::parts::wheel::Wheel;
use crate::setup::{Hundredths, Listed, ListedTire, Setup};
use crate::values::coded::coded;
use crate::values::codes::{BoltCircle, RimWidth};
use crate::values::fastener::Seat;
use crate::values::length::Length;

/// How a wheel is made.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum WheelMake {
    /// Cast.
    Cast,
    /// Flow-formed barrel on a cast face.
    FlowFormed,
    /// Forged.
    Forged,
    /// Steel.
    Steel,
}

coded!(WheelMake: Cast = "cast", FlowFormed = "flow_formed", Forged = "forged", Steel = "steel");

impl WheelMake {
    /// In words.
    pub fn words(self) -> &'static str {
        match self {
            Self::Cast => "cast",
            Self::FlowFormed => "flow-formed",
            Self::Forged => "forged",
            Self::Steel => "steel",
        }
    }
}

/// What a tire is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[allow(missing_docs, reason = "the trade's names")]
pub enum TireKind {
    AllSeason,
    SummerTouring,
    SummerPerformance,
    TrackDay,
    SemiSlick,
    Slick,
    Drag,
    Winter,
    AllTerrain,
}

coded!(TireKind:
    AllSeason = "all_season",
    SummerTouring = "summer_touring",
    SummerPerformance = "summer_performance",
    TrackDay = "track_day",
    SemiSlick = "semi_slick",
    Slick = "slick",
    Drag = "drag",
    Winter = "winter",
    AllTerrain = "all_terrain",
);

impl TireKind {
    /// Whether such tires carry no load index and no speed symbol: their maker is asked. Common practice; no source.
    pub fn carries_no_service_description(self) -> bool {
        matches!(self, Self::Slick | Self::Drag)
    }
}

/// What the car is used for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[allow(missing_docs, reason = "the trade's names")]
pub enum Use {
    Daily,
    OccasionalTrack,
    RegularTrack,
    Autocross,
    DragStrip,
    Show,
    WinterRoads,
    Gravel,
}

coded!(Use:
    Daily = "daily",
    OccasionalTrack = "occasional_track",
    RegularTrack = "regular_track",
    Autocross = "autocross",
    DragStrip = "drag",
    Show = "show",
    WinterRoads = "winter",
    Gravel = "gravel",
);

impl Use {
    /// In the trade's words.
    pub fn words(self) -> &'static str {
        match self {
            Self::Daily => "daily",
            Self::OccasionalTrack => "occasional track day",
            Self::RegularTrack => "regular track",
            Self::Autocross => "autocross",
            Self::DragStrip => "drag strip",
            Self::Show => "show",
            Self::WinterRoads => "winter roads",
            Self::Gravel => "gravel, light off-road",
        }
    }

    /// Driven hard: what a tire's tread then asks of its rim is stricter.
    pub fn is_hard(self) -> bool {
        matches!(self, Self::OccasionalTrack | Self::RegularTrack | Self::Autocross)
    }
}

/// When the set is driven.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[allow(missing_docs, reason = "the seasons by their names")]
pub enum Season {
    Summer,
    Winter,
    AllYear,
}

coded!(Season: Summer = "summer", Winter = "winter", AllYear = "all_year");

impl Season {
    /// In words.
    pub fn words(self) -> &'static str {
        match self {
            Self::Summer => "summer",
            Self::Winter => "winter",
            Self::AllYear => "all year",
        }
    }
}

impl TireKind {
    /// In the trade's words.
    pub fn words(self) -> &'static str {
        match self {
            Self::AllSeason => "all-season",
            Self::SummerTouring => "summer touring",
            Self::SummerPerformance => "summer performance",
            Self::TrackDay => "track-day, street-legal",
            Self::SemiSlick => "semi-slick",
            Self::Slick => "slick, not for the road",
            Self::Drag => "drag",
            Self::Winter => "winter",
            Self::AllTerrain => "all-terrain",
        }
    }

    /// Whether it answers a use. Common practice: a tire must answer every use that was named.
    pub fn suits(self, wanted: Use) -> bool {
        use TireKind::{
            AllSeason, AllTerrain, Drag, SemiSlick, Slick, SummerPerformance, SummerTouring, TrackDay, Winter,
        };
        match wanted {
            Use::Daily => matches!(self, AllSeason | SummerTouring | SummerPerformance | Winter | AllTerrain),
            Use::OccasionalTrack => matches!(self, SummerPerformance | TrackDay),
            Use::RegularTrack => matches!(self, TrackDay | SemiSlick | Slick),
            Use::Autocross => matches!(self, SummerPerformance | TrackDay | SemiSlick),
            Use::DragStrip => matches!(self, Drag),
            Use::Show => matches!(self, AllSeason | SummerTouring | SummerPerformance | TrackDay),
            Use::WinterRoads => matches!(self, Winter | AllSeason),
            Use::Gravel => matches!(self, AllTerrain | AllSeason),
        }
    }

    /// Whether it answers a season. Common practice: winter tires wear and lose grip in summer, summer tires must not
    /// go onto snow; the law where it is driven decides when which must be on.
    pub fn suits_season(self, season: Season) -> bool {
        match season {
            Season::Summer => self != Self::Winter,
            Season::Winter => matches!(self, Self::Winter | Self::AllSeason),
            Season::AllYear => self == Self::AllSeason,
        }
    }

    /// Whether its speed symbol may be under the car's top speed: winter tires, where the law allows it.
    ///
    /// # Source
    /// UN R30 practice (from memory): the driver must then see the tire's own limit, and keep to it.
    pub fn may_be_slower(self) -> bool {
        self == Self::Winter
    }

    /// Whether it grips so much more than a factory tire that its consequences must be gone through.
    pub fn is_stickier_than_factory(self) -> bool {
        matches!(self, Self::TrackDay | Self::SemiSlick | Self::Slick | Self::Drag)
    }
}

/// What a stickier tire brings with it: questions to be gone through with the owner.
pub const STICKY_QUESTIONS: &[(&str, &str)] = &[
    ("oil", "Oil surge in long corners: is the sump baffled, or the level kept for it?"),
    ("bushings", "Bushings, wheel bearings and ball joints carry more: have they been looked at?"),
    ("brakes", "The brakes will run hotter: do pads and fluid stand it?"),
    ("ride", "It rides harder and louder: was that said?"),
    ("life", "It costs more and lasts less: was that said?"),
    ("cold", "It grips poorly when cold: is the first lap, and the drive home, thought of?"),
    ("wet", "Little void, so it aquaplanes sooner: what happens when it rains?"),
    ("winter", "Not for winter roads: what goes on then?"),
];

/// A wheel of a price list.
#[derive(Debug, Clone, PartialEq)]
pub struct WheelRow {
    /// Its number in the shop's file.
    pub id: u32,
    /// The line it belongs to: maker's name for the design.
    pub line: Box<str>,
    /// Finish.
    pub finish: Box<str>,
    /// Size, offset, first bolt circle, bore.
    pub wheel: Wheel,
    /// Further bolt circles it is drilled for.
    pub more_circles: Vec<BoltCircle>,
    /// Seat of its holes.
    pub seat: Option<Seat>,
    /// Load rating of one wheel, kilograms.
    pub load_kg: Option<f64>,
    /// Mass, kilograms.
    pub mass_kg: Option<f64>,
    /// How it is made.
    pub make: Option<WheelMake>,
    /// Whether it has a turning direction: lefts and rights.
    pub is_directional: bool,
    /// Width over everything, when known.
    pub overall_width: Option<Length>,
    /// Price of one, in hundredths of the shop's money.
    pub price: Option<u32>,
    /// How many are on the list as in stock.
    pub stock: Option<u32>,
}

impl WheelRow {
    /// A wheel of which nothing but its size is known.
    pub fn plain(wheel: Wheel) -> Self {
        Self {
            id: 0,
            line: "".into(),
            finish: "".into(),
            wheel,
            more_circles: Vec::new(),
            seat: None,
            load_kg: None,
            mass_kg: None,
            make: None,
            is_directional: false,
            overall_width: None,
            price: None,
            stock: None,
        }
    }

    /// Every bolt circle it is drilled for.
    pub fn circles(&self) -> impl Iterator<Item = BoltCircle> + '_ {
        self.wheel.circles().chain(self.more_circles.iter().copied())
    }
}

/// A tire of a price list.
#[derive(Debug, Clone, PartialEq)]
pub struct TireRow {
    /// Its number in the shop's file.
    pub id: u32,
    /// The line it belongs to.
    pub line: Box<str>,
    /// Size and service description.
    pub tire: Tire,
    /// What it is for.
    pub kind: Option<TireKind>,
    /// Section width as measured by the maker, on the measuring rim.
    pub section: Option<Length>,
    /// Tread width as measured by the maker.
    pub tread_width: Option<Length>,
    /// Overall diameter as measured by the maker.
    pub overall_diameter: Option<Length>,
    /// Narrowest and widest rim by the maker's table.
    pub permitted: Option<(RimWidth, RimWidth)>,
    /// The rim it was measured on.
    pub measuring_rim: Option<RimWidth>,
    /// Mass, kilograms.
    pub mass_kg: Option<f64>,
    /// Share of the tread that is groove, per cent.
    pub void_pct: Option<f64>,
    /// Treadwear grade (49 CFR 575.104); comparable within one maker only.
    pub treadwear: Option<u32>,
    /// Whether a band stands out from its sidewall to guard the rim, when stated.
    pub has_rim_guard: Option<bool>,
    /// Wet or traction grade, as marked.
    pub wet_grade: Box<str>,
    /// Temperature grade, as marked.
    pub temperature_grade: Box<str>,
    /// A car maker's mark: tuned to one car.
    pub factory_mark: Box<str>,
    /// Whether it has a turning direction.
    pub is_directional: bool,
    /// Whether inside and outside differ.
    pub is_asymmetric: bool,
    /// Price of one, in hundredths of the shop's money.
    pub price: Option<u32>,
    /// How many are on the list as in stock.
    pub stock: Option<u32>,
}

impl TireRow {
    /// A tire of which nothing but its marking is known.
    pub fn plain(tire: Tire) -> Self {
        Self {
            id: 0,
            line: "".into(),
            tire,
            kind: None,
            section: None,
            tread_width: None,
            overall_diameter: None,
            permitted: None,
            measuring_rim: None,
            mass_kg: None,
            void_pct: None,
            treadwear: None,
            has_rim_guard: None,
            wet_grade: "".into(),
            temperature_grade: "".into(),
            factory_mark: "".into(),
            is_directional: false,
            is_asymmetric: false,
            price: None,
            stock: None,
        }
    }

    /// The tire by itself, with its own measures.
    pub fn alone(&self) -> Setup {
        Setup {
            tire: Some(self.tire),
            listed: Listed { tire: self.listed(), ..Listed::default() },
            ..Setup::default()
        }
    }

    /// The tire's own measures, as the list states them.
    pub fn listed(&self) -> ListedTire {
        ListedTire {
            section: self.section.and_then(Hundredths::of),
            overall_diameter: self.overall_diameter.and_then(Hundredths::of),
            tread_width: self.tread_width.and_then(Hundredths::of),
            has_rim_guard: self.has_rim_guard,
            measuring_rim: self.measuring_rim,
            permitted: self.permitted,
        }
    }
}

/// Everything that can be ordered.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Catalogue {
    /// Wheels.
    pub wheels: Vec<WheelRow>,
    /// Tires.
    pub tires: Vec<TireRow>,
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_use_has_a_tire_and_every_tire_a_use() {
        for wanted in Use::ALL {
            assert!(TireKind::ALL.iter().any(|kind| kind.suits(*wanted)), "{wanted:?}");
        }
        for kind in TireKind::ALL {
            assert!(Use::ALL.iter().any(|wanted| kind.suits(*wanted)), "{kind:?}");
        }
        // Common practice: track tires are not for winter roads, slicks not for the daily drive.
        assert!(!TireKind::TrackDay.suits(Use::WinterRoads) && !TireKind::Slick.suits(Use::Daily));
    }
}
