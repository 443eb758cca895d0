//! `zymarch-thumb/1`: a rule of thumb, and what it truly gives.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::judge;
use zymarch_core::stock::Figures;
use zymarch_core::thumb::{self, By, Part};

use crate::field::{self, Document, FieldError, Refusal};
use crate::mix::{MixSums, WaterToAdd};
use crate::recipe::{self, Recipe, RecipeItem, RecipeTarget};
use crate::working::Line;

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-thumb/1";

/// More parts than this is no rule of thumb.
const MOST_PARTS: usize = 12;

/// A rule of thumb, with the materials that stand for its parts.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ThumbRule {
    /// `zymarch-thumb/1`.
    #[schema(example = "zymarch-thumb/1")]
    pub format: String,
    /// What the parts are parts of: `volume` or `weight`.
    #[schema(example = "volume")]
    pub by: String,
    /// The parts, in the order of the rule.
    pub parts: Vec<ThumbPart>,
    /// The windows to judge it by; the usual ones if left out.
    #[serde(default)]
    pub target: RecipeTarget,
}

/// One part of a rule.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ThumbPart {
    /// How many parts.
    #[schema(example = 2.0)]
    pub parts: f64,
    /// What stands for it, as items without an amount; several share it evenly.
    pub of: Vec<RecipeItem>,
}

/// What a rule truly gives.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ThumbAnswer {
    /// `zymarch-thumb/1`.
    pub format: &'static str,
    /// The sums of the rule measured out, of 1,000 L loose or of 1,000 kg, without water added.
    pub mix: MixSums,
    /// Water that would bring that into the moisture band.
    pub water_to_add_l: WaterToAdd,
    /// The materials as they were measured out, in the order of the rule.
    pub items: Vec<ThumbItem>,
    /// From the shortcut of averaging the ratios to the true C:N, each step weighing by one thing more.
    pub ladder: Vec<ThumbRung>,
    /// Of each part, how many parts of it would bring the C:N to the middle of
    /// the window, the others as they are; null where no number would.
    pub mended: Vec<Option<f64>>,
}

/// A material as it was measured out.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ThumbItem {
    /// As the rule names it.
    pub material: String,
    /// Which part it stands for, by its place.
    pub part: usize,
    /// Fresh mass, kg.
    pub kg: f64,
    /// Loose volume, litres.
    pub litres: f64,
    /// Its own C:N.
    pub c_n: f64,
    /// Its own water, % of fresh mass.
    pub moisture_pct: f64,
    /// Nitrogen in it, kg.
    pub nitrogen_kg: f64,
}

/// The average of the ratios under one weighing.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ThumbRung {
    /// `parts`, `mass`, `dry-matter` or `nitrogen`.
    pub by: &'static str,
    /// The average.
    pub c_n: f64,
    /// How it comes about, as it would stand on a board.
    pub lines: Vec<Line>,
}

impl Document for ThumbRule {
    const FORMAT: &'static str = FORMAT;
}

/// Reads a rule.
///
/// # Errors
/// A [`Refusal`] that names the field and, where it is known, the line.
pub fn parse(text: &str) -> Result<ThumbRule, Refusal> {
    field::document(text)
}

/// What a rule truly gives.
///
/// # Errors
/// A [`Refusal`] of the fields found wrong; of `parts` if they come to nothing or to no nitrogen.
///
/// # Example
/// ```
/// use zymarch_core::catalogue::Catalogue;
/// let rule = zymarch_formats::thumb::parse(r#"{"format":"zymarch-thumb/1","by":"volume","parts":[
///     {"parts":2,"of":[{"material":"wheat-straw"}]},{"parts":1,"of":[{"material":"sheep-manure"}]}]}"#)?;
/// let got = zymarch_formats::thumb::answer(&rule, &Catalogue::book())?;
/// assert!((got.ladder[0].c_n - 66.7).abs() < 0.1 && (got.mix.c_n - 21.7).abs() < 0.1);
/// # Ok::<(), zymarch_formats::field::Refusal>(())
/// ```
pub fn answer(rule: &ThumbRule, catalogue: &Catalogue) -> Result<ThumbAnswer, Refusal> {
    let mut errors = Vec::new();
    let mut refuse = |field: String, reason: String| errors.push(FieldError::new(field, reason));
    if rule.format != FORMAT {
        refuse("format".into(), format!("is \"{}\", but \"{FORMAT}\" is read here", rule.format));
    }
    let by = By::parse(&rule.by);
    if by.is_none() {
        refuse("by".into(), "must be volume or weight".into());
    }
    if rule.parts.is_empty() || rule.parts.len() > MOST_PARTS {
        refuse("parts".into(), format!("must hold 1 to {MOST_PARTS}, got {}", rule.parts.len()));
    }
    for (place, part) in rule.parts.iter().enumerate() {
        if !(part.parts > 0.0 && part.parts <= 1000.0) {
            refuse(
                format!("parts[{place}].parts"),
                format!("must be above 0 and at most 1000, got {}", part.parts),
            );
        }
        if part.of.is_empty() || part.of.len() > MOST_PARTS {
            refuse(
                format!("parts[{place}].of"),
                format!("must hold 1 to {MOST_PARTS}, got {}", part.of.len()),
            );
        }
        for (at, item) in part.of.iter().enumerate() {
            if item.kg.is_some() || item.litres.is_some() || item.amount.is_some() || item.measure.is_some() {
                refuse(format!("parts[{place}].of[{at}]"), "says an amount, but the rule does that".into());
            }
        }
    }
    let (Some(by), true) = (by, errors.is_empty()) else { return Err(Refusal { errors }) };
    let (figures, target) = figures(rule, catalogue)?;
    let parts: Vec<Part> =
        rule.parts.iter().zip(figures).map(|(part, of)| Part { parts: part.parts, of }).collect();
    let got = thumb::thumb(by, &parts, &target).map_err(|error| Refusal::one("parts", error.to_string()))?;
    let places =
        rule.parts.iter().enumerate().flat_map(|(place, part)| part.of.iter().map(move |of| (place, of)));
    let items = places.zip(&got.items).map(|((part, of), item)| ThumbItem {
        material: of.material.clone(),
        part,
        kg: item.wet_mass_kg,
        litres: item.volume_l(),
        c_n: item.figures.c_n.value,
        moisture_pct: item.figures.moisture.value.percent(),
        nitrogen_kg: item.nitrogen_kg(),
    });
    Ok(ThumbAnswer {
        format: FORMAT,
        mix: MixSums::new(&got.mix, judge::standings(&got.mix, &target)),
        water_to_add_l: got.water.into(),
        items: items.collect(),
        ladder: got
            .ladder
            .iter()
            .map(|rung| ThumbRung {
                by: rung.by.as_str(),
                c_n: rung.c_n,
                lines: rung.lines.iter().map(Line::from).collect(),
            })
            .collect(),
        mended: got.mended,
    })
}

