//! Every notation the trade writes, as it is read and as it is printed. Which notations there are is common
//! practice; the canonical forms are this project's own choice.
use fitment::setup::line;
use fitment::{BoltCircle, Setup, Tire, Wheel};

#[track_caller]
fn reads<T>(written: &str, canonical: &str)
where
    T: std::str::FromStr<Err = fitment::notation::NotationError>
        + std::fmt::Display
        + PartialEq
        + std::fmt::Debug,
{
    let value: T = written.parse().unwrap_or_else(|error| panic!("{written:?} was refused: {error}"));
    assert_eq!(value.to_string(), canonical, "{written:?}");
    assert_eq!(canonical.parse::<T>().as_ref(), Ok(&value), "{canonical:?} must read as itself");
}

#[test]
fn tires_are_read_in_every_notation() {
    for (written, canonical) in [
        ("225/45R17 94W XL", "225/45R17 94W XL"),
        ("225/45r17 94w xl", "225/45R17 94W XL"),
        (" 225 / 45 R 17 ", "225/45R17"),
        ("225/45R17XL", "225/45R17 XL"),
        ("P225/45ZR17 (94Y)", "P225/45ZR17 (94Y)"),
        ("LT265/70R17 121/118S", "LT265/70R17 121/118S"),
        ("LT265/70R17 121/118S E", "LT265/70R17 121/118S LR E"),
        ("265/70R17LT", "LT265/70R17"),
        ("HL245/40R21 103Y", "HL245/40R21 103Y"),
        ("195/70R15C 104/102R", "195/70R15C 104/102R"),
        ("33x12.50R15LT", "33x12.50R15LT"),
        ("33×12,50 R15LT C", "33x12.50R15LT LR C"),
        ("31x10.50-15", "31x10.50-15"),
        ("28x6.0-17", "28x6.0-17"),
        ("28.0x6-17", "28x6.0-17"),
        ("26.0x10.0-15", "26.0x10.0-15"),
        ("26.0x10.50-15LT", "26.0x10.50-15LT"),
        ("26.0/10.0-15", "26.0/10.0-15"),
        ("245/640R18", "245/640R18"),
        ("250/640-18", "250/640-18"),
        ("265 35 18", "265/35R18"),
        ("265-35-18", "265/35R18"),
        ("265/35/18", "265/35R18"),
        ("265/35-18", "265/35R18"),
        ("265 35 R18", "265/35R18"),
        ("2653518", "265/35R18"),
        ("245/40ZRF18", "245/40ZR18 RFT"),
        ("245/40 RF18 97W", "245/40R18 97W RFT"),
        ("245/40R18 run flat M+S", "245/40R18 RFT M+S"),
        ("255/35R19 reinforced", "255/35R19 XL"),
        ("205/55 R16 91H", "205/55R16 91H"),
        ("205/55/16", "205/55R16"),
        ("205/55-16", "205/55R16"),
        ("205/60-15", "205/60-15"),
        ("205-55-16", "205/55R16"),
        ("205 55 16", "205/55R16"),
        ("2055516", "205/55R16"),
        ("205/55R16 SL", "205/55R16 SL"),
        ("205/55R16 standard load", "205/55R16 SL"),
        ("205/55R16 extra load", "205/55R16 XL"),
        ("205/55R16 run-flat", "205/55R16 RFT"),
        ("205/55ZR16", "205/55ZR16"),
        ("205/55ZR16 91W", "205/55ZR16 91W"),
        ("205/55R16 m&s", "205/55R16 M+S"),
        ("p235/75r15", "P235/75R15"),
        ("P 235/75 R 15", "P235/75R15"),
        ("lt235/85r16 120/116q", "LT235/85R16 120/116Q"),
        ("LT285/75R16 LRD", "LT285/75R16 LR D"),
        ("hl275/35zr22 (104y)", "HL275/35ZR22 (104Y)"),
        ("225/70R15C", "225/70R15C"),
        ("245/70R19.5", "245/70R19.5"),
        ("35x12.50R20LT E", "35x12.50R20LT LR E"),
        ("35X12.5R20LT", "35x12.50R20LT"),
        ("37x13.5-17LT", "37x13.50-17LT"),
        ("32x11.5R15", "32x11.50R15"),
        ("28.5x9-15", "28.5x9.0-15"),
        ("24.5/8.0-13", "24.5/8.0-13"),
        ("29.5/10.5R15", "29.5/10.5R15"),
        ("300/680R18", "300/680R18"),
        ("225/45R17 (94W)", "225/45R17 94W"),
        ("190/580-15", "190/580-15"),
        ("180/550 R13", "180/550R13"),
        ("245/75R16 load range e", "245/75R16 LR E"),
    ] {
        reads::<Tire>(written, canonical);
    }
}

