//! From what is kept to what the API shows, and back: types of the same fields, field by field. Neither can change without the
//! other being thought of.

use std::collections::BTreeMap;

use fitment::judgement::purpose::ChainClass;
use fitment::records::road_sheet as kept;
use fitment::records::search_wish::{LeverSetting, SearchWish};
use fitment::setup::PerAxle as AxlePair;

use super::PerAxle;
use super::at_limit::{CarSheet, HotSheet};
use super::club::{ClassOf, ClassView, ClauseView};
use super::corner::LeverAmount;
use super::finder::{Chains, FinderRequest};
use super::inspections::InspectedSheet;
use super::plan_on_road::WingSheet;
use super::road::{DepthsRequest, GearsRequest};
use super::road_sheet::{RoadSheet, WeighedSheet};
use super::seasons::TireLog;

/// Carried over, whole.
pub(super) trait Carried<T> {
    /// The same as the other type has it.
    fn carried(self) -> T;
}

macro_rules! plain {
    ($($type:ty),*) => {
        $(impl Carried<$type> for $type {
            fn carried(self) -> $type {
                self
            }
        })*
    };
}

impl Carried<Option<String>> for Chains {
    fn carried(self) -> Option<String> {
        match self {
            Self::Any(false) => None,
            Self::Any(true) => Some(ChainClass::default().code().to_owned()),
            Self::Class(code) => Some(code),
        }
    }
}

impl Carried<Chains> for Option<String> {
    fn carried(self) -> Chains {
        self.map_or(Chains::Any(false), Chains::Class)
    }
}

plain!(f64, bool, String, usize, BTreeMap<String, f64>);

impl<A: Carried<B>, B> Carried<Option<B>> for Option<A> {
    fn carried(self) -> Option<B> {
        self.map(Carried::carried)
    }
}

impl<A: Carried<B>, B> Carried<Vec<B>> for Vec<A> {
    fn carried(self) -> Vec<B> {
        self.into_iter().map(Carried::carried).collect()
    }
}

impl<A: Carried<B>, B> Carried<AxlePair<B>> for PerAxle<A> {
    fn carried(self) -> AxlePair<B> {
        AxlePair { front: self.front.carried(), rear: self.rear.carried() }
    }
}

impl<A: Carried<B>, B> Carried<PerAxle<B>> for AxlePair<A> {
    fn carried(self) -> PerAxle<B> {
        PerAxle { front: self.front.carried(), rear: self.rear.carried() }
    }
}

macro_rules! same_fields {
    ($($api:ident = $kept:path { $($field:ident),* $(,)? })*) => {
        $(impl Carried<$kept> for $api {
            fn carried(self) -> $kept {
                let Self { $($field),* } = self;
                $kept { $($field: $field.carried()),* }
            }
        }

        impl Carried<$api> for $kept {
            fn carried(self) -> $api {
                let Self { $($field),* } = self;
                $api { $($field: $field.carried()),* }
            }
        })*
    };
}

same_fields! {
    LeverAmount = LeverSetting { lever, amount }
    FinderRequest = SearchWish {
        school, uses, season, keeps, allowed, arrangement, mixed_diameters, rim_min_in, rim_max_in, rear_rim_min_in,
        rear_rim_max_in, in_class, budget, thickest_spacer_mm, wheel_line, tire_line, weights, count, carried, chains,
    }
    RoadSheet = kept::RoadSheet {
        gears, cruise_kmh, believed_diameter_mm, torque_nm, fitted_kg, wing, car, hot, class, class_of, gap_s,
        season_runs, inspections, tires, limit_mm,
    }
    GearsRequest = kept::Gears { ratios, final_drive, low_range, limiter_rpm }
    WeighedSheet = kept::Weighed { wheel_kg, tire_kg }
    WingSheet = kept::Wing { ahead_mm, behind_mm }
    CarSheet = kept::CarAtTheLimit {
        mass_kg, front_share, cg_height_m, wheelbase_m, track_front_m, track_rear_m, roll_share_front, lateral_g,
        braking_g, downforce_kg, downforce_front_share, speed_kmh,
    }
    HotSheet = kept::HotPressures { front_hot_kpa, rear_hot_kpa, cold_c, hot_c }
    ClassView = kept::ClassRules { name, clauses }
    ClauseView = kept::ClauseText { clause, most, least, any_of }
    ClassOf = kept::TakenFrom { club, from }
    InspectedSheet = kept::Inspected { code, at, runs, found }
    TireLog = kept::LoggedTire {
        id, name, position, date_code, is_directional, is_asymmetric, turned_over, price, readings,
    }
    DepthsRequest = kept::TreadReading {
        at, distance_km, runs, inner_mm, middle_mm, outer_mm, stood_at, turned_over, cold_kpa, hot_kpa, inner_c,
        middle_c, outer_c,
    }
}
