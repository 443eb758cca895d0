//! The linear programme of a mix, put to the solver and its answer read back.

use microlp::{ComparisonOp, Error, OptimizationDirection, Problem, Solution, SolveOptions, Variable};

use super::{Wanted, per_kg};
use crate::mix::Totals;
use crate::mix::window::{ROWS, Window, Windows};
use crate::stock::Lot;
use crate::stock::{Counted, Pull};

/// A mix that holds less than this share of what could be is none [-].
const NOTHING: f64 = 1e-6;

/// Fresh masses and water that solve a programme.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Solved {
    /// Of each lot [kg].
    pub(super) kg: Vec<f64>,
    /// Water added [L].
    pub(super) water_l: f64,
    /// Whether no better one exists.
    pub(super) is_proven: bool,
}

/// What came of a search.
#[derive(Debug, Clone, PartialEq)]
pub(super) enum Answer {
    /// A mix that meets all conditions.
    Found(Solved),
    /// There is none.
    Impossible,
    /// None was found, which does not say that there is none.
    NotFound,
}

impl Answer {
    /// The mix, if one was found.
    pub(super) fn found(self) -> Option<Solved> {
        match self {
            Self::Found(solved) => Some(solved),
            Self::Impossible | Self::NotFound => None,
        }
    }
}

/// One condition: a sum over the lots and the water stays at or below an edge.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Row {
    /// What a kilogram of each lot, and last a litre of water, adds.
    pub(super) of: Vec<f64>,
    /// The edge.
    pub(super) at_most: f64,
    /// Which condition it is.
    pub(super) kind: RowKind,
}

/// The conditions, told apart.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum RowKind {
    /// A window at its lower or its higher edge.
    Window(Window, Edge),
    VolumeLow,
    VolumeHigh,
    Cap(usize),
}

/// An edge of a window.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Edge {
    /// The lower.
    Low,
    /// The higher.
    High,
}

impl RowKind {
    /// Windows may be missed by the nearest mix; what a person capped may not.
    pub(super) const fn is_window(self) -> bool {
        !matches!(self, Self::VolumeHigh | Self::Cap(_))
    }
}

/// The conditions of a mix, with the least and most of each lot and of water.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Programme {
    /// What a kilogram of each lot brings.
    pub(super) per_kg: Vec<Totals>,
    /// Least and most of each lot [kg], and last of water [L].
    pub(super) bounds: Vec<(f64, f64)>,
    /// One step of each lot [kg], and last of water [L], where whole ones are wanted.
    pub(super) steps: Vec<Option<f64>>,
    /// The conditions.
    pub(super) rows: Vec<Row>,
    /// The least that is to be gained, where only a better mix is of use.
    pub(super) least_gain: Option<f64>,
}

impl Programme {
    /// The conditions of what is wanted, with these windows, held over a share
    /// of the ranges of all figures.
    pub(super) fn new(wanted: &Wanted, windows: &Windows, caution: f64) -> Self {
        let per_kg: Vec<Totals> = wanted.lots.iter().map(per_kg).collect();
        let mut bounds: Vec<_> =
            wanted.lots.iter().map(|lot| (lot.least_kg, lot.most_kg.max(lot.least_kg))).collect();
        // More water than drowns all of the stock is never asked for.
        let dry: f64 = wanted.lots.iter().map(|lot| lot.most_kg * lot.figures.moisture.value.rest()).sum();
        let drowned = dry * windows.moisture().high() / (1.0 - windows.moisture().high());
        bounds.push((0.0, wanted.water_max_l.unwrap_or(f64::INFINITY).min(drowned).max(0.0)));
        let mut steps: Vec<_> = wanted.lots.iter().map(|lot| lot.step_kg).collect();
        steps.push(wanted.water_step_l);
        let usual: Vec<Vec<Totals>> = per_kg.iter().map(|one| vec![*one]).collect();
        let mut rows = rows(wanted, windows, &usual);
        if caution > 0.0 {
            let corners: Vec<_> = wanted.lots.iter().map(|lot| corners(lot, caution)).collect();
            rows.extend(window_rows(&windows.widened(), &corners));
        }
        Self { per_kg, bounds, steps, rows, least_gain: None }
    }

    /// The same conditions with any amounts of everything: what no whole measures can better.
    pub(super) fn in_any_amounts(&self) -> Self {
        Self { steps: vec![None; self.steps.len()], ..self.clone() }
    }

