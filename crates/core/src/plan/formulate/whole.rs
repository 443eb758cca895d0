//! Whole measures, found around the solver: a first answer from the best mix in any amounts, and
//! better ones from there.
//!
//! The conditions of a mix are few and its lots may be many, so that the best mix in any amounts
//! has hardly more lots between two measures than there are conditions. Rounding them breaks a
//! condition by little, and a few exchanges mend it ([`climb`]). What is left undecided is a small
//! problem, which the solver's own search is given with the rest as it is.
//!
//! What is found is held against the best in any amounts, which no whole measures can better.
//!
//! # Source
//! Balas and Zemel 1980, An algorithm for large zero-one knapsack problems, for the core of lots
//! that are worth looking at; Danna, Rothberg and Le Pape 2005, Exploring relaxation induced
//! neighborhoods, for looking around the best mix found; Lourenço, Martin and Stützle 2003,
//! Iterated local search, for going on from a disturbed one.

mod climb;
mod room;

use super::programme::{Answer, Programme, Solved};
use room::{BETTER, Room};

/// How much is made of a search.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Effort {
    /// Any mix that meets the conditions will do.
    First,
    /// The best that can be found in the time a person waits.
    Best,
}

/// Up to so many lots the solver's own search comes to an end often enough to be asked for a proof.
const FEW: usize = 30;

/// Branches the solver looks at before its search is cut short. The count, not the clock, so that
/// the same question has the same answer.
const MOST_BRANCHES: u64 = 600;

/// The same where any mix will do.
const FEWER_BRANCHES: u64 = 150;

/// So much below what any amounts would gain a mix is near enough [-].
const NEAR: f64 = 0.01;

/// Nearer than this even a search of few lots is not worth its time [-].
const CLOSE: f64 = 5e-4;

/// A mix that the solver is asked to find is better by this share of what is left to gain [-].
const WORTH_FINDING: f64 = 0.02;

/// One way of looking for a better mix.
#[derive(Debug, Clone, Copy)]
enum Look {
    /// Exchanges by threes.
    Polished,
    /// So many lots are left to the solver, within so many branches, the rest as in any amounts.
    AroundAny(usize, u64),
    /// The same, the rest as in the best mix found.
    AroundBest(usize, u64),
    /// The best mix found is disturbed so many times, and gone on from.
    Disturbed(usize),
}

/// The ways, one after the other, each with how much below what any amounts gain is near enough
/// not to take it [-]: the dear ones only where much may be missed.
const LOOKS: [(Look, f64); 6] = [
    (Look::Polished, NEAR),
    (Look::AroundAny(24, 1_200), NEAR),
    (Look::AroundBest(24, 1_200), NEAR),
    (Look::Disturbed(20), 1.5 * NEAR),
    (Look::AroundBest(36, 2_000), 3.0 * NEAR),
    (Look::Disturbed(60), 3.0 * NEAR),
];

/// The mix that gains most, in whole steps where there are any; some rows may be missed, each at
/// a price.
pub(super) fn best(programme: &Programme, gain: &[f64], slack: &[(usize, f64)], effort: Effort) -> Answer {
    if !programme.is_whole() {
        return programme.solve(gain, slack, 0);
    }
    let any = match programme.in_any_amounts().solve(gain, slack, 0) {
        Answer::Found(any) => any,
        none => return none,
    };
    let room = Room::new(programme, gain, slack);
    let most = room.worth(&any);
    Search { programme, gain, slack, any, room, most }.best(effort)
}

/// A better mix than one of whole steps, by exchanges alone; none if none of them does better.
pub(super) fn from_here(programme: &Programme, gain: &[f64], here: &Solved) -> Option<Solved> {
    let room = Room::new(programme, gain, &[]);
    room.polished(here).filter(|found| room.worth(found) > room.worth(here))
}

struct Search<'a> {
    programme: &'a Programme,
    gain: &'a [f64],
    slack: &'a [(usize, f64)],
    /// The best mix in any amounts.
    any: Solved,
    room: Room<'a>,
    /// What that gains.
    most: f64,
}

