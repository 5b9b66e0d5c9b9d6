//! What to buy next, for somebody who begins: use up what is on the car, then the cheapest tires of the class, and the
//! stickiest only when the class's leaders are near.

use crate::judgement::case::Case;
use crate::judgement::club::Class;
use crate::judgement::rules::Severity;
use crate::judgement::rules::load::LoadRequirement;
use crate::judgement::rules::speed::SpeedRequirement;
use crate::setup::catalogue::{Season, TireRow, Use};
use crate::setup::{Axle, SetupPair};
use crate::values::working::Source;

/// Where the order comes from.
pub const SOURCE: Source =
    Source::common_practice("seat time before tires; the stickiest within about two seconds of the leaders");

/// Within so many seconds of the class's leaders the stickiest tire pays. Common practice.
pub const NEAR_S: f64 = 2.0;

/// How somebody stands in the class, as far as it is known.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Racer {
    /// Seconds behind the class's leaders.
    pub gap_s: Option<f64>,
    /// Runs left on the tire of the car that is done first.
    pub runs_left: Option<f64>,
    /// What a run costs in tread, four tires, in the shop's money.
    pub cost_per_run: Option<f64>,
    /// Runs still to come this season.
    pub season_runs: Option<f64>,
    /// Most that is to be spent, in hundredths.
    pub budget: Option<u64>,
}

/// Four tires of one line in the plan's sizes.
#[derive(Debug, Clone, Copy)]
pub struct TireSet<'a> {
    /// In front.
    pub front: &'a TireRow,
    /// Behind.
    pub rear: &'a TireRow,
    /// All four, in hundredths of the shop's money.
    pub hundredths: u64,
}

impl TireSet<'_> {
    /// The higher treadwear grade of both axles; `None` while one is not stated.
    fn grade(&self) -> Option<u32> {
        Some(self.front.treadwear?.max(self.rear.treadwear?))
    }

    fn says(&self) -> String {
        let sizes = if self.front.tire.size == self.rear.tire.size {
            self.front.tire.size.to_string()
        } else {
            format!("{} and {}", self.front.tire.size, self.rear.tire.size)
        };
        let grade = self.grade().map(|grade| format!(", treadwear {grade}")).unwrap_or_default();
        format!("{} {sizes}{grade}: {:.2} for four", self.front.line, money(self.hundredths))
    }
}

fn money(hundredths: u64) -> f64 {
    hundredths as f64 / 100.0
}

/// What the tires are for, as the finder is asked.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct For {
    /// Every use that a tire must suit.
    pub uses: Vec<Use>,
    /// The season; `None` for any.
    pub season: Option<Season>,
}

impl For {
    /// Whether a tire is for all of it; one whose kind no list states is for nothing that was asked for.
    fn suits(&self, row: &TireRow) -> bool {
        match row.kind {
            Some(kind) => {
                self.uses.iter().all(|wanted| kind.suits(*wanted))
                    && self.season.is_none_or(|season| kind.suits_season(season))
            }
            None => self.uses.is_empty() && self.season.is_none(),
        }
    }
}

