//! The ways of composting, and which suits a batch.

use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::method::{self, ShapeKind};
use zymarch_core::mix;
use zymarch_core::suit::{self, Use, Wish};
use zymarch_formats::field::Refusal;
use zymarch_formats::material::slug;
use zymarch_formats::method::{Method, MethodFields};
use zymarch_formats::recipe::Recipe;
use zymarch_store::method::{self as store, OwnMethod};

use super::convert;
use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// A way of composting, and the version of a person's own.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct ListedMethod {
    /// Counts changes; none for a way of the book.
    version: Option<i64>,
    #[serde(flatten)]
    method: Method,
}

/// A copy of a way of composting, with figures of a person's own.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct MethodCopy {
    /// The way that is copied, as `bay-turned`.
    base: String,
    /// Its figures.
    method: MethodFields,
}

/// A change of a way that was read at a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct MethodChange {
    /// The version that was read.
    version: i64,
    /// What it is now.
    method: MethodFields,
}

impl From<&OwnMethod> for ListedMethod {
    fn from(own: &OwnMethod) -> Self {
        Self { version: Some(own.version), method: (&own.method).into() }
    }
}

/// The ways of composting: a person's own first, then those of the book
#[utoipa::path(get, operation_id = "method_list", tag = "method", path = "/api/methods", responses((status = 200, body = Vec<ListedMethod>)))]
pub(super) async fn list(State(state): State<App>) -> Result<Json<Vec<ListedMethod>>, ApiError> {
    let own = state.store.read(|conn| store::all(conn)).await?;
    let book = method::all().iter().map(|one| ListedMethod { version: None, method: one.into() });
    Ok(Json(own.iter().map(ListedMethod::from).chain(book).collect()))
}

/// A copy of a way, changed
#[utoipa::path(post, operation_id = "method_copy", tag = "method", path = "/api/methods", request_body = MethodCopy, responses(
    (status = 201, body = ListedMethod),
    Refusals,
))]
pub(super) async fn copy(
    State(state): State<App>,
    Body(body): Body<MethodCopy>,
) -> Result<(StatusCode, Json<ListedMethod>), ApiError> {
    let catalogue = state.catalogue();
    let base = catalogue
        .method(&body.base)
        .ok_or_else(|| Refusal::one("base", "is not a way of composting that is known here"))?;
    let fields = named(body.method)?;
    // The id of one that was removed is still named by batches.
    let short = slug(&fields.name, "own-way");
    let id = std::iter::once(short.clone())
        .chain((2..).map(|number| format!("{short}-{number}")))
        .find(|id| catalogue.method(id).is_none())
        .unwrap_or(short);
    let (new, now) = (fields.checked(base, &id)?, state.clock.now());
    let own = state.store.write(move |conn| store::insert(conn, &new, &now)).await?;
    state.read_own().await?;
    Ok((StatusCode::CREATED, Json((&own).into())))
}

/// Change a way of one's own
#[utoipa::path(put, operation_id = "method_change", tag = "method", path = "/api/methods/{id}", params(("id" = String, Path)), request_body = MethodChange, responses(
    (status = 200, body = ListedMethod),
    Refusals,
))]
pub(super) async fn change(
    State(state): State<App>,
    Path(id): Path<String>,
    Body(body): Body<MethodChange>,
) -> Result<Json<ListedMethod>, ApiError> {
    let (fields, now) = (named(body.method)?, state.clock.now());
    let own = state
        .store
        .write::<_, ApiError, _>(move |conn| {
            let was = store::get(conn, &id)?.method;
            let base = was.base.as_deref().and_then(method::find).unwrap_or(&was);
            Ok(store::update(conn, body.version, &fields.checked(base, &id)?, &now)?)
        })
        .await?;
    state.read_own().await?;
    Ok(Json((&own).into()))
}

fn named(fields: MethodFields) -> Result<MethodFields, Refusal> {
    let name = convert::name("name", &fields.name)?;
    Ok(MethodFields { name, ..fields })
}

/// Remove a way of one's own; it can be brought back, and batches by it keep it
#[utoipa::path(delete, operation_id = "method_remove", tag = "method", path = "/api/methods/{id}", params(("id" = String, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(super) async fn remove(State(state): State<App>, Path(id): Path<String>) -> Result<StatusCode, ApiError> {
    let now = state.clock.now();
    state.store.write(move |conn| store::remove(conn, &id, &now)).await?;
    state.read_own().await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Bring a removed way back
#[utoipa::path(post, operation_id = "method_restore", tag = "method", path = "/api/methods/{id}/restore", params(("id" = String, Path)), responses(
    (status = 200, body = ListedMethod),
    Refusals,
))]
pub(super) async fn restore(
    State(state): State<App>,
    Path(id): Path<String>,
) -> Result<Json<ListedMethod>, ApiError> {
    let own = state.store.write(move |conn| store::restore(conn, &id)).await?;
    state.read_own().await?;
    Ok(Json((&own).into()))
}

/// What is known of a batch and of the person; what is not is left out.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct SuitRequest {
    /// The mix, if there is one.
    recipe: Option<Recipe>,
    /// The container there is: `box`, `ring`, `pile`, `windrow`, `drum`, `lying-drum` or `tower`.
    container: Option<String>,
    /// Hours a week that somebody has for it.
    hours_a_week: Option<f64>,
    /// Weeks until the compost is needed.
    weeks: Option<f64>,
    /// Mean temperature of the air, degrees C.
    air_c: Option<f64>,
    /// What the compost is for: `beds`, `raw-food`, `pots`, `lawn`, `field` or `trees`.
    used_for: Option<String>,
    /// Seeds, roots or sickness must be dealt with.
    #[serde(default)]
    wants_hot: bool,
    /// There is only chlorinated water, and nowhere to let it stand.
    #[serde(default)]
    only_chlorinated: bool,
}

