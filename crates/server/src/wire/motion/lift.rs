//! The tallest tire at each height of lift.

use fitment::answers::dynamic_clearance::lift::{
    LIFTS_MM, LiftLadder, TallerTire, USUAL_SOURCE, lift_ladder,
};
use std::collections::HashSet;

use app::JudgingContext;
use fitment::judgement::case::Reference;
use fitment::parts::tire::Size;
use fitment::setup::Axle;
use fitment::setup::catalogue::Catalogue;
use serde::Serialize;
use store::jobs::JobContent;
use utoipa::ToSchema;

use super::MotionRequest;
use crate::problem::ApiError;
use crate::wire::corner::VerdictCode;
use crate::wire::ledger::{FragmentView, fragments};

/// A tire at a height of lift.
#[derive(Debug, Serialize, ToSchema)]
pub struct LiftedView {
    /// Its word.
    pub verdict: VerdictCode,
    /// What stands against it, the worst first.
    pub short: Vec<ShortView>,
    /// What nobody read, and what decides: it is measured first.
    pub measure: Vec<&'static str>,
}

/// A part that stands against a tire.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct ShortView {
    pub name: &'static str,
    pub short_mm: f64,
}

/// A tire on every height of lift.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct TallerView {
    /// Its size.
    pub tire: String,
    /// The setup line with it.
    pub line: String,
    pub is_planned: bool,
    pub overall_diameter_mm: f64,
    /// Over the reference's.
    pub growth_mm: f64,
    /// What that usually asks for.
    pub usual: &'static str,
    /// At each height of lift.
    pub at: Vec<LiftedView>,
}

/// How tall a tire goes on.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct LiftView {
    pub lifts_mm: Vec<f64>,
    /// From the lowest to the tallest.
    pub tires: Vec<TallerView>,
    /// The tallest at each lift of which everything that decides was read, as a place in the list.
    pub tallest: Vec<Option<usize>>,
    /// The tallest that nothing that was read stands against, whatever must be measured first.
    pub tallest_as_read: Vec<Option<usize>>,
    /// Whose diameter the growth is held against.
    pub reference: &'static str,
    /// In sentences.
    pub says: Vec<Vec<FragmentView>>,
    /// Where the usual measures come from.
    pub usual_source: &'static str,
    pub caution: &'static str,
}

/// A lift changes more than room.
const CAUTION: &str = "Sizes that are commonly made, from memory, and those of your price lists. A lift raises the centre of gravity, steepens joints and shafts and moves the headlights: local codes and a licensed inspector decide. Bump stops are taken as they are; what a lift gives is gone at full bump. Turn lock to lock and load the suspension before the first drive.";

impl MotionRequest {
    /// The ladder of a job's plan.
    ///
    /// # Errors
    /// As [`MotionRequest::ask`].
    pub fn lift(
        &self,
        content: &JobContent,
        context: &JudgingContext,
        catalogue: &Catalogue,
    ) -> Result<LiftView, ApiError> {
        let listed: HashSet<Size> = catalogue.tires.iter().map(|row| row.tire.size).collect();
        let reference = Reference::of(&context.state.car, &content.fitted, Axle::from(self.axle));
        self.ask(content, context, |case, setup, usage| {
            let which = reference.as_ref().map_or("fitted", Reference::which);
            let against = match &reference {
                Some(reference) => reference.setup.overall_diameter(),
                None => case.fitted.overall_diameter(),
            };
            let ladder = lift_ladder(case, setup, against?, usage, &|size| listed.contains(size))?;
            Some(LiftView::new(ladder, which, &setup.to_string()))
        })
    }
}

impl LiftView {
    fn new(ladder: LiftLadder, reference: &'static str, planned: &str) -> Self {
        Self {
            lifts_mm: LIFTS_MM.to_vec(),
            tallest: ladder.tallest,
            tallest_as_read: ladder.tallest_as_read,
            tires: ladder.tires.into_iter().map(|tire| TallerView::new(tire, planned)).collect(),
            reference,
            says: ladder.says.into_iter().map(fragments).collect(),
            usual_source: USUAL_SOURCE.cite,
            caution: CAUTION,
        }
    }
}

impl TallerView {
    fn new(taller: TallerTire, planned: &str) -> Self {
        let line = taller.setup.to_string();
        Self {
            tire: taller.setup.tire.map(|tire| tire.size.to_string()).unwrap_or_default(),
            is_planned: line == planned,
            line,
            overall_diameter_mm: taller.overall_diameter.as_mm(),
            growth_mm: taller.growth_mm,
            usual: taller.usual,
            at: taller
                .at
                .into_iter()
                .map(|lifted| LiftedView {
                    verdict: lifted.verdict.into(),
                    short: lifted
                        .short
                        .into_iter()
                        .map(|(part, short_mm)| ShortView { name: part.facts().name, short_mm })
                        .collect(),
                    measure: lifted.unread.into_iter().map(|part| part.facts().name).collect(),
                })
                .collect(),
        }
    }
}
