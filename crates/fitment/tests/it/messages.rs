//! Setup lines as people send them: out of messages, price lists and mouths. The texts are made up; how people
//! write is common practice.
use fitment::setup::line::{self, SegmentKind};
use fitment::setup::{Arrangement, SetupPair};

fn read(text: &str) -> SetupPair {
    let reading = line::read(text).unwrap();
    match reading.first_fault(text) {
        Some(fault) => panic!("{text:?}: {fault}"),
        None => reading.setups.expect(text),
    }
}

#[test]
fn messages_are_read() {
    for (text, canonical) in [
        ("18x8.5 et35 with 245/40r18", "18x8.5 ET35 · 245/40R18"),
        ("I have 18x8.5 +35 on 245/40R18, thanks", "18x8.5 ET35 · 245/40R18"),
        (
            "WHEELS 18X8.5 ET35 5X112 CB66.6 TIRES 245/40ZR18 (97Y) XL",
            "18x8.5 ET35 5x112 CB66.6 · 245/40ZR18 (97Y) XL",
        ),
        ("18x8.5J ET35; 5/112; 245/40/18", "18x8.5 ET35 5x112 · 245/40R18"),
        ("8.5Jx18 ET 35 LK 5x112", "18x8.5 ET35 5x112"),
        ("18 x 8,5 ET 35,5", "18x8.5 ET35.5"),
        ("18x8½ +35", "18x8.5 ET35"),
        ("18 by 8 and a half plus 35, 245 40 18", "18x8.5 ET35 · 245/40R18"),
        ("17x9 minus 12", "17x9 ET-12"),
        ("2454018 on 18x8.5 et35", "18x8.5 ET35 · 245/40R18"),
        ("set of 18x8.5 ET35 rims and 245/40 R18 97Y tyres", "18x8.5 ET35 · 245/40R18 97Y"),
        ("18x8.5 ET35 | 245/40R18 | 10 mm spacers", "18x8.5 ET35 · 245/40R18 · 10 mm spacer"),
        ("18x8.5 ET35 + 5mm spacer", "18x8.5 ET35 · 5 mm spacer"),
        ("spacer: 3\n18x8.5 ET35", "18x8.5 ET35 · 3 mm spacer"),
        ("used 245/40R18 97Y DOT XX99 ABCD 1521", "245/40R18 97Y · DOT 1521"),
        ("15x8 3.75 bs 31x10.50R15LT C", "15x8 ET-19.05 · 31x10.50R15LT LR C"),
        ("17x4.5 with 28x6.0-17", "17x4.5 · 28x6.0-17"),
        ("18x10 ET20 245/640R18", "18x10 ET20 · 245/640R18"),
        ("18x8.5\u{a0}ET35\u{2009}·\u{a0}245/40R18", "18x8.5 ET35 · 245/40R18"),
        ("“18x8.5” – ET35 – ‘245/40R18’", "18x8.5 ET35 · 245/40R18"),
        ("18x8.5 ET35 18x8.5 ET35", "18x8.5 ET35"),
        ("[18x8.5] (ET35) {245/40R18}", "18x8.5 ET35 · 245/40R18"),
        ("245/40R18 * 18x8.5 * ET35", "18x8.5 ET35 · 245/40R18"),
        ("LT265/70R17 121/118S load range E M+S on 17x8 ET25", "17x8 ET25 · LT265/70R17 121/118S LR E M+S"),
    ] {
        let pair = read(text);
        assert_eq!(pair.to_string(), canonical, "{text:?}");
        assert_eq!(pair.front, pair.rear, "{text:?} names no axle");
    }
}

