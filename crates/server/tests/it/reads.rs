//! What people write, over the API: what is asked and never guessed, what is left aside and shown, what is refused by what it is.
use crate::served::Served;
use serde_json::{Value, json};

async fn read(shop: &Served, text: &str) -> Value {
    let (status, read) = shop.post("/setups/read", json!({ "text": text })).await;
    assert_eq!(status, 200, "{text}: {read}");
    read
}

/// A text, the piece that is asked about, words of the question, and the answers to press.
const ASKED: [(&str, &str, &str, &[&str]); 14] = [
    ("18x8 -8 mm spacer", "-8 mm spacer", "never in", &["8 mm spacer", "0 mm spacer"]),
    (
        "18x8 ET35 225/40R18 15mm spacers total",
        "15mm spacers total",
        "both sides",
        &["7.5 mm spacer", "15 mm spacer"],
    ),
    (
        "18x8 ET35 225/40R18 20 mm spacers per axle",
        "20 mm spacers per axle",
        "both sides",
        &["10 mm spacer", "20 mm spacer"],
    ),
    (
        "18x8 ET35 225/40R18 10 to 15 mm spacers",
        "10 to 15 mm spacers",
        "a range",
        &["10 mm spacer", "15 mm spacer"],
    ),
    (
        "18x8 ET35 225/40R18 spacers",
        "spacers",
        "how thick?",
        &[
            "3 mm spacer",
            "5 mm spacer",
            "8 mm spacer",
            "10 mm spacer",
            "12 mm spacer",
            "15 mm spacer",
            "20 mm spacer",
            "no spacers",
        ],
    ),
    ("8Jx18 H2-35", "-35", "minus", &["ET35", "ET-35"]),
    ("9Jx18 H2-25 5x112", "-25", "minus", &["ET25", "ET-25"]),
    ("18x8 ET35-40", "ET35-40", "a range of offsets", &["ET35", "ET40"]),
    ("19x9.5 ET22-38 5x120", "ET22-38", "a range of offsets", &["ET22", "ET38"]),
    ("1,5", "1,5", "what is this figure of?", &["ET1.5", "1.5 mm spacer"]),
    ("245/35R19 on 8.5", "8.5", "what is this figure of?", &["8.5 wide", "ET8.5", "8.5 mm spacer"]),
    ("245/40R18 60", "60", "what is this figure of?", &["ET60", "CB60", "60 mm spacer"]),
    (
        "18x8 ET35 with 5mm and 10mm spacers",
        "5mm",
        "stacked to 15 mm",
        &["front: 5 mm spacer, rear:", "rear: 5 mm spacer, front:"],
    ),
    ("18x8.5 ET30 225/40R18 -3 mm spacer", "-3 mm spacer", "never in", &["3 mm spacer", "0 mm spacer"]),
];

#[tokio::test]
async fn what_could_mean_two_things_is_asked_with_the_answers_to_press() {
    let shop = Served::start(None).await;
    for (text, piece, words, choices) in ASKED {
        let found = read(&shop, text).await;
        assert_eq!(found["is_sound"], false, "{text}: an open question is not sound");
        let ask = found["ask"].as_array().unwrap();
        assert_eq!(ask.len(), 1, "{text}: {ask:?}");
        assert_eq!(ask[0]["text"], piece, "{text}");
        assert!(ask[0]["question"].as_str().unwrap().contains(words), "{text}: {}", ask[0]["question"]);
        assert_eq!(ask[0]["choices"], json!(choices), "{text}");
        // Each answer, put where the piece stood, is no question any more.
        for choice in choices.iter().filter(|choice| !choice.contains(':') && !choice.starts_with("no ")) {
            let answered = read(&shop, &text.replace(piece, &format!(" {choice}"))).await;
            let open = answered["ask"].as_array().unwrap();
            assert!(open.iter().all(|one| one["text"] != piece), "{text} with {choice}: {open:?}");
        }
    }
}

/// A text, and what of it says nothing of a setup, as it was written.
const LEFT_ASIDE: [(&str, &[&str]); 9] = [
    ("18x8 ET35 245/40R18 97Y 4 pcs 189 eur", &["4 pcs", "189 eur"]),
    ("matte bronze 18x9.5 +22 5x114.3", &["matte", "bronze"]),
    ("winter set 16x7 ET40 205/55R16 91H M+S DOT 2325", &["winter"]),
    ("18x8 ET35 5x112 CB66.6 24.5 lbs each", &["24.5 lbs"]),
    ("Frostal 8 225/45R17 94W", &["Frostal", "8"]),
    ("17x8 ET42 2.3 bar", &["2.3 bar"]),
    ("18x8.5 ET35 camber -2.5", &["camber -2.5"]),
    ("225/45R17 91W C/A/71dB", &["C/A/71dB"]),
    ("18x8 ET35", &[]),
];

