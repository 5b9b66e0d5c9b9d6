//! Tables of handbooks and worked arithmetic, row by row. "memory" marks figures written down from memory of the named source;
//! "worked" ones were worked out apart from the program, by the formula that stands over the table.
use fitment::judgement::rules::load::share_at_speed;
use fitment::judgement::rules::pressure::LoadTable;
use fitment::parts::tire::{dimensions, rims};
use fitment::parts::wheel::Backspacing;
use fitment::road::rolling;
use fitment::road::track;
use fitment::setup::change::axle_change;
use fitment::setup::line::read_bolt_circles;
use fitment::values::codes::{BoltCircle, RimDiameter, RimWidth};
use fitment::values::fastener::Thread;
use fitment::values::load_index::LoadIndex;
use fitment::values::speed_symbol::SpeedSymbol;
use fitment::{Length, Offset, Setup, Tire};

fn tire(size: &str) -> Tire {
    size.parse().expect(size)
}

fn mm(value: f64) -> Length {
    Length::from_mm(value).unwrap()
}

/// ETRTO tables of passenger tires (memory), beside those of `standards`: size, measuring rim in inches, overall diameter.
const MORE_PASSENGER_TIRES: [(&str, f64, f64); 98] = [
    ("155/70R13", 4.5, 548.0),
    ("155/80R13", 4.5, 578.0),
    ("165/70R13", 5.0, 562.0),
    ("175/70R13", 5.0, 576.0),
    ("185/60R13", 5.5, 552.0),
    ("165/65R14", 5.0, 570.0),
    ("175/70R14", 5.0, 602.0),
    ("185/60R14", 5.5, 578.0),
    ("185/65R14", 5.5, 596.0),
    ("195/60R14", 6.0, 590.0),
    ("195/65R14", 6.0, 610.0),
    ("185/55R15", 6.0, 585.0),
    ("195/50R15", 6.0, 577.0),
    ("205/50R15", 6.5, 587.0),
    ("205/55R15", 6.5, 607.0),
    ("205/60R15", 6.0, 627.0),
    ("205/70R15", 6.0, 669.0),
    ("215/60R15", 6.5, 639.0),
    ("215/65R15", 6.5, 661.0),
    ("225/60R15", 6.5, 651.0),
    ("195/45R16", 6.5, 582.0),
    ("195/50R16", 6.0, 602.0),
    ("195/55R16", 6.0, 620.0),
    ("205/45R16", 7.0, 590.0),
    ("205/50R16", 6.5, 612.0),
    ("215/40R16", 7.5, 578.0),
    ("215/45R16", 7.0, 600.0),
    ("215/55R16", 7.0, 642.0),
    ("225/50R16", 7.0, 632.0),
    ("225/55R16", 7.0, 654.0),
    ("235/60R16", 7.0, 688.0),
    ("205/40R17", 7.5, 596.0),
    ("205/55R17", 6.5, 658.0),
    ("215/50R17", 7.0, 648.0),
    ("215/60R17", 6.5, 690.0),
    ("225/50R17", 7.0, 658.0),
    ("235/40R17", 8.5, 620.0),
    ("235/60R17", 7.0, 714.0),
    ("245/40R17", 8.5, 628.0),
    ("245/45R17", 8.0, 652.0),
    ("255/40R17", 9.0, 636.0),
    ("265/65R17", 8.0, 776.0),
    ("215/45R18", 7.0, 651.0),
    ("225/45R18", 7.5, 660.0),
    ("225/50R18", 7.0, 683.0),
    ("225/55R18", 7.0, 705.0),
    ("225/60R18", 6.5, 727.0),
    ("235/45R18", 8.0, 669.0),
    ("235/55R18", 7.5, 715.0),
    ("235/60R18", 7.0, 739.0),
    ("245/35R18", 8.5, 629.0),
    ("255/35R18", 9.0, 635.0),
    ("255/40R18", 9.0, 661.0),
    ("255/55R18", 8.0, 737.0),
    ("265/40R18", 9.5, 669.0),
    ("265/60R18", 8.0, 775.0),
    ("275/35R18", 9.5, 649.0),
    ("275/40R18", 9.5, 677.0),
    ("285/30R18", 10.0, 627.0),
    ("285/35R18", 10.0, 657.0),
    ("225/40R19", 8.0, 663.0),
    ("225/45R19", 7.5, 685.0),
    ("235/40R19", 8.5, 671.0),
    ("235/45R19", 8.0, 695.0),
    ("235/55R19", 7.5, 741.0),
    ("245/40R19", 8.5, 679.0),
    ("245/45R19", 8.0, 703.0),
    ("255/30R19", 9.0, 635.0),
    ("255/45R19", 8.5, 713.0),
    ("265/30R19", 9.5, 641.0),
    ("265/50R19", 8.5, 749.0),
    ("285/35R19", 10.0, 683.0),
    ("285/40R19", 10.0, 711.0),
    ("305/30R19", 11.0, 667.0),
    ("235/35R20", 8.5, 672.0),
    ("245/35R20", 8.5, 680.0),
    ("245/45R20", 8.0, 728.0),
    ("255/35R20", 9.0, 686.0),
    ("255/40R20", 9.0, 712.0),
    ("265/35R20", 9.5, 694.0),
    ("275/30R20", 9.5, 674.0),
    ("275/35R20", 9.5, 700.0),
    ("275/40R20", 9.5, 728.0),
    ("275/45R20", 9.0, 756.0),
    ("285/35R20", 10.0, 708.0),
    ("295/30R20", 10.5, 686.0),
    ("295/40R20", 10.5, 744.0),
    ("315/35R20", 11.0, 728.0),
    ("265/40R21", 9.5, 745.0),
    ("275/35R21", 9.5, 725.0),
    ("285/40R21", 10.0, 761.0),
    ("295/35R21", 10.5, 739.0),
    ("315/30R21", 11.0, 723.0),
    ("265/35R22", 9.5, 745.0),
    ("285/35R22", 10.0, 759.0),
    ("285/45R22", 9.5, 815.0),
    ("305/40R22", 11.0, 803.0),
    ("315/30R22", 11.0, 747.0),
];

