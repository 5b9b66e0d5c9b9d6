//! What a job's trials come to.

use fitment::answers::trial::{Conclusion, conclude, trial_verdict};
use fitment::judgement::clearance::Verdict;
use fitment::setup::{Axle, Setup, SetupPair};
use store::jobs::JobContent;

use crate::JudgingContext;
use crate::evidence::{tries_of, try_on};

/// A setup at hand, and how it stands after the trials.
#[derive(Debug)]
pub struct JudgedSetup {
    /// `bench`, or a candidate's letter.
    pub name: String,
    /// Its setup on this axle.
    pub setup: Setup,
    /// How it stands.
    pub verdict: Verdict,
    /// Whether this very wheel was tried.
    pub was_tried: bool,
}

/// What an axle's trials come to.
#[derive(Debug, Default)]
pub struct AxleTrials {
    /// In sentences, with what to try next.
    pub conclusion: Conclusion,
    /// The setups at hand.
    pub judged: Vec<JudgedSetup>,
    /// Each trial by its id, and how the wheel stood; `None` for one that can no longer be read.
    pub tried: Vec<(String, Option<Verdict>)>,
}

/// Draws the conclusion of an axle's trials.
pub fn of_axle(content: &JobContent, context: &JudgingContext, axle: Axle) -> AxleTrials {
    let nothing = SetupPair::default();
    let case = context.case(&content.fitted, &nothing, content.drive);
    let Some(trial) = case.axle(axle) else { return AxleTrials::default() };
    let at_hand = at_hand(content, axle);
    // As the ledger does, with what the lists of the picked rows say.
    let setups: Vec<Setup> = at_hand.iter().map(|(_, setup)| trial.parts.as_listed(setup)).collect();
    let conclusion = conclude(axle, &tries_of(&content.workshop), &trial, &setups);
    let judged = at_hand.into_iter().filter_map(|(name, setup)| {
        let verdict = trial.fit(&trial.parts.as_listed(&setup))?.verdict;
        let was_tried = trial.evidence.tries_of(&setup).next().is_some();
        Some(JudgedSetup { name, setup, verdict, was_tried })
    });
    let here = content.workshop.trials.iter().filter(|kept| kept.axle == axle.code());
    let tried =
        here.map(|kept| (kept.id.clone(), try_on(kept).map(|one| trial_verdict(&trial, &one)))).collect();
    AxleTrials { conclusion, judged: judged.collect(), tried }
}

/// The plan on the bench and the kept candidates, each setup once.
fn at_hand(content: &JobContent, axle: Axle) -> Vec<(String, Setup)> {
    let bench = content.planned.on(axle).map(|setup| ("bench".to_owned(), *setup));
    let kept =
        content.candidates.iter().filter_map(|kept| Some((kept.letter.to_string(), *kept.setups.on(axle)?)));
    let mut all: Vec<(String, Setup)> = Vec::new();
    for one in bench.into_iter().chain(kept) {
        if all.iter().all(|(_, setup)| *setup != one.1) {
            all.push(one);
        }
    }
    all
}
