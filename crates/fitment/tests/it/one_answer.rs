//! The property that ties the answers together: what one of them says, no other takes back. Random cars, catalogues,
//! house limits and jobs; the figures are made up.
use fitment::answers::finder::{Approach, Arrangements, KeptParts, Scene, SearchCriteria, Weights, find};
use fitment::car::brake::{BrakePart, Package, Profile, ProfileSource, Template};
use fitment::car::corner::{Corner, Corners, Feature, Reading, Steer};
use fitment::car::lever::PairLevers;
use fitment::car::limits::{Drive, HouseLimits};
use fitment::car::style::{Style, StyleTarget};
use fitment::car::{Car, Fact};
use fitment::judgement::case::{AxleEvidence, CarState, Case};
use fitment::judgement::clearance::Verdict;
use fitment::judgement::rules::Severity;
use fitment::judgement::window::TireChoice;
use fitment::setup::catalogue::{Catalogue, PickedParts, TireKind, TireRow, WheelRow};
use fitment::values::codes::RimDiameter;
use fitment::{Axle, Length, Offset, RimWidth, Setup, SetupPair};
use proptest::prelude::*;
use proptest::test_runner::Config;
use rand::SeedableRng;
use rand::rngs::StdRng;

fn pick<'a, T>(rng: &mut StdRng, from: &'a [T]) -> &'a T {
    &from[rng.random_range(0..from.len())]
}

fn maybe<T>(rng: &mut StdRng, share: f64, make: impl FnOnce(&mut StdRng) -> T) -> Option<T> {
    (rng.random::<f64>() < share).then(|| make(rng))
}

fn mm(length: f64) -> Length {
    Length::from_mm(length).unwrap()
}

const SIZES: [&str; 14] = [
    "205/55R16 91V",
    "225/45R17 91W",
    "225/45R17 94Y XL",
    "235/45R17 97W XL",
    "225/40R18 92Y XL",
    "235/40R18 95Y XL",
    "245/40R18 97Y XL",
    "255/35R18 94Y XL",
    "265/35R18 97(Y) XL",
    "245/35R19 93Y XL",
    "255/35ZR19 (96Y) XL",
    "225/45R17 94H M+S 3PMSF",
    "215/50R17 95V",
    "225/50R16 92V",
];

fn catalogue(rng: &mut StdRng) -> Catalogue {
    let wheels = (1..=14)
        .map(|id| {
            let text = format!(
                "{} ET{} {} CB{}",
                pick(rng, &["16x6.5", "16x7", "17x7.5", "17x8", "18x8", "18x8.5", "18x9.5", "19x8.5"]),
                20 + 5 * rng.random_range(0..7),
                pick(rng, &["5x112", "5x114.3", "5x100/112"]),
                pick(rng, &["57.1", "66.6", "54.1"])
            );
            let setup: Setup = text.parse().unwrap();
            WheelRow {
                id,
                line: (*pick(rng, &["Arc", "Bow"])).into(),
                load_kg: maybe(rng, 0.7, |rng| f64::from(rng.random_range(480..760))),
                overall_width: maybe(rng, 0.3, |rng| {
                    setup.wheel.unwrap().width.between_flanges() + mm(f64::from(rng.random_range(22..32)))
                }),
                price: maybe(rng, 0.9, |rng| rng.random_range(15_000..60_000)),
                ..WheelRow::plain(setup.wheel.unwrap())
            }
        })
        .collect();
    // A line is of one kind and lists a size once.
    let kinds = [TireKind::SummerPerformance, TireKind::TrackDay, TireKind::Winter];
    let of_line = [maybe(rng, 0.9, |rng| *pick(rng, &kinds)), maybe(rng, 0.9, |rng| *pick(rng, &kinds))];
    let listed: Vec<usize> = (0..SIZES.len() * 2).filter(|_| rng.random::<f64>() < 0.7).collect();
    let tires = listed
        .into_iter()
        .map(|at| {
            let line = at % 2;
            let tire: fitment::Tire = SIZES[at / 2].parse().unwrap();
            let named = tire.size.named_section_width().as_mm();
            let diameter = fitment::parts::tire::dimensions::overall_diameter(&tire.size).as_mm();
            let rim = |code: f64| RimWidth::from_code(code).unwrap();
            let measuring = fitment::parts::tire::rims::measuring_rim(&tire.size).code();
            TireRow {
                id: at as u32 + 1,
                line: ["Reed", "Sedge"][line].into(),
                kind: of_line[line],
                section: maybe(rng, 0.3, |rng| mm(named + f64::from(rng.random_range(-6..12)))),
                overall_diameter: maybe(rng, 0.3, |rng| mm(diameter + f64::from(rng.random_range(-14..15)))),
                tread_width: maybe(rng, 0.5, |rng| mm(named * (0.82 + 0.12 * rng.random::<f64>()))),
                has_rim_guard: maybe(rng, 0.3, |rng| rng.random()),
                measuring_rim: maybe(rng, 0.2, |_| rim(measuring + 0.5)),
                permitted: maybe(rng, 0.4, |rng| {
                    (rim(measuring - 0.5), rim(measuring + 0.5 * f64::from(rng.random_range(0..3))))
                }),
                price: maybe(rng, 0.9, |rng| rng.random_range(8_000..30_000)),
                ..TireRow::plain(tire)
            }
        })
        .collect();
    Catalogue { wheels, tires }
}

