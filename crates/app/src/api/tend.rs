//! Tending: what is written down of a heap, what it is expected to do, what sends its heat.

pub(super) mod ask;
pub(super) mod calendar;
pub(super) mod device;
pub(super) mod judge;
pub(super) mod log;
pub(super) mod picture;
