//! What a setup must hold to be proposed, each by name.

use crate::case::Needs;
use crate::catalogue::{TireKind, TireRow, WheelRow};
use crate::coded::coded;

use super::{KeptParts, SearchCriteria};

/// No winter tire slower than this is proposed, whatever the car: symbol Q, the slowest sold as such. Common practice.
pub const LEAST_WINTER_KMH: f64 = 160.0;

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
    /// Room to everything that was measured.
    Fit,
    /// Front against rear.
    Ratio,
    /// Square or staggered, mixed diameters.
    Arrangement,
    /// What it may cost.
    Budget,
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
    Fit = "fit",
    Ratio = "ratio",
    Arrangement = "arrangement",
    Budget = "budget",
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
            Self::Fit => "the room on the car",
            Self::Ratio => "the limit on front against rear",
            Self::Arrangement => "square, staggered or mixed diameters as asked for",
            Self::Budget => "the budget",
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
            Self::Fit => "A lever on the car, or another offset on the list.",
            Self::Ratio => "Equal diameters; the car maker's own limit rules.",
            Self::Arrangement => "Allow the other arrangement, or mixed diameters.",
            Self::Budget => "A larger budget.",
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
    needs: &Needs,
    wish: &SearchCriteria,
    force: InForce,
) -> bool {
    row.wheel.offset.is_some()
        && force.holds(Filter::BoltCircle, || {
            needs.bolt_circle.is_none_or(|circle| row.circles().any(|drilled| drilled == circle))
        })
        && force.holds(Filter::Bore, || match (needs.hub[axle], row.wheel.center_bore) {
            (Some(hub), Some(bore)) => bore >= hub,
            _ => true,
        })
        && force.holds(Filter::WheelLoad, || match (needs.wheel_load_kg, row.load_kg) {
            (Some(need), Some(rating)) => rating >= need,
            _ => true,
        })
        && force.holds(Filter::RimSize, || (wish.rims.0..=wish.rims.1).contains(&row.wheel.diameter))
        && force.holds(Filter::Lines, || {
            wish.keeps == KeptParts::Wheels
                || wish.wheel_line.as_deref().is_none_or(|line| line == &*row.line)
        })
        && force.holds(Filter::Budget, || wish.budget.is_none() || row.price.is_some())
}

/// Whether a tire may be proposed on an axle, leaving aside rim and room.
pub(super) fn tire_may(
    row: &TireRow,
    axle: usize,
    needs: &Needs,
    wish: &SearchCriteria,
    force: InForce,
) -> bool {
    // What the owner's own tires are for is the owner's to know.
    let is_own = wish.keeps == KeptParts::Tires;
    force.holds(Filter::Use, || match row.kind {
        Some(kind) => wish.uses.iter().all(|wanted| kind.suits(*wanted)),
        None => is_own || wish.uses.is_empty(),
    }) && force.holds(Filter::Season, || {
        wish.season.is_none_or(|season| row.kind.map_or(is_own, |kind| kind.suits_season(season)))
    }) && force.holds(Filter::Load, || {
        needs.load_kg[axle]
            .is_none_or(|need| row.tire.service.is_some_and(|service| service.single.capacity_kg() >= need))
    }) && force.holds(Filter::Speed, || {
        needs.speed_kmh.is_none_or(|need| {
            let least = if row.kind.is_some_and(TireKind::may_be_slower) { LEAST_WINTER_KMH } else { need };
            row.tire.top_speed_kmh().is_some_and(|speed| speed >= need.min(least))
        })
    }) && force
        .holds(Filter::Lines, || is_own || wish.tire_line.as_deref().is_none_or(|line| line == &*row.line))
        && force.holds(Filter::Budget, || wish.budget.is_none() || row.price.is_some())
}