#[test]
fn the_rest_of_the_table_agrees() {
    for (size, rim, diameter) in MORE_PASSENGER_TIRES {
        let size = tire(size).size;
        assert_eq!(rims::measuring_rim(&size).code(), rim, "{size}, ETRTO (memory)");
        let design = dimensions::design_overall_diameter(&size).as_mm();
        // The tables round the section height before they double it.
        assert!((design - diameter).abs() <= 2.0, "{size}: {design}, ETRTO (memory) {diameter}");
    }
}

/// TRA tables of light truck tires (memory): size and overall diameter in inches, to the tenth.
const LIGHT_TRUCK_TIRES: [(&str, f64); 28] = [
    ("LT215/85R16", 30.4),
    ("LT225/75R16", 29.3),
    ("LT235/75R15", 28.9),
    ("LT235/85R16", 31.7),
    ("LT245/75R16", 30.5),
    ("LT265/75R16", 31.6),
    ("LT285/75R16", 32.8),
    ("LT305/70R16", 32.8),
    ("LT315/75R16", 34.6),
    ("LT245/70R17", 30.5),
    ("LT245/75R17", 31.5),
    ("LT265/70R17", 31.6),
    ("LT275/70R17", 32.2),
    ("LT285/70R17", 32.7),
    ("LT315/70R17", 34.4),
    ("LT235/80R17", 31.8),
    ("LT265/70R18", 32.6),
    ("LT275/65R18", 32.1),
    ("LT275/70R18", 33.2),
    ("LT285/65R18", 32.6),
    ("LT285/75R18", 34.8),
    ("LT275/65R20", 34.1),
    ("LT285/60R20", 33.5),
    ("LT275/60R20", 33.0),
    ("LT265/60R20", 32.5),
    ("LT295/65R20", 35.1),
    ("LT325/60R20", 35.4),
    ("LT305/55R20", 33.2),
];

#[test]
fn light_truck_tires_are_as_tall_as_their_tables_say() {
    for (size, inches) in LIGHT_TRUCK_TIRES {
        let found = dimensions::overall_diameter(&tire(size).size).as_inches();
        assert!((found - inches).abs() < 0.1, "{size}: {found}, TRA (memory) {inches}");
        assert_eq!(tire(size).stated_version(), Some("LT"), "{size}");
    }
}

/// UN R30 annex: the share of its index that a tire carries at a speed; between two rows along the line that joins them.
const SHARE_AT_SPEED: [(char, f64, f64); 28] = [
    ('V', 150.0, 1.0),
    ('V', 210.0, 1.0),
    ('V', 215.0, 0.985),
    ('V', 220.0, 0.97),
    ('V', 225.0, 0.955),
    ('V', 230.0, 0.94),
    ('V', 235.0, 0.925),
    ('V', 240.0, 0.91),
    ('V', 212.5, 0.9925),
    ('V', 227.5, 0.9475),
    ('W', 200.0, 1.0),
    ('W', 240.0, 1.0),
    ('W', 250.0, 0.95),
    ('W', 260.0, 0.9),
    ('W', 270.0, 0.85),
    ('W', 245.0, 0.975),
    ('W', 255.0, 0.925),
    ('Y', 250.0, 1.0),
    ('Y', 270.0, 1.0),
    ('Y', 280.0, 0.95),
    ('Y', 290.0, 0.9),
    ('Y', 300.0, 0.85),
    ('Y', 275.0, 0.975),
    ('Y', 295.0, 0.875),
    ('H', 210.0, 1.0),
    ('T', 190.0, 1.0),
    ('S', 180.0, 1.0),
    ('Q', 160.0, 1.0),
];

