//! What holds for every setup there is.
use fitment::parts::tire::{
    Construction, FactoryMark, InchSize, InchStyle, LoadRange, LoadVersion, MetricSize, Prefix, RacingSize,
    ServiceDescription, Size, Tire,
};
use fitment::setup::change::{AxleChange, axle_change};
use fitment::setup::{Setup, SetupPair, line};
use fitment::values::date_code::DateCode;
use fitment::values::load_index::LoadIndex;
use fitment::values::speed_symbol::SpeedSymbol;
use fitment::values::working::Figure;
use fitment::{BoltCircle, CenterBore, Offset, RimDiameter, RimWidth, Spacer, Wheel};
use proptest::option::of;
use proptest::prelude::*;
use proptest::sample::select;

fn rim() -> impl Strategy<Value = RimDiameter> {
    (20..=52u8).prop_filter_map("a rim code", |half| RimDiameter::from_code(f64::from(half) / 2.0))
}

fn construction() -> impl Strategy<Value = Construction> {
    let older = [SpeedSymbol::H, SpeedSymbol::V].map(Construction::SpeedRadial);
    select(vec![Construction::Radial, Construction::ZrRadial, Construction::BiasPly, older[0], older[1]])
}

fn metric() -> impl Strategy<Value = Size> {
    let prefix = select(vec![Prefix::None, Prefix::P, Prefix::Lt, Prefix::Hl, Prefix::Commercial]);
    (prefix, 100..=455u32, 20..=95u32, construction(), rim())
        .prop_filter_map("a metric size", |(p, s, a, c, r)| {
            let size = if a % 9 == 0 {
                MetricSize::without_aspect(p, s, c, r)
            } else {
                MetricSize::new(p, s, a, c, r)
            };
            size.map(Size::Metric)
        })
        .prop_filter("a car's", |size| !size.is_for_a_motorcycle())
}

fn inch() -> impl Strategy<Value = Size> {
    let style = select(vec![
        InchStyle::Flotation { light_truck: true },
        InchStyle::Flotation { light_truck: false },
        InchStyle::Cross,
        InchStyle::Slash,
        InchStyle::Numeric { light_truck: false },
        InchStyle::Numeric { light_truck: true },
    ]);
    (style, 1500..=5400u32, 300..=2400u32, construction(), rim()).prop_filter_map(
        "an inch size",
        |(s, o, w, c, r)| {
            if let InchStyle::Numeric { light_truck } = s {
                return InchSize::numeric(f64::from(w % 800) / 100.0, light_truck, c, r).map(Size::Inch);
            }
            let (o, w, c) = match s {
                InchStyle::Flotation { .. } | InchStyle::Numeric { .. } => (o, w, c),
                InchStyle::Cross => (o, w / 10 * 10, Construction::BiasPly),
                InchStyle::Slash => (o / 10 * 10, w / 10 * 10, c),
            };
            InchSize::new(s, f64::from(o) / 100.0, f64::from(w) / 100.0, c, r).map(Size::Inch)
        },
    )
}

fn racing() -> impl Strategy<Value = Size> {
    (100..=455u32, 300..=999u32, construction(), rim())
        .prop_filter_map("a racing size", |(s, o, c, r)| RacingSize::new(s, o, c, r).map(Size::Racing))
}

fn service() -> impl Strategy<Value = ServiceDescription> {
    (60..=126u32, of(60..=126u32), select(SpeedSymbol::all().collect::<Vec<_>>())).prop_filter_map(
        "a service description",
        |(single, dual, speed)| {
            let single = LoadIndex::new(single)?;
            let dual = dual.and_then(LoadIndex::new).map(|dual| dual.min(single));
            Some(ServiceDescription { single, dual, speed })
        },
    )
}

fn any_tire() -> impl Strategy<Value = Tire> {
    (
        prop_oneof![4 => metric(), 1 => inch(), 1 => racing()],
        of(service()),
        of(select(vec![LoadVersion::Standard, LoadVersion::Extra])),
        of(select(vec!['B', 'C', 'D', 'E', 'F'])),
        any::<bool>(),
        any::<bool>(),
    )
        .prop_map(|(size, service, load_version, range, run_flat, mud_and_snow)| Tire {
            size,
            // What stands beside the size outranks a letter inside.
            service: service.filter(|_| !matches!(size.construction(), Construction::SpeedRadial(_))),
            load_version,
            load_range: range.and_then(LoadRange::from_letter),
            run_flat,
            mud_and_snow,
            snowflake: run_flat != mud_and_snow,
            factory_mark: if run_flat { FactoryMark::read("N1") } else { None },
        })
}

