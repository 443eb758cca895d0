//! From what is wanted to a batch that can be built: the best mix, the method, the day.

pub mod batch;
mod formulate;
pub mod method;
pub(crate) mod part;
pub mod place;
pub mod prepare;
pub mod suit;

pub(crate) use batch::{alike, one};
pub use formulate::{formulable, formulate};
pub use part::BatchPart;
