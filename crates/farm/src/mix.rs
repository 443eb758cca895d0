//! What a mix comes to, how it comes about, how sure it is, and what mends it.
//!
//! Nothing here reads the records: a document and the catalogue are all it takes.

pub mod bench;
mod correct;
mod say;
mod sums;
mod thumb;

pub use correct::correct;
pub use say::say;
pub use sums::{confidence, sum, working};
pub(crate) use sums::{layer_items, notes, summed};
pub use thumb::thumb;