#[tokio::test]
async fn what_says_nothing_of_a_setup_is_left_aside_and_shown() {
    let shop = Served::start(None).await;
    for (text, aside) in LEFT_ASIDE {
        let found = read(&shop, text).await;
        assert_eq!(found["left_aside"], json!(aside), "{text}");
        assert_eq!((&found["is_sound"], &found["ask"]), (&json!(true), &json!([])), "{text}");
    }
}

/// Texts that name axles, in the ways people do, and the two lines they come to.
const AXLES: [(&str, &str, &str); 8] = [
    ("F: 18x8 ET35 R: 18x9 ET40", "18x8 ET35", "18x9 ET40"),
    ("F 18x8 ET35 R 18x9 ET40", "18x8 ET35", "18x9 ET40"),
    ("F: 18x8 ET35\nR: 18x9 ET40", "18x8 ET35", "18x9 ET40"),
    ("front 18x8 ET35 rear 18x9 ET40", "18x8 ET35", "18x9 ET40"),
    ("18x8 ET35 front, 18x9 ET40 rear", "18x8 ET35", "18x9 ET40"),
    ("18x8 ET35 10 mm spacer rear", "18x8 ET35", "18x8 ET35 · 10 mm spacer"),
    ("18x8 ET35 front 225/40R18 rear 255/35R18", "18x8 ET35 · 225/40R18", "18x8 ET35 · 255/35R18"),
    ("VA 18x8 ET35 HA 18x9 ET40", "18x8 ET35", "18x9 ET40"),
];

#[tokio::test]
async fn axles_are_named_in_many_ways() {
    let shop = Served::start(None).await;
    for (text, front, rear) in AXLES {
        let found = read(&shop, text).await;
        assert_eq!(found["names_axles"], true, "{text}");
        assert_eq!(found["lines"], json!({ "front": front, "rear": rear }), "{text}");
    }
    let square = read(&shop, "18x8 ET35 225/40R18").await;
    assert_eq!(square["names_axles"], false);
    assert_eq!(square["lines"]["front"], square["lines"]["rear"]);
}

/// A tire, and what its sidewall says of it: construction, load version and range as stated.
const DESCRIBED_TIRES: [(&str, &str, Option<&str>, Option<&str>); 16] = [
    ("225/45R17 91V", "radial", None, None),
    ("225/45R17 91V SL", "radial", Some("SL"), None),
    ("225/45R17 94W XL", "radial", Some("XL"), None),
    ("225/45R17 94W reinforced", "radial", Some("XL"), None),
    ("P225/60R16 97H", "radial", Some("P"), None),
    ("P245/50R18 104W XL", "radial", Some("XL"), None),
    ("HL245/40R19 101Y", "radial", Some("HL"), None),
    ("LT245/75R16 LR E", "radial", Some("LT"), Some("E")),
    ("LT245/75R16 121/118S 10PR", "radial", Some("LT"), Some("E")),
    ("LT265/70R17 load range C", "radial", Some("LT"), Some("C")),
    ("31x10.50R15LT LR C", "radial", Some("LT"), Some("C")),
    ("195/70R15C 104/102R", "radial", Some("C"), None),
    ("245/40ZR18 (97Y)", "radial", None, None),
    ("245/40ZR18 97Y XL", "radial", Some("XL"), None),
    ("28x10.5-15", "bias", None, None),
    ("225/45R17 94H M+S 3PMSF", "radial", None, None),
];

#[tokio::test]
async fn a_tire_is_described_as_its_sidewall_says() {
    let shop = Served::start(None).await;
    for (text, construction, version, range) in DESCRIBED_TIRES {
        let query = text.replace('+', "%2B").replace(' ', "+");
        let tire = shop.get(&format!("/tires/describe?size={query}")).await;
        assert_eq!(tire["construction"], construction, "{text}");
        assert_eq!((&tire["version"], &tire["load_range"]), (&json!(version), &json!(range)), "{text}");
        // A slick named by diameter and width names its tread: its section is an estimate.
        let assumed = if construction == "bias" { json!(["section_width"]) } else { json!([]) };
        assert_eq!(tire["assumed"], assumed, "{text}");
    }
    // Without an aspect ratio it is taken as 82, and said so.
    let old = shop.get("/tires/describe?size=165R13").await;
    assert_eq!(
        (&old["aspect_ratio"], &old["assumed"]),
        (&json!(82.0), &json!(["aspect_ratio", "overall_diameter"]))
    );
}

/// A bolt circle as the API has it: count and millimetres.
type Circle = [f64; 2];

/// A wheel, its circles, and whether it has a centre lock.
const DESCRIBED_WHEELS: [(&str, &[Circle], bool); 8] = [
    ("18x8.5 ET35 5x112 CB66.6", &[[5.0, 112.0]], false),
    ("18x8.5 ET35 5x100/112", &[[5.0, 100.0], [5.0, 112.0]], false),
    ("17x8 ET30 8x100/114.3", &[[4.0, 100.0], [4.0, 114.3]], false),
    ("17x8 ET30 5x4.5", &[[5.0, 114.3]], false),
    ("16x7 ET0 6x5.5", &[[6.0, 139.7]], false),
    ("19x9 ET45 center lock", &[], true),
    ("18x8.5 ET35", &[], false),
    ("8.5Jx18 H2 ET35 LK 5x112", &[[5.0, 112.0]], false),
];

