//! What people and devices hold to be known by: made by chance, kept only as its hash.

use sha2::{Digest, Sha256};
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_store::people::session::Hash;

/// Something that lets in whoever holds it. It is shown once and kept nowhere.
#[derive(Clone)]
pub struct Secret(String);

/// Its letters are nobody's business, least of all a log's.
impl std::fmt::Debug for Secret {
    fn fmt(&self, to: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        to.write_str("Secret")
    }
}

/// Digits and letters that are not taken for each other: without I, L, O and U (Crockford's base 32).
const LETTERS: &[u8; 32] = b"0123456789ABCDEFGHJKMNPQRSTVWXYZ";

/// Letters of a code that somebody types: 50 bits.
const OF_A_CODE: usize = 10;

/// Letters of what a device keeps: 260 bits.
const OF_A_DEVICE: usize = 52;

impl Secret {
    /// For a device to keep.
    pub(crate) fn for_a_device() -> Result<Self, Faults> {
        drawn(OF_A_DEVICE).map(Self)
    }

    /// For somebody to type.
    pub(crate) fn for_somebody() -> Result<Self, Faults> {
        drawn(OF_A_CODE).map(Self)
    }

    /// The letters.
    #[must_use]
    pub fn letters(&self) -> &str {
        &self.0
    }

    /// The same in two halves, to be read out.
    #[must_use]
    pub fn in_halves(&self) -> String {
        let (first, second) = self.0.split_at(self.0.len() / 2);
        format!("{first}-{second}")
    }
}

fn drawn(letters: usize) -> Result<String, Faults> {
    let mut bytes = vec![0_u8; letters];
    getrandom::fill(&mut bytes)
        .map_err(|error| Fault::new(FaultCode::Broken).with("why", error.to_string()))?;
    // 256 is 8 times 32: each letter is as likely as any other.
    Ok(bytes.iter().map(|byte| char::from(LETTERS[usize::from(byte % 32)])).collect())
}

/// What is kept of a secret.
///
/// # Example
/// ```
/// use zymarch_farm::people::hash;
///
/// assert_eq!(hash("")[..4], [0xe3, 0xb0, 0xc4, 0x42]); // FIPS 180-4, the empty message
/// ```
#[must_use]
pub fn hash(letters: &str) -> Hash {
    Sha256::digest(letters.as_bytes()).into()
}

/// A code as somebody typed it, as it was made: in small letters, with spaces or a dash, with an O for a
/// nought or an I or L for a one.
pub(crate) fn as_made(typed: &str) -> String {
    let letters = typed.chars().filter(|sign| sign.is_alphanumeric()).take(OF_A_CODE + 1);
    let plain = letters.map(|sign| match sign.to_ascii_uppercase() {
        'O' => '0',
        'I' | 'L' => '1',
        other => other,
    });
    plain.collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_code_is_read_as_people_type_it() {
        let code = Secret("7K10D2M9XT".into());
        assert_eq!(code.in_halves(), "7K10D-2M9XT");
        for typed in ["7K10D-2M9XT", " 7k1od 2m9xt ", "7KIOD2M9XT", "7kl0d-2m9xt."] {
            assert_eq!(as_made(typed), code.letters(), "{typed}");
        }
        assert_ne!(as_made("7K10D2M9X"), code.letters());
    }

    #[test]
    fn no_two_are_alike_and_none_is_told() {
        let made: std::collections::BTreeSet<String> =
            (0..200).map(|_| Secret::for_somebody().expect("is drawn").letters().to_owned()).collect();
        assert_eq!(made.len(), 200);
        assert!(made.iter().all(|code| code.len() == 10 && code.bytes().all(|one| LETTERS.contains(&one))));
        assert_eq!(format!("{:?}", Secret::for_a_device().expect("is drawn")), "Secret");
    }
}
