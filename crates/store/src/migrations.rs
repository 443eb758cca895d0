//! The shape of the data file, as steps that only grow.
//!
//! A step that has shipped is never edited; a change is a new step.

use rusqlite_migration::{M, Migrations};

pub(crate) const MIGRATIONS: Migrations<'static> = Migrations::from_slice(STEPS);

const STEPS: &[M<'static>] = &[M::up(include_str!("migrations/01-stock-and-batches.sql"))];

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
        let first = include_str!("migrations/01-stock-and-batches.sql");
        assert_eq!((first.len(), checksum(first)), FIRST_STEP);
    }

    const FIRST_STEP: (usize, u32) = (3765, 1718942409);

    /// Adler-32 (RFC 1950): enough to notice an edit.
    fn checksum(text: &str) -> u32 {
        let (a, b) = text.bytes().fold((1_u32, 0_u32), |(a, b), byte| {
            ((a + u32::from(byte)) % 65_521, (b + a + u32::from(byte)) % 65_521)
        });
        (b << 16) | a
    }
}
