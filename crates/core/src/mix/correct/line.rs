//! How much of one thing puts one flaw right, as it would stand on a board.

use super::Sums;
use crate::base::line::{Input, Line, Unit};
use crate::mix::Totals;
use crate::mix::window::{Flaw, Window, Windows};

/// Just within an edge, since what is rounded must not fall out again [-].
const WITHIN: f64 = 1e-6;

/// What a figure may be brought to: its middle, and the edge it comes to first.
pub(super) fn targets(flaw: Flaw, windows: &Windows) -> Vec<f64> {
    let between = |window: Window, is_above: bool| {
        let aim = windows.aim(window);
        let edge = if is_above { aim.high.unwrap_or(aim.low) - WITHIN } else { aim.low + WITHIN };
        vec![aim.middle(), f64::midpoint(aim.middle(), edge), edge]
    };
    match flaw {
        Flaw::TooGreen => between(Window::CN, false),
        Flaw::TooBrown => between(Window::CN, true),
        Flaw::TooDry => vec![windows.moisture().middle()],
        Flaw::TooWet => between(Window::Moisture, true),
        Flaw::TooDense => vec![windows.free_air_space_min()],
        Flaw::Packs => vec![windows.aim(Window::Structure).low],
    }
}

impl Sums<'_> {
    /// How much of `one`, a kilogram of something or a litre of water, brings the figure to `target`.
    pub(super) fn line(&self, flaw: Flaw, one: &Totals, target: f64) -> Line {
        let (mix, basis) = (&self.mix, self.asked.windows.basis);
        let cn = Window::CN.row();
        let (formula, inputs, result) = match flaw {
            Flaw::TooGreen | Flaw::TooBrown => {
                let (n, c) = (cn.under(mix, basis), cn.over(mix, basis));
                let (n1, c1) = (cn.under(one, basis), cn.over(one, basis));
                (
                    "({R} × {ΣN} − {ΣC}) ÷ ({C₁} − {R} × {N₁})",
                    vec![
                        put("R", target, Unit::Ratio),
                        put("ΣN", n, Unit::Kilograms),
                        put("ΣC", c, Unit::Kilograms),
                        put("C₁", c1, Unit::Kilograms),
                        put("N₁", n1, Unit::Kilograms),
                    ],
                    (target * n - c) / (c1 - target * n1),
                )
            }
            Flaw::TooDense => {
                let room = 1.0 - target;
                (
                    "({w} + {S} − (1 − {F}) × {V}) ÷ ((1 − {F}) × {V₁} − {w₁} − {S₁})",
                    vec![
                        put("w", mix.water_kg, Unit::Litres),
                        put("S", mix.solids_l(), Unit::Litres),
                        put("F", target, Unit::Share),
                        put("V", mix.heap_volume_l, Unit::Litres),
                        put("V₁", one.heap_volume_l, Unit::Litres),
                        put("w₁", one.water_kg, Unit::Litres),
                        put("S₁", one.solids_l(), Unit::Litres),
                    ],
                    (mix.water_kg + mix.solids_l() - room * mix.heap_volume_l)
                        / (room * one.heap_volume_l - one.water_kg - one.solids_l()),
                )
            }
            Flaw::Packs => (
                "({E} × {V} − {T}) ÷ ({T₁} − {E} × {V₁})",
                vec![
                    put("E", target, Unit::Share),
                    put("V", mix.forked_l, Unit::Litres),
                    put("T", mix.structured_l, Unit::Litres),
                    put("T₁", one.structured_l, Unit::Litres),
                    put("V₁", one.forked_l, Unit::Litres),
                ],
                (target * mix.forked_l - mix.structured_l) / (one.structured_l - target * one.forked_l),
            ),
            Flaw::TooDry | Flaw::TooWet => (
                "({M} × {Q} − {w}) ÷ ({w₁} − {M})",
                vec![
                    put("M", target, Unit::Share),
                    put("Q", mix.mass_kg(), Unit::Kilograms),
                    put("w", mix.water_kg, Unit::Kilograms),
                    put("w₁", one.water_kg, Unit::Kilograms),
                ],
                (target * mix.mass_kg() - mix.water_kg) / (one.water_kg - target),
            ),
        };
        Line { item: None, symbol: "q", formula, inputs, result, unit: Unit::Kilograms }
    }

    /// Water to lose until the moisture is `target`.
    pub(super) fn to_lose(&self, target: f64) -> Line {
        let (mass, dry) = (self.mix.mass_kg(), self.mix.dry_kg);
        Line {
            item: None,
            symbol: "W",
            formula: "{Q} − {Σd} ÷ (1 − {M})",
            inputs: vec![
                put("Q", mass, Unit::Kilograms),
                put("Σd", dry, Unit::Kilograms),
                put("M", target, Unit::Share),
            ],
            result: mass - dry / (1.0 - target),
            unit: Unit::Kilograms,
        }
    }
}

fn put(symbol: &'static str, value: f64, unit: Unit) -> Input {
    Input { symbol, value, unit, origin: None }
}
