//! Files that somebody else made are read apart: in a child of this same program with bounds on memory and time.
//!
//! The readers bound what they can, but workbooks, drawings and photos pass through crates that may still abort the
//! process or ask for all of its memory. What happens to the child costs that file and nothing else; it ends with the
//! request that asked for it.

mod child;

use std::path::PathBuf;
use std::process::{ExitStatus, Stdio};
use std::sync::Arc;
use std::time::Duration;

use axum::body::Bytes;
use exchange::Table;
use exchange::profile::{ReadSheet, Unit};
use exchange::table::Place;
use serde::de::DeserializeOwned;
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::process::Command;
use tokio::sync::Semaphore;

use crate::photo::Picture;
use crate::problem::{ApiError, FieldError};

pub use child::{Task, run};

/// Files read at the same time: each may take a core and its share of memory.
const AT_ONCE: usize = 2;

/// Where files are read.
#[derive(Debug, Clone)]
pub struct Reader {
    /// The program whose child reads; `None`: here, on a blocking thread.
    program: Option<PathBuf>,
    free: Arc<Semaphore>,
}

impl Default for Reader {
    fn default() -> Self {
        Self::here()
    }
}

impl Reader {
    /// Reads in this process. For tests of what is read; a program that serves reads apart.
    pub fn here() -> Self {
        Self { program: None, free: Arc::new(Semaphore::new(AT_ONCE)) }
    }

    /// Reads in children of a program that knows `read-apart`: this one.
    pub fn apart(program: PathBuf) -> Self {
        Self { program: Some(program), ..Self::here() }
    }

    /// A list of rows.
    ///
    /// # Errors
    /// 422 with what is wrong with the file, or which bound it breaks and how it can be mended.
    pub async fn table(&self, bytes: Bytes, place: Place) -> Result<Table, ApiError> {
        self.read(Task::Table(place), bytes).await
    }

    /// A drawing.
    ///
    /// # Errors
    /// As [`Self::table`].
    pub async fn drawing(&self, bytes: Bytes, unit: Option<Unit>) -> Result<ReadSheet, ApiError> {
        self.read(Task::Drawing(unit), bytes).await
    }

    /// A photo, drawn anew.
    ///
    /// # Errors
    /// As [`Self::table`].
    pub async fn photo(&self, bytes: Bytes) -> Result<Picture, ApiError> {
        self.read(Task::Photo, bytes).await
    }

    async fn read<T: DeserializeOwned + Send + 'static>(
        &self,
        task: Task,
        bytes: Bytes,
    ) -> Result<T, ApiError> {
        let _permit = self.free.acquire().await;
        let answer = match &self.program {
            Some(program) => in_child(program, task, &bytes).await?,
            None => crate::off_thread(move || task.answer(&bytes)).await?,
        };
        let read = crate::off_thread(move || postcard::from_bytes::<Result<T, String>>(&answer)).await?;
        match read {
            Ok(Ok(value)) => Ok(value),
            Ok(Err(says)) => Err(refused(says)),
            // A child that was stopped in the middle of its answer.
            Err(_) => Err(refused(task.gave_up().to_owned())),
        }
    }
}

fn refused(says: String) -> ApiError {
    ApiError::Unprocessable(vec![FieldError::new("", says)])
}

async fn in_child(program: &PathBuf, task: Task, bytes: &[u8]) -> Result<Vec<u8>, ApiError> {
    let failed = |error: std::io::Error| ApiError::Internal(format!("a file cannot be read apart: {error}"));
    let mut child = Command::new(program)
        .arg("read-apart")
        .args(task.arguments())
        // The allocator reserves a gigabyte at once otherwise, which counts against the child's bound on memory.
        .env("MIMALLOC_ARENA_RESERVE", "0")
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::null())
        .kill_on_drop(true)
        .spawn()
        .map_err(failed)?;
    let (stdin, stdout) = (child.stdin.take(), child.stdout.take());
    let send = async {
        if let Some(mut stdin) = stdin {
            // A child that refuses by its length alone does not read to the end.
            let _ = stdin.write_all(bytes).await;
        }
    };
    let hear = async {
        let mut answer = Vec::new();
        if let Some(stdout) = stdout {
            stdout.take(task.longest_answer()).read_to_end(&mut answer).await?;
        }
        Ok::<_, std::io::Error>(answer)
    };
    // The processor's time is bounded in the child; this bounds what it may sleep through on a busy machine.
    let wait = task.processor_time() * 6 + Duration::from_secs(10);
    let Ok(((), answer)) = tokio::time::timeout(wait, async { tokio::join!(send, hear) }).await else {
        return Err(refused(task.took_too_long()));
    };
    let status = child.wait().await.map_err(failed)?;
    match why(status) {
        None => answer.map_err(failed),
        Some(Why::Time) => Err(refused(task.took_too_long())),
        Some(Why::GaveUp) => Err(refused(task.gave_up().to_owned())),
    }
}

enum Why {
    Time,
    GaveUp,
}

/// Why a child did not end as it should.
fn why(status: ExitStatus) -> Option<Why> {
    use std::os::unix::process::ExitStatusExt;
    const SIGKILL: i32 = 9;
    const SIGXCPU: i32 = 24;
    match (status.success(), status.signal()) {
        (true, _) => None,
        // The kernel asks first (SIGXCPU) and then ends it (SIGKILL).
        (_, Some(SIGXCPU | SIGKILL)) => Some(Why::Time),
        _ => Some(Why::GaveUp),
    }
}