fn any_wheel() -> impl Strategy<Value = Wheel> {
    (
        rim(),
        300..=1600u16,
        of(-15_000..=15_000i32),
        of((3..=10u8, 8_000..=25_000u32, any::<bool>())),
        of(4_000..=20_000u32),
    )
        .prop_filter_map("a wheel", |(diameter, width, offset, circle, bore)| {
            Some(Wheel {
                diameter,
                // Rims are made in eighths of an inch.
                width: RimWidth::from_code(f64::from(width / 12) / 8.0)?,
                offset: offset.and_then(|o| Offset::from_mm(f64::from(o) / 100.0)),
                bolt_circle: circle.and_then(|(n, d, _)| BoltCircle::new(n, f64::from(d) / 100.0)),
                second_circle: circle.filter(|(_, d, twice)| *twice && *d < 19_000).and_then(|(n, d, _)| {
                    // Drilled twice is drilled on circles that are made.
                    BoltCircle::KNOWN_MM
                        .into_iter()
                        .find(|known| *known > f64::from(d) / 100.0 + 1.0)
                        .and_then(|known| BoltCircle::new(n, known))
                }),
                center_lock: width % 7 == 0 && circle.is_none(),
                center_bore: bore.and_then(|b| CenterBore::from_mm(f64::from(b) / 100.0)),
            })
        })
        // A narrow wheel whose diameter code is also a width cannot be told from its mirror: 12x14 is 14x12.
        .prop_filter("the larger figure is the diameter", |wheel| wheel.width.code() <= wheel.diameter.code())
}

fn any_setup() -> impl Strategy<Value = Setup> {
    (of(any_wheel()), of(any_tire()), of(1..=10_000u32), of((1..=53u32, 2000..=2069u32)))
        .prop_map(|(wheel, tire, spacer, date)| Setup {
            listed: fitment::setup::Listed::default(),
            wheel,
            tire: tire.filter(|tire| wheel.is_none_or(|wheel| wheel.diameter == tire.size.rim())),
            spacer: spacer.and_then(|s| Spacer::from_mm(f64::from(s) / 100.0)),
            date_code: date.and_then(|(week, year)| DateCode::new(week, year)),
        })
        .prop_filter("something is there", |setup| *setup != Setup::default())
}

/// A setup whose every figure is known.
fn full_setup() -> impl Strategy<Value = Setup> {
    (any_wheel(), 100..=455u32, 20..=95u32, -15_000..=15_000i32).prop_filter_map(
        "a full setup",
        |(w, s, a, o)| {
            let size = MetricSize::new(Prefix::None, s, a, Construction::Radial, w.diameter)?;
            let offset = Offset::from_mm(f64::from(o) / 100.0);
            let tire = Some(Tire::plain(Size::Metric(size)));
            Some(Setup { wheel: Some(Wheel { offset, ..w }), tire, ..Setup::default() })
        },
    )
}

