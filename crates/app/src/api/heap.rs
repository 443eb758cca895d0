//! Heaps on build day: begun from a batch, laid step by step, undone, planned anew.
//!
//! Every step is kept as it is ticked, so that a phone that dies or a server that
//! is started again goes on where the heap stands.

use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::build::rest;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::judge::Target;
use zymarch_core::method::Method;
use zymarch_core::quantity;
use zymarch_formats::build::{BuildPortion, BuildState};
use zymarch_formats::field::Refusal;
use zymarch_formats::layers::HeapShape;
use zymarch_formats::recipe::MOST_ITEMS;
use zymarch_store::Connection;
use zymarch_store::heap::{self, Act};
use zymarch_store::id::{BatchId, HeapId, SiteId};
use zymarch_store::lot_event::Taker;
use zymarch_store::{batch, site};

use super::heap_stand::{self, Standing};
use super::part::BatchPart;
use super::{heap_stock, taken};
use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// A heap and how far it has come.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Heap {
    id: i64,
    version: i64,
    /// The batch it is built of, if it is still there.
    batch_id: Option<i64>,
    /// What it is called.
    name: String,
    /// The way it is composted.
    method: Option<String>,
    /// Its shape.
    heap: HeapShape,
    /// When it was begun, RFC 3339.
    begun_at: String,
    /// When something was last done, RFC 3339.
    changed_at: String,
    /// When what went in was taken from stock, if it was.
    taken_at: Option<String>,
    /// Whether the last thing done can be undone.
    can_undo: bool,
    /// What goes in, with what was planned of it; what nobody planned has an amount of zero.
    items: Vec<BatchPart>,
    /// How far it has come.
    build: BuildState,
}

/// A step that was laid.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct LayRequest {
    /// The version that was read.
    version: i64,
    /// Which step, from 0: the next one, or one laid before that is put right.
    step: usize,
    /// What really went in; items beyond those of the heap are the new ones.
    portions: Vec<BuildPortion>,
    /// Water really poured on it, litres.
    water_l: f64,
    /// Things that nobody had planned.
    #[serde(default)]
    new_items: Vec<BatchPart>,
}

/// Something done to a heap that was read at a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct HeapAct {
    /// The version that was read.
    pub(super) version: i64,
}

impl Heap {
    fn new(heap: heap::Heap, standing: &Standing, catalogue: &Catalogue) -> Self {
        let build = BuildState::new(
            (&standing.stand, &standing.first),
            (&standing.supplies, &standing.unit_kg),
            heap.fields.shape,
            heap.fields.method.as_deref().and_then(|id| catalogue.method(id)),
        );
        let at = |act: Option<&Act>| act.map_or_else(String::new, |act| act.made_at.clone());
        Self {
            id: heap.id.0,
            version: heap.version,
            batch_id: heap.fields.batch.map(|id| id.0),
            begun_at: at(heap.acts.first()),
            changed_at: at(heap.acts.last()),
            taken_at: heap.taken_at,
            can_undo: heap.acts.len() > 1,
            name: heap.fields.name,
            method: heap.fields.method,
            heap: heap.fields.shape.into(),
            items: heap.fields.items.into_iter().map(BatchPart::from).collect(),
            build,
        }
    }

    fn read(conn: &Connection, heap: heap::Heap, state: &App) -> Result<Self, ApiError> {
        let standing = heap_stand::of(conn, &heap, state)?;
        Ok(Self::new(heap, &standing, &state.catalogue()))
    }
}

/// The heaps of a site, last changed first
#[utoipa::path(get, operation_id = "heap_list", tag = "heap", path = "/api/sites/{site}/heaps", params(("site" = i64, Path)), responses(
    (status = 200, body = Vec<Heap>),
    Refusals,
))]
pub(super) async fn list(
    State(state): State<App>,
    Path(site): Path<i64>,
) -> Result<Json<Vec<Heap>>, ApiError> {
    let store = state.store.clone();
    let heaps = store
        .read::<_, ApiError, _>(move |conn| {
            site::get(conn, SiteId(site))?;
            let heaps = heap::of_site(conn, SiteId(site))?;
            heaps.into_iter().map(|heap| Heap::read(conn, heap, &state)).collect()
        })
        .await?;
    Ok(Json(heaps))
}

/// One heap
#[utoipa::path(get, operation_id = "heap_get", tag = "heap", path = "/api/heaps/{id}", params(("id" = i64, Path)), responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn get(State(state): State<App>, Path(id): Path<i64>) -> Result<Json<Heap>, ApiError> {
    let store = state.store.clone();
    let heap = store
        .read::<_, ApiError, _>(move |conn| Heap::read(conn, heap::get(conn, HeapId(id))?, &state))
        .await?;
    Ok(Json(heap))
}

