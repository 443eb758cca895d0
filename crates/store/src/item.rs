//! One lot's part of a batch or of a heap, with its figures as they stood.

use std::collections::HashMap;

use rusqlite::{Connection, ToSql, named_params};
use serde::{Deserialize, Serialize};
use zymarch_core::stock::Own;
use zymarch_core::stock::field_test::{TestKind, TestedFigure};

use crate::error::StoreError;
use crate::held::Held;
use crate::id::{BatchId, LotId, SiteId};
use crate::own;

/// One lot's part, as it stood when it was saved.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Item {
    /// The lot it came from, if any.
    pub lot: Option<LotId>,
    /// Id in the reference table.
    pub material: String,
    /// The person's own name for it.
    pub label: Option<String>,
    /// How much.
    #[serde(flatten)]
    pub held: Held,
    /// What one measure held then [L], if counted in measures.
    pub measure_litres: Option<f64>,
    /// Figures in place of the book's.
    #[serde(default)]
    pub own: Own,
    /// Figures that tests gave, as they stood.
    #[serde(default)]
    pub tests: Vec<ItemTest>,
}

/// A figure that a test gave.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct ItemTest {
    /// Which figure.
    pub figure: TestedFigure,
    /// Its value, as the core takes it: shares, not percent.
    pub value: f64,
    /// By which test.
    pub kind: TestKind,
    /// On which day.
    pub made_on: String,
}

/// Picks the items of one batch.
const ONE: &str = "batch_id = ?1";
/// Picks those of all batches of a site that were not removed.
const OF_SITE: &str = "batch_id IN (SELECT id FROM batch WHERE site_id = ?1 AND removed_at IS NULL)";

/// The items of a batch, in order.
pub(crate) fn of_batch(conn: &Connection, batch: BatchId) -> Result<Vec<Item>, StoreError> {
    Ok(read(conn, ONE, &batch)?.remove(&batch).unwrap_or_default())
}

/// The items of every batch of a site, each in order: two questions, however many batches there are.
pub(crate) fn of_site(conn: &Connection, site: SiteId) -> Result<HashMap<BatchId, Vec<Item>>, StoreError> {
    read(conn, OF_SITE, &site)
}

fn read(conn: &Connection, picked: &str, key: &dyn ToSql) -> Result<HashMap<BatchId, Vec<Item>>, StoreError> {
    let mut statement = conn.prepare_cached(&format!(
        "SELECT batch_id, lot_id, material, label, amount, unit, measure_id, measure_litres, moisture, nitrogen,
                c_n, ash, lignin, density_kg_l, settle, chopped
         FROM batch_item WHERE {picked} ORDER BY batch_id, position"
    ))?;
    let rows = statement.query_map([key], |row| {
        let item = Item {
            lot: row.get("lot_id")?,
            material: row.get("material")?,
            label: row.get("label")?,
            held: Held::from_row(row)?,
            measure_litres: row.get("measure_litres")?,
            own: own::from_row(row)?,
            tests: Vec::new(),
        };
        Ok((row.get::<_, BatchId>("batch_id")?, item))
    })?;
    let mut items: HashMap<BatchId, Vec<Item>> = HashMap::new();
    for row in rows {
        let (batch, item) = row?;
        items.entry(batch).or_default().push(item);
    }
    let mut statement = conn.prepare_cached(&format!(
        "SELECT batch_id, position, figure, value, kind, made_on
         FROM batch_item_test WHERE {picked} ORDER BY batch_id, position, figure"
    ))?;
    let rows = statement.query_map([key], |row| {
        let test = ItemTest {
            figure: own::word(row, "figure", TestedFigure::parse)?,
            value: row.get("value")?,
            kind: own::word(row, "kind", TestKind::parse)?,
            made_on: row.get("made_on")?,
        };
        Ok((row.get::<_, BatchId>("batch_id")?, row.get::<_, i64>("position")?, test))
    })?;
    for row in rows {
        let (batch, position, test) = row?;
        let item = items.get_mut(&batch).zip(usize::try_from(position).ok());
        if let Some(item) = item.and_then(|(items, position)| items.get_mut(position)) {
            item.tests.push(test);
        }
    }
    Ok(items)
}

const INSERT: &str = "
    INSERT INTO batch_item (batch_id, position, lot_id, material, label, amount, unit, measure_id,
                            measure_litres, moisture, nitrogen, c_n, ash, lignin, density_kg_l, settle, chopped)
    VALUES (:batch, :position, :lot, :material, :label, :amount, :unit, :measure, :measure_litres, :moisture,
            :nitrogen, :c_n, :ash, :lignin, :density, :settle, :chopped)";

const INSERT_TEST: &str = "
    INSERT INTO batch_item_test (batch_id, position, figure, value, kind, made_on)
    VALUES (:batch, :position, :figure, :value, :kind, :made_on)";

/// Puts these items in place of all that a batch has.
pub(crate) fn set(conn: &Connection, batch: BatchId, items: &[Item]) -> Result<(), StoreError> {
    conn.prepare_cached("DELETE FROM batch_item WHERE batch_id = ?1")?.execute([batch])?;
    let (mut insert, mut insert_test) = (conn.prepare_cached(INSERT)?, conn.prepare_cached(INSERT_TEST)?);
    for (position, item) in (0_i64..).zip(items) {
        let (amount, unit, measure) = item.held.columns();
        insert.execute(named_params! {
            ":batch": batch, ":position": position, ":lot": item.lot, ":material": item.material,
            ":label": item.label, ":amount": amount, ":unit": unit, ":measure": measure,
            ":measure_litres": item.measure_litres, ":moisture": own::share(item.own.moisture),
            ":nitrogen": own::share(item.own.nitrogen), ":c_n": item.own.c_n,
            ":ash": own::share(item.own.ash), ":lignin": own::share(item.own.lignin),
            ":density": item.own.density_kg_l, ":settle": item.own.settle, ":chopped": item.own.chopped,
        })?;
        for test in &item.tests {
            insert_test.execute(named_params! {
                ":batch": batch, ":position": position, ":figure": test.figure.as_str(),
                ":value": test.value, ":kind": test.kind.as_str(), ":made_on": test.made_on,
            })?;
        }
    }
    Ok(())
}
