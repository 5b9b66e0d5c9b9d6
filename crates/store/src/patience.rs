//! How long the one who asks waits for a change, so that the answer is true whichever comes first.
//!
//! A change runs on a blocking thread and cannot be stopped from outside. So the two settle between them who was first:
//! the change, just before it commits, or the one who waits, when it gives up. Whoever comes second yields: a change
//! that nobody waits for any more is rolled back, and a wait that comes too late goes on until the change is answered.

use std::future::Future;
use std::sync::Arc;
use std::sync::atomic::{AtomicU8, Ordering};

const WAITING: u8 = 0;
const SETTLED: u8 = 1;
const GIVEN_UP: u8 = 2;

tokio::task_local! {
    static PATIENCE: Patience;
}

/// What a request and the changes it makes share.
#[derive(Debug, Clone, Default)]
pub struct Patience(Arc<AtomicU8>);

impl Patience {
    /// Runs something whose changes know that somebody waits for them.
    pub async fn with<T>(&self, work: impl Future<Output = T>) -> T {
        PATIENCE.scope(self.clone(), work).await
    }

    /// That of the task this is asked in; one that never gives up where nobody waits. A task that goes on by itself takes
    /// it along ([`Self::with`]): else nobody knows that it may still do something.
    pub fn here() -> Self {
        PATIENCE.try_with(Clone::clone).unwrap_or_default()
    }

    /// Gives up waiting. `true`: nothing was applied and nothing will be. `false`: it was applied, or is at this moment:
    /// the answer must be waited for.
    pub fn give_up(&self) -> bool {
        self.0.compare_exchange(WAITING, GIVEN_UP, Ordering::AcqRel, Ordering::Acquire).is_ok()
            || self.0.load(Ordering::Acquire) == GIVEN_UP
    }

    /// Whether it was given up.
    pub(crate) fn is_over(&self) -> bool {
        self.0.load(Ordering::Acquire) == GIVEN_UP
    }

    /// Asked just before a commit: `false` when nobody waits any more, and the change must be rolled back.
    pub(crate) fn settle(&self) -> bool {
        self.0.compare_exchange(WAITING, SETTLED, Ordering::AcqRel, Ordering::Acquire).is_ok()
            || self.0.load(Ordering::Acquire) == SETTLED
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn whoever_is_second_yields() {
        let patience = Patience::default();
        assert!(patience.settle() && patience.settle(), "a request may make two changes");
        assert!(!patience.give_up(), "what was applied is waited for");
        let patience = Patience::default();
        assert!(patience.give_up() && patience.give_up());
        assert!(!patience.settle() && patience.is_over());
    }
}
