//! Profiles through every format and back, drawings made elsewhere, hostile files, and the card template on paper.
use std::process::Command;

use exchange::profile::{CHECK_BAR_MM, Out, SheetError, Unit, card_template, read, write};
use proptest::prelude::*;

fn near(a: &[(f64, f64)], b: &[(f64, f64)], off: f64) -> bool {
    a.len() == b.len() && a.iter().zip(b).all(|(a, b)| (a.0 - b.0).abs() <= off && (a.1 - b.1).abs() <= off)
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(96))]

    #[test]
    fn what_goes_out_comes_back(points in prop::collection::vec((-120.0..120.0_f64, 1.0..300.0_f64), 2..60)) {
        for format in [Out::Dxf, Out::Svg, Out::Csv] {
            let bytes = write(&[("caliper", &points)], format).unwrap();
            let sheet = read(&bytes).unwrap();
            prop_assert_eq!(sheet.unit, Some(Unit::Millimetres), "{:?}", format);
            let back = sheet.profile("caliper", None).unwrap();
            prop_assert!(near(&back, &points, 1e-6), "{:?}: {:?}", format, back);
        }
    }

    #[test]
    fn no_bytes_break_it(bytes in prop::collection::vec(any::<u8>(), 0..400)) {
        let _ = read(&bytes);
    }

    #[test]
    fn no_damage_to_a_drawing_breaks_it(at in 0..2000_usize, by in any::<u8>()) {
        for format in [Out::Dxf, Out::Svg, Out::Csv] {
            let mut bytes = write(&[("caliper", &[(0.0, 100.0), (20.0, 180.0)])], format).unwrap();
            let at = at % bytes.len();
            bytes[at] = by;
            if let Ok(sheet) = read(&bytes) {
                let _ = sheet.profile("caliper", Some(Unit::Millimetres));
            }
        }
    }
}

/// A small DXF as drawing programs write it: two lines and an arc on one layer, something else on another.
fn drawn(units: &str) -> String {
    let header = if units.is_empty() {
        String::new()
    } else {
        format!("0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n{units}\n0\nENDSEC\n")
    };
    format!(
        "{header}0\nSECTION\n2\nENTITIES\n\
         0\nLINE\n8\nbrake\n10\n-50.0\n20\n120.0\n11\n-50.0\n21\n170.0\n\
         0\nARC\n8\nbrake\n10\n-40.0\n20\n170.0\n40\n10.0\n50\n90.0\n51\n180.0\n\
         0\nLINE\n8\nbrake\n10\n12.0\n20\n180.0\n11\n-40.0\n21\n180.0\n\
         0\nTEXT\n8\nnotes\n10\n0.0\n20\n0.0\n40\n5.0\n1\nleft side\n\
         0\nLINE\n8\nframe\n10\n0.0\n20\n0.0\n11\n300.0\n21\n0.0\n\
         0\nENDSEC\n0\nEOF\n"
    )
}

#[test]
fn a_drawing_of_lines_and_an_arc_is_one_profile() {
    let sheet = read(drawn("4").as_bytes()).unwrap();
    let names: Vec<&str> = sheet.layers.iter().map(|layer| layer.name.as_str()).collect();
    assert_eq!((names, sheet.unit), (vec!["brake", "frame"], Some(Unit::Millimetres)));
    assert_eq!(sheet.notes, ["1 × TEXT left aside"]);
    let points = sheet.profile("brake", None).unwrap();
    assert_eq!((points[0], points[points.len() - 1]), ((-50.0, 120.0), (12.0, 180.0)));
    // Every point of the arc lies on it; its chords are within 0.05 mm of it.
    let arc: Vec<&(f64, f64)> = points.iter().filter(|(y, r)| *y < -40.0 && *r > 170.0).collect();
    assert!(arc.len() > 3 && arc.iter().all(|(y, r)| ((y + 40.0).hypot(r - 170.0) - 10.0).abs() < 1e-6));
    assert!(matches!(sheet.profile("hub", None), Err(SheetError::NoSuchLayer(_))));
}

