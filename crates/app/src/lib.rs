//! The program: a command line, a server with an HTTP API, and the web files
//! embedded in it. All rules are in `zymarch-core`; this crate only carries
//! questions to it and answers back.
//!
//! | module | holds |
//! |---|---|
//! | [`command`] | what can be called from a terminal |
//! | [`api`] | one module a kind of record: requests in, answers out |
//! | [`http`] | around every request: who may ask, how errors look, the web files |
//! | [`server`] | the server put together |
//! | [`state`] | what every request can reach |
//! | [`farm`] | loading a whole farm from a data package |
//! | [`clock`] | the time, real or fixed |

pub mod api;
pub mod clock;
pub mod command;
pub mod device;
pub mod farm;
pub mod http;
pub mod server;
pub mod state;