/// Sets of tires in a plan's sizes that the lists have with a price, that are for what is wanted, that the class allows, and
/// that load and speed do not stop; cheapest first.
pub fn tire_sets<'a>(
    rows: &'a [TireRow],
    planned: &SetupPair,
    case: &Case<'_>,
    class: Option<&Class>,
    wanted: &For,
) -> Vec<TireSet<'a>> {
    let on = |axle: Axle| -> Vec<&'a TireRow> {
        let Some(tire) = planned.on(axle).and_then(|setup| setup.tire) else { return Vec::new() };
        let load = LoadRequirement::of(&case.state.car, &case.fitted, axle);
        let speed = SpeedRequirement::of(&case.state.car, &case.fitted, axle);
        let may = |row: &&TireRow| {
            row.price.is_some()
                && row.tire.size == tire.size
                && wanted.suits(row)
                && class.is_none_or(|class| class.allows_tire(&row.line, row.treadwear))
                && load.judge(&row.tire).severity() != Severity::Stop
                && speed.judge(&row.tire, row.kind).severity() != Severity::Stop
        };
        rows.iter().filter(may).collect()
    };
    let (front, rear) = (on(Axle::Front), on(Axle::Rear));
    let price = |row: &TireRow| 2 * u64::from(row.price.unwrap_or_default());
    let mut sets: Vec<TireSet<'a>> = Vec::new();
    for one in front {
        // The cheapest of its line behind: one line on both axles.
        let other = rear.iter().filter(|other| other.line == one.line).min_by_key(|other| price(other));
        let Some(other) = other else { continue };
        sets.push(TireSet { front: one, rear: other, hundredths: price(one) + price(other) });
    }
    sets.sort_by_key(|set| (set.hundredths, set.front.id));
    sets
}

