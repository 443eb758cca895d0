//! The open formats that the command line, the API and files share.
//!
//! Each has a name with a version, is described in `docs/formats.md`, and
//! refuses bad input by naming the field. Figures here carry their unit in
//! their name and shares are percentages; inside the core they are SI and
//! fractions. This crate translates between the two: documents to core types and
//! back. It solves nothing and asks the core no questions of composting.

pub mod apply;
pub mod build;
pub mod calendar;
pub mod caution;
pub mod confidence;
pub mod correct;
pub mod diagnose;
pub mod farm;
pub mod fault;
pub mod field;
pub mod field_test;
pub mod finding;
pub mod formulate;
pub mod heat;
pub mod hygiene;
pub mod layers;
pub mod log_table;
pub mod logger;
pub mod material;
pub mod method;
pub mod mix;
pub mod picture;
pub mod recipe;
pub mod say;
pub mod senml;
mod strict;
pub mod text;
pub mod thumb;
pub mod working;
