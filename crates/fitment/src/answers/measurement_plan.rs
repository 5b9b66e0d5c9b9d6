//! The measure list: what the plan still needs from the bay, ordered by its power to decide.

use crate::car::corner::feature::BlocksFrom;
use crate::car::corner::{Feature, ToRead, TroubleKind};
use crate::judgement::case::AxleCase;
use crate::judgement::clearance::{Fit, Input, Unread, Verdict};
use crate::setup::Axle;
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity, Source};

/// Where the order comes from.
pub const SOURCE: Source =
    Source::common_practice("ordered by how often such a gap turns out too small; no source");

/// One row of the measure list.
#[derive(Debug, Clone, PartialEq)]
pub struct MeasureItem {
    /// On which axle.
    pub axle: Axle,
    /// What is to be read.
    pub to_read: ToRead,
    /// The gap that must be found with the fitted wheel for the plan to clear.
    pub must_find: Option<Length>,
    /// Why it is asked for, in a sentence.
    pub why: Phrase,
    /// How likely it is to decide the plan, 0 to 1.
    pub power: f64,
}

/// What one reading answers: parts beside each other that ask for the same room, or a part by itself.
#[derive(Debug, Clone, PartialEq)]
pub struct MeasureGroup {
    /// On which axle.
    pub axle: Axle,
    /// What is said of all of them; `None` for a part by itself.
    pub says: Option<Phrase>,
    /// The rows, the most decisive first.
    pub items: Vec<MeasureItem>,
}

impl MeasureGroup {
    /// How likely it is to decide the plan: its most decisive row.
    pub fn power(&self) -> f64 {
        self.items.iter().map(|item| item.power).fold(0.0, f64::max)
    }
}

/// Rows that are told before the rest at most. Judgement of ours: what a person keeps in mind on the way to the bay.
pub const TOLD_FIRST: usize = 7;

/// Whether a row is answered by one look along the inner sidewall: straight ahead, inboard, with a figure to find.
fn is_inboard(item: &MeasureItem) -> bool {
    let ToRead::Gap(feature) = item.to_read else { return false };
    let facts = feature.facts();
    facts.blocks_from == BlocksFrom::Inboard && !facts.at_lock && item.must_find.is_some()
}

/// Rows of both axles by what one reading answers, the most decisive first.
pub fn grouped(items: Vec<MeasureItem>) -> Vec<MeasureGroup> {
    let mut groups: Vec<MeasureGroup> = Vec::new();
    for item in items {
        let joins = |group: &MeasureGroup| group.axle == item.axle && group.items.iter().all(is_inboard);
        match groups.iter_mut().find(|group| is_inboard(&item) && joins(group)) {
            Some(group) => group.items.push(item),
            None => groups.push(MeasureGroup { axle: item.axle, says: None, items: vec![item] }),
        }
    }
    for group in &mut groups {
        group.items.sort_by(|a, b| b.power.total_cmp(&a.power));
        let most = group.items.iter().filter_map(|item| item.must_find).reduce(Length::max);
        if let (Some(most), true) = (most, group.items.len() > 1) {
            let says = Phrase::new(format!("Inboard, {}: ", group.axle.code()))
                .quantity(Quantity::length(most))
                .text(" clear of everything beside the wheel answers all of these.");
            group.says = Some(says);
        }
    }
    groups.sort_by(|a, b| b.power().total_cmp(&a.power()));
    groups
}

/// Under this nobody is sent into the bay for it.
const NOT_WORTH_IT: f64 = 0.02;
/// How far left and right may differ before the other side matters, in millimetres.
const SIDE_MATTERS_MM: f64 = 3.0;

/// What must still be read for a plan that stands so, the most decisive first.
pub fn measure_list(case: &AxleCase<'_>, fit: &Fit) -> Vec<MeasureItem> {
    // What a wheel needs that is meant to stand outside of the lip is asked once.
    let lip = fit.line(Feature::FenderLateral).filter(|line| line.past_the_lip.is_some());
    let is_arch_read = case.resolved.knows(Feature::Arch);
    let past_the_lip = lip.and_then(|line| line.must_find).filter(|_| !is_arch_read);
    let is_of_the_lip = |one: &Unread| past_the_lip.is_some() && one.feature == Feature::Arch;
    let mut items: Vec<MeasureItem> = Feature::ALL
        .into_iter()
        .filter(|feature| feature.is_read_on(case.axle) && case.resolved.knows(*feature))
        .filter_map(|feature| read_again(case, feature, fit))
        .chain(fit.unread.iter().filter(|one| !is_of_the_lip(one)).map(|one| gap_item(case, one)))
        .chain(past_the_lip.map(|gap| arch_over_the_lip(case, gap)))
        .chain(fitted_section(case, fit))
        .filter(|item| item.power >= NOT_WORTH_IT)
        .collect();
    items.sort_by(|a, b| b.power.total_cmp(&a.power));
    items
}

fn item(
    case: &AxleCase<'_>,
    to_read: ToRead,
    must_find: Option<Length>,
    power: f64,
    why: Phrase,
) -> MeasureItem {
    MeasureItem { axle: case.axle, to_read, must_find, why, power }
}

