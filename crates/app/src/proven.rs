//! The library of proven fits, ordered for a job, and the fit that a finished job leaves.

use exchange::proven::fit as read_fit;
use fitment::answers::proven::{Envelope, ProvenAxle, ProvenCar, ProvenFit, Rub, distance, envelopes};
use fitment::car::Fact;
use fitment::setup::Axle;
use fitment::values::working::Figure;
use store::jobs::JobContent;
use store::proven::ProvenRow;

/// A library, ordered for a job where there is one.
#[derive(Debug)]
pub struct Library<'a> {
    /// Fits, the likest car and nearest setup first.
    pub fits: Vec<Shelved<'a>>,
    /// How many there are in all.
    pub total: usize,
    /// Numbers of fits that cannot be read, and why.
    pub damaged: Vec<(i64, String)>,
    /// The most that is proven on the job's model by fender work, front and rear.
    pub envelopes: [Vec<Envelope>; 2],
}

/// A fit of the library beside a job.
#[derive(Debug)]
pub struct Shelved<'a> {
    /// Its row.
    pub row: &'a ProvenRow,
    /// The fit.
    pub fit: ProvenFit,
    /// How like the job's car its car is: 0 for another model.
    pub likeness: u32,
    /// How far its setups are from the job's, front and rear.
    pub distance: [Option<Figure>; 2],
}

/// Where one whose setups cannot be compared is ordered, in millimetres: behind every one that can.
const FAR_MM: f64 = 500.0;

/// The fits in which every word of `find` occurs, at most so many.
pub fn library<'a>(rows: &'a [ProvenRow], find: &str, job: Option<&JobContent>, most: usize) -> Library<'a> {
    let car = job.map(car_of);
    let likeness = |fit: &ProvenFit| car.as_ref().map_or(0, |car| fit.likeness(car));
    let words: Vec<String> = find.split_whitespace().map(str::to_lowercase).collect();
    let mut all: Vec<(&ProvenRow, ProvenFit)> = Vec::new();
    let mut damaged = Vec::new();
    for row in rows {
        let read = match &row.damaged {
            Some(why) => Err(why.clone()),
            None => read_fit(&row.record).map_err(|faults| {
                let all = faults.iter().map(|fault| format!("{}: {}", fault.column, fault.why));
                all.collect::<Vec<_>>().join("; ")
            }),
        };
        match read {
            Ok(fit) => all.push((row, fit)),
            Err(why) => damaged.push((row.id, why)),
        }
    }
    let of_model = || all.iter().map(|(_, fit)| fit).filter(|fit| likeness(fit) > 0);
    let envelopes = Axle::BOTH.map(|axle| envelopes(of_model(), axle));
    let mut fits: Vec<Shelved<'_>> = all
        .into_iter()
        .filter(|(row, _)| {
            let text = row.record.values().map(|text| text.to_lowercase()).collect::<Vec<_>>().join(" ");
            words.iter().all(|word| text.contains(word))
        })
        .map(|(row, fit)| {
            let plan = |axle| job.and_then(|content| content.planned.on(axle).or(content.fitted.on(axle)));
            let distance = Axle::BOTH.map(|axle| distance(plan(axle)?, fit.setups.on(axle)?));
            Shelved { row, likeness: likeness(&fit), distance, fit }
        })
        .collect();
    let far = |one: &Shelved<'_>| -> f64 {
        one.distance.iter().map(|far| far.as_ref().map_or(FAR_MM, Figure::value)).sum()
    };
    fits.sort_by(|a, b| {
        b.likeness.cmp(&a.likeness).then(far(a).total_cmp(&far(b))).then(b.row.id.cmp(&a.row.id))
    });
    let total = fits.len();
    fits.truncate(most);
    Library { fits, total, damaged, envelopes }
}

/// What tells a job's car from others: its record, else its label for the model.
pub fn car_of(content: &JobContent) -> ProvenCar {
    let words = |fact| content.measurements.car.words(fact, None).unwrap_or_default().to_owned();
    let model = words(Fact::Model);
    ProvenCar {
        model: if model.is_empty() { content.car_label.clone() } else { model },
        body: words(Fact::Body),
        generation: words(Fact::Generation),
        brakes: words(Fact::BrakePackage),
        drive: content.drive,
    }
}

/// What the owner of a finished job says of its plan.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct OwnersView {
    /// How each axle rubs.
    pub rubs: [Option<Rub>; 2],
    /// What is said.
    pub view: String,
    /// What it is used for.
    pub uses: String,
}

/// The fit that a job leaves: its plan on its car.
pub fn fit_of(content: &JobContent, said: OwnersView, year: i32) -> ProvenFit {
    let car = &content.measurements.car;
    let axle = |axle: Axle, rub| ProvenAxle {
        suspension: car.words(Fact::Suspension, Some(axle)).unwrap_or_default().to_owned(),
        dropped_mm: car.number(Fact::Dropped, Some(axle)),
        fender: car.words(Fact::Fender, Some(axle)).unwrap_or_default().to_owned(),
        camber_deg: car.number(Fact::Camber, Some(axle)),
        rub,
    };
    let style = content.measurements.wanted.1.map_or("", |target| target.style.word());
    ProvenFit {
        car: car_of(content),
        front: axle(Axle::Front, said.rubs[0]),
        rear: axle(Axle::Rear, said.rubs[1]),
        before: content.fitted,
        setups: content.planned,
        style: style.to_owned(),
        uses: said.uses,
        view: said.view,
        shop: String::new(),
        year: Some(year),
    }
}
