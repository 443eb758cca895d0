//! A mix moved step by step: measures put in or left out, or exchanged for others, while it gains.

use rand_core::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;

use super::super::programme::Solved;
use super::room::{At, BETTER, Room};

/// Mixes looked at from one start. A count, not a clock: the same question has the same answer.
const MOST_LOOKED_AT: usize = 400_000;

/// So many of the least decided lots are exchanged for each other by twos.
const BY_TWOS: usize = 60;

/// And so many by threes.
const BY_THREES: usize = 24;

/// Conditions may be passed on the way, at so many times what their room is worth: dearer each
/// time, until none is passed [-].
const PRICES: [f64; 4] = [1.1, 1.5, 3.0, 10.0];

/// The price while a mix is disturbed [-].
const DISTURBED_PRICE: f64 = 3.0;

/// Steps that disturb a mix.
const DISTURBING: usize = 5;

/// A fixed seed: the same question has the same answer.
const SEED: u64 = 7;

/// A lot and by how many steps it is moved.
type Move = (usize, f64);

impl Room<'_> {
    /// The best mix found from near another one; none if every one looked at breaks a condition.
    pub(super) fn near(&self, near: &Solved) -> Option<Solved> {
        let mut best: Option<At> = None;
        for round in [f64::round as fn(f64) -> f64, f64::floor, f64::ceil] {
            let mut at = self.rounded(near, round);
            for dear in PRICES {
                let priced = self.priced(dear);
                at = self.at(priced.climbed(priced.at(at.steps), BY_TWOS, 0).steps);
                if at.rank.broken <= 0.0 {
                    break;
                }
            }
            at = self.climbed(at, BY_TWOS, 0);
            if best.as_ref().is_none_or(|best| at.rank.is_better_than(best.rank)) {
                best = Some(at);
            }
        }
        self.solved(&best?)
    }

    /// The best mix found from another one of whole steps; none if it breaks a condition.
    pub(super) fn polished(&self, near: &Solved) -> Option<Solved> {
        self.solved(&self.climbed(self.rounded(near, f64::round), BY_TWOS, BY_THREES))
    }

    /// The best mix found by disturbing one so many times, each time going on from the best.
    pub(super) fn disturbed(&self, near: &Solved, times: usize) -> Option<Solved> {
        let swing = &self.undecided[..self.undecided.len().min(BY_TWOS)];
        let mut rng = Pcg64Mcg::seed_from_u64(SEED);
        let priced = self.priced(DISTURBED_PRICE);
        let mut best = self.rounded(near, f64::round);
        for _ in 0..if swing.is_empty() { 0 } else { times } {
            let mut steps = best.steps.clone();
            for _ in 0..DISTURBING {
                let lot = swing[(rng.next_u64() % swing.len() as u64) as usize];
                let by = if rng.next_u64() & 1 == 0 { 1.0 } else { -1.0 };
                steps[lot] = (steps[lot] + by).clamp(self.bounds[lot].0, self.bounds[lot].1);
            }
            let at = priced.climbed(priced.at(steps), BY_TWOS, 0);
            let at = self.climbed(self.at(at.steps), BY_TWOS, 0);
            if at.rank.is_better_than(best.rank) {
                best = at;
            }
        }
        self.solved(&best)
    }

    /// From here to where no step and no exchange by twos or threes does better.
    fn climbed(&self, mut at: At, twos: usize, threes: usize) -> At {
        let mut looked_at = 0;
        let mut from = 0;
        while looked_at < MOST_LOOKED_AT {
            let moves = self
                .step(&at, &mut looked_at)
                .or_else(|| self.two(&at, twos, &mut from, &mut looked_at))
                .or_else(|| self.three(&at, threes, &mut looked_at));
            let Some(moves) = moves else { break };
            for (lot, by) in moves {
                at.steps[lot] += by;
            }
            at = self.at(at.steps);
        }
        at
    }

    /// The best single step, if one does better.
    fn step(&self, at: &At, looked_at: &mut usize) -> Option<Vec<Move>> {
        let mut best = (at.rank, None);
        let mut sums = at.sums.clone();
        for lot in 0..self.of.len() {
            for by in [1.0, -1.0].into_iter().filter(|&by| self.fits(at, lot, by)) {
                *looked_at += 1;
                self.moved(&at.sums, (lot, by), &mut sums);
                let (rank, _) = self.rank(&sums, at.gain + self.gain[lot] * by);
                if rank.is_better_than(best.0) {
                    best = (rank, Some(vec![(lot, by)]));
                }
            }
        }
        best.1
    }

    /// The next two steps at once that do better; gone on from where the last were found.
    fn two(&self, at: &At, most: usize, from: &mut usize, looked_at: &mut usize) -> Option<Vec<Move>> {
        let swing = &self.undecided[..self.undecided.len().min(most)];
        let (mut one, mut sums) = (at.sums.clone(), at.sums.clone());
        for turn in 0..swing.len() {
            let place = (*from + turn) % swing.len();
            for by in [1.0, -1.0].into_iter().filter(|&by| self.fits(at, swing[place], by)) {
                let first = (swing[place], by);
                self.moved(&at.sums, first, &mut one);
                let gain = at.gain + self.gain[first.0] * by;
                for &lot in swing.iter().filter(|&&lot| lot != first.0) {
                    if let Some(last) = self.last(at, &one, gain, lot, &mut sums, looked_at) {
                        *from = place;
                        return Some(vec![first, last]);
                    }
                }
            }
        }
        None
    }

    /// The first three steps at once that do better.
    fn three(&self, at: &At, most: usize, looked_at: &mut usize) -> Option<Vec<Move>> {
        let swing = &self.undecided[..self.undecided.len().min(most)];
        let (mut one, mut both, mut sums) = (at.sums.clone(), at.sums.clone(), at.sums.clone());
        for (place, &a) in swing.iter().enumerate() {
            for by_a in [1.0, -1.0].into_iter().filter(|&by| self.fits(at, a, by)) {
                self.moved(&at.sums, (a, by_a), &mut one);
                for (next, &b) in swing.iter().enumerate().skip(place + 1) {
                    for by_b in [1.0, -1.0].into_iter().filter(|&by| self.fits(at, b, by)) {
                        self.moved(&one, (b, by_b), &mut both);
                        let gain = at.gain + self.gain[a] * by_a + self.gain[b] * by_b;
                        for &lot in &swing[next + 1..] {
                            if let Some(last) = self.last(at, &both, gain, lot, &mut sums, looked_at) {
                                return Some(vec![(a, by_a), (b, by_b), last]);
                            }
                        }
                    }
                }
            }
        }
        None
    }

    /// A last step of a lot, after others that came to these sums and this gain, if all of them do better.
    fn last(
        &self,
        at: &At,
        before: &[f64],
        gain: f64,
        lot: usize,
        sums: &mut [f64],
        looked_at: &mut usize,
    ) -> Option<Move> {
        [1.0, -1.0].into_iter().filter(|&by| self.fits(at, lot, by)).find_map(|by| {
            let gain = gain + self.gain[lot] * by;
            // Where nothing is broken and water gains nothing, only what the lots gain can do better.
            if at.rank.broken <= 0.0 && gain <= at.gain && self.gains_alone() {
                return None;
            }
            *looked_at += 1;
            self.moved(before, (lot, by), sums);
            self.rank(sums, gain).0.is_better_than(at.rank).then_some((lot, by))
        })
    }

    fn fits(&self, at: &At, lot: usize, by: f64) -> bool {
        let to = at.steps[lot] + by;
        to >= self.bounds[lot].0 - BETTER && to <= self.bounds[lot].1 + BETTER
    }

    fn moved(&self, sums: &[f64], (lot, by): Move, into: &mut [f64]) {
        for ((into, sum), of) in into.iter_mut().zip(sums).zip(&self.of[lot]) {
            *into = sum + of * by;
        }
    }
}
