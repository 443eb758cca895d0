//! Devices that somebody is signed in on: begun, left, cut off; and what was noted.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::people::SecurityKind;
use zymarch_store::id::{PersonId, SessionId};
use zymarch_store::people::{noted, person, session};

use super::{HOUR_MS, Note, Secret, hash};
use crate::access::Caller;
use crate::transaction::at_text;
use crate::who::device_name;
use crate::{Transaction, Who};

/// Signs somebody in on a device.
pub(crate) fn begun(tx: &Transaction<'_>, person: PersonId, device: &str) -> Result<Secret, Faults> {
    let (token, now_ms) = (Secret::for_a_device()?, tx.now.as_millisecond());
    let role = person::get(tx.conn, person)?.fields.role;
    let new = session::Session {
        id: SessionId::fresh(),
        person,
        device: device_name(device),
        begun_ms: now_ms,
        seen_ms: now_ms,
        ends_ms: now_ms + role.signed_in_days() * 24 * HOUR_MS,
    };
    session::insert(tx.conn, &hash(token.letters()), &new)?;
    Ok(token)
}

/// Signs somebody out where they are.
///
/// # Errors
/// The records cannot be written.
pub fn leave(tx: &mut Transaction<'_>, who: &Who, caller: &Caller) -> Result<(), Faults> {
    if let Some(id) = who.session {
        session::end(tx.conn, id, tx.now.as_millisecond())?;
        Note::by(who, caller).write(tx, SecurityKind::Left, None)?;
    }
    Ok(())
}

/// Cuts a device of somebody off.
///
/// # Errors
/// They have no such device.
pub fn cut_off(
    tx: &mut Transaction<'_>,
    who: &Who,
    (caller, person, id): (&Caller, PersonId, SessionId),
) -> Result<(), Faults> {
    let session = session::get(tx.conn, id)?;
    if session.person != person {
        return Err(Fault::new(FaultCode::NotFound).with("kind", "session").into());
    }
    session::end(tx.conn, id, tx.now.as_millisecond())?;
    Note::by(who, caller).write(tx, SecurityKind::CutOff, Some(person))
}

/// Cuts all devices of somebody off; how many there were.
///
/// # Errors
/// The records cannot be written.
pub fn cut_off_all(
    tx: &mut Transaction<'_>,
    who: &Who,
    (caller, person): (&Caller, PersonId),
) -> Result<usize, Faults> {
    let now_ms = tx.now.as_millisecond();
    let count = session::end_all(tx.conn, person, None, now_ms)?;
    Note::by(who, caller).write(tx, SecurityKind::CutOff, Some(person))?;
    Ok(count)
}

/// Something that was noted of comings and goings.
#[derive(Debug, Serialize, ToSchema)]
pub struct SecurityEntry {
    /// When, RFC 3339.
    pub at: String,
    /// What.
    pub kind: SecurityKind,
    /// Who did it, as they are called now; none if it is not known, or on the machine itself.
    pub who: Option<String>,
    /// Whom it was done to.
    pub about: Option<String>,
    /// What the device calls itself.
    pub device: String,
    /// Where it came from; empty for the machine itself.
    pub address: String,
}

/// Entries that are told at once.
const MOST_NOTED: usize = 500;

/// What was noted of comings and goings, newest on top.
///
/// # Errors
/// The records cannot be read.
pub fn log(tx: &Transaction<'_>) -> Result<Vec<SecurityEntry>, Faults> {
    let name = |id: Option<PersonId>| -> Result<Option<String>, Faults> {
        Ok(id.map(|id| person::ever(tx.conn, id)).transpose()?.flatten().map(|person| person.fields.name))
    };
    let told = |one: noted::Noted| {
        Ok(SecurityEntry {
            at: at_text(one.at_ms),
            kind: one.kind,
            who: name(one.person)?,
            about: name(one.about)?,
            device: one.device,
            address: one.address,
        })
    };
    noted::latest(tx.conn, MOST_NOTED)?.into_iter().map(told).collect()
}
