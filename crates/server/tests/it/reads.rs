//! What people write, over the API: what is asked and never guessed, what is left aside and shown, what is refused by what it is.
use crate::served::Served;
use serde_json::{Value, json};

async fn read(shop: &Served, text: &str) -> Value {
    let (status, read) = shop.post("/setups/read", json!({ "text": text })).await;
    assert_eq!(status, 200, "{text}: {read}");
    read
}

/// A text, the piece that is asked about, words of the question, and the answers to press.
const ASKED: [(&str, &str, &str, &[&str]); 13] = [
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
        &["3 mm spacer", "5 mm spacer", "10 mm spacer", "15 mm spacer", "20 mm spacer", "no spacers"],
    ),
    ("8Jx18 H2-35", "-35", "minus", &["ET35", "ET-35"]),
    ("9Jx18 H2-25 5x112", "-25", "minus", &["ET25", "ET-25"]),
    ("18x8 ET35-40", "ET35-40", "a range of offsets", &["ET35", "ET40"]),
    ("19x9.5 ET22-38 5x120", "ET22-38", "a range of offsets", &["ET22", "ET38"]),
    ("1,5", "1,5", "what is this figure of?", &["ET1.5", "1.5 mm spacer"]),
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
