//! The ledger and its workings.

use fitment::answers::headline::Kind;
use fitment::answers::ledger::Line;
use fitment::car::corner::Feature;
use fitment::judgement::rules::{LineCode, Severity, Topic};
use fitment::values::working::{Fragment, Phrase, Quantity, QuantityKind, Source, SourceKind, Step};
use serde::{Serialize, Serializer};
use utoipa::openapi::{ObjectBuilder, RefOr, Schema, Type};
use utoipa::{PartialSchema, ToSchema};

use super::AxleCode;
use super::corner::AsReadView;

/// What a number is, so that it can be shown in the reader's units.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs, reason = "kind and unit by name")]
pub enum QuantityCode {
    LengthMm,
    RimIn,
    SpeedKmh,
    Percent,
    Ratio,
    MassKg,
    PressureKpa,
    Count,
    /// Turns of a thread.
    Turns,
    Years,
}

/// A number with its kind, at full precision.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct QuantityView {
    /// What it is.
    pub kind: QuantityCode,
    /// The number, in the kind's unit.
    pub value: f64,
    /// Whether to show it with + or −.
    pub signed: bool,
}

impl From<Quantity> for QuantityView {
    fn from(quantity: Quantity) -> Self {
        let kind = match quantity.kind {
            QuantityKind::Length => QuantityCode::LengthMm,
            QuantityKind::RimInches => QuantityCode::RimIn,
            QuantityKind::Speed => QuantityCode::SpeedKmh,
            QuantityKind::Percent => QuantityCode::Percent,
            QuantityKind::Ratio => QuantityCode::Ratio,
            QuantityKind::Mass => QuantityCode::MassKg,
            QuantityKind::Pressure => QuantityCode::PressureKpa,
            QuantityKind::Count => QuantityCode::Count,
            QuantityKind::Turns => QuantityCode::Turns,
            QuantityKind::Years => QuantityCode::Years,
        };
        Self { kind, value: quantity.value, signed: quantity.signed }
    }
}

/// A piece of a sentence.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FragmentView {
    /// Words.
    Text(String),
    /// A number.
    Quantity(QuantityView),
}

pub(super) fn fragments(phrase: Phrase) -> Vec<FragmentView> {
    phrase
        .0
        .into_iter()
        .map(|fragment| match fragment {
            Fragment::Text(text) => FragmentView::Text(text.into_owned()),
            Fragment::Quantity(quantity) => FragmentView::Quantity(quantity.into()),
        })
        .collect()
}

/// On what a rule rests.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs, reason = "the kinds of source, by name")]
pub enum SourceCode {
    Standard,
    CommonPractice,
    FromMemory,
    Measured,
    Estimate,
    Geometry,
}

/// A rule's source.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct SourceView {
    /// How firm it is.
    pub kind: SourceCode,
    /// Its name.
    pub cite: &'static str,
}

impl From<Source> for SourceView {
    fn from(source: Source) -> Self {
        let kind = match source.kind {
            SourceKind::Standard => SourceCode::Standard,
            SourceKind::CommonPractice => SourceCode::CommonPractice,
            SourceKind::FromMemory => SourceCode::FromMemory,
            SourceKind::Measured => SourceCode::Measured,
            SourceKind::Estimate => SourceCode::Estimate,
            SourceKind::Geometry => SourceCode::Geometry,
        };
        Self { kind, cite: source.cite }
    }
}

/// A symbol and the figure put in for it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PutIn {
    /// The symbol in the formula.
    pub symbol: &'static str,
    /// The figure.
    pub figure: QuantityView,
}

/// One step of a working.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct StepView {
    /// What is worked out.
    pub what: &'static str,
    /// The formula.
    pub formula: &'static str,
    /// The figures put in.
    pub put_in: Vec<PutIn>,
    /// The result.
    pub gives: QuantityView,
    /// Where the rule comes from.
    pub source: SourceView,
}

impl From<Step> for StepView {
    fn from(step: Step) -> Self {
        let inputs = step.inputs.into_iter();
        Self {
            what: step.what,
            formula: step.formula,
            put_in: inputs.map(|(symbol, figure)| PutIn { symbol, figure: figure.into() }).collect(),
            gives: step.result.into(),
            source: step.source.into(),
        }
    }
}

/// How a line stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs, reason = "see fitment::answers::ledger::Severity")]
pub enum StandingCode {
    Good,
    Unknown,
    Measure,
    Mind,
    Stop,
}

