//! Texts that a spreadsheet would take for a formula.
//!
//! A formula that came in with somebody's list must not run on the machine where our list is opened. An apostrophe is put
//! before what begins like one: at the start of a cell, and after everything that some spreadsheet takes for a separator,
//! whatever ours is. Reading takes it off again.

/// What some spreadsheet cuts cells at.
const SEPARATORS: [char; 6] = [',', ';', '\t', '|', '\n', '\r'];

/// Whether a text at one of the places where a cell could begin is written with an apostrophe before it. Apostrophes
/// that are there already do not count: so a guarded text needs a guard again, and none is taken for another.
fn needs_guard(text: &str, is_start: bool) -> bool {
    let text = text.trim_start_matches('\'');
    if is_start && text.starts_with(['\t', '\r']) {
        return true;
    }
    // A quotation mark after a separator opens a cell there.
    let text = text.trim_start_matches(['"', ' ']);
    let cell = text.split(SEPARATORS).next().unwrap_or_default();
    text.starts_with(['=', '@', '+']) || (text.starts_with('-') && cell.trim().parse::<f64>().is_err())
}

/// The places of a cell at which one could begin: its start, and after every separator.
fn beginnings(cell: &str) -> impl Iterator<Item = usize> + '_ {
    std::iter::once(0).chain(cell.match_indices(SEPARATORS).map(|(at, found)| at + found.len()))
}

/// A cell with an apostrophe before everything that begins like a formula.
pub(crate) fn guarded(cell: &str) -> String {
    let mut text = String::with_capacity(cell.len());
    let mut from = 0;
    for at in beginnings(cell) {
        text.push_str(&cell[from..at]);
        from = at;
        if needs_guard(&cell[at..], at == 0) {
            text.push('\'');
        }
    }
    text.push_str(&cell[from..]);
    text
}

/// A guarded cell as it was.
pub(crate) fn unguarded(cell: &str) -> String {
    let mut text = String::with_capacity(cell.len());
    let mut from = 0;
    for at in beginnings(cell) {
        text.push_str(&cell[from..at]);
        let is_guard = cell[at..].strip_prefix('\'').is_some_and(|rest| needs_guard(rest, at == 0));
        from = at + usize::from(is_guard);
    }
    text.push_str(&cell[from..]);
    text
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    #[test]
    fn formulas_are_guarded_wherever_a_cell_could_begin() {
        for (cell, written) in [
            ("=1+1", "'=1+1"),
            ("x;=1+1", "x;'=1+1"),
            ("x,\"=1+1\"", "x,'\"=1+1\""),
            ("a|@SUM(A1)\n+3", "a|'@SUM(A1)\n'+3"),
            ("-12.5", "-12.5"),
            ("-12;-x", "-12;'-x"),
            ("'=1", "''=1"),
            ("18x8.5 ET-12", "18x8.5 ET-12"),
            ("it's", "it's"),
            ("", ""),
        ] {
            assert_eq!(guarded(cell), written, "{cell:?}");
            assert_eq!(unguarded(written), cell, "{written:?}");
        }
    }

    proptest! {
        #[test]
        fn what_is_guarded_comes_back(cell in "[-=+@'\"; ,|a1\\t\\n]{0,12}") {
            prop_assert_eq!(unguarded(&guarded(&cell)), cell);
        }
    }
}
