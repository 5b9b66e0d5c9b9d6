//! The ledger as an advisor reads it: what each plan is told, sentence by sentence.
use fitment::Length;
use fitment::answers::ledger::Line;
use fitment::car::corner::{Corner, Corners, Feature, Reading};
use fitment::car::lever::PairLevers;
use fitment::car::limits::{Drive, HouseLimits};
use fitment::car::style::{Style, StyleTarget};
use fitment::judgement::case::{CarState, Case};
use fitment::judgement::rules::Severity;
use fitment::setup::{Axle, SetupPair, line};
use fitment::values::date_code::Day;
use fitment::values::working::{Fragment, Phrase, SourceKind};

fn pair(text: &str) -> SetupPair {
    line::read(text).unwrap().setups.expect(text)
}

fn ledger_with(limits: &HouseLimits, fitted: &str, planned: &str, drive: Option<Drive>) -> Vec<Line> {
    let today = Some(Day { year: 2026, day_of_year: 200 });
    Case::new(&pair(fitted), &pair(planned), drive, limits, today).ledger()
}

fn ledger(fitted: &str, planned: &str, drive: Option<Drive>) -> Vec<Line> {
    ledger_with(&HouseLimits::DEFAULT, fitted, planned, drive)
}

#[track_caller]
fn find<'l>(lines: &'l [Line], code: &str, axle: Option<Axle>) -> &'l Line {
    lines
        .iter()
        .find(|line| line.code.code() == code && line.axle == axle)
        .unwrap_or_else(|| panic!("no line {code}"))
}

/// A sentence with its figures to one decimal, as the page shows it in millimetres.
fn said(phrase: &Phrase) -> String {
    phrase
        .0
        .iter()
        .map(|fragment| match fragment {
            Fragment::Text(text) => text.to_string(),
            Fragment::Quantity(quantity) => format!("{:.1}", quantity.value),
        })
        .collect()
}

const FITTED: &str = "17x7.5 ET45 225/45R17 94W";

#[test]
fn every_line_says_what_it_means() {
    // The figures are geometry; the sentences are this project's own.
    for (code, planned, axle, standing, sentence) in [
        (
            "inner-change",
            "18x8.5 ET45 245/40R18 97Y",
            Some(Axle::Front),
            Severity::Measure,
            "Find 22.9 between tire and strut with the fitted wheel: 10.0 that the plan comes nearer, 5.0 to keep, 7.9 for what tires and a steel rule may be off. Rim to rim 12.7, tire to tire 10.0.",
        ),
        (
            "outer-change",
            "18x8.5 ET35 245/40R18 97Y",
            Some(Axle::Rear),
            Severity::Measure,
            "Find 30.9 between tire and fender lip with the fitted wheel: 20.0 that the plan comes nearer, 3.0 to keep, 7.9 for what tires and a steel rule may be off. Rim to rim 22.7, tire to tire 20.0.",
        ),
        (
            "inner-change",
            "18x8.5 ET35 245/40R18 97Y",
            Some(Axle::Front),
            Severity::Good,
            "Reaches exactly as far as the fitted wheel. Rim to rim 2.7, tire to tire 0.0.",
        ),
        (
            "inner-change",
            "17x7.5 ET40 225/45R17",
            Some(Axle::Front),
            Severity::Good,
            "Leaves 5.0 more room between tire and strut than the fitted wheel. Rim to rim -5.0, tire to tire -5.0.",
        ),
        (
            "arch-gap",
            "18x8.5 ET35 245/40R18 97Y",
            Some(Axle::Front),
            Severity::Measure,
            "A tire 18.9 larger in diameter closes the gap by half of it, 9.5. Find 41.6 between tire top and arch lip with the fitted wheel: 9.5 that the plan comes nearer, 25.0 to keep, 7.1 for what tires and a steel rule may be off.",
        ),
        (
            "overall-diameter",
            "17x7.5 ET45 215/45R17",
            Some(Axle::Front),
            Severity::Good,
            "9.0 smaller than the fitted tire. Against what is fitted the car stands 4.5 lower here.",
        ),
        (
            "overall-diameter",
            FITTED,
            Some(Axle::Rear),
            Severity::Good,
            "The same diameter as the fitted tire.",
        ),
        ("front-to-rear", FITTED, None, Severity::Good, "Front and rear stand equally tall."),
        (
            "load-index",
            "17x7.5 ET45 225/45R17 91V",
            Some(Axle::Front),
            Severity::Stop,
            "Carries 55.0 less than the fitted tire: choose index 94 or more.",
        ),
        (
            "speed-symbol",
            "17x7.5 ET45 225/45R17 94V",
            Some(Axle::Front),
            Severity::Stop,
            "V is slower than the fitted W. Winter tires may go lower where the law allows, to 160.0.",
        ),
        (
            "listed-size",
            "17x7.5 ET45 227/45R17",
            Some(Axle::Front),
            Severity::Mind,
            "227/45R17 is not a listed size: computed all the same.",
        ),
    ] {
        let lines = ledger(FITTED, planned, Some(Drive::Front));
        let line = find(&lines, code, axle);
        assert_eq!((line.severity, said(&line.says).as_str()), (standing, sentence), "{planned}");
    }
}

