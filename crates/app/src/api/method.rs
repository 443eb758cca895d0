//! The ways of composting, and which suits a batch.

use axum::Json;
use axum::extract::State;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::caution::Stance;
use zymarch_core::heap::fit;
use zymarch_core::material::Catalogue;
use zymarch_core::method::{self, ShapeKind};
use zymarch_core::mix;
use zymarch_core::quantity::Band;
use zymarch_core::suit::{self, Wish};
use zymarch_formats::field::Refusal;
use zymarch_formats::layers::HeapShape;
use zymarch_formats::recipe::Recipe;

use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// A way of composting. Ranges are low and high.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Method {
    /// Stable word.
    id: &'static str,
    /// How hot its heap gets: `hot`, `hot-if-turned`, `warm`, `cool` or `worms`.
    heat: &'static str,
    /// How often it is turned: `often`, `sometimes` or `never`.
    turned: &'static str,
    /// How the materials go in: `layers`, `mixed` or `as-it-comes`.
    build: &'static str,
    /// What it is built in, the usual one first: `box`, `ring`, `pile`, `windrow`, `drum`, `lying-drum`, `tower`.
    shapes: Vec<&'static str>,
    /// Sides of each of these to begin with.
    usual: Vec<HeapShape>,
    /// Heap volume it works at, litres.
    volume_l: [f64; 2],
    /// Height it is built to, cm.
    height_cm: [f64; 2],
    /// Window for C:N.
    c_n: [f64; 2],
    /// Window for moisture, %.
    moisture_pct: [f64; 2],
    /// Least free air space, %.
    free_air_space_min_pct: f64,
    /// How warm its core should be, by age.
    expected: Vec<MethodHeat>,
    /// Day of the first turn; none if it is not turned by rule.
    first_turn_day: Option<u16>,
    /// Days between turns.
    turn_every_days: Option<[f64; 2]>,
    /// When water goes on.
    water: &'static str,
    /// Days between looks at it.
    check_days: [f64; 2],
    /// Weeks until it is no longer active.
    active_weeks: [f64; 2],
    /// The same if a method that may be turned is not.
    unturned_weeks: Option<[f64; 2]>,
    /// Weeks of curing after that.
    cure_weeks: [f64; 2],
    /// Volume left at the end, %.
    volume_left_pct: [f64; 2],
    /// Dry matter left, %.
    mass_left_pct: [f64; 2],
    /// Nitrogen kept, %.
    n_kept_pct: [f64; 2],
    /// Hours of work to build, each m³.
    build_h_m3: [f64; 2],
    /// Hours of work for one turn, each m³.
    turn_h_m3: Option<[f64; 2]>,
    /// The layers of one cycle, from below; none if it is mixed first.
    pattern: Vec<&'static str>,
    /// Coarse stuff below, cm.
    foundation_cm: f64,
    /// Dry stuff on top, cm.
    cap_cm: f64,
    /// What lets air into the middle: `none`, `stick`, `pipe` or `columns`.
    vent: &'static str,
    /// Farthest that any point may be from air, cm.
    air_reach_cm: Option<f64>,
    /// Least coarse material, % of loose volume.
    coarse_min_pct: Option<f64>,
    /// Its water must be free of chlorine.
    wants_open_water: bool,
    /// The cautions that keep a material out of it.
    refuses: Vec<&'static str>,
}

/// How warm the core should be at an age.
#[derive(Debug, Serialize, ToSchema)]
struct MethodHeat {
    /// Days since it was built.
    day: u16,
    /// Low and high, degrees C.
    core_c: [f64; 2],
}

impl From<&'static method::Method> for Method {
    fn from(method: &'static method::Method) -> Self {
        let range = |band: Band| [band.low(), band.high()];
        let percent = |band: Band| [tidy(band.low() * 100.0), tidy(band.high() * 100.0)];
        Self {
            id: &method.id,
            heat: method.heat.as_str(),
            turned: method.turned.as_str(),
            build: method.build.as_str(),
            shapes: method.shapes.iter().map(|shape| shape.as_str()).collect(),
            usual: method
                .shapes
                .iter()
                .map(|shape| fit::usual(*shape, method.volume_l, method.height_cm).into())
                .collect(),
            volume_l: range(method.volume_l),
            height_cm: range(method.height_cm),
            c_n: range(method.c_n),
            moisture_pct: percent(method.moisture),
            free_air_space_min_pct: tidy(method.free_air_space_min * 100.0),
            expected: method
                .expected
                .iter()
                .map(|at| MethodHeat { day: at.day, core_c: range(at.core_c) })
                .collect(),
            first_turn_day: method.first_turn_day,
            turn_every_days: method.turn_every_days.map(range),
            water: method.water.as_str(),
            check_days: range(method.check_days),
            active_weeks: range(method.active_weeks),
            unturned_weeks: method.unturned_weeks.map(range),
            cure_weeks: range(method.cure_weeks),
            volume_left_pct: percent(method.volume_left),
            mass_left_pct: percent(method.mass_left),
            n_kept_pct: percent(method.nitrogen_kept),
            build_h_m3: range(method.build_h_m3),
            turn_h_m3: method.turn_h_m3.map(range),
            pattern: method.pattern.iter().map(|layer| layer.as_str()).collect(),
            foundation_cm: method.foundation_cm,
            cap_cm: method.cap_cm,
            vent: method.vent.as_str(),
            air_reach_cm: method.air_reach_cm,
            coarse_min_pct: method.coarse_min.map(|share| share * 100.0),
            wants_open_water: method.wants_open_water,
            refuses: zymarch_core::caution::all()
                .filter(|caution| caution.in_method(method) == Stance::Refused)
                .map(|caution| caution.code)
                .collect(),
        }
    }
}

/// Hundred times a share such as 0.55 leaves its last digits behind.
fn tidy(percent: f64) -> f64 {
    (percent * 1e6).round() / 1e6
}

/// The ways of composting
#[utoipa::path(get, operation_id = "method_list", tag = "method", path = "/api/methods", responses((status = 200, body = Vec<Method>)))]
pub(super) async fn list() -> Json<Vec<Method>> {
    Json(method::all().iter().map(Method::from).collect())
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
    /// Seeds, roots or sickness must be dealt with, or it is for what is eaten raw.
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
    id: &'static str,
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
    Ok(Json(ranked(&request, &state.catalogue())?))
}

fn ranked(request: &SuitRequest, catalogue: &Catalogue) -> Result<Vec<SuitAnswer>, Refusal> {
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
    let mut wish = Wish {
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
    Ok(suit::rank(&wish)
        .into_iter()
        .map(|suit| SuitAnswer {
            id: &suit.method.id,
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
        ranked(&zymarch_formats::field::read(body).expect("well formed"), &Catalogue::book())
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