#[test]
fn wheels_are_read_in_every_notation() {
    for (written, canonical) in [
        ("18x8.5 ET45", "18x8.5 ET45"),
        ("8.5x18 +45", "18x8.5 ET45"),
        ("8½Jx18H2 IS45", "18x8.5 ET45"),
        ("8 1/2 J x 18 EH2+ ET45", "18x8.5 ET45"),
        ("18 × 8.5J ET 45 5x114.3 CB67.1", "18x8.5 ET45 5x114.3 CB67.1"),
        ("18x8,5 ET45", "18x8.5 ET45"),
        ("18x8.5ET45", "18x8.5 ET45"),
        ("18x8.5+45", "18x8.5 ET45"),
        ("20x9 -12", "20x9 ET-12"),
        ("20x9-12", "20x9 ET-12"),
        ("20x9 ET−12", "20x9 ET-12"),
        ("17x8 4.5\"bs", "17x8 ET0"),
        ("17x8 4.5 in bs", "17x8 ET0"),
        ("17x8 backspacing 4.5", "17x8 ET0"),
        ("17x8 114.3 mm bs", "17x8 ET0"),
        ("18 by 9 and a half plus 38", "18x9.5 ET38"),
        ("18\" x 8.5\" offset 35 mm", "18x8.5 ET35"),
        ("18x8.5 5/112 ø66.6", "18x8.5 5x112 CB66.6"),
        ("15x6 6x5.5in ET0", "15x6 ET0 6x139.7"),
        ("15x7 5x4.5 ET35.25", "15x7 ET35.25 5x114.3"),
        ("center bore 56.1 15x6.75", "15x6.75 CB56.1"),
        ("centre bore: 56.1 mm 15x6", "15x6 CB56.1"),
        ("18X8.5 ET+35", "18x8.5 ET35"),
        ("18x8.5 ET = 35", "18x8.5 ET35"),
        ("18x8.5 offset: -5mm", "18x8.5 ET-5"),
        ("18x8.5 +35 offset 5x114.3", "18x8.5 ET35 5x114.3"),
        ("35mm offset 18x8.5 5/112", "18x8.5 ET35 5x112"),
        ("20\" x 10.5\" -12mm offset 6x139.7", "20x10.5 ET-12 6x139.7"),
        ("18インチ 8.5J +38 5穴 114.3", "18x8.5 ET38 5x114.3"),
        ("18x8.5 inset 35", "18x8.5 ET35"),
        ("18x8.5 minus 5", "18x8.5 ET-5"),
        ("8.5Jx18 H2 ET35", "18x8.5 ET35"),
        ("8.5JJ x 18 ET35", "18x8.5 ET35"),
        ("18 x 8 3/4 ET35", "18x8.75 ET35"),
        ("16 by 7 and a quarter", "16x7.25"),
        ("17.5x6.75", "17.5x6.75"),
        ("10x5 ET0", "10x5 ET0"),
        ("15x15 ET-76", "15x15 ET-76"),
        ("16x8 5.0\" bs", "16x8 ET12.7"),
        ("18x8.5 ET35 4x100 cb 54,1", "18x8.5 ET35 4x100 CB54.1"),
        ("18x8.5 5-120 hub 72.6", "18x8.5 5x120 CB72.6"),
        ("17x8.5 8x6.5 in", "17x8.5 8x165.1"),
    ] {
        reads::<Wheel>(written, canonical);
    }
    reads::<BoltCircle>("5 on 4.75 in", "5x120.65");
    reads::<BoltCircle>("PCD 5-100", "5x100");
}

