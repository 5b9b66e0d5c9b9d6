//! A stored job asked: what its brakes, its ledger and its trials say is one word, what cannot be read makes nothing better,
//! and what is remembered is never old. The figures are made up.
#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test that cannot go on fails")]

mod library;

use std::collections::BTreeMap;

use app::bench::{BenchAnswer, BenchQuestion, Depth};
use app::brakes::{BrakeQuestion, answer};
use app::knowledge::KnowledgeCache;
use app::{CachedJob, JobKnowledge, JudgingContext, trials};
use fitment::answers::ledger::Line;
use fitment::car::corner::{Feature, ReadingUnit, RecordedReading, Steer, Suspension, ToRead};
use fitment::car::lever::Lever;
use fitment::car::limits::HouseLimits;
use fitment::judgement::clearance::Verdict;
use fitment::judgement::window::TireChoice;
use fitment::setup::{Axle, Setup, SetupPair};
use fitment::values::date_code::Day;
use fitment::{Length, Offset, Wheel};
use jiff::Timestamp;
use proptest::prelude::*;
use rand::SeedableRng;
use rand::rngs::StdRng;
use store::jobs::{self, JobContent, Stage};
use store::measurements::{KeptReading, Measurements};
use store::picked::{Picked, PickedRow};
use store::workshop::{KeptTemplate, KeptTrial, WheelTemplate, Workshop};
use store::{Store, workshop};

const FITTED: &str = "18x8 ET45 5x112 225/40R18 92Y XL";

fn square(line: &str) -> SetupPair {
    SetupPair::square(line.parse().unwrap())
}

fn job(planned: &str) -> JobContent {
    JobContent {
        car_label: String::new(),
        wish: String::new(),
        stage: Stage::Bench,
        drive: None,
        notes: String::new(),
        fitted: square(FITTED),
        planned: square(planned),
        candidates: Vec::new(),
        put_away: false,
        wishes: None,
        road: None,
        measurements: Measurements::default(),
        picked: Picked::default(),
        workshop: Workshop::default(),
    }
}

fn context(job: &JobContent, insides: Vec<WheelTemplate>) -> JudgingContext {
    let knowledge = JobKnowledge::of(job, insides);
    JudgingContext::of(&knowledge, HouseLimits::DEFAULT, Day { year: 2026, day_of_year: 100 })
}

fn reading(axle: Axle, what: Feature, mm: f64) -> KeptReading {
    let taken = RecordedReading {
        axle,
        side: None,
        what: ToRead::Gap(what),
        value: mm,
        unit: ReadingUnit::Millimetres,
        instrument: "feeler".to_owned(),
        plus_minus: Length::from_mm(0.5).unwrap(),
        on: Some(FITTED.parse().unwrap()),
        stance: Suspension::default(),
        steer: Steer::default(),
        radius: None,
        face: None,
        direction: None,
        clock: None,
        is_copied: false,
    };
    KeptReading { id: format!("{axle:?}{what:?}"), taken, who: String::new(), at: Timestamp::UNIX_EPOCH }
}

fn caliper(axle: Axle, radius: f64, face: f64) -> KeptTemplate {
    KeptTemplate {
        id: "t".to_owned(),
        axle: axle.code().to_owned(),
        part: "caliper".to_owned(),
        role: "fitted".to_owned(),
        name: "as delivered".to_owned(),
        source: "template".to_owned(),
        plus_minus_mm: 0.3,
        points: vec![[-60.0, 120.0], [-60.0, radius], [face, radius], [face, 120.0]],
    }
}

fn trial(axle: Axle, setup: &str, contact: &str, gap_mm: Option<f64>) -> KeptTrial {
    KeptTrial {
        id: format!("{setup}{contact}"),
        axle: axle.code().to_owned(),
        side: None,
        setup: setup.to_owned(),
        contact: contact.to_owned(),
        gap_mm,
        plus_minus_mm: 0.5,
        instrument: String::new(),
        steer: "straight".to_owned(),
        is_hanging: true,
        note: String::new(),
        next_step: String::new(),
        photos: Vec::new(),
        who: String::new(),
        at: String::new(),
    }
}

fn inside(size: &str, barrel_r: f64, spokes_y: f64) -> WheelTemplate {
    WheelTemplate {
        line: "Arc".to_owned(),
        size: size.to_owned(),
        source: "template".to_owned(),
        plus_minus_mm: 0.3,
        barrel: vec![[-150.0, barrel_r + 10.0], [spokes_y, barrel_r]],
        spoke_back: vec![[spokes_y, barrel_r], [spokes_y, 80.0]],
    }
}

