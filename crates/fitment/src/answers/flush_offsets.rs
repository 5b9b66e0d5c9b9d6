//! Looks in figures: for each way a wheel can stand at the fender line, the offsets that give it on each rim width, what of
//! them also clears, and what the look asks for.

use crate::car::style::{Style, StyleTarget};
use crate::judgement::case::AxleCase;
use crate::judgement::clearance::{Verdict, offsets_for};
use crate::judgement::window::{TireChoice, on_width};
use crate::setup::Setup;
use crate::values::codes::RimWidth;
use crate::values::working::Source;

/// Where looks and what they ask come from.
pub const SOURCE: Source =
    Source::common_practice("tucked, flush, poke, stance at the top of the arch; no source");

/// Least and most offset in millimetres; `None` is open.
pub type Offsets = (Option<f64>, Option<f64>);

/// A look on one rim width.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LookOnWidth {
    /// The width.
    pub rim_width: RimWidth,
    /// The offsets that give the look.
    pub gives: Offsets,
    /// The part of them that clears what was read; `None` where none does, or where that is not known.
    pub clears: Option<Offsets>,
    /// Whether what decides of them was not read.
    pub is_to_be_measured: bool,
}

/// A look.
#[derive(Debug, Clone, PartialEq)]
pub struct Look {
    /// Its code: a style's, or `stance`.
    pub code: &'static str,
    /// What it asks for, in a sentence.
    pub asks: &'static str,
    /// Width by width, narrowest first.
    pub widths: Vec<LookOnWidth>,
}

/// The looks in the order they stand out of the fender: what each is of, and what it asks.
const LOOKS: [(&str, Style, bool, &str); 4] = [
    (
        "tucked",
        Style::Tucked,
        false,
        "Room inboard and under the arch decides; with the travel that is left the lip stays clear.",
    ),
    (
        "flush",
        Style::Flush,
        false,
        "The lip over full travel decides: rolling it frees room and does not move the visible line.",
    ),
    (
        "poke",
        Style::Poke,
        false,
        "The tread must be covered by law in many places: wider fenders or flares, and an inspector's word.",
    ),
    (
        "stance",
        Style::Flush,
        true,
        "A show setup by camber, stretch and height: uneven wear, less grip and load; not for every day, and inspected.",
    ),
];

fn within(a: Offsets, b: Offsets) -> Option<Offsets> {
    let larger = |a: Option<f64>, b: Option<f64>| match (a, b) {
        (Some(a), Some(b)) => Some(a.max(b)),
        (one, other) => one.or(other),
    };
    let smaller = |a: Option<f64>, b: Option<f64>| match (a, b) {
        (Some(a), Some(b)) => Some(a.min(b)),
        (one, other) => one.or(other),
    };
    let both = (larger(a.0, b.0), smaller(a.1, b.1));
    both.0.zip(both.1).is_none_or(|(least, most)| least <= most).then_some(both)
}

/// The looks of a setup on these rim widths; none while the fender lip was not read.
pub fn looks(case: &AxleCase<'_>, planned: &Setup, widths: &[RimWidth]) -> Vec<Look> {
    let windows_of = |case: &AxleCase<'_>| case.window(planned, TireChoice::Same, widths, None);
    let inside = windows_of(&AxleCase { wants_poke: false, ..*case });
    let outside = windows_of(&AxleCase { wants_poke: true, ..*case });
    let look = |(code, style, is_show, asks): (&'static str, Style, bool, &'static str)| {
        let target = StyleTarget { style, within: None, is_show };
        // Whoever wants poke is not held back by the lip itself, but by its edge at full bump.
        let windows = if style == Style::Poke { &outside } else { &inside };
        let on = |window: &crate::judgement::window::WidthWindow| {
            let setup = on_width(planned, window.rim_width, window.tire)?;
            let gives = offsets_for(case, target, &setup)?;
            let room = (window.least.map(|edge| edge.offset_mm), window.most.map(|edge| edge.offset_mm));
            let open = within(gives, room).filter(|_| window.is_open());
            let is_to_be_measured = open.is_some() && window.past_the_lip == Some(Verdict::MeasureFirst);
            let clears = open.filter(|_| !is_to_be_measured);
            Some(LookOnWidth { rim_width: window.rim_width, gives, clears, is_to_be_measured })
        };
        Look { code, asks, widths: windows.iter().filter_map(on).collect() }
    };
    LOOKS.into_iter().map(look).filter(|look| !look.widths.is_empty()).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn ranges_meet_or_do_not() {
        assert_eq!(within((Some(30.0), None), (None, Some(40.0))), Some((Some(30.0), Some(40.0))));
        assert_eq!(within((Some(30.0), Some(35.0)), (Some(36.0), None)), None);
        assert_eq!(within((None, None), (None, None)), Some((None, None)));
    }
}
