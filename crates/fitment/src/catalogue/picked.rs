//! The very parts a job has picked from the price lists: what a setup line cannot say of them.
//!
//! A setup line names sizes. Rating, seat, tread width and turning direction belong to the row that was picked; they
//! count for a setup only as long as it still has that row's size.

use std::borrow::Cow;

use super::{TireRow, WheelRow};
use crate::codes::BoltCircle;
use crate::setup::{Hundredths, Listed, Setup};
use crate::tire::Tire;
use crate::wheel::Wheel;

/// Rows picked for a job.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct PickedParts {
    /// Wheels.
    pub wheels: Vec<WheelRow>,
    /// Tires.
    pub tires: Vec<TireRow>,
}

impl PickedParts {
    /// The picked wheel that a setup has; `None` when it has another, or none was picked. Where several rows are of its size,
    /// nobody knows which one it is: what only one of them says is not known then.
    pub fn wheel_of(&self, setup: &Setup) -> Option<Cow<'_, WheelRow>> {
        let wheel = setup.wheel?;
        agreed(self.wheels.iter().filter(|row| is_same_wheel(&row.wheel, &wheel)), WheelRow::agreed_with)
    }

    /// The picked tire that a setup has, as [`Self::wheel_of`].
    pub fn tire_of(&self, setup: &Setup) -> Option<Cow<'_, TireRow>> {
        let tire = setup.tire?;
        agreed(self.tires.iter().filter(|row| is_same_tire(&row.tire, &tire)), TireRow::agreed_with)
    }

    /// What the picked rows say of a setup's parts.
    pub fn listed(&self, setup: &Setup) -> Listed {
        Listed {
            tire: self.tire_of(setup).map(|row| row.listed()).unwrap_or_default(),
            wheel_overall_width: self
                .wheel_of(setup)
                .and_then(|row| row.overall_width)
                .and_then(Hundredths::of),
        }
    }

    /// A setup with what the picked rows say of its parts; one that carries its own rows' measures keeps them.
    #[must_use]
    pub fn as_listed(&self, setup: &Setup) -> Setup {
        let own = setup.listed;
        Setup { listed: if own == Listed::default() { self.listed(setup) } else { own }, ..*setup }
    }

    /// Whether nothing was picked.
    pub fn is_empty(&self) -> bool {
        self.wheels.is_empty() && self.tires.is_empty()
    }
}

/// What all of some rows say; nothing of none.
fn agreed<'r, R: Clone + PartialEq>(
    mut rows: impl Iterator<Item = &'r R>,
    with: fn(R, &R) -> R,
) -> Option<Cow<'r, R>> {
    let first = Cow::Borrowed(rows.next()?);
    Some(
        rows.fold(first, |all, row| if *all == *row { all } else { Cow::Owned(with(all.into_owned(), row)) }),
    )
}

/// What two say alike.
fn alike<T: PartialEq>(one: Option<T>, other: Option<T>) -> Option<T> {
    if one == other { one } else { None }
}

fn alike_words(one: Box<str>, other: &str) -> Box<str> {
    if *one == *other { one } else { Box::default() }
}

impl WheelRow {
    /// What it and another row of its size say alike. A turning direction of either is one of both.
    fn agreed_with(self, other: &Self) -> Self {
        let are_circles_alike = self.circles().eq(other.circles());
        let of_both = |one: Option<BoltCircle>| one.filter(|_| are_circles_alike);
        Self {
            id: if self.id == other.id { self.id } else { 0 },
            line: alike_words(self.line, &other.line),
            finish: alike_words(self.finish, &other.finish),
            wheel: Wheel {
                bolt_circle: of_both(self.wheel.bolt_circle),
                second_circle: of_both(self.wheel.second_circle),
                center_bore: alike(self.wheel.center_bore, other.wheel.center_bore),
                ..self.wheel
            },
            more_circles: if are_circles_alike { self.more_circles } else { Vec::new() },
            seat: alike(self.seat, other.seat),
            load_kg: alike(self.load_kg, other.load_kg),
            mass_kg: alike(self.mass_kg, other.mass_kg),
            make: alike(self.make, other.make),
            is_directional: self.is_directional || other.is_directional,
            overall_width: alike(self.overall_width, other.overall_width),
            price: alike(self.price, other.price),
            stock: alike(self.stock, other.stock),
        }
    }
}

impl TireRow {
    /// What it and another row of its size say alike. A turning direction of either, and another inside, is one of both.
    fn agreed_with(self, other: &Self) -> Self {
        Self {
            id: if self.id == other.id { self.id } else { 0 },
            line: alike_words(self.line, &other.line),
            tire: if self.tire == other.tire { self.tire } else { Tire::plain(self.tire.size) },
            kind: alike(self.kind, other.kind),
            section: alike(self.section, other.section),
            tread_width: alike(self.tread_width, other.tread_width),
            overall_diameter: alike(self.overall_diameter, other.overall_diameter),
            permitted: alike(self.permitted, other.permitted),
            measuring_rim: alike(self.measuring_rim, other.measuring_rim),
            mass_kg: alike(self.mass_kg, other.mass_kg),
            void_pct: alike(self.void_pct, other.void_pct),
            treadwear: alike(self.treadwear, other.treadwear),
            has_rim_guard: alike(self.has_rim_guard, other.has_rim_guard),
            wet_grade: alike_words(self.wet_grade, &other.wet_grade),
            temperature_grade: alike_words(self.temperature_grade, &other.temperature_grade),
            factory_mark: alike_words(self.factory_mark, &other.factory_mark),
            is_directional: self.is_directional || other.is_directional,
            is_asymmetric: self.is_asymmetric || other.is_asymmetric,
            price: alike(self.price, other.price),
            stock: alike(self.stock, other.stock),
        }
    }
}

