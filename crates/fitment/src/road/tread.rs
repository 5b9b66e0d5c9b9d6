//! Tread as it wears: a straight line through what the gauge found, what is left, and the pattern in words.

use crate::values::working::Source;

/// Where patterns and their causes come from.
pub const SOURCE: Source = Source::common_practice("inner, middle and outer wear and what it usually says");

/// Legal minimum in the main grooves, in millimetres: UN and EU practice, from memory; local codes may want more.
pub const LEGAL_MM: f64 = 1.6;

/// What a run, or a thousand kilometres, costs of a tire's price, by the tread that it may still lose and loses each time.
/// `None` where none is left to lose.
///
/// ```
/// use fitment::road::tread::cost_of_wear;
/// // 200 for a tire with 6 mm to lose, half a millimetre a run.
/// let cost = cost_of_wear(200.0, 7.6, 1.6, 0.5).unwrap();
/// assert!((cost - 200.0 / 6.0 * 0.5).abs() < 1e-9);
/// assert_eq!(cost_of_wear(200.0, 1.6, 1.6, 0.5), None);
/// ```
pub fn cost_of_wear(price: f64, depth_mm: f64, limit_mm: f64, lost_mm: f64) -> Option<f64> {
    let usable_mm = depth_mm - limit_mm;
    (usable_mm > 0.0).then(|| price / usable_mm * lost_mm)
}

/// Depths of one tire at one time, in millimetres; `at` is the distance or the runs since it was mounted.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Depths {
    /// Thousands of kilometres, or runs.
    pub at: f64,
    /// Inner, middle and outer.
    pub mm: [f64; 3],
}

/// How a tire wears.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Pattern {
    /// Even across the tread.
    Even,
    /// More on the inside.
    InnerEdge,
    /// More on the outside.
    OuterEdge,
    /// More in the middle.
    Middle,
    /// More on both edges.
    BothEdges,
}

impl Pattern {
    /// In words, with what it usually says. Common practice.
    pub fn words(self) -> &'static str {
        match self {
            Self::Even => "even",
            Self::InnerEdge => "inner edge: much negative camber, or toe; have the alignment read",
            Self::OuterEdge => {
                "outer edge: hard cornering with little camber, or toe; have the alignment read"
            }
            Self::Middle => "middle: too much pressure",
            Self::BothEdges => "both edges: too little pressure",
        }
    }
}

/// Worn so much more in one place than in another it is a pattern, in millimetres. Judgement of ours.
const UNEVEN_MM: f64 = 0.6;
/// A depth that grows by more than the gauge may be off was misread, in millimetres.
const GAUGE_MM: f64 = 0.2;

/// Temperatures of a tire's tread just after a run, and what their spread says.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Heat {
    /// Even enough.
    Even,
    /// The middle is hottest.
    Middle,
    /// Both edges are hotter than the middle.
    BothEdges,
    /// The inner edge is much the hotter one.
    InnerEdge,
    /// The outer edge is the hotter one.
    OuterEdge,
}

/// So much the middle may stand over or under the mean of both edges, in kelvin. Common practice.
const MIDDLE_K: f64 = 6.0;
/// So much hotter the inner edge may be with camber that works, in kelvin. Common practice.
const INNER_K: f64 = 10.0;
/// So much hotter the outer edge may be, in kelvin. Common practice.
const OUTER_K: f64 = 3.0;

impl Heat {
    /// Of inner, middle and outer, in °C.
    pub fn of([inner, middle, outer]: [f64; 3]) -> Self {
        let beyond = middle - f64::midpoint(inner, outer);
        // Camber first: with one edge far hotter the mean of both says little of the pressure.
        if inner - outer > INNER_K {
            Self::InnerEdge
        } else if outer - inner > OUTER_K {
            Self::OuterEdge
        } else if beyond > MIDDLE_K {
            Self::Middle
        } else if beyond < -MIDDLE_K {
            Self::BothEdges
        } else {
            Self::Even
        }
    }

    /// In words, with what it usually says. Common practice.
    pub fn words(self) -> &'static str {
        match self {
            Self::Even => "even across the tread",
            Self::Middle => "middle hottest: too much pressure",
            Self::BothEdges => "both edges hotter than the middle: too little pressure",
            Self::InnerEdge => "inner edge much hotter: more negative camber than the corners use, or toe",
            Self::OuterEdge => "outer edge hotter: too little negative camber, or toe",
        }
    }
}

