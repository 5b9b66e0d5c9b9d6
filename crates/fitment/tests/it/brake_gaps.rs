//! Gaps between brake and wheel against other ways to get them: the library `geo` for distances, dense sampling for
//! radial and axial gaps, and what must hold of any profile.
use fitment::car::brake::{
    BrakePart, Limits, Package, Profile, ProfileSource, Template, WheelProfile, bounds_from_fitted, gaps,
    judge,
};
use fitment::judgement::clearance::Verdict;
use geo::{Distance, Euclidean, LineString};
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};

fn profile(points: &[(f64, f64)]) -> Profile {
    Profile::new(points.iter().copied()).unwrap()
}

/// A lumpy caliper: up its inboard side, over the top, down the face.
fn caliper(rng: &mut StdRng, points: usize) -> Vec<(f64, f64)> {
    let (inner, outer) = (-70.0 + rng.random_range(0.0..20.0), rng.random_range(0.0..25.0));
    let top = rng.random_range(165.0..195.0);
    let mut line = vec![(inner, 120.0)];
    for at in 0..points {
        let share = at as f64 / (points - 1) as f64;
        line.push((
            inner + (outer - inner) * share,
            top - rng.random_range(0.0..6.0) - 8.0 * (share - 0.5).abs(),
        ));
    }
    line.push((outer + rng.random_range(-2.0..2.0), 130.0));
    line
}

/// A barrel that wanders, going outboard.
fn barrel(rng: &mut StdRng, points: usize) -> Vec<(f64, f64)> {
    let base = rng.random_range(190.0..215.0);
    (0..points)
        .map(|at| (-130.0 + 180.0 * at as f64 / (points - 1) as f64, base + rng.random_range(-5.0..5.0)))
        .collect()
}

/// A spoke back that wanders, going in from the barrel.
fn spokes(rng: &mut StdRng, points: usize) -> Vec<(f64, f64)> {
    let base = rng.random_range(20.0..45.0);
    (0..points)
        .map(|at| (base + rng.random_range(-4.0..4.0), 215.0 - 145.0 * at as f64 / (points - 1) as f64))
        .collect()
}

fn wheel(barrel: &[(f64, f64)], spokes: &[(f64, f64)]) -> WheelProfile {
    WheelProfile {
        barrel: profile(barrel),
        spoke_back: profile(spokes),
        source: ProfileSource::Template,
        plus_minus_mm: 0.0,
    }
}

fn line(points: &[(f64, f64)]) -> LineString {
    points.to_vec().into()
}

/// The value of a line at a place, by walking it: the largest or the smallest of what it has there.
fn sampled(points: &[(f64, f64)], at: f64, largest: bool) -> Option<f64> {
    let values = points.windows(2).filter_map(|two| {
        let ((x0, v0), (x1, v1)) = (two[0], two[1]);
        let inside = (x0.min(x1)..=x0.max(x1)).contains(&at) && x0 != x1;
        inside.then(|| v0 + (v1 - v0) * (at - x0) / (x1 - x0))
    });
    values.reduce(|a, b| if (a > b) == largest { a } else { b })
}

#[test]
fn gaps_are_those_of_dense_sampling_and_distances_those_of_another_library() {
    let mut rng = StdRng::seed_from_u64(2026);
    let (mut apart, mut through) = (0, 0);
    for round in 0..2000 {
        let (c, b, s) = (caliper(&mut rng, 12), barrel(&mut rng, 14), spokes(&mut rng, 10));
        let found = gaps(&profile(&c), &wheel(&b, &s), 0.0);
        let radial = found.radial.unwrap().mm;
        let axial = found.axial.unwrap().mm;
        // Sampling can only miss the very place: it is never less, and nearly as small.
        let turned = |points: &[(f64, f64)]| points.iter().map(|(y, r)| (*r, *y)).collect::<Vec<_>>();
        for (gap, below, above) in [(radial, c.clone(), b.clone()), (axial, turned(&c), turned(&s))] {
            let (from, to) = (below.iter().map(|p| p.0), below.iter().map(|p| p.0));
            let (low, high) = (from.fold(f64::MAX, f64::min), to.fold(f64::MIN, f64::max));
            let least = (0..=2000)
                .filter_map(|step| {
                    let at = low + (high - low) * f64::from(step) / 2000.0;
                    Some(sampled(&above, at, false)? - sampled(&below, at, true)?)
                })
                .fold(f64::INFINITY, f64::min);
            assert!(least >= gap - 1e-9, "round {round}: sampled {least} under {gap}");
            assert!(least - gap < 2.5, "round {round}: sampled {least}, found {gap}");
        }
        let shortest = Euclidean.distance(&line(&c), &line(&b)).min(Euclidean.distance(&line(&c), &line(&s)));
        if radial > 0.0 && axial > 0.0 {
            apart += 1;
            assert!(
                (found.shortest_mm - shortest).abs() < 1e-9,
                "round {round}: {} {shortest}",
                found.shortest_mm
            );
            assert!(shortest <= radial + 1e-9 && shortest <= axial + 1e-9);
        } else {
            through += 1;
            assert_eq!(found.shortest_mm, 0.0, "round {round}");
        }
    }
    assert!(apart > 500 && through > 100, "{apart} apart, {through} through");
}

