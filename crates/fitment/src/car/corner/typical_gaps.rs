//! Parts that nobody read, at the gap that is usual: to say how sure a reading of them would be.

use std::sync::OnceLock;

use super::placing::LastCut;
use super::{Corner, Feature, Obstacle, Reading};
use crate::setup::Setup;
use crate::values::length::Length;

/// What a gap still to be read is expected to be read with: a steel rule.
pub(crate) const STEEL_RULE: Length = Length::mm(1.0);

/// The parts of a corner as they would be read at their usual gap against what is fitted; worked out when first asked for, since
/// each plan asks for all of them again.
#[derive(Debug, Clone, PartialEq, Default)]
pub(crate) struct TypicalGaps(OnceLock<(Setup, Vec<Option<Obstacle>>)>);

impl TypicalGaps {
    /// One part's; `None` where it cannot be read against that.
    pub(crate) fn of(&self, feature: Feature, corner: &Corner, fitted: &Setup) -> Option<Obstacle> {
        let mut cut = LastCut::default();
        let mut read = |feature: Feature| {
            let (usual, _) = feature.facts().usual_mm;
            corner.obstacle(0, &Reading::new(feature, Length::mm(usual), STEEL_RULE, *fitted), &mut cut).ok()
        };
        let (known_on, known) =
            self.0.get_or_init(|| (*fitted, Feature::ALL.into_iter().map(&mut read).collect()));
        let at = Feature::ALL.into_iter().position(|one| one == feature)?;
        if known_on == fitted { known[at] } else { read(feature) }
    }
}
