//! How somebody comes in: the first owner, by a code, by a passphrase; and what makes
//! guessing slow.

use std::sync::atomic::Ordering;

use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::people::{Role, SecurityKind, Slowing};
use zymarch_store::id::PersonId;
use zymarch_store::people::failures::{self, Failures};
use zymarch_store::people::{code, person};

use super::person::me_of;
use super::secret::as_made;
use super::{HOUR_MS, Me, Note, Secret, hash, passphrase, session};
use crate::access::{Caller, Gate, known};
use crate::{Transaction, words};

/// The first owner, made on the machine itself.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct First {
    /// What they are called here.
    pub name: String,
    /// The passphrase they sign in with.
    pub passphrase: String,
}

/// What somebody shows to come in.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SignIn {
    /// A code that they were given.
    #[serde(default)]
    pub code: Option<String>,
    /// What they are called here.
    #[serde(default)]
    pub name: Option<String>,
    /// Their passphrase.
    #[serde(default)]
    pub passphrase: Option<String>,
}

/// Somebody who came in.
#[derive(Debug)]
pub struct SignedIn {
    /// What their device is known by from now on.
    pub token: Secret,
    /// Who they are.
    pub me: Me,
}

/// What failures have in common.
struct Key(String, Slowing);

impl Key {
    fn address(caller: &Caller) -> Self {
        Self(format!("address {}", caller.address), Slowing::ADDRESS)
    }

    fn name(name: &str) -> Self {
        Self(format!("name {}", name.to_lowercase()), Slowing::NAME)
    }

    fn codes() -> Self {
        Self("codes".into(), Slowing::CODES)
    }
}

/// A failure is forgotten after so long [ms].
const FORGOTTEN_MS: i64 = 24 * HOUR_MS;

/// Counts a try as failed until it has come off, so that many at once count as many.
///
/// # Errors
/// Too many failed lately.
fn counted(tx: &Transaction<'_>, caller: &Caller, keys: &[Key]) -> Result<(), Faults> {
    let now_ms = tx.now.as_millisecond();
    failures::forget_before(tx.conn, now_ms - FORGOTTEN_MS)?;
    let mut wait_s = 0;
    for Key(key, slowing) in keys {
        if let Some(failed) = failures::of(tx.conn, key)? {
            let until_ms = failed.last_ms + slowing.wait_s(failed.count) * 1000;
            wait_s = wait_s.max((until_ms - now_ms + 999) / 1000);
        }
    }
    if wait_s > 0 {
        return Err(Fault::new(FaultCode::Slowed).with("seconds", wait_s).into());
    }
    for Key(key, slowing) in keys {
        let before = failures::of(tx.conn, key)?.map_or(0, |failed| failed.count);
        failures::set(tx.conn, key, Failures { count: before + 1, last_ms: now_ms })?;
        if slowing.wait_s(before) == 0 && slowing.wait_s(before + 1) > 0 {
            Note::of(caller).write(tx, SecurityKind::Slowed, None)?;
        }
    }
    Ok(())
}

/// What came off was no failure: forgotten with those before it, but of what all have in common only
/// the one.
fn came_off(tx: &Transaction<'_>, keys: &[Key]) -> Result<(), Faults> {
    for Key(key, slowing) in keys {
        match failures::of(tx.conn, key)? {
            Some(failed) if *slowing == Slowing::CODES => {
                failures::set(tx.conn, key, Failures { count: failed.count - 1, ..failed })?;
            }
            _ => failures::forget(tx.conn, key)?,
        }
    }
    Ok(())
}

impl Gate {
    /// Makes the first owner, and signs them in.
    ///
    /// # Errors
    /// Somebody is there already; asked from elsewhere than the machine; what they are called, or their
    /// passphrase, will not do.
    pub async fn first(&self, caller: &Caller, first: First) -> Result<SignedIn, Faults> {
        if !caller.address.is_empty() {
            return Err(Fault::new(FaultCode::OnlyOnTheMachine).into());
        }
        let name = words::name("name", &first.name)?;
        passphrase::checked("passphrase", &first.passphrase, &[&name])?;
        let kept = self.working(move || passphrase::kept(&first.passphrase)).await?;
        let by = caller.clone();
        let came = self
            .farm
            .act(move |tx| {
                if person::is_any(tx.conn)? {
                    return Err(Fault::new(FaultCode::NotTheFirst).into());
                }
                let new = person::PersonFields { name, role: Role::Owner, sites: Vec::new() };
                let id = person::insert(tx.conn, PersonId::fresh(), &new, &tx.now_text())?.id;
                person::set_passphrase(tx.conn, id, &kept)?;
                came_in(tx, &by, id, SecurityKind::FirstOwner)
            })
            .await?;
        self.has_people.store(true, Ordering::Relaxed);
        Ok(came)
    }

