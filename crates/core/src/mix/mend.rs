//! The one step that would mend a mix most.
//!
//! People add or take away whole measures of what they have. Every such step is
//! tried on the sums, and the one that leaves the mix nearest its windows is
//! named, with the water that should follow it. Searching over all amounts at
//! once is another matter, formulating.

use crate::mix::window::{Standings, Window, Windows};
use crate::mix::{Item, MixFigures, Totals, sum, water_to_add};
use crate::stock::Lot;

/// A lot that a mix may be mended with, in its steps.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Candidate {
    /// The lot, with one step of it and the most that may still go in.
    pub lot: Lot,
    /// Its place in the mix, if it is in already.
    pub in_mix: Option<usize>,
}

/// What a mix is mended with.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum With {
    /// The candidate at this place of the list.
    Candidate(usize),
    /// Water, in whole litres.
    Water,
}

/// A change of a mix by so many steps, and where it leads.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Mend {
    /// What it is made with.
    pub with: With,
    /// Steps to add; negative to take away. Litres for water.
    pub count: f64,
    /// Water that should go in after it [L]; zero if none.
    pub then_water_l: f64,
    /// The mix after that and the water.
    pub after: MixFigures,
    /// Where it then stands.
    pub standings: Standings,
}

impl Mend {
    /// Whether everything is in its aim afterwards.
    #[must_use]
    pub fn puts_right(&self) -> bool {
        self.standings.are_right()
    }
}

/// The most steps of one lot that are tried: beyond these, think again.
const MOST_STEPS: u32 = 12;

/// What one more step must bring to be worth the carrying, in margins.
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
pub fn best(items: &[Item], water_l: f64, candidates: &[Candidate], windows: &Windows) -> Option<Mend> {
    let now = sum(items, water_l).ok()?;
    let off = windows.distance(&now, false);
    if off <= 0.0 {
        let is_dry = windows.standing(Window::Moisture, &now).is_below();
        let water = is_dry.then(|| more_water(items, water_l, windows)).flatten();
        return water.map(|tried| tried.mend(windows));
    }
    let totals = Totals::of_all(items).plus(Totals::of_water(water_l));
    let mut found: Option<(f64, Tried)> = None;
    let mut consider = |cost: f64, change: &dyn Fn() -> Option<Tried>| {
        // What costs as much as the best so far leaves is no better even where it puts all right.
        if found.as_ref().is_some_and(|(so_far, _)| cost >= *so_far) {
            return;
        }
        let Some(tried) = change() else { return };
        let left = windows.distance(&tried.after, false);
        // What is quickest to tell is asked first: most of what is tried comes no nearer.
        let is_better = found.as_ref().is_none_or(|(so_far, _)| left + cost < *so_far);
        let helps = left < off * WORTH_IT && is_better;
        if helps && !windows.pushes_out(&now, &tried.after) && windows.shows(&now, &tried.after) {
            found = Some((left + cost, tried));
        }
    };
    consider(0.0, &|| less_water(items, water_l, windows));
    for (place, candidate) in candidates.iter().enumerate() {
        let trial = Trial::of(totals, items, candidate);
        for steps in 1..=MOST_STEPS {
            let effort = EFFORT_PER_STEP * f64::from(steps);
            let count = f64::from(steps);
            consider(effort, &|| trial.tried(place, count, windows));
            consider(effort + TAKING_AWAY, &|| trial.tried(place, -count, windows));
        }
    }
    found.map(|(_, tried)| tried.mend(windows))
}

/// Where one more step of a candidate would put the mix.
///
/// None if the stock does not allow it or the mix has no figures then.
#[must_use]
pub fn one_more(items: &[Item], water_l: f64, candidate: &Candidate) -> Option<MixFigures> {
    let totals = Totals::of_all(items).plus(Totals::of_water(water_l));
    Trial::of(totals, items, candidate).after(1.0)?.figures().ok()
}

fn more_water(items: &[Item], water_l: f64, windows: &Windows) -> Option<Tried> {
    let now = sum(items, water_l).ok()?;
    let need = water_to_add(now.dry_matter_kg, now.wet_mass_kg, windows.moisture());
    with_water(items, water_l, need.aim.round().max(1.0))
}

fn less_water(items: &[Item], water_l: f64, windows: &Windows) -> Option<Tried> {
    let now = sum(items, water_l).ok()?;
    let to_the_middle = water_to_add(now.dry_matter_kg, now.wet_mass_kg, windows.moisture()).aim;
    let litres = (-to_the_middle).round().min(water_l.floor());
    (litres >= 1.0).then(|| with_water(items, water_l, -litres)).flatten()
}

