//! A price list read row by row, how far that has come, and the list that was read last.

use std::collections::{BTreeMap, HashMap};
use std::sync::{Arc, Mutex, PoisonError};

use exchange::field::Kind;
use exchange::habits::{Habits, Question};
use exchange::record::RowError;
use exchange::{Field, Mapping, Table, tires, wheels};
use store::catalogue::RecordText;

/// A row of a list at fault: its number in the file, and why.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct RowFault {
    /// Which row.
    pub row: usize,
    /// Why.
    pub errors: Vec<RowError>,
}

/// A list read by a mapping.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct ReadList {
    /// Sound rows by key.
    pub rows: Vec<(String, RecordText)>,
    /// Rows at fault.
    pub faults: Vec<RowFault>,
    /// Rows whose key was there before in the same list; the later one counts.
    pub doubled: usize,
    /// Rows that are taken and that the finder may never propose.
    pub silent: Silent,
}

/// Rows that do not say what the finder must know, counted by what that is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Silent {
    without_circle: usize,
    without_service: usize,
    without_kind: usize,
    without_price: usize,
}

impl Silent {
    /// What becomes of them, in sentences.
    pub fn says(&self) -> Vec<String> {
        [
            (self.without_circle, "name no bolt circle: nobody can say on which car they go, so read it before one is ordered."),
            (self.without_service, "name no load index and speed symbol: the finder proposes none of them where the car asks for one."),
            (self.without_kind, "name no kind of tire: the finder proposes none of them for a use or a season."),
            (self.without_price, "have no price: they count for nothing in a set's price, and are left out under a budget."),
        ]
        .into_iter()
        .filter(|(count, _)| *count > 0)
        .map(|(count, says)| format!("{count} rows {says}"))
        .collect()
    }
}

/// Reads every row of a table, tidied: what is kept is what the core read, column by column. `told` hears now and then
/// how many rows are done.
pub fn read_list(
    table: &Table,
    kind: Kind,
    mapping: &Mapping,
    habits: &Habits,
    told: &dyn Fn(usize),
) -> ReadList {
    let mut list = ReadList::default();
    let mut by_key: HashMap<String, usize> = HashMap::with_capacity(table.rows.len());
    for (at, row) in table.rows.iter().enumerate() {
        if at % 1000 == 0 {
            told(at);
        }
        let record = habits.record(row, mapping);
        let read = match kind {
            Kind::Wheels => wheels::wheel(&record, 0).map(|row| {
                list.silent.without_circle += usize::from(row.circles().next().is_none());
                list.silent.without_price += usize::from(row.price.is_none());
                (
                    format!("{}|{}|{}|{}", row.line, row.finish, row.wheel, row.more_circles.len()),
                    wheels::record(&row),
                )
            }),
            Kind::Tires => tires::tire(&record, 0).map(|row| {
                list.silent.without_service += usize::from(row.tire.service.is_none());
                list.silent.without_kind += usize::from(row.kind.is_none());
                list.silent.without_price += usize::from(row.price.is_none());
                (format!("{}|{}", row.line, row.tire), tires::record(&row))
            }),
        };
        match read {
            Ok((natural, mut tidy)) => {
                let article = record.text(Field::Article);
                if let Some(article) = article {
                    tidy.0.insert(Field::Article, article.to_owned());
                }
                let key = article.map_or(natural, |article| format!("article {article}"));
                let fields = tidy.0.iter().map(|(field, text)| (field.code(), text.as_str()));
                let text = RecordText::of(&fields.collect());
                match by_key.get(&key) {
                    Some(before) => {
                        list.doubled += 1;
                        list.rows[*before].1 = text;
                    }
                    None => {
                        by_key.insert(key.clone(), list.rows.len());
                        list.rows.push((key, text));
                    }
                }
            }
            Err(errors) => list.faults.push(RowFault { row: table.header_row.max(1) + at + 1, errors }),
        }
    }
    list
}

/// A list as it was tried: without its cells.
#[derive(Debug)]
pub struct ReadTable {
    /// Its headings.
    pub header: Vec<String>,
    /// What was noticed about the file.
    pub notes: Vec<String>,
    /// By which mapping it was read, field code to heading.
    pub mapping: BTreeMap<String, String>,
    /// What it came to.
    pub list: ReadList,
    /// The first lines as they stand in the file, by number.
    pub top: Vec<(usize, Vec<String>)>,
    /// The heading's line.
    pub header_row: usize,
    /// Sheets of a workbook, and which one was read, counted from 1.
    pub sheets: (Vec<String>, usize),
    /// What only a person can say of this supplier's lists.
    pub questions: Vec<Question>,
}

