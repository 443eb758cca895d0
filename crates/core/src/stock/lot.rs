//! A lot with its limits: what it is, what is sure of it, and how much of it may go in.
//!
//! The one thing that is offered wherever amounts are chosen: to the step that
//! mends a mix, to corrections, to the formulator, and to the rest of a heap.

use super::material::Kind;
use super::{Figures, Uncertainty};

/// A lot with its limits.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Lot {
    /// The figures to reckon with.
    pub figures: Figures,
    /// What is not sure about them; nothing if none.
    pub uncertainty: Option<Uncertainty>,
    /// How people sort it.
    pub kind: Kind,
    /// Least that must go in [kg].
    pub least_kg: f64,
    /// Most that may go in [kg].
    pub most_kg: f64,
    /// One step of it, as a measure weighs [kg]; none where any amount will do.
    pub step_kg: Option<f64>,
    /// What one kilogram costs.
    pub cost_per_kg: f64,
    /// How soon it should be used; the more, the sooner.
    pub urgency: f64,
}

impl Lot {
    /// So much of something at the most, in any amount, at no cost and with no hurry.
    #[must_use]
    pub const fn up_to(most_kg: f64, figures: Figures, kind: Kind) -> Self {
        Self {
            figures,
            uncertainty: None,
            kind,
            least_kg: 0.0,
            most_kg,
            step_kg: None,
            cost_per_kg: 0.0,
            urgency: 0.0,
        }
    }

    /// The same in steps of so much.
    #[must_use]
    pub const fn in_steps(self, step_kg: Option<f64>) -> Self {
        Self { step_kg, ..self }
    }

    /// Whole steps that it allows; infinitely many of nothing.
    #[must_use]
    pub fn steps(&self) -> Option<f64> {
        self.step_kg.map(|step| (self.most_kg / step + 1e-9).floor())
    }
}
