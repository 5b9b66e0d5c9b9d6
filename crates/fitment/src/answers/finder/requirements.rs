//! What the rules ask of every wheel and tire of a case, worked out once for the search.
//!
//! The search judges nothing itself: each condition is a rule's own judgement, asked here with the rule's own
//! requirement. So nothing is proposed that the ledger of the same job stops.

use crate::car::Fact;
use crate::car::limits::Drive;
use crate::judgement::case::{Case, Needs};
use crate::judgement::club::Class;
use crate::judgement::rules::front_to_rear::AxleRatio;
use crate::judgement::rules::load::LoadRequirement;
use crate::judgement::rules::mount::Hub;
use crate::judgement::rules::overall_diameter::DiameterGrade;
use crate::judgement::rules::pressure::PressureFor;
use crate::judgement::rules::speed::SpeedRequirement;
use crate::judgement::rules::speedometer::DialRequirement;
use crate::judgement::rules::{Severity, mount, wheel_rating};
use crate::setup::catalogue::{TireKind, TireRow, Use, WheelRow};
use crate::setup::{Arrangement, Axle, Setup};
use crate::values::codes::{BoltCircle, Spacer};
use crate::values::length::Length;

/// What a case asks, axle by axle where it differs.
#[derive(Debug)]
pub(super) struct Requirements {
    hub: Needs,
    wheel_kg: [Option<f64>; 2],
    /// The same where the set may be rotated between the axles.
    rotated_wheel_kg: Option<f64>,
    load: [LoadRequirement; 2],
    speed: [SpeedRequirement; 2],
    pressure: [PressureFor; 2],
    reference: [Option<Length>; 2],
    dial: DialRequirement,
    pub(super) ratio: AxleRatio,
    limits: crate::car::limits::HouseLimits,
    drive: Option<Drive>,
    factory: [Option<Setup>; 2],
    hubs: [Hub; 2],
    /// The length of its bolts, or of its studs out of the hub.
    fasteners: Option<Length>,
}

/// Such a tire is proposed without an index: the ledger then says that its maker is asked.
fn is_of_competition(row: &TireRow) -> bool {
    row.kind.is_some_and(TireKind::carries_no_service_description)
}

impl Requirements {
    pub(super) fn of(case: &Case<'_>) -> Self {
        let car = &case.state.car;
        Self {
            hub: Needs::of(car, &case.fitted),
            wheel_kg: Axle::BOTH.map(|axle| wheel_rating::needed_kg(case, axle, None)),
            rotated_wheel_kg: wheel_rating::needed_kg(case, Axle::Front, Some(Arrangement::Square)),
            load: Axle::BOTH.map(|axle| LoadRequirement::of(car, &case.fitted, axle)),
            speed: Axle::BOTH.map(|axle| SpeedRequirement::of(car, &case.fitted, axle)),
            pressure: Axle::BOTH.map(|axle| case.pressure_for(axle)),
            reference: Axle::BOTH
                .map(|axle| case.reference(axle).and_then(|reference| reference.setup.overall_diameter())),
            dial: DialRequirement::of(case),
            ratio: AxleRatio::of(case),
            limits: *case.limits,
            drive: case.drive,
            factory: Axle::BOTH.map(|axle| case.reference(axle).map(|reference| reference.setup)),
            hubs: Axle::BOTH.map(|axle| {
                let fitted = case.fitted.on(axle).and_then(|setup| setup.wheel);
                Hub::of_car(car, axle, fitted.as_ref())
            }),
            fasteners: car.number(Fact::FastenerLength, None).and_then(Length::from_mm),
        }
    }

    /// Whether a class lets a wheel stand on an axle; a clause that cannot be judged of it is no way in.
    pub(super) fn class_allows_wheel(&self, axle: usize, row: &WheelRow, class: Option<&Class>) -> bool {
        let Some(class) = class else { return true };
        let planned = Setup { wheel: Some(row.wheel), ..Setup::default() };
        class.allows_wheel(self.factory[axle].as_ref(), &planned, row.make)
    }

