//! Proven fits of the sample shop and its friends: made by a seeded generator from invented wheel wells, so that what
//! rubs is what would.

use fitment::answers::proven::{ProvenAxle, ProvenCar, ProvenFit, Rub};
use fitment::car::limits::Drive;
use fitment::setup::{Axle, Setup, SetupPair};
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};

/// An invented model's wheel wells: from the hub face out to the fender lip and in to the strut, front and rear.
struct Wells {
    model: &'static str,
    body: &'static str,
    drive: Drive,
    fitted: &'static str,
    circle: &'static str,
    lip_mm: [f64; 2],
    strut_mm: [f64; 2],
    tires: &'static [&'static str],
}

const WELLS: &[Wells] = &[
    Wells {
        model: "Marn Dotterel 3.0",
        body: "coupé",
        drive: Drive::Rear,
        fitted: "18x8.5 ET47 245/40R18",
        circle: "5x120",
        lip_mm: [88.0, 91.0],
        strut_mm: [171.0, 203.0],
        tires: &["235/40R18", "245/40R18", "255/35R18", "235/35R19", "255/35R19", "265/30R19"],
    },
    Wells {
        model: "Halvard Tinde 2.0",
        body: "estate",
        drive: Drive::All,
        fitted: "17x7.5 ET45 225/45R17",
        circle: "5x112",
        lip_mm: [84.0, 88.0],
        strut_mm: [173.0, 190.0],
        tires: &["225/45R17", "225/40R18", "235/40R18", "235/35R19"],
    },
    Wells {
        model: "Skerrin Brant RS",
        body: "hatch",
        drive: Drive::Front,
        fitted: "18x8 ET50 235/40R18",
        circle: "5x108",
        lip_mm: [82.0, 84.0],
        strut_mm: [177.0, 188.0],
        tires: &["225/45R17", "235/40R18", "235/35R19", "245/35R19"],
    },
    Wells {
        model: "Vesper Tarn",
        body: "coupé",
        drive: Drive::Rear,
        fitted: "17x8 ET35 225/45R17",
        circle: "5x114.3",
        lip_mm: [90.0, 93.0],
        strut_mm: [168.0, 191.0],
        tires: &["225/45R17", "245/40R17", "225/40R18", "255/35R18"],
    },
];

/// What is done to a fender, and how much room it makes, in millimetres.
const WORK: [(&str, f64); 4] = [("as built", 0.0), ("as built", 0.0), ("lip rolled", 6.0), ("pulled", 14.0)];
/// How far a degree of camber leans the top inward at the lip, in millimetres; about a tire's radius times one degree.
const PER_DEGREE_MM: f64 = 5.0;
const SHOPS: [&str; 4] = ["Vennmere", "Vennmere", "Norrhavn Wheels", "Dalby Garage"];
const VIEWS: [&str; 6] = [
    "would do it again",
    "quieter than feared",
    "harsh over the bridge joints",
    "looks as wanted",
    "steering heavier, worth it",
    "one inch less would have done",
];

/// How many fits there are.
pub(super) const COUNT: usize = 72;

/// The library.
pub(super) fn fits() -> Vec<ProvenFit> {
    let mut rng = StdRng::seed_from_u64(0x0d1e);
    let mut fits: Vec<ProvenFit> = Vec::with_capacity(COUNT);
    while fits.len() < COUNT {
        let wells = &WELLS[fits.len() % WELLS.len()];
        if let Some(fit) = fit(&mut rng, wells)
            && fits.iter().all(|other| other.key() != fit.key())
        {
            fits.push(fit);
        }
    }
    fits
}

fn pick<T: Copy>(rng: &mut StdRng, from: &[T]) -> T {
    from[rng.random_range(0..from.len())]
}