impl Search<'_> {
    fn best(&self, effort: Effort) -> Answer {
        let mut best = match self.room.near(&self.any) {
            Some(near) => self.with_the_rest(near),
            None => {
                let branches = if effort == Effort::Best { MOST_BRANCHES } else { FEWER_BRANCHES };
                match self.programme.solve(self.gain, self.slack, branches) {
                    Answer::Found(found) => found,
                    none => return none,
                }
            }
        };
        if effort == Effort::First {
            return Answer::Found(best);
        }
        let lots = self.programme.steps.iter().filter(|step| step.is_some()).count();
        if lots <= FEW && !best.is_proven && self.short(&best) > CLOSE {
            best = self.searched_out(best);
        }
        for (look, near_enough) in LOOKS {
            if best.is_proven || self.short(&best) <= near_enough {
                break;
            }
            let found = match look {
                Look::Polished => self.room.polished(&best),
                Look::AroundAny(lots, branches) => self.around(&self.any, lots, branches, &best),
                Look::AroundBest(lots, branches) => self.around(&best, lots, branches, &best),
                Look::Disturbed(times) => self.room.disturbed(&best, times),
            };
            best = self.better(best, found);
        }
        let best = self.with_the_rest(best);
        Answer::Found(Solved { is_proven: best.is_proven || self.short(&best) <= BETTER, ..best })
    }

    /// All of it put to the solver, asked for something better than what was found.
    fn searched_out(&self, best: Solved) -> Solved {
        let mut asked = self.programme.clone();
        // What is missed has its price, which is no part of what is gained.
        if self.slack.is_empty() {
            asked.least_gain = Some(self.room.worth(&best) + BETTER * self.most.abs());
        }
        match asked.solve(self.gain, self.slack, MOST_BRANCHES) {
            Answer::Impossible if self.slack.is_empty() => Solved { is_proven: true, ..best },
            Answer::Found(found) if found.is_proven => found,
            answer => self.better(best, answer.found()),
        }
    }

    /// How far a mix is from what any amounts gain, as a share of that.
    fn short(&self, solved: &Solved) -> f64 {
        (self.most - self.room.worth(solved)) / self.most.abs().max(BETTER)
    }

    fn better(&self, one: Solved, other: Option<Solved>) -> Solved {
        match other {
            Some(other) if self.short(&other) < self.short(&one) => other,
            _ => one,
        }
    }

    /// The lots that are the least decided are left to the solver, and the rest stays as it is near
    /// a mix: first those in which that mix and the one of any amounts differ.
    fn around(&self, near: &Solved, lots: usize, branches: u64, best: &Solved) -> Option<Solved> {
        let differs = |at: &usize| self.room.steps_between(*at, self.any.kg[*at], near.kg[*at]) > 0.1;
        let (differing, alike): (Vec<usize>, Vec<usize>) = self.room.undecided().partition(differs);
        let mut free: Vec<usize> = differing.into_iter().chain(alike).take(lots).collect();
        free.sort_unstable();
        let mut asked = self.programme.only(&free, &near.kg);
        let gain: Vec<f64> = free.iter().chain([&near.kg.len()]).map(|&at| self.gain[at]).collect();
        if self.slack.is_empty() {
            let rest = (0..near.kg.len()).filter(|at| free.binary_search(at).is_err());
            let of_the_rest: f64 = rest.map(|at| self.gain[at] * near.kg[at]).sum();
            let worth = self.room.worth(best);
            asked.least_gain = Some(worth + WORTH_FINDING * (self.most - worth) - of_the_rest);
        }
        let found = asked.solve(&gain, self.slack, branches).found()?;
        let mut kg = near.kg.clone();
        for (&at, &amount) in free.iter().zip(&found.kg) {
            kg[at] = amount;
        }
        self.room.polished(&Solved { kg, is_proven: false, ..found })
    }

    /// With what is counted in steps as it is, the best of what is not.
    fn with_the_rest(&self, best: Solved) -> Solved {
        let lots = self.programme.steps.len() - 1;
        if self.programme.steps[..lots].iter().all(Option::is_some) {
            return best;
        }
        let mut asked = self.programme.clone();
        for at in (0..lots).filter(|&at| self.programme.steps[at].is_some()) {
            asked.bounds[at] = (best.kg[at], best.kg[at]);
        }
        let found = asked.solve(self.gain, self.slack, MOST_BRANCHES).found();
        self.better(best, found.map(|found| Solved { is_proven: false, ..found }))
    }
}