/// The worst word of the ledger's lines about the brake; `None` when it has none.
fn ledgers_word(job: &JobContent, context: &JudgingContext, axle: Axle) -> Option<Verdict> {
    let case = context.case(&job.fitted, &job.planned, job.drive);
    let of_the_brake = [Feature::CaliperRadial, Feature::CaliperFace].map(|part| part.facts().ledger_code);
    let lines = case.ledger();
    let here =
        lines.iter().filter(|line| line.axle == Some(axle) && of_the_brake.contains(&line.code.code()));
    let verdict = |line: &Line| Verdict::ALL.iter().copied().find(|one| one.severity() == line.severity);
    here.filter_map(verdict).max()
}

fn asked(job: &JobContent, context: &JudgingContext, axle: Axle) -> Verdict {
    let setup = job.planned.on(axle).copied();
    let question = BrakeQuestion { axle, planned_brakes: true, setup, line: None, weights: None };
    answer(&question, job, context).verdict
}

proptest! {
    #[test]
    fn the_brake_bench_says_what_the_ledger_says(seed in any::<u64>()) {
        let rng = &mut StdRng::seed_from_u64(seed);
        let wheels = ["18x8 ET45", "18x8 ET35", "17x7.5 ET45", "18x8.5 ET30", "19x8.5 ET45"];
        let pick = |rng: &mut StdRng| wheels[rng.random_range(0..wheels.len())];
        let rim = pick(rng);
        let mut job = job(&format!("{rim} 225/40R{}", &rim[..2]));
        for axle in Axle::BOTH {
            if rng.random() {
                let (radius, face) = (rng.random_range(150.0..215.0), rng.random_range(-20.0..25.0));
                job.workshop.templates.push(caliper(axle, radius, face));
            }
            for part in [Feature::CaliperRadial, Feature::CaliperFace] {
                if rng.random() {
                    job.measurements.readings.push(reading(axle, part, rng.random_range(1.0..25.0)));
                }
            }
            if rng.random() {
                let contact = ["none", "barrel_caliper", "spoke_caliper"][rng.random_range(0..3)];
                job.workshop.trials.push(trial(axle, pick(rng), contact, Some(rng.random_range(-4.0..12.0))));
            }
        }
        let insides = if rng.random() { vec![inside(rim, rng.random_range(190.0..215.0), 20.0)] } else { Vec::new() };
        let context = context(&job, insides);
        for axle in Axle::BOTH {
            let bench = asked(&job, &context, axle);
            let ledger = ledgers_word(&job, &context, axle).unwrap_or(Verdict::Clears);
            prop_assert_eq!(bench, ledger, "{:?} of {:#?}", axle, job);
        }
    }

    #[test]
    fn the_trials_conclusion_leaves_no_offset_open_that_the_window_closes(gap in 1.0..40.0f64, offset in 20..60_i32) {
        let mut job = job("18x8.5 ET40 225/40R18");
        let setup = format!("18x8.5 ET{offset} 225/40R18");
        job.workshop.trials.push(KeptTrial { is_hanging: false, ..trial(Axle::Rear, &setup, "fender", Some(gap)) });
        let context = context(&job, Vec::new());
        let said = trials::of_axle(&job, &context, Axle::Rear).conclusion;
        let case = context.case(&job.fitted, &job.planned, None);
        let tried: Setup = setup.parse().unwrap();
        let width = tried.wheel.unwrap().width;
        let on = case.axle(Axle::Rear).unwrap();
        let window = on.window(&tried, fitment::judgement::window::TireChoice::Same, &[width], None).remove(0);
        let least = window.least.unwrap().offset_mm;
        let words = format!("{:?}", said.lines);
        prop_assert!(words.contains(&format!("ET {least:.1}")), "{least}: {words}");
    }
}

