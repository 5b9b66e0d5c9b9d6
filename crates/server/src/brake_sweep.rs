//! The catalogue's wheels over a job's brakes: worked out once, and kept until brakes, lists or limits change.

use std::collections::HashMap;
use std::sync::{Arc, Mutex, PoisonError};

use app::JudgingContext;
use app::brake_sweep::{SweepQuestion, SweptWheel};
use store::jobs::JobContent;

use crate::price_list::Ticket;
use app::catalogue::Loaded;

/// What was worked out, by the answer's number and the version of the lists.
type Known = HashMap<(u64, i64), Arc<Vec<SweptWheel>>>;

/// The sweeps that are kept.
#[derive(Debug, Clone, Default)]
pub struct BrakeSweepCache(Arc<Mutex<Known>>);

/// Sweeps kept at most; then all are forgotten.
const MOST: usize = 32;

impl BrakeSweepCache {
    /// The wheels over the brakes.
    pub fn of(
        &self,
        question: SweepQuestion,
        content: &JobContent,
        context: &JudgingContext,
        loaded: &Loaded,
        ticket: &Ticket,
    ) -> Arc<Vec<SweptWheel>> {
        let key = (question.key(content, context), loaded.version);
        if let Some(known) = self.0.lock().unwrap_or_else(PoisonError::into_inner).get(&key) {
            return Arc::clone(known);
        }
        let rows = &loaded.catalogue.wheels;
        let tell = |count| ticket.tell("comparing", count, rows.len());
        let found = Arc::new(question.sweep(content, context, rows, tell));
        let mut known = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if known.len() >= MOST {
            known.clear();
        }
        known.insert(key, Arc::clone(&found));
        found
    }
}
