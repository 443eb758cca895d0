//! One lot's part of a batch or of a heap, with its figures as they stood.

use rusqlite::{Connection, named_params};
use zymarch_core::field_test::{TestKind, TestedFigure};
use zymarch_core::stock::Own;

use crate::error::StoreError;
use crate::held::Held;
use crate::id::LotId;
use crate::own;

/// One lot's part, as it stood when it was saved.
#[derive(Debug, Clone, PartialEq)]
pub struct Item {
    /// The lot it came from, if any.
    pub lot: Option<LotId>,
    /// Id in the reference table.
    pub material: String,
    /// The person's own name for it.
    pub label: Option<String>,
    /// How much.
    pub held: Held,
    /// What one measure held then [L], if counted in measures.
    pub measure_litres: Option<f64>,
    /// Figures in place of the book's.
    pub own: Own,
    /// Figures that tests gave, as they stood.
    pub tests: Vec<ItemTest>,
}

/// A figure that a test gave.
#[derive(Debug, Clone, PartialEq)]
pub struct ItemTest {
    /// Which figure.
    pub figure: TestedFigure,
    /// Its value, as the core takes it.
    pub value: f64,
    /// By which test.
    pub kind: TestKind,
    /// On which day.
    pub made_on: String,
}

/// The tables that hold the items of one kind of record.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Items {
    /// What has them: `batch` or `heap`.
    pub(crate) of: &'static str,
}

impl Items {
    /// The items of a record, in order.
    pub(crate) fn of(self, conn: &Connection, owner: i64) -> Result<Vec<Item>, StoreError> {
        let of = self.of;
        let mut statement = conn.prepare_cached(&format!(
            "SELECT lot_id, material, label, amount, unit, measure_id, measure_litres, moisture, nitrogen,
                    c_n, ash, lignin, density_kg_l, settle, chopped
             FROM {of}_item
             WHERE {of}_id = :owner
             ORDER BY position"
        ))?;
        let rows = statement.query_map(named_params! { ":owner": owner }, |row| {
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
        for (position, test) in self.tests(conn, owner)? {
            if let Some(item) = usize::try_from(position).ok().and_then(|position| items.get_mut(position)) {
                item.tests.push(test);
            }
        }
        Ok(items)
    }

    fn tests(self, conn: &Connection, owner: i64) -> Result<Vec<(i64, ItemTest)>, StoreError> {
        let of = self.of;
        let mut statement = conn.prepare_cached(&format!(
            "SELECT position, figure, value, kind, made_on
             FROM {of}_item_test
             WHERE {of}_id = :owner
             ORDER BY position, figure"
        ))?;
        let rows = statement.query_map(named_params! { ":owner": owner }, |row| {
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

    /// Adds items to a record that has so many.
    pub(crate) fn insert(
        self,
        conn: &Connection,
        owner: i64,
        after: usize,
        items: &[Item],
    ) -> Result<(), StoreError> {
        let of = self.of;
        let mut insert = conn.prepare_cached(&format!(
            "INSERT INTO {of}_item ({of}_id, position, lot_id, material, label, amount, unit, measure_id,
                                    measure_litres, moisture, nitrogen, c_n, ash, lignin, density_kg_l,
                                    settle, chopped)
             VALUES (:owner, :position, :lot, :material, :label, :amount, :unit, :measure,
                     :measure_litres, :moisture, :nitrogen, :c_n, :ash, :lignin, :density, :settle, :chopped)"
        ))?;
        let mut insert_test = conn.prepare_cached(&format!(
            "INSERT INTO {of}_item_test ({of}_id, position, figure, value, kind, made_on)
             VALUES (:owner, :position, :figure, :value, :kind, :made_on)"
        ))?;
        for (position, item) in (after as i64..).zip(items) {
            let (amount, unit, measure) = item.held.columns();
            insert.execute(named_params! {
                ":owner": owner, ":position": position, ":lot": item.lot, ":material": item.material,
                ":label": item.label, ":amount": amount, ":unit": unit, ":measure": measure,
                ":measure_litres": item.measure_litres, ":moisture": own::share(item.own.moisture),
                ":nitrogen": own::share(item.own.nitrogen), ":c_n": item.own.c_n,
                ":ash": own::share(item.own.ash), ":lignin": own::share(item.own.lignin),
                ":density": item.own.density_kg_l, ":settle": item.own.settle, ":chopped": item.own.chopped,
            })?;
            for test in &item.tests {
                insert_test.execute(named_params! {
                    ":owner": owner, ":position": position, ":figure": test.figure.as_str(),
                    ":value": test.value, ":kind": test.kind.as_str(), ":made_on": test.made_on,
                })?;
            }
        }
        Ok(())
    }

    /// Takes all items out of a record.
    pub(crate) fn clear(self, conn: &Connection, owner: i64) -> Result<(), StoreError> {
        let of = self.of;
        conn.execute(&format!("DELETE FROM {of}_item WHERE {of}_id = ?1"), [owner])?;
        Ok(())
    }
}
