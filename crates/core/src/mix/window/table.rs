//! The windows, a row each: which two sums they divide, how far they stretch, what is wrong beyond.

use super::{Basis, Edges, Flaw, HAIR, Window};
use crate::base::finding::Code;
use crate::mix::totals::UNFORKED;
use crate::mix::{MixFigures, Totals};

/// How far beyond the aim a figure still works.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) enum Tolerance {
    /// The lower edge times the first, the higher times the second; measured in logarithms.
    Times(f64, f64),
    /// So much below and above, as a share.
    Points(f64, f64),
}

/// An edge that a mix brings along: two sums divided, and that of a mix itself.
#[derive(Debug, Clone, Copy)]
pub(super) struct Wider {
    pub(super) over: fn(&Totals) -> f64,
    pub(super) under: fn(&Totals) -> f64,
    pub(super) of_mix: fn(&MixFigures) -> Option<f64>,
}

/// One side of a window, and what it is called in each part of the work.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Side {
    /// What is wrong beyond it.
    pub flaw: Flaw,
    /// The finding that says so.
    pub code: Code,
    /// How grave it is beyond what works, and beyond the aim alone: the least is said first.
    pub gravity: [u8; 2],
    /// Whether it counts when steps are compared: dryness does not, since water follows.
    pub counts: bool,
}

/// A window's row.
#[derive(Debug)]
pub struct Row {
    /// Which.
    pub window: Window,
    pub(super) over: fn(&Totals, Basis) -> f64,
    pub(super) under: fn(&Totals, Basis) -> f64,
    pub(super) of_mix: fn(&MixFigures, Basis) -> f64,
    pub(super) tolerance: Tolerance,
    /// The finest that it is ever said in; nobody measures it more closely.
    pub finest: f64,
    /// What the figure is of a mix that has nothing below the line.
    pub(super) bare: f64,
    /// What of a mix lets it lie further above, where its aim is not set narrower than usual.
    pub(super) wider: Option<Wider>,
    /// Lowest and highest that still work, whatever the aim.
    pub(super) limits: (f64, f64),
    /// The lower side.
    pub below: Side,
    /// The higher side, if there is one.
    pub above: Option<Side>,
    /// What a miss by all of its own edge costs the nearest mix, per unit of `under`: a C:N or a
    /// moisture off by its own edge counts like a quarter of the volume missing as air. Our judgement.
    pub price: f64,
    /// Whether `price` is for a miss by the edge itself, or for a whole unit of `under`.
    pub price_by_edge: bool,
}

impl PartialEq for Row {
    fn eq(&self, other: &Self) -> bool {
        self.window == other.window
    }
}

const fn side(flaw: Flaw, code: Code, gravity: [u8; 2]) -> Side {
    Side { flaw, code, gravity, counts: true }
}

