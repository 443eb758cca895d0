//! The person's own containers.

use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::measure::vessel::{self, Vessel, Way};
use zymarch_formats::field::Refusal;
use zymarch_store::id::{MeasureId, SiteId};
use zymarch_store::measure::{self, MeasureWay, NewMeasure};
use zymarch_store::{Connection, site};

use super::{convert, lot};
use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// A container.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Measure {
    id: i64,
    version: i64,
    /// What one holds as it is filled, litres.
    litres: f64,
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
    /// Sign it is drawn with: bucket, barrow, sack, cloth, pannier, basket, cart, bale, hand or other.
    glyph: String,
    /// How its volume is known.
    way: VolumeWay,
    /// Filled to, as a share of level full: 1 level, 1.2 well heaped.
    #[serde(default = "level")]
    heaped: f64,
}

fn level() -> f64 {
    1.0
}

/// How the volume of a container is known.
#[derive(Debug, Clone, Copy, Serialize, Deserialize, ToSchema)]
#[serde(tag = "by", rename_all = "lowercase", deny_unknown_fields)]
pub(super) enum VolumeWay {
    /// Written on it, or known.
    Litres {
        /// Level full, litres.
        litres: f64,
    },
    /// Straight and round.
    Cylinder {
        /// Inside, across, cm.
        across_cm: f64,
        /// Inside, cm.
        height_cm: f64,
    },
    /// Round, wider at one end.
    Cone {
        /// Inside, across the top, cm.
        top_cm: f64,
        /// Inside, across the bottom, cm.
        bottom_cm: f64,
        /// Inside, upright, cm.
        height_cm: f64,
    },
    /// With straight sides.
    Box {
        /// Inside, cm.
        length_cm: f64,
        /// Inside, cm.
        width_cm: f64,
        /// Inside, cm.
        height_cm: f64,
    },
    /// So many fillings of a known volume.
    Counted {
        /// How many go in.
        count: f64,
        /// What each holds, litres.
        litres_each: f64,
    },
    /// So many of another measure of the site.
    Measures {
        /// How many go in.
        count: f64,
        /// Of which measure.
        measure_id: i64,
    },
}

/// A volume asked for before it is written down.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct VolumeRequest {
    way: VolumeWay,
    /// Filled to, as a share of level full.
    #[serde(default = "level")]
    heaped: f64,
}

/// What a container holds.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct VolumeAnswer {
    /// As it is filled, litres.
    litres: f64,
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

const GLYPHS: [&str; 10] =
    ["bucket", "barrow", "sack", "cloth", "pannier", "basket", "cart", "bale", "hand", "other"];

impl MeasureFields {
    /// Checked but for its volume, which other measures of the site may decide.
    fn checked(self) -> Result<NewMeasure, Refusal> {
        let name = convert::name("name", &self.name)?;
        let plural = convert::name("plural", &self.plural)?;
        if !GLYPHS.contains(&self.glyph.as_str()) {
            return Err(Refusal::one("glyph", format!("must be one of {}", GLYPHS.join(", "))));
        }
        Ok(NewMeasure {
            name,
            plural,
            litres: 0.0,
            glyph: self.glyph,
            way: self.way.into(),
            heaped: self.heaped,
        })
    }
}

impl From<VolumeWay> for MeasureWay {
    fn from(way: VolumeWay) -> Self {
        match way {
            VolumeWay::Litres { litres } => Self::Litres(litres),
            VolumeWay::Cylinder { across_cm, height_cm } => Self::Cylinder { across_cm, height_cm },
            VolumeWay::Cone { top_cm, bottom_cm, height_cm } => Self::Cone { top_cm, bottom_cm, height_cm },
            VolumeWay::Box { length_cm, width_cm, height_cm } => Self::Box { length_cm, width_cm, height_cm },
            VolumeWay::Counted { count, litres_each } => Self::Counted { count, litres_each },
            VolumeWay::Measures { count, measure_id } => Self::Measures { count, of: MeasureId(measure_id) },
        }
    }
}

