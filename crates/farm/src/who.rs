//! Who does something, and on what.

use zymarch_core::base::words::closed_list;

closed_list! {
    /// What somebody may do.
    Role {
        /// Everything.
        Keeper = "keeper",
    }
}

/// Who does something.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Who {
    /// The person; empty for the one person of this machine.
    pub person: String,
    /// The device, as it calls itself; empty if it does not.
    pub device: String,
    /// What they may do.
    pub role: Role,
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
        let device = device.trim().chars().filter(|sign| !sign.is_control()).take(LONGEST_DEVICE).collect();
        Self { person: String::new(), device, role: Role::Keeper }
    }
}
