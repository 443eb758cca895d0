//! The log of a heap as a table, to be taken along.

use jiff::Timestamp;
use zymarch_core::base::fault::Faults;
use zymarch_core::tend::entry::{ReadBy, Tended};
use zymarch_formats::log_table::{self, LogRow};
use zymarch_store::heap;
use zymarch_store::id::HeapId;
use zymarch_store::item::Item;
use zymarch_store::log::Body;

use super::series;
use crate::Transaction;
use crate::said::of_item;

/// All that was read at a heap, seen and done, with every reading that came to it, in the order of time.
///
/// # Errors
/// There is no such heap.
pub fn table(tx: &Transaction<'_>, id: HeapId) -> Result<String, Faults> {
    let heap = heap::get(tx.conn, id)?;
    let mut rows: Vec<LogRow> = Vec::new();
    let at = |ms: i64| Timestamp::from_millisecond(ms).unwrap_or_default();
    for entry in &heap.entries {
        let Body::Tended(of) = &entry.body else { continue };
        let what = of.what.clone().with_items(|items| weighed(tx, &items))?;
        rows.push(LogRow { at: at(entry.at_ms), what, note: of.note.clone() });
    }
    // What was read by hand is an entry already.
    for of in series::of(tx, &heap)?.readings.iter().filter(|of| of.source > 0) {
        let (temp_c, place, depth_cm) = (of.temp_c, of.place, of.depth_cm);
        let what = Tended::Temperature { temp_c, place, depth_cm, by: ReadBy::Probe };
        rows.push(LogRow { at: at(of.at_ms), what, note: None });
    }
    rows.sort_by_key(|row| row.at);
    Ok(log_table::write(rows)?)
}

fn weighed(tx: &Transaction<'_>, items: &[Item]) -> Result<Vec<f64>, Faults> {
    items.iter().map(|item| Ok(of_item(item, |noted| noted.item(tx.catalogue()))?.wet_mass_kg)).collect()
}