impl From<MeasureWay> for VolumeWay {
    fn from(way: MeasureWay) -> Self {
        match way {
            MeasureWay::Litres(litres) => Self::Litres { litres },
            MeasureWay::Cylinder { across_cm, height_cm } => Self::Cylinder { across_cm, height_cm },
            MeasureWay::Cone { top_cm, bottom_cm, height_cm } => Self::Cone { top_cm, bottom_cm, height_cm },
            MeasureWay::Box { length_cm, width_cm, height_cm } => {
                Self::Box { length_cm, width_cm, height_cm }
            }
            MeasureWay::Counted { count, litres_each } => Self::Counted { count, litres_each },
            MeasureWay::Measures { count, of } => Self::Measures { count, measure_id: of.0 },
        }
    }
}

impl From<measure::Measure> for Measure {
    fn from(measure: measure::Measure) -> Self {
        let NewMeasure { name, plural, litres, glyph, way, heaped } = measure.fields;
        Self {
            id: measure.id.0,
            version: measure.version,
            litres,
            fields: MeasureFields { name, plural, glyph, way: way.into(), heaped },
        }
    }
}

/// What a container holds, the volumes of others given.
fn litres(
    way: MeasureWay,
    heaped: f64,
    of_measure: impl FnOnce(MeasureId) -> Option<f64>,
) -> Result<f64, Refusal> {
    let way = match way {
        MeasureWay::Litres(litres) => Way::Litres(litres),
        MeasureWay::Cylinder { across_cm, height_cm } => Way::Cylinder { across_cm, height_cm },
        MeasureWay::Cone { top_cm, bottom_cm, height_cm } => Way::Cone { top_cm, bottom_cm, height_cm },
        MeasureWay::Box { length_cm, width_cm, height_cm } => Way::Box { length_cm, width_cm, height_cm },
        MeasureWay::Counted { count, litres_each } => Way::Counted { count, litres_each },
        MeasureWay::Measures { count, of } => {
            let missing = || Refusal::one("way.measure_id", "is not a measure of this site");
            Way::Counted { count, litres_each: of_measure(of).ok_or_else(missing)? }
        }
    };
    vessel::litres(&Vessel { way, heaped }).map_err(|error| {
        let field = match error.field {
            "heaped" => "heaped".to_owned(),
            // The volume that comes out is at fault where the sides are; a plain one is a field.
            "litres" => "litres".to_owned(),
            side => format!("way.{side}"),
        };
        Refusal::one(field, error.to_string())
    })
}

/// Reckons every measure of a site anew, each after the one it is counted in.
fn settle(conn: &Connection, site: SiteId, now: &str) -> Result<(), ApiError> {
    let measures = measure::of_site(conn, site)?;
    let mut known: Vec<(MeasureId, f64)> = Vec::new();
    let mut waiting: Vec<_> = measures.iter().collect();
    while !waiting.is_empty() {
        let before = waiting.len();
        let mut still = Vec::new();
        for one in waiting {
            let of = |id| known.iter().find(|(known, _)| *known == id).map(|(_, litres)| *litres);
            match one.fields.way {
                MeasureWay::Measures { of: part, .. } if of(part).is_none() => still.push(one),
                way => {
                    let volume = litres(way, one.fields.heaped, of)?;
                    known.push((one.id, volume));
                    if (volume - one.fields.litres).abs() > 1e-9 {
                        measure::set_litres(conn, one.id, volume, now)?;
                    }
                }
            }
        }
        if still.len() == before {
            let exists = |id| measures.iter().any(|measure| measure.id == id);
            let is_round = still
                .iter()
                .all(|one| matches!(one.fields.way, MeasureWay::Measures { of, .. } if exists(of)));
            let reason = if is_round {
                "comes back to itself: a measure cannot be counted in itself"
            } else {
                "is not a measure of this site"
            };
            return Err(Refusal::one("way.measure_id", reason).into());
        }
        waiting = still;
    }
    Ok(())
}