    /// The same conditions for some of the lots alone, the rest at these amounts.
    pub(super) fn only(&self, lots: &[usize], kg: &[f64]) -> Self {
        let water = kg.len();
        let columns = || lots.iter().copied().chain([water]);
        let row = |row: &Row| {
            let rest = (0..water).filter(|at| lots.binary_search(at).is_err());
            let used: f64 = rest.map(|at| row.of[at] * kg[at]).sum();
            Row { of: columns().map(|at| row.of[at]).collect(), at_most: row.at_most - used, ..*row }
        };
        Self {
            per_kg: lots.iter().map(|&at| self.per_kg[at]).collect(),
            bounds: columns().map(|at| self.bounds[at]).collect(),
            steps: columns().map(|at| self.steps[at]).collect(),
            rows: self.rows.iter().map(row).collect(),
            least_gain: None,
        }
    }

    /// Whether anything is counted in whole steps.
    pub(super) fn is_whole(&self) -> bool {
        self.steps.iter().any(Option::is_some)
    }

    /// The mix that gains most, as the solver finds it within so many branches; some rows may
    /// be missed, each at a price, which is what the nearest mix is made from.
    pub(super) fn solve(&self, gain: &[f64], slack: &[(usize, f64)], most_branches: u64) -> Answer {
        if self.bounds.iter().any(|(low, high)| low > high) {
            return Answer::Impossible;
        }
        let (problem, columns, scales) = self.put(gain, slack);
        let mut options = SolveOptions::default();
        options.node_limit = Some(most_branches);
        // Rows that say nothing cost a problem of any amounts less than to look for them.
        options.presolve = self.is_whole();
        let outcome = match problem.solve_with(options) {
            Ok(outcome) => outcome,
            Err(Error::Infeasible) => return Answer::Impossible,
            Err(_) => return Answer::NotFound,
        };
        let is_proven = outcome.is_optimal();
        let Some(solution) = outcome.solution() else { return Answer::NotFound };
        Answer::Found(Solved { is_proven, ..self.read(solution, &columns, &scales) })
    }

    /// The programme as the solver takes it, its columns and what one of each stands for.
    fn put(&self, gain: &[f64], slack: &[(usize, f64)]) -> (Problem, Vec<Variable>, Vec<f64>) {
        let mut problem = Problem::new(OptimizationDirection::Maximize);
        let scales: Vec<f64> = self.bounds.iter().zip(&self.steps).map(scale).collect();
        // Gains span decades; only their proportions matter.
        let largest = gain.iter().zip(&scales).map(|(gain, scale)| (gain * scale).abs()).fold(0.0, f64::max);
        let per_gain = if largest > 0.0 { 1.0 / largest } else { 0.0 };
        let columns: Vec<Variable> = (0..self.bounds.len())
            .map(|at| {
                let (low, high) = (self.bounds[at].0 / scales[at], self.bounds[at].1 / scales[at]);
                let gain = gain[at] * scales[at] * per_gain;
                match self.steps[at] {
                    Some(_) => problem.add_integer_var(gain, steps_within(low, high)),
                    None => problem.add_var(gain, (low, high.max(low))),
                }
            })
            .collect();
        let slacks: Vec<(usize, Variable)> =
            slack.iter().map(|&(row, price)| (row, problem.add_var(-price, (0.0, f64::INFINITY)))).collect();
        for (place, row) in self.rows.iter().enumerate() {
            let scaled = row.of.iter().zip(&scales).map(|(of, scale)| of * scale);
            let size = scaled.clone().fold(row.at_most.abs(), |size, of| size.max(of.abs()));
            if size <= 0.0 {
                continue;
            }
            let mut terms: Vec<(Variable, f64)> = columns
                .iter()
                .copied()
                .zip(scaled.map(|of| of / size))
                .filter(|(_, of)| *of != 0.0)
                .collect();
            terms.extend(
                slacks.iter().filter(|(of, _)| *of == place).map(|&(_, variable)| (variable, -1.0 / size)),
            );
            problem.add_constraint(&terms[..], ComparisonOp::Le, row.at_most / size);
        }
        if let Some(least) = self.least_gain.filter(|_| largest > 0.0) {
            let terms: Vec<(Variable, f64)> = columns
                .iter()
                .copied()
                .zip(gain.iter().zip(&scales).map(|(gain, scale)| gain * scale * per_gain))
                .filter(|(_, of)| *of != 0.0)
                .collect();
            problem.add_constraint(&terms[..], ComparisonOp::Ge, least * per_gain);
        }
        (problem, columns, scales)
    }

