//! A plan in motion past the parts that were read: words, how sure they are, what turns them, the window that clears on the
//! road, and the tallest tire at each lift.
use fitment::answers::dynamic_clearance::lift::{LIFTS_MM, lift_ladder, usual};
use fitment::answers::dynamic_clearance::remedies::{Remedied, Remedy, is_ruled_out_in_motion, remedies};
use fitment::answers::dynamic_clearance::{Stretch, SweptAxle, SweptPart, Usage, window_in_motion};
use fitment::car::corner::{Corner, Feature, Moving, Reading, Steer};
use fitment::car::lever::{Lever, Levers};
use fitment::car::limits::HouseLimits;
use fitment::car::motion::sweep::GRID;
use fitment::car::motion::{Envelope, Pose};
use fitment::car::section::Added;
use fitment::car::{Car, Fact};
use fitment::judgement::case::AxleCase;
use fitment::judgement::clearance::Input;
use fitment::judgement::window::{TireChoice, WidthWindow, widths_round};
use fitment::setup::{Axle, Setup};
use fitment::values::working::{Fragment, Phrase};
use fitment::{Length, values::verdict::Verdict};
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};

const FITTED: &str = "17x7 ET45 225/65R17";

/// An axle as it was read.
struct Shop {
    axle: Axle,
    facts: Vec<(Fact, &'static str)>,
    readings: Vec<Reading>,
    levers: Levers,
}

impl Shop {
    fn front(readings: Vec<Reading>) -> Self {
        let facts = vec![(Fact::SuspensionKind, "strut"), (Fact::Inclination, "13")];
        Self { axle: Axle::Front, facts, readings, levers: Levers::default() }
    }

    fn rear(readings: Vec<Reading>) -> Self {
        let facts = vec![(Fact::SuspensionKind, "multi-link")];
        Self { axle: Axle::Rear, facts, readings, levers: Levers::default() }
    }

    fn with(mut self, fact: Fact, value: &'static str) -> Self {
        self.facts.push((fact, value));
        self
    }

