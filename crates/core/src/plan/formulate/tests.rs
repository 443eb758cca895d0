//! Mixes by hand, and odd stocks; a second solver and whole measures beneath.

mod second;
mod whole;

use second::ByHand;

use super::*;
use crate::base::quantity::Fraction;
use crate::mix::Item;
use crate::mix::confidence::confidence;
use crate::mix::sum;
use crate::stock::material::find;
use crate::stock::{Counted, Own, Uncertainty, figures, ranges};

fn lot(id: &str, most_kg: f64) -> Lot {
    let row = find(id).unwrap_or_else(|| panic!("{id} is not in the table"));
    Lot::up_to(most_kg, figures(Some(row), &Own::default()).expect("in the table"), row.kind)
}

fn wanted(lots: Vec<Lot>, aim: Aim) -> Wanted {
    Wanted {
        lots,
        windows: Windows::new(Windows::default().c_n(), Windows::default().moisture(), 0.30),
        volume_l: None,
        caps: Vec::new(),
        aim,
        is_cautious: false,
        water_max_l: None,
        water_step_l: None,
    }
}

fn straw_and_dung() -> Vec<Lot> {
    vec![lot("wheat-straw", 60.0), lot("sheep-manure", 150.0)]
}

/// Every window, reckoned by the sums of the bench and not by the programme.
fn meets(wanted: &Wanted, found: &Formulated) -> Result<(), String> {
    let items: Vec<Item> = wanted
        .lots
        .iter()
        .zip(&found.kg)
        .map(|(lot, &kg)| Item { wet_mass_kg: kg, figures: lot.figures })
        .collect();
    let mix = sum(&items, found.water_l).map_err(|error| error.to_string())?;
    let near =
        |value: f64, band: Band| value >= band.low() * (1.0 - 1e-5) && value <= band.high() * (1.0 + 1e-5);
    let windows = &wanted.windows;
    if !near(windows.c_n_of(&mix), windows.c_n()) {
        return Err(format!("C:N {}", windows.c_n_of(&mix)));
    }
    if !near(mix.moisture, windows.moisture()) {
        return Err(format!("moisture {}", mix.moisture));
    }
    if mix.free_air_space < windows.free_air_space_min() - 1e-5 {
        return Err(format!("air {}", mix.free_air_space));
    }
    if wanted.volume_l.is_some_and(|band| !near(mix.heap_volume_l, band)) {
        return Err(format!("volume {}", mix.heap_volume_l));
    }
    for (lot, &kg) in wanted.lots.iter().zip(&found.kg) {
        if kg > lot.most_kg * (1.0 + 1e-6) + 1e-9 || kg < lot.least_kg * (1.0 - 1e-6) {
            return Err(format!("{kg} kg of {} to {}", lot.least_kg, lot.most_kg));
        }
    }
    Ok(())
}

#[test]
fn the_largest_heap_by_hand() {
    // Straw 60 kg: N 0.264, C 24.29. Dung at 62 % and 2.6 % N, 16 : 1: per kg N 0.00988, C 0.158.
    // All straw with dung at C:N 30: (24.288 + 0.15808 q) / (0.264 + 0.00988 q) = 30 → q = 118.5;
    // more dung is allowed down to 25: q = 199, beyond the 150 there are. So all of both.
    let found = formulate(&wanted(straw_and_dung(), Aim::Largest));
    assert_eq!((found.status, found.is_proven), (Status::Ok, true));
    assert!((found.kg[0] - 60.0).abs() < 1e-6 && (found.kg[1] - 150.0).abs() < 1e-6, "{found:?}");
    // Less dung: at 60 kg of it straw is what must be held back, to C:N 30.
    let lean = formulate(&wanted(vec![lot("wheat-straw", 60.0), lot("sheep-manure", 60.0)], Aim::Largest));
    let straw = 60.0 * 0.00988 * 14.0 / (0.88 * 0.005 * 62.0);
    assert!((lean.kg[0] - straw).abs() < 0.05, "{} against {straw}", lean.kg[0]);
    assert!(
        limits(&wanted(vec![lot("wheat-straw", 60.0), lot("sheep-manure", 60.0)], Aim::Largest), &lean)
            .binding
            .contains(&LimitCode::CnHigh.into())
    );
}

