//! Every figure of a mix as it would stand on a board.
//!
//! A working is a row of sums: a formula with its letters, the number each
//! letter stands for with its unit and where it came from, and the result. A
//! formula is mathematics, so it is written here; words around it are not.

use crate::base::line::{Input, Line, Unit};
use crate::base::words::closed_list;
use crate::mix::window::{Basis, Windows};
use crate::mix::{Item, MixFigures, available_share, particle_factor, water_to_add};
use crate::stock::{Origin, Sourced};

closed_list! {
    /// A figure of a mix that can show how it came about.
    BoardFigure {
        /// Carbon to nitrogen.
        CN = "c_n",
        /// The same on available carbon.
        AvailableCN = "available_c_n",
        /// Moisture.
        Moisture = "moisture",
        /// Dry matter.
        DryMatter = "dry_matter",
        /// Loose volume.
        Volume = "volume",
        /// Volume in the built heap.
        HeapVolume = "heap_volume",
        /// Density in the built heap.
        Density = "density",
        /// Free air space.
        FreeAirSpace = "free_air_space",
        /// Water still to add.
        WaterToAdd = "water_to_add",
    }
}

/// All lines that lead to a figure, in the order one would write them.
#[derive(Debug, Clone, PartialEq)]
pub struct Working {
    /// The figure.
    pub figure: BoardFigure,
    /// From the items to the result, which is on the last line.
    pub lines: Vec<Line>,
}

/// The working of a figure of a mix.
#[must_use]
pub fn of(figure: BoardFigure, items: &[Item], water_l: f64, mix: &MixFigures, windows: &Windows) -> Working {
    let mut board = Board { items, lines: Vec::new() };
    match figure {
        BoardFigure::CN => board.carbon_to_nitrogen(mix, windows.basis),
        BoardFigure::AvailableCN => board.available(mix),
        BoardFigure::Moisture => board.moisture(water_l, mix),
        BoardFigure::DryMatter => board.dry_matter(mix),
        BoardFigure::Volume => board.volume(mix),
        BoardFigure::HeapVolume => board.heap_volume(mix),
        BoardFigure::Density => board.density(mix),
        BoardFigure::FreeAirSpace => board.air(water_l, mix),
        BoardFigure::WaterToAdd => board.water(mix, windows),
    }
    Working { figure, lines: board.lines }
}

struct Board<'a> {
    items: &'a [Item],
    lines: Vec<Line>,
}

fn given(symbol: &'static str, value: f64, unit: Unit, origin: Origin) -> Input {
    Input { symbol, value, unit, origin: Some(origin) }
}

fn found(symbol: &'static str, value: f64, unit: Unit) -> Input {
    Input { symbol, value, unit, origin: None }
}

fn share(symbol: &'static str, sourced: Sourced<crate::base::quantity::Fraction>) -> Input {
    given(symbol, sourced.value.get(), Unit::Share, sourced.origin)
}

fn mass(item: &Item) -> Input {
    given("q", item.wet_mass_kg, Unit::Kilograms, Origin::Own)
}