#[test]
fn fast_tires_carry_less_as_un_r30_says() {
    for (letter, kmh, share) in SHARE_AT_SPEED {
        let symbol = SpeedSymbol::from_letter(letter).unwrap();
        let found = share_at_speed(symbol, kmh);
        assert!((found - share).abs() < 1e-9, "{letter} at {kmh} km/h: {found}, UN R30 {share}");
    }
}

/// ETRTO / ISO 4000-2 specified rim diameters at the 5° seat (memory): code and millimetres.
const BEAD_SEATS: [(f64, f64); 10] = [
    (13.0, 329.4),
    (14.0, 354.8),
    (15.0, 380.2),
    (16.0, 405.6),
    (17.0, 436.6),
    (18.0, 462.0),
    (19.0, 487.4),
    (20.0, 512.8),
    (21.0, 538.2),
    (22.0, 563.6),
];

#[test]
fn bead_seats_are_etrtos_and_step_at_seventeen() {
    for (code, seat) in BEAD_SEATS {
        let found = RimDiameter::from_code(code).unwrap().bead_seat().as_mm();
        assert!((found - seat).abs() < 1e-9, "{code}: {found}, ETRTO (memory) {seat}");
    }
    let seat = |code: f64| RimDiameter::from_code(code).unwrap().bead_seat().as_mm();
    assert!(((seat(17.0) - seat(16.0)) / 2.0 - 15.5).abs() < 1e-9, "17 to 16 takes 15.5 mm of radius");
    assert!(((seat(18.0) - seat(17.0)) / 2.0 - 12.7).abs() < 1e-9, "other steps 12.7");
}

/// Bolt circles as people write them, and what they mean: common practice, no source; inches by 25.4.
const BOLT_CIRCLES: [(&str, u8, f64); 51] = [
    ("4x98", 4, 98.0),
    ("4x100", 4, 100.0),
    ("4x108", 4, 108.0),
    ("4x114.3", 4, 114.3),
    ("4x4.5", 4, 114.3),
    ("5x98", 5, 98.0),
    ("5x100", 5, 100.0),
    ("5x105", 5, 105.0),
    ("5x108", 5, 108.0),
    ("5x110", 5, 110.0),
    ("5x112", 5, 112.0),
    ("5/112", 5, 112.0),
    ("5x114", 5, 114.3),
    ("5x114.3", 5, 114.3),
    ("5x114,3", 5, 114.3),
    ("5x4.5", 5, 114.3),
    ("5x115", 5, 115.0),
    ("5x118", 5, 118.0),
    ("5x120", 5, 120.0),
    ("5x120.65", 5, 120.65),
    ("5x4.75", 5, 120.65),
    ("5x4-3/4", 5, 120.65),
    ("5x127", 5, 127.0),
    ("5x5.0", 5, 127.0),
    ("5x5 in", 5, 127.0),
    ("5x130", 5, 130.0),
    ("5x135", 5, 135.0),
    ("5x139.7", 5, 139.7),
    ("5x5.5", 5, 139.7),
    ("5x5-1/2", 5, 139.7),
    ("5x150", 5, 150.0),
    ("5x160", 5, 160.0),
    ("5x165.1", 5, 165.1),
    ("6x114.3", 6, 114.3),
    ("6x120", 6, 120.0),
    ("6x127", 6, 127.0),
    ("6x130", 6, 130.0),
    ("6x135", 6, 135.0),
    ("6x139.7", 6, 139.7),
    ("6x5.5", 6, 139.7),
    ("8x165.1", 8, 165.1),
    ("8x6.5", 8, 165.1),
    ("8x170", 8, 170.0),
    ("8x180", 8, 180.0),
    ("8x200", 8, 200.0),
    ("5 lug 4.5", 5, 114.3),
    ("6H139.7", 6, 139.7),
    ("5 bolt 112", 5, 112.0),
    ("PCD 5x112", 5, 112.0),
    ("LK 5x120", 5, 120.0),
    ("5 on 4.75", 5, 120.65),
];

#[test]
fn bolt_circles_are_what_people_mean() {
    for (text, count, mm) in BOLT_CIRCLES {
        let found = read_bolt_circles(text).unwrap_or_else(|error| panic!("{text}: {error}"));
        assert_eq!(found.len(), 1, "{text}");
        assert_eq!(found[0].count(), count, "{text}");
        assert!((found[0].diameter().as_mm() - mm).abs() < 1e-9, "{text}: {}", found[0]);
    }
    // Close ones are kept apart.
    for pair in ["5x120 5x120.65", "5x114.3 5x115", "5x108 5x110"] {
        assert_eq!(read_bolt_circles(pair).unwrap().len(), 2, "{pair}");
    }
}

