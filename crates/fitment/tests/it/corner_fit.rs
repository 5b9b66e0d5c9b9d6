//! Measured corners: distances, bands, windows and levers, held against other ways to the same figure.
use fitment::answers::measurement_plan::measure_list;
use fitment::answers::remedies::mildest;
use fitment::car::corner::{Corner, Feature, Measured, Moving, ObstacleShape, Reading, Resolved, Steer};
use fitment::car::lever::{Lever, Levers};
use fitment::car::limits::HouseLimits;
use fitment::car::section::{Outline, Toward};
use fitment::car::style::{Style, StyleTarget};
use fitment::car::{Car, Fact};
use fitment::judgement::case::AxleCase;
use fitment::judgement::clearance::{Fit, MountedSetup, Verdict, drawn_at, offsets_for, style};
use fitment::judgement::window::{TireChoice, widths_round};
use fitment::{Axle, Length, Offset, RimWidth, Setup};
use geo::{Distance, Euclidean, Line, LineString};
use proptest::prelude::*;
use rand::{RngExt, SeedableRng};

const FITTED: &str = "7.5x17 ET45 225/45R17";

fn setup(line: &str) -> Setup {
    line.parse().unwrap()
}

fn mm(value: f64) -> Length {
    Length::from_mm(value).unwrap()
}

fn reading(feature: Feature, gap: f64, plus_minus: f64) -> Reading {
    Reading::new(feature, mm(gap), mm(plus_minus), setup(FITTED))
}

/// The corner that the API's description gives as its example.
fn example() -> Corner {
    Corner {
        readings: vec![
            reading(Feature::Strut, 14.0, 1.0),
            reading(Feature::FenderLateral, 12.0, 1.0),
            reading(Feature::Arch, 60.0, 2.0),
        ],
        camber_deg: Some(0.0),
        ..Corner::default()
    }
}

