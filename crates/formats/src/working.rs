//! `zymarch-working/1`: every figure as it would stand on a board.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::line;
use zymarch_core::base::origin::Origin;
use zymarch_core::mix::working::{self, BoardFigure};

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
    /// Which.
    pub figure: BoardFigure,
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
    pub origin: Option<Origin>,
}

impl From<&working::Working> for Working {
    fn from(board: &working::Working) -> Self {
        Self { figure: board.figure, lines: board.lines.iter().map(Line::from).collect() }
    }
}

impl From<&line::Line> for Line {
    fn from(line: &line::Line) -> Self {
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
                    origin: input.origin,
                })
                .collect(),
            result: line.result,
            unit: line.unit.as_str(),
        }
    }
}
