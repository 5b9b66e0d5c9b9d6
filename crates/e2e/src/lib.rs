//! Driving the real page: a browser of one's own, and the program beside it.
//!
//! - [`Browser`]: ChromeDriver on a free port with a fresh profile; everything goes when it is dropped.
//! - [`Program`]: the server in this process, on a free port, over a file of its own; can be stopped and
//!   started again at the same address.
//! - [`page`]: what a person does on the page, in their words.

mod browser;
pub mod page;
mod program;

pub use browser::{Browser, STORAGE, storage_that_is};
pub use program::Program;
pub use thirtyfour;