/// Distance of neighbouring holes, worked: circle × sin (180° / count).
const NEIGHBOURS: [(u8, f64, f64); 22] = [
    (3, 112.0, 96.99),
    (4, 98.0, 69.30),
    (4, 100.0, 70.71),
    (4, 108.0, 76.37),
    (4, 114.3, 80.82),
    (5, 100.0, 58.78),
    (5, 108.0, 63.48),
    (5, 110.0, 64.66),
    (5, 112.0, 65.83),
    (5, 114.3, 67.18),
    (5, 115.0, 67.60),
    (5, 120.0, 70.53),
    (5, 127.0, 74.65),
    (5, 130.0, 76.41),
    (5, 150.0, 88.17),
    (6, 114.3, 57.15),
    (6, 120.0, 60.00),
    (6, 130.0, 65.00),
    (6, 139.7, 69.85),
    (8, 165.1, 63.18),
    (8, 170.0, 65.06),
    (8, 180.0, 68.88),
];

#[test]
fn a_bolt_circle_is_read_off_two_neighbouring_holes() {
    for (count, circle, apart) in NEIGHBOURS {
        let found = BoltCircle::from_neighbours(count, mm(apart)).unwrap();
        assert_eq!(
            (found.count(), found.diameter().as_mm()),
            (count, circle),
            "{count} holes {apart} mm apart"
        );
    }
}

/// Backspacing, worked: (width + 1) / 2 in + ET / 25.4, as the trade's charts have it (common practice): width, ET, inches.
const BACKSPACINGS: [(f64, f64, f64); 34] = [
    (5.0, 35.0, 4.378),
    (5.5, 38.0, 4.746),
    (6.0, 45.0, 5.272),
    (6.0, 37.0, 4.957),
    (6.5, 45.0, 5.522),
    (6.5, 38.0, 5.246),
    (7.0, 0.0, 4.000),
    (7.0, 35.0, 5.378),
    (7.0, 45.0, 5.772),
    (7.5, 32.0, 5.510),
    (7.5, 45.0, 6.022),
    (8.0, 0.0, 4.500),
    (8.0, 35.0, 5.878),
    (8.0, 45.0, 6.272),
    (8.5, 30.0, 5.931),
    (8.5, 35.0, 6.128),
    (8.5, 45.0, 6.522),
    (9.0, -12.0, 4.528),
    (9.0, 0.0, 5.000),
    (9.0, 25.0, 5.984),
    (9.5, 22.0, 6.116),
    (9.5, 38.0, 6.746),
    (9.5, 45.0, 7.022),
    (10.0, -25.0, 4.516),
    (10.0, -44.0, 3.768),
    (10.0, 18.0, 6.209),
    (10.0, 35.0, 6.878),
    (10.5, 15.0, 6.341),
    (10.5, 27.0, 6.813),
    (11.0, 0.0, 6.000),
    (11.0, 50.0, 7.969),
    (12.0, -44.0, 4.768),
    (12.0, 20.0, 7.287),
    (12.5, 35.0, 8.128),
];

#[test]
fn backspacing_and_offset_are_two_ways_of_saying_one_thing() {
    for (width, offset, inches) in BACKSPACINGS {
        let rim = RimWidth::from_code(width).unwrap();
        let said = Backspacing::from_offset(rim, Offset::from_mm(offset).unwrap()).length();
        assert!((said.as_inches() - inches).abs() < 0.001, "{width} ET{offset}: {}", said.as_inches());
        let back = Backspacing::measured(Length::from_inches(inches).unwrap()).to_offset(rim).unwrap();
        assert!((back.as_mm() - offset).abs() < 0.02, "{width} with {inches} in: {back}");
    }
}

/// The edges of the bare wheel, worked: outward ΔW / 2 − ΔET, inward ΔW / 2 + ΔET: from width and ET, to width and ET, out, in.
const EDGES: [([f64; 2], [f64; 2], f64, f64); 16] = [
    ([7.5, 32.0], [8.5, 30.0], 14.700, 10.700),
    ([7.0, 45.0], [8.0, 45.0], 12.700, 12.700),
    ([7.5, 45.0], [8.0, 35.0], 16.350, -3.650),
    ([8.0, 45.0], [9.5, 22.0], 42.050, -3.950),
    ([8.0, 34.0], [8.5, 33.0], 7.350, 5.350),
    ([8.5, 47.0], [9.5, 40.0], 19.700, 5.700),
    ([6.5, 45.0], [7.0, 40.0], 11.350, 1.350),
    ([6.5, 38.0], [8.0, 38.0], 19.050, 19.050),
    ([9.0, 30.0], [8.0, 30.0], -12.700, -12.700),
    ([8.5, 35.0], [8.5, 20.0], 15.000, -15.000),
    ([8.5, 35.0], [8.5, 50.0], -15.000, 15.000),
    ([7.0, 0.0], [10.0, -25.0], 63.100, 13.100),
    ([8.0, 45.0], [8.0, 45.0], 0.000, 0.000),
    ([10.0, 18.0], [11.0, 25.0], 5.700, 19.700),
    ([7.5, 38.0], [8.25, 38.0], 9.525, 9.525),
    ([9.5, 45.0], [10.5, 52.0], 5.700, 19.700),
];

