//! A plan in a few words: what stands against it, by cause, the worst first.
//!
//! Lines that come from one thing are one [`Cause`] with its consequences: a tire too tall is dial, band, ratio and arch; a wheel too far
//! in is strut, perch and knuckle. The headline names the worst cause with its figure, then how many more there are. What is not known
//! and cannot decide is not counted.
//!
//! # Source
//! Common practice: an expert names one cause and its mend, where a list counts findings.

use super::ledger::Line;
use crate::car::corner::feature::BlocksFrom;
use crate::judgement::rules::{LineCode, Point, Severity, Topic};
use crate::setup::Axle;
use crate::values::coded::coded;
use crate::values::working::{Fragment, Phrase, Quantity};

/// What kind of word a line or a cause is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Kind {
    /// Nothing against it.
    Good,
    /// Good to know.
    Note,
    /// Right as soon as something known is done.
    Condition,
    /// A figure is missing, and it may decide.
    Unknown,
    /// It may be a stop, and nobody knows: measure first.
    Measure,
    /// It cannot be driven or mounted so.
    Stop,
}

coded!(Kind:
    Good = "good",
    Note = "note",
    Condition = "condition",
    Unknown = "unknown",
    Measure = "measure",
    Stop = "stop",
);

/// What a plan comes to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Outcome {
    /// Nothing is planned.
    NothingPlanned,
    /// It goes.
    Goes,
    /// It goes when its conditions are met.
    Conditions,
    /// Something must be measured first.
    Measure,
    /// It does not go.
    Stop,
}

coded!(Outcome:
    NothingPlanned = "nothing_planned",
    Goes = "goes",
    Conditions = "conditions",
    Measure = "measure",
    Stop = "stop",
);

/// One thing that stands against a plan, or must go with it.
#[derive(Debug, Clone, PartialEq)]
pub struct Cause {
    /// What it is about.
    pub topic: Topic,
    /// How it stands.
    pub kind: Kind,
    /// On which axle; `None` for both and for the car as a whole.
    pub axle: Option<Axle>,
    /// The line that says it.
    pub code: LineCode,
    /// In a sentence, without its full stop.
    pub says: Phrase,
    /// Whether it is a gap that nobody read in the bay.
    is_to_be_measured: bool,
    /// Its figure.
    pub figure: Option<Quantity>,
    /// What clears it, in a sentence, where something was sought and found.
    pub mend: Option<Phrase>,
    /// The other lines that come from the same thing.
    pub consequences: Vec<LineCode>,
}

impl Cause {
    /// The part it is about, or its topic.
    fn name(&self) -> &'static str {
        self.code.part().map_or(self.topic.label(), |part| part.facts().name)
    }
}

/// A plan in a few words.
#[derive(Debug, Clone, PartialEq)]
pub struct Headline {
    /// The worst kind of line that counts.
    pub severity: Severity,
    /// What the plan comes to.
    pub outcome: Outcome,
    /// In words.
    pub says: Phrase,
    /// What stands against it or must go with it, the worst first.
    pub causes: Vec<Cause>,
}

impl Line {
    /// What kind of word it is. A watched figure that can never stop a plan is a note.
    pub fn kind(&self) -> Kind {
        match self.severity {
            Severity::Good => Kind::Good,
            Severity::Unknown => Kind::Unknown,
            Severity::Measure => Kind::Measure,
            Severity::Stop => Kind::Stop,
            Severity::Mind if self.code.can_decide() => Kind::Condition,
            Severity::Mind => Kind::Note,
        }
    }

    /// What it is about; `None` where it is about several things.
    pub fn topic(&self) -> Option<Topic> {
        self.code.topic().or(match self.points.as_slice() {
            [only] => Some(only.topic),
            _ => None,
        })
    }

