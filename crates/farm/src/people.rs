//! People: who there is, what they are and where, and how they come in.
//!
//! Until somebody is made a farm is open to its machine and to nobody else. Then everybody
//! signs in, with a code that somebody gave them or with a passphrase, and stays signed in
//! on that device until they leave, are cut off, or do not come for a month.

mod code;
mod passphrase;
mod person;
mod secret;
mod session;
mod sign_in;

pub use code::{CodeMade, made as make_code, withdraw};
pub use passphrase::PassphraseFields;
pub(crate) use person::person_of;
pub use person::{
    Device, Me, NewPerson, Person, PersonFields, add, change, list, me, named, remove, restore,
};
pub use secret::{Secret, hash};
pub use session::{SecurityEntry, cut_off, cut_off_all, leave, log};
pub use sign_in::{First, SignIn, SignedIn};

use zymarch_store::id::PersonId;

use crate::Who;
use crate::access::Caller;

/// An hour [ms].
pub(crate) const HOUR_MS: i64 = 3_600_000;

/// How long a code lets somebody in [ms]: it is read out or shown, and used at once or tomorrow.
pub(crate) const CODE_LASTS_MS: i64 = 48 * HOUR_MS;

/// Who did something, as it is noted.
#[derive(Debug, Clone)]
pub(crate) struct Note {
    pub(crate) person: Option<PersonId>,
    pub(crate) device: String,
    pub(crate) address: String,
}

impl Note {
    /// Somebody, as they came.
    pub(crate) fn by(who: &Who, caller: &Caller) -> Self {
        Self { person: who.person, device: who.device.clone(), address: caller.address.clone() }
    }

    /// Whoever came, not known yet.
    pub(crate) fn of(caller: &Caller) -> Self {
        let device = crate::who::device_name(&caller.device);
        Self { person: None, device, address: caller.address.clone() }
    }
}
