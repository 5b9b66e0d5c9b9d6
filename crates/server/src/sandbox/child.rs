//! The child's side: what it does with a file, and within which bounds.

use std::io::{Read, Write};
use std::time::Duration;

use exchange::Table;
use exchange::profile::{self, Unit};
use exchange::table::Place;
use rustix::event::{PollFd, PollFlags, poll};
use rustix::process::{Resource, Rlimit, Signal, setrlimit};

use crate::photo;

/// What is done with a file.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Task {
    /// Read as a list of rows; where in the file it is, as far as somebody said.
    Table(Place),
    /// Read as a drawing; with the unit for one that does not say its own.
    Drawing(Option<Unit>),
    /// A photo drawn anew.
    Photo,
}

impl Task {
    /// As the child is told it.
    pub(super) fn arguments(self) -> Vec<String> {
        let number = |said: Option<usize>| said.unwrap_or_default().to_string();
        match self {
            Self::Table(place) => vec!["table".to_owned(), number(place.sheet), number(place.header_row)],
            Self::Drawing(None) => vec!["drawing".to_owned()],
            Self::Drawing(Some(unit)) => vec!["drawing".to_owned(), unit.code().to_owned()],
            Self::Photo => vec!["photo".to_owned()],
        }
    }

    /// As it was told.
    pub fn from_arguments(arguments: &[String]) -> Option<Self> {
        let words: Vec<&str> = arguments.iter().map(String::as_str).collect();
        match words.as_slice() {
            ["table", sheet, header_row] => {
                let said = |text: &str| Some(text.parse::<usize>().ok()?).filter(|number| *number > 0);
                Some(Self::Table(Place { sheet: said(sheet), header_row: said(header_row) }))
            }
            ["drawing"] => Some(Self::Drawing(None)),
            ["drawing", unit] => Some(Self::Drawing(Some(Unit::from_code(unit)?))),
            ["photo"] => Some(Self::Photo),
            _ => None,
        }
    }

    /// Most memory that the child may ask for. A list of five million cells takes half a gigabyte; a photo of 50
    /// million pixels is in memory twice.
    fn memory(self) -> u64 {
        const MB: u64 = 1024 * 1024;
        match self {
            Self::Table(_) => 1024 * MB,
            Self::Drawing(_) => 256 * MB,
            Self::Photo => 640 * MB,
        }
    }

    /// Most time of a processor.
    pub(super) fn processor_time(self) -> Duration {
        Duration::from_secs(match self {
            Self::Table(_) => 60,
            Self::Drawing(_) | Self::Photo => 10,
        })
    }

    /// Most bytes of an answer.
    pub(super) fn longest_answer(self) -> u64 {
        match self {
            Self::Table(_) => 512 * 1024 * 1024,
            Self::Drawing(_) | Self::Photo => 32 * 1024 * 1024,
        }
    }

    pub(super) fn took_too_long(self) -> String {
        format!(
            "reading this file takes more than {} seconds of a processor: {}",
            self.processor_time().as_secs(),
            self.how_to_mend()
        )
    }

    pub(super) fn gave_up(self) -> &'static str {
        match self {
            Self::Table(_) => {
                "this file is damaged, or takes more memory than one list may: open it and save it again, as CSV, or \
                 split it"
            }
            Self::Drawing(_) => {
                "this file is damaged, or takes more memory than one drawing may: open it and export the profile alone"
            }
            Self::Photo => {
                "this photo is damaged, or takes more memory than one photo may: open it and save it again, smaller"
            }
        }
    }

    fn how_to_mend(self) -> &'static str {
        match self {
            Self::Table(_) => "save it as CSV, or split it",
            Self::Drawing(_) => "export the profile alone",
            Self::Photo => "save it smaller",
        }
    }

    /// The file's answer, as it goes to the parent: what was read, or why it was not, in a sentence.
    pub(super) fn answer(self, bytes: &[u8]) -> Vec<u8> {
        let encoded = match self {
            Self::Table(place) => {
                postcard::to_stdvec(&Table::read_at(bytes, place).map_err(|error| error.to_string()))
            }
            Self::Drawing(unit) => {
                let read = profile::read(bytes).map(|sheet| sheet.profiles(unit));
                postcard::to_stdvec(&read.map_err(|error| error.to_string()))
            }
            Self::Photo => postcard::to_stdvec(&photo::drawn_anew(bytes).map_err(|error| error.to_string())),
        };
        encoded.unwrap_or_default()
    }
}

/// Nobody is left who wants the answer when the parent is gone, however it went: the system tells the child, and the pipe
/// that the answer goes into has no other end any more.
fn end_with_the_parent() -> std::io::Result<()> {
    rustix::process::set_parent_process_death_signal(Some(Signal::KILL))?;
    std::thread::Builder::new().stack_size(64 * 1024).spawn(|| {
        let out = std::io::stdout();
        loop {
            // Asked for nothing, it wakes when the pipe breaks.
            let mut pipe = [PollFd::new(&out, PollFlags::empty())];
            let is_broken = poll(&mut pipe, None).is_ok()
                && pipe[0].revents().intersects(PollFlags::ERR | PollFlags::HUP | PollFlags::NVAL);
            if is_broken {
                std::process::exit(1);
            }
        }
    })?;
    Ok(())
}

/// Reads a file from standard input and answers on standard output: what `dimensione read-apart` does.
///
/// # Errors
/// When the bounds cannot be set, or input or output fail.
pub fn run(task: Task) -> std::io::Result<()> {
    end_with_the_parent()?;
    let bound = |resource, most| setrlimit(resource, Rlimit { current: Some(most), maximum: Some(most) });
    bound(Resource::Core, 0)?;
    bound(Resource::Data, task.memory())?;
    // A little more than the data: the program itself is mapped too.
    bound(Resource::As, task.memory() + 512 * 1024 * 1024)?;
    let seconds = task.processor_time().as_secs();
    setrlimit(Resource::Cpu, Rlimit { current: Some(seconds), maximum: Some(seconds + 1) })?;
    let mut bytes = Vec::new();
    std::io::stdin().lock().read_to_end(&mut bytes)?;
    let mut out = std::io::stdout().lock();
    out.write_all(&task.answer(&bytes))?;
    out.flush()
}