#[test]
fn each_aim_is_best_at_its_own() {
    let mut lots = vec![
        lot("wheat-straw", 80.0),
        lot("sheep-manure", 150.0),
        lot("vegetable-scraps", 60.0),
        lot("tree-leaves-dry", 60.0),
    ];
    for (place, lot) in lots.iter_mut().enumerate() {
        lot.cost_per_kg = [0.2, 0.02, 0.0, 0.05][place];
        lot.urgency = [0.0, 0.2, 1.0, 0.0][place];
    }
    let of = |aim: Aim| {
        let mut asked = wanted(lots.clone(), aim);
        asked.volume_l = Band::new(800.0, 1200.0).ok();
        let found = formulate(&asked);
        assert_eq!(found.status, Status::Ok, "{aim:?}");
        meets(&asked, &found).unwrap_or_else(|error| panic!("{aim:?}: {error}"));
        found
    };
    let all: Vec<Formulated> = Aim::ALL.iter().map(|&aim| of(aim)).collect();
    let by = |aim: Aim, found: &Formulated| objective(&wanted(lots.clone(), aim), &found.kg, found.water_l);
    for (&aim, best) in Aim::ALL.iter().zip(&all) {
        for other in &all {
            let (mine, theirs) = (by(aim, best), by(aim, other));
            let is_larger_better = matches!(aim, Aim::Largest | Aim::UseSoonest);
            let play = 2e-3 * (1.0 + mine.abs());
            assert!(
                if is_larger_better { mine >= theirs - play } else { mine <= theirs + play },
                "{aim:?}: {mine} {theirs}"
            );
        }
    }
}

#[test]
fn pins_least_amounts_caps_and_water_are_kept() {
    let mut asked = wanted(
        vec![lot("wheat-straw", 80.0), lot("sheep-manure", 200.0), lot("vegetable-scraps", 60.0)],
        Aim::Largest,
    );
    asked.lots[2].least_kg = 60.0;
    asked.caps = vec![ShareCap::of_mass(Capped::Kind(Kind::Manure), 0.4)];
    let found = formulate(&asked);
    assert_eq!(found.status, Status::Ok);
    meets(&asked, &found).expect("keeps the windows");
    let all: f64 = found.kg.iter().sum();
    assert!((found.kg[2] - 60.0).abs() < 1e-6 && found.kg[1] <= 0.4 * all + 1e-6, "{found:?}");
    assert!(limits(&asked, &found).binding.contains(&Limit { code: LimitCode::Cap, place: Some(0) }));

    // Straw and dung at 48 % water want some; with none less straw goes in.
    let plenty = formulate(&wanted(straw_and_dung(), Aim::Largest));
    let dry = formulate(&Wanted { water_max_l: Some(0.0), ..wanted(straw_and_dung(), Aim::Largest) });
    assert!(dry.status == Status::Ok && dry.water_l == 0.0 && dry.objective < plenty.objective, "{dry:?}");
}

#[test]
fn whole_measures_are_whole_and_meet_the_windows() {
    let barrow = |id: &str, barrows: f64| {
        let mut one = lot(id, 0.0);
        let step = 70.0 * one.figures.density_kg_l.value;
        one.step_kg = Some(step);
        one.most_kg = barrows * step;
        one
    };
    for aim in Aim::ALL.iter().copied() {
        let mut asked = wanted(
            vec![
                barrow("barley-straw", 12.0),
                barrow("sheep-manure", 6.0),
                barrow("green-weeds", 5.0),
                barrow("tree-leaves-dry", 8.0),
            ],
            aim,
        );
        asked.volume_l = Band::new(500.0, 2000.0).ok();
        asked.water_step_l = Some(12.0);
        let found = formulate(&asked);
        assert_eq!(found.status, Status::Ok, "{aim:?}");
        meets(&asked, &found).unwrap_or_else(|error| panic!("{aim:?}: {error}"));
        for (lot, kg) in asked.lots.iter().zip(&found.kg) {
            let count = kg / lot.step_kg.expect("in barrows");
            assert!((count - count.round()).abs() < 1e-6, "{count} barrows");
        }
        assert!((found.water_l / 12.0 - (found.water_l / 12.0).round()).abs() < 1e-6);
    }
}

