//! What every request can reach.

use zymarch_store::Store;

use crate::clock::Clock;

/// What every request can reach.
#[derive(Debug, Clone)]
pub struct App {
    /// The farm's records.
    pub store: Store,
    /// The time.
    pub clock: Clock,
    /// Whether this is the demo farm.
    pub demo: bool,
}