#[test]
fn what_can_hurt_someone_carries_a_caution() {
    let planned = "17x9.5 ET20 225/45R17 84Q DOT 0110";
    let lines = ledger(FITTED, planned, Some(Drive::Front));
    for code in ["outer-change", "tire-on-rim", "load-index", "speed-symbol", "tire-age"] {
        let line = find(&lines, code, Some(Axle::Front));
        assert!(line.severity >= Severity::Measure, "{code}");
        assert!(line.caution.is_some_and(|caution| caution.len() > 20), "{code} has no caution");
    }
    for line in lines.iter().filter(|line| line.severity == Severity::Stop) {
        let is_a_matter_of_taste = line.code.code() == "overall-diameter";
        assert!(line.caution.is_some() || is_a_matter_of_taste, "{:?} stops without a caution", line.code);
    }
}

#[test]
fn the_limit_that_was_used_is_the_houses() {
    let strict = HouseLimits { diameter_limit_pct: 1.5, diameter_good_pct: 1.0, ..HouseLimits::DEFAULT };
    let planned = "18x8 ET45 235/40R18";
    let usual = ledger(FITTED, planned, None);
    let strictly = ledger_with(&strict, FITTED, planned, None);
    let word = |lines: &[Line]| find(lines, "overall-diameter", Some(Axle::Front)).word;
    assert_eq!((word(&usual), word(&strictly)), ("good", "beyond the limit"));
    let limit = said(&find(&strictly, "overall-diameter", Some(Axle::Front)).limit);
    assert_eq!(limit, "house limit 1.5 round the fitted tire");
    let roomy = HouseLimits { ratio_all_wheel_drive_pct: 5.0, ..HouseLimits::DEFAULT };
    let staggered = "F: 18x8.5 ET40 235/40R18 R: 18x9 ET40 255/40R18";
    for (limits, standing) in [(HouseLimits::DEFAULT, Severity::Stop), (roomy, Severity::Good)] {
        let lines = ledger_with(&limits, FITTED, staggered, Some(Drive::All));
        assert_eq!(find(&lines, "front-to-rear", None).severity, standing);
    }
}

#[test]
fn an_axle_nobody_spoke_of_has_no_lines() {
    let lines = ledger("F: 17x7.5 ET45 225/45R17", "F: 18x8.5 ET35 245/40R18", None);
    assert!(lines.iter().all(|line| line.axle != Some(Axle::Rear)));
    assert_eq!(find(&lines, "front-to-rear", None).severity, Severity::Unknown);
    assert_eq!(find(&lines, "speedometer", None).word, "measure the dial", "the front axle is known");
}

#[test]
fn every_step_of_every_working_names_formula_and_source() {
    let planned = "F: 18x8.5 ET35 235/40R18 91Y DOT 2318 3 mm spacer R: 18x9.5 ET30 LT255/40R18 99Y";
    for line in ledger(FITTED, planned, Some(Drive::All)) {
        for step in &line.working {
            assert!(!step.formula.is_empty() && !step.what.is_empty(), "{:?}", line.code);
            assert!(!step.source.cite.is_empty(), "{:?}: {}", line.code, step.what);
            assert!(step.result.value.is_finite(), "{:?}: {}", line.code, step.what);
            for (symbol, figure) in &step.inputs {
                assert!(!symbol.is_empty() && figure.value.is_finite(), "{:?}: {}", line.code, step.what);
            }
        }
    }
}

#[test]
fn estimates_are_never_passed_off_as_tables() {
    let lines = ledger(FITTED, "18x8.5 ET35 245/40R18 97Y", None);
    let on_rim = find(&lines, "tire-on-rim", Some(Axle::Front));
    assert_eq!(on_rim.source.kind, SourceKind::Estimate);
    assert!(said(&on_rim.limit).contains("estimated"));
    assert!(said(&on_rim.says).contains("maker's table"));
}

#[test]
fn both_counts_of_revolutions_stand_side_by_side() {
    // 1 609 344 / (π × 653.2) and / (3.05 × 653.2): bc 1.07.1 gives 784.2471 and 807.7982.
    let lines = ledger(FITTED, "18x8.5 ET35 245/40R18", None);
    let working = &find(&lines, "overall-diameter", Some(Axle::Front)).working;
    let counts: Vec<f64> = working
        .iter()
        .filter(|step| step.what.starts_with("revolutions"))
        .map(|step| step.result.value)
        .collect();
    assert_eq!(counts.len(), 2);
    assert!((counts[0] - 784.2471).abs() < 1e-3 && (counts[1] - 807.7982).abs() < 1e-3, "{counts:?}");
}

