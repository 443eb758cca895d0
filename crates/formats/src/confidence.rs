//! `zymarch-confidence/1`: how sure the sums of a recipe are.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::mix::confidence::{Confidence, Middle, Middles, NarrowingTest, Place, SEED};
use zymarch_core::stock::material::Spread;
use zymarch_core::stock::{Counted, Uncertainty};

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
    /// Which test.
    pub test: NarrowingTest,
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
    /// What is sure about its amount.
    pub counted: Counted,
}

impl ConfidenceAnswer {
    /// How sure a mix is, on the wire.
    #[must_use]
    pub fn new(found: &Confidence, uncertainties: &[Uncertainty]) -> Self {
        let Confidence { middles, in_aim, in_workable, outline, helps, draws } = found;
        let place = |place: &Place| ConfidencePlace { moisture_pct: place.moisture * 100.0, c_n: place.c_n };
        let helps = helps.iter().map(|help| ConfidenceHelp {
            item: help.item,
            test: help.test,
            narrows_pct: help.narrows * 100.0,
            then: (&help.then).into(),
        });
        Self {
            format: FORMAT,
            draws: *draws,
            seed: SEED,
            middles: middles.into(),
            in_aim_pct: in_aim * 100.0,
            in_workable_pct: in_workable * 100.0,
            outline: outline.iter().map(place).collect(),
            helps: helps.collect(),
            ranges: uncertainties.iter().map(ConfidenceRanges::from).collect(),
        }
    }
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

impl From<&Uncertainty> for ConfidenceRanges {
    fn from(uncertainty: &Uncertainty) -> Self {
        let of =
            |spread: Spread, per: f64| [spread.low, spread.typical, spread.high].map(|value| value * per);
        let ranges = &uncertainty.ranges;
        Self {
            moisture_pct: of(ranges.moisture, 100.0),
            n_pct: of(ranges.nitrogen, 100.0),
            c_n: of(ranges.c_n, 1.0),
            density_kg_l: of(ranges.density_kg_l, 1.0),
            counted: uncertainty.counted,
        }
    }
}