#[test]
fn the_edges_of_the_wheel_move_as_the_arithmetic_says() {
    let setup =
        |[width, offset]: [f64; 2]| -> Setup { format!("18x{width} ET{offset} 225/40R18").parse().unwrap() };
    for (from, to, out, inward) in EDGES {
        let change = axle_change(&setup(from), &setup(to));
        let [outer, inner] = [change.outer_rim, change.inner_rim].map(|figure| figure.unwrap().value());
        assert!((outer - out).abs() < 0.001, "{from:?} to {to:?}: {outer} out, worked {out}");
        assert!((inner - inward).abs() < 0.001, "{from:?} to {to:?}: {inner} in, worked {inward}");
    }
}

/// Turns that engage one diameter, worked: diameter / pitch.
const TURNS: [(&str, f64); 14] = [
    ("M12x1.25", 9.6000),
    ("M12x1.5", 8.0000),
    ("M12x1.75", 6.8571),
    ("M14x1.25", 11.2000),
    ("M14x1.5", 9.3333),
    ("M14x2", 7.0000),
    ("M16x1.5", 10.6667),
    ("M18x1.5", 12.0000),
    ("M20x1.5", 13.3333),
    ("M22x1.5", 14.6667),
    ("7/16-20", 8.7500),
    ("1/2-20", 10.0000),
    ("9/16-18", 10.1250),
    ("5/8-18", 11.2500),
];

#[test]
fn a_thread_holds_from_one_diameter_on() {
    for (text, turns) in TURNS {
        let thread: Thread = text.parse().unwrap_or_else(|error| panic!("{text}: {error}"));
        assert!((thread.least_turns() - turns).abs() < 0.001, "{text}: {}", thread.least_turns());
        assert_eq!(thread.to_string().parse::<Thread>().unwrap(), thread, "{text}");
    }
    for nonsense in ["M9x1", "M14", "14x1.5", "M14x5", "1/2", "2-20", "M14x1.5x2", ""] {
        assert!(nonsense.parse::<Thread>().is_err(), "{nonsense}");
    }
}

/// Cold pressure for a load, worked: P_ref · (L / L_max)^(1/n) with ETRTO's and TRA's references (memory): tire, kg, kPa.
const PRESSURES: [(&str, f64, f64); 28] = [
    ("225/45R17 91W", 369.00, 132.02),
    ("225/45R17 91W", 461.25, 174.49),
    ("225/45R17 91W", 553.50, 219.15),
    ("225/45R17 91W", 615.00, 250.00),
    ("225/45R17 94Y XL", 402.00, 153.14),
    ("225/45R17 94Y XL", 502.50, 202.41),
    ("225/45R17 94Y XL", 603.00, 254.21),
    ("225/45R17 94Y XL", 670.00, 290.00),
    ("245/40R18 97Y XL", 438.00, 153.14),
    ("245/40R18 97Y XL", 547.50, 202.41),
    ("245/40R18 97Y XL", 657.00, 254.21),
    ("245/40R18 97Y XL", 730.00, 290.00),
    ("205/50R16 88V", 336.00, 132.02),
    ("205/50R16 88V", 420.00, 174.49),
    ("205/50R16 88V", 504.00, 219.15),
    ("205/50R16 88V", 560.00, 250.00),
    ("235/60R17 102H", 510.00, 132.02),
    ("235/60R17 102H", 637.50, 174.49),
    ("235/60R17 102H", 765.00, 219.15),
    ("235/60R17 102H", 850.00, 250.00),
    ("LT245/75R16 LR E 121/118S", 870.00, 265.12),
    ("LT245/75R16 LR E 121/118S", 1087.50, 364.65),
    ("LT245/75R16 LR E 121/118S", 1305.00, 473.15),
    ("LT245/75R16 LR E 121/118S", 1450.00, 550.00),
    ("LT265/70R17 LR C 112/109S", 672.00, 168.71),
    ("LT265/70R17 LR C 112/109S", 840.00, 232.05),
    ("LT265/70R17 LR C 112/109S", 1008.00, 301.09),
    ("LT265/70R17 LR C 112/109S", 1120.00, 350.00),
];

