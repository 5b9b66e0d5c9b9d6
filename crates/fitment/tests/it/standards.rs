//! Published tables, row by row. "memory" marks figures written down from memory of the named source.
use fitment::parts::tire::rims::RimFit;
use fitment::parts::tire::{dimensions, rims};
use fitment::setup::tire_on_rim::{SidewallShape, tire_on_rim};
use fitment::values::load_index::LoadIndex;
use fitment::values::speed_symbol::SpeedSymbol;
use fitment::{RimDiameter, RimWidth, Tire};

fn tire(size: &str) -> Tire {
    size.parse().expect(size)
}

/// ISO 4000-1 / UN R30 annex: load capacity index and kilograms.
const LOAD_INDEXES: [(u32, f64); 67] = [
    (60, 250.0),
    (61, 257.0),
    (62, 265.0),
    (63, 272.0),
    (64, 280.0),
    (65, 290.0),
    (66, 300.0),
    (67, 307.0),
    (68, 315.0),
    (69, 325.0),
    (70, 335.0),
    (71, 345.0),
    (72, 355.0),
    (73, 365.0),
    (74, 375.0),
    (75, 387.0),
    (76, 400.0),
    (77, 412.0),
    (78, 425.0),
    (79, 437.0),
    (80, 450.0),
    (81, 462.0),
    (82, 475.0),
    (83, 487.0),
    (84, 500.0),
    (85, 515.0),
    (86, 530.0),
    (87, 545.0),
    (88, 560.0),
    (89, 580.0),
    (90, 600.0),
    (91, 615.0),
    (92, 630.0),
    (93, 650.0),
    (94, 670.0),
    (95, 690.0),
    (96, 710.0),
    (97, 730.0),
    (98, 750.0),
    (99, 775.0),
    (100, 800.0),
    (101, 825.0),
    (102, 850.0),
    (103, 875.0),
    (104, 900.0),
    (105, 925.0),
    (106, 950.0),
    (107, 975.0),
    (108, 1000.0),
    (109, 1030.0),
    (110, 1060.0),
    (111, 1090.0),
    (112, 1120.0),
    (113, 1150.0),
    (114, 1180.0),
    (115, 1215.0),
    (116, 1250.0),
    (117, 1285.0),
    (118, 1320.0),
    (119, 1360.0),
    (120, 1400.0),
    (121, 1450.0),
    (122, 1500.0),
    (123, 1550.0),
    (124, 1600.0),
    (125, 1650.0),
    (126, 1700.0),
];

#[test]
fn every_load_index_carries_what_iso_4000_1_says() {
    for (index, kg) in LOAD_INDEXES {
        assert_eq!(LoadIndex::new(index).unwrap().capacity_kg(), kg, "index {index}, ISO 4000-1");
    }
}

/// UN R30: speed symbol and km/h.
const SPEED_SYMBOLS: [(char, f64); 17] = [
    ('F', 80.0),
    ('G', 90.0),
    ('J', 100.0),
    ('K', 110.0),
    ('L', 120.0),
    ('M', 130.0),
    ('N', 140.0),
    ('P', 150.0),
    ('Q', 160.0),
    ('R', 170.0),
    ('S', 180.0),
    ('T', 190.0),
    ('U', 200.0),
    ('H', 210.0),
    ('V', 240.0),
    ('W', 270.0),
    ('Y', 300.0),
];

#[test]
fn every_speed_symbol_is_as_fast_as_un_r30_says() {
    for (letter, kmh) in SPEED_SYMBOLS {
        let symbol = SpeedSymbol::from_letter(letter).unwrap();
        assert_eq!((symbol.top_speed_kmh(), symbol.is_open_ended()), (kmh, false), "{letter}, UN R30");
    }
    let named = SPEED_SYMBOLS.len() + 1;
    assert_eq!(SpeedSymbol::all().count(), named, "the letters, and (Y)");
    // UN R30: (Y) is over 300, ZR without a service description over 240.
    assert_eq!(tire("245/40ZR18 (97Y)").top_speed_kmh(), Some(300.0));
    assert_eq!(tire("245/40ZR18").top_speed_kmh(), Some(240.0));
    assert_eq!(tire("245/40R18").top_speed_kmh(), None, "nothing says so");
}