#[test]
fn what_cannot_be_read_is_named_and_makes_nothing_better() {
    let word = |job: &JobContent, insides: Vec<WheelTemplate>| {
        let context = context(job, insides);
        let case = context.case(&job.fitted, &job.planned, None);
        let verdict =
            case.axle(Axle::Front).unwrap().fit(job.planned.on(Axle::Front).unwrap()).unwrap().verdict;
        let is_told = case.ledger().iter().any(|line| line.code.code() == "unreadable");
        (verdict, is_told)
    };
    // The fitted set stays: it runs clean.
    let sound = job(FITTED);
    assert_eq!(word(&sound, Vec::new()), (Verdict::Clears, false));
    let mut of_a_trial = sound.clone();
    of_a_trial.workshop.trials.push(trial(Axle::Front, "18x8 ETX", "barrel_caliper", None));
    let mut of_a_profile = sound.clone();
    of_a_profile
        .workshop
        .templates
        .push(KeptTemplate { points: Vec::new(), ..caliper(Axle::Front, 180.0, 0.0) });
    let mut of_a_row = sound.clone();
    let record = BTreeMap::from([("size".to_owned(), "eighteen".to_owned())]);
    of_a_row.picked.rows.push(PickedRow {
        kind: "wheels".to_owned(),
        row: 3,
        supplier: String::new(),
        record,
    });
    for job in [of_a_trial, of_a_profile, of_a_row] {
        assert_eq!(word(&job, Vec::new()), (Verdict::MeasureFirst, true));
    }
    let lost = WheelTemplate { barrel: Vec::new(), ..inside("18x8 ET45", 200.0, 20.0) };
    assert_eq!(word(&sound, vec![lost]), (Verdict::MeasureFirst, true));
}

#[test]
fn a_clean_trial_of_that_very_wheel_overrules_what_was_drawn() {
    let mut job = job("17x7.5 ET45 225/45R17");
    job.workshop.templates.push(caliper(Axle::Front, 207.0, 0.0));
    assert!(
        asked(&job, &context(&job, Vec::new()), Axle::Front).rules_out(),
        "a 17 over a caliper that large"
    );
    job.workshop.trials.push(trial(Axle::Front, "17x7.5 ET45", "none", None));
    assert_eq!(asked(&job, &context(&job, Vec::new()), Axle::Front), Verdict::Clears);
    // It says nothing of another wheel.
    let setup = Setup {
        wheel: job.planned.front.unwrap().wheel.map(|wheel| Wheel { offset: Offset::from_mm(40.0), ..wheel }),
        ..job.planned.front.unwrap()
    };
    job.planned = SetupPair::square(setup);
    assert_ne!(asked(&job, &context(&job, Vec::new()), Axle::Front), Verdict::Clears);
}

#[test]
fn what_a_list_measured_counts_on_the_bench_as_in_the_ledger() {
    // Wider than its flanges, so that the tire is what meets the strut.
    let mut job = job("18x8.5 ET42 265/35R18 97Y");
    job.measurements.readings.push(reading(Axle::Front, Feature::Strut, 20.0));
    let ask = |job: &JobContent| {
        let context = context(job, Vec::new());
        let plan = context.case(&job.fitted, &job.planned, job.drive);
        let bench = on_the_bench(job, &context, Depth::Whole).axles.front.judged.unwrap();
        let on_the_bench = bench.fit.line(Feature::Strut).unwrap().band.as_ref().unwrap().nominal;
        let in_the_ledger = plan.ledger().into_iter().find(|line| line.code.code() == "clear-strut").unwrap();
        let conclusion = trials::of_axle(job, &context, Axle::Front);
        assert_eq!(conclusion.judged[0].verdict, bench.fit.verdict);
        assert_eq!(in_the_ledger.figure.unwrap().value, on_the_bench.as_mm());
        (on_the_bench.as_mm(), plan.planned.front.unwrap().section_width().unwrap().as_mm())
    };
    let (by_its_size, named) = ask(&job);
    let record = [("size", "265/35R18 97Y".to_owned()), ("section_mm", (named + 14.0).to_string())];
    job.picked.rows.push(PickedRow {
        kind: "tires".to_owned(),
        row: 3,
        supplier: String::new(),
        record: record.map(|(field, value)| (field.to_owned(), value)).into_iter().collect(),
    });
    // What it is wider on this rim, half of it on the inboard side.
    let (by_its_list, listed) = ask(&job);
    assert!(listed - named > 3.0, "{listed} {named}");
    assert!((by_its_size - by_its_list - (listed - named) / 2.0).abs() < 0.01, "{by_its_size} {by_its_list}");
}

