//! Bad input gets a clear error at its cause: field by field, what is refused, where, and in which words.
use crate::served::Served;
use reqwest::Method;
use serde_json::{Value, json};

const FITTED: &str = "17x7.5 ET45 225/45R17";
const PLANNED: &str = "18x8 ET40 225/40R18";

/// A corner read once, with something else put into it.
fn corner(more: Value) -> Value {
    let mut corner =
        json!({ "fitted": FITTED, "readings": [{ "feature": "strut", "gap_mm": 14, "plus_minus_mm": 1 }] });
    put_into(&mut corner, more);
    corner
}

/// The same with something else put into its one reading.
fn reading(more: Value) -> Value {
    let mut corner = corner(json!({}));
    put_into(&mut corner["readings"][0], more);
    corner
}

fn put_into(whole: &mut Value, more: Value) {
    for (name, value) in more.as_object().cloned().unwrap_or_default() {
        whole[name] = value;
    }
}

/// Asks what must be refused: each row is a body, the field at fault, and words that its problem must hold.
async fn refused(shop: &Served, method: &Method, path: &str, rows: Vec<(Value, &str, &str)>) {
    for (body, pointer, words) in rows {
        let sent = (!body.is_null()).then_some(body.clone());
        let (status, problem) = shop.ask(method.clone(), path, sent).await;
        assert_eq!(status, 422, "{path} {body}: {problem}");
        let errors = problem["errors"].as_array().unwrap();
        let there = errors.iter().find(|error| error["pointer"] == pointer);
        let there = there.unwrap_or_else(|| panic!("{path} {body}: nothing at {pointer} in {problem}"));
        let says = there["detail"].as_str().unwrap();
        assert!(says.contains(words), "{path} {body}: {says:?} does not say {words:?}");
    }
}