/// `None` for a set that nobody would have fitted: it stands in the strut, or far outside the lip.
fn fit(rng: &mut StdRng, wells: &Wells) -> Option<ProvenFit> {
    let dropped = pick(rng, &[0.0, 0.0, 20.0, 30.0, 45.0]);
    let work = pick(rng, &WORK);
    let tire = pick(rng, wells.tires);
    let is_square = rng.random::<f64>() < 0.6;
    let front = axle(rng, wells, Axle::Front, tire, dropped, work)?;
    let rear = if is_square {
        axle_of(wells, Axle::Rear, front.0, dropped, work, front.1.camber_deg.unwrap_or(-1.0) - 0.5)?
    } else {
        axle(rng, wells, Axle::Rear, tire, dropped, work)?
    };
    Some(ProvenFit {
        car: ProvenCar {
            model: wells.model.to_owned(),
            body: wells.body.to_owned(),
            drive: Some(wells.drive),
            ..ProvenCar::default()
        },
        front: front.1,
        rear: rear.1,
        before: SetupPair::square(wells.fitted.parse().ok()?),
        setups: SetupPair { front: Some(front.0), rear: Some(rear.0) },
        style: pick(rng, &["flush", "tucked", "poke"]).to_owned(),
        uses: pick(rng, &["daily", "daily", "occasional track", "show"]).to_owned(),
        view: pick(rng, &VIEWS).to_owned(),
        shop: pick(rng, &SHOPS).to_owned(),
        year: Some(rng.random_range(2021..=2026)),
    })
}

fn axle(
    rng: &mut StdRng,
    wells: &Wells,
    axle: Axle,
    tire: &str,
    dropped: f64,
    work: (&str, f64),
) -> Option<(Setup, ProvenAxle)> {
    let width = f64::from(rng.random_range(15..=20)) / 2.0;
    let offset = 5 * rng.random_range(4..=10);
    let rim = tire.rsplit('R').next()?;
    let setup: Setup = format!("{rim}x{width} ET{offset} {} {tire}", wells.circle).parse().ok()?;
    let camber = -f64::from(rng.random_range(4..=28)) / 10.0;
    axle_of(wells, axle, setup, dropped, work, camber)
}

/// How a setup stands in its well, and what became of it.
fn axle_of(
    wells: &Wells,
    axle: Axle,
    setup: Setup,
    dropped: f64,
    work: (&str, f64),
    camber: f64,
) -> Option<(Setup, ProvenAxle)> {
    let at = usize::from(axle == Axle::Rear);
    let offset = setup.effective_offset()?.as_mm();
    let half = (setup.wheel?.width.over_flanges().as_mm() / 2.0).max(setup.section_width()?.as_mm() / 2.0);
    let inside = wells.strut_mm[at] - (half + offset);
    // A lowered car dips further past its lip.
    let outside = wells.lip_mm[at] + work.1 - camber * PER_DEGREE_MM - dropped / 10.0 - (half - offset);
    if inside < 2.0 || outside < -6.0 {
        return None;
    }
    let rub = match (inside, outside) {
        (_, outside) if outside < 0.0 => Rub::Constant,
        (_, outside) if outside < 4.0 => Rub::OverBumps,
        (inside, _) if inside < 5.0 && axle == Axle::Front => Rub::AtLock,
        _ => Rub::None,
    };
    let on = ProvenAxle {
        suspension: if dropped > 30.0 {
            "coilovers"
        } else if dropped > 0.0 {
            "springs"
        } else {
            "as built"
        }
        .to_owned(),
        dropped_mm: Some(dropped),
        fender: work.0.to_owned(),
        camber_deg: Some((camber * 10.0).round() / 10.0),
        rub: Some(rub),
    };
    Some((setup, on))
}

#[cfg(test)]
mod tests {
    use super::*;
    use fitment::answers::proven::envelopes;

    #[test]
    fn more_fender_work_proves_more_poke_and_the_same_seed_the_same_fits() {
        let all = fits();
        assert_eq!((all.len(), &all), (COUNT, &fits()));
        let rubbed = all.iter().filter(|fit| fit.rear.rub != Some(Rub::None)).count();
        assert!(rubbed > 5 && rubbed < COUNT / 2, "some rub, most do not: {rubbed}");
        let found = envelopes(&all, Axle::Rear);
        let outer = |fender: &str| found.iter().find(|one| one.fender == fender).unwrap().outer_mm;
        assert!(outer("pulled") > outer("as built"));
    }
}
