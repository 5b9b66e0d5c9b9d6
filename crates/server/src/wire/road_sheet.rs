//! A job's road and track sheet: what is typed on it, and what it comes to.

use app::road::{TrackCase, WheelAtLimit, classed, dial, diameters, gearing, track_cases};
use app::{JobKnowledge, JudgingContext};
use fitment::club::is_legal;
use fitment::rules::pressure::{self, CasePressure};
use fitment::setup::{Axle, SetupPair};
use fitment::track::{CarAtLimit, Utilisation, cold_pressure_kpa, hot_pressure_kpa};
use fitment::upkeep;
use fitment::{Length, Tire};
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use store::jobs::{Candidate, JobContent};
use utoipa::ToSchema;

use super::club::{AllowedView, ClassBoxView, ClassOf, ClassView, JudgedClauseView, KeptClubView};
use super::inspections::{self, InspectedSheet, InspectionView};
use super::road::{COLD_CAUTION, FourView, GearsRequest, RoadView, TIRE_KPA};
use super::seasons::{SeasonView, TireLog};
use super::sets::{Against, SetView, of_candidate, sets};
use super::{AxleCode, PerAxle};
use crate::problem::ApiError;
use crate::wire::read::FieldErrors;

/// The car at the limit, as far as somebody typed it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::track::CarAtLimit")]
pub struct CarSheet {
    pub mass_kg: f64,
    pub front_share: f64,
    pub cg_height_m: f64,
    pub wheelbase_m: f64,
    pub track_front_m: f64,
    pub track_rear_m: f64,
    pub roll_share_front: f64,
    pub lateral_g: f64,
    pub braking_g: f64,
    #[serde(default)]
    pub downforce_kg: f64,
    #[serde(default = "half")]
    pub downforce_front_share: f64,
    /// Speed of the corner: a fast tire carries less near the end of its symbol. Null: not reckoned with.
    #[serde(default)]
    pub speed_kmh: Option<f64>,
}

fn half() -> f64 {
    0.5
}

/// Hot pressures that are wanted, and the day's air.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct HotSheet {
    pub front_hot_kpa: f64,
    pub rear_hot_kpa: f64,
    pub cold_c: f64,
    pub hot_c: f64,
}

/// What is typed on a job's road and track sheet; what nobody typed leaves its rows out.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RoadSheet {
    /// The driveline.
    #[serde(default)]
    pub gears: Option<GearsRequest>,
    /// Cruise in top gear.
    #[serde(default)]
    pub cruise_kmh: Option<f64>,
    /// Overall diameter that the car's computer believes.
    #[serde(default)]
    pub believed_diameter_mm: Option<f64>,
    /// The car at the limit.
    #[serde(default)]
    pub car: Option<CarSheet>,
    /// Hot pressures.
    #[serde(default)]
    pub hot: Option<HotSheet>,
    /// Its class.
    #[serde(default)]
    pub class: Option<ClassView>,
    /// Of which rule file it was taken.
    #[serde(default)]
    pub class_of: Option<ClassOf>,
    /// Seconds behind the class's leaders.
    #[serde(default)]
    pub gap_s: Option<f64>,
    /// Runs still to come this season.
    #[serde(default)]
    pub season_runs: Option<f64>,
    /// What was looked at of its wheels, as it was noted.
    #[serde(default)]
    pub inspections: Vec<InspectedSheet>,
    /// Its tires.
    #[serde(default)]
    pub tires: Vec<TireLog>,
    /// Depth at which a tire is done.
    #[serde(default)]
    pub limit_mm: Option<f64>,
}

/// Tires of a sheet at most: a few sets.
const MOST_TIRES: usize = 40;
/// Readings of a tire at most: years of events.
const MOST_READINGS: usize = 1000;
/// Legal minimum in the main grooves.
pub(super) const LEGAL_MM: f64 = 1.6;
/// A cruise that is compared when nobody names one.
const USUAL_CRUISE_KMH: f64 = 100.0;

impl RoadSheet {
    /// As it is kept with a job; faults are noted under `pointer`.
    pub fn kept(&self, errors: &mut FieldErrors, pointer: &str) -> Option<String> {
        if let Err(ApiError::Unprocessable(faults)) = self.checked() {
            for fault in faults {
                errors.fault(&format!("{pointer}{}", fault.pointer), fault.detail);
            }
            return None;
        }
        serde_json::to_string(self).ok()
    }

