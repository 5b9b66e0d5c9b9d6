//! The fit window: for each rim width the offsets that clear everything that was read.
//!
//! Inboard obstacles bound the offset from above, outboard ones from below; each edge knows which obstacle
//! sets it. Sides that nobody measured are open. The edges are roots of the very room that the fit judges: moving a wheel
//! sideways moves its outline and nothing else, so most come in closed form.

mod edge;
mod known;
mod limit;

use crate::car::corner::{CarSide, Feature, Obstacle};
use crate::car::style::StyleTarget;
use crate::judgement::case::AxleCase;
use crate::judgement::clearance::brake::brake_blocks;
use crate::judgement::clearance::{Verdict, offsets_for, word_past_the_lip};
use crate::parts::tire::dimensions::{overall_diameter, sidewall};
use crate::parts::tire::rims::{PermittedRims, RimFit, measuring_rim};
use crate::parts::tire::{Construction, MetricSize, Prefix, Size, Tire};
use crate::parts::wheel::Wheel;
use crate::setup::standard_sizes::sections_mm;
use crate::setup::{ListedTire, Setup};
use crate::values::codes::{Offset, RimWidth};
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity};
pub(crate) use edge::{FURTHEST_MM, Root, is_hopeless, root};
pub(crate) use known::KnownEdges;
use limit::Limit;

/// What of a width is wanted.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Wanted {
    /// All of its edges.
    Whole,
    /// All of them if some offset clears; otherwise nothing.
    IfOpen,
}

/// Which tire goes on each rim width.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum TireChoice {
    /// The same tire on every width.
    #[default]
    Same,
    /// The size that stands squarest on the width, of the diameter nearest to the planned one.
    NearestSquare,
}

/// An edge of the window.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Edge {
    /// The offset at which the verdict changes, in millimetres.
    pub offset_mm: f64,
    /// Which part sets it.
    pub bound_by: Feature,
    /// On which side of the car.
    pub side: Option<CarSide>,
}

/// One rim width of the window.
#[derive(Debug, Clone, PartialEq)]
pub struct WidthWindow {
    /// The rim width.
    pub rim_width: RimWidth,
    /// The tire it was tried with.
    pub tire: Option<Tire>,
    /// Whether the tire may be put on this width.
    pub is_permitted: bool,
    /// Least offset that clears, set from outside; `None` is open.
    pub least: Option<Edge>,
    /// Most offset that clears, set from inside; `None` is open.
    pub most: Option<Edge>,
    /// Where it is meant to stand outside of the fender's lip and the lip sets no edge: the word of a wheel that does.
    pub past_the_lip: Option<Verdict>,
    /// Parts that no offset clears: what they meet does not move sideways.
    pub blocked_by: Vec<Feature>,
    /// The offsets of the wanted style: least and most; `None` is open.
    pub wanted: Option<(Option<f64>, Option<f64>)>,
}

impl WidthWindow {
    /// Whether any offset clears.
    pub fn is_open(&self) -> bool {
        let crossed = self.least.zip(self.most).is_some_and(|(least, most)| least.offset_mm > most.offset_mm);
        self.blocked_by.is_empty() && !crossed
    }

    /// How much room is missing between the two edges; `None` where there is some.
    pub fn short_by(&self) -> Option<Length> {
        let (least, most) = self.least.zip(self.most)?;
        (least.offset_mm > most.offset_mm).then(|| Length::mm(least.offset_mm - most.offset_mm))
    }

    /// Whether this offset clears.
    pub fn clears(&self, offset_mm: f64) -> bool {
        self.blocked_by.is_empty()
            && self.least.is_none_or(|edge| offset_mm >= edge.offset_mm)
            && self.most.is_none_or(|edge| offset_mm <= edge.offset_mm)
    }
}

/// A planned setup on another rim width with the tire that goes there, at offset 0: where the wheel stands is what is sought. What
/// a list says of a wheel's width over its flanges, or of a tire, is of that very one alone. `None` without a wheel.
pub(crate) fn on_width(planned: &Setup, width: RimWidth, tire: Option<Tire>) -> Option<Setup> {
    let wheel = planned.wheel?;
    let mut listed = planned.listed;
    if wheel.width != width {
        listed.wheel_overall_width = None;
    }
    if tire != planned.tire {
        listed.tire = ListedTire::default();
    }
    let wheel = Some(Wheel { width, offset: Offset::from_mm(0.0), ..wheel });
    Some(Setup { wheel, tire, listed, ..*planned })
}

