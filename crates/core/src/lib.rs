//! What Zymarch knows about making compost: rules and computation, and nothing else.
//!
//! No input or output, no clock, no hidden randomness and no wording for the
//! screen: the core answers with figures, typed [findings](base::finding),
//! [faults](base::fault) and [workings](mix::working). A folder is a stage of the work,
//! and each may use those above it in this table, never those below.
//!
//! | folder | the part of the practice it holds |
//! |---|---|
//! | [`base`] | checked quantities, faults, findings, lines on the board |
//! | [`stock`] | materials, measures, cautions, small tests, freshness, and the lot |
//! | [`mix`] | sums, windows, judging, mending, correcting, how sure it is, rules of thumb |
//! | [`plan`] | methods, formulating, what suits, the heap's shape, layers, starters, preparing |
//! | [`build`] | build day: what really went in, and the rest planned anew |
//! | [`tend`] | what a heap does over time: the heat that should be, what recorded heat shows, what is wrong, what to do, how far it is |
//! | [`finish`] | what a ready heap gives, and where it goes |
//! | [`catalogue`] | materials and methods looked up: a person's own beside the book's |
//! | [`log`] | the kinds of entries that tell what happened |
//! | [`people`] | roles, and what each may do |

pub mod base;
pub mod build;
pub mod catalogue;
pub mod finish;
pub mod log;
pub mod mix;
pub mod people;
pub mod plan;
pub mod stock;
pub mod tend;
