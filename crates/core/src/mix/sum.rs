//! What a mix holds: dry matter, carbon, nitrogen, water, volume, air.
//!
//! The arithmetic done once the amounts are known. Does not judge the result
//! (see [`judge`](super::judge)) and does not change amounts (see
//! [`mend`](crate::mix::mend)); each sum is laid open in [`working`](crate::mix::working).

use crate::base::fault::Fault;
use crate::base::quantity::Band;
use crate::mix::{Totals, available_share};
pub use crate::stock::{ASH_DENSITY_KG_L, ORGANIC_DENSITY_KG_L};
use crate::stock::{Checked, Figures};

/// One lot's part in a mix.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Item {
    /// Fresh mass [kg].
    pub wet_mass_kg: f64,
    /// The figures to reckon with.
    pub figures: Figures,
}

impl From<Checked<'_>> for Item {
    fn from(checked: Checked<'_>) -> Self {
        Self { wet_mass_kg: checked.wet_mass_kg, figures: checked.figures }
    }
}

/// From this share of lignin in organic matter on a material is lignin-rich [-]: coir, hulls and
/// shells lie above, straw, leaves and stalks below. Our judgement.
const LIGNIN_RICH: f64 = 0.25;

/// From this class of structure on a material holds a frame once it is wet.
pub const STRUCTURED: u8 = 2;

impl Item {
    /// Dry matter [kg]: `d = q·(1 − m)`.
    #[must_use]
    pub fn dry_matter_kg(&self) -> f64 {
        self.wet_mass_kg * self.figures.moisture.value.rest()
    }

    /// Water in it [kg]: `q·m`.
    #[must_use]
    pub fn water_kg(&self) -> f64 {
        self.wet_mass_kg * self.figures.moisture.value.get()
    }

    /// Volume of its solids themselves, without pores [L]: organic matter and ash.
    #[must_use]
    pub fn solids_l(&self) -> f64 {
        let ash = self.figures.ash.value;
        self.dry_matter_kg() * (ash.rest() / ORGANIC_DENSITY_KG_L + ash.get() / ASH_DENSITY_KG_L)
    }

    /// Nitrogen that counts [kg]: `N = d·n`; none of an inert item.
    #[must_use]
    pub fn nitrogen_kg(&self) -> f64 {
        if self.figures.inert { 0.0 } else { self.dry_matter_kg() * self.figures.nitrogen.value.get() }
    }

    /// Carbon that counts [kg]: `C = N·r`; none of an inert item.
    #[must_use]
    pub fn carbon_kg(&self) -> f64 {
        self.nitrogen_kg() * self.figures.c_n.value
    }

    /// Carbon that microbes reach within one heap [kg].
    #[must_use]
    pub fn available_carbon_kg(&self) -> f64 {
        self.carbon_kg() * available_share(&self.figures)
    }

    /// Nitrogen that counts within a heap's life [kg]: of wood, the share that decays.
    #[must_use]
    pub fn counted_nitrogen_kg(&self) -> f64 {
        self.nitrogen_kg() * self.figures.decays.value
    }

    /// Carbon that counts within a heap's life [kg]: of wood, the share that decays.
    #[must_use]
    pub fn counted_carbon_kg(&self) -> f64 {
        self.carbon_kg() * self.figures.decays.value
    }

    /// Water that it may hold and still be airy [kg], `d·w/(1 − w)`; none if not known.
    #[must_use]
    pub fn held_kg(&self) -> Option<f64> {
        let wettest = self.figures.wet_max?.value;
        Some(self.dry_matter_kg() * wettest.get() / wettest.rest().max(1e-9))
    }

    /// Whether it is poured: it fills voids and takes no room in the heap.
    #[must_use]
    pub fn is_poured(&self) -> bool {
        self.figures.settle.value <= 0.0
    }

    /// Whether it holds a frame once wet; what nothing is known of is taken to.
    #[must_use]
    pub fn is_framed(&self) -> bool {
        self.figures.structure.is_none_or(|class| class.value >= STRUCTURED)
    }

    /// Whether its carbon is locked in wood or lignin, so that a heap hardly gets at it.
    #[must_use]
    pub fn is_locked(&self) -> bool {
        let organic = self.figures.ash.value.rest().max(1e-9);
        self.figures.decays.value < 1.0 || self.figures.lignin.value.get() / organic >= LIGNIN_RICH
    }

    /// Loose volume, as counted in measures [L]: `q/ρ`.
    #[must_use]
    pub fn volume_l(&self) -> f64 {
        self.wet_mass_kg / self.figures.density_kg_l.value
    }

    /// Volume in the built, wetted, loaded heap [L]: `q/ρ·s`.
    #[must_use]
    pub fn heap_volume_l(&self) -> f64 {
        self.volume_l() * self.figures.settle.value
    }

    pub(super) fn ash_kg(&self) -> f64 {
        self.dry_matter_kg() * self.figures.ash.value.get()
    }
}

