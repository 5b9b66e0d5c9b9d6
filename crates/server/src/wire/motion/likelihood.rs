//! How likely a part is touched, where the ledger's word hangs on how what may be off is added.

use app::JudgingContext;
use app::drawn::drawn_for;
use fitment::car::corner::Feature;
use serde::{Deserialize, Serialize};
use store::jobs::JobContent;
use utoipa::ToSchema;

use super::MotionRequest;
use crate::problem::ApiError;
use crate::wire::AxleCode;
use crate::wire::Lines;
use crate::wire::read::FieldErrors;

/// Which line.
#[derive(Debug, Deserialize, ToSchema)]
pub struct LikelihoodRequest {
    /// On which axle.
    pub axle: AxleCode,
    /// The part's code.
    pub part: String,
    /// The plan; as the job has it when left out.
    #[serde(default)]
    pub planned: Option<Lines>,
}

/// What drawn cases say.
#[derive(Debug, Serialize, ToSchema)]
pub struct LikelihoodView {
    /// In plain words; null where the word is the same however it is added.
    pub says: Option<String>,
    /// How many cases were drawn.
    pub cases: u32,
    /// In how many it touches.
    pub touches: u32,
    /// In how many there is less room than the house wants.
    pub short: u32,
}

impl LikelihoodRequest {
    /// Draws the cases.
    ///
    /// # Errors
    /// A part that is not known; as [`MotionRequest::ask`].
    pub fn answer(&self, content: &JobContent, context: &JudgingContext) -> Result<LikelihoodView, ApiError> {
        let mut errors = FieldErrors::default();
        let part = Feature::from_code(&self.part);
        if part.is_none() {
            errors.fault("/part", format!("there is no part {:?}", self.part));
        }
        errors.finish(())?;
        let ask = MotionRequest { axle: self.axle, usage: Default::default(), planned: self.planned.clone() };
        ask.ask(content, context, |case, setup, _| {
            let drawn = part.and_then(|part| drawn_for(case, setup, part));
            Some(LikelihoodView {
                says: drawn.map(|drawn| drawn.words()),
                cases: drawn.map_or(0, |drawn| drawn.cases),
                touches: drawn.map_or(0, |drawn| drawn.touches),
                short: drawn.map_or(0, |drawn| drawn.short),
            })
        })
    }
}
