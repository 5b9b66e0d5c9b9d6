//! What a setup must hold to be proposed, each by name.

use crate::setup::catalogue::{TireRow, Use, WheelRow};
use crate::values::coded::coded;

use super::requirements::Requirements;
use super::{KeptParts, SearchCriteria};

/// A condition that rows or setups must hold.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Filter {
    /// Count and diameter of the bolts.
    BoltCircle,
    /// The bore goes over the hub.
    Bore,
    /// The wheel's own rating.
    WheelLoad,
    /// Rim codes asked for.
    RimSize,
    /// The tire answers every use.
    Use,
    /// The tire answers the season.
    Season,
    /// Load index.
    Load,
    /// Speed symbol.
    Speed,
    /// The rim is one the tire may be put on.
    PermittedRim,
    /// Overall diameter inside the house limit.
    Diameter,
    /// What the dial shows.
    Speedometer,
    /// Room to everything that was measured, the brake left out.
    Fit,
    /// Caliper and spokes.
    Brake,
    /// Front against rear.
    Ratio,
    /// Square or staggered, mixed diameters.
    Arrangement,
    /// What it may cost.
    Budget,
    /// The class that the car runs in.
    Class,
    /// One line of wheels and one of tires all round, or the lines asked for.
    Lines,
}

coded!(Filter:
    BoltCircle = "bolt_circle",
    Bore = "bore",
    WheelLoad = "wheel_load",
    RimSize = "rim_size",
    Use = "use",
    Season = "season",
    Load = "load",
    Speed = "speed",
    PermittedRim = "permitted_rim",
    Diameter = "diameter",
    Speedometer = "speedometer",
    Fit = "fit",
    Brake = "brake",
    Ratio = "ratio",
    Arrangement = "arrangement",
    Budget = "budget",
    Class = "class",
    Lines = "lines",
);

impl Filter {
    /// What it is, in a sentence's middle.
    pub fn title(self) -> &'static str {
        match self {
            Self::BoltCircle => "the bolt circle",
            Self::Bore => "the hub's diameter",
            Self::WheelLoad => "the wheels' load rating",
            Self::RimSize => "the rim sizes asked for",
            Self::Use => "what the car is used for",
            Self::Season => "the season",
            Self::Load => "the load index",
            Self::Speed => "the speed symbol",
            Self::PermittedRim => "the rims the tires may be put on",
            Self::Diameter => "the house limit on overall diameter",
            Self::Speedometer => "what the dial would show",
            Self::Fit => "the room on the car",
            Self::Brake => "the room over the brake",
            Self::Ratio => "the limit on front against rear",
            Self::Arrangement => "square, staggered or mixed diameters as asked for",
            Self::Budget => "the budget",
            Self::Class => "the class",
            Self::Lines => "one line of wheels and one of tires all round",
        }
    }

    /// What would open it. For what only safety or the hub decides there is nothing to open.
    pub fn opens(self) -> &'static str {
        match self {
            Self::BoltCircle | Self::Bore => "Nothing opens it: other wheels must come onto the list.",
            Self::WheelLoad => "Nothing opens it: wheels with a higher rating must come onto the list.",
            Self::RimSize => "Ask for other rim sizes.",
            Self::Use => "Drop a use, or have tires of that kind put onto the list.",
            Self::Season => "Another season's set, or have tires for it put onto the list.",
            Self::Load | Self::Speed => {
                "Nothing opens it: tires with a higher service description must come onto the list."
            }
            Self::PermittedRim => "Nothing opens it: outside of the permitted rims is a \"do not fit\".",
            Self::Diameter => {
                "The house's limit on the change of diameter, with what the speedometer then shows."
            }
            Self::Speedometer => {
                "Have the dial measured by satellite speed: what it over-reads is room for a larger tire."
            }
            Self::Fit => "A lever on the car, or another offset on the list.",
            Self::Brake => {
                "Larger rims, a spacer where the spokes touch, or a wheel whose inside was measured."
            }
            Self::Ratio => "Equal diameters; the car maker's own limit rules.",
            Self::Arrangement => "Allow the other arrangement, or mixed diameters.",
            Self::Budget => "A larger budget.",
            Self::Class => "Another class, or a set of that class on the lists; the club's rulebook decides.",
            Self::Lines => "Mixed lines, or another line.",
        }
    }
}

/// Whether a filter is in force: all but the one that is tried without.
#[derive(Debug, Clone, Copy)]
pub(super) struct InForce(pub Option<Filter>);

impl InForce {
    pub(super) fn holds(self, filter: Filter, condition: impl FnOnce() -> bool) -> bool {
        self.0 == Some(filter) || condition()
    }
}

/// Whether a wheel may be proposed at all, leaving aside where it stands.
pub(super) fn wheel_may(
    row: &WheelRow,
    axle: usize,
    asks: &Requirements,
    wish: &SearchCriteria,
    force: InForce,
) -> bool {
    row.wheel.offset.is_some()
        && force.holds(Filter::BoltCircle, || asks.bolt_circle_fits(row))
        && force.holds(Filter::Bore, || asks.bore_fits(axle, row))
        && force.holds(Filter::WheelLoad, || asks.rating_is_enough(axle, row))
        && force.holds(Filter::RimSize, || wish.rims_on(axle).contains(&row.wheel.diameter))
        && force.holds(Filter::Lines, || {
            wish.keeps == KeptParts::Wheels
                || wish.wheel_line.as_deref().is_none_or(|line| line == &*row.line)
        })
        && force.holds(Filter::Class, || asks.class_allows_wheel(axle, row, wish.class.as_ref()))
        && force.holds(Filter::Budget, || wish.budget.is_none() || row.price.is_some())
}

/// Whether a tire may be proposed on an axle, leaving aside rim and room.
pub(super) fn tire_may(
    row: &TireRow,
    axle: usize,
    asks: &Requirements,
    wish: &SearchCriteria,
    force: InForce,
) -> bool {
    // What the owner's own tires are for is the owner's to know.
    let is_own = wish.keeps == KeptParts::Tires;
    force.holds(Filter::Use, || match row.kind {
        Some(kind) => wish.uses.iter().all(|wanted| {
            // What runs free is a tire of the road.
            let wanted = if asks.runs_free(axle, *wanted) { Use::Daily } else { *wanted };
            kind.suits(wanted)
        }),
        None => is_own || wish.uses.is_empty(),
    }) && force.holds(Filter::Season, || {
        wish.season.is_none_or(|season| row.kind.map_or(is_own, |kind| kind.suits_season(season)))
    }) && force.holds(Filter::Load, || asks.load_is_enough(axle, row))
        && force.holds(Filter::Speed, || asks.speed_is_enough(axle, row))
        && force.holds(Filter::Class, || {
            wish.class.as_ref().is_none_or(|class| class.allows_tire(&row.line, row.treadwear))
        })
        && force.holds(Filter::Lines, || {
            is_own || wish.tire_line.as_deref().is_none_or(|line| line == &*row.line)
        })
        && force.holds(Filter::Budget, || wish.budget.is_none() || row.price.is_some())
}
