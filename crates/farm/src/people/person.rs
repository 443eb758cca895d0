//! Who there is: written down, changed, taken off the list, brought back.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::people::{Deed, Role, SecurityKind};
use zymarch_store::id::{PersonId, SessionId, SiteId};
use zymarch_store::people::{code, person, session};

use super::{CodeMade, Note, code::made};
use crate::access::Caller;
use crate::command::{Change, Remove, Restore};
use crate::transaction::at_text;
use crate::{Transaction, Who, words};

/// Somebody.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Person {
    /// Their id.
    pub id: PersonId,
    /// Counts changes.
    pub version: i64,
    /// What they are.
    #[serde(flatten)]
    pub fields: PersonFields,
    /// Whether it is who asks.
    pub is_you: bool,
    /// Whether they can sign in with a passphrase.
    pub has_passphrase: bool,
    /// Until when a code that was made lets them in, RFC 3339; none if there is no such code.
    pub code_until: Option<String>,
    /// The devices that they are signed in on, seen last on top.
    pub devices: Vec<Device>,
}

/// What somebody is, and where.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PersonFields {
    /// What they are called here; nobody else is.
    pub name: String,
    /// What they are.
    pub role: Role,
    /// The sites given to them; an owner has all.
    #[serde(default)]
    pub sites: Vec<SiteId>,
}

/// A device that somebody is signed in on.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Device {
    /// Its id.
    pub id: SessionId,
    /// What it calls itself.
    pub device: String,
    /// When they signed in, RFC 3339.
    pub begun_at: String,
    /// When it was seen last, to the hour, RFC 3339.
    pub seen_at: String,
    /// Whether it is the one that asks.
    pub is_this: bool,
}

/// Somebody new, and the code that lets them in.
#[derive(Debug, Serialize, ToSchema)]
pub struct NewPerson {
    /// Who.
    pub person: Person,
    /// How they come in.
    pub code: CodeMade,
}

/// Who asks, and what they may.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Me {
    /// Their id; none for whoever sits at the machine while no person was made.
    pub id: Option<PersonId>,
    /// What they are called; empty for the same.
    pub name: String,
    /// What they are.
    pub role: Role,
    /// What they may do.
    pub may: Vec<Deed>,
    /// Whether they have a passphrase.
    pub has_passphrase: bool,
}

/// What whoever wrote an entry is called now; none where nobody signed in.
pub(crate) fn person_of(tx: &Transaction<'_>, person: &str) -> Result<Option<String>, Faults> {
    let Ok(id) = uuid::Uuid::parse_str(person) else { return Ok(None) };
    Ok(person::ever(tx.conn, id.into())?.map(|person| person.fields.name))
}

/// Who asks, and what they may.
///
/// # Errors
/// The records cannot be read.
pub fn me(tx: &Transaction<'_>, who: &Who) -> Result<Me, Faults> {
    me_of(tx, who)
}

pub(crate) fn me_of(tx: &Transaction<'_>, who: &Who) -> Result<Me, Faults> {
    let person = who.person.map(|id| person::get(tx.conn, id)).transpose()?;
    let has_passphrase = person.as_ref().is_some_and(|person| person.passphrase.is_some());
    Ok(Me {
        id: who.person,
        name: person.map(|person| person.fields.name).unwrap_or_default(),
        role: who.role,
        may: Deed::ALL.iter().copied().filter(|&deed| who.role.may(deed)).collect(),
        has_passphrase,
    })
}

impl PersonFields {
    /// What is to be written, within what is somebody's to give.
    fn checked(self, tx: &Transaction<'_>, who: &Who) -> Result<person::PersonFields, Faults> {
        let name = words::name("name", &self.name)?;
        if !who.role.may_let_in(self.role) {
            let fault = Fault::of("role", FaultCode::NotYourRole).with("role", who.role.as_str());
            return Err(fault.into());
        }
        let mut sites = self.sites;
        sites.sort_unstable();
        sites.dedup();
        let list = At::ROOT.key("sites");
        let is_there = |site: SiteId| who.sees(site) && zymarch_store::site::get(tx.conn, site).is_ok();
        if let Some(place) = sites.iter().position(|&site| !is_there(site)) {
            return Err(list.index(place).fault(FaultCode::NoSuchSite).into());
        }
        if self.role == Role::Owner {
            sites.clear();
        } else if sites.is_empty() {
            return Err(list.fault(FaultCode::NoSiteGiven).into());
        }
        Ok(person::PersonFields { name, role: self.role, sites })
    }
}

/// Everybody within somebody's reach, themselves on top.
///
/// # Errors
/// The records cannot be read.
pub fn list(tx: &Transaction<'_>, who: &Who) -> Result<Vec<Person>, Faults> {
    let is_near = |person: &person::Person| {
        who.person == Some(person.id)
            || who.role.may_let_in(person.fields.role)
                && person.fields.sites.iter().all(|&site| who.sees(site))
    };
    let mut people: Vec<_> = person::all(tx.conn)?.into_iter().filter(is_near).collect();
    people.sort_by_key(|person| who.person != Some(person.id));
    let shown = Shown::of(tx, who)?;
    Ok(people.into_iter().map(|person| shown.person(person)).collect())
}

