//! Tires at the track: each with its season, what it asks for, and what to buy next.

use app::JudgingContext;
use fitment::road::next_step::{self, For, Racer, next_steps, tire_sets};
use fitment::road::track::Position;
use fitment::road::tread::{Heat, LEGAL_MM, Wear, cost_of_wear};
use fitment::road::upkeep::{self, Rolling};
use fitment::setup::Arrangement;
use fitment::setup::catalogue::TireRow;
use serde::{Deserialize, Serialize};
use store::jobs::JobContent;
use utoipa::ToSchema;

use super::finder::FinderRequest;
use super::road::{DepthsRequest, WearRequest, WearView};
use super::road_sheet::RoadSheet;
use crate::problem::ApiError;

/// A tire with its season.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TireLog {
    /// The page's own id for it.
    pub id: String,
    /// What it is called: its line, a mark in chalk.
    pub name: String,
    /// Where it is: `fl`, `fr`, `rl`, `rr`, or `off`.
    pub position: String,
    /// Its date code.
    #[serde(default)]
    pub date_code: String,
    /// Whether it turns one way only.
    #[serde(default)]
    pub is_directional: bool,
    /// Whether one side is marked outside.
    #[serde(default)]
    pub is_asymmetric: bool,
    /// Turned over on its rim, since it was first mounted.
    #[serde(default)]
    pub turned_over: bool,
    /// What it cost; for the cost of a run.
    #[serde(default)]
    pub price: Option<f64>,
    /// Readings in the order they were taken.
    #[serde(default)]
    pub readings: Vec<DepthsRequest>,
}

/// A stretch of readings that a tire stood in one place.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct StoodView {
    /// `fl`, `fr`, `rl`, `rr`.
    pub position: String,
    /// Day of the first reading there.
    pub from: String,
    /// How many readings.
    pub readings: usize,
}

/// A tire's season.
#[derive(Debug, Serialize, ToSchema)]
pub struct SeasonView {
    /// Its id on the sheet.
    pub id: String,
    /// How it wears.
    pub wear: WearView,
    /// Its price over what the tread gives, for 100 km or a run; null while that cannot be told.
    pub cost: Option<f64>,
    /// What its last temperatures say; null while none were read.
    pub heat: Option<&'static str>,
    /// Where it stood, a stretch of readings each, first to last.
    pub stood: Vec<StoodView>,
    /// What it asks for: ordering, turning over on its rim, inspecting.
    pub advice: Vec<String>,
}

/// What to buy next.
#[derive(Debug, Serialize, ToSchema)]
pub struct NextStepView {
    /// In order, each a sentence.
    pub steps: Vec<String>,
    /// Where the order comes from.
    pub source: &'static str,
}

