//! Figures from outside the project: standards, and what the trade says. Each row names its source; "C" is
//! common practice with no published source, "memory" a standard written down from memory.
use fitment::parts::tire::{dimensions, rims};
use fitment::{RimWidth, Setup, Tire, Wheel, setup::change};

#[track_caller]
fn near(what: &str, source: &str, found: f64, expected: f64, tolerance: f64) {
    assert!(
        (found - expected).abs() <= tolerance,
        "{what} ({source}): {found}, not {expected} ± {tolerance}"
    );
}

fn tire(size: &str) -> Tire {
    size.parse().expect(size)
}

#[test]
fn diameters_and_heights() {
    // Tolerances are half of the last figure as it is spoken.
    let in_inches = |size: &str| dimensions::overall_diameter(&tire(size).size).as_inches();
    for (size, inches) in [
        ("265/70R18", 32.6),
        ("265/70R16", 30.6),
        ("245/45R17", 25.7),
        ("245/40R17", 24.7),
        ("305/30R20", 27.2),
        ("33x12.50R15LT", 33.0),
    ] {
        near(size, "C", in_inches(size), inches, 0.05);
    }
    let big = tire("265/70R18").size;
    near("265/70R18 section", "C", big.named_section_width().as_inches(), 10.43, 0.005);
    near("265/70R18 sidewall", "C", dimensions::sidewall(&big).as_inches(), 7.30, 0.005);
    near(
        "245/640R18",
        "as written",
        dimensions::overall_diameter(&tire("245/640R18").size).as_mm(),
        640.0,
        1e-9,
    );
    let sized = tire("225/45R17").size;
    near(
        "everyday − design",
        "UN R30 d, memory",
        dimensions::overall_diameter(&sized).as_mm() - dimensions::design_overall_diameter(&sized).as_mm(),
        -0.2,
        1e-9,
    );
}

#[test]
fn service_descriptions() {
    let tire = tire("285/30ZR20 99W");
    let service = tire.service.expect("99W");
    near("285/30ZR20 99W load", "ISO 4000-1", service.single.capacity_kg(), 775.0, 0.0);
    near("285/30ZR20 99W speed", "ISO 4000-1", tire.top_speed_kmh().expect("W"), 270.0, 0.0);
    near("width", "C", tire.size.named_section_width().as_mm(), 285.0, 0.0);
}

#[test]
fn measuring_and_permitted_rims() {
    for (size, source, rim) in [
        ("205/55R16", "ISO 4000-1 ratio, memory", 6.5),
        ("225/45R17", "ETRTO, memory", 7.5),
        ("195/65R15", "ETRTO, memory", 6.0),
        // From memory of ETRTO tables: well-known passenger sizes.
        ("245/40R18", "ETRTO, memory", 8.5),
        ("225/40R18", "ETRTO, memory", 8.0),
        ("275/35R18", "ETRTO, memory", 9.5),
        ("185/60R15", "ETRTO, memory", 5.5),
    ] {
        near(size, source, rims::measuring_rim(&tire(size).size).code(), rim, 0.0);
    }
    let permitted = rims::PermittedRims::estimated(&tire("225/45R17").size);
    near("225/45R17 narrowest", "ETRTO, memory", permitted.least.code(), 7.0, 0.0);
    near("225/45R17 widest", "ETRTO, memory", permitted.most.code(), 8.5, 0.0);
    let narrow = RimWidth::from_code(9.0).expect("a rim width");
    let change = rims::section_width_on(&tire("275/35R18").size, narrow).as_mm() - 275.0;
    near("275/35R18 on 9.0", "UN R30 §6.1.1: 0.4 × 12.7", change, -5.08, 1e-9);
    near("275/35R18 on 9.0, inches", "C: two tenths", change / 25.4, -0.2, 0.001);
}

#[test]
fn limits_of_a_new_tire() {
    let size = tire("225/45R17").size;
    let width = dimensions::greatest_overall_width(size.named_section_width()).as_mm();
    near("225/45R17 width", "UN R30 §6.1, memory", width, 234.0, 1e-9);
    let (least, most) = dimensions::overall_diameter_limits(&size);
    near("225/45R17 least", "UN R30 §6.1, memory", least.as_mm(), 628.4, 0.05);
    near("225/45R17 most", "UN R30 §6.1, memory", most.as_mm(), 642.6, 0.05);
}

#[test]
fn revolutions() {
    // 1 609 344 / (π × 634.3) and 1 609 344 / (3.05 × 634.3), worked with GNU bc.
    let size = tire("225/45R17").size;
    near("geometric", "arithmetic", dimensions::revolutions_per_mile(&size), 807.62, 0.01);
    near("rolling", "ETRTO 3.05, memory", dimensions::rolling_revolutions_per_mile(&size), 831.87, 0.01);
}

#[test]
fn wheels() {
    for (spec, inches, tolerance) in [("20x10 ET35", 6.88, 0.005), ("17x5 ET-21", 2.17, 0.005)] {
        let wheel: Wheel = spec.parse().expect(spec);
        let offset = wheel.offset.expect("an offset");
        let spacing =
            fitment::parts::wheel::Backspacing::from_offset(wheel.width, offset).length().as_inches();
        near(spec, "C", spacing, inches, tolerance);
    }
}

#[test]
fn changes_from_one_wheel_to_another() {
    for (fitted, planned, inner, outer) in [
        ("17x7.5 ET32", "17x8.5 ET30", 10.7, 14.7),
        ("18x8 ET45", "18x8.5 ET38", -0.65, 13.35),
        ("17x9 ET50", "17x9 ET0", -50.0, 50.0),
    ] {
        let (a, b): (Setup, Setup) = (fitted.parse().expect(fitted), planned.parse().expect(planned));
        let change = change::axle_change(&a, &b);
        let what = format!("{fitted} → {planned}");
        near(&what, "C, inner rim", change.inner_rim.expect("rim").value(), inner, 1e-9);
        near(&what, "C, outer rim", change.outer_rim.expect("rim").value(), outer, 1e-9);
        assert!(change.outer.is_none() && change.outer_tire.is_none(), "no tire was stated");
    }
}

#[test]
fn a_tire_fifty_larger_closes_the_arch_by_twenty_five() {
    // C, and geometry.
    let (a, b): (Setup, Setup) = ("245/600R18".parse().expect("a"), "245/650R18".parse().expect("b"));
    let change = change::axle_change(&a, &b);
    near("arch gap", "geometry", change.arch_gap.expect("gap").value(), -25.0, 1e-9);
    near("ride height", "geometry", change.ride_height.expect("height").value(), 25.0, 1e-9);
    assert!(change.track.is_none(), "no wheel was stated");
}

#[test]
fn the_rim_meets_the_car_on_a_stretched_tire_and_the_tire_on_a_square_one() {
    let square: Setup = "17x7.5 ET40 225/45R17".parse().expect("square");
    let stretched: Setup = "17x9 ET40 205/40R17".parse().expect("stretched");
    let change = change::axle_change(&square, &stretched);
    // Outermost: tire 112.5 − 40 fitted; rim flange 114.3 + 12.7 − 40 planned (geometry).
    near("outer", "geometry", change.outer.expect("outer").value(), 127.0 - 112.5, 1e-9);
    near("inner", "geometry", change.inner.expect("inner").value(), 127.0 - 112.5, 1e-9);
}
