//! Why a setup stands where it does: its reasons by the school it was sought in, and why it is above another.

use super::criterion::Criterion;
use super::{Approach, AxleChoice, Found, KeptParts, Scene, SearchCriteria};
use crate::judgement::case::AxleCase;
use crate::judgement::clearance::style;
use crate::judgement::rules::tread_width::{self, Tread, beyond_for_hard_driving};
use crate::judgement::window::TireChoice;
use crate::setup::Axle;
use crate::setup::catalogue::{Catalogue, TireRow};
use crate::setup::tire_on_rim::{SidewallShape, tire_on_rim};
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity, Source};

/// A reason for a setup, or what must be minded about it.
#[derive(Debug, Clone, PartialEq)]
pub struct Reason {
    /// Which axle; `None` for both.
    pub axle: Option<Axle>,
    /// In a sentence.
    pub says: Phrase,
    /// Whether it is a caution.
    pub is_caution: bool,
    /// Where the rule comes from.
    pub source: Source,
}

const WIDTH: Source =
    Source::common_practice("width buys heat capacity and lower pressure, not grip by itself");
const KIND: Source = Source::common_practice("use and season, then kind of tire, then width");
const SMALL_WHEEL: Source =
    Source::common_practice("the smallest wheel that clears the brakes usually accelerates and rides best");

/// Wider or narrower than the factory's by this share is said. A judgement of ours.
const WORTH_SAYING: f64 = 0.10;

/// The reasons for a setup by the school it was sought in: from the tire, or from style and window.
pub fn reasons(
    scene: &Scene<'_>,
    catalogue: &Catalogue,
    wish: &SearchCriteria,
    found: &Found,
) -> Vec<Reason> {
    let is_square = found.front.setup == found.rear.setup;
    let mut all = Vec::new();
    for (axle, choice) in [(Axle::Front, &found.front), (Axle::Rear, &found.rear)] {
        let Some(trial) = scene.plan.axle(axle) else { continue };
        let tire = choice.tire_row.and_then(|at| catalogue.tires.get(at));
        let of = match wish.approach {
            Approach::TireFirst => from_the_tire(scene, wish, axle, choice, tire),
            Approach::WheelFirst => from_the_wheel(scene, axle, &trial, choice),
        };
        all.extend(of.into_iter().map(|reason| Reason { axle: Some(axle), ..reason }));
    }
    if wish.approach == Approach::TireFirst && wish.keeps != KeptParts::Wheels {
        let rims = [&found.front, &found.rear].map(|one| one.setup.wheel.map_or(0.0, |w| w.diameter.code()));
        let says = Phrase::new("On ")
            .quantity(Quantity::rim_inches(rims[0]))
            .text(if rims[0] == rims[1] { String::new() } else { format!(" and {}", rims[1]) })
            .text(": the smallest wheel that clears the brakes usually accelerates and rides best. Whether it does is found out at the brakes.");
        all.push(Reason { axle: None, says, is_caution: false, source: SMALL_WHEEL });
    }
    if is_square { said_once(all) } else { all }
}

/// A square set's reasons are told once where both axles have the same one.
fn said_once(all: Vec<Reason>) -> Vec<Reason> {
    let mut once: Vec<Reason> = Vec::new();
    for reason in all {
        match once.iter_mut().find(|other| other.says == reason.says) {
            Some(other) => other.axle = None,
            None => once.push(reason),
        }
    }
    once
}

fn reason(says: Phrase, source: Source) -> Reason {
    Reason { axle: None, says, is_caution: false, source }
}

fn caution(says: Phrase, source: Source) -> Reason {
    Reason { is_caution: true, ..reason(says, source) }
}

/// Use and season, kind, width for the weight, tread on its rim.
fn from_the_tire(
    scene: &Scene<'_>,
    wish: &SearchCriteria,
    axle: Axle,
    choice: &AxleChoice,
    tire: Option<&TireRow>,
) -> Vec<Reason> {
    let mut all = Vec::new();
    if let Some(kind) = tire.and_then(|row| row.kind) {
        let asked = if wish.uses.is_empty() { "" } else { ": it answers every use that was named" };
        all.push(reason(Phrase::new(format!("A {} tire{asked}.", kind.words())), KIND));
        if kind.is_stickier_than_factory() {
            let says = "Stickier than the factory's: go through what that brings with the owner.";
            all.push(caution(Phrase::new(says), KIND));
        }
    }
    if let Some(mark) = tire.map(|row| &row.factory_mark).filter(|mark| !mark.is_empty()) {
        let says = format!(
            "Marked {mark}: tuned to one car. Another maker's marked version can differ in compound and width."
        );
        all.push(caution(Phrase::new(says), KIND));
    }
    let factory = scene.plan.reference(axle).and_then(|reference| reference.setup.section_width());
    if let (Some(factory), Some(section)) = (factory, choice.setup.section_width()) {
        let ratio = section / factory;
        let says = Phrase::new("Section ")
            .quantity(Quantity::length(section))
            .text(", before ")
            .quantity(Quantity::length(factory));
        all.push(if ratio > 1.0 + WORTH_SAYING {
            caution(says.text(": more heat capacity and less pressure, not more grip by itself; a light car may never warm it."), WIDTH)
        } else if ratio < 1.0 - WORTH_SAYING {
            caution(says.text(": a heavy or powerful car can cook it."), WIDTH)
        } else {
            reason(says.text(": about what the car's weight asks for."), WIDTH)
        });
    }
    if let (Some(wheel), Some((tread, is_listed))) = (choice.setup.wheel, choice.setup.tread_width()) {
        let says = Phrase::new("Tread ")
            .quantity(Quantity::length(tread))
            .text(if is_listed { " on a rim of " } else { " (estimated) on a rim of " })
            .quantity(Quantity::length(wheel.width.between_flanges()));
        let hard =
            wish.is_driven_hard().then(|| beyond_for_hard_driving(&choice.setup, wheel.width)).flatten();
        let beyond = tread_width::beyond(&choice.setup).unwrap_or(Length::ZERO);
        let stands = match hard {
            Some(hard) if hard > Length::ZERO => Tread::OverTheRim,
            Some(hard) if hard < Length::ZERO => Tread::FarUnder,
            Some(_) => Tread::Right,
            None => Tread::of(beyond),
        };
        let says = says.text(": ").text(stands.says().to_lowercase());
        all.push(match stands {
            Tread::Right => reason(says, tread_width::SOURCE),
            _ if is_listed => caution(says, tread_width::SOURCE),
            _ => reason(
                Phrase::new("The tread's width is not listed: ask the maker how it stands on this rim."),
                tread_width::SOURCE,
            ),
        });
    }
    all
}