/// The widest permitted rim that clears, and the one after it: what stops the next half inch. `None` while no
/// side is bounded, or no permitted width clears and none could.
pub fn says(windows: &[WidthWindow]) -> Option<Phrase> {
    let is_measured = |window: &WidthWindow| {
        window.least.is_some() || window.most.is_some() || !window.blocked_by.is_empty()
    };
    if !windows.iter().any(is_measured) {
        return None;
    }
    let width = |window: &WidthWindow| Quantity::rim_inches(window.rim_width.code());
    let widest = windows.iter().rposition(|window| window.is_open() && window.is_permitted);
    let (phrase, next) = match widest {
        Some(at) => {
            let window = &windows[at];
            let phrase = Phrase::new("Widest that clears: ").quantity(width(window)).text(", ");
            let offset = |edge: Edge| format!("ET {:.1}", edge.offset_mm);
            let phrase = match (window.least, window.most) {
                (Some(least), Some(most)) => {
                    phrase.text(format!("{} to {:.1}", offset(least), most.offset_mm))
                }
                (Some(least), None) => {
                    phrase.text(format!("{} and more, inboard not measured", offset(least)))
                }
                (None, Some(most)) if window.past_the_lip == Some(Verdict::Clears) => {
                    phrase.text(format!("{} and less, outside the lip as wanted", offset(most)))
                }
                (None, Some(most)) if window.past_the_lip.is_some() => phrase.text(format!(
                    "{} and less, outside the lip as wanted once the gap under the arch and the bump travel are measured",
                    offset(most)
                )),
                (None, Some(most)) => {
                    phrase.text(format!("{} and less, outboard not measured", offset(most)))
                }
                (None, None) => phrase.text("any offset"),
            };
            (phrase.text("."), windows.get(at + 1))
        }
        None => {
            (Phrase::new("No permitted width clears."), windows.iter().find(|window| window.is_permitted))
        }
    };
    let Some(next) = next else { return Some(phrase) };
    let phrase = phrase.text(" ").quantity(width(next));
    Some(match (next.short_by(), next.least, next.most) {
        _ if !next.blocked_by.is_empty() => {
            let names: Vec<&str> = next.blocked_by.iter().map(|part| part.facts().name).collect();
            phrase.text(format!(" is stopped by the {} at any offset.", names.join(" and the ")))
        }
        (Some(short), Some(least), Some(most)) => phrase.text(" is ").quantity(Quantity::length(short)).text(
            format!(" short between {} and {}.", least.bound_by.facts().name, most.bound_by.facts().name),
        ),
        _ if !next.is_permitted => phrase.text(" is outside of the tire's permitted rims."),
        _ => phrase.text(" clears as well."),
    })
}

/// The half-inch widths round a planned and a fitted wheel that a window is worth drawing for.
pub fn widths_round(fitted: Option<&Setup>, planned: Option<&Setup>) -> Vec<RimWidth> {
    let width = |setup: Option<&Setup>| Some(setup?.wheel?.width.code());
    let there: Vec<f64> = [width(fitted), width(planned)].into_iter().flatten().collect();
    let (Some(least), Some(most)) =
        (there.iter().copied().reduce(f64::min), there.iter().copied().reduce(f64::max))
    else {
        return Vec::new();
    };
    let first = ((least - 1.0) * 2.0).floor() as i32;
    let last = ((most + 2.0) * 2.0).ceil() as i32;
    (first..=last).filter_map(|halves| RimWidth::from_code(f64::from(halves) / 2.0)).collect()
}

impl AxleCase<'_> {
    /// The window of these widths for wheels and tires like the planned setup's, its spacer included.
    ///
    /// The brake rules a width out or does not, as it stands at the planned offset. A width whose wheel cannot be placed is
    /// left out: the planned setup names no wheel.
    pub fn window(
        &self,
        planned: &Setup,
        choice: TireChoice,
        widths: &[RimWidth],
        target: Option<StyleTarget>,
    ) -> Vec<WidthWindow> {
        let mut windows = window_beside_the_brake(self, planned, choice, widths, target);
        for window in &mut windows {
            apply_the_brake(self, planned, window);
        }
        windows
    }
}

/// The window of a setup's own width, with edges that are known already; `None` where no offset clears.
pub(crate) fn open_window_of_its_width(
    case: &AxleCase<'_>,
    planned: &Setup,
    known: &mut KnownEdges,
) -> Option<WidthWindow> {
    let mut window = window_of(case, known, None, Wanted::IfOpen)?;
    apply_the_brake(case, planned, &mut window);
    Some(window).filter(WidthWindow::is_open)
}

fn apply_the_brake(case: &AxleCase<'_>, planned: &Setup, window: &mut WidthWindow) {
    let wheel = planned.wheel.map(|wheel| Wheel { width: window.rim_width, ..wheel });
    window.blocked_by.extend(brake_blocks(case, &Setup { wheel, ..*planned }));
}

