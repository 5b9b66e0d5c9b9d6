//! The working of a figure: its steps, what was put in, and where each rule comes from.
//!
//! This is how a junior learns and a senior checks. It is data; whoever shows it decides on rounding and on
//! millimetres or inches.

use std::borrow::Cow;

use crate::values::length::Length;

/// What a number is, so that it can be shown in the reader's units.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum QuantityKind {
    /// Millimetres.
    Length,
    /// A rim code in inches: shown as it is in every unit system.
    RimInches,
    /// Kilometres an hour.
    Speed,
    /// Per cent.
    Percent,
    /// A plain ratio or factor.
    Ratio,
    /// Kilograms.
    Mass,
    /// Kilopascals.
    Pressure,
    /// A plain count: revolutions a mile, weeks, a load index.
    Count,
    /// Turns of a thread.
    Turns,
    /// Years.
    Years,
}

/// A number with its kind, at full precision.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Quantity {
    /// What it is.
    pub kind: QuantityKind,
    /// The number, in the kind's unit.
    pub value: f64,
    /// Whether it is a change or a signed distance, to be shown with + or −.
    pub signed: bool,
}

impl Quantity {
    const fn plain(kind: QuantityKind, value: f64) -> Self {
        Self { kind, value, signed: false }
    }

    /// A length.
    pub fn length(length: Length) -> Self {
        Self::plain(QuantityKind::Length, length.as_mm())
    }

    /// A rim code.
    pub fn rim_inches(code: f64) -> Self {
        Self::plain(QuantityKind::RimInches, code)
    }

    /// A speed in km/h.
    pub fn speed(kmh: f64) -> Self {
        Self::plain(QuantityKind::Speed, kmh)
    }

    /// A percentage.
    pub fn percent(percent: f64) -> Self {
        Self::plain(QuantityKind::Percent, percent)
    }

    /// A ratio.
    pub fn ratio(ratio: f64) -> Self {
        Self::plain(QuantityKind::Ratio, ratio)
    }

    /// A mass in kilograms.
    pub fn mass(kg: f64) -> Self {
        Self::plain(QuantityKind::Mass, kg)
    }

    /// A pressure in kPa.
    pub fn pressure(kpa: f64) -> Self {
        Self::plain(QuantityKind::Pressure, kpa)
    }

    /// A count.
    pub fn count(count: f64) -> Self {
        Self::plain(QuantityKind::Count, count)
    }

    /// Turns of a thread.
    pub fn turns(turns: f64) -> Self {
        Self::plain(QuantityKind::Turns, turns)
    }

    /// A span of years.
    pub fn years(years: f64) -> Self {
        Self::plain(QuantityKind::Years, years)
    }

    /// The same, shown with its sign.
    pub fn signed(self) -> Self {
        Self { signed: true, ..self }
    }
}

/// On what a rule rests.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SourceKind {
    /// A published standard or regulation.
    Standard,
    /// The trade's habit, with no published source.
    CommonPractice,
    /// A published source, written down from memory.
    FromMemory,
    /// Read off the part or the car.
    Measured,
    /// A rough estimate standing in for a maker's figure.
    Estimate,
    /// Follows from the definitions by arithmetic.
    Geometry,
}

/// A rule's source: how firm it is, and its name.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Source {
    /// How firm.
    pub kind: SourceKind,
    /// Which document, or which habit.
    pub cite: &'static str,
}

impl Source {
    /// Follows from the definitions by arithmetic.
    pub const GEOMETRY: Self = Self { kind: SourceKind::Geometry, cite: "follows from the definitions" };
    /// What the size itself says.
    pub const SIZE: Self = Self { kind: SourceKind::Standard, cite: "the size as marked" };

    /// What a price list says of the very part.
    pub const LISTED: Self = Self { kind: SourceKind::Measured, cite: "the price list's own figure" };

    /// A published standard, written down from memory.
    pub const fn from_memory(cite: &'static str) -> Self {
        Self { kind: SourceKind::FromMemory, cite }
    }

    /// A published standard.
    pub const fn standard(cite: &'static str) -> Self {
        Self { kind: SourceKind::Standard, cite }
    }

    /// The trade's habit.
    pub const fn common_practice(cite: &'static str) -> Self {
        Self { kind: SourceKind::CommonPractice, cite }
    }

    /// A rough estimate.
    pub const fn estimate(cite: &'static str) -> Self {
        Self { kind: SourceKind::Estimate, cite }
    }
}

