//! How long a lot keeps, and what spoils first.
//!
//! Scraps, fresh dung and clippings lose nitrogen and turn foul while they
//! wait; each material of the table has the days it keeps in mild weather under
//! a roof. What spoils first should be used first.

use crate::base::words::closed_list;
use crate::stock::material::{Group, Kind, Material};

/// In months warmer than this a lot keeps half as long [degrees C].
///
/// # Source
/// Decay about doubles for each 10 K (van 't Hoff's rule); keeping days stand
/// for mild weather of about 15 degrees C.
pub const HEAT_HALVES_ABOVE_C: f64 = 25.0;

/// How a lot stands in time.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Freshness {
    /// Past its days, by so many.
    Past {
        /// Days.
        by: u32,
    },
    /// Keeps so many days more.
    Keeps {
        /// Days, 0 on the last.
        left: u32,
    },
    /// Does not spoil while it is dry.
    Lasts,
}

impl Freshness {
    /// Days left, below zero when past; none if it lasts. The least is used first.
    #[must_use]
    pub fn days_left(self) -> Option<i64> {
        match self {
            Self::Past { by } => Some(-i64::from(by)),
            Self::Keeps { left } => Some(i64::from(left)),
            Self::Lasts => None,
        }
    }
}

closed_list! {
    /// What to do with a lot that is past its days.
    Rescue {
        /// Mix it into something dry and brown today, bury it deep.
        MixDryAndBury = "mix-dry-and-bury",
        /// Cover it, mix it with dry brown; much nitrogen has gone, count on less.
        CountLessNitrogen = "count-less-nitrogen",
        /// Spread it to wilt and dry; as a dry brown it keeps.
        Wilt = "wilt",
        /// Throw it away in the heap as plain water; its life is gone.
        WetWithIt = "wet-with-it",
    }
}

/// Days a material keeps at an air temperature; none if it lasts.
///
/// # Example
/// Kitchen scraps keep 2 days in mild weather, and half as long, but a day at
/// least, in the heat.
/// ```
/// use zymarch_core::{stock::freshness::keeps_days, stock::material};
/// let scraps = material::find("vegetable-scraps").expect("in the table");
/// assert_eq!(keeps_days(scraps, Some(12.0)), Some(2));
/// assert_eq!(keeps_days(scraps, Some(28.0)), Some(1));
/// ```
#[must_use]
pub fn keeps_days(material: &Material, air_c: Option<f64>) -> Option<u32> {
    let days = u32::from(material.keeps_days?);
    let is_hot = air_c.is_some_and(|air| air > HEAT_HALVES_ABOVE_C);
    Some(if is_hot { (days / 2).max(1) } else { days })
}

/// How a lot of some age stands. A date in the future counts as today.
#[must_use]
pub fn freshness(material: &Material, age_days: i64, air_c: Option<f64>) -> Freshness {
    let Some(keeps) = keeps_days(material, air_c) else { return Freshness::Lasts };
    let age = u32::try_from(age_days.max(0)).unwrap_or(u32::MAX);
    match keeps.checked_sub(age) {
        Some(left) => Freshness::Keeps { left },
        None => Freshness::Past { by: age - keeps },
    }
}

/// What to do with a material that is past its days.
#[must_use]
pub fn rescue(material: &Material) -> Rescue {
    match (material.kind, material.group) {
        (Kind::Liquid, _) | (_, Group::Liquid | Group::Microbial) => Rescue::WetWithIt,
        (Kind::Manure, _) => Rescue::CountLessNitrogen,
        (Kind::Household, _)
        | (_, Group::Kitchen | Group::Aquatic | Group::AnimalByProduct | Group::AgroProcessing) => {
            Rescue::MixDryAndBury
        }
        (Kind::Green | Kind::Brown | Kind::Bulking | Kind::Mineral | Kind::Starter, _) => Rescue::Wilt,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::stock::material::{all, find};

    fn scraps() -> &'static Material {
        find("vegetable-scraps").expect("in the table")
    }

    #[test]
    fn scraps_go_from_kept_to_past_at_the_edge() {
        assert_eq!(freshness(scraps(), 0, None), Freshness::Keeps { left: 2 });
        assert_eq!(freshness(scraps(), 2, None), Freshness::Keeps { left: 0 });
        assert_eq!(freshness(scraps(), 3, None), Freshness::Past { by: 1 });
        assert_eq!(freshness(scraps(), -5, None), Freshness::Keeps { left: 2 });
        assert_eq!(freshness(scraps(), i64::MAX, None), Freshness::Past { by: u32::MAX - 2 });
    }

    #[test]
    fn straw_lasts() {
        assert_eq!(freshness(find("barley-straw").expect("in the table"), 900, Some(30.0)), Freshness::Lasts);
    }

    #[test]
    fn days_left_tell_what_to_use_first() {
        let left = [Freshness::Past { by: 2 }, Freshness::Keeps { left: 0 }, Freshness::Lasts]
            .map(Freshness::days_left);
        assert_eq!(left, [Some(-2), Some(0), None]);
    }

    #[test]
    fn whatever_spoils_has_a_way_out() {
        let found: Vec<_> = all().iter().filter(|m| m.keeps_days.is_some()).map(rescue).collect();
        for one in Rescue::ALL {
            assert!(found.contains(one), "{one:?} is advised for nothing");
        }
    }
}
