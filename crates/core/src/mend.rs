//! The one step that would mend a mix most.
//!
//! People add or take away whole measures of what they have. Every such step is
//! tried on the sums, and the one that leaves the mix nearest its windows is
//! named, with the water that should follow it. Searching over all amounts at
//! once is another matter, formulating.

use crate::judge::{Standings, Target, standings};
use crate::mix::{Item, MixFigures, sum, water_to_add};

/// A lot that a step may be made with.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Candidate {
    /// The lot; its mass is what one step adds [kg].
    pub step: Item,
    /// Its place in the mix, if it is in already.
    pub in_mix: Option<usize>,
    /// Steps that the stock still allows.
    pub can_add: f64,
}

/// What a step is made with.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum With {
    /// The candidate at this place of the list.
    Candidate(usize),
    /// Water, in whole litres.
    Water,
}

/// A step, and where it leads.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Step {
    /// What it is made with.
    pub with: With,
    /// Steps to add; negative to take away. Litres for water.
    pub count: f64,
    /// Water that should go in after it [L]; zero if none.
    pub then_water_l: f64,
    /// The mix after the step and that water.
    pub after: MixFigures,
    /// Its standings.
    pub standings: Standings,
}

impl Step {
    /// Whether everything is in its aim afterwards.
    #[must_use]
    pub fn puts_right(&self) -> bool {
        self.standings.are_right()
    }
}

/// The most steps of one lot that are tried: beyond these, think again.
const MOST_STEPS: u32 = 12;

/// What one more step must bring to be worth the carrying, in penalty units.
const EFFORT_PER_STEP: f64 = 0.03;

/// Taking away shrinks the heap, so adding is preferred when both do.
const TAKING_AWAY: f64 = 0.15;

/// A step that leaves the mix no nearer than this share of before is no help.
const WORTH_IT: f64 = 0.95;

/// The step that mends the mix most, or none if all is right or nothing helps.
///
/// Dryness alone is mended with water to the middle of its band. Otherwise each
/// candidate is tried with up to twelve steps either way, and judged by how far
/// the mix then lies outside its aims; dryness left over does not count against
/// a step, since water follows it.
#[must_use]
pub fn best_step(items: &[Item], water_l: f64, candidates: &[Candidate], target: &Target) -> Option<Step> {
    let now = sum(items, water_l).ok()?;
    let off = distance(&now, target);
    if off <= 0.0 {
        return (now.moisture < target.moisture.low() - 1e-9).then(|| with_water(items, water_l, target))?;
    }
    let mut best: Option<(f64, Step)> = None;
    let mut consider = |cost: f64, step: Option<Step>| {
        let Some(step) = step else { return };
        let left = distance(&step.after, target);
        let rank = left + cost;
        let better = best.as_ref().is_none_or(|(so_far, _)| rank < *so_far);
        if left < off * WORTH_IT && better {
            best = Some((rank, step));
        }
    };
    consider(0.0, less_water(items, water_l, target));
    for (place, candidate) in candidates.iter().enumerate() {
        for steps in 1..=MOST_STEPS {
            let effort = EFFORT_PER_STEP * f64::from(steps);
            let count = f64::from(steps);
            consider(effort, moved(items, water_l, candidate, place, count, target));
            consider(effort + TAKING_AWAY, moved(items, water_l, candidate, place, -count, target));
        }
    }
    best.map(|(_, step)| step)
}

/// Where one more step of a candidate would put the mix.
///
/// None if the stock does not allow it or the mix has no figures then.
#[must_use]
pub fn one_more(items: &[Item], water_l: f64, candidate: &Candidate) -> Option<MixFigures> {
    let changed = change(items, candidate, 1.0)?;
    sum(&changed, water_l).ok()
}

/// How far a mix lies outside its aims; dryness is left out. One unit is the
/// width of the working margin on either side of an aim.
pub(crate) fn distance(mix: &MixFigures, target: &Target) -> f64 {
    let c_n = target.c_n_of(mix).max(1e-6);
    let carbon = if c_n < target.c_n.low() {
        (target.c_n.low() / c_n).ln() / (25.0_f64 / 20.0).ln()
    } else if c_n > target.c_n.high() {
        (c_n / target.c_n.high()).ln() / (40.0_f64 / 30.0).ln()
    } else {
        0.0
    };
    let wet = (mix.moisture - target.moisture.high()).max(0.0) / 0.05;
    let dense = (target.free_air_space_min - mix.free_air_space).max(0.0) / 0.05;
    let total = carbon + wet + dense;
    if total < 1e-9 { 0.0 } else { total }
}

fn with_water(items: &[Item], water_l: f64, target: &Target) -> Option<Step> {
    let now = sum(items, water_l).ok()?;
    let litres = water_to_add(now.dry_matter_kg, now.wet_mass_kg, target.moisture).aim.round().max(1.0);
    let after = sum(items, water_l + litres).ok()?;
    Some(Step {
        with: With::Water,
        count: litres,
        then_water_l: 0.0,
        after,
        standings: standings(&after, target),
    })
}

