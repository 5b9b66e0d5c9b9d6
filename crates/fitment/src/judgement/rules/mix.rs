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

/// What of a tire must be alike on both axles.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Nature {
    is_radial: bool,
    is_run_flat: bool,
    season: Season,
}

/// What two axles differ in that they must not.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Mixed {
    /// Radial with bias ply.
    Construction,
    /// Winter with summer.
    Seasons,
    /// Winter with what nobody said a season of.
    SeasonNotSaid,
    /// Run-flat with ordinary.
    RunFlat,
}

impl Nature {
    /// Of a tire of a kind, where that is known.
    pub fn of(tire: &Tire, kind: Option<TireKind>) -> Self {
        let of_kind = kind.map_or(Season::NotSaid, |kind| match kind {
            TireKind::Winter => Season::Winter,
            TireKind::AllSeason | TireKind::AllTerrain => Season::NotSaid,
            TireKind::SummerTouring
            | TireKind::SummerPerformance
            | TireKind::TrackDay
            | TireKind::SemiSlick
            | TireKind::Slick
            | TireKind::Drag => Season::Summer,
        });
        let season = match of_kind {
            Season::NotSaid if tire.snowflake => Season::Winter,
            season => season,
        };
        let is_radial = match tire.size.construction() {
            Construction::Radial | Construction::ZrRadial | Construction::SpeedRadial(_) => true,
            Construction::BiasPly => false,
        };
        Self { is_radial, is_run_flat: tire.run_flat, season }
    }

    /// What of it must not be on one car with another; `None` where both may.
    pub fn mixed_with(self, other: Self) -> Option<Mixed> {
        let is_winter = |one: Self| one.season == Season::Winter;
        if self.is_radial != other.is_radial {
            Some(Mixed::Construction)
        } else if is_winter(self) != is_winter(other) {
            let says_both = self.season != Season::NotSaid && other.season != Season::NotSaid;
            Some(if says_both { Mixed::Seasons } else { Mixed::SeasonNotSaid })
        } else if self.is_run_flat != other.is_run_flat {
            Some(Mixed::RunFlat)
        } else {
            None
        }
    }

    fn season_words(self) -> &'static str {
        match self.season {
            Season::Winter => "winter tires",
            Season::Summer => "summer tires",
            Season::NotSaid => "tires of a season that nobody stated",
        }
    }
}

impl Mixed {
    /// How a line with it stands.
    pub fn severity(self) -> Severity {
        match self {
            Self::Construction | Self::Seasons | Self::RunFlat => Severity::Stop,
            Self::SeasonNotSaid => Severity::Measure,
        }
    }

    fn word(self) -> &'static str {
        match self {
            Self::Construction => "radial with bias ply",
            Self::Seasons => "winter with summer",
            Self::SeasonNotSaid => "ask",
            Self::RunFlat => "run-flat with ordinary",
        }
    }

    fn says(self, front: Nature, rear: Nature) -> String {
        let construction = |one: Nature| if one.is_radial { "radial" } else { "bias ply" };
        let run_flat = |one: Nature| if one.is_run_flat { "run-flat tires" } else { "ordinary tires" };
        let (of, then): (&dyn Fn(Nature) -> &'static str, &str) = match self {
            Self::Construction => (&construction, "never on one car"),
            Self::Seasons => (&Nature::season_words, "never on one car"),
            Self::SeasonNotSaid => {
                (&Nature::season_words, "name the other axle's mark, 3PMSF or M+S, or pick its row")
            }
            Self::RunFlat => (&run_flat, "only where the car's maker allows it in writing"),
        };
        format!("In front {}, behind {}: {then}.", of(front), of(rear))
    }
}

/// `None` while all four are alike in what is known of them. An axle for which nothing is planned keeps what it has.
fn judge(case: &Case<'_>) -> Option<Finding> {
    let on = |axle: Axle| {
        let setup = case.planned.on(axle).or(case.fitted.on(axle))?;
        Some((*setup, setup.tire?))
    };
    // Without a plan there is nothing to judge.
    Axle::BOTH.iter().any(|axle| case.planned.on(*axle).is_some()).then_some(())?;
    let nature = |(setup, tire): (Setup, Tire)| Nature::of(&tire, case.state.parts.kind_of(&setup));
    let (front, rear) = (nature(on(Axle::Front)?), nature(on(Axle::Rear)?));
    let mixed = front.mixed_with(rear)?;
    Some(Finding {
        severity: mixed.severity(),
        word: mixed.word(),
        figure: None,
        limit: Phrase::new("one construction, one season, all round"),
        says: Phrase::new(mixed.says(front, rear)),
        caution: Some(CAUTION),
        working: Vec::new(),
        points: Vec::new(),
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
