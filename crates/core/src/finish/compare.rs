//! Heaps beside each other: in what they differed most, and which one did best.
//!
//! Figures of different kinds are put on one footing by what counts as a difference that a farmer would notice;
//! that yardstick is our judgement, a row each.

use crate::base::words::closed_list;

closed_list! {
    /// A figure by which heaps are compared.
    Feature {
        /// Room as it was laid [L].
        Volume = "volume",
        /// Carbon to nitrogen of what went in [-].
        CarbonToNitrogen = "c-n",
        /// Water of what went in [%].
        Moisture = "moisture",
        /// The hottest reading of the core [°C].
        Hottest = "hottest",
        /// Days with a reading of 55 °C or more.
        DaysHot = "days-hot",
        /// Turns.
        Turns = "turns",
        /// Water that was given, at building and since [L for 1000 L of heap].
        Water = "water",
        /// Work, by the method's hours [h].
        Work = "work",
        /// What was paid for what went in.
        Cost = "cost",
        /// Days from the last layer until compost was first taken out.
        DaysToHarvest = "days-to-harvest",
        /// What it gave of what was laid [%].
        Yield = "yield",
        /// Nitrogen that was kept, by the model [%].
        NitrogenKept = "nitrogen-kept",
    }
}

/// Which way is better.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Better {
    /// More is.
    More,
    /// Less is.
    Less,
    /// Neither.
    Neither,
}

struct Row {
    feature: Feature,
    /// A difference that is noticed, in its unit; none where it is a share of the larger one.
    step: Option<f64>,
    better: Better,
}

/// So much of the larger one is a difference that is noticed, where no step is told [-].
const NOTICED: f64 = 0.15;

const ROWS: [Row; 12] = [
    Row { feature: Feature::Volume, step: None, better: Better::Neither },
    Row { feature: Feature::CarbonToNitrogen, step: Some(4.0), better: Better::Neither },
    Row { feature: Feature::Moisture, step: Some(5.0), better: Better::Neither },
    Row { feature: Feature::Hottest, step: Some(4.0), better: Better::Neither },
    Row { feature: Feature::DaysHot, step: Some(3.0), better: Better::Neither },
    Row { feature: Feature::Turns, step: Some(2.0), better: Better::Neither },
    Row { feature: Feature::Water, step: None, better: Better::Neither },
    Row { feature: Feature::Work, step: None, better: Better::Less },
    Row { feature: Feature::Cost, step: None, better: Better::Less },
    Row { feature: Feature::DaysToHarvest, step: Some(10.0), better: Better::Less },
    Row { feature: Feature::Yield, step: Some(5.0), better: Better::More },
    Row { feature: Feature::NitrogenKept, step: Some(5.0), better: Better::More },
];

impl Feature {
    fn row(self) -> &'static Row {
        let row = &ROWS[self as usize];
        debug_assert!(row.feature == self);
        row
    }

    /// Which way is better.
    #[must_use]
    pub fn better(self) -> Better {
        self.row().better
    }

    /// How many noticed differences lie between the least and the most of some figures.
    fn apart(self, values: &[f64]) -> f64 {
        let (least, most) = ends(values);
        let step = self.row().step.unwrap_or(NOTICED * most.abs());
        if step > 0.0 { (most - least) / step } else { 0.0 }
    }
}

/// A heap to be compared.
#[derive(Debug, Clone, PartialEq)]
pub struct Compared {
    /// Whether it was shown hot, as far as was recorded.
    pub shown_hot: bool,
    /// Its figures, as far as they are known: each feature at most once.
    pub figures: Vec<(Feature, f64)>,
}

impl Compared {
    /// A figure of it.
    #[must_use]
    pub fn figure(&self, feature: Feature) -> Option<f64> {
        self.figures.iter().find(|(of, _)| *of == feature).map(|(_, value)| *value)
    }
}

