//! Where a rim's centre plane may stand for one part to clear.

/// Where a rim's centre plane may stand.
#[derive(Debug, Clone, Copy)]
pub(super) enum Limit {
    Open,
    Never,
    InboardOf(f64),
    OutboardOf(f64),
}

impl Limit {
    pub(super) fn where_there_is(slack: f64) -> Self {
        if slack >= 0.0 { Self::Open } else { Self::Never }
    }

    pub(super) fn center(self) -> Option<f64> {
        match self {
            Self::InboardOf(center) | Self::OutboardOf(center) => Some(center),
            Self::Open | Self::Never => None,
        }
    }
}
