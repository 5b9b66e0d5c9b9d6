//! What is never mixed on one car: radial with bias ply, winter with summer, run-flat with ordinary.

use super::{Asked, Finding, LineCode, Rule, Severity};
use crate::judgement::case::Case;
use crate::parts::tire::{Construction, Tire};
use crate::setup::catalogue::TireKind;
use crate::setup::{Axle, Setup};
use crate::values::working::{Phrase, Source};

const SOURCE: Source = Source::common_practice(
    "one construction all round and one season; run-flat and ordinary only where the car's maker allows it",
);

pub(super) const RULE: Rule =
    Rule { title: "Mixed tires", source: SOURCE, asked: Asked::PerCar(LineCode::Mix, judge), of_car: &[] };

const CAUTION: &str = "Axles that grip and slip unlike each other spin a car without warning. Most laws forbid radial with bias ply; \
                       local codes and a licensed inspector have the last word.";

/// What a tire's sidewall, or the row that was picked for it, says of its season.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Season {
    /// Bears the mountain with the snowflake, or is listed as a winter tire.
    Winter,
    /// Listed as a summer tire.
    Summer,
    /// Neither is known: M+S alone, or no mark and no row.
    NotSaid,
}

fn season_of(tire: &Tire, kind: Option<TireKind>) -> Season {
    let of_kind = kind.map(|kind| match kind {
        TireKind::Winter => Season::Winter,
        TireKind::AllSeason | TireKind::AllTerrain => Season::NotSaid,
        TireKind::SummerTouring
        | TireKind::SummerPerformance
        | TireKind::TrackDay
        | TireKind::SemiSlick
        | TireKind::Slick
        | TireKind::Drag => Season::Summer,
    });
    match of_kind {
        Some(season) if season != Season::NotSaid => season,
        _ if tire.snowflake => Season::Winter,
        _ => Season::NotSaid,
    }
}

fn construction_of(tire: &Tire) -> &'static str {
    match tire.size.construction() {
        Construction::Radial | Construction::ZrRadial | Construction::SpeedRadial(_) => "radial",
        Construction::BiasPly => "bias ply",
    }
}

/// The first thing that two axles must not differ in, as a sentence, how it stands, and the word for it.
fn mixed(case: &Case<'_>, [front, rear]: [(Setup, Tire); 2]) -> Option<(Severity, &'static str, String)> {
    let [ahead, behind] = [construction_of(&front.1), construction_of(&rear.1)];
    if ahead != behind {
        let says = format!("The front tires are {ahead}, the rear ones {behind}: never on one car.");
        return Some((Severity::Stop, "radial with bias ply", says));
    }
    let season = |(setup, tire): &(Setup, Tire)| season_of(tire, case.state.parts.kind_of(setup));
    let words = |season| match season {
        Season::Winter => "winter tires",
        Season::Summer => "summer tires",
        Season::NotSaid => "tires of a season that nobody stated",
    };
    let [ahead, behind] = [season(&front), season(&rear)];
    if ahead != behind && [ahead, behind].contains(&Season::Winter) {
        let where_they_are = format!("{} in front, {} behind", words(ahead), words(behind));
        return Some(if [ahead, behind].contains(&Season::Summer) {
            (Severity::Stop, "winter with summer", format!("{where_they_are}: never on one car."))
        } else {
            let says =
                format!("{where_they_are}: name the other axle's mark, 3PMSF or M+S, or pick its row.");
            (Severity::Measure, "ask", says)
        });
    }
    if front.1.run_flat != rear.1.run_flat {
        let of = |tire: &Tire| if tire.run_flat { "run-flat" } else { "ordinary" };
        let says = format!(
            "{} in front, {} behind: only where the car's maker allows it in writing.",
            of(&front.1),
            of(&rear.1)
        );
        return Some((Severity::Stop, "run-flat with ordinary", says));
    }
    None
}

/// `None` while all four are alike in what is known of them. An axle for which nothing is planned keeps what it has.
fn judge(case: &Case<'_>) -> Option<Finding> {
    let on = |axle: Axle| {
        let setup = case.planned.on(axle).or(case.fitted.on(axle))?;
        Some((*setup, setup.tire?))
    };
    // Without a plan there is nothing to judge.
    Axle::BOTH.iter().any(|axle| case.planned.on(*axle).is_some()).then_some(())?;
    let (severity, word, says) = mixed(case, [on(Axle::Front)?, on(Axle::Rear)?])?;
    let mut letters = says.chars();
    let first = letters.next().map(|letter| letter.to_uppercase().to_string()).unwrap_or_default();
    Some(Finding {
        severity,
        word,
        figure: None,
        limit: Phrase::new("one construction, one season, all round"),
        says: Phrase::new(first + letters.as_str()),
        caution: Some(CAUTION),
        working: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::line_in_state;
    use crate::judgement::case::CarState;
    use crate::setup::catalogue::PickedParts;
    use crate::setup::catalogue::picked::tests::tire_row;

    /// Common practice throughout, no published source.
    #[test]
    fn what_is_never_mixed_is_said_in_both_orders() {
        let fitted = "15x6 ET40 195/65R15 91H";
        for (front, rear, stands) in [
            ("195/65R15 91H", "195/65R15 91H", None),
            ("195/65R15 91H", "205/60ZR15 91W", None),
            ("7.00-15", "195/65R15 91H", Some(Severity::Stop)),
            ("195/65R15 91H", "7.00-15", Some(Severity::Stop)),
            ("195/65R15 91H RFT", "195/65R15 91H", Some(Severity::Stop)),
            ("195/65R15 91H RFT", "195/65R15 91H RFT", None),
            ("195/65R15 91H M+S 3PMSF", "195/65R15 91H", Some(Severity::Measure)),
            ("195/65R15 91H M+S 3PMSF", "195/65R15 91H M+S 3PMSF", None),
            ("195/65R15 91H M+S", "195/65R15 91H", None),
        ] {
            let planned = format!("F: 15x6 ET40 {front} R: 15x6 ET40 {rear}");
            let line = line_in_state(CarState::default(), "mix", fitted, &planned);
            assert_eq!(line.as_ref().map(|line| line.severity), stands, "{planned}: {line:?}");
        }
    }

    #[test]
    fn a_row_says_the_season_that_a_sidewall_does_not() {
        let row = |tire: &str, kind| crate::setup::catalogue::TireRow { kind: Some(kind), ..tire_row(tire) };
        let rows = vec![
            row("195/65R15 91T M+S 3PMSF", TireKind::Winter),
            row("195/65R15 91V", TireKind::SummerTouring),
        ];
        let parts = PickedParts { tires: rows, ..PickedParts::default() };
        let planned = "F: 15x6 ET40 195/65R15 91T M+S 3PMSF R: 15x6 ET40 195/65R15 91V";
        let state = CarState::default().with_parts(parts);
        let line = line_in_state(state, "mix", "15x6 ET40 195/65R15 91H", planned).unwrap();
        assert_eq!((line.severity, line.word), (Severity::Stop, "winter with summer"));
    }

    #[test]
    fn one_axle_alone_is_held_against_what_stays_on_the_other() {
        let line =
            line_in_state(CarState::default(), "mix", "15x6 ET40 195/65R15 91H", "R: 15x7 ET30 7.00-15");
        assert_eq!(line.unwrap().severity, Severity::Stop);
    }
}