impl Board<'_> {
    fn write(
        &mut self,
        symbol: &'static str,
        formula: &'static str,
        inputs: Vec<Input>,
        result: f64,
        unit: Unit,
    ) {
        self.lines.push(Line { item: None, symbol, formula, inputs, result, unit });
    }

    /// One line for every item that has any mass, and counts.
    fn each(&mut self, living_only: bool, line: impl Fn(&Item) -> Line) {
        for (index, item) in self.items.iter().enumerate() {
            if item.wet_mass_kg > 0.0 && !(living_only && item.figures.inert) {
                self.lines.push(Line { item: Some(index), ..line(item) });
            }
        }
    }

    fn each_dry_matter(&mut self, living_only: bool) {
        self.each(living_only, |item| Line {
            item: None,
            symbol: "d",
            formula: "{q} × (1 − {m})",
            inputs: vec![mass(item), share("m", item.figures.moisture)],
            result: item.dry_matter_kg(),
            unit: Unit::Kilograms,
        });
    }

    fn each_nitrogen(&mut self) {
        self.each(true, |item| Line {
            item: None,
            symbol: "N",
            formula: "{d} × {n}",
            inputs: vec![
                found("d", item.dry_matter_kg(), Unit::Kilograms),
                share("n", item.figures.nitrogen),
            ],
            result: item.nitrogen_kg(),
            unit: Unit::Kilograms,
        });
    }

    fn each_carbon(&mut self) {
        self.each(true, |item| Line {
            item: None,
            symbol: "C",
            formula: "{N} × {r}",
            inputs: vec![
                found("N", item.nitrogen_kg(), Unit::Kilograms),
                given("r", item.figures.c_n.value, Unit::Ratio, item.figures.c_n.origin),
            ],
            result: item.carbon_kg(),
            unit: Unit::Kilograms,
        });
    }

    /// The plain ratio, and that which counts where wood makes the two differ.
    fn carbon_to_nitrogen(&mut self, mix: &MixFigures, basis: Basis) {
        self.each_dry_matter(true);
        self.each_nitrogen();
        self.each_carbon();
        self.write(
            "C:N",
            "{ΣC} ÷ {ΣN}",
            vec![found("ΣC", mix.carbon_kg, Unit::Kilograms), found("ΣN", mix.nitrogen_kg, Unit::Kilograms)],
            mix.c_n,
            Unit::Ratio,
        );
        if basis == Basis::Counted && self.items.iter().any(|item| item.figures.decays.value < 1.0) {
            self.counted(mix);
        }
    }

    fn counted(&mut self, mix: &MixFigures) {
        self.each(true, |item| Line {
            item: None,
            symbol: "Nz",
            formula: "{N} × {z}",
            inputs: vec![
                found("N", item.nitrogen_kg(), Unit::Kilograms),
                given("z", item.figures.decays.value, Unit::Share, item.figures.decays.origin),
            ],
            result: item.counted_nitrogen_kg(),
            unit: Unit::Kilograms,
        });
        self.each(true, |item| Line {
            item: None,
            symbol: "Cz",
            formula: "{C} × {z}",
            inputs: vec![
                found("C", item.carbon_kg(), Unit::Kilograms),
                given("z", item.figures.decays.value, Unit::Share, item.figures.decays.origin),
            ],
            result: item.counted_carbon_kg(),
            unit: Unit::Kilograms,
        });
        let sum = |of: fn(&Item) -> f64| self.items.iter().map(of).sum::<f64>();
        let (carbon, nitrogen) = (sum(Item::counted_carbon_kg), sum(Item::counted_nitrogen_kg));
        self.write(
            "C:N",
            "{ΣCz} ÷ {ΣNz}",
            vec![found("ΣCz", carbon, Unit::Kilograms), found("ΣNz", nitrogen, Unit::Kilograms)],
            mix.c_n_counted,
            Unit::Ratio,
        );
    }

    fn available(&mut self, mix: &MixFigures) {
        self.each(true, |item| Line {
            item: None,
            symbol: "a",
            formula: "(0.83 − 0.028 × 100 × {l} ÷ (1 − {ash})), 0.05 to 0.83, ÷ 0.83 × {p}",
            inputs: vec![
                share("l", item.figures.lignin),
                share("ash", item.figures.ash),
                found("p", particle_factor(item.figures.particle, item.figures.woody), Unit::Share),
            ],
            result: available_share(&item.figures),
            unit: Unit::Share,
        });
        self.each(true, |item| Line {
            item: None,
            symbol: "Ca",
            formula: "{C} × {a}",
            inputs: vec![
                found("C", item.carbon_kg(), Unit::Kilograms),
                found("a", available_share(&item.figures), Unit::Share),
            ],
            result: item.available_carbon_kg(),
            unit: Unit::Kilograms,
        });
        self.write(
            "C:N",
            "{ΣCa} ÷ {ΣN}",
            vec![
                found("ΣCa", mix.available_c_n * mix.nitrogen_kg, Unit::Kilograms),
                found("ΣN", mix.nitrogen_kg, Unit::Kilograms),
            ],
            mix.available_c_n,
            Unit::Ratio,
        );
    }

    fn each_water(&mut self) {
        self.each(false, |item| Line {
            item: None,
            symbol: "w",
            formula: "{q} × {m}",
            inputs: vec![mass(item), share("m", item.figures.moisture)],
            result: item.water_kg(),
            unit: Unit::Kilograms,
        });
    }

    fn moisture(&mut self, water_l: f64, mix: &MixFigures) {
        self.each_water();
        self.write(
            "M",
            "({Σw} + {W}) ÷ ({Σq} + {W})",
            vec![
                found("Σw", mix.wet_mass_kg - mix.dry_matter_kg - water_l, Unit::Kilograms),
                given("W", water_l, Unit::Litres, Origin::Own),
                found("Σq", mix.wet_mass_kg - water_l, Unit::Kilograms),
            ],
            mix.moisture * 100.0,
            Unit::Percent,
        );
    }

    fn dry_matter(&mut self, mix: &MixFigures) {
        self.each_dry_matter(false);
        self.write(
            "Σd",
            "{Σd}",
            vec![found("Σd", mix.dry_matter_kg, Unit::Kilograms)],
            mix.dry_matter_kg,
            Unit::Kilograms,
        );
    }

    fn volume(&mut self, mix: &MixFigures) {
        self.each(false, |item| Line {
            item: None,
            symbol: "V",
            formula: "{q} ÷ {ρ}",
            inputs: vec![
                mass(item),
                given(
                    "ρ",
                    item.figures.density_kg_l.value,
                    Unit::KilogramsPerLitre,
                    item.figures.density_kg_l.origin,
                ),
            ],
            result: item.volume_l(),
            unit: Unit::Litres,
        });
        self.write("ΣV", "{ΣV}", vec![found("ΣV", mix.volume_l, Unit::Litres)], mix.volume_l, Unit::Litres);
    }

    fn heap_volume(&mut self, mix: &MixFigures) {
        self.each(false, |item| Line {
            item: None,
            symbol: "V",
            formula: "{q} ÷ {ρ} × {s}",
            inputs: vec![
                mass(item),
                given(
                    "ρ",
                    item.figures.density_kg_l.value,
                    Unit::KilogramsPerLitre,
                    item.figures.density_kg_l.origin,
                ),
                given("s", item.figures.settle.value, Unit::Share, item.figures.settle.origin),
            ],
            result: item.heap_volume_l(),
            unit: Unit::Litres,
        });
        self.write(
            "ΣV",
            "{ΣV}",
            vec![found("ΣV", mix.heap_volume_l, Unit::Litres)],
            mix.heap_volume_l,
            Unit::Litres,
        );
    }

    fn density(&mut self, mix: &MixFigures) {
        self.write(
            "ρ",
            "{Q} ÷ {V}",
            vec![found("Q", mix.wet_mass_kg, Unit::Kilograms), found("V", mix.heap_volume_l, Unit::Litres)],
            mix.density_kg_l,
            Unit::KilogramsPerLitre,
        );
    }

    fn air(&mut self, water_l: f64, mix: &MixFigures) {
        let ash: f64 =
            self.items.iter().map(|item| item.dry_matter_kg() * item.figures.ash.value.get()).sum();
        self.each(false, |item| Line {
            item: None,
            symbol: "A",
            formula: "{d} × {ash}",
            inputs: vec![found("d", item.dry_matter_kg(), Unit::Kilograms), share("ash", item.figures.ash)],
            result: item.dry_matter_kg() * item.figures.ash.value.get(),
            unit: Unit::Kilograms,
        });
        self.write(
            "w",
            "{Σw} + {W}",
            vec![
                found("Σw", mix.wet_mass_kg - mix.dry_matter_kg - water_l, Unit::Kilograms),
                given("W", water_l, Unit::Litres, Origin::Own),
            ],
            mix.wet_mass_kg - mix.dry_matter_kg,
            Unit::Litres,
        );
        self.write(
            "F",
            "1 − ({w} + ({Σd} − {ΣA}) ÷ 1.6 + {ΣA} ÷ 2.65) ÷ {V}",
            vec![
                found("w", mix.wet_mass_kg - mix.dry_matter_kg, Unit::Litres),
                found("Σd", mix.dry_matter_kg, Unit::Kilograms),
                found("ΣA", ash, Unit::Kilograms),
                found("V", mix.heap_volume_l, Unit::Litres),
            ],
            mix.free_air_space * 100.0,
            Unit::Percent,
        );
    }

    fn water(&mut self, mix: &MixFigures, windows: &Windows) {
        let water = water_to_add(mix.dry_matter_kg, mix.wet_mass_kg, windows.moisture());
        let edges = [
            (windows.moisture().low(), water.low),
            (windows.moisture().middle(), water.aim),
            (windows.moisture().high(), water.high),
        ];
        for (wanted, litres) in edges {
            self.write(
                "W",
                "{Σd} ÷ (1 − {M}) − {Q}",
                vec![
                    found("Σd", mix.dry_matter_kg, Unit::Kilograms),
                    found("M", wanted, Unit::Share),
                    found("Q", mix.wet_mass_kg, Unit::Kilograms),
                ],
                litres,
                Unit::Litres,
            );
        }
    }
}

#[cfg(test)]
mod tests;
