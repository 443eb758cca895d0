//! How much compost a use needs, how far what there is goes, and what it brings to the ground.
//!
//! Asked both ways: from the use to the compost, and from the compost to the size of the use. What it brings is
//! reckoned from a laboratory's or estimated shares of dry matter; of its nitrogen only a part comes in the
//! first season.
//!
//! # Source
//! Rates of topdressing, field, pits and pots: Rynk 1992, On-Farm Composting Handbook (NRAES-54), and FAO 1987,
//! Soils Bulletin 56. Ten to twenty in a hundred of the nitrogen in the first season: Amlinger et al. 2003, European J.
//! of Agronomy 19. 170 kg N/ha and year: Directive 91/676/EEC, annex III; a local limit comes first.

mod uses;

pub use uses::Use;

use crate::base::words::closed_list;

/// Compost, as it lies there.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Compost {
    /// Fresh mass per loose volume [kg/L].
    pub density_kg_l: f64,
    /// Water, share of fresh mass [-].
    pub moisture: f64,
    /// Nitrogen, share of dry matter [-], if it is known.
    pub nitrogen: Option<f64>,
    /// Phosphorus, the same.
    pub phosphorus: Option<f64>,
    /// Potassium, the same.
    pub potassium: Option<f64>,
    /// How much there is [L], if that is asked for.
    pub litres: Option<f64>,
    /// Salts as electric conductivity [dS/m], if they were measured.
    pub ec_ds_m: Option<f64>,
}

closed_list! {
    /// What is to be minded about a use.
    Minded {
        /// More nitrogen than the limit of a year [kg/ha].
        NitrogenLimit = "nitrogen-limit",
        /// Deeper or more than is usual [cm, t/ha].
        MuchAtOnce = "much-at-once",
        /// So much compost in a mix that its salts may harm seedlings [% of the volume].
        SaltsForSeedlings = "salts-for-seedlings",
        /// Its salts were measured and are high for seedlings [dS/m].
        SaltsMeasured = "salts-measured",
        /// It is too wet or too dry to be spread or stored well [% of water].
        Moisture = "moisture",
        /// An extract is made of compost that was shown hot only, used at once, and not on leaves eaten raw.
        ExtractCare = "extract-care",
        /// What there is does not do [L that are missing].
        NotEnough = "not-enough",
    }
}

/// Something to be minded, with its figure and the edge that it passes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Mind {
    /// What.
    pub what: Minded,
    /// Its figure.
    pub value: Option<f64>,
    /// The edge.
    pub limit: Option<f64>,
}

/// What a use needs and brings.
#[derive(Debug, Clone, PartialEq)]
pub struct Applied {
    /// Compost [L].
    pub need_l: f64,
    /// The same, fresh [kg].
    pub need_kg: f64,
    /// Nitrogen in it [kg].
    pub n_kg: Option<f64>,
    /// Phosphorus [kg].
    pub p_kg: Option<f64>,
    /// Potassium [kg].
    pub k_kg: Option<f64>,
    /// Nitrogen to the hectare, of uses that are spread over ground [kg/ha].
    pub n_kg_per_ha: Option<f64>,
    /// Nitrogen that comes in the first season, low and high [kg].
    pub first_season_n_kg: Option<[f64; 2]>,
    /// Whether what there is does.
    pub enough: Option<bool>,
    /// The size of the use that what there is would do, in the unit of the use: m², pits, trees, litres.
    pub goes_how_far: Option<f64>,
    /// What is to be minded.
    pub minds: Vec<Mind>,
}

/// Share of its nitrogen that comes in the first season [-].
pub const FIRST_SEASON: [f64; 2] = [0.10, 0.20];
/// Nitrogen in a year at most, where no local limit stands [kg/ha].
pub const N_LIMIT_KG_HA: f64 = 170.0;
/// Deeper than this is not spread at once [cm], nor more than this on a field [t/ha].
const MOST_DEPTH_CM: f64 = 5.0;
const MOST_T_PER_HA: f64 = 20.0;
/// More compost in a mix than this harms what is young by its salts, share of volume [-].
const MOST_IN_A_MIX: f64 = 0.5;
/// Salts over this harm seedlings [dS/m].
const MOST_EC: f64 = 3.5;
/// Compost is spread and kept well between these moistures [-].
const MOISTURE: [f64; 2] = [0.30, 0.60];
const M2_A_HA: f64 = 10_000.0;

