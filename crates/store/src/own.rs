//! A person's own figures of a lot, in the columns that several tables share.

use rusqlite::Row;
use zymarch_core::quantity::Fraction;
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
    })
}

/// A share as the column holds it.
pub(crate) fn share(of: Option<Fraction>) -> Option<f64> {
    of.map(Fraction::get)
}
