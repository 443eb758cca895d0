//! One lot's part of a batch or of a heap, with its figures as they stood.

use rusqlite::{Connection, named_params};
use serde::{Deserialize, Serialize};
use zymarch_core::stock::Own;
use zymarch_core::stock::field_test::{TestKind, TestedFigure};

use crate::error::StoreError;
use crate::held::Held;
use crate::id::{BatchId, LotId};
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

/// The items of a batch, in order.
pub(crate) fn of_batch(conn: &Connection, batch: BatchId) -> Result<Vec<Item>, StoreError> {
    let mut statement = conn.prepare_cached(
        "SELECT lot_id, material, label, amount, unit, measure_id, measure_litres, moisture, nitrogen,
                c_n, ash, lignin, density_kg_l, settle, chopped
         FROM batch_item
         WHERE batch_id = :batch
         ORDER BY position",
    )?;
    let rows = statement.query_map(named_params! { ":batch": batch }, |row| {
        Ok(Item {
            lot: row.get("lot_id")?,
            material: row.get("material")?,
            label: row.get("label")?,
            held: Held::from_row(row)?,
            measure_litres: row.get("measure_litres")?,
            own: own::from_row(row)?,
            tests: Vec::new(),
        })
    })?;
    let mut items = rows.collect::<Result<Vec<_>, _>>()?;
    for (position, test) in tests(conn, batch)? {
        if let Some(item) = usize::try_from(position).ok().and_then(|position| items.get_mut(position)) {
            item.tests.push(test);
        }
    }
    Ok(items)
}

fn tests(conn: &Connection, batch: BatchId) -> Result<Vec<(i64, ItemTest)>, StoreError> {
    let mut statement = conn.prepare_cached(
        "SELECT position, figure, value, kind, made_on
         FROM batch_item_test
         WHERE batch_id = :batch
         ORDER BY position, figure",
    )?;
    let rows = statement.query_map(named_params! { ":batch": batch }, |row| {
        let test = ItemTest {
            figure: own::word(row, "figure", TestedFigure::parse)?,
            value: row.get("value")?,
            kind: own::word(row, "kind", TestKind::parse)?,
            made_on: row.get("made_on")?,
        };
        Ok((row.get("position")?, test))
    })?;
    Ok(rows.collect::<Result<_, _>>()?)
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
