//! A second solver, of another kind, on hundreds of random stocks; and what holds of any answer.

use good_lp::solvers::clarabel::clarabel;
use good_lp::{Expression, ProblemVariables, Solution, SolverModel, variable};
use proptest::prelude::*;

use super::{meets, wanted};
use crate::base::quantity::{Band, Fraction};
use crate::mix::window::Windows;
use crate::plan::formulate::{Aim, Capped, ShareCap, Status, Wanted, formulate, misses};
use crate::stock::material::Kind;
use crate::stock::{Lot, Own, figures};

/// What a kilogram brings, reckoned from the figures by hand: no sum of the core is asked.
pub(super) struct ByHand {
    carbon: f64,
    nitrogen: f64,
    water: f64,
    pub(super) heap: f64,
    solids: f64,
}

impl ByHand {
    pub(super) fn of(lot: &Lot) -> Self {
        let of = &lot.figures;
        let (m, ash) = (of.moisture.value.get(), of.ash.value.get());
        let nitrogen = (1.0 - m) * of.nitrogen.value.get();
        Self {
            carbon: nitrogen * of.c_n.value,
            nitrogen,
            water: m,
            heap: of.settle.value / of.density_kg_l.value,
            solids: (1.0 - m) * ((1.0 - ash) / 1.6 + ash / 2.65),
        }
    }
}

/// The same conditions put to another solver, of another kind: interior points
/// instead of corners.
pub(super) fn second_opinion(wanted: &Wanted) -> Option<Opinion> {
    let windows = &wanted.windows;
    let mut variables = ProblemVariables::new();
    let columns: Vec<_> =
        wanted.lots.iter().map(|lot| variables.add(variable().min(0.0).max(lot.most_kg))).collect();
    let water = variables.add(variable().min(0.0));
    let per: Vec<ByHand> = wanted.lots.iter().map(ByHand::of).collect();
    let total = |of: &dyn Fn(usize) -> f64| -> Expression {
        columns.iter().enumerate().map(|(at, &column)| of(at) * column).sum()
    };
    let gain: Expression = match wanted.aim {
        Aim::UseSoonest => total(&|at| wanted.lots[at].urgency),
        Aim::Cheapest => total(&|at| -wanted.lots[at].cost_per_kg),
        Aim::LeastWater => -1.0 * water,
        Aim::Largest | Aim::Balanced => total(&|at| per[at].heap),
    };
    let (cn, moisture) = (windows.c_n(), windows.moisture());
    let mut model = variables.maximise(gain.clone()).using(clarabel);
    model.settings().verbose(false);
    let rows = [
        total(&|at| per[at].carbon - cn.low() * per[at].nitrogen).geq(0.0),
        total(&|at| cn.high() * per[at].nitrogen - per[at].carbon).geq(0.0),
        (total(&|at| per[at].water - moisture.low()) + (1.0 - moisture.low()) * water).geq(0.0),
        (total(&|at| moisture.high() - per[at].water) - (1.0 - moisture.high()) * water).geq(0.0),
        (total(&|at| (1.0 - windows.free_air_space_min()) * per[at].heap - per[at].water - per[at].solids)
            - water)
            .geq(0.0),
    ];
    for row in rows {
        model = model.with(row);
    }
    if let Some(band) = wanted.volume_l {
        model = model.with(total(&|at| per[at].heap).geq(band.low()));
        model = model.with(total(&|at| per[at].heap).leq(band.high()));
    }
    let solution = model.solve().ok()?;
    let kg = columns.iter().map(|&column| solution.value(column)).collect();
    Some(Opinion { gain: solution.eval(gain), kg })
}

/// What the second solver finds: the gain in any amounts, and the amounts.
pub(super) struct Opinion {
    pub(super) gain: f64,
    pub(super) kg: Vec<f64>,
}

