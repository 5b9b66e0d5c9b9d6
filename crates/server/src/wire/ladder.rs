//! The size ladder, on the wire: each size with what the catalogue has of it and how it stands under the arch.

use app::ladder::{OnShelf, under_the_arch};
use fitment::answers::plus_sizes::{self, Rung};
use fitment::car::corner::Feature;
use fitment::car::limits::HouseLimits;
use fitment::judgement::case::AxleCase;
use fitment::judgement::rules::load::LoadRequirement;
use fitment::judgement::rules::overall_diameter::DiameterGrade;
use fitment::parts::tire::dimensions;
use fitment::setup::catalogue::Catalogue;
use fitment::setup::standard_sizes::is_made;
use fitment::values::load_index::LoadIndex;
use fitment::{Length, RimDiameter, Tire};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::AxleCode;
use super::choose::tire;
use super::corner::VerdictCode;
use super::read::FieldErrors;
use crate::problem::ApiError;

/// Round which tire a ladder stands.
#[derive(Debug, Deserialize, ToSchema)]
pub struct LadderRequest {
    /// The tire; or a height, as in 33, 33 in or 838 mm: the sizes that come to it.
    pub tire: String,
    /// Most that the overall diameter may change, in per cent; the house's limit when left out.
    #[serde(default)]
    pub band_pct: Option<f64>,
    /// Rim codes; every whole one from 13 to 24 when left out.
    #[serde(default)]
    pub rim_diameters_in: Option<Vec<f64>>,
    /// The job whose car the sizes are held against: load need, and room under the arch.
    #[serde(default)]
    pub job: Option<i64>,
    /// Which axle of it; the front one when left out.
    #[serde(default)]
    pub axle: Option<AxleCode>,
}

/// From which rim a height counts plus and minus, on a car of which none is known.
const USUAL_RIM_IN: f64 = 17.0;

/// A height as people name it: `33`, `33 in`, `33"`, `838 mm`; nothing for a tire's size.
fn height_of(text: &str) -> Option<Length> {
    let low = text.trim().to_lowercase().replace(',', ".");
    let digits = low.trim_end_matches(|letter: char| !letter.is_ascii_digit() && letter != '.');
    let unit = low[digits.len()..].trim();
    let value: f64 = digits.parse().ok()?;
    match unit {
        "" | "in" | "inch" | "inches" | "\"" | "''" if (15.0..=60.0).contains(&value) => {
            Length::from_inches(value)
        }
        "" | "mm" if (400.0..=1500.0).contains(&value) => Length::from_mm(value),
        _ => None,
    }
}

/// Widest band that is worked out.
const WIDEST_BAND_PCT: f64 = 15.0;
/// Most rim codes asked for at once.
const MOST_RIMS: usize = 40;

/// One size of a ladder.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit; the rules stand in fitment")]
pub struct RungView {
    pub size: String,
    pub overall_diameter_mm: f64,
    pub section_width_mm: f64,
    pub change_pct: f64,
    pub sidewall_mm: f64,
    pub measuring_rim_in: f64,
    pub permitted_rim_min_in: f64,
    pub permitted_rim_max_in: f64,
    /// Against the tire's own rim code: +1 is "plus one".
    pub plus_in: f64,
    pub rim_diameter_in: f64,
    /// Once round, by geometry.
    pub circumference_mm: f64,
    pub revolutions_per_mile: f64,
    /// `ideal`, `good`, `limit` or `beyond`, by the house's bands.
    pub band: &'static str,
    /// The same in the trade's words.
    pub band_word: &'static str,
    /// Whether the size is known to be made: on the list of standard sizes, or in the catalogue.
    pub is_listed_size: bool,
    /// Tires of this size in the catalogue.
    pub tires_in_catalogue: usize,
    /// Those of them that carry the load; null while the load is not known.
    pub tires_that_carry: Option<usize>,
    /// Wheels in the catalogue that it may be put on.
    pub wheels_in_catalogue: usize,
    /// Room under the arch with it; null while nobody read the arch.
    pub arch_gap_mm: Option<f64>,
    /// How that stands.
    pub arch_verdict: Option<VerdictCode>,
}

/// A ladder.
#[derive(Debug, Serialize, ToSchema)]
pub struct LadderView {
    /// The sizes, the nearest in diameter first.
    pub sizes: Vec<RungView>,
    /// What one tire must carry: the factory's index or half of the axle's rating; null while neither is known.
    pub load_need_kg: Option<f64>,
    /// The lowest load index that carries it.
    pub least_load_index: Option<u8>,
    /// How far above the hub's centre the arch is; null while nobody read it.
    pub arch_above_hub_mm: Option<f64>,
    /// The house's least gap there.
    pub arch_least_mm: Option<f64>,
}

