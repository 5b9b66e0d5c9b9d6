//! Figures that nobody labelled: what stands round them says what they are, or they are asked.

use crate::notation::{Drilling, Lexed, Piece, Reason, Spacing, Unit};
use crate::setup::spacers::SHELF_MM;
use crate::values::codes::{CenterBore, Offset, RimWidth, Spacer};

/// Gives each bare figure its meaning, or a question in its place.
pub(super) fn resolve(lexed: &mut [Lexed]) {
    let has_wheel = lexed.iter().any(|one| matches!(one.outcome, Ok(Piece::Wheel(_))));
    for at in 0..lexed.len() {
        if let Ok(Piece::Figure { value, decimals, unit }) = lexed[at].outcome {
            let figure = Figure { value, decimals, unit };
            lexed[at].outcome = figure.meant(lexed, at, has_wheel);
        }
    }
    spacers_without_a_figure(lexed);
}

#[derive(Debug, Clone, Copy)]
struct Figure {
    value: f64,
    decimals: usize,
    unit: Unit,
}

impl Figure {
    fn meant(self, lexed: &[Lexed], at: usize, has_wheel: bool) -> Result<Piece, Reason> {
        let before = counting(lexed[..at].iter().rev());
        let after = counting(lexed[at + 1..].iter());
        let directly_behind = lexed[..at]
            .iter()
            .rev()
            .find(|one| !matches!(one.outcome, Ok(Piece::Gap | Piece::Filler)))
            .and_then(|one| one.outcome.as_ref().ok());
        let offset_stated = offset_is_stated(lexed, at);
        let millimetres = self.unit != Unit::Inches;
        match directly_behind {
            Some(Piece::Drilling(Drilling { circle, second, bore: None })) if millimetres => {
                // No bore reaches the holes of the smaller circle.
                let smaller = second.map_or(*circle, |second| {
                    if second.diameter() < circle.diameter() { second } else { *circle }
                });
                let circle_mm = smaller.diameter().as_mm();
                if (self.value - circle_mm).abs() <= 0.36 {
                    return Ok(Piece::LeftAside);
                }
                // No bore reaches the holes, and none is smaller than a hub.
                let can_be_bore = (50.0..=circle_mm - 20.0).contains(&self.value);
                let can_be_offset = self.decimals == 0 && self.value < 76.0 && !offset_stated;
                match (can_be_bore, can_be_offset) {
                    (true, false) => return self.bore(),
                    (false, true) => return self.offset(1.0),
                    _ => {}
                }
            }
            Some(Piece::Wheel(wheel)) if millimetres && wheel.width.is_some() && !offset_stated => {
                let stated_unit = self.unit == Unit::Millimetres;
                if (10.0..76.0).contains(&self.value) && self.decimals <= 1
                    || stated_unit && self.value < 76.0
                {
                    return self.offset(1.0);
                }
            }
            // "5x108 ET42 63.4": no other figure of a wheel has tenths of a millimetre.
            Some(Piece::Offset(_))
                if millimetres
                    && self.decimals > 0
                    && (50.0..=130.0).contains(&self.value)
                    && before
                        .iter()
                        .any(|piece| matches!(piece, Piece::Drilling(Drilling { bore: None, .. }))) =>
            {
                return self.bore();
            }
            Some(Piece::CountAlone(_)) if (80.0..=250.0).contains(&self.value) => {
                return Ok(Piece::CircleAlone(self.value));
            }
            _ => {}
        }
        if self.is_a_spacer(&before, &after) {
            return self.spacer();
        }
        if let [Piece::Spacing(Spacing::One(next)), ..] = after.as_slice() {
            let sum = self.mm() + next.as_mm();
            let choices = [
                format!("front: {} mm spacer, rear:", self.mm()),
                format!("rear: {} mm spacer, front:", self.mm()),
            ];
            return Err(Reason::which(
                format!("stacked to {sum} mm (then write that one thickness), or one at each axle?"),
                choices,
            ));
        }
        if !has_wheel && self.unit == Unit::Millimetres && self.value <= 12.0 {
            // A tire has one thing in millimetres that is so small: its tread.
            return Ok(Piece::LeftAside);
        }
        if self.decimals == 2 && self.unit == Unit::None && self.value >= 30.0 {
            return Ok(Piece::LeftAside);
        }
        Err(self.ask(offset_stated, has_wheel))
    }

    fn mm(self) -> f64 {
        if self.unit == Unit::Inches { self.value * crate::values::length::MM_PER_INCH } else { self.value }
    }

