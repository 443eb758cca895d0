//! `zymarch-recipe/1`: a mix written down.
//!
//! What `zymarch mix` reads and `POST /api/mix` takes. Reading gives the recipe
//! as written; [`Recipe::resolve`] gives the items the core can sum, or every
//! field that stands in the way.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::field_test::{TestKind, TestedFigure};
use zymarch_core::judge::{Basis, Target};
use zymarch_core::material::Catalogue;
use zymarch_core::measure::{Amount, LARGEST_MEASURE_L};
use zymarch_core::method::{self, Method};
use zymarch_core::mix::Item;
use zymarch_core::quantity::{self, Band, Fraction};
use zymarch_core::stock::{self, Measured, Own};

use crate::field::{self, FieldError, Refusal};

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-recipe/1";

/// More items than this is a mistake, not a heap.
pub const MOST_ITEMS: usize = 1000;

/// A mix written down.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Recipe {
    /// `zymarch-recipe/1`.
    #[schema(example = "zymarch-recipe/1")]
    pub format: String,
    /// What it is called, if it has a name.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    /// What goes in.
    pub items: Vec<RecipeItem>,
    /// The containers that amounts are counted in.
    #[serde(default)]
    pub measures: Vec<RecipeMeasure>,
    /// Water added, litres.
    #[serde(default)]
    pub water_l: f64,
    /// The windows to judge it by; the usual ones if left out.
    #[serde(default)]
    pub target: RecipeTarget,
    /// The way it is to be composted, as `bay-turned`; cautions depend on it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<String>,
}

/// One lot's part. Gives `kg`, or `litres`, or `amount` and `measure`.
#[derive(Debug, Clone, PartialEq, Default, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RecipeItem {
    /// Id in the reference table, or any name if the figures are given.
    #[schema(example = "wheat-straw")]
    pub material: String,
    /// Fresh mass, kg.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kg: Option<f64>,
    /// Loose volume, litres.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub litres: Option<f64>,
    /// How many measures.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub amount: Option<f64>,
    /// Id of the measure they are counted in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub measure: Option<String>,
    /// Water, % of fresh mass.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub moisture_pct: Option<f64>,
    /// Total nitrogen, % of dry matter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub n_pct: Option<f64>,
    /// Carbon to nitrogen, by mass.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub c_n: Option<f64>,
    /// Ash, % of dry matter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ash_pct: Option<f64>,
    /// Acid-detergent lignin, % of dry matter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lignin_pct: Option<f64>,
    /// Loose density, kg/L.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub density_kg_l: Option<f64>,
    /// Volume in the built heap, share of the loose volume.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub settle: Option<f64>,
    /// Chopped one particle class finer than it usually arrives.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub chopped: Option<bool>,
    /// Figures that dated tests gave; they beat all others.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub tests: Vec<RecipeTest>,
}

/// A figure that a dated test gave.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RecipeTest {
    /// Which figure.
    pub figure: RecipeFigure,
    /// Its value; of `herbicide` any number, the sign being that it stands here.
    pub value: f64,
    /// `weigh`, `drying`, `squeeze`, `bucket` or `bean`.
    #[schema(example = "drying")]
    pub test: String,
    /// The day, as 2026-03-10.
    #[schema(example = "2026-03-10")]
    pub on: String,
}

/// A figure that a test can give.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RecipeFigure {
    /// Water, % of fresh mass.
    MoisturePct,
    /// Loose density, kg/L.
    DensityKgL,
    /// Volume in the built heap, share of the loose volume.
    Settle,
    /// Signs of weed-killer in a bean test: it goes into no heap.
    Herbicide,
}

impl From<TestedFigure> for RecipeFigure {
    fn from(figure: TestedFigure) -> Self {
        match figure {
            TestedFigure::Moisture => Self::MoisturePct,
            TestedFigure::Density => Self::DensityKgL,
            TestedFigure::Settle => Self::Settle,
            TestedFigure::Herbicide => Self::Herbicide,
        }
    }
}

impl From<RecipeFigure> for TestedFigure {
    fn from(figure: RecipeFigure) -> Self {
        match figure {
            RecipeFigure::MoisturePct => Self::Moisture,
            RecipeFigure::DensityKgL => Self::Density,
            RecipeFigure::Settle => Self::Settle,
            RecipeFigure::Herbicide => Self::Herbicide,
        }
    }
}

impl RecipeItem {
    /// The figures it gives in place of the book's. They stand beside the amount
    /// in the file, so that an error can name each by its own path.
    #[must_use]
    pub fn own(&self) -> OwnFigures {
        OwnFigures {
            moisture_pct: self.moisture_pct,
            n_pct: self.n_pct,
            c_n: self.c_n,
            ash_pct: self.ash_pct,
            lignin_pct: self.lignin_pct,
            density_kg_l: self.density_kg_l,
            settle: self.settle,
            chopped: self.chopped,
        }
    }
}

