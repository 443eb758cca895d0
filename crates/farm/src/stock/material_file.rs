//! Materials as a CSV file, in and out, with the columns of the reference table.

use std::collections::HashMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{Fault, Faults, MOST_TOLD};
use zymarch_core::base::words::closed_list;
use zymarch_core::stock::material::{self as table, Material, ReadRow};
use zymarch_formats::fault::FaultAnswer;
use zymarch_formats::material::{Doubt, doubts, taken_by_table};
use zymarch_store::material;

use crate::{Transaction, Who};

/// A file to be taken in.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ImportRequest {
    /// The text of the file.
    pub csv: String,
    /// Whether to write it down; else it is only looked at.
    #[serde(default)]
    pub write: bool,
}

/// What a file holds, row by row.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ImportAnswer {
    /// Whether it was written down.
    pub written: bool,
    /// Its rows, in order.
    pub rows: Vec<ImportRow>,
}

closed_list! {
    /// What a row of a file comes to.
    RowComesTo {
        /// A material that was not there.
        New = "new",
        /// Other figures for one that was.
        Changed = "changed",
        /// What is there already.
        Same = "same",
        /// Something that cannot be taken in.
        Bad = "bad",
    }
}

/// A row of a file.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ImportRow {
    /// Line in the file, the header being 1.
    pub line: usize,
    /// What stands under `id`.
    pub id: String,
    /// What stands under `name`, if the row could be read.
    pub name: Option<String>,
    /// What it comes to.
    pub what: RowComesTo,
    /// Every bad cell.
    pub faults: Vec<FaultAnswer>,
    /// What in its figures cannot be true, or hardly.
    pub doubts: Vec<Doubt>,
}

/// Materials as the text of a file: a person's own, and the reference table if wanted.
///
/// # Errors
/// The records cannot be read.
pub fn export(tx: &Transaction<'_>, own_only: bool) -> Result<String, Faults> {
    let own = material::all(tx.conn)?;
    let book = if own_only { &[] } else { table::all() };
    Ok(table::write(own.iter().map(|own| &own.material).chain(book)))
}

/// Looks at a file of materials, or takes it in: all of it or nothing.
///
/// # Errors
/// A file that is no table; when writing, every bad cell.
pub fn import(tx: &mut Transaction<'_>, _who: &Who, request: &ImportRequest) -> Result<ImportAnswer, Faults> {
    let rows = table::rows(&request.csv).map_err(Faults)?;
    let own = material::all(tx.conn)?.into_iter().map(|own| (own.material.id.clone(), own.material));
    let known: HashMap<String, Material> = own.collect();
    let seen: Vec<(RowComesTo, Vec<Fault>)> = rows.iter().map(|row| comes_to(row, &known)).collect();
    if request.write {
        Faults::or(seen.iter().flat_map(|(_, faults)| faults.clone()).collect(), || ())?;
        let now = tx.now_text();
        for (row, _) in rows.iter().zip(&seen).filter(|(_, (what, _))| *what != RowComesTo::Same) {
            if let Ok(material) = &row.material {
                material::put(tx.conn, material, &now)?;
            }
        }
    }
    // The first faults are told; of rows beyond them only that they are bad.
    let mut left = MOST_TOLD;
    let told = rows.iter().zip(seen).map(|(row, (what, mut faults))| {
        faults.truncate(left);
        left -= faults.len();
        told(row, what, faults)
    });
    Ok(ImportAnswer { written: request.write, rows: told.collect() })
}

fn comes_to(row: &ReadRow, known: &HashMap<String, Material>) -> (RowComesTo, Vec<Fault>) {
    let on_line = |fault: Fault| if fault.line.is_some() { fault } else { fault.on_line(row.line) };
    let material = match &row.material {
        Ok(material) => material,
        Err(faults) => return (RowComesTo::Bad, faults.iter().cloned().map(on_line).collect()),
    };
    match (table::find(&row.id), known.get(&row.id)) {
        (Some(book), _) if book == material => (RowComesTo::Same, Vec::new()),
        (Some(_), _) => (RowComesTo::Bad, vec![on_line(taken_by_table(&row.id))]),
        (None, None) => (RowComesTo::New, Vec::new()),
        (None, Some(own)) if *own == (Material { is_own: true, ..material.clone() }) => {
            (RowComesTo::Same, Vec::new())
        }
        (None, Some(_)) => (RowComesTo::Changed, Vec::new()),
    }
}

fn told(row: &ReadRow, what: RowComesTo, faults: Vec<Fault>) -> ImportRow {
    let material = row.material.as_ref().ok().filter(|_| what != RowComesTo::Bad);
    ImportRow {
        line: row.line,
        id: row.id.clone(),
        name: material.map(|material| material.name.clone()),
        what,
        faults: faults.iter().map(FaultAnswer::from).collect(),
        doubts: material.filter(|_| what != RowComesTo::Same).map(doubts).unwrap_or_default(),
    }
}
