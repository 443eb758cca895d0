//! On the local network: by what names, sealed with which certificate, and what is told a phone that
//! does not trust it yet.

pub(crate) mod addresses;
pub(crate) mod certificate;
pub(crate) mod door;
