//! The pieces of one axle while they come in, and what they make together.

use crate::notation::{Axles, Beside, Piece, Reason, Spacing, TireSize};
use crate::parts::tire::{
    Construction, FactoryMark, LoadRange, LoadVersion, MetricSize, Prefix, ServiceDescription, Size, Tire,
};
use crate::parts::wheel::{Backspacing, Wheel};
use crate::setup::Setup;
use crate::values::codes::{BoltCircle, CenterBore, Offset, RimDiameter, RimWidth, Spacer};
use crate::values::date_code::DateCode;
use crate::values::length::Length;

/// A value and the segment it came from.
type Found<T> = Option<(T, usize)>;

/// A tire as far as it was written.
#[derive(Debug, Clone, Copy, PartialEq)]
enum TireSaid {
    Whole(TireSize),
    WithoutRim { section: u32, aspect: u32 },
}

#[derive(Debug, Default)]
pub(super) struct Draft {
    diameter: Found<RimDiameter>,
    width: Found<RimWidth>,
    offset: Found<Offset>,
    backspacing: Found<Length>,
    circles: [Found<BoltCircle>; 2],
    circle_alone: Found<f64>,
    count_alone: Found<u8>,
    center_bore: Found<CenterBore>,
    bore_is_assumed: bool,
    center_lock: Found<()>,
    tire: Found<TireSaid>,
    service: Found<ServiceDescription>,
    load_version: Found<LoadVersion>,
    load_range: Found<LoadRange>,
    high_load: Found<()>,
    light_truck: Found<()>,
    commercial: Found<()>,
    run_flat: Found<()>,
    mud_and_snow: Found<()>,
    snowflake: Found<()>,
    factory_mark: Found<FactoryMark>,
    spacer: Found<Option<Spacer>>,
    date_code: Found<DateCode>,
}

impl Draft {
    /// Takes a piece. `axle` is the one this draft is of.
    pub(super) fn put(&mut self, piece: Piece, at: usize, axle: Axles) -> Result<(), Reason> {
        match piece {
            Piece::Gap | Piece::Filler | Piece::LeftAside | Piece::Axle(_) | Piece::Figure { .. } => Ok(()),
            Piece::Wheel(size) => {
                if let Some(diameter) = size.diameter {
                    place(&mut self.diameter, diameter, at, "wheel size")?;
                }
                if let Some(width) = size.width {
                    place(&mut self.width, width, at, "wheel size")?;
                }
                size.offset.map_or(Ok(()), |offset| place(&mut self.offset, offset, at, "offset"))
            }
            Piece::Offset(offset) => place(&mut self.offset, offset, at, "offset"),
            Piece::Backspacing(length) => place(&mut self.backspacing, length, at, "backspacing"),
            Piece::Drilling(drilling) => {
                self.circle(drilling.circle, at)?;
                if let Some(second) = drilling.second {
                    self.circle(second, at)?;
                }
                drilling.bore.map_or(Ok(()), |bore| place(&mut self.center_bore, bore, at, "center bore"))
            }
            Piece::CircleAlone(mm) => place(&mut self.circle_alone, mm, at, "bolt circle"),
            Piece::CountAlone(count) => place(&mut self.count_alone, count, at, "number of fasteners"),
            Piece::CenterBore { bore, assumed } => {
                self.bore_is_assumed |= assumed;
                place(&mut self.center_bore, bore, at, "center bore")
            }
            Piece::CenterLock => place(&mut self.center_lock, (), at, "center lock"),
            Piece::Tire(tire) => {
                if tire.run_flat {
                    place(&mut self.run_flat, (), at, "run-flat mark")?;
                }
                if let Some(range) = tire.load_range {
                    place(&mut self.load_range, range, at, "load range")?;
                }
                place(&mut self.tire, TireSaid::Whole(tire), at, "tire size")
            }
            Piece::TireWithoutRim { section, aspect } => {
                place(&mut self.tire, TireSaid::WithoutRim { section, aspect }, at, "tire size")
            }
            Piece::Beside(beside) => self.beside(beside, at),
            Piece::Spacing(spacing) => match spacing {
                Spacing::One(spacer) => place(&mut self.spacer, Some(spacer), at, "spacer"),
                Spacing::Pair(front, rear) => place(
                    &mut self.spacer,
                    Some(if axle == Axles::Front { front } else { rear }),
                    at,
                    "spacer",
                ),
                Spacing::None => place(&mut self.spacer, None, at, "spacer"),
                Spacing::Word => Ok(()),
            },
            Piece::DateCode(code) => place(&mut self.date_code, code, at, "date code"),
        }
    }

