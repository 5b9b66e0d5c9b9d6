//! The ledger: one judged line per question. It asks the rules ([`crate::judgement::rules`]) and judges nothing itself.
//!
//! A line has a word, a figure, a limit, a sentence, and the working behind the figure.

use crate::car::corner::Direction;
use crate::car::{Car, Fact};
use crate::judgement::case::{CarState, Case};
use crate::judgement::clearance::JudgedCase;
use crate::judgement::purpose::Purpose;
use crate::judgement::rules::{Asked, AxleCheck, Finding, LineCode, Point, RULES, Rule, Severity};
use crate::judgement::rules::{Counts, counts};
use crate::setup::Axle;
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity, Source, Step};

/// One line of the ledger.
#[derive(Debug, Clone, PartialEq)]
pub struct Line {
    /// Which question it answers.
    pub code: LineCode,
    /// Which axle it is about; `None` for the car as a whole.
    pub axle: Option<Axle>,
    /// The question, in the trade's words.
    pub title: &'static str,
    /// How it stands.
    pub severity: Severity,
    /// The word for it.
    pub word: &'static str,
    /// The figure; `None` while it is not known.
    pub figure: Option<Quantity>,
    /// Of a room: the same the way it was read, where that is another than the nearest way, which the figure says.
    pub as_read: Option<(Length, Direction)>,
    /// The limit it was held against.
    pub limit: Phrase,
    /// What it means for this car, in a sentence.
    pub says: Phrase,
    /// What a person must mind, where a mistake can hurt someone.
    pub caution: Option<&'static str>,
    /// The working behind the figure.
    pub working: Vec<Step>,
    /// Where the rule comes from.
    pub source: Source,
    /// Its points, where it is about several things at once.
    pub points: Vec<Point>,
    /// What of the car's record it waits for, and on which axle; empty once it stands, or for other reasons open.
    pub lacks: Vec<(Fact, Option<Axle>)>,
}

impl Line {
    fn of(code: LineCode, finding: Finding, rule: &Rule, axle: Option<Axle>, state: &CarState) -> Self {
        let (car, finding) = (&state.car, as_used(code, finding, &state.purpose));
        let is_open = matches!(finding.severity, Severity::Unknown | Severity::Measure);
        Self {
            lacks: if is_open { lacking(rule, axle, car) } else { Vec::new() },
            code,
            axle,
            title: rule.title,
            severity: finding.severity,
            word: finding.word,
            figure: finding.figure,
            as_read: None,
            points: finding.points,
            limit: finding.limit,
            says: finding.says,
            caution: finding.caution,
            working: finding.working,
            source: rule.source,
        }
    }
}

/// A finding as it counts for what the set is for: a limit that is met because of the use says so.
fn as_used(code: LineCode, finding: Finding, purpose: &Purpose) -> Finding {
    if finding.severity == Severity::Good {
        return finding;
    }
    let is_within =
        |least: f64, most: f64| finding.figure.is_some_and(|figure| (least..=most).contains(&figure.value));
    let (is_good, why) = match counts(code, purpose.ground()) {
        Counts::Fully => return finding,
        Counts::Within(least, most, _) if !is_within(least, most) => return finding,
        Counts::Not(why) | Counts::Within(.., why) => (true, why),
        Counts::AsACondition(why) => (false, why),
    };
    let mut says = Phrase::new(format!("Judged for {}: {why}. ", purpose.words()));
    says.0.extend(finding.says.0);
    if is_good {
        Finding { severity: Severity::Good, word: "by its use", says, caution: None, ..finding }
    } else {
        Finding { severity: Severity::Mind, says, ..finding }
    }
}

/// What a rule reads off the car's record and does not find there.
fn lacking(rule: &Rule, axle: Option<Axle>, car: &Car) -> Vec<(Fact, Option<Axle>)> {
    let on = |fact: &Fact| match (fact.facts().is_per_axle, axle) {
        (false, _) => vec![(*fact, None)],
        (true, Some(axle)) => vec![(*fact, Some(axle))],
        (true, None) => Axle::BOTH.map(|axle| (*fact, Some(axle))).to_vec(),
    };
    rule.of_car.iter().flat_map(on).filter(|(fact, axle)| car.value(*fact, *axle).is_none()).collect()
}