#[test]
fn a_file_that_does_not_say_its_unit_is_asked_about() {
    let sheet = read(drawn("").as_bytes()).unwrap();
    assert_eq!(sheet.profile("brake", None), Err(SheetError::UnitNeeded));
    let inches = sheet.profile("brake", Some(Unit::Inches)).unwrap();
    assert!((inches[0].1 - 120.0 * 25.4).abs() < 1e-6);
    // In inches by the file itself, whatever is said.
    let own = read(drawn("1").as_bytes()).unwrap();
    assert!((own.profile("brake", Some(Unit::Millimetres)).unwrap()[0].0 + 50.0 * 25.4).abs() < 1e-6);
    for (csv, unit) in [("y_mm,r_mm\n0,100\n5,120\n", Some(Unit::Millimetres)), ("0;100,5\n5;120\n", None)] {
        let sheet = read(csv.as_bytes()).unwrap();
        assert_eq!(sheet.unit, unit, "{csv}");
        let points = sheet.profile("profile", Some(Unit::Millimetres)).unwrap();
        assert_eq!(points.len(), 2, "{csv}");
    }
}

#[test]
fn open_and_wrong_contours_are_explained() {
    let gap =
        drawn("4").replace("10\n12.0\n20\n180.0", "10\n12.0\n20\n181.0").replace("21\n180.0", "21\n181.0");
    let why = read(gap.as_bytes()).unwrap().profile("brake", None).unwrap_err().to_string();
    assert!(why.contains("do not meet") && why.contains("1.00 mm apart"), "{why}");
    for (bytes, why) in [
        (&b""[..], "no DXF, SVG or CSV"),
        (b"\x00\x01\x02", "no DXF, SVG or CSV"),
        (b"<html></html>", "no DXF, SVG or CSV"),
        (b"<svg", "SVG cannot be read"),
        (
            b"<svg xmlns=\"http://www.w3.org/2000/svg\"><path d=\"M 0 0 L banana\"/></svg>",
            "SVG cannot be read",
        ),
        (b"y,r\n1,2\nx,y\n", "row 3"),
        (b"<svg xmlns=\"http://www.w3.org/2000/svg\"/>", "nothing is drawn"),
    ] {
        let found = read(bytes).unwrap_err().to_string();
        assert!(found.contains(why), "{:?}: {found}", String::from_utf8_lossy(bytes));
    }
    assert_eq!(read(&vec![b'1'; 9 * 1024 * 1024]), Err(SheetError::TooLarge));
    // An entity that would make millions of others is no bomb here: nothing is fetched or expanded.
    let bomb = "<?xml version=\"1.0\"?><!DOCTYPE svg [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY b \"&a;&a;&a;&a;&a;&a;\">]><svg>&b;</svg>";
    assert!(read(bomb.as_bytes()).is_err());
}

#[test]
fn an_svg_in_inches_with_a_curve_is_flattened_to_its_tolerance() {
    // A quarter of a circle of 100 mm by its usual cubic, drawn in inches, y down.
    let k = 0.552_284_75;
    let svg = format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"10in\" height=\"10in\" viewBox=\"0 -254 254 254\">\
         <g id=\"caliper\"><path d=\"M100,0 C100,-{0} {0},-100 0,-100\"/></g></svg>",
        100.0 * k
    );
    let sheet = read(svg.as_bytes()).unwrap();
    let points = sheet.profile("caliper", None).unwrap();
    for (y, r) in &points {
        assert!((y.hypot(*r) - 100.0).abs() < 0.03, "{y} {r}: the cubic itself is off by 0.027 %");
    }
    for two in points.windows(2) {
        let middle = (f64::midpoint(two[0].0, two[1].0), f64::midpoint(two[0].1, two[1].1));
        assert!(100.0 - middle.0.hypot(middle.1) < 0.05 + 0.03);
    }
}

/// A DXF of one entity on one layer, in millimetres.
fn one_entity(entity: &str) -> Vec<u8> {
    format!("0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n{entity}0\nENDSEC\n0\nEOF\n").into_bytes()
}

#[test]
fn splines_and_bulges_of_a_dxf_are_flattened_to_their_curve() {
    // A quarter of a circle of radius 100 as a rational quadratic: weights 1, 1/√2, 1 (any textbook on NURBS).
    let root = std::f64::consts::FRAC_1_SQRT_2;
    let spline = format!(
        "0\nSPLINE\n8\nbrake\n70\n4\n71\n2\n72\n6\n73\n3\n74\n0\n\
         40\n0.0\n40\n0.0\n40\n0.0\n40\n1.0\n40\n1.0\n40\n1.0\n41\n1.0\n41\n{root}\n41\n1.0\n\
         10\n100.0\n20\n0.0\n30\n0.0\n10\n100.0\n20\n100.0\n30\n0.0\n10\n0.0\n20\n100.0\n30\n0.0\n"
    );
    // A polyline of one piece with a bulge of tan(90° / 4): a quarter of a circle, turning left.
    let bulge = (std::f64::consts::FRAC_PI_2 / 4.0).tan();
    let polyline = format!(
        "0\nLWPOLYLINE\n8\nbrake\n90\n2\n70\n0\n10\n100.0\n20\n0.0\n42\n{bulge}\n10\n0.0\n20\n100.0\n42\n0.0\n"
    );
    for (what, entity) in [("spline", spline), ("bulge", polyline)] {
        let points = read(&one_entity(&entity)).unwrap().profile("brake", None).unwrap();
        assert!(points.len() > 12, "{what}: {}", points.len());
        for (y, r) in &points {
            assert!((y.hypot(*r) - 100.0).abs() < 1e-6, "{what}: {y} {r} is off the circle");
        }
        for two in points.windows(2) {
            let middle = (f64::midpoint(two[0].0, two[1].0), f64::midpoint(two[0].1, two[1].1));
            assert!(
                100.0 - middle.0.hypot(middle.1) <= 0.05 + 1e-9,
                "{what}: a chord is further off than it may be"
            );
        }
    }
}

