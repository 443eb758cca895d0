//! The time, real or fixed.

use std::str::FromStr;

use jiff::civil::{Date, DateTime};
use jiff::{Timestamp, Zoned, tz::TimeZone};
use zymarch_core::base::fault::{Fault, FaultCode};

/// Where the program gets the time from.
#[derive(Debug, Clone, Copy)]
pub enum Clock {
    /// From the machine.
    Real,
    /// Always the same, for the demo, tests and pictures.
    Fixed(Timestamp),
}

impl Clock {
    /// The time, and the day it is: where the machine stands, or in UTC when fixed.
    #[must_use]
    pub fn now(self) -> (Timestamp, Date) {
        match self {
            Self::Real => {
                let now = Zoned::now();
                (now.timestamp(), now.date())
            }
            Self::Fixed(at) => (at, at.to_zoned(TimeZone::UTC).date()),
        }
    }
}

impl Clock {
    /// The zone by whose clock days are told.
    #[must_use]
    pub fn zone(self) -> TimeZone {
        match self {
            Self::Real => TimeZone::system(),
            Self::Fixed(_) => TimeZone::UTC,
        }
    }
}

impl FromStr for Clock {
    type Err = Fault;

    /// Reads `2026-03-14T08:00` (taken as UTC) or a full timestamp.
    fn from_str(text: &str) -> Result<Self, Self::Err> {
        text.parse::<Timestamp>()
            .or_else(|_| {
                let local: DateTime = text.parse()?;
                local.to_zoned(TimeZone::UTC).map(|zoned| zoned.timestamp())
            })
            .map(Self::Fixed)
            .map_err(|_| Fault::of("now", FaultCode::NotATime).with("got", text))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_fixed_clock_stands_still() {
        let clock: Clock = "2026-03-14T08:00".parse().expect("is a time");
        let (now, today) = clock.now();
        assert_eq!(
            (now.to_string(), today.to_string()),
            ("2026-03-14T08:00:00Z".into(), "2026-03-14".into())
        );
    }

    #[test]
    fn nonsense_is_no_time() {
        assert!("yesterday".parse::<Clock>().is_err());
    }
}