/// A list's number with the list.
type Numbered = (i64, Arc<ReadTable>);

/// The list that was read last: taking it does not read it again.
#[derive(Debug, Clone, Default)]
pub struct LastRead(Arc<Mutex<Option<Numbered>>>);

impl LastRead {
    /// Keeps a list.
    pub fn keep(&self, id: i64, read: &Arc<ReadTable>) {
        *self.0.lock().unwrap_or_else(PoisonError::into_inner) = Some((id, Arc::clone(read)));
    }

    /// The list of a number, if it is the last and was read by this mapping (any, when none is asked for).
    pub fn of(&self, id: i64, mapping: Option<&BTreeMap<String, String>>) -> Option<Arc<ReadTable>> {
        let last = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        let (_, read) = last.as_ref().filter(|(last, _)| *last == id)?;
        mapping.is_none_or(|mapping| read.mapping == *mapping).then(|| Arc::clone(read))
    }

    /// Lets the list go: it was taken.
    pub fn forget(&self) {
        *self.0.lock().unwrap_or_else(PoisonError::into_inner) = None;
    }
}

/// How far something has come.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Step {
    /// `reading`, `comparing` or `writing`.
    pub what: &'static str,
    /// Rows done.
    pub done: usize,
    /// Rows in all; 0 while that is not known.
    pub of: usize,
}

/// How far each list under way has come, by the ticket its sender drew.
#[derive(Debug, Clone, Default)]
pub struct Progress(Arc<Mutex<HashMap<String, Step>>>);

/// One list's progress; forgotten when it is dropped.
#[derive(Debug)]
pub struct Ticket {
    name: Option<String>,
    progress: Progress,
}

/// Lists under way at most; further ones go untold.
const MOST_TICKETS: usize = 64;

impl Progress {
    /// Starts to tell of a list; without a ticket nobody hears.
    pub fn of(&self, ticket: Option<&str>) -> Ticket {
        Ticket { name: ticket.map(str::to_owned), progress: self.clone() }
    }

    /// How far a ticket's list has come; `None` when it is not under way.
    pub fn step(&self, ticket: &str) -> Option<Step> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner).get(ticket).copied()
    }
}

impl Ticket {
    /// Tells how far it has come.
    pub fn tell(&self, what: &'static str, done: usize, of: usize) {
        let Some(name) = &self.name else { return };
        let mut steps = self.progress.0.lock().unwrap_or_else(PoisonError::into_inner);
        if steps.len() < MOST_TICKETS || steps.contains_key(name) {
            steps.insert(name.clone(), Step { what, done, of });
        }
    }
}

impl Drop for Ticket {
    fn drop(&mut self) {
        if let Some(name) = &self.name {
            self.progress.0.lock().unwrap_or_else(PoisonError::into_inner).remove(name);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn progress_is_told_by_ticket_and_forgotten_at_the_end() {
        let progress = Progress::default();
        let ticket = progress.of(Some("a"));
        assert_eq!(progress.step("a"), None, "not yet");
        ticket.tell("reading", 1000, 5000);
        assert_eq!(progress.step("a"), Some(Step { what: "reading", done: 1000, of: 5000 }));
        progress.of(None).tell("reading", 1, 2);
        drop(ticket);
        assert_eq!(progress.step("a"), None);
    }

    #[test]
    fn rows_told_are_every_thousandth() {
        let row = |at: usize| vec![format!("{at}"), "18x8 ET35".to_owned()];
        let header = vec!["article".to_owned(), "size".to_owned()];
        let table = Table { header, rows: (0..2500).map(row).collect(), ..Table::default() };
        let mapping = Mapping::guessed(&table.header, Kind::Wheels);
        let told = std::cell::RefCell::new(Vec::new());
        let list = read_list(&table, Kind::Wheels, &mapping, &Habits::default(), &|done| {
            told.borrow_mut().push(done)
        });
        assert_eq!((list.rows.len(), told.into_inner()), (2500, vec![0, 1000, 2000]));
    }
}
