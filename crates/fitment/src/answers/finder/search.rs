//! The search: classes of like rows instead of rows, axle by axle, then the two axles together, best first.
//!
//! A bound says how good a setup could be at most; what cannot come among the best is not worked out. Nothing is
//! left out that could: the ranking is the one that trying everything would give.

use super::classes::Lines;
use super::filters::{Filter, InForce};
use super::pairing::pair_axles;
use super::requirements::Requirements;
use super::scene::Scene;
use super::side::side;
use super::stock::{Own, Stock};
use super::{Arrangements, Found, SearchCriteria};
use crate::setup::catalogue::Catalogue;
use crate::setup::{Arrangement, Axle, SetupPair};

/// What stands most in the way when nothing is found.
#[derive(Debug, Clone, PartialEq)]
pub struct Obstruction {
    /// The condition without which most would open.
    pub filter: Filter,
    /// The best setup without it; it must not be ordered as it is.
    pub best: Box<Found>,
}

/// What a search came to.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Outcome {
    /// The best setups, best first.
    pub found: Vec<Found>,
    /// For each of them the same sizes in other designs and finishes of wheel, best first.
    pub designs: Vec<Vec<Found>>,
    /// How many wheels and tires pass what does not depend on each other, front and rear.
    pub rows: [(usize, usize); 2],
    /// When nothing was found: what stands most in the way; `None` when no single condition does.
    pub obstruction: Option<Obstruction>,
}

/// Searches the catalogue.
pub fn find(scene: &Scene<'_>, catalogue: &Catalogue, wish: &SearchCriteria) -> Outcome {
    let own = Own::of(&scene.plan.fitted, wish.keeps);
    let stock = own.beside(catalogue);
    let usual = wish.arrangements == Arrangements::TypicalGaps;
    let is_staggered = |pair: SetupPair| pair.arrangement() == Some(Arrangement::Staggered);
    let arrangements = match wish.arrangements {
        Arrangements::TypicalGaps if is_staggered(scene.plan.reference_pair()) => Arrangements::Either,
        Arrangements::TypicalGaps => Arrangements::Square,
        asked => asked,
    };
    let mut wish = SearchCriteria { arrangements, ..wish.clone() };
    if let Some(class) = &wish.class {
        if class.asks_square() {
            wish.arrangements = Arrangements::Square;
        }
        let most = class.thickest_spacer_mm().unwrap_or(wish.thickest_spacer_mm);
        wish.thickest_spacer_mm = wish.thickest_spacer_mm.min(most);
    }
    let mut searched = search(scene, &stock, &wish, InForce(None));
    if usual && searched.found.is_empty() && arrangements == Arrangements::Square {
        // The room asks for stagger.
        wish.arrangements = Arrangements::Either;
        searched = search(scene, &stock, &wish, InForce(None));
    }
    let Searched { found, designs, rows, .. } = searched;
    let obstruction = if found.is_empty() { obstruction(scene, &stock, &wish) } else { None };
    Outcome { found, designs, rows, obstruction }
}

/// The one condition whose absence opens most; of equal ones the first named.
fn obstruction(scene: &Scene<'_>, stock: &Stock<'_>, wish: &SearchCriteria) -> Option<Obstruction> {
    let wish = SearchCriteria { count: 1, ..wish.clone() };
    let mut most: Option<(usize, Obstruction)> = None;
    for filter in Filter::ALL {
        let Searched { found, opened, .. } = search(scene, stock, &wish, InForce(Some(*filter)));
        if let Some(best) = found.into_iter().next()
            && most.as_ref().is_none_or(|(count, _)| opened > *count)
        {
            most = Some((opened, Obstruction { filter: *filter, best: Box::new(best) }));
        }
    }
    most.map(|(_, obstruction)| obstruction)
}

fn search(scene: &Scene<'_>, stock: &Stock<'_>, wish: &SearchCriteria, force: InForce) -> Searched {
    let lines = Lines::of(stock);
    let asks = Requirements::of(scene.plan);
    let on = |axle| side(scene, &asks, stock, wish, force, axle, &lines);
    let (front, rear) = rayon::join(|| on(Axle::Front), || on(Axle::Rear));
    let sides = [front, rear];
    let rows = [sides[0].rows, sides[1].rows];
    let opened = sides[0].candidates.len() * sides[1].candidates.len();
    let (found, designs) = pair_axles(scene, &asks, stock, wish, force, &sides);
    Searched { found, designs, rows, opened }
}

/// What a search under some filters came to.
struct Searched {
    found: Vec<Found>,
    designs: Vec<Vec<Found>>,
    rows: [(usize, usize); 2],
    /// How many places on both axles were open.
    opened: usize,
}