/// What a use needs, what it brings, and how far what there is goes. Sizes, depths and rates are above zero.
///
/// # Formula
/// ```text
/// topdress  V = A·h·10            field  V = t·A/10/ρ        pits  V = n·v
/// trees     V = n·v·times         mix    V = V_mix·c/(c+o)   extract  V = V_brew/20·kg/ρ
/// q = V·ρ      N = q·(1 − m)·n    N/ha = N/A·10 000          first season 10 to 20 % of N
/// how far = size·V_there/V
/// ```
///
/// # Example
/// Two centimetres on forty square metres: 800 L, of 900.
/// ```
/// use zymarch_core::finish::apply::{Compost, Use, applied};
/// let compost = Compost {
///     density_kg_l: 0.55, moisture: 0.45, nitrogen: Some(0.015), phosphorus: Some(0.004),
///     potassium: Some(0.012), litres: Some(900.0), ec_ds_m: None,
/// };
/// let got = applied(&compost, &Use::Topdress { area_m2: 40.0, depth_cm: 2.0 }, 170.0);
/// assert_eq!((got.need_l, got.enough), (800.0, Some(true)));
/// assert!((got.goes_how_far.expect("is asked") - 45.0).abs() < 1e-9);
/// assert!((got.n_kg.expect("is known") - 3.63).abs() < 1e-9);
/// ```
#[must_use]
pub fn applied(compost: &Compost, of: &Use, n_limit_kg_ha: f64) -> Applied {
    let need_l = of.need_l(compost);
    let need_kg = need_l * compost.density_kg_l;
    let dry_kg = need_kg * (1.0 - compost.moisture);
    let n_kg = compost.nitrogen.map(|share| dry_kg * share);
    let n_kg_per_ha = n_kg.zip(of.area_m2()).map(|(n, area)| n / area * M2_A_HA);
    let mut applied = Applied {
        need_l,
        need_kg,
        n_kg,
        p_kg: compost.phosphorus.map(|share| dry_kg * share),
        k_kg: compost.potassium.map(|share| dry_kg * share),
        n_kg_per_ha,
        first_season_n_kg: n_kg.map(|n| FIRST_SEASON.map(|share| share * n)),
        enough: compost.litres.map(|litres| litres >= need_l * (1.0 - 1e-9)),
        goes_how_far: compost.litres.map(|litres| of.size() * litres / need_l),
        minds: Vec::new(),
    };
    applied.minds = minds(compost, of, &applied, n_limit_kg_ha);
    applied
}

fn minds(compost: &Compost, of: &Use, applied: &Applied, n_limit_kg_ha: f64) -> Vec<Mind> {
    let mut minds = Vec::new();
    let mut mind = |what, is: bool, value: Option<f64>, limit: Option<f64>| {
        if is {
            minds.push(Mind { what, value, limit });
        }
    };
    let over = |value: f64, limit: f64| value > limit * (1.0 + 1e-9);
    if let Some(n) = applied.n_kg_per_ha {
        mind(Minded::NitrogenLimit, over(n, n_limit_kg_ha), Some(n), Some(n_limit_kg_ha));
    }
    match *of {
        Use::Topdress { depth_cm, .. } => {
            mind(Minded::MuchAtOnce, over(depth_cm, MOST_DEPTH_CM), Some(depth_cm), Some(MOST_DEPTH_CM));
        }
        Use::Field { t_per_ha, .. } => {
            mind(Minded::MuchAtOnce, over(t_per_ha, MOST_T_PER_HA), Some(t_per_ha), Some(MOST_T_PER_HA));
        }
        Use::Mix { compost_parts, other_parts, .. } => {
            let share = compost_parts / (compost_parts + other_parts);
            let told = (Some(100.0 * share), Some(100.0 * MOST_IN_A_MIX));
            mind(Minded::SaltsForSeedlings, over(share, MOST_IN_A_MIX), told.0, told.1);
            let salts = compost.ec_ds_m.is_some_and(|ec| over(ec, MOST_EC));
            mind(Minded::SaltsMeasured, salts, compost.ec_ds_m, Some(MOST_EC));
        }
        Use::Extract { .. } => mind(Minded::ExtractCare, true, None, None),
        Use::Pits { .. } | Use::Trees { .. } => {}
    }
    let is_moist = (MOISTURE[0]..=MOISTURE[1]).contains(&compost.moisture);
    let edge = if compost.moisture < MOISTURE[0] { MOISTURE[0] } else { MOISTURE[1] };
    mind(Minded::Moisture, !is_moist, Some(100.0 * compost.moisture), Some(100.0 * edge));
    let missing = compost.litres.map(|litres| applied.need_l - litres);
    mind(Minded::NotEnough, applied.enough == Some(false), missing, compost.litres);
    minds
}

#[cfg(test)]
mod tests;
