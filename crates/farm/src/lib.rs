//! What a person can do on a farm, and what they can ask.
//!
//! Between the records and the rules: a **command** reads what stands, lets the core
//! judge, and writes entries of the log or records; a **query** reads and answers. All
//! have one shape, and everything that comes in (a browser, a terminal, a package, the
//! demo farm) goes through here:
//!
//! ```text
//! fn(&mut Transaction, &Who, Command) -> Result<Outcome, Faults>     a command
//! fn(&Transaction, Question)          -> Result<Answer, Faults>      a query
//! fn(&Catalogue, &Document)           -> Result<Answer, Faults>      asks nothing of the records
//! ```
//!
//! | stage | holds |
//! |---|---|
//! | [`stock`] | sites, measures, lots and their history, tests, materials, what was sorted out |
//! | [`mix`] | sums, workings, confidence, corrections, rules of thumb, the bench |
//! | [`plan`] | the best mix, batches, methods, which one suits, what to prepare |
//! | [`build`] | heaps: begun, laid, put right, taken from stock |
//! | [`tend`] | the log, the heat that should be, what recorded heat shows, what is wrong, what to do today |
//! | [`finish`] | harvest, compost and what it holds, where it goes and came from, heaps compared |
//! | [`people`] | who there is, and how they come in |
//! | [`access`] | who may do what, here: the gate for all that comes from outside |
//! | [`limits`] | what may be written where, for forms |
//! | [`load`] | a whole farm from a package |

pub mod access;
pub mod build;
pub mod clock;
pub mod command;
mod farm;
pub mod finish;
mod kept;
pub mod limits;
pub mod load;
pub mod mix;
pub mod people;
pub mod plan;
mod said;
pub mod stock;
pub mod tend;
mod transaction;
pub mod who;
mod words;

pub use farm::Farm;
pub use transaction::Transaction;
pub use who::{Sites, Who};
pub use words::Unit;
