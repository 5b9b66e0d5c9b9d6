//! What a set's seasons ask for: order, turn over on the rim, rotate, inspect. Answers in words, each with its why.

use crate::judgement::rules::rotation::{Rotation, rotations};
use crate::judgement::rules::tire_age;
use crate::road::track::Position;
use crate::road::tread::{Pattern, Wear};
use crate::setup::Arrangement;
use crate::values::date_code::{DateCode, Day};
use crate::values::working::Source;

/// Where the advice comes from.
pub const SOURCE: Source =
    Source::common_practice("rotation and turning over by direction, marked outside and stagger");

/// Stands beside every rotation.
pub const CAUTION: &str = "Read every sidewall first: an arrow or a side marked outside that was not noted changes this. \
    The deeper pair belongs on the rear axle on wet roads. Torque the wheels and set the pressures \
    anew after every change, and look for cracks and cuts while they are off.";

/// Pairs that differ by this much are worth changing round, in millimetres. Judgement of ours.
const WORTH_ROTATING_MM: f64 = 1.0;
/// With less than this above the limit nobody pays for turning a tire over, in millimetres. Judgement of ours.
const WORTH_TURNING_MM: f64 = 0.5;
/// So many times the last stretch between readings before its end a tire is ordered. Judgement of ours.
const STRETCHES_AHEAD: f64 = 2.0;

/// A tire on the car or beside it.
#[derive(Debug, Clone, Copy)]
pub struct Rolling<'a> {
    /// Where it is; `None` off the car.
    pub position: Option<Position>,
    /// Its season.
    pub wear: &'a Wear,
    /// Depth at inner, middle and outer as last read, in millimetres.
    pub depths_mm: Option<[f64; 3]>,
    /// What was driven between its last two readings, in the season's unit.
    pub last_stretch: Option<f64>,
    /// Turns one way only.
    pub is_directional: bool,
    /// Has a side marked outside.
    pub is_asymmetric: bool,
    /// Turned over on its rim once already: that is done once.
    pub is_turned_over: bool,
    /// Its marking's end with the date code, as typed; empty when nobody read it.
    pub date_code: &'a str,
}

/// What advice is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs, reason = "by their names")]
pub enum Upkeep {
    Order,
    TurnOver,
    Rotate,
    Inspect,
}

/// One piece of advice.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Advice {
    /// About what.
    pub upkeep: Upkeep,
    /// Which tire, by its place in the list; `None` when it is about the set.
    pub tire: Option<usize>,
    /// In words.
    pub says: String,
}

/// How a tire can be turned over on its rim, so that its worn shoulder comes inside.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum TurnOver {
    /// On the same wheel, in the same place.
    InPlace,
    /// Turned over it would run backwards there: it goes to the other side of the car.
    OtherSide,
    /// Its marked side stays outside.
    Never,
}

/// What turning over a tire's marks allow. Common practice.
pub fn turn_over(is_directional: bool, is_asymmetric: bool) -> TurnOver {
    match (is_asymmetric, is_directional) {
        (true, _) => TurnOver::Never,
        (false, true) => TurnOver::OtherSide,
        (false, false) => TurnOver::InPlace,
    }
}