/// The figures of a mix.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MixFigures {
    /// Fresh mass of all items and the water added [kg].
    pub wet_mass_kg: f64,
    /// Dry matter, inert items too [kg].
    pub dry_matter_kg: f64,
    /// Carbon that counts [kg].
    pub carbon_kg: f64,
    /// Nitrogen that counts [kg].
    pub nitrogen_kg: f64,
    /// Carbon to nitrogen, by mass [-].
    pub c_n: f64,
    /// The same with what decays within a heap's life: of wood a share, all else whole [-].
    pub c_n_counted: f64,
    /// The same with the carbon that microbes reach [-].
    pub available_c_n: f64,
    /// Share of the carbon that is locked in wood and lignin [-].
    pub locked: f64,
    /// Water, share of fresh mass [-].
    pub moisture: f64,
    /// Loose volume of the items [L].
    pub volume_l: f64,
    /// Volume in the built heap [L].
    pub heap_volume_l: f64,
    /// Fresh mass per heap volume [kg/L].
    pub density_kg_l: f64,
    /// Air, share of the heap volume; below zero the sum has no room left [-].
    pub free_air_space: f64,
    /// Share of the loose volume that holds a frame once wet [-]; what is not known of is taken to.
    pub structured: f64,
    /// Whether that is known of anything in it.
    pub is_structure_known: bool,
    /// The wettest it may be while airy, share of fresh mass [-]; none if nothing is known of it.
    pub wet_max: Option<f64>,
}

impl MixFigures {
    /// The figures of one part, where the mix is divided in so many alike: all that is an amount is
    /// a share, all that is a ratio stays.
    #[must_use]
    pub fn share(&self, parts: u32) -> Self {
        let by = f64::from(parts.max(1));
        Self {
            wet_mass_kg: self.wet_mass_kg / by,
            dry_matter_kg: self.dry_matter_kg / by,
            carbon_kg: self.carbon_kg / by,
            nitrogen_kg: self.nitrogen_kg / by,
            volume_l: self.volume_l / by,
            heap_volume_l: self.heap_volume_l / by,
            ..*self
        }
    }
}

/// Sums a mix.
///
/// # Formula
/// ```text
/// C:N      = Σ C / Σ N                 C = N·r,  N = d·n,  d = q·(1 − m)
/// moisture = (Σ q·m + W) / (Σ q + W)
/// V        = Σ q/ρ                     loose
/// V_heap   = Σ q/ρ·s                   built, wetted, loaded
/// density  = (Σ q + W) / V_heap
/// air      = 1 − (Σ q·m + W + Σ organic/1.6 + Σ ash/2.65) / V_heap
/// counted  = Σ C·z / Σ N·z             z share that decays in a heap's life
/// framed   = Σ q/ρ of structure ≥ 2 / Σ q/ρ     without what is poured
/// wettest  = H / (H + Σ d)             H = Σ d·w/(1 − w), w the wettest of each
/// ```
/// `q` fresh mass [kg], `m` moisture, wet basis [-], `n` nitrogen per dry
/// matter [-], `r` C:N of the item [-], `ρ` loose density [kg/L], `s` settle
/// [-], `W` water added [L = kg]. Water and what is poured fill voids and take no
/// volume. Inert items keep their carbon and nitrogen out of the C:N sums.
///
/// # Source
/// Mass balance; Rynk 1992, On-Farm Composting Handbook (NRAES-54), for the
/// C:N and moisture sums; Haug 1993 for free air space and for the wettest of each
/// material; Allison 1965 for what decays of wood. Settling fractions are our
/// judgement by material group.
///
/// # Errors
/// [`FaultCode::MixEmpty`] and [`FaultCode::NoNitrogen`].
///
/// # Example
/// By hand: 100 kg straw is 88 kg dry, 0.44 kg N, 40.48 kg C; 200 kg sheep
/// manure is 76 kg dry, 1.976 kg N, 31.616 kg C; 72.096 / 2.416 = 29.84.
/// ```
/// use zymarch_core::{stock::material, mix::{self, Item}, stock};
/// let item = |id, wet_mass_kg| {
///     let figures = stock::figures(material::find(id), &stock::Own::default()).expect("in the table");
///     Item { wet_mass_kg, figures }
/// };
/// let sums = mix::sum(&[item("wheat-straw", 100.0), item("sheep-manure", 200.0)], 0.0)?;
/// assert!((sums.c_n - 29.84).abs() < 0.01);
/// # Ok::<(), zymarch_core::base::fault::Fault>(())
/// ```
pub fn sum(items: &[Item], water_l: f64) -> Result<MixFigures, Fault> {
    Totals::of_all(items).plus(Totals::of_water(water_l)).figures()
}

/// Further litres of water to three places of a moisture band.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WaterToAdd {
    /// To the dry edge.
    pub low: f64,
    /// To the middle.
    pub aim: f64,
    /// To the wet edge.
    pub high: f64,
}

/// Water still to add so that a mix reaches a moisture band [L].
///
/// # Formula
/// ```text
/// W = d / (1 − M) − q        1 kg of water = 1 L
/// ```
/// `d` dry matter [kg], `q` fresh mass with the water already in [kg], `M`
/// moisture wanted [-]. Negative: the mix is too wet for that moisture by −W.
///
/// # Source
/// Mass balance of water.
///
/// # Example
/// 40 kg dry in 60 kg fresh, to 50 %: 40 / 0.5 − 60 = 20 L.
/// ```
/// use zymarch_core::{mix::water_to_add, base::quantity::Band};
/// let water = water_to_add(40.0, 60.0, Band::new(0.50, 0.60)?);
/// assert!((water.low - 20.0).abs() < 1e-9 && (water.high - 40.0).abs() < 1e-9);
/// # Ok::<(), zymarch_core::base::fault::Fault>(())
/// ```
#[must_use]
pub fn water_to_add(dry_matter_kg: f64, wet_mass_kg: f64, moisture: Band) -> WaterToAdd {
    let to = |windows: f64| dry_matter_kg / (1.0 - windows) - wet_mass_kg;
    WaterToAdd { low: to(moisture.low()), aim: to(moisture.middle()), high: to(moisture.high()) }
}

#[cfg(test)]
mod tests;
