//! Photos as they are sent: taken out of base64, told by what they are, and stripped of all but the picture.
//!
//! A camera writes into a photo where and by what it was taken. Whoever sends one has it drawn anew, which
//! leaves that out; here it is left out again, whatever was sent.

use base64::Engine as _;
use base64::engine::general_purpose::STANDARD;
use img_parts::{Bytes, DynImage, ImageEXIF as _, ImageICC as _, jpeg::Jpeg, jpeg::markers};
use zymarch_core::base::fault::{Fault, FaultCode};

/// The largest photo [bytes].
pub const LARGEST_PHOTO: usize = 1024 * 1024;

/// A photo with nothing in it but the picture.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Bare {
    /// Its type of media.
    pub media: &'static str,
    /// Itself.
    pub bytes: Vec<u8>,
}

/// A photo in base64, without what its camera wrote into it.
///
/// # Errors
/// It is not base64, is larger than [`LARGEST_PHOTO`], or is no JPEG, WebP or PNG.
pub fn bare(text: &str) -> Result<Bare, Fault> {
    let too_large = || Fault::new(FaultCode::DocumentTooLarge).with("most_kb", LARGEST_PHOTO / 1024);
    if text.len() > LARGEST_PHOTO / 3 * 4 + 8 {
        return Err(too_large());
    }
    let no_picture = || Fault::new(FaultCode::NoPicture);
    let bytes = STANDARD.decode(text.trim()).map_err(|_| no_picture())?;
    if bytes.len() > LARGEST_PHOTO {
        return Err(too_large());
    }
    let mut image = DynImage::from_bytes(Bytes::from(bytes)).ok().flatten().ok_or_else(no_picture)?;
    image.set_exif(None);
    image.set_icc_profile(None);
    let media = match &mut image {
        DynImage::Jpeg(jpeg) => {
            keep_the_picture(jpeg);
            "image/jpeg"
        }
        DynImage::Png(png) => {
            png.chunks_mut().retain(|chunk| is_of_the_picture(chunk.kind()));
            "image/png"
        }
        DynImage::WebP(webp) => {
            webp.remove_chunks_by_id(*b"XMP ");
            "image/webp"
        }
    };
    Ok(Bare { media, bytes: image.encoder().bytes().to_vec() })
}

/// Leaves out every segment that is for programs or people and not for drawing.
fn keep_the_picture(jpeg: &mut Jpeg) {
    jpeg.segments_mut().retain(|segment| {
        let marker = segment.marker();
        let is_for_programs = (markers::APP1..=markers::APP15).contains(&marker) && marker != markers::APP14;
        !is_for_programs && marker != markers::COM
    });
}

/// Whether a chunk of a PNG is for drawing.
fn is_of_the_picture(kind: [u8; 4]) -> bool {
    !matches!(&kind, b"tEXt" | b"zTXt" | b"iTXt" | b"eXIf" | b"tIME")
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A JPEG of segments that say where it was taken, and of a scan.
    fn photo() -> Vec<u8> {
        let mut bytes = vec![0xff, 0xd8];
        for (marker, words) in [
            (0xe0_u8, &b"JFIF\0\x01\x01\0\0\x01\0\x01\0\0"[..]),
            (0xe1, b"Exif\0\0GPS 12.5 S"),
            (0xe1, b"http://ns.adobe.com/xap/1.0/\0GPS"),
            (0xfe, b"made by somebody"),
            (0xdb, &[0; 65]),
            (0xc0, &[8, 0, 1, 0, 1, 1, 1, 0x11, 0]),
            (0xda, &[1, 1, 0, 0, 63, 0]),
        ] {
            let length = (words.len() + 2) as u16;
            bytes.extend([0xff, marker]);
            bytes.extend(length.to_be_bytes());
            bytes.extend(words);
        }
        bytes.extend([0x12, 0x34, 0xff, 0xd9]);
        bytes
    }

    #[test]
    fn where_it_was_taken_is_left_out() {
        let sent = photo();
        assert!(sent.windows(3).any(|three| three == b"GPS"));
        let kept = bare(&STANDARD.encode(&sent)).expect("is a photo");
        assert_eq!(kept.media, "image/jpeg");
        assert!(!kept.bytes.windows(3).any(|three| three == b"GPS"));
        assert!(!kept.bytes.windows(4).any(|four| four == b"some"));
        assert!(kept.bytes.windows(4).any(|four| four == b"JFIF"));
        assert!(kept.bytes.ends_with(&[0x12, 0x34, 0xff, 0xd9]), "the picture itself stays");
    }

    #[test]
    fn what_is_no_picture_is_refused() {
        for text in ["", "###", "aGVsbG8=", &STANDARD.encode(b"GIF89a......")] {
            assert_eq!(bare(text).expect_err("refused").code, FaultCode::NoPicture, "{text}");
        }
        let large = STANDARD.encode(vec![0; LARGEST_PHOTO + 1]);
        assert_eq!(bare(&large).expect_err("refused").code, FaultCode::DocumentTooLarge);
    }
}
