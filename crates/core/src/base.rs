//! What every stage of the work speaks: checked quantities, faults, findings,
//! lines on the board, closed lists of words.
//!
//! Nothing here knows anything of composting.

pub mod fault;
pub mod finding;
pub mod line;
pub mod origin;
pub mod quantity;
pub mod words;