    /// Lets somebody in by what they show.
    ///
    /// # Errors
    /// It lets nobody in; it was tried too often.
    pub async fn sign_in(&self, caller: &Caller, shown: SignIn) -> Result<SignedIn, Faults> {
        match shown {
            SignIn { code: Some(code), name: None, passphrase: None } => self.by_code(caller, code).await,
            SignIn { code: None, name: Some(name), passphrase: Some(passphrase) } => {
                let asked = words::name("name", &name)?;
                let (found, kept) = self.farm.ask(move |tx| named(tx, &asked)).await?;
                self.tried(caller, &name, kept, passphrase, "").await?;
                let by = caller.clone();
                self.farm
                    .act(move |tx| {
                        let id = found.ok_or_else(|| Fault::new(FaultCode::WrongPassphrase))?;
                        came_in(tx, &by, id, SecurityKind::CameByPassphrase)
                    })
                    .await
            }
            _ => Err(Fault::of("code", FaultCode::WrongCode).into()),
        }
    }

    async fn by_code(&self, caller: &Caller, typed: String) -> Result<SignedIn, Faults> {
        let by = caller.clone();
        let came = self.farm.act(move |tx| {
            let keys = [Key::address(&by), Key::codes()];
            counted(tx, &by, &keys)?;
            let now_ms = tx.now.as_millisecond();
            let Some(code) = code::of_letters(tx.conn, &hash(&as_made(&typed)), now_ms)? else {
                Note::of(&by).write(tx, SecurityKind::NotLetIn, None)?;
                // Written down, and only then refused.
                return Ok(None);
            };
            came_off(tx, &keys)?;
            code::spend(tx.conn, code.id, now_ms)?;
            came_in(tx, &by, code.person, SecurityKind::CameByCode).map(Some)
        });
        came.await?.ok_or_else(|| Fault::of("code", FaultCode::WrongCode).into())
    }

    /// Tries a passphrase against what is kept of one; failures are counted, and make it slow.
    pub(crate) async fn tried(
        &self,
        caller: &Caller,
        name: &str,
        kept: Option<String>,
        passphrase: String,
        field: &'static str,
    ) -> Result<(), Faults> {
        let (by, named) = (caller.clone(), name.to_owned());
        let keys = move |by: &Caller| [Key::address(by), Key::name(&named)];
        let (counting, counting_by) = (keys.clone(), by.clone());
        self.farm.act(move |tx| counted(tx, &counting_by, &counting(&counting_by))).await?;
        let is_right = self.working(move || Ok(passphrase::is_it(&passphrase, kept.as_deref()))).await?;
        self.farm
            .act(move |tx| match is_right {
                true => came_off(tx, &keys(&by)),
                false => Note::of(&by).write(tx, SecurityKind::NotLetIn, None),
            })
            .await?;
        if is_right { Ok(()) } else { Err(Fault::of(field, FaultCode::WrongPassphrase).into()) }
    }

    /// Does what takes long and much memory, one at a time, while nobody waits to write.
    pub(crate) async fn working<T: Send + 'static>(
        &self,
        work: impl FnOnce() -> Result<T, Faults> + Send + 'static,
    ) -> Result<T, Faults> {
        let broken = |why: String| Fault::new(FaultCode::Broken).with("why", why);
        let _turn = self.trying.acquire().await.map_err(|error| broken(error.to_string()))?;
        tokio::task::spawn_blocking(work).await.map_err(|error| broken(error.to_string()))?
    }
}

fn named(tx: &Transaction<'_>, name: &str) -> Result<(Option<PersonId>, Option<String>), Faults> {
    Ok(person::named(tx.conn, name)?.map_or((None, None), |person| (Some(person.id), person.passphrase)))
}

/// Somebody is signed in on the device they came on.
fn came_in(
    tx: &mut Transaction<'_>,
    caller: &Caller,
    id: PersonId,
    kind: SecurityKind,
) -> Result<SignedIn, Faults> {
    person::get(tx.conn, id).map_err(|_| Fault::new(FaultCode::WrongCode))?;
    let token = session::begun(tx, id, &caller.device)?;
    let held = Caller { token: Some(hash(token.letters())), ..caller.clone() };
    let (who, _) = known(tx, &held)?;
    Note::by(&who, caller).write(tx, kind, None)?;
    Ok(SignedIn { token, me: me_of(tx, &who)? })
}
