//! Tests on lots, and what follows from them.

use axum::http::StatusCode;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::command::{Change, Remove, Restore};
use zymarch_farm::stock::field_test::{self, FieldTest, FieldTestFields};
use zymarch_formats::field_test::TestAnswer;
use zymarch_store::id::{LotId, TestId};

use crate::http::asking::Asking;
use crate::http::body::{Body, Id, NewId};
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, Written};

/// A change of a test that was read at a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct FieldTestChange {
    /// The version that was read.
    version: i64,
    /// What it is now.
    test: FieldTestFields,
}

/// The tests of a lot, newest first
#[utoipa::path(get, operation_id = "field_test_list", tag = "test", path = "/api/lots/{id}/tests", params(("id" = LotId, Path)), responses(
    (status = 200, body = Vec<FieldTest>),
    Refusals,
))]
pub(crate) async fn list(asking: Asking, Id(id): Id<LotId>) -> Answer<Vec<FieldTest>> {
    asking.ask(Deed::Look.of(id), move |tx, _| field_test::list(tx, id)).await
}

/// What a test would give, before it is written down
#[utoipa::path(post, operation_id = "field_test_reckon", tag = "test", path = "/api/lots/{id}/tests/reckon", params(("id" = LotId, Path)), request_body = FieldTestFields, responses(
    (status = 200, body = TestAnswer),
    Refusals,
))]
pub(crate) async fn reckon(
    asking: Asking,
    Id(id): Id<LotId>,
    Body(body): Body<FieldTestFields>,
) -> Answer<TestAnswer> {
    asking.ask(Deed::Look.of(id), move |tx, _| field_test::reckon(tx, id, &body)).await
}

/// A new test on a lot
#[utoipa::path(post, operation_id = "field_test_create", tag = "test", path = "/api/lots/{id}/tests", params(("id" = LotId, Path)), request_body = FieldTestFields, responses(
    (status = 201, body = FieldTest),
    Refusals,
))]
pub(crate) async fn create(
    asking: Asking,
    Id(id): Id<LotId>,
    NewId(new): NewId<TestId>,
    Body(body): Body<FieldTestFields>,
) -> Result<(StatusCode, Written<FieldTest>), ApiError> {
    Ok((
        StatusCode::CREATED,
        asking
            .act(Deed::Work.of(id).new(new), move |tx, who| field_test::add(tx, who, (id, new, body)))
            .await?,
    ))
}

/// Change a test: a further weighing, a count of beans
#[utoipa::path(put, operation_id = "field_test_change", tag = "test", path = "/api/tests/{id}", params(("id" = TestId, Path)), request_body = FieldTestChange, responses(
    (status = 200, body = FieldTest),
    Refusals,
))]
pub(crate) async fn change(
    asking: Asking,
    Id(id): Id<TestId>,
    Body(body): Body<FieldTestChange>,
) -> Answer<FieldTest> {
    asking
        .act(Deed::Work.of(id), move |tx, who| {
            field_test::change(tx, who, Change { id, version: body.version, to: body.test })
        })
        .await
}

/// Remove a test, and its figures with it; it can be brought back
#[utoipa::path(delete, operation_id = "field_test_remove", tag = "test", path = "/api/tests/{id}", params(("id" = TestId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn remove(asking: Asking, Id(id): Id<TestId>) -> Result<StatusCode, ApiError> {
    asking.done(Deed::Work.of(id), move |tx, who| field_test::remove(tx, who, Remove(id))).await
}

/// Bring a removed test back
#[utoipa::path(post, operation_id = "field_test_restore", tag = "test", path = "/api/tests/{id}/restore", params(("id" = TestId, Path)), responses(
    (status = 200, body = FieldTest),
    Refusals,
))]
pub(crate) async fn restore(asking: Asking, Id(id): Id<TestId>) -> Answer<FieldTest> {
    asking.act(Deed::Work.of(id), move |tx, who| field_test::restore(tx, who, Restore(id))).await
}
