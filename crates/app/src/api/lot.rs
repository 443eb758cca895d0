//! Stock: amounts of materials on hand.

use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::field_test::TestKind;
use zymarch_core::freshness::{self, Freshness};
use zymarch_core::quantity::LARGEST_AMOUNT;
use zymarch_formats::field::Refusal;
use zymarch_formats::mix::{ItemFigures, MixItem};
use zymarch_formats::recipe::{OwnFigures, RecipeTest};
use zymarch_store::field_test::{self, FieldTest};
use zymarch_store::held::Held;
use zymarch_store::id::{LotId, SiteId};
use zymarch_store::lot::{self, NewLot};
use zymarch_store::measure::{self, Measure};
use zymarch_store::{Connection, StoreError, site};

use super::convert::{self, Said, Unit};
use super::tested;
use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
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
    /// The figures that tests gave, ready for a recipe.
    tests: Vec<RecipeTest>,
    /// Days since it was gathered.
    age_days: i64,
    /// Days it keeps yet, below zero when past; none if it lasts.
    days_left: Option<i64>,
    /// What to do with it now that it is past its days.
    rescue: Option<&'static str>,
    /// Refused in every heap, by its material or by a bean test.
    must_not_go_in: bool,
}

/// What a lot is.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct LotFields {
    /// Id of the material.
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
    /// The day it was gathered, as 2026-03-14; the day it was written down if not said.
    #[serde(default)]
    gathered_on: Option<String>,
    /// What one of its unit costs, in the farm's own money.
    #[serde(default)]
    price: Option<f64>,
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
    fn checked(self, catalogue: &Catalogue, today: Date) -> Result<NewLot, Refusal> {
        let held = convert::held(self.amount, self.unit, self.measure_id)?;
        let said =
            Said { material: &self.material, held, litres_each: Some(1.0), own: &self.own, tests: &[] };
        said.resolve(catalogue, "")?;
        Ok(NewLot {
            label: convert::label("label", self.label.as_deref())?,
            held,
            own: convert::own(&self.own),
            gathered_on: self.gathered_on.map(|day| convert::day("gathered_on", &day, today)).transpose()?,
            price: self.price.map(price).transpose()?,
            material: self.material,
        })
    }
}

/// What a site knows that bears on its lots.
pub(super) struct Beside<'a> {
    measures: Vec<Measure>,
    tests: Vec<FieldTest>,
    lots: Vec<(LotId, String)>,
    air_c: Option<f64>,
    catalogue: &'a Catalogue,
    today: Date,
}

impl<'a> Beside<'a> {
    pub(super) fn read(
        conn: &Connection,
        site: SiteId,
        catalogue: &'a Catalogue,
        today: Date,
    ) -> Result<Self, StoreError> {
        let climate = site::get(conn, site)?.fields.climate;
        let month = u8::try_from(today.month()).unwrap_or(1);
        Ok(Self {
            measures: measure::ever_of_site(conn, site)?,
            tests: field_test::of_site(conn, site)?,
            lots: lot::of_site(conn, site)?.into_iter().map(|lot| (lot.id, lot.fields.material)).collect(),
            air_c: climate.map(|climate| climate.month(month).mean_c),
            catalogue,
            today,
        })
    }

    fn tests_of(&self, lot: LotId, material: &str, own: &OwnFigures) -> Vec<RecipeTest> {
        let of_lot: Vec<_> = self.tests.iter().filter(|test| test.lot == lot).collect();
        let is_alike = |id| self.lots.iter().any(|(known, of)| *known == id && id != lot && of == material);
        let weighed: Vec<_> = self
            .tests
            .iter()
            .filter(|test| test.fields.kind == TestKind::Weigh && is_alike(test.lot))
            .collect();
        tested::figures(material, own, (&of_lot, &weighed), self.catalogue, self.today)
    }

    /// What one of a measure holds [L].
    pub(super) fn litres_each(&self, held: Held) -> Option<f64> {
        let Held::Measures { measure, .. } = held else { return None };
        self.measures.iter().find(|known| known.id == measure).map(|known| known.fields.litres)
    }

    /// A lot as an item that can be summed.
    pub(super) fn item(&self, lot: &lot::Lot) -> Result<zymarch_core::mix::Item, Refusal> {
        let own = convert::own_figures(&lot.fields.own);
        let tests = self.tests_of(lot.id, &lot.fields.material, &own);
        let held = lot.fields.held;
        let said = Said {
            material: &lot.fields.material,
            held,
            litres_each: self.litres_each(held),
            own: &own,
            tests: &tests,
        };
        said.resolve(self.catalogue, "")
    }
}

impl Lot {
    fn new(lot: lot::Lot, beside: &Beside<'_>) -> Result<Self, Refusal> {
        let NewLot { material, label, held, own, gathered_on, price } = lot.fields;
        let (amount, unit, measure_id) = convert::amount(held);
        let own = convert::own_figures(&own);
        let tests = beside.tests_of(lot.id, &material, &own);
        let litres_each = beside.litres_each(held);
        let said = Said { material: &material, held, litres_each, own: &own, tests: &tests };
        let item = said.resolve(beside.catalogue, "")?;
        let reckoned = MixItem::new(&said.item(), &item);
        let age_days = convert::days_since(gathered_on.as_deref().unwrap_or(&lot.created_at), beside.today);
        let row = beside.catalogue.find(&material);
        let fresh = row.map(|row| freshness::freshness(row, age_days, beside.air_c));
        let is_past = matches!(fresh, Some(Freshness::Past { .. }));
        Ok(Self {
            id: lot.id.0,
            version: lot.version,
            created_at: lot.created_at,
            kg: reckoned.kg,
            litres: reckoned.litres,
            figures: reckoned.figures,
            age_days,
            days_left: fresh.and_then(Freshness::days_left),
            rescue: row.filter(|_| is_past).map(|row| freshness::rescue(row).as_str()),
            must_not_go_in: item.figures.must_not_go_in,
            tests,
            fields: LotFields { material, label, amount, unit, measure_id, own, gathered_on, price },
        })
    }
}

