//! Which job was changed, told to every screen that listens: a second tablet shows it without being reloaded.

use std::convert::Infallible;

use axum::response::sse::Event;
use serde::Serialize;
use tokio::sync::broadcast;
use tokio_stream::wrappers::BroadcastStream;
use tokio_stream::{Stream, StreamExt};
use utoipa::ToSchema;

/// Changes kept for a listener that is behind; one that misses more is told so, and reads everything again.
const KEPT: usize = 256;

/// One change of a job.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct JobChanged {
    /// Its id in paths.
    pub job: i64,
    /// Itself and no other.
    pub uid: String,
    /// The revision it has now.
    pub revision: i64,
    /// The revision itself.
    pub token: String,
    /// Who changed it, as they signed; empty when they did not.
    pub who: String,
    /// What was changed, in words.
    pub what: String,
}

#[derive(Debug, Clone)]
enum Notice {
    Changed(JobChanged),
    Closing,
}

/// Where changes are told and heard.
#[derive(Debug, Clone)]
pub struct Changes(broadcast::Sender<Notice>);

impl Default for Changes {
    fn default() -> Self {
        Self(broadcast::Sender::new(KEPT))
    }
}

impl Changes {
    /// Tells everybody who listens; nobody may.
    pub fn tell(&self, changed: JobChanged) {
        let _ = self.0.send(Notice::Changed(changed));
    }

    /// Ends every stream: the program stops.
    pub fn close(&self) {
        let _ = self.0.send(Notice::Closing);
    }

    /// The changes from now on: `job` events, and `missed` when some were told faster than they were heard.
    pub fn stream(&self) -> impl Stream<Item = Result<Event, Infallible>> + Send + use<> {
        BroadcastStream::new(self.0.subscribe()).map_while(|told| match told {
            Ok(Notice::Changed(changed)) => {
                let event = Event::default().event("job").json_data(changed);
                Some(Ok(event.unwrap_or_else(|_| Event::default().event("missed").data("{}"))))
            }
            Ok(Notice::Closing) => None,
            Err(_) => Some(Ok(Event::default().event("missed").data("{}"))),
        })
    }
}
