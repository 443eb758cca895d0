//! The kinds of entries that tell what happened on a farm.
//!
//! Everything that happened is an entry of one log that only grows. What each kind
//! holds is written down where it is kept; here stand the words, which the log on
//! screen, files and devices share.

use crate::base::words::closed_list;

closed_list! {
    /// What an entry is about.
    Subject {
        /// A lot of stock.
        Lot = "lot",
        /// A test on a lot.
        Test = "test",
        /// A batch, as a recipe that takes from stock.
        Batch = "batch",
        /// A heap.
        Heap = "heap",
        /// Something that was sorted out and not used.
        SortedOut = "sorted-out",
        /// A farm or plot itself: its weather.
        Site = "site",
        /// Compost that was taken out of a heap.
        Compost = "compost",
        /// A place that compost goes to.
        Ground = "ground",
    }
}

closed_list! {
    /// What happened.
    EntryKind {
        /// A lot was written down: so much of it is there.
        Came = "came",
        /// More of it came.
        Delivered = "delivered",
        /// Some was used otherwise.
        Used = "used",
        /// Some spoiled.
        Spoiled = "spoiled",
        /// It was counted anew.
        Counted = "counted",
        /// The day it was gathered was put right.
        Gathered = "gathered",
        /// A batch or heap took some, or gave some back.
        Taken = "taken",
        /// A test was made, or more was read in one.
        Tested = "tested",
        /// A heap was begun, with its first plan.
        Begun = "begun",
        /// What is to come of it was planned anew.
        Planned = "planned",
        /// A layer or load was laid, or put right afterwards.
        Laid = "laid",
        /// It was ended where it stands.
        Ended = "ended",
        /// It was taken off the list.
        Removed = "removed",
        /// What goes in was taken from stock, which follows from then on.
        StockTaken = "stock-taken",
        /// It was given back to stock.
        StockReturned = "stock-returned",
        /// Something was sorted out.
        SortedOut = "sorted-out",
        /// An entry was taken back.
        Undone = "undone",
        /// Compost was taken out of a heap.
        Harvested = "harvested",
        /// What was taken out was put down as compost.
        Stored = "stored",
        /// Compost went to where it is used.
        Applied = "applied",
        /// A laboratory or a kit found something in it.
        LabResult = "lab-result",
        /// A temperature was read.
        Temperature = "temperature",
        /// A stick was felt that stood in the middle.
        Stick = "stick",
        /// A handful was squeezed.
        Squeeze = "squeeze",
        /// It was smelled at.
        Smell = "smell",
        /// Its height was measured.
        Height = "height",
        /// Something was seen.
        Seen = "seen",
        /// It was turned.
        Turn = "turn",
        /// It was watered.
        Water = "water",
        /// More was put in.
        Add = "add",
        /// It was covered.
        Cover = "cover",
        /// The cover was taken off.
        Uncover = "uncover",
        /// It rained.
        Rain = "rain",
        /// Air was given without turning.
        Aerate = "aerate",
        /// Worms were put in.
        Worms = "worms",
        /// A bin or worm bed was fed.
        Feed = "feed",
        /// Liquid was drained or caught.
        Liquid = "liquid",
        /// It was moved.
        Move = "move",
        /// Something else was noted.
        Note = "note",
        /// A photo was taken.
        Photo = "photo",
        /// Many temperatures came at once: of a probe's day, or of a file.
        Readings = "readings",
        /// A bag that stood closed was opened.
        ClosedBag = "closed-bag",
        /// Seeds were counted that came up in it, beside others in soil.
        Germination = "germination",
        /// Beans were grown in it.
        BeanTest = "bean-test",
    }
}

impl EntryKind {
    /// Whether it tells what was read, seen or done while a heap was tended: when it happened is what its
    /// writer says, among whatever else there is.
    #[must_use]
    pub const fn is_of_tending(self) -> bool {
        self as u8 >= Self::Temperature as u8
    }

    /// Whether a person may take it back by itself, from the history it stands in.
    #[must_use]
    pub const fn is_undoable_alone(self) -> bool {
        matches!(self, Self::Delivered | Self::Used | Self::Spoiled)
    }
}

/// Which of some entries stand: those that no other that stands takes back.
///
/// Entries are given in the order in which they happened, each with its id and what
/// it takes back. An entry can only take back one that happened before it.
///
/// # Example
/// A use is undone, and then the undoing is undone: the use stands again.
/// ```
/// use zymarch_core::log::standing;
/// assert_eq!(standing(&[("used", None), ("undo", Some("used"))]), [false, true]);
/// let again = [("used", None), ("undo", Some("used")), ("redo", Some("undo"))];
/// assert_eq!(standing(&again), [true, false, true]);
/// ```
#[must_use]
pub fn standing<I: PartialEq>(entries: &[(I, Option<I>)]) -> Vec<bool> {
    let mut stands = vec![true; entries.len()];
    for place in (0..entries.len()).rev().filter(|place| entries[*place].1.is_some()) {
        let Some(back) = entries[place].1.as_ref().filter(|_| stands[place]) else { continue };
        if let Some(taken) = entries[..place].iter().rposition(|(id, _)| id == back) {
            stands[taken] = false;
        }
    }
    stands
}
