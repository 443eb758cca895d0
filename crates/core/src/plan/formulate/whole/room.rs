//! A programme in whole steps: what a mix of so many steps of each lot comes to, and how good that is.

use super::super::programme::{Programme, Solved, steps_within};

/// A condition is met within this share of its largest part [-].
const MET: f64 = 1e-8;

/// A mix is better only if it is so by more than this [-].
pub(super) const BETTER: f64 = 1e-9;

/// What has no measure of its own is moved in so many parts of what there is of it.
const PARTS: f64 = 64.0;

/// What room is worth where there is plenty of it, as a share of the most that a step gains [-].
const LEAST_PRICE: f64 = 0.3;

/// How good a mix is: first by what it breaks, then by what it gains.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Rank {
    /// Conditions passed that may not be, each as a share of its largest part.
    pub(super) broken: f64,
    /// What it gains, less the price of what it misses.
    pub(super) worth: f64,
}

impl Rank {
    pub(super) fn is_better_than(self, other: Self) -> bool {
        if (self.broken - other.broken).abs() > BETTER {
            return self.broken < other.broken;
        }
        self.worth - other.worth > BETTER * other.worth.abs().max(BETTER)
    }
}

/// A mix in steps of its lots, with what it comes to in each condition.
#[derive(Debug, Clone)]
pub(super) struct At {
    pub(super) steps: Vec<f64>,
    pub(super) sums: Vec<f64>,
    pub(super) gain: f64,
    pub(super) rank: Rank,
}

/// A programme in steps of its lots, each condition as a share of its largest part.
#[derive(Debug, Clone)]
pub(super) struct Room<'a> {
    programme: &'a Programme,
    /// What a step of each lot adds to each condition.
    pub(super) of: Vec<Vec<f64>>,
    /// What a step of each lot gains.
    pub(super) gain: Vec<f64>,
    /// Least and most of each lot [steps].
    pub(super) bounds: Vec<(f64, f64)>,
    /// One step of each lot [kg].
    step_kg: Vec<f64>,
    /// What a litre of water adds to each condition, and gains.
    water: Vec<f64>,
    water_gain: f64,
    /// The edges of the conditions.
    edges: Vec<f64>,
    /// What missing each condition costs; none of one that may not be missed.
    prices: Vec<Option<f64>>,
    /// What the last bit of room in each condition is worth in any amounts.
    worths: Vec<f64>,
    /// The lots that can be moved, the least decided first: those of which a step more or less
    /// changes least what any amounts gain.
    pub(super) undecided: Vec<usize>,
}

impl<'a> Room<'a> {
    /// The room of a programme, for what a kilogram of each lot and a litre of water gain, with
    /// prices on some of its rows.
    pub(super) fn new(programme: &'a Programme, gain: &[f64], slack: &[(usize, f64)]) -> Self {
        let lots = programme.bounds.len() - 1;
        let step_kg: Vec<f64> = (0..lots)
            .map(|at| {
                let (low, high) = programme.bounds[at];
                programme.steps[at].unwrap_or(if high > low { (high - low) / PARTS } else { 1.0 })
            })
            .collect();
        let bounds = (0..lots)
            .map(|at| {
                let (low, high) = programme.bounds[at];
                let (low, high) = (low / step_kg[at], high / step_kg[at]);
                if programme.steps[at].is_none() {
                    return (low, high);
                }
                let (low, high) = steps_within(low, high);
                (f64::from(low), f64::from(high))
            })
            .collect();
        let sizes: Vec<f64> = programme.rows.iter().map(|row| programme.size_of(row)).collect();
        let per = |row: usize, of: f64| if sizes[row] > 0.0 { of / sizes[row] } else { 0.0 };
        let rows = 0..programme.rows.len();
        let worths = programme.prices(gain, slack).unwrap_or_else(|| vec![0.0; rows.len()]);
        let doubt = |at: usize| (programme.gain_beyond_price(at, gain, &worths) * step_kg[at]).abs();
        let can_move = |&at: &usize| programme.bounds[at].1 > programme.bounds[at].0;
        let mut undecided: Vec<(usize, f64)> = (0..lots).filter(can_move).map(|at| (at, doubt(at))).collect();
        undecided.sort_by(|a, b| a.1.total_cmp(&b.1));
        let price = |row: usize| slack.iter().find(|(of, _)| *of == row).map(|(_, price)| price * sizes[row]);
        Self {
            programme,
            of: (0..lots)
                .map(|at| {
                    rows.clone().map(|row| per(row, programme.rows[row].of[at] * step_kg[at])).collect()
                })
                .collect(),
            gain: (0..lots).map(|at| gain[at] * step_kg[at]).collect(),
            bounds,
            water: rows.clone().map(|row| per(row, programme.rows[row].of[lots])).collect(),
            water_gain: gain[lots],
            edges: rows.clone().map(|row| per(row, programme.rows[row].at_most)).collect(),
            prices: rows.clone().map(price).collect(),
            worths: rows.map(|row| worths[row] * sizes[row]).collect(),
            undecided: undecided.into_iter().map(|(at, _)| at).collect(),
            step_kg,
        }
    }

