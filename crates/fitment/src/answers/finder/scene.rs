//! The car a search is for.

use crate::judgement::case::Case;

/// The car a setup is sought for.
#[derive(Debug, Clone, Copy)]
pub struct Scene<'a> {
    /// What is fitted, the house's limits, the drive, and what was measured; its planned setup plays no part.
    pub plan: &'a Case<'a>,
}