    fn beside(&mut self, beside: Beside, at: usize) -> Result<(), Reason> {
        match beside {
            Beside::Service(service) => place(&mut self.service, service, at, "load index and speed symbol"),
            Beside::LoadVersion(version) => place(&mut self.load_version, version, at, "load version"),
            Beside::LoadRange(range) => place(&mut self.load_range, range, at, "load range"),
            Beside::HighLoad => place(&mut self.high_load, (), at, "HL mark"),
            Beside::LightTruck => place(&mut self.light_truck, (), at, "LT mark"),
            Beside::Commercial => place(&mut self.commercial, (), at, "C mark"),
            Beside::RunFlat => place(&mut self.run_flat, (), at, "run-flat mark"),
            Beside::MudAndSnow => place(&mut self.mud_and_snow, (), at, "M+S mark"),
            Beside::Snowflake => place(&mut self.snowflake, (), at, "3PMSF mark"),
            Beside::FactoryMark(mark) => place(&mut self.factory_mark, mark, at, "factory mark"),
        }
    }

    /// A wheel may be drilled twice, not three times.
    fn circle(&mut self, circle: BoltCircle, at: usize) -> Result<(), Reason> {
        match &mut self.circles {
            [Some((first, _)), _] if *first == circle => Ok(()),
            [Some(_), second] => place(second, circle, at, "bolt circle beyond two"),
            [first, _] => place(first, circle, at, "bolt circle"),
        }
    }

    /// The bolt circles that were said; what else was said is a fault.
    pub(super) fn only_circles(&self) -> Result<Vec<BoltCircle>, (usize, Reason)> {
        let first = self.bolt_circle()?;
        Ok(first.into_iter().chain(self.circles[1].map(|(circle, _)| circle)).collect())
    }

    /// The rim code that this axle's pieces say.
    pub(super) fn rim(&self) -> Option<RimDiameter> {
        self.diameter.map(|found| found.0).or(match self.tire {
            Some((TireSaid::Whole(tire), _)) => Some(tire.size.rim()),
            _ => None,
        })
    }