impl RoadSheet {
    /// What to buy next, of the rows of the price lists.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn next_step(
        &self,
        content: &JobContent,
        context: &JudgingContext,
        rows: &[TireRow],
    ) -> Result<NextStepView, ApiError> {
        self.checked()?;
        let (seasons, _) = self.seasons(content, context);
        let on_car = |season: &&SeasonView| {
            let tire = self.tires.iter().find(|tire| tire.id == season.id);
            tire.is_some_and(|tire| tire.position != "off")
        };
        let rolling: Vec<&SeasonView> = seasons.iter().filter(on_car).collect();
        let costs: Option<Vec<f64>> = rolling.iter().map(|season| season.cost).collect();
        let budget = content.wishes.as_deref().and_then(|text| FinderRequest::of_kept(text).ok()?.budget);
        let racer = Racer {
            gap_s: self.gap_s,
            runs_left: rolling.iter().filter_map(|season| season.wear.left_runs).reduce(f64::min),
            cost_per_run: costs.filter(|costs| !costs.is_empty()).map(|costs| costs.iter().sum()),
            season_runs: self.season_runs,
            budget: budget.map(|budget| (budget * 100.0).round().max(0.0) as u64),
        };
        let case = context.case(&content.fitted, &content.planned, content.drive);
        let class = self.class_of();
        let sought =
            content.wishes.as_deref().and_then(|text| FinderRequest::of_kept(text).ok()?.read().ok());
        let wanted =
            sought.map_or_else(For::default, |(wish, _)| For { uses: wish.uses, season: wish.season });
        let sets = tire_sets(rows, &content.planned, &case, class.as_ref(), &wanted);
        Ok(NextStepView { steps: next_steps(&racer, &sets), source: next_step::SOURCE.cite })
    }

    /// Runs of the tires on the car, as last read: of the one that has most.
    pub(super) fn runs_now(&self) -> Option<f64> {
        let on_car = self.tires.iter().filter(|tire| tire.position != "off");
        on_car.filter_map(|tire| tire.readings.last()?.runs).reduce(f64::max)
    }

    /// How each tire wears and what it asks for, and what the four on the car ask for together.
    pub(super) fn seasons(
        &self,
        content: &JobContent,
        context: &JudgingContext,
    ) -> (Vec<SeasonView>, Option<String>) {
        let limit_mm = self.limit_mm.unwrap_or(LEGAL_MM);
        let read: Vec<(&TireLog, WearRequest, Wear)> = self
            .tires
            .iter()
            .filter_map(|tire| {
                let request = self.season(tire);
                let wear = request.wear().ok()?;
                Some((tire, request, wear))
            })
            .collect();
        let rolling: Vec<Rolling<'_>> = read.iter().map(|(tire, _, wear)| tire.rolling(wear)).collect();
        // What rolls today may be the fitted set or the plan already: only what both allow is said.
        let both = [content.fitted.arrangement(), content.planned.arrangement()];
        let arrangement = both.contains(&Some(Arrangement::Staggered)).then_some(Arrangement::Staggered);
        let arrangement = arrangement.or(both.into_iter().flatten().next());
        let old = context.limits.tire_age_years;
        let mut advice = upkeep::upkeep(&rolling, arrangement, limit_mm, old, Some(context.today));
        let rotation = advice.iter().position(|one| one.tire.is_none()).map(|at| advice.remove(at).says);
        let seasons = read
            .iter()
            .enumerate()
            .map(|(at, (tire, request, wear))| {
                let depth = tire.readings.first().map(DepthsRequest::least_mm);
                let wear = request.view(wear);
                let rate = wear.rate_mm_per_run.or(wear.rate_mm_per_1000_km.map(|rate| rate / 10.0));
                let known = tire.price.zip(depth).zip(rate);
                let cost =
                    known.and_then(|((price, depth), rate)| cost_of_wear(price, depth, limit_mm, rate));
                let of_it = advice.iter().filter(|one| one.tire == Some(at));
                let advice = of_it.map(|one| one.says.clone()).collect();
                let heat = tire.readings.iter().rev().find_map(DepthsRequest::celsius);
                SeasonView {
                    id: tire.id.clone(),
                    wear,
                    cost,
                    heat: heat.map(|celsius| Heat::of(celsius).words()),
                    stood: tire.stood(),
                    advice,
                }
            })
            .collect();
        (seasons, rotation)
    }
}

impl TireLog {
    /// Where it stood; readings of which nobody noted it are left aside.
    fn stood(&self) -> Vec<StoodView> {
        let mut all: Vec<StoodView> = Vec::new();
        for reading in &self.readings {
            let Some(position) = &reading.stood_at else { continue };
            match all.last_mut().filter(|last| last.position == *position) {
                Some(last) => last.readings += 1,
                None => {
                    all.push(StoodView { position: position.clone(), from: reading.at.clone(), readings: 1 })
                }
            }
        }
        all
    }

    /// As the core weighs it; stretches in runs, or in thousands of kilometres.
    fn rolling<'a>(&'a self, wear: &'a Wear) -> Rolling<'a> {
        let driven = |reading: &DepthsRequest| {
            reading.runs.or(reading.distance_km.map(|km| km / 1000.0)).unwrap_or_default()
        };
        // A depth that grew was misread: what is there now is the last that was not.
        let kept = self.readings.iter().enumerate().filter(|(at, _)| !wear.left_out.contains(at));
        let mut latest = kept.map(|(_, reading)| reading).rev();
        let (last, before) = (latest.next(), latest.next());
        Rolling {
            position: Position::ALL.into_iter().find(|position| position.code() == self.position),
            wear,
            depths_mm: last.map(|last| [last.inner_mm, last.middle_mm, last.outer_mm]),
            last_stretch: last.zip(before).map(|(last, before)| driven(last) - driven(before)),
            is_directional: self.is_directional,
            is_asymmetric: self.is_asymmetric,
            is_turned_over: self.turned_over,
            date_code: &self.date_code,
        }
    }
}

impl RoadSheet {
    /// A tire's readings, down to the sheet's limit.
    pub(super) fn season(&self, tire: &TireLog) -> WearRequest {
        WearRequest { readings: tire.readings.clone(), limit_mm: self.limit_mm.unwrap_or(LEGAL_MM) }
    }
}
