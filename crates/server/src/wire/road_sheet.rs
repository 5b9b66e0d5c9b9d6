//! A job's road and track sheet: what is typed on it, and what it comes to.

use app::road::classed;
use app::{JobKnowledge, JudgingContext};
use fitment::Length;
use fitment::car::Fact;
use fitment::judgement::club::is_legal;
use fitment::judgement::coverage;
use fitment::judgement::rules::pressure;
use fitment::records;
use fitment::road::dial::diameters;
use fitment::road::rolling::{Gearing, USUAL_CRUISE_KMH};
use fitment::road::rolling::{pull_n, rolling_circumference};
use fitment::road::rolling_mass::Weighed;
use fitment::road::track::CarStart;
use fitment::road::track::{cold_pressure_kpa, hot_pressure_kpa};
use fitment::road::tread::LEGAL_MM;
use fitment::road::upkeep;
use fitment::setup::Axle;
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use store::documents::{self, Unreadable};
use store::jobs::JobContent;
use utoipa::ToSchema;

use super::PerAxle;
use super::at_limit::{CarSheet, CarStartView, ColdView, HotSheet, TRACK_CAUTION, TrackCaseView};
use super::carried::Carried;
use super::club::{AllowedView, ClassBoxView, ClassOf, ClassView, JudgedClauseView, KeptClubView};
use super::inspections::{self, InspectedSheet, InspectionView};
use super::plan_on_road::{AxlePressuresView, CoveredView, DialView, WingSheet, covered, pressures};
use super::road::{COLD_CAUTION, GearsRequest, RoadView, TIRE_KPA};
use super::seasons::{SeasonView, TireLog};
use super::sets::{Against, JobSet, JobSets, SetView};
use crate::problem::ApiError;
use crate::wire::read::FieldErrors;

/// The fitted wheel and tire on the scale.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct WeighedSheet {
    pub wheel_kg: f64,
    pub tire_kg: f64,
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
    /// Most torque of the engine, for the pull at the road.
    #[serde(default)]
    pub torque_nm: Option<f64>,
    /// The fitted set's weights.
    #[serde(default)]
    pub fitted_kg: Option<WeighedSheet>,
    /// Lips beside the top of the arch.
    #[serde(default)]
    pub wing: PerAxle<WingSheet>,
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

impl RoadSheet {
    /// As it is kept with a job; faults are noted under `pointer`.
    pub fn kept(&self, errors: &mut FieldErrors, pointer: &str) -> Option<String> {
        if let Err(ApiError::Unprocessable(faults)) = self.checked() {
            for fault in faults {
                errors.fault(&format!("{pointer}{}", fault.pointer), fault.detail);
            }
            return None;
        }
        Some(documents::write::<records::RoadSheet>(&self.clone().carried()))
    }

    /// Its class, as the core judges it.
    pub fn class_of(&self) -> Option<fitment::judgement::club::Class> {
        Some(self.class.as_ref()?.read(&mut FieldErrors::default(), ""))
    }