    fn ask<T>(&self, ask: impl FnOnce(&AxleCase<'_>) -> T) -> T {
        let fitted = setup(FITTED);
        let mut car = Car::default();
        for (fact, value) in &self.facts {
            let axle = fact.facts().is_per_axle.then_some(self.axle);
            car.note(*fact, axle, value).unwrap();
        }
        let moving = Some(Moving::of(&car, self.axle, Some(&fitted)));
        let readings = self.readings.clone();
        let corner = Corner { readings, camber_deg: Some(0.0), moving, ..Corner::default() };
        let (resolved, limits) = (corner.resolve(), HouseLimits::DEFAULT);
        ask(&AxleCase::new(self.axle, &corner, &resolved, &fitted, &limits, &self.levers))
    }

    fn swept(&self, planned: &str, usage: impl Into<Usage>) -> SweptAxle {
        self.ask(|case| case.sweep(&setup(planned), &usage.into()).unwrap())
    }
}

fn mm(mm: f64) -> Length {
    Length::from_mm(mm).unwrap()
}

/// A phrase's words, its figures left out.
fn words(phrase: &Phrase) -> String {
    let of = |fragment: &Fragment| match fragment {
        Fragment::Text(text) => text.to_string(),
        Fragment::Quantity(_) => "#".to_owned(),
    };
    phrase.0.iter().map(of).collect()
}

fn setup(line: &str) -> Setup {
    line.parse().unwrap()
}

fn reading(feature: Feature, gap: f64) -> Reading {
    Reading::new(feature, mm(gap), mm(1.0), setup(FITTED))
}

fn at_radius(feature: Feature, gap: f64, radius: f64) -> Reading {
    Reading { radius: Some(mm(radius)), ..reading(feature, gap) }
}

fn of(swept: &SweptAxle, feature: Feature) -> &SweptPart {
    swept.part(feature).unwrap()
}

fn over(swept: &SweptAxle, feature: Feature, stretch: Stretch) -> (f64, Verdict) {
    let one = of(swept, feature).over(stretch).unwrap();
    (one.room_mm, one.verdict)
}

#[test]
fn the_perch_of_a_strut_keeps_its_gap_and_the_lip_closes_with_bump() {
    let shop = Shop::front(vec![
        at_radius(Feature::SpringPerch, 14.0, 345.0),
        reading(Feature::Arch, 90.0),
        reading(Feature::FenderLateral, 12.0),
    ]);
    let all = shop.swept(FITTED, Envelope::All);
    let perch = of(&all, Feature::SpringPerch);
    assert_eq!(perch.found.least_mm, perch.found.at_rest_mm);
    assert!(perch.map.iter().all(|room| (room - perch.found.at_rest_mm).abs() < 1e-9));
    assert!(
        Stretch::ALL.iter().all(|stretch| over(&all, Feature::SpringPerch, *stretch).1 == Verdict::Clears)
    );
    // Lip and arch were both read: they are one edge of metal, and asked for by either name.
    let lip = of(&all, Feature::FenderLateral);
    assert!(lip.part.is_with_the_arch && std::ptr::eq(lip, of(&all, Feature::Arch)));
    // The lip stands beyond the sidewall, so the shortest way to the tread is a little longer than straight up.
    assert!((90.0..110.0).contains(&lip.found.at_rest_mm), "{:?}", lip.found);
    assert!(lip.found.least_mm < 45.0 && lip.found.at.travel_mm > 60.0, "{:?}", lip.found);
    assert_eq!(all.poses.len(), GRID.0 * GRID.1);
    assert_eq!(lip.map.len(), all.poses.len());
}

#[test]
fn standing_still_it_is_the_ledgers_word_and_figure() {
    let shop = Shop::front(vec![reading(Feature::Arch, 30.0), reading(Feature::Strut, 9.0)]);
    let all = shop.swept("17x7.5 ET45 235/65R17", Envelope::Road);
    shop.ask(|case| {
        let fit = case.fit(&setup("17x7.5 ET45 235/65R17")).unwrap();
        for feature in [Feature::Arch, Feature::Strut] {
            let line = fit.line(feature).unwrap();
            let room = line.band.as_ref().unwrap().nominal.as_mm();
            assert_eq!(over(&all, feature, Stretch::Standing), (room, line.verdict), "{feature:?}");
        }
        assert!(all.verdict >= fit.verdict, "never a better word than standing still");
    });
}

#[test]
fn what_leans_with_the_wheel_has_the_ledgers_room_at_rest_whatever_the_camber() {
    for (axle, kind) in [(Axle::Front, "strut"), (Axle::Rear, "multi-link"), (Axle::Rear, "strut")] {
        let mut shop = Shop::rear(vec![
            at_radius(Feature::Strut, 20.0, 262.0),
            at_radius(Feature::SpringPerch, 22.0, 345.0),
            at_radius(Feature::Knuckle, 18.0, 190.0),
        ])
        .with(Fact::SuspensionKind, kind)
        .with(Fact::CamberBy, "strut-top plates");
        shop.axle = axle;
        shop.levers.set(Lever::Camber, -2.5).unwrap();
        let all = shop.swept("17x7.5 ET42 225/65R17", Envelope::Road);
        shop.ask(|case| {
            let fit = case.fit(&setup("17x7.5 ET42 225/65R17")).unwrap();
            for feature in [Feature::Strut, Feature::SpringPerch, Feature::Knuckle] {
                let room = fit.line(feature).unwrap().band.as_ref().unwrap().nominal.as_mm();
                let swept = of(&all, feature).found.at_rest_mm;
                // A strut is an edge there and places along it here, a knuckle has some width here.
                assert!((room - swept).abs() < 0.8, "{axle:?} {kind} {feature:?}: {room} {swept}");
            }
        });
    }
}

#[test]
fn each_stretch_is_a_part_of_the_whole() {
    let shop = Shop::front(vec![
        reading(Feature::FenderLateral, 8.0),
        reading(Feature::Arch, 70.0),
        Reading { steer: Steer::LockRight, ..reading(Feature::LinerAhead, 22.0) },
        Reading { steer: Steer::LockLeft, ..reading(Feature::SillBehind, 25.0) },
    ]);
    for envelope in [Envelope::All, Envelope::Road, Envelope::OffRoad] {
        let all = shop.swept("17x7.5 ET38 235/65R17", envelope);
        for part in &all.parts {
            let room = |stretch| part.over(stretch).unwrap().room_mm;
            assert_eq!(part.stretches.len(), 4);
            let together = room(Stretch::Together);
            assert_eq!(together, part.found.least_mm);
            // Refined to 0.05 mm each.
            for stretch in [Stretch::AtLock, Stretch::OverBumps] {
                assert!(together <= room(stretch) + 0.06, "{:?} {stretch:?}", part.part.feature);
                let at = part.over(stretch).unwrap().at;
                let still = if stretch == Stretch::AtLock { at.travel_mm } else { at.steer_deg };
                assert_eq!(still, 0.0, "{stretch:?}");
            }
        }
    }
}

#[test]
fn what_was_read_at_lock_has_its_gap_there_and_more_when_straight() {
    let shop = Shop::front(vec![
        Reading { steer: Steer::LockRight, ..reading(Feature::LinerAhead, 22.0) },
        Reading { steer: Steer::LockLeft, ..reading(Feature::SillBehind, 25.0) },
    ]);
    let all = shop.swept(FITTED, Envelope::Parking);
    for (feature, gap) in [(Feature::LinerAhead, 22.0), (Feature::SillBehind, 25.0)] {
        let part = of(&all, feature);
        assert!(part.found.least_mm <= gap + 0.5 && part.found.at_rest_mm > 0.0, "{:?}", part.found);
    }
}

#[test]
fn a_poked_wheel_touches_ahead_from_some_lock_on() {
    // 25 mm further out it comes forward at inward lock: it touches from some angle on, and less lock would do.
    let shop = Shop::front(vec![Reading { steer: Steer::LockRight, ..reading(Feature::LinerAhead, 9.0) }])
        .with(Fact::LockInward, "31")
        .with(Fact::LockOutward, "37");
    let all = shop.swept("17x7 ET15 225/65R17", Envelope::Parking);
    let liner = of(&all, Feature::LinerAhead);
    assert!(liner.found.touches_from_steer_deg.unwrap() < 0.0, "{:?}", liner.found);
    assert_eq!(all.verdict, Verdict::Touches);
    assert_eq!(all.says.len(), 1, "the scrub radius: {:?}", all.says);
}

#[test]
fn without_readings_nothing_is_known() {
    let all = Shop::front(Vec::new()).swept(FITTED, Envelope::Road);
    assert_eq!((all.verdict, all.parts.len()), (Verdict::MeasureFirst, 0));
    let bounds = all.bounds(Envelope::Road);
    assert!(
        bounds.iter().all(|pose| all.reach.holds(Envelope::Road, all.reach.nearest(Envelope::Road, *pose)))
    );
}

#[test]
fn what_nobody_measured_rules_nothing_out_while_its_mild_end_does_not() {
    // The lip lies over the tread, 75 mm above it, and as usual there are 80 mm of bump: with 25 less it would clear.
    let readings = vec![reading(Feature::FenderLateral, -45.0), reading(Feature::Arch, 75.0)];
    let guessed = Shop::rear(readings.clone()).swept(FITTED, Envelope::Road);
    let bumps = of(&guessed, Feature::Arch).over(Stretch::OverBumps).unwrap();
    assert_eq!(
        (bumps.verdict, bumps.decided_by),
        (Verdict::MeasureFirst, Some(Input::BumpTravel)),
        "{bumps:?}"
    );
    assert!(words(&of(&guessed, Feature::Arch).says).contains("bump travel decides"));
    let known = Shop::rear(readings.clone()).with(Fact::BumpTravel, "80").swept(FITTED, Envelope::Road);
    assert_eq!(over(&known, Feature::Arch, Stretch::OverBumps).1, Verdict::Touches);
    let short = Shop::rear(readings).with(Fact::BumpTravel, "40").swept(FITTED, Envelope::Road);
    assert_eq!(over(&short, Feature::Arch, Stretch::OverBumps).1, Verdict::Clears);
}

#[test]
fn a_measured_travel_counts_by_as_much_as_it_may_be_off() {
    let arch = vec![reading(Feature::FenderLateral, -60.0), reading(Feature::Arch, 90.0)];
    let off = |shop: &Shop, input| {
        let all = shop.swept(FITTED, Envelope::Road);
        let bumps = of(&all, Feature::Arch).over(Stretch::OverBumps).unwrap().clone();
        bumps.contributions.iter().find(|one| one.input == input).map(|one| one.down.as_mm())
    };
    let solid = |arch| Shop::rear(arch).with(Fact::SuspensionKind, "solid axle");
    let known = solid(arch.clone()).with(Fact::BumpTravel, "60");
    // The lip lies over the tread: 5 mm of travel more take 5 mm of room.
    let by = off(&known, Input::BumpTravel).unwrap();
    assert!((by - 5.0).abs() < 0.1, "{by}");
    let usual = off(&solid(arch), Input::BumpTravel).unwrap();
    assert!((usual - 25.0).abs() < 0.3, "{usual}");
    // House figure for body and bushings.
    assert_eq!(off(&known, Input::Compliance), Some(5.0));
    let parked = known.swept(FITTED, Envelope::Parking);
    let together = of(&parked, Feature::Arch).over(Stretch::Together).unwrap();
    assert!(together.contributions.iter().all(|one| one.input != Input::Compliance), "nothing at a crawl");
}

#[test]
fn chains_and_growth_take_their_room() {
    let shop = Shop::front(vec![
        at_radius(Feature::SpringPerch, 30.0, 345.0),
        at_radius(Feature::Strut, 30.0, 262.0),
        reading(Feature::FenderLateral, 20.0),
    ]);
    let plain = shop.swept(FITTED, Envelope::Parking);
    let with = |added| shop.swept(FITTED, Usage { envelope: Envelope::Parking, added });
    let chained = with(Added { chains_mm: 14.0, ..Added::default() });
    let lost = |swept: &SweptAxle, feature| {
        over(&plain, feature, Stretch::AtLock).0 - over(swept, feature, Stretch::AtLock).0
    };
    // What the chain maker says is lost beside the inner sidewall, and at least that past a corner.
    assert!((lost(&chained, Feature::Strut) - 14.0 * f64::to_radians(12.0).cos()).abs() < 1.5);
    assert!(lost(&chained, Feature::SpringPerch) > 13.5);
    assert!(lost(&chained, Feature::FenderLateral) <= 14.1, "outside there are none");
    let fast = with(Added { speed_kmh: 200.0, ..Added::default() });
    let grown = lost(&fast, Feature::SpringPerch);
    assert!((0.0..=1.5).contains(&grown), "0.4 % of the radius is 1.4 mm: {grown}");
}

#[test]
fn a_lift_gives_room_standing_and_none_at_full_bump() {
    let readings = vec![reading(Feature::FenderLateral, -60.0), reading(Feature::Arch, 95.0)];
    let at = |lift: f64| {
        let mut shop = Shop::rear(readings.clone())
            .with(Fact::SuspensionKind, "solid axle")
            .with(Fact::BumpTravel, "70");
        shop.levers.set(Lever::RideHeight, lift).unwrap();
        shop.swept(FITTED, Envelope::OffRoad)
    };
    let (stock, lifted) = (at(0.0), at(40.0));
    assert_eq!(lifted.reach.bump_mm, stock.reach.bump_mm + 40.0, "the stop stays where it was");
    let rest = |swept: &SweptAxle| of(swept, Feature::Arch).found.at_rest_mm;
    // But for the round of the tread.
    assert!((rest(&lifted) - rest(&stock) - 40.0).abs() < 0.5);
    let bumps = |swept: &SweptAxle| over(swept, Feature::Arch, Stretch::OverBumps).0;
    assert!((bumps(&lifted) - bumps(&stock)).abs() < 0.06, "{} {}", bumps(&lifted), bumps(&stock));
}

fn remedy(all: &[Remedied], remedy: Remedy) -> Option<f64> {
    all.iter().find(|one| one.remedy == remedy).unwrap().amount
}

#[test]
fn each_remedy_turns_the_verdict_or_is_said_not_to() {
    let shop = Shop::front(vec![
        Reading { steer: Steer::LockRight, ..reading(Feature::LinerAhead, 12.0) },
        reading(Feature::Arch, 120.0),
        reading(Feature::FenderLateral, 60.0),
        at_radius(Feature::Strut, 40.0, 262.0),
    ])
    .with(Fact::LockInward, "31")
    .with(Fact::LockOutward, "37")
    .with(Fact::BumpTravel, "60");
    let planned = setup("17x7 ET20 225/65R17");
    let usage = Usage::from(Envelope::Road);
    shop.ask(|case| {
        assert_eq!(is_ruled_out_in_motion(case, &planned, &usage), Some(true));
        let all = remedies(case, &planned, &usage);
        assert_eq!(all.len(), Remedy::ALL.len());
        for one in &all {
            assert_eq!(words(&one.says).contains("does not turn it"), one.amount.is_none(), "{:?}", one.says);
            assert!(one.caution.ends_with('.'));
        }
        // The liner's edge can be cut, the wheel's offset can be had; setting the wheel forward brings it nearer to what is
        // ahead.
        let cut = remedy(&all, Remedy::Trim).unwrap();
        let trimmed = Levers::default();
        let mut enough = trimmed;
        enough.set(Lever::LinerTrimmed, cut.min(15.0)).unwrap();
        let again = |levers: &Levers, setup: &Setup| {
            is_ruled_out_in_motion(&AxleCase { levers, ..*case }, setup, &usage) == Some(true)
        };
        assert!(!again(&enough, &planned), "trimmed by {cut} it clears");
        assert_eq!(remedy(&all, Remedy::WheelForward), None);
        let offset = remedy(&all, Remedy::Offset).unwrap();
        assert!(offset > 20.0, "{offset}");
        assert!(!again(&trimmed, &setup(&format!("17x7 ET{offset} 225/65R17"))));
        assert!(again(&trimmed, &setup(&format!("17x7 ET{} 225/65R17", offset - 2.0))));
        // What clears needs none.
        assert!(remedies(case, &setup(FITTED), &usage).is_empty());
    });
}

#[test]
fn a_bump_stop_gives_up_no_more_than_it_must() {
    let planned = setup(FITTED);
    let usage = Usage::from(Envelope::Road);
    let solid = |bump: &'static str| {
        let shop = Shop::rear(vec![reading(Feature::Arch, 60.0)]);
        shop.with(Fact::SuspensionKind, "solid axle").with(Fact::BumpTravel, bump)
    };
    let given = solid("110").ask(|case| remedy(&remedies(case, &planned, &usage), Remedy::BumpStop)).unwrap();
    assert!(given > 0.0 && given < 110.0, "{given}");
    let rules_out = |bump: f64| {
        let bump: &'static str = Box::leak(format!("{bump}").into_boxed_str());
        solid(bump).ask(|case| is_ruled_out_in_motion(case, &planned, &usage).unwrap())
    };
    assert!(!rules_out(110.0 - given) && rules_out(110.0 - given + 1.5), "{given}");
    // Outside of the lip the ledger rules it out standing: no stop helps.
    let poked = Shop::rear(vec![reading(Feature::FenderLateral, -6.0), reading(Feature::Arch, 60.0)]);
    let all = poked.ask(|case| remedies(case, &planned, &usage));
    assert_eq!(remedy(&all, Remedy::BumpStop), None);
    assert!(remedy(&all, Remedy::Offset).is_some());
}

/// An axle with whatever was read on it, and a plan.
fn drawn(rng: &mut StdRng) -> (Shop, Setup) {
    let mut gap = |least: f64, most: f64| (rng.random_range(least..most) * 2.0).round() / 2.0;
    let mut readings = vec![
        reading(Feature::FenderLateral, gap(5.0, 45.0)),
        reading(Feature::Arch, gap(50.0, 130.0)),
        at_radius(Feature::Strut, gap(8.0, 35.0), 262.0),
    ];
    let is_front = gap(0.0, 1.0) < 0.6;
    if is_front {
        readings.push(Reading { steer: Steer::LockRight, ..reading(Feature::LinerAhead, gap(8.0, 40.0)) });
        readings.push(Reading { steer: Steer::LockLeft, ..reading(Feature::SillBehind, gap(8.0, 40.0)) });
        readings.push(Reading { steer: Steer::LockLeft, ..reading(Feature::Frame, gap(12.0, 40.0)) });
    }
    let planned = format!(
        "17x{} ET{} {}/65R17",
        7.0 + (rng.random_range(0..4) as f64) / 2.0,
        rng.random_range(25..50),
        rng.random_range(21..25) * 10 + 5
    );
    let shop = if is_front {
        Shop::front(readings).with(Fact::LockInward, "30").with(Fact::LockOutward, "36")
    } else {
        Shop::rear(readings)
    };
    (shop.with(Fact::BumpTravel, "55").with(Fact::DroopTravel, "70"), setup(&planned))
}

#[test]
fn the_window_on_the_road_lies_inside_the_one_that_stands_and_its_edges_are_the_sweeps() {
    let mut rng = StdRng::seed_from_u64(0x0a0d);
    let (mut edges, mut narrower) = (0, 0);
    for _ in 0..14 {
        let (shop, planned) = drawn(&mut rng);
        let usage = Usage::from(Envelope::Road);
        shop.ask(|case| {
            let widths = widths_round(Some(&setup(FITTED)), Some(&planned));
            let standing = case.window(&planned, TireChoice::Same, &widths, None);
            let moving = window_in_motion(case, &planned, &standing, &usage).unwrap();
            assert_eq!(moving.len(), standing.len());
            // How sure it is counts as at the planned place; the offset is kept in hundredths.
            let plan = case.sweep(&planned, &usage).unwrap();
            for (outer, inner) in standing.iter().zip(&moving) {
                let least =
                    |window: &WidthWindow| window.least.map_or(f64::NEG_INFINITY, |edge| edge.offset_mm);
                let most = |window: &WidthWindow| window.most.map_or(f64::INFINITY, |edge| edge.offset_mm);
                assert!(least(inner) >= least(outer) && most(inner) <= most(outer), "nested");
                assert!(outer.blocked_by.iter().all(|part| inner.blocked_by.contains(part)));
                if !inner.is_open() {
                    continue;
                }
                // At an edge that motion sets, the sweep itself has just the room that is wanted there.
                for (edge, was) in [(inner.least, outer.least), (inner.most, outer.most)] {
                    let Some(edge) = edge.filter(|edge| was.map(|was| was.offset_mm) != Some(edge.offset_mm))
                    else {
                        continue;
                    };
                    let mut wheel = planned.wheel.unwrap();
                    wheel.width = inner.rim_width;
                    wheel.offset = fitment::Offset::from_mm(edge.offset_mm);
                    let there = Setup { wheel: Some(wheel), ..planned };
                    let swept = case.sweep(&there, &usage).unwrap();
                    let part = swept.part(edge.bound_by).unwrap();
                    let wanted = plan.part(edge.bound_by).unwrap().clears_from();
                    assert!(
                        (part.found.least_mm - wanted).abs() < 0.35,
                        "{planned} {} at {}: {} against {wanted}",
                        edge.bound_by.code(),
                        edge.offset_mm,
                        part.found.least_mm
                    );
                    edges += 1;
                }
                narrower += usize::from(least(inner) > least(outer) || most(inner) < most(outer));
            }
        });
    }
    assert!(edges > 20 && narrower > 20, "{edges} {narrower}");
}

#[test]
fn nothing_that_moves_makes_no_window_on_the_road() {
    let shop = Shop::front(vec![at_radius(Feature::Strut, 20.0, 262.0)]);
    shop.ask(|case| {
        let planned = setup(FITTED);
        let standing = case.window(&planned, TireChoice::Same, &widths_round(Some(&planned), None), None);
        assert_eq!(window_in_motion(case, &planned, &standing, &Usage::from(Envelope::Road)), None);
    });
}

#[test]
fn growth_asks_for_what_the_trade_says() {
    // From the shared notes on motion, common practice: to 25 mm bolts on, then 25–50, 50–75, 75–115, beyond.
    for (growth, says) in [
        (-5.0, "bolts on"),
        (25.0, "bolts on"),
        (30.0, "40 to 60 mm"),
        (60.0, "60 to 75 mm"),
        (100.0, "body mount cut"),
        (120.0, "other axles"),
    ] {
        assert!(usual(growth).contains(says), "{growth}: {}", usual(growth));
    }
}

#[test]
fn no_lift_helps_past_the_perch_and_some_helps_past_the_pinch_weld() {
    let shop = Shop::front(vec![
        at_radius(Feature::SpringPerch, 11.0, 348.0),
        reading(Feature::FenderLateral, 40.0),
        reading(Feature::Arch, 130.0),
        Reading { steer: Steer::LockLeft, ..reading(Feature::SillBehind, 30.0) },
    ])
    .with(Fact::LockInward, "31")
    .with(Fact::LockOutward, "37")
    .with(Fact::BumpTravel, "60");
    let reference = setup(FITTED).overall_diameter().unwrap();
    shop.ask(|case| {
        let ladder =
            lift_ladder(case, &setup(FITTED), reference, &Usage::from(Envelope::Road), &|_| false).unwrap();
        assert!(ladder.tires.len() >= 5, "{ladder:?}");
        assert!(ladder.tires.is_sorted_by(|a, b| a.overall_diameter < b.overall_diameter));
        assert_eq!(ladder.not_helped.len(), 1);
        let (feature, tallest) = ladder.not_helped[0];
        assert_eq!(feature, Feature::SpringPerch);
        let tallest = tallest.unwrap();
        assert!(tallest + 1 < ladder.tires.len(), "the perch sets the tallest");
        for tire in &ladder.tires[tallest + 1..] {
            for lifted in &tire.at {
                assert!(lifted.short.iter().any(|(part, _)| *part == Feature::SpringPerch), "at every lift");
            }
        }
        let most = |at: &Option<usize>| at.is_none_or(|at| at <= tallest);
        assert!(ladder.tallest.iter().all(most), "nothing that the perch stops, at any lift: {ladder:?}");
        // Body parts never get less room by a lift on the road.
        for tire in &ladder.tires {
            assert_eq!(tire.at.len(), LIFTS_MM.len());
            let short = |at: usize, part: Feature| {
                tire.at[at].short.iter().find(|(one, _)| *one == part).map_or(0.0, |(_, by)| *by)
            };
            assert!(short(LIFTS_MM.len() - 1, Feature::SillBehind) <= short(0, Feature::SillBehind) + 0.1);
        }
        assert!(ladder.says.iter().any(|said| words(said).contains("no lift helps")));
    });
}

#[test]
fn no_tallest_is_named_over_what_nobody_read() {
    // Only the arch was read: the perch beside a wider tire decides, and nobody knows it.
    let shop = Shop::front(vec![reading(Feature::Arch, 200.0)]).with(Fact::BumpTravel, "60");
    let reference = setup(FITTED).overall_diameter().unwrap();
    shop.ask(|case| {
        let ladder = lift_ladder(
            case,
            &setup("17x8 ET25 245/65R17"),
            reference,
            &Usage::from(Envelope::Road),
            &|_| false,
        )
        .unwrap();
        for (lift, tallest) in ladder.tallest.iter().enumerate() {
            assert_eq!(*tallest, None, "at {} mm", LIFTS_MM[lift]);
            let as_read = ladder.tallest_as_read[lift].unwrap();
            let cell = &ladder.tires[as_read].at[lift];
            assert!(cell.verdict == Verdict::MeasureFirst && !cell.unread.is_empty(), "{cell:?}");
        }
        let said = words(&ladder.says[0]);
        assert!(said.contains("as far as what was read") && said.contains("Measure first"), "{said}");
    });
}

#[test]
fn a_pose_of_least_room_holds_what_is_said_of_it() {
    let mut rng = StdRng::seed_from_u64(7);
    for _ in 0..12 {
        let (shop, planned) = drawn(&mut rng);
        let all = shop.ask(|case| case.sweep(&planned, &Usage::from(Envelope::Road)).unwrap());
        for part in &all.parts {
            let Pose { steer_deg, travel_mm } = part.found.at;
            assert!(all.reach.holds(Envelope::Road, all.reach.nearest(Envelope::Road, part.found.at)));
            let kinematics = all.wheel.kinematics;
            let pose = Pose { steer_deg, travel_mm };
            let room = kinematics.room(&all.wheel.outline, all.wheel.center_y, &part.part.cloud, pose);
            assert!((room - part.found.least_mm).abs() < 1e-9);
            let least_of_map = part.map.iter().copied().fold(f64::INFINITY, f64::min);
            assert!(part.over(Stretch::Standing).is_some() && least_of_map <= part.found.at_rest_mm + 1e-9);
        }
    }
}

#[test]
fn camber_from_the_struts_foot_takes_its_room_and_from_its_top_none() {
    let with = |by: Option<&'static str>| {
        let mut shop =
            Shop::front(vec![at_radius(Feature::Strut, 30.0, 262.0), reading(Feature::FenderLateral, 20.0)]);
        if let Some(by) = by {
            shop = shop.with(Fact::CamberBy, by);
        }
        shop.levers.set(Lever::Camber, -2.0).unwrap();
        shop.ask(|case| {
            let fit = case.fit(&setup(FITTED)).unwrap();
            [Feature::Strut, Feature::FenderLateral]
                .map(|feature| fit.line(feature).unwrap().band.as_ref().unwrap().nominal.as_mm())
        })
    };
    let plates = with(Some("strut-top plates"));
    let bolts = with(Some("bolts at the strut's foot"));
    assert!((plates[0] - 30.0).abs() < 0.5, "the gap is kept: {plates:?}");
    // At its widest, some 290 mm above the axle: 290 · sin 2° = 10.1 mm (geometry).
    assert!((plates[0] - bolts[0] - 10.1).abs() < 0.3, "{plates:?} {bolts:?}");
    assert_eq!(with(None)[0], bolts[0], "unknown: the worst");
    assert_eq!(plates[1], bolts[1]);
    let arm = with(Some("a longer lower arm"));
    assert!(plates[1] - arm[1] > 9.0, "a wheel that leans about its top gains nothing at the lip");
}