/// The figures of what stands for each part, checked as items of a recipe.
fn figures(rule: &ThumbRule, catalogue: &Catalogue) -> Result<(Vec<Vec<Figures>>, judge::Target), Refusal> {
    let places: Vec<(usize, usize)> = rule
        .parts
        .iter()
        .enumerate()
        .flat_map(|(part, one)| (0..one.of.len()).map(move |at| (part, at)))
        .collect();
    let items =
        places.iter().map(|&(part, at)| RecipeItem { litres: Some(1.0), ..rule.parts[part].of[at].clone() });
    let recipe = Recipe {
        format: recipe::FORMAT.into(),
        name: None,
        items: items.collect(),
        measures: Vec::new(),
        water_l: 0.0,
        target: rule.target.clone(),
        method: None,
    };
    let resolved = recipe.resolve(catalogue).map_err(|refusal| Refusal {
        errors: refusal.errors.into_iter().map(|error| rename(error, &places)).collect(),
    })?;
    let mut found = vec![Vec::new(); rule.parts.len()];
    for (&(part, _), item) in places.iter().zip(&resolved.items) {
        found[part].push(item.figures);
    }
    Ok((found, resolved.target))
}

/// A recipe's item fields under their names in a rule.
fn rename(error: FieldError, places: &[(usize, usize)]) -> FieldError {
    let inside = error.field.strip_prefix("items[").and_then(|rest| {
        let (place, rest) = rest.split_once(']')?;
        let (part, at) = places.get(place.parse::<usize>().ok()?)?;
        Some(format!("parts[{part}].of[{at}]{rest}"))
    });
    FieldError { field: inside.unwrap_or(error.field), ..error }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn asked(text: &str) -> Result<ThumbAnswer, Refusal> {
        answer(&parse(text)?, &Catalogue::book())
    }

    #[test]
    fn every_wrong_field_is_named() {
        let refusal = asked(
            r#"{"format":"zymarch-thumb/1","by":"handfuls","parts":[{"parts":-1,"of":[{"material":"wheat-straw","kg":2}]},{"parts":1,"of":[]}]}"#,
        )
        .expect_err("all wrong");
        let fields: Vec<_> = refusal.errors.iter().map(|error| error.field.as_str()).collect();
        assert_eq!(fields, ["by", "parts[0].parts", "parts[0].of[0]", "parts[1].of"]);
    }

    #[test]
    fn an_unknown_material_is_named_where_the_rule_has_it() {
        let refusal = asked(
            r#"{"format":"zymarch-thumb/1","by":"weight","parts":[{"parts":1,"of":[{"material":"wheat-straw"},{"material":"moondust"}]}]}"#,
        )
        .expect_err("unknown");
        assert_eq!(refusal.errors[0].field, "parts[0].of[1].material");
    }

    #[test]
    fn a_part_may_be_shared_and_figures_overridden() {
        let got = asked(
            r#"{"format":"zymarch-thumb/1","by":"volume","parts":[{"parts":2,"of":[{"material":"wheat-straw","c_n":80},{"material":"tree-leaves-dry"}]},{"parts":1,"of":[{"material":"sheep-manure"}]}]}"#,
        )
        .expect("sound");
        assert_eq!(got.items.iter().map(|item| item.part).collect::<Vec<_>>(), [0, 0, 1]);
        assert_eq!(got.items[0].c_n, 80.0);
        assert_eq!(got.mended.len(), 2);
    }
}
