//! Tests on lots, and what follows from them.

use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::stock::Figures;
use zymarch_formats::field::{FieldError, Refusal};
use zymarch_formats::field_test::{Readings, TestAnswer};
use zymarch_store::field_test::{self, NewFieldTest};
use zymarch_store::id::{FieldTestId, LotId};
use zymarch_store::{Connection, lot};

use super::lot::Beside;
use super::{convert, tested};
use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// A test on a lot, and what follows from it.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct FieldTest {
    id: i64,
    lot_id: i64,
    version: i64,
    #[serde(flatten)]
    fields: FieldTestFields,
    /// What follows; none if a later version of the program wrote it.
    answer: Option<TestAnswer>,
}

/// What a test is.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct FieldTestFields {
    /// The day it was made, as 2026-03-14; of a bean test, the day it was sown.
    made_on: String,
    /// What was read.
    readings: Readings,
}

/// A change of a test that was read at a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct FieldTestChange {
    /// The version that was read.
    version: i64,
    /// What it is now.
    test: FieldTestFields,
}

impl FieldTestFields {
    fn checked(&self, figures: Option<&Figures>, state: &App) -> Result<NewFieldTest, Refusal> {
        let today = state.clock.today();
        let made_on = convert::day("made_on", &self.made_on, today)?;
        if let Readings::Bean { judged_on: Some(judged), .. } = &self.readings
            && convert::day("judged_on", judged, today).map_err(under_readings)? < made_on
        {
            return Err(Refusal::one("readings.judged_on", "is before the beans were sown"));
        }
        let days = tested::bean_days(&self.readings, &made_on, today);
        self.readings.answer(figures, days).map_err(under_readings)?;
        let readings = serde_json::to_string(&self.readings)
            .map_err(|error| Refusal::one("readings", error.to_string()))?;
        Ok(NewFieldTest { kind: self.readings.kind(), made_on, readings })
    }
}

fn under_readings(refusal: Refusal) -> Refusal {
    let under = |error: FieldError| FieldError { field: format!("readings.{}", error.field), ..error };
    Refusal { errors: refusal.errors.into_iter().map(under).collect() }
}

/// The figures of a lot, for a test that leans on them.
fn figures(conn: &Connection, id: LotId, state: &App) -> Result<Figures, ApiError> {
    let lot = lot::get(conn, id)?;
    let catalogue = state.catalogue();
    let site = lot::site_of(conn, id)?;
    Ok(Beside::read(conn, site, &catalogue, state.clock.today())?.item(&lot)?.figures)
}

fn shown(test: field_test::FieldTest, figures: &Figures, state: &App) -> Option<FieldTest> {
    let readings = tested::readings(&test)?;
    let made_on = test.fields.made_on;
    let days = tested::bean_days(&readings, &made_on, state.clock.today());
    Some(FieldTest {
        id: test.id.0,
        lot_id: test.lot.0,
        version: test.version,
        answer: readings.answer(Some(figures), days).ok(),
        fields: FieldTestFields { made_on, readings },
    })
}

/// Writes by `act` and gives the test back.
async fn write(
    state: App,
    act: impl FnOnce(&Connection, &App) -> Result<field_test::FieldTest, ApiError> + Send + 'static,
) -> Result<Json<FieldTest>, ApiError> {
    let store = state.store.clone();
    let test = store
        .write::<_, ApiError, _>(move |conn| {
            let test = act(conn, &state)?;
            let figures = figures(conn, test.lot, &state)?;
            shown(test, &figures, &state)
                .ok_or_else(|| Refusal::one("readings", "cannot be read back").into())
        })
        .await?;
    Ok(Json(test))
}