/// Style, room in the fit window, and how the rubber stands on the rim.
fn from_the_wheel(scene: &Scene<'_>, axle: Axle, trial: &AxleCase<'_>, choice: &AxleChoice) -> Vec<Reason> {
    let mut all = Vec::new();
    match style(trial, &choice.setup) {
        Some(style) => {
            let beyond = style.beyond();
            let side = if beyond > Length::ZERO { " outside the lip." } else { " inside the lip." };
            let says = Phrase::new(format!("Stands {}, ", style.style.word()))
                .quantity(Quantity::length(beyond.abs()))
                .text(side);
            all.push(reason(says, Source::GEOMETRY));
        }
        None => all.push(caution(
            Phrase::new("The fender lip was not read: how it stands to it is not known."),
            Source::GEOMETRY,
        )),
    }
    if let (Some(wheel), Some(offset)) = (choice.setup.wheel, choice.setup.effective_offset()) {
        let windows =
            trial.window(&choice.setup, TireChoice::Same, &[wheel.width], scene.plan.state.wanted(axle));
        let spacer = choice.setup.spacer.map_or(0.0, |spacer| spacer.as_mm());
        let at = offset.as_mm() + spacer;
        if let Some(window) = windows.first() {
            let sides = [
                (window.most.map(|edge| (edge.offset_mm - at, edge.bound_by)), "inboard"),
                (window.least.map(|edge| (at - edge.offset_mm, edge.bound_by)), "outboard"),
            ];
            for (side, name) in sides {
                all.push(match side {
                    Some((room, bound_by)) => reason(
                        Phrase::new(format!("Room {name} to the {}: ", bound_by.facts().title))
                            .quantity(Quantity::length(Length::mm(room)))
                            .text(" of offset."),
                        Source::GEOMETRY,
                    ),
                    None => caution(
                        Phrase::new(format!("Nothing was read {name}: measure it before ordering.")),
                        Source::GEOMETRY,
                    ),
                });
            }
        }
    }
    if let Some(on_rim) = tire_on_rim(&choice.setup) {
        let says = Phrase::new("Tire over the rim flange, each side: ")
            .quantity(Quantity::length(on_rim.over_flange).signed());
        all.push(match on_rim.shape {
            SidewallShape::Square => reason(says.text(", square."), Source::GEOMETRY),
            SidewallShape::Stretched => caution(
                says.text(", stretched: the rim, not the tire, meets the car and the kerb first."),
                Source::GEOMETRY,
            ),
            SidewallShape::Bulging => {
                caution(says.text(", bulging: vague, and more heat."), Source::GEOMETRY)
            }
        });
    }
    all
}

/// Why one setup stands above another: the criteria in which it gains most, and where it loses.
pub fn why_above(above: &Found, below: &Found, wish: &SearchCriteria) -> Phrase {
    let mut gains: Vec<(Criterion, f64)> = Criterion::ALL
        .iter()
        .map(|one| (*one, wish.weights.on(*one) * (above.scores.of(*one) - below.scores.of(*one))))
        .collect();
    gains.sort_by(|a, b| b.1.total_cmp(&a.1));
    let worth_saying = wish.weights.total() * 0.005;
    let named = |list: Vec<&(Criterion, f64)>| {
        list.iter().take(2).map(|(one, _)| one.title()).collect::<Vec<_>>().join(" and ")
    };
    let better = named(gains.iter().filter(|(_, gain)| *gain > worth_saying).collect());
    let worse = named(gains.iter().rev().filter(|(_, gain)| *gain < -worth_saying).collect());
    match (better.is_empty(), worse.is_empty()) {
        (true, _) => Phrase::new("Next to nothing lies between them."),
        (false, true) => Phrase::new(format!("Better in {better}.")),
        (false, false) => Phrase::new(format!("Better in {better}, which outweighs {worse}.")),
    }
}