#[tokio::test]
async fn a_fit_says_which_field_of_the_corner_is_at_fault() {
    let shop = Served::start(None).await;
    let rows = vec![
        (
            json!({ "corner": corner(json!({"fitted": ""})), "planned": PLANNED }),
            "/corner/fitted",
            "name a wheel with its offset, as in 18x8.5 ET35 245/40R18",
        ),
        (
            json!({ "corner": corner(json!({"fitted": "banana"})), "planned": PLANNED }),
            "/corner/fitted",
            "is not a piece of a setup",
        ),
        (
            json!({ "corner": corner(json!({"fitted": "225/45R17"})), "planned": PLANNED }),
            "/corner/fitted",
            "name the wheel and its offset, as in 18x8.5 ET35: without ",
        ),
        (
            json!({ "corner": corner(json!({})), "planned": "18x8" }),
            "/planned",
            "name the wheel and its offset, as in 18x8.5 ET35: without ",
        ),
        (
            json!({ "corner": corner(json!({})), "planned": "18x80 ET40" }),
            "/planned",
            "rim width 80 is outside 3–16",
        ),
        (
            json!({ "corner": corner(json!({})), "planned": "18x8 ET400" }),
            "/planned",
            "offset 400 is outside -150–150",
        ),
        (
            json!({ "corner": corner(json!({})), "planned": "F: 18x8 ET40 R: 18x9 ET40" }),
            "/planned",
            "names an axle, and this line is for one axle only",
        ),
        (
            json!({ "corner": corner(json!({})), "planned": "18x8 ET40 -8 mm spacer" }),
            "/planned",
            "is the dash only a separator?",
        ),
        (
            json!({ "corner": reading(json!({"feature": "elbow"})), "planned": PLANNED }),
            "/corner/readings/0/feature",
            "\"elbow\" is not one of fender_lateral, arch, strut, spring_",
        ),
        (
            json!({ "corner": reading(json!({"side": "middle"})), "planned": PLANNED }),
            "/corner/readings/0/side",
            "\"middle\" is not one of left, right",
        ),
        (
            json!({ "corner": reading(json!({"steer": "round"})), "planned": PLANNED }),
            "/corner/readings/0/steer",
            "\"round\" is not one of straight, lock_left, lock_right",
        ),
        (
            json!({ "corner": reading(json!({"stance": "flying"})), "planned": PLANNED }),
            "/corner/readings/0/stance",
            "\"flying\" is not one of ground, hanging",
        ),
        (
            json!({ "corner": reading(json!({"face": "moon"})), "planned": PLANNED }),
            "/corner/readings/0/face",
            "\"moon\" is not one of nearest, sidewall, shoulder, flange",
        ),
        (
            json!({ "corner": reading(json!({"direction": "up"})), "planned": PLANNED }),
            "/corner/readings/0/direction",
            "\"up\" is not one of level, shortest",
        ),
        (
            json!({ "corner": reading(json!({"clock": 13})), "planned": PLANNED }),
            "/corner/readings/0/clock",
            "a clock goes from 0 to 12, not 13",
        ),
        (
            json!({ "corner": corner(json!({"camber_deg": 40})), "planned": PLANNED }),
            "/corner/camber_deg",
            "Camber: 40 ° is outside -12–5",
        ),
        (
            json!({ "corner": corner(json!({"tread_depth_mm": -3})), "planned": PLANNED }),
            "/corner/tread_depth_mm",
            "a tread is 0 to 20 mm deep, not -3",
        ),
        (
            json!({ "corner": corner(json!({"tread_depth_mm": 90})), "planned": PLANNED }),
            "/corner/tread_depth_mm",
            "a tread is 0 to 20 mm deep, not 90",
        ),
        (
            json!({ "corner": corner(json!({"fitted_section_mm": -2})), "planned": PLANNED }),
            "/corner/fitted_section_mm",
            "a tire's section measures 90 to 480 mm",
        ),
        (
            json!({ "corner": corner(json!({"suspension": "carpet"})), "planned": PLANNED }),
            "/corner/suspension",
            "\"carpet\" is not one of strut, double_wishbone, multi_link,",
        ),
        (
            json!({ "corner": corner(json!({"steering": {"inclination_deg": 40}})), "planned": PLANNED }),
            "/corner/steering/inclination_deg",
            "a steering axis' inclination goes from -30 to 30, not 40",
        ),
        (
            json!({ "corner": corner(json!({"steering": {"inclination_deg": 10, "caster_deg": 25, "scrub_radius_mm": 0, "trail_mm": 20, "lock_outward_deg": 38, "lock_inward_deg": 31}})), "planned": PLANNED }),
            "/corner/steering/caster_deg",
            "caster goes from -20 to 20, not 25",
        ),
        (
            json!({ "corner": corner(json!({"steering": {"inclination_deg": 10, "caster_deg": 5, "scrub_radius_mm": 300, "trail_mm": 20, "lock_outward_deg": 38, "lock_inward_deg": 31}})), "planned": PLANNED }),
            "/corner/steering/scrub_radius_mm",
            "a scrub radius goes from -200 to 200, not 300",
        ),
        (
            json!({ "corner": corner(json!({"steering": {"inclination_deg": 10, "caster_deg": 5, "scrub_radius_mm": 0, "trail_mm": 20, "lock_outward_deg": 80, "lock_inward_deg": 31}})), "planned": PLANNED }),
            "/corner/steering/lock_outward_deg",
            "a lock goes from 0 to 60, not 80",
        ),
        (
            json!({ "corner": corner(json!({"travel": {"bump_mm": 500, "droop_mm": 80}})), "planned": PLANNED }),
            "/corner/travel/bump_mm",
            "travel goes from 0 to 400, not 500",
        ),
        (
            json!({ "corner": corner(json!({"travel": {"bump_mm": 80, "droop_mm": -80}})), "planned": PLANNED }),
            "/corner/travel/droop_mm",
            "travel goes from 0 to 400, not -80",
        ),
        (
            json!({ "corner": corner(json!({})), "planned": PLANNED, "limits": {"strut_mm": -5} }),
            "/limits/strut_mm",
            "gap to strut, spring perch and knuckle goes from 0 to 40 m",
        ),
        (
            json!({ "corner": corner(json!({})), "planned": PLANNED, "limits": {"moon_mm": 5} }),
            "/limits/moon_mm",
            "there is no house limit \"moon_mm\"",
        ),
        (
            json!({ "corner": corner(json!({})), "planned": PLANNED, "levers": [{"lever": "wish", "amount": 1}] }),
            "/levers/0/lever",
            "\"wish\" is not one of spacer, offset, rim_width, tire, camb",
        ),
        (
            json!({ "corner": corner(json!({})), "planned": PLANNED, "levers": [{"lever": "lip_rolled", "amount": 900}] }),
            "/levers/0/amount",
            "lip rolled goes from 0 to 10, not 900",
        ),
        (
            json!({ "corner": corner(json!({})), "planned": PLANNED, "levers": [{"lever": "camber", "amount": 9}] }),
            "/levers/0/amount",
            "camber goes from -8 to 3, not 9",
        ),
        (
            json!({ "corner": corner(json!({"fitted_section_mm": -2})), "planned": PLANNED }),
            "/corner/fitted_section_mm",
            "a tire's section measures 90 to 480 mm",
        ),
        (
            json!({ "corner": corner(json!({"fitted_section_mm": 900})), "planned": PLANNED }),
            "/corner/fitted_section_mm",
            "a tire's section measures 90 to 480 mm",
        ),
    ];
    refused(&shop, &Method::POST, "/fit", rows).await;
}