fn with_trial<T>(corner: &Corner, levers: &Levers, ask: impl FnOnce(&AxleCase<'_>) -> T) -> T {
    let resolved: Resolved = corner.resolve();
    let (fitted, limits) = (setup(FITTED), HouseLimits::DEFAULT);
    ask(&AxleCase::new(Axle::Front, corner, &resolved, &fitted, &limits, levers))
}

fn fit(corner: &Corner, planned: &str) -> Fit {
    with_trial(corner, &Levers::default(), |trial| trial.fit(&setup(planned)).unwrap())
}

fn nominal(fit: &Fit, feature: Feature) -> f64 {
    fit.line(feature).unwrap().band.as_ref().unwrap().nominal.as_mm()
}

/// The example read for a wheel that is meant to stand outside of the lip: so much under the arch, so much bump travel left.
fn poked(arch: Option<f64>, bump: Option<f64>, ask: impl FnOnce(&AxleCase<'_>)) {
    let mut car = Car::default();
    if let Some(bump) = bump {
        car.note(Fact::BumpTravel, Some(Axle::Front), &bump.to_string()).unwrap();
    }
    let arch = arch.map(|gap| reading(Feature::Arch, gap, 2.0));
    let readings = [reading(Feature::Strut, 60.0, 1.0), reading(Feature::FenderLateral, 12.0, 1.0)];
    let corner = Corner {
        readings: readings.into_iter().chain(arch).collect(),
        camber_deg: Some(0.0),
        moving: Some(Moving::of(&car, Axle::Front, Some(&setup(FITTED)))),
        ..Corner::default()
    };
    with_trial(&corner, &Levers::default(), |trial| ask(&AxleCase { wants_poke: true, ..*trial }));
}

/// Geometry; the tire meets the lip only where it is both outside of it and higher than its edge.
#[test]
fn a_wheel_that_is_meant_to_poke_is_judged_by_the_lips_edge_at_full_bump() {
    // Outer face of 245 mm at ET20: 122.5 − 20 from the hub face; the lip at 67.5 + 12: 23 mm outside. Crown 326.6 against
    // 317.15: of 110 mm under the arch 100.55 are left, and 50.55 over 50 mm of bump.
    const PLANNED: &str = "18x8.5 ET20 245/40R18";
    let planned = setup(PLANNED);
    let line =
        |trial: &AxleCase<'_>| trial.fit(&planned).unwrap().line(Feature::FenderLateral).unwrap().clone();
    poked(Some(110.0), Some(50.0), |trial| {
        let line = line(trial);
        assert_eq!(line.verdict, Verdict::Clears);
        assert!((line.band.unwrap().nominal.as_mm() - 50.55).abs() < 1e-9);
        let past = line.past_the_lip.unwrap();
        assert!((past.outside_by.as_mm() - 23.0).abs() < 1e-9 && past.is_bump_measured);
        // The same wheel where nobody wants it so.
        let inside = AxleCase { wants_poke: false, ..*trial };
        assert_eq!(
            inside.fit(&planned).unwrap().line(Feature::FenderLateral).unwrap().verdict,
            Verdict::Touches
        );
        let [open, shut] = [trial, &inside].map(|trial| {
            let width = [planned.wheel.unwrap().width];
            trial.window(&planned, TireChoice::Same, &width, None).remove(0)
        });
        assert!(open.clears(20.0) && open.least.is_none() && open.past_the_lip == Some(Verdict::Clears));
        assert!(!shut.clears(20.0) && shut.past_the_lip.is_none());
    });
    // 105 mm of bump bring the tread 4.45 mm past the edge.
    poked(Some(110.0), Some(105.0), |trial| {
        let line = line(trial);
        assert_eq!(line.verdict, Verdict::Touches);
        assert!((line.band.unwrap().nominal.as_mm() + 4.45).abs() < 1e-9);
        assert!(
            !trial.window(&planned, TireChoice::Same, &[planned.wheel.unwrap().width], None)[0].clears(20.0)
        );
    });
}

/// Geometry, and what travel is usual for a strut: an estimate.
#[test]
fn where_the_travel_or_the_arch_is_not_known_the_gap_that_it_takes_is_said() {
    let planned = setup("18x8.5 ET20 245/40R18");
    // Nobody measured the travel: 80 mm are usual, give or take 25; of 110 mm under the arch 20.55 are left then.
    poked(Some(110.0), None, |trial| {
        let fit = trial.fit(&planned).unwrap();
        let line = fit.line(Feature::FenderLateral).unwrap();
        assert_eq!(line.verdict, Verdict::MeasureFirst);
        assert!(line.must_find.unwrap().as_mm() > 9.45 + 80.0 + line.limit.as_mm());
    });
    // 50 mm under the arch are too little whatever the travel is.
    poked(Some(50.0), None, |trial| {
        assert_eq!(
            trial.fit(&planned).unwrap().line(Feature::FenderLateral).unwrap().verdict,
            Verdict::Touches
        );
    });
    poked(None, Some(50.0), |trial| {
        let fit = trial.fit(&planned).unwrap();
        let line = fit.line(Feature::FenderLateral).unwrap();
        assert_eq!((line.verdict, line.band.is_none()), (Verdict::MeasureFirst, true));
        let least = 9.45 + 50.0 + line.limit.as_mm();
        assert!((line.must_find.unwrap().as_mm() - least).abs() < 1e-9);
        let arch: Vec<_> =
            measure_list(trial, &fit).into_iter().filter(|item| item.to_read.code() == "arch").collect();
        assert_eq!(arch.len(), 1);
        assert_eq!(arch[0].must_find, line.must_find);
    });
}

/// UN R30 §6.1: 8 mm more over all with a protective band, half on each side; one-sided.
#[test]
fn a_fast_tire_may_have_a_rim_guard_that_its_list_does_not_name() {
    let low = |planned: &Setup| {
        let corner = example();
        with_trial(&corner, &Levers::default(), |trial| {
            let line = trial.clearance_of(Feature::FenderLateral, planned).unwrap();
            let band = line.band.unwrap();
            (band.nominal.as_mm(), band.worst_low().as_mm(), band.worst_high().as_mm())
        })
    };
    let slow = setup("17x7.5 ET44 225/45R17 94H");
    let fast = setup("17x7.5 ET44 225/45R17 94Y");
    let mut without = fast;
    without.listed.tire.has_rim_guard = Some(false);
    let [slow, fast, without] = [slow, fast, without].map(|planned| low(&planned));
    assert!((fast.1 - (slow.1 - 4.0)).abs() < 1e-9 && fast.0 == slow.0 && fast.2 == slow.2);
    assert_eq!(without, slow);
}

/// Geometry: the gap that was read, less how much further the plan reaches toward it.
#[test]
fn a_wider_wheel_takes_what_its_faces_take() {
    // 245 mm of tire on 8.5 in at ET35 against 225 on 7.5 at ET45: 0 further in, 20 further out; crown
    // 457.2/2 + 98 against 431.8/2 + 101.25.
    let fit = fit(&example(), "18x8.5 ET35 245/40R18");
    assert!((nominal(&fit, Feature::Strut) - 14.0).abs() < 1e-9);
    assert!((nominal(&fit, Feature::FenderLateral) - (12.0 - 20.0)).abs() < 1e-9);
    assert!((nominal(&fit, Feature::Arch) - (60.0 - (326.6 - 317.15))).abs() < 1e-9);
    let word = |feature| fit.line(feature).unwrap().verdict;
    assert_eq!(word(Feature::FenderLateral), Verdict::Touches);
    assert_eq!(word(Feature::Arch), Verdict::Clears);
    assert_eq!(fit.verdict, Verdict::Touches);
}

/// UN R30 §6.1 (memory) for the tires; instrument as given; the offset of each wheel half a millimetre (common practice).
#[test]
fn the_band_is_the_sum_of_its_contributions() {
    let fit = fit(&example(), "18x8.5 ET35 245/40R18");
    let band = fit.line(Feature::Strut).unwrap().band.clone().unwrap();
    let parts = [1.0, 225.0 * 0.02, 245.0 * 0.02, 0.5, 0.5];
    let squares: f64 = parts.iter().map(|part| part * part).sum();
    assert!((band.likely().as_mm() - squares.sqrt()).abs() < 1e-9);
    assert!((band.worst().as_mm() - parts.iter().sum::<f64>()).abs() < 1e-9);
    let sizes: Vec<f64> = band.contributions.iter().map(|one| one.plus_minus().as_mm()).collect();
    assert!(sizes.is_sorted_by(|a, b| a >= b), "largest first: {sizes:?}");
    // A fitted tire whose section was measured drops out of the sum.
    let section = Some(Measured { value: mm(225.0), plus_minus: mm(0.2) });
    let measured = Corner { fitted_section: section, ..example() };
    let surer = super_band(&measured);
    assert!((surer - (1.0 + 0.01 + 24.01 + 0.5_f64).sqrt()).abs() < 1e-9);
}

fn super_band(corner: &Corner) -> f64 {
    let fit = fit(corner, "18x8.5 ET35 245/40R18");
    fit.line(Feature::Strut).unwrap().band.as_ref().unwrap().likely().as_mm()
}

#[test]
fn what_was_not_read_is_never_taken_for_room() {
    let only_arch = Corner { readings: vec![reading(Feature::Arch, 60.0, 2.0)], ..example() };
    let plan = "18x8.5 ET35 245/40R18";
    let fit = fit(&only_arch, plan);
    assert_eq!(fit.verdict, Verdict::MeasureFirst);
    let line = fit.line(Feature::FenderLateral).unwrap();
    assert_eq!((line.band.is_none(), line.verdict), (true, Verdict::MeasureFirst));
    assert!(fit.line(Feature::Strut).is_none(), "the plan comes no nearer to the strut");
    // Found just so, the gap makes the line clear; found a hair smaller, it does not.
    let must_find = line.must_find.unwrap().as_mm();
    for (gap, verdict) in [(must_find + 1e-6, Verdict::Clears), (must_find - 0.01, Verdict::Tight)] {
        let readings = vec![reading(Feature::Arch, 60.0, 2.0), reading(Feature::FenderLateral, gap, 1.0)];
        let read = Corner { readings, ..example() };
        assert_eq!(self::fit(&read, plan).line(Feature::FenderLateral).unwrap().verdict, verdict);
    }
}

#[test]
fn contradicting_readings_decide_nothing_where_they_differ() {
    let mut corner = example();
    corner.readings.push(reading(Feature::Strut, 40.0, 1.0));
    let fit = fit(&corner, "18x8.5 ET40 245/40R18");
    let line = fit.line(Feature::Strut).unwrap();
    assert_eq!(line.verdict, Verdict::MeasureFirst);
    assert!(
        (line.band.as_ref().unwrap().nominal.as_mm() - 9.0).abs() < 1e-9,
        "never averaged: the nearer one"
    );
    // Where both lead to the same word, that word holds.
    assert_eq!(
        self::fit(&corner, "17x7 ET30 205/50R17").line(Feature::Strut).unwrap().verdict,
        Verdict::Clears
    );
}

/// Common practice: 25 mm under the arch of a street car, 40 on lowered stiff springs, which leave less travel.
#[test]
fn a_lowered_car_needs_more_room_under_the_arch() {
    let levers = Levers::default();
    let limit = |corner: &Corner, levers: &Levers| {
        with_trial(corner, levers, |trial| trial.least(Feature::Arch).as_mm())
    };
    let lowered = Corner { is_lowered: true, ..example() };
    assert_eq!((limit(&example(), &levers), limit(&lowered, &levers)), (25.0, 40.0));
    let mut dropped = Levers::default();
    dropped.set(Lever::RideHeight, -20.0).unwrap();
    assert_eq!(limit(&example(), &dropped), 40.0, "planned to be lowered");
}

/// Common practice: "half" of 63.5 mm more poke is lost at full lock; behind the wheel the sine of some 40° of it.
#[test]
fn the_quick_rule_at_lock() {
    let at_lock = Reading { steer: Steer::LockLeft, ..reading(Feature::SillBehind, 60.0, 1.0) };
    let straight = reading(Feature::LinerAhead, 60.0, 1.0);
    let corner = Corner { readings: vec![at_lock, straight], ..example() };
    // The same tire and width, 63.5 mm further out.
    let fit = fit(&corner, "7.5x17 ET-18.5 225/45R17");
    assert!((nominal(&fit, Feature::SillBehind) - (60.0 - 0.64 * 63.5)).abs() < 1e-9);
    assert!((nominal(&fit, Feature::LinerAhead) - 60.0).abs() < 1e-9);
}

#[test]
fn raising_and_lowering_leave_what_goes_with_the_wheel() {
    let mut corner = example();
    corner.readings.push(Reading { radius: Some(mm(300.0)), ..reading(Feature::SpringPerch, 9.0, 0.2) });
    corner.readings.push(reading(Feature::CaliperRadial, 6.0, 0.1));
    let plan = setup("18x8.5 ET42 245/40R18");
    let at = |height: f64, camber: f64| {
        let mut levers = Levers::default();
        levers.set(Lever::RideHeight, height).unwrap();
        levers.set(Lever::Camber, camber).unwrap();
        with_trial(&corner, &levers, |trial| trial.fit(&plan).unwrap())
    };
    let as_is = at(0.0, 0.0);
    for height in [-40.0, -15.0, 30.0, 60.0] {
        let moved = at(height, 0.0);
        for feature in [Feature::Strut, Feature::SpringPerch, Feature::CaliperRadial] {
            assert_eq!(moved.line(feature), as_is.line(feature), "{feature:?} at {height}");
        }
        let arch = nominal(&moved, Feature::Arch) - nominal(&as_is, Feature::Arch);
        assert!((arch - height).abs() < 1e-9, "the arch follows one to one");
    }
    let leaned = at(0.0, -2.0);
    assert_eq!(leaned.line(Feature::Strut), as_is.line(Feature::Strut), "the strut leans with the wheel");
    // R · sin 2° at the sidewall's widest, some 277.6 mm up: 9.7 mm (geometry).
    let gained = nominal(&leaned, Feature::FenderLateral) - nominal(&as_is, Feature::FenderLateral);
    assert!((9.0..10.5).contains(&gained), "{gained}");
}

/// The outline and a knuckle that begins at a height and goes on inboard, measured by the `geo` crate instead (0.33).
#[test]
fn distances_agree_with_geo() {
    let mut checked = 0;
    for line in
        ["18x9.5 ET40 265/35R18", "15x6 ET40 195/65R15", "17x10 ET20 205/40R17", "20x10 ET25 305/30R20"]
    {
        {
            let drawn = Outline::of(&setup(line)).unwrap();
            let ring: Vec<(f64, f64)> = drawn.points().iter().map(|point| (point.y, point.r)).collect();
            let lines = [LineString::from(
                geo::Polygon::new(LineString::from(ring), Vec::new()).exterior().0.clone(),
            )];
            let reach = drawn.reach(Toward::Inboard, 0.0, 0.0);
            for gap in 0..12 {
                for height in 0..30 {
                    let (y, height) = (-reach - f64::from(gap) * 2.5, 180.0 + f64::from(height) * 6.0);
                    let part = Line::new((y - 5000.0, height), (y, height));
                    let by_geo =
                        lines.iter().map(|line| Euclidean.distance(line, &part)).fold(f64::MAX, f64::min);
                    let ours = drawn.distance_to_inboard_part(y, height);
                    assert!((ours.max(0.0) - by_geo).abs() < 1e-9, "{line}: {ours}, geo {by_geo}");
                    checked += 1;
                }
            }
        }
    }
    assert_eq!(checked, 4 * 12 * 30);
}

/// An outside model of the same corner: the car is fixed, parts are drawn from their tolerances, the advisor reads
/// what the gauge shows. 100 000 draws, seeded. Each ± is taken as two standard deviations.
#[test]
fn the_bands_hold_what_a_monte_carlo_draws() {
    let mut rng = rand::rngs::StdRng::seed_from_u64(20261124);
    let plan = "18x8.5 ET40 245/40R18";
    let fitted = fit(&example(), plan);
    let band = fitted.line(Feature::Strut).unwrap().band.clone().unwrap();
    let (draws, mut in_likely, mut beyond_worst) = (100_000, 0, 0);
    for _ in 0..draws {
        // Two independent standard normal figures by Box and Muller (1958), and again.
        let mut normal = || {
            let (a, b): (f64, f64) = (rng.random::<f64>(), rng.random::<f64>());
            (-2.0 * (1.0 - a).ln()).sqrt() * (std::f64::consts::TAU * b).cos()
        };
        let mut off = |plus_minus: f64| normal() * plus_minus / 2.0;
        let fitted_half = 225.0 / 2.0 + off(225.0 * 0.02);
        // The flange, an inch over the rim's width and half of it on each side, is never further in than it is.
        let new_half = f64::max(245.0 / 2.0 + off(245.0 * 0.02), (8.5 + 1.0) * 25.4 / 2.0);
        let new_offset = 40.0 + off(0.5);
        // Where the strut must be for the gauge to have shown 14.
        let strut = fitted_half + 45.0 + off(0.5) + 14.0 + off(1.0);
        let room = strut - (new_half + new_offset);
        in_likely += usize::from((band.likely_low().as_mm()..=band.likely_high().as_mm()).contains(&room));
        beyond_worst += usize::from(!(band.worst_low().as_mm()..=band.worst_high().as_mm()).contains(&room));
    }
    // Two standard deviations hold 95.45 %; the flange, which no narrow tire uncovers, bends that a little.
    let share = in_likely as f64 / f64::from(draws);
    assert!((share - 0.9545).abs() < 0.015, "{share}");
    assert!((beyond_worst as f64) < f64::from(draws) * 0.002, "{beyond_worst} beyond the worst case");
}

#[test]
fn the_worst_case_holds_every_extreme() {
    let band = fit(&example(), "18x8.5 ET40 245/40R18").line(Feature::Strut).unwrap().band.clone().unwrap();
    // All five contributions against the plan at once.
    let worst = 9.0 - (1.0 + 4.5 + 4.9 + 0.5 + 0.5);
    assert!((band.worst_low().as_mm() - worst).abs() < 1e-9);
}

#[test]
fn the_window_of_the_example() {
    let (corner, levers) = (example(), Levers::default());
    // A new tire of the fitted one's size.
    let planned = setup("7.5x17 ET45 225/45R17 91H");
    let windows = with_trial(&corner, &levers, |trial| {
        trial.window(&planned, TireChoice::Same, &[RimWidth::from_code(7.5).unwrap()], None)
    });
    // Strut: 14 of room, 5 kept, band √(1 + 4.5² + 4.5² + 0.25 + 0.25): what is left may go into offset.
    let band = (1.0 + 20.25 * 2.0 + 0.5_f64).sqrt();
    let window = &windows[0];
    let (least, most) = (window.least.unwrap(), window.most.unwrap());
    assert!((most.offset_mm - (45.0 + 14.0 - 5.0 - band)).abs() < 1e-3);
    assert!((least.offset_mm - (45.0 - (12.0 - 3.0 - band))).abs() < 1e-3);
    assert_eq!((least.bound_by, most.bound_by), (Feature::FenderLateral, Feature::Strut));
    assert!(window.is_open() && window.blocked_by.is_empty() && window.is_permitted);
}

#[test]
fn sides_nobody_read_are_open() {
    let corner = Corner { readings: vec![reading(Feature::Strut, 14.0, 1.0)], ..example() };
    let window = with_trial(&corner, &Levers::default(), |trial| {
        trial.window(
            &setup("18x8.5 ET40 245/40R18"),
            TireChoice::Same,
            &[RimWidth::from_code(8.5).unwrap()],
            None,
        )
    });
    assert!(window[0].least.is_none() && window[0].most.is_some());
    // What no offset can mend blocks the width, by name.
    let low = Corner { readings: vec![reading(Feature::Arch, 20.0, 1.0)], ..example() };
    let window = with_trial(&low, &Levers::default(), |trial| {
        trial.window(
            &setup("18x8.5 ET40 245/40R18"),
            TireChoice::Same,
            &[RimWidth::from_code(8.5).unwrap()],
            None,
        )
    });
    assert_eq!(window[0].blocked_by, [Feature::Arch]);
    assert!(!window[0].is_open());
}

#[test]
fn the_window_says_what_stops_the_next_half_inch() {
    use fitment::values::working::Fragment;
    let said = |corner: &Corner, widths: &[f64]| {
        let widths: Vec<RimWidth> = widths.iter().map(|width| RimWidth::from_code(*width).unwrap()).collect();
        let planned = setup("17x7.5 ET45 225/45R17 91H");
        let windows = with_trial(corner, &Levers::default(), |trial| {
            trial.window(&planned, TireChoice::Same, &widths, None)
        });
        let phrase = fitment::judgement::window::says(&windows)?;
        let words = phrase.0.iter().map(|fragment| match fragment {
            Fragment::Text(text) => text.to_string(),
            Fragment::Quantity(quantity) => format!("{:.1}", quantity.value),
        });
        Some(words.collect::<String>())
    };
    // 225/45R17 may go on 7 to 8.5. At 7.5: 14 − 5 − 6.48 = 2.52 over ET45, 12 − 3 − 6.48 under it. At 8 the section
    // is 5.08 mm wider (UN R30 §6.1.1), the band 6.55: each side lacks 0.09.
    assert_eq!(
        said(&example(), &[7.5, 8.0, 8.5]).unwrap(),
        "Widest that clears: 7.5, ET 42.5 to 47.5. 8.0 is 0.2 short between fender lip and strut."
    );
    let only_arch = Corner { readings: vec![reading(Feature::Arch, 20.0, 1.0)], ..example() };
    assert_eq!(
        said(&only_arch, &[7.5, 8.0]).unwrap(),
        "No permitted width clears. 7.5 is stopped by the arch at any offset."
    );
    assert_eq!(said(&Corner::default(), &[7.5]), None, "nothing was read");
}

#[test]
fn the_square_choice_follows_the_rim() {
    let widths: Vec<RimWidth> = [7.5, 8.5, 9.5].map(|width| RimWidth::from_code(width).unwrap()).to_vec();
    let windows = with_trial(&example(), &Levers::default(), |trial| {
        trial.window(&setup("18x8.5 ET40 235/40R18"), TireChoice::NearestSquare, &widths, None)
    });
    let sections: Vec<f64> =
        windows.iter().map(|window| window.tire.unwrap().size.named_section_width().as_mm()).collect();
    assert!(sections.is_sorted() && sections[0] < sections[2], "{sections:?}");
    assert!(windows.iter().all(|window| window.is_permitted));
}

#[test]
fn styles_are_read_from_rim_and_tire() {
    // The fitted tire stands 12 mm inside the lip, its rim 12.7 + 95.25 against 112.5: 4.55 further in.
    let read =
        |plan: &str| with_trial(&example(), &Levers::default(), |trial| style(trial, &setup(plan)).unwrap());
    let fitted = read(FITTED);
    assert_eq!(fitted.style, Style::Tucked);
    assert!((fitted.tire_beyond.unwrap().as_mm() + 12.0).abs() < 1e-9);
    assert!((fitted.rim_beyond.as_mm() + 16.55).abs() < 1e-9);
    assert_eq!(read("7.5x17 ET33 225/45R17").style, Style::Flush);
    assert_eq!(read("7.5x17 ET29 225/45R17").style, Style::Poke);
    // A stretched tire: rim flush, tire tucked.
    let stretched = read("9.5x17 ET54 215/45R17");
    assert_eq!(stretched.each, (Style::Flush, Some(Style::Tucked)));
    // The offsets that give it are those at which it is read.
    let target = StyleTarget { style: Style::Flush, within: Some(mm(3.0)), is_show: false };
    let (least, most) = with_trial(&example(), &Levers::default(), |trial| {
        offsets_for(trial, target, &setup("7.5x17 ET45 225/45R17")).unwrap()
    });
    assert!((least.unwrap() - 30.0).abs() < 1e-9 && (most.unwrap() - 36.0).abs() < 1e-9);
}

#[test]
fn the_mildest_set_is_found() {
    let propose = |corner: &Corner, plan: &str| {
        with_trial(corner, &Levers::default(), |trial| mildest(trial, &setup(plan)))
    };
    // Too far in by a little: a spacer of the shelf, and everything clears with it.
    let spacer = propose(&example(), "7.5x17 ET50 225/45R17 91W").unwrap();
    assert_eq!(spacer.pulled[0].0, Lever::Spacer);
    // Of another wheel's brake nothing is known: the set is measure first, but nothing that was read is in its way.
    assert_eq!((spacer.fit.verdict, spacer.fit.rules_out()), (Verdict::MeasureFirst, false));
    let there = spacer.setup.spacer.unwrap().as_mm();
    let thinner = fitment::setup::spacers::SHELF_MM.into_iter().rfind(|mm| *mm < there);
    let one_less = Setup { spacer: thinner.and_then(fitment::Spacer::from_mm), ..spacer.setup };
    let fit_with_less = with_trial(&example(), &Levers::default(), |trial| trial.fit(&one_less).unwrap());
    assert!(fit_with_less.rules_out(), "no thinner spacer would do");
    let says = with_trial(&example(), &Levers::default(), |trial| spacer.says(trial));
    let fitment::values::working::Fragment::Text(first) = &says.0[1] else { panic!("{says:?}") };
    assert_eq!(first, "a spacer of ");
    // Too far out: another offset.
    let offset = propose(&example(), "7.5x17 ET38 225/45R17 91W").unwrap();
    assert_eq!((offset.pulled[0].0, offset.fit.rules_out()), (Lever::Offset, false));
    // Under the arch no offset helps: a lower tire does while little is missing, then ride height.
    let mut low = example();
    for (gap, lever) in [(32.0, Lever::Tire), (14.0, Lever::RideHeight)] {
        low.readings[2] = reading(Feature::Arch, gap, 1.0);
        let proposal = propose(&low, "7.5x17 ET44 225/45R17 91W").unwrap();
        assert_eq!((proposal.pulled[0].0, proposal.fit.rules_out()), (lever, false), "{gap}");
    }
    // Nothing to mend, nothing proposed.
    assert!(propose(&example(), "7.5x17 ET45 225/45R17").is_none());
}

#[test]
fn the_measure_list_puts_first_what_decides() {
    let nothing = Corner { readings: Vec::new(), ..example() };
    let list = |corner: &Corner, plan: &str| {
        with_trial(corner, &Levers::default(), |trial| {
            let plan = setup(plan);
            measure_list(trial, &trial.fit(&plan).unwrap())
        })
    };
    let codes: Vec<&str> =
        list(&nothing, "18x8.5 ET35 245/40R18").iter().map(|item| item.to_read.code()).collect();
    assert_eq!(codes[0], "fender_lateral", "20 mm further out: {codes:?}");
    assert!(!codes.contains(&"strut"), "no nearer to the strut: {codes:?}");
    let read = list(&example(), "18x8.5 ET35 245/40R18");
    assert!(read.iter().all(|item| item.to_read.code() != "fender_lateral"), "read already");
    let codes: Vec<&str> =
        list(&nothing, "18x8.5 ET55 245/40R18").iter().map(|item| item.to_read.code()).collect();
    assert_eq!(codes[0], "strut", "20 mm further in: {codes:?}");
}

prop_compose! {
    fn any_corner()(
        strut in -2.0..60.0f64, fender in -20.0..60.0f64, arch in 20.0..120.0f64, camber in -4.0..1.0f64,
        perch in prop::option::of((2.0..40.0f64, 240.0..330.0f64)),
        sill in prop::option::of(5.0..60.0f64), pm in 0.1..4.0f64,
    ) -> Corner {
        let mut readings = vec![
            reading(Feature::Strut, strut, pm), reading(Feature::FenderLateral, fender, pm),
            reading(Feature::Arch, arch, pm),
        ];
        if let Some((gap, height)) = perch {
            readings.push(Reading { radius: Some(mm(height)), ..reading(Feature::SpringPerch, gap, pm) });
        }
        if let Some(gap) = sill {
            readings.push(Reading { steer: Steer::LockLeft, ..reading(Feature::SillBehind, gap, pm) });
        }
        Corner { readings, camber_deg: Some(camber), ..Corner::default() }
    }
}

fn plan_at(line: &str, offset: f64) -> Setup {
    let mut planned = setup(line);
    planned.wheel.as_mut().unwrap().offset = Offset::from_mm(offset);
    planned
}

const PLANS: [&str; 4] = [
    "18x8.5 ET35 245/40R18",
    "17x9 ET30 215/45R17",
    "19x9.5 ET40 265/30R19 · 5 mm spacer",
    "16x7 ET40 205/55R16",
];

proptest! {
    #[test]
    fn less_offset_never_helps_the_fender_and_never_hurts_the_strut(
        corner in any_corner(), line in prop::sample::select(&PLANS[..]), offset in -30..70i32, less in 1..40i32,
    ) {
        with_trial(&corner, &Levers::default(), |trial| {
            let at = |offset: i32| trial.fit(&plan_at(line, f64::from(offset))).unwrap();
            let (before, after) = (at(offset), at(offset - less));
            for feature in [Feature::FenderLateral, Feature::SillBehind] {
                if before.line(feature).is_some_and(|line| line.band.is_some()) {
                    prop_assert!(nominal(&after, feature) <= nominal(&before, feature) + 1e-9);
                }
            }
            for feature in [Feature::Strut, Feature::SpringPerch] {
                if before.line(feature).is_some_and(|line| line.band.is_some()) {
                    prop_assert!(nominal(&after, feature) >= nominal(&before, feature) - 1e-9);
                }
            }
            Ok(())
        })?;
    }

    #[test]
    fn the_windows_edges_are_where_the_verdict_changes(
        corner in any_corner(), line in prop::sample::select(&PLANS[..]),
    ) {
        with_trial(&corner, &Levers::default(), |trial| {
            let planned = setup(line);
            for window in trial.window(&planned, TireChoice::Same, &widths_round(None, Some(&planned)), None) {
                let mut planned = planned;
                planned.wheel.as_mut().unwrap().width = window.rim_width;
                let line = planned.to_string();
                let verdict = |offset: f64, feature: Feature| {
                    trial.fit(&plan_at(&line, offset)).unwrap().line(feature).unwrap().verdict
                };
                // A hundredth to either side: offsets are kept to the hundredth.
                for (edge, inside) in [(window.least, 0.011), (window.most, -0.011)] {
                    let Some(edge) = edge.filter(|edge| edge.offset_mm.abs() < 149.0) else { continue };
                    prop_assert_eq!(verdict(edge.offset_mm + inside, edge.bound_by), Verdict::Clears, "{}", line);
                    prop_assert_ne!(verdict(edge.offset_mm - inside, edge.bound_by), Verdict::Clears, "{}", line);
                }
                let all_clear = |offset: f64| {
                    let fit = trial.fit(&plan_at(&line, offset)).unwrap();
                    // What nobody read is asked for and rules nothing out.
                    fit.clearances.iter().all(|line| line.band.is_none() || line.verdict == Verdict::Clears)
                };
                // Edges are found to the hundredth: nothing is asked nearer to one than that.
                let is_at_an_edge = |offset: f64| {
                    let edges = [window.least, window.most].into_iter().flatten();
                    edges.map(|edge| edge.offset_mm).any(|edge| (edge - offset).abs() < 0.011)
                };
                for offset in [-20.0, 5.0, 30.0, 45.0, 62.0] {
                    if is_at_an_edge(offset) {
                        continue;
                    }
                    prop_assert_eq!(all_clear(offset), window.clears(offset), "{} at {}", line, offset);
                }
            }
            Ok(())
        })?;
    }

    #[test]
    fn nothing_of_it_panics(
        gap in prop::num::f64::ANY, pm in prop::num::f64::ANY, radius in prop::num::f64::ANY,
        camber in prop::num::f64::ANY, feature in prop::sample::select(&Feature::ALL[..]), bare in any::<bool>(),
    ) {
        let length = |value: f64| Length::from_mm(value).unwrap_or_default();
        let mut one = Reading { radius: Some(length(radius)), ..reading(feature, 10.0, 1.0) };
        one.gap = length(gap);
        one.plus_minus = length(pm);
        if bare { one.on = None; }
        let corner = Corner { readings: vec![one, one], camber_deg: Some(camber), ..Corner::default() };
        with_trial(&corner, &Levers::default(), |trial| {
            for line in PLANS {
                let planned = setup(line);
                if let Some(fit) = trial.fit(&planned) {
                    let _ = measure_list(trial, &fit);
                }
                let _ = trial.window(&planned, TireChoice::NearestSquare, &widths_round(None, Some(&planned)), None);
                let _ = (style(trial, &planned), mildest(trial, &planned));
            }
        });
    }
}

#[test]
fn a_reading_puts_the_fitted_wheel_where_it_was_read() {
    for (feature, radius) in
        [(Feature::Strut, None), (Feature::SpringPerch, Some(290.0)), (Feature::Knuckle, Some(230.0))]
    {
        let one = Reading { radius: radius.map(mm), ..reading(feature, 8.0, 1.0) };
        let corner = Corner { readings: vec![one], camber_deg: Some(-1.5), ..Corner::default() };
        let room = nominal(&fit(&corner, FITTED), feature);
        if feature == Feature::SpringPerch {
            // It is read level and met the shortest way, which past a round shoulder is shorter.
            assert!((5.0..=8.0).contains(&room), "{room}");
        } else {
            assert!((room - 8.0).abs() < 1e-9, "{feature:?}: {room}");
        }
        let resolved = corner.resolve();
        let is_spot = matches!(resolved.obstacles[0].shape, ObstacleShape::Spot { .. });
        assert_eq!(is_spot, feature == Feature::Knuckle);
    }
    assert!(
        MountedSetup::of(&setup("17x7.5 225/45R17"), 0.0).is_none(),
        "without an offset it stands nowhere"
    );
}

/// UN R30 §1 (memory): it is about passenger car tires; LT, flotation and racing sizes are not under it.
#[test]
fn where_r30_does_not_apply_the_band_says_so() {
    let sources = |plan: &str| -> Vec<&'static str> {
        let fit = fit(&example(), plan);
        let band = fit.line(Feature::Strut).unwrap().band.as_ref().unwrap();
        band.contributions
            .iter()
            .filter(|one| one.what().contains("new tire"))
            .map(|one| one.source.cite)
            .collect()
    };
    assert!(sources("18x8.5 ET35 245/40R18").iter().all(|cite| cite.contains("UN R30 §6.1")));
    for plan in ["15x9 ET0 31x10.50R15LT", "15x10 ET0 28.0/10.5-15"] {
        let all = sources(plan);
        assert!(!all.is_empty() && all.iter().all(|cite| cite.contains("do not apply")), "{plan}: {all:?}");
    }
}

#[test]
fn a_part_is_drawn_where_its_room_is_judged() {
    // Work on the car moves the drawn part by exactly what the room to it changes: bolts at the strut's foot bring the strut
    // nearer, a rolled lip goes out, a lifted arch up.
    let fitted = setup("17x7.5 ET45 225/45R17");
    let at = |feature, gap: f64, radius: Option<f64>| Reading {
        radius: radius.and_then(Length::from_mm),
        ..Reading::new(feature, mm(gap), mm(0.5), fitted)
    };
    let readings = vec![
        at(Feature::Strut, 14.0, Some(250.0)),
        at(Feature::FenderLateral, 12.0, None),
        at(Feature::Arch, 60.0, None),
    ];
    let moving = Some(Moving::of(&Car::default(), Axle::Front, Some(&fitted)));
    let corner = Corner { readings, camber_deg: Some(0.0), moving, ..Corner::default() };
    let place_and_room = |levers: &Levers, feature| {
        with_trial(&corner, levers, |case| {
            let fit = case.fit(&fitted).unwrap();
            let line = fit.line(feature).unwrap();
            let (y, height) = drawn_at(case, line.obstacle.as_ref().unwrap()).unwrap();
            (y, height, line.band.as_ref().unwrap().nominal.as_mm())
        })
    };
    let worked = |lever, amount| {
        let mut levers = Levers::default();
        levers.set(lever, amount).unwrap();
        levers
    };
    let as_built = Levers::default();
    let cambered = worked(Lever::Camber, -2.0);
    let (before, _, room) = place_and_room(&as_built, Feature::Strut);
    let (after, _, left) = place_and_room(&cambered, Feature::Strut);
    assert!(left < room - 5.0, "{room} to {left}");
    // The strut leans by 12°: its room is counted square to it.
    let moved = after.unwrap() - before.unwrap();
    assert!((moved - (room - left)).abs() < 0.3, "drawn {moved} nearer, judged {}", room - left);
    let (before, _, room) = place_and_room(&as_built, Feature::FenderLateral);
    let (after, _, left) = place_and_room(&worked(Lever::LipRolled, 5.0), Feature::FenderLateral);
    assert!((after.unwrap() - before.unwrap() - 5.0).abs() < 1e-9 && (left - room - 5.0).abs() < 1e-9);
    let (_, before, room) = place_and_room(&as_built, Feature::Arch);
    let (_, after, left) = place_and_room(&worked(Lever::RideHeight, 20.0), Feature::Arch);
    assert!((after.unwrap() - before.unwrap() - 20.0).abs() < 1e-9 && (left - room - 20.0).abs() < 1e-9);
}