/// A season of one tire.
#[derive(Debug, Clone, PartialEq)]
pub struct Wear {
    /// Millimetres of tread for each unit of `at`, where it is used up first; `None` while it cannot be told.
    pub rate: Option<f64>,
    /// Standard error of that slope; `None` with fewer than three readings.
    pub plus_minus: Option<f64>,
    /// How much is left until the limit, in units of `at`; 0 when it is reached.
    pub left: Option<f64>,
    /// How it wears.
    pub pattern: Option<Pattern>,
    /// Readings that grew, by their place: kept, told, and left out of the rate.
    pub left_out: Vec<usize>,
}

/// Slope, intercept and the slope's standard error of a least-squares line.
fn line(points: &[(f64, f64)]) -> Option<(f64, f64, Option<f64>)> {
    let n = points.len() as f64;
    if points.len() < 2 {
        return None;
    }
    let mean = |of: fn(&(f64, f64)) -> f64| points.iter().map(of).sum::<f64>() / n;
    let (mx, my) = (mean(|p| p.0), mean(|p| p.1));
    let sxx: f64 = points.iter().map(|(x, _)| (x - mx).powi(2)).sum();
    if sxx <= 0.0 {
        return None;
    }
    let slope = points.iter().map(|(x, y)| (x - mx) * (y - my)).sum::<f64>() / sxx;
    let start = my - slope * mx;
    let off: f64 = points.iter().map(|(x, y)| (y - start - slope * x).powi(2)).sum();
    let error = (points.len() > 2).then(|| (off / (n - 2.0) / sxx).sqrt());
    Some((slope, start, error))
}

/// What readings in the order they were taken say, down to a depth at which the tire is done.
pub fn wear(readings: &[Depths], limit_mm: f64) -> Wear {
    let mut kept: Vec<Depths> = Vec::new();
    let mut left_out = Vec::new();
    for (place, reading) in readings.iter().enumerate() {
        let grew =
            kept.last().is_some_and(|before| (0..3).any(|at| reading.mm[at] > before.mm[at] + GAUGE_MM));
        if grew { left_out.push(place) } else { kept.push(*reading) }
    }
    let last_at = kept.last().map_or(0.0, |reading| reading.at);
    // Where it is used up first decides; of equal ones the first.
    let mut first: Option<(f64, f64, Option<f64>)> = None;
    for place in 0..3 {
        let points: Vec<(f64, f64)> = kept.iter().map(|reading| (reading.at, reading.mm[place])).collect();
        let Some((slope, start, error)) = line(&points) else { continue };
        let rate = -slope;
        let depth = start + slope * last_at;
        let left = if depth <= limit_mm {
            0.0
        } else if rate > 0.0 {
            (depth - limit_mm) / rate
        } else {
            f64::INFINITY
        };
        if first.is_none_or(|(least, ..)| left < least) {
            first = Some((left, rate, error));
        }
    }
    // What the gauge found last stands over the line: a tire that was read at its limit is done.
    let is_done = kept.last().is_some_and(|last| last.mm.iter().any(|depth| *depth <= limit_mm));
    let left = first.map(|(left, ..)| left).filter(|left| left.is_finite());
    Wear {
        rate: first.map(|(_, rate, _)| rate.max(0.0)),
        plus_minus: first.and_then(|(.., error)| error),
        left: if is_done { Some(0.0) } else { left },
        pattern: pattern(&kept),
        left_out,
    }
}

