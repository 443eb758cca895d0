//! How far each heap is: what it was begun as, what was laid, what is to come.

use rusqlite::{Connection, named_params};
use zymarch_core::build::Stand;

use super::Standing;
use crate::error::StoreError;
use crate::id::HeapId;
use crate::item::Item;
use crate::log::{Begun, Body, Entry, Harvested, Step};

/// A heap as its entries leave it.
#[derive(Debug, Clone, PartialEq)]
pub struct HeapStand {
    /// As it was begun.
    pub begun: Begun,
    /// What may go in, with what nobody had planned.
    pub items: Vec<Item>,
    /// All steps as they were planned when they were laid, and those to come.
    pub plan: Vec<Step>,
    /// What was laid of them, from the ground up.
    pub laid: Vec<Step>,
    /// When the last of them was [ms]; none before the first.
    pub built_ms: Option<i64>,
    /// What was put in afterwards.
    pub added: Vec<Item>,
    /// What was taken out as compost, in order: when [ms], and what.
    pub harvested: Vec<(i64, Harvested)>,
    /// When all of it was taken out [ms]; none while some is left.
    pub emptied_ms: Option<i64>,
}

impl HeapStand {
    /// What entries that stand come to, in the order in which they happened; none
    /// if the heap was not begun.
    ///
    /// An act that does not fit, such as a step laid before the one below it, changes
    /// nothing: what it fits to may arrive yet.
    #[must_use]
    pub fn of<'a>(entries: impl IntoIterator<Item = &'a Entry> + Clone) -> Option<Self> {
        let begun = entries.clone().into_iter().find_map(|entry| match &entry.body {
            Body::Begun(begun) => Some(begun.clone()),
            _ => None,
        })?;
        let mut stand = Self::begun(begun);
        for entry in entries {
            stand.after(entry);
        }
        Some(stand)
    }

    /// A heap that was begun, and nothing more.
    #[must_use]
    pub fn begun(begun: Begun) -> Self {
        Self {
            items: begun.items.clone(),
            plan: begun.steps.clone(),
            laid: Vec::new(),
            built_ms: None,
            added: Vec::new(),
            harvested: Vec::new(),
            emptied_ms: None,
            begun,
        }
    }

    fn after(&mut self, entry: &Entry) {
        match &entry.body {
            Body::Planned { from, steps } => self.plan(*from, steps),
            Body::Ended { from } => self.plan(*from, &[]),
            Body::Laid(laid) => {
                let at = laid.at as usize;
                let place = Stand::place(at, self.laid.len(), self.plan.len());
                let known = self.items.len() + laid.items.len();
                if laid.step.portions.iter().any(|portion| portion.item as usize >= known) {
                    return;
                }
                match place {
                    Some(place) if place == self.laid.len() => {
                        self.laid.push(laid.step.clone());
                        self.built_ms = Some(entry.at_ms);
                    }
                    Some(place) => self.laid[place] = laid.step.clone(),
                    None => return,
                }
                self.items.extend(laid.items.iter().cloned());
            }
            Body::Harvested(of) => {
                self.harvested.push((entry.at_ms, of.clone()));
                if of.is_last {
                    self.emptied_ms = Some(entry.at_ms);
                }
            }
            Body::Tended(of) => self.added.extend(of.what.items().iter().cloned()),
            _ => {}
        }
    }

    fn plan(&mut self, from: u32, steps: &[Step]) {
        let from = from as usize;
        if from >= self.laid.len() && from <= self.plan.len() {
            self.plan.truncate(from);
            self.plan.extend(steps.iter().cloned());
        }
    }

    /// What is to come.
    #[must_use]
    pub fn rest(&self) -> &[Step] {
        &self.plan[self.laid.len()..]
    }
}

const PUT: &str = "
    INSERT INTO heap (id, site_id, batch_id, name, method, begun_ms, changed_ms, taken_ms, head, version, laid,
                      planned, built_ms, emptied_ms)
    VALUES (:id, :site, :batch, :name, :method, :begun, :changed, :taken, :head, :version, :laid,
            :planned, :built, :emptied)";

pub(super) fn refresh(conn: &Connection, id: HeapId, standing: &Standing) -> Result<(), StoreError> {
    conn.prepare_cached("DELETE FROM heap WHERE id = ?1")?.execute([id])?;
    let (Some(first), Some(last)) = (standing.entries.first(), standing.entries.last()) else {
        return Ok(());
    };
    if standing.is_removed() {
        return Ok(());
    }
    let Some(stand) = HeapStand::of(&standing.entries) else { return Ok(()) };
    conn.prepare_cached(PUT)?.execute(named_params! {
        ":id": id, ":site": first.site, ":batch": stand.begun.batch, ":name": stand.begun.name,
        ":method": stand.begun.method, ":begun": first.at_ms, ":changed": last.at_ms,
        ":taken": standing.taken_ms(), ":head": standing.head,
        ":version": i64::try_from(standing.count).unwrap_or(i64::MAX),
        ":laid": stand.laid.len() as i64, ":planned": stand.plan.len() as i64,
        ":built": stand.built_ms, ":emptied": stand.emptied_ms,
    })?;
    Ok(())
}
