//! Who does something, and where they may.

use jiff::Timestamp;
use zymarch_core::people::Role;
use zymarch_store::id::{PersonId, SessionId, SiteId};

/// Who does something.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Who {
    /// The person; none for whoever sits at the machine while no person was made.
    pub person: Option<PersonId>,
    /// How they are signed in.
    pub session: Option<SessionId>,
    /// The device, as it calls itself; empty if it does not.
    pub device: String,
    /// When they did it, where it waited for a signal since; none if just now.
    pub done_at: Option<Timestamp>,
    /// What they are.
    pub role: Role,
    /// Where.
    pub sites: Sites,
}

/// The sites that somebody sees.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Sites {
    /// All there are.
    All,
    /// Those given to them.
    Given(Vec<SiteId>),
}

/// The longest name of a device that is written down.
const LONGEST_DEVICE: usize = 80;

impl Who {
    /// The one person of this machine, on one of its devices.
    ///
    /// # Example
    /// ```
    /// assert_eq!(zymarch_farm::Who::local(" phone\n").device, "phone");
    /// ```
    #[must_use]
    pub fn local(device: &str) -> Self {
        let device = device_name(device);
        Self { person: None, session: None, device, done_at: None, role: Role::Owner, sites: Sites::All }
    }

    /// Whether a site is theirs to see.
    #[must_use]
    pub fn sees(&self, site: SiteId) -> bool {
        match &self.sites {
            Sites::All => true,
            Sites::Given(sites) => sites.contains(&site),
        }
    }
}

/// What a device calls itself, as it is written down.
pub(crate) fn device_name(device: &str) -> String {
    device.trim().chars().filter(|sign| !sign.is_control()).take(LONGEST_DEVICE).collect()
}