#[test]
fn a_load_asks_for_its_pressure_by_the_kind_of_tire() {
    for (text, load_kg, kpa) in PRESSURES {
        let mut tire = tire(text);
        // The load version of a metric tire must be stated for the standard reference.
        if tire.load_version.is_none() && !tire.size.is_light_truck() {
            tire.load_version = Some(fitment::parts::tire::LoadVersion::Standard);
        }
        let capacity = tire.service.unwrap().single.capacity_kg();
        let reference = LoadTable::of(&tire, None).unwrap();
        let found = reference.pressure_kpa(capacity, load_kg);
        assert!((found - kpa).abs() < 0.5, "{text} with {load_kg} kg: {found}, worked {kpa}");
        assert!((reference.carries_kg(capacity, found) - load_kg).abs() < 0.01, "{text}: and back");
    }
}

/// Gay-Lussac, worked with absolute pressures (101.325 kPa) and temperatures (273.15): cold kPa, cold °C, hot °C, hot kPa.
const HOT: [(f64, f64, f64, f64); 9] = [
    (180.0, 20.0, 70.0, 227.98),
    (200.0, 20.0, 80.0, 261.67),
    (165.0, 9.0, 85.0, 236.74),
    (173.0, 9.0, 90.0, 251.75),
    (190.0, 30.0, 75.0, 233.24),
    (210.0, -5.0, 40.0, 262.25),
    (230.0, 20.0, 45.0, 258.26),
    (150.0, 15.0, 95.0, 219.78),
    (220.0, 25.0, 25.0, 220.00),
];

#[test]
fn a_tire_that_gets_hot_gains_pressure_as_gay_lussac_says() {
    for (cold, cold_c, hot_c, hot) in HOT {
        let found = track::hot_pressure_kpa(cold, cold_c, hot_c);
        assert!((found - hot).abs() < 0.5, "{cold} kPa from {cold_c} to {hot_c} °C: {found}, worked {hot}");
        assert!((track::cold_pressure_kpa(found, cold_c, hot_c) - cold).abs() < 1e-6, "and back");
    }
}

/// Road speed, worked: n / 60 × 3.05 OD / (gear × final) × 3.6: overall diameter, gear, final drive, 1/min, km/h.
const GEARS: [(f64, f64, f64, f64, f64); 7] = [
    (634.3, 3.6, 3.9, 6500.0, 53.739),
    (634.3, 1.0, 3.9, 6500.0, 193.461),
    (647.1, 2.19, 3.15, 7000.0, 120.162),
    (724.3, 4.58, 4.1, 4000.0, 28.235),
    (774.8, 4.58, 4.1, 4000.0, 30.203),
    (600.0, 0.82, 4.1, 6800.0, 222.082),
    (838.2, 0.7, 4.56, 2500.0, 120.137),
];

#[test]
fn a_gear_is_as_fast_as_the_arithmetic_says() {
    for (diameter, gear, last, rpm, kmh) in GEARS {
        let around = rolling::rolling_circumference(mm(diameter));
        let found = rolling::speed_kmh(rpm, around, gear, last);
        assert!((found - kmh).abs() < 0.01, "{diameter} in {gear}: {found}, worked {kmh}");
        assert!((rolling::engine_rpm(found, around, gear, last) - rpm).abs() < 1e-6, "and back");
    }
}

/// Bending moments, worked after SAE J328 (memory): rating, radius, ET, corner load, side g; test and corner in N·m.
const MOMENTS: [([f64; 5], f64, f64); 6] = [
    ([690.0, 300.0, 35.0, 456.0, 1.2], 2652.50, 1766.37),
    ([560.0, 295.0, 38.0, 430.0, 1.1], 2148.36, 1528.61),
    ([650.0, 305.0, 45.0, 610.0, 1.0], 2636.42, 2093.72),
    ([720.0, 310.0, -12.0, 500.0, 0.9], 2587.07, 1426.87),
    ([800.0, 380.0, 10.0, 900.0, 0.7], 3464.49, 2435.97),
    ([600.0, 290.0, 0.0, 400.0, 1.3], 1911.12, 1478.84),
];

#[test]
fn a_corner_bends_a_wheel_as_the_arithmetic_says() {
    for ([rating, radius, offset, load, side], tested, in_the_corner) in MOMENTS {
        let test = track::moment_tested_nm(rating, mm(radius), mm(offset));
        let corner = track::corner_moment_nm(load, side, mm(radius), mm(offset));
        assert!((test - tested).abs() < 0.05, "{rating} kg: {test}, worked {tested}");
        assert!(
            (corner - in_the_corner).abs() < 0.05,
            "{load} kg at {side} g: {corner}, worked {in_the_corner}"
        );
    }
}

