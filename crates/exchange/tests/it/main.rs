//! The formats as the program uses them.
#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test that cannot go on fails")]

mod as_lists_are_written;
mod price_lists;
mod profiles;
