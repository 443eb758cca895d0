//! What is kept of a heap, hour by hour, and what follows from it.

use super::constants::{
    CAPACITY_ASH, CAPACITY_ORGANIC, CAPACITY_WATER, DENSENS, DENSITY_ASH, DENSITY_ORGANIC, DENSITY_WATER,
    LEAST_AIR, SETTLES, SQUEEZES,
};
use super::shape::{Geometry, Surfaces};

/// Sums that are added and weighed all alike.
macro_rules! sums {
    ($(#[$doc:meta])* $name:ident { $($(#[$fdoc:meta])* $field:ident),* $(,)? }) => {
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, Default)]
        pub struct $name { $($(#[$fdoc])* pub $field: f64),* }

        impl $name {
            /// So many times as much of another on top.
            #[must_use]
            pub fn plus(&self, other: &Self, times: f64) -> Self {
                Self { $($field: self.$field + times * other.$field),* }
            }

            /// So many times as much.
            #[must_use]
            pub fn times(&self, times: f64) -> Self {
                Self { $($field: times * self.$field),* }
            }

            /// Each of them.
            pub fn each(&self) -> impl Iterator<Item = f64> {
                [$(self.$field),*].into_iter()
            }
        }
    };
}

sums! {
    /// What a zone holds.
    Zone {
        /// Organic matter that rots fast [kg].
        fast,
        /// That rots slowly [kg].
        slow,
        /// That hardly does [kg].
        resistant,
        /// Ash, and all that no microbe eats [kg].
        ash,
        /// Water [kg].
        water,
        /// Carbon of the organic matter [kg].
        carbon,
        /// Nitrogen bound in it [kg].
        organic_n,
        /// Ammoniacal nitrogen [kg].
        ammonia_n,
        /// Heat relative to 0 °C [MJ].
        heat,
    }
}

sums! {
    /// Running sums since the start.
    Totals {
        /// Oxygen used [kg].
        oxygen,
        /// Carbon dioxide made [kg].
        carbon_dioxide,
        /// Heat made [MJ].
        heat_made,
        /// Heat gone with the air [MJ].
        heat_aired,
        /// Heat gone through walls, top and ground [MJ].
        heat_conducted,
        /// Vapour gone [kg].
        vapour,
        /// Water run out [kg].
        leached,
        /// Heat run out with it [MJ].
        heat_leached,
        /// Rain taken up [kg].
        rain,
        /// Heat come with it [MJ].
        heat_rained,
        /// Water made of organic matter [kg].
        water_made,
        /// Nitrogen gone into the air [kg].
        n_vented,
        /// Nitrogen run out [kg].
        n_leached,
        /// Hours short of oxygen, each by how short.
        short_h,
    }
}

sums! {
    /// What the whole heap is by.
    Course {
        /// How far it has settled since building [-].
        settled,
        /// How well microbes reach it: 1 freshly mixed [-].
        access,
        /// How far the microbes have built up [-].
        microbes,
    }
}

/// All that is kept of a heap.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct State {
    /// Its core.
    pub core: Zone,
    /// Its shell.
    pub shell: Zone,
    /// The whole.
    pub course: Course,
    /// What went in and out.
    pub totals: Totals,
}

impl State {
    /// So many times as much of another on top.
    #[must_use]
    pub fn plus(&self, other: &Self, times: f64) -> Self {
        Self {
            core: self.core.plus(&other.core, times),
            shell: self.shell.plus(&other.shell, times),
            course: self.course.plus(&other.course, times),
            totals: self.totals.plus(&other.totals, times),
        }
    }

    /// Core and shell together.
    #[must_use]
    pub fn whole(&self) -> Zone {
        self.core.plus(&self.shell, 1.0)
    }

    /// Whether every amount that cannot be below zero is not.
    #[must_use]
    pub fn is_sound(&self) -> bool {
        let held = |zone: &Zone| Zone { heat: 0.0, ..*zone }.each().all(|of| of >= 0.0);
        held(&self.core) && held(&self.shell) && self.core.heat.is_finite() && self.shell.heat.is_finite()
    }
}

impl Zone {
    /// Organic matter [kg].
    #[must_use]
    pub const fn organic(&self) -> f64 {
        self.fast + self.slow + self.resistant
    }

    /// Dry matter [kg].
    #[must_use]
    pub const fn dry(&self) -> f64 {
        self.organic() + self.ash
    }

    /// With its water [kg].
    #[must_use]
    pub const fn wet(&self) -> f64 {
        self.dry() + self.water
    }

    /// Water, share of fresh mass [-].
    #[must_use]
    pub const fn moisture(&self) -> f64 {
        self.water / self.wet()
    }

    /// Heat capacity [MJ/K].
    #[must_use]
    pub const fn capacity(&self) -> f64 {
        CAPACITY_ORGANIC * self.organic() + CAPACITY_ASH * self.ash + CAPACITY_WATER * self.water
    }

    /// Temperature [°C].
    #[must_use]
    pub const fn temperature(&self) -> f64 {
        self.heat / self.capacity()
    }

    /// Carbon to nitrogen [-].
    #[must_use]
    pub const fn c_n(&self) -> f64 {
        self.carbon / (self.organic_n + self.ammonia_n).max(1e-9)
    }

    /// Room of the solids and the water alone [m³].
    #[must_use]
    pub const fn solid_m3(&self) -> f64 {
        self.organic() / DENSITY_ORGANIC + self.ash / DENSITY_ASH + self.water / DENSITY_WATER
    }
}

/// What changes only when something is done to the heap.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Make {
    /// How it stands.
    pub geometry: Geometry,
    /// Dry density as it was built [kg/m³].
    pub dry_density: f64,
    /// Organic matter ever put in [kg].
    pub organic_put_in: f64,
    /// Thickness of the shell [m].
    pub shell_m: f64,
}

/// How a heap stands at a moment.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Standing {
    /// Room of core and shell [m³].
    pub zone_m3: [f64; 2],
    /// Free air space of each [-].
    pub air: [f64; 2],
    /// Its surfaces.
    pub surfaces: Surfaces,
}

impl Standing {
    /// Its room [m³].
    #[must_use]
    pub const fn volume_m3(&self) -> f64 {
        self.zone_m3[0] + self.zone_m3[1]
    }
}

impl Make {
    /// The room of core and shell [m³], squeezed by what lies on them, settled and densened.
    #[must_use]
    pub fn zone_m3(&self, state: &State) -> [f64; 2] {
        let whole = state.whole();
        let load_kpa = whole.wet() * 9.81e-3 / (2.0 * self.geometry.foot_m2());
        let decayed = 1.0 - whole.organic() / self.organic_put_in;
        let base = self.dry_density * (1.0 + SETTLES[0] * state.course.settled) * (1.0 + DENSENS * decayed);
        [&state.core, &state.shell].map(|zone| {
            let [most, from_kpa, wetness] = SQUEEZES;
            let stiffness = from_kpa * (-wetness * (zone.moisture() - 0.55)).exp();
            let density = base * (1.0 + most * load_kpa / (load_kpa + stiffness));
            (zone.dry() / density).max(zone.solid_m3() / (1.0 - LEAST_AIR))
        })
    }

    /// How it stands.
    #[must_use]
    pub fn standing(&self, state: &State) -> Standing {
        let zone_m3 = self.zone_m3(state);
        let air = [1.0 - state.core.solid_m3() / zone_m3[0], 1.0 - state.shell.solid_m3() / zone_m3[1]];
        let surfaces = self.geometry.surfaces(zone_m3[0] + zone_m3[1], self.shell_m);
        Standing { zone_m3, air, surfaces }
    }
}
