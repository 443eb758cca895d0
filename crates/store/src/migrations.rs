//! The shape of the data file, as steps that only grow.
//!
//! A step that has shipped is never edited; a change is a new step.

use rusqlite::Connection;
use rusqlite_migration::{M, Migrations};

use crate::error::StoreError;
use crate::projection;

pub(crate) const MIGRATIONS: Migrations<'static> = Migrations::from_slice(STEPS);

const STEPS: &[M<'static>] = &[
    M::up(include_str!("migrations/01-stock-and-batches.sql")),
    M::up(include_str!("migrations/02-knowing-what-is-on-hand.sql")),
    M::up(include_str!("migrations/03-prices.sql")),
    M::up(include_str!("migrations/04-shapes.sql")).foreign_key_check(),
    M::up(include_str!("migrations/05-heaps.sql")),
    M::up(include_str!("migrations/06-own-methods.sql")),
    M::up(include_str!("migrations/07-one-log.sql")).foreign_key_check(),
    M::up(include_str!("migrations/08-whose-it-is.sql")),
    M::up(include_str!("migrations/09-what-a-heap-makes-of-it.sql")),
    M::up(include_str!("migrations/10-heaps-alike.sql")),
    M::up(include_str!("migrations/11-stock-is-kept.sql")),
    M::up(include_str!("migrations/12-people.sql")),
    M::up(include_str!("migrations/13-tending.sql")),
    M::up(include_str!("migrations/14-judging.sql")),
    M::up(include_str!("migrations/15-finishing.sql")),
    M::up(include_str!("migrations/16-lists-are-kept.sql")),
];

/// Brings a file up to date, and makes anew what stands in it.
///
/// While a table is made anew nothing may fall with the old one, so references are
/// checked at the end instead of all along.
///
/// # Errors
/// [`StoreError`] if a step cannot be made.
pub fn bring_up_to_date(conn: &mut Connection) -> Result<(), StoreError> {
    let refused = |error: rusqlite_migration::Error| StoreError::Unreadable(error.to_string());
    let pending = MIGRATIONS.pending_migrations(conn).map_err(refused)?;
    conn.pragma_update(None, "foreign_keys", "OFF")?;
    let done = MIGRATIONS.to_latest(conn).map_err(refused);
    conn.pragma_update(None, "foreign_keys", "ON")?;
    done?;
    if pending > 0 {
        let transaction = conn.transaction()?;
        projection::rebuild(&transaction)?;
        transaction.commit()?;
    }
    Ok(())
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
            (include_str!("migrations/05-heaps.sql"), (3669, 2897150661)),
            (include_str!("migrations/06-own-methods.sql"), (1287, 374036871)),
            (include_str!("migrations/07-one-log.sql"), (24538, 1108423220)),
            (include_str!("migrations/08-whose-it-is.sql"), (117, 3059164437)),
            (include_str!("migrations/09-what-a-heap-makes-of-it.sql"), (390, 1398569636)),
            (include_str!("migrations/10-heaps-alike.sql"), (196, 3135388717)),
            (include_str!("migrations/11-stock-is-kept.sql"), (2519, 265556695)),
            (include_str!("migrations/12-people.sql"), (2970, 1351447671)),
            (include_str!("migrations/13-tending.sql"), (3022, 3849290187)),
            (include_str!("migrations/14-judging.sql"), (974, 340797883)),
            (include_str!("migrations/15-finishing.sql"), (3175, 2936177721)),
            (include_str!("migrations/16-lists-are-kept.sql"), (2594, 324150697)),
        ];
        for (step, was) in shipped {
            assert_eq!((step.len(), checksum(step)), was);
        }
        assert_eq!(shipped.len(), STEPS.len(), "a new step is guarded too");
    }

    /// Adler-32 (RFC 1950): enough to notice an edit.
    fn checksum(text: &str) -> u32 {
        let (a, b) = text.bytes().fold((1_u32, 0_u32), |(a, b), byte| {
            ((a + u32::from(byte)) % 65_521, (b + a + u32::from(byte)) % 65_521)
        });
        (b << 16) | a
    }
}