#[test]
fn the_rear_has_parts_of_its_own_and_some_lie_under_the_axle() {
    let shop = Shop::rear(vec![
        reading(Feature::InnerWheelhouse, 20.0),
        reading(Feature::FrameRail, 26.0),
        at_radius(Feature::TrailingArm, 18.0, 240.0),
        reading(Feature::Exhaust, 40.0),
        at_radius(Feature::LowerArm, 16.0, 206.0),
    ])
    .with(Fact::BumpTravel, "70");
    // 25 mm further in: what was read level is as much nearer.
    let deep = "17x7 ET70 225/65R17";
    shop.ask(|case| {
        let fit = case.fit(&setup(deep)).unwrap();
        let verdict = |feature| fit.line(feature).unwrap().verdict;
        let room = |feature| fit.line(feature).unwrap().band.as_ref().unwrap().nominal.as_mm();
        for (feature, gap) in
            [(Feature::InnerWheelhouse, 20.0), (Feature::FrameRail, 26.0), (Feature::Exhaust, 40.0)]
        {
            assert!((room(feature) - (gap - 25.0)).abs() < 0.2, "{feature:?}: {}", room(feature));
        }
        assert_eq!(verdict(Feature::InnerWheelhouse), Verdict::Touches);
        assert_eq!(verdict(Feature::FrameRail), Verdict::Tight);
        assert_eq!(verdict(Feature::Exhaust), Verdict::Clears);
        assert!(verdict(Feature::TrailingArm).rules_out());
        let window =
            case.window(&setup(deep), TireChoice::Same, &widths_round(Some(&setup(FITTED)), None), None);
        let width = window.iter().find(|one| one.rim_width.code() == 7.0).unwrap();
        let most = width.most.unwrap();
        // The arm under the axle is the nearest: of its 16 mm five are the house's, and the band takes some.
        assert_eq!(most.bound_by, Feature::LowerArm, "{most:?}");
        assert!(most.offset_mm > 50.0 && most.offset_mm <= 45.0 + 16.0 - 5.0 + 0.2, "{most:?}");
    });
    let all = shop.swept(FITTED, Envelope::OffRoad);
    let arm = of(&all, Feature::LowerArm);
    assert!(arm.part.cloud.points.iter().all(|place| place[2] < 0.0), "under the axle");
    assert!(of(&all, Feature::TrailingArm).part.cloud.points.iter().all(|place| place[2] > 0.0));
    // A tie-rod end steers and travels along; on the rear there is none.
    assert!(!Feature::TieRodEnd.is_read_on(Axle::Rear));
    let front = Shop::front(vec![at_radius(Feature::TieRodEnd, 14.0, 208.0)]);
    let tie_rod = front.swept("17x7 ET50 225/65R17", Envelope::All);
    let found = of(&tie_rod, Feature::TieRodEnd).found;
    assert_eq!(found.least_mm, found.at_rest_mm);
}

