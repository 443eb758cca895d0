//! Whole measures of many lots, held against the second solver: never a false "nearest", and near the best.

use rand_core::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;

use super::second::second_opinion;
use super::{lot, meets, wanted};
use crate::base::quantity::Band;
use crate::mix::window::{Basis, Edges};

use crate::plan::formulate::{Aim, Status, Wanted, formulate};
use crate::stock::material;
use crate::stock::{Lot, Own, figures};

/// A number below one, drawn from a fixed seed.
fn part(random: &mut Pcg64Mcg) -> f64 {
    (random.next_u64() >> 11) as f64 / (1_u64 << 53) as f64
}

/// So many lots of the table, each one to six buckets, barrows, sacks or cloths.
fn stock(random: &mut Pcg64Mcg, lots: usize) -> Vec<Lot> {
    let rows: Vec<_> =
        material::all().iter().filter(|row| !row.must_not_go_in() && row.c_n.typical > 0.0).collect();
    (0..lots)
        .map(|_| {
            let row = rows[(part(random) * rows.len() as f64) as usize];
            let figures = figures(Some(row), &Own::default()).expect("in the table");
            let litres = [12.0, 60.0, 70.0, 90.0][(part(random) * 4.0) as usize];
            let step = litres * figures.density_kg_l.value;
            Lot {
                cost_per_kg: 0.01 * (part(random) * 7.0).floor(),
                urgency: 1.0 / row.keeps_days.map_or(365.0, f64::from),
                step_kg: Some(step),
                ..Lot::up_to(step * (1.0 + (part(random) * 6.0).floor()), figures, row.kind)
            }
        })
        .filter(|lot| !lot.figures.inert)
        .collect()
}

/// The windows that the second solver knows.
fn asked(random: &mut Pcg64Mcg, lots: usize, aim: Aim) -> Wanted {
    let plain = wanted(stock(random, lots), aim);
    Wanted {
        windows: plain.windows.on(Basis::Total).structured(0.0),
        volume_l: Band::new(1000.0, 2500.0).ok(),
        water_step_l: Some(1.0),
        ..plain
    }
}

/// What is gained, more being better.
fn gained(aim: Aim, objective: f64) -> f64 {
    if aim.needs_size() { -objective } else { objective }
}

#[test]
fn many_lots_in_whole_measures_come_near_what_any_amounts_allow() {
    for (seed, lots, aim) in [
        (1, 40, Aim::UseSoonest),
        (2, 40, Aim::Largest),
        (3, 60, Aim::UseSoonest),
        (4, 60, Aim::Cheapest),
        (5, 80, Aim::UseSoonest),
        (6, 100, Aim::Largest),
        (7, 100, Aim::UseSoonest),
        (8, 120, Aim::LeastWater),
        (9, 150, Aim::UseSoonest),
        (10, 200, Aim::UseSoonest),
        (11, 200, Aim::Largest),
    ] {
        let asked = asked(&mut Pcg64Mcg::seed_from_u64(seed), lots, aim);
        let bound = second_opinion(&asked).expect("so many lots make a mix").gain;
        let found = formulate(&asked);
        assert_eq!(found.status, Status::Ok, "{lots} lots, {aim:?}, seed {seed}");
        assert_eq!(meets(&asked, &found), Ok(()), "{lots} lots, {aim:?}, seed {seed}");
        let gain = gained(aim, found.objective);
        let short = (bound - gain) / bound.abs().max(1.0);
        // What spoils first comes in large steps, and no whole number of them reaches all of it.
        // A sum of a few cents is held against a tenth of the money.
        let most = match aim {
            Aim::UseSoonest => 0.04,
            Aim::Cheapest => 0.1,
            _ => 0.005,
        };
        assert!(short <= most, "{lots} lots, {aim:?}, seed {seed}: {gain} of {bound}");
        if found.is_proven {
            assert!(short <= 1e-5, "{lots} lots, seed {seed}: {gain} of {bound}");
        }
        for (lot, kg) in asked.lots.iter().zip(&found.kg) {
            let count = kg / lot.step_kg.expect("stepped");
            assert!((count - count.round()).abs() < 1e-6);
        }
    }
}

/// The measures are cut so that a good mix, which the second solver finds well inside of the
/// windows, is one of whole measures: then there is one, and how good it is is known.
#[test]
fn a_mix_that_is_known_to_be_there_is_found() {
    for seed in 0..24 {
        let random = &mut Pcg64Mcg::seed_from_u64(seed);
        let aim = [Aim::Largest, Aim::UseSoonest, Aim::Cheapest, Aim::LeastWater][seed as usize % 4];
        let mut asked = asked(random, 30 + 5 * seed as usize, aim);
        let windows = asked.windows;
        let inner = |low: f64, high: f64| (low + 0.15 * (high - low), high - 0.15 * (high - low));
        asked.windows = windows.each(|_, aim| match aim.high {
            Some(high) => {
                let (low, high) = inner(aim.low, high);
                Edges { low, high: Some(high) }
            }
            None if aim.low > 0.0 => Edges { low: aim.low + 0.02, high: None },
            None => aim,
        });
        asked.volume_l = Band::new(1100.0, 2400.0).ok();
        let planted = second_opinion(&asked).expect("so many lots make a mix");
        for (lot, kg) in asked.lots.iter_mut().zip(&planted.kg) {
            if *kg > 0.1 {
                let count = 1.0 + (part(random) * 4.0).floor();
                let most = (lot.most_kg / (kg / count) + 1e-3).floor();
                lot.step_kg = Some(kg / count);
                lot.most_kg = most * kg / count;
            }
        }
        asked.windows = windows;
        asked.volume_l = Band::new(1000.0, 2500.0).ok();
        let found = formulate(&asked);
        assert_eq!(found.status, Status::Ok, "seed {seed}, {aim:?}");
        assert_eq!(meets(&asked, &found), Ok(()), "seed {seed}, {aim:?}");
        let (gain, known) = (gained(aim, found.objective), planted.gain);
        assert!(gain >= known - 0.02 * known.abs() - 1.0, "seed {seed}, {aim:?}: {gain}, {known} is there");
    }
}

/// Wheat straw and sheep manure in measures so large that no whole number of them fits: that is
/// said of whole measures, and proven; in any amounts there is a mix.
#[test]
fn impossible_is_said_only_of_what_is() {
    let coarse = |id: &str, kg: f64| Lot { step_kg: Some(kg), ..lot(id, kg) };
    let asked = wanted(vec![coarse("wheat-straw", 200.0), coarse("sheep-manure", 150.0)], Aim::Largest);
    let found = formulate(&asked);
    assert_eq!((found.status, found.is_proven, found.fits_in_parts), (Status::Nearest, true, true));
    let any = asked.lots.iter().map(|lot| Lot { step_kg: None, ..*lot }).collect();
    assert_eq!(formulate(&Wanted { lots: any, ..asked }).status, Status::Ok);
}

/// Some lots by the barrow, others by weight.
#[test]
fn measures_and_weights_go_together() {
    let random = &mut Pcg64Mcg::seed_from_u64(3);
    for aim in [Aim::Largest, Aim::UseSoonest] {
        let mut asked = asked(random, 50, aim);
        for lot in asked.lots.iter_mut().step_by(3) {
            lot.step_kg = None;
        }
        let bound = second_opinion(&asked).expect("so many lots make a mix").gain;
        let found = formulate(&asked);
        assert_eq!((found.status, meets(&asked, &found)), (Status::Ok, Ok(())), "{aim:?}");
        assert!(found.objective >= 0.97 * bound, "{aim:?}: {} of {bound}", found.objective);
    }
}
