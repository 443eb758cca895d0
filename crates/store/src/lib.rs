//! The farm's records and its log, kept in one SQLite file.
//!
//! What happened is an entry of one [`log`] that only grows; what stands is a
//! [`projection`] of it, made anew from it at any time. What a person edits is a
//! record with a version, and a change against an older one is refused with what is
//! there now; removing hides it, so that it can be brought back.
//!
//! An acknowledged write survives a `kill -9`: the journal is written ahead and
//! synced before an answer is given. One connection writes, several read. SQL stands
//! beside the module that uses it; nothing is computed here but what stands.

mod append;
pub mod batch;
pub mod compost;
mod connections;
mod data_file;
mod database;
mod error;
pub mod feed;
pub mod field_test;
pub mod ground;
pub mod heap;
pub mod held;
pub mod id;
pub mod item;
pub mod log;
pub mod lot;
pub mod material;
pub mod measure;
pub mod method;
mod migrations;
mod own;
pub mod people;
pub mod probe;
pub mod projection;
pub mod reading;
mod record;
pub mod rule;
pub mod shape;
pub mod site;
pub mod sorted_out;
pub mod stamp;
mod watch;
pub mod whose;

pub use append::{Appended, append, append_all};
pub use data_file::{Found, Holds, Lock, OpenError, look, remove_demo};
pub use database::{Store, back_up, check_file, fold_in_after};
pub use error::StoreError;
pub use migrations::bring_up_to_date as up_to_date;
pub use rusqlite::{Connection, Transaction};
