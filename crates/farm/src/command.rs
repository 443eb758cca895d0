//! What commands on records have in common: something new, changed, removed, brought back.

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
