//! Price lists as suppliers send them: formats, separators, encodings, messy cells, and files that mean harm.
use std::io::Write;

use exchange::record::Record;
use exchange::table::Place;
use exchange::{Field, Format, Kind, Mapping, Table, TableError, tires, wheels};
use proptest::prelude::*;

const LIST: &str = "Article,Design,Size,PCD,CB,Weight,Price,Qty
A1,Cove,18x8.5 ET35,5x112,66.6,\"9,8\",\"1.189,90 €\",4
A2,Cove,19x9.5 ET-12,5x112; 5x120,72.6,11.2,420,20+
";

fn wheels_of(table: &Table) -> Vec<Result<fitment::setup::catalogue::WheelRow, String>> {
    let mapping = Mapping::guessed(&table.header, Kind::Wheels);
    Record::all(table, &mapping)
        .iter()
        .enumerate()
        .map(|(at, record)| {
            wheels::wheel(record, at as u32 + 1)
                .map_err(|errors| errors.iter().map(ToString::to_string).collect::<Vec<_>>().join("; "))
        })
        .collect()
}

#[test]
fn a_list_is_recognised_by_its_headings() {
    let table = Table::read(LIST.as_bytes()).unwrap();
    let rows = wheels_of(&table);
    let first = rows[0].as_ref().unwrap();
    assert_eq!(first.wheel.to_string(), "18x8.5 ET35 5x112 CB66.6");
    assert_eq!((first.mass_kg, first.price, first.stock), (Some(9.8), Some(118_990), Some(4)));
    let second = rows[1].as_ref().unwrap();
    assert_eq!(second.circles().map(|circle| circle.to_string()).collect::<Vec<_>>(), ["5x112", "5x120"]);
    assert_eq!((second.wheel.offset.unwrap().as_mm(), second.stock), (-12.0, Some(20)));
}

#[test]
fn separators_and_encodings_are_found_out() {
    let wanted = Table::read(LIST.as_bytes()).unwrap();
    let swap = |to: &str| {
        // Rebuilt cell by cell: the list has commas inside of quotes.
        let mut writer = csv::WriterBuilder::new().delimiter(to.as_bytes()[0]).from_writer(Vec::new());
        writer.write_record(&wanted.header).unwrap();
        for row in &wanted.rows {
            writer.write_record(row).unwrap();
        }
        writer.into_inner().unwrap()
    };
    for separator in [",", ";", "\t", "|"] {
        assert_eq!(Table::read(&swap(separator)).unwrap(), wanted, "{separator:?}");
    }
    let with_mark = [b"\xef\xbb\xbf".as_slice(), LIST.as_bytes()].concat();
    assert_eq!(Table::read(&with_mark).unwrap(), wanted, "UTF-8 with its mark");
    let wide: Vec<u8> =
        std::iter::once(0xfeff).chain(LIST.encode_utf16()).flat_map(u16::to_le_bytes).collect();
    assert_eq!(Table::read(&wide).unwrap(), wanted, "UTF-16");
    let old = Table::read(b"line,size\ncoup\xe9,18x8 ET35\n").unwrap();
    assert_eq!(old.rows[0][0], "coupé");
    assert!(old.notes[0].contains("Windows-1252"), "{:?}", old.notes);
}

#[test]
fn a_whole_setup_in_one_messy_cell_is_read() {
    let list = "Description;Net\n\"Wheel Cove silver 18x8.5 ET35 5x112 CB66.6 new\";189,90\n";
    let rows = wheels_of(&Table::read(list.as_bytes()).unwrap());
    assert_eq!(rows[0].as_ref().unwrap().wheel.to_string(), "18x8.5 ET35 5x112 CB66.6");
    assert_eq!(rows[0].as_ref().unwrap().price, Some(18_990));
    let list = "Description;Net\nReed sport tire 225/45R17 94W XL;99\n";
    let table = Table::read(list.as_bytes()).unwrap();
    let records = Record::all(&table, &Mapping::guessed(&table.header, Kind::Tires));
    assert_eq!(tires::tire(&records[0], 1).unwrap().tire.to_string(), "225/45R17 94W XL");
}