#[tokio::test]
async fn what_is_remembered_of_a_job_is_never_old() {
    let folder = tempfile::tempdir().unwrap();
    let store = Store::open(&folder.path().join("shop.db")).unwrap();
    let cache = KnowledgeCache::default();
    let knows = async |id: i64| {
        let cache = cache.clone();
        store.read(move |c| cache.of(c, id)).await.unwrap()
    };
    let now = Timestamp::UNIX_EPOCH;
    let first = job(FITTED);
    let content = first.clone();
    let kept = store.write(move |tx| jobs::create(tx, &content, "", now)).await.unwrap();
    let known = knows(kept.id).await;
    assert!(std::sync::Arc::ptr_eq(&known, &knows(kept.id).await), "asked again, it is not read again");
    let mut changed = first;
    changed.workshop.trials.push(trial(Axle::Front, "17x8 ET40", "none", None));
    store.write(move |tx| jobs::change(tx, kept.id, 1, &changed, "", now)).await.unwrap();
    assert_eq!(knows(kept.id).await.knowledge().workshop.trials.len(), 1);
    let brought = inside("17x8 ET40", 200.0, 20.0);
    store.write(move |tx| workshop::put_wheel_template(tx, &brought, now)).await.unwrap();
    assert_eq!(knows(kept.id).await.knowledge().insides.len(), 1);
    store.write(move |tx| jobs::undo(tx, kept.id, 2, "", now)).await.unwrap();
    assert!(knows(kept.id).await.knowledge().workshop.trials.is_empty());
}

#[test]
fn the_state_of_a_known_job_is_the_one_its_knowledge_makes() {
    let mut content = job(FITTED);
    content.workshop.trials.push(trial(Axle::Front, "17x8 ET40", "none", None));
    let knowledge = JobKnowledge::of(&content, Vec::new());
    let known = CachedJob::from(knowledge.clone());
    let as_saved = knowledge.car_state();
    let nothing_typed = SetupPair::default();
    let first = known.state(&nothing_typed, None, None);
    assert_eq!(*first, as_saved);
    assert!(std::sync::Arc::ptr_eq(&first, &known.state(&content.fitted, None, None)), "worked out once");
    // A line on the bench that is newer than what was saved, with work on the car and without.
    let newer = SetupPair { front: Some("18x8 ET42 225/40R18".parse().unwrap()), rear: content.fitted.rear };
    let mut typed = knowledge.clone();
    typed.fitted.front = newer.front;
    assert_eq!(*known.state(&newer, None, None), typed.car_state());
    let mut levers = as_saved.levers;
    levers.front.set(Lever::LipRolled, 5.0).unwrap();
    for (fitted, own) in [(nothing_typed, &knowledge), (newer, &typed)] {
        let mut worked = own.clone();
        worked.measurements.levers = levers;
        assert_ne!(worked.car_state(), own.car_state());
        assert_eq!(*known.state(&fitted, Some(levers), None), worked.car_state());
    }
    // What was asked meanwhile changed nothing of the first.
    assert_eq!(known.state(&nothing_typed, None, None).levers, as_saved.levers);
}

/// A job's plan on the bench, as it stands.
fn on_the_bench(job: &JobContent, context: &JudgingContext, depth: Depth) -> BenchAnswer {
    let question = BenchQuestion {
        fitted: job.fitted,
        planned: job.planned,
        drive: job.drive,
        tire_choice: TireChoice::Same,
        steps: Vec::new(),
        levers: None,
        wanted: None,
    };
    let known = CachedJob::from(JobKnowledge::of(job, Vec::new()));
    question.answer(&known, context.limits, context.today, depth).unwrap()
}

#[test]
fn what_moves_with_a_hand_is_a_part_of_the_whole() {
    let mut job = job("18x8.5 ET42 245/40R18");
    job.measurements.readings.push(reading(Axle::Front, Feature::Strut, 12.0));
    job.measurements.readings.push(reading(Axle::Front, Feature::FenderLateral, 9.0));
    let context = context(&job, Vec::new());
    let [whole, moving] = [Depth::Whole, Depth::Moving].map(|depth| on_the_bench(&job, &context, depth));
    assert_eq!(whole.ledger, moving.ledger);
    // What clears it is sought only for the whole.
    let mut said = whole.headline.clone();
    assert!(said.causes.iter().any(|cause| cause.mend.is_some()), "{said:?}");
    said.causes.iter_mut().for_each(|cause| cause.mend = None);
    assert_eq!(said, moving.headline);
    let judged = |answer: &BenchAnswer| {
        let axle = answer.axles.front.judged.as_ref().unwrap();
        (axle.fit.clone(), axle.window.clone(), axle.style, axle.camber_deg)
    };
    assert_eq!(judged(&whole), judged(&moving));
    let rest = |answer: &BenchAnswer| answer.axles.front.judged.as_ref().unwrap().rest.is_some();
    assert!(rest(&whole) && !rest(&moving));
}