/// The car that a ladder is held against.
#[derive(Debug)]
pub struct LadderCar<'a> {
    /// Its axle as measured.
    pub trial: AxleCase<'a>,
    /// What it asks one tire there to carry.
    pub load: LoadRequirement,
}

impl LadderRequest {
    /// Works the ladder out.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn answer(
        &self,
        limits: &HouseLimits,
        catalogue: &Catalogue,
        car: Option<&LadderCar<'_>>,
    ) -> Result<LadderView, ApiError> {
        let mut errors = FieldErrors::default();
        // "33" is no tire: it is how high one stands.
        let height = height_of(&self.tire);
        let tire = match height {
            Some(_) => None,
            None => tire(&mut errors, "/tire", &self.tire),
        };
        let band = self.band_pct.unwrap_or(limits.diameter_limit_pct);
        if !(0.0..=WIDEST_BAND_PCT).contains(&band) {
            errors.fault("/band_pct", format!("a band goes from 0 to {WIDEST_BAND_PCT} %, not {band}"));
        }
        let rims = match &self.rim_diameters_in {
            None => plus_sizes::all_rims(),
            Some(given) if given.len() > MOST_RIMS => {
                errors.fault(
                    "/rim_diameters_in",
                    format!("more than {MOST_RIMS} rim codes are not worked out"),
                );
                Vec::new()
            }
            Some(given) => given
                .iter()
                .enumerate()
                .filter_map(|(at, code)| {
                    let rim = RimDiameter::from_code(*code);
                    if rim.is_none() {
                        errors.fault(
                            &format!("/rim_diameters_in/{at}"),
                            format!("{code} is not a rim code from 10 to 30"),
                        );
                    }
                    rim
                })
                .collect(),
        };
        let own_rim = car.and_then(|car| car.trial.fitted.tire).map(|tire| tire.size.rim());
        let usual = own_rim.or(RimDiameter::from_code(USUAL_RIM_IN));
        let rungs = match height.zip(usual) {
            Some((height, rim)) => {
                errors.finish(())?;
                plus_sizes::of_height(height, band, &rims, rim)
            }
            None => {
                let tire = errors.finish_with(
                    tire,
                    "/tire",
                    "name a tire, as in 225/45R17, or a height, as in 33",
                )?;
                plus_sizes::ladder(&tire.size, band, &rims)
            }
        };
        let load = car.map(|car| car.load);
        let load_need_kg = load.and_then(|load| load.needed_kg());
        let on_shelf = OnShelf::of(catalogue, load.filter(|_| load_need_kg.is_some()));
        Ok(LadderView {
            sizes: rungs.iter().map(|rung| RungView::new(rung, limits, &on_shelf, car)).collect(),
            load_need_kg,
            least_load_index: load_need_kg.and_then(LoadIndex::least_for).map(LoadIndex::index),
            arch_above_hub_mm: car.and_then(|car| car.trial.arch_above_hub()).map(Length::as_mm),
            arch_least_mm: car.map(|car| car.trial.least(Feature::Arch).as_mm()),
        })
    }
}

impl RungView {
    fn new(rung: &Rung, limits: &HouseLimits, shelf: &OnShelf, car: Option<&LadderCar<'_>>) -> Self {
        let arch = car.and_then(|car| under_the_arch(rung, &car.trial));
        let arch_gap = arch.as_ref().and_then(|line| line.band.as_ref()).map(|band| band.nominal.as_mm());
        let band = DiameterGrade::of(rung.change_pct, limits);
        Self {
            size: Tire::plain(rung.size).to_string(),
            overall_diameter_mm: rung.overall_diameter.as_mm(),
            section_width_mm: rung.size.named_section_width().as_mm(),
            change_pct: rung.change_pct,
            sidewall_mm: rung.sidewall.as_mm(),
            measuring_rim_in: rung.measuring_rim.code(),
            permitted_rim_min_in: rung.permitted.least.code(),
            permitted_rim_max_in: rung.permitted.most.code(),
            plus_in: rung.plus_in,
            rim_diameter_in: rung.size.rim().code(),
            circumference_mm: dimensions::circumference(&rung.size).as_mm(),
            revolutions_per_mile: dimensions::revolutions_per_mile(&rung.size),
            band: band.code(),
            band_word: band.words(),
            is_listed_size: is_made(&rung.size) || shelf.tires_of(&rung.size) > 0,
            tires_in_catalogue: shelf.tires_of(&rung.size),
            tires_that_carry: shelf.tires_that_carry(&rung.size),
            wheels_in_catalogue: shelf.wheels_for(rung),
            arch_gap_mm: arch_gap,
            arch_verdict: arch.map(|line| line.verdict.into()),
        }
    }
}