    /// Whether it takes part in the headline: what is not known and cannot decide does not.
    fn counts(&self) -> bool {
        match self.kind() {
            Kind::Good | Kind::Note => false,
            Kind::Unknown => self.code.can_decide(),
            Kind::Condition | Kind::Measure | Kind::Stop => true,
        }
    }

    /// In a few words, with its figure.
    fn in_short(&self) -> Phrase {
        let part = self.code.part().map(|part| part.facts());
        let topic = self.code.topic().unwrap_or(Topic::Other);
        let short = match (part, &self.figure, self.severity) {
            (Some(part), Some(figure), Severity::Stop) if figure.value <= 0.0 => {
                let by = Quantity { value: -figure.value, ..*figure };
                Phrase::new(format!("{} touches by ", part.name)).quantity(by)
            }
            (Some(part), Some(figure), Severity::Stop | Severity::Mind) => {
                Phrase::new(format!("{} tight: ", part.name)).quantity(*figure).text(" of room")
            }
            (Some(part), _, Severity::Measure) => Phrase::new(format!("measure the {}", part.name)),
            (None, _, Severity::Measure) if self.is_a_gap() => {
                Phrase::new(format!("measure the {}", topic.label()))
            }
            _ => labelled(topic, first_sentence(&self.says)),
        };
        on_axle(self.axle, short)
    }

    /// Whether it is a gap that is read in the bay.
    fn is_a_gap(&self) -> bool {
        let is_of_a_face =
            matches!(self.code, LineCode::InnerChange | LineCode::OuterChange | LineCode::ArchGap);
        is_of_a_face || self.code.part().is_some()
    }
}

/// A sentence with what it is about in front.
fn labelled(topic: Topic, sentence: Phrase) -> Phrase {
    if topic.label().is_empty() {
        return sentence;
    }
    let mut labelled = Phrase::new(format!("{}: ", topic.label()));
    labelled.0.extend(sentence.uncapitalized().0);
    labelled
}

/// Its first sentence, without the full stop.
fn first_sentence(says: &Phrase) -> Phrase {
    let mut first = Phrase::default();
    for fragment in &says.0 {
        match fragment {
            Fragment::Text(text) => {
                let end = text.find(". ").or(text.strip_suffix('.').map(str::len));
                match end {
                    Some(end) => return first.text(text[..end].to_owned()),
                    None => first = first.text(text.clone()),
                }
            }
            Fragment::Quantity(quantity) => first = first.quantity(*quantity),
        }
    }
    first
}

fn on_axle(axle: Option<Axle>, short: Phrase) -> Phrase {
    let Some(axle) = axle else { return short.capitalized() };
    let mut on = Phrase::new(format!("{}: ", axle.code())).capitalized();
    on.0.extend(short.0);
    on
}

/// What lines have in common that come from one thing.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Root {
    /// The tire's diameter.
    Diameter,
    /// What the tire carries.
    Load,
    /// How far in wheel and tire stand.
    Inboard,
    /// How far out.
    Outboard,
    /// The brake.
    Brake,
    /// Full lock.
    Lock,
    /// Itself alone.
    Own(LineCode),
}

impl Root {
    fn of(code: LineCode) -> Self {
        match code {
            LineCode::OverallDiameter | LineCode::Speedometer | LineCode::FrontToRear | LineCode::ArchGap => {
                Self::Diameter
            }
            LineCode::LoadIndex | LineCode::Pressure | LineCode::CamberLoad => Self::Load,
            LineCode::InnerChange => Self::Inboard,
            LineCode::OuterChange => Self::Outboard,
            LineCode::Clearance(feature) if feature.facts().at_lock => Self::Lock,
            LineCode::Clearance(feature) => match feature.blocks_from() {
                BlocksFrom::Inboard => Self::Inboard,
                BlocksFrom::Outboard => Self::Outboard,
                BlocksFrom::Above => Self::Diameter,
                BlocksFrom::Barrel | BlocksFrom::Spoke => Self::Brake,
                BlocksFrom::AheadOrBehind => Self::Lock,
            },
            other => Self::Own(other),
        }
    }
}