/// Begin to build a batch; one that is being built already goes on
#[utoipa::path(post, operation_id = "heap_begin", tag = "heap", path = "/api/batches/{id}/build", params(("id" = i64, Path)), responses(
    (status = 201, body = Heap),
    Refusals,
))]
pub(super) async fn begin(
    State(state): State<App>,
    Path(id): Path<i64>,
) -> Result<(StatusCode, Json<Heap>), ApiError> {
    let heap = write(&state, move |conn, state| {
        let batch = batch::get(conn, BatchId(id))?;
        let site = batch::site_of(conn, batch.id)?;
        let others = heap::of_site(conn, site)?;
        for other in others.iter().filter(|heap| heap.fields.batch == Some(batch.id)) {
            if !heap_stand::of(conn, other, state)?.stand.rest().is_empty() {
                return Ok(other.clone());
            }
        }
        let (mut new, plan) = heap_stand::planned(&batch, state)?;
        let is_taken = |name: &str| others.iter().any(|heap| heap.fields.name == name);
        let names = (2..).map(|number| format!("{} {number}", batch.fields.name));
        new.name = std::iter::once(batch.fields.name.clone())
            .chain(names)
            .find(|name| !is_taken(name))
            .unwrap_or_default();
        Ok(heap::insert(conn, site, &new, &plan, &state.clock.now())?)
    })
    .await?;
    Ok((StatusCode::CREATED, heap))
}

/// Tick a step off, with what really went in
#[utoipa::path(post, operation_id = "heap_lay", tag = "heap", path = "/api/heaps/{id}/lay", params(("id" = i64, Path)), request_body = LayRequest, responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn lay(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<LayRequest>,
) -> Result<Json<Heap>, ApiError> {
    act(&state, move |conn, state| {
        let heap = heap::get(conn, HeapId(id))?;
        let catalogue = state.catalogue();
        let new_items = body
            .new_items
            .into_iter()
            .enumerate()
            .map(|(index, part)| part.checked(&format!("new_items[{index}]"), &catalogue))
            .collect::<Result<Vec<_>, _>>()?;
        let standing = heap_stand::of(conn, &heap, state)?;
        let (stand, items) = (&standing.stand, heap.fields.items.len() + new_items.len());
        checked(&body.portions, body.water_l, items)?;
        let all: Vec<_> = heap.fields.items.iter().chain(&new_items).collect();
        for (index, portion) in body.portions.iter().enumerate().filter(|(_, one)| one.amount > 0.0) {
            if heap_stand::must_not_go_in(all[portion.item], state)? {
                let field = format!("portions[{index}].item");
                return Err(Refusal::one(field, "must not go into a heap; leave it out").into());
            }
        }
        if items > MOST_ITEMS {
            return Err(Refusal::one("new_items", format!("are more than {MOST_ITEMS} in all")).into());
        }
        if body.step > stand.laid.len() || body.step >= stand.plan.len() {
            return Err(Refusal::one("step", "is not the next one, nor one that was laid").into());
        }
        let plan = &stand.plan[body.step];
        let step = heap::Step {
            role: plan.role,
            cycle: plan.cycle,
            portions: body.portions.iter().map(|one| (one.item as u32, one.amount)).collect(),
            water_l: body.water_l,
            beside_l: plan.beside_l,
        };
        let act =
            Act { is_laid: true, from_step: body.step as u32, steps: vec![step], made_at: state.clock.now() };
        Ok(heap::add_act(conn, heap.id, body.version, &act, &new_items)?)
    })
    .await
}

fn checked(portions: &[BuildPortion], water_l: f64, items: usize) -> Result<(), Refusal> {
    for (index, portion) in portions.iter().enumerate() {
        let field = |name: &str| format!("portions[{index}].{name}");
        if portion.item >= items {
            return Err(Refusal::one(field("item"), "is not in the heap, nor among the new items"));
        }
        if portions[..index].iter().any(|other| other.item == portion.item) {
            return Err(Refusal::one(field("item"), "stands there twice"));
        }
        quantity::amount(portion.amount).map_err(|error| Refusal::one(field("amount"), error.to_string()))?;
    }
    quantity::amount(water_l).map_err(|error| Refusal::one("water_l", error.to_string()))?;
    Ok(())
}