#[test]
fn every_field_at_fault_is_named() {
    let list =
        "Design,Size,PCD,Weight,Price,Seat\nCove,18x85,five,heavy,call,glued\nCove,18x8,5x112,9,100,cone\n";
    let rows = wheels_of(&Table::read(list.as_bytes()).unwrap());
    let said = rows[0].as_ref().unwrap_err();
    for words in ["size:", "bolt circles:", "mass, kg: \"heavy\" is no number", "price: \"call\"", "seat:"] {
        assert!(said.contains(words), "{words} in {said}");
    }
    assert!(rows[1].as_ref().unwrap_err().contains("without it nothing can be placed"));
}

#[test]
fn rows_survive_every_format() {
    let table = Table::read(LIST.as_bytes()).unwrap();
    let rows: Vec<_> = wheels_of(&table).into_iter().map(Result::unwrap).collect();
    let records: Vec<Record> = rows.iter().map(wheels::record).collect();
    for format in [Format::Csv, Format::Xlsx, Format::Json] {
        let bytes = Record::table(&records).write(format).unwrap();
        let back: Vec<_> = wheels_of(&Table::read(&bytes).unwrap()).into_iter().map(Result::unwrap).collect();
        assert_eq!(back, rows, "{format:?}");
    }
    let list = "line,size,service,kind,tread_mm,rim_min_in,rim_max_in,directional,rim protection,price\n\
                Reed,245/40R18,97Y XL,UHP,218,8,9.5,yes,no,149.5\n";
    let table = Table::read(list.as_bytes()).unwrap();
    let record = &Record::all(&table, &Mapping::guessed(&table.header, Kind::Tires))[0];
    let row = tires::tire(record, 1).unwrap();
    assert_eq!(row.tire.to_string(), "245/40R18 97Y XL");
    assert_eq!(row.has_rim_guard, Some(false), "said to have none, which is not the same as silence");
    for format in [Format::Csv, Format::Xlsx, Format::Json] {
        let table = Table::read(&Record::table(&[tires::record(&row)]).write(format).unwrap()).unwrap();
        let record = &Record::all(&table, &Mapping::guessed(&table.header, Kind::Tires))[0];
        assert_eq!(tires::tire(record, 1).unwrap(), row, "{format:?}");
    }
}

#[test]
fn a_suppliers_mapping_fits_its_next_list_wherever_the_columns_stand() {
    let first = Table::read(b"Nr;Felge;Preis\n1;18x8 ET35;100\n").unwrap();
    let mapping = Mapping([(Field::Size, 1), (Field::Price, 2)].into());
    let names = mapping.names(&first.header);
    let next = Table::read(b"Preis;Neu;Felge\n90;x;18x8 ET40\n").unwrap();
    let found = Mapping::by_names(&names, &next.header);
    assert_eq!(found, Mapping([(Field::Size, 2), (Field::Price, 0)].into()));
}

/// A small zip with one file, stored; enough for what a broken workbook may look like.
fn zip_of(name: &str, content: &[u8]) -> Vec<u8> {
    let mut bytes = Vec::new();
    bytes.write_all(b"PK\x03\x04\x14\0\0\0\0\0\0\0\0\0\0\0\0\0").unwrap();
    bytes.write_all(&(content.len() as u32).to_le_bytes()).unwrap();
    bytes.write_all(&(content.len() as u32).to_le_bytes()).unwrap();
    bytes.write_all(&(name.len() as u16).to_le_bytes()).unwrap();
    bytes.write_all(&[0, 0]).unwrap();
    bytes.write_all(name.as_bytes()).unwrap();
    bytes.write_all(content).unwrap();
    bytes
}