/// A method and what speaks for and against it.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct SuitAnswer {
    /// The method.
    id: String,
    /// The more, the better it suits.
    score: f64,
    /// Gravest first.
    points: Vec<SuitPoint>,
    /// Places in the recipe of what it cannot take.
    refused: Vec<usize>,
}

/// One point.
#[derive(Debug, Serialize, ToSchema)]
struct SuitPoint {
    /// What.
    code: &'static str,
    /// `for`, `against` or `stops`.
    weighs: &'static str,
    /// The numbers of the sentence.
    params: std::collections::BTreeMap<&'static str, f64>,
}

/// All methods, the best suited first, with the reasons for and against each
#[utoipa::path(post, operation_id = "method_suit", tag = "method", path = "/api/methods/suit", request_body = SuitRequest, responses(
    (status = 200, body = Vec<SuitAnswer>),
    Refusals,
))]
pub(super) async fn rank(
    State(state): State<App>,
    Body(request): Body<SuitRequest>,
) -> Result<Json<Vec<SuitAnswer>>, ApiError> {
    let own = state.store.read(|conn| store::all(conn)).await?;
    let methods: Vec<_> = own.iter().map(|own| &own.method).chain(method::all()).collect();
    Ok(Json(ranked(&request, &state.catalogue(), &methods)?))
}

fn ranked(
    request: &SuitRequest,
    catalogue: &Catalogue,
    methods: &[&method::Method],
) -> Result<Vec<SuitAnswer>, Refusal> {
    let within = |field: &'static str, value: Option<f64>, low: f64, high: f64| match value {
        Some(value) if !(low..=high).contains(&value) => {
            Err(Refusal::one(field, format!("must be from {low} to {high}, got {value}")))
        }
        value => Ok(value),
    };
    let container = match &request.container {
        None => None,
        Some(word) => Some(ShapeKind::parse(word).ok_or_else(|| {
            let known: Vec<_> = ShapeKind::ALL.iter().map(|shape| shape.as_str()).collect();
            Refusal::one("container", format!("must be one of {}", known.join(", ")))
        })?),
    };
    let used_for = match &request.used_for {
        None => None,
        Some(word) => Some(Use::parse(word).ok_or_else(|| {
            let known: Vec<_> = Use::ALL.iter().map(|used_for| used_for.as_str()).collect();
            Refusal::one("used_for", format!("must be one of {}", known.join(", ")))
        })?),
    };
    let mut wish = Wish {
        used_for,
        container,
        hours_a_week: within("hours_a_week", request.hours_a_week, 0.0, 168.0)?,
        weeks: within("weeks", request.weeks, 0.0, 520.0)?,
        air_c: within("air_c", request.air_c, -60.0, 60.0)?,
        wants_hot: request.wants_hot,
        only_chlorinated: request.only_chlorinated,
        ..Wish::default()
    };
    if let Some(recipe) = request.recipe.as_ref().filter(|recipe| !recipe.items.is_empty()) {
        let resolved = recipe.resolve(catalogue).map_err(|mut refusal| {
            for error in &mut refusal.errors {
                error.field = format!("recipe.{}", error.field);
            }
            refusal
        })?;
        wish.mix = mix::sum(&resolved.items, resolved.water_l).ok();
        let materials = recipe.items.iter().map(|written| catalogue.find(&written.material));
        wish.parts = materials.zip(resolved.items).collect();
    }
    Ok(suit::rank(&wish, methods.iter().copied())
        .into_iter()
        .map(|suit| SuitAnswer {
            id: suit.method.id.clone(),
            score: suit.score,
            points: suit
                .points
                .iter()
                .map(|point| SuitPoint {
                    code: point.code.as_str(),
                    weighs: point.weighs.as_str(),
                    params: point.params.iter().copied().collect(),
                })
                .collect(),
            refused: suit.refused,
        })
        .collect())
}

#[cfg(test)]
mod tests {
    use super::*;

    fn ask(body: &str) -> Result<Vec<SuitAnswer>, Refusal> {
        let book: Vec<_> = method::all().iter().collect();
        ranked(&zymarch_formats::field::read(body).expect("well formed"), &Catalogue::book(), &book)
    }

    #[test]
    fn every_method_is_answered_with_what_it_cannot_take() {
        let got = ask(r#"{"wants_hot":true,"recipe":{"format":"zymarch-recipe/1","water_l":60,"items":[
                {"material":"wheat-straw","kg":90},{"material":"sheep-manure","kg":220}]}}"#)
        .expect("is sound");
        assert_eq!(got.len(), 13);
        let worms = got.iter().find(|one| one.id == "worm-bin").expect("told");
        assert_eq!(worms.refused, [1]);
        assert!(got[0].score > worms.score);
    }

    #[test]
    fn odd_wishes_are_named() {
        for (body, field) in [
            (r#"{"container":"bathtub"}"#, "container"),
            (r#"{"used_for":"paint"}"#, "used_for"),
            (r#"{"hours_a_week":-1}"#, "hours_a_week"),
            (r#"{"weeks":1e9}"#, "weeks"),
            (
                r#"{"recipe":{"format":"zymarch-recipe/1","items":[{"material":"moondust","kg":1}]}}"#,
                "recipe.items[0].material",
            ),
        ] {
            assert_eq!(ask(body).expect_err("odd").errors[0].field, field);
        }
    }
}