/// What a container would hold
#[utoipa::path(post, operation_id = "measure_volume", tag = "measure", path = "/api/measures/volume", request_body = VolumeRequest, responses(
    (status = 200, body = VolumeAnswer),
    Refusals,
))]
pub(super) async fn volume(
    State(state): State<App>,
    Body(request): Body<VolumeRequest>,
) -> Result<Json<VolumeAnswer>, ApiError> {
    let litres = state
        .store
        .read::<_, ApiError, _>(move |conn| {
            let of = |id| measure::get(conn, id).ok().map(|measure| measure.fields.litres);
            Ok(litres(request.way.into(), request.heaped, of)?)
        })
        .await?;
    Ok(Json(VolumeAnswer { litres }))
}

/// The containers of a site
#[utoipa::path(get, operation_id = "measure_list", tag = "measure", path = "/api/sites/{site}/measures", params(("site" = i64, Path)), responses(
    (status = 200, body = Vec<Measure>),
    Refusals,
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
    Refusals,
))]
pub(super) async fn create(
    State(state): State<App>,
    Path(site): Path<i64>,
    Body(body): Body<MeasureFields>,
) -> Result<(StatusCode, Json<Measure>), ApiError> {
    let (new, now) = (body.checked()?, state.clock.now());
    let measure = state
        .store
        .write::<_, ApiError, _>(move |conn| {
            site::get(conn, SiteId(site))?;
            let of = |id| {
                let measures = measure::of_site(conn, SiteId(site)).ok()?;
                measures.into_iter().find(|measure| measure.id == id).map(|measure| measure.fields.litres)
            };
            let litres = litres(new.way, new.heaped, of)?;
            Ok(measure::insert(conn, SiteId(site), &NewMeasure { litres, ..new }, &now)?)
        })
        .await?;
    Ok((StatusCode::CREATED, Json(measure.into())))
}

/// Change a container, and those counted in it
#[utoipa::path(put, operation_id = "measure_change", tag = "measure", path = "/api/measures/{id}", params(("id" = i64, Path)), request_body = MeasureChange, responses(
    (status = 200, body = Measure),
    Refusals,
))]
pub(super) async fn change(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<MeasureChange>,
) -> Result<Json<Measure>, ApiError> {
    let (new, now) = (body.measure.checked()?, state.clock.now());
    let (catalogue, today) = (state.catalogue(), state.clock.today());
    let changed = state
        .store
        .write::<_, ApiError, _>(move |conn| {
            let id = MeasureId(id);
            let site = measure::site_of(conn, id)?;
            let litres = measure::get(conn, id)?.fields.litres;
            measure::update(conn, id, body.version, &NewMeasure { litres, ..new }, &now)?;
            settle(conn, site, &now)?;
            // Lots counted in it must still come to an amount that can be.
            lot::of_site(conn, site, &catalogue, today)
                .map_err(|_| Refusal::one("litres", "makes a lot counted in it impossibly large"))?;
            Ok(measure::get(conn, id)?)
        })
        .await?;
    Ok(Json(changed.into()))
}

/// Remove a container; it can be brought back
#[utoipa::path(delete, operation_id = "measure_remove", tag = "measure", path = "/api/measures/{id}", params(("id" = i64, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(super) async fn remove(State(state): State<App>, Path(id): Path<i64>) -> Result<StatusCode, ApiError> {
    let now = state.clock.now();
    state.store.write(move |conn| measure::remove(conn, MeasureId(id), &now)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Bring a removed container back
#[utoipa::path(post, operation_id = "measure_restore", tag = "measure", path = "/api/measures/{id}/restore", params(("id" = i64, Path)), responses(
    (status = 200, body = Measure),
    Refusals,
))]
pub(super) async fn restore(
    State(state): State<App>,
    Path(id): Path<i64>,
) -> Result<Json<Measure>, ApiError> {
    let now = state.clock.now();
    let measure = state
        .store
        .write::<_, ApiError, _>(move |conn| {
            let measure = measure::restore(conn, MeasureId(id))?;
            settle(conn, measure::site_of(conn, measure.id)?, &now)?;
            Ok(measure::get(conn, measure.id)?)
        })
        .await?;
    Ok(Json(measure.into()))
}
