//! Who may do this, here: the one gate that everything asked from outside goes through.
//!
//! A question or a command says what is wished and of what ([`Wish`]); the gate finds out
//! who asks, in the very view of the records in which it is answered, and whether the
//! thing is of a site that they see. What is not theirs is answered like what there never
//! was. So a device that was cut off is out with its next request, and no handler can
//! forget to ask: there is no other way from a request to the records.

use std::collections::HashMap;
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex};

use jiff::Timestamp;
use tokio::sync::Semaphore;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::people::{Deed, Role, SecurityKind};
use zymarch_store::id::{PersonId, SiteId};
use zymarch_store::people::session::{self, Hash};
use zymarch_store::people::{noted, person};
use zymarch_store::whose::{Thing, site_of};

use crate::clock::Clock;
use crate::people::{HOUR_MS, Note};
use crate::who::{Sites, device_name};
use crate::{Farm, Transaction, Who};

/// How somebody comes: by what they hold, from where, on what.
#[derive(Debug, Clone, Default)]
pub struct Caller {
    /// SHA-256 of what they hold to be known by.
    pub token: Option<Hash>,
    /// What their device calls itself.
    pub device: String,
    /// Where they come from; empty on the machine itself.
    pub address: String,
    /// When what they send was done, where it waited for a signal since.
    pub done_at: Option<Timestamp>,
}

/// What somebody wishes to do, and to what.
#[derive(Debug, Clone)]
pub struct Wish {
    deed: Deed,
    of: Vec<Thing>,
    new: Option<Thing>,
    person: Option<PersonId>,
}

/// Deeds as the first word of a wish.
pub trait Wished: Sized {
    /// To do it with something.
    fn of(self, thing: impl Into<Thing>) -> Wish;
    /// To do it with nothing that is of a site.
    fn anywhere(self) -> Wish;
}

impl Wished for Deed {
    fn of(self, thing: impl Into<Thing>) -> Wish {
        Wish { of: vec![thing.into()], ..self.anywhere() }
    }

    fn anywhere(self) -> Wish {
        Wish { deed: self, of: Vec::new(), new: None, person: None }
    }
}

impl Wish {
    /// To change somebody: oneself in what everybody may of themselves, or somebody one may let in.
    #[must_use]
    pub fn with_somebody(deed: Deed, person: PersonId) -> Self {
        Self { person: Some(person), ..deed.anywhere() }
    }

    /// The same, with one thing more that it is about, if there is one.
    #[must_use]
    pub fn and(mut self, thing: Option<impl Into<Thing>>) -> Self {
        self.of.extend(thing.map(Into::into));
        self
    }

    /// The same, with the id that something new is to have: nobody else's may have it.
    #[must_use]
    pub fn new(mut self, thing: Option<impl Into<Thing>>) -> Self {
        self.new = thing.map(Into::into);
        self
    }

    /// Whether somebody may.
    fn is_granted(&self, tx: &Transaction<'_>, who: &Who) -> Result<(), Faults> {
        if !who.role.may(self.deed) {
            let role = who.role.as_str();
            return Err(Fault::new(FaultCode::NotYourRole).with("role", role).into());
        }
        self.person.map_or(Ok(()), |person| reaches(tx, who, person))?;
        let mut at: Option<SiteId> = None;
        for &thing in &self.of {
            // What there never was is for the command to tell; what is another's looks just so.
            let Some(site) = site_of(tx.conn, thing)? else { continue };
            if !who.sees(site) {
                return Err(not_there(thing).into());
            }
            at = Some(site);
        }
        match self.new {
            Some(thing) => match site_of(tx.conn, thing)? {
                Some(site) if at.is_some_and(|at| at != site) || !who.sees(site) => {
                    Err(not_there(thing).into())
                }
                _ => Ok(()),
            },
            None => Ok(()),
        }
    }
}

fn not_there(thing: Thing) -> Fault {
    no_such(thing.kind())
}

fn no_such(kind: &'static str) -> Fault {
    Fault::new(FaultCode::NotFound).with("kind", kind)
}