impl Case<'_> {
    /// The ledger: every line that applies, axle by axle, then the car as a whole.
    pub fn ledger(&self) -> Vec<Line> {
        self.ledger_of(&JudgedCase::of(self))
    }

    /// The same where the plan's fit is asked for elsewhere too.
    pub fn ledger_of(&self, judged: &JudgedCase<'_>) -> Vec<Line> {
        let mut lines = Vec::with_capacity(24);
        for axle in Axle::BOTH {
            let (Some(axle_case), Some(fitted), Some(planned), Some(change)) =
                (self.axle(axle), self.fitted.on(axle), self.planned.on(axle), self.change(axle))
            else {
                continue;
            };
            let fit = judged.fit(axle);
            let check = AxleCheck { case: self, axle: axle_case, fit, fitted, planned, change };
            for rule in RULES {
                match rule.asked {
                    Asked::PerAxle(code, ask) => {
                        let line = |finding| Line::of(code, finding, rule, Some(axle), &self.state);
                        lines.extend(ask(&check).map(line));
                    }
                    Asked::PerPart(ask) => lines.extend(ask(&check).into_iter().map(|(part, finding)| {
                        let code = LineCode::Clearance(part);
                        let line = Line::of(code, finding, rule, Some(axle), &self.state);
                        let room = check.fit.and_then(|fit| fit.line(part));
                        Line {
                            title: part.facts().title,
                            as_read: room.and_then(|room| room.as_read),
                            ..line
                        }
                    })),
                    Asked::PerCar(..) => {}
                }
            }
        }
        for rule in RULES {
            if let Asked::PerCar(code, ask) = rule.asked {
                lines.extend(ask(self).map(|finding| Line::of(code, finding, rule, None, &self.state)));
            }
        }
        lines
    }
}

#[cfg(test)]
pub(crate) mod tests {
    use super::*;
    use crate::car::Car;
    use crate::car::limits::{Drive, HouseLimits};
    use crate::judgement::case::CarState;
    use crate::judgement::purpose::Purpose;
    use crate::setup::catalogue::PickedParts;
    use crate::setup::catalogue::Use;
    use crate::values::date_code::Day;

    /// A square plan's ledger line by code, from two setup lines.
    #[track_caller]
    pub(crate) fn line(code: &str, fitted: &str, planned: &str, drive: Option<Drive>) -> Line {
        let reading = |text: &str| crate::setup::line::read(text).unwrap().setups.expect(text);
        let (fitted, planned) = (reading(fitted), reading(planned));
        let limits = HouseLimits::DEFAULT;
        let today = Some(Day { year: 2026, day_of_year: 153 });
        let plan = Case::new(&fitted, &planned, drive, &limits, today);
        plan.ledger().into_iter().find(|line| line.code.code() == code).expect("the line is there")
    }

    /// A front axle's line in a bay; `None` when the rule has nothing to say.
    #[track_caller]
    pub(crate) fn line_in_state(state: CarState, code: &str, fitted: &str, planned: &str) -> Option<Line> {
        let reading = |text: &str| crate::setup::line::read(text).unwrap().setups.expect(text);
        let (fitted, planned) = (reading(fitted), reading(planned));
        let limits = HouseLimits::DEFAULT;
        let plan = Case::new(&fitted, &planned, None, &limits, None).in_state(state);
        plan.ledger().into_iter().find(|line| line.code.code() == code && line.axle != Some(Axle::Rear))
    }

    /// The same on a car of which something is written down.
    #[track_caller]
    pub(crate) fn line_on(car: Car, code: &str, fitted: &str, planned: &str) -> Option<Line> {
        line_in_state(CarState::default().of_car(car), code, fitted, planned)
    }

    /// The same with parts that were picked.
    #[track_caller]
    pub(crate) fn line_with_parts(parts: PickedParts, code: &str, planned: &str) -> Option<Line> {
        line_in_state(CarState::default().with_parts(parts), code, "17x7.5 ET45 225/45R17", planned)
    }

    #[test]
    fn codes_are_unique_and_every_rule_names_its_source() {
        for (at, rule) in RULES.iter().enumerate() {
            assert!(
                RULES[..at].iter().all(|other| other.title != rule.title),
                "{} is there twice",
                rule.title
            );
            assert!(!rule.source.cite.is_empty() && !rule.title.is_empty(), "{}", rule.title);
        }
    }