/// The least index that carries a load, from the table of ISO 4000-1: kilograms and index.
const LEAST_INDEX: [(f64, u8); 71] = [
    (250.0, 60),
    (251.0, 61),
    (257.0, 61),
    (260.0, 62),
    (272.0, 63),
    (281.0, 65),
    (300.0, 66),
    (310.0, 68),
    (325.0, 69),
    (330.0, 70),
    (345.0, 71),
    (360.0, 73),
    (375.0, 74),
    (380.0, 75),
    (387.0, 75),
    (400.0, 76),
    (405.0, 77),
    (425.0, 78),
    (430.0, 79),
    (450.0, 80),
    (455.0, 81),
    (475.0, 82),
    (480.0, 83),
    (500.0, 84),
    (501.0, 85),
    (515.0, 85),
    (520.0, 86),
    (545.0, 87),
    (560.0, 88),
    (561.0, 89),
    (580.0, 89),
    (590.0, 90),
    (600.0, 90),
    (601.0, 91),
    (615.0, 91),
    (616.0, 92),
    (630.0, 92),
    (640.0, 93),
    (650.0, 93),
    (655.0, 94),
    (670.0, 94),
    (680.0, 95),
    (690.0, 95),
    (700.0, 96),
    (710.0, 96),
    (720.0, 97),
    (750.0, 98),
    (751.0, 99),
    (775.0, 99),
    (790.0, 100),
    (800.0, 100),
    (810.0, 101),
    (850.0, 102),
    (860.0, 103),
    (900.0, 104),
    (910.0, 105),
    (950.0, 106),
    (1000.0, 108),
    (1001.0, 109),
    (1060.0, 110),
    (1100.0, 112),
    (1150.0, 113),
    (1200.0, 115),
    (1250.0, 116),
    (1300.0, 118),
    (1360.0, 119),
    (1400.0, 120),
    (1450.0, 121),
    (1500.0, 122),
    (1600.0, 124),
    (1700.0, 126),
];

#[test]
fn the_least_index_for_a_load_is_the_next_of_the_table() {
    for (kg, index) in LEAST_INDEX {
        let found = LoadIndex::least_for(kg).unwrap();
        assert_eq!(found.index(), index, "{kg} kg");
        assert!(found.capacity_kg() >= kg);
    }
    assert!(LoadIndex::least_for(1e6).is_none(), "no tire of a car carries that");
}

/// What a new tire may measure, worked by UN R30 §6.1 (memory): d + 2H · 0.97, d + 2H · 1.04 with the regulation's own d, and 4 %
/// over the section: size, least and most diameter, most width, in millimetres.
const NEW_TIRES: [(&str, f64, f64, f64); 42] = [
    ("155/80R13", 570.56, 587.92, 161.20),
    ("165/70R14", 580.07, 596.24, 171.60),
    ("175/65R14", 576.67, 592.60, 182.00),
    ("185/60R14", 571.34, 586.88, 192.40),
    ("195/65R15", 626.89, 644.64, 202.80),
    ("185/60R15", 596.34, 611.88, 192.40),
    ("205/55R15", 599.74, 615.52, 213.20),
    ("195/50R15", 570.15, 583.80, 202.80),
    ("205/55R16", 624.74, 640.52, 213.20),
    ("215/60R16", 656.26, 674.32, 223.60),
    ("205/50R16", 604.85, 619.20, 213.20),
    ("195/45R16", 576.24, 588.52, 202.80),
    ("215/55R16", 635.40, 651.96, 223.60),
    ("225/45R17", 628.42, 642.60, 234.00),
    ("205/50R17", 630.85, 645.20, 213.20),
    ("215/45R17", 619.69, 633.24, 223.60),
    ("235/45R17", 637.15, 651.96, 244.40),
    ("225/65R17", 715.72, 736.20, 234.00),
    ("245/40R17", 622.12, 635.84, 254.80),
    ("225/40R18", 631.60, 644.20, 234.00),
    ("235/40R18", 639.36, 652.52, 244.40),
    ("245/40R18", 647.12, 660.84, 254.80),
    ("255/35R18", 630.14, 642.64, 265.20),
    ("225/50R18", 675.25, 691.00, 234.00),
    ("235/60R18", 730.54, 750.28, 244.40),
    ("265/35R18", 636.93, 649.92, 275.60),
    ("235/35R19", 642.57, 654.08, 244.40),
    ("245/35R19", 649.36, 661.36, 254.80),
    ("255/35R19", 656.14, 668.64, 265.20),
    ("275/30R19", 643.05, 654.60, 286.00),
    ("235/55R19", 733.75, 751.84, 244.40),
    ("225/40R19", 657.60, 670.20, 234.00),
    ("255/35R20", 681.14, 693.64, 265.20),
    ("275/40R20", 721.40, 736.80, 286.00),
    ("245/45R20", 721.88, 737.32, 254.80),
    ("285/30R20", 673.87, 685.84, 296.40),
    ("315/35R20", 721.88, 737.32, 327.60),
    ("265/40R21", 738.64, 753.48, 275.60),
    ("295/35R21", 733.31, 747.76, 306.80),
    ("315/30R21", 716.33, 729.56, 327.60),
    ("285/35R22", 752.51, 766.48, 296.40),
    ("265/35R22", 738.93, 751.92, 275.60),
];

