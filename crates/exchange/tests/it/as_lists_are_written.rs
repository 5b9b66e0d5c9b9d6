//! Price lists as they come: marks of thousands and decimals in every mixture, words where a figure is expected, several things
//! in one cell. What is meant follows from how the trade writes lists (common practice, no source).
use std::collections::BTreeMap;

use exchange::field::{Field, Kind, Mapping};
use exchange::habits::{COMMA_BEFORE_THREE, DECIMAL_MARK, Habits};
use exchange::table::Table;

fn table(text: &str) -> Table {
    Table::read(text.as_bytes()).unwrap()
}

fn answered(given: &[(&str, &str)]) -> BTreeMap<String, String> {
    given.iter().map(|(code, said)| ((*code).to_owned(), (*said).to_owned())).collect()
}

/// The prices of a list with these cells, and the codes of what must be asked.
fn prices(cells: &[&str], given: &[(&str, &str)]) -> (Vec<Option<String>>, Vec<&'static str>) {
    let text =
        cells.iter().fold(String::from("size;price\n"), |list, cell| list + "18x8 ET45;" + cell + "\n");
    let table = table(&text);
    let mapping = Mapping::guessed(&table.header, Kind::Wheels);
    let (habits, questions) = Habits::of(&table, &mapping, Kind::Wheels, &answered(given));
    let price = |row: &Vec<String>| habits.record(row, &mapping).text(Field::Price).map(str::to_owned);
    (table.rows.iter().map(price).collect(), questions.iter().map(|one| one.code).collect())
}

/// A figure as a row of the list reads it.
fn figure(text: Option<&String>) -> Option<f64> {
    let plain: String = text?.chars().filter(|sign| sign.is_ascii_digit() || *sign == '.').collect();
    plain.parse().ok()
}

/// Lists whose mark is plain: two prices each, and what they are.
const PLAIN: [(&str, &str, f64, f64); 16] = [
    ("189.90", "210.00", 189.90, 210.0),
    ("189,90", "210,00", 189.90, 210.0),
    ("1.049,50", "210,00", 1049.50, 210.0),
    ("1,049.50", "210.00", 1049.50, 210.0),
    ("1.234", "189,90", 1234.0, 189.90),
    ("1,234", "189.90", 1234.0, 189.90),
    ("12.345,60", "99,00", 12345.60, 99.0),
    ("12,345.60", "99.00", 12345.60, 99.0),
    ("€ 214,50", "€ 99,00", 214.50, 99.0),
    ("214,50 €", "99,00 €", 214.50, 99.0),
    ("$214.50", "$99.00", 214.50, 99.0),
    ("214.50 EUR", "99.00 EUR", 214.50, 99.0),
    ("214,5", "99", 214.50, 99.0),
    ("214.5", "99", 214.50, 99.0),
    ("250", "310", 250.0, 310.0),
    ("0,99", "1,50", 0.99, 1.50),
];

#[test]
fn a_list_that_shows_its_mark_is_read_by_it() {
    for (one, other, first, second) in PLAIN {
        let (found, asked) = prices(&[one, other], &[]);
        assert!(asked.is_empty(), "{one} and {other}: {asked:?}");
        let figures: Vec<Option<f64>> = found.iter().map(|price| figure(price.as_ref())).collect();
        assert_eq!(figures, [Some(first), Some(second)], "{one} and {other}: {found:?}");
    }
}

/// Lists of which a price could mean two things: the price, one beside it, and what is asked.
const OPEN: [(&str, &str, &str); 6] = [
    ("1,234", "2,500", DECIMAL_MARK),
    ("1,234", "250", DECIMAL_MARK),
    ("€ 1,234", "250", DECIMAL_MARK),
    ("1,234", "189,50", COMMA_BEFORE_THREE),
    ("1,234", "1.049,50", COMMA_BEFORE_THREE),
    ("12,345", "99,00", COMMA_BEFORE_THREE),
];