    /// Its class, as the core judges it.
    pub fn class_of(&self) -> Option<fitment::club::Class> {
        Some(self.class.as_ref()?.read(&mut FieldErrors::default(), ""))
    }

    /// As it was kept; nothing when it can no longer be read.
    pub fn of_kept(json: &str) -> Option<Self> {
        serde_json::from_str(json).ok()
    }

    /// Whether every figure can be.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn checked(&self) -> Result<(), ApiError> {
        let mut errors = FieldErrors::default();
        self.gears.as_ref().map(|gears| gears.read(&mut errors, "/gears"));
        let mut within = |pointer: &str, what: &str, value: Option<f64>, (least, most): (f64, f64)| {
            if let Some(value) = value.filter(|value| !(least..=most).contains(value)) {
                errors.fault(pointer, format!("{what} goes from {least} to {most}, not {value}"));
            }
        };
        within("/cruise_kmh", "a cruise", self.cruise_kmh, (1.0, 500.0));
        within("/believed_diameter_mm", "an overall diameter", self.believed_diameter_mm, (300.0, 1400.0));
        let speed = self.car.as_ref().and_then(|car| car.speed_kmh);
        within("/car/speed_kmh", "a corner's speed", speed, (1.0, 400.0));
        within("/gap_s", "a gap to the leaders", self.gap_s, (0.0, 3600.0));
        within("/season_runs", "runs of a season", self.season_runs, (0.0, 100_000.0));
        within("/limit_mm", "a limit", self.limit_mm, (0.0, 15.0));
        if let Some(hot) = &self.hot {
            within("/hot/front_hot_kpa", "a pressure", Some(hot.front_hot_kpa), TIRE_KPA);
            within("/hot/rear_hot_kpa", "a pressure", Some(hot.rear_hot_kpa), TIRE_KPA);
            within("/hot/cold_c", "the air's temperature", Some(hot.cold_c), (-60.0, 70.0));
            within("/hot/hot_c", "the tire's temperature", Some(hot.hot_c), (-60.0, 200.0));
        }
        if let Some(Err(faults)) = self.car.as_ref().map(|car| car.at_limit().checked()) {
            for fault in faults {
                errors.fault(&format!("/car/{}", fault.field), fault.to_string());
            }
        }
        if let Some(class) = &self.class {
            class.read(&mut errors, "/class");
        }
        if let Some(of) = &self.class_of {
            errors.text("/class_of/club", &of.club, 120);
            errors.text("/class_of/from", &of.from, 20);
        }
        inspections::check(&self.inspections, &mut errors);
        if self.tires.len() > MOST_TIRES {
            errors.fault("/tires", format!("more than {MOST_TIRES} tires are not kept with a job"));
        }
        for (at, tire) in self.tires.iter().enumerate() {
            let pointer = format!("/tires/{at}");
            errors.text(&format!("{pointer}/name"), &tire.name, 80);
            errors.text(&format!("{pointer}/id"), &tire.id, 80);
            errors.text(&format!("{pointer}/date_code"), &tire.date_code, 20);
            if !["fl", "fr", "rl", "rr", "off"].contains(&tire.position.as_str()) {
                errors.fault(&format!("{pointer}/position"), "is fl, fr, rl, rr or off");
            }
            if tire.readings.len() > MOST_READINGS {
                let says = format!("more than {MOST_READINGS} readings of one tire are not kept");
                errors.fault(&format!("{pointer}/readings"), says);
            }
            if let Err(ApiError::Unprocessable(faults)) = self.season(tire).wear() {
                for fault in faults {
                    errors.fault(&format!("{pointer}{}", fault.pointer), fault.detail);
                }
            }
        }
        errors.finish(())
    }
}

impl CarSheet {
    /// The cases at the limit on a set.
    pub fn cases(&self, context: &JudgingContext, set: &SetupPair) -> Vec<TrackCase> {
        track_cases(&self.at_limit(), self.braking_g, self.speed_kmh, context, set)
    }

    fn at_limit(&self) -> CarAtLimit {
        CarAtLimit {
            mass_kg: self.mass_kg,
            front_share: self.front_share,
            cg_height_m: self.cg_height_m,
            wheelbase_m: self.wheelbase_m,
            track_front_m: self.track_front_m,
            track_rear_m: self.track_rear_m,
            roll_share_front: self.roll_share_front,
            lateral_g: self.lateral_g,
            longitudinal_g: 0.0,
            downforce_kg: self.downforce_kg,
            downforce_front_share: self.downforce_front_share,
        }
    }
}