proptest! {
    #![proptest_config(ProptestConfig { failure_persistence: None, cases: 2_000, ..ProptestConfig::default() })]

    #[test]
    fn a_printed_setup_reads_as_itself(setup in any_setup()) {
        let printed = setup.to_string();
        let again: Result<Setup, _> = printed.parse();
        prop_assert_eq!(again, Ok(setup), "{}", printed);
    }

    #[test]
    fn a_printed_tire_reads_as_itself(tire in any_tire()) {
        prop_assert_eq!(tire.to_string().parse::<Tire>(), Ok(tire), "{}", tire);
    }

    #[test]
    fn a_printed_wheel_reads_as_itself(wheel in any_wheel()) {
        prop_assert_eq!(wheel.to_string().parse::<Wheel>(), Ok(wheel), "{}", wheel);
    }

    #[test]
    fn a_printed_pair_reads_as_itself(front in of(any_setup()), rear in of(any_setup())) {
        prop_assume!(front.is_some() || rear.is_some());
        let pair = SetupPair { front, rear };
        let reading = line::read(&pair.to_string()).unwrap();
        prop_assert_eq!(reading.setups, Some(pair), "{}", pair);
    }

    #[test]
    fn no_text_panics_and_its_stretches_are_the_text(text in "\\PC{0,60}") {
        if let Ok(reading) = line::read(&text) {
            let joined: String = reading.segments.iter().map(|s| &text[s.span.clone()]).collect();
            prop_assert_eq!(joined, text);
        }
    }

    #[test]
    fn no_text_of_the_trades_own_signs_panics(text in "[0-9xXjJrRzZetpPlLfFhH/\\.,+\\-() ½\"\n:mbsicd]{0,40}") {
        let _ = text.parse::<Setup>();
        let _ = text.parse::<Tire>();
        let _ = text.parse::<Wheel>();
    }

    #[test]
    fn every_length_of_a_change_turns_its_sign_when_the_setups_swap(a in full_setup(), b in full_setup()) {
        let (there, back) = (axle_change(&a, &b), axle_change(&b, &a));
        for (name, pick) in LENGTHS {
            let (there, back) = (pick(&there).clone().unwrap(), pick(&back).clone().unwrap());
            prop_assert_eq!(there.value(), -back.value(), "{}", name);
        }
        let ratio = there.true_speed_ratio.unwrap().value() * back.true_speed_ratio.unwrap().value();
        prop_assert!((ratio - 1.0).abs() < 1e-12, "ratios are reciprocal: {ratio}");
    }

    #[test]
    fn one_millimetre_less_offset_is_one_millimetre_further_out(a in full_setup(), b in full_setup()) {
        prop_assume!(b.wheel.unwrap().offset.unwrap().as_mm() > -149.0);
        let mut moved = b;
        let mut wheel = b.wheel.unwrap();
        wheel.offset = Offset::from_mm(wheel.offset.unwrap().as_mm() - 1.0);
        moved.wheel = Some(wheel);
        let (before, after) = (axle_change(&a, &b), axle_change(&a, &moved));
        let grew = |pick: Pick| pick(&after).clone().unwrap().value() - pick(&before).clone().unwrap().value();
        prop_assert!((grew(|c| &c.outer) - 1.0).abs() < 1e-9);
        prop_assert!((grew(|c| &c.inner) + 1.0).abs() < 1e-9);
        prop_assert!((grew(|c| &c.track) - 2.0).abs() < 1e-9);
    }

    #[test]
    fn a_spacer_does_what_as_much_less_offset_does(a in full_setup(), b in full_setup(), mm in 1..=30i32) {
        prop_assume!(b.wheel.unwrap().offset.unwrap().as_mm() > -120.0);
        let (mut spaced, mut moved) = (b, b);
        spaced.spacer = Spacer::from_mm(f64::from(mm));
        let mut wheel = b.wheel.unwrap();
        wheel.offset = Offset::from_mm(wheel.offset.unwrap().as_mm() - f64::from(mm));
        moved.wheel = Some(wheel);
        for (name, pick) in LENGTHS {
            let (with_spacer, with_offset) = (axle_change(&a, &spaced), axle_change(&a, &moved));
            let (x, y) = (pick(&with_spacer).clone().unwrap().value(), pick(&with_offset).clone().unwrap().value());
            prop_assert!((x - y).abs() < 1e-9, "{}: {} and {}", name, x, y);
        }
    }
}

type Pick = fn(&AxleChange) -> &Option<Figure>;

const LENGTHS: [(&str, Pick); 10] = [
    ("outer rim", |c| &c.outer_rim),
    ("inner rim", |c| &c.inner_rim),
    ("outer tire", |c| &c.outer_tire),
    ("inner tire", |c| &c.inner_tire),
    ("outer", |c| &c.outer),
    ("inner", |c| &c.inner),
    ("overall diameter", |c| &c.overall_diameter),
    ("ride height", |c| &c.ride_height),
    ("arch gap", |c| &c.arch_gap),
    ("track", |c| &c.track),
];
