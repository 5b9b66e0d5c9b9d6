//! Whether what somebody drew can be a brake or the inside of a wheel at all: a drawing in another unit, or lying elsewhere
//! on its sheet, looks like any other until its size is held against what cars have.

use crate::values::working::Source;

/// Where the bounds come from.
pub const SOURCE: Source =
    Source::common_practice("calipers and rims of passenger cars, from 10 to 26 in rims");

/// The outermost radius of what stands in a barrel, and of a barrel, in millimetres.
const OUTERMOST_R: (f64, f64) = (80.0, 340.0);
/// How long a profile is along the axle.
const LENGTH_Y: (f64, f64) = (3.0, 420.0);
/// How far its middle lies from the hub face.
const MIDDLE_Y: f64 = 220.0;

/// A profile's extent, in millimetres, and what is odd about it.
#[derive(Debug, Clone, PartialEq)]
pub struct Drawn {
    /// Least and most y.
    pub y: (f64, f64),
    /// Least and most r.
    pub r: (f64, f64),
    /// Where it begins and ends, when it is open.
    pub open_ends: Option<[(f64, f64); 2]>,
    /// What must be answered before it counts; `None` when it can be what it is taken for.
    pub asks: Option<String>,
}

/// Ends nearer than this are one, in millimetres.
const CLOSED_WITHIN: f64 = 0.2;

/// Looks at points of (y, r); `None` for fewer than two.
pub fn look_at(points: &[(f64, f64)]) -> Option<Drawn> {
    let (first, last) = points.first().zip(points.last()).filter(|_| points.len() > 1)?;
    let range = |of: fn(&(f64, f64)) -> f64| {
        points
            .iter()
            .map(of)
            .fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), one| (low.min(one), high.max(one)))
    };
    let (y, r) = (range(|point| point.0), range(|point| point.1));
    let long = y.1 - y.0;
    let middle = f64::midpoint(y.0, y.1);
    let asks = if !(OUTERMOST_R.0..=OUTERMOST_R.1).contains(&r.1) {
        Some(format!(
            "Its outermost radius comes to {:.1} mm; in a car's wheel it lies between {} and {} mm. Another unit, or the \
             axle elsewhere on the sheet?",
            r.1, OUTERMOST_R.0, OUTERMOST_R.1
        ))
    } else if !(LENGTH_Y.0..=LENGTH_Y.1).contains(&long) {
        Some(format!(
            "It is {long:.1} mm long along the axle; {} to {} mm is what there is. Another unit?",
            LENGTH_Y.0, LENGTH_Y.1
        ))
    } else if middle.abs() > MIDDLE_Y {
        Some(format!(
            "Its middle lies {:.0} mm {} of the hub face: is the origin of the drawing at the hub face?",
            middle.abs(),
            if middle > 0.0 { "outboard" } else { "inboard" }
        ))
    } else if r.0 < 0.0 {
        Some("Part of it lies below the axle: r counts from the axle upward.".to_owned())
    } else {
        None
    };
    let is_open = (first.0 - last.0).hypot(first.1 - last.1) > CLOSED_WITHIN;
    Some(Drawn { y, r, open_ends: is_open.then_some([*first, *last]), asks })
}

#[cfg(test)]
mod tests {
    use super::*;

    const CALIPER: [(f64, f64); 4] = [(-55.0, 120.0), (-55.0, 175.0), (10.0, 178.0), (14.0, 120.0)];

    fn scaled(by: f64, along: f64) -> Option<String> {
        let points: Vec<(f64, f64)> = CALIPER.iter().map(|(y, r)| (y * by + along, r * by)).collect();
        look_at(&points).unwrap().asks
    }

    #[test]
    fn another_unit_or_another_place_on_the_sheet_asks() {
        assert_eq!(scaled(1.0, 0.0), None);
        for (by, along, says) in [
            (1.0 / 25.4, 0.0, "7.0 mm"),
            (25.4, 0.0, "4521.2 mm"),
            (0.1, 0.0, "17.8 mm"),
            (1.0, 400.0, "outboard of the hub face"),
            (1.0, -400.0, "inboard of the hub face"),
        ] {
            let asks = scaled(by, along).expect(says);
            assert!(asks.contains(says), "{asks}");
        }
        let below: Vec<(f64, f64)> = CALIPER.iter().map(|(y, r)| (*y, r - 121.0 + 0.0)).collect();
        assert!(look_at(&below).unwrap().asks.is_some());
    }

    #[test]
    fn an_open_line_is_told_where_it_is_open() {
        assert_eq!(look_at(&CALIPER).unwrap().open_ends, Some([CALIPER[0], CALIPER[3]]));
        let mut closed = CALIPER.to_vec();
        closed.push((-55.05, 120.0));
        assert_eq!(look_at(&closed).unwrap().open_ends, None);
        assert_eq!(look_at(&CALIPER[..1]), None);
    }
}