/// Writes by `act` and gives the lot back. Reckoned before the write is
/// committed, so that nothing is kept that could not be shown.
pub(super) async fn write(
    state: &App,
    act: impl FnOnce(&Connection) -> Result<lot::Lot, ApiError> + Send + 'static,
) -> Result<Json<Lot>, ApiError> {
    let (catalogue, today) = (state.catalogue(), state.clock.today());
    let lot = state
        .store
        .write::<_, ApiError, _>(move |conn| {
            let lot = act(conn)?;
            let site = lot::site_of(conn, lot.id)?;
            Ok(Lot::new(lot, &Beside::read(conn, site, &catalogue, today)?)?)
        })
        .await?;
    Ok(Json(lot))
}

/// The stock of a site, reckoned: what spoils first on top.
pub(super) fn of_site(
    conn: &Connection,
    site: SiteId,
    catalogue: &Catalogue,
    today: Date,
) -> Result<Vec<Lot>, ApiError> {
    let beside = Beside::read(conn, site, catalogue, today)?;
    let lots = lot::of_site(conn, site)?;
    let mut lots: Vec<Lot> = lots.into_iter().map(|lot| Lot::new(lot, &beside)).collect::<Result<_, _>>()?;
    lots.sort_by_key(|lot| lot.days_left.filter(|_| lot.fields.amount > 0.0).unwrap_or(i64::MAX));
    Ok(lots)
}

/// A price that can be kept.
fn price(price: f64) -> Result<f64, Refusal> {
    if (0.0..=LARGEST_AMOUNT).contains(&price) {
        return Ok(price);
    }
    Err(Refusal::one("price", format!("must be from 0 to {LARGEST_AMOUNT}, got {price}")))
}

/// A material that goes into no heap is no stock.
fn allowed(material: &str, catalogue: &Catalogue) -> Result<(), Refusal> {
    match catalogue.find(material) {
        Some(row) if row.must_not_go_in() => {
            let reason = "must not go into a heap; record it as sorted out and not used instead";
            Err(Refusal::one("material", reason))
        }
        _ => Ok(()),
    }
}

/// The stock of a site, what spoils first on top
#[utoipa::path(get, operation_id = "lot_list", tag = "lot", path = "/api/sites/{site}/lots", params(("site" = i64, Path)), responses(
    (status = 200, body = Vec<Lot>),
    Refusals,
))]
pub(super) async fn list(
    State(state): State<App>,
    Path(site): Path<i64>,
) -> Result<Json<Vec<Lot>>, ApiError> {
    let (catalogue, today) = (state.catalogue(), state.clock.today());
    let lots = state.store.read(move |conn| of_site(conn, SiteId(site), &catalogue, today)).await?;
    Ok(Json(lots))
}

/// A new lot
#[utoipa::path(post, operation_id = "lot_create", tag = "lot", path = "/api/sites/{site}/lots", params(("site" = i64, Path)), request_body = LotFields, responses(
    (status = 201, body = Lot),
    Refusals,
))]
pub(super) async fn create(
    State(state): State<App>,
    Path(site): Path<i64>,
    Body(body): Body<LotFields>,
) -> Result<(StatusCode, Json<Lot>), ApiError> {
    let (catalogue, now) = (state.catalogue(), state.clock.now());
    let new = body.checked(&catalogue, state.clock.today())?;
    allowed(&new.material, &catalogue)?;
    let lot = write(&state, move |conn| {
        site::get(conn, SiteId(site))?;
        Ok(lot::insert(conn, SiteId(site), &new, &now)?)
    })
    .await?;
    Ok((StatusCode::CREATED, lot))
}

/// Change a lot
#[utoipa::path(put, operation_id = "lot_change", tag = "lot", path = "/api/lots/{id}", params(("id" = i64, Path)), request_body = LotChange, responses(
    (status = 200, body = Lot),
    Refusals,
))]
pub(super) async fn change(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<LotChange>,
) -> Result<Json<Lot>, ApiError> {
    let (catalogue, now) = (state.catalogue(), state.clock.now());
    let new = body.lot.checked(&catalogue, state.clock.today())?;
    write(&state, move |conn| {
        // What is there already may still be counted; nothing becomes it.
        if lot::get(conn, LotId(id))?.fields.material != new.material {
            allowed(&new.material, &catalogue)?;
        }
        Ok(lot::update(conn, LotId(id), body.version, &new, &now)?)
    })
    .await
}

/// Remove a lot; it can be brought back
#[utoipa::path(delete, operation_id = "lot_remove", tag = "lot", path = "/api/lots/{id}", params(("id" = i64, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(super) async fn remove(State(state): State<App>, Path(id): Path<i64>) -> Result<StatusCode, ApiError> {
    let now = state.clock.now();
    state.store.write(move |conn| lot::remove(conn, LotId(id), &now)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Bring a removed lot back
#[utoipa::path(post, operation_id = "lot_restore", tag = "lot", path = "/api/lots/{id}/restore", params(("id" = i64, Path)), responses(
    (status = 200, body = Lot),
    Refusals,
))]
pub(super) async fn restore(State(state): State<App>, Path(id): Path<i64>) -> Result<Json<Lot>, ApiError> {
    write(&state, move |conn| Ok(lot::restore(conn, LotId(id))?)).await
}