/// One finding, as a cause by itself: a line, or one point of a line that is about several things.
struct Finding {
    cause: Cause,
    root: Root,
    /// Of a room: what there is of it.
    room: f64,
}

fn findings(line: &Line) -> Vec<Finding> {
    let of = |topic: Topic, kind: Kind, says: Phrase, root: Root| Finding {
        cause: Cause {
            topic,
            kind,
            axle: line.axle,
            code: line.code,
            says,
            is_to_be_measured: kind == Kind::Measure && line.is_a_gap(),
            figure: line.figure,
            mend: None,
            consequences: Vec::new(),
        },
        root,
        room: line.figure.filter(|_| line.code.part().is_some()).map_or(f64::INFINITY, |figure| figure.value),
    };
    if line.points.is_empty() {
        let topic = line.code.topic().unwrap_or(Topic::Other);
        return vec![of(topic, line.kind(), line.in_short(), Root::of(line.code))];
    }
    let point = |Point { topic, severity, says }: &Point| {
        let kind = match severity {
            Severity::Stop => Kind::Stop,
            Severity::Measure => Kind::Measure,
            Severity::Unknown => Kind::Unknown,
            Severity::Mind | Severity::Good => Kind::Condition,
        };
        let says = labelled(*topic, first_sentence(&Phrase::new(says.clone())));
        let mut found = of(*topic, kind, on_axle(line.axle, says), Root::Own(line.code));
        found.cause.figure = None;
        found
    };
    line.points.iter().map(point).collect()
}

/// The causes of a ledger, the worst first.
fn causes(lines: &[Line]) -> Vec<Cause> {
    let mut found: Vec<Finding> = lines.iter().filter(|line| line.counts()).flat_map(findings).collect();
    // Worst first; of rooms, which come before the rest, the one with the least left.
    found.sort_by(|a, b| b.cause.kind.cmp(&a.cause.kind).then(a.room.total_cmp(&b.room)));
    let mut all: Vec<(Root, Cause)> = Vec::new();
    for one in found {
        let is_one_thing = |(root, cause): &(Root, Cause)| {
            let is_of_points = matches!(one.root, Root::Own(LineCode::Hub));
            let is_same_axle =
                cause.axle == one.cause.axle || cause.axle.is_none() || one.cause.axle.is_none();
            // What is to be measured, and what must be done, is no consequence of what touches.
            *root == one.root && is_same_axle && !is_of_points && cause.kind == one.cause.kind
        };
        let is_twin = |(_, cause): &(Root, Cause)| {
            let unlike = |cause: &Cause| (cause.code, cause.topic, cause.kind, cause.figure);
            cause.axle == Some(Axle::Front)
                && one.cause.axle == Some(Axle::Rear)
                && unlike(cause) == unlike(&one.cause)
        };
        // What reads the same front and rear is one thing.
        if let Some((_, twin)) = all.iter_mut().find(|known| is_twin(known)) {
            twin.axle = None;
            twin.says = without_axle(&twin.says);
        } else if let Some((_, cause)) = all.iter_mut().find(|known| is_one_thing(known)) {
            if !cause.consequences.contains(&one.cause.code) {
                cause.consequences.push(one.cause.code);
            }
        } else {
            all.push((one.root, one.cause));
        }
    }
    what_is_measured_in_one(all.into_iter().map(|(_, cause)| cause).collect())
}

