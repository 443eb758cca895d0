//! The text of a file, in whichever way it was saved.
//!
//! Spreadsheets and editors on Windows put a byte-order mark in front, or save as UTF-16.
//! Both are read; what is neither is refused by name, never read as something else.

use zymarch_core::base::fault::{Fault, FaultCode};

/// The text of bytes in UTF-8, with or without a byte-order mark, or in UTF-16 with one.
///
/// # Source
/// The Unicode Standard, section 23.8, on the byte-order mark.
///
/// # Errors
/// [`FaultCode::NotUtf8`] if it is none of them.
///
/// # Example
/// ```
/// use zymarch_formats::text::decoded;
/// assert_eq!(decoded(b"\xEF\xBB\xBFstraw".to_vec())?, "straw");
/// assert_eq!(decoded(b"\xFF\xFEs\0t\0".to_vec())?, "st");
/// assert!(decoded(b"pa\xEFs".to_vec()).is_err(), "Latin-1");
/// # Ok::<(), zymarch_core::base::fault::Fault>(())
/// ```
pub fn decoded(bytes: Vec<u8>) -> Result<String, Fault> {
    let refused = || Fault::new(FaultCode::NotUtf8);
    let wide = |bytes: &[u8], unit: fn([u8; 2]) -> u16| {
        let pairs = bytes.chunks_exact(2);
        if !pairs.remainder().is_empty() {
            return Err(refused());
        }
        let units = pairs.map(|pair| unit([pair[0], pair[1]]));
        char::decode_utf16(units).collect::<Result<String, _>>().map_err(|_| refused())
    };
    match bytes[..] {
        // The same two bytes begin UTF-32, whose third and fourth are zero.
        [0xFF, 0xFE, 0, 0, ..] => Err(refused()),
        [0xFF, 0xFE, ref rest @ ..] => wide(rest, u16::from_le_bytes),
        [0xFE, 0xFF, ref rest @ ..] => wide(rest, u16::from_be_bytes),
        _ => {
            let text = String::from_utf8(bytes).map_err(|_| refused())?;
            Ok(unmarked(&text).map(str::to_owned).unwrap_or(text))
        }
    }
}

/// The text behind a byte-order mark, if there is one.
#[must_use]
pub fn unmarked(text: &str) -> Option<&str> {
    text.strip_prefix('\u{feff}')
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        /// However a text was saved, it is the same text.
        #[test]
        fn every_way_of_saving_a_text_gives_it_back(text in "\\PC{0,40}") {
            prop_assume!(unmarked(&text).is_none());
            let wide = |mark: [u8; 2], unit: fn(u16) -> [u8; 2]| {
                mark.into_iter().chain(text.encode_utf16().flat_map(unit)).collect::<Vec<u8>>()
            };
            prop_assert_eq!(&decoded(text.clone().into_bytes())?, &text);
            prop_assert_eq!(&decoded(format!("\u{feff}{text}").into_bytes())?, &text);
            prop_assert_eq!(&decoded(wide([0xFE, 0xFF], u16::to_be_bytes))?, &text);
            // A text that begins with NUL is not told from UTF-32 when saved so.
            prop_assume!(!text.starts_with('\0'));
            prop_assert_eq!(&decoded(wide([0xFF, 0xFE], u16::to_le_bytes))?, &text);
        }

        #[test]
        fn no_bytes_at_all_make_it_panic(bytes in proptest::collection::vec(any::<u8>(), 0..64)) {
            let _ = decoded(bytes);
        }
    }

    #[test]
    fn half_a_letter_is_refused() {
        assert!(decoded(b"\xFF\xFEs".to_vec()).is_err());
        assert!(decoded(b"\xFE\xFF\xD8\x00".to_vec()).is_err(), "half a pair");
    }
}
