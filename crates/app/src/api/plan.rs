//! From what is wanted to a batch that can be built.

pub(super) mod ask;
pub(super) mod batch;
pub(super) mod choices;
pub(super) mod method;