#[tokio::test]
async fn a_window_refuses_widths_and_uses_that_are_none() {
    let shop = Served::start(None).await;
    let rows = vec![
        (
            json!({ "corner": corner(json!({})), "rim_widths_in": [80] }),
            "/rim_widths_in/0",
            "80 in is not a rim width",
        ),
        (
            json!({ "corner": corner(json!({})), "rim_widths_in": [0] }),
            "/rim_widths_in/0",
            "0 in is not a rim width",
        ),
        (
            json!({ "corner": corner(json!({})), "rim_widths_in": vec![7.0; 80] }),
            "/rim_widths_in",
            "more than 60 widths are not worked out",
        ),
        (
            json!({ "corner": corner(json!({})), "planned": "nothing" }),
            "/planned",
            "is not a piece of a setup",
        ),
        (
            json!({ "corner": corner(json!({})), "usage": {"envelope": "moon"} }),
            "/usage/envelope",
            "\"moon\" is not one of all, parking, road, track, off_road",
        ),
        (
            json!({ "corner": corner(json!({})), "usage": {"speed_kmh": 900} }),
            "/usage",
            "a speed goes from 0 to 400 km/h, not 900",
        ),
        (
            json!({ "corner": corner(json!({})), "usage": {"chains_mm": -4} }),
            "/usage",
            "chains take 12 to 40 mm, or 0 for none, not -4",
        ),
        (
            json!({ "corner": corner(json!({})), "usage": {"mud_mm": 400} }),
            "/usage",
            "mud takes 0 to 60 mm, not 400",
        ),
    ];
    refused(&shop, &Method::POST, "/window", rows).await;
}