/// Size and offset; bolt circle and bore only where the setup line states them: it may be shorter than the list.
fn is_same_wheel(row: &Wheel, planned: &Wheel) -> bool {
    (row.diameter, row.width, row.offset) == (planned.diameter, planned.width, planned.offset)
        && (planned.bolt_circle.is_none() || row.circles().eq(planned.circles()))
        && planned.center_bore.is_none_or(|bore| row.center_bore == Some(bore))
}

/// Size, and the service description where the setup line states one.
fn is_same_tire(row: &Tire, planned: &Tire) -> bool {
    row.size == planned.size && planned.service.is_none_or(|service| row.service == Some(service))
}

#[cfg(test)]
pub(crate) mod tests {
    use super::super::TireKind;
    use super::*;

    /// A wheel row of a size, with nothing else known.
    pub(crate) fn wheel_row(size: &str) -> WheelRow {
        let setup: Setup = size.parse().unwrap();
        WheelRow { id: 1, ..WheelRow::plain(setup.wheel.unwrap()) }
    }

    /// A tire row of a size, with nothing else known.
    pub(crate) fn tire_row(size: &str) -> TireRow {
        TireRow { id: 1, ..TireRow::plain(size.parse().unwrap()) }
    }

    #[test]
    fn two_kinds_of_one_size_are_neither() {
        let of = |kind| TireRow { kind: Some(kind), ..tire_row("225/40R18 92V") };
        let kind = |tires: Vec<TireRow>| {
            let parts = PickedParts { tires, ..PickedParts::default() };
            parts.tire_of(&"18x8 ET45 225/40R18 92V".parse().unwrap()).map(|row| row.kind)
        };
        let (winter, summer) = (of(TireKind::Winter), of(TireKind::SummerTouring));
        assert_eq!(kind(vec![winter.clone()]), Some(Some(TireKind::Winter)));
        assert_eq!(kind(vec![winter.clone(), winter.clone()]), Some(Some(TireKind::Winter)));
        assert_eq!(kind(vec![winter.clone(), summer.clone()]), Some(None));
        assert_eq!(kind(vec![summer, winter]), Some(None));
        assert_eq!(kind(Vec::new()), None);
    }

    #[test]
    fn what_only_one_of_two_rows_of_a_size_says_is_not_known() {
        let strong = WheelRow {
            line: "Bay".into(),
            load_kg: Some(760.0),
            mass_kg: Some(9.0),
            is_directional: true,
            ..wheel_row("18x8 ET45 5x112 CB57.1")
        };
        let weak = WheelRow {
            line: "Reed".into(),
            load_kg: Some(560.0),
            is_directional: false,
            ..WheelRow { wheel: wheel_row("18x8 ET45 5x112 CB66.6").wheel, ..strong.clone() }
        };
        let plan: Setup = "18x8 ET45 5x112 225/40R18".parse().unwrap();
        for wheels in [vec![strong.clone(), weak.clone()], vec![weak, strong]] {
            let parts = PickedParts { wheels, ..PickedParts::default() };
            let row = parts.wheel_of(&plan).unwrap();
            assert_eq!((row.load_kg, row.wheel.center_bore, &*row.line), (None, None, ""));
            assert_eq!((row.mass_kg, row.is_directional), (Some(9.0), true));
            assert_eq!(row.wheel.bolt_circle, plan.wheel.unwrap().bolt_circle);
            // A line that names the bore says which of the two it is.
            let named = parts.wheel_of(&"18x8 ET45 5x112 CB57.1".parse().unwrap()).unwrap().load_kg;
            assert_eq!(named, Some(760.0));
        }
    }

    #[test]
    fn a_part_counts_only_for_a_setup_of_its_size() {
        let parts = PickedParts {
            wheels: vec![wheel_row("18x8 ET45 5x112 CB57.1")],
            tires: vec![tire_row("225/40R18 92Y")],
        };
        let has = |line: &str| {
            let setup: Setup = line.parse().unwrap();
            (parts.wheel_of(&setup).is_some(), parts.tire_of(&setup).is_some())
        };
        assert_eq!(has("18x8 ET45 5x112 CB57.1 225/40R18 92Y"), (true, true));
        assert_eq!(has("18x8 ET45 225/40R18"), (true, true), "a shorter line of the same sizes");
        assert_eq!(has("18x8 ET44 225/40R18 96Y"), (false, false), "another offset, another index");
        assert_eq!(has("18x8 ET45 CB66.6 225/45R18"), (false, false), "another bore, another size");
        assert_eq!(has("18x8 ET45 5x100/112 225/40R18"), (false, true), "drilled twice, and so another row");
    }
}
