//! Tasks for a calendar (RFC 5545): as a file, or from a secret address that a phone fetches by itself.

use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::http::header::{CACHE_CONTROL, CONTENT_DISPOSITION, CONTENT_TYPE};
use axum::response::IntoResponse;
use jiff::Timestamp;
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::people::hash;
use zymarch_farm::tend::calendar::{self, FeedMade, FeedTold, Tasks};
use zymarch_farm::tend::judgement::TaskTold;
use zymarch_formats::calendar::{Day, MEDIA_TYPE, write};
use zymarch_store::id::{HeapId, SiteId};

use crate::http::asking::Asking;
use crate::http::body::Id;
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, App};
use crate::words;

/// The tasks of a site as a calendar file
#[utoipa::path(get, operation_id = "site_calendar_file", tag = "tend", path = "/api/sites/{id}/tasks.ics", params(("id" = SiteId, Path)), responses(
    (status = 200, content_type = "text/calendar", body = String),
    Refusals,
))]
pub(crate) async fn of_site(asking: Asking, Id(id): Id<SiteId>) -> Result<impl IntoResponse, ApiError> {
    let told = asking.looked(Deed::Look.of(id), move |tx, _| Ok((calendar::tasks(tx, id, None)?, tx.now())));
    let (tasks, now) = told.await?;
    Ok(file(&tasks, now))
}

/// The tasks of a heap as a calendar file
#[utoipa::path(get, operation_id = "heap_calendar_file", tag = "tend", path = "/api/heaps/{id}/tasks.ics", params(("id" = HeapId, Path)), responses(
    (status = 200, content_type = "text/calendar", body = String),
    Refusals,
))]
pub(crate) async fn of_heap(asking: Asking, Id(id): Id<HeapId>) -> Result<impl IntoResponse, ApiError> {
    let told = asking.looked(Deed::Look.of(id), move |tx, _| Ok((calendar::of_heap(tx, id)?, tx.now())));
    let (tasks, now) = told.await?;
    Ok(file(&tasks, now))
}

/// The tasks of a site, for a calendar that knows the address and may do nothing else
#[utoipa::path(get, operation_id = "calendar_fetch", tag = "tend", path = "/api/calendar/{secret}", params(("secret" = String, Path)), responses(
    (status = 200, content_type = "text/calendar", body = String),
    Refusals,
))]
pub(crate) async fn fetch(
    State(app): State<App>,
    Path(secret): Path<String>,
) -> Result<impl IntoResponse, ApiError> {
    let (tasks, now) = app.gate.fetched(hash(secret.trim_end_matches(".ics"))).await?;
    Ok(file(&tasks, now))
}

/// Whether you have an address for your calendar
#[utoipa::path(get, operation_id = "site_calendar", tag = "tend", path = "/api/sites/{id}/calendar", params(("id" = SiteId, Path)), responses(
    (status = 200, body = FeedTold),
    Refusals,
))]
pub(crate) async fn told(asking: Asking, Id(id): Id<SiteId>) -> Answer<FeedTold> {
    asking.ask(Deed::Look.of(id), move |tx, who| calendar::told(tx, who, id)).await
}

/// Make an address for your calendar, in place of the one before; told once
#[utoipa::path(post, operation_id = "site_calendar_make", tag = "tend", path = "/api/sites/{id}/calendar", params(("id" = SiteId, Path)), responses(
    (status = 200, body = FeedMade),
    Refusals,
))]
pub(crate) async fn make(asking: Asking, Id(id): Id<SiteId>) -> Answer<FeedMade> {
    asking.act(Deed::Look.of(id), move |tx, who| calendar::make(tx, who, id)).await
}

/// End the address of your calendar
#[utoipa::path(delete, operation_id = "site_calendar_end", tag = "tend", path = "/api/sites/{id}/calendar", params(("id" = SiteId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn end(asking: Asking, Id(id): Id<SiteId>) -> Result<StatusCode, ApiError> {
    asking.done(Deed::Look.of(id), move |tx, who| calendar::end(tx, who, id)).await
}

fn file(tasks: &Tasks, now: Timestamp) -> impl IntoResponse + use<> {
    let days: Vec<Day> = tasks
        .tasks
        .iter()
        .map(|(heap, on, task)| Day {
            id: task.id.clone(),
            on: *on,
            summary: format!("{heap}: {}", words::task("does", task.kind.as_str(), &params(task))),
            description: description(task),
            place: tasks.site.clone(),
            category: task.kind.as_str().to_owned(),
        })
        .collect();
    let headers = [
        (CONTENT_TYPE, MEDIA_TYPE),
        (CONTENT_DISPOSITION, "inline; filename=\"tasks.ics\""),
        (CACHE_CONTROL, "private, no-cache"),
    ];
    (headers, write(&tasks.site, &days, now))
}

/// The figures of a task's words.
fn params(task: &TaskTold) -> Vec<(&'static str, String)> {
    let value = task.value.unwrap_or_default().round();
    let days = words::said(if value == 1.0 { "a-day" } else { "days" }, &[("n", &value.to_string())]);
    vec![
        ("temp", format!("{value}\u{a0}°C")),
        ("pct", format!("{value}\u{a0}%")),
        ("h", value.to_string()),
        ("n", value.to_string()),
        ("days", days),
    ]
}

/// Why, how much and with what.
fn description(task: &TaskTold) -> String {
    let params = params(task);
    let mut lines = vec![words::task("why", task.why.as_str(), &params)];
    if let Some(litres) = task.litres {
        lines.push(words::said("task-water", &[("litres", &litres.round().to_string())]));
    }
    lines.push(words::task("with", task.kind.as_str(), &params));
    lines.retain(|line| !line.is_empty());
    lines.join("\n")
}
