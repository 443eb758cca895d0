//! The tasks of a site or a heap as days of a calendar, and the secret addresses they are fetched from.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::people::Role;
use zymarch_store::feed::{self, Feed};
use zymarch_store::id::{HeapId, SiteId};
use zymarch_store::people::person;
use zymarch_store::people::session::Hash;
use zymarch_store::{heap, site};

use super::judge;
use super::judgement::{TaskTold, task_told};
use crate::access::Gate;
use crate::people::{Secret, hash};
use crate::transaction::at_text;
use crate::{Transaction, Who};

/// The tasks of a site, or of one heap, to be written as a calendar.
#[derive(Debug, Clone, PartialEq)]
pub struct Tasks {
    /// What the site is called.
    pub site: String,
    /// Each with its heap and its day: today of what is late.
    pub tasks: Vec<(String, Date, TaskTold)>,
}

/// A secret address, told once.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FeedMade {
    /// The path under which a calendar fetches the tasks.
    pub path: String,
}

/// Whether somebody has an address.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FeedTold {
    /// When it was made, RFC 3339; none if there is none.
    pub made_at: Option<String>,
}

/// The tasks of a site, or of one of its heaps.
///
/// # Errors
/// There is none.
pub fn tasks(tx: &Transaction<'_>, of: SiteId, only: Option<HeapId>) -> Result<Tasks, Faults> {
    let place = site::get(tx.conn, of)?;
    let mut tasks = Vec::new();
    for row in heap::of_site(tx.conn, of)?.into_iter().filter(heap::HeapRow::stands) {
        if only.is_some_and(|only| only != row.id) {
            continue;
        }
        let Ok(judged) = judge::of(tx, &row) else { continue };
        for task in &judged.tasks {
            let told = task_told(tx, row.id, &judged, task);
            let day: Date = told.on.parse().unwrap_or(tx.today);
            tasks.push((row.name.clone(), day.max(tx.today), told));
        }
    }
    tasks.sort_by(|a, b| a.1.cmp(&b.1).then_with(|| a.2.id.cmp(&b.2.id)));
    Ok(Tasks { site: place.fields.name, tasks })
}

/// The tasks of one heap.
///
/// # Errors
/// There is none.
pub fn of_heap(tx: &Transaction<'_>, id: HeapId) -> Result<Tasks, Faults> {
    let row = heap::row(tx.conn, id)?;
    tasks(tx, row.site, Some(id))
}

/// A new secret address in place of the one that somebody had.
///
/// # Errors
/// There is no such site.
pub fn make(tx: &mut Transaction<'_>, who: &Who, id: SiteId) -> Result<FeedMade, Faults> {
    site::get(tx.conn, id)?;
    let secret = Secret::for_a_device()?;
    let new = Feed { site: id, person: who.person, made_ms: tx.now.as_millisecond() };
    feed::make(tx.conn, &hash(secret.letters()), &new)?;
    Ok(FeedMade { path: format!("/api/calendar/{}", secret.letters()) })
}

/// Ends the address that somebody had.
///
/// # Errors
/// There is no such site.
pub fn end(tx: &mut Transaction<'_>, who: &Who, id: SiteId) -> Result<(), Faults> {
    site::get(tx.conn, id)?;
    Ok(feed::end(tx.conn, id, who.person, tx.now.as_millisecond())?)
}

/// Whether somebody has an address.
///
/// # Errors
/// There is no such site.
pub fn told(tx: &Transaction<'_>, who: &Who, id: SiteId) -> Result<FeedTold, Faults> {
    site::get(tx.conn, id)?;
    Ok(FeedTold { made_at: feed::made_ms(tx.conn, id, who.person)?.map(at_text) })
}

impl Gate {
    /// The tasks behind a secret address, for as long as whoever made it sees the site.
    ///
    /// # Errors
    /// There is no such address.
    pub async fn fetched(&self, secret: Hash) -> Result<(Tasks, jiff::Timestamp), Faults> {
        self.farm.ask(move |tx| fetched(tx, &secret)).await
    }
}

fn fetched(tx: &Transaction<'_>, secret: &Hash) -> Result<(Tasks, jiff::Timestamp), Faults> {
    let none = || Fault::new(FaultCode::NotFound).with("kind", "calendar");
    let feed = feed::of_secret(tx.conn, secret)?.ok_or_else(none)?;
    // Made before there were people it was this machine's; once there are, it is nobody's.
    let is_seen = match feed.person {
        None => !person::is_any(tx.conn)?,
        Some(id) => {
            let fields = person::get(tx.conn, id).map_err(|_| none())?.fields;
            fields.role == Role::Owner || fields.sites.contains(&feed.site)
        }
    };
    if !is_seen {
        return Err(none().into());
    }
    Ok((tasks(tx, feed.site, None)?, tx.now))
}