/// By what was worn since the first reading; by the depths themselves while there is only one.
fn pattern(kept: &[Depths]) -> Option<Pattern> {
    let last = kept.last()?;
    let worn = match kept {
        [_] => last.mm.map(|depth| -depth),
        [first, ..] => [0, 1, 2].map(|at| first.mm[at] - last.mm[at]),
        [] => return None,
    };
    let [inner, middle, outer] = worn;
    let edges = inner.min(outer);
    Some(if edges - middle >= UNEVEN_MM {
        Pattern::BothEdges
    } else if middle - inner.max(outer) >= UNEVEN_MM {
        Pattern::Middle
    } else if inner - outer >= UNEVEN_MM {
        Pattern::InnerEdge
    } else if outer - inner >= UNEVEN_MM {
        Pattern::OuterEdge
    } else {
        Pattern::Even
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn at(at: f64, mm: [f64; 3]) -> Depths {
        Depths { at, mm }
    }

    #[test]
    fn heat_says_what_the_wear_will_say() {
        for (celsius, heat) in [
            ([80.0, 78.0, 76.0], Heat::Even),
            ([80.0, 75.0, 70.0], Heat::Even),
            ([81.0, 75.0, 70.0], Heat::InnerEdge),
            ([70.0, 72.0, 73.0], Heat::Even),
            ([70.0, 72.0, 74.0], Heat::OuterEdge),
            ([75.0, 82.0, 75.0], Heat::Middle),
            ([75.0, 81.0, 75.0], Heat::Even),
            ([80.0, 73.0, 80.0], Heat::BothEdges),
        ] {
            assert_eq!(Heat::of(celsius), heat, "{celsius:?}");
        }
    }

    /// By `scipy.stats.linregress` of SciPy 1.17.1 (PyPI), run once over these readings.
    #[test]
    fn the_line_is_the_least_squares_one() {
        let (xs, ys) = ([0.0, 2.0, 5.0, 9.0, 12.0], [8.0, 7.4, 6.9, 5.6, 5.1]);
        let readings: Vec<Depths> = xs.iter().zip(ys).map(|(x, y)| at(*x, [y; 3])).collect();
        let found = wear(&readings, 1.6);
        let (slope, start, error) =
            (-0.245_884_773_662_551_5, 7.976_954_732_510_288, 0.014_739_846_132_473_268);
        assert!((found.rate.unwrap() + slope).abs() < 1e-12, "{found:?}");
        assert!((found.plus_minus.unwrap() - error).abs() < 1e-12);
        let left = (start + slope * 12.0 - 1.6) / -slope;
        assert!((found.left.unwrap() - left).abs() < 1e-9);
        assert_eq!(found.pattern, Some(Pattern::Even));
    }

    #[test]
    fn where_it_is_used_up_first_decides() {
        let found = wear(&[at(0.0, [7.0, 7.0, 7.0]), at(10.0, [4.0, 5.5, 5.5])], 1.6);
        assert!((found.rate.unwrap() - 0.3).abs() < 1e-12);
        assert!((found.left.unwrap() - 8.0).abs() < 1e-9);
        assert_eq!((found.pattern, found.plus_minus), (Some(Pattern::InnerEdge), None));
    }

    #[test]
    fn patterns_by_what_was_worn() {
        for (last, pattern) in [
            ([6.0, 6.0, 6.0], Pattern::Even),
            ([5.0, 6.0, 6.5], Pattern::InnerEdge),
            ([6.5, 6.0, 5.0], Pattern::OuterEdge),
            ([6.5, 5.0, 6.5], Pattern::Middle),
            ([5.0, 6.5, 5.0], Pattern::BothEdges),
            ([6.0, 6.2, 5.8], Pattern::Even),
        ] {
            let found = wear(&[at(0.0, [7.0; 3]), at(1.0, last)], 1.6);
            assert_eq!(found.pattern, Some(pattern), "{last:?}");
        }
    }

    #[test]
    fn a_depth_that_grows_is_told_and_left_out_and_nothing_is_made_of_one_reading() {
        let found = wear(&[at(0.0, [7.0; 3]), at(5.0, [8.0; 3]), at(10.0, [6.0; 3])], 1.6);
        assert_eq!(found.left_out, [1]);
        assert!((found.rate.unwrap() - 0.1).abs() < 1e-12);
        let one = wear(&[at(3.0, [7.0; 3])], 1.6);
        assert_eq!((one.rate, one.left, one.pattern), (None, None, Some(Pattern::Even)));
        let worn_out = wear(&[at(3.0, [4.0, 4.0, 1.6])], 1.6);
        assert_eq!((worn_out.rate, worn_out.left), (None, Some(0.0)), "one reading at the limit is enough");
        let above = wear(&[at(0.0, [2.0; 3]), at(1.0, [2.0; 3]), at(2.0, [2.0; 3]), at(3.0, [1.5; 3])], 1.6);
        assert_eq!(above.left, Some(0.0), "the line still says 1.65");
        let none = wear(&[], 1.6);
        assert_eq!((none.rate, none.pattern), (None, None));
        let done = wear(&[at(0.0, [3.0; 3]), at(1.0, [1.5; 3])], 1.6);
        assert_eq!(done.left, Some(0.0));
        let new = wear(&[at(0.0, [7.0; 3]), at(1.0, [7.0; 3])], 1.6);
        assert_eq!((new.rate, new.left), (Some(0.0), None), "nothing worn: no end is foretold");
    }
}