/// Figures that a person gives in place of the reference table's.
#[derive(Debug, Clone, Copy, PartialEq, Default, Deserialize, Serialize, ToSchema)]
pub struct OwnFigures {
    /// Water, % of fresh mass.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub moisture_pct: Option<f64>,
    /// Total nitrogen, % of dry matter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub n_pct: Option<f64>,
    /// Carbon to nitrogen, by mass.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub c_n: Option<f64>,
    /// Ash, % of dry matter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ash_pct: Option<f64>,
    /// Acid-detergent lignin, % of dry matter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lignin_pct: Option<f64>,
    /// Loose density, kg/L.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub density_kg_l: Option<f64>,
    /// Volume in the built heap, share of the loose volume.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub settle: Option<f64>,
    /// Chopped one particle class finer than it usually arrives.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub chopped: Option<bool>,
}

/// A container.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RecipeMeasure {
    /// What items call it.
    #[schema(example = "barrow")]
    pub id: String,
    /// What it holds, litres.
    pub litres: f64,
}

/// Windows to judge a mix by.
#[derive(Debug, Clone, PartialEq, Default, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RecipeTarget {
    /// Lowest and highest C:N aimed for; 25 and 30 if left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub c_n: Option<[f64; 2]>,
    /// Lowest and highest moisture aimed for, %; 50 and 60 if left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub moisture_pct: Option<[f64; 2]>,
    /// Least free air space aimed for, %; 35 if left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub free_air_space_min_pct: Option<f64>,
    /// `total` (default) or `available`: which C:N counts.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub basis: Option<RecipeBasis>,
}

/// Which C:N counts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize, Serialize, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum RecipeBasis {
    /// All carbon.
    Total,
    /// The carbon that microbes reach.
    Available,
}

/// A recipe whose every field has been checked: what the core can sum.
#[derive(Debug, Clone, PartialEq)]
pub struct Resolved {
    /// In the order of the recipe.
    pub items: Vec<Item>,
    /// Water added [L].
    pub water_l: f64,
    /// Windows to judge by.
    pub target: Target,
    /// The way it is to be composted.
    pub method: Option<&'static Method>,
}

/// Reads a recipe.
///
/// # Errors
/// A [`Refusal`] that names the field and, where it is known, the line.
///
/// # Example
/// ```
/// let text = r#"{"format":"zymarch-recipe/1","items":[{"material":"wheat-straw","kg":24}]}"#;
/// let recipe = zymarch_formats::recipe::parse(text)?;
/// let book = zymarch_core::material::Catalogue::book();
/// assert_eq!(recipe.resolve(&book)?.items[0].wet_mass_kg, 24.0);
/// # Ok::<(), zymarch_formats::field::Refusal>(())
/// ```
pub fn parse(text: &str) -> Result<Recipe, Refusal> {
    field::expect_format(text, FORMAT).map_err(|refusal| refusal.located_in(text))?;
    field::read(text)
}

impl Recipe {
    /// Checks every field and looks up what the recipe leaves to the book.
    ///
    /// # Errors
    /// A [`Refusal`] with every field found wrong.
    pub fn resolve(&self, catalogue: &Catalogue) -> Result<Resolved, Refusal> {
        let mut check = Check { catalogue, errors: Vec::new() };
        if self.format != FORMAT {
            check.refuse("format", format!("is \"{}\", but \"{FORMAT}\" is read here", self.format));
        }
        if self.items.is_empty() {
            check.refuse("items", "is empty: a mix needs at least one");
        }
        if self.items.len() > MOST_ITEMS {
            check.refuse("items", format!("holds {}, more than {MOST_ITEMS}", self.items.len()));
            return Err(Refusal { errors: check.errors });
        }
        self.check_measures(&mut check);
        let items = self
            .items
            .iter()
            .enumerate()
            .filter_map(|(index, item)| check.item(&format!("items[{index}]"), item, &self.measures))
            .collect();
        let water_l = check.amount("water_l", self.water_l);
        let target = check.target(&self.target);
        let method = self.method.as_deref().and_then(|id| check.method(id));
        if check.errors.is_empty() {
            Ok(Resolved { items, water_l, target, method })
        } else {
            Err(Refusal { errors: check.errors })
        }
    }

    fn check_measures(&self, check: &mut Check<'_>) {
        for (index, measure) in self.measures.iter().enumerate() {
            let field = format!("measures[{index}]");
            if !(measure.litres > 0.0 && measure.litres <= LARGEST_MEASURE_L) {
                check.refuse(
                    format!("{field}.litres"),
                    format!("must be above 0 and at most {LARGEST_MEASURE_L}, got {}", measure.litres),
                );
            }
            if self.measures[..index].iter().any(|earlier| earlier.id == measure.id) {
                check.refuse(format!("{field}.id"), format!("\"{}\" is defined twice", measure.id));
            }
        }
    }
}

