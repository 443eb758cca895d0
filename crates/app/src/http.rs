//! Around every request: who may ask, how bodies are read, how errors look, and
//! the web files.

pub mod asking;
pub mod body;
pub(crate) mod guard;
pub mod problem;
pub(crate) mod qr;
pub mod ways;
pub(crate) mod web;