    /// The solver's answer in kilograms and litres.
    fn read(&self, solution: &Solution, columns: &[Variable], scales: &[f64]) -> Solved {
        let amounts: Vec<f64> = (0..self.bounds.len())
            .map(|at| {
                let value = solution.var_value(columns[at]);
                let value = if self.steps[at].is_some() { value.round() } else { value };
                (value * scales[at]).clamp(self.bounds[at].0, self.bounds[at].1.max(self.bounds[at].0))
            })
            .collect();
        let (&water_l, kg) = amounts.split_last().expect("water stands last");
        Solved { kg: kg.to_vec(), water_l, is_proven: false }
    }

    /// What the last bit of room in each condition is worth in a mix of any amounts, in what is
    /// gained for each unit of the row: the prices of the dual programme. None if it has no answer.
    ///
    /// # Source
    /// Dantzig 1963, Linear Programming and Extensions, chapter 12 (prices).
    pub(super) fn prices(&self, gain: &[f64], slack: &[(usize, f64)]) -> Option<Vec<f64>> {
        let mut problem = Problem::new(OptimizationDirection::Minimize);
        let scales: Vec<f64> =
            self.bounds.iter().zip(self.in_any_amounts().steps.iter()).map(scale).collect();
        let largest = gain.iter().zip(&scales).map(|(gain, scale)| (gain * scale).abs()).fold(0.0, f64::max);
        // Where nothing is gained, what is missed is all that counts.
        let largest = if largest > 0.0 { largest } else { 1.0 };
        let sizes: Vec<f64> = self.rows.iter().map(|row| self.size_of(row)).collect();
        let prices: Vec<Option<Variable>> = self
            .rows
            .iter()
            .zip(&sizes)
            .enumerate()
            .map(|(place, (row, size))| {
                let at_least: f64 = row.of.iter().zip(&self.bounds).map(|(of, (low, _))| of * low).sum();
                let paid = slack.iter().find(|(of, _)| *of == place);
                let most = paid.map_or(f64::INFINITY, |(_, price)| price * size / largest);
                (*size > 0.0).then(|| problem.add_var((row.at_most - at_least) / size, (0.0, most)))
            })
            .collect();
        for at in 0..self.bounds.len() {
            let (low, high) = self.bounds[at];
            let more = problem.add_var((high - low) / scales[at], (0.0, f64::INFINITY));
            let mut terms = vec![(more, 1.0)];
            for ((row, size), price) in self.rows.iter().zip(&sizes).zip(&prices) {
                terms.extend(price.map(|price| (price, row.of[at] * scales[at] / size)));
            }
            problem.add_constraint(&terms[..], ComparisonOp::Ge, gain[at] * scales[at] / largest);
        }
        let outcome = problem.solve().ok()?;
        let solution = outcome.solution()?;
        let price = |(price, size): (&Option<Variable>, &f64)| {
            price.map_or(0.0, |price| solution.var_value(price) * largest / size)
        };
        Some(prices.iter().zip(&sizes).map(price).collect())
    }

    /// What a kilogram of a lot gains beyond the room that it takes, at these prices.
    pub(super) fn gain_beyond_price(&self, lot: usize, gain: &[f64], prices: &[f64]) -> f64 {
        gain[lot] - self.rows.iter().zip(prices).map(|(row, price)| row.of[lot] * price).sum::<f64>()
    }

    /// The largest part that a row can have: what its misses are measured by.
    pub(super) fn size_of(&self, row: &Row) -> f64 {
        let parts =
            row.of.iter().zip(self.bounds.iter().zip(&self.steps).map(scale)).map(|(of, scale)| of * scale);
        parts.fold(row.at_most.abs(), |size, of| size.max(of.abs()))
    }

    /// Whether there is anything in a mix: an empty one meets every window.
    pub(super) fn is_something(&self, solved: &Solved) -> bool {
        let heap = |kg: &dyn Fn(usize) -> f64| -> f64 {
            self.per_kg.iter().enumerate().map(|(at, one)| one.heap_volume_l * kg(at)).sum()
        };
        let nitrogen: f64 = self.per_kg.iter().zip(&solved.kg).map(|(one, kg)| one.nitrogen_kg * kg).sum();
        nitrogen > 0.0 && heap(&|at| solved.kg[at]) > NOTHING * heap(&|at| self.bounds[at].1).max(1e-9)
    }

