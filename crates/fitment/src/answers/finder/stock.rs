//! The rows that stand for choice on each axle: the catalogue's, or what the owner keeps.

use super::KeptParts;
use crate::setup::catalogue::{Catalogue, TireRow, WheelRow};
use crate::setup::{Axle, SetupPair};

/// The owner's own wheels or tires as rows: they cost nothing and are there.
#[derive(Debug, Default)]
pub(super) struct Own {
    wheels: Option<[Vec<WheelRow>; 2]>,
    tires: Option<[Vec<TireRow>; 2]>,
}

/// How many of the own ones there are on an axle.
const ON_THE_CAR: u32 = 4;

impl Own {
    pub(super) fn of(fitted: &SetupPair, keeps: KeptParts) -> Self {
        let setup = |axle| fitted.on(axle);
        match keeps {
            KeptParts::Nothing => Self::default(),
            KeptParts::Wheels => Self {
                wheels: Some(Axle::BOTH.map(|axle| {
                    let wheel = setup(axle).and_then(|setup| setup.wheel);
                    let row = |wheel| WheelRow {
                        price: Some(0),
                        stock: Some(ON_THE_CAR),
                        ..WheelRow::plain(wheel)
                    };
                    wheel.map(row).into_iter().collect()
                })),
                tires: None,
            },
            KeptParts::Tires => Self {
                wheels: None,
                tires: Some(Axle::BOTH.map(|axle| {
                    let tire = setup(axle).and_then(|setup| setup.tire);
                    let row =
                        |tire| TireRow { price: Some(0), stock: Some(ON_THE_CAR), ..TireRow::plain(tire) };
                    tire.map(row).into_iter().collect()
                })),
            },
        }
    }

    /// With the catalogue for the rest.
    pub(super) fn beside<'a>(&'a self, catalogue: &'a Catalogue) -> Stock<'a> {
        let wheels = match &self.wheels {
            Some([front, rear]) => [front.as_slice(), rear.as_slice()],
            None => [catalogue.wheels.as_slice(); 2],
        };
        let tires = match &self.tires {
            Some([front, rear]) => [front.as_slice(), rear.as_slice()],
            None => [catalogue.tires.as_slice(); 2],
        };
        Stock {
            wheels,
            tires,
            dearest_wheel: catalogue.wheels.iter().filter_map(|row| row.price).max().unwrap_or(0),
            dearest_tire: catalogue.tires.iter().filter_map(|row| row.price).max().unwrap_or(0),
        }
    }
}

/// What stands for choice, front and rear.
#[derive(Debug, Clone, Copy)]
pub(super) struct Stock<'a> {
    pub wheels: [&'a [WheelRow]; 2],
    pub tires: [&'a [TireRow]; 2],
    /// Price of the dearest wheel of the catalogue.
    pub dearest_wheel: u32,
    /// Price of the dearest tire of the catalogue.
    pub dearest_tire: u32,
}
