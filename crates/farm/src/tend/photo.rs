//! Photos: resized on the device that took them, and kept without saying where that was.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_formats::picture;
use zymarch_store::id::{EntryId, HeapId};
use zymarch_store::log::{self, About};
use zymarch_store::reading::{self, Photo};

use crate::Transaction;

/// A photo, as it is sent.
#[derive(Debug, Clone, PartialEq, Eq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PhotoSent {
    /// A JPEG, WebP or PNG of at most 1 MB, in base64.
    pub base64: String,
}

/// The photo as it is kept: nothing in it but the picture.
///
/// # Errors
/// It is no picture of a kind that is kept, or too large.
pub(super) fn kept(sent: &PhotoSent) -> Result<Photo, Faults> {
    let at = At::ROOT.key("photo");
    let found = picture::bare(&sent.base64).map_err(|fault| at.key("base64").put(fault))?;
    Ok(Photo { media: found.media.to_owned(), bytes: found.bytes })
}

/// The photo of an entry of a heap.
///
/// # Errors
/// It has none.
pub fn get(tx: &Transaction<'_>, (heap, entry): (HeapId, EntryId)) -> Result<Photo, Faults> {
    let its = log::get(tx.conn, entry)?.filter(|of| of.about == About::Heap(heap));
    let its = its.ok_or_else(|| Fault::new(FaultCode::NotFound).with("kind", "photo"))?;
    Ok(reading::photo(tx.conn, its.id)?)
}