    /// What the reading assumed of this axle's parts, by the names of the quantities.
    pub(super) fn assumed(&self) -> Vec<&'static str> {
        let mut assumed = match self.tire {
            Some((TireSaid::Whole(tire), _)) => tire.size.assumed().to_vec(),
            _ => Vec::new(),
        };
        if self.bore_is_assumed {
            assumed.push("center_bore");
        }
        assumed
    }

    /// What the pieces make together, or the segment that stands in the way. `elsewhere` is the rim code of the other
    /// axle, for sizes that leave theirs out.
    pub(super) fn finish(&self, elsewhere: Option<RimDiameter>) -> Result<Option<Setup>, (usize, Reason)> {
        let rim = self.rim().or(elsewhere);
        let wheel = self.wheel(rim)?;
        let tire = self.tire(rim)?;
        if let (Some(wheel), Some((tire, at))) =
            (wheel.map(|wheel| wheel.diameter).or(self.diameter.map(|d| d.0)), tire)
            && wheel != tire.size.rim()
        {
            let (tire, wheel) = (tire.size.rim().code(), wheel.code());
            return Err((at, Reason::RimMismatch { tire, wheel }));
        }
        let setup = Setup {
            wheel,
            tire: tire.map(|(tire, _)| tire),
            spacer: self.spacer.and_then(|(spacer, _)| spacer),
            date_code: self.date_code.map(|(code, _)| code),
            ..Setup::default()
        };
        Ok((setup != Setup::default()).then_some(setup))
    }

    fn wheel(&self, rim: Option<RimDiameter>) -> Result<Option<Wheel>, (usize, Reason)> {
        let Some(((width, width_at), diameter)) = self.width.map(|width| (width, rim)) else {
            needs(
                "a wheel size",
                &[
                    (self.offset.map(|f| f.1), "an offset"),
                    (self.backspacing.map(|f| f.1), "backspacing"),
                    (self.circles[0].map(|f| f.1), "a bolt circle"),
                    (self.circle_alone.map(|f| f.1), "a bolt circle"),
                    (self.count_alone.map(|f| f.1), "a number of fasteners"),
                    (self.center_bore.map(|f| f.1), "a center bore"),
                    (self.center_lock.map(|f| f.1), "a center lock"),
                ],
            )?;
            // A diameter alone only says which wheels are meant ("wants 20s"), beside a tire or nothing at all.
            return match (self.diameter, self.tire) {
                (Some((_, at)), None) => Err((at, Reason::Missing("the rim width"))),
                _ => Ok(None),
            };
        };
        if let (Some((_, at)), Some((circle, _))) = (self.center_lock, self.circles[0]) {
            let choices = ["center lock".to_owned(), circle.to_string()];
            return Err((at, Reason::which("one nut in the middle, or a bolt circle?", choices)));
        }
        let Some(diameter) = diameter else { return Err((width_at, Reason::Missing("the rim diameter"))) };
        let mut offset = self.offset.map(|(offset, _)| offset);
        if let Some((length, at)) = self.backspacing {
            let half = (width.over_flanges() / 2.0).as_mm();
            let from_backspacing = Backspacing::measured(length).to_offset(width).ok_or_else(|| {
                let (what, value) = ("backspacing", format!("{} mm", length.as_mm()));
                let (low, high) = (half - Offset::LIMIT_MM, half + Offset::LIMIT_MM);
                (at, Reason::OutOfRange { what, value, low, high })
            })?;
            // Backspacing is read with a rule to the nearest tenth of an inch.
            if let Some(stated) = offset
                && (stated.as_mm() - from_backspacing.as_mm()).abs() > 2.6
            {
                let (from_backspacing, offset) = (from_backspacing.as_mm(), stated.as_mm());
                return Err((at, Reason::OffsetsDisagree { from_backspacing, offset }));
            }
            offset = offset.or(Some(from_backspacing));
        }
        Ok(Some(Wheel {
            diameter,
            width,
            offset,
            bolt_circle: self.bolt_circle()?,
            second_circle: self.circles[1].map(|(circle, _)| circle),
            center_bore: self.center_bore.map(|(bore, _)| bore),
            center_lock: self.center_lock.is_some(),
        }))
    }

    fn bolt_circle(&self) -> Result<Option<BoltCircle>, (usize, Reason)> {
        if let Some((circle, _)) = self.circles[0] {
            return match self.count_alone {
                Some((count, at)) if count != circle.count() => {
                    Err((at, Reason::Repeated("number of fasteners")))
                }
                _ => Ok(Some(circle)),
            };
        }
        match (self.count_alone, self.circle_alone) {
            (Some((count, _)), Some((mm, at))) => BoltCircle::new(count, mm).map(Some).ok_or_else(|| {
                let (low, high) = (BoltCircle::MIN_MM, BoltCircle::MAX_MM);
                (at, Reason::OutOfRange { what: "bolt circle", value: format!("{mm} mm"), low, high })
            }),
            (None, Some((_, at))) => Err((at, Reason::Missing("the number of fasteners"))),
            // "5 lug" without its circle: known to be five, and no circle to hold it.
            (_, None) => Ok(None),
        }
    }

    fn tire(&self, rim: Option<RimDiameter>) -> Result<Option<(Tire, usize)>, (usize, Reason)> {
        let Some((said, at)) = self.tire else {
            needs(
                "a tire size",
                &[
                    (self.service.map(|f| f.1), "a load index"),
                    (self.load_version.map(|f| f.1), "a load version"),
                    (self.load_range.map(|f| f.1), "a load range"),
                    (self.run_flat.or(self.mud_and_snow).or(self.snowflake).map(|f| f.1), "a tire mark"),
                ],
            )?;
            return Ok(None);
        };
        let mut size = match said {
            TireSaid::Whole(tire) => tire.size,
            TireSaid::WithoutRim { section, aspect } => {
                let rim = rim.ok_or((at, Reason::Missing("the rim diameter")))?;
                MetricSize::new(Prefix::None, section, aspect, Construction::Radial, rim)
                    .map(Size::Metric)
                    .ok_or((at, Reason::Unknown))?
            }
        };
        if self.light_truck.is_some() {
            size = size.as_light_truck();
        }
        if self.high_load.is_some() {
            size = size.as_high_load();
        }
        if self.commercial.is_some() {
            size = size.as_commercial();
        }
        if self.service.is_some() {
            size = size.without_speed();
        }
        let tire = Tire {
            size,
            service: self.service.map(|(service, _)| service),
            load_version: self.load_version.map(|(version, _)| version),
            load_range: self.load_range.map(|(range, _)| range),
            run_flat: self.run_flat.is_some(),
            mud_and_snow: self.mud_and_snow.is_some(),
            snowflake: self.snowflake.is_some(),
            factory_mark: self.factory_mark.map(|(mark, _)| mark),
        };
        Ok(Some((tire, at)))
    }
}

fn needs(needs: &'static str, lonely: &[(Option<usize>, &'static str)]) -> Result<(), (usize, Reason)> {
    match lonely.iter().find_map(|(at, what)| at.map(|at| (at, *what))) {
        Some((at, what)) => Err((at, Reason::Needs { what, needs })),
        None => Ok(()),
    }
}

/// Puts a piece in its place; the same piece said twice is one, two different ones are a fault.
fn place<T: PartialEq>(slot: &mut Found<T>, value: T, at: usize, what: &'static str) -> Result<(), Reason> {
    match slot {
        Some((there, _)) if *there != value => Err(Reason::Repeated(what)),
        _ => {
            *slot = Some((value, at));
            Ok(())
        }
    }
}