fn with_water(items: &[Item], water_l: f64, count: f64) -> Option<Tried> {
    let after = sum(items, water_l + count).ok()?;
    Some(Tried { with: With::Water, count, then_water_l: 0.0, after })
}

/// A change that was tried, and the mix after it.
struct Tried {
    with: With,
    count: f64,
    then_water_l: f64,
    after: MixFigures,
}

impl Tried {
    fn mend(self, windows: &Windows) -> Mend {
        let Self { with, count, then_water_l, after } = self;
        Mend { with, count, then_water_l, standings: windows.standings(&after), after }
    }
}

/// A candidate, tried on the sums of a mix.
struct Trial {
    totals: Totals,
    step: Totals,
    /// Steps of it that are in the mix, and so may be taken away.
    in_mix: f64,
    can_add: f64,
}

impl Trial {
    fn of(totals: Totals, items: &[Item], candidate: &Candidate) -> Self {
        let step_kg = candidate.lot.step_kg.unwrap_or(1.0);
        let in_mix = candidate.in_mix.and_then(|place| items.get(place)).map_or(0.0, |item| item.wet_mass_kg);
        Self {
            totals,
            step: Totals::of(&Item { wet_mass_kg: step_kg, figures: candidate.lot.figures }),
            in_mix: in_mix / step_kg,
            can_add: candidate.lot.most_kg / step_kg,
        }
    }

    fn after(&self, count: f64) -> Option<Totals> {
        let is_possible = count <= self.can_add + 1e-9 && -count <= self.in_mix + 1e-9;
        is_possible.then(|| self.totals.with(self.step, count))
    }

    fn tried(&self, place: usize, count: f64, windows: &Windows) -> Option<Tried> {
        let bare = self.after(count)?;
        let need = water_to_add(bare.dry_kg, bare.mass_kg(), windows.moisture());
        let then_water_l = if need.low > 1e-9 { need.aim.round().max(1.0) } else { 0.0 };
        let after = bare.plus(Totals::of_water(then_water_l)).figures().ok()?;
        Some(Tried { with: With::Candidate(place), count, then_water_l, after })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::stock::material::{Kind, find};
    use crate::stock::{Own, figures};

    fn item(id: &str, wet_mass_kg: f64) -> Item {
        Item { wet_mass_kg, figures: figures(find(id), &Own::default()).expect("in the table") }
    }

    fn candidate(id: &str, step_kg: f64, in_mix: Option<usize>) -> Candidate {
        let figures = item(id, step_kg).figures;
        let lot = Lot::up_to(100.0 * step_kg, figures, Kind::Brown).in_steps(Some(step_kg));
        Candidate { lot, in_mix }
    }

    fn best(items: &[Item], water_l: f64, candidates: &[Candidate]) -> Option<Mend> {
        super::best(items, water_l, candidates, &Windows::default())
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
        let sheep = candidate("sheep-manure", 38.5, Some(1));
        let none_left = Candidate { lot: Lot { most_kg: 0.0, ..sheep.lot }, ..sheep };
        let step = best(&items, 40.0, &[none_left]);
        assert!(step.is_none_or(|step| step.count < 0.0), "{step:?}");
    }

    #[test]
    fn nothing_is_offered_when_nothing_helps() {
        let items = [item("barley-straw", 40.0)];
        assert_eq!(best(&items, 40.0, &[candidate("wheat-straw", 3.5, None)]), None);
    }

    /// Mixes whose C:N lies far off, and steps so small that it stays the same as it is said: whatever
    /// is advised must show in a figure that was wrong.
    #[test]
    fn advice_that_rounds_to_nothing_is_not_given() {
        for straw in [60.0, 100.0, 200.0, 400.0] {
            let items = [item("barley-straw", straw), item("sheep-manure", 60.0)];
            let spoon = candidate("sheep-manure", 0.01, Some(1));
            let water_l = straw * 1.2;
            let Some(step) = best(&items, water_l, &[spoon]) else { continue };
            let before = sum(&items, water_l).expect("has nitrogen");
            assert!(Windows::default().shows(&before, &step.after), "{straw}: {step:?}");
        }
    }

    #[test]
    fn a_mix_that_is_said_to_lie_on_its_edge_is_right() {
        // Straw so much that the C:N is a hair above 30, as it is said 30.
        let dung = item("sheep-manure", 90.0);
        let straw = (0..100_000)
            .map(|step| 50.0 + f64::from(step) * 0.001)
            .find(|&kg| sum(&[item("barley-straw", kg), dung], 40.0).is_ok_and(|mix| mix.c_n_counted > 30.01))
            .expect("crosses it");
        let items = [item("barley-straw", straw), dung];
        let water_l = 36.0;
        assert_eq!(best(&items, water_l, &[candidate("sheep-manure", 38.5, Some(1))]), None);
    }
}
