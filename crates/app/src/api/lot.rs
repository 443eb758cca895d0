//! Stock: amounts of materials on hand.

use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_formats::field::Refusal;
use zymarch_formats::mix::{ItemFigures, MixItem};
use zymarch_formats::recipe::OwnFigures;
use zymarch_store::id::{LotId, SiteId};
use zymarch_store::lot::{self, NewLot};
use zymarch_store::measure::{self, Measure};
use zymarch_store::{Connection, StoreError, site};

use super::convert::{self, Unit};
use crate::http::body::Body;
use crate::http::problem::{ApiError, Problem};
use crate::state::App;

/// An amount of a material on hand, with the figures to reckon with.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Lot {
    id: i64,
    version: i64,
    /// When it was first written down, RFC 3339.
    created_at: String,
    #[serde(flatten)]
    fields: LotFields,
    /// What it weighs, kg.
    kg: f64,
    /// What room it takes loose, litres.
    litres: f64,
    /// Each figure and where it came from.
    figures: ItemFigures,
}

/// What a lot is.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct LotFields {
    /// Id in the reference table.
    material: String,
    /// The person's own name for it.
    label: Option<String>,
    /// How much, in `unit`.
    amount: f64,
    /// How the amount is said.
    unit: Unit,
    /// The measure it is counted in, if the unit is `measure`.
    measure_id: Option<i64>,
    /// Figures in place of the book's.
    #[serde(default)]
    own: OwnFigures,
}

/// A change of a lot that was read at a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct LotChange {
    /// The version that was read.
    version: i64,
    /// What it is now.
    lot: LotFields,
}

impl LotFields {
    /// Checked as an item of a recipe would be. The measure is only known to
    /// exist once the record is written, so any volume stands in for it here.
    fn checked(self) -> Result<NewLot, Refusal> {
        let held = convert::held(self.amount, self.unit, self.measure_id)?;
        convert::resolve_one(convert::item(&self.material, held, Some(1.0), &self.own), "")?;
        Ok(NewLot {
            label: convert::label("label", self.label.as_deref())?,
            held,
            own: convert::own(&self.own),
            material: self.material,
        })
    }
}

impl Lot {
    fn new(lot: lot::Lot, measures: &[Measure]) -> Result<Self, Refusal> {
        let NewLot { material, label, held, own } = lot.fields;
        let (amount, unit, measure_id) = convert::amount(held);
        let litres_each =
            measures.iter().find(|measure| Some(measure.id.0) == measure_id).map(|m| m.fields.litres);
        let own = convert::own_figures(&own);
        let item = convert::resolve_one(convert::item(&material, held, litres_each, &own), "")?;
        let reckoned = MixItem::new(material.clone(), &item);
        Ok(Self {
            id: lot.id.0,
            version: lot.version,
            created_at: lot.created_at,
            fields: LotFields { material, label, amount, unit, measure_id, own },
            kg: reckoned.kg,
            litres: reckoned.litres,
            figures: reckoned.figures,
        })
    }
}

/// Writes by `act` and gives the lot back. Reckoned before the write is
/// committed, so that nothing is kept that could not be shown.
async fn write(
    state: &App,
    act: impl FnOnce(&Connection) -> Result<lot::Lot, StoreError> + Send + 'static,
) -> Result<Json<Lot>, ApiError> {
    let lot = state
        .store
        .write::<_, ApiError, _>(move |conn| {
            let lot = act(conn)?;
            let measures = measure::beside_lot(conn, lot.id)?;
            Ok(Lot::new(lot, &measures)?)
        })
        .await?;
    Ok(Json(lot))
}

/// The stock of a site, reckoned.
pub(super) fn of_site(conn: &Connection, site: SiteId) -> Result<Vec<Lot>, ApiError> {
    site::get(conn, site)?;
    let measures = measure::of_site(conn, site)?;
    let lots = lot::of_site(conn, site)?;
    Ok(lots.into_iter().map(|lot| Lot::new(lot, &measures)).collect::<Result<_, _>>()?)
}

/// The stock of a site
#[utoipa::path(get, operation_id = "lot_list", tag = "lot", path = "/api/sites/{site}/lots", params(("site" = i64, Path)), responses(
    (status = 200, body = Vec<Lot>),
    (status = 404, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn list(
    State(state): State<App>,
    Path(site): Path<i64>,
) -> Result<Json<Vec<Lot>>, ApiError> {
    Ok(Json(state.store.read(move |conn| of_site(conn, SiteId(site))).await?))
}

/// A new lot
#[utoipa::path(post, operation_id = "lot_create", tag = "lot", path = "/api/sites/{site}/lots", params(("site" = i64, Path)), request_body = LotFields, responses(
    (status = 201, body = Lot),
    (status = 422, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn create(
    State(state): State<App>,
    Path(site): Path<i64>,
    Body(body): Body<LotFields>,
) -> Result<(StatusCode, Json<Lot>), ApiError> {
    let (new, now) = (body.checked()?, state.clock.now());
    let lot = write(&state, move |conn| {
        site::get(conn, SiteId(site))?;
        lot::insert(conn, SiteId(site), &new, &now)
    })
    .await?;
    Ok((StatusCode::CREATED, lot))
}

/// Change a lot
#[utoipa::path(put, operation_id = "lot_change", tag = "lot", path = "/api/lots/{id}", params(("id" = i64, Path)), request_body = LotChange, responses(
    (status = 200, body = Lot),
    (status = 404, body = Problem, content_type = "application/problem+json"),
    (status = 409, body = Problem, content_type = "application/problem+json"),
    (status = 422, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn change(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<LotChange>,
) -> Result<Json<Lot>, ApiError> {
    let (new, now) = (body.lot.checked()?, state.clock.now());
    write(&state, move |conn| lot::update(conn, LotId(id), body.version, &new, &now)).await
}

/// Remove a lot; it can be brought back
#[utoipa::path(delete, operation_id = "lot_remove", tag = "lot", path = "/api/lots/{id}", params(("id" = i64, Path)), responses(
    (status = 204),
    (status = 404, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn remove(State(state): State<App>, Path(id): Path<i64>) -> Result<StatusCode, ApiError> {
    let now = state.clock.now();
    state.store.write(move |conn| lot::remove(conn, LotId(id), &now)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Bring a removed lot back
#[utoipa::path(post, operation_id = "lot_restore", tag = "lot", path = "/api/lots/{id}/restore", params(("id" = i64, Path)), responses(
    (status = 200, body = Lot),
    (status = 404, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn restore(State(state): State<App>, Path(id): Path<i64>) -> Result<Json<Lot>, ApiError> {
    write(&state, move |conn| lot::restore(conn, LotId(id))).await
}
