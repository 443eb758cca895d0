//! What there is on the farm.

pub(super) mod field_test;
pub(super) mod lot;
pub(super) mod material;
pub(super) mod measure;
pub(super) mod scale;
pub(super) mod site;
pub(super) mod sorted_out;
