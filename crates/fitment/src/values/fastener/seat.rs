//! What a fastener and a wheel meet in.

use crate::values::coded::coded;

/// The shape a fastener and the wheel's hole meet in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Seat {
    /// 60° cone.
    Cone60,
    /// Ball of radius 12 mm.
    BallR12,
    /// Ball of radius 13 mm.
    BallR13,
    /// Ball of radius 14 mm.
    BallR14,
    /// Flat, with a washer.
    Flat,
}

coded!(Seat: Cone60 = "cone 60°", BallR12 = "ball R12", BallR13 = "ball R13", BallR14 = "ball R14", Flat = "flat with washer");

impl Seat {
    /// As it is written or said: `cone`, `conical 60`, `tapered`, `ball R13`, `radius 14`, `R12`, `flat`, `mag`.
    pub fn read(text: &str) -> Option<Self> {
        let text = text.trim().to_lowercase();
        if let Some(exact) = Self::from_code(&text) {
            return Some(exact);
        }
        let has = |word: &str| text.contains(word);
        if has("cone") || has("conic") || has("taper") {
            return (!text.chars().any(|c| c.is_ascii_digit()) || has("60")).then_some(Self::Cone60);
        }
        if has("flat") || has("washer") || has("mag") {
            return Some(Self::Flat);
        }
        let radius: String = text.chars().filter(char::is_ascii_digit).collect();
        match (has("ball") || has("radius") || has("spher") || text.starts_with('r'), radius.as_str()) {
            (true, "12") => Some(Self::BallR12),
            (true, "13") => Some(Self::BallR13),
            (true, "14") => Some(Self::BallR14),
            _ => None,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn seats_as_people_write_them() {
        for (text, seat) in [
            ("cone 60°", Some(Seat::Cone60)),
            ("Conical", Some(Seat::Cone60)),
            ("ball R13", Some(Seat::BallR13)),
            ("Ball r14", Some(Seat::BallR14)),
            ("R12", Some(Seat::BallR12)),
            ("flat with washer", Some(Seat::Flat)),
            ("flat", Some(Seat::Flat)),
            // A ball without its radius is not known, and a 45° cone is another seat.
            ("ball", None),
            ("cone 45", None),
            ("glued", None),
        ] {
            assert_eq!(Seat::read(text), seat, "{text}");
        }
    }
}
