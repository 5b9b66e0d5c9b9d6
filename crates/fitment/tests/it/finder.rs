//! The finder against trying everything, the obvious way, on small random catalogues.
use std::collections::BTreeMap;

use fitment::answers::finder::{
    Approach, Arrangements, Criterion, Filter, Found, KeptParts, Scene, SearchCriteria, Weights, criteria,
    find, reasons, why_above,
};
use fitment::car::Fact;
use fitment::car::corner::{Corner, Corners, Feature, Reading};
use fitment::car::lever::PairLevers;
use fitment::car::limits::{Drive, HouseLimits};
use fitment::car::section::Toward;
use fitment::car::style::{Style, StyleTarget};
use fitment::judgement::case::{CarState, Case};
use fitment::judgement::clearance::MountedSetup;
use fitment::judgement::window::TireChoice;
use fitment::parts::tire::dimensions::overall_diameter;
use fitment::parts::tire::rims::RimFit;
use fitment::setup::catalogue::{Catalogue, Season, TireKind, TireRow, Use, WheelRow};
use fitment::{Axle, Length, Offset, RimDiameter, Setup, SetupPair, Spacer, Tire, Wheel};
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};

const FITTED: &str = "17x7.5 ET45 5x112 CB57.1 225/45R17 91W";
const SIZES: [&str; 9] = [
    "225/45R17 94W XL",
    "225/45R17 91V",
    "215/45R17 91W XL",
    "235/45R17 97W XL",
    "225/40R18 92Y XL",
    "235/40R18 95Y XL",
    "245/40R18 97Y XL",
    "255/35R18 94Y XL",
    "245/35R19 93Y XL",
];

fn pick<'a, T>(rng: &mut StdRng, from: &'a [T]) -> &'a T {
    &from[rng.random_range(0..from.len())]
}

fn catalogue(rng: &mut StdRng, wheels: u32, tires: u32) -> Catalogue {
    let wheel_sizes = ["17x7.5", "17x8", "18x8", "18x8.5", "18x9", "19x8.5"];
    let circles = ["5x112", "5x112", "5x112", "5x114.3"];
    let bores = ["CB57.1", "CB66.6", "CB56.1"];
    let maybe = |rng: &mut StdRng, value: f64| (rng.random::<f64>() < 0.8).then_some(value);
    let wheel = |rng: &mut StdRng, id: u32| {
        let offset = 30 + 5 * rng.random_range(0..5);
        let line =
            format!("{} ET{offset} {} {}", pick(rng, &wheel_sizes), pick(rng, &circles), pick(rng, &bores));
        let setup: Setup = line.parse().unwrap();
        let (load, mass, price) =
            (rng.random_range(550..800), rng.random_range(8..14), rng.random_range(150..900));
        WheelRow {
            id,
            line: (*pick(rng, &["Arc", "Bow", "Cove"])).into(),
            finish: "silver".into(),
            wheel: setup.wheel.unwrap(),
            more_circles: Vec::new(),
            seat: None,
            load_kg: maybe(rng, f64::from(load)),
            mass_kg: maybe(rng, f64::from(mass)),
            make: None,
            is_directional: false,
            overall_width: None,
            price: maybe(rng, f64::from(price * 100)).map(|price| price as u32),
            stock: maybe(rng, 4.0).map(|stock| stock as u32),
        }
    };
    let tire = |rng: &mut StdRng, id: u32| {
        let (mass, price) = (rng.random_range(8..13), rng.random_range(80..300));
        let (tread, stock) = (170 + 5 * rng.random_range(0..14), rng.random_range(0..6));
        TireRow {
            id,
            line: (*pick(rng, &["Reed", "Sedge"])).into(),
            tire: pick(rng, &SIZES).parse().unwrap(),
            kind: Some(*pick(rng, &[TireKind::SummerPerformance, TireKind::TrackDay, TireKind::Winter])),
            section: None,
            tread_width: maybe(rng, f64::from(tread)).and_then(Length::from_mm),
            overall_diameter: None,
            permitted: None,
            measuring_rim: None,
            mass_kg: maybe(rng, f64::from(mass)),
            void_pct: None,
            treadwear: None,
            has_rim_guard: None,
            wet_grade: "".into(),
            temperature_grade: "".into(),
            factory_mark: "".into(),
            is_directional: false,
            is_asymmetric: true,
            price: maybe(rng, f64::from(price * 100)).map(|price| price as u32),
            stock: maybe(rng, f64::from(stock)).map(|stock| stock as u32),
        }
    };
    let wheels = (1..=wheels).map(|id| wheel(rng, id)).collect();
    Catalogue { wheels, tires: (1..=tires).map(|id| tire(rng, id)).collect() }
}