    /// "spacers 15 front 20 rear", "front 5 rear 10 mm spacers", "Spurplatten VA 10 mm HA 15 mm": among figures and axle
    /// words that a spacer begins or ends.
    fn is_a_spacer(self, before: &[Piece], after: &[Piece]) -> bool {
        let joins = |pieces: &[Piece]| {
            let reach = pieces
                .iter()
                .take_while(|piece| matches!(piece, Piece::Axle(_) | Piece::Figure { .. }))
                .count();
            (reach, matches!(pieces.get(reach), Some(Piece::Spacing(_))))
        };
        let (since, begins) = joins(before);
        let (until, ends) = joins(after);
        let by_axles =
            matches!(before.first(), Some(Piece::Axle(_))) || matches!(after.first(), Some(Piece::Axle(_)));
        let word_before = matches!(before.first(), Some(Piece::Spacing(Spacing::Word)));
        self.mm() <= Spacer::MAX_MM
            && (word_before || begins && since > 0 && by_axles || ends && until > 0 && by_axles)
    }

    fn spacer(self) -> Result<Piece, Reason> {
        match Spacer::from_mm(self.mm()) {
            Some(spacer) => Ok(Piece::Spacing(Spacing::One(spacer))),
            None => Ok(Piece::Spacing(Spacing::None)),
        }
    }

    fn offset(self, sign: f64) -> Result<Piece, Reason> {
        Offset::from_mm(sign * self.value).map(Piece::Offset).ok_or(Reason::Unknown)
    }

    fn bore(self) -> Result<Piece, Reason> {
        let bore = CenterBore::from_mm(self.value).ok_or(Reason::Unknown)?;
        Ok(Piece::CenterBore { bore, assumed: true })
    }

    /// The question, with everything that the figure could be.
    fn ask(self, offset_stated: bool, has_wheel: bool) -> Reason {
        let value = self.value;
        let mut choices = Vec::new();
        // "245/35R19 on 8.5".
        if self.unit != Unit::Millimetres && !has_wheel && RimWidth::from_code(value).is_some() {
            choices.push(format!("{value} wide"));
        }
        if self.unit != Unit::Inches && value < 76.0 && !offset_stated {
            choices.push(format!("ET{value}"));
        }
        if self.unit != Unit::Inches && (50.0..=150.0).contains(&value) {
            choices.push(format!("CB{value}"));
        }
        if self.mm() > 0.0 && self.mm() <= 60.0 {
            choices.push(format!("{} mm spacer", self.mm()));
        }
        Reason::which("what is this figure of?", choices)
    }
}

/// The pieces that say something, in the order handed in.
fn counting<'l>(lexed: impl Iterator<Item = &'l Lexed>) -> Vec<Piece> {
    lexed.filter_map(|one| one.outcome.as_ref().ok().copied()).filter(Piece::counts).collect()
}

/// Whether the wheel that a figure stands behind says its offset elsewhere: before the next wheel and after the last.
fn offset_is_stated(lexed: &[Lexed], at: usize) -> bool {
    let is_wheel = |one: &&Lexed| matches!(one.outcome, Ok(Piece::Wheel(_)));
    let states = |one: &Lexed| {
        matches!(&one.outcome, Ok(Piece::Offset(_) | Piece::Backspacing(_)))
            || matches!(&one.outcome, Ok(Piece::Wheel(wheel)) if wheel.offset.is_some())
    };
    let from = lexed[..at].iter().rposition(|one| is_wheel(&one)).unwrap_or(0);
    let to = lexed[at..].iter().position(|one| is_wheel(&one)).map_or(lexed.len(), |ahead| at + ahead);
    lexed[from..to].iter().any(states)
}

/// The word "spacers" with its figures found is done; without any it is asked.
fn spacers_without_a_figure(lexed: &mut [Lexed]) {
    let found = lexed
        .iter()
        .any(|one| matches!(one.outcome, Ok(Piece::Spacing(Spacing::One(_) | Spacing::Pair(..)))));
    for one in lexed.iter_mut().filter(|one| matches!(one.outcome, Ok(Piece::Spacing(Spacing::Word)))) {
        one.outcome = if found {
            Ok(Piece::Filler)
        } else {
            let choices = SHELF_MM.map(|mm| format!("{mm} mm spacer"));
            Err(Reason::which("how thick?", choices.into_iter().chain(["no spacers".to_owned()])))
        };
    }
}