/// What is shown beside what somebody is.
struct Shown<'a> {
    who: &'a Who,
    sessions: Vec<session::Session>,
    codes: Vec<code::Code>,
    now_ms: i64,
}

impl<'a> Shown<'a> {
    fn of(tx: &Transaction<'_>, who: &'a Who) -> Result<Self, Faults> {
        let now_ms = tx.now.as_millisecond();
        Ok(Self { who, sessions: session::all(tx.conn)?, codes: code::open(tx.conn, now_ms)?, now_ms })
    }

    fn person(&self, person: person::Person) -> Person {
        let id = person.id;
        let open = |one: &&session::Session| one.person == id && one.holds(self.now_ms);
        let device = |one: &session::Session| Device {
            id: one.id,
            device: one.device.clone(),
            begun_at: at_text(one.begun_ms),
            seen_at: at_text(one.seen_ms),
            is_this: self.who.session == Some(one.id),
        };
        let person::PersonFields { name, role, sites } = person.fields;
        Person {
            id,
            version: person.version,
            fields: PersonFields { name, role, sites },
            is_you: self.who.person == Some(id),
            has_passphrase: person.passphrase.is_some(),
            code_until: self.codes.iter().find(|code| code.person == id).map(|code| at_text(code.ends_ms)),
            devices: self.sessions.iter().filter(open).map(device).collect(),
        }
    }
}

fn shown(tx: &Transaction<'_>, who: &Who, person: person::Person) -> Result<Person, Faults> {
    Ok(Shown::of(tx, who)?.person(person))
}

/// Somebody by what they are called.
///
/// # Errors
/// Nobody is called so.
pub fn named(tx: &Transaction<'_>, name: &str) -> Result<PersonId, Faults> {
    let found = person::named(tx.conn, name.trim())?;
    let nobody = || Fault::new(FaultCode::NotFound).with("kind", "person");
    Ok(found.ok_or_else(nobody)?.id)
}

/// Somebody new, with a code that lets them in.
///
/// # Errors
/// Their fields; what is not somebody's to give.
pub fn add(
    tx: &mut Transaction<'_>,
    who: &Who,
    (caller, fields): (&Caller, PersonFields),
) -> Result<NewPerson, Faults> {
    let new = fields.checked(tx, who)?;
    let person = person::insert(tx.conn, PersonId::fresh(), &new, &tx.now_text())?;
    has_an_owner(tx)?;
    Note::by(who, caller).write(tx, SecurityKind::PersonAdded, Some(person.id))?;
    let code = made(tx, who, caller, person.id)?;
    Ok(NewPerson { person: shown(tx, who, person)?, code })
}

/// Changes what somebody is, or where.
///
/// # Errors
/// Their fields; there would be no owner; it was changed elsewhere since.
pub fn change(
    tx: &mut Transaction<'_>,
    who: &Who,
    (caller, Change { id, version, to }): (&Caller, Change<PersonId, PersonFields>),
) -> Result<Person, Faults> {
    let new = to.checked(tx, who)?;
    let person = person::update(tx.conn, id, version, &new)?;
    has_an_owner(tx)?;
    Note::by(who, caller).write(tx, SecurityKind::PersonChanged, Some(id))?;
    shown(tx, who, person)
}

/// Takes somebody off the list: their devices are cut off at once, their code is worth nothing.
///
/// # Errors
/// There is nobody of that id; there would be no owner.
pub fn remove(
    tx: &mut Transaction<'_>,
    who: &Who,
    (caller, Remove(id)): (&Caller, Remove<PersonId>),
) -> Result<(), Faults> {
    let now_ms = tx.now.as_millisecond();
    person::remove(tx.conn, id, &tx.now_text())?;
    has_an_owner(tx)?;
    session::end_all(tx.conn, id, None, now_ms)?;
    code::withdraw(tx.conn, id, now_ms)?;
    Note::by(who, caller).write(tx, SecurityKind::PersonRemoved, Some(id))
}

/// Brings somebody back; they sign in anew.
///
/// # Errors
/// There never was anybody of that id; their name is another's now.
pub fn restore(
    tx: &mut Transaction<'_>,
    who: &Who,
    (caller, Restore(id)): (&Caller, Restore<PersonId>),
) -> Result<Person, Faults> {
    let person = person::restore(tx.conn, id)?;
    Note::by(who, caller).write(tx, SecurityKind::PersonRestored, Some(id))?;
    shown(tx, who, person)
}

/// Without an owner nobody could let anybody in.
fn has_an_owner(tx: &Transaction<'_>) -> Result<(), Faults> {
    let is_owner = |person: &person::Person| person.fields.role == Role::Owner;
    if person::all(tx.conn)?.iter().any(is_owner) {
        Ok(())
    } else {
        Err(Fault::new(FaultCode::LastOwner).into())
    }
}
