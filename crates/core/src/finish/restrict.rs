//! What is to be kept to after compost was used: days until harvest, crops eaten raw, seedlings.
//!
//! It follows from what was recorded of the heap's heat, and the local rule comes first. Nothing here says that
//! anything is safe: where nothing is to be kept to, the tool says only what was recorded.
//!
//! # Source
//! 120 and 90 days: 7 CFR 205.203(c)(1). Extracts kept off what is eaten raw where heat was not shown: National
//! Organic Standards Board 2004, Compost Tea Task Force Report.

use super::apply::Use;
use crate::base::words::closed_list;

closed_list! {
    /// What a place that compost goes to is.
    GroundKind {
        /// A bed.
        Bed = "bed",
        /// A field.
        Field = "field",
        /// Planting pits.
        Pits = "pits",
        /// Trees.
        Trees = "trees",
        /// A nursery: pots and trays.
        Nursery = "nursery",
        /// A lawn or meadow.
        Lawn = "lawn",
    }
}

closed_list! {
    /// What is to be kept to.
    Restriction {
        /// So long no harvest, for it was not shown hot [days].
        WaitToHarvest = "wait-to-harvest",
        /// The harvest that is planned comes before that wait is over.
        HarvestTooSoon = "harvest-too-soon",
        /// What grows there is eaten raw: not shown hot, so the local rule decides whether it may at all.
        EatenRaw = "eaten-raw",
        /// Not on leaves that are eaten raw, and made only of compost that was shown hot.
        ExtractOffLeaves = "extract-off-leaves",
        /// Not ripe as far as was recorded: it may check seedlings.
        Seedlings = "seedlings",
    }
}

/// What grows where compost goes.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Crop {
    /// What the place is.
    pub kind: GroundKind,
    /// Whether what is eaten touches the soil or its splash.
    pub touches_soil: bool,
    /// Whether it is eaten raw.
    pub is_eaten_raw: bool,
    /// Days from the use until the harvest that is planned, if one is.
    pub harvest_in_days: Option<i64>,
}

/// What was recorded of the compost.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Shown {
    /// Whether its heap was shown hot.
    pub hot: bool,
    /// Whether it was ready, as far as was recorded.
    pub ready: bool,
}

/// Something to be kept to, with its days where it has some.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Kept {
    /// What.
    pub what: Restriction,
    /// Days from the use on.
    pub days: Option<u16>,
}

/// What is to be kept to where compost goes; `wait_days` of the local rule, where what is eaten touches soil, and
/// elsewhere.
///
/// # Example
/// Not shown hot, on a bed of carrots that are pulled in 60 days.
/// ```
/// use zymarch_core::finish::apply::Use;
/// use zymarch_core::finish::restrict::{Crop, GroundKind, Restriction, Shown, restrictions};
/// let bed = Crop { kind: GroundKind::Bed, touches_soil: true, is_eaten_raw: true, harvest_in_days: Some(60) };
/// let spread = Use::Topdress { area_m2: 10.0, depth_cm: 2.0 };
/// let kept = restrictions(bed, &spread, Shown { hot: false, ready: true }, [120, 90]);
/// assert_eq!((kept[0].what, kept[0].days), (Restriction::WaitToHarvest, Some(120)));
/// assert_eq!(kept[1].what, Restriction::HarvestTooSoon);
/// assert_eq!(restrictions(bed, &spread, Shown { hot: true, ready: true }, [120, 90]), []);
/// ```
#[must_use]
pub fn restrictions(crop: Crop, of: &Use, shown: Shown, wait_days: [u16; 2]) -> Vec<Kept> {
    let mut kept = Vec::new();
    let mut keep = |what, is: bool, days| {
        if is {
            kept.push(Kept { what, days });
        }
    };
    let days = if crop.touches_soil { wait_days[0] } else { wait_days[1] };
    let too_soon = crop.harvest_in_days.is_some_and(|harvest| harvest < i64::from(days));
    keep(Restriction::WaitToHarvest, !shown.hot, Some(days));
    keep(Restriction::HarvestTooSoon, !shown.hot && too_soon, None);
    keep(Restriction::EatenRaw, !shown.hot && crop.is_eaten_raw, None);
    keep(Restriction::ExtractOffLeaves, matches!(of, Use::Extract { .. }), None);
    let is_young = crop.kind == GroundKind::Nursery || matches!(of, Use::Mix { .. });
    keep(Restriction::Seedlings, !shown.ready && is_young, None);
    kept
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    const BREW: Use = Use::Extract { volume_l: 20.0, kg_per_20_l: 1.0 };
    const MIX: Use = Use::Mix { volume_l: 100.0, compost_parts: 1.0, other_parts: 3.0 };

    fn whats(crop: Crop, of: &Use, hot: bool, ready: bool) -> Vec<Restriction> {
        let kept = restrictions(crop, of, Shown { hot, ready }, [120, 90]);
        kept.into_iter().map(|one| one.what).collect()
    }

    #[test]
    fn each_by_hand() {
        let trees =
            Crop { kind: GroundKind::Trees, touches_soil: false, is_eaten_raw: false, harvest_in_days: None };
        let rings = Use::Trees { count: 10.0, litres_each: 20.0, times_per_year: 2.0 };
        let kept = restrictions(trees, &rings, Shown { hot: false, ready: true }, [200, 30]);
        assert_eq!(kept, [Kept { what: Restriction::WaitToHarvest, days: Some(30) }], "the local rule");
        assert_eq!(whats(trees, &BREW, true, true), [Restriction::ExtractOffLeaves]);
        let nursery = Crop { kind: GroundKind::Nursery, ..trees };
        assert_eq!(whats(nursery, &rings, true, false), [Restriction::Seedlings]);
        assert_eq!(whats(trees, &MIX, true, false), [Restriction::Seedlings]);
        // The day the wait ends is the first on which may be harvested.
        let soon = |days| Crop { harvest_in_days: Some(days), ..trees };
        assert!(!whats(soon(90), &rings, false, true).contains(&Restriction::HarvestTooSoon));
        assert!(whats(soon(89), &rings, false, true).contains(&Restriction::HarvestTooSoon));
    }

    proptest! {
        /// What was shown hot never asks for more than what was not.
        #[test]
        fn heat_only_takes_away(
            kind in 0..GroundKind::ALL.len(), touches in any::<bool>(), raw in any::<bool>(), ready in any::<bool>(),
            harvest in proptest::option::of(0..400_i64),
        ) {
            let crop = Crop {
                kind: GroundKind::ALL[kind], touches_soil: touches, is_eaten_raw: raw, harvest_in_days: harvest,
            };
            for of in [BREW, MIX] {
                let cold = whats(crop, &of, false, ready);
                prop_assert!(whats(crop, &of, true, ready).iter().all(|one| cold.contains(one)));
            }
        }
    }
}
