//! The fit window in motion: the offsets that clear standing, and of those the ones that clear on the road as well.
//!
//! Moving a wheel sideways moves its outline and nothing else, and the steering axis stays with the upright. So what a part's
//! places come to in the wheel's own frame, in every pose of the use, is worked out once for all widths and offsets; an edge is
//! the root of the least distance from those places to the outline moved along the axle. The poses are those of the sweep's
//! grid; at the root the least is sought again between them, the pose that has it joins the rest, and the root is sought anew
//! until it stands.

use super::places::parts_in_space;
use super::stretch::Stretch;
use super::{PartInSpace, SweepContext, Usage, with_sweep_context};
use crate::car::corner::feature::BlocksFrom;
use crate::car::motion::sweep::Cell;
use crate::car::motion::{Carried, Kinematics, Pose, Sweep};
use crate::car::section::outline::flange_top;
use crate::car::section::{Outline, Toward};
use crate::judgement::case::AxleCase;
use crate::judgement::window::{Edge, FURTHEST_MM, Root, WidthWindow, on_width, root};
use crate::setup::Setup;

/// Height of the bins in which only the place nearest to the wheel counts, in millimetres.
const BIN_MM: f64 = 0.5;
/// Until an edge moves by less than this it is sought again, in millimetres of offset; and how often at most.
const SETTLED_MM: f64 = 0.01;
const ROUNDS: usize = 6;

/// A part whose edge lies further out than this beside the tightest one does not set it: between two poses of the grid the least
/// room is less by a fraction of that, in millimetres.
const FAR_MM: f64 = 3.0;

/// Where a rim's centre plane may stand.
enum Center {
    At(f64),
    Anywhere,
    Nowhere,
}

/// What the places of a part come to in the wheel's own frame.
struct Approach<'a> {
    part: &'a PartInSpace,
    toward: Toward,
    /// The room from which on it clears.
    clears_from: f64,
    /// Along the axle (outboard parts as they are, inboard ones mirrored), radius, and in which pose.
    places: Vec<(f64, f64, Pose)>,
}

impl<'a> Approach<'a> {
    fn of(part: &'a PartInSpace, clears_from: f64, poses: &[Pose], kinematics: &Kinematics) -> Self {
        // What is met ahead or behind is met by a wheel that stands further out.
        let toward = match part.feature.blocks_from() {
            BlocksFrom::Inboard => Toward::Inboard,
            _ => Toward::Outboard,
        };
        let mut approach = Self { part, toward, clears_from, places: Vec::new() };
        let mut bins: Vec<Option<(f64, f64, Pose)>> = Vec::new();
        for pose in poses {
            for (y, r) in approach.in_the_wheel(kinematics, *pose) {
                let bin = (r / BIN_MM) as usize;
                if bin >= bins.len() {
                    bins.resize(bin + 1, None);
                }
                if bins[bin].is_none_or(|(other, _, _)| y < other) {
                    bins[bin] = Some((y, r, *pose));
                }
            }
        }
        approach.places = bins.into_iter().flatten().collect();
        approach.places.sort_by(|a, b| a.0.total_cmp(&b.0));
        approach
    }

    fn sign(&self) -> f64 {
        if self.toward == Toward::Inboard { -1.0 } else { 1.0 }
    }

    fn in_the_wheel(&self, kinematics: &Kinematics, pose: Pose) -> Vec<(f64, f64)> {
        let sign = self.sign();
        kinematics.in_the_wheel(&self.part.cloud, pose).map(|(y, r)| (sign * y, r)).collect()
    }