/// Whether somebody is within another's reach: themselves, or all that they are and all the sites they
/// have are the other's to give.
fn reaches(tx: &Transaction<'_>, who: &Who, person: PersonId) -> Result<(), Faults> {
    if who.person == Some(person) {
        return Ok(());
    }
    let Some(other) = person::ever(tx.conn, person)? else { return Ok(()) };
    let fields = other.fields;
    let is_theirs = who.role.may(Deed::LetIn)
        && who.role.may_let_in(fields.role)
        && fields.sites.iter().all(|&site| who.sees(site));
    if is_theirs { Ok(()) } else { Err(no_such("person").into()) }
}

/// The gate of a farm.
#[derive(Debug, Clone)]
pub struct Gate {
    pub(crate) farm: Farm,
    /// Passphrases are tried one at a time: each takes much memory, which is what makes guessing dear.
    pub(crate) trying: Arc<Semaphore>,
    /// When each person was last noted to be refused.
    refused: Arc<Mutex<HashMap<Option<PersonId>, i64>>>,
    /// Whether there are people: once there are, there always are.
    pub(crate) has_people: Arc<AtomicBool>,
}

/// How often it is noted that somebody is refused: what a script does a thousand times is told once a minute.
const NOTED_EVERY_MS: i64 = 60_000;

impl Gate {
    /// The gate of a farm.
    #[must_use]
    pub fn new(farm: Farm) -> Self {
        Self {
            farm,
            trying: Arc::new(Semaphore::new(1)),
            refused: Arc::default(),
            has_people: Arc::default(),
        }
    }

    /// The time, and the day at the farm.
    #[must_use]
    pub fn now(&self) -> (jiff::Timestamp, jiff::civil::Date) {
        self.farm.clock().now()
    }

    /// Whether the clock stands still.
    #[must_use]
    pub fn stands_still(&self) -> bool {
        matches!(self.farm.clock(), Clock::Fixed(_))
    }

    /// Whether there is anybody yet: until then only the machine itself is let in, without signing in.
    ///
    /// # Errors
    /// The records cannot be read.
    pub async fn is_anybody(&self) -> Result<bool, Faults> {
        if !self.has_people() {
            let is_any = self.farm.ask(|tx| Ok(person::is_any(tx.conn)?)).await?;
            self.has_people.fetch_or(is_any, Ordering::Relaxed);
        }
        Ok(self.has_people())
    }

    /// Whether it is known that there are people; whoever holds nothing need not be asked for more then.
    #[must_use]
    pub fn has_people(&self) -> bool {
        self.has_people.load(Ordering::Relaxed)
    }

    /// Answers a question, if whoever asks may.
    ///
    /// # Errors
    /// They may not; what `ask` refuses.
    pub async fn ask<T: Send + 'static>(
        &self,
        caller: &Caller,
        wish: Wish,
        ask: impl FnOnce(&Transaction<'_>, &Who) -> Result<T, Faults> + Send + 'static,
    ) -> Result<T, Faults> {
        let (by, has_people) = (caller.clone(), Arc::clone(&self.has_people));
        let asked = self.farm.ask(move |tx| {
            let (who, is_long_unseen) = known(tx, &by)?;
            has_people.fetch_or(who.person.is_some(), Ordering::Relaxed);
            wish.is_granted(tx, &who)?;
            Ok((ask(tx, &who)?, is_long_unseen))
        });
        match asked.await {
            Ok((answer, false)) => Ok(answer),
            Ok((answer, true)) => {
                // To the hour is enough, and only then is anything written for a question.
                let by = caller.clone();
                let _ = self.farm.act(move |tx| came(tx, &by).map(drop)).await;
                Ok(answer)
            }
            Err(faults) => Err(self.refused(caller, faults).await),
        }
    }