#[test]
fn staggered_messages_are_read() {
    for (text, front, rear) in [
        ("F:18x8.5 ET35 R:18x9.5 ET40", "18x8.5 ET35", "18x9.5 ET40"),
        ("f = 18x8.5 ET35, r = 18x9.5 ET40", "18x8.5 ET35", "18x9.5 ET40"),
        ("rear 18x9.5 ET40 front 18x8.5 ET35", "18x8.5 ET35", "18x9.5 ET40"),
        ("Front: 225/40R18 92Y XL\nRear: 255/35R18 94Y XL", "225/40R18 92Y XL", "255/35R18 94Y XL"),
        ("225/40R18\n255/35R18", "225/40R18", "255/35R18"),
        (
            "18x8.5 ET35 225/40R18\r\n18x9.5 ET40 255/35R18\r\n",
            "18x8.5 ET35 · 225/40R18",
            "18x9.5 ET40 · 255/35R18",
        ),
        ("both: 5x120 front: 18x8 ET34 rear: 18x9 ET40", "18x8 ET34 5x120", "18x9 ET40 5x120"),
        (
            "18x8.5 ET35 front: 225/40R18 rear: 245/40R18",
            "18x8.5 ET35 · 225/40R18",
            "18x8.5 ET35 · 245/40R18",
        ),
        ("17x4.5 28x6.0-17\n15x10 26.0/10.0-15", "17x4.5 · 28x6.0-17", "15x10 · 26.0/10.0-15"),
        // Clause by clause, where no one order of axle and piece goes through.
        (
            "Front: 18x8 ET40\nRear: 18x9 ET45\nRubber: 225/40R18 front, 245/40R18 rear",
            "18x8 ET40 · 225/40R18",
            "18x9 ET45 · 245/40R18",
        ),
        (
            "rear 19x10 ET45, front 19x9 ET40, 245/35R19 front, 285/30R19 rear",
            "19x9 ET40 · 245/35R19",
            "19x10 ET45 · 285/30R19",
        ),
        ("18x8 front, 18x9 rear, ET40 everywhere", "18x8 ET40", "18x9 ET40"),
        (
            "front 225/40/18 on 8x18, rear 255/35/18 on 9x18, et 38 all round",
            "18x8 ET38 · 225/40R18",
            "18x9 ET38 · 255/35R18",
        ),
        // Pairs, as written.
        ("17x7 & 17x8, ET38 & ET45, 205/50 and 225/45", "17x7 ET38 · 205/50R17", "17x8 ET45 · 225/45R17"),
        ("20x9 / 20x10.5 ET25 ET30 245/35R20 285/30R20", "20x9 ET25 · 245/35R20", "20x10.5 ET30 · 285/30R20"),
        ("18x8 and 18x9 with 225/40 and 255/35, all ET40", "18x8 ET40 · 225/40R18", "18x9 ET40 · 255/35R18"),
    ] {
        let pair = read(text);
        assert_eq!(pair.front.unwrap().to_string(), front, "{text:?}");
        assert_eq!(pair.rear.unwrap().to_string(), rear, "{text:?}");
        assert_eq!(pair.arrangement(), Some(Arrangement::Staggered), "{text:?}");
    }
}

#[test]
fn what_has_lost_its_figure_or_is_for_no_car_is_told() {
    for text in [
        "17x8 backspacing",
        "15x7 bs 215/60R15",
        "205/60R15 91H trailer",
        "20.5x8.0-10 tractor",
        "17x8 - 38",
        "19x9.5 – 22, 265/30R19",
    ] {
        let reading = line::read(text).unwrap();
        assert!(reading.first_fault(text).is_some(), "{text:?} was read as {:?}", reading.setups);
    }
    // What the car tows is not on the car.
    assert_eq!(read("17x8 ET40 225/50R17 and a trailer").to_string(), "17x8 ET40 · 225/50R17");
}

#[test]
fn two_times_or_a_choice_are_two_setups_and_no_axles() {
    for text in [
        "was 16x7 ET40 / now 17x8 ET35",
        "before: 205/55R16 / after: 225/45R17",
        "18x8 ET45 or 18x9 ET40",
        "17x7 & 17x8 or 18x8, ET38 & ET45",
        // The first is the wider one, and nobody says why.
        "18x9 / 18x8, ET40 / ET45",
        "20x10 and 20x9 ET30",
    ] {
        let reading = line::read(text).unwrap();
        assert!(reading.first_fault(text).is_some(), "{text:?} was read as {:?}", reading.setups);
    }
}

