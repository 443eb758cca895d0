//! Passphrases: whether one will do, and how it is kept.
//!
//! Kept as Argon2id (RFC 9106) with the cost that the OWASP Password Storage Cheat Sheet
//! gives as its least: 19 MiB, two passes. Long enough, not guessed soon, and nothing else
//! is asked of one (OWASP ASVS 4.0.3, 2.1).

use argon2::password_hash::phc::PasswordHash;
use argon2::{Algorithm, Argon2, Params, PasswordHasher, PasswordVerifier, Version};
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::people::SecurityKind;
use zymarch_store::people::{person, session};

use super::{Note, SignedIn};
use crate::access::{Caller, Gate, Wish, Wished as _, known};
use crate::people::person::me_of;

/// A passphrase to be set, of one's own.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PassphraseFields {
    /// The one there is, if there is one.
    #[serde(default)]
    pub old: Option<String>,
    /// The one it is to be.
    pub new: String,
}

/// Letters.
const SHORTEST: usize = 12;
const LONGEST: usize = 128;

/// Guesses that a passphrase must stand, as `zxcvbn` scores them: 3 of 4, ten thousand million.
const STANDS: u8 = 3;

/// Whether a passphrase will do.
///
/// # Errors
/// It is too short, too long, or guessed soon; `names` are what is tried first.
pub(crate) fn checked(field: &'static str, passphrase: &str, names: &[&str]) -> Result<(), Faults> {
    let letters = passphrase.chars().count();
    let fault = if letters < SHORTEST {
        Fault::of(field, FaultCode::PassphraseShort).with("least", SHORTEST)
    } else if letters > LONGEST {
        Fault::of(field, FaultCode::PassphraseLong).with("most", LONGEST)
    } else if u8::from(zxcvbn::zxcvbn(passphrase, names).score()) < STANDS {
        Fault::of(field, FaultCode::PassphraseEasy)
    } else {
        return Ok(());
    };
    Err(fault.into())
}

fn argon2() -> Argon2<'static> {
    Argon2::new(Algorithm::Argon2id, Version::V0x13, Params::default())
}

/// A passphrase as it is kept. Takes long, and much memory: never while others wait to write.
///
/// # Errors
/// A defect.
pub(crate) fn kept(passphrase: &str) -> Result<String, Faults> {
    let broken = |why: String| Fault::new(FaultCode::Broken).with("why", why);
    let hash = argon2().hash_password(passphrase.as_bytes()).map_err(|error| broken(error.to_string()))?;
    Ok(hash.to_string())
}

/// What is tried where there is nothing to try, so that it takes as long: nobody learns who is there.
const NOBODYS: &str =
    "$argon2id$v=19$m=19456,t=2,p=1$c29tZSBjb2Fyc2Ugc2FsdA$5nWkR7mGvYF2bYhFEmYbQ1t6ziX1h8oJHa1r1h9cO5k";

/// Whether a passphrase is the one that is kept.
pub(crate) fn is_it(passphrase: &str, kept: Option<&str>) -> bool {
    let Ok(hash) = PasswordHash::new(kept.unwrap_or(NOBODYS)) else { return false };
    let is_right = argon2().verify_password(passphrase.as_bytes(), &hash).is_ok();
    is_right && kept.is_some()
}

impl Gate {
    /// Sets one's own passphrase, and signs all other devices of one's own out.
    ///
    /// # Errors
    /// It will not do; the old one is not right, and after some such it takes longer.
    pub async fn set_passphrase(
        &self,
        caller: &Caller,
        fields: PassphraseFields,
    ) -> Result<SignedIn, Faults> {
        let by = caller.clone();
        let (somebody, name) = self
            .ask(caller, zymarch_core::people::Deed::Look.anywhere(), |tx, who| {
                let id = who.person.ok_or_else(|| Fault::new(FaultCode::SignInFirst))?;
                let person = person::get(tx.conn, id)?;
                Ok(((id, person.passphrase), person.fields.name))
            })
            .await?;
        checked("new", &fields.new, &[&name])?;
        let (id, before) = somebody;
        if before.is_some() {
            let old = fields.old.unwrap_or_default();
            self.tried(&by, &name, before, old, "old").await?;
        }
        let new = self.working(move || kept(&fields.new)).await?;
        let wish = Wish::with_somebody(zymarch_core::people::Deed::Look, id);
        self.act(caller, wish, move |tx, who| {
            let now_ms = tx.now.as_millisecond();
            person::set_passphrase(tx.conn, id, &new)?;
            session::end_all(tx.conn, id, who.session, now_ms)?;
            Note::by(who, &by).write(tx, SecurityKind::PassphraseSet, None)?;
            // A new key for this device too: what anybody may have copied before is worth nothing now.
            session::end_all(tx.conn, id, None, now_ms)?;
            let token = super::session::begun(tx, id, &by.device)?;
            let (who, _) = known(tx, &Caller { token: Some(super::hash(token.letters())), ..by.clone() })?;
            Ok(SignedIn { token, me: me_of(tx, &who)? })
        })
        .await
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_short_or_soon_guessed_will_not_do() {
        let code = |text: &str| checked("new", text, &["Amaru"]).map_err(|faults| faults.0[0].code);
        assert_eq!(code("elevenchars"), Err(FaultCode::PassphraseShort));
        assert_eq!(code(&"long ".repeat(40)), Err(FaultCode::PassphraseLong));
        for easy in ["passwordpassword", "123456789012", "qwertyuiop12", "AmaruAmaruAmaru"] {
            assert_eq!(code(easy), Err(FaultCode::PassphraseEasy), "{easy}");
        }
        assert_eq!(code("three barrows of wet straw"), Ok(()));
        assert_eq!(code("堆肥堆肥很好用的土壤改良剂"), Ok(()));
    }

    #[test]
    fn what_is_kept_opens_for_its_own_passphrase_only() {
        let hash = kept("three barrows of wet straw").expect("is hashed");
        assert!(hash.starts_with("$argon2id$v=19$m=19456,t=2,p=1$"), "{hash}");
        assert!(is_it("three barrows of wet straw", Some(&hash)));
        assert!(!is_it("three barrows of wet strax", Some(&hash)));
        assert!(!is_it("", Some(&hash)) && !is_it("three barrows of wet straw", None));
        assert_ne!(hash, kept("three barrows of wet straw").expect("is hashed"), "each has its salt");
    }

    #[test]
    fn the_one_that_nobody_has_can_be_tried() {
        assert!(PasswordHash::new(NOBODYS).is_ok());
    }
}