#[test]
fn setups_are_read_as_they_are_spoken_and_pasted() {
    for (written, canonical) in [
        ("18x8.5 ET35 · 245/40R18 · 5 mm spacer", "18x8.5 ET35 · 245/40R18 · 5 mm spacer"),
        ("245/40R18|8.5x18 ET35|spacer 5", "18x8.5 ET35 · 245/40R18 · 5 mm spacer"),
        ("18x8.5,ET35,245/40R18", "18x8.5 ET35 · 245/40R18"),
        ("7.5x17 ET45 225/45R17", "17x7.5 ET45 · 225/45R17"),
        ("8.5x18 ET35 245/40R18 5mm spacer", "18x8.5 ET35 · 245/40R18 · 5 mm spacer"),
        ("18x8.5 ET35 245/40R18 +5mm spacers", "18x8.5 ET35 · 245/40R18 · 5 mm spacer"),
        ("18x8.5 ET35 1/4\" spacer", "18x8.5 ET35 · 6.35 mm spacer"),
        ("245/40R18 97Y XL DOT AB12 CDE3 2325", "245/40R18 97Y XL · DOT 2325"),
        ("18x8.5 ET35 (245/40R18)", "18x8.5 ET35 · 245/40R18"),
        ("wheels: 18x8.5 ET35; tires: 245/40R18 (97Y)", "18x8.5 ET35 · 245/40R18 (97Y)"),
    ] {
        reads::<Setup>(written, canonical);
    }
}

#[test]
fn a_wrong_size_names_the_place_and_the_reason() {
    for (written, message) in [
        ("225/145R17", "\"225/145R17\": aspect ratio 145 is outside 20–95"),
        (
            "225/450R17",
            "\"225/450R17\": aspect ratio 450 is outside 20–95, and as an overall diameter of 450 mm it leaves no sidewall on a 17 in rim",
        ),
        ("1225/45R17", "\"1225/45R17\": section width 1225 is outside 100–455"),
        ("225/45R99", "\"225/45R99\": rim diameter 99 is outside 10–30"),
        ("225/45", "\"225/45\": the rim diameter is missing"),
        ("225/R17", "\"225/R17\": the aspect ratio is missing"),
        ("225/45R17 145W", "\"145W\": load index 145 is outside 60–135"),
        ("225/45R17 94Z", "\"94Z\": speed symbol Z is not one of F G J K L M N P Q R S T U H V W Y (Y)"),
        (
            "LT265/70R17 118/121S",
            "\"118/121S\": the index for twins, 121, is above the one for a single tire, 118",
        ),
        ("ST205/75R15", "\"ST205/75R15\": a trailer tire: not for a car"),
        ("18x2.5 ET35", "\"18x2.5\": rim width 2.5 is outside 3–16"),
        ("31x8.5 ET35", "\"31x8.5\": rim diameter 31 is outside 10–30"),
        ("18x8.5 ET350", "\"ET350\": offset 350 is outside -150–150"),
        ("17x8 15 bs", "\"15 bs\": backspacing 15 needs a unit: mm or in"),
        ("17x8 ET20 4.5\"bs", "\"4.5\"bs\": the backspacing gives ET0, the offset says ET20"),
        ("ET35 245/40R18", "\"ET35\": an offset needs a wheel size"),
        ("18x8.5 ET35 97Y", "\"97Y\": a load index needs a tire size"),
        ("18x8.5 ET35 18x9.5", "\"18x9.5\": a second wheel size: name the axles with F: and R:"),
        (
            "17x8 ET35 245/40R18",
            "\"245/40R18\": the tire is for 18 in rims and the wheel is 17 in: it cannot be mounted",
        ),
        ("18x8.5 ET35 banana", "\"banana\": is not a piece of a setup"),
        ("18x8.5 ET35 45", "\"45\": what is this figure of?"),
        ("18x8.5 ET35 DOT 5425 245/40R18", "\"DOT 5425\": week 54 is outside 1–53"),
        ("18x8.5 CB12", "\"CB12\": center bore 12 is outside 40–200"),
        ("22x10-15", "\"22x10-15\": a wheel with its offset, or a tire?"),
        ("F: 18x8.5 ET35", "\"F:\": names an axle, and this line is for one axle only"),
        ("", "nothing is written here"),
    ] {
        let error = written.parse::<Setup>().expect_err(written);
        assert_eq!(error.to_string(), message, "{written:?}");
        assert!(!error.reason.example().is_empty());
        assert_eq!(written[error.span.clone()].trim(), error.piece, "the span must lie on the piece");
    }
    let too_long = "x".repeat(2_001);
    assert!(too_long.parse::<Setup>().is_err());
}

