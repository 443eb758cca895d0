//! The farm's records, kept in one SQLite file.
//!
//! An acknowledged write survives a `kill -9`: the journal is written ahead and
//! synced before an answer is given. One connection writes, several read. Every
//! record carries a version, and a change against an older one is refused with
//! what is there now. Removing hides a record, so that it can be brought back.
//! SQL stands beside the module that uses it; nothing is computed here.

pub mod batch;
mod database;
mod error;
pub mod field_test;
pub mod heap;
pub mod held;
pub mod id;
pub mod item;
pub mod lot;
pub mod lot_event;
pub mod material;
pub mod measure;
pub mod method;
mod migrations;
mod own;
mod shape;
pub mod site;
pub mod sorted_out;

pub use database::{OpenError, Store};
pub use error::StoreError;
pub use rusqlite::Connection;