#[test]
fn a_price_that_means_two_things_is_asked_and_never_guessed() {
    for (open, beside, code) in OPEN {
        let (found, asked) = prices(&[open, beside], &[]);
        assert_eq!(asked, [code], "{open} beside {beside}");
        assert_eq!(found[0], None, "{open} is left out until somebody says");
        for (said, is_thousands) in [
            (if code == DECIMAL_MARK { "point" } else { "thousands" }, true),
            (if code == DECIMAL_MARK { "comma" } else { "decimals" }, false),
        ] {
            let (found, asked) = prices(&[open, beside], &[(code, said)]);
            assert!(asked.is_empty(), "{open}: {said} is an answer");
            let price = figure(found[0].as_ref()).unwrap();
            assert_eq!(price > 1000.0, is_thousands, "{open} as {said}: {price}");
        }
    }
}

/// Cells of prices and stocks that say nothing.
const SAYS_NOTHING: [&str; 14] = [
    "n. a.",
    "n.a.",
    "N/A",
    "na",
    "POA",
    "P.O.A.",
    "tbc",
    "TBA",
    "call",
    "on request",
    "auf Anfrage",
    "sur demande",
    "–",
    "-",
];

#[test]
fn words_for_no_figure_leave_it_unsaid_and_cost_no_row() {
    for cell in SAYS_NOTHING {
        let text = format!("size;price;stock\n18x8 ET45;{cell};{cell}\n18x8 ET35;189.90;4\n");
        let table = table(&text);
        let mapping = Mapping::guessed(&table.header, Kind::Wheels);
        let (habits, questions) = Habits::of(&table, &mapping, Kind::Wheels, &answered(&[]));
        assert!(questions.is_empty(), "{cell}");
        let [first, second] = [0, 1].map(|row| habits.record(&table.rows[row], &mapping));
        assert_eq!((first.text(Field::Price), first.text(Field::Stock)), (None, None), "{cell}");
        assert!(exchange::wheels::wheel(&first, 1).is_ok(), "{cell}: the row stays");
        assert_eq!(second.text(Field::Price), Some("189.90"), "{cell}");
    }
}

/// Loads by heading and cell, in kilograms: 1 lb = 0.45359237 kg (international agreement, 1959).
const LOADS: [(&str, &str, f64); 12] = [
    ("load", "690", 690.0),
    ("load", "690 kg", 690.0),
    ("load rating", "690kg", 690.0),
    ("max load", "1521 lbs", 689.9),
    ("max load", "1,521 lbs", 689.9),
    ("Max load (lbs)", "1521", 689.9),
    ("Max load lbs", "1655", 750.7),
    ("load lb", "1764 lb", 800.1),
    ("load lbs", "690 kg", 690.0),
    ("Load kg", "690", 690.0),
    ("load", "1521 pounds", 689.9),
    ("Max load [lb]", "2000", 907.2),
];

#[test]
fn pounds_are_pounds_wherever_the_word_stands() {
    for (heading, cell, kg) in LOADS {
        let table = table(&format!("size;{heading};price\n18x8 ET45;{cell};189.90\n"));
        let mapping = Mapping::guessed(&table.header, Kind::Wheels);
        assert!(mapping.0.contains_key(&Field::WheelLoad), "{heading}: {mapping:?}");
        let (habits, _) = Habits::of(&table, &mapping, Kind::Wheels, &answered(&[]));
        let record = habits.record(&table.rows[0], &mapping);
        let row = exchange::wheels::wheel(&record, 1)
            .unwrap_or_else(|errors| panic!("{heading} {cell}: {errors:?}"));
        assert!((row.load_kg.unwrap() - kg).abs() < 0.06, "{heading} {cell}: {:?}", row.load_kg);
    }
}

/// Bolt circle and bore in one cell, and what each is.
const CIRCLES_WITH_BORES: [(&str, &str, Option<f64>); 10] = [
    ("5x112 66.6", "5x112", Some(66.6)),
    ("5x112 66,6", "5x112", Some(66.6)),
    ("5/112/66.6", "5x112", Some(66.6)),
    ("5/112/66,6", "5x112", Some(66.6)),
    ("5x114.3/67.1", "5x114.3", Some(67.1)),
    ("5x120 72.6mm", "5x120", Some(72.6)),
    ("5x112", "5x112", None),
    ("5/112", "5x112", None),
    ("5x100/114.3", "5x100/114.3", None),
    ("4x100 54.1", "4x100", Some(54.1)),
];