#[test]
fn a_new_tire_may_measure_what_un_r30_says() {
    for (text, least, most, wide) in NEW_TIRES {
        let size = tire(text).size;
        let limits = dimensions::overall_diameter_limits(&size);
        assert!(
            (limits.0.as_mm() - least).abs() < 0.01,
            "{text}: {} least, worked {least}",
            limits.0.as_mm()
        );
        assert!((limits.1.as_mm() - most).abs() < 0.01, "{text}: {} most, worked {most}", limits.1.as_mm());
        let width = dimensions::greatest_overall_width(size.named_section_width()).as_mm();
        assert!((width - wide).abs() < 0.01, "{text}: {width}, worked {wide}");
        assert!(size.is_under_r30(), "{text}");
    }
}

/// Turns a mile, worked: 1 609 344 mm over π · OD, and over 3.05 · OD as makers publish them (ETRTO practice, memory).
const TURNS_A_MILE: [(&str, f64, f64); 42] = [
    ("155/80R13", 885.97, 912.58),
    ("165/70R14", 873.29, 899.51),
    ("175/65R14", 878.53, 904.91),
    ("185/60R14", 886.89, 913.53),
    ("195/65R15", 807.36, 831.61),
    ("185/60R15", 849.54, 875.05),
    ("205/55R15", 844.63, 870.00),
    ("195/50R15", 889.36, 916.07),
    ("205/55R16", 810.68, 835.03),
    ("215/60R16", 771.03, 794.18),
    ("205/50R16", 837.86, 863.03),
    ("195/45R16", 880.34, 906.78),
    ("215/55R16", 796.81, 820.74),
    ("225/45R17", 807.61, 831.87),
    ("205/50R17", 804.44, 828.60),
    ("215/45R17", 819.24, 843.84),
    ("235/45R17", 796.32, 820.23),
    ("225/65R17", 707.26, 728.50),
    ("245/40R17", 815.98, 840.48),
    ("225/40R18", 803.94, 828.08),
    ("235/40R18", 793.97, 817.81),
    ("245/40R18", 784.25, 807.80),
    ("255/35R18", 805.84, 830.04),
    ("225/50R18", 750.91, 773.46),
    ("235/60R18", 693.01, 713.82),
    ("265/35R18", 797.06, 821.00),
    ("235/35R19", 791.64, 815.41),
    ("245/35R19", 783.17, 806.69),
    ("255/35R19", 774.88, 798.15),
    ("275/30R19", 791.03, 814.78),
    ("235/55R19", 691.23, 711.99),
    ("225/40R19", 773.12, 796.34),
    ("255/35R20", 746.21, 768.61),
    ("275/40R20", 703.67, 724.80),
    ("245/45R20", 703.18, 724.30),
    ("285/30R20", 754.45, 777.10),
    ("315/35R20", 703.18, 724.30),
    ("265/40R21", 687.24, 707.88),
    ("295/35R21", 692.35, 713.14),
    ("315/30R21", 709.12, 730.42),
    ("285/35R22", 675.55, 695.84),
    ("265/35R22", 688.26, 708.93),
];

#[test]
fn turns_a_mile_are_worked_both_ways() {
    for (text, simple, published) in TURNS_A_MILE {
        let size = tire(text).size;
        let found = dimensions::revolutions_per_mile(&size);
        assert!((found - simple).abs() < 0.01, "{text}: {found}, worked {simple}");
        let found = dimensions::rolling_revolutions_per_mile(&size);
        assert!((found - published).abs() < 0.01, "{text}: {found}, worked {published}");
    }
}

/// Flotation sizes and their measuring rims (TRA, memory).
const FLOTATION: [(&str, f64); 12] = [
    ("30x9.50R15LT", 7.5),
    ("31x10.50R15LT", 8.5),
    ("33x12.50R15LT", 10.0),
    ("35x12.50R15LT", 10.0),
    ("33x12.50R17LT", 10.0),
    ("35x12.50R17LT", 10.0),
    ("37x12.50R17LT", 10.0),
    ("35x12.50R18LT", 10.0),
    ("35x12.50R20LT", 10.0),
    ("37x13.50R17LT", 11.0),
    ("37x13.50R20LT", 11.0),
    ("33x10.50R15LT", 8.5),
];

#[test]
fn flotation_tires_are_measured_on_tras_rims() {
    for (text, rim) in FLOTATION {
        let size = tire(text).size;
        assert_eq!(rims::measuring_rim(&size).code(), rim, "{text}, TRA (memory)");
        assert!(!size.is_under_r30(), "{text}: the regulation does not hold for it");
        let named: f64 = text.split('x').next().unwrap().parse().unwrap();
        assert!((dimensions::overall_diameter(&size).as_inches() - named).abs() < 1e-9, "{text}");
    }
}
