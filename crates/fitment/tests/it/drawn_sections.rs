//! The drawn profiles, held against the figures they are drawn from by geometry worked out another way.
use fitment::car::section::{Point, rim_section, tire_section};
use fitment::setup::change::Faces;
use fitment::{Setup, parts::tire};

const USUAL: [&str; 12] = [
    "15x6 ET45 195/65R15",
    "16x6.5 ET45 205/55R16",
    "17x7.5 ET45 225/45R17",
    "17x9 ET20 205/40R17",
    "18x8.5 ET35 245/40R18",
    "18x9.5 ET40 265/35R18",
    "19x9.5 ET22 275/30R19",
    "20x10 ET-12 305/30R20",
    "17x8 ET25 LT245/70R17",
    "15x10 ET-38 33x12.50R15LT",
    "17x4.5 ET-10 28x6.0-17",
    "18x10.5 ET15 290/680R18",
];

fn setup(line: &str) -> Setup {
    line.parse().expect(line)
}

/// Twice the area inside a closed outline, by the shoelace rule; the sign tells which way it runs.
fn doubled_area(outline: &[Point]) -> f64 {
    let next = outline.iter().cycle().skip(1);
    outline.iter().zip(next).map(|(a, b)| a.y * b.r - b.y * a.r).sum()
}

/// Whether two stretches cross inside both.
fn cross(a: Point, b: Point, c: Point, d: Point) -> bool {
    let side = |p: Point, q: Point, x: Point| (q.y - p.y) * (x.r - p.r) - (q.r - p.r) * (x.y - p.y);
    side(a, b, c) * side(a, b, d) < -1e-9 && side(c, d, a) * side(c, d, b) < -1e-9
}

fn crossings(outline: &[Point]) -> Vec<(usize, usize)> {
    let count = outline.len();
    let stretch = |at: usize| (outline[at], outline[(at + 1) % count]);
    let mut found = Vec::new();
    for one in 0..count {
        for other in one + 2..count {
            let ((a, b), (c, d)) = (stretch(one), stretch(other));
            if cross(a, b, c, d) {
                found.push((one, other));
            }
        }
    }
    found
}

#[test]
fn no_outline_crosses_itself() {
    for line in USUAL {
        let setup = setup(line);
        let rim = rim_section(&setup.wheel.unwrap()).unwrap();
        assert_eq!(crossings(&rim.outline), [], "{line}: rim");
        let tire = tire_section(&setup).unwrap();
        let outline: Vec<Point> = tire.outer.iter().chain(&tire.inner).copied().collect();
        assert_eq!(crossings(&outline), [], "{line}: tire");
    }
}

#[test]
fn rim_and_rubber_have_a_body() {
    for line in USUAL {
        let setup = setup(line);
        let rim = rim_section(&setup.wheel.unwrap()).unwrap();
        // A rim of 5 mm of metal over its width, and a spoke: between 1 000 and 20 000 mm² in section.
        let area = doubled_area(&rim.outline).abs() / 2.0;
        assert!((1_000.0..20_000.0).contains(&area), "{line}: rim of {area} mm²");
        let tire = tire_section(&setup).unwrap();
        let (outside, inside) = (doubled_area(&tire.outer).abs(), doubled_area(&tire.inner).abs());
        assert!(inside < outside && inside > 0.4 * outside, "{line}: cavity {inside} in {outside}");
    }
}

#[test]
fn the_drawn_faces_are_the_computed_ones() {
    // Two independent ways: the profile's extremes, and y_c ± (W/2 + 12.7) and y_c ± S/2 of the corner frame.
    for line in USUAL {
        let setup = setup(line);
        let faces = Faces::of(&setup).unwrap();
        let rim = rim_section(&setup.wheel.unwrap()).unwrap();
        assert!((rim.flange_edges_y.1 - faces.rim_outer.as_mm()).abs() < 1e-9, "{line}");
        assert!((-rim.flange_edges_y.0 - faces.rim_inner.as_mm()).abs() < 1e-9, "{line}");
        let tire = tire_section(&setup).unwrap();
        let outermost = faces.outermost().unwrap().distance.as_mm();
        let drawn = rim.flange_edges_y.1.max(tire.faces_y.1);
        assert!((drawn - outermost).abs() < 1e-9, "{line}: drawn {drawn}, computed {outermost}");
    }
}

#[test]
fn the_beads_stand_inside_the_flanges_and_on_the_seats() {
    for line in USUAL {
        let setup = setup(line);
        let rim = rim_section(&setup.wheel.unwrap()).unwrap();
        let tire = tire_section(&setup).unwrap();
        let lowest = tire.outer.iter().map(|p| p.r).fold(f64::MAX, f64::min);
        assert!(
            (lowest - rim.bead_seat_r).abs() < 2.0,
            "{line}: toe at {lowest}, seat at {}",
            rim.bead_seat_r
        );
        for point in tire.outer.iter().filter(|p| p.r < rim.flange_top_r - 8.0) {
            let (inner, outer) = rim.flange_faces_y;
            assert!(
                (inner - 0.5..=outer + 0.5).contains(&point.y),
                "{line}: rubber through the flange at {point:?}"
            );
        }
    }
}

#[test]
fn the_crown_is_highest_in_the_middle_and_the_grooves_are_in_the_tread() {
    for line in USUAL {
        let setup = setup(line);
        let drawn = tire_section(&setup).unwrap();
        let center = -setup.wheel.unwrap().offset.unwrap().as_mm();
        let top = drawn.outer.iter().max_by(|a, b| a.r.total_cmp(&b.r)).unwrap();
        assert!((top.y - center).abs() < 1e-9, "{line}");
        let half_tread = tire::rims::estimated_tread_width(&setup.tire.unwrap().size).as_mm() / 2.0;
        for groove in &drawn.grooves {
            assert!((groove.y - center).abs() + groove.half_width < half_tread, "{line}");
            assert!(groove.bottom_r < groove.top_r && groove.top_r <= drawn.crown_r, "{line}");
        }
    }
}
