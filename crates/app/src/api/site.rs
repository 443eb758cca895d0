//! Farms and plots.

use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::climate::{Climate, Month};
use zymarch_formats::field::Refusal;
use zymarch_store::id::SiteId;
use zymarch_store::measure::{self, NewMeasure};
use zymarch_store::site::{self, NewSite};

use super::convert;
use crate::farm;
use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// A farm or plot with its own stock, measures and batches.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Site {
    id: i64,
    version: i64,
    #[serde(flatten)]
    fields: SiteFields,
}

/// What a site is.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct SiteFields {
    /// What people call it.
    name: String,
    /// Above the sea, m.
    altitude_m: Option<f64>,
    /// Twelve months, January first; none if not known.
    climate: Option<Vec<SiteMonth>>,
}

/// What a month is usually like.
#[derive(Debug, Clone, Copy, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct SiteMonth {
    /// Mean air temperature, degrees C.
    mean_c: f64,
    /// How far the day rises above, and the night falls below, the mean, K.
    swing_c: f64,
    /// Rain in the whole month, mm.
    rain_mm: f64,
}

/// A change of a site that was read at a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct SiteChange {
    /// The version that was read.
    version: i64,
    /// What it is now.
    site: SiteFields,
}

impl SiteFields {
    fn checked(self) -> Result<NewSite, Refusal> {
        let name = convert::name("name", &self.name)?;
        if let Some(altitude) = self.altitude_m
            && !(-500.0..=6000.0).contains(&altitude)
        {
            return Err(Refusal::one("altitude_m", format!("must be between -500 and 6000, got {altitude}")));
        }
        let climate = self.climate.map(|months| climate(&months)).transpose()?;
        Ok(NewSite { name, altitude_m: self.altitude_m, climate })
    }
}

fn climate(months: &[SiteMonth]) -> Result<Climate, Refusal> {
    let read = months.iter().enumerate().map(|(index, of)| {
        Month::new(of.mean_c, of.swing_c, of.rain_mm)
            .map_err(|error| Refusal::one(format!("climate[{index}].{}", error.field), error.to_string()))
    });
    let months: Vec<Month> = read.collect::<Result<_, _>>()?;
    let count = months.len();
    <[Month; 12]>::try_from(months)
        .map(Climate)
        .map_err(|_| Refusal::one("climate", format!("must hold twelve months, got {count}")))
}

impl From<site::Site> for Site {
    fn from(site: site::Site) -> Self {
        let NewSite { name, altitude_m, climate } = site.fields;
        let month = |of: Month| SiteMonth { mean_c: of.mean_c, swing_c: of.swing_c, rain_mm: of.rain_mm };
        let climate = climate.map(|Climate(months)| months.into_iter().map(month).collect());
        Self { id: site.id.0, version: site.version, fields: SiteFields { name, altitude_m, climate } }
    }
}

/// Every site
#[utoipa::path(get, operation_id = "site_list", tag = "site", path = "/api/sites", responses((status = 200, body = Vec<Site>)))]
pub(super) async fn list(State(state): State<App>) -> Result<Json<Vec<Site>>, ApiError> {
    let sites = state.store.read(|conn| site::all(conn)).await?;
    Ok(Json(sites.into_iter().map(Site::from).collect()))
}

/// A new site, with the two containers nearly everyone has
#[utoipa::path(post, operation_id = "site_create", tag = "site", path = "/api/sites", request_body = SiteFields, responses(
    (status = 201, body = Site),
    Refusals,
))]
pub(super) async fn create(
    State(state): State<App>,
    Body(body): Body<SiteFields>,
) -> Result<(StatusCode, Json<Site>), ApiError> {
    let (new, now) = (body.checked()?, state.clock.now());
    let site = state
        .store
        .write(move |conn| {
            let site = site::insert(conn, &new, &now)?;
            for (name, plural, litres) in farm::FIRST_MEASURES {
                measure::insert(conn, site.id, &NewMeasure::of_litres(name, plural, litres, name), &now)?;
            }
            Ok::<_, ApiError>(site)
        })
        .await?;
    Ok((StatusCode::CREATED, Json(site.into())))
}

/// Change a site
#[utoipa::path(put, operation_id = "site_change", tag = "site", path = "/api/sites/{id}", params(("id" = i64, Path)), request_body = SiteChange, responses(
    (status = 200, body = Site),
    Refusals,
))]
pub(super) async fn change(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<SiteChange>,
) -> Result<Json<Site>, ApiError> {
    let new = body.site.checked()?;
    let site = state.store.write(move |conn| site::update(conn, SiteId(id), body.version, &new)).await?;
    Ok(Json(site.into()))
}

/// Remove a site and all that is at it; it can be brought back
#[utoipa::path(delete, operation_id = "site_remove", tag = "site", path = "/api/sites/{id}", params(("id" = i64, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(super) async fn remove(State(state): State<App>, Path(id): Path<i64>) -> Result<StatusCode, ApiError> {
    let now = state.clock.now();
    state.store.write(move |conn| site::remove(conn, SiteId(id), &now)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Bring a removed site back
#[utoipa::path(post, operation_id = "site_restore", tag = "site", path = "/api/sites/{id}/restore", params(("id" = i64, Path)), responses(
    (status = 200, body = Site),
    Refusals,
))]
pub(super) async fn restore(State(state): State<App>, Path(id): Path<i64>) -> Result<Json<Site>, ApiError> {
    let site = state.store.write(move |conn| site::restore(conn, SiteId(id))).await?;
    Ok(Json(site.into()))
}
