//! People, their devices, the codes that let them in, and what was noted of it.

pub mod code;
pub mod failures;
pub mod noted;
pub mod person;
pub mod session;
