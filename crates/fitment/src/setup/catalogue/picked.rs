//! The very parts a job has picked from the price lists: what a setup line cannot say of them.
//!
//! A setup line names sizes. Rating, seat, tread width and turning direction belong to the row that was picked; they
//! count for a setup only as long as it still has that row's size.

use super::{TireKind, TireRow, WheelRow};
use crate::parts::tire::Tire;
use crate::parts::wheel::Wheel;
use crate::setup::{Hundredths, Listed, Setup};

/// Rows picked for a job.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct PickedParts {
    /// Wheels.
    pub wheels: Vec<WheelRow>,
    /// Tires.
    pub tires: Vec<TireRow>,
}

impl PickedParts {
    /// The picked wheel that a setup has; `None` when it has another, or none was picked. Of several of its size the first
    /// counts: what was picked last stands before what was picked earlier, and a kept setup's own before that.
    pub fn wheel_of(&self, setup: &Setup) -> Option<&WheelRow> {
        let wheel = setup.wheel?;
        self.wheels.iter().find(|row| is_same_wheel(&row.wheel, &wheel))
    }

    /// The picked tire that a setup has, as [`Self::wheel_of`].
    pub fn tire_of(&self, setup: &Setup) -> Option<&TireRow> {
        let tire = setup.tire?;
        self.tires.iter().find(|row| is_same_tire(&row.tire, &tire))
    }

    /// The kind of a setup's tire; `None` where picked rows of its size are of two kinds: nobody knows which one it is, and
    /// what only one of them may do is not granted.
    pub fn kind_of(&self, setup: &Setup) -> Option<TireKind> {
        let tire = setup.tire?;
        let mut kinds = self.tires.iter().filter(|row| is_same_tire(&row.tire, &tire)).map(|row| row.kind);
        let first = kinds.next()?;
        kinds.all(|kind| kind == first).then_some(first).flatten()
    }

    /// What the picked rows say of a setup's parts.
    pub fn listed(&self, setup: &Setup) -> Listed {
        Listed {
            tire: self.tire_of(setup).map(TireRow::listed).unwrap_or_default(),
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
            parts.kind_of(&"18x8 ET45 225/40R18 92V".parse().unwrap())
        };
        let (winter, summer) = (of(TireKind::Winter), of(TireKind::SummerTouring));
        assert_eq!(kind(vec![winter.clone()]), Some(TireKind::Winter));
        assert_eq!(kind(vec![winter.clone(), summer.clone()]), None);
        assert_eq!(kind(vec![summer, winter]), None);
        assert_eq!(kind(Vec::new()), None);
    }

    #[test]
    fn of_two_rows_of_one_size_the_one_picked_last_counts() {
        let of = |load: f64| WheelRow { load_kg: Some(load), ..wheel_row("18x8 ET45 5x112 CB57.1") };
        let plan: Setup = "18x8 ET45 5x112 225/40R18".parse().unwrap();
        for loads in [[760.0, 560.0], [560.0, 760.0]] {
            let parts = PickedParts { wheels: loads.map(of).into(), ..PickedParts::default() };
            assert_eq!(parts.wheel_of(&plan).unwrap().load_kg, Some(loads[0]));
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
