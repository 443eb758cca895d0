//! A board that does not reckon itself would be decoration: every line is
//! evaluated from its own formula and inputs, by a small reader written for
//! the test, and must give its own result.

use super::*;
use crate::mix::sum;
use crate::stock::material::{all, find};
use crate::stock::{Own, figures};

fn item(id: &str, wet_mass_kg: f64) -> Item {
    Item { wet_mass_kg, figures: figures(find(id), &Own::default()).expect("in the table") }
}

fn boards(items: &[Item], water_l: f64) -> Vec<Working> {
    let mix = sum(items, water_l).expect("has nitrogen");
    BoardFigure::ALL
        .iter()
        .copied()
        .map(|figure| of(figure, items, water_l, &mix, &Windows::default()))
        .collect()
}

fn written_out(line: &Line) -> String {
    let mut text = line.formula.to_owned();
    for input in &line.inputs {
        text = text.replace(&format!("{{{}}}", input.symbol), &format!("({:.17})", input.value));
    }
    text
}

#[test]
fn every_line_follows_from_its_formula_and_its_inputs() {
    let mix = [
        item("wheat-straw", 24.0),
        item("sheep-manure", 77.0),
        item("wood-chips-softwood", 30.0),
        item("wood-ash", 2.0),
    ];
    for board in boards(&mix, 40.0) {
        for line in &board.lines {
            let text = written_out(line);
            assert!(!text.contains('{'), "a letter has no number: {text}");
            let percent = if line.unit == Unit::Percent { 100.0 } else { 1.0 };
            let got = reckon(&text) * percent;
            assert!(
                (got - line.result).abs() <= 1e-6 * line.result.abs().max(1.0),
                "{text} gives {got}, not {}",
                line.result
            );
        }
    }
}

#[test]
fn the_last_line_is_the_figure_itself() {
    let items = [item("barley-straw", 50.0), item("sheep-manure", 90.0)];
    let mix = sum(&items, 60.0).expect("has nitrogen");
    let last =
        |figure| of(figure, &items, 60.0, &mix, &Windows::default()).lines.last().map(|line| line.result);
    assert_eq!(last(BoardFigure::CN), Some(mix.c_n));
    assert_eq!(last(BoardFigure::AvailableCN), Some(mix.available_c_n));
    assert_eq!(last(BoardFigure::Moisture), Some(mix.moisture * 100.0));
    assert_eq!(last(BoardFigure::FreeAirSpace), Some(mix.free_air_space * 100.0));
    assert_eq!(last(BoardFigure::HeapVolume), Some(mix.heap_volume_l));
}

#[test]
fn every_material_has_a_board() {
    for material in all() {
        let with_manure = [item(&material.id, 10.0), item("sheep-manure", 10.0)];
        assert!(boards(&with_manure, 5.0).iter().all(|board| !board.lines.is_empty()));
    }
}

#[test]
fn figures_say_where_they_came_from() {
    let own = Own { c_n: Some(60.0), ..Own::default() };
    let straw =
        Item { wet_mass_kg: 10.0, figures: figures(find("wheat-straw"), &own).expect("in the table") };
    let board = &boards(&[straw], 0.0)[0];
    let origin_of = |symbol| {
        board
            .lines
            .iter()
            .flat_map(|line| &line.inputs)
            .find(|input| input.symbol == symbol)
            .and_then(|input| input.origin)
    };
    assert_eq!(origin_of("r"), Some(Origin::Own));
    assert_eq!(origin_of("n"), Some(Origin::Book));
}

/// Reads `a × (b − c) ÷ d`, and `, x to y,` as holding what came before in that range.
fn reckon(text: &str) -> f64 {
    if let Some((inner, rest)) = text.split_once(", ") {
        let (range, rest) = rest.split_once(',').expect("a range ends in a comma");
        let (low, high) = range.split_once(" to ").expect("a range has two ends");
        let held = reckon(inner).clamp(reckon(low), reckon(high));
        return reckon(&format!("({held:.17}){rest}"));
    }
    let mut reader = Reader { left: text.trim() };
    let value = reader.sum();
    assert!(reader.left.is_empty(), "left over: `{}` of `{text}`", reader.left);
    value
}

struct Reader<'a> {
    left: &'a str,
}

impl Reader<'_> {
    fn eat(&mut self, sign: char) -> bool {
        let trimmed = self.left.trim_start();
        if let Some(rest) = trimmed.strip_prefix(sign) {
            self.left = rest.trim_start();
            return true;
        }
        self.left = trimmed;
        false
    }

    fn sum(&mut self) -> f64 {
        let mut value = self.product();
        loop {
            if self.eat('+') {
                value += self.product();
            } else if self.eat('−') {
                value -= self.product();
            } else {
                return value;
            }
        }
    }

    fn product(&mut self) -> f64 {
        let mut value = self.term();
        loop {
            if self.eat('×') {
                value *= self.term();
            } else if self.eat('÷') {
                value /= self.term();
            } else {
                return value;
            }
        }
    }

    fn term(&mut self) -> f64 {
        if self.eat('(') {
            let value = self.sum();
            assert!(self.eat(')'), "unclosed: `{}`", self.left);
            return value;
        }
        let end = self
            .left
            .char_indices()
            .find(|&(at, c)| !(c.is_ascii_digit() || c == '.' || (c == '-' && at == 0)))
            .map_or(self.left.len(), |(at, _)| at);
        let (number, rest) = self.left.split_at(end);
        self.left = rest.trim_start();
        number.parse().unwrap_or_else(|_| panic!("not a number: `{number}` before `{rest}`"))
    }
}