/// A shown speed and the true ones.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct ShownView {
    pub shown_kmh: f64,
    pub true_kmh: f64,
    /// By what the computer believes; null while nobody read that.
    pub by_computer_kmh: Option<f64>,
}

/// The dial of a plan.
#[derive(Debug, Serialize, ToSchema)]
pub struct DialView {
    /// Which axle the dial was taken to follow.
    pub by_axle: AxleCode,
    /// Overall diameter of the reference there.
    pub reference_mm: f64,
    /// Overall diameter of the plan there.
    pub planned_mm: f64,
    /// At the speeds on metric signs.
    pub metric: Vec<ShownView>,
    /// On imperial ones.
    pub imperial: Vec<ShownView>,
    /// Kilometres driven for a hundred on the odometer.
    pub per_100_km: f64,
}

/// A wheel in a case against its parts.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct WheelAtLimitView {
    pub position: &'static str,
    pub load_kg: f64,
    /// The wheel's rating; null while the row that was picked does not say it.
    pub rating_kg: Option<f64>,
    pub tire_kg: Option<f64>,
    /// Whether it carries more than the tire's index or the wheel's rating says for the road.
    pub is_over: bool,
    /// Share of the moment of the wheel's own fatigue test.
    pub tested_share: Option<f64>,
    /// `good`, `watch` or `not_for_this`.
    pub stands: Option<&'static str>,
}

/// A case at the track.
#[derive(Debug, Serialize, ToSchema)]
pub struct TrackCaseView {
    /// Its code.
    pub code: &'static str,
    /// In words.
    pub name: &'static str,
    /// At rest.
    pub static_kg: FourView,
    /// In the case.
    pub loads_kg: FourView,
    /// Wheels in the air.
    pub lifted: Vec<&'static str>,
    /// Each against its parts.
    pub wheels: Vec<WheelAtLimitView>,
}

impl From<WheelAtLimit> for WheelAtLimitView {
    fn from(one: WheelAtLimit) -> Self {
        let stands = |one: Utilisation| match one {
            Utilisation::Good => "good",
            Utilisation::Watch => "watch",
            Utilisation::NotForThis => "not_for_this",
        };
        Self {
            position: one.position.code(),
            load_kg: one.load_kg,
            rating_kg: one.rating_kg,
            tire_kg: one.tire_kg,
            is_over: one.is_over,
            tested_share: one.tested_share,
            stands: one.utilisation.map(stands),
        }
    }
}

impl From<TrackCase> for TrackCaseView {
    fn from(case: TrackCase) -> Self {
        Self {
            code: case.code,
            name: case.name,
            static_kg: case.loads.static_kg.into(),
            loads_kg: case.loads.loads_kg.into(),
            lifted: case.loads.lifted.iter().map(|wheel| wheel.code()).collect(),
            wheels: case.wheels.into_iter().map(WheelAtLimitView::from).collect(),
        }
    }
}

/// Cold pressures to set.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct ColdView {
    pub front_cold_kpa: f64,
    pub rear_cold_kpa: f64,
    /// What the placard's pressures come to hot; null while they are not known.
    pub front_placard_hot_kpa: Option<f64>,
    pub rear_placard_hot_kpa: Option<f64>,
    pub caution: &'static str,
}

/// A cold pressure for what a tire must carry.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct CasePressureView {
    /// What it is set for, in words.
    pub case: &'static str,
    pub load_kg: f64,
    /// Null when the tire is too small for it at any pressure, or not made for the speed.
    pub kpa: Option<f64>,
}

/// Cold pressures of the planned tire on an axle.
#[derive(Debug, Serialize, ToSchema)]
pub struct AxlePressuresView {
    /// Which.
    pub axle: AxleCode,
    /// Why none can be suggested, and what would open it.
    pub none_says: Option<&'static str>,
    /// By what they are set for; empty while the car's record says nothing of it.
    pub cases: Vec<CasePressureView>,
}