fn record(rng: &mut StdRng) -> Car {
    let mut car = Car::default();
    let mut note = |fact, axle, text: Option<String>| {
        if let Some(text) = text {
            car.note(fact, axle, &text).unwrap();
        }
    };
    let factory = *pick(
        rng,
        &["16x6.5 ET45 205/55R16 91V", "17x7.5 ET45 5x112 225/45R17 94W XL", "18x8 ET40 225/40R18 92Y XL"],
    );
    let staggered = rng.random::<f64>() < 0.3;
    note(Fact::FactorySetup, Some(Axle::Front), maybe(rng, 0.6, |_| factory.to_owned()));
    let rear = if staggered { "18x8.5 ET47 245/40R18 97Y XL" } else { factory };
    note(Fact::FactorySetup, Some(Axle::Rear), maybe(rng, 0.6, |_| rear.to_owned()));
    for axle in Axle::BOTH {
        note(Fact::AxleRating, Some(axle), maybe(rng, 0.5, |rng| rng.random_range(900..1350).to_string()));
        note(
            Fact::PlacardPressure,
            Some(axle),
            maybe(rng, 0.5, |rng| rng.random_range(210..280).to_string()),
        );
        note(Fact::HubBore, Some(axle), maybe(rng, 0.6, |rng| (*pick(rng, &["57.1", "66.5"])).to_owned()));
    }
    note(Fact::TopSpeed, None, maybe(rng, 0.5, |rng| rng.random_range(180..330).to_string()));
    note(Fact::BoltCircle, None, maybe(rng, 0.5, |_| "5x112".to_owned()));
    note(Fact::DialOverRead, None, maybe(rng, 0.3, |rng| rng.random_range(0..5).to_string()));
    note(Fact::VehicleClass, None, maybe(rng, 0.2, |_| "van".to_owned()));
    car
}

fn corner(rng: &mut StdRng, on: Setup) -> Corner {
    let mut readings = Vec::new();
    for (feature, low, high, share) in [
        (Feature::Strut, 4, 40, 0.7),
        (Feature::FenderLateral, 2, 45, 0.7),
        (Feature::Arch, 20, 90, 0.6),
        (Feature::LinerAhead, 4, 60, 0.4),
        (Feature::CaliperRadial, 3, 30, 0.5),
        (Feature::CaliperFace, 3, 30, 0.3),
    ] {
        if let Some(gap) = maybe(rng, share, |rng| f64::from(rng.random_range(low..high))) {
            let reading = Reading::new(feature, mm(gap), mm(1.0), on);
            let steer = if feature.facts().at_lock { Steer::LockLeft } else { Steer::Straight };
            readings.push(Reading { steer, ..reading });
        }
    }
    Corner { readings, camber_deg: maybe(rng, 0.5, |_| -1.0), ..Corner::default() }
}

/// Templates of a caliper of some size on an axle, sometimes.
fn brakes(rng: &mut StdRng) -> AxleEvidence {
    let profile = |radius: f64| {
        Profile::new([(-60.0, radius - 20.0), (-60.0, radius), (10.0, radius), (10.0, 90.0)]).unwrap()
    };
    let templates = maybe(rng, 0.5, |rng| Template {
        part: BrakePart::Caliper,
        profile: profile(f64::from(rng.random_range(150..205))),
        source: ProfileSource::Template,
        plus_minus_mm: 1.0,
    });
    AxleEvidence {
        package: Package { templates: templates.into_iter().collect() },
        ..AxleEvidence::default()
    }
}

struct Job {
    fitted: SetupPair,
    state: CarState,
    limits: HouseLimits,
    drive: Option<Drive>,
    catalogue: Catalogue,
    wish: SearchCriteria,
}

