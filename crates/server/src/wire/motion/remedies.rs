//! What turns the verdict of a plan in motion.

use app::JudgingContext;
use fitment::answers::dynamic_clearance::remedies::{Remedied, is_ruled_out_in_motion, remedies};
use serde::Serialize;
use store::jobs::JobContent;
use utoipa::ToSchema;

use super::MotionRequest;
use crate::problem::ApiError;
use crate::wire::ledger::{FragmentView, fragments};

/// What a remedy comes to.
#[derive(Debug, Serialize, ToSchema)]
pub struct RemedyView {
    /// Its code.
    pub code: &'static str,
    /// In the trade's words.
    pub name: &'static str,
    /// Whether it turns the verdict by itself.
    pub turns_it: bool,
    /// In a sentence.
    pub says: Vec<FragmentView>,
    /// What must be minded.
    pub caution: &'static str,
}

impl From<Remedied> for RemedyView {
    fn from(one: Remedied) -> Self {
        Self {
            code: one.remedy.code(),
            name: one.remedy.words(),
            turns_it: one.amount.is_some(),
            says: fragments(one.says),
            caution: one.caution,
        }
    }
}

impl MotionRequest {
    /// What each remedy does for the plan; empty where nothing rules it out.
    ///
    /// # Errors
    /// As [`MotionRequest::ask`].
    pub fn remedies(
        &self,
        content: &JobContent,
        context: &JudgingContext,
    ) -> Result<Vec<RemedyView>, ApiError> {
        self.ask(content, context, |case, setup, usage| {
            is_ruled_out_in_motion(case, setup, usage)?;
            Some(remedies(case, setup, usage).into_iter().map(RemedyView::from).collect())
        })
    }
}