#[tokio::test]
async fn a_sweep_refuses_what_no_car_has() {
    let shop = Served::start(None).await;
    let rows = vec![
        (
            json!({"fitted": FITTED, "planned": "18x8", "obstacles": []}),
            "/planned",
            "name wheel, offset and tire, as in 18x8.5 ET35 245/40R18",
        ),
        (json!({"fitted": "x", "planned": PLANNED, "obstacles": []}), "/fitted", "is not a piece of a setup"),
        (
            json!({"fitted": FITTED, "planned": PLANNED, "envelope": "moon", "obstacles": []}),
            "/envelope",
            "\"moon\" is not one of all, parking, road, track, off_road",
        ),
        (
            json!({"fitted": FITTED, "planned": PLANNED, "least_mm": -4000, "obstacles": []}),
            "/least_mm",
            "must be 0 to 100, not -4000",
        ),
        (
            json!({"fitted": FITTED, "planned": PLANNED, "camber_deg": 70, "obstacles": []}),
            "/camber_deg",
            "Camber: 70 ° is outside -12–5",
        ),
        (
            json!({"fitted": FITTED, "planned": PLANNED, "obstacles": [{"name": "a", "carrier": "cloud", "points_mm": [[0, 0, 300]]}]}),
            "/obstacles/0/carrier",
            "\"cloud\" is not one of body, steered_upright, unsteered_upr",
        ),
        (
            json!({"fitted": FITTED, "planned": PLANNED, "obstacles": [{"name": "a", "carrier": "body", "points_mm": [[0, 0, 9000000000.0]]}]}),
            "/obstacles/0/points_mm/0",
            "lies further than 3000 mm from the hub",
        ),
    ];
    refused(&shop, &Method::POST, "/sweep", rows).await;
}

#[tokio::test]
async fn a_compared_line_is_named() {
    let shop = Served::start(None).await;
    let rows = vec![
        (
            json!({"fitted": {"front": FITTED}, "planned": {"front": "9/9/9"}}),
            "/planned/front",
            "is not a piece of a setup",
        ),
        (
            json!({"fitted": {"front": "9/9/9"}, "planned": {"front": PLANNED}}),
            "/fitted/front",
            "is not a piece of a setup",
        ),
    ];
    refused(&shop, &Method::POST, "/compare", rows).await;
}

#[tokio::test]
async fn a_bench_refuses_what_cannot_be_mounted() {
    let shop = Served::start(None).await;
    let rows = vec![
        (
            json!({"fitted": {"front": FITTED}, "planned": {"front": "18x8 ET40 245/40R19"}}),
            "/planned/front",
            "it cannot be mounted",
        ),
        (
            json!({"fitted": {"front": FITTED}, "planned": {"front": "18x8 ET40 245/40R18 245/40R18 225/40R18"}}),
            "/planned/front",
            "and R:",
        ),
    ];
    refused(&shop, &Method::POST, "/bench", rows).await;
}

#[tokio::test]
async fn a_text_is_no_book() {
    let shop = Served::start(None).await;
    let rows = vec![(json!({"text": "x".repeat(3000)}), "/text", "is longer than 2000 characters")];
    refused(&shop, &Method::POST, "/setups/read", rows).await;
}

#[tokio::test]
async fn a_ladder_stands_round_a_tire() {
    let shop = Served::start(None).await;
    let rows = vec![
        (json!({"tire": "banana"}), "/tire", "is not a piece of a setup"),
        (json!({"tire": "225/45R17", "band_pct": 90}), "/band_pct", "a band goes from 0 to 15 %, not 90"),
        (json!({"tire": "225/45R17", "band_pct": -1}), "/band_pct", "a band goes from 0 to 15 %, not -1"),
    ];
    refused(&shop, &Method::POST, "/ladder", rows).await;
}

#[tokio::test]
async fn a_job_needs_a_car_and_lines_that_can_be_read() {
    let shop = Served::start(None).await;
    let rows = vec![
        (json!({"car_label": "", "fitted_line": FITTED}), "/car_label", "name the car"),
        (
            json!({"car_label": "x".repeat(3000), "fitted_line": FITTED}),
            "/car_label",
            "is longer than 120 characters",
        ),
        (json!({"car_label": "a", "fitted_line": "9/9/9"}), "/fitted_line", "is not a piece of a setup"),
    ];
    refused(&shop, &Method::POST, "/jobs", rows).await;
}