/// The same without the brake: where that is asked wheel by wheel.
pub fn window_beside_the_brake(
    case: &AxleCase<'_>,
    planned: &Setup,
    choice: TireChoice,
    widths: &[RimWidth],
    target: Option<StyleTarget>,
) -> Vec<WidthWindow> {
    let squarest = match (choice, planned.tire) {
        (TireChoice::NearestSquare, Some(tire)) => sizes_near(&tire.size),
        _ => Vec::new(),
    };
    let at = |width: &RimWidth| {
        let tire = planned.tire.map(|tire| match nearest_square(&squarest, *width, &tire.size) {
            Some(size) if size != tire.size => Tire { size, service: None, ..tire },
            _ => tire,
        });
        // Each width is another setup, and knows no edge of the others.
        let setup = on_width(planned, *width, tire)?;
        window_of(case, &mut KnownEdges::of(&setup)?, target, Wanted::Whole)
    };
    widths.iter().filter_map(at).collect()
}

/// The window for wheels and tires of one size, whatever their offset. `None` without a wheel; also where the caller wants
/// open windows alone and this one is closed.
fn window_of(
    case: &AxleCase<'_>,
    known: &mut KnownEdges,
    target: Option<StyleTarget>,
    wanted: Wanted,
) -> Option<WidthWindow> {
    let stand = known.stand(case);
    let (setup, spacer) = (*stand.setup(), stand.spacer());
    let width = setup.wheel?.width;
    let mut window = WidthWindow {
        rim_width: width,
        tire: setup.tire,
        is_permitted: setup.permitted_rims().is_none_or(|rims| rims.judge(width) == RimFit::Permitted),
        least: None,
        most: None,
        past_the_lip: None,
        blocked_by: Vec::new(),
        wanted: target.and_then(|target| offsets_for(case, target, &setup)),
    };
    let mut obstacles: Vec<&Obstacle> =
        case.resolved.nearest().filter(|one| !one.feature.is_of_the_brake()).collect();
    if wanted == Wanted::IfOpen {
        // What is known already costs nothing, and may close it.
        obstacles.sort_by_key(|obstacle| !known.knows(case, obstacle));
    }
    for obstacle in obstacles {
        if wanted == Wanted::IfOpen && !window.is_open() {
            return None;
        }
        let word = word_past_the_lip(case, obstacle, &stand).filter(|word| !word.rules_out());
        if word.is_some() {
            window.past_the_lip = window.past_the_lip.max(word);
            continue;
        }
        match edge::edge(case, obstacle, &stand, known) {
            Limit::Open => {}
            Limit::Never => {
                if !window.blocked_by.contains(&obstacle.feature) {
                    window.blocked_by.push(obstacle.feature);
                }
            }
            Limit::InboardOf(center) => {
                let edge = edge_of(obstacle, spacer - center);
                if window.least.is_none_or(|least| least.offset_mm < edge.offset_mm) {
                    window.least = Some(edge);
                }
            }
            Limit::OutboardOf(center) => {
                let edge = edge_of(obstacle, spacer - center);
                if window.most.is_none_or(|most| most.offset_mm > edge.offset_mm) {
                    window.most = Some(edge);
                }
            }
        }
    }
    Some(window)
}

fn edge_of(obstacle: &Obstacle, offset_mm: f64) -> Edge {
    Edge { offset_mm, bound_by: obstacle.feature, side: obstacle.side }
}

/// Metric sizes on the same rim code, one for each section width, of the overall diameter nearest to this one's.
pub fn sizes_near(size: &Size) -> Vec<Size> {
    let diameter = overall_diameter(size).as_mm();
    let height = sidewall(size).as_mm();
    sections_mm()
        .filter_map(|section| {
            let aspect = ((height / f64::from(section) * 100.0 / 5.0).round() * 5.0).clamp(20.0, 85.0);
            let near =
                MetricSize::new(Prefix::None, section, aspect as u32, Construction::Radial, size.rim())?;
            let near = Size::Metric(near);
            let change = (overall_diameter(&near).as_mm() / diameter - 1.0).abs();
            (change <= 0.04).then_some(near)
        })
        .collect()
}