/// The tests of a lot, newest first
#[utoipa::path(get, operation_id = "field_test_list", tag = "test", path = "/api/lots/{id}/tests", params(("id" = i64, Path)), responses(
    (status = 200, body = Vec<FieldTest>),
    Refusals,
))]
pub(super) async fn list(
    State(state): State<App>,
    Path(id): Path<i64>,
) -> Result<Json<Vec<FieldTest>>, ApiError> {
    let store = state.store.clone();
    let tests = store
        .read::<_, ApiError, _>(move |conn| {
            let figures = figures(conn, LotId(id), &state)?;
            let tests = field_test::of_lot(conn, LotId(id))?;
            Ok(tests.into_iter().filter_map(|test| shown(test, &figures, &state)).collect())
        })
        .await?;
    Ok(Json(tests))
}

/// What a test would give, before it is written down
#[utoipa::path(post, operation_id = "field_test_reckon", tag = "test", path = "/api/lots/{id}/tests/reckon", params(("id" = i64, Path)), request_body = FieldTestFields, responses(
    (status = 200, body = TestAnswer),
    Refusals,
))]
pub(super) async fn reckon(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<FieldTestFields>,
) -> Result<Json<TestAnswer>, ApiError> {
    let store = state.store.clone();
    let answer = store
        .read::<_, ApiError, _>(move |conn| {
            let figures = figures(conn, LotId(id), &state)?;
            body.checked(Some(&figures), &state)?;
            let days = tested::bean_days(&body.readings, &body.made_on, state.clock.today());
            Ok(body.readings.answer(Some(&figures), days).map_err(under_readings)?)
        })
        .await?;
    Ok(Json(answer))
}

/// A new test on a lot
#[utoipa::path(post, operation_id = "field_test_create", tag = "test", path = "/api/lots/{id}/tests", params(("id" = i64, Path)), request_body = FieldTestFields, responses(
    (status = 201, body = FieldTest),
    Refusals,
))]
pub(super) async fn create(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<FieldTestFields>,
) -> Result<(StatusCode, Json<FieldTest>), ApiError> {
    let now = state.clock.now();
    let test = write(state, move |conn, state| {
        let figures = figures(conn, LotId(id), state)?;
        let new = body.checked(Some(&figures), state)?;
        Ok(field_test::insert(conn, LotId(id), &new, &now)?)
    })
    .await?;
    Ok((StatusCode::CREATED, test))
}

/// Change a test: a further weighing, a count of beans
#[utoipa::path(put, operation_id = "field_test_change", tag = "test", path = "/api/tests/{id}", params(("id" = i64, Path)), request_body = FieldTestChange, responses(
    (status = 200, body = FieldTest),
    Refusals,
))]
pub(super) async fn change(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<FieldTestChange>,
) -> Result<Json<FieldTest>, ApiError> {
    let now = state.clock.now();
    write(state, move |conn, state| {
        let before = field_test::get(conn, FieldTestId(id))?;
        if before.fields.kind != body.test.readings.kind() {
            return Err(Refusal::one(
                "readings.kind",
                format!("is {} and stays so", before.fields.kind.as_str()),
            )
            .into());
        }
        let figures = figures(conn, before.lot, state)?;
        let new = body.test.checked(Some(&figures), state)?;
        Ok(field_test::update(conn, FieldTestId(id), body.version, &new, &now)?)
    })
    .await
}

/// Remove a test, and its figures with it; it can be brought back
#[utoipa::path(delete, operation_id = "field_test_remove", tag = "test", path = "/api/tests/{id}", params(("id" = i64, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(super) async fn remove(State(state): State<App>, Path(id): Path<i64>) -> Result<StatusCode, ApiError> {
    let now = state.clock.now();
    state.store.write(move |conn| field_test::remove(conn, FieldTestId(id), &now)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Bring a removed test back
#[utoipa::path(post, operation_id = "field_test_restore", tag = "test", path = "/api/tests/{id}/restore", params(("id" = i64, Path)), responses(
    (status = 200, body = FieldTest),
    Refusals,
))]
pub(super) async fn restore(
    State(state): State<App>,
    Path(id): Path<i64>,
) -> Result<Json<FieldTest>, ApiError> {
    write(state, move |conn, _| Ok(field_test::restore(conn, FieldTestId(id))?)).await
}