    /// The least room with the rim's centre plane there, and in which pose.
    fn least(&self, outline: &Outline, center_y: f64) -> (f64, Pose) {
        let sign = self.sign();
        let (inmost, outmost) = outline.bounds().0;
        let face = if self.toward == Toward::Inboard { -inmost } else { outmost };
        let mut least = (f64::INFINITY, Pose::AT_REST);
        for (y, r, pose) in &self.places {
            let along = y - sign * center_y;
            // Sorted along the axle: no place further on is nearer.
            if along - face > least.0 {
                break;
            }
            if let Some(room) = outline.nearer_than(sign * along, *r, least.0) {
                least = (room, *pose);
            }
        }
        (least.0 + self.part.cloud.given_back_mm, least.1)
    }

    /// A pose joins the rest.
    fn join(&mut self, kinematics: &Kinematics, pose: Pose) {
        let more: Vec<_> =
            self.in_the_wheel(kinematics, pose).into_iter().map(|(y, r)| (y, r, pose)).collect();
        self.places.extend(more);
        self.places.sort_by(|a, b| a.0.total_cmp(&b.0));
    }
}

/// Of windows that clear standing still, what of them clears over all that a use reaches: the same widths, their edges
/// never further apart. `None` while the plan cannot be swept or nothing that moves was read.
///
/// How sure a part's room is counts as it stands with the planned setup.
pub fn window_in_motion(
    case: &AxleCase<'_>,
    planned: &Setup,
    standing: &[WidthWindow],
    usage: &Usage,
) -> Option<Vec<WidthWindow>> {
    let moving = case.moving();
    let parts = parts_in_space(case, &moving, planned);
    let moved = parts.iter().filter(|part| part.cloud.carried != Carried::SteeredUpright);
    let moved: Vec<&PartInSpace> = moved.collect();
    if moved.is_empty() {
        return None;
    }
    with_sweep_context(case, planned, usage, |context| {
        let kinematics = context.wheel.kinematics;
        let poses = context.sweep(context.reach, usage.envelope, 0.0).poses();
        let approaches: Vec<Approach<'_>> = moved
            .into_iter()
            .map(|part| {
                let mut approach = Approach::of(part, 0.0, &poses, &kinematics);
                let (room, pose) = approach.least(context.field.outline(), context.wheel.center_y);
                let there = context.at(part, &context.otherwise(part), Stretch::Together, room, pose);
                approach.clears_from = part.least_mm + there.plus_minus_mm;
                approach
            })
            .collect();
        standing.iter().map(|window| narrowed(context, window, &approaches)).collect()
    })
}

/// A window's width with the edges that clear in motion too. A part whose edge at the poses of the grid is far from setting
/// it is not sought between them.
fn narrowed(context: &SweepContext<'_>, standing: &WidthWindow, approaches: &[Approach<'_>]) -> WidthWindow {
    let mut window = standing.clone();
    let Some(outline) = outline_of(context, &window) else { return window };
    let spacer = context.planned.spacer.map_or(0.0, |spacer| spacer.as_mm());
    let at_a_glance: Vec<Center> =
        approaches.iter().map(|approach| center(approach, &outline, context.wheel.center_y)).collect();
    let set = |window: &mut WidthWindow, approach: &Approach<'_>, center: f64| {
        let part = approach.part;
        let edge = Edge { offset_mm: spacer - center, bound_by: part.feature, side: part.obstacle.side };
        match approach.toward {
            Toward::Outboard if window.least.is_none_or(|least| least.offset_mm < edge.offset_mm) => {
                window.least = Some(edge);
            }
            Toward::Inboard if window.most.is_none_or(|most| most.offset_mm > edge.offset_mm) => {
                window.most = Some(edge);
            }
            _ => {}
        }
    };
    let mut coarse = standing.clone();
    for (approach, center) in approaches.iter().zip(&at_a_glance) {
        if let Center::At(center) = center {
            set(&mut coarse, approach, *center);
        }
    }
    for (approach, glance) in approaches.iter().zip(&at_a_glance) {
        let is_far = |offset: f64| match approach.toward {
            Toward::Outboard => coarse.least.is_some_and(|least| offset < least.offset_mm - FAR_MM),
            Toward::Inboard => coarse.most.is_some_and(|most| offset > most.offset_mm + FAR_MM),
        };
        let found = match glance {
            Center::At(center) if is_far(spacer - center) => continue,
            Center::Anywhere => continue,
            _ => edge_in_motion(context, approach, &outline),
        };
        match found {
            Center::At(center) => set(&mut window, approach, center),
            Center::Anywhere => {}
            Center::Nowhere => {
                if !window.blocked_by.contains(&approach.part.feature) {
                    window.blocked_by.push(approach.part.feature);
                }
            }
        }
    }
    window
}

