//! The catalogue's wheels over a brake package: worked out once, and kept until brakes, lists or limits change.

use std::collections::HashMap;
use std::hash::{DefaultHasher, Hash, Hasher};
use std::sync::{Arc, Mutex, PoisonError};

use fitment::brake::{Limits, Package, verdict};
use fitment::case::Needs;
use fitment::rules::mount;
use fitment::setup::Axle;
use store::workshop::WheelTemplate;

use crate::catalogue::Loaded;
use crate::price_list::Ticket;
use crate::wire::brake_bench::{CatalogueWheel, inside_of};
use crate::wire::profiles::template_size;

/// What was worked out, by what it was worked out from.
type Known = HashMap<u64, Arc<Vec<CatalogueWheel>>>;

/// Sweeps that are kept.
#[derive(Debug, Clone, Default)]
pub struct Sweeps(Arc<Mutex<Known>>);

/// Sweeps kept at most; then all are forgotten.
const MOST: usize = 32;

/// What a sweep is worked out from.
#[derive(Debug, Clone)]
pub struct Ask {
    /// The brakes.
    pub package: Package,
    /// Which axle.
    pub axle: Axle,
    /// What the car asks of a wheel.
    pub needs: Needs,
    /// The least gaps.
    pub limits: Limits,
    /// Insides of wheels that were measured.
    pub templates: Vec<WheelTemplate>,
}

impl Ask {
    fn key(&self, loaded: &Loaded) -> u64 {
        let mut hasher = DefaultHasher::new();
        // Debug names every figure at full precision, and this is asked for once a page.
        format!("{:?}{:?}{:?}{:?}{:?}", self.package, self.axle, self.needs, self.limits, self.templates)
            .hash(&mut hasher);
        loaded.version.hash(&mut hasher);
        hasher.finish()
    }

    /// Each line's size that goes on the hub, smallest rim first, over the brakes.
    fn sweep(&self, loaded: &Loaded, ticket: &Ticket) -> Vec<CatalogueWheel> {
        let rows = &loaded.catalogue.wheels;
        // Like insides are tried once: a line's own where it was measured, else the size alone.
        let mut known = HashMap::new();
        let mut seen = std::collections::HashSet::new();
        let mut all = Vec::new();
        for (count, row) in rows.iter().enumerate() {
            if count % 1000 == 0 {
                ticket.tell("comparing", count, rows.len());
            }
            let goes_on = mount::goes_on(&self.needs, self.axle, row);
            if !goes_on || !seen.insert((row.line.clone(), template_size(&row.wheel))) {
                continue;
            }
            let is_measured =
                self.templates.iter().any(|one| one.line.trim().eq_ignore_ascii_case(&row.line));
            let own_line = is_measured.then(|| row.line.clone());
            let key = (own_line.clone(), row.wheel.diameter, row.wheel.width, row.wheel.offset);
            let found = known.entry(key).or_insert_with(|| {
                let inside = inside_of(&row.wheel, own_line.as_deref(), &self.templates)?;
                Some((inside.source, verdict(&self.package, &inside, self.limits)))
            });
            if let Some((source, step)) = found {
                let order =
                    (row.wheel.diameter, row.wheel.width, row.wheel.offset.map(|o| -o.as_mm() as i64));
                all.push((order, CatalogueWheel::new(row, *source, *step)));
            }
        }
        all.sort_by(|a, b| a.0.cmp(&b.0).then_with(|| a.1.line.cmp(&b.1.line)));
        all.into_iter().map(|(_, wheel)| wheel).collect()
    }
}

impl Sweeps {
    /// The wheels over the brakes.
    pub fn of(&self, ask: &Ask, loaded: &Loaded, ticket: &Ticket) -> Arc<Vec<CatalogueWheel>> {
        let key = ask.key(loaded);
        if let Some(known) = self.0.lock().unwrap_or_else(PoisonError::into_inner).get(&key) {
            return Arc::clone(known);
        }
        let found = Arc::new(ask.sweep(loaded, ticket));
        let mut known = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if known.len() >= MOST {
            known.clear();
        }
        known.insert(key, Arc::clone(&found));
        found
    }
}
