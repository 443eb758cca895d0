//! Codes that let somebody in: made by who may, shown once, spent once.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::Faults;
use zymarch_core::people::SecurityKind;
use zymarch_store::id::{CodeId, PersonId};
use zymarch_store::people::{code, person};

use super::{CODE_LASTS_MS, Note, Secret, hash};
use crate::access::Caller;
use crate::transaction::at_text;
use crate::{Transaction, Who};

/// A code that was made just now. It is told once.
#[derive(Debug, Serialize, ToSchema)]
pub struct CodeMade {
    /// In two halves, to be read out.
    pub code: String,
    /// Until when it lets somebody in, RFC 3339.
    pub until: String,
}

/// A code for somebody who is there, in place of any before: to come in on another device, or again.
///
/// # Errors
/// There is nobody of that id.
pub fn made(tx: &mut Transaction<'_>, who: &Who, caller: &Caller, id: PersonId) -> Result<CodeMade, Faults> {
    let (now_ms, person) = (tx.now.as_millisecond(), person::get(tx.conn, id)?);
    code::withdraw(tx.conn, id, now_ms)?;
    let secret = Secret::for_somebody()?;
    let ends_ms = now_ms + CODE_LASTS_MS;
    let new = code::Code { id: CodeId::fresh(), person: person.id, made_ms: now_ms, ends_ms };
    let by = who.person.map(|id| id.to_string()).unwrap_or_default();
    code::insert(tx.conn, &hash(secret.letters()), &by, &new)?;
    Note::by(who, caller).write(tx, SecurityKind::CodeMade, Some(id))?;
    Ok(CodeMade { code: secret.in_halves(), until: at_text(ends_ms) })
}

/// Withdraws the code of somebody.
///
/// # Errors
/// The records cannot be written.
pub fn withdraw(
    tx: &mut Transaction<'_>,
    who: &Who,
    (caller, id): (&Caller, PersonId),
) -> Result<(), Faults> {
    if code::withdraw(tx.conn, id, tx.now.as_millisecond())? {
        Note::by(who, caller).write(tx, SecurityKind::CodeWithdrawn, Some(id))?;
    }
    Ok(())
}
