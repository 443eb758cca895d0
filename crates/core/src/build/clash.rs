//! Two people at one heap who did not know of each other: one lays the fourth layer, the other puts
//! the first one right, and both stand; both lay the fourth, and somebody has to say which it was.

/// Something done to a heap, as far as it can stand in another's way.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Did {
    /// A step was laid, or put right.
    Laid {
        /// Which, from 0.
        at: usize,
    },
    /// What is to come from a step on was planned anew.
    Planned {
        /// From which on.
        from: usize,
    },
    /// It was ended where it stood.
    Ended {
        /// The first step that was left out.
        from: usize,
    },
    /// What was done last was taken back.
    TookBack,
    /// What went in was taken from stock, or given back.
    Supplied,
}

/// Whether something cannot stand beside what was done without knowing of it.
///
/// Steps apart from each other can; and stock follows whatever is laid. A rest planned
/// anew was planned for the heap as it was then, and what was done last is only known
/// to whoever knows all.
///
/// # Example
/// ```
/// use zymarch_core::build::clash::{Did, clash};
/// let fourth = Did::Laid { at: 3 };
/// assert!(!clash(fourth, Did::Laid { at: 0 }), "putting the first one right is no matter");
/// assert!(clash(fourth, fourth), "two who laid it both");
/// assert!(clash(fourth, Did::Planned { from: 2 }), "the fourth is another one now");
/// ```
#[must_use]
pub const fn clash(one: Did, other: Did) -> bool {
    use Did::{Ended, Laid, Planned, Supplied, TookBack};
    match (one, other) {
        (Laid { at: one }, Laid { at: other }) => one == other,
        (Laid { at }, Planned { from } | Ended { from })
        | (Planned { from } | Ended { from }, Laid { at }) => at >= from,
        (Supplied, Laid { .. } | Planned { .. } | Ended { .. } | TookBack)
        | (Laid { .. } | Planned { .. } | Ended { .. } | TookBack, Supplied) => false,
        (Planned { .. } | Ended { .. }, Planned { .. } | Ended { .. })
        | (TookBack, Laid { .. } | Planned { .. } | Ended { .. } | TookBack)
        | (Laid { .. } | Planned { .. } | Ended { .. }, TookBack)
        | (Supplied, Supplied) => true,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const ALL: [Did; 7] = [
        Did::Laid { at: 0 },
        Did::Laid { at: 3 },
        Did::Planned { from: 2 },
        Did::Ended { from: 5 },
        Did::Ended { from: 2 },
        Did::TookBack,
        Did::Supplied,
    ];

    #[test]
    fn it_is_the_same_whoever_comes_first() {
        for one in ALL {
            for other in ALL {
                assert_eq!(clash(one, other), clash(other, one), "{one:?} {other:?}");
            }
        }
    }

    #[test]
    fn nothing_stands_beside_itself_and_laying_beside_what_ends_above_it() {
        assert!(ALL.iter().all(|&one| clash(one, one)));
        assert!(!clash(Did::Laid { at: 3 }, Did::Ended { from: 5 }));
        assert!(clash(Did::Laid { at: 3 }, Did::Ended { from: 2 }));
    }
}