impl From<Severity> for StandingCode {
    fn from(standing: Severity) -> Self {
        match standing {
            Severity::Good => Self::Good,
            Severity::Unknown => Self::Unknown,
            Severity::Measure => Self::Measure,
            Severity::Mind => Self::Mind,
            Severity::Stop => Self::Stop,
        }
    }
}

/// Which question a line of the ledger answers.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct LedgerCode(pub LineCode);

impl Serialize for LedgerCode {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.serialize_str(self.0.code())
    }
}

impl PartialSchema for LedgerCode {
    fn schema() -> RefOr<Schema> {
        let codes = LineCode::all().map(LineCode::code);
        let words = ObjectBuilder::new().schema_type(Type::String).enum_values(Some(codes));
        words.description(Some("Which question a line of the ledger answers.")).into()
    }
}

impl ToSchema for LedgerCode {}

/// A plain enum of the core on the wire: its code as a text, its codes as the schema's choices.
macro_rules! by_code {
    ($(#[doc = $what:literal])+ $name:ident($type:ty)) => {
        $(#[doc = $what])+
        #[derive(Debug, Clone, Copy, PartialEq, Eq)]
        pub struct $name(pub $type);

        impl serde::Serialize for $name {
            fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
                serializer.serialize_str(self.0.code())
            }
        }

        impl utoipa::PartialSchema for $name {
            fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::schema::Schema> {
                let codes = <$type>::ALL.iter().map(|one| one.code());
                let words = utoipa::openapi::schema::ObjectBuilder::new()
                    .schema_type(utoipa::openapi::schema::Type::String)
                    .enum_values(Some(codes));
                words.description(Some(concat!($($what),+).trim())).into()
            }
        }

        impl utoipa::ToSchema for $name {}
    };
}
pub(super) use by_code;

by_code! {
    /// What a line or a cause is about.
    TopicCode(Topic)
}

by_code! {
    /// What kind of word a line or a cause is.
    KindCode(Kind)
}

/// One line of the ledger.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LineOfLedger {
    /// Which question it answers.
    pub code: LedgerCode,
    /// Which axle; null for the car as a whole.
    pub axle: Option<AxleCode>,
    /// Code of the part of the car that it is about, if it is about one.
    pub part: Option<&'static str>,
    /// The question.
    pub title: &'static str,
    /// What it is about; null where it is about several things at once.
    pub topic: Option<TopicCode>,
    /// How it stands.
    pub standing: StandingCode,
    /// What kind of word that is.
    pub kind: KindCode,
    /// The word for it.
    pub word: &'static str,
    /// The figure; null while it is not known.
    pub figure: Option<QuantityView>,
    /// Of a room: the same the way it was read; null where the figure is that way too.
    pub as_read: Option<AsReadView>,
    /// The limit it was held against.
    pub limit: Vec<FragmentView>,
    /// What it means for this car.
    pub says: Vec<FragmentView>,
    /// What must be minded, where a mistake can hurt someone.
    pub caution: Option<&'static str>,
    /// The working.
    pub working: Vec<StepView>,
    /// Where the rule comes from.
    pub source: SourceView,
    /// What of the car's record it waits for.
    pub lacks: Vec<LackingFact>,
}

/// Something of the car's record that a line waits for.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LackingFact {
    /// The fact's code.
    pub fact: &'static str,
    /// On which axle; null for the whole car.
    pub axle: Option<AxleCode>,
    /// Its name.
    pub title: &'static str,
}

impl From<Line> for LineOfLedger {
    fn from(line: Line) -> Self {
        Self {
            code: LedgerCode(line.code),
            axle: line.axle.map(AxleCode::from),
            part: line.code.part().map(Feature::code),
            title: line.title,
            topic: line.topic().map(TopicCode),
            kind: KindCode(line.kind()),
            standing: line.severity.into(),
            word: line.word,
            figure: line.figure.map(QuantityView::from),
            as_read: line.as_read.map(AsReadView::from),
            limit: fragments(line.limit),
            says: fragments(line.says),
            caution: line.caution,
            working: line.working.into_iter().map(StepView::from).collect(),
            source: line.source.into(),
            lacks: line
                .lacks
                .into_iter()
                .map(|(fact, axle)| {
                    let facts = fact.facts();
                    LackingFact { fact: facts.code, axle: axle.map(AxleCode::from), title: facts.title }
                })
                .collect(),
        }
    }
}
