//! Proven fits, on the wire.

use std::collections::BTreeMap;

use exchange::proven::{ProvenRecord, fit as read_fit, record};
use fitment::car::Fact;
use fitment::proven::{Envelope, ProvenAxle, ProvenCar, ProvenFit, Rub, SOURCE, distance, envelopes};
use fitment::setup::Axle;
use serde::{Deserialize, Serialize};
use store::jobs::JobContent;
use store::proven::{Import, ProvenRow};
use utoipa::{IntoParams, ToSchema};

use super::PerAxle;
use super::ledger::{SourceView, StepView};
use super::read::FieldErrors;
use crate::problem::ApiError;

/// Which fits.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct ProvenQuery {
    /// Words that must all occur.
    #[serde(default)]
    pub find: String,
    /// A job, whose car and plan the fits are ordered by.
    #[serde(default)]
    pub job: Option<i64>,
}

/// A proven fit.
#[derive(Debug, Serialize, ToSchema)]
pub struct ProvenView {
    /// Its number.
    pub id: i64,
    /// The job it comes from, when it is one of ours.
    pub job: Option<i64>,
    /// What it says, by column.
    pub record: BTreeMap<String, String>,
    /// How like the job's car it is: 0 for another model, 4 and more for the same.
    pub likeness: u32,
    /// How far it is from the job's plan, front and rear, with the working.
    pub distance: PerAxle<Option<DistanceView>>,
    /// As marks on the fit window.
    pub marks: PerAxle<Option<ProvenMark>>,
}

/// How far one setup is from another.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct DistanceView {
    pub mm: f64,
    pub working: Vec<StepView>,
}

/// A fit as a mark on the fit window.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct ProvenMark {
    pub rim_width_in: f64,
    /// Effective offset.
    pub offset_mm: f64,
    /// `none`, `at_lock`, `over_bumps` or `constant`; null when nobody said.
    pub rub: Option<&'static str>,
    /// In the trade's words.
    pub words: &'static str,
}

/// The most that is proven without rub.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::proven::Envelope")]
pub struct EnvelopeView {
    pub fender: String,
    pub outer_mm: f64,
    pub inner_mm: f64,
    pub furthest_out: String,
    pub cars: usize,
    pub rubbed: usize,
}

impl From<Envelope> for EnvelopeView {
    fn from(envelope: Envelope) -> Self {
        let Envelope { fender, outer_mm, inner_mm, furthest_out, cars, rubbed } = envelope;
        Self { fender, outer_mm, inner_mm, furthest_out: furthest_out.to_string(), cars, rubbed }
    }
}

/// A file of fits that was brought.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see store::proven::Import")]
pub struct ImportView {
    pub id: i64,
    pub name: String,
    pub brought_at: String,
    /// How many fits are here because of it.
    pub fits: usize,
}

/// A fit that cannot be read.
#[derive(Debug, Serialize, ToSchema)]
pub struct DamagedFit {
    /// Its number.
    pub id: i64,
    /// What is wrong with it.
    pub why: String,
}

/// How many fits were taken out.
#[derive(Debug, Serialize, ToSchema)]
pub struct RemovedFits {
    /// That many.
    pub removed: usize,
}

/// The library.
#[derive(Debug, Serialize, ToSchema)]
pub struct ProvenLibrary {
    /// Fits, the likest car and nearest setup first.
    pub fits: Vec<ProvenView>,
    /// How many there are in all.
    pub total: usize,
    /// Files that were brought: each can be taken out again as one.
    pub imports: Vec<ImportView>,
    /// Fits that cannot be read: each can be taken out by its number.
    pub damaged: Vec<DamagedFit>,
    /// The envelope of the job's model, by fender work.
    pub envelopes: PerAxle<Vec<EnvelopeView>>,
    /// Where nearness and envelope come from.
    pub source: SourceView,
    /// What must stand beside it.
    pub caution: &'static str,
}

const CAUTION: &str = "What fitted another car is a hint, not a measurement: bodies, springs and tires differ. Measure this car.";

/// Fits shown at most.
const MOST: usize = 200;

/// The library, ordered for a job where there is one.
pub fn library(
    rows: &[ProvenRow],
    imports: Vec<Import>,
    query: &ProvenQuery,
    job: Option<&JobContent>,
) -> ProvenLibrary {
    let car = job.map(car_of);
    let words: Vec<String> = query.find.split_whitespace().map(str::to_lowercase).collect();
    let (mut fits, mut damaged): (Vec<(&ProvenRow, ProvenFit)>, Vec<DamagedFit>) = (Vec::new(), Vec::new());
    for row in rows {
        let read = match &row.damaged {
            Some(why) => Err(why.clone()),
            None => read_fit(&row.record).map_err(|faults| {
                let all = faults.iter().map(|fault| format!("{}: {}", fault.column, fault.why));
                all.collect::<Vec<_>>().join("; ")
            }),
        };
        match read {
            Ok(fit) => fits.push((row, fit)),
            Err(why) => damaged.push(DamagedFit { id: row.id, why }),
        }
    }
    let of_model = || {
        fits.iter().map(|(_, fit)| fit).filter(|fit| car.as_ref().is_some_and(|car| fit.likeness(car) > 0))
    };
    let envelope = |axle| envelopes(of_model(), axle).into_iter().map(EnvelopeView::from).collect();
    let envelopes = PerAxle { front: envelope(Axle::Front), rear: envelope(Axle::Rear) };
    let mut views: Vec<ProvenView> = fits
        .iter()
        .filter(|(row, _)| {
            let text = row.record.values().map(|text| text.to_lowercase()).collect::<Vec<_>>().join(" ");
            words.iter().all(|word| text.contains(word))
        })
        .map(|(row, fit)| view(row, fit, car.as_ref(), job))
        .collect();
    let near = |view: &ProvenView| {
        let both =
            [&view.distance.front, &view.distance.rear].map(|one| one.as_ref().map_or(500.0, |one| one.mm));
        both[0] + both[1]
    };
    views.sort_by(|a, b| b.likeness.cmp(&a.likeness).then(near(a).total_cmp(&near(b))).then(b.id.cmp(&a.id)));
    let total = views.len();
    views.truncate(MOST);
    let imports = imports.into_iter().map(|Import { id, name, brought_at, fits }| ImportView {
        id,
        name,
        brought_at,
        fits,
    });
    ProvenLibrary {
        fits: views,
        total,
        imports: imports.collect(),
        damaged,
        envelopes,
        source: SOURCE.into(),
        caution: CAUTION,
    }
}