/// The best in whole measures by trying every mix, against the search.
#[test]
fn the_search_in_whole_measures_finds_what_trying_all_finds() {
    for (straw, dung, weeds) in [(6, 3, 4), (9, 2, 1), (3, 5, 5), (8, 4, 0)] {
        let most = [straw, dung, weeds];
        let mut lots: Vec<Lot> =
            ["barley-straw", "sheep-manure", "green-weeds"].map(|id| lot(id, 0.0)).to_vec();
        for (lot, most) in lots.iter_mut().zip(most) {
            let step = 60.0 * lot.figures.density_kg_l.value;
            (lot.step_kg, lot.most_kg) = (Some(step), step * f64::from(most));
        }
        let asked = wanted(lots, Aim::Largest);
        let mut best = 0.0_f64;
        for a in 0..=straw {
            for b in 0..=dung {
                for c in 0..=weeds {
                    let kg: Vec<f64> = [a, b, c]
                        .iter()
                        .zip(&asked.lots)
                        .map(|(n, lot)| f64::from(*n) * lot.step_kg.unwrap_or(0.0))
                        .collect();
                    let heap: f64 =
                        kg.iter().zip(&asked.lots).map(|(kg, lot)| kg * ByHand::of(lot).heap).sum();
                    // Any water that works will do: every litre is tried.
                    let works = (0..=600).any(|litres| {
                        let water_l = f64::from(litres);
                        let kg = kg.clone();
                        let one = Formulated {
                            status: Status::Ok,
                            objective: 0.0,
                            water_l,
                            is_proven: true,
                            fits_in_parts: false,
                            kg,
                        };
                        meets(&asked, &one).is_ok()
                    });
                    if works {
                        best = best.max(heap);
                    }
                }
            }
        }
        let found = formulate(&asked);
        let mine = if found.status == Status::Ok { found.objective } else { 0.0 };
        assert!((mine - best).abs() < 1e-6 * (1.0 + best), "{most:?}: {mine} against {best}");
        assert!(found.status == Status::Nearest || found.is_proven);
    }
}

#[test]
fn odd_stocks_behave() {
    let empty = formulate(&wanted(Vec::new(), Aim::Largest));
    assert_eq!((empty.status, empty.kg.len()), (Status::Nearest, 0));
    let nothing = formulate(&wanted(vec![lot("wheat-straw", 0.0)], Aim::Largest));
    assert_eq!((nothing.status, nothing.kg[0]), (Status::Nearest, 0.0));
    let alone = formulate(&wanted(vec![lot("wheat-straw", 50.0)], Aim::Largest));
    assert_eq!(alone.status, Status::Nearest);
    assert!(alone.kg[0] > 0.0, "{alone:?}");
    // A bedding that lies in the windows by itself.
    let own = Own {
        moisture: Fraction::new(0.55).ok(),
        nitrogen: Fraction::new(0.017).ok(),
        c_n: Some(27.0),
        ..Own::default()
    };
    let bedding = Lot {
        figures: figures(find("wheat-straw"), &own).expect("in the table"),
        ..lot("wheat-straw", 50.0)
    };
    let fitting = formulate(&wanted(vec![bedding], Aim::Largest));
    assert_eq!((fitting.status, fitting.kg[0].round()), (Status::Ok, 50.0));
    let twins = formulate(&wanted(
        vec![lot("wheat-straw", 30.0), lot("wheat-straw", 30.0), lot("sheep-manure", 150.0)],
        Aim::Largest,
    ));
    assert!((twins.objective - formulate(&wanted(straw_and_dung(), Aim::Largest)).objective).abs() < 1e-6);
}

