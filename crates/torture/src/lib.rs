//! What breaks the program, if anything does. The program is a process of its own, asked over HTTP like anybody's.
//!
//! - [`Program`]: it, started and stopped and killed. [`Outcome`]: a line of the table.
//! - [`kills`]: killed under load, again and again: what was acknowledged is there.
//! - [`files`]: hostile files and seeded mutations of sound ones: nothing ends it, and no answer is a 5xx.
//! - [`connections`]: what an idle one costs, what becomes of half a head, and of who asks and reads nothing.
//! - [`swaps`]: another file at the address. [`starts`]: killed at each write of a start. [`lost_file`]: file or log gone or damaged.
//! - [`module`]: what is said of a car's module. [`bodies`]: many large ones at once. [`ports`]: what stands beside the program. [`disk`]: a full one.
//! - [`stop`]: after a clean stop the file alone has every job. [`soak`]: a long run of everything.
//!
//! Everything is bounded and seeded, and stays on this machine. `cargo xtask torture` runs it whole; the tests of this
//! crate run short versions.

pub mod bodies;
pub mod connections;
pub mod disk;
pub mod files;
pub mod kills;
pub mod lost_file;
pub mod module;
pub mod ports;
mod program;
pub mod soak;
pub mod starts;
pub mod stop;
pub mod swaps;

pub use program::Program;

/// A line of the table: what was done, what was wanted, what came of it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Outcome {
    /// What was done.
    pub what: String,
    /// What was wanted.
    pub wanted: &'static str,
    /// What came of it.
    pub found: String,
    /// Whether that is what was wanted.
    pub is_held: bool,
}

impl std::fmt::Display for Outcome {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        let mark = if self.is_held { "" } else { " **not held**" };
        write!(f, "| {} | {} | {}{mark} |", self.what, self.wanted, self.found)
    }
}
