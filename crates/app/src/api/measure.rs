//! The person's own containers.

use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::measure::LARGEST_MEASURE_L;
use zymarch_formats::field::Refusal;
use zymarch_store::id::{MeasureId, SiteId};
use zymarch_store::measure::{self, NewMeasure};
use zymarch_store::site;

use super::{convert, lot};
use crate::http::body::Body;
use crate::http::problem::{ApiError, Problem};
use crate::state::App;

/// A container.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Measure {
    id: i64,
    version: i64,
    #[serde(flatten)]
    fields: MeasureFields,
}

/// What a container is.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct MeasureFields {
    /// One of them: "barrow".
    name: String,
    /// Many of them: "barrows".
    plural: String,
    /// What one holds, litres.
    litres: f64,
    /// Sign it is drawn with: bucket, barrow, sack, cloth, pannier, basket or other.
    glyph: String,
}

/// A change of a container that was read at a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct MeasureChange {
    /// The version that was read.
    version: i64,
    /// What it is now.
    measure: MeasureFields,
}

const GLYPHS: [&str; 7] = ["bucket", "barrow", "sack", "cloth", "pannier", "basket", "other"];

impl MeasureFields {
    fn checked(self) -> Result<NewMeasure, Refusal> {
        let name = convert::name("name", &self.name)?;
        let plural = convert::name("plural", &self.plural)?;
        if !(self.litres > 0.0 && self.litres <= LARGEST_MEASURE_L) {
            let reason = format!("must be above 0 and at most {LARGEST_MEASURE_L}, got {}", self.litres);
            return Err(Refusal::one("litres", reason));
        }
        if !GLYPHS.contains(&self.glyph.as_str()) {
            return Err(Refusal::one("glyph", format!("must be one of {}", GLYPHS.join(", "))));
        }
        Ok(NewMeasure { name, plural, litres: self.litres, glyph: self.glyph })
    }
}

impl From<measure::Measure> for Measure {
    fn from(measure: measure::Measure) -> Self {
        let NewMeasure { name, plural, litres, glyph } = measure.fields;
        Self {
            id: measure.id.0,
            version: measure.version,
            fields: MeasureFields { name, plural, litres, glyph },
        }
    }
}

/// The containers of a site
#[utoipa::path(get, operation_id = "measure_list", tag = "measure", path = "/api/sites/{site}/measures", params(("site" = i64, Path)), responses(
    (status = 200, body = Vec<Measure>),
    (status = 404, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn list(
    State(state): State<App>,
    Path(site): Path<i64>,
) -> Result<Json<Vec<Measure>>, ApiError> {
    let measures = state
        .store
        .read(move |conn| {
            site::get(conn, SiteId(site))?;
            measure::of_site(conn, SiteId(site))
        })
        .await?;
    Ok(Json(measures.into_iter().map(Measure::from).collect()))
}

/// A new container
#[utoipa::path(post, operation_id = "measure_create", tag = "measure", path = "/api/sites/{site}/measures", params(("site" = i64, Path)), request_body = MeasureFields, responses(
    (status = 201, body = Measure),
    (status = 409, body = Problem, content_type = "application/problem+json"),
    (status = 422, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn create(
    State(state): State<App>,
    Path(site): Path<i64>,
    Body(body): Body<MeasureFields>,
) -> Result<(StatusCode, Json<Measure>), ApiError> {
    let (new, now) = (body.checked()?, state.clock.now());
    let measure = state
        .store
        .write(move |conn| {
            site::get(conn, SiteId(site))?;
            measure::insert(conn, SiteId(site), &new, &now)
        })
        .await?;
    Ok((StatusCode::CREATED, Json(measure.into())))
}

/// Change a container
#[utoipa::path(put, operation_id = "measure_change", tag = "measure", path = "/api/measures/{id}", params(("id" = i64, Path)), request_body = MeasureChange, responses(
    (status = 200, body = Measure),
    (status = 404, body = Problem, content_type = "application/problem+json"),
    (status = 409, body = Problem, content_type = "application/problem+json"),
    (status = 422, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn change(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<MeasureChange>,
) -> Result<Json<Measure>, ApiError> {
    let (new, now) = (body.measure.checked()?, state.clock.now());
    let changed = state
        .store
        .write::<_, ApiError, _>(move |conn| {
            let changed = measure::update(conn, MeasureId(id), body.version, &new, &now)?;
            // Lots counted in it must still come to an amount that can be.
            let site = measure::site_of(conn, changed.id)?;
            lot::of_site(conn, site)
                .map_err(|_| Refusal::one("litres", "makes a lot counted in it impossibly large"))?;
            Ok(changed)
        })
        .await?;
    Ok(Json(changed.into()))
}
