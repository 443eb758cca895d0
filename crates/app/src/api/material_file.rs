//! Materials as a CSV file, in and out, with the columns of the reference table.

use axum::Json;
use axum::extract::{Query, State};
use axum::http::header::{CONTENT_DISPOSITION, CONTENT_TYPE};
use axum::response::IntoResponse;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use zymarch_core::material::{self as table, Material, ReadRow};
use zymarch_formats::field::{FieldError, Refusal};
use zymarch_formats::material::{Doubt, doubts, refused, taken_by_table};
use zymarch_store::material;

use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// Which materials go into a file.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(super) struct Which {
    /// Only a person's own, without the reference table.
    #[serde(default)]
    own: bool,
}

/// A file to be taken in.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct ImportRequest {
    /// The text of the file.
    csv: String,
    /// Whether to write it down; else it is only looked at.
    #[serde(default)]
    write: bool,
}

/// What a file holds, row by row.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct ImportAnswer {
    /// Whether it was written down.
    written: bool,
    /// Its rows, in order.
    rows: Vec<ImportRow>,
}

/// A row of a file.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct ImportRow {
    /// Line in the file, the header being 1.
    line: u64,
    /// What stands under `id`.
    id: String,
    /// What stands under `name`, if the row could be read.
    name: Option<String>,
    /// `new`, `changed`, `same` or `bad`.
    what: &'static str,
    /// Every bad cell.
    faults: Vec<ImportFault>,
    /// What in its figures cannot be true, or hardly.
    doubts: Vec<Doubt>,
}

/// A bad cell.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct ImportFault {
    /// Column name.
    column: String,
    /// Why, and what is expected.
    reason: String,
}

/// Materials as CSV
#[utoipa::path(get, operation_id = "material_file", tag = "material", path = "/api/materials.csv", params(Which), responses(
    (status = 200, body = String, content_type = "text/csv"),
))]
pub(super) async fn export(
    State(state): State<App>,
    Query(which): Query<Which>,
) -> Result<impl IntoResponse, ApiError> {
    let own = state.store.read(|conn| material::all(conn)).await?;
    let book = if which.own { &[] } else { table::all() };
    let text = table::write(own.iter().map(|own| &own.material).chain(book));
    let name = if which.own { "my-materials.csv" } else { "materials.csv" };
    Ok((
        [
            (CONTENT_TYPE, "text/csv; charset=utf-8".to_owned()),
            (CONTENT_DISPOSITION, format!("attachment; filename=\"{name}\"")),
        ],
        text,
    ))
}

/// Look at a file of materials, or take it in: all of it or nothing
#[utoipa::path(post, operation_id = "material_import", tag = "material", path = "/api/materials/import", request_body = ImportRequest, responses(
    (status = 200, body = ImportAnswer),
    Refusals,
))]
pub(super) async fn import(
    State(state): State<App>,
    Body(request): Body<ImportRequest>,
) -> Result<Json<ImportAnswer>, ApiError> {
    let rows = table::rows(&request.csv).map_err(|bad| refused(&bad))?;
    let now = state.clock.now();
    let answer = state
        .store
        .write::<_, ApiError, _>(move |conn| {
            let known: Vec<Material> = material::all(conn)?.into_iter().map(|own| own.material).collect();
            let seen: Vec<ImportRow> = rows.iter().map(|row| ImportRow::new(row, &known)).collect();
            if request.write {
                refuse_bad(&seen)?;
                for row in rows.iter().zip(&seen).filter(|(_, seen)| seen.what != "same").map(|(row, _)| row)
                {
                    if let Ok(material) = &row.material {
                        material::put(conn, material, &now)?;
                    }
                }
            }
            Ok(ImportAnswer { written: request.write, rows: seen })
        })
        .await?;
    if answer.written {
        state.read_own().await?;
    }
    Ok(Json(answer))
}

/// All or nothing: one bad row keeps the whole file out.
fn refuse_bad(rows: &[ImportRow]) -> Result<(), Refusal> {
    let errors: Vec<FieldError> = rows
        .iter()
        .flat_map(|row| {
            row.faults.iter().map(|fault| FieldError {
                field: fault.column.clone(),
                line: usize::try_from(row.line).ok(),
                reason: fault.reason.clone(),
            })
        })
        .collect();
    if errors.is_empty() { Ok(()) } else { Err(Refusal { errors }) }
}

impl ImportRow {
    fn new(row: &ReadRow, known: &[Material]) -> Self {
        let blank = |what, faults| Self {
            line: row.line,
            id: row.id.clone(),
            name: None,
            what,
            faults,
            doubts: Vec::new(),
        };
        let material = match &row.material {
            Ok(material) => material,
            Err(bad) => {
                let fault = |cell: &table::BadRow| ImportFault {
                    column: cell.column.clone(),
                    reason: cell.reason.clone(),
                };
                return blank("bad", bad.iter().map(fault).collect());
            }
        };
        let what = match table::find(&row.id) {
            Some(book) if book == material => "same",
            Some(_) => {
                let fault = ImportFault { column: "id".into(), reason: taken_by_table(&row.id) };
                return blank("bad", vec![fault]);
            }
            None => match known.iter().find(|own| own.id == row.id) {
                None => "new",
                Some(own) if *own == (Material { is_own: true, ..material.clone() }) => "same",
                Some(_) => "changed",
            },
        };
        let doubts = if what == "same" { Vec::new() } else { doubts(material) };
        Self { name: Some(material.name.clone()), doubts, ..blank(what, Vec::new()) }
    }
}
