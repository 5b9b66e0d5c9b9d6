//! What takes room in the shop's file, on the wire.

use serde::{Deserialize, Serialize};
use store::storage::{Amount, Storage};
use utoipa::ToSchema;

/// How many of something, and their bytes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names say it")]
pub struct AmountView {
    pub count: usize,
    pub bytes: u64,
}

impl From<Amount> for AmountView {
    fn from(amount: Amount) -> Self {
        Self { count: amount.count, bytes: amount.bytes }
    }
}

/// What takes room.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
pub struct StorageView {
    /// The whole file.
    pub file_bytes: u64,
    /// All photos.
    pub photos: AmountView,
    /// Photos that no trial names: they can be removed.
    pub unnamed_photos: AmountView,
    /// Files of price lists whose rows were taken or undone: they can be removed.
    pub list_files: AmountView,
    /// What undone price lists noted of their rows; goes with the lists' files.
    pub undone_changes: AmountView,
}

impl From<Storage> for StorageView {
    fn from(storage: Storage) -> Self {
        Self {
            file_bytes: storage.file_bytes,
            photos: storage.photos.into(),
            unnamed_photos: storage.unnamed_photos.into(),
            list_files: storage.list_files.into(),
            undone_changes: storage.undone_changes.into(),
        }
    }
}

/// What is removed for good.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
pub struct StorageRemoval {
    /// Photos that no trial names.
    #[serde(default)]
    pub unnamed_photos: bool,
    /// Files of price lists that were taken or undone.
    #[serde(default)]
    pub list_files: bool,
}