/// Every gap that nobody read is one errand to the bay: one cause, which names them.
fn what_is_measured_in_one(causes: Vec<Cause>) -> Vec<Cause> {
    let (gaps, mut all): (Vec<Cause>, Vec<Cause>) =
        causes.into_iter().partition(|cause| cause.is_to_be_measured);
    let mut names: Vec<&str> = Vec::new();
    for gap in &gaps {
        if !names.contains(&gap.name()) {
            names.push(gap.name());
        }
    }
    let mut gaps = gaps.into_iter();
    let Some(mut first) = gaps.next() else { return all };
    if names.len() > 1 {
        const FEW: usize = 3;
        let more = names.len().saturating_sub(FEW);
        let named = names[..names.len().min(FEW)].join(", ");
        let more = if more > 0 { format!(" and {more} more") } else { String::new() };
        first.says = Phrase::new(format!("Measure first: {named}{more}"));
        first.axle = None;
        for gap in gaps {
            let codes = std::iter::once(gap.code).chain(gap.consequences);
            for code in codes {
                if code != first.code && !first.consequences.contains(&code) {
                    first.consequences.push(code);
                }
            }
        }
    }
    let at = all.iter().position(|cause| cause.kind <= first.kind).unwrap_or(all.len());
    all.insert(at, first);
    all
}

/// The same without the axle in front.
fn without_axle(says: &Phrase) -> Phrase {
    let mut says = says.clone();
    let prefix = format!("{}: ", Axle::Front.code());
    if let Some(Fragment::Text(text)) = says.0.first_mut()
        && text.to_lowercase().starts_with(&prefix)
    {
        *text = text[prefix.len()..].to_owned().into();
        if text.is_empty() {
            says.0.remove(0);
        }
    }
    says.capitalized()
}

impl Headline {
    /// Of a ledger. It is never a good word over an empty or mostly unknown plan: what is not known yet comes before
    /// what is only to be watched.
    pub fn of(lines: &[Line], is_planned: bool) -> Self {
        let causes = if is_planned { causes(lines) } else { Vec::new() };
        let worst = causes.first().map(|cause| cause.kind);
        let (severity, outcome) = match worst {
            _ if !is_planned => (Severity::Unknown, Outcome::NothingPlanned),
            Some(Kind::Stop) => (Severity::Stop, Outcome::Stop),
            Some(Kind::Measure) => (Severity::Measure, Outcome::Measure),
            Some(Kind::Unknown) => (Severity::Unknown, Outcome::Measure),
            Some(Kind::Condition) => (Severity::Mind, Outcome::Conditions),
            Some(Kind::Note | Kind::Good) | None if lines.is_empty() => (Severity::Unknown, Outcome::Measure),
            Some(Kind::Note | Kind::Good) | None => (Severity::Good, Outcome::Goes),
        };
        let says = says(&causes, outcome);
        // What hangs on work that is not done yet is never said without it.
        let is_assumed = lines.iter().any(|line| line.code == LineCode::AssumedWork);
        let says = if is_assumed { says.text(", with work on the car assumed") } else { says };
        Self { severity, outcome, says, causes }
    }

    /// How many conditions there are.
    pub fn conditions(&self) -> usize {
        self.causes.iter().filter(|cause| cause.kind == Kind::Condition).count()
    }
}