/// The gap under the arch that lets a tire stay below the lip's edge at full bump.
fn arch_over_the_lip(case: &AxleCase<'_>, gap: Length) -> MeasureItem {
    let why = Phrase::new("The wheel stands outside the lip, as wanted: from ")
        .quantity(Quantity::length(gap))
        .text(
            " between tire and arch with the fitted wheel the tread stays under the lip's edge at full bump.",
        );
    item(case, ToRead::Gap(Feature::Arch), Some(gap), 0.9, why)
}

fn gap_item(case: &AxleCase<'_>, one: &Unread) -> MeasureItem {
    let why = match (one.nearer_mm, one.must_find) {
        (Some(nearer), Some(must_find)) => Phrase::new("Comes ")
            .quantity(Quantity::length(Length::mm(nearer)))
            .text(format!(" nearer: {} must be at least ", one.feature.facts().between))
            .quantity(Quantity::length(must_find))
            .text(" apart with the fitted wheel."),
        _ => Phrase::new(
            "Another wheel's spokes are another shape: read the room behind the fitted ones, and try the new wheel bare.",
        ),
    };
    item(case, ToRead::Gap(one.feature), one.must_find, one.power, why)
}

/// Readings that contradict each other, or only one side of a tight place.
fn read_again(case: &AxleCase<'_>, feature: Feature, fit: &Fit) -> Option<MeasureItem> {
    let contradicted = case.resolved.troubles.iter().any(|trouble| {
        trouble.kind == TroubleKind::Contradicts
            && case.corner.readings.get(trouble.reading).is_some_and(|reading| reading.feature == feature)
    });
    if contradicted {
        let why = Phrase::new("Two readings contradict each other by more than their ±: read it again.");
        return Some(item(case, ToRead::Gap(feature), None, 0.99, why));
    }
    let line = fit.line(feature)?;
    let margin = (line.band.as_ref()?.likely_low() - line.limit).as_mm();
    let side = line.obstacle?.side?;
    let sides = case.resolved.of(feature).filter(|obstacle| !obstacle.reading.is_copied);
    let both = sides.map(|obstacle| obstacle.side).any(|other| other != Some(side));
    if both || line.verdict == Verdict::Touches || margin >= SIDE_MATTERS_MM {
        return None;
    }
    let why = Phrase::new(
        "Read on one side only, and there is not enough to spare for left and right to differ by ",
    )
    .quantity(Quantity::length(Length::mm(SIDE_MATTERS_MM)))
    .text(".");
    Some(item(case, ToRead::Gap(feature), None, 0.3, why))
}

/// The fitted tire's own tolerance is often the largest in the sum: measuring it takes it out.
fn fitted_section(case: &AxleCase<'_>, fit: &Fit) -> Option<MeasureItem> {
    if case.corner.fitted_section.is_some() {
        return None;
    }
    let would_clear = fit.clearances.iter().any(|line| {
        let Some(band) = line.band.as_ref().filter(|_| line.verdict == Verdict::Tight) else {
            return false;
        };
        let others = band.contributions.iter().filter(|one| one.input != Input::FittedTireWidth);
        let likely = Length::root_sum_square(others.map(|one| one.down)).as_mm();
        likely < band.likely().as_mm() - 1e-9 && band.nominal.as_mm() - likely >= line.limit.as_mm()
    });
    let why = Phrase::new(
        "A line is tight only because the fitted tire may be wider or narrower than its size: its real width takes that doubt out.",
    );
    would_clear.then(|| item(case, ToRead::FittedSection, None, 0.6, why))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn item(axle: Axle, code: &str, must_find: Option<f64>, power: f64) -> MeasureItem {
        MeasureItem {
            axle,
            to_read: ToRead::from_code(code).unwrap(),
            must_find: must_find.map(Length::mm),
            why: Phrase::new("because"),
            power,
        }
    }

    #[test]
    fn one_look_along_the_inner_sidewall_answers_what_stands_there() {
        let groups = grouped(vec![
            item(Axle::Rear, "strut", Some(12.0), 0.2),
            item(Axle::Front, "strut", Some(9.0), 0.3),
            item(Axle::Rear, "inner_wheelhouse", Some(16.9), 0.7),
            item(Axle::Front, "fender_lateral", Some(14.0), 0.9),
            item(Axle::Rear, "frame_rail", Some(5.0), 0.1),
            item(Axle::Front, "liner_ahead", Some(30.0), 0.5),
        ]);
        let told: Vec<(Axle, usize)> = groups.iter().map(|group| (group.axle, group.items.len())).collect();
        assert_eq!(told, [(Axle::Front, 1), (Axle::Rear, 3), (Axle::Front, 1), (Axle::Front, 1)]);
        let says = format!("{:?}", groups[1].says);
        assert!(
            says.contains("Inboard, rear") && says.contains("16.9"),
            "the most that any of them asks: {says}"
        );
        assert_eq!(groups[1].items[0].to_read.code(), "inner_wheelhouse", "the most decisive first");
        assert!(groups.iter().filter(|group| group.items.len() == 1).all(|group| group.says.is_none()));
    }
}
