//! Files made of what is kept, of any length: written to a file of their own first, then handed out.
//!
//! So a reader of the store is out only while rows are read, however slowly somebody takes the file, and memory holds one
//! row at a time.

use std::fs::File;
use std::io::{BufWriter, Seek};
use std::sync::Arc;

use axum::Extension;
use axum::body::Body;
use axum::http::header;
use axum::response::{IntoResponse, Response};
use exchange::Format;
use exchange::table::{TableError, Writer};
use store::{Connection, Store, StoreError};
use tokio::sync::Semaphore;
use tokio_util::io::ReaderStream;

use crate::problem::ApiError;
use crate::serve::LongAnswer;

/// Files made at the same time.
#[derive(Debug, Clone)]
pub struct Downloads(Arc<Semaphore>);

impl Default for Downloads {
    fn default() -> Self {
        Self(Arc::new(Semaphore::new(1)))
    }
}

/// Why a file could not be made.
#[derive(Debug)]
pub enum Failed {
    /// By the store.
    Store(StoreError),
    /// By the writer.
    Written(TableError),
}

impl From<StoreError> for Failed {
    fn from(error: StoreError) -> Self {
        Self::Store(error)
    }
}

impl From<TableError> for Failed {
    fn from(error: TableError) -> Self {
        Self::Written(error)
    }
}

/// A writer into a file on disk.
pub type DiskWriter = Writer<BufWriter<File>>;

impl Downloads {
    /// A table of rows under a name. `begin` says the columns, `write` puts every row.
    ///
    /// # Errors
    /// What store and writer say.
    pub async fn table<B, W>(
        &self,
        store: &Store,
        (format, name): (Format, String),
        begin: B,
        write: W,
    ) -> Result<Response, ApiError>
    where
        B: FnOnce(&Connection) -> Result<Vec<String>, StoreError> + Send + 'static,
        W: FnOnce(&Connection, &mut DiskWriter) -> Result<(), Failed> + Send + 'static,
    {
        let _permit = self.0.acquire().await;
        let made = store
            .read(move |connection| {
                let header = begin(connection)?;
                let make = || {
                    let file = tempfile::tempfile().map_err(TableError::from)?;
                    let mut writer = Writer::new(BufWriter::new(file), format, header)?;
                    write(connection, &mut writer)?;
                    let mut file = writer
                        .finish()?
                        .into_inner()
                        .map_err(|error| TableError::from(error.into_error()))?;
                    let length = file.stream_position().and_then(|length| file.rewind().map(|()| length));
                    Ok::<_, Failed>((file, length.map_err(TableError::from)?))
                };
                match make() {
                    Ok(made) => Ok(Ok(made)),
                    Err(Failed::Store(error)) => Err(error),
                    Err(Failed::Written(error)) => Ok(Err(error)),
                }
            })
            .await?;
        let (file, length) = made.map_err(not_made)?;
        let body = Body::from_stream(ReaderStream::new(tokio::fs::File::from_std(file)));
        let headers = [
            (header::CONTENT_TYPE, format.media_type().to_owned()),
            (header::CONTENT_LENGTH, length.to_string()),
            (header::CONTENT_DISPOSITION, format!("attachment; filename=\"{name}\"")),
        ];
        Ok((headers, Extension(LongAnswer::Download), body).into_response())
    }
}

/// Why a file was not made: for want of room on the disk where it is made, or because the program failed.
fn not_made(error: TableError) -> ApiError {
    match error {
        TableError::NoRoom => ApiError::NoRoom("there is no room left on the disk where files are made"),
        error => ApiError::Internal(format!("the file cannot be made: {error}")),
    }
}