/// The outline of a width of the window, with what is on the tire.
fn outline_of(context: &SweepContext<'_>, window: &WidthWindow) -> Option<Outline> {
    let setup = on_width(context.planned, window.rim_width, window.tire)?;
    let outline = Outline::of(&setup)?;
    let top = flange_top(&setup)?;
    Some(context.usage.added.on(&outline, top))
}

/// Where the rim's centre plane must stand for a part to clear in every pose that is known of it, sought from one place.
fn center(approach: &Approach<'_>, outline: &Outline, from: f64) -> Center {
    let slack =
        |center_y: f64| Some(approach.least(outline, center_y).0.min(FURTHEST_MM) - approach.clears_from);
    let Some(left) = slack(from) else { return Center::Anywhere };
    match root(&slack, from, left, -approach.sign()) {
        Root::At(center) => Center::At(center),
        Root::Nowhere(true) => Center::Anywhere,
        Root::Nowhere(false) => Center::Nowhere,
    }
}

/// The same for every pose at all: the least is sought again between those of the grid, until the edge stands.
fn edge_in_motion(context: &SweepContext<'_>, approach: &Approach<'_>, outline: &Outline) -> Center {
    let kinematics = context.wheel.kinematics;
    let mut approach = Approach { places: approach.places.clone(), ..*approach };
    let mut last: Option<f64> = None;
    for _ in 0..ROUNDS {
        let found = center(&approach, outline, last.unwrap_or(context.wheel.center_y));
        let Center::At(center) = found else { return found };
        if last.is_some_and(|last| (last - center).abs() < SETTLED_MM) {
            return found;
        }
        last = Some(center);
        let (_, pose) = approach.least(outline, center);
        let refined = refined_pose(context, &approach, outline, center, pose);
        approach.join(&kinematics, refined);
    }
    last.map_or(Center::Nowhere, Center::At)
}

/// The pose of least room near one of the grid, for an outline that stands elsewhere.
fn refined_pose(
    context: &SweepContext<'_>,
    approach: &Approach<'_>,
    outline: &Outline,
    center_y: f64,
    pose: Pose,
) -> Pose {
    let sweep = Sweep { center_y, ..context.sweep(context.reach, context.usage.envelope, 0.0) };
    let near = nearest_places(&context.wheel.kinematics, approach.part, outline, center_y, pose);
    let room = |pose: Pose| context.wheel.kinematics.room(outline, center_y, &near, pose);
    sweep.downhill_from(Cell { pose, room_mm: room(pose) }, room).pose
}

/// The few places of a part that are nearest to the wheel in one pose. In poses near it the nearest place is still one of them.
fn nearest_places(
    kinematics: &Kinematics,
    part: &PartInSpace,
    outline: &Outline,
    center_y: f64,
    pose: Pose,
) -> crate::car::motion::Cloud {
    const FEW: usize = 7;
    let mut ranked: Vec<(f64, usize)> = kinematics
        .in_the_wheel(&part.cloud, pose)
        .enumerate()
        .map(|(at, (y, r))| (outline.signed_distance(y - center_y, r), at))
        .collect();
    ranked.sort_by(|a, b| a.0.total_cmp(&b.0));
    let points = ranked.iter().take(FEW).map(|(_, at)| part.cloud.points[*at]).collect();
    crate::car::motion::Cloud { points, ..part.cloud }
}
