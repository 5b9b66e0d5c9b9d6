//! A plan against what was read: worked out once, whoever asks.

use std::sync::OnceLock;

use super::Fit;
use crate::judgement::case::Case;
use crate::setup::{Axle, PerAxle, Setup};

/// A case, and what stands on each axle tried against it once it was asked for.
#[derive(Debug)]
pub struct JudgedCase<'a> {
    /// The case.
    pub case: &'a Case<'a>,
    fits: PerAxle<OnceLock<Option<Fit>>>,
}

impl<'a> JudgedCase<'a> {
    /// Of a case; nothing is tried yet.
    pub fn of(case: &'a Case<'a>) -> Self {
        Self { case, fits: PerAxle::default() }
    }

    /// What stands on an axle, its plan or without one what is fitted, against what was read; `None` where it cannot be placed.
    pub fn stands(&self, axle: Axle) -> Option<(&'a Setup, &Fit)> {
        let setup = self.case.planned.on(axle).or(self.case.fitted.on(axle))?;
        let fit = self.fits.on(axle).get_or_init(|| self.case.axle(axle)?.fit(setup));
        Some((setup, fit.as_ref()?))
    }

    /// One axle's plan against what was read; `None` where nothing is planned, or it cannot be placed.
    pub fn fit(&self, axle: Axle) -> Option<&Fit> {
        self.case.planned.on(axle)?;
        self.stands(axle).map(|(_, fit)| fit)
    }
}
