//! Finishing and using: what a ready heap gives and holds, how far it goes, and what is to be kept to after.

pub mod apply;
pub mod compare;
pub mod harvest;
pub mod lab;
pub mod nutrients;
pub mod restrict;