fn pressures(content: &JobContent, context: &JudgingContext) -> Vec<AxlePressuresView> {
    let case = context.case(&content.fitted, &content.planned, content.drive);
    let tires = Axle::BOTH.into_iter().filter_map(|axle| Some((axle, content.planned.on(axle)?.tire?)));
    let of = |(axle, tire): (Axle, Tire)| {
        let (none_says, cases) = match case.pressures_by_case(axle, &tire) {
            Ok(cases) => (None, cases),
            Err(why) => (Some(why.says()), Vec::new()),
        };
        let view = |one: CasePressure| CasePressureView {
            case: one.case.words(),
            load_kg: one.load_kg,
            kpa: one.kpa,
        };
        AxlePressuresView { axle: axle.into(), none_says, cases: cases.into_iter().map(view).collect() }
    };
    tires.map(of).collect()
}

/// A plan before the class.
#[derive(Debug, Serialize, ToSchema)]
pub struct ClassedView {
    /// The candidate's letter; null for the bench.
    pub letter: Option<String>,
    /// Whether every clause is known to be kept.
    pub legal: bool,
    /// Clause by clause.
    pub clauses: Vec<JudgedClauseView>,
}

/// The class over the job's plans.
#[derive(Debug, Serialize, ToSchema)]
pub struct ClassSheetView {
    /// The bench and the candidates.
    pub plans: Vec<ClassedView>,
    /// The most it leaves in front.
    pub allowed: AllowedView,
    /// Where it leaves a wheel on each axle's fit window.
    pub boxes: PerAxle<Option<ClassBoxView>>,
    /// What became of the club's rules since it was taken; null while they are the same, or nobody knows of which it was.
    pub news: Option<String>,
}

/// What a road and track sheet comes to.
#[derive(Debug, Serialize, ToSchema)]
pub struct RoadSheetView {
    /// The dial; null while a tire is not stated.
    pub dial: Option<DialView>,
    /// Gearing on the reference tire.
    pub gearing_reference: Option<RoadView>,
    /// Gearing on the plan's.
    pub gearing_planned: Option<RoadView>,
    /// Cruise that they are compared at.
    pub cruise_kmh: f64,
    /// Cases at the track.
    pub track: Vec<TrackCaseView>,
    /// Cold pressures.
    pub cold: Option<ColdView>,
    /// The class.
    pub class: Option<ClassSheetView>,
    /// Cold pressures of the plan for the road, axle by axle.
    pub pressures: Vec<AxlePressuresView>,
    /// Stands beside them.
    pub pressure_caution: &'static str,
    /// What is fitted, planned and kept, side by side.
    pub sets: Vec<SetView>,
    /// Looks at the wheels, and when each comes due.
    pub inspections: Vec<InspectionView>,
    /// The tires' seasons.
    pub seasons: Vec<SeasonView>,
    /// What the four on the car ask for, as a set; null while a depth or the sizes are not known, or nothing is due.
    pub rotation: Option<String>,
    /// Stands beside it.
    pub rotation_caution: &'static str,
    /// Depth at which a tire is done.
    pub limit_mm: f64,
    /// What the car at the limit starts from.
    pub start: CarStartView,
    /// Stands beside the loads.
    pub track_caution: &'static str,
}

/// What the car at the limit starts from: its record, and estimates by its body.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct CarStartView {
    pub mass_kg: Option<f64>,
    pub front_share: Option<f64>,
    /// Estimate.
    pub cg_height_m: f64,
    /// Estimate.
    pub roll_share_front: f64,
}

/// Stands beside every figure of the track.
const TRACK_CAUTION: &str = "A wheel's rating is a static load for road use: on the track every wheel is a wear part. Look \
    for cracks at the spoke roots, the barrel and the seats before each event; the rating and a licensed inspection decide, \
    not the construction.";

