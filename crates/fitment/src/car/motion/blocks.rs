//! Places of a part in blocks of a few that lie near each other: whole blocks are left out where none of them can be nearest.

use super::Place;

/// Most places of a block.
const FEW: usize = 10;

/// Some places, and the ball that holds them.
#[derive(Debug, Clone, Copy)]
pub(super) struct Block {
    pub(super) center: Place,
    pub(super) radius: f64,
    first: usize,
    end: usize,
}

impl Block {
    /// Which of the places are its own.
    pub(super) fn places(&self) -> std::ops::Range<usize> {
        self.first..self.end
    }
}

/// Places in blocks.
#[derive(Debug, Clone)]
pub(super) struct Blocks {
    places: Vec<Place>,
    blocks: Vec<Block>,
}

impl Blocks {
    /// Halves the places along their longest side until few are left together.
    pub(super) fn of(places: &[Place]) -> Self {
        let mut all = Self { places: places.to_vec(), blocks: Vec::new() };
        all.split(0, places.len());
        all
    }

    fn split(&mut self, first: usize, end: usize) {
        let some = &mut self.places[first..end];
        if some.is_empty() {
            return;
        }
        let bounds = [0, 1, 2].map(|axis| {
            let along = some.iter().map(|place| place[axis]);
            along.fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), at| (low.min(at), high.max(at)))
        });
        if some.len() <= FEW {
            let center = bounds.map(|(low, high)| f64::midpoint(low, high));
            let radius = some.iter().map(|place| distance(*place, center)).fold(0.0, f64::max);
            self.blocks.push(Block { center, radius, first, end });
            return;
        }
        let span = |axis: usize| bounds[axis].1 - bounds[axis].0;
        let longest = [0, 1, 2].into_iter().max_by(|a, b| span(*a).total_cmp(&span(*b))).unwrap_or(0);
        let half = some.len() / 2;
        some.select_nth_unstable_by(half, |a, b| a[longest].total_cmp(&b[longest]));
        self.split(first, first + half);
        self.split(first + half, end);
    }

    pub(super) fn blocks(&self) -> &[Block] {
        &self.blocks
    }

    /// The places of all blocks, one block after another.
    pub(super) fn places(&self) -> &[Place] {
        &self.places
    }
}

fn distance(a: Place, b: Place) -> f64 {
    [0, 1, 2].map(|axis| (a[axis] - b[axis]).powi(2)).iter().sum::<f64>().sqrt()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_place_is_in_one_block_and_its_ball_holds_it() {
        for count in [0, 1, 9, 10, 11, 400, 3001u32] {
            let places: Vec<Place> = (0..count)
                .map(|at| {
                    let share = f64::from(at);
                    [(share * 0.618).fract() * 300.0, (share * 0.755).fract() * 40.0, (share * 0.57).fract()]
                })
                .collect();
            let all = Blocks::of(&places);
            let mut seen = 0;
            for block in all.blocks() {
                let some = &all.places()[block.places()];
                assert!((1..=FEW).contains(&some.len()));
                assert!(some.iter().all(|place| distance(*place, block.center) <= block.radius + 1e-9));
                assert!(some.iter().all(|place| places.contains(place)));
                seen += some.len();
            }
            assert_eq!(seen, places.len());
        }
        // Places that are one are no harm.
        assert_eq!(
            Blocks::of(&[[1.0, 2.0, 3.0]; 50]).blocks().iter().filter(|one| one.radius > 0.0).count(),
            0
        );
    }
}
