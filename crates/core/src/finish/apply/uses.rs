//! What compost is used for, each kind with its size and its rates.

use serde::{Deserialize, Serialize};

use super::Compost;
use crate::base::fault::{At, Fault};
use crate::base::quantity;

/// What it is used for.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = ApplyUse))]
#[serde(tag = "kind", rename_all = "kebab-case", deny_unknown_fields)]
pub enum Use {
    /// Spread on top.
    Topdress {
        /// Of so much ground [m²].
        area_m2: f64,
        /// So deep [cm].
        depth_cm: f64,
    },
    /// Spread on a field.
    Field {
        /// Of so much ground [m²].
        area_m2: f64,
        /// So much, fresh [t/ha].
        t_per_ha: f64,
    },
    /// Put into planting pits.
    Pits {
        /// So many.
        count: f64,
        /// So much into each [L].
        litres_each: f64,
    },
    /// Spread around trees.
    Trees {
        /// So many.
        count: f64,
        /// So much to each, each time [L].
        litres_each: f64,
        /// So often a year.
        times_per_year: f64,
    },
    /// Mixed with other stuff by volume, for a nursery or pots.
    Mix {
        /// So much in all [L].
        volume_l: f64,
        /// Parts of compost.
        compost_parts: f64,
        /// Parts of the rest.
        other_parts: f64,
    },
    /// Brewed to an extract.
    Extract {
        /// So much of it [L].
        volume_l: f64,
        /// Compost for 20 litres of water [kg].
        kg_per_20_l: f64,
    },
}

/// Ground at most [m²], and pits, trees, litres.
const MOST: f64 = 1e8;

impl Use {
    /// Compost that it needs [L].
    pub(super) fn need_l(&self, compost: &Compost) -> f64 {
        match *self {
            Self::Topdress { area_m2, depth_cm } => area_m2 * depth_cm * 10.0,
            Self::Field { area_m2, t_per_ha } => t_per_ha * area_m2 / 10.0 / compost.density_kg_l,
            Self::Pits { count, litres_each } => count * litres_each,
            Self::Trees { count, litres_each, times_per_year } => count * litres_each * times_per_year,
            Self::Mix { volume_l, compost_parts, other_parts } => {
                volume_l * compost_parts / (compost_parts + other_parts)
            }
            Self::Extract { volume_l, kg_per_20_l } => volume_l / 20.0 * kg_per_20_l / compost.density_kg_l,
        }
    }

    /// Its size, in its unit: m², pits, trees, litres.
    pub(super) const fn size(&self) -> f64 {
        match *self {
            Self::Topdress { area_m2, .. } | Self::Field { area_m2, .. } => area_m2,
            Self::Pits { count, .. } | Self::Trees { count, .. } => count,
            Self::Mix { volume_l, .. } | Self::Extract { volume_l, .. } => volume_l,
        }
    }

    /// The ground that it is spread over [m²].
    pub(super) const fn area_m2(&self) -> Option<f64> {
        match *self {
            Self::Topdress { area_m2, .. } | Self::Field { area_m2, .. } => Some(area_m2),
            _ => None,
        }
    }

    /// The field of its size.
    const fn size_field(&self) -> &'static str {
        match self {
            Self::Topdress { .. } | Self::Field { .. } => "area_m2",
            Self::Pits { .. } | Self::Trees { .. } => "count",
            Self::Mix { .. } | Self::Extract { .. } => "volume_l",
        }
    }

    /// Its rates: each with its field and the most that is accepted.
    fn rates(&self) -> Vec<(&'static str, f64, f64)> {
        match *self {
            Self::Topdress { depth_cm, .. } => vec![("depth_cm", depth_cm, 100.0)],
            Self::Field { t_per_ha, .. } => vec![("t_per_ha", t_per_ha, 1000.0)],
            Self::Pits { litres_each, .. } => vec![("litres_each", litres_each, 10_000.0)],
            Self::Trees { litres_each, times_per_year, .. } => {
                vec![("litres_each", litres_each, 10_000.0), ("times_per_year", times_per_year, 366.0)]
            }
            Self::Mix { compost_parts, .. } => vec![("compost_parts", compost_parts, 1000.0)],
            Self::Extract { kg_per_20_l, .. } => vec![("kg_per_20_l", kg_per_20_l, 20.0)],
        }
    }

    /// All that is wrong with it: sizes and rates are above zero, and such as are met.
    #[must_use]
    pub fn faults(&self, at: &At<'_>) -> Vec<Fault> {
        let mut all = self.rates();
        all.insert(0, (self.size_field(), self.size(), MOST));
        let mut found: Vec<Fault> = all
            .into_iter()
            .filter_map(|(field, value, most)| {
                Some(at.key(field).put(quantity::above(value, 0.0, most).err()?))
            })
            .collect();
        if let Self::Mix { other_parts, .. } = *self
            && let Err(fault) = quantity::within(other_parts, 0.0, 1000.0)
        {
            found.push(at.key("other_parts").put(fault));
        }
        found
    }
}