#[tokio::test]
async fn a_wheel_is_described_with_how_it_is_held() {
    let shop = Served::start(None).await;
    for (text, circles, center_lock) in DESCRIBED_WHEELS {
        let wheel = shop.get(&format!("/wheels/describe?spec={}", text.replace(' ', "+"))).await;
        assert_eq!(wheel["bolt_circles"], json!(circles), "{text}");
        assert_eq!(wheel["center_lock"], center_lock, "{text}");
        assert_eq!(wheel["assumed"], json!([]), "{text}");
    }
    // A figure behind a circle that nobody named is taken for the bore, and said so.
    let bare = shop.get("/wheels/describe?spec=18x8.5+ET35+5x112+66.6").await;
    assert_eq!((&bare["center_bore_mm"], &bare["assumed"]), (&json!(66.6), &json!(["center_bore"])));
}

/// Sidewall and overall diameter, worked: S · AR / 100, and code · 25.4 + 2H, in millimetres.
const HEIGHTS: [(&str, f64, f64); 30] = [
    ("155/80R13", 124.00, 578.20),
    ("175/65R14", 113.75, 583.10),
    ("185/60R14", 111.00, 577.60),
    ("195/65R15", 126.75, 634.50),
    ("205/55R16", 112.75, 631.90),
    ("215/60R16", 129.00, 664.40),
    ("225/45R17", 101.25, 634.30),
    ("235/45R17", 105.75, 643.30),
    ("225/65R17", 146.25, 724.30),
    ("225/40R18", 90.00, 637.20),
    ("245/40R18", 98.00, 653.20),
    ("255/35R18", 89.25, 635.70),
    ("235/60R18", 141.00, 739.20),
    ("235/35R19", 82.25, 647.10),
    ("255/35R19", 89.25, 661.10),
    ("275/30R19", 82.50, 647.60),
    ("235/55R19", 129.25, 741.10),
    ("275/40R20", 110.00, 728.00),
    ("255/35R20", 89.25, 686.50),
    ("285/30R20", 85.50, 679.00),
    ("265/40R21", 106.00, 745.40),
    ("285/35R22", 99.75, 758.30),
    ("315/35R20", 110.25, 728.50),
    ("205/50R16", 102.50, 611.40),
    ("195/50R15", 97.50, 576.00),
    ("185/60R15", 111.00, 603.00),
    ("215/45R17", 96.75, 625.30),
    ("245/45R18", 110.25, 677.70),
    ("265/35R18", 92.75, 642.70),
    ("265/70R17", 185.50, 802.80),
];

#[tokio::test]
async fn heights_and_diameters_are_worked_as_the_trade_does() {
    let shop = Served::start(None).await;
    for (size, sidewall, diameter) in HEIGHTS {
        let tire = shop.get(&format!("/tires/describe?size={size}")).await;
        let mm = |name: &str| tire[name].as_f64().unwrap();
        assert!((mm("sidewall_mm") - sidewall).abs() < 0.01, "{size}: {}", mm("sidewall_mm"));
        assert!((mm("overall_diameter_mm") - diameter).abs() < 0.01, "{size}: {}", mm("overall_diameter_mm"));
        assert_eq!(tire["canonical"], size);
    }
}

/// Backspacing in inches, worked: (width + 1) / 2 + ET / 25.4.
const BACKSPACED: [(&str, f64); 16] = [
    ("18x5 ET35", 4.378),
    ("18x6 ET45", 5.272),
    ("18x6.5 ET38", 5.246),
    ("18x7 ET0", 4.000),
    ("18x7.5 ET45", 6.022),
    ("18x8 ET35", 5.878),
    ("18x8.5 ET35", 6.128),
    ("18x8.5 ET30", 5.931),
    ("18x9 ET25", 5.984),
    ("18x9.5 ET22", 6.116),
    ("18x9.5 ET38", 6.746),
    ("18x10 ET-25", 4.516),
    ("18x10 ET18", 6.209),
    ("18x10.5 ET15", 6.341),
    ("18x11 ET50", 7.969),
    ("18x12 ET-44", 4.768),
];

#[tokio::test]
async fn a_wheel_is_described_with_its_backspacing() {
    let shop = Served::start(None).await;
    for (text, inches) in BACKSPACED {
        let wheel = shop.get(&format!("/wheels/describe?spec={}", text.replace(' ', "+"))).await;
        let found = wheel["backspacing_in"].as_f64().unwrap_or_else(|| panic!("{text}: {wheel}"));
        assert!((found - inches).abs() < 0.001, "{text}: {found}, worked {inches}");
    }
}
