//! What differs between two contents of a job, in words: the journal's lines, and what undo says it takes back.

use std::collections::HashSet;

use fitment::car::Car;

use crate::jobs::JobContent;
use crate::measurements::KeptReading;

/// What differs, for the journal.
pub(crate) fn what_changed(before: &JobContent, after: &JobContent) -> String {
    let changed = [
        (before.car_label != after.car_label, "car"),
        (before.wish != after.wish, "wish"),
        (before.stage != after.stage, "stage"),
        (before.drive != after.drive, "drive"),
        (before.notes != after.notes, "notes"),
        (before.wishes != after.wishes, "what is sought"),
        (before.road != after.road, "road and track sheet"),
        (before.fitted != after.fitted, "fitted setup"),
        (before.planned.front != after.planned.front, "planned front"),
        (before.planned.rear != after.planned.rear, "planned rear"),
        (before.candidates != after.candidates, "candidates"),
        (before.measurements.levers != after.measurements.levers, "levers"),
        (before.measurements.wanted != after.measurements.wanted, "wanted style"),
        (before.picked.rows != after.picked.rows, "picked parts"),
        (before.picked.answered != after.picked.answered, "questions answered"),
        (before.workshop.templates != after.workshop.templates, "brake profiles"),
        (before.workshop.trials != after.workshop.trials, "trial fits"),
        (!before.put_away && after.put_away, "put away"),
        (before.put_away && !after.put_away, "taken out again"),
    ];
    let words = changed.into_iter().filter(|(is, _)| *is).map(|(_, word)| word.to_owned());
    let facts = facts_changed(&before.measurements.car, &after.measurements.car);
    let readings = readings_changed(&before.measurements.readings, &after.measurements.readings);
    words.chain(facts).chain(readings).collect::<Vec<_>>().join(", ")
}

/// Changes named one by one at most; more are counted.
const MOST_NAMED: usize = 3;

fn named_or_counted(names: Vec<String>, of_what: &str) -> Vec<String> {
    if names.len() > MOST_NAMED { vec![format!("{} {of_what}", names.len())] } else { names }
}

fn facts_changed(before: &Car, after: &Car) -> Vec<String> {
    let facts = before.known().chain(after.known()).map(|(fact, axle, _)| (fact, axle));
    let mut names: Vec<String> = facts
        .filter(|(fact, axle)| before.value(*fact, *axle) != after.value(*fact, *axle))
        .map(|(fact, axle)| match axle {
            Some(axle) => format!("{}, {}", fact.facts().title.to_lowercase(), axle.code()),
            None => fact.facts().title.to_lowercase(),
        })
        .collect();
    names.sort();
    names.dedup();
    let mut names = named_or_counted(names, "facts of the car's record");
    if before.alternatives != after.alternatives {
        names.push("other wheels from the factory".to_owned());
    }
    names
}

fn readings_changed(before: &[KeptReading], after: &[KeptReading]) -> Vec<String> {
    let only_in = |these: &[KeptReading], those: &[KeptReading], word: &str, many: &str| -> Vec<String> {
        let known: HashSet<&str> = those.iter().map(|kept| kept.id.as_str()).collect();
        let new = these.iter().filter(|kept| !known.contains(kept.id.as_str()));
        let names = new.map(|kept| {
            let taken = &kept.taken;
            let side = taken.side.map_or("", |side| side.code());
            let place = format!("{} {side}", taken.axle.code());
            format!("{word}: {}, {}", taken.what.title().to_lowercase(), place.trim())
        });
        named_or_counted(names.collect(), many)
    };
    let mut words = only_in(after, before, "reading taken", "readings taken");
    words.extend(only_in(before, after, "reading taken away", "readings taken away"));
    if words.is_empty() && before != after {
        words.push("readings".to_owned());
    }
    words
}
