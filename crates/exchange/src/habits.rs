//! How a supplier writes: which mark is the decimal one, pounds or kilograms, words where a figure is expected. A cell is
//! made plain before the row is read; what cannot be told from the list is asked once and remembered.

use std::collections::BTreeMap;

use crate::field::{Field, Kind, Mapping};
use crate::record::Record;
use crate::table::Table;

/// What a supplier's habits are kept under, beside the columns.
pub const DECIMAL_MARK: &str = "@decimal_mark";
/// What a comma before three figures means in a list whose other prices have a decimal comma.
pub const COMMA_BEFORE_THREE: &str = "@comma_before_three";
/// Unit of loads and masses.
pub const LOAD_UNIT: &str = "@load_unit";
/// Kind of every tire of a list without a column of kinds.
pub const KIND: &str = "@kind";
/// The sheet, counted from 1.
pub const SHEET: &str = "@sheet";
/// The heading's row, counted from 1.
pub const HEADER_ROW: &str = "@header_row";
/// The answer to a question that leaves it open.
pub const NOT_SAID: &str = "not_said";

/// Kilograms of a pound, by definition.
const KG_PER_LB: f64 = 0.453_592_37;

/// Words of price lists for a figure that nobody gives. Common practice.
const NOT_GIVEN: [&str; 16] = [
    "n.a.",
    "n.a",
    "na",
    "n/a",
    "-",
    "–",
    "—",
    "poa",
    "p.o.a.",
    "tbc",
    "tba",
    "call",
    "on request",
    "auf anfrage",
    "sur demande",
    "price on application",
];

/// The decimal mark of a list.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Mark {
    /// 1.234,50
    Comma,
    /// 1,234.50
    Point,
}

/// Something that only the person who knows the supplier can say.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Question {
    /// Under which name the answer is kept.
    pub code: &'static str,
    /// The question.
    pub asks: String,
    /// Answers: code and words.
    pub choices: Vec<(&'static str, String)>,
}

/// What a comma before three figures means where other prices have a decimal comma.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Mixed {
    Unsaid,
    Thousands,
    Decimals,
}

/// A supplier's habits in one list.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Habits {
    mark: Option<Mark>,
    /// What `1,234` is beside prices like `189,50`; left out while nobody said.
    mixed: Option<Mixed>,
    in_pounds: bool,
    kind: Option<String>,
}