#[test]
fn the_same_plan_is_judged_the_same_twice() {
    let planned = "F: 18x8.5 ET35 235/40R18 91Y R: 18x9.5 ET30 255/40R18 99Y";
    assert_eq!(ledger(FITTED, planned, None), ledger(FITTED, planned, None));
}

/// A bay where the front corner was read: the example of the API's description, with 245 mm of tire on 8.5 in.
fn measured(planned: &str, gaps: &[(Feature, f64)], wanted: Option<StyleTarget>) -> Vec<Line> {
    let fitted = pair("17x7.5 ET45 225/45R17");
    let readings = gaps
        .iter()
        .map(|(feature, gap)| {
            let mm = |mm| Length::from_mm(mm).unwrap();
            Reading::new(*feature, mm(*gap), mm(1.0), fitted.front.unwrap())
        })
        .collect();
    let front = Corner { readings, camber_deg: Some(0.0), ..Corner::default() };
    let bay = CarState::new(Corners { front, ..Corners::default() }, PairLevers::default(), (wanted, None));
    let planned = pair(planned);
    Case::new(&fitted, &planned, None, &HouseLimits::DEFAULT, None).in_state(bay).ledger()
}

#[test]
fn what_was_read_has_a_line_of_its_own() {
    // Geometry, with the band of UN R30 (memory): √(1 + 4.5² + 4.9² + 0.5² + 0.5²) = 6.76 either way.
    for (code, planned, gap, standing, sentence) in [
        (
            "clear-strut",
            "18x8.5 ET40 245/40R18",
            14.0,
            Severity::Mind,
            "There is room to the strut, but it may be as little as 2.2 (at worst -2.4): under the house minimum of 5.0.",
        ),
        (
            "clear-strut",
            "18x8.5 ET40 245/40R18",
            30.0,
            Severity::Good,
            "Likely at least 18.2 to the strut, at worst 13.6.",
        ),
        (
            "clear-strut",
            "18x8.5 ET58 245/40R18",
            14.0,
            Severity::Stop,
            "The plan and the strut overlap by 9.0.",
        ),
        (
            "clear-fender_lateral",
            "18x8.5 ET35 245/40R18",
            12.0,
            Severity::Stop,
            "The plan and the fender lip overlap by 8.0: it stands outside the lip.",
        ),
    ] {
        let part = if code == "clear-strut" { Feature::Strut } else { Feature::FenderLateral };
        let lines = measured(planned, &[(part, gap)], None);
        let line = find(&lines, code, Some(Axle::Front));
        assert_eq!((line.severity, said(&line.says).as_str()), (standing, sentence), "{planned}");
        assert_eq!(line.caution.is_some(), standing != Severity::Good, "{planned}");
        // The gap's own line is gone, the other axle's still asks for it.
        let asks = if code == "clear-strut" { "inner-change" } else { "outer-change" };
        assert!(lines.iter().all(|line| line.code.code() != asks || line.axle == Some(Axle::Rear)));
        assert!(
            line.working.iter().any(|step| step.source.kind == SourceKind::FromMemory),
            "UN R30 is named"
        );
    }
}

#[test]
fn the_style_is_said_of_rim_and_tire_and_held_against_the_wish() {
    let flush = |is_show| StyleTarget { style: Style::Flush, within: None, is_show };
    for (planned, wanted, standing, word, sentence) in [
        (
            "17x7.5 ET45 225/45R17",
            None,
            Severity::Good,
            "tucked",
            "Rim tucked, 16.5 inside the lip; tire tucked, 12.0 inside the lip.",
        ),
        (
            "17x7.5 ET45 225/45R17",
            Some(flush(false)),
            Severity::Mind,
            "tucked",
            "Rim tucked, 16.5 inside the lip; tire tucked, 12.0 inside the lip. Wanted is flush: the window shows the offsets that give it.",
        ),
        (
            "17x7.5 ET33 225/45R17",
            Some(flush(false)),
            Severity::Good,
            "flush",
            "Rim tucked, 4.5 inside the lip; tire flush, 0.0 inside the lip.",
        ),
        (
            "17x7.5 ET20 225/45R17",
            None,
            Severity::Mind,
            "poke",
            "Rim poke, 8.5 outside the lip; tire poke, 13.0 outside the lip.",
        ),
    ] {
        let lines = measured(planned, &[(Feature::FenderLateral, 12.0)], wanted);
        let line = find(&lines, "style", Some(Axle::Front));
        assert_eq!(
            (line.severity, line.word, said(&line.says).as_str()),
            (standing, word, sentence),
            "{planned}"
        );
    }
    let show = measured("17x7.5 ET33 225/45R17", &[(Feature::FenderLateral, 12.0)], Some(flush(true)));
    assert!(find(&show, "style", Some(Axle::Front)).caution.unwrap().starts_with("A show setup"));
}
