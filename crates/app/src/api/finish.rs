//! Finishing and using.

pub(crate) mod compost;
pub(crate) mod ground;
pub(crate) mod look;
