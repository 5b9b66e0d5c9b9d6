//! What the finder says of a setup: reasons by school, cautions where they belong, each once.
use fitment::answers::finder::{
    Approach, Arrangements, Found, KeptParts, Reason, Scene, SearchCriteria, Weights, find, reasons,
};
use fitment::car::corner::{Corner, Corners, Feature, Reading};
use fitment::car::lever::PairLevers;
use fitment::car::limits::{Drive, HouseLimits};
use fitment::car::style::{Style, StyleTarget};
use fitment::judgement::case::{CarState, Case};
use fitment::setup::catalogue::{Catalogue, Season, TireKind, TireRow, Use, WheelRow};
use fitment::values::working::{Fragment, Phrase};
use fitment::{Axle, Length, RimDiameter, Setup, SetupPair};

const FITTED: &str = "17x7.5 ET45 5x112 CB57.1 225/45R17 91W";

fn text(phrase: &Phrase) -> String {
    let piece = |fragment: &Fragment| match fragment {
        Fragment::Text(text) => text.to_string(),
        Fragment::Quantity(quantity) => format!("{:.1}", quantity.value),
    };
    phrase.0.iter().map(piece).collect()
}

fn wheel(size: &str) -> WheelRow {
    let setup: Setup = size.parse().unwrap();
    WheelRow { line: "Arc".into(), price: Some(20_000), ..WheelRow::plain(setup.wheel.unwrap()) }
}

fn tire(size: &str, kind: TireKind, tread: f64) -> TireRow {
    TireRow {
        line: "Reed".into(),
        kind: Some(kind),
        tread_width: Length::from_mm(tread),
        price: Some(12_000),
        ..TireRow::plain(size.parse().unwrap())
    }
}

fn wish(school: Approach) -> SearchCriteria {
    let rim = |code: f64| RimDiameter::from_code(code).unwrap();
    SearchCriteria {
        approach: school,
        uses: Vec::new(),
        season: None,
        keeps: KeptParts::Nothing,
        arrangements: Arrangements::Either,
        mixed_diameters: false,
        rims: (rim(13.0), rim(24.0)),
        rear_rims: None,
        class: None,
        budget: None,
        thickest_spacer_mm: 0.0,
        wheel_line: None,
        tire_line: None,
        weights: Weights::of(school),
        count: 5,
    }
}

/// The best setup's reasons, with a car that was read inside and outside, or not at all.
fn said(catalogue: &Catalogue, wish: &SearchCriteria, is_read: bool) -> (Option<Found>, Vec<Reason>) {
    let on: Setup = FITTED.parse().unwrap();
    let read = |feature, gap: f64| {
        Reading::new(feature, Length::from_mm(gap).unwrap(), Length::from_mm(1.0).unwrap(), on)
    };
    let readings = if is_read {
        vec![read(Feature::Strut, 30.0), read(Feature::FenderLateral, 35.0)]
    } else {
        Vec::new()
    };
    let corner = Corner { readings, camber_deg: Some(-1.0), ..Corner::default() };
    let flush = Some(StyleTarget { style: Style::Flush, within: None, is_show: false });
    let bay =
        CarState::new(Corners { front: corner.clone(), rear: corner }, PairLevers::default(), (flush, flush));
    let (fitted, nothing) = (SetupPair::square(on), SetupPair::default());
    let limits = HouseLimits::DEFAULT;
    let plan = Case::new(&fitted, &nothing, Some(Drive::Front), &limits, None).in_state(bay);
    let scene = Scene { plan: &plan };
    let found = find(&scene, catalogue, wish).found.into_iter().next();
    let reasons = found.as_ref().map(|found| reasons(&scene, catalogue, wish, found)).unwrap_or_default();
    (found, reasons)
}

fn has(reasons: &[Reason], words: &str, is_caution: bool) -> bool {
    reasons.iter().any(|one| one.is_caution == is_caution && text(&one.says).contains(words))
}

#[test]
fn tire_first_goes_from_kind_to_width_to_tread_to_the_smallest_wheel() {
    let catalogue = Catalogue {
        wheels: vec![wheel("18x8 ET45 5x112 CB57.1")],
        tires: vec![tire("225/40R18 92Y XL", TireKind::SummerPerformance, 200.0)],
    };
    let (_, reasons) = said(&catalogue, &wish(Approach::TireFirst), true);
    // Common practice throughout, no source; 8.0 in, 203.2 mm, is the measuring rim of 225/40R18 (ISO 4000-1, memory).
    for words in [
        "A summer performance tire",
        "about what the car's weight asks for",
        "Tread 200.0 on a rim of 203.2: the tread stands on the rim as the tire is made for",
        "On 18.0: the smallest wheel that clears the brakes",
    ] {
        assert!(has(&reasons, words, false), "{words}: {reasons:#?}");
    }
    assert!(reasons.iter().all(|one| one.axle.is_none()), "a square set is told once: {reasons:#?}");
    assert!(reasons.iter().all(|one| !one.source.cite.is_empty()));
}

