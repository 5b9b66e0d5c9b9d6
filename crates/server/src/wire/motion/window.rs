//! The fit window that clears on the road.

use app::JudgingContext;
use fitment::answers::dynamic_clearance::window_in_motion;
use fitment::judgement::window::{self, TireChoice, WidthWindow, widths_round};
use serde::{Deserialize, Serialize};
use store::jobs::JobContent;
use utoipa::ToSchema;

use super::MotionRequest;
use crate::problem::ApiError;
use crate::wire::corner::{TireChoiceCode, WidthView};
use crate::wire::ledger::{FragmentView, fragments};

/// Which window.
#[derive(Debug, Deserialize, ToSchema)]
pub struct MovingWindowRequest {
    /// Of which plan, on which axle, over which use.
    pub motion: MotionRequest,
    /// Which tire it puts on each rim width.
    #[serde(default)]
    pub tire_choice: Option<TireChoiceCode>,
}

/// A fit window in motion, inside the one that stands.
#[derive(Debug, Serialize, ToSchema)]
pub struct MovingWindowView {
    /// The same widths as standing; null where nothing that moves was read.
    pub window: Option<Vec<WidthView>>,
    /// The widest rim that clears standing and in motion, and what stops the next half inch.
    pub says: Vec<FragmentView>,
}

impl MovingWindowRequest {
    /// The window of a job's plan.
    ///
    /// # Errors
    /// As [`MotionRequest::ask`].
    pub fn answer(
        &self,
        content: &JobContent,
        context: &JudgingContext,
    ) -> Result<MovingWindowView, ApiError> {
        let choice = self.tire_choice.map_or(TireChoice::Same, TireChoice::from);
        self.motion.ask(content, context, |case, setup, usage| {
            let widths = widths_round(Some(case.fitted), Some(setup));
            let standing = case.window(setup, choice, &widths, context.state.wanted(case.axle));
            let moving: Option<Vec<WidthWindow>> = window_in_motion(case, setup, &standing, usage);
            let says = moving.as_deref().and_then(window::says).map(fragments).unwrap_or_default();
            let window = moving.map(|all| all.into_iter().map(WidthView::from).collect());
            Some(MovingWindowView { window, says })
        })
    }
}