impl RoadSheet {
    /// Works it out for a job.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn answer(
        &self,
        content: &JobContent,
        context: &JudgingContext,
        clubs: &[KeptClubView],
        today: Date,
    ) -> Result<RoadSheetView, ApiError> {
        self.checked()?;
        let mut none = FieldErrors::default();
        let tires = diameters(context, content);
        let believed = self.believed_diameter_mm.and_then(Length::from_mm);
        let cruise_kmh = self.cruise_kmh.unwrap_or(USUAL_CRUISE_KMH);
        let driveline = self.gears.as_ref().and_then(|gears| gears.read(&mut none, ""));
        let gearings = driveline
            .zip(tires)
            .map(|(driveline, (_, reference, planned))| gearing(&driveline, reference, planned, cruise_kmh));
        let [gearing_reference, gearing_planned] = match gearings {
            Some(both) => both.map(|one| Some(RoadView::from(one))),
            None => [None, None],
        };
        let track = self.car.as_ref().map_or_else(Vec::new, |car| car.cases(context, &content.planned));
        let placard = |axle| {
            let fact = fitment::car::Fact::PlacardPressure;
            context.state.car.number(fact, Some(axle))
        };
        let cold = self.hot.as_ref().map(|hot| {
            let cold = |kpa| cold_pressure_kpa(kpa, hot.cold_c, hot.hot_c);
            let heated = |axle| placard(axle).map(|kpa| hot_pressure_kpa(kpa, hot.cold_c, hot.hot_c));
            ColdView {
                front_cold_kpa: cold(hot.front_hot_kpa),
                rear_cold_kpa: cold(hot.rear_hot_kpa),
                front_placard_hot_kpa: heated(fitment::Axle::Front),
                rear_placard_hot_kpa: heated(fitment::Axle::Rear),
                caution: COLD_CAUTION,
            }
        });
        let (seasons, rotation) = self.seasons(content, context);
        let known = JobKnowledge::of(content, Vec::new());
        let class = self.class_of();
        let against = Against { car: self.car.as_ref(), class: class.as_ref() };
        Ok(RoadSheetView {
            sets: sets(content, &known, context, against),
            pressures: pressures(content, context),
            pressure_caution: pressure::CAUTION,
            dial: tires
                .map(|(axle, reference, planned)| DialView::new(axle.into(), reference, planned, believed)),
            gearing_reference,
            gearing_planned,
            cruise_kmh,
            track: track.into_iter().map(TrackCaseView::from).collect(),
            cold,
            class: self.class.as_ref().map(|class| ClassSheetView {
                news: self.class_of.as_ref().and_then(|of| of.news(class, clubs)),
                ..class_sheet(class, content, &known, context)
            }),
            inspections: inspections::plan(&self.inspections, self.runs_now(), &context.limits, today),
            seasons,
            rotation,
            rotation_caution: upkeep::CAUTION,
            limit_mm: self.limit_mm.unwrap_or(LEGAL_MM),
            start: {
                let start = app::road::start(content);
                CarStartView {
                    mass_kg: start.mass_kg,
                    front_share: start.front_share,
                    cg_height_m: start.cg_height_m,
                    roll_share_front: start.roll_share_front,
                }
            },
            track_caution: TRACK_CAUTION,
        })
    }
}

impl DialView {
    fn new(by_axle: AxleCode, reference: Length, planned: Length, believed: Option<Length>) -> Self {
        let (metric, imperial) = dial(reference, planned, believed);
        let view = |one: app::road::Shown| ShownView {
            shown_kmh: one.shown_kmh,
            true_kmh: one.true_kmh,
            by_computer_kmh: one.by_computer_kmh,
        };
        Self {
            by_axle,
            reference_mm: reference.as_mm(),
            planned_mm: planned.as_mm(),
            metric: metric.map(view).into(),
            imperial: imperial.map(view).into(),
            per_100_km: 100.0 * (planned / believed.unwrap_or(reference)),
        }
    }
}

fn class_sheet(
    class: &ClassView,
    content: &JobContent,
    known: &JobKnowledge,
    context: &JudgingContext,
) -> ClassSheetView {
    let class = class.read(&mut FieldErrors::default(), "");
    let of = |letter: Option<char>, planned: &fitment::SetupPair, context: &JudgingContext| {
        let judged = classed(&class, content, planned, context);
        ClassedView {
            letter: letter.map(String::from),
            legal: is_legal(&judged),
            clauses: judged.into_iter().map(JudgedClauseView::from).collect(),
        }
    };
    let case = context.case(&content.fitted, &content.planned, content.drive);
    let reference = case.reference_pair();
    let allowed = reference.front.map(|setup| class.allowed(&setup)).unwrap_or_default();
    let class_box = |axle| ClassBoxView::new(&class, reference.on(axle), content.planned.on(axle));
    // A kept setup is judged by the rows it is made of, as in compare.
    let own = |kept: &Candidate| of(Some(kept.letter), &kept.setups, &of_candidate(kept, known, context));
    let candidates = content.candidates.iter().map(own);
    ClassSheetView {
        plans: std::iter::once(of(None, &content.planned, context)).chain(candidates).collect(),
        allowed: AllowedView::from(allowed),
        boxes: PerAxle { front: class_box(Axle::Front), rear: class_box(Axle::Rear) },
        news: None,
    }
}
