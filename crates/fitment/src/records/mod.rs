//! Documents that the shop keeps whole beside a job: each a plain type with a version, in words of its own. What the API calls
//! its fields may change; what is kept here does not change with it.
//!
//! Who keeps them writes the version beside the fields ([`Document::VERSION`]) and reads them back. A document that is newer, or
//! that cannot be read, is evidence: it is shown, stays as it is, and is never written over in silence.

pub mod road_sheet;
pub mod search_wish;

pub use road_sheet::RoadSheet;
pub use search_wish::SearchWish;

/// Something that is kept whole.
pub trait Document {
    /// What a person calls it, in a sentence.
    const NAME: &'static str;
    /// Grows when a field changes its meaning. A document without a version was kept before there were any, with the fields of
    /// version 1.
    const VERSION: u32;
}