/// ETRTO tables of passenger tires (memory): size, measuring rim in inches, design overall diameter in mm
/// rounded to the whole millimetre.
const PASSENGER_TIRES: [(&str, f64, f64); 48] = [
    ("145/80R13", 4.0, 562.0),
    ("155/70R13", 4.5, 547.0),
    ("165/70R14", 5.0, 587.0),
    ("175/65R14", 5.0, 584.0),
    ("185/65R15", 5.5, 621.0),
    ("195/65R15", 6.0, 635.0),
    ("205/65R15", 6.0, 647.0),
    ("215/65R16", 6.5, 686.0),
    ("225/65R17", 6.5, 724.0),
    ("235/65R17", 7.0, 738.0),
    ("185/60R15", 5.5, 603.0),
    ("195/60R15", 6.0, 615.0),
    ("205/60R16", 6.0, 652.0),
    ("215/60R16", 6.5, 664.0),
    ("225/60R17", 6.5, 702.0),
    ("195/55R15", 6.0, 595.0),
    ("205/55R16", 6.5, 632.0),
    ("215/55R17", 7.0, 668.0),
    ("225/55R17", 7.0, 680.0),
    ("235/55R17", 7.5, 690.0),
    ("195/50R15", 6.0, 576.0),
    ("205/50R17", 6.5, 637.0),
    ("225/50R17", 7.0, 657.0),
    ("235/50R18", 7.5, 692.0),
    ("255/50R19", 8.0, 738.0),
    ("205/45R17", 7.0, 616.0),
    ("215/45R17", 7.0, 625.0),
    ("225/45R17", 7.5, 634.0),
    ("235/45R17", 8.0, 644.0),
    ("245/45R18", 8.0, 677.0),
    ("255/45R18", 8.5, 687.0),
    ("215/40R17", 7.5, 604.0),
    ("225/40R18", 8.0, 637.0),
    ("235/40R18", 8.5, 645.0),
    ("245/40R18", 8.5, 653.0),
    ("255/40R19", 9.0, 687.0),
    ("225/35R19", 8.0, 641.0),
    ("235/35R19", 8.5, 647.0),
    ("245/35R19", 8.5, 655.0),
    ("255/35R19", 9.0, 661.0),
    ("265/35R19", 9.5, 669.0),
    ("275/35R19", 9.5, 675.0),
    ("265/35R18", 9.5, 643.0),
    ("275/30R19", 9.5, 648.0),
    ("285/30R20", 10.0, 679.0),
    ("295/30R19", 10.5, 660.0),
    ("305/30R20", 11.0, 691.0),
    ("325/30R20", 11.5, 703.0),
];

#[test]
fn measuring_rims_and_diameters_are_etrtos() {
    for (size, rim, diameter) in PASSENGER_TIRES {
        let size = tire(size).size;
        assert_eq!(rims::measuring_rim(&size).code(), rim, "{size}, ETRTO (memory)");
        // The tables round the section height before doubling it, now up, now down: a millimetre either way.
        let design = dimensions::design_overall_diameter(&size).as_mm();
        assert!((design - diameter).abs() <= 1.0, "{size}: {design}, ETRTO (memory) {diameter}");
    }
}

#[test]
fn every_tire_of_the_table_is_permitted_and_square_on_its_measuring_rim() {
    for (size, rim, _) in PASSENGER_TIRES {
        let tire = tire(size);
        let wheel = fitment::Wheel::plain(tire.size.rim(), RimWidth::from_code(rim).unwrap());
        let setup = fitment::Setup { wheel: Some(wheel), tire: Some(tire), ..fitment::Setup::default() };
        let on_rim = tire_on_rim(&setup).unwrap();
        assert_eq!((on_rim.shape, on_rim.fit), (SidewallShape::Square, RimFit::Permitted), "{size} on {rim}");
    }
}

#[test]
fn a_new_tires_limits_lie_round_its_design_diameter() {
    // UN R30 §6.1 (memory): 3 % of both sidewalls under it, 4 % over it.
    for (size, ..) in PASSENGER_TIRES {
        let size = tire(size).size;
        let (least, most) = dimensions::overall_diameter_limits(&size);
        let sidewalls = dimensions::sidewall(&size).as_mm() * 2.0;
        let design = dimensions::design_overall_diameter(&size).as_mm();
        assert!((design - least.as_mm() - 0.03 * sidewalls).abs() < 1e-9, "{size}");
        assert!((most.as_mm() - design - 0.04 * sidewalls).abs() < 1e-9, "{size}");
    }
}

#[test]
fn everyday_and_design_diameter_differ_by_less_than_a_millimetre() {
    // UN R30 rounds code × 25.4 to the whole millimetre (memory).
    for half_inches in 20..=52 {
        let rim = RimDiameter::from_code(f64::from(half_inches) / 2.0).unwrap();
        assert!((rim.everyday() - rim.r30_design()).abs().as_mm() <= 0.5, "{rim}");
    }
}

/// What a rim adds to the section, UN R30 §6.1.1 (memory): 0.4 of the change in rim width, 5.08 mm a half inch.
const SECTION_ON_RIMS: [(&str, f64, f64); 10] = [
    ("205/55R16", 6.0, 199.92),
    ("205/55R16", 6.5, 205.0),
    ("205/55R16", 7.0, 210.08),
    ("225/45R17", 7.0, 219.92),
    ("225/45R17", 8.0, 230.08),
    ("225/45R17", 8.5, 235.16),
    ("245/40R18", 8.0, 239.92),
    ("245/40R18", 9.5, 255.16),
    ("275/35R18", 9.0, 269.92),
    ("275/35R18", 10.5, 285.16),
];

#[test]
fn the_section_follows_the_rim_as_un_r30_says() {
    for (size, rim, section) in SECTION_ON_RIMS {
        let found = rims::section_width_on(&tire(size).size, RimWidth::from_code(rim).unwrap()).as_mm();
        assert!((found - section).abs() < 1e-9, "{size} on {rim}: {found}, UN R30 {section}");
    }
}