struct Check<'a> {
    catalogue: &'a Catalogue,
    errors: Vec<FieldError>,
}

impl Check<'_> {
    fn refuse(&mut self, field: impl Into<String>, reason: impl Into<String>) {
        self.errors.push(FieldError::new(field, reason));
    }

    fn amount(&mut self, field: impl Into<String>, value: f64) -> f64 {
        quantity::amount(value).unwrap_or_else(|error| {
            self.refuse(field, error.to_string());
            0.0
        })
    }

    fn item(&mut self, field: &str, item: &RecipeItem, measures: &[RecipeMeasure]) -> Option<Item> {
        let before = self.errors.len();
        let amount = self.item_amount(field, item, measures);
        let mut own = self.own_figures(field, &item.own());
        own.measured = self.measured(field, &item.tests);
        let catalogue = self.catalogue;
        let material = catalogue.find(&item.material);
        if material.is_none() && item.own() == OwnFigures::default() {
            self.refuse(format!("{field}.material"), unknown_material(catalogue, &item.material));
        }
        if self.errors.len() > before {
            return None;
        }
        match stock::figures(material, &own) {
            Ok(figures) => {
                let wet_mass_kg = amount?.mass_kg(figures.density_kg_l.value);
                Some(Item { wet_mass_kg: self.amount(field, wet_mass_kg), figures })
            }
            Err(missing) => {
                self.refuse(format!("{field}.{}", missing.field), missing.to_string());
                None
            }
        }
    }

    fn item_amount(&mut self, field: &str, item: &RecipeItem, measures: &[RecipeMeasure]) -> Option<Amount> {
        let amount = match (item.kg, item.litres, item.amount, &item.measure) {
            (Some(kg), None, None, None) => ("kg", Amount::Kilograms(kg)),
            (None, Some(litres), None, None) => ("litres", Amount::Litres(litres)),
            (None, None, Some(count), Some(id)) => match measures.iter().find(|measure| measure.id == *id) {
                Some(measure) => ("amount", Amount::Measures { count, litres_each: measure.litres }),
                None => {
                    self.refuse(format!("{field}.measure"), format!("\"{id}\" is not among the measures"));
                    return None;
                }
            },
            (None, None, Some(_), None) => {
                self.refuse(format!("{field}.measure"), "is missing: an amount is counted in a measure");
                return None;
            }
            (None, None, None, Some(_)) => {
                self.refuse(format!("{field}.amount"), "is missing: how many measures?");
                return None;
            }
            (None, None, None, None) => {
                self.refuse(field, "says no amount: give kg, or litres, or amount and measure");
                return None;
            }
            _ => {
                self.refuse(
                    field,
                    "says its amount twice: give only one of kg, litres, or amount and measure",
                );
                return None;
            }
        };
        match amount.1.checked() {
            Ok(checked) => Some(checked),
            Err(error) => {
                self.refuse(format!("{field}.{}", amount.0), error.to_string());
                None
            }
        }
    }

    fn own_figures(&mut self, field: &str, own: &OwnFigures) -> Own {
        let checked = Own {
            moisture: self.percent(field, "moisture_pct", own.moisture_pct, MOISTURE_PCT),
            nitrogen: self.percent(field, "n_pct", own.n_pct, NITROGEN_PCT),
            c_n: self.within(field, "c_n", own.c_n, C_N),
            ash: self.percent(field, "ash_pct", own.ash_pct, (0.0, 100.0)),
            lignin: self.percent(field, "lignin_pct", own.lignin_pct, (0.0, 100.0)),
            density_kg_l: self.within(field, "density_kg_l", own.density_kg_l, DENSITY_KG_L),
            settle: self.within(field, "settle", own.settle, SETTLE),
            chopped: own.chopped.unwrap_or(false),
            ..Own::default()
        };
        if let (Some(ash), Some(lignin)) = (checked.ash, checked.lignin)
            && lignin.get() > ash.rest() + 1e-9
        {
            self.refuse(format!("{field}.lignin_pct"), "and ash_pct together are more than the dry matter");
        }
        checked
    }

    fn measured(&mut self, field: &str, tests: &[RecipeTest]) -> Measured {
        let mut measured = Measured::default();
        for (index, test) in tests.iter().enumerate() {
            let at = format!("{field}.tests[{index}]");
            if TestKind::parse(&test.test).is_none() {
                self.refuse(format!("{at}.test"), format!("\"{}\" is not a test", shown(&test.test)));
            }
            if !is_day(&test.on) {
                self.refuse(
                    format!("{at}.on"),
                    format!("\"{}\" is not a day such as 2026-03-10", shown(&test.on)),
                );
            }
            let value = Some(test.value);
            match test.figure {
                RecipeFigure::MoisturePct => {
                    measured.moisture = self.percent(&at, "value", value, MOISTURE_PCT)
                }
                RecipeFigure::DensityKgL => {
                    measured.density_kg_l = self.within(&at, "value", value, DENSITY_KG_L)
                }
                RecipeFigure::Settle => measured.settle = self.within(&at, "value", value, SETTLE),
                RecipeFigure::Herbicide => measured.carries_herbicide = true,
            }
        }
        measured
    }

    fn method(&mut self, id: &str) -> Option<&'static Method> {
        let found = method::find(id);
        if found.is_none() {
            let known: Vec<_> = method::all().iter().map(|method| method.id).collect();
            self.refuse("method", format!("\"{}\" is not one of {}", shown(id), known.join(", ")));
        }
        found
    }

    fn within(
        &mut self,
        field: &str,
        name: &str,
        value: Option<f64>,
        (low, high): (f64, f64),
    ) -> Option<f64> {
        let value = value?;
        if (low..=high).contains(&value) {
            return Some(value);
        }
        self.refuse(format!("{field}.{name}"), format!("must be between {low} and {high}, got {value}"));
        None
    }

    fn percent(
        &mut self,
        field: &str,
        name: &str,
        value: Option<f64>,
        range: (f64, f64),
    ) -> Option<Fraction> {
        self.within(field, name, value, range).and_then(|percent| Fraction::from_percent(percent).ok())
    }

    fn target(&mut self, target: &RecipeTarget) -> Target {
        let usual = Target::default();
        let c_n = self.band("target.c_n", target.c_n, C_N_TARGET, 1.0);
        let moisture = self.band("target.moisture_pct", target.moisture_pct, MOISTURE_TARGET_PCT, 100.0);
        let air = self
            .within("target", "free_air_space_min_pct", target.free_air_space_min_pct, (0.0, 90.0))
            .map(|percent| percent / 100.0);
        Target {
            c_n: c_n.unwrap_or(usual.c_n),
            moisture: moisture.unwrap_or(usual.moisture),
            free_air_space_min: air.unwrap_or(usual.free_air_space_min),
            basis: match target.basis {
                Some(RecipeBasis::Available) => Basis::Available,
                Some(RecipeBasis::Total) | None => Basis::Total,
            },
        }
    }

    fn band(&mut self, field: &str, given: Option<[f64; 2]>, allowed: (f64, f64), per: f64) -> Option<Band> {
        let [low, high] = given?;
        let (least, most) = allowed;
        let inside = low >= least && high <= most && low <= high;
        if !inside {
            self.refuse(
                field,
                format!("must run from low to high within {least} and {most}, got {low} to {high}"),
            );
            return None;
        }
        Band::new(low / per, high / per).ok()
    }
}