/// The worst cause, and how many more there are of its kind.
fn says(causes: &[Cause], outcome: Outcome) -> Phrase {
    let Some(first) = causes.first() else {
        return Phrase::new(match outcome {
            Outcome::NothingPlanned => "Nothing planned yet",
            Outcome::Measure => "Nothing is known yet",
            Outcome::Goes | Outcome::Conditions | Outcome::Stop => "Goes: nothing stands against it",
        });
    };
    if outcome == Outcome::Conditions {
        let count = causes.len();
        let noun = if count == 1 { "condition" } else { "conditions" };
        let mut says = Phrase::new(format!("Goes, with {count} {noun}: "));
        says.0.extend(first.says.0.clone());
        return says;
    }
    let more = causes.iter().skip(1).filter(|cause| cause.kind == first.kind).count();
    let mut says = Phrase::default();
    if outcome == Outcome::Stop {
        // A cause by itself tells what is wrong, and not that the plan ends there.
        says = says.text("Stop · ");
    }
    says.0.extend(first.says.0.clone());
    if more > 0 { says.text(format!(" · and {more} more")) } else { says }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::corner::{Corner, Corners, Feature, Reading};
    use crate::car::lever::PairLevers;
    use crate::car::limits::{Drive, HouseLimits};
    use crate::judgement::case::{CarState, Case};
    use crate::setup::SetupPair;
    use crate::values::length::Length;

    const FITTED: &str = "17x7.5 ET45 225/45R17 94W";

    fn headline(planned: &str, drive: Option<Drive>, readings: &[(Feature, f64)]) -> Headline {
        let pair = |text: &str| crate::setup::line::read(text).unwrap().setups.unwrap_or_default();
        let (fitted, planned) = (pair(FITTED), pair(planned));
        let limits = HouseLimits::DEFAULT;
        let on = fitted.front.unwrap();
        let read =
            |(feature, gap): &(Feature, f64)| Reading::new(*feature, Length::mm(*gap), Length::mm(0.5), on);
        let corner = || Corner { readings: readings.iter().map(read).collect(), ..Corner::default() };
        let corners = Corners { front: corner(), rear: corner() };
        let state = CarState::new(corners, PairLevers::default(), (None, None));
        let lines = Case::new(&fitted, &planned, drive, &limits, None).in_state(state).ledger();
        Headline::of(&lines, planned != SetupPair::default())
    }

    #[test]
    fn it_is_never_a_good_word_over_what_nobody_knows() {
        assert_eq!(headline("", None, &[]).says.to_string(), "Nothing planned yet");
        for plan in ["18x8.5", "225/45R17", "17x7.5 ET45 225/45R17"] {
            let headline = headline(plan, None, &[]);
            assert!(headline.severity > Severity::Good, "{plan}: {headline:?}");
            assert!(
                matches!(headline.outcome, Outcome::Measure | Outcome::Conditions),
                "{plan}: {headline:?}"
            );
        }
    }

    #[test]
    fn it_names_the_worst_cause_with_its_figure_and_says_how_many_more() {
        // The wheel comes 12.7 + 10 mm further in: what touches inboard is one thing.
        let far_in = headline(
            "18x8.5 ET55 245/40R18 97W",
            None,
            &[(Feature::Strut, 8.0), (Feature::SpringPerch, 16.0), (Feature::FenderLateral, 40.0)],
        );
        let first = &far_in.causes[0];
        assert_eq!(
            (far_in.outcome, first.topic, first.axle),
            (Outcome::Stop, Topic::Strut, None),
            "{far_in:?}"
        );
        assert_eq!(first.consequences, [LineCode::Clearance(Feature::SpringPerch)], "{far_in:?}");
        assert!(far_in.says.to_string().starts_with("Stop · Strut touches by 12 mm"), "{}", far_in.says);
    }

    #[test]
    fn a_tire_too_tall_is_one_cause() {
        let tall = headline("17x7.5 ET45 225/60R17 99W", Some(Drive::All), &[]);
        let of_diameter =
            |cause: &&Cause| matches!(cause.topic, Topic::Band | Topic::Dial | Topic::Ratio | Topic::Arch);
        let kinds: Vec<Kind> = tall.causes.iter().filter(of_diameter).map(|cause| cause.kind).collect();
        assert!(kinds.is_sorted_by(|a, b| a > b), "each kind of word once, the worst first: {kinds:?}");
    }

    #[test]
    fn front_and_rear_alike_are_one_cause_and_no_count_is_of_consequences() {
        let stopped = headline("17x7.5 ET45 225/45R17 80W", None, &[]);
        assert_eq!((stopped.severity, stopped.outcome), (Severity::Stop, Outcome::Stop));
        let loads = stopped.causes.iter().filter(|cause| cause.topic == Topic::Load).count();
        assert_eq!(loads, 1, "{:?}", stopped.causes);
        assert_eq!(stopped.causes[0].axle, None);
    }
}