/// What to do next, in order; each a sentence.
pub fn next_steps(racer: &Racer, sets: &[TireSet<'_>]) -> Vec<String> {
    let mut steps = Vec::new();
    let has_tread = racer.runs_left.is_some_and(|left| left > 0.0);
    if let Some(left) = racer.runs_left.filter(|left| *left > 0.0) {
        let cost = racer.cost_per_run.map(|cost| format!(", at {cost:.2} a run")).unwrap_or_default();
        let enough = racer.season_runs.is_some_and(|season| season <= left);
        let end = if enough { ": they last the season out" } else { "" };
        steps.push(format!(
            "Use up what is on the car: {left:.0} runs are left on the tire that is done first{cost}{end}."
        ));
        if enough {
            return steps;
        }
    }
    let then = if has_tread { "Then" } else { "Now" };
    let Some(cheapest) = sets.first() else {
        steps.push(format!(
            "{then} new tires: no list has any in the plan's sizes with a price that class, load and speed allow."
        ));
        return steps;
    };
    let stickiest =
        sets.iter().filter(|set| set.grade().is_some()).min_by_key(|set| (set.grade(), set.hundredths));
    let chosen = match (racer.gap_s, stickiest) {
        (Some(gap), Some(stickiest)) if gap <= NEAR_S => {
            steps.push(format!(
                "{then} the stickiest that the class allows: {}. Within two seconds of the leaders it pays.",
                stickiest.says()
            ));
            stickiest
        }
        (Some(gap), None) if gap <= NEAR_S => {
            steps.push(format!(
                "{then} the stickiest that the class allows: no list states a treadwear grade, so ask; the cheapest is {}.",
                cheapest.says()
            ));
            cheapest
        }
        (gap, _) => {
            let why = match gap {
                Some(gap) => format!("At {gap:.1} s behind the leaders runs teach more than tires."),
                None => {
                    "Say how far ahead the class's leaders are: only within two seconds the stickiest pays."
                        .into()
                }
            };
            steps.push(format!("{then} the cheapest that the class allows: {}. {why}", cheapest.says()));
            cheapest
        }
    };
    if let Some(budget) = racer.budget.filter(|budget| chosen.hundredths > *budget) {
        let short = money(chosen.hundredths - budget);
        steps.push(format!("That is {short:.2} more than the budget: drive what is there meanwhile."));
    }
    steps.push(
        "Keep the worn set on its own wheels where the season allows: rain, practice and the way there."
            .into(),
    );
    steps
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::limits::HouseLimits;
    use crate::setup::catalogue::TireKind;

    fn row(id: u32, line: &str, tire: &str, price: Option<u32>, grade: Option<u32>) -> TireRow {
        TireRow { id, line: line.into(), price, treadwear: grade, ..TireRow::plain(tire.parse().unwrap()) }
    }

    fn pair(line: &str) -> SetupPair {
        crate::setup::line::read(line).unwrap().setups.unwrap()
    }

    fn rows() -> Vec<TireRow> {
        vec![
            row(1, "Dear", "205/50R16 87V", Some(20_000), Some(200)),
            row(2, "Plain", "205/50R16 87V", Some(8_900), Some(340)),
            row(3, "Soft", "205/50R16 87V", Some(15_000), Some(100)),
            row(4, "Weak", "205/50R16 79V", Some(5_000), Some(300)),
            row(5, "Slow", "205/50R16 87Q", Some(5_000), Some(300)),
            row(6, "Other", "205/55R16 91V", Some(4_000), Some(300)),
            row(7, "No price", "205/50R16 87V", None, Some(300)),
        ]
    }

    fn lines(class: Option<&Class>) -> Vec<String> {
        let fitted = pair("16x6.5 ET45 205/50R16 87V");
        let limits = HouseLimits::DEFAULT;
        let case = Case::new(&fitted, &fitted, None, &limits, None);
        tire_sets(&rows(), &fitted, &case, class, &For::default())
            .iter()
            .map(|set| set.front.line.to_string())
            .collect()
    }

    #[test]
    fn only_what_class_load_and_speed_allow_is_offered_cheapest_first() {
        assert_eq!(lines(None), ["Plain", "Soft", "Dear"]);
        let class = Class {
            name: "C".into(),
            clauses: vec![crate::judgement::club::Clause::Treadwear { least: 200 }],
        };
        assert_eq!(lines(Some(&class)), ["Plain", "Dear"]);
    }

    #[test]
    fn what_is_not_for_the_use_or_the_season_is_not_offered() {
        let with =
            |kind| TireRow { kind: Some(kind), ..row(1, "One", "205/50R16 87V", Some(9_000), Some(300)) };
        let wanted = For { uses: vec![Use::Autocross], season: Some(Season::Summer) };
        for (kind, is_offered) in
            [(TireKind::SemiSlick, true), (TireKind::Winter, false), (TireKind::SummerPerformance, true)]
        {
            assert_eq!(wanted.suits(&with(kind)), is_offered, "{kind:?}");
        }
        let unknown = row(1, "One", "205/50R16 87V", Some(9_000), Some(300));
        assert!(!wanted.suits(&unknown) && For::default().suits(&unknown));
    }

    #[test]
    fn the_ladder_by_gap_tread_and_budget() {
        let fitted = pair("16x6.5 ET45 205/50R16 87V");
        let limits = HouseLimits::DEFAULT;
        let case = Case::new(&fitted, &fitted, None, &limits, None);
        let rows = rows();
        let sets = tire_sets(&rows, &fitted, &case, None, &For::default());
        let says = |racer: Racer| next_steps(&racer, &sets).join(" ");
        let near = Racer { gap_s: Some(2.0), ..Racer::default() };
        assert!(
            says(near).contains("stickiest that the class allows: Soft 205/50R16, treadwear 100: 600.00")
        );
        let far = says(Racer { gap_s: Some(2.1), ..near });
        assert!(
            far.starts_with("Now the cheapest that the class allows: Plain") && far.contains("2.1 s"),
            "{far}"
        );
        assert!(says(Racer::default()).contains("Say how far ahead"));
        let worn = says(Racer { runs_left: Some(13.0), cost_per_run: Some(4.2), ..far_racer() });
        assert!(
            worn.starts_with("Use up what is on the car: 13 runs") && worn.contains("4.20 a run. Then"),
            "{worn}"
        );
        let enough = Racer { runs_left: Some(13.0), season_runs: Some(12.0), ..far_racer() };
        assert_eq!(next_steps(&enough, &sets).len(), 1, "nothing is bought that the season does not need");
        let poor = says(Racer { budget: Some(30_000), ..far_racer() });
        assert!(poor.contains("56.00 more than the budget"), "{poor}");
        assert!(next_steps(&far_racer(), &[])[0].contains("no list has any"));
    }

    fn far_racer() -> Racer {
        Racer { gap_s: Some(5.0), ..Racer::default() }
    }
}
