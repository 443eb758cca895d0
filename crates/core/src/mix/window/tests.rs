//! Rows and figures say the same, and what is wrong is told gravest first.

use proptest::prelude::*;

use super::*;
use crate::mix::{Item, Totals, sum};
use crate::stock::{Own, figures, material};

#[test]
fn the_usual_working_edges_follow_from_the_usual_aims() {
    let windows = Windows::default();
    assert_eq!(windows.workable(Window::CN), Edges { low: 20.0, high: Some(40.0) });
    assert!((windows.workable(Window::Moisture).low - 0.40).abs() < 1e-9);
    let air = windows.workable(Window::FreeAirSpace);
    assert!((air.low - 0.30).abs() < 1e-9 && air.high.is_none());
}

#[test]
fn every_window_stands_at_its_own_place() {
    for (place, row) in ROWS.iter().enumerate() {
        assert_eq!(row.window as usize, place);
        assert_eq!(row.window.row(), row);
    }
}

#[test]
fn the_gravest_is_said_first() {
    let standings = Standings([Standing::Below, Standing::FarAbove, Standing::Below, Standing::Right]);
    let flaws: Vec<_> = standings.complaints().iter().map(|one| one.flaw).collect();
    assert_eq!(flaws, [Flaw::TooWet, Flaw::TooDense, Flaw::TooGreen]);
    assert!(Standings([Standing::Right; 4]).complaints().is_empty());
}

fn item(place: usize, kg: f64) -> Item {
    Item {
        wet_mass_kg: kg,
        figures: figures(Some(&material::all()[place]), &Own::default()).expect("in the table"),
    }
}

proptest! {
    /// The linear row and the figure itself must say the same of every mix.
    #[test]
    fn a_row_is_met_exactly_where_its_figure_lies_within(
        a in 0..167_usize, b in 0..167_usize, kg in 0.1..500.0_f64, water in 0.0..300.0_f64, edge in 0.05..0.95_f64,
    ) {
        let items = [item(a, kg), item(b, 40.0)];
        let Ok(mix) = sum(&items, water) else { return Ok(()) };
        let totals = items.iter().map(Totals::of).fold(Totals::of_water(water), Totals::plus);
        for row in &ROWS {
            for basis in Basis::ALL {
                let windows = Windows::default().on(*basis);
                let edge = if row.window == Window::CN { edge * 80.0 } else { edge };
                let value = windows.value(row.window, &mix);
                prop_assume!((value - edge).abs() > 1e-6 * (1.0 + edge));
                prop_assert_eq!(row.short_of(edge, &totals, *basis) <= 0.0, value >= edge);
                prop_assert_eq!(row.beyond(edge, &totals, *basis) <= 0.0, value <= edge);
            }
        }
    }

    /// A mix is at no distance exactly where all its windows are met, but for dryness.
    #[test]
    fn what_is_met_is_at_no_distance(a in 0..167_usize, b in 0..167_usize, kg in 0.1..500.0_f64, water in 0.0..300.0_f64) {
        let Ok(mix) = sum(&[item(a, kg), item(b, 40.0)], water) else { return Ok(()) };
        let windows = Windows::default();
        prop_assert_eq!(windows.distance(&mix, true) == 0.0, windows.are_met(&mix));
        prop_assert!(windows.distance(&mix, false) <= windows.distance(&mix, true));
        prop_assert!(!windows.are_met(&mix) || windows.work(&mix));
        prop_assert!(!windows.widened().are_met(&mix) || windows.work(&mix));
    }

    /// Many judged at once are judged as one by one.
    #[test]
    fn a_block_of_mixes_stands_as_each_of_them_does(
        a in 0..167_usize, b in 0..167_usize, kg in 0.1..500.0_f64, wet in 0.5..0.7_f64,
    ) {
        for basis in Basis::ALL {
            let windows = Windows::new(Band::fixed(25.0, 30.0), Band::fixed(0.5, wet), 0.35).on(*basis);
            let quotients = |totals: Totals| Quotients::of(&totals, *basis);
            let mut litres = NO_SUMS;
            for place in 0..AT_A_TIME {
                quotients(Totals::of_water(place as f64)).put(&mut litres, place);
            }
            let kilogram = |of| {
                let mut blocks = [NO_SUMS];
                let one = quotients(Totals::of(&item(of, 1.0)));
                (0..AT_A_TIME).for_each(|place| one.put(&mut blocks[0], place));
                Drawn::of(&blocks)
            };
            let mut all = quotients(Totals::default());
            kilogram(a).add_least(&mut all, kg);
            kilogram(b).add_least(&mut all, 40.0);
            let litres = Drawn::of(&[litres]);
            litres.add_least(&mut all, 5.0);
            let sums = Weighed::sums(&[litres.weighed(5.0)], 0, |column| all.repeated(column));
            let judged = windows.judged(&sums);
            for place in 0..AT_A_TIME {
                let mix = sum(&[item(a, kg), item(b, 40.0)], place as f64 * 5.0);
                prop_assert_eq!(judged.is_any[place], mix.is_ok());
                let Ok(mix) = mix else { continue };
                let near = |window: &Window| {
                    let (value, of) = (windows.value(*window, &mix), windows.workable_in(*window, &mix));
                    let aim = windows.aim(*window);
                    let edges = [Some(aim.low), aim.high, Some(of.low), of.high];
                    let play = window.row().finest / 2.0;
                    edges.into_iter().flatten().any(|edge| ((value - edge).abs() - play).abs() < 1e-4 * edge)
                };
                for &window in Window::ALL {
                    let (one, all) = (windows.value(window, &mix), f64::from(judged.values[window as usize][place]));
                    prop_assert!((one - all).abs() < 1e-4 * one.abs().max(1.0), "{window:?} {one} {all}");
                }
                if !Window::ALL.iter().any(near) {
                    prop_assert_eq!(judged.is_met[place], windows.are_met(&mix));
                    prop_assert_eq!(judged.works[place], windows.are_met(&mix) || windows.work(&mix));
                }
            }
        }
    }
}

#[test]
fn what_is_said_as_an_edge_lies_on_it_and_no_further() {
    let windows = Windows::default();
    let holds = |window: Window, value| window.row().holds(windows.aim(window), value);
    for (c_n, is_in) in [(24.96, true), (24.94, false), (27.0, true), (30.04, true), (30.06, false)] {
        assert_eq!(holds(Window::CN, c_n), is_in, "{c_n}");
    }
    assert!(holds(Window::Moisture, 0.6004) && !holds(Window::Moisture, 0.6006));
}