    /// As it was kept.
    ///
    /// # Errors
    /// What stands there and cannot be read.
    pub fn of_kept(text: &str) -> Result<Self, Unreadable> {
        Ok(documents::read::<records::RoadSheet>(text)?.carried())
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
        // The cases brake and corner by turns: what the car is checked with has no braking in it.
        within("/car/braking_g", "braking", self.car.as_ref().map(|car| car.braking_g), (0.0, 4.0));
        within("/torque_nm", "an engine's torque", self.torque_nm, (10.0, 3000.0));
        for (name, kg) in [
            ("wheel_kg", self.fitted_kg.map(|one| one.wheel_kg)),
            ("tire_kg", self.fitted_kg.map(|one| one.tire_kg)),
        ] {
            within(&format!("/fitted_kg/{name}"), "a wheel's or a tire's weight", kg, (1.0, 100.0));
        }
        for (axle, wing) in [("front", self.wing.front), ("rear", self.wing.rear)] {
            for (name, mm) in [("ahead_mm", wing.ahead_mm), ("behind_mm", wing.behind_mm)] {
                within(&format!("/wing/{axle}/{name}"), "a lip beside the wheel", mm, (-150.0, 300.0));
            }
        }
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
    /// Pull at the road in first gear at the torque, reference and plan, in newtons; null while a figure of it is missing.
    pub first_gear_pull_n: Option<[f64; 2]>,
    /// Whether the wing covers the planned wheel, from ahead to behind.
    pub coverage: PerAxle<Vec<CoveredView>>,
    /// Stands beside it.
    pub coverage_caution: &'static str,
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
        let known = JobKnowledge::of(content, Vec::new());
        let sets = JobSets::of(content, &known, context);
        let case = &sets.bench.case;
        let tires = diameters(case);
        let believed = self.believed_diameter_mm.and_then(Length::from_mm);
        let cruise_kmh = self.cruise_kmh.unwrap_or(USUAL_CRUISE_KMH);
        let driveline = self.gears.as_ref().and_then(|gears| gears.read(&mut none, ""));
        let gearings = driveline.as_ref().zip(tires).map(|(driveline, (_, reference, planned))| {
            Gearing::on_both(driveline, reference, planned, cruise_kmh)
        });
        let [gearing_reference, gearing_planned] = match gearings {
            Some(both) => both.map(|one| Some(RoadView::from(one))),
            None => [None, None],
        };
        let track = self.car.as_ref().map_or_else(Vec::new, |car| car.cases(case));
        let placard = |axle| {
            let fact = Fact::PlacardPressure;
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
        let class = self.class_of();
        let fitted = self.fitted_kg.map(|one| Weighed { wheel_kg: one.wheel_kg, tire_kg: one.tire_kg });
        let against = Against { car: self.car.as_ref(), class: class.as_ref(), fitted };
        let pull = self.torque_nm.zip(driveline.as_ref()).zip(tires);
        Ok(RoadSheetView {
            sets: sets.views(content, against),
            pressures: pressures(case),
            pressure_caution: pressure::CAUTION,
            dial: tires.map(|(axle, reference, planned)| {
                let over_reads_pct = context.state.car.number(Fact::DialOverRead, None);
                DialView::new(axle.into(), reference, planned, believed, over_reads_pct)
            }),
            gearing_reference,
            gearing_planned,
            cruise_kmh,
            first_gear_pull_n: pull.and_then(|((torque, driveline), (_, reference, planned))| {
                let first = driveline.ratios.first()?;
                let on = |tire| pull_n(torque, *first, driveline.final_drive, rolling_circumference(tire));
                Some([on(reference), on(planned)])
            }),
            coverage: PerAxle {
                front: covered(case, Axle::Front, self.wing.front),
                rear: covered(case, Axle::Rear, self.wing.rear),
            },
            coverage_caution: coverage::CAUTION,
            track: track.into_iter().map(TrackCaseView::from).collect(),
            cold,
            class: self.class.as_ref().map(|class| ClassSheetView {
                news: self.class_of.as_ref().and_then(|of| of.news(class, clubs)),
                ..class_sheet(class, &sets)
            }),
            inspections: inspections::plan(&self.inspections, self.runs_now(), &context.limits, today),
            seasons,
            rotation,
            rotation_caution: upkeep::CAUTION,
            limit_mm: self.limit_mm.unwrap_or(LEGAL_MM),
            start: {
                let start = CarStart::of(&content.measurements.car);
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

/// The class over bench and candidates: a kept setup is judged by the rows it is made of, as in compare.
fn class_sheet(class: &ClassView, sets: &JobSets<'_>) -> ClassSheetView {
    let class = class.read(&mut FieldErrors::default(), "");
    let of = |set: &JobSet<'_>| {
        let judged = classed(&class, &set.case);
        ClassedView {
            letter: set.letter.map(String::from),
            legal: is_legal(&judged),
            clauses: judged.into_iter().map(JudgedClauseView::from).collect(),
        }
    };
    let bench = &sets.bench.case;
    let reference = bench.reference_pair();
    let allowed = reference.front.map(|setup| class.allowed(&setup)).unwrap_or_default();
    let class_box = |axle| ClassBoxView::new(&class, reference.on(axle), bench.planned.on(axle));
    ClassSheetView {
        plans: sets.plans().map(of).collect(),
        allowed: AllowedView::from(allowed),
        boxes: PerAxle { front: class_box(Axle::Front), rear: class_box(Axle::Rear) },
        news: None,
    }
}
