//! Plan: from stock to a heap that can be built.
//!
//! A [`method`] sets the windows, [`formulate`] finds amounts within them, [`mind`]
//! says what must not go in, [`suit`] which method fits; [`heap`] gives the mix a
//! shape, [`place`] begins with the ground, [`layers`] divide it, [`starter`] and [`prepare`] say what is to be ready before.

pub mod formulate;
pub mod heap;
pub mod layers;
pub mod method;
mod methods;
pub mod mind;
pub mod place;
pub mod prepare;
pub mod starter;
pub mod suit;

pub use methods::Methods;