fn less_water(items: &[Item], water_l: f64, target: &Target) -> Option<Step> {
    let now = sum(items, water_l).ok()?;
    let to_the_middle = water_to_add(now.dry_matter_kg, now.wet_mass_kg, target.moisture).aim;
    let litres = (-to_the_middle).round().min(water_l.floor());
    if litres < 1.0 {
        return None;
    }
    let after = sum(items, water_l - litres).ok()?;
    Some(Step {
        with: With::Water,
        count: -litres,
        then_water_l: 0.0,
        after,
        standings: standings(&after, target),
    })
}

fn moved(
    items: &[Item],
    water_l: f64,
    candidate: &Candidate,
    place: usize,
    count: f64,
    target: &Target,
) -> Option<Step> {
    let changed = change(items, candidate, count)?;
    let bare = sum(&changed, water_l).ok()?;
    let need = water_to_add(bare.dry_matter_kg, bare.wet_mass_kg, target.moisture);
    let then_water_l = if need.low > 1e-9 { need.aim.round().max(1.0) } else { 0.0 };
    let after = sum(&changed, water_l + then_water_l).ok()?;
    Some(Step {
        with: With::Candidate(place),
        count,
        then_water_l,
        after,
        standings: standings(&after, target),
    })
}

fn change(items: &[Item], candidate: &Candidate, count: f64) -> Option<Vec<Item>> {
    if count > candidate.can_add + 1e-9 {
        return None;
    }
    let mass = candidate.step.wet_mass_kg * count;
    let mut changed = items.to_vec();
    match candidate.in_mix {
        Some(place) => {
            let item = changed.get_mut(place)?;
            item.wet_mass_kg += mass;
            if item.wet_mass_kg < -1e-9 {
                return None;
            }
            item.wet_mass_kg = item.wet_mass_kg.max(0.0);
        }
        None if mass > 0.0 => changed.push(Item { wet_mass_kg: mass, ..candidate.step }),
        None => return None,
    }
    Some(changed)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::material::find;
    use crate::stock::{Own, figures};

    fn item(id: &str, wet_mass_kg: f64) -> Item {
        Item { wet_mass_kg, figures: figures(find(id), &Own::default()).expect("in the table") }
    }

    fn candidate(id: &str, step_kg: f64, in_mix: Option<usize>) -> Candidate {
        Candidate { step: item(id, step_kg), in_mix, can_add: 100.0 }
    }

    fn best(items: &[Item], water_l: f64, candidates: &[Candidate]) -> Option<Step> {
        best_step(items, water_l, candidates, &Target::default())
    }

    #[test]
    fn a_brown_mix_is_mended_with_manure_and_not_with_straw() {
        let items = [item("barley-straw", 40.0), item("sheep-manure", 20.0)];
        let step = best(
            &items,
            40.0,
            &[candidate("barley-straw", 3.5, Some(0)), candidate("sheep-manure", 38.5, Some(1))],
        )
        .expect("manure helps");
        assert_eq!(step.with, With::Candidate(1));
        assert!(step.count > 0.0);
        assert!(step.puts_right(), "{:?}", step.standings);
    }

    #[test]
    fn a_green_wet_mix_is_mended_with_straw() {
        let items = [item("vegetable-scraps", 60.0), item("barley-straw", 6.0)];
        let step = best(
            &items,
            0.0,
            &[candidate("barley-straw", 3.5, Some(1)), candidate("vegetable-scraps", 6.0, Some(0))],
        )
        .expect("straw helps");
        assert_eq!(step.with, With::Candidate(0));
    }

    #[test]
    fn dryness_alone_is_mended_with_water_to_the_middle() {
        let items = [item("barley-straw", 50.0), item("sheep-manure", 90.0)];
        let step = best(&items, 0.0, &[candidate("sheep-manure", 38.5, Some(1))]).expect("it is dry");
        assert_eq!(step.with, With::Water);
        assert!((step.after.moisture - 0.55).abs() < 0.002);
        assert!(step.puts_right());
    }

    #[test]
    fn too_much_water_is_taken_back_before_straw_is_fetched() {
        let items = [item("barley-straw", 50.0), item("sheep-manure", 90.0)];
        let step = best(&items, 200.0, &[candidate("barley-straw", 3.5, Some(0))]).expect("it is wet");
        assert_eq!(step.with, With::Water);
        assert!(step.count < 0.0);
    }

    #[test]
    fn a_right_mix_needs_no_step() {
        let items = [item("barley-straw", 50.0), item("sheep-manure", 90.0)];
        assert_eq!(best(&items, 34.0, &[candidate("sheep-manure", 38.5, Some(1))]), None);
    }

    #[test]
    fn stock_that_is_used_up_is_not_offered() {
        let items = [item("barley-straw", 40.0), item("sheep-manure", 20.0)];
        let none_left = Candidate { can_add: 0.0, ..candidate("sheep-manure", 38.5, Some(1)) };
        let step = best(&items, 40.0, &[none_left]);
        assert!(step.is_none_or(|step| step.count < 0.0), "{step:?}");
    }

    #[test]
    fn nothing_is_offered_when_nothing_helps() {
        let items = [item("barley-straw", 40.0)];
        assert_eq!(best(&items, 40.0, &[candidate("wheat-straw", 3.5, None)]), None);
    }
}
