//! The fit window: for each rim width the offsets that clear everything that was read.
//!
//! Inboard obstacles bound the offset from above, outboard ones from below; each edge knows which obstacle
//! sets it. Sides that nobody measured are open. The edges are roots of the very room that the fit judges: moving a wheel
//! sideways moves its outline and nothing else, so most come in closed form.

use std::collections::HashMap;

use crate::case::AxleCase;
use crate::clearance::{MountedSetup, Verdict};
use crate::codes::{Offset, RimWidth};
use crate::corner::feature::BlocksFrom;
use crate::corner::{CarSide, Carrier, Feature, Obstacle, ObstacleShape};
use crate::length::Length;
use crate::setup::{ListedTire, Setup};
use crate::style::StyleTarget;
use crate::tire::dimensions::{overall_diameter, sidewall};
use crate::tire::rims::{PermittedRims, RimFit, measuring_rim};
use crate::tire::{Construction, MetricSize, Prefix, Size, Tire};
use crate::wheel::Wheel;
use crate::working::{Phrase, Quantity};

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
        let mut windows = self.window_beside_the_brake(planned, choice, widths, target);
        for window in &mut windows {
            self.heed_the_brake(planned, window);
        }
        windows
    }

    /// The window of a setup's own width, with edges that are known already; `None` where no offset clears.
    pub(crate) fn open_window_of_its_width(
        &self,
        planned: &Setup,
        known: &mut KnownEdges,
    ) -> Option<WidthWindow> {
        let mut window = self.at_width(planned, planned.wheel?.width, &[], None, known, Wanted::IfOpen)?;
        self.heed_the_brake(planned, &mut window);
        Some(window).filter(WidthWindow::is_open)
    }

    fn heed_the_brake(&self, planned: &Setup, window: &mut WidthWindow) {
        let wheel = planned.wheel.map(|wheel| Wheel { width: window.rim_width, ..wheel });
        window.blocked_by.extend(self.brake_blocks(&Setup { wheel, ..*planned }));
    }

    /// The same without the brake: where that is asked wheel by wheel.
    pub fn window_beside_the_brake(
        &self,
        planned: &Setup,
        choice: TireChoice,
        widths: &[RimWidth],
        target: Option<StyleTarget>,
    ) -> Vec<WidthWindow> {
        let squarest = match (choice, planned.tire) {
            (TireChoice::NearestSquare, Some(tire)) => sizes_near(&tire.size),
            _ => Vec::new(),
        };
        // Each width is another setup, and knows no edge of the others.
        let at = |width: &RimWidth| {
            self.at_width(planned, *width, &squarest, target, &mut KnownEdges::default(), Wanted::Whole)
        };
        widths.iter().filter_map(at).collect()
    }

    fn at_width(
        &self,
        planned: &Setup,
        width: RimWidth,
        squarest: &[Size],
        target: Option<StyleTarget>,
        known: &mut KnownEdges,
        wanted: Wanted,
    ) -> Option<WidthWindow> {
        let tire = planned.tire.map(|tire| match nearest_square(squarest, width, &tire.size) {
            Some(size) if size != tire.size => Tire { size, service: None, ..tire },
            _ => tire,
        });
        let setup = on_width(planned, width, tire)?;
        let stand = MountedSetup::of(&setup, self.planned_camber())?;
        let spacer = stand.spacer();
        let mut window = WidthWindow {
            rim_width: width,
            tire,
            is_permitted: setup.permitted_rims().is_none_or(|rims| rims.judge(width) == RimFit::Permitted),
            least: None,
            most: None,
            past_the_lip: None,
            blocked_by: Vec::new(),
            wanted: target.and_then(|target| self.offsets_for(target, &setup)),
        };
        let mut obstacles: Vec<&Obstacle> =
            self.resolved.obstacles.iter().filter(|one| !one.feature.is_of_the_brake()).collect();
        if wanted == Wanted::IfOpen {
            // What is known already costs nothing, and may close it.
            obstacles.sort_by_key(|obstacle| !known.knows(self, obstacle, Edges::Whole));
        }
        for obstacle in obstacles {
            if wanted == Wanted::IfOpen && !window.is_open() {
                return None;
            }
            let word = self.word_past_the_lip(obstacle, &stand).filter(|word| !word.rules_out());
            if word.is_some() {
                window.past_the_lip = window.past_the_lip.max(word);
                continue;
            }
            match known.edge(self, obstacle, Edges::Whole, || self.edge(obstacle, &stand)) {
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

    /// Where the rim's centre plane must stand for this obstacle to clear: the root of the very room that the fit judges.
    ///
    /// Most parts are met by one place of the section whatever the offset, and the band does not depend on it: the room is
    /// a straight line and its root is exact. Where it bends (a corner of metal met from beside or below, the rule at lock)
    /// the root is sought to [`ROOT_MM`].
    ///
    /// How sure the room is hardly changes with the offset, and evenly: the root of the room as written is sought first, how
    /// sure it is there is looked up, then the root of what is left less that, and so on along the line through the last two
    /// until it stands.
    fn edge(&self, obstacle: &Obstacle, stand: &MountedSetup) -> Limit {
        /// So near the ± at a root must be to the one it was sought with, in millimetres; and how often it is sought.
        const SETTLED_MM: f64 = 5e-4;
        const ROUNDS: usize = 8;
        let minimum = self.least(obstacle.feature).as_mm();
        let meeting = self.meeting(obstacle, stand);
        let likely = |center_y: f64| meeting.band_at(center_y).map(|band| band.likely().as_mm());
        let slack_of_all = |center_y: f64| Some(meeting.nominal_at(center_y)? - likely(center_y)? - minimum);
        let of_all = || self.edge_where(obstacle, stand.center_y(), stand, &slack_of_all);
        // A straight line's root is exact at once.
        let is_bent = match obstacle.place {
            // How sure a strut is hangs on how far from it the wheel stands: another lean turns it further away.
            ObstacleShape::Spot { .. } | ObstacleShape::Perch { .. } | ObstacleShape::Edge { .. } => true,
            _ => obstacle.reading.steer.is_at_lock(),
        };
        if !is_bent {
            return of_all();
        }
        // What the ± is taken to be: as it is at one place, by so much more for each millimetre from there.
        let (mut from, mut less, mut slope) = (stand.center_y(), 0.0, 0.0);
        for round in 0..ROUNDS {
            // A hair more than it is: the edge itself clears.
            let hair = if round == 0 { 0.0 } else { SETTLED_MM };
            let taken = |center_y: f64| less + slope * (center_y - from);
            let slack =
                |center_y: f64| Some(meeting.nominal_at(center_y)? - taken(center_y) - hair - minimum);
            let limit = self.edge_where(obstacle, from, stand, &slack);
            let center = match limit {
                Limit::InboardOf(center) | Limit::OutboardOf(center) => center,
                // Whether it is met nowhere is asked of the whole.
                Limit::Open | Limit::Never => break,
            };
            let Some(there) = likely(center) else { break };
            if round > 0 && (there - taken(center)).abs() <= hair {
                return limit;
            }
            let along = center - from;
            slope = if round > 0 && along.abs() > ROOT_MM { (there - less) / along } else { 0.0 };
            // Where it grows as the room does, this is not the place where the word turns.
            if slope.abs() > 0.5 {
                break;
            }
            (from, less) = (center, there);
        }
        of_all()
    }

    /// Whether no offset can clear what was read with wheels like this one, even as written and without any band: said quickly,
    /// since many sets of work on a car are tried and most of them do not do.
    pub(crate) fn is_hopeless(&self, setup: &Setup, known: &mut KnownEdges) -> bool {
        let Some(stand) = MountedSetup::of(setup, self.planned_camber()) else { return true };
        let (mut inmost, mut outmost) = (f64::NEG_INFINITY, f64::INFINITY);
        let obstacles = self.resolved.obstacles.iter().filter(|one| !one.feature.is_of_the_brake());
        for obstacle in obstacles {
            if self.may_pass(obstacle, &stand) {
                continue;
            }
            let minimum = self.least(obstacle.feature).as_mm();
            let meeting = std::cell::OnceCell::new();
            let slack = |center_y: f64| {
                let meeting = meeting.get_or_init(|| self.meeting(obstacle, &stand));
                Some(meeting.nominal_at(center_y)? - minimum)
            };
            let edge = || self.edge_where(obstacle, stand.center_y(), &stand, &slack);
            match known.edge(self, obstacle, Edges::AsWritten, edge) {
                Limit::Open => {}
                Limit::Never => return true,
                Limit::InboardOf(center) => outmost = outmost.min(center),
                Limit::OutboardOf(center) => inmost = inmost.max(center),
            }
        }
        inmost > outmost
    }

    /// Where the rim's centre plane must stand for so much to be left over, sought from `here` on.
    fn edge_where(
        &self,
        obstacle: &Obstacle,
        here: f64,
        stand: &MountedSetup,
        slack: &dyn Fn(f64) -> Option<f64>,
    ) -> Limit {
        let feature = obstacle.feature;
        let Some(left) = slack(here) else { return Limit::Open };
        let leans = if feature.carrier() == Carrier::Body { stand.camber_deg().to_radians() } else { 0.0 };
        let is_at_lock = obstacle.reading.steer.is_at_lock() && feature.facts().at_lock;
        match (obstacle.place, feature.blocks_from()) {
            (ObstacleShape::Wall { .. }, BlocksFrom::Outboard) => Limit::InboardOf(here + left / leans.cos()),
            (ObstacleShape::Wall { .. }, _) if !is_at_lock => Limit::OutboardOf(here - left / leans.cos()),
            (ObstacleShape::Edge { lean_deg, .. }, _) => {
                Limit::OutboardOf(here - left / lean_deg.to_radians().cos())
            }
            // A leaned wheel that stands further out stands higher at its top, or lower.
            (ObstacleShape::Ceiling { .. }, _) if leans.sin().abs() > 1e-9 => {
                let root = here - left / leans.sin();
                match (leans < 0.0, (-FURTHEST_MM..=FURTHEST_MM).contains(&root)) {
                    (_, false) => Limit::where_there_is(left),
                    (true, true) => Limit::InboardOf(root),
                    (false, true) => Limit::OutboardOf(root),
                }
            }
            (ObstacleShape::Ceiling { .. }, _) => Limit::where_there_is(left),
            (ObstacleShape::Beside { .. }, BlocksFrom::AheadOrBehind) if is_at_lock => {
                match root(slack, here, left, -1.0) {
                    Root::At(center) => Limit::InboardOf(center),
                    Root::Nowhere(is_clear) => Limit::where_there_is(if is_clear { 0.0 } else { -1.0 }),
                }
            }
            (ObstacleShape::Beside { .. }, _) => Limit::where_there_is(left),
            (ObstacleShape::Wall { .. } | ObstacleShape::Spot { .. } | ObstacleShape::Perch { .. }, _) => {
                match root(slack, here, left, 1.0) {
                    Root::At(center) => Limit::OutboardOf(center),
                    Root::Nowhere(is_clear) => Limit::where_there_is(if is_clear { 0.0 } else { -1.0 }),
                }
            }
        }
    }
}

/// How near a root is sought, in millimetres.
const ROOT_MM: f64 = 0.005;
/// No rim's centre plane stands further from a hub.
pub(crate) const FURTHEST_MM: f64 = 300.0;

/// Where the room left over is nothing.
pub(crate) enum Root {
    At(f64),
    /// Nowhere on a hub: whether it is clear everywhere.
    Nowhere(bool),
}

/// Seeks the root of what is left over, which grows by at most a millimetre for each the wheel moves by `away`: the step
/// that would do if it grew by as much, doubled until the sign turns, then false position with the stale end halved
/// (Illinois).
pub(crate) fn root(slack: &dyn Fn(f64) -> Option<f64>, here: f64, left: f64, away: f64) -> Root {
    let (mut a, mut at_a) = (here, left);
    let toward = if left < 0.0 { away } else { -away };
    let mut step = left.abs().max(0.5);
    let (mut b, mut at_b) = loop {
        let next = (a + toward * step).clamp(-FURTHEST_MM, FURTHEST_MM);
        let Some(there) = slack(next) else { return Root::Nowhere(left >= 0.0) };
        if (there < 0.0) != (left < 0.0) {
            break (next, there);
        }
        if next.abs() >= FURTHEST_MM {
            return Root::Nowhere(left >= 0.0);
        }
        (a, at_a) = (next, there);
        step *= 2.0;
    };
    let mut last_moved_b = None;
    // Where it was asked last, if next to nothing was left over there: the root is close by, on the side of the other end.
    let mut close_by: Option<f64> = None;
    for _ in 0..60 {
        if (b - a).abs() < ROOT_MM {
            break;
        }
        let middle = match close_by.take() {
            Some(at) => at + (if at == a { b - a } else { a - b }).signum() * ROOT_MM * 0.8,
            None => (a * at_b - b * at_a) / (at_b - at_a),
        };
        // Never onto an end: then half of the way.
        let middle = if (middle - a).abs() < ROOT_MM / 4.0 || (middle - b).abs() < ROOT_MM / 4.0 {
            (a + b) / 2.0
        } else {
            middle
        };
        let Some(there) = slack(middle) else { break };
        let moves_b = (there < 0.0) == (at_b < 0.0);
        if moves_b {
            (b, at_b) = (middle, there);
            if last_moved_b == Some(true) {
                at_a /= 2.0;
            }
        } else {
            (a, at_a) = (middle, there);
            if last_moved_b == Some(false) {
                at_b /= 2.0;
            }
        }
        last_moved_b = Some(moves_b);
        close_by = (there.abs() < ROOT_MM / 2.0).then_some(middle);
    }
    // The end that is clear.
    Root::At(if at_a >= 0.0 { a } else { b })
}

/// Edges that were found already, while many sets of work on a car are tried with one setup: most leave most parts where they
/// were.
#[derive(Debug, Default)]
pub(crate) struct KnownEdges(HashMap<EdgeKey, Limit>);

/// How an edge was sought.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
enum Edges {
    /// Without any band.
    AsWritten,
    /// With it.
    Whole,
}

/// What of a width is wanted.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Wanted {
    /// All of its edges.
    Whole,
    /// All of them if some offset clears; otherwise nothing.
    IfOpen,
}

/// Which obstacle, how it was sought, and all that work on a car does to it: room made to the part, camber, and how far the body
/// is raised.
type EdgeKey = (usize, Edges, [u64; 3]);

impl KnownEdges {
    fn key(case: &AxleCase<'_>, obstacle: &Obstacle, edges: Edges) -> EdgeKey {
        let work = [case.room_by_work(obstacle.feature), case.planned_camber(), case.levers.raised()];
        (obstacle.index, edges, work.map(f64::to_bits))
    }

    fn knows(&self, case: &AxleCase<'_>, obstacle: &Obstacle, edges: Edges) -> bool {
        self.0.contains_key(&Self::key(case, obstacle, edges))
    }

    fn edge(
        &mut self,
        case: &AxleCase<'_>,
        obstacle: &Obstacle,
        edges: Edges,
        find: impl FnOnce() -> Limit,
    ) -> Limit {
        *self.0.entry(Self::key(case, obstacle, edges)).or_insert_with(find)
    }
}

/// Where a rim's centre plane may stand.
#[derive(Debug, Clone, Copy)]
enum Limit {
    Open,
    Never,
    InboardOf(f64),
    OutboardOf(f64),
}

impl Limit {
    fn where_there_is(slack: f64) -> Self {
        if slack >= 0.0 { Self::Open } else { Self::Never }
    }
}

fn edge_of(obstacle: &Obstacle, offset_mm: f64) -> Edge {
    Edge { offset_mm, bound_by: obstacle.feature, side: obstacle.side }
}

/// Metric sizes on the same rim code, one for each section width, of the overall diameter nearest to this one's.
pub fn sizes_near(size: &Size) -> Vec<Size> {
    let diameter = overall_diameter(size).as_mm();
    let height = sidewall(size).as_mm();
    (135..=345u32)
        .step_by(10)
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
    use crate::corner::{Corner, Moving, Reading, Steer};
    use crate::lever::{Lever, Levers};
    use crate::limits::HouseLimits;
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
            let mut shared = KnownEdges::default();
            let mut open = 0;
            for levers in mixtures() {
                let worked = AxleCase { levers: &levers, ..case };
                let alone = worked.is_hopeless(&planned, &mut KnownEdges::default());
                assert_eq!(worked.is_hopeless(&planned, &mut shared), alone, "{planned} with {levers:?}");
                let width = planned.wheel.unwrap().width;
                let whole = worked.window(&planned, TireChoice::Same, &[width], None).remove(0);
                let whole = Some(whole).filter(WidthWindow::is_open);
                assert_eq!(
                    worked.open_window_of_its_width(&planned, &mut shared),
                    whole,
                    "{planned} with {levers:?}"
                );
                open += usize::from(whole.is_some());
                assert!(!alone || whole.is_none());
            }
            // Each edge was sought once for all that leaves it where it is.
            assert!(shared.0.len() < mixtures().len() * resolved.obstacles.len(), "{}", shared.0.len());
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
        let window = case.open_window_of_its_width(&planned, &mut KnownEdges::default()).unwrap();
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