fn corner(strut: Option<f64>, fender: Option<f64>) -> Corner {
    let on: Setup = FITTED.parse().unwrap();
    let one = |feature, gap: Option<f64>| {
        Some(Reading::new(feature, Length::from_mm(gap?)?, Length::from_mm(1.0)?, on))
    };
    let readings = [one(Feature::Strut, strut), one(Feature::FenderLateral, fender)];
    Corner { readings: readings.into_iter().flatten().collect(), camber_deg: Some(-1.0), ..Corner::default() }
}

/// A hub of 57.1 mm, and axles that ask 600 kg of each wheel.
fn record() -> fitment::car::Car {
    let mut car = fitment::car::Car::default();
    for axle in Axle::BOTH {
        car.note(Fact::HubBore, Some(axle), "57.1").unwrap();
        car.note(Fact::AxleRating, Some(axle), "1200").unwrap();
    }
    car
}

/// A car with its readings, for as long as a test looks at it.
struct Car {
    fitted: SetupPair,
    limits: HouseLimits,
    bay: CarState,
}

impl Car {
    fn new(front: Corner, rear: Corner) -> Self {
        let flush = StyleTarget { style: Style::Flush, within: None, is_show: false };
        Self {
            fitted: SetupPair::square(FITTED.parse().unwrap()),
            limits: HouseLimits::DEFAULT,
            bay: CarState::new(Corners { front, rear }, PairLevers::default(), (Some(flush), Some(flush)))
                .of_car(record()),
        }
    }

