//! Finishing and using: what a ready heap gives, and where it goes.

pub mod apply;
