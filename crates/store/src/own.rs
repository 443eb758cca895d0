//! Columns that several tables share: a person's own figures, and words of closed lists.

use rusqlite::Row;
use zymarch_core::base::quantity::Fraction;
use zymarch_core::stock::Own;

/// The figures of a row.
pub(crate) fn from_row(row: &Row<'_>) -> rusqlite::Result<Own> {
    let share = |column: &str| -> rusqlite::Result<Option<Fraction>> {
        let value: Option<f64> = row.get(column)?;
        Ok(value.and_then(|value| Fraction::new(value).ok()))
    };
    Ok(Own {
        moisture: share("moisture")?,
        nitrogen: share("nitrogen")?,
        c_n: row.get("c_n")?,
        ash: share("ash")?,
        lignin: share("lignin")?,
        density_kg_l: row.get("density_kg_l")?,
        settle: row.get("settle")?,
        chopped: row.get("chopped")?,
        ..Own::default()
    })
}

/// A share as the column holds it.
pub(crate) fn share(of: Option<Fraction>) -> Option<f64> {
    of.map(Fraction::get)
}

/// A word of a closed list as a column holds it.
pub(crate) fn word<T>(row: &Row<'_>, column: &str, parse: fn(&str) -> Option<T>) -> rusqlite::Result<T> {
    let text: String = row.get(column)?;
    parse(&text).ok_or_else(|| {
        let unknown = format!("{column}: `{text}`");
        rusqlite::Error::FromSqlConversionFailure(0, rusqlite::types::Type::Text, unknown.into())
    })
}