/// Every window.
///
/// # Source
/// Aims: Rynk 1992, On-Farm Composting Handbook (NRAES-54), table of reasonable and
/// preferred conditions; Haug 1993, The Practical Handbook of Compost Engineering, for
/// free air space and for the wettest that a material may be while airy. The share that
/// must hold a frame, a third, is our judgement. Gravity is our judgement: far too green or brown first, since what
/// mends it brings water and volume; then what shuts out the air.
pub static ROWS: [Row; 4] = [
    Row {
        window: Window::CN,
        over: |of, basis| match basis {
            Basis::Counted => of.counted_carbon_kg,
            Basis::Total => of.carbon_kg,
            Basis::Available => of.available_carbon_kg,
        },
        under: |of, basis| match basis {
            Basis::Counted => of.counted_nitrogen_kg,
            Basis::Total | Basis::Available => of.nitrogen_kg,
        },
        of_mix: |mix, basis| match basis {
            Basis::Counted => mix.c_n_counted,
            Basis::Total => mix.c_n,
            Basis::Available => mix.available_c_n,
        },
        tolerance: Tolerance::Times(20.0 / 25.0, 40.0 / 30.0),
        finest: 0.1,
        bare: f64::NAN,
        wider: None,
        limits: (0.0, f64::INFINITY),
        below: side(Flaw::TooGreen, Code::CnLow, [10, 50]),
        above: Some(side(Flaw::TooBrown, Code::CnHigh, [10, 51])),
        price: 1.0,
        price_by_edge: true,
    },
    Row {
        window: Window::Moisture,
        over: |of, _| of.water_kg,
        under: |of, _| of.mass_kg(),
        of_mix: |mix, _| mix.moisture,
        tolerance: Tolerance::Points(0.10, 0.05),
        finest: 0.001,
        bare: f64::NAN,
        wider: Some(Wider {
            over: |of| of.held_kg,
            under: |of| of.held_kg + of.holding_kg,
            of_mix: |mix| mix.wet_max,
        }),
        limits: (0.0, 0.99),
        below: Side { counts: false, ..side(Flaw::TooDry, Code::TooDry, [40, 61]) },
        above: Some(side(Flaw::TooWet, Code::TooWet, [20, 60])),
        price: 2.0,
        price_by_edge: false,
    },
    Row {
        window: Window::FreeAirSpace,
        over: |of, _| of.heap_volume_l - of.water_kg - of.solids_l(),
        under: |of, _| of.heap_volume_l,
        of_mix: |mix, _| mix.free_air_space,
        tolerance: Tolerance::Points(0.05, 0.0),
        finest: 0.001,
        bare: f64::NAN,
        wider: None,
        limits: (0.0, 1.0),
        below: side(Flaw::TooDense, Code::TooDense, [30, 31]),
        above: None,
        price: 4.0,
        price_by_edge: false,
    },
    Row {
        window: Window::Structure,
        over: |of, _| of.structured_l,
        under: |of, _| of.forked_l,
        of_mix: |mix, _| mix.structured,
        tolerance: Tolerance::Points(STRUCTURED_MIN - STRUCTURED_LEAST, 0.0),
        finest: 0.001,
        bare: UNFORKED,
        wider: None,
        limits: (0.0, 1.0),
        below: side(Flaw::Packs, Code::Packs, [25, 32]),
        above: None,
        price: 1.0,
        price_by_edge: false,
    },
];

/// Share of the loose volume that should hold a frame [-].
pub(super) const STRUCTURED_MIN: f64 = 1.0 / 3.0;

/// Below this it packs for sure [-].
const STRUCTURED_LEAST: f64 = 1.0 / 5.0;

impl Window {
    /// Its row.
    #[must_use]
    pub fn row(self) -> &'static Row {
        &ROWS[self as usize]
    }
}

impl Row {
    /// The sum above the line, of a mix or of a kilogram of a lot.
    #[must_use]
    pub fn over(&self, of: &Totals, basis: Basis) -> f64 {
        (self.over)(of, basis)
    }

    /// The sum below the line.
    #[must_use]
    pub fn under(&self, of: &Totals, basis: Basis) -> f64 {
        (self.under)(of, basis)
    }

    /// How much a mix, or a kilogram, adds to the condition that the figure is at
    /// least an edge: `edge · under − over`, at or below zero where it is met.
    #[must_use]
    pub fn short_of(&self, edge: f64, of: &Totals, basis: Basis) -> f64 {
        edge * self.under(of, basis) - self.over(of, basis)
    }

    /// The same for an edge that the figure is at most: `over − edge · under`.
    #[must_use]
    pub fn beyond(&self, edge: f64, of: &Totals, basis: Basis) -> f64 {
        -self.short_of(edge, of, basis)
    }

    /// Whether a figure lies within edges as closely as it can be known: what is said as an edge lies on it.
    #[must_use]
    pub fn holds(&self, edges: Edges, value: f64) -> bool {
        edges.hold_within(value, self.play())
    }

    /// How far beyond an edge nobody could tell that it is.
    pub(super) fn play(&self) -> f64 {
        self.finest / 2.0 - HAIR
    }

    /// How far a figure lies from an edge, one being the way from the edge to where it stops working.
    pub(super) fn margins(&self, from: f64, to: f64, is_above: bool) -> f64 {
        match self.tolerance {
            Tolerance::Times(low, high) => {
                let unit = if is_above { high.ln() } else { (1.0 / low).ln() };
                (to / from).max(1e-300).ln().abs() / unit
            }
            Tolerance::Points(low, high) => (to - from).abs() / if is_above { high } else { low },
        }
    }
}