/// What tires of one car ask for, down to a depth at which they are done. Without an arrangement the sizes are not
/// stated, and nothing is said of rotating.
pub fn upkeep(
    tires: &[Rolling<'_>],
    arrangement: Option<Arrangement>,
    limit_mm: f64,
    old_years: f64,
    today: Option<Day>,
) -> Vec<Advice> {
    let mut advice = Vec::new();
    for (at, tire) in tires.iter().enumerate() {
        let says = |upkeep, says| Advice { upkeep, tire: Some(at), says };
        let order = order(tire);
        let is_done = tire.wear.left == Some(0.0);
        advice.extend(order.map(|text| says(Upkeep::Order, text)));
        if !is_done && !tire.is_turned_over {
            advice.extend(turning(tire, limit_mm).map(|text| says(Upkeep::TurnOver, text)));
        }
        advice.extend(aged(tire, old_years, today).map(|text| says(Upkeep::Inspect, text)));
    }
    if let Some(arrangement) = arrangement {
        advice.extend(rotating(tires, arrangement).map(|says| Advice {
            upkeep: Upkeep::Rotate,
            tire: None,
            says,
        }));
    }
    advice
}

fn order(tire: &Rolling<'_>) -> Option<String> {
    let left = tire.wear.left?;
    if left <= 0.0 {
        return Some("At its limit: not driven on; order now.".into());
    }
    (left <= STRETCHES_AHEAD * tire.last_stretch?).then(|| {
        "Order now: it is at its limit within two more stretches like the last between readings.".into()
    })
}

fn turning(tire: &Rolling<'_>, limit_mm: f64) -> Option<String> {
    let least = tire.depths_mm?.into_iter().reduce(f64::min)?;
    let shoulder = match tire.wear.pattern? {
        Pattern::OuterEdge => "outer",
        Pattern::InnerEdge => "inner",
        Pattern::Even | Pattern::Middle | Pattern::BothEdges => return None,
    };
    if least < limit_mm + WORTH_TURNING_MM {
        return None;
    }
    Some(match turn_over(tire.is_directional, tire.is_asymmetric) {
        TurnOver::InPlace => {
            format!(
                "Turn it over on its rim: the {shoulder} shoulder wears first and the other has more left."
            )
        }
        TurnOver::OtherSide => format!(
            "The {shoulder} shoulder wears first: turned over on its rim it goes to the other side of the car, so that \
             the arrow still points forward."
        ),
        TurnOver::Never => format!(
            "The {shoulder} shoulder wears first, but the side marked outside stays outside: no turning over. Camber, \
             toe or pressure have to mend it."
        ),
    })
}

fn aged(tire: &Rolling<'_>, old_years: f64, today: Option<Day>) -> Option<String> {
    if tire.date_code.trim().is_empty() {
        return None;
    }
    let Some(code) = DateCode::of_marking(tire.date_code) else {
        return Some("Its date code cannot be read: four figures, week and year, as in 2325.".into());
    };
    let (standing, _, says) = tire_age::severity(code.age_in_years(today?), old_years);
    (standing != crate::judgement::rules::Severity::Good).then(|| says.to_owned())
}

/// By the depths of the four on the car: what differs, and the change that this set allows for it.
fn rotating(tires: &[Rolling<'_>], arrangement: Arrangement) -> Option<String> {
    let at = |position: Position| {
        let tire = tires.iter().find(|tire| tire.position == Some(position))?;
        Some((tire.depths_mm?.into_iter().reduce(f64::min)?, tire.is_directional))
    };
    // One that is done is not moved round but replaced.
    if tires.iter().any(|tire| tire.position.is_some() && tire.wear.left == Some(0.0)) {
        return None;
    }
    let four = Position::ALL.map(at);
    let [(fl, _), (fr, _), (rl, _), (rr, _)] = [four[0]?, four[1]?, four[2]?, four[3]?];
    let is_directional = four.into_iter().flatten().any(|(_, directional)| directional);
    let allowed = rotations(arrangement, is_directional);
    let (front, rear) = (f64::midpoint(fl, fr), f64::midpoint(rl, rr));
    let between_axles = front - rear;
    let between_sides = [(fl, fr), (rl, rr)]
        .map(|(left, right)| left - right)
        .into_iter()
        .max_by(|one, other| one.abs().total_cmp(&other.abs()))
        .unwrap_or(0.0);
    let is_by_axle = between_axles.abs() >= WORTH_ROTATING_MM;
    let is_by_side = between_sides.abs() >= WORTH_ROTATING_MM;
    // The way that evens out what differs; a cross does both.
    let wanted: &[Rotation] = match (is_by_axle, is_by_side) {
        (false, false) => return None,
        (true, true) => &[Rotation::Cross, Rotation::FrontToRear, Rotation::SideToSide],
        (true, false) => &[Rotation::FrontToRear],
        (false, true) => &[Rotation::SideToSide],
    };
    let why = match (is_by_axle, is_by_side) {
        (true, true) => "The axles differ, and so do the sides",
        (true, false) if between_axles > 0.0 => "The rear wears faster",
        (true, false) => "The front wears faster",
        _ => "One side wears faster",
    };
    let apart = between_axles.abs().max(between_sides.abs());
    Some(match wanted.iter().find(|way| allowed.contains(way)) {
        Some(way) => {
            let puts_worn_behind = between_axles <= -WORTH_ROTATING_MM && *way != Rotation::SideToSide;
            let behind =
                if puts_worn_behind { " That puts the worn pair behind: not before rain." } else { "" };
            format!("{why} ({apart:.1} mm): change {}.{behind}", way.words())
        }
        None => {
            let kind = match (arrangement, is_directional) {
                (Arrangement::Staggered, true) => "a staggered set with a turning direction",
                (Arrangement::Staggered, false) => "a staggered set",
                (Arrangement::Square, _) => "tires with a turning direction",
            };
            format!("{why} ({apart:.1} mm), but {kind} cannot be changed round for it without remounting.")
        }
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::road::tread::{Depths, wear};

    /// A tire of three readings, the last one given; its season in thousands of kilometres or runs.
    fn season(last: [f64; 3]) -> Wear {
        let readings = [(0.0, [8.0; 3]), (10.0, last.map(|mm| f64::midpoint(8.0, mm))), (20.0, last)]
            .map(|(at, mm)| Depths { at, mm });
        wear(&readings, 1.6)
    }

    fn rolling(position: Position, last: [f64; 3], season: &Wear) -> Rolling<'_> {
        Rolling {
            position: Some(position),
            wear: season,
            depths_mm: Some(last),
            last_stretch: Some(10.0),
            is_directional: false,
            is_asymmetric: false,
            is_turned_over: false,
            date_code: "",
        }
    }

    fn of_set(depths: [f64; 4], arrangement: Arrangement, is_directional: bool) -> Option<String> {
        let seasons = depths.map(|mm| season([mm; 3]));
        let tires: Vec<Rolling<'_>> = (0..4)
            .map(|at| Rolling { is_directional, ..rolling(Position::ALL[at], [depths[at]; 3], &seasons[at]) })
            .collect();
        let mut found = upkeep(&tires, Some(arrangement), 1.6, 6.0, None);
        found.retain(|one| one.upkeep == Upkeep::Rotate);
        found.pop().map(|one| one.says)
    }

    /// Common practice, every kind of set: square any way, square with a turning direction front to rear only,
    /// staggered side to side only, staggered with a turning direction not at all; and what differs by axle, by side,
    /// both or nothing.
    #[test]
    fn rotation_by_kind_of_set_and_by_what_differs() {
        use Arrangement::{Square, Staggered};
        let (even, axle, side, both) =
            ([6.0; 4], [7.0, 7.0, 5.0, 5.0], [7.0, 5.5, 7.0, 5.5], [7.0, 5.5, 5.5, 4.0]);
        let ways = ["on the same side", "on the same axle", "crossing over", "cannot be changed"];
        for (depths, arrangement, is_directional, expected) in [
            (axle, Square, false, Some(0)),
            (side, Square, false, Some(1)),
            (both, Square, false, Some(2)),
            (axle, Square, true, Some(0)),
            (side, Square, true, Some(3)),
            (both, Square, true, Some(0)),
            (axle, Staggered, false, Some(3)),
            (side, Staggered, false, Some(1)),
            (both, Staggered, false, Some(1)),
            (axle, Staggered, true, Some(3)),
            (side, Staggered, true, Some(3)),
            (both, Staggered, true, Some(3)),
            (even, Square, false, None),
            (even, Staggered, true, None),
        ] {
            let says = of_set(depths, arrangement, is_directional);
            let found = says.as_ref().map(|says| {
                ways.iter().position(|way| says.contains(way)).unwrap_or_else(|| panic!("{says}"))
            });
            assert_eq!(found, expected, "{depths:?} {arrangement:?} {is_directional}: {says:?}");
        }
        let says = of_set([5.0, 5.0, 7.0, 7.0], Square, false).unwrap();
        assert!(says.starts_with("The front wears faster (2.0 mm)"), "{says}");
        // Common practice: the deeper pair behind.
        assert!(says.contains("worn pair behind"), "{says}");
        let says = of_set(axle, Square, false).unwrap();
        assert!(!says.contains("behind"), "{says}");
    }

    #[test]
    fn nothing_is_said_of_rotating_without_sizes_or_with_a_tire_unread() {
        let one = season([5.0; 3]);
        let tires = Position::ALL.map(|position| rolling(position, [5.0; 3], &one));
        let worn = season([3.0; 3]);
        let mut uneven = tires;
        uneven[0] = rolling(Position::FrontLeft, [3.0; 3], &worn);
        let rotates = |tires: &[Rolling<'_>], arrangement| {
            upkeep(tires, arrangement, 1.6, 6.0, None).iter().any(|one| one.upkeep == Upkeep::Rotate)
        };
        assert!(rotates(&uneven, Some(Arrangement::Square)));
        assert!(!rotates(&uneven, None));
        let done = season([1.5; 3]);
        let mut worn_out = uneven;
        worn_out[0] = rolling(Position::FrontLeft, [1.5; 3], &done);
        assert!(!rotates(&worn_out, Some(Arrangement::Square)), "it is replaced first");
        uneven[3].depths_mm = None;
        assert!(!rotates(&uneven, Some(Arrangement::Square)));
        uneven[3] = Rolling { position: None, ..tires[3] };
        assert!(!rotates(&uneven, Some(Arrangement::Square)), "off the car is not on it");
    }

    /// Common practice: a marked outside stays outside; an arrow sends it to the other side of the car.
    #[test]
    fn turning_over_obeys_the_marks() {
        let outer = [5.0, 5.0, 4.0];
        let worn = season(outer);
        for (is_directional, is_asymmetric, expected) in [
            (false, false, "Turn it over"),
            (true, false, "other side of the car"),
            (false, true, "no turning over"),
            (true, true, "no turning over"),
        ] {
            // Read often: its end is more than two stretches away.
            let tire = Rolling {
                is_directional,
                is_asymmetric,
                last_stretch: Some(5.0),
                ..rolling(Position::FrontLeft, outer, &worn)
            };
            let found = upkeep(&[tire], None, 1.6, 6.0, None);
            assert_eq!(found.len(), 1, "{found:?}");
            assert!(found[0].says.contains(expected) && found[0].says.contains("outer"), "{found:?}");
        }
        let even = season([5.0; 3]);
        let tire = rolling(Position::FrontLeft, [5.0; 3], &even);
        assert!(upkeep(&[tire], None, 1.6, 6.0, None).is_empty());
        let gone = [4.0, 3.0, 2.0];
        let worn = season(gone);
        let found = upkeep(&[rolling(Position::FrontLeft, gone, &worn)], None, 1.6, 6.0, None);
        assert!(found.iter().all(|one| one.upkeep == Upkeep::Order), "not worth mounting: {found:?}");
    }

    #[test]
    fn a_tire_is_ordered_two_stretches_ahead_and_one_at_its_limit_is_not_driven() {
        // 0.2 mm each unit: at 5.6 mm the limit of 1.6 is 20 units away, two stretches of ten.
        for (last, expected) in [(4.0, Some("two more")), (5.7, None), (1.5, Some("not driven on"))] {
            let worn = season([last; 3]);
            let found = upkeep(&[rolling(Position::RearLeft, [last; 3], &worn)], None, 1.6, 6.0, None);
            let says = found.iter().find(|one| one.upkeep == Upkeep::Order).map(|one| one.says.as_str());
            assert_eq!(says.is_some(), expected.is_some(), "{last}: {found:?}");
            assert!(says.unwrap_or_default().contains(expected.unwrap_or_default()), "{last}: {says:?}");
        }
    }

    #[test]
    fn age_is_the_ledgers_word() {
        let even = season([7.0; 3]);
        let today = Some(Day { year: 2026, day_of_year: 153 });
        for (date_code, says) in [
            ("2025", None),
            ("", None),
            ("2019", Some("inspect")),
            ("DOT 2015", Some("not to be used")),
            ("203", Some("cannot be read")),
        ] {
            let tire = Rolling { date_code, ..rolling(Position::FrontLeft, [7.0; 3], &even) };
            let found = upkeep(&[tire], None, 1.6, 6.0, today);
            assert_eq!(found.iter().any(|one| one.upkeep == Upkeep::Inspect), says.is_some(), "{date_code}");
            assert!(found.iter().all(|one| one.says.contains(says.unwrap_or_default())), "{found:?}");
        }
    }
}