#[test]
fn a_spacer_is_the_same_as_moving_the_wheel() {
    let mut rng = StdRng::seed_from_u64(5);
    for _ in 0..300 {
        let (c, b, s) = (caliper(&mut rng, 9), barrel(&mut rng, 9), spokes(&mut rng, 7));
        let t = f64::from(rng.random_range(0..25));
        let moved = |points: &[(f64, f64)]| points.iter().map(|(y, r)| (y + t, *r)).collect::<Vec<_>>();
        let spaced = gaps(&profile(&c), &wheel(&b, &s), t);
        let placed = gaps(&profile(&c), &wheel(&moved(&b), &moved(&s)), 0.0);
        assert!((spaced.radial.unwrap().mm - placed.radial.unwrap().mm).abs() < 1e-9);
        assert!((spaced.axial.unwrap().mm - placed.axial.unwrap().mm).abs() < 1e-9);
        // The spokes only move away: no part of the axial gap can shrink.
        let without = gaps(&profile(&c), &wheel(&b, &s), 0.0).axial.unwrap().mm;
        assert!((spaced.axial.unwrap().mm - without - t).abs() < 1e-9, "by exactly its thickness");
    }
}

#[test]
fn the_smallest_spacer_is_the_first_that_clears() {
    let mut rng = StdRng::seed_from_u64(8);
    let limits = Limits { radial_mm: 3.0, axial_mm: 3.0 };
    let mut found = 0;
    for _ in 0..200 {
        let (c, b, s) = (caliper(&mut rng, 9), barrel(&mut rng, 9), spokes(&mut rng, 7));
        let template = Template {
            part: BrakePart::Caliper,
            profile: profile(&c),
            source: ProfileSource::Template,
            plus_minus_mm: 0.0,
        };
        let package = Package { templates: vec![template] };
        let on = wheel(&b, &s);
        let clears = |t: f64| judge(&package, &on, t, None, limits).verdict == Verdict::Clears;
        let first = (0..=30).map(f64::from).find(|t| clears(*t));
        assert_eq!(judge(&package, &on, 0.0, None, limits).smallest_spacer_mm, first);
        found += usize::from(first.is_some_and(|t| t > 0.0));
    }
    assert!(found > 10, "{found}");
}

/// What a gap on the fitted wheel says of another must hold for every brake that has that gap.
#[test]
fn bounds_from_the_fitted_wheel_hold_for_the_brake_itself() {
    let mut rng = StdRng::seed_from_u64(77);
    let mut narrow = 0;
    for round in 0..400 {
        let c = profile(&caliper(&mut rng, 8));
        let fitted = wheel(&barrel(&mut rng, 7), &spokes(&mut rng, 6));
        let other = wheel(&barrel(&mut rng, 7), &spokes(&mut rng, 6));
        let spacer = f64::from(rng.random_range(0..10));
        let read = gaps(&c, &fitted, 0.0);
        let read = (read.radial.map(|gap| gap.mm), read.axial.map(|gap| gap.mm));
        let (radial, axial) = bounds_from_fitted((&fitted, 0.0), read, (&other, spacer));
        let found = gaps(&c, &other, spacer);
        for (bound, gap) in [(radial, found.radial), (axial, found.axial)] {
            let (bound, gap) = (bound.unwrap(), gap.unwrap().mm);
            assert!(
                bound.least_mm - 1e-9 <= gap && gap <= bound.most_mm + 1e-9,
                "round {round}: {gap} is not within {bound:?}"
            );
            narrow += usize::from(bound.most_mm - bound.least_mm < 30.0);
        }
    }
    assert!(narrow > 400, "and they say something: {narrow}");
}

/// Mirrored or shifted along the axis with everything else, nothing changes.
#[test]
fn gaps_do_not_depend_on_where_the_hub_face_is_counted_from() {
    let mut rng = StdRng::seed_from_u64(12);
    for _ in 0..200 {
        let (c, b, s) = (caliper(&mut rng, 9), barrel(&mut rng, 9), spokes(&mut rng, 7));
        let by = rng.random_range(-40.0..40.0);
        let shifted = |points: &[(f64, f64)]| points.iter().map(|(y, r)| (y + by, *r)).collect::<Vec<_>>();
        let reversed = |points: &[(f64, f64)]| points.iter().rev().copied().collect::<Vec<_>>();
        let here = gaps(&profile(&c), &wheel(&b, &s), 0.0);
        let there = gaps(&profile(&shifted(&c)), &wheel(&shifted(&b), &shifted(&s)), 0.0);
        let backwards = gaps(&profile(&reversed(&c)), &wheel(&reversed(&b), &reversed(&s)), 0.0);
        for other in [there, backwards] {
            assert!((here.radial.unwrap().mm - other.radial.unwrap().mm).abs() < 1e-9);
            assert!((here.axial.unwrap().mm - other.axial.unwrap().mm).abs() < 1e-9);
            assert!((here.shortest_mm - other.shortest_mm).abs() < 1e-9);
        }
    }
}