#[test]
fn files_that_are_no_list_are_refused_with_the_reason() {
    assert_eq!(Table::read(b""), Err(TableError::Empty));
    assert_eq!(Table::read(b"  \n\n"), Err(TableError::Empty));
    assert_eq!(Table::read(b"\x7fELF\0\0\0"), Err(TableError::Binary));
    assert!(matches!(Table::read(b"{\"a\": 1}"), Err(TableError::JsonShape(_))));
    assert!(matches!(Table::read(b"[1, 2]"), Err(TableError::JsonShape(_))));
    assert!(matches!(Table::read(b"[{\"a\": "), Err(TableError::Json(_))));
    for broken in [b"PK\x03\x04 and then nothing".to_vec(), zip_of("a.txt", b"hello")] {
        assert!(matches!(Table::read(&broken), Err(TableError::Workbook(_))), "a broken zip");
    }
    let long = format!("line,size\ncove,{}\n", "9".repeat(10 * 1024 * 1024));
    let refused = Table::read(long.as_bytes());
    assert!(matches!(refused, Err(TableError::CellTooLong { row: 2, column: 2, .. })), "{refused:?}");
    assert_eq!(Table::read(&vec![b'a'; 33 * 1024 * 1024]), Err(TableError::TooLarge(33 * 1024 * 1024)));
    let many: String = (0..300).map(|at| format!("c{at},")).collect();
    assert_eq!(Table::read(many.as_bytes()), Err(TableError::TooManyColumns(301)));
}

#[test]
fn cells_far_apart_on_a_sheet_are_two_cells() {
    // A heading that begins in the third column, a cell to the left of it, and one at the sheet's last corner.
    let mut book = rust_xlsxwriter::Workbook::new();
    let sheet = book.add_worksheet();
    for (row, column, text) in [
        (0, 2, "line"),
        (0, 3, "size"),
        (1, 0, "note"),
        (1, 2, "Cove"),
        (1, 3, "18x8 ET35"),
        (1_048_575, 16_383, "x"),
    ] {
        sheet.write_string(row, column, text).unwrap();
    }
    let table = Table::read(&book.save_to_buffer().unwrap()).unwrap();
    assert_eq!(table.header, ["", "", "line", "size"]);
    assert_eq!(table.rows, [["note", "", "Cove", "18x8 ET35"]]);
    assert_eq!(wheels_of(&table).len(), 1);
}

#[test]
fn a_cell_that_looks_like_a_formula_stays_text() {
    let table = Table {
        header: vec!["line".into(), "offset_mm".into()],
        rows: vec![
            vec!["=HYPERLINK(\"x\")".into(), "-12".into()],
            vec!["@cmd".into(), "35".into()],
            vec!["'=1".into(), "-x".into()],
            vec!["'+".into(), "''@".into()],
        ],
        ..Table::default()
    };
    let written = String::from_utf8(table.write(Format::Csv).unwrap()).unwrap();
    assert!(written.contains("'=HYPERLINK") && written.contains(",-12"), "{written}");
    for format in [Format::Csv, Format::Xlsx, Format::Json] {
        assert_eq!(Table::read(&table.write(format).unwrap()).unwrap().rows, table.rows, "{format:?}");
    }
}

proptest! {
    #[test]
    fn no_bytes_make_it_panic(bytes in proptest::collection::vec(any::<u8>(), 0..400)) {
        let _ = Table::read(&bytes);
        let zip = [b"PK\x03\x04".as_slice(), &bytes].concat();
        let _ = Table::read(&zip);
    }

    #[test]
    fn any_table_of_words_survives_csv(
        rows in proptest::collection::vec(proptest::collection::vec("[ -~äöü€]{0,12}", 3), 1..8)
    ) {
        // Cells are kept without the blanks round them, rows without empty cells at their end; a row without any word
        // is none.
        let tidy = |row: &Vec<String>| {
            let last = row.iter().rposition(|cell| !cell.trim().is_empty()).map_or(0, |last| last + 1);
            row[..last].iter().map(|cell| cell.trim().to_owned()).collect::<Vec<_>>()
        };
        let rows: Vec<Vec<String>> = rows
            .iter()
            .map(tidy)
            .filter(|row| row.iter().any(|cell| !cell.is_empty()))
            .collect();
        let table = Table { header: vec!["a".into(), "b".into(), "c".into()], rows, ..Table::default() };
        // The heading is said: by itself a row of words such as "cb" and "j" would be found to be one.
        let place = Place { header_row: Some(1), ..Place::default() };
        let back = Table::read_at(&table.write(Format::Csv).unwrap(), place).unwrap();
        prop_assert_eq!(back.rows, table.rows);
    }
}