    /// Whether a use asks nothing of the tires of an axle: at the strip a car that is driven by one axle wears its slicks
    /// there, and narrow street tires run free on the other. Common practice.
    pub(super) fn runs_free(&self, axle: usize, wanted: Use) -> bool {
        let driven = match self.drive {
            Some(Drive::Front) => 0,
            Some(Drive::Rear) => 1,
            Some(Drive::All) | None => return false,
        };
        wanted == Use::DragStrip && axle != driven
    }

    /// The car's bolt circle, where it is known.
    pub(super) fn bolt_circle(&self) -> Option<BoltCircle> {
        self.hub.bolt_circle
    }

    pub(super) fn bolt_circle_fits(&self, row: &WheelRow) -> bool {
        let drilled: Vec<BoltCircle> = row.circles().collect();
        mount::bolt_circle(self.hub.bolt_circle, &drilled) != Some(mount::CircleIssue::DoesNotMatch)
    }

    pub(super) fn bore_fits(&self, axle: usize, row: &WheelRow) -> bool {
        !matches!(
            mount::center_bore(self.hub.hub[axle], row.wheel.center_bore),
            Some(mount::BoreIssue::TooSmall)
        )
    }

    /// Whether what holds the wheels could hold them over a spacer.
    pub(super) fn takes_spacer(&self, axle: usize, spacer_mm: f64) -> bool {
        let spacer = Spacer::from_mm(spacer_mm);
        spacer.is_none_or(|spacer| mount::could_hold(&self.hubs[axle], self.fasteners, spacer))
    }

    pub(super) fn rating_is_enough(&self, axle: usize, row: &WheelRow) -> bool {
        wheel_rating::is_enough(row.load_kg, self.wheel_kg[axle])
    }

    pub(super) fn rating_is_enough_when_rotated(&self, row: &WheelRow) -> bool {
        wheel_rating::is_enough(row.load_kg, self.rotated_wheel_kg)
    }

    /// Enough for the axle's rating, the reference's index and what the placard's pressure carries. A tire without its
    /// index is not proposed where something asks for one.
    pub(super) fn load_is_enough(&self, axle: usize, row: &TireRow) -> bool {
        use crate::judgement::rules::load::Load;
        let asks = self.load[axle].half_rating_kg.is_some() || self.load[axle].reference.is_some();
        let judged = self.load[axle].judge(&row.tire);
        (judged != Load::NotStated || !asks || is_of_competition(row))
            && judged.severity() != Severity::Stop
            && self.pressure[axle].can_be_met_by(&row.tire)
    }

    pub(super) fn speed_is_enough(&self, axle: usize, row: &TireRow) -> bool {
        use crate::judgement::rules::speed::Speed;
        let asks = self.speed[axle].top_speed_kmh.is_some()
            || self.speed[axle].reference.is_some_and(|(tire, _)| tire.top_speed_kmh().is_some());
        let judged = self.speed[axle].judge(&row.tire, row.kind);
        (judged != Speed::NotStated || !asks || is_of_competition(row)) && judged.severity() != Severity::Stop
    }

    /// Change of overall diameter against the reference, in per cent; zero while there is none.
    pub(super) fn change_pct(&self, axle: usize, diameter: Length) -> f64 {
        self.reference[axle].map_or(0.0, |reference| (diameter / reference - 1.0) * 100.0)
    }

    pub(super) fn diameter_is_inside(&self, axle: usize, diameter: Length) -> bool {
        DiameterGrade::of(self.change_pct(axle, diameter), &self.limits) != DiameterGrade::Beyond
    }

    /// Whether the dial of this car takes both diameters.
    pub(super) fn dial_takes(&self, front: Length, rear: Length) -> bool {
        let ratio =
            |axle: usize, diameter: Length| self.reference[axle].map(|reference| diameter / reference);
        self.dial
            .judge(ratio(0, front), ratio(1, rear))
            .is_none_or(|dial| !matches!(dial.severity(), Severity::Stop | Severity::Measure))
    }

    /// Section width of the reference tire on its rim: about what the car's weight asks for.
    pub(super) fn heat_width(case: &Case<'_>, axle: Axle) -> Option<Length> {
        case.reference(axle).map(|reference| reference.setup).as_ref().and_then(Setup::section_width)
    }
}