/// The size whose measuring rim is nearest to a width; of equally near ones the nearer in diameter.
fn nearest_square(sizes: &[Size], width: RimWidth, like: &Size) -> Option<Size> {
    let diameter = overall_diameter(like).as_mm();
    let rank = |size: &Size| {
        let off_width = (measuring_rim(size).code() - width.code()).abs();
        let off_diameter = (overall_diameter(size).as_mm() - diameter).abs();
        (off_width, off_diameter)
    };
    sizes
        .iter()
        .filter(|size| PermittedRims::estimated(size).judge(width) == RimFit::Permitted)
        .min_by(|a, b| {
            let (a, b) = (rank(a), rank(b));
            a.0.total_cmp(&b.0).then(a.1.total_cmp(&b.1))
        })
        .copied()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::corner::{Corner, Moving, Reading, Steer};
    use crate::car::lever::{Lever, Levers};
    use crate::car::limits::HouseLimits;
    use crate::setup::Axle;

    /// A front corner with a part of every kind of edge: a wall, a strut, a perch, a spot, an arch, and what is met at lock.
    fn corner(fitted: Setup) -> Corner {
        let read =
            |feature: Feature, gap: f64| Reading::new(feature, Length::mm(gap), Length::mm(1.0), fitted);
        let at = |feature: Feature, gap: f64, radius: f64| Reading {
            radius: Some(Length::mm(radius)),
            ..read(feature, gap)
        };
        let readings = vec![
            read(Feature::FenderLateral, 14.0),
            read(Feature::Arch, 62.0),
            at(Feature::Strut, 16.0, 260.0),
            at(Feature::SpringPerch, 18.0, 300.0),
            at(Feature::Knuckle, 15.0, 190.0),
            Reading { steer: Steer::LockLeft, ..read(Feature::LinerAhead, 25.0) },
            Reading { steer: Steer::LockRight, ..read(Feature::SillBehind, 22.0) },
        ];
        let car = crate::car::Car::default();
        let moving = Some(Moving::of(&car, Axle::Front, Some(&fitted)));
        Corner { readings, camber_deg: Some(-1.0), moving, ..Corner::default() }
    }

    /// Work on a car in some mixture.
    fn mixtures() -> Vec<Levers> {
        let mut all = vec![Levers::default()];
        for lip in [0.0, 5.0, 10.0] {
            for camber in [0.0, -1.0, -2.0] {
                for height in [-20.0, 0.0, 25.0] {
                    let levers = Levers::default().with(Lever::LipRolled, lip);
                    all.push(levers.with(Lever::Camber, camber).with(Lever::RideHeight, height));
                }
            }
        }
        all
    }

    #[test]
    fn edges_that_are_known_already_are_the_ones_that_would_be_found() {
        let fitted: Setup = "17x7.5 ET45 225/45R17".parse().unwrap();
        let (corner, limits, none) = (corner(fitted), HouseLimits::DEFAULT, Levers::default());
        let resolved = corner.resolve();
        let case = AxleCase::new(Axle::Front, &corner, &resolved, &fitted, &limits, &none);
        let mut opened = 0;
        let plans =
            ["18x8.5 ET38 245/40R18", "17x8 ET40 235/45R17", "17x7.5 ET42 225/45R17", "19x9 ET30 255/35R19"];
        for planned in plans {
            let planned: Setup = planned.parse().unwrap();
            let mut shared = KnownEdges::of(&planned).unwrap();
            let mut open = 0;
            for levers in mixtures() {
                let worked = AxleCase { levers: &levers, ..case };
                let alone = is_hopeless(&worked, &mut KnownEdges::of(&planned).unwrap());
                assert_eq!(is_hopeless(&worked, &mut shared), alone, "{planned} with {levers:?}");
                let width = planned.wheel.unwrap().width;
                let whole = worked.window(&planned, TireChoice::Same, &[width], None).remove(0);
                let whole = Some(whole).filter(WidthWindow::is_open);
                assert_eq!(
                    open_window_of_its_width(&worked, &planned, &mut shared),
                    whole,
                    "{planned} with {levers:?}"
                );
                open += usize::from(whole.is_some());
                assert!(!alone || whole.is_none());
            }
            // Each edge was sought once for all that leaves it where it is.
            assert!(shared.count() < mixtures().len() * resolved.obstacles.len(), "{}", shared.count());
            opened += open;
        }
        // Both answers were met.
        assert!((1..plans.len() * mixtures().len()).contains(&opened), "{opened}");
    }

    #[test]
    fn an_edge_is_where_the_word_turns() {
        let fitted: Setup = "17x7.5 ET45 225/45R17".parse().unwrap();
        let (corner, limits, none) = (corner(fitted), HouseLimits::DEFAULT, Levers::default());
        let resolved = corner.resolve();
        let case = AxleCase::new(Axle::Front, &corner, &resolved, &fitted, &limits, &none);
        let planned: Setup = "17x7.5 ET45 225/45R17".parse().unwrap();
        let window =
            open_window_of_its_width(&case, &planned, &mut KnownEdges::of(&planned).unwrap()).unwrap();
        for edge in [window.least, window.most].into_iter().flatten() {
            let rules_out = |offset: f64| {
                let wheel = planned.wheel.map(|wheel| Wheel { offset: Offset::from_mm(offset), ..wheel });
                let line = case.clearance_of(edge.bound_by, &Setup { wheel, ..planned }).unwrap();
                line.verdict.rules_out()
            };
            let inward = if window.most == Some(edge) { 1.0 } else { -1.0 };
            assert!(rules_out(edge.offset_mm + inward * 0.01), "{edge:?}");
            assert!(!rules_out(edge.offset_mm - inward * 0.01), "{edge:?}");
        }
    }
}