#[test]
fn a_gram_beside_ten_tonnes_does_no_harm() {
    let mut lots = straw_and_dung();
    lots[0].most_kg = 10_000.0;
    lots[1].most_kg = 20_000.0;
    lots.push(lot("blood-meal", 0.001));
    let asked = wanted(lots, Aim::Largest);
    let found = formulate(&asked);
    assert_eq!(found.status, Status::Ok);
    meets(&asked, &found).expect("keeps the windows");
}

#[test]
fn what_cannot_be_says_how_near_and_what_is_missing() {
    let asked = wanted(vec![lot("wheat-straw", 60.0), lot("tree-leaves-dry", 40.0)], Aim::Largest);
    let found = formulate(&asked);
    assert_eq!(found.status, Status::Nearest);
    let missed: Vec<LimitCode> = misses(&asked, &found).into_iter().map(|miss| miss.code).collect();
    assert_eq!(missed, [LimitCode::CnHigh], "water is to be had, nitrogen is not");
    let candidates = ["sheep-manure", "layer-hen-manure", "grass-clippings", "wood-ash", "sawdust"];
    let lots: Vec<Lot> = candidates.iter().map(|id| lot(id, 0.0)).collect();
    let additions = additions(&asked, &lots);
    let named: Vec<&str> = additions.iter().map(|addition| candidates[addition.parts[0].candidate]).collect();
    assert!(named.contains(&"sheep-manure") && named.contains(&"layer-hen-manure"), "{named:?}");
    assert!(!named.contains(&"wood-ash") && !named.contains(&"sawdust"));
    assert!(additions.is_sorted_by(|a, b| a.litres() <= b.litres()));
    for addition in &additions {
        let mut with = asked.clone();
        let size = Band::new(found.kg.iter().sum::<f64>().min(1.0), 1e9).ok();
        with.volume_l = size;
        with.lots.push(Lot { most_kg: addition.parts[0].kg * 1.000_01, ..lots[addition.parts[0].candidate] });
        assert_eq!(formulate(&with).status, Status::Ok, "{}", candidates[addition.parts[0].candidate]);
    }
}

#[test]
fn a_size_that_a_cap_forbids_is_missed_and_nothing_else() {
    let mut asked = wanted(straw_and_dung(), Aim::Largest);
    asked.volume_l = Band::new(800.0, 1500.0).ok();
    asked.caps = vec![ShareCap::of_mass(Capped::Kind(Kind::Manure), 0.2)];
    let found = formulate(&asked);
    assert_eq!(found.status, Status::Nearest);
    let all: f64 = found.kg.iter().sum();
    assert!(all > 60.0 && found.kg[1] <= 0.2 * all + 1e-6, "{found:?}");
    assert!(
        misses(&asked, &found).iter().any(|miss| miss.code == LimitCode::VolumeLow && miss.edge == 800.0)
    );
}

#[test]
fn one_more_of_what_limits_is_worth_something_and_of_the_rest_nothing() {
    let asked = wanted(vec![lot("wheat-straw", 60.0), lot("sheep-manure", 60.0)], Aim::Largest);
    let found = formulate(&asked);
    let worth = worth(&asked, &found, &[10.0, 10.0]);
    assert_eq!(worth[0], 0.0);
    assert!(worth[1] > 0.0);
}

/// A lot whose figures are the book's, counted in measures.
fn in_doubt(id: &str, most_kg: f64) -> Lot {
    let plain = lot(id, most_kg);
    let ranges = ranges(find(id), &Own::default(), &plain.figures);
    Lot { uncertainty: Some(Uncertainty { ranges, counted: Counted::ByVolume }), ..plain }
}

