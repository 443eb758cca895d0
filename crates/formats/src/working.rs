//! `zymarch-working/1`: every figure as it would stand on a board.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix;
use zymarch_core::working::{self, Figure};

use crate::field::Refusal;
use crate::recipe::Recipe;

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-working/1";

/// The workings of all figures of a recipe.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Workings {
    /// `zymarch-working/1`.
    pub format: &'static str,
    /// One a figure.
    pub workings: Vec<Working>,
}

/// How one figure came about.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Working {
    /// `c_n`, `available_c_n`, `moisture`, `dry_matter`, `volume`, `heap_volume`,
    /// `density`, `free_air_space` or `water_to_add`.
    pub figure: &'static str,
    /// From the items to the result, which is on the last line.
    pub lines: Vec<Line>,
}

/// One line on the board.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Line {
    /// The item it is about, by its place; none for the whole.
    pub item: Option<usize>,
    /// What is found, a letter.
    pub symbol: &'static str,
    /// How, with letters between braces.
    #[schema(example = "{q} × (1 − {m})")]
    pub formula: &'static str,
    /// What was put in.
    pub inputs: Vec<Input>,
    /// What comes out.
    pub result: f64,
    /// Its unit; empty for a share or a ratio.
    pub unit: &'static str,
}

/// A letter and its number.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Input {
    /// The letter.
    pub symbol: &'static str,
    /// The number.
    pub value: f64,
    /// Its unit.
    pub unit: &'static str,
    /// Where it came from; none if it is the result of another line.
    pub origin: Option<&'static str>,
}

/// The workings of all figures of a recipe.
///
/// # Errors
/// A [`Refusal`], as for its sums.
pub fn of(recipe: &Recipe, catalogue: &Catalogue) -> Result<Workings, Refusal> {
    let resolved = recipe.resolve(catalogue)?;
    let mix = mix::sum(&resolved.items, resolved.water_l)
        .map_err(|error| Refusal::one("items", error.to_string()))?;
    let workings = Figure::ALL
        .into_iter()
        .map(|figure| {
            let board = working::of(figure, &resolved.items, resolved.water_l, &mix, &resolved.target);
            Working { figure: figure.as_str(), lines: board.lines.iter().map(Line::from).collect() }
        })
        .collect();
    Ok(Workings { format: FORMAT, workings })
}

impl From<&working::Line> for Line {
    fn from(line: &working::Line) -> Self {
        Self {
            item: line.item,
            symbol: line.symbol,
            formula: line.formula,
            inputs: line
                .inputs
                .iter()
                .map(|input| Input {
                    symbol: input.symbol,
                    value: input.value,
                    unit: input.unit.as_str(),
                    origin: input.origin.map(|origin| origin.as_str()),
                })
                .collect(),
            result: line.result,
            unit: line.unit.as_str(),
        }
    }
}
