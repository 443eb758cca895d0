//! What is wrong with a heap, if anything: causes, each with what speaks for it and against it, the check
//! that would decide, and what mends it, with amounts.
//!
//! What is known of a heap is looked through for [`Clue`]s: something felt, smelled, seen or read, or a
//! figure of its mix, its model or its weather. A cause is a row of `data/causes.csv` that names the clues it
//! needs, those that speak for and against it and those that rule it out. Its weight is how likely one of its
//! clues tells the truth, and less by each that speaks against: an order, and no probability that was ever
//! measured. The gravest harm comes first where several are likely.
//!
//! # Source
//! The signs and what mends them: Rynk 1992, On-Farm Composting Handbook (NRAES-54), its tables of trouble;
//! FAO 1987, Soils Bulletin 56; Cooperband 2002, The Art and Science of Composting. How much each sign weighs
//! is our judgement, held to logs of known trouble by the tests.

mod case;
mod cause;
mod clue;
mod remedy;

pub use case::{Case, Helper, Logged, Stuff};
pub use cause::{Cause, CauseCode, Check, all as causes};
pub use clue::{Clue, Found};
pub use remedy::{Act, ActKind};

/// A cause from this weight on is worth acting on [-].
pub const ACT_FROM: f64 = 0.5;
/// From this weight on a cause is strong: among such the graver comes first [-].
const STRONG: f64 = 0.6;
/// Under this weight a cause is not told [-].
const TOLD_FROM: f64 = 0.2;

/// A cause that may hold.
#[derive(Debug, Clone, PartialEq)]
pub struct Suspect {
    /// Which.
    pub code: CauseCode,
    /// How much speaks for it, 0 to 1.
    pub weight: f64,
    /// What speaks for it, the strongest first.
    pub speaks_for: Vec<Found>,
    /// What speaks against it.
    pub speaks_against: Vec<Found>,
    /// What would decide.
    pub check: Check,
    /// What mends it.
    pub remedy: Vec<Act>,
}

/// What is wrong with a heap.
#[derive(Debug, Clone, PartialEq)]
pub struct Diagnosis {
    /// Whether no cause weighs enough to act on.
    pub is_nothing_wrong: bool,
    /// Causes that may hold, the one to act on first before the others.
    pub suspects: Vec<Suspect>,
}

/// What is wrong with a heap.
///
/// # Example
/// See the tests of this module: at least two logs of each cause.
#[must_use]
pub fn diagnose(case: &Case<'_>) -> Diagnosis {
    let found = clue::all(case);
    let mut suspects: Vec<Suspect> =
        causes().iter().filter_map(|cause| suspect(cause, &found, case)).collect();
    let order = |of: &Suspect| {
        let gravity = if of.weight >= STRONG { of.code.row().gravity } else { u8::MAX };
        (gravity, -of.weight)
    };
    suspects.sort_by(|a, b| {
        let (a, b) = (order(a), order(b));
        a.0.cmp(&b.0).then(a.1.total_cmp(&b.1))
    });
    let is_nothing_wrong = !suspects.iter().any(|of| of.weight >= ACT_FROM && !of.code.row().is_harmless);
    Diagnosis { is_nothing_wrong, suspects }
}

/// A cause, if what it needs was found and nothing rules it out.
fn suspect(cause: &Cause, found: &[Found], case: &Case<'_>) -> Option<Suspect> {
    let of = |clue: Clue| found.iter().find(|one| one.clue == clue).copied();
    let holds = |group: &Vec<Clue>| group.iter().all(|clue| of(*clue).is_some());
    if !cause.needs.iter().any(holds) || cause.never.iter().any(|clue| of(*clue).is_some()) {
        return None;
    }
    let weighed = |clues: &[(Clue, f64)]| {
        let mut all: Vec<(Found, f64)> = clues
            .iter()
            .filter_map(|(clue, weight)| of(*clue).map(|one| (one, weight * one.strength)))
            .collect();
        all.sort_by(|a, b| b.1.total_cmp(&a.1));
        let doubt: f64 = all.iter().map(|(_, weight)| 1.0 - weight).product();
        (all.into_iter().map(|(one, _)| one).collect::<Vec<_>>(), doubt)
    };
    let (speaks_for, doubt) = weighed(&cause.speaks_for);
    let (speaks_against, left) = weighed(&cause.speaks_against);
    // What it cannot do without and is hardly there makes it hardly likely.
    let plainest = |group: &Vec<Clue>| {
        let each = group.iter().filter_map(|clue| of(*clue)).map(|one| one.strength);
        each.fold(1.0, f64::min)
    };
    let held = cause.needs.iter().filter(|group| holds(group)).map(plainest).fold(0.0, f64::max);
    let weight = (1.0 - doubt) * left * (0.5 + 0.5 * held);
    (weight >= TOLD_FROM).then(|| Suspect {
        code: cause.code,
        weight,
        speaks_for,
        speaks_against,
        check: cause.check,
        remedy: remedy::of(cause, case),
    })
}

#[cfg(test)]
pub(in crate::tend) mod tests;
