//! The demo farm, as open files.

use rust_embed::RustEmbed;
use zymarch_core::base::fault::Faults;
use zymarch_formats::farm::{self, Farm};

#[derive(RustEmbed)]
#[folder = "../../demo"]
struct DemoFiles;

/// The demo farm, read as any package is.
///
/// # Errors
/// A row of it is at fault: a defect of this build.
pub fn farm() -> Result<Farm, Faults> {
    farm::read(|name| {
        let file = DemoFiles::get(name).ok_or(std::io::ErrorKind::NotFound)?;
        Ok(file.data.into_owned())
    })
}
