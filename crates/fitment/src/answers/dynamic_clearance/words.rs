//! A part in motion in a sentence.

use super::{PartInSpace, Stretch, Stretched};
use crate::car::motion::{Carried, CloudAnswer, Pose};
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity};

fn degrees(deg: f64) -> String {
    let lock = if deg > 0.0 { "outward" } else { "inward" };
    format!("{:.0}° of {lock} lock", deg.abs())
}

fn travel(mm: f64) -> String {
    format!("{:.0} mm of {}", mm.abs(), if mm > 0.0 { "bump" } else { "droop" })
}

/// Where a pose is, in words.
fn at(pose: Pose) -> String {
    match (pose.steer_deg.abs() >= 0.5, pose.travel_mm.abs() >= 0.5) {
        (false, false) => "standing straight".to_owned(),
        (true, false) => format!("at {}", degrees(pose.steer_deg)),
        (false, true) => format!("straight at {}", travel(pose.travel_mm)),
        (true, true) => format!("at {} and {}", degrees(pose.steer_deg), travel(pose.travel_mm)),
    }
}

/// One part in a sentence.
pub(super) fn says(
    part: &PartInSpace,
    found: &CloudAnswer,
    stretches: &[Stretched],
    at_full_lock: Option<[f64; 2]>,
) -> Phrase {
    let name = part.name();
    let length = |mm: f64| Quantity::length(Length::from_mm(mm).unwrap_or_default());
    let along = match part.cloud.carried {
        Carried::SteeredUpright => {
            Some("steers and travels with the wheel, so no lift or limiter changes its gap")
        }
        _ => None,
    };
    let begin = match (found.touches_from_steer_deg, found.touches_from_travel_mm) {
        (Some(0.0), _) | (_, Some(0.0)) => Some("touches standing still".to_owned()),
        (Some(steer), Some(mm)) => Some(format!(
            "touches from {} on, and over bumps from {} straight ahead",
            degrees(steer),
            travel(mm)
        )),
        (Some(steer), None) => Some(format!("touches from {} on", degrees(steer))),
        (None, Some(mm)) => Some(format!("touches from {} on, straight ahead", travel(mm))),
        (None, None) if found.least_mm <= 0.0 => {
            Some("touches only with lock and travel together".to_owned())
        }
        (None, None) => None,
    };
    let phrase = match (begin, found.least_mm <= 0.0) {
        (Some(begin), _) => Phrase::new(format!("The {name}: {begin}; the most overlap is "))
            .quantity(length(-found.least_mm))
            .text(format!(" {}", at(found.at))),
        (None, _) => Phrase::new(format!("The {name}: "))
            .quantity(length(found.least_mm))
            .text(format!(" at the least, {}", at(found.at))),
    };
    let phrase = phrase.text(" (").quantity(length(found.at_rest_mm)).text(" standing)");
    let phrase = match at_full_lock {
        Some([inward, outward]) => phrase
            .text("; at full lock ")
            .quantity(length(inward))
            .text(" inward and ")
            .quantity(length(outward))
            .text(" outward"),
        None => phrase,
    };
    let phrase = match along {
        Some(along) => phrase.text(format!("; it {along}.")),
        None => phrase.text("."),
    };
    let phrase = match stretches.iter().find_map(|one| one.decided_by) {
        Some(input) => phrase.text(format!(" The {} decides, and nobody measured it.", input.words())),
        None => phrase,
    };
    // Standing still the ledger has the word: it asks for more under an arch, and judges a lip by its face.
    match stretches.iter().find(|one| one.stretch == Stretch::Standing) {
        Some(one)
            if stretches.iter().all(|other| other.stretch == one.stretch || other.verdict < one.verdict) =>
        {
            phrase.text(format!(" Standing still the ledger says: {}.", one.verdict.word()))
        }
        _ => phrase,
    }
}
