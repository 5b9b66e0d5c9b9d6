//! The store as the server uses it.
#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test that cannot go on fails")]

mod catalogue;
mod jobs_and_house;
mod keeping;
mod one_file;
