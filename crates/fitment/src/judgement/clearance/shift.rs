//! Everything that may be off of a room, each by a share of its range at once.

use std::borrow::Cow;

use super::query::ClearanceQuery;
use crate::car::corner::obstacle::{Faces, ReferenceGeometry, Sensitivity};
use crate::car::corner::shape::{RoomInputs, room, rule_at_lock_off};
use crate::car::section::{Outline, PARTS, Part, Standing, Variants};

/// How far everything is off. Nothing is, by default; [`super::inputs::Moves::add`] adds to it.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(super) struct Shift {
    /// The part along its axis, in millimetres.
    pub(super) along: f64,
    /// Where it was read, in millimetres.
    pub(super) higher: f64,
    /// The faces of what was fitted, in millimetres.
    pub(super) faces: Faces,
    /// Each part of the planned outline, as a share of its range.
    pub(super) outline: [f64; PARTS],
    /// Whether a part of the outline is off that both setups have: then what the part was read against is off with it.
    pub(super) is_of_both: bool,
    /// The planned rim's centre plane, in millimetres outboard.
    pub(super) center_y: f64,
    /// Its camber, in degrees.
    pub(super) camber_deg: f64,
    /// A strut's lean, in degrees.
    pub(super) lean_deg: f64,
    /// How far it was turned when a part was read at lock, in degrees.
    pub(super) turned_deg: f64,
    /// How far round the tire that was read, in degrees.
    pub(super) round_deg: f64,
    /// What the quick rule at lock says, as a share of what it may be off itself.
    pub(super) rule: f64,
    /// The room itself, in millimetres.
    pub(super) room: f64,
}

impl Shift {
    /// The part was read against something else: by a share of the way to that.
    pub(super) fn read_otherwise(&mut self, against: &ReferenceGeometry, end: &Sensitivity, share: f64) {
        self.along += end.along * share;
        self.faces.crown += (end.faces.crown - against.faces.crown) * share;
        self.faces.outer += (end.faces.outer - against.faces.outer) * share;
        self.faces.inner += (end.faces.inner - against.faces.inner) * share;
    }

    /// The planned outline. Those with one part at an end of its range are cut once, and kept.
    fn outline<'a>(&self, cut: &'a Variants) -> Cow<'a, Outline> {
        let mut off = Part::ALL.into_iter().filter(|part| self.outline[*part as usize] != 0.0);
        let share = |part: Part| self.outline[part as usize];
        match (off.next(), off.next()) {
            (None, _) => Cow::Borrowed(cut.nominal()),
            (Some(part), None) if share(part).abs() == 1.0 => {
                Cow::Borrowed(cut.at_end(part, usize::from(share(part) > 0.0)))
            }
            _ => Cow::Owned(cut.off_by(&self.outline)),
        }
    }

    /// The room then, in millimetres; `None` where another wheel's shape is not known.
    pub(super) fn room(&self, query: &ClearanceQuery<'_>, nominal: &RoomInputs<'_>) -> Option<f64> {
        let outline = self.outline(query.cut());
        let standing = Standing {
            outline: &outline,
            center_y: nominal.standing.center_y + self.center_y,
            camber_deg: nominal.standing.camber_deg + self.camber_deg,
        };
        let place = nominal.shape.moved(self.along).read_higher(self.higher).leaned(self.lean_deg);
        let faces = nominal.faces.off_by(self.faces);
        let lock = nominal.lock.map(|lock| {
            let turned = if self.turned_deg == 0.0 { lock } else { lock.turned_by(self.turned_deg) };
            let round = if self.round_deg == 0.0 {
                turned
            } else {
                turned.read_round(self.round_deg, nominal.faces.crown)
            };
            let is_the_same = self.is_of_both && query.stays.tire && query.stays.wheel;
            if is_the_same { round.read_against(&outline, faces.crown) } else { round }
        });
        let reading = &query.obstacle.reading;
        let less = if self.rule == 0.0 {
            0.0
        } else {
            let (down, up) = rule_at_lock_off(reading, &standing, nominal.faces);
            self.rule * if self.rule > 0.0 { down } else { up }
        };
        let inputs = RoomInputs { shape: place, faces, standing, lock, ..*nominal };
        Some(room(reading, &inputs)? + self.room - less)
    }
}
