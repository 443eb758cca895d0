//! Where a figure came from: measured, own, from the book.

use crate::base::words::closed_list;

closed_list! {
    /// Where a figure came from.
    Origin {
        /// From a dated test on this lot.
        Measured = "measured",
        /// Given by the person.
        Own = "own",
        /// From the reference table.
        Book = "book",
        /// Reckoned from another figure that is the person's own.
        Derived = "derived",
        /// Not known; the plainest value was taken.
        Assumed = "assumed",
    }
}

/// A figure and where it came from.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sourced<T> {
    /// The figure.
    pub value: T,
    /// Where it came from.
    pub origin: Origin,
}
