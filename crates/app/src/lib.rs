//! The program: a command line, a server with an HTTP API, and the web files
//! embedded in it. What can be done and asked is in `zymarch-farm`, and the rules in
//! `zymarch-core`; this crate only carries questions there and answers back.
//!
//! | module | holds |
//! |---|---|
//! | [`command`] | what can be called from a terminal |
//! | [`api`] | one module a stage: requests in, answers out |
//! | [`http`] | around every request: who may ask, how errors look, the web files |
//! | `network` | the local network: names, certificate, the page for a phone that does not trust it yet |
//! | [`server`] | the server put together |
//! | [`state`] | what every request can reach |
//! | [`demo`] | the demo farm, as open files |
//! | [`words`] | sentences, from the same table as the screen's |

pub mod api;
pub mod command;
pub mod demo;
pub mod device;
pub mod http;
mod network;
pub mod server;
pub mod state;
pub mod words;
