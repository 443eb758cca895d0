//! What commands on records have in common: something new, changed, removed, brought back.

use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_store::id::SiteId;

/// Something new at a site.
#[derive(Debug, Clone, PartialEq)]
pub struct Add<I, T> {
    /// Where.
    pub site: SiteId,
    /// Its id, if whoever writes it gave one; sent twice it is written once.
    pub id: Option<I>,
    /// What it is.
    pub what: T,
}

/// A change of something that was read at a version.
#[derive(Debug, Clone, PartialEq)]
pub struct Change<I, T> {
    /// What is changed.
    pub id: I,
    /// The version that was read.
    pub version: i64,
    /// What it is now.
    pub to: T,
}

/// Takes something off the list; it can be brought back.
#[derive(Debug, Clone, PartialEq)]
pub struct Remove<I>(pub I);

/// Brings back what was removed.
#[derive(Debug, Clone, PartialEq)]
pub struct Restore<I>(pub I);

/// An id that the writer of a new record may give with it, so that what is sent
/// twice is written once.
#[derive(Debug, Clone, Copy, Default, Deserialize, ToSchema)]
pub struct New<I> {
    /// UUID of version 7; one is given here if none is sent.
    #[serde(default = "none")]
    pub id: Option<I>,
}

const fn none<I>() -> Option<I> {
    None
}
