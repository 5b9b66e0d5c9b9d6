//! Where the fender line stands, how a setup stands to it, and what work on the car makes of the room.

use super::MountedSetup;
use crate::car::corner::{CamberBy, Feature};
use crate::car::motion::SuspensionKind;
use crate::car::style::{STANCE_CAMBER_DEG, Style, StyleReading, StyleTarget};
use crate::judgement::case::AxleCase;
use crate::setup::Setup;
use crate::values::length::Length;

/// Where the fender line stands at the top of the arch, nearest of both sides; `None` while nobody read it.
pub fn fender_line(case: &AxleCase<'_>) -> Option<f64> {
    let room = case.levers.room(Feature::FenderLateral);
    case.resolved
        .of(Feature::FenderLateral)
        .filter_map(|obstacle| obstacle.shape.drawn(Feature::FenderLateral, room, 0.0)?.0)
        .reduce(f64::min)
}

/// Room that what is done to the car makes to a part: the levers', less what another camber takes by the way it is had,
/// where how the corner moves is known.
pub(crate) fn room_by_work(case: &AxleCase<'_>, feature: Feature) -> f64 {
    let more = -case.levers.camber_deg();
    let moving = case.corner.moving.as_ref().filter(|_| more > 0.0);
    let widest = || MountedSetup::of(case.fitted, 0.0).map_or(0.0, |stand| stand.widest_radius());
    let taken = moving.map_or(0.0, |moving| {
        let has_struts = moving.kind == SuspensionKind::Strut;
        CamberBy::takes(moving.camber_by, feature, has_struts, more, widest)
    });
    case.levers.room(feature) - taken
}

/// How a setup stands to the fender line; `None` while nobody read it.
pub fn style(case: &AxleCase<'_>, planned: &Setup) -> Option<StyleReading> {
    let line = fender_line(case)?;
    let camber = case.planned_camber();
    let (rim, tire) = MountedSetup::of(planned, camber)?.outer_faces_at_the_top();
    let rim_beyond = Length::mm(rim - line);
    let tire_beyond = tire.map(|tire| Length::mm(tire - line));
    let within = case.limits.flush_within;
    let beyond = tire_beyond.map_or(rim_beyond, |tire| tire.max(rim_beyond));
    Some(StyleReading {
        style: Style::of(beyond, within),
        rim_beyond,
        tire_beyond,
        each: (Style::of(rim_beyond, within), tire_beyond.map(|tire| Style::of(tire, within))),
        is_stance: camber <= STANCE_CAMBER_DEG,
    })
}

/// The offsets, in millimetres, at which a setup of this shape stands as wanted: least and most; `None`
/// is open. `None` altogether while the fender line is not known.
pub fn offsets_for(
    case: &AxleCase<'_>,
    target: StyleTarget,
    planned: &Setup,
) -> Option<(Option<f64>, Option<f64>)> {
    let now = style(case, planned)?.beyond().as_mm();
    let offset = planned.wheel?.offset?.as_mm();
    let (least, most) = target.beyond(case.limits);
    // One millimetre less offset stands one millimetre further out.
    let at = |beyond: Length| offset + now - beyond.as_mm();
    Some((most.map(at), least.map(at)))
}