fn ends(values: &[f64]) -> (f64, f64) {
    let least = values.iter().copied().fold(f64::INFINITY, f64::min);
    (least, values.iter().copied().fold(f64::NEG_INFINITY, f64::max))
}

/// In what heaps differed by more than is noticed, the most first.
///
/// # Example
/// Ten turns against two are further apart than 3 °C.
/// ```
/// use zymarch_core::finish::compare::{Compared, Feature, differed};
/// let heap = |turns, hottest| Compared {
///     shown_hot: false, figures: vec![(Feature::Turns, turns), (Feature::Hottest, hottest)],
/// };
/// assert_eq!(differed(&[heap(10.0, 63.0), heap(2.0, 60.0)]), [Feature::Turns]);
/// ```
#[must_use]
pub fn differed(heaps: &[Compared]) -> Vec<Feature> {
    let mut found: Vec<(Feature, f64)> = Vec::new();
    for &feature in Feature::ALL {
        let values: Vec<f64> = heaps.iter().filter_map(|heap| heap.figure(feature)).collect();
        if values.len() > 1 {
            found.push((feature, feature.apart(&values)));
        }
    }
    found.retain(|(_, apart)| *apart >= 1.0);
    found.sort_by(|a, b| b.1.total_cmp(&a.1));
    found.into_iter().map(|(feature, _)| feature).collect()
}

/// The heap that did best: shown hot before all else, then best in most of what has a better way, and not worst
/// in as much; none where nothing tells them apart.
#[must_use]
pub fn best(heaps: &[Compared]) -> Option<usize> {
    let score = |place: usize| -> i64 {
        let mut score = if heaps[place].shown_hot { 100 } else { 0 };
        for &feature in Feature::ALL {
            let sign = match feature.better() {
                Better::More => 1.0,
                Better::Less => -1.0,
                Better::Neither => continue,
            };
            let values: Vec<f64> = heaps.iter().filter_map(|heap| heap.figure(feature)).collect();
            if values.len() < 2 || feature.apart(&values) < 1.0 {
                continue;
            }
            let (least, most) = ends(&values);
            let (bad, good) = if sign > 0.0 { (least, most) } else { (most, least) };
            match heaps[place].figure(feature) {
                Some(value) if value == good => score += 1,
                Some(value) if value == bad => score -= 1,
                _ => {}
            }
        }
        score
    };
    let scores: Vec<i64> = (0..heaps.len()).map(score).collect();
    let most = scores.iter().copied().max()?;
    let first = scores.iter().position(|score| *score == most)?;
    (scores.iter().filter(|score| **score == most).count() == 1).then_some(first)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn heap(shown_hot: bool, figures: &[(Feature, f64)]) -> Compared {
        Compared { shown_hot, figures: figures.to_vec() }
    }

    #[test]
    fn the_best_is_hot_first_and_then_best_in_most() {
        use Feature::{DaysToHarvest, NitrogenKept, Yield};
        let quick = heap(false, &[(DaysToHarvest, 60.0), (Yield, 50.0), (NitrogenKept, 60.0)]);
        let slow = heap(false, &[(DaysToHarvest, 120.0), (Yield, 42.0), (NitrogenKept, 62.0)]);
        assert_eq!(best(&[slow.clone(), quick.clone()]), Some(1));
        let hot = Compared { shown_hot: true, ..slow.clone() };
        assert_eq!(best(&[hot, quick]), Some(0));
        assert_eq!(best(&[slow.clone(), slow]), None, "alike");
        assert_eq!(best(&[]), None);
    }

    #[test]
    fn what_is_not_noticed_is_no_difference() {
        let one = heap(true, &[(Feature::Volume, 1000.0), (Feature::Moisture, 55.0), (Feature::Cost, 0.0)]);
        let other = heap(true, &[(Feature::Volume, 1100.0), (Feature::Moisture, 48.0), (Feature::Cost, 0.0)]);
        assert_eq!(differed(&[one.clone(), other]), [Feature::Moisture]);
        assert_eq!(differed(&[one]), []);
    }
}
