//! The workshop's records as evidence of a car.
//!
//! A record that can no longer be read may say that something touches. It is named, and no good word stands beside it.

use fitment::Length;
use fitment::car::brake::{BrakePart, Package, Profile, ProfileSource, Template, WheelProfile};
use fitment::car::corner::{CarSide, Contact, Steer, TryOn};
use fitment::judgement::case::{AxleEvidence, KnownInside};
use fitment::parts::wheel::Wheel;
use fitment::setup::{Axle, Setup};
use store::workshop::{KeptTemplate, KeptTrial, WheelTemplate, Workshop};

/// One trial as the core wants it.
pub fn try_on(kept: &KeptTrial) -> Option<TryOn> {
    Some(TryOn {
        axle: Axle::from_code(&kept.axle)?,
        side: match kept.side.as_deref() {
            Some(side) => Some(CarSide::from_code(side)?),
            None => None,
        },
        setup: kept.setup.parse::<Setup>().ok()?,
        contact: Contact::from_code(&kept.contact)?,
        gap: match kept.gap_mm {
            Some(gap) => Some(Length::from_mm(gap)?),
            None => None,
        },
        plus_minus: Length::from_mm(kept.plus_minus_mm)?,
        steer: Steer::from_code(&kept.steer)?,
        is_hanging: kept.is_hanging,
    })
}

/// What was tried on, as far as it can be read.
pub fn tries_of(workshop: &Workshop) -> Vec<TryOn> {
    workshop.trials.iter().filter_map(try_on).collect()
}

fn outline(points: &[[f64; 2]]) -> Option<Profile> {
    Profile::new(points.iter().map(|[y, r]| (*y, *r))).ok()
}

fn template(kept: &KeptTemplate) -> Option<Template> {
    Some(Template {
        part: BrakePart::from_code(&kept.part)?,
        profile: outline(&kept.points)?,
        source: ProfileSource::from_code(&kept.source)?,
        plus_minus_mm: kept.plus_minus_mm,
    })
}

/// The inside of a wheel as it was measured.
pub fn inside_of(kept: &WheelTemplate) -> Option<KnownInside> {
    Some(KnownInside {
        line: kept.line.clone(),
        wheel: kept.size.parse::<Wheel>().ok()?,
        profile: WheelProfile {
            barrel: outline(&kept.barrel)?,
            spoke_back: outline(&kept.spoke_back)?,
            source: ProfileSource::from_code(&kept.source)?,
            plus_minus_mm: kept.plus_minus_mm,
        },
    })
}

/// The profiles inside the barrel of an axle: the fitted brakes', or those of a planned upgrade where it has some, with
/// what the upgrade does not replace.
pub fn kept_package(workshop: &Workshop, axle: Axle, is_planned: bool) -> Vec<&KeptTemplate> {
    let here = |role: &'static str| {
        workshop.templates.iter().filter(move |one| one.axle == axle.code() && one.role == role)
    };
    if !is_planned || here("planned").next().is_none() {
        return here("fitted").collect();
    }
    let replaced: Vec<&str> = here("planned").map(|one| one.part.as_str()).collect();
    here("fitted").filter(|one| !replaced.contains(&one.part.as_str())).chain(here("planned")).collect()
}

/// The same as the core wants it, with the records they come from, in one order.
pub fn package_of(workshop: &Workshop, axle: Axle, is_planned: bool) -> (Package, Vec<&KeptTemplate>) {
    let all = kept_package(workshop, axle, is_planned);
    let (templates, kept) = all.into_iter().filter_map(|one| Some((template(one)?, one))).unzip();
    (Package { templates }, kept)
}

/// What the workshop knows of an axle. A plan is held against the brakes as they are planned.
///
/// `unreadable` are the names of records elsewhere that can no longer be read.
pub fn of_axle(
    workshop: &Workshop,
    insides: &[WheelTemplate],
    axle: Axle,
    unreadable: &[String],
) -> AxleEvidence {
    let mut unreadable = unreadable.to_vec();
    let is_here = |code: &str| Axle::from_code(code).is_none_or(|of| of == axle);
    for kept in workshop.trials.iter().filter(|kept| is_here(&kept.axle) && try_on(kept).is_none()) {
        unreadable.push(format!("the trial of {:?}", kept.setup));
    }
    for kept in kept_package(workshop, axle, true).into_iter().filter(|kept| template(kept).is_none()) {
        unreadable.push(format!("the profile {:?}", kept.name));
    }
    for kept in insides.iter().filter(|kept| inside_of(kept).is_none()) {
        unreadable.push(format!("the inside of {} {}", kept.line, kept.size));
    }
    AxleEvidence {
        package: package_of(workshop, axle, true).0,
        insides: insides.iter().filter_map(inside_of).collect(),
        tries: tries_of(workshop).into_iter().filter(|tried| tried.axle == axle).collect(),
        unreadable,
        ..AxleEvidence::default()
    }
}