fn any_offer() -> impl Strategy<Value = Lot> {
    (
        (0.1..0.85_f64, 0.004..0.05_f64, 0.02..0.4_f64, 0.4..0.58_f64),
        (0.04..0.9_f64, 0.45..1.0_f64, 1.0..500.0_f64, 0.0..1.0_f64, 0.0..1.0_f64),
    )
        .prop_map(|((m, n, ash, carbon), (density, settle, most_kg, cost, urgency))| {
            let own = Own {
                moisture: Fraction::new(m).ok(),
                nitrogen: Fraction::new(n).ok(),
                c_n: Some(carbon * (1.0 - ash) / n),
                ash: Fraction::new(ash).ok(),
                density_kg_l: Some(density),
                settle: Some(settle),
                ..Own::default()
            };
            let figures = figures(None, &own).expect("all figures given");
            Lot { cost_per_kg: cost, urgency, ..Lot::up_to(most_kg, figures, Kind::Green) }
        })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(400))]

    #[test]
    fn another_solver_finds_the_same_best(
        lots in proptest::collection::vec(any_offer(), 2..12),
        aim in proptest::sample::select(vec![Aim::Largest, Aim::UseSoonest, Aim::Cheapest, Aim::LeastWater]),
        size in 50.0..600.0_f64,
    ) {
        let mut asked = wanted(lots, aim);
        if aim.needs_size() {
            asked.volume_l = Band::new(size, size * 2.0).ok();
        }
        let found = formulate(&asked);
        let other = second_opinion(&asked).map(|other| other.gain);
        if found.status == Status::Ok {
            prop_assert!(meets(&asked, &found).is_ok(), "{:?}", meets(&asked, &found));
            let gain = match aim { Aim::Cheapest | Aim::LeastWater => -found.objective, _ => found.objective };
            let other = other.expect("what one can mix the other can");
            prop_assert!((gain - other).abs() <= 2e-5 * (1.0 + other.abs()), "{gain} against {other}");
        } else if let Some(other) = other {
            // Nothing but an empty mix meets the windows, or not this size.
            prop_assert!(!aim.needs_size() && other.abs() < 1e-3, "{other} was possible");
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(120))]

    #[test]
    fn more_stock_is_never_worse(
        lots in proptest::collection::vec(any_offer(), 2..10),
        extra in any_offer(),
        aim in proptest::sample::select(vec![Aim::Largest, Aim::UseSoonest]),
    ) {
        let before = formulate(&wanted(lots.clone(), aim));
        let mut more = lots;
        more.push(extra);
        let after = formulate(&wanted(more, aim));
        prop_assume!(before.status == Status::Ok);
        prop_assert_eq!(after.status, Status::Ok);
        prop_assert!(after.objective >= before.objective * (1.0 - 1e-6), "{} then {}", before.objective, after.objective);
    }

    #[test]
    fn ten_times_the_stock_makes_ten_times_the_heap(lots in proptest::collection::vec(any_offer(), 2..10)) {
        let small = formulate(&wanted(lots.clone(), Aim::Largest));
        prop_assume!(small.status == Status::Ok);
        let tenfold =
            lots.into_iter().map(|lot| Lot { most_kg: lot.most_kg * 10.0, ..lot }).collect();
        let large = formulate(&wanted(tenfold, Aim::Largest));
        prop_assert!((large.objective / small.objective - 10.0).abs() < 1e-4, "{} {}", small.objective, large.objective);
    }

    #[test]
    fn whole_measures_are_at_best_as_good_as_any_amounts(
        lots in proptest::collection::vec(any_offer(), 2..7),
        litres in 10.0..80.0_f64,
    ) {
        let any = formulate(&wanted(lots.clone(), Aim::Largest));
        let stepped = lots
            .into_iter()
            .map(|lot| Lot { step_kg: Some(litres * lot.figures.density_kg_l.value), ..lot })
            .collect();
        let mut asked = wanted(stepped, Aim::Largest);
        asked.water_step_l = Some(1.0);
        let whole = formulate(&asked);
        if whole.status == Status::Ok {
            prop_assert_eq!(any.status, Status::Ok);
            prop_assert!(whole.objective <= any.objective * (1.0 + 1e-6), "{} over {}", whole.objective, any.objective);
            prop_assert!(meets(&asked, &whole).is_ok(), "{:?}", meets(&asked, &whole));
            for (lot, kg) in asked.lots.iter().zip(&whole.kg) {
                let count = kg / lot.step_kg.expect("stepped");
                prop_assert!((count - count.round()).abs() < 1e-6);
            }
        }
    }

    #[test]
    fn the_nearest_mix_keeps_its_limits_and_names_what_it_misses(
        lots in proptest::collection::vec(any_offer(), 1..5),
        most in 0.05..0.6_f64,
    ) {
        let mut asked = wanted(lots, Aim::Largest);
        asked.windows = Windows::new(Band::fixed(26.0, 26.5), asked.windows.moisture(), 0.30);
        asked.caps = vec![ShareCap::of_mass(Capped::Lot(0), most)];
        let found = formulate(&asked);
        for (lot, kg) in asked.lots.iter().zip(&found.kg) {
            prop_assert!(*kg >= 0.0 && *kg <= lot.most_kg * (1.0 + 1e-6));
        }
        let all: f64 = found.kg.iter().sum();
        prop_assert!(found.kg[0] <= most * all + 1e-6 * (1.0 + all), "{:?} of {}", found.kg, all);
        let missed = misses(&asked, &found);
        if found.status == Status::Ok {
            prop_assert!(missed.is_empty(), "{missed:?}");
        } else if all > 0.0 && found.kg.len() > 1 {
            prop_assert!(!missed.is_empty());
        }
    }
}