#[test]
fn one_axle_may_be_spoken_of_alone() {
    let rear = read("rear: 18x9.5 ET40");
    assert_eq!((rear.front, rear.arrangement()), (None, None));
    assert_eq!(rear.to_string(), "R: 18x9.5 ET40");
    assert_eq!(read("F: 18x8 ET34").to_string(), "F: 18x8 ET34");
    assert_eq!(read("front and rear: 18x8 ET34").arrangement(), Some(Arrangement::Square));
}

#[test]
fn what_is_stated_beside_the_size_makes_no_set_staggered() {
    let pair = read("F: 18x8 ET34 225/40R18 92Y R: 18x8 ET34 225/40R18 92W DOT 1524");
    assert_eq!(pair.arrangement(), Some(Arrangement::Square));
    // Other spacers neither: they stay on their axle when the wheels are rotated.
    assert_eq!(read("F: 18x8 ET34 R: 18x8 ET34 3 mm spacer").arrangement(), Some(Arrangement::Square));
    assert_eq!(read("F: 18x8 ET34 R: 18x8 ET40").arrangement(), Some(Arrangement::Staggered));
}

#[test]
fn words_without_figures_are_left_aside_and_shown() {
    let text = "hello dear shop 18x8.5 ET35 gloss black";
    let reading = line::read(text).unwrap();
    let aside: Vec<&str> = reading
        .segments
        .iter()
        .filter(|segment| segment.outcome == Ok(SegmentKind::LeftAside))
        .map(|segment| &text[segment.span.clone()])
        .collect();
    assert_eq!(aside, ["hello", "dear", "shop", "gloss", "black"]);
}

#[test]
fn a_figure_nobody_can_place_is_a_fault_and_not_a_guess() {
    for (text, piece) in [
        ("18x8.5 ET35 35 245/40R18", "35"),
        ("18x8.5 ET35 450", "450"),
        ("ET35 225/45", "ET35"),
        ("18x8.5x9 ET35", "18x8.5x9"),
        ("18x8.5 ET35..5", "5"),
        ("4x18x8.5", "4x18x8.5"),
        ("18x8.5 9/9/9", "9/9/9"),
        ("18x8.5 5x112x4", "5x112x4"),
    ] {
        let reading = line::read(text).unwrap();
        let fault = reading.first_fault(text).unwrap_or_else(|| panic!("{text:?} was read"));
        assert_eq!(fault.piece, piece, "{text:?}: {fault}");
        assert_eq!(reading.setups, None, "{text:?}");
    }
}

#[test]
fn a_fault_on_one_axle_leaves_the_other_pieces_marked() {
    let text = "F: 18x8.5 ET35 245/40R17 R: 18x9.5 ET40 275/35R18";
    let reading = line::read(text).unwrap();
    let faults = reading.segments.iter().filter(|segment| segment.outcome.is_err()).count();
    assert_eq!(faults, 1);
    assert_eq!(reading.first_fault(text).unwrap().piece, "245/40R17");
    let wheels = reading.segments.iter().filter(|segment| segment.outcome == Ok(SegmentKind::Wheel)).count();
    assert_eq!(wheels, 2, "what was read stays recognised");
}