    /// Does what a command says, if whoever asks may.
    ///
    /// # Errors
    /// They may not; what `act` refuses, and then nothing was written.
    pub async fn act<T: Send + 'static>(
        &self,
        caller: &Caller,
        wish: Wish,
        act: impl FnOnce(&mut Transaction<'_>, &Who) -> Result<T, Faults> + Send + 'static,
    ) -> Result<T, Faults> {
        let (by, has_people) = (caller.clone(), Arc::clone(&self.has_people));
        let done = self.farm.act(move |tx| {
            let who = came(tx, &by)?;
            has_people.fetch_or(who.person.is_some(), Ordering::Relaxed);
            wish.is_granted(tx, &who)?;
            act(tx, &who)
        });
        match done.await {
            Ok(outcome) => Ok(outcome),
            Err(faults) => Err(self.refused(caller, faults).await),
        }
    }

    /// Notes that somebody signed in asked for what is not for them.
    async fn refused(&self, caller: &Caller, faults: Faults) -> Faults {
        if faults.0.iter().any(|fault| fault.code == FaultCode::NotYourRole) {
            let (by, refused) = (caller.clone(), Arc::clone(&self.refused));
            let noted = self.farm.act(move |tx| {
                let (who, _) = known(tx, &by)?;
                let now_ms = tx.now.as_millisecond();
                let is_new = refused.lock().is_ok_and(|mut last| {
                    let before = last.insert(who.person, now_ms);
                    before.is_none_or(|before| now_ms - before >= NOTED_EVERY_MS)
                });
                if is_new {
                    Note::by(&who, &by).write(tx, SecurityKind::Refused, None)?;
                }
                Ok(())
            });
            let _ = noted.await;
        }
        faults
    }
}

/// Who it is that asks, and whether their device was not seen for an hour.
///
/// # Errors
/// Nobody is signed in, was cut off, or it was too long ago.
pub(crate) fn known(tx: &Transaction<'_>, caller: &Caller) -> Result<(Who, bool), Faults> {
    let nobody = || Fault::new(FaultCode::SignInFirst);
    if !person::is_any(tx.conn)? {
        // Nobody was made yet, and only who sits at the machine is let in.
        let is_here = caller.address.is_empty();
        let local = || Who { done_at: caller.done_at, ..Who::local(&caller.device) };
        return if is_here { Ok((local(), false)) } else { Err(nobody().into()) };
    }
    let Some(token) = &caller.token else { return Err(nobody().into()) };
    let now_ms = tx.now.as_millisecond();
    let session = session::of_token(tx.conn, token)?.filter(|one| one.holds(now_ms));
    let Some(session) = session else { return Err(nobody().into()) };
    let person = person::get(tx.conn, session.person).map_err(|_| nobody())?;
    // By what they are now: who was made more than they were signs in as often as such a one does.
    if now_ms >= session.begun_ms + person.fields.role.signed_in_days() * 24 * HOUR_MS {
        return Err(nobody().into());
    }
    let sites = match person.fields.role {
        Role::Owner => Sites::All,
        _ => Sites::Given(person.fields.sites),
    };
    let named = device_name(&caller.device);
    let who = Who {
        person: Some(person.id),
        session: Some(session.id),
        device: if named.is_empty() { session.device } else { named },
        done_at: caller.done_at,
        role: person.fields.role,
        sites,
    };
    Ok((who, now_ms - session.seen_ms >= HOUR_MS))
}

/// The same, and notes when their device was seen.
fn came(tx: &Transaction<'_>, caller: &Caller) -> Result<Who, Faults> {
    let (who, is_long_unseen) = known(tx, caller)?;
    if let Some(session) = who.session.filter(|_| is_long_unseen) {
        session::seen(tx.conn, session, tx.now.as_millisecond())?;
    }
    Ok(who)
}

impl Note {
    /// Writes down what somebody did, and to whom.
    pub(crate) fn write(
        self,
        tx: &Transaction<'_>,
        kind: SecurityKind,
        about: Option<PersonId>,
    ) -> Result<(), Faults> {
        let Self { person, device, address } = self;
        let at_ms = tx.now.as_millisecond();
        Ok(noted::note(tx.conn, &noted::Noted { at_ms, kind, person, about, device, address })?)
    }
}