/// Plan the rest of a heap anew, so that it ends within its windows
#[utoipa::path(post, operation_id = "heap_plan_anew", tag = "heap", path = "/api/heaps/{id}/anew", params(("id" = i64, Path)), request_body = HeapAct, responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn plan_anew(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<HeapAct>,
) -> Result<Json<Heap>, ApiError> {
    act(&state, move |conn, state| {
        let heap = heap::get(conn, HeapId(id))?;
        let Standing { stand, supplies, unit_kg, .. } = heap_stand::of(conn, &heap, state)?;
        let catalogue = state.catalogue();
        let method = heap.fields.method.as_deref().and_then(|id| catalogue.method(id));
        let target = method.map_or_else(Target::default, Method::target);
        let anew = rest::anew(&supplies, &stand.laid, stand.rest(), heap.fields.shape, &target)
            .ok_or_else(|| Refusal::one("", "there is nothing to put it right with"))?;
        let act = Act {
            is_laid: false,
            from_step: stand.laid.len() as u32,
            steps: anew.steps.iter().map(|step| heap_stand::kept(step, &unit_kg)).collect(),
            made_at: state.clock.now(),
        };
        Ok(heap::add_act(conn, heap.id, body.version, &act, &[])?)
    })
    .await
}

/// End a heap where it stands; what was planned beyond it is left out
#[utoipa::path(post, operation_id = "heap_end", tag = "heap", path = "/api/heaps/{id}/end", params(("id" = i64, Path)), request_body = HeapAct, responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn end(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<HeapAct>,
) -> Result<Json<Heap>, ApiError> {
    act(&state, move |conn, state| {
        let heap = heap::get(conn, HeapId(id))?;
        let stand = heap_stand::of(conn, &heap, state)?.stand;
        if stand.laid.is_empty() || stand.rest().is_empty() {
            return Err(Refusal::one("", "there is nothing laid, or nothing to come").into());
        }
        let from_step = stand.laid.len() as u32;
        let act = Act { is_laid: false, from_step, steps: Vec::new(), made_at: state.clock.now() };
        Ok(heap::add_act(conn, heap.id, body.version, &act, &[])?)
    })
    .await
}

/// Undo what was done last
#[utoipa::path(post, operation_id = "heap_undo", tag = "heap", path = "/api/heaps/{id}/undo", params(("id" = i64, Path)), request_body = HeapAct, responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn undo(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<HeapAct>,
) -> Result<Json<Heap>, ApiError> {
    act(&state, move |conn, state| Ok(heap::undo(conn, HeapId(id), body.version, &state.clock.now())?)).await
}

/// Remove a heap, and give back what it took; it can be brought back
#[utoipa::path(delete, operation_id = "heap_remove", tag = "heap", path = "/api/heaps/{id}", params(("id" = i64, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(super) async fn remove(State(state): State<App>, Path(id): Path<i64>) -> Result<StatusCode, ApiError> {
    let store = state.store.clone();
    store
        .write::<_, ApiError, _>(move |conn| {
            taken::give_back(conn, Taker::Heap(HeapId(id)), &state)?;
            Ok(heap::remove(conn, HeapId(id), &state.clock.now())?)
        })
        .await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Bring a removed heap back
#[utoipa::path(post, operation_id = "heap_restore", tag = "heap", path = "/api/heaps/{id}/restore", params(("id" = i64, Path)), responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn restore(State(state): State<App>, Path(id): Path<i64>) -> Result<Json<Heap>, ApiError> {
    act(&state, move |conn, _| Ok(heap::restore(conn, HeapId(id))?)).await
}

/// Writes, and answers with the heap as it then stands.
pub(super) async fn write(
    state: &App,
    change: impl FnOnce(&Connection, &App) -> Result<heap::Heap, ApiError> + Send + 'static,
) -> Result<Json<Heap>, ApiError> {
    let (store, state) = (state.store.clone(), state.clone());
    let heap = store
        .write::<_, ApiError, _>(move |conn| {
            let heap = change(conn, &state)?;
            Heap::read(conn, heap, &state)
        })
        .await?;
    Ok(Json(heap))
}

/// The same for what changes what went in: stock follows, if it was taken from there.
async fn act(
    state: &App,
    change: impl FnOnce(&Connection, &App) -> Result<heap::Heap, ApiError> + Send + 'static,
) -> Result<Json<Heap>, ApiError> {
    write(state, |conn, state| {
        let heap = change(conn, state)?;
        heap_stock::follow(conn, &heap, state)?;
        Ok(heap)
    })
    .await
}