#[tokio::test]
async fn a_wish_is_one_that_somebody_can_have() {
    let shop = Served::sample().await;
    let rows = vec![
        (
            json!({"uses": ["flying"]}),
            "/uses/0",
            "\"flying\" is not one of daily, occasional_track, regular_tr",
        ),
        (json!({"season": "fifth"}), "/season", "\"fifth\" is not one of summer, winter, all_year"),
        (json!({"rim_min_in": 2}), "/rim_min_in", "2 is not a rim code from 10 to 26"),
        (
            json!({"rim_min_in": 19, "rim_max_in": 17}),
            "/rim_max_in",
            "the largest rim, 17, is smaller than the smallest, 19",
        ),
        (
            json!({"rear_rim_min_in": 26, "rear_rim_max_in": 10}),
            "/rear_rim_max_in",
            "the largest rim, 10, is smaller than the smallest, 26",
        ),
        (json!({"budget": -4}), "/budget", "a budget goes from 0 to 1 000 000, not -4"),
        (json!({"count": 100000}), "/count", "more than 50 setups are not listed"),
        (json!({"keeps": "socks"}), "/keeps", "\"socks\" is not one of nothing, wheels, tires"),
        (json!({"thickest_spacer_mm": 900}), "/thickest_spacer_mm", "must be 0 to 30"),
        (
            json!({"weights": {"moon": 1}}),
            "/weights/moon",
            "\"moon\" is not one of fit, diameter, ratio, style, tread_wi",
        ),
        (json!({"weights": {"price": -1}}), "/weights/price", "a weight goes from 0 to 10"),
    ];
    refused(&shop, &Method::POST, "/jobs/3/finder", rows).await;
}

#[tokio::test]
async fn what_is_no_tire_of_a_car_is_refused_by_what_it_is() {
    let shop = Served::start(None).await;
    for (path, pointer, words) in [
        ("/tires/describe?size=banana", "size", "is not a piece of a setup"),
        (
            "/tires/describe?size=T125/70D17",
            "size",
            "420 kPa, 80 km/h, for the way to the workshop and not for ",
        ),
        ("/tires/describe?size=ST205/75R15", "size", "not for a car"),
        ("/tires/describe?size=120/70ZR17+M/C", "size", "not for a car"),
        ("/tires/describe?size=225/45R17+18x8", "size", "it cannot be mounted"),
        ("/tires/describe?size=", "size", "nothing is written here"),
    ] {
        refused(&shop, &Method::GET, path, vec![(Value::Null, pointer, words)]).await;
    }
}

#[tokio::test]
async fn what_is_no_wheel_is_refused_by_what_it_is() {
    let shop = Served::start(None).await;
    for (path, pointer, words) in [
        ("/wheels/describe?spec=225/45R17", "spec", "does not belong in a wheel"),
        ("/wheels/describe?spec=18x8.5+ET35+ET40", "spec", "and R:"),
        (
            "/wheels/describe?spec=18x8.5+ET35+7.52+in+bs",
            "spec",
            "the backspacing gives ET70.36, the offset says ET35",
        ),
        ("/wheels/describe?spec=18x8.5+ET35+5x100+5x108+5x112", "spec", "and R:"),
        ("/wheels/describe?spec=18x8.5+ET35+CB9", "spec", "center bore 9 is outside 40–200"),
    ] {
        refused(&shop, &Method::GET, path, vec![(Value::Null, pointer, words)]).await;
    }
}

#[tokio::test]
async fn a_pressure_is_asked_for_a_tire_and_a_load() {
    let shop = Served::start(None).await;
    for (path, pointer, words) in [
        ("/tires/pressure?size=banana&load_kg=500", "size", "is not a piece of a setup"),
        ("/tires/pressure?size=225/45R17+91W&load_kg=-5", "load_kg", "a tire carries 0 to 5000 kg, not -5"),
    ] {
        refused(&shop, &Method::GET, path, vec![(Value::Null, pointer, words)]).await;
    }
}
