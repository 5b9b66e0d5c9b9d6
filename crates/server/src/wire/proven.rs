//! Proven fits, on the wire.

use std::collections::BTreeMap;

use app::evidence::tries_of;
use app::proven::{self, OwnersView, Shelved};
use exchange::proven::{ProvenRecord, record};
use fitment::answers::proven::{Envelope, Rub, SOURCE};
use fitment::setup::Axle;
use fitment::values::working::Figure;
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
#[allow(missing_docs, reason = "see fitment::answers::proven::Envelope")]
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
    let library = proven::library(rows, &query.find, job, MOST);
    let [front, rear] =
        library.envelopes.map(|all| all.into_iter().map(EnvelopeView::from).collect::<Vec<_>>());
    let imports = imports.into_iter().map(|Import { id, name, brought_at, fits }| ImportView {
        id,
        name,
        brought_at,
        fits,
    });
    ProvenLibrary {
        fits: library.fits.into_iter().map(ProvenView::from).collect(),
        total: library.total,
        imports: imports.collect(),
        damaged: library.damaged.into_iter().map(|(id, why)| DamagedFit { id, why }).collect(),
        envelopes: PerAxle { front, rear },
        source: SOURCE.into(),
        caution: CAUTION,
    }
}

impl From<Shelved<'_>> for ProvenView {
    fn from(shelved: Shelved<'_>) -> Self {
        let Shelved { row, fit, likeness, distance } = shelved;
        let far = |figure: Figure| DistanceView {
            mm: figure.value(),
            working: figure.working.into_iter().map(StepView::from).collect(),
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
        let [front, rear] = distance.map(|found| found.map(far));
        Self {
            id: row.id,
            job: row.job,
            record: row.record.clone(),
            likeness,
            distance: PerAxle { front, rear },
            marks: PerAxle { front: mark(Axle::Front), rear: mark(Axle::Rear) },
        }
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
    /// Keep it although a trial of this job says otherwise.
    #[serde(default)]
    pub in_spite: bool,
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
        if !self.in_spite {
            for (pointer, axle, rub) in
                [("/rub_front", Axle::Front, rubs[0]), ("/rub_rear", Axle::Rear, rubs[1])]
            {
                if let Some(says) = contradicted(content, axle, rub) {
                    errors.fault(pointer, says);
                }
            }
        }
        errors.text("/view", &self.view, 400);
        errors.text("/uses", &self.uses, 400);
        let said = OwnersView { rubs, view: self.view.trim().to_owned(), uses: self.uses.trim().to_owned() };
        let fit = proven::fit_of(content, said, year);
        errors.finish((fit.key(), record(&fit)))
    }
}

/// What of the job's own trials speaks against a fit that is said not to rub.
fn contradicted(content: &JobContent, axle: Axle, rub: Option<Rub>) -> Option<String> {
    let planned = content.planned.on(axle)?;
    let touched = tries_of(&content.workshop).into_iter().find(|one| {
        one.axle == axle && one.setup.wheel == planned.wheel && one.touched() && !one.contact.is_of_barrel()
    });
    let met = touched.filter(|_| rub == Some(Rub::None))?.contact.title();
    Some(format!("a trial of this very wheel met: {met}. Say how it rubs, or keep it in spite of that"))
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
