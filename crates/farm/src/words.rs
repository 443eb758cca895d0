//! Names, days and amounts, as they are sent and as they are kept.

use jiff::civil::Date;
use zymarch_core::base::fault::{At, Fault, FaultCode};
use zymarch_core::base::words::closed_list;
use zymarch_core::mix::step::Counted;
use zymarch_store::held::Held;
use zymarch_store::id::MeasureId;

/// The longest name or label, in characters.
pub(crate) const LONGEST_NAME: usize = 80;

/// No day of a farm's records lies before this year.
const FIRST_YEAR: i16 = 1990;

closed_list! {
    /// How an amount is said.
    Unit {
        /// Counted in one of the site's measures.
        Measure = "measure",
        /// Weighed.
        Kg = "kg",
        /// Loose litres.
        Litre = "litre",
    }
}

impl From<Unit> for Counted {
    fn from(unit: Unit) -> Self {
        match unit {
            Unit::Measure => Self::Measures,
            Unit::Kg => Self::Weighed,
            Unit::Litre => Self::Poured,
        }
    }
}

/// An amount as it is kept.
///
/// # Errors
/// A measure that is missing, or unwanted.
pub(crate) fn held(amount: f64, unit: Unit, measure: Option<MeasureId>) -> Result<Held, Fault> {
    match (unit, measure) {
        (Unit::Kg, None) => Ok(Held::Kilograms { amount }),
        (Unit::Litre, None) => Ok(Held::Litres { amount }),
        (Unit::Measure, Some(measure)) => Ok(Held::Measures { amount, measure }),
        (Unit::Measure, None) => Err(Fault::of("measure_id", FaultCode::MeasureMissing)),
        (Unit::Kg | Unit::Litre, Some(_)) => Err(Fault::of("measure_id", FaultCode::MeasureUnwanted)),
    }
}

/// An amount as it is sent.
pub(crate) const fn amount(held: Held) -> (f64, Unit, Option<MeasureId>) {
    let unit = match held {
        Held::Kilograms { .. } => Unit::Kg,
        Held::Litres { .. } => Unit::Litre,
        Held::Measures { .. } => Unit::Measure,
    };
    (held.amount(), unit, held.measure())
}

/// A name that is one: something, not too long, on one line.
///
/// # Errors
/// What is wrong with it, under `field`.
pub(crate) fn name(field: &'static str, text: &str) -> Result<String, Fault> {
    let text = text.trim();
    if text.is_empty() {
        return Err(Fault::of(field, FaultCode::EmptyName));
    }
    if text.chars().count() > LONGEST_NAME {
        return Err(Fault::of(field, FaultCode::TooLong).with("most", LONGEST_NAME));
    }
    if text.chars().any(char::is_control) {
        return Err(Fault::of(field, FaultCode::ControlSigns));
    }
    Ok(text.to_owned())
}

/// A name that may be left out.
///
/// # Errors
/// What is wrong with it, under `field`.
pub(crate) fn label(field: &'static str, text: Option<&str>) -> Result<Option<String>, Fault> {
    text.map(str::trim).filter(|text| !text.is_empty()).map(|text| name(field, text)).transpose()
}

/// A day of the calendar, as 2026-03-14, not after `today`.
///
/// # Errors
/// What is wrong with it, under `field`.
pub(crate) fn day(field: &'static str, text: &str, today: Date) -> Result<String, Fault> {
    let day: Date = text.parse().map_err(|_| Fault::of(field, FaultCode::NotADay).with("got", text))?;
    if day > today {
        return Err(Fault::of(field, FaultCode::InFuture).with("today", today.to_string()));
    }
    if day.year() < FIRST_YEAR {
        return Err(Fault::of(field, FaultCode::TooFarAway).with("got", text));
    }
    Ok(day.to_string())
}

/// Days from a day kept in the records to today.
pub(crate) fn days_since(day: &str, today: Date) -> i64 {
    let day = day.get(..10).unwrap_or(day).parse::<Date>();
    day.ok().and_then(|day| day.until(today).ok()).map_or(0, |span| i64::from(span.get_days()))
}

/// The faults of one part of an input, each with the path to it before its own.
pub(crate) trait Under<T> {
    /// The same under `field`.
    fn under(self, field: &'static str) -> Result<T, zymarch_core::base::fault::Faults>;
}

impl<T, E: Into<zymarch_core::base::fault::Faults>> Under<T> for Result<T, E> {
    fn under(self, field: &'static str) -> Result<T, zymarch_core::base::fault::Faults> {
        self.map_err(|faults| faults.into().under(&At::ROOT.key(field)))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn names_are_checked() {
        assert_eq!(name("name", "  Terrace heap "), Ok("Terrace heap".into()));
        let code = |text: &str| name("name", text).expect_err("is no name").code;
        assert_eq!(code(" "), FaultCode::EmptyName);
        assert_eq!(code(&"x".repeat(81)), FaultCode::TooLong);
        assert_eq!(code("a\nb"), FaultCode::ControlSigns);
    }

    #[test]
    fn days_are_checked_and_counted() {
        let today = jiff::civil::date(2026, 3, 14);
        assert_eq!(day("on", "2026-03-01", today), Ok("2026-03-01".into()));
        for bad in ["2026-02-30", "2026-03-15", "soon", "1066-01-01"] {
            assert!(day("on", bad, today).is_err(), "{bad}");
        }
        assert_eq!(days_since("2025-12-14", today), 90);
        assert_eq!(days_since("2026-03-10T09:00:00Z", today), 4);
    }
}
