//! Which question a line of the ledger answers.

use crate::car::corner::Feature;

/// A line's question, by name. Lines of one code on one axle are one line.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
#[allow(missing_docs, reason = "the rules by their names")]
pub enum LineCode {
    Unreadable,
    AssumedWork,
    /// Room to a part of the car.
    Clearance(Feature),
    InnerChange,
    OuterChange,
    ArchGap,
    Style,
    TireOnRim,
    TreadWidth,
    OverallDiameter,
    LoadIndex,
    CamberLoad,
    SpeedSymbol,
    WheelLoad,
    Pressure,
    Hub,
    Direction,
    TireAge,
    ListedSize,
    Speedometer,
    FrontToRear,
    Mix,
    Balance,
    Rotation,
    SetBoltCircle,
    Sensors,
    Chains,
}

impl LineCode {
    /// Every code there is: the rules', then a line for each part of the car.
    pub fn all() -> impl Iterator<Item = Self> {
        let of_rules = [
            Self::Unreadable,
            Self::AssumedWork,
            Self::InnerChange,
            Self::OuterChange,
            Self::ArchGap,
            Self::Style,
            Self::TireOnRim,
            Self::TreadWidth,
            Self::OverallDiameter,
            Self::LoadIndex,
            Self::CamberLoad,
            Self::SpeedSymbol,
            Self::WheelLoad,
            Self::Pressure,
            Self::Hub,
            Self::Direction,
            Self::TireAge,
            Self::ListedSize,
            Self::Speedometer,
            Self::FrontToRear,
            Self::Mix,
            Self::Balance,
            Self::Rotation,
            Self::SetBoltCircle,
            Self::Sensors,
            Self::Chains,
        ];
        of_rules.into_iter().chain(Feature::ALL.map(Self::Clearance))
    }

    /// Whether what it says could ever stop a plan: a tread's width, how the car balances and what of the set can be rotated are
    /// good to know.
    pub fn can_decide(self) -> bool {
        !matches!(
            self,
            Self::TreadWidth | Self::Balance | Self::Rotation | Self::ListedSize | Self::Direction
        )
    }

    /// On the wire and in files.
    pub fn code(self) -> &'static str {
        match self {
            Self::Unreadable => "unreadable",
            Self::AssumedWork => "assumed-work",
            Self::Clearance(feature) => feature.facts().ledger_code,
            Self::InnerChange => "inner-change",
            Self::OuterChange => "outer-change",
            Self::ArchGap => "arch-gap",
            Self::Style => "style",
            Self::TireOnRim => "tire-on-rim",
            Self::TreadWidth => "tread-width",
            Self::OverallDiameter => "overall-diameter",
            Self::LoadIndex => "load-index",
            Self::CamberLoad => "camber-load",
            Self::SpeedSymbol => "speed-symbol",
            Self::WheelLoad => "wheel-load",
            Self::Pressure => "pressure",
            Self::Hub => "hub",
            Self::Direction => "direction",
            Self::TireAge => "tire-age",
            Self::ListedSize => "listed-size",
            Self::Speedometer => "speedometer",
            Self::FrontToRear => "front-to-rear",
            Self::Mix => "mix",
            Self::Balance => "balance",
            Self::Rotation => "rotation",
            Self::SetBoltCircle => "set-bolt-circle",
            Self::Sensors => "sensors",
            Self::Chains => "chains",
        }
    }

    /// The part of the car that the line is about, if it is about one.
    pub fn part(self) -> Option<Feature> {
        match self {
            Self::Clearance(feature) => Some(feature),
            _ => None,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::judgement::rules::{Asked, RULES};

    #[test]
    fn every_rule_has_its_code_and_no_two_are_alike() {
        let codes: Vec<&str> = LineCode::all().map(LineCode::code).collect();
        for code in &codes {
            assert_eq!(codes.iter().filter(|other| *other == code).count(), 1, "{code}");
        }
        let of_rules = RULES.iter().filter_map(|rule| match rule.asked {
            Asked::PerAxle(code, _) | Asked::PerCar(code, _) => Some(code),
            Asked::PerPart(_) => None,
        });
        let of_rules: Vec<LineCode> = of_rules.collect();
        let without_parts: Vec<LineCode> = LineCode::all().filter(|code| code.part().is_none()).collect();
        assert!(without_parts.iter().all(|code| of_rules.contains(code)), "a code without a rule");
        assert_eq!(without_parts.len(), of_rules.len());
    }
}
