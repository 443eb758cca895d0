//! The time, real or fixed.

use std::str::FromStr;

use jiff::civil::{Date, DateTime};
use jiff::{Timestamp, Zoned, tz::TimeZone};

/// Where the program gets the time from.
#[derive(Debug, Clone, Copy)]
pub enum Clock {
    /// From the machine.
    Real,
    /// Always the same, for the demo, tests and pictures.
    Fixed(Timestamp),
}

impl Clock {
    /// The time now, RFC 3339 in UTC.
    #[must_use]
    pub fn now(self) -> String {
        match self {
            Self::Real => Timestamp::now().to_string(),
            Self::Fixed(at) => at.to_string(),
        }
    }

    /// The day it is: where the machine stands, or in UTC when fixed.
    #[must_use]
    pub fn today(self) -> Date {
        match self {
            Self::Real => Zoned::now().date(),
            Self::Fixed(at) => at.to_zoned(TimeZone::UTC).date(),
        }
    }
}

impl FromStr for Clock {
    type Err = String;

    /// Reads `2026-03-14T08:00` (taken as UTC) or a full timestamp.
    fn from_str(text: &str) -> Result<Self, Self::Err> {
        text.parse::<Timestamp>()
            .or_else(|_| {
                let local: DateTime = text.parse()?;
                local.to_zoned(TimeZone::UTC).map(|zoned| zoned.timestamp())
            })
            .map(Self::Fixed)
            .map_err(|_| format!("`{text}` is not a time such as 2026-03-14T08:00"))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_fixed_clock_stands_still() {
        let clock: Clock = "2026-03-14T08:00".parse().expect("is a time");
        assert_eq!(clock.now(), "2026-03-14T08:00:00Z");
        assert_eq!(clock.today().to_string(), "2026-03-14");
    }

    #[test]
    fn nonsense_is_no_time() {
        assert!("yesterday".parse::<Clock>().is_err());
    }
}