#[test]
fn what_is_too_wide_too_narrow_or_too_sticky_is_a_caution() {
    for (tires, words) in [
        (tire("255/35R18 94Y XL", TireKind::TrackDay, 230.0), "a light car may never warm it"),
        (tire("255/35R18 94Y XL", TireKind::TrackDay, 230.0), "go through what that brings"),
        (tire("225/40R18 92Y XL", TireKind::SummerPerformance, 215.0), "the sidewall bulges"),
        (tire("225/40R18 92Y XL", TireKind::SummerPerformance, 180.0), "snappy at the limit"),
    ] {
        let catalogue = Catalogue {
            wheels: vec![wheel("18x8 ET45 5x112 CB57.1"), wheel("18x9 ET45 5x112 CB57.1")],
            tires: vec![tires],
        };
        let hard = SearchCriteria { uses: vec![Use::OccasionalTrack], ..wish(Approach::TireFirst) };
        let (found, reasons) = said(&catalogue, &hard, true);
        assert!(found.is_some() && has(&reasons, words, true), "{words}: {reasons:#?}");
    }
}

#[test]
fn wheel_first_goes_from_style_to_room_to_rubber() {
    let catalogue = Catalogue {
        wheels: vec![wheel("18x8 ET45 5x112 CB57.1")],
        tires: vec![tire("225/40R18 92Y XL", TireKind::SummerPerformance, 200.0)],
    };
    let (_, read) = said(&catalogue, &wish(Approach::WheelFirst), true);
    for words in ["Stands ", "Room inboard to the", "Room outboard to the", "Tire over the rim flange"] {
        assert!(has(&read, words, false), "{words}: {read:#?}");
    }
    // A car that nobody read: the same questions are cautions.
    let (_, unread) = said(&catalogue, &wish(Approach::WheelFirst), false);
    for words in ["The fender lip was not read", "Nothing was read inboard", "Nothing was read outboard"] {
        assert!(has(&unread, words, true), "{words}: {unread:#?}");
    }
}

#[test]
fn season_and_use_decide_by_the_kind_of_tire() {
    let kinds = [TireKind::SummerPerformance, TireKind::Winter, TireKind::AllSeason];
    let catalogue = Catalogue {
        wheels: vec![wheel("18x8 ET45 5x112 CB57.1")],
        tires: kinds.iter().map(|kind| tire("225/40R18 92Y XL", *kind, 200.0)).collect(),
    };
    let kind_for = |season, uses: Vec<Use>| {
        let wish = SearchCriteria { season, uses, ..wish(Approach::TireFirst) };
        let (found, _) = said(&catalogue, &wish, true);
        found.map(|found| catalogue.tires[found.front.tire_row.unwrap()].kind.unwrap())
    };
    assert_eq!(kind_for(Some(Season::AllYear), vec![]), Some(TireKind::AllSeason));
    assert_eq!(kind_for(Some(Season::Winter), vec![Use::WinterRoads]), Some(TireKind::Winter));
    assert_ne!(kind_for(Some(Season::Summer), vec![]), Some(TireKind::Winter));
    assert_eq!(kind_for(Some(Season::Summer), vec![Use::DragStrip]), None, "no tire of that kind");
}

#[test]
fn kept_wheels_are_neither_bought_nor_swapped() {
    let catalogue = Catalogue {
        wheels: vec![wheel("18x8 ET45 5x112 CB57.1")],
        tires: vec![
            tire("225/45R17 94W XL", TireKind::Winter, 200.0),
            tire("225/40R18 92Y XL", TireKind::Winter, 200.0),
        ],
    };
    let (found, reasons) =
        said(&catalogue, &SearchCriteria { keeps: KeptParts::Wheels, ..wish(Approach::TireFirst) }, true);
    let found = found.unwrap();
    let fitted: Setup = FITTED.parse().unwrap();
    for axle in Axle::BOTH {
        assert_eq!(found.setups().on(axle).unwrap().wheel, fitted.wheel);
    }
    // Two tires on each axle, 120.00 each; the wheels cost nothing.
    assert_eq!((found.price, found.price_is_whole), (48_000, true));
    assert!(!has(&reasons, "the smallest wheel that clears", false), "no wheel is chosen");
}