/// One step: a formula, the figures put in, and what it gives.
#[derive(Debug, Clone, PartialEq)]
pub struct Step {
    /// What is worked out, in the trade's words.
    pub what: &'static str,
    /// The formula, as it would be written on paper.
    pub formula: &'static str,
    /// Each symbol with the figure put in.
    pub inputs: Vec<(&'static str, Quantity)>,
    /// The result.
    pub result: Quantity,
    /// Where the rule comes from.
    pub source: Source,
}

/// A figure with its working; the last step gives the figure.
#[derive(Debug, Clone, PartialEq)]
pub struct Figure {
    /// The figure.
    pub quantity: Quantity,
    /// The steps, in order.
    pub working: Vec<Step>,
}

impl Figure {
    /// A figure that one step gives.
    pub fn of(step: Step) -> Self {
        Self { quantity: step.result, working: vec![step] }
    }

    /// The same figure, with earlier steps put before its own.
    pub fn after(mut self, mut earlier: Vec<Step>) -> Self {
        earlier.append(&mut self.working);
        self.working = earlier;
        self
    }

    /// The plain number.
    pub fn value(&self) -> f64 {
        self.quantity.value
    }
}

/// A piece of a sentence: words, or a number that the page shows in the reader's units.
#[derive(Debug, Clone, PartialEq)]
pub enum Fragment {
    /// Words.
    Text(Cow<'static, str>),
    /// A number.
    Quantity(Quantity),
}

impl std::fmt::Display for Quantity {
    /// In metric units, as far as a figure is worth saying: for scripts and logs. The page has the reader's own units.
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        let sign = if self.signed && self.value > 0.0 { "+" } else { "" };
        let of = |f: &mut std::fmt::Formatter<'_>, places: usize, unit: &str| {
            let text = format!("{:.places$}", self.value);
            let text = if places > 0 { text.trim_end_matches('0').trim_end_matches('.') } else { &text };
            // No minus before nothing.
            let text = if text.trim_start_matches('-').chars().all(|c| c == '0') { "0" } else { text };
            write!(f, "{sign}{text}{unit}")
        };
        match self.kind {
            QuantityKind::Length => of(f, 1, " mm"),
            QuantityKind::RimInches => of(f, 2, " in"),
            QuantityKind::Speed => of(f, 1, " km/h"),
            QuantityKind::Percent => of(f, 1, " %"),
            QuantityKind::Ratio => of(f, 3, ""),
            QuantityKind::Mass => of(f, 0, " kg"),
            QuantityKind::Pressure => of(f, 0, " kPa"),
            QuantityKind::Count => of(f, 0, ""),
            QuantityKind::Turns => of(f, 1, " turns"),
            QuantityKind::Years => of(f, 1, " years"),
        }
    }
}

/// A sentence with numbers in it.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Phrase(pub Vec<Fragment>);

impl std::fmt::Display for Phrase {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        self.0.iter().try_for_each(|fragment| match fragment {
            Fragment::Text(text) => f.write_str(text),
            Fragment::Quantity(quantity) => quantity.fmt(f),
        })
    }
}

impl Phrase {
    /// Starts with words.
    pub fn new(text: impl Into<Cow<'static, str>>) -> Self {
        Self(vec![Fragment::Text(text.into())])
    }

    /// Goes on with words.
    pub fn text(mut self, text: impl Into<Cow<'static, str>>) -> Self {
        self.0.push(Fragment::Text(text.into()));
        self
    }

    /// The same with its first letter large.
    #[must_use]
    pub fn capitalized(mut self) -> Self {
        if let Some(Fragment::Text(text)) = self.0.first_mut() {
            let mut letters = text.chars();
            if let Some(first) = letters.next() {
                let large: String = first.to_uppercase().chain(letters).collect();
                *text = large.into();
            }
        }
        self
    }

    /// The same with its first letter small, where that begins a word: an abbreviation keeps its own.
    #[must_use]
    pub fn uncapitalized(mut self) -> Self {
        if let Some(Fragment::Text(text)) = self.0.first_mut() {
            let mut letters = text.chars();
            let first = letters.next().filter(|first| first.is_uppercase());
            let is_a_word = text.chars().nth(1).is_some_and(char::is_lowercase) || text.starts_with("A ");
            if let Some(first) = first.filter(|_| is_a_word) {
                let small: String = first.to_lowercase().chain(letters).collect();
                *text = small.into();
            }
        }
        self
    }

    /// Goes on with a number.
    pub fn quantity(mut self, quantity: Quantity) -> Self {
        self.0.push(Fragment::Quantity(quantity));
        self
    }
}
