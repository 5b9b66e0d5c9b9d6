//! What can be read on the car.

use super::Feature;
use crate::values::coded::coded_serde;

/// What is to be read.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ToRead {
    /// The gap to a part.
    Gap(Feature),
    /// The fitted tire's real section width.
    FittedSection,
}

impl ToRead {
    /// Its code on the wire.
    pub fn code(self) -> &'static str {
        match self {
            Self::Gap(feature) => feature.code(),
            Self::FittedSection => "fitted_section",
        }
    }

    /// Its title.
    pub fn title(self) -> &'static str {
        match self {
            Self::Gap(feature) => feature.facts().title,
            Self::FittedSection => "Section width of the fitted tire",
        }
    }

    /// Where to put the gauge.
    pub fn how(self) -> &'static str {
        match self {
            Self::Gap(feature) => feature.facts().how,
            Self::FittedSection => {
                "Caliper across the fitted tire's sidewalls at their widest, mounted and inflated."
            }
        }
    }
}

impl ToRead {
    /// The part whose gap it is; `None` for the fitted tire.
    pub fn feature(self) -> Option<Feature> {
        match self {
            Self::Gap(feature) => Some(feature),
            Self::FittedSection => None,
        }
    }

    /// What can be read, of this code.
    pub fn from_code(code: &str) -> Option<Self> {
        if code == Self::FittedSection.code() {
            Some(Self::FittedSection)
        } else {
            Feature::from_code(code).map(Self::Gap)
        }
    }
}

coded_serde!(ToRead);
