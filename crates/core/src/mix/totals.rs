//! The one accumulator of sums: linear in the mass, so that a kilogram of each lot tells all of a mix.

use super::sum::{ASH_DENSITY_KG_L, Item, MixFigures, ORGANIC_DENSITY_KG_L};
use crate::base::fault::{Fault, FaultCode};
use crate::stock::Figures;

/// What items bring into a mix, summed: the one accumulator of sums.
///
/// Also what a kilogram of a lot brings, and what a litre of water does.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Totals {
    /// Dry matter [kg].
    pub dry_kg: f64,
    /// Water [kg].
    pub water_kg: f64,
    /// Ash [kg].
    pub ash_kg: f64,
    /// Carbon that counts [kg].
    pub carbon_kg: f64,
    /// Carbon that microbes reach [kg].
    pub available_carbon_kg: f64,
    /// Nitrogen that counts [kg].
    pub nitrogen_kg: f64,
    /// Carbon that counts within a heap's life [kg].
    pub counted_carbon_kg: f64,
    /// Nitrogen that counts within a heap's life [kg].
    pub counted_nitrogen_kg: f64,
    /// Carbon locked in wood and lignin [kg].
    pub locked_carbon_kg: f64,
    /// Water that may be held while airy, of what it is known of [kg].
    pub held_kg: f64,
    /// Dry matter of which that is known [kg].
    pub holding_kg: f64,
    /// Loose volume of what is forked, not poured [L].
    pub forked_l: f64,
    /// What of that holds a frame, or may: nothing is known of it [L].
    pub structured_l: f64,
    /// What of it is known to hold one or not [L].
    pub known_l: f64,
    /// Loose volume [L].
    pub volume_l: f64,
    /// Volume in the built heap [L].
    pub heap_volume_l: f64,
}

/// Share that holds a frame where nothing is forked in: what is poured needs none [-].
pub(crate) const UNFORKED: f64 = 1.0;

impl Totals {
    /// What an item brings.
    #[must_use]
    pub fn of(item: &Item) -> Self {
        Self {
            dry_kg: item.dry_matter_kg(),
            water_kg: item.water_kg(),
            ash_kg: item.ash_kg(),
            carbon_kg: item.carbon_kg(),
            available_carbon_kg: item.available_carbon_kg(),
            nitrogen_kg: item.nitrogen_kg(),
            counted_carbon_kg: item.counted_carbon_kg(),
            counted_nitrogen_kg: item.counted_nitrogen_kg(),
            locked_carbon_kg: if item.is_locked() { item.carbon_kg() } else { 0.0 },
            held_kg: item.held_kg().unwrap_or(0.0),
            holding_kg: if item.figures.wet_max.is_some() { item.dry_matter_kg() } else { 0.0 },
            forked_l: if item.is_poured() { 0.0 } else { item.volume_l() },
            structured_l: if item.is_poured() || !item.is_framed() { 0.0 } else { item.volume_l() },
            known_l: if item.is_poured() || item.figures.structure.is_none() { 0.0 } else { item.volume_l() },
            volume_l: item.volume_l(),
            heap_volume_l: item.heap_volume_l(),
        }
    }

    /// What a kilogram of something brings.
    #[must_use]
    pub fn of_a_kilogram(figures: &Figures) -> Self {
        Self::of(&Item { wet_mass_kg: 1.0, figures: *figures })
    }

    /// What water that is poured brings: mass, and no volume, since it fills voids.
    #[must_use]
    pub fn of_water(litres: f64) -> Self {
        Self { water_kg: litres, ..Self::default() }
    }

    /// What all items bring.
    #[must_use]
    pub fn of_all(items: &[Item]) -> Self {
        items.iter().map(Self::of).fold(Self::default(), Self::plus)
    }

    /// Fresh mass [kg].
    #[must_use]
    pub fn mass_kg(&self) -> f64 {
        self.dry_kg + self.water_kg
    }

    /// Volume of the solids themselves, without pores [L].
    #[must_use]
    pub fn solids_l(&self) -> f64 {
        (self.dry_kg - self.ash_kg) / ORGANIC_DENSITY_KG_L + self.ash_kg / ASH_DENSITY_KG_L
    }

    /// Volume in the heap of what feeds it [L], of a kilogram of one thing; none of ash, soil or char.
    #[must_use]
    pub fn feeding_l(&self) -> f64 {
        if self.nitrogen_kg > 0.0 { self.heap_volume_l } else { 0.0 }
    }

    /// Both together.
    #[must_use]
    pub fn plus(self, other: Self) -> Self {
        self.with(other, 1.0)
    }

    /// The first without the second.
    #[must_use]
    pub fn minus(self, other: Self) -> Self {
        self.with(other, -1.0)
    }

    /// So many times as much of another on top.
    #[must_use]
    pub fn with(self, other: Self, times: f64) -> Self {
        Self {
            dry_kg: self.dry_kg + times * other.dry_kg,
            water_kg: self.water_kg + times * other.water_kg,
            ash_kg: self.ash_kg + times * other.ash_kg,
            carbon_kg: self.carbon_kg + times * other.carbon_kg,
            available_carbon_kg: self.available_carbon_kg + times * other.available_carbon_kg,
            nitrogen_kg: self.nitrogen_kg + times * other.nitrogen_kg,
            counted_carbon_kg: self.counted_carbon_kg + times * other.counted_carbon_kg,
            counted_nitrogen_kg: self.counted_nitrogen_kg + times * other.counted_nitrogen_kg,
            locked_carbon_kg: self.locked_carbon_kg + times * other.locked_carbon_kg,
            held_kg: self.held_kg + times * other.held_kg,
            holding_kg: self.holding_kg + times * other.holding_kg,
            forked_l: self.forked_l + times * other.forked_l,
            structured_l: self.structured_l + times * other.structured_l,
            known_l: self.known_l + times * other.known_l,
            volume_l: self.volume_l + times * other.volume_l,
            heap_volume_l: self.heap_volume_l + times * other.heap_volume_l,
        }
    }

    /// The figures of a mix of these sums, water included.
    ///
    /// # Errors
    /// As [`sum`](super::sum()).
    pub fn figures(self) -> Result<MixFigures, Fault> {
        if self.heap_volume_l <= 0.0 {
            return Err(Fault::new(FaultCode::MixEmpty));
        }
        if self.nitrogen_kg <= 0.0 {
            return Err(Fault::new(FaultCode::NoNitrogen));
        }
        let wet_mass = self.mass_kg();
        Ok(MixFigures {
            wet_mass_kg: wet_mass,
            dry_matter_kg: self.dry_kg,
            carbon_kg: self.carbon_kg,
            nitrogen_kg: self.nitrogen_kg,
            c_n: self.carbon_kg / self.nitrogen_kg,
            c_n_counted: self.counted_carbon_kg / self.counted_nitrogen_kg,
            locked: if self.carbon_kg > 0.0 { self.locked_carbon_kg / self.carbon_kg } else { 0.0 },
            available_c_n: self.available_carbon_kg / self.nitrogen_kg,
            moisture: self.water_kg / wet_mass,
            volume_l: self.volume_l,
            heap_volume_l: self.heap_volume_l,
            density_kg_l: wet_mass / self.heap_volume_l,
            free_air_space: 1.0 - (self.water_kg + self.solids_l()) / self.heap_volume_l,
            structured: if self.forked_l > 0.0 { self.structured_l / self.forked_l } else { UNFORKED },
            is_structure_known: self.known_l > 0.0,
            wet_max: (self.holding_kg > 0.0).then(|| self.held_kg / (self.held_kg + self.holding_kg)),
        })
    }
}