/// How often a mix, drawn from its ranges, lies in its windows.
fn chance(wanted: &Wanted, found: &Formulated) -> f64 {
    let (items, uncertainties): (Vec<_>, Vec<_>) = wanted
        .lots
        .iter()
        .zip(&found.kg)
        .filter_map(|(lot, &kg)| Some((Item { wet_mass_kg: kg, figures: lot.figures }, lot.uncertainty?)))
        .unzip();
    confidence(&items, &uncertainties, found.water_l, &wanted.windows, 1000, 1)
        .expect("has nitrogen")
        .in_workable
}

#[test]
fn a_cautious_mix_stays_in_its_windows_more_often() {
    let plenty = [("wheat-straw", 80.0), ("sheep-manure", 150.0), ("vegetable-scraps", 60.0)];
    // Little straw and much that is wet: the largest heap lies at its wet edge.
    let wet = [("wheat-straw", 40.0), ("sheep-manure", 60.0), ("vegetable-scraps", 300.0)];
    for (aim, stock) in [(Aim::Largest, wet), (Aim::UseSoonest, plenty), (Aim::LeastWater, plenty)] {
        let mut lots: Vec<Lot> = stock.iter().map(|(id, most_kg)| in_doubt(id, *most_kg)).collect();
        lots[2].urgency = 1.0;
        let plain = Wanted { volume_l: Band::new(400.0, 1500.0).ok(), ..wanted(lots, aim) };
        let cautious = Wanted { is_cautious: true, ..plain.clone() };
        let (bold, sure) = (formulate(&plain), formulate(&cautious));
        assert_eq!(sure.status, Status::Ok, "{aim:?}");
        meets(&cautious, &sure).unwrap_or_else(|error| panic!("{aim:?}: {error}"));
        let (before, after) = (chance(&plain, &bold), chance(&cautious, &sure));
        assert!(after >= before, "{aim:?}: {before} {after}");
        assert!(aim != Aim::Largest || sure.objective <= bold.objective + 1e-6);
        // What was not sought as the best is not priced as if it were.
        let more = vec![5.0; sure.kg.len()];
        assert!(worth(&cautious, &sure, &more).iter().all(|worth| *worth == 0.0));
        // The least water leaves the heap at its dry edge, where any doubt tips it over.
        assert!(aim != Aim::LeastWater || after > before + 0.1, "{before} {after}");
    }
}

#[test]
fn caution_asks_nothing_of_what_is_sure() {
    let plain = wanted(straw_and_dung(), Aim::Largest);
    let cautious = Wanted { is_cautious: true, ..plain.clone() };
    assert_eq!(formulate(&plain).kg, formulate(&cautious).kg);
}

#[test]
fn a_lot_left_over_says_which_window_it_would_break() {
    let asked = wanted(vec![lot("wheat-straw", 60.0), lot("sheep-manure", 60.0)], Aim::Largest);
    let found = formulate(&asked);
    assert_eq!(limits(&asked, &found).held_back, [vec![Limit::from(LimitCode::CnHigh)], vec![]]);
}

#[test]
fn an_addition_comes_with_the_mix_it_makes_possible() {
    let asked = wanted(vec![lot("wheat-straw", 60.0)], Aim::Largest);
    let dung = lot("sheep-manure", 0.0);
    let found = additions(&asked, &[dung]);
    let [straw, manure] = found[0].mix_kg[..] else { panic!("{found:?}") };
    assert!((manure - found[0].parts[0].kg).abs() < 1e-9);
    let items = [
        Item { wet_mass_kg: straw, figures: asked.lots[0].figures },
        Item { wet_mass_kg: manure, figures: dung.figures },
    ];
    let mix = sum(&items, found[0].water_l).expect("has nitrogen");
    assert!(asked.windows.c_n().low() <= mix.c_n + 1e-6 && mix.c_n <= asked.windows.c_n().high() + 1e-6);
}