    /// The lots that can be moved, the least decided first.
    pub(super) fn undecided(&self) -> impl Iterator<Item = usize> + '_ {
        self.undecided.iter().copied()
    }

    /// How many steps of a lot lie between two amounts [kg].
    pub(super) fn steps_between(&self, lot: usize, one: f64, other: f64) -> f64 {
        (one - other).abs() / self.step_kg[lot]
    }

    /// What a mix gains, less the price of what it misses.
    pub(super) fn worth(&self, solved: &Solved) -> f64 {
        let steps = solved.kg.iter().zip(&self.step_kg).map(|(kg, step)| kg / step).collect();
        self.at(steps).rank.worth
    }

    /// The same room where every condition may be missed, at so many times what its room is worth.
    pub(super) fn priced(&self, dear: f64) -> Self {
        let least = LEAST_PRICE * self.gain.iter().fold(0.0, |most: f64, gain| most.max(gain.abs()));
        let price = |(price, worth): (&Option<f64>, &f64)| price.or(Some(dear * worth.max(least)));
        Self { prices: self.prices.iter().zip(&self.worths).map(price).collect(), ..self.clone() }
    }

    pub(super) fn rounded(&self, near: &Solved, round: fn(f64) -> f64) -> At {
        let steps = |at: usize| {
            let steps = near.kg[at] / self.step_kg[at];
            // The solver's own inexactness is no reason to round a whole number away.
            let is_whole = (steps - steps.round()).abs() < 1e-6;
            let steps = match self.programme.steps[at] {
                Some(_) if is_whole => steps.round(),
                Some(_) => round(steps),
                None => steps,
            };
            steps.clamp(self.bounds[at].0, self.bounds[at].1)
        };
        self.at((0..self.bounds.len()).map(steps).collect())
    }

    pub(super) fn at(&self, steps: Vec<f64>) -> At {
        let mut sums = vec![0.0; self.edges.len()];
        for (of, &steps) in self.of.iter().zip(&steps) {
            for (sum, of) in sums.iter_mut().zip(of) {
                *sum += of * steps;
            }
        }
        let gain = self.gain.iter().zip(&steps).map(|(gain, steps)| gain * steps).sum();
        let (rank, _) = self.rank(&sums, gain);
        At { steps, sums, gain, rank }
    }

    pub(super) fn solved(&self, at: &At) -> Option<Solved> {
        let (rank, water_l) = self.rank(&at.sums, at.gain);
        let kg = at.steps.iter().zip(&self.step_kg).map(|(steps, kg)| steps * kg).collect();
        (rank.broken <= 0.0).then_some(Solved { kg, water_l, is_proven: false })
    }

    /// How good sums are with the water that suits them best, and that water [L].
    pub(super) fn rank(&self, sums: &[f64], gain: f64) -> (Rank, f64) {
        let &(lowest, highest) = self.programme.bounds.last().expect("water stands last");
        let (mut least, mut most) = (lowest, highest);
        for (row, &of) in self.water.iter().enumerate() {
            let to_edge = (self.edges[row] + MET - sums[row]) / of;
            if of > 0.0 {
                most = most.min(to_edge);
            } else if of < 0.0 {
                least = least.max(to_edge);
            }
        }
        let step = self.programme.steps.last().copied().flatten();
        if let Some(step) = step {
            least = (least / step - BETTER).ceil() * step;
            most = (most / step + BETTER).floor() * step;
        }
        if least <= most {
            return (self.with_water(sums, gain, least), least);
        }
        // No water keeps them all: the sum of misses is least at the edge of one of them.
        let mut best = (self.with_water(sums, gain, lowest), lowest);
        for (row, &of) in self.water.iter().enumerate().filter(|(_, of)| **of != 0.0) {
            let edge = (self.edges[row] - sums[row]) / of;
            let near = match step {
                Some(step) => [(edge / step).floor() * step, (edge / step).ceil() * step],
                None => [edge, edge],
            };
            for water_l in near.map(|water_l| water_l.clamp(lowest, highest)) {
                let rank = self.with_water(sums, gain, water_l);
                if rank.is_better_than(best.0) {
                    best = (rank, water_l);
                }
            }
        }
        best
    }

    fn with_water(&self, sums: &[f64], gain: f64, water_l: f64) -> Rank {
        let mut rank = Rank { broken: 0.0, worth: gain + self.water_gain * water_l };
        for (row, sum) in sums.iter().enumerate() {
            let over = sum + self.water[row] * water_l - self.edges[row];
            if over > 2.0 * MET {
                match self.prices[row] {
                    None => rank.broken += over,
                    Some(price) => rank.worth -= price * over,
                }
            }
        }
        rank
    }

    /// Whether only what the lots gain can make a mix better.
    pub(super) fn gains_alone(&self) -> bool {
        self.water_gain == 0.0 && self.prices.iter().all(Option::is_none)
    }
}
