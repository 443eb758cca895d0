//! Mix: amounts put together, what they come to, how they stand, what would mend them.
//!
//! [`sum`] does the arithmetic once, [`window`] holds the windows it should lie
//! in as data, and all that judges, mends, corrects or doubts a mix works on
//! these two. Choosing amounts from stock is a matter of the plan.

mod available;
pub mod confidence;
pub mod correct;
pub mod judge;
pub mod mend;
pub mod step;
mod sum;
pub mod thumb;
mod totals;
pub mod window;
pub mod working;

pub use available::{CHANDLER_INTERCEPT, CHANDLER_SLOPE, available_share, particle_factor};
pub use sum::{ASH_DENSITY_KG_L, Item, MixFigures, ORGANIC_DENSITY_KG_L, WaterToAdd, sum, water_to_add};
pub use totals::Totals;