fn job(seed: u64) -> Job {
    let rng = &mut StdRng::seed_from_u64(seed);
    let fitted: Setup = pick(
        rng,
        &["17x7.5 ET45 5x112 225/45R17 94W", "16x7 ET40 205/55R16 91V", "18x8 ET45 225/40R18 92Y XL"],
    )
    .parse()
    .unwrap();
    let corners = Corners { front: corner(rng, fitted), rear: corner(rng, fitted) };
    // Poke where it is wanted is judged by the lip's edge at full bump.
    let poke = StyleTarget { style: Style::Poke, within: None, is_show: false };
    let wanted = (maybe(rng, 0.3, |_| poke), maybe(rng, 0.3, |_| poke));
    let state = CarState::new(corners, PairLevers::default(), wanted)
        .of_car(record(rng))
        .with_evidence(brakes(rng), brakes(rng));
    let limits = HouseLimits {
        diameter_limit_pct: *pick(rng, &[1.5, 3.0, 5.0]),
        ratio_two_wheel_drive_pct: *pick(rng, &[1.0, 2.5]),
        ..HouseLimits::DEFAULT
    };
    let approach = *pick(rng, &[Approach::TireFirst, Approach::WheelFirst]);
    let rim = |code: f64| RimDiameter::from_code(code).unwrap();
    let wish = SearchCriteria {
        approach,
        uses: Vec::new(),
        season: None,
        keeps: KeptParts::Nothing,
        arrangements: *pick(rng, &[Arrangements::Either, Arrangements::Square, Arrangements::Staggered]),
        mixed_diameters: rng.random::<bool>(),
        rims: (rim(16.0), rim(19.0)),
        rear_rims: None,
        class: None,
        budget: None,
        thickest_spacer_mm: *pick(rng, &[0.0, 10.0]),
        wheel_line: None,
        tire_line: None,
        weights: Weights::of(approach),
        count: 12,
    };
    let drive = *pick(rng, &[None, Some(Drive::Front), Some(Drive::Rear), Some(Drive::All)]);
    Job { fitted: SetupPair::square(fitted), state, limits, drive, catalogue: catalogue(rng), wish }
}

impl Job {
    fn case(&self, planned: &SetupPair, parts: PickedParts) -> Case<'_> {
        Case::new(&self.fitted, planned, self.drive, &self.limits, None)
            .in_state(self.state.clone().with_parts(parts))
    }
}

proptest! {
    #![proptest_config(Config { cases: 300, ..Config::default() })]

    #[test]
    fn no_setup_that_the_finder_returns_carries_a_stop_in_the_ledger_of_that_job(seed in any::<u64>()) {
        let job = job(seed);
        let nothing = SetupPair::default();
        let case = job.case(&nothing, PickedParts::default());
        let outcome = find(&Scene { plan: &case }, &job.catalogue, &job.wish);
        for found in &outcome.found {
            let row = |choice: &fitment::answers::finder::AxleChoice| PickedParts {
                wheels: vec![job.catalogue.wheels[choice.wheel_row.unwrap()].clone()],
                tires: vec![job.catalogue.tires[choice.tire_row.unwrap()].clone()],
            };
            // Each axle carries its own rows; both are picked, as the bench picks them.
            let (front, rear) = (row(&found.front), row(&found.rear));
            let parts = PickedParts {
                wheels: front.wheels.into_iter().chain(rear.wheels).collect(),
                tires: front.tires.into_iter().chain(rear.tires).collect(),
            };
            let planned = found.setups();
            let lines = job.case(&planned, parts).ledger();
            let stops: Vec<_> = lines.iter().filter(|line| line.severity == Severity::Stop).collect();
            prop_assert!(stops.is_empty(), "{planned}: {stops:#?}");
        }
    }

    #[test]
    fn the_windows_open_interval_is_the_ledgers_words(seed in any::<u64>(), offset in 0..60_i32) {
        let job = job(seed);
        let wheel = job.catalogue.wheels[0].wheel;
        let Some(tire) = job.catalogue.tires.iter().find(|row| row.tire.size.rim() == wheel.diameter) else {
            return Ok(());
        };
        let planned = Setup {
            wheel: Some(fitment::Wheel { offset: Offset::from_mm(f64::from(offset)), ..wheel.placed() }),
            tire: Some(fitment::Tire::plain(tire.tire.size)),
            ..Setup::default()
        };
        let pair = SetupPair::square(planned);
        let case = job.case(&pair, PickedParts::default());
        for axle in Axle::BOTH {
            let on = case.axle(axle).unwrap();
            let window = on.window(&planned, TireChoice::Same, &[wheel.width], None).pop().unwrap();
            let fit = on.fit(&planned).unwrap();
            let fails = fit.clearances.iter().any(|line| {
                line.band.is_some() && matches!(line.verdict, Verdict::Touches | Verdict::Tight)
            });
            if window.clears(f64::from(offset)) {
                prop_assert!(!fails, "{planned} on {axle:?}: {window:?} {fit:#?}");
            } else if window.blocked_by.is_empty() {
                // Contradicting readings are asked again rather than called too near.
                let asked = fit.clearances.iter().any(|line| line.verdict == Verdict::MeasureFirst);
                prop_assert!(fails || asked, "{planned} on {axle:?}: {window:?} {fit:#?}");
            }
        }
    }
}