impl Habits {
    /// From what is remembered or was answered, and from the list itself; with what must still be asked.
    pub fn of(
        table: &Table,
        mapping: &Mapping,
        kind: Kind,
        answered: &BTreeMap<String, String>,
    ) -> (Self, Vec<Question>) {
        let mut questions = Vec::new();
        let said = match answered.get(DECIMAL_MARK).map(String::as_str) {
            Some("comma") => Some(Mark::Comma),
            Some("point") => Some(Mark::Point),
            _ => None,
        };
        let (found, open) = mark_of(table, mapping);
        let mark = said.or(found);
        let mut mixed = None;
        if let (None, Some(Mark::Comma), Some(cell)) = (said, found, &open) {
            mixed = Some(match answered.get(COMMA_BEFORE_THREE).map(String::as_str) {
                Some("thousands") => Mixed::Thousands,
                Some("decimals") => Mixed::Decimals,
                _ => Mixed::Unsaid,
            });
            if mixed == Some(Mixed::Unsaid) {
                questions.push(Question {
                    code: COMMA_BEFORE_THREE,
                    asks: format!("Other prices of this list have a decimal comma. What does {cell:?} mean?"),
                    choices: vec![
                        ("thousands", format!("{} (here the comma parts thousands)", cell.replace(',', ""))),
                        ("decimals", format!("{} (three decimals)", cell.replace(',', "."))),
                    ],
                });
            }
        }
        if let (None, Some(cell)) = (mark, open) {
            questions.push(Question {
                code: DECIMAL_MARK,
                asks: format!("What does {cell:?} mean in this list?"),
                choices: vec![
                    ("point", format!("{} (the comma parts thousands)", cell.replace(',', ""))),
                    ("comma", format!("{} (the comma is the decimal mark)", cell.replace(',', "."))),
                ],
            });
        }
        let heading = |field: &Field| mapping.0.get(field).and_then(|column| table.header.get(*column));
        let names_pounds = [Field::WheelLoad, Field::Mass].iter().filter_map(heading).any(|name| {
            let name = name.to_lowercase();
            name.split(|letter: char| !letter.is_alphanumeric()).any(is_pounds)
        });
        let in_pounds = answered.get(LOAD_UNIT).map_or(names_pounds, |unit| unit == "lb");
        let has_kinds = mapping.0.contains_key(&Field::TireKind);
        let answered_kind = answered.get(KIND).filter(|_| kind == Kind::Tires && !has_kinds);
        if kind == Kind::Tires && !has_kinds && answered_kind.is_none() {
            let kinds = fitment::setup::catalogue::TireKind::ALL.iter();
            let mut choices: Vec<(&'static str, String)> =
                kinds.map(|kind| (kind.code(), kind.words().to_owned())).collect();
            choices.push((NOT_SAID, "of several kinds: the finder then leaves them out".to_owned()));
            questions.push(Question {
                code: KIND,
                asks:
                    "No column says what kind of tire each is, and the finder sells by kind. What are they?"
                        .into(),
                choices,
            });
        }
        let kind = answered_kind.filter(|kind| *kind != NOT_SAID).cloned();
        (Self { mark, mixed, in_pounds, kind }, questions)
    }

    /// A row of the list as a record in plain words and figures.
    pub fn record(&self, row: &[String], mapping: &Mapping) -> Record {
        let mut record = Record::of(row, mapping);
        let texts = std::mem::take(&mut record.0);
        for (field, text) in texts {
            if let Some(plain) = self.plain(field, &text) {
                record.0.insert(field, plain);
            }
        }
        if let Some((circle, bore)) = record.text(Field::BoltCircle).and_then(circle_and_bore) {
            record.0.insert(Field::BoltCircle, circle);
            record.0.entry(Field::Bore).or_insert(bore);
        }
        if let Some(kind) = &self.kind {
            record.0.entry(Field::TireKind).or_insert_with(|| kind.clone());
        }
        record
    }

    fn plain(&self, field: Field, text: &str) -> Option<String> {
        let low = text.trim().to_lowercase();
        match field {
            Field::Price | Field::Stock if is_not_given(&low) => None,
            Field::Price if self.mark.is_none() && is_open(text) => None,
            Field::Price if is_open(text) && self.mixed == Some(Mixed::Unsaid) => None,
            Field::Price if is_open(text) && self.mixed == Some(Mixed::Thousands) => {
                Some(text.replace(',', ""))
            }
            Field::WheelLoad | Field::Mass => {
                if is_not_given(&low) {
                    return None;
                }
                let figure = self.marked(text);
                let pounds = low.split(|letter: char| !letter.is_alphabetic()).any(is_pounds);
                let kilograms = low.contains("kg");
                if !(pounds || self.in_pounds && !kilograms) {
                    return Some(figure);
                }
                let number = crate::record::number_in(&figure)?;
                Some(format!("{:.1}", number * KG_PER_LB))
            }
            Field::Service => Some(service_of(text)),
            _ if field.is_a_number() => Some(self.marked(text)),
            _ => Some(text.to_owned()),
        }
    }

    /// A figure with a point for its decimal mark, where the list's habit is known.
    fn marked(&self, text: &str) -> String {
        match self.mark {
            Some(Mark::Comma) if text.contains(',') => text.replace('.', "").replace(',', "."),
            Some(Mark::Comma) if is_grouped(text, '.') => text.replace('.', ""),
            Some(Mark::Point) => text.replace(',', ""),
            _ => text.to_owned(),
        }
    }
}

fn is_pounds(word: &str) -> bool {
    matches!(word, "lb" | "lbs" | "pound" | "pounds")
}

fn is_not_given(low: &str) -> bool {
    let plain: String = low.split_whitespace().collect::<Vec<_>>().join(" ");
    NOT_GIVEN.contains(&plain.as_str()) || NOT_GIVEN.contains(&plain.replace(' ', "").as_str())
}

/// The figure of a cell without what stands beside it.
fn figure_of(text: &str) -> &str {
    text.trim_matches(|letter: char| !letter.is_ascii_digit())
}

/// Whether a figure is cut into groups of three by a mark: `1.234`, `12.345.678`.
fn is_grouped(text: &str, mark: char) -> bool {
    let mut groups = figure_of(text).split(mark);
    let first = groups.next().unwrap_or_default();
    let digits = |group: &str| group.bytes().all(|digit| digit.is_ascii_digit());
    let mut rest = groups.peekable();
    (1..=3).contains(&first.len())
        && digits(first)
        && rest.peek().is_some()
        && rest.all(|group| group.len() == 3 && digits(group))
}

/// Whether a price can be read in two ways: `1,234`. A point is no question: a price of three decimals is not written.
fn is_open(text: &str) -> bool {
    let figure = figure_of(text);
    figure.matches(',').count() == 1 && !figure.contains('.') && is_grouped(text, ',')
}

/// The decimal mark as the prices of a list show it, and a price that could mean two things.
fn mark_of(table: &Table, mapping: &Mapping) -> (Option<Mark>, Option<String>) {
    let Some(column) = mapping.0.get(&Field::Price) else { return (None, None) };
    let (mut commas, mut points, mut open) = (0, 0, None);
    for cell in table.rows.iter().filter_map(|row| row.get(*column)) {
        let figure = figure_of(cell);
        match (figure.rfind(','), figure.rfind('.')) {
            (Some(comma), Some(point)) if comma > point => commas += 1,
            (Some(_), Some(_)) => points += 1,
            (Some(comma), None) if figure.len() - comma != 4 => commas += 1,
            (None, Some(point)) if figure.len() - point != 4 => points += 1,
            (Some(_), None) if is_open(cell) => {
                open.get_or_insert_with(|| figure.to_owned());
            }
            _ => {}
        }
    }
    let mark = match (commas, points) {
        (0, 0) => None,
        (commas, points) if commas > points => Some(Mark::Comma),
        _ => Some(Mark::Point),
    };
    (mark, open)
}

/// `94 W` closed up, and what is no service description taken out: markings for snow, plies.
fn service_of(text: &str) -> String {
    let words = text.split(|letter: char| letter.is_whitespace() || letter == ',').filter(|word| {
        let word = word.to_uppercase();
        let plies = word.strip_suffix("PR").is_some_and(|count| count.parse::<u32>().is_ok());
        !plies && !matches!(word.as_str(), "M+S" | "M&S" | "3PMSF" | "TL" | "")
    });
    let mut joined = String::new();
    for word in words {
        let is_symbol = word.len() <= 2 && word.chars().all(|letter| letter.is_ascii_alphabetic());
        let after_index = joined.ends_with(|letter: char| letter.is_ascii_digit());
        if !(joined.is_empty() || is_symbol && after_index) {
            joined.push(' ');
        }
        joined.push_str(word);
    }
    joined
}

/// `5x112 66.6`, `5/112/66,6`: a bolt circle with the bore behind it.
fn circle_and_bore(text: &str) -> Option<(String, String)> {
    let plain = text.replace(',', ".");
    let pieces: Vec<&str> = plain
        .split(|letter: char| letter.is_whitespace() || letter == '/')
        .filter(|piece| !piece.is_empty())
        .collect();
    let bore = |piece: &str| {
        let figure = piece.trim_start_matches(|letter: char| !letter.is_ascii_digit());
        let mm: f64 = figure.trim_end_matches("mm").parse().ok()?;
        // "5x100/114.3" is drilled twice.
        let is_a_circle =
            fitment::values::codes::BoltCircle::KNOWN_MM.iter().any(|known| (known - mm).abs() < 0.05);
        (figure.contains('.') && (40.0..=130.0).contains(&mm) && !is_a_circle)
            .then(|| figure.trim_end_matches("mm").to_owned())
    };
    match pieces.as_slice() {
        [circle, last] if circle.contains(['x', 'X', '×']) => Some(((*circle).to_owned(), bore(last)?)),
        [count, circle, last] if count.parse::<u32>().is_ok_and(|count| (3..=10).contains(&count)) => {
            Some((format!("{count}x{circle}"), bore(last)?))
        }
        _ => None,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn table(header: &[&str], rows: &[&[&str]]) -> Table {
        let owned = |cells: &[&str]| cells.iter().map(|cell| (*cell).to_owned()).collect::<Vec<_>>();
        Table { header: owned(header), rows: rows.iter().map(|row| owned(row)).collect(), ..Table::default() }
    }

    fn read(kind: Kind, header: &[&str], row: &[&str], answered: &[(&str, &str)]) -> (Record, Vec<Question>) {
        let table = table(header, &[row]);
        let mapping = Mapping::guessed(&table.header, kind);
        let answered = answered.iter().map(|(code, said)| ((*code).to_owned(), (*said).to_owned())).collect();
        let (habits, questions) = Habits::of(&table, &mapping, kind, &answered);
        (habits.record(&table.rows[0], &mapping), questions)
    }

    #[test]
    fn pounds_are_pounds_by_heading_or_by_cell() {
        // 1 lb = 0.45359237 kg (international yard and pound agreement, 1959): 1521 lb are 689.9 kg.
        for (heading, cell, kg) in [
            ("load", "1521 lbs", "689.9"),
            ("load", "690 kg", "690 kg"),
            ("load", "690", "690"),
            ("Load", "1,521 lb", "689.9"),
        ] {
            let (record, _) = read(Kind::Wheels, &[heading, "price"], &[cell, "189.90"], &[]);
            assert_eq!(record.text(Field::WheelLoad), Some(kg), "{heading} {cell}");
        }
        let table = table(&["size", "max load lbs"], &[&["18x8", "1521"]]);
        let mapping = Mapping([(Field::Size, 0), (Field::WheelLoad, 1)].into());
        let (habits, _) = Habits::of(&table, &mapping, Kind::Wheels, &BTreeMap::new());
        assert_eq!(habits.record(&table.rows[0], &mapping).text(Field::WheelLoad), Some("689.9"));
    }

    #[test]
    fn words_where_a_figure_is_expected_leave_it_unsaid() {
        for cell in ["n. a.", "POA", "auf Anfrage", "on request", "–", "call", "N/A"] {
            let (record, _) = read(Kind::Wheels, &["price", "stock"], &[cell, cell], &[]);
            assert!(record.0.is_empty(), "{cell}: {record:?}");
        }
    }

    #[test]
    fn thousands_beside_decimal_commas_are_asked_and_the_other_prices_stay() {
        let rows: [&[&str]; 3] = [&["189,50"], &["1,234"], &["205,00"]];
        let table = table(&["price"], &rows);
        let mapping = Mapping::guessed(&table.header, Kind::Wheels);
        let prices = |answered: &[(&str, &str)]| {
            let answered =
                answered.iter().map(|(code, said)| ((*code).to_owned(), (*said).to_owned())).collect();
            let (habits, questions) = Habits::of(&table, &mapping, Kind::Wheels, &answered);
            let price =
                |row: &Vec<String>| habits.record(row, &mapping).text(Field::Price).map(str::to_owned);
            (table.rows.iter().map(price).collect::<Vec<_>>(), questions)
        };
        let some = |prices: [&str; 3]| prices.map(|price| Some(price.to_owned())).to_vec();
        let (unsaid, questions) = prices(&[]);
        assert_eq!(unsaid, [Some("189.50".to_owned()), None, Some("205.00".to_owned())]);
        assert_eq!(questions.iter().map(|one| one.code).collect::<Vec<_>>(), [COMMA_BEFORE_THREE]);
        let (thousands, questions) = prices(&[(COMMA_BEFORE_THREE, "thousands")]);
        assert_eq!((thousands, questions.len()), (some(["189.50", "1234", "205.00"]), 0));
        assert_eq!(prices(&[(COMMA_BEFORE_THREE, "decimals")]).0, some(["189.50", "1.234", "205.00"]));
    }

    #[test]
    fn a_price_that_means_two_things_is_asked_once_and_left_out_until_then() {
        let header = ["price"];
        let (record, questions) = read(Kind::Wheels, &header, &["1,234"], &[]);
        assert_eq!((record.text(Field::Price), questions.len()), (None, 1));
        assert_eq!(questions[0].code, DECIMAL_MARK);
        for (said, price) in [("point", "1234"), ("comma", "1.234")] {
            let (record, questions) = read(Kind::Wheels, &header, &["1,234"], &[(DECIMAL_MARK, said)]);
            assert_eq!((record.text(Field::Price), questions.len()), (Some(price), 0), "{said}");
        }
    }

    #[test]
    fn a_list_that_shows_its_decimal_mark_is_not_asked_for_it() {
        for (prices, plain) in [
            (["1,049.50", "1,234"], ["1049.50", "1234"]),
            (["189,90", "1.234"], ["189.90", "1234"]),
            (["189.90", "1,234"], ["189.90", "1234"]),
        ] {
            let table = table(&["price"], &[&[prices[0]], &[prices[1]]]);
            let mapping = Mapping::guessed(&table.header, Kind::Wheels);
            let (habits, questions) = Habits::of(&table, &mapping, Kind::Wheels, &BTreeMap::new());
            assert!(questions.is_empty(), "{prices:?}");
            for (row, plain) in table.rows.iter().zip(plain) {
                assert_eq!(habits.record(row, &mapping).text(Field::Price), Some(plain), "{prices:?}");
            }
        }
    }

    #[test]
    fn a_list_without_kinds_is_asked_and_answered_for_all_of_it() {
        let (header, row) = (["size", "service", "price"], ["225/45R17", "94W", "89.90"]);
        let (record, questions) = read(Kind::Tires, &header, &row, &[]);
        assert_eq!((record.text(Field::TireKind), questions[0].code), (None, KIND));
        let (record, questions) = read(Kind::Tires, &header, &row, &[(KIND, "winter")]);
        assert_eq!((record.text(Field::TireKind), questions.len()), (Some("winter"), 0));
        let (record, questions) = read(Kind::Tires, &header, &row, &[(KIND, NOT_SAID)]);
        assert_eq!((record.text(Field::TireKind), questions.len()), (None, 0));
    }

    #[test]
    fn service_descriptions_and_circles_as_lists_write_them() {
        for (text, plain) in [
            ("94 W", "94W"),
            ("94W XL", "94W XL"),
            ("94 W XL", "94W XL"),
            ("M+S 3PMSF 94H", "94H"),
            ("121/118 S 10PR", "121/118S"),
            ("(97Y)", "(97Y)"),
        ] {
            assert_eq!(service_of(text), plain, "{text}");
        }
        for (text, pair) in [
            ("5x112 66.6", Some(("5x112", "66.6"))),
            ("5x112/66,6", Some(("5x112", "66.6"))),
            ("5/112/66.6", Some(("5x112", "66.6"))),
            ("5x112 CB66.6", Some(("5x112", "66.6"))),
            ("5x112", None),
            ("5x112 5x114.3", None),
            ("5x108/5x112", None),
        ] {
            let pair = pair.map(|(circle, bore)| (circle.to_owned(), bore.to_owned()));
            assert_eq!(circle_and_bore(text), pair, "{text}");
        }
    }
}