/// All water is no material.
const MOISTURE_PCT: (f64, f64) = (0.0, 99.9);
/// Urea, the richest there is, holds 46.6 %.
const NITROGEN_PCT: (f64, f64) = (0.0, 47.0);
const C_N: (f64, f64) = (0.0, 2000.0);
const DENSITY_KG_L: (f64, f64) = (0.001, 5.0);
const SETTLE: (f64, f64) = (0.05, 1.0);
const C_N_TARGET: (f64, f64) = (1.0, 500.0);
const MOISTURE_TARGET_PCT: (f64, f64) = (1.0, 95.0);

fn unknown_material(catalogue: &Catalogue, id: &str) -> String {
    let nearest = catalogue
        .all()
        .map(|material| (strsim::jaro_winkler(&material.id, id), &material.id))
        .max_by(|a, b| a.0.total_cmp(&b.0))
        .filter(|(likeness, _)| *likeness > 0.85);
    let hint = nearest.map(|(_, id)| format!(" (did you mean \"{id}\"?)")).unwrap_or_default();
    let shown = shown(id);
    format!(
        "\"{shown}\" is not in the reference table{hint}; a material of your own needs moisture_pct, n_pct, c_n, ash_pct and density_kg_l"
    )
}

/// A name of any length may be given; a message keeps to what can be read.
fn shown(text: &str) -> String {
    text.chars().take(60).collect()
}

/// Four, two and two digits; whether the calendar has the day is not asked.
fn is_day(text: &str) -> bool {
    text.len() == 10
        && text
            .bytes()
            .enumerate()
            .all(|(at, byte)| if at == 4 || at == 7 { byte == b'-' } else { byte.is_ascii_digit() })
}

#[cfg(test)]
mod tests;