fn view(row: &ProvenRow, fit: &ProvenFit, car: Option<&ProvenCar>, job: Option<&JobContent>) -> ProvenView {
    let plan = |axle| job.and_then(|content| content.planned.on(axle).or(content.fitted.on(axle)));
    let far = |axle| {
        let found = distance(plan(axle)?, fit.setups.on(axle)?)?;
        Some(DistanceView {
            mm: found.value(),
            working: found.working.into_iter().map(StepView::from).collect(),
        })
    };
    let mark = |axle| {
        let setup = fit.setups.on(axle)?;
        let rub = fit.on(axle).rub;
        Some(ProvenMark {
            rim_width_in: setup.wheel?.width.code(),
            offset_mm: setup.effective_offset()?.as_mm(),
            rub: rub.map(Rub::code),
            words: rub.map_or("rub not noted", Rub::words),
        })
    };
    ProvenView {
        id: row.id,
        job: row.job,
        record: row.record.clone(),
        likeness: car.map_or(0, |car| fit.likeness(car)),
        distance: PerAxle { front: far(Axle::Front), rear: far(Axle::Rear) },
        marks: PerAxle { front: mark(Axle::Front), rear: mark(Axle::Rear) },
    }
}

/// What tells a job's car from others: its record, else its label for the model.
fn car_of(content: &JobContent) -> ProvenCar {
    let words = |fact| content.measurements.car.words(fact, None).unwrap_or_default().to_owned();
    let model = words(Fact::Model);
    ProvenCar {
        model: if model.is_empty() { content.car_label.clone() } else { model },
        body: words(Fact::Body),
        generation: words(Fact::Generation),
        brakes: words(Fact::BrakePackage),
        drive: content.drive,
    }
}

/// A finished job as a proven fit.
#[derive(Debug, Deserialize, ToSchema)]
pub struct ProvenFromJob {
    /// How the front rubs: `none`, `at_lock`, `over_bumps` or `constant`.
    #[serde(default)]
    pub rub_front: Option<String>,
    /// How the rear rubs.
    #[serde(default)]
    pub rub_rear: Option<String>,
    /// What the owner says.
    #[serde(default)]
    pub view: String,
    /// What it is used for.
    #[serde(default)]
    pub uses: String,
}

impl ProvenFromJob {
    /// The fit that a job leaves: its plan on its car.
    ///
    /// # Errors
    /// A job without a plan; every field at fault.
    pub fn fit(&self, content: &JobContent, year: i32) -> Result<(String, ProvenRecord), ApiError> {
        let mut errors = FieldErrors::default();
        let mut rub = |pointer: &str, code: &Option<String>| {
            let code = code.as_deref().filter(|code| !code.is_empty())?;
            let rub = Rub::from_code(code);
            if rub.is_none() {
                errors.fault(pointer, format!("{code:?} is not none, at_lock, over_bumps or constant"));
            }
            rub
        };
        let rubs = [rub("/rub_front", &self.rub_front), rub("/rub_rear", &self.rub_rear)];
        if content.planned.front.is_none() && content.planned.rear.is_none() {
            errors.fault("", "the job has no plan: what is on the bench becomes the proven fit");
        }
        errors.text("/view", &self.view, 400);
        errors.text("/uses", &self.uses, 400);
        let car = &content.measurements.car;
        let axle = |axle: Axle, rub| ProvenAxle {
            suspension: car.words(Fact::Suspension, Some(axle)).unwrap_or_default().to_owned(),
            dropped_mm: car.number(Fact::Dropped, Some(axle)),
            fender: car.words(Fact::Fender, Some(axle)).unwrap_or_default().to_owned(),
            camber_deg: car.number(Fact::Camber, Some(axle)),
            rub,
        };
        let style = content.measurements.wanted.1.map_or("", |target| target.style.word());
        let fit = ProvenFit {
            car: car_of(content),
            front: axle(Axle::Front, rubs[0]),
            rear: axle(Axle::Rear, rubs[1]),
            before: content.fitted,
            setups: content.planned,
            style: style.to_owned(),
            uses: self.uses.trim().to_owned(),
            view: self.view.trim().to_owned(),
            shop: String::new(),
            year: Some(year),
        };
        errors.finish((fit.key(), record(&fit)))
    }
}

/// A row of an exchange file at fault.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names say it")]
pub struct ProvenFaultView {
    pub row: usize,
    pub column: &'static str,
    pub says: String,
}

/// What bringing a file of fits did.
#[derive(Debug, Serialize, ToSchema)]
pub struct ProvenBrought {
    /// Fits that were not there before.
    pub new: usize,
    /// Fits that were recognised as there already.
    pub known: usize,
    /// Rows at fault.
    pub faults: Vec<ProvenFaultView>,
}