#[test]
fn every_remedy_that_is_said_to_turn_it_does_and_a_little_less_does_not() {
    let mut rng = StdRng::seed_from_u64(0xbead);
    let (mut turned, mut not) = (0, 0);
    for _ in 0..40 {
        let (shop, planned) = drawn(&mut rng);
        let usage = Usage::from(Envelope::Road);
        shop.ask(|case| {
            let stopped = |levers: &Levers, setup: &Setup| {
                is_ruled_out_in_motion(&AxleCase { levers, ..*case }, setup, &usage).unwrap()
            };
            let none = Levers::default();
            assert_eq!(remedies(case, &planned, &usage).is_empty(), !stopped(&none, &planned));
            for one in remedies(case, &planned, &usage) {
                let Some(amount) = one.amount else {
                    not += 1;
                    continue;
                };
                turned += 1;
                let with = |lever, amount: f64| {
                    let mut levers = Levers::default();
                    levers.set(lever, amount.max(0.0)).unwrap();
                    stopped(&levers, &planned)
                };
                match one.remedy {
                    Remedy::RideHeight => {
                        assert!(!with(Lever::RideHeight, amount), "{planned}: {amount}");
                        assert!(with(Lever::RideHeight, amount - 1.0), "{planned}: less than {amount}");
                    }
                    Remedy::WheelForward => assert!(!with(Lever::Arms, amount), "{planned}: {amount}"),
                    Remedy::Offset => {
                        let mut wheel = planned.wheel.unwrap();
                        wheel.offset = fitment::Offset::from_mm(amount);
                        let there = Setup { wheel: Some(wheel), ..planned };
                        assert!(!stopped(&none, &there), "{planned}: ET{amount}");
                    }
                    Remedy::SteeringLimiter | Remedy::BumpStop | Remedy::Trim => {
                        assert!(amount > 0.0 && amount < 60.0, "{planned}: {amount}");
                    }
                }
            }
        });
    }
    assert!(turned > 8 && not > 40, "{turned} {not}");
}

