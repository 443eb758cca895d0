//! The shape of the data file, as steps that only grow.
//!
//! A step that has shipped is never edited; a change is a new step.

use rusqlite::Connection;
use rusqlite_migration::{M, Migrations};

pub(crate) const MIGRATIONS: Migrations<'static> = Migrations::from_slice(STEPS);

const STEPS: &[M<'static>] = &[
    M::up(include_str!("migrations/01-stock-and-batches.sql")),
    M::up(include_str!("migrations/02-knowing-what-is-on-hand.sql")),
    M::up(include_str!("migrations/03-prices.sql")),
    M::up(include_str!("migrations/04-shapes.sql")).foreign_key_check(),
    M::up(include_str!("migrations/05-heaps.sql")),
    M::up(include_str!("migrations/06-own-methods.sql")),
];

/// Brings a file up to date.
///
/// While a table is made anew nothing may fall with the old one, so references are
/// checked at the end instead of all along.
pub(crate) fn bring_up_to_date(conn: &mut Connection) -> rusqlite_migration::Result<()> {
    conn.pragma_update(None, "foreign_keys", "OFF")?;
    let done = MIGRATIONS.to_latest(conn);
    conn.pragma_update(None, "foreign_keys", "ON")?;
    done
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_steps_are_sound() {
        MIGRATIONS.validate().expect("every step applies after the one before");
    }

    /// A shipped step must never change: files out there were made with it.
    #[test]
    fn shipped_steps_are_as_they_were() {
        let shipped = [
            (include_str!("migrations/01-stock-and-batches.sql"), (3765, 1718942409)),
            (include_str!("migrations/02-knowing-what-is-on-hand.sql"), (5929, 1618851715)),
            (include_str!("migrations/03-prices.sql"), (181, 3348903640)),
            (include_str!("migrations/04-shapes.sql"), (2017, 2961853878)),
        ];
        for (step, was) in shipped {
            assert_eq!((step.len(), checksum(step)), was);
        }
    }

    /// A file of the first version, with a farm in it, comes up to date whole.
    #[test]
    fn an_older_file_keeps_what_it_holds() {
        let mut conn = rusqlite::Connection::open_in_memory().expect("opens");
        conn.pragma_update(None, "foreign_keys", "ON").expect("sets");
        MIGRATIONS.to_version(&mut conn, 1).expect("the first step");
        conn.execute_batch(
            "INSERT INTO site (id, name, created_at) VALUES (1, 'Velluma Terraces', '2026-03-01T08:00:00Z');
             INSERT INTO measure (id, site_id, name, plural, litres, glyph, created_at, updated_at)
             VALUES (1, 1, 'barrow', 'barrows', 70, 'barrow', 'then', 'then');
             INSERT INTO lot (id, site_id, material, amount, unit, measure_id, created_at, updated_at)
             VALUES (1, 1, 'barley-straw', 4, 'measure', 1, '2026-03-01T08:00:00Z', 'then');
             INSERT INTO batch (id, site_id, name, water_l, shape, length_cm, width_cm, height_cm, created_at, updated_at)
             VALUES (1, 1, 'Terrace heap', 72, 'box', 110, 110, 120, 'then', 'then');
             INSERT INTO batch_item (batch_id, position, lot_id, material, amount, unit, measure_id, measure_litres)
             VALUES (1, 0, 1, 'barley-straw', 4, 'measure', 1, 70);",
        )
        .expect("writes");
        bring_up_to_date(&mut conn).expect("the rest");
        let batches = crate::batch::of_site(&conn, crate::id::SiteId(1)).expect("reads");
        assert_eq!(batches[0].fields.shape.capacity_l(), 1452.0);
        assert_eq!(batches[0].fields.items.len(), 1, "an item fell with the old table");
        let checked: bool = conn.pragma_query_value(None, "foreign_keys", |row| row.get(0)).expect("reads");
        assert!(checked, "references are checked again");
        let measures = crate::measure::of_site(&conn, crate::id::SiteId(1)).expect("reads");
        assert_eq!(
            measures[0].fields,
            crate::measure::NewMeasure::of_litres("barrow", "barrows", 70.0, "barrow")
        );
        let history = crate::lot_event::of_lot(&conn, crate::id::LotId(1)).expect("reads");
        assert_eq!((history.len(), history[0].delta), (1, 4.0));
    }

    /// Adler-32 (RFC 1950): enough to notice an edit.
    fn checksum(text: &str) -> u32 {
        let (a, b) = text.bytes().fold((1_u32, 0_u32), |(a, b), byte| {
            ((a + u32::from(byte)) % 65_521, (b + a + u32::from(byte)) % 65_521)
        });
        (b << 16) | a
    }
}