#[test]
fn a_bore_behind_its_circle_is_the_bore() {
    for (cell, circle, bore) in CIRCLES_WITH_BORES {
        let table = table(&format!("size;pcd;price\n18x8 ET45;{cell};189.90\n"));
        let mapping = Mapping::guessed(&table.header, Kind::Wheels);
        let (habits, _) = Habits::of(&table, &mapping, Kind::Wheels, &answered(&[]));
        let record = habits.record(&table.rows[0], &mapping);
        let row = exchange::wheels::wheel(&record, 1).unwrap_or_else(|errors| panic!("{cell}: {errors:?}"));
        let circles: Vec<String> = row.wheel.circles().map(|one| one.to_string()).collect();
        let wanted: fitment::Wheel = format!("18x8 ET45 {circle}").parse().unwrap();
        let wanted: Vec<String> = wanted.circles().map(|one| one.to_string()).collect();
        assert_eq!(circles, wanted, "{cell}");
        assert_eq!(row.wheel.center_bore.map(|bore| bore.diameter().as_mm()), bore, "{cell}");
    }
}

/// Size and service as tire lists write them, and the tire.
const SIZED: [(&str, &str, &str); 14] = [
    ("225/45R17", "94W", "225/45R17 94W"),
    ("225/45R17", "94 W", "225/45R17 94W"),
    ("225/45 R17", "94W XL", "225/45R17 94W XL"),
    ("225/45R17", "94 W XL", "225/45R17 94W XL"),
    ("225/45R17", "M+S 3PMSF 94H", "225/45R17 94H"),
    ("LT245/75R16", "121/118 S 10PR", "LT245/75R16 121/118S"),
    ("245/40ZR18", "(97Y)", "245/40ZR18 (97Y)"),
    ("245/40ZR18", "97Y XL", "245/40ZR18 97Y XL"),
    ("195/65R15", "91 H", "195/65R15 91H"),
    ("195/65R15", "91T", "195/65R15 91T"),
    ("33x12.50R17LT", "121R", "33x12.50R17LT 121R"),
    ("225/45R17", "TL 91V", "225/45R17 91V"),
    ("P225/60R16", "97H", "P225/60R16 97H"),
    ("HL245/40R19", "101Y", "HL245/40R19 101Y"),
];

#[test]
fn sizes_and_services_of_two_columns_are_one_tire() {
    for (size, service, tire) in SIZED {
        let table = table(&format!("size;service;kind;price\n{size};{service};summer touring;89.90\n"));
        let mapping = Mapping::guessed(&table.header, Kind::Tires);
        let (habits, _) = Habits::of(&table, &mapping, Kind::Tires, &answered(&[]));
        let record = habits.record(&table.rows[0], &mapping);
        let row =
            exchange::tires::tire(&record, 1).unwrap_or_else(|errors| panic!("{size} {service}: {errors:?}"));
        assert_eq!(row.tire.to_string(), tire, "{size} and {service}");
        assert_eq!(row.has_rim_guard, None, "a list without the column is silent on it");
    }
}

/// Cells of flags, and what they say of a rim guard.
const GUARDS: [(&str, Option<bool>); 8] = [
    ("yes", Some(true)),
    ("Y", Some(true)),
    ("x", Some(true)),
    ("1", Some(true)),
    ("no", Some(false)),
    ("n", Some(false)),
    ("0", Some(false)),
    ("", None),
];

#[test]
fn an_empty_cell_says_nothing_of_a_rim_guard() {
    for (cell, says) in GUARDS {
        let table = table(&format!("size;service;kind;rim guard;price\n225/45R17;94W;uhp;{cell};89.90\n"));
        let mapping = Mapping::guessed(&table.header, Kind::Tires);
        let (habits, _) = Habits::of(&table, &mapping, Kind::Tires, &answered(&[]));
        let row = exchange::tires::tire(&habits.record(&table.rows[0], &mapping), 1).unwrap();
        assert_eq!(row.has_rim_guard, says, "{cell:?}");
    }
}
