//! `zymarch-confidence/1`: how sure the sums of a recipe are.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::confidence::{self, Confidence, Counted, DRAWS, Doubt, Middle, Middles, SEED};
use zymarch_core::judge::Target;
use zymarch_core::material::Spread;
use zymarch_core::mix::Item;

use crate::field::Refusal;
use crate::recipe::Recipe;

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-confidence/1";

/// How sure the sums of a recipe are.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ConfidenceAnswer {
    /// `zymarch-confidence/1`.
    pub format: &'static str,
    /// How often every figure was drawn from its range.
    pub draws: usize,
    /// What the draws started from: the same seed draws the same.
    pub seed: u64,
    /// Where the middle four fifths of the draws lie.
    #[serde(flatten)]
    pub middles: ConfidenceMiddles,
    /// Draws with every figure in its aim, %.
    pub in_aim_pct: f64,
    /// Draws with every figure at least in its workable band, %.
    pub in_workable_pct: f64,
    /// A line around the four fifths of the draws nearest the middle of them.
    pub outline: Vec<ConfidencePlace>,
    /// The tests that would narrow it most, best first.
    pub helps: Vec<ConfidenceHelp>,
    /// What the figures of each item were drawn from.
    pub ranges: Vec<ConfidenceRanges>,
}

/// Where the middle four fifths of the draws lie.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct ConfidenceMiddles {
    /// The C:N that the target is set on: low and high.
    pub c_n: [f64; 2],
    /// Moisture, %: low and high.
    pub moisture_pct: [f64; 2],
    /// Free air space, %: low and high.
    pub free_air_space_pct: [f64; 2],
}

/// A place in the balance field.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct ConfidencePlace {
    /// Water, % of fresh mass.
    pub moisture_pct: f64,
    /// The C:N that the target is set on.
    pub c_n: f64,
}

/// A test, and what it would bring.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ConfidenceHelp {
    /// The item to be tested, by its place.
    pub item: usize,
    /// `drying`, `weigh` or `analysis`.
    pub test: &'static str,
    /// Share of the whole spread it would take away, %.
    pub narrows_pct: f64,
    /// Where the middle four fifths would then lie, if it finds the usual value.
    pub then: ConfidenceMiddles,
}

/// What the figures of an item were drawn from: low, usual and high.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ConfidenceRanges {
    /// Water, % of fresh mass.
    pub moisture_pct: [f64; 3],
    /// Nitrogen, % of dry matter.
    pub n_pct: [f64; 3],
    /// Carbon to nitrogen, by mass.
    pub c_n: [f64; 3],
    /// Loose density, kg/L.
    pub density_kg_l: [f64; 3],
    /// `weighed`, so that another density is another volume, or `measured`, so that it is another weight.
    pub counted: &'static str,
}

/// How sure the sums of a recipe are, by the usual draws.
///
/// # Errors
/// A [`Refusal`], as for its sums.
pub fn answer(recipe: &Recipe, catalogue: &Catalogue) -> Result<ConfidenceAnswer, Refusal> {
    let resolved = recipe.resolve(catalogue)?;
    of(&resolved.items, &resolved.doubts, resolved.water_l, &resolved.target)
        .ok_or_else(|| Refusal::one("items", "holds nothing to be sure of: no nitrogen, or no amounts"))
}

/// How sure a mix is; none if it has no figures.
#[must_use]
pub fn of(items: &[Item], doubts: &[Doubt], water_l: f64, target: &Target) -> Option<ConfidenceAnswer> {
    let Confidence { middles, in_aim, in_workable, outline, helps } =
        confidence::confidence(items, doubts, water_l, target, DRAWS, SEED)?;
    let outline =
        outline.iter().map(|place| ConfidencePlace { moisture_pct: place.moisture * 100.0, c_n: place.c_n });
    let helps = helps.iter().map(|help| ConfidenceHelp {
        item: help.item,
        test: help.test.as_str(),
        narrows_pct: help.narrows * 100.0,
        then: (&help.then).into(),
    });
    Some(ConfidenceAnswer {
        format: FORMAT,
        draws: DRAWS,
        seed: SEED,
        middles: (&middles).into(),
        in_aim_pct: in_aim * 100.0,
        in_workable_pct: in_workable * 100.0,
        outline: outline.collect(),
        helps: helps.collect(),
        ranges: doubts.iter().map(ConfidenceRanges::from).collect(),
    })
}

impl From<&Middles> for ConfidenceMiddles {
    fn from(middles: &Middles) -> Self {
        let of = |middle: Middle, per: f64| [middle.low * per, middle.high * per];
        Self {
            c_n: of(middles.c_n, 1.0),
            moisture_pct: of(middles.moisture, 100.0),
            free_air_space_pct: of(middles.free_air_space, 100.0),
        }
    }
}

impl From<&Doubt> for ConfidenceRanges {
    fn from(doubt: &Doubt) -> Self {
        let of =
            |spread: Spread, per: f64| [spread.low, spread.typical, spread.high].map(|value| value * per);
        let ranges = &doubt.ranges;
        Self {
            moisture_pct: of(ranges.moisture, 100.0),
            n_pct: of(ranges.nitrogen, 100.0),
            c_n: of(ranges.c_n, 1.0),
            density_kg_l: of(ranges.density_kg_l, 1.0),
            counted: match doubt.counted {
                Counted::ByMass => "weighed",
                Counted::ByVolume => "measured",
            },
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::recipe::parse;

    fn asked(items: &str) -> ConfidenceAnswer {
        let text = format!(
            r#"{{"format":"zymarch-recipe/1","measures":[{{"id":"barrow","litres":70}}],"water_l":40,"items":[{items}]}}"#
        );
        answer(&parse(&text).expect("well formed"), &Catalogue::book()).expect("has nitrogen")
    }

    #[test]
    fn weighed_and_counted_amounts_are_told_apart() {
        let got = asked(
            r#"{"material":"wheat-straw","kg":28},{"material":"sheep-manure","amount":2,"measure":"barrow"}"#,
        );
        assert_eq!(got.ranges.iter().map(|one| one.counted).collect::<Vec<_>>(), ["weighed", "measured"]);
        assert_eq!(got.ranges[0].c_n, [64.0, 92.0, 135.0]);
    }

    #[test]
    fn a_drying_test_in_the_recipe_narrows_its_moisture() {
        let plain = asked(r#"{"material":"sheep-manure","kg":77}"#);
        let tested = asked(
            r#"{"material":"sheep-manure","kg":77,"tests":[{"figure":"moisture_pct","value":62,"test":"drying","on":"2026-03-10"}]}"#,
        );
        let width = |got: &ConfidenceAnswer| got.middles.moisture_pct[1] - got.middles.moisture_pct[0];
        assert!(width(&tested) < width(&plain) / 2.0);
    }

    #[test]
    fn a_mix_of_lime_is_refused_at_its_items() {
        let recipe = parse(r#"{"format":"zymarch-recipe/1","items":[{"material":"lime","kg":1}]}"#);
        let refusal = answer(&recipe.expect("well formed"), &Catalogue::book()).expect_err("no nitrogen");
        assert_eq!(refusal.errors[0].field, "items");
    }
}