#[test]
fn a_taller_tire_never_has_more_room_on_the_ladder() {
    let mut rng = StdRng::seed_from_u64(0x11f7);
    for _ in 0..4 {
        let (shop, planned) = drawn(&mut rng);
        let reference = setup(FITTED).overall_diameter().unwrap();
        shop.ask(|case| {
            let ladder =
                lift_ladder(case, &planned, reference, &Usage::from(Envelope::Road), &|_| false).unwrap();
            let own = planned.tire.unwrap().size.named_section_width();
            // Of one section width: taller is nearer to what is above, ahead and behind.
            let like: Vec<_> = ladder
                .tires
                .iter()
                .filter(|tire| tire.setup.tire.unwrap().size.named_section_width() == own)
                .collect();
            for pair in like.windows(2) {
                for lift in 0..LIFTS_MM.len() {
                    let short = |tire: &fitment::answers::dynamic_clearance::lift::TallerTire,
                                 part: Feature| {
                        let found = tire.at[lift].short.iter().find(|(one, _)| *one == part);
                        found.map_or(0.0, |(_, by)| *by)
                    };
                    for part in [Feature::LinerAhead, Feature::SillBehind] {
                        let (low, tall) = (short(pair[0], part), short(pair[1], part));
                        assert!(tall >= low - 0.3, "{planned} {part:?} at lift {lift}: {low} {tall}");
                    }
                }
            }
            // The tallest as far as was read is one that nothing rules out there, and the sure one is no taller.
            for (lift, tallest) in ladder.tallest_as_read.iter().enumerate() {
                assert!(ladder.tallest[lift] <= *tallest, "{planned}");
                let ok = |at: usize| ladder.tires[at].at[lift].short.is_empty();
                let lifted = |at: usize| &ladder.tires[at].at[lift];
                assert!((0..ladder.tires.len()).all(|at| ok(at) != lifted(at).verdict.rules_out()));
                assert!(tallest.is_none_or(ok));
                let above = tallest.map_or(0, |at| at + 1);
                assert!((above..ladder.tires.len()).all(|at| !ok(at)), "{planned}");
            }
        });
    }
}

#[test]
fn a_lowering_takes_travel_and_a_lift_gives_it() {
    for (raised, bump, droop) in
        [(0.0, 55.0, 70.0), (30.0, 85.0, 40.0), (-20.0, 35.0, 90.0), (100.0, 155.0, 0.0)]
    {
        let shop = Shop::rear(Vec::new()).with(Fact::BumpTravel, "55").with(Fact::DroopTravel, "70");
        shop.ask(|case| {
            let reach = case.moving().reach_raised(raised);
            assert_eq!((reach.bump_mm, reach.droop_mm), (bump, droop), "{raised}");
        });
    }
    // However low, some travel is reckoned with (estimate: 25 mm).
    let shop = Shop::rear(Vec::new()).with(Fact::BumpTravel, "55");
    assert_eq!(shop.ask(|case| case.moving().reach_raised(-50.0).bump_mm), 25.0);
}
