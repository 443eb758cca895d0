//! What there is on the farm: where it lies, what it is carried in, what is known of it.

pub mod field_test;
pub mod history;
mod known;
pub mod lot;
pub mod material;
pub mod material_file;
pub mod measure;
pub mod on_hand;
pub mod site;
pub mod sorted_out;
pub(crate) mod taken;
mod tested;

pub(crate) use known::{Known, age_days};