#[test]
fn an_svgs_layers_are_its_groups_and_what_is_hidden_in_definitions_is_not_drawn() {
    let svg = "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"300mm\" height=\"300mm\" viewBox=\"0 -300 300 300\">
        <defs><path id=\"stamp\" d=\"M0 0 L1 -1\"/></defs>
        <g id=\"barrel\"><polyline points=\"0,-200 50,-205 90,-210\"/></g>
        <g id=\"spokes\" transform=\"scale(2)\"><line x1=\"20\" y1=\"-80\" x2=\"24\" y2=\"-190\"/></g>
        <polygon id=\"stop\" points=\"0,-10 10,-10 10,-20\"/></svg>";
    let sheet = read(svg.as_bytes()).unwrap();
    let names: Vec<&str> = sheet.layers.iter().map(|layer| layer.name.as_str()).collect();
    assert_eq!(names, ["barrel", "spokes", "stop"]);
    assert_eq!(sheet.profile("barrel", None).unwrap(), [(0.0, 200.0), (50.0, 205.0), (90.0, 210.0)]);
    let stop = sheet.profile("stop", None).unwrap();
    assert_eq!(stop.first(), stop.last(), "a closed line ends where it began");
    assert!(sheet.notes.iter().any(|note| note.contains("transform")), "{:?}", sheet.notes);
}

/// The darkest pixels of a rendered page, as rows of runs: (row, from, to).
fn longest_run(pgm: &[u8]) -> (usize, usize, f64) {
    let mut words = pgm.splitn(4, |byte| byte.is_ascii_whitespace());
    assert_eq!(words.next(), Some(&b"P5"[..]));
    let number = |text: &[u8]| std::str::from_utf8(text).unwrap().parse::<usize>().unwrap();
    let (width, height) = (number(words.next().unwrap()), number(words.next().unwrap()));
    let rest = words.next().unwrap();
    let pixels = &rest[rest.iter().position(|byte| *byte == b'\n').unwrap() + 1..];
    let mut best = (0, 0, 0);
    // The bar stands in the page's last tenth.
    for row in height * 9 / 10..height {
        let mut from = 0;
        for at in 0..=width {
            let dark = at < width && pixels[row * width + at] < 128;
            if !dark {
                if at - from > best.2 {
                    best = (row, from, at - from);
                }
                from = at + 1;
            }
        }
    }
    (best.0, best.1, best.2 as f64)
}

#[test]
fn the_check_bar_is_a_hundred_millimetres_on_paper() {
    let caliper = [(-55.0, 120.0), (-55.0, 182.0), (14.0, 186.0), (18.0, 130.0)];
    let pdf = card_template("Front caliper", &["Brant RS".to_owned()], &caliper).unwrap();
    let folder = std::env::temp_dir().join(format!("card-template-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    std::fs::write(folder.join("card.pdf"), &pdf).unwrap();
    let rendered = Command::new("pdftoppm")
        .args(["-r", "300", "-gray", "-singlefile", "card.pdf", "card"])
        .current_dir(&folder)
        .status()
        .expect("pdftoppm of Debian's poppler-utils; `cargo verify` installs it");
    assert!(rendered.success());
    let (_, _, pixels) = longest_run(&std::fs::read(folder.join("card.pgm")).unwrap());
    std::fs::remove_dir_all(&folder).unwrap();
    let measured = pixels / 300.0 * 25.4;
    // Within 0.1 mm: a pixel at 300 dpi is 0.085 mm.
    assert!((measured - CHECK_BAR_MM).abs() <= 0.1, "{measured} mm");
    assert!(card_template("", &[], &[(0.0, 10.0), (5000.0, 20.0)]).is_err(), "larger than any sheet");
}