/// Of the ways of writing that were learned together, other texts than those they were learned from.
#[test]
fn the_same_ways_of_writing_are_read_in_other_texts() {
    for (text, canonical) in [
        // Diameter and width by a slash, a table's semicolons, dashes, the contour behind.
        ("19/9.5 ET22", "19x9.5 ET22"),
        ("17 7.5J ET40", "17x7.5 ET40"),
        ("17;7,5;45;5x108;63,4", "17x7.5 ET45 5x108 CB63.4"),
        ("19-8.5-30-5x120", "19x8.5 ET30 5x120"),
        ("W17x7J-ET48", "17x7 ET48"),
        ("7Jx17H2ET47", "17x7 ET47"),
        ("16x7 108x5 ET42", "16x7 ET42 5x108"),
        ("18x9,ET20,5x120", "18x9 ET20 5x120"),
        ("15x7 4by4.5", "15x7 4x114.3"),
        ("18x8.5 ET45 5x112/5x120 72.6", "18x8.5 ET45 5x112/120 CB72.6"),
        // What a paper is filed under, money, a time, a year, a count of things.
        ("order no. 88-1203: 17x8 ET40", "17x8 ET40"),
        ("16x7 ET40 5x112 57.1 £189", "16x7 ET40 5x112 CB57.1"),
        ("Pos 4: 7.5Jx17 ET47", "17x7.5 ET47"),
        ("17x7 ET48 205/50R17, fitted by 3pm", "17x7 ET48 · 205/50R17"),
        ("205/50R17 89W (2023), 7J ET48", "17x7 ET48 · 205/50R17 89W"),
        ("4 centering rings, 17x7 ET48", "17x7 ET48"),
        ("17x8 +35 8k springs", "17x8 ET35"),
        ("17x7 ET48 205/50R17 ⅜\" spacers", "17x7 ET48 · 205/50R17 · 9.52 mm spacer"),
        ("17x7 ET48 205/50R17 quarter inch spacers", "17x7 ET48 · 205/50R17 · 6.35 mm spacer"),
        // Tires.
        ("2x195/65R15 91H", "195/65R15 91H"),
        ("205/50R17 93W RF", "205/50R17 93W XL"),
        ("205/50R17 93/W", "205/50R17 93W"),
        ("225/40r18XL92Y", "225/40R18 92Y XL"),
        ("205/50R17 LI 93 SI W", "205/50R17 93W"),
        ("205/55R16 91V  B A 69 dB", "205/55R16 91V"),
        ("195\\65R15", "195/65R15"),
        ("37x12.5-17", "37x12.50-17"),
        ("32-11.50-15", "32x11.50-15"),
        ("205/50R17 93W week 9 2024", "205/50R17 93W · DOT 0924"),
    ] {
        let pair = read(text);
        assert_eq!(pair.to_string(), canonical, "{text:?}");
        assert_eq!(pair.front, pair.rear, "{text:?} names no axle");
    }
    for (text, front, rear) in [
        ("přední 205/50R17, zadní 225/45R17", "205/50R17", "225/45R17"),
        ("elöl 8x18 ET45 hátul 9x18 ET40", "18x8 ET45", "18x9 ET40"),
        ("前轮 235/40R19 后轮 265/35R19", "235/40R19", "265/35R19"),
        ("спереди 8x18 ET45, сзади 9x18 ET40", "18x8 ET45", "18x9 ET40"),
        ("ön 8x18 ET45 arka 9x18 ET40", "18x8 ET45", "18x9 ET40"),
        ("for 7x17 ET45, bag 8x17 ET40", "17x7 ET45", "17x8 ET40"),
        ("FR 19x8.5 +30 RR 19x9.5 +38", "19x8.5 ET30", "19x9.5 ET38"),
        ("FL 19x8 +30, FR 19x8 +30, RL 19x9 +38, RR 19x9 +38", "19x8 ET30", "19x9 ET38"),
        ("F245/40R18 R275/35R18", "245/40R18", "275/35R18"),
        ("20x9/10.5 ET 25/35 with 245/35 & 285/30", "20x9 ET25 · 245/35R20", "20x10.5 ET35 · 285/30R20"),
        ("19x8/9 ET 40/45, 225/40-255/35", "19x8 ET40 · 225/40R19", "19x9 ET45 · 255/35R19"),
    ] {
        let pair = read(text);
        assert_eq!(pair.front.unwrap().to_string(), front, "{text:?}");
        assert_eq!(pair.rear.unwrap().to_string(), rear, "{text:?}");
    }
    for text in ["17x7.15 ET40", "17x8 CL 5x108", "17x8 no offset", "215/50R17 V95", "315/80R22.5 156/150L"] {
        let reading = line::read(text).unwrap();
        assert!(reading.first_fault(text).is_some(), "{text:?} was read: {:?}", reading.setups);
    }
}
