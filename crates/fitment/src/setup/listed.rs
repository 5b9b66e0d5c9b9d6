//! What a price list says of the very parts of a setup.
//!
//! A list's own figure counts before any estimate from the size, everywhere: in drawing, clearance, ledger, window and
//! finder. A setup carries it, so that whoever asks the setup is answered by it.

use crate::values::codes::RimWidth;
use crate::values::length::Length;

/// A length kept to the hundredth of a millimetre, so that setups can be told apart exactly.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Hundredths(u32);

impl Hundredths {
    /// Rounded to the hundredth; `None` for what is no positive length up to 10 m.
    pub fn of(length: Length) -> Option<Self> {
        let hundredths = (length.as_mm() * 100.0).round();
        (1.0..=1_000_000.0).contains(&hundredths).then_some(Self(hundredths as u32))
    }

    /// As a length.
    pub fn length(self) -> Length {
        Length::mm(f64::from(self.0) / 100.0)
    }
}

/// A tire's own measures, as its list states them; `None` where it does not.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Default)]
pub struct ListedTire {
    /// Section width on its measuring rim.
    pub section: Option<Hundredths>,
    /// Overall diameter.
    pub overall_diameter: Option<Hundredths>,
    /// Tread width.
    pub tread_width: Option<Hundredths>,
    /// Whether a band stands out from its sidewall to guard the rim.
    pub has_rim_guard: Option<bool>,
    /// The rim it is measured on.
    pub measuring_rim: Option<RimWidth>,
    /// Narrowest and widest rim the maker permits.
    pub permitted: Option<(RimWidth, RimWidth)>,
}

/// What lists say of the parts of a setup.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Default)]
pub struct Listed {
    /// Of the tire.
    pub tire: ListedTire,
    /// Of the wheel: its width over the flanges.
    pub wheel_overall_width: Option<Hundredths>,
}
