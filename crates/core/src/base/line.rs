//! A line on the board: a letter, how it is found, what was put in, what comes out.

use crate::base::origin::Origin;

/// The unit a number on the board is in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Unit {
    /// Kilograms.
    Kilograms,
    /// Litres.
    Litres,
    /// Kilograms per litre.
    KilogramsPerLitre,
    /// A share, 0 to 1.
    Share,
    /// A percentage.
    Percent,
    /// A plain ratio.
    Ratio,
}

impl Unit {
    /// The sign used in open formats; a share and a ratio have none.
    #[must_use]
    pub const fn as_str(self) -> &'static str {
        match self {
            Self::Kilograms => "kg",
            Self::Litres => "L",
            Self::KilogramsPerLitre => "kg/L",
            Self::Share | Self::Ratio => "",
            Self::Percent => "%",
        }
    }
}

/// One letter of a formula and the number put in for it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Input {
    /// The letter, as it stands in the formula between braces.
    pub symbol: &'static str,
    /// The number.
    pub value: f64,
    /// Its unit.
    pub unit: Unit,
    /// Where it came from; none if it is the result of an earlier line.
    pub origin: Option<Origin>,
}

/// One line on the board.
#[derive(Debug, Clone, PartialEq)]
pub struct Line {
    /// The item it is about, by its place in the mix; none for the whole.
    pub item: Option<usize>,
    /// What is found, a letter.
    pub symbol: &'static str,
    /// How, with letters between braces, as `{q} × (1 − {m})`.
    pub formula: &'static str,
    /// What was put in.
    pub inputs: Vec<Input>,
    /// What comes out.
    pub result: f64,
    /// Its unit.
    pub unit: Unit,
}
