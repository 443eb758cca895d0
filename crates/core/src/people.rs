//! Who may do what: roles, and the deeds that each may do.
//!
//! A farm has one or several owners; a trainer has plots of learners; workers do the work;
//! a guest looks. What a role may do is a row of [`Role::may`] and stands nowhere else. Where
//! somebody may do it (which farms and plots) is a matter of the records.

use crate::base::words::closed_list;

closed_list! {
    /// What somebody is on a farm.
    Role {
        /// Whose farm it is: everything, everywhere.
        Owner = "owner",
        /// Teaches on plots given to them: opens plots and lets learners in.
        Trainer = "trainer",
        /// Does the work on sites given to them.
        Worker = "worker",
        /// Looks at sites given to them, and changes nothing.
        Guest = "guest",
    }
}

closed_list! {
    /// What can be done.
    Deed {
        /// See what is at a site, and reckon with it.
        Look = "look",
        /// Write down stock, tests, batches and heaps of a site.
        Work = "work",
        /// Change what a site itself is, open a plot or take one off the list.
        Keep = "keep",
        /// Change materials and methods of one's own, which all sites share.
        Book = "book",
        /// Let people in at sites that were given to oneself, and cut them off.
        LetIn = "let-in",
        /// Change who else is what, and read what was noted of comings and goings.
        Govern = "govern",
    }
}

impl Role {
    /// Whether somebody of this role may do that, on sites that are theirs.
    ///
    /// # Example
    /// ```
    /// use zymarch_core::people::{Deed, Role};
    ///
    /// assert!(Role::Worker.may(Deed::Work) && !Role::Worker.may(Deed::LetIn));
    /// assert!(Role::Guest.may(Deed::Look) && !Role::Guest.may(Deed::Work));
    /// ```
    #[must_use]
    pub const fn may(self, deed: Deed) -> bool {
        match deed {
            Deed::Look => true,
            Deed::Work => matches!(self, Self::Owner | Self::Trainer | Self::Worker),
            Deed::Keep | Deed::Book | Deed::LetIn => matches!(self, Self::Owner | Self::Trainer),
            Deed::Govern => matches!(self, Self::Owner),
        }
    }

    /// How long a device stays signed in, whatever happens [days].
    ///
    /// Who lets others in signs in every month, as OWASP ASVS 4.0.3 asks of everybody (3.3.2). Who works in
    /// the field with wet hands and without signal does so twice a year; what they can do is less, and a lost
    /// phone is cut off.
    #[must_use]
    pub const fn signed_in_days(self) -> i64 {
        match self {
            Self::Owner | Self::Trainer => 30,
            Self::Worker | Self::Guest => 180,
        }
    }

    /// Whether somebody of this role may let in, change or cut off somebody of another.
    ///
    /// # Example
    /// ```
    /// use zymarch_core::people::Role;
    ///
    /// assert!(Role::Trainer.may_let_in(Role::Worker) && !Role::Trainer.may_let_in(Role::Trainer));
    /// ```
    #[must_use]
    pub const fn may_let_in(self, other: Self) -> bool {
        match self {
            Self::Owner => true,
            Self::Trainer => matches!(other, Self::Worker | Self::Guest),
            Self::Worker | Self::Guest => false,
        }
    }
}

/// What failures to come in have in common, and how slow it gets after them.
///
/// After so many that are free, each further one doubles the wait, up to the longest. One
/// address is slowed most; a name less, so that nobody can keep its owner out; all codes
/// together least, which still leaves far too few guesses for the letters that a code has.
/// At most 100 an hour on one name is what OWASP ASVS 4.0.3 allows (2.2.1).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Slowing {
    /// Failures that nobody waits for.
    pub free: i64,
    /// The longest wait [s].
    pub longest_s: i64,
}

impl Slowing {
    /// From one address.
    pub const ADDRESS: Self = Self { free: 4, longest_s: 900 };
    /// As one person.
    pub const NAME: Self = Self { free: 4, longest_s: 40 };
    /// By any code.
    pub const CODES: Self = Self { free: 40, longest_s: 4 };

    /// Until when to wait after so many failures [s].
    ///
    /// # Example
    /// ```
    /// use zymarch_core::people::Slowing;
    ///
    /// let waits: Vec<i64> = [3, 4, 5, 6, 60].map(|failures| Slowing::ADDRESS.wait_s(failures)).into();
    /// assert_eq!(waits, [0, 2, 4, 8, 900]);
    /// ```
    #[must_use]
    pub fn wait_s(self, failures: i64) -> i64 {
        match u32::try_from(failures - self.free) {
            Ok(over) => {
                2_i64.checked_pow(over.saturating_add(1)).map_or(self.longest_s, |s| s.min(self.longest_s))
            }
            Err(_) => 0,
        }
    }
}

closed_list! {
    /// What is noted of comings and goings.
    SecurityKind {
        /// The first owner was made, on the machine itself.
        FirstOwner = "first-owner",
        /// Somebody came in by a code.
        CameByCode = "came-by-code",
        /// Somebody came in by a passphrase.
        CameByPassphrase = "came-by-passphrase",
        /// Somebody was not let in.
        NotLetIn = "not-let-in",
        /// Somebody had to wait after failures.
        Slowed = "slowed",
        /// Somebody went.
        Left = "left",
        /// A device was cut off.
        CutOff = "cut-off",
        /// A code was made to let somebody in.
        CodeMade = "code-made",
        /// A code was withdrawn.
        CodeWithdrawn = "code-withdrawn",
        /// A person was written down.
        PersonAdded = "person-added",
        /// What a person is, or where, was changed.
        PersonChanged = "person-changed",
        /// A person was taken off the list.
        PersonRemoved = "person-removed",
        /// A person was brought back.
        PersonRestored = "person-restored",
        /// A passphrase was set or changed.
        PassphraseSet = "passphrase-set",
        /// Somebody signed in asked for what is not theirs.
        Refused = "refused",
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_role_may_do_what_the_next_one_may_and_more() {
        for pair in Role::ALL.windows(2) {
            for &deed in Deed::ALL {
                assert!(!pair[1].may(deed) || pair[0].may(deed), "{pair:?} {deed:?}");
            }
        }
        let count = |role: Role| Deed::ALL.iter().filter(|&&deed| role.may(deed)).count();
        assert_eq!(Role::ALL.iter().map(|&role| count(role)).collect::<Vec<_>>(), [6, 5, 2, 1]);
    }

    #[test]
    fn nobody_lets_in_more_than_they_are() {
        for &role in Role::ALL {
            for &other in Role::ALL {
                assert!(!role.may_let_in(other) || role <= other, "{role:?} {other:?}");
            }
        }
    }
}