    /// How far below its edge a row lies, as a share of its largest part; 0 at the edge.
    pub(super) fn room(&self, row: &Row, solved: &Solved) -> f64 {
        let amounts = solved.kg.iter().chain([&solved.water_l]);
        let (mut sum, mut size) = (0.0, row.at_most.abs().max(1e-12));
        for (of, amount) in row.of.iter().zip(amounts) {
            let part = of * amount;
            sum += part;
            size = size.max(part.abs());
        }
        (row.at_most - sum) / size
    }
}

/// Counted in its steps, else in what there is of it, so that a gram and ten
/// tonnes stand beside each other as numbers of one size.
fn scale((&(_, high), step): (&(f64, f64), &Option<f64>)) -> f64 {
    match step {
        Some(step) => *step,
        None if high > 0.0 && high.is_finite() => high,
        None => 1.0,
    }
}

/// Whole steps within the bounds; a least amount is rounded up, a most down.
pub(super) fn steps_within(low: f64, high: f64) -> (i32, i32) {
    let low = (low - 1e-9).ceil().clamp(0.0, 1e9) as i32;
    let high = (high + 1e-9).floor().clamp(0.0, 1e9) as i32;
    (low, high.max(low))
}

/// What a kilogram, as it is reckoned with, may bring: at the usual figures,
/// and at every corner of the box of a share of its ranges.
fn corners(lot: &Lot, caution: f64) -> Vec<Totals> {
    let usual = per_kg(lot);
    let Some(uncertainty) = lot.uncertainty.filter(|_| caution > 0.0) else { return vec![usual] };
    let density = lot.figures.density_kg_l.value;
    let mut found = vec![usual];
    for corner in 0..8_u8 {
        let pull = |bit: u8| if corner & bit == 0 { -caution } else { caution };
        let pull = Pull { richness: pull(1), carbon: pull(2), water: pull(4) };
        let figures = uncertainty.ranges.at(&lot.figures, pull);
        let weight = match uncertainty.counted {
            Counted::ByMass => 1.0,
            Counted::ByVolume => figures.density_kg_l.value / density,
        };
        found.push(Totals::default().with(per_kg(&Lot { figures, ..*lot }), weight));
    }
    found
}

/// The most that a kilogram may add to a condition.
fn worst(corners: &[Totals], of: &dyn Fn(&Totals) -> f64) -> f64 {
    corners.iter().map(of).fold(f64::NEG_INFINITY, f64::max)
}

fn rows(wanted: &Wanted, windows: &Windows, usual: &[Vec<Totals>]) -> Vec<Row> {
    let mut rows = window_rows(windows, usual);
    if let Some(band) = wanted.volume_l {
        rows.push(row(usual, RowKind::VolumeLow, &|one| -one.feeding_l(), 0.0, -band.low()));
        rows.push(row(usual, RowKind::VolumeHigh, &|one| one.heap_volume_l, 0.0, band.high()));
    }
    for (place, cap) in wanted.caps.iter().enumerate() {
        let of = usual.iter().enumerate().map(|(at, one)| {
            let per_kg = if cap.by_volume { one[0].volume_l } else { 1.0 };
            (f64::from(u8::from(cap.is_of(at, &wanted.lots[at]))) - cap.most) * per_kg
        });
        let of = of.chain([0.0]).collect();
        rows.push(Row { of, at_most: 0.0, kind: RowKind::Cap(place) });
    }
    rows
}

/// A condition for each edge of each window, held at the worst of each lot's corners.
fn window_rows(windows: &Windows, corners: &[Vec<Totals>]) -> Vec<Row> {
    let water = Totals::of_water(1.0);
    let mut rows = Vec::with_capacity(2 * ROWS.len());
    for of in &ROWS {
        let (aim, basis) = (windows.aim(of.window), windows.basis);
        let low = |one: &Totals| of.short_of(aim.low, one, basis);
        rows.push(row(corners, RowKind::Window(of.window, Edge::Low), &low, low(&water), 0.0));
        if let Some(edge) = aim.high {
            let high = |one: &Totals| of.beyond(edge, one, basis);
            rows.push(row(corners, RowKind::Window(of.window, Edge::High), &high, high(&water), 0.0));
        }
    }
    rows
}

fn row(corners: &[Vec<Totals>], kind: RowKind, of: &dyn Fn(&Totals) -> f64, water: f64, at_most: f64) -> Row {
    Row { of: corners.iter().map(|corners| worst(corners, of)).chain([water]).collect(), at_most, kind }
}
