//! Which method suits a batch and a person.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Faults};
use zymarch_core::base::quantity;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix;
use zymarch_core::plan::method::{self, Method, ShapeKind};
use zymarch_core::plan::suit::{self, SuitCode, UsedFor, Weighs, Wish};
use zymarch_formats::recipe::Recipe;
use zymarch_store::method as store;

use crate::Transaction;
use crate::words::Under;

/// Hours that a week may have for it.
pub(crate) const HOURS_A_WEEK: (f64, f64) = (0.0, 168.0);

/// Weeks that somebody may wait: ten years.
pub(crate) const WEEKS: (f64, f64) = (0.0, 520.0);

/// What is known of a batch and of the person; what is not is left out.
#[derive(Debug, Clone, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SuitRequest {
    /// The mix, if there is one.
    recipe: Option<Recipe>,
    /// The container there is.
    container: Option<ShapeKind>,
    /// Hours a week that somebody has for it.
    hours_a_week: Option<f64>,
    /// Weeks until the compost is needed.
    weeks: Option<f64>,
    /// Mean temperature of the air, degrees C.
    air_c: Option<f64>,
    /// Rain of the month, mm.
    rain_mm: Option<f64>,
    /// What the compost is for.
    used_for: Option<UsedFor>,
    /// Seeds, roots or disease must be dealt with.
    #[serde(default)]
    wants_hot: bool,
    /// There is only chlorinated water, and nowhere to let it stand.
    #[serde(default)]
    only_chlorinated: bool,
}

/// A method and what speaks for and against it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SuitAnswer {
    /// The method.
    pub id: String,
    /// The more, the better it suits.
    pub score: f64,
    /// Gravest first.
    pub points: Vec<SuitPoint>,
    /// Places in the recipe of what it cannot take.
    pub refused: Vec<usize>,
}

/// One point.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SuitPoint {
    /// What.
    pub code: SuitCode,
    /// Which way it weighs.
    pub weighs: Weighs,
    /// The numbers of the sentence.
    pub params: std::collections::BTreeMap<&'static str, f64>,
}

/// All methods, the best suited first, with the reasons for and against each.
///
/// # Errors
/// Every field that stands in the way.
pub fn suit(tx: &Transaction<'_>, request: &SuitRequest) -> Result<Vec<SuitAnswer>, Faults> {
    let own = store::all(tx.conn)?;
    let methods: Vec<_> = own.iter().map(|own| &own.method).chain(method::all()).collect();
    ranked(request, tx.catalogue(), &methods)
}

fn ranked(
    request: &SuitRequest,
    catalogue: &Catalogue,
    methods: &[&Method],
) -> Result<Vec<SuitAnswer>, Faults> {
    let mut found = Vec::new();
    let mut within = |field: &'static str, value: Option<f64>, (low, high): (f64, f64)| {
        if let Some(Err(fault)) = value.map(|value| quantity::within(value, low, high)) {
            found.push(At::ROOT.key(field).put(fault));
        }
        value
    };
    let mut wish = Wish {
        used_for: request.used_for,
        container: request.container,
        hours_a_week: within("hours_a_week", request.hours_a_week, HOURS_A_WEEK),
        weeks: within("weeks", request.weeks, WEEKS),
        air_c: within("air_c", request.air_c, (-60.0, 60.0)),
        rain_mm: within("rain_mm", request.rain_mm, (0.0, 5000.0)),
        wants_hot: request.wants_hot,
        only_chlorinated: request.only_chlorinated,
        ..Wish::default()
    };
    Faults::or(found, || ())?;
    if let Some(recipe) = request.recipe.as_ref().filter(|recipe| !recipe.items.is_empty()) {
        let resolved = recipe.resolve(catalogue).under("recipe")?;
        wish.mix = mix::sum(&resolved.items, resolved.water_l).ok();
        wish.parts = resolved.materials.into_iter().zip(resolved.items).collect();
    }
    let answer = |suit: suit::Suit<'_>| SuitAnswer {
        id: suit.method.id.clone(),
        score: suit.score,
        points: suit
            .points
            .iter()
            .map(|point| SuitPoint {
                code: point.code,
                weighs: point.weighs,
                params: point.params.iter().copied().collect(),
            })
            .collect(),
        refused: suit.refused,
    };
    Ok(suit::rank(&wish, methods.iter().copied()).into_iter().map(answer).collect())
}

#[cfg(test)]
mod tests {
    use super::*;

    fn ask(body: &str) -> Result<Vec<SuitAnswer>, Faults> {
        let book: Vec<_> = method::all().iter().collect();
        ranked(&zymarch_formats::field::read(body)?, &Catalogue::book(), &book)
    }

    #[test]
    fn every_method_is_answered_with_what_it_cannot_take() {
        let got = ask(r#"{"wants_hot":true,"recipe":{"format":"zymarch-recipe/1","water_l":60,"items":[
                {"material":"wheat-straw","kg":90},{"material":"layer-hen-manure","kg":40}]}}"#)
        .expect("is sound");
        assert_eq!(got.len(), 15);
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
            assert_eq!(ask(body).expect_err("odd").0[0].path.to_string(), field);
        }
    }
}