#[test]
fn the_example_beside_a_fault_can_be_read_itself() {
    for wrong in ["225/145R17", "18x18", "18x8.5 ET350", "17x8 15 bs", "225/45R17 94Z", "18x8.5 9/9/9"] {
        let example = wrong.parse::<Setup>().expect_err(wrong).reason.example();
        for variant in example.split(" or ") {
            for piece in variant.split(", ") {
                let reading = line::read(piece).unwrap();
                let unreadable = reading.segments.iter().any(|segment| {
                    matches!(&segment.outcome, Err(reason) if !matches!(reason, fitment::notation::Reason::Needs { .. }))
                });
                assert!(!unreadable, "{wrong}: {piece}");
            }
        }
    }
}

#[test]
fn a_staggered_car_is_one_line_with_axles_or_two_lines() {
    let staggered = "F: 18x8.5 ET35 · 245/40R18  R: 18x9.5 ET40 · 265/35R18";
    for written in [
        "F: 18x8.5 ET35 245/40R18 R: 18x9.5 ET40 265/35R18",
        "front 18x8.5 ET35 245/40R18, rear 18x9.5 ET40 265/35R18",
        "18x8.5 ET35 245/40R18\n18x9.5 ET40 265/35R18",
        "Hi there, thinking of front: 18x8.5 +35 with 245/40R18 and rear: 18x9.5 +40 with 265/35R18, thanks!",
    ] {
        let pair = line::read(written).unwrap().setups.unwrap_or_else(|| panic!("{written}"));
        assert_eq!(pair.to_string(), staggered, "{written}");
    }
    let shared = line::read("5x112 CB66.6 F: 18x8.5 ET35 R: 18x9.5 ET40").unwrap().setups.unwrap();
    assert_eq!(shared.to_string(), "F: 18x8.5 ET35 5x112 CB66.6  R: 18x9.5 ET40 5x112 CB66.6");
    let square = line::read("18x8.5 ET35\n245/40R18").unwrap();
    assert_eq!(square.setups.unwrap().to_string(), "18x8.5 ET35 · 245/40R18", "a wheel line and a tire line");
    assert!(!square.names_axles);
}

#[test]
fn the_stretches_of_a_line_are_the_line() {
    for text in
        ["F: 18x8½ ET35 · 245/40R18 · 5 mm spacer — söme wörds 9/9/9", "½½½", "(((+-)))", "\u{1F697} 18x8.5"]
    {
        let reading = line::read(text).unwrap();
        let joined: String = reading.segments.iter().map(|segment| &text[segment.span.clone()]).collect();
        assert_eq!(joined, text);
    }
}

#[test]
fn bolt_circles_are_read_alone() {
    for (written, canonical) in [
        ("5x114.3", "5x114.3"),
        ("5 x 114,3", "5x114.3"),
        ("5/112", "5x112"),
        ("4-100 mm", "4x100"),
        ("6x5.5", "6x139.7"),
        ("lk 5x120", "5x120"),
        ("bolt pattern: 5 on 5 in", "5x127"),
    ] {
        reads::<BoltCircle>(written, canonical);
    }
    for (written, message) in [
        ("pcd 12x112", "\"pcd 12x112\": fastener count 12 is outside 3–10"),
        ("pcd 5x60", "\"pcd 5x60\": bolt circle 60 mm is outside 80–250"),
        ("18x8.5", "\"18x8.5\": does not belong in a bolt circle"),
        ("5x112 5x120", "\"5x112 5x120\": does not belong in a bolt circle"),
        ("", "nothing is written here"),
    ] {
        assert_eq!(written.parse::<BoltCircle>().expect_err(written).to_string(), message);
    }
}

#[test]
fn date_codes_are_read_alone_and_as_they_are_marked() {
    // 49 CFR 574.5: week, then the last two figures of the year.
    for (written, week, year) in [("2325", 23, 2025), ("DOT 0100", 1, 2000), ("dot 9xyz 4ab 5319", 53, 2019)]
    {
        let code: fitment::values::date_code::DateCode = written.parse().expect(written);
        assert_eq!((code.week(), code.year()), (week, year), "{written}");
        reads::<fitment::values::date_code::DateCode>(written, &code.to_string());
    }
    for (written, message) in [
        ("0025", "\"DOT 0025\": week 00 is outside 1–53"),
        ("DOT 235", "\"DOT 235\": was made before 2000: codes have four figures since; not for use"),
        ("245/40R18", "\"245/40R18\": does not belong in a date code"),
    ] {
        let error = written.parse::<fitment::values::date_code::DateCode>().expect_err(written);
        assert_eq!(error.to_string(), message);
    }
}
