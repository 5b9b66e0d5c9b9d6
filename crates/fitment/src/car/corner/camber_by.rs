//! How another camber is had: the ways differ in what they take from the strut and give to the lip.

use super::Feature;

/// What is turned or exchanged for another camber.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum CamberBy {
    /// Plates at the strut's top: strut and wheel lean together.
    StrutTopPlates,
    /// Bolts between strut and upright: the wheel leans toward the strut.
    StrutFootBolts,
    /// A shorter upper arm: the wheel leans about the lower ball joint.
    UpperArm,
    /// A longer lower arm: the wheel leans about the upper ball joint, its contact goes out and its top stays.
    LowerArm,
}

impl CamberBy {
    /// All of them.
    pub const ALL: [Self; 4] = [Self::StrutTopPlates, Self::StrutFootBolts, Self::UpperArm, Self::LowerArm];

    /// In the trade's words.
    pub const fn words(self) -> &'static str {
        match self {
            Self::StrutTopPlates => "strut-top plates",
            Self::StrutFootBolts => "bolts at the strut's foot",
            Self::UpperArm => "a shorter upper arm",
            Self::LowerArm => "a longer lower arm",
        }
    }

    /// What leaning the wheel by so many degrees more takes from the room to a part, in millimetres, beside what the lean
    /// itself does about the hub; `has_struts` on a strut suspension. While the way is not known, the worst of what can be.
    ///
    /// Bolts at the foot turn the wheel against the strut: at its widest it comes nearer by R·sin γ. A longer lower arm turns it
    /// about the upper ball joint: the lip gains nothing of what the lean gives at the widest place.
    ///
    /// # Source
    /// Geometry; which ways there are is common practice.
    pub fn takes(
        by: Option<Self>,
        feature: Feature,
        has_struts: bool,
        more_deg: f64,
        widest_mm: impl FnOnce() -> f64,
    ) -> f64 {
        if more_deg <= 0.0 {
            return 0.0;
        }
        let nearer = || widest_mm() * more_deg.to_radians().sin();
        match (feature, by) {
            (Feature::Strut | Feature::SpringPerch, None | Some(Self::StrutFootBolts)) if has_struts => {
                nearer()
            }
            (Feature::FenderLateral, Some(Self::LowerArm)) => nearer(),
            _ => 0.0,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_cars_record_has_the_same_ways() {
        let kind = crate::car::Fact::CamberBy.facts().kind;
        let crate::car::FactKind::OneOf(choices) = kind else { panic!("{kind:?}") };
        assert_eq!(choices, CamberBy::ALL.map(CamberBy::words));
    }

    #[test]
    fn each_way_takes_its_own() {
        let takes = |by, feature, struts| CamberBy::takes(by, feature, struts, 1.5, || 290.0);
        // 290 · sin 1.5° = 7.59 mm (geometry).
        let foot = takes(Some(CamberBy::StrutFootBolts), Feature::Strut, true);
        assert!((foot - 7.59).abs() < 0.01, "{foot}");
        assert_eq!(takes(None, Feature::Strut, true), foot, "unknown: the worst");
        assert_eq!(takes(Some(CamberBy::StrutTopPlates), Feature::Strut, true), 0.0);
        assert_eq!(takes(None, Feature::Strut, false), 0.0, "no strut there leans the other way");
        assert_eq!(takes(Some(CamberBy::LowerArm), Feature::FenderLateral, false), foot);
        assert_eq!(takes(Some(CamberBy::UpperArm), Feature::FenderLateral, false), 0.0);
        assert_eq!(takes(None, Feature::Arch, true), 0.0);
        assert_eq!(CamberBy::takes(None, Feature::Strut, true, -1.0, || 290.0), 0.0, "less camber");
    }
}