    fn look<T>(&self, ask: impl FnOnce(&Scene<'_>) -> T) -> T {
        let nothing = SetupPair::default();
        let plan = Case::new(&self.fitted, &nothing, Some(Drive::Front), &self.limits, None)
            .in_state(self.bay.clone());
        ask(&Scene { plan: &plan })
    }
}

fn wish(rng: &mut StdRng) -> SearchCriteria {
    let approach = *pick(rng, &[Approach::TireFirst, Approach::WheelFirst]);
    let rim = |code: f64| RimDiameter::from_code(code).unwrap();
    SearchCriteria {
        approach,
        uses: pick(rng, &[vec![], vec![Use::Daily], vec![Use::OccasionalTrack]]).clone(),
        season: *pick(rng, &[None, None, Some(Season::Summer), Some(Season::Winter)]),
        keeps: *pick(rng, &[KeptParts::Nothing, KeptParts::Nothing, KeptParts::Wheels, KeptParts::Tires]),
        arrangements: *pick(
            rng,
            &[Arrangements::Either, Arrangements::Either, Arrangements::Square, Arrangements::Staggered],
        ),
        mixed_diameters: rng.random::<bool>(),
        rims: (rim(17.0), rim(*pick(rng, &[18.0, 19.0]))),
        rear_rims: None,
        class: None,
        budget: pick(rng, &[None, None, Some(200_000), Some(300_000)]).to_owned(),
        thickest_spacer_mm: *pick(rng, &[0.0, 0.0, 10.0]),
        wheel_line: None,
        tire_line: None,
        weights: Weights::of(approach),
        count: 6,
    }
}

/// A setup of the obvious search: its geometry, its score, its price, its rows.
#[derive(Debug, Clone)]
struct Tried {
    geometry: String,
    score: f64,
    price: u64,
    ids: [u32; 4],
}

/// Which wheel and tire sizes they are: what differs in offset or spacer alone is one proposal.
fn geometry(front: &Setup, rear: &Setup) -> String {
    let of = |setup: &Setup| {
        let wheel = setup.wheel.map(|wheel| Wheel::plain(wheel.diameter, wheel.width));
        let tire = setup.tire.map(|tire| Tire::plain(tire.size));
        Setup { wheel, tire, ..Setup::default() }.to_string()
    };
    format!("{} | {}", of(front), of(rear))
}

/// How a wheel with a tire stands best on an axle: the setup with its spacer, and its weighted score.
fn stands(
    scene: &Scene<'_>,
    axle: Axle,
    wheel: &WheelRow,
    tire: &TireRow,
    wish: &SearchCriteria,
) -> Option<(Setup, f64)> {
    let trial = scene.plan.axle(axle)?;
    let zero = Wheel { offset: Offset::from_mm(0.0), ..wheel.wheel };
    let setup = Setup { wheel: Some(zero), tire: Some(Tire::plain(tire.tire.size)), ..Setup::default() };
    let wanted = scene.plan.state.wanted(axle);
    let window = trial.window(&setup, TireChoice::Same, &[zero.width], wanted).pop()?;
    let (reach, fitted) = (
        MountedSetup::of(&setup, trial.corner.camber())?,
        MountedSetup::of(trial.fitted, trial.corner.camber())?,
    );
    let change = overall_diameter(&tire.tire.size).as_mm()
        / overall_diameter(&trial.fitted.tire?.size).as_mm()
        * 100.0
        - 100.0;
    if change.abs() > scene.plan.limits.diameter_limit_pct {
        return None;
    }
    let weigh = |criterion, score: f64| wish.weights.on(criterion) * score;
    let mut best: Option<(Setup, f64)> = None;
    for spacer in [0.0, 3.0, 5.0, 8.0, 10.0, 12.0, 15.0, 20.0] {
        let at = wheel.wheel.offset?.as_mm() - spacer;
        if spacer > wish.thickest_spacer_mm || !window.clears(at) {
            continue;
        }
        let nearer = (
            reach.reach(Toward::Inboard, false) + at - fitted.reach(Toward::Inboard, false),
            reach.reach(Toward::Outboard, true) - at - fitted.reach(Toward::Outboard, true),
        );
        let room = (criteria::fit(&window, at, nearer) - spacer * 0.01).max(0.0);
        let worth = weigh(Criterion::Fit, room) + weigh(Criterion::Style, criteria::style(&window, at));
        if best.as_ref().is_none_or(|(_, most)| worth > *most) {
            let setup = Setup {
                wheel: Some(wheel.wheel),
                tire: Some(tire.tire),
                spacer: Spacer::from_mm(spacer),
                ..Setup::default()
            };
            best = Some((setup, worth));
        }
    }
    let (setup, worth) = best?;
    let limit = scene.plan.limits.diameter_limit_pct;
    let heat = criteria::heat_width(setup.section_width()?, trial.fitted.section_width());
    let worth = worth
        + weigh(Criterion::Diameter, criteria::diameter(change, limit))
        + weigh(Criterion::HeatWidth, heat);
    Some((setup, worth))
}

/// The catalogue with the owner's own in place of what is kept: on a square car a single row.
fn with_own(catalogue: &Catalogue, keeps: KeptParts) -> Catalogue {
    let own: Setup = FITTED.parse().unwrap();
    let mut with = catalogue.clone();
    match keeps {
        KeptParts::Nothing => {}
        KeptParts::Wheels => {
            let row = WheelRow { price: Some(0), stock: Some(4), ..WheelRow::plain(own.wheel.unwrap()) };
            with.wheels = vec![row];
        }
        KeptParts::Tires => {
            with.tires =
                vec![TireRow { price: Some(0), stock: Some(4), ..TireRow::plain(own.tire.unwrap()) }];
        }
    }
    with
}

fn everything(scene: &Scene<'_>, catalogue: &Catalogue, wish: &SearchCriteria) -> Vec<Tried> {
    let hub = fitment::CenterBore::from_mm(57.1);
    let circle = scene.plan.fitted.front.unwrap().wheel.unwrap().bolt_circle;
    let catalogue = &with_own(catalogue, wish.keeps);
    let dearest = |prices: Vec<Option<u32>>| prices.into_iter().flatten().max().unwrap_or(0);
    let dearest_wheel = dearest(catalogue.wheels.iter().map(|row| row.price).collect());
    let dearest_tire = dearest(catalogue.tires.iter().map(|row| row.price).collect());
    let mut axles: [Vec<(usize, usize, Setup, f64)>; 2] = [Vec::new(), Vec::new()];
    for (axle, list) in Axle::BOTH.into_iter().zip(&mut axles) {
        for (w, wheel) in catalogue.wheels.iter().enumerate() {
            for (t, tire) in catalogue.tires.iter().enumerate() {
                let rims = tire.alone().permitted_rims().unwrap();
                let service = tire.tire.service.unwrap();
                let may = wheel.wheel.bolt_circle == circle
                    && wheel.wheel.center_bore >= hub
                    && wheel.load_kg.is_none_or(|load| load >= 600.0)
                    && wheel.wheel.diameter >= wish.rims.0
                    && wheel.wheel.diameter <= wish.rims.1
                    && wheel.wheel.diameter == tire.tire.size.rim()
                    && rims.judge(wheel.wheel.width) != RimFit::NotPermitted
                    && wish.uses.iter().all(|wanted| tire.kind.is_none_or(|kind| kind.suits(*wanted)))
                    && match wish.season {
                        None => true,
                        Some(season) => tire.kind.is_none_or(|kind| kind.suits_season(season)),
                    }
                    && service.single.capacity_kg() >= 615.0
                    && (service.speed.top_speed_kmh() >= 270.0
                        || (tire.kind == Some(TireKind::Winter) && service.speed.top_speed_kmh() >= 160.0))
                    && (wish.budget.is_none() || (wheel.price.is_some() && tire.price.is_some()));
                if let Some((setup, worth)) = may.then(|| stands(scene, axle, wheel, tire, wish)).flatten() {
                    let rows = criteria::of_wheel(wheel, dearest_wheel, &wish.weights)
                        + criteria::of_tire(
                            tire,
                            wheel.wheel.width,
                            dearest_tire,
                            wish.is_driven_hard(),
                            &wish.weights,
                        );
                    list.push((w, t, setup, worth + rows));
                }
            }
        }
    }
    let fitted_diameter = overall_diameter(&scene.plan.fitted.front.unwrap().tire.unwrap().size);
    let mut best: BTreeMap<String, Tried> = BTreeMap::new();
    for (fw, ft, front, f_worth) in &axles[0] {
        for (rw, rt, rear, r_worth) in &axles[1] {
            let (f_wheel, r_wheel) = (&catalogue.wheels[*fw], &catalogue.wheels[*rw]);
            let (f_tire, r_tire) = (&catalogue.tires[*ft], &catalogue.tires[*rt]);
            let shape = |wheel: &WheelRow| (wheel.wheel.diameter, wheel.wheel.width, wheel.wheel.offset);
            let like_wheels = shape(f_wheel) == shape(r_wheel);
            let like_tires = f_tire.tire.size == r_tire.tire.size;
            let drift =
                (overall_diameter(&f_tire.tire.size) / overall_diameter(&r_tire.tire.size) - 1.0) * 100.0;
            let price = |row: Option<u32>| 2 * u64::from(row.unwrap_or(0));
            let total =
                price(f_wheel.price) + price(r_wheel.price) + price(f_tire.price) + price(r_tire.price);
            let may = (&f_wheel.line, &f_wheel.finish) == (&r_wheel.line, &r_wheel.finish)
                && f_tire.line == r_tire.line
                && (!like_wheels || fw == rw)
                && (!like_tires || ft == rt)
                && (wish.mixed_diameters || f_wheel.wheel.diameter == r_wheel.wheel.diameter)
                && match wish.arrangements {
                    Arrangements::Either | Arrangements::TypicalGaps => true,
                    Arrangements::Square => like_wheels && like_tires,
                    Arrangements::Staggered => {
                        f_wheel.wheel.width != r_wheel.wheel.width
                            || f_wheel.wheel.diameter != r_wheel.wheel.diameter
                            || !like_tires
                    }
                }
                // The car of these tests drives in front: a wider front is proposed when staggered is asked for.
                && (wish.arrangements == Arrangements::Staggered
                    || (r_wheel.wheel.width >= f_wheel.wheel.width
                        && r_tire.tire.size.named_section_width() >= f_tire.tire.size.named_section_width()))
                // Winter in front and summer behind, or the other way, is never proposed.
                && {
                    let is_winter = |row: &TireRow| row.kind.map(|kind| kind == TireKind::Winter);
                    let is_all_year = |row: &TireRow| row.kind == Some(TireKind::AllSeason);
                    let (ahead, behind) = (is_winter(f_tire), is_winter(r_tire));
                    let says_both = ahead.is_some() && behind.is_some();
                    !says_both || ahead == behind || is_all_year(f_tire) || is_all_year(r_tire)
                }
                && drift.abs() <= 2.5
                // The dial follows the driven axle in front, and nobody measured it: up to 2.5 % larger.
                && overall_diameter(&f_tire.tire.size) / fitted_diameter <= 1.025 + 1e-12
                && wish.budget.is_none_or(|budget| total <= u64::from(budget));
            if !may {
                continue;
            }
            let ratio = 2.0 * wish.weights.on(Criterion::Ratio) * criteria::diameter(drift, 2.5);
            let tried = Tried {
                geometry: geometry(front, rear),
                score: (f_worth + r_worth + ratio) / (2.0 * wish.weights.total()),
                price: total,
                ids: [f_wheel.id, r_wheel.id, f_tire.id, r_tire.id],
            };
            let kept = best.entry(tried.geometry.clone()).or_insert_with(|| tried.clone());
            if tried.score > kept.score {
                *kept = tried;
            }
        }
    }
    let mut all: Vec<Tried> = best.into_values().collect();
    all.sort_by(|a, b| b.score.total_cmp(&a.score).then(a.price.cmp(&b.price)).then(a.ids.cmp(&b.ids)));
    all
}

#[test]
fn the_ranking_is_the_one_that_trying_everything_gives() {
    let mut with_results = 0;
    for seed in 0..120 {
        let mut rng = StdRng::seed_from_u64(seed);
        let catalogue = catalogue(&mut rng, 14, 14);
        let gap = |rng: &mut StdRng, most: u32| {
            (rng.random::<f64>() < 0.7).then(|| f64::from(rng.random_range(8..most)))
        };
        let front = corner(gap(&mut rng, 30), gap(&mut rng, 40));
        let rear = corner(gap(&mut rng, 30), gap(&mut rng, 40));
        let wish = wish(&mut rng);
        Car::new(front, rear).look(|scene| {
            let (outcome, all) = (find(scene, &catalogue, &wish), everything(scene, &catalogue, &wish));
            let told: Vec<(String, f64)> = outcome
                .found
                .iter()
                .map(|found| (geometry(&found.front.setup, &found.rear.setup), found.score))
                .collect();
            assert_eq!(told.len(), all.len().min(wish.count), "seed {seed}: {told:#?}\n{all:#?}");
            with_results += usize::from(!told.is_empty());
            for (at, (geometry, score)) in told.iter().enumerate() {
                assert!(
                    (score - all[at].score).abs() < 1e-8,
                    "seed {seed}, place {at}: {score} {:?}",
                    all[at]
                );
                // Equal scores may stand in either order; all others in this one.
                let equals: Vec<&str> = all
                    .iter()
                    .filter(|one| (one.score - score).abs() < 1e-8)
                    .map(|one| one.geometry.as_str())
                    .collect();
                assert!(equals.contains(&geometry.as_str()), "seed {seed}, place {at}: {geometry}");
            }
            for found in &outcome.found {
                assert_eq!(found.front.wheel_row.is_none(), wish.keeps == KeptParts::Wheels);
                assert_eq!(found.rear.tire_row.is_none(), wish.keeps == KeptParts::Tires);
                assert!(!reasons(scene, &catalogue, &wish, found).is_empty(), "it has its reasons");
                assert!((weighted(found, &wish) - found.score).abs() < 1e-8, "scores add up");
                assert!(wish.budget.is_none_or(|budget| found.price <= u64::from(budget)));
            }
            assert!(outcome.obstruction.is_none() || outcome.found.is_empty());
        });
    }
    assert!(with_results > 20, "the catalogues are not all empty-handed: {with_results}");
}

fn weighted(found: &Found, wish: &SearchCriteria) -> f64 {
    let sum: f64 = Criterion::ALL.iter().map(|one| wish.weights.on(*one) * found.scores.of(*one)).sum();
    sum / wish.weights.total()
}

#[test]
fn what_stands_in_the_way_is_named() {
    let mut rng = StdRng::seed_from_u64(7);
    let catalogue = catalogue(&mut rng, 40, 40);
    let open = || SearchCriteria {
        uses: Vec::new(),
        season: None,
        keeps: KeptParts::Nothing,
        arrangements: Arrangements::Either,
        rear_rims: None,
        class: None,
        budget: None,
        mixed_diameters: true,
        rims: (RimDiameter::from_code(17.0).unwrap(), RimDiameter::from_code(19.0).unwrap()),
        ..wish(&mut StdRng::seed_from_u64(1))
    };
    let roomy = Car::new(corner(Some(40.0), Some(45.0)), corner(Some(40.0), Some(45.0)));
    let name = |car: &Car, wish: &SearchCriteria| {
        car.look(|scene| find(scene, &catalogue, wish).obstruction.map(|one| one.filter))
    };
    assert_eq!(name(&roomy, &open()), None, "setups are found");
    assert_eq!(name(&roomy, &SearchCriteria { budget: Some(100), ..open() }), Some(Filter::Budget));
    assert_eq!(name(&roomy, &SearchCriteria { uses: vec![Use::DragStrip], ..open() }), Some(Filter::Use));
    let nowhere = Car::new(corner(Some(5.0), Some(1.0)), corner(Some(5.0), Some(1.0)));
    assert_eq!(name(&nowhere, &open()), Some(Filter::Fit));
}

#[test]
fn moving_a_weight_moves_the_ranking_and_says_why() {
    let mut rng = StdRng::seed_from_u64(11);
    let catalogue = catalogue(&mut rng, 60, 60);
    let car = Car::new(corner(Some(30.0), Some(40.0)), corner(Some(30.0), Some(40.0)));
    let base = SearchCriteria {
        rear_rims: None,
        class: None,
        budget: None,
        uses: Vec::new(),
        season: None,
        keeps: KeptParts::Nothing,
        count: 3,
        ..wish(&mut rng)
    };
    let priced = |weight: f64| {
        let mut weights = Weights::of(Approach::TireFirst).with(Criterion::Price, weight);
        if weight > 1.0 {
            for one in Criterion::ALL.iter().filter(|one| **one != Criterion::Price) {
                weights = weights.with(*one, 0.0);
            }
        }
        SearchCriteria { weights, ..base.clone() }
    };
    car.look(|scene| {
        let (by_all, by_price) =
            (find(scene, &catalogue, &priced(1.0)), find(scene, &catalogue, &priced(10.0)));
        let best = |outcome: &fitment::answers::finder::Outcome| outcome.found[0].scores.of(Criterion::Price);
        assert!(best(&by_price) >= best(&by_all), "when only the price counts the cheapest comes first");
        let said = why_above(&by_all.found[0], &by_all.found[1], &priced(1.0));
        assert!(!said.0.is_empty());
    });
}
