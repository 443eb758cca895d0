//! Stock: what is on hand, how it is counted, what is known of it, what it can do harm to.
//!
//! Begins with [`material`], the table of kinds of things, and ends with a
//! [`Lot`]: an amount of one with the best figures known and the limits on how
//! much of it may go in. Knows nothing of mixes.

pub mod aging;
pub mod caution;
pub mod climate;
pub mod field_test;
mod figures;
pub mod freshness;
mod given;
pub mod ledger;
mod lot;
pub mod material;
mod materials;
pub mod measure;
mod ranges;
mod said;
pub mod say;

pub use figures::{
    ASH_DENSITY_KG_L, Figures, Measured, ORGANIC_DENSITY_KG_L, Origin, Own, OwnNature, Sourced, figures,
};
pub use given::{Given, LIMITS, OwnFigure, OwnLimit, limit};
pub use lot::Lot;
pub use materials::Materials;
pub(crate) use ranges::{ANALYSED, DRIED, WEIGHED, around};
pub use ranges::{CARBON_PLAY, Counted, Pull, Ranges, Uncertainty, ranges};
pub use said::{Checked, Said, Tested};