    #[test]
    fn a_track_has_a_band_of_its_own_and_no_use_spares_a_coupling() {
        // 225/45R17 is 634.3 mm: 225/40R17 611.8 (−3.5 %), 205/40R17 595.8 (−6.1 %), 225/50R17 656.8 (+3.5 %). The band: common practice.
        let stands = |uses: &[Use], is_carried, code, planned: &str| {
            let purpose = Purpose { uses: uses.to_vec(), is_carried, ..Purpose::default() };
            let mut state = CarState::default();
            state.purpose = purpose;
            line_in_state(state, code, "17x7.5 ET45 225/45R17", planned).unwrap().severity
        };
        let track = |tire: &str| stands(&[Use::RegularTrack], false, "overall-diameter", tire);
        assert_eq!(track("17x7.5 ET45 225/40R17"), Severity::Good);
        assert_eq!(track("17x7.5 ET45 205/40R17"), Severity::Mind);
        assert_eq!(track("17x7.5 ET45 225/50R17"), Severity::Mind);
        assert_eq!(stands(&[Use::Daily], false, "overall-diameter", "17x7.5 ET45 225/40R17"), Severity::Mind);
        // The drive is not known here: it may be all-wheel drive.
        let staggered = "F: 17x7.5 ET45 225/45R17 R: 17x7.5 ET45 255/50R17";
        assert_eq!(stands(&[Use::DragStrip], true, "front-to-rear", staggered), Severity::Measure);
    }

    #[test]
    fn a_line_that_waits_for_the_cars_record_says_which_facts() {
        let plan = "18x8.5 ET30 235/40R18 CB66.6";
        let lacks = |car: &Car| line_on(car.clone(), "hub", "18x7.5 ET32 225/40R18", plan).unwrap().lacks;
        let front = Some(Axle::Front);
        let mut car = Car::default();
        let all =
            [(Fact::BoltCircle, None), (Fact::HubBore, front), (Fact::Seat, None), (Fact::Thread, None)];
        assert_eq!(lacks(&car), all);
        for (known, (fact, axle)) in all.into_iter().enumerate() {
            let value = ["5x112", "57.1", "ball R13", "M14x1.5"][known];
            car.note(fact, axle, value).unwrap();
            assert_eq!(lacks(&car), all[known + 1..], "{value}");
        }
        // The wheel's own circle is still not stated: that is nothing to look for in the car's record.
        let line = line_on(car, "hub", "18x7.5 ET32 225/40R18", plan).unwrap();
        assert_eq!((line.severity, line.lacks.len()), (Severity::Unknown, 0));
        // A line that stands waits for nothing, whatever else nobody knows.
        let mut other = Car::default();
        other.note(Fact::BoltCircle, None, "5x112").unwrap();
        let line = line_on(other, "hub", "18x7.5 ET32 225/40R18", "18x8.5 ET30 5x100 235/40R18").unwrap();
        assert_eq!((line.severity, line.lacks.len()), (Severity::Stop, 0));
    }

    #[test]
    fn every_known_figure_has_a_working_and_a_word() {
        let reading = |text: &str| crate::setup::line::read(text).unwrap().setups.unwrap();
        let fitted = reading("17x7.5 ET45 225/45R17 94W");
        let planned = reading("F: 18x8.5 ET35 235/40R18 91Y DOT 2318 R: 18x9.5 ET30 255/40R18 99Y");
        let limits = HouseLimits::DEFAULT;
        let today = Some(Day { year: 2026, day_of_year: 1 });
        let lines = Case::new(&fitted, &planned, None, &limits, today).ledger();
        assert!(lines.len() > 14);
        for line in lines {
            assert!(!line.word.is_empty() && !line.says.0.is_empty(), "{:?}", line.code);
            assert_eq!(line.figure.is_some(), !line.working.is_empty(), "{:?}: {line:?}", line.code);
        }
    }

    #[test]
    fn what_was_not_stated_is_called_unknown() {
        for (code, planned) in [
            ("inner-change", "18x8.5 245/40R18"),
            ("overall-diameter", "18x8.5 ET35"),
            ("tire-on-rim", "245/40R18"),
        ] {
            let line = line(code, "17x7.5 ET45 225/45R17", planned, None);
            assert_eq!((line.severity, line.figure), (Severity::Unknown, None), "{code} with {planned}");
        }
    }
}
