//! What is known narrows, what is not does not, and the same asked twice is answered alike.

use proptest::prelude::*;

use super::*;
use crate::base::quantity::Fraction;
use crate::stock::material::{all, find};
use crate::stock::{CARBON_PLAY, Counted, Measured, Own, Pull, figures, ranges};

fn lot(id: &str, litres: f64, own: &Own) -> (Item, Uncertainty) {
    let row = find(id);
    let figures = figures(row, own).expect("in the table");
    let item = Item { wet_mass_kg: litres * figures.density_kg_l.value, figures };
    (item, Uncertainty { ranges: ranges(row, own, &figures), counted: Counted::ByVolume })
}

fn asked(lots: &[(Item, Uncertainty)], water_l: f64, seed: u64) -> Confidence {
    let (items, uncertainties): (Vec<_>, Vec<_>) = lots.iter().copied().unzip();
    confidence(&items, &uncertainties, water_l, &Windows::default(), DRAWS, seed).expect("has nitrogen")
}

fn straw_and_dung(dung: &Own) -> Vec<(Item, Uncertainty)> {
    vec![lot("wheat-straw", 560.0, &Own::default()), lot("sheep-manure", 140.0, dung)]
}

fn width(middle: Middle) -> f64 {
    middle.high - middle.low
}

#[test]
fn the_same_seed_gives_the_same_answer_and_another_nearly_the_same() {
    let lots = straw_and_dung(&Own::default());
    assert_eq!(asked(&lots, 40.0, 1), asked(&lots, 40.0, 1));
    let (one, other) = (asked(&lots, 40.0, 1).middles.c_n, asked(&lots, 40.0, 2).middles.c_n);
    assert_ne!(one, other);
    assert!((one.low - other.low).abs() < 0.07 * width(one), "{one:?} {other:?}");
}

#[test]
fn a_single_range_is_drawn_as_two_half_triangles() {
    // Only moisture is in uncertainty, weighed straw without water: the tenth of a symmetric triangle
    // from −1 to 1 lies at √0.2 − 1 = −0.5528 of the way, here of 12 to 8 and of 12 to 20 %.
    let (mut item, mut uncertainty) = lot("wheat-straw", 100.0, &Own::default());
    item.wet_mass_kg = 10.0;
    uncertainty.counted = Counted::ByMass;
    let got = asked(&[(item, uncertainty)], 0.0, 1).middles.moisture;
    assert!((got.low - (0.12 - 0.5528 * 0.04)).abs() < 2e-3, "{got:?}");
    assert!((got.high - (0.12 + 0.5528 * 0.08)).abs() < 2e-3, "{got:?}");
}

#[test]
fn carbon_hardly_changes_however_rich_the_draw() {
    let own = Own::default();
    for row in all() {
        let usual = figures(Some(row), &own).expect("in the table");
        let ranges = ranges(Some(row), &own, &usual);
        for richness in [-1.0, -0.4, 0.7, 1.0] {
            let drawn = ranges.at(&usual, Pull { richness, carbon: 1.0, water: 0.3 });
            let carbon = |figures: &crate::stock::Figures| figures.nitrogen.value.get() * figures.c_n.value;
            let most = carbon(&usual) * (1.0 + CARBON_PLAY) + 1e-12;
            assert!(carbon(&drawn) <= most, "{}", row.id);
        }
    }
}

#[test]
fn a_test_narrows_what_it_measures() {
    let plain = asked(&straw_and_dung(&Own::default()), 40.0, 1);
    let dried = Measured { moisture: Fraction::new(0.62).ok(), ..Measured::default() };
    let tested = asked(&straw_and_dung(&Own { measured: dried, ..Own::default() }), 40.0, 1);
    assert!(width(tested.middles.moisture) < 0.9 * width(plain.middles.moisture));
    // How full of water it is also says how much of it a barrow holds.
    let weighed = Measured { density_kg_l: Some(0.55), ..Measured::default() };
    let tested = asked(&straw_and_dung(&Own { measured: weighed, ..Own::default() }), 40.0, 1);
    assert!(width(tested.middles.free_air_space) < 0.9 * width(plain.middles.free_air_space));
}

#[test]
fn a_hand_tells_less_than_a_scale() {
    let of = |is_by_hand| {
        let measured = Measured { moisture: Fraction::new(0.6).ok(), is_by_hand, ..Measured::default() };
        let (_, uncertainty) = lot("sheep-manure", 70.0, &Own { measured, ..Own::default() });
        uncertainty.ranges.moisture.high - uncertainty.ranges.moisture.low
    };
    assert!(of(true) > 2.0 * of(false));
}

#[test]
fn what_was_counted_is_surer_of_its_room_than_what_was_weighed() {
    let counted = straw_and_dung(&Own::default());
    let weighed: Vec<_> = counted
        .iter()
        .map(|&(item, uncertainty)| (item, Uncertainty { counted: Counted::ByMass, ..uncertainty }))
        .collect();
    // A barrow holds its litres whatever is in it; how many litres some kilograms fill hangs on their density.
    let (by_measure, by_scale) = (asked(&counted, 40.0, 1), asked(&weighed, 40.0, 1));
    assert!(width(by_measure.middles.free_air_space) < 0.8 * width(by_scale.middles.free_air_space));
}

#[test]
fn the_test_that_is_named_does_narrow_and_the_best_stands_first() {
    let sure = asked(&straw_and_dung(&Own::default()), 40.0, 1);
    assert!(!sure.helps.is_empty());
    assert!(sure.helps.windows(2).all(|pair| pair[0].narrows >= pair[1].narrows));
    let best = sure.helps[0];
    let all_widths = |middles: &Middles| {
        width(middles.c_n) / 20.0 + width(middles.moisture) / 0.2 + width(middles.free_air_space) / 0.1
    };
    assert!(all_widths(&best.then) < all_widths(&sure.middles), "{best:?}");
}

#[test]
fn a_known_c_n_is_kept_and_nitrogen_follows() {
    let own = Own { c_n: Some(80.0), ..Own::default() };
    let (item, uncertainty) = lot("wheat-straw", 100.0, &own);
    let drawn = uncertainty.ranges.at(&item.figures, Pull { richness: 1.0, ..Pull::default() });
    assert!((drawn.c_n.value - 88.0).abs() < 1e-9);
    assert!((drawn.nitrogen.value.get() - 0.005 * 80.0 / 88.0).abs() < 1e-9);
}

#[test]
fn a_mix_of_nothing_is_neither_sure_nor_unsure() {
    assert_eq!(confidence(&[], &[], 10.0, &Windows::default(), DRAWS, SEED), None);
    let lime = lot("lime", 10.0, &Own::default());
    assert_eq!(confidence(&[lime.0], &[lime.1], 0.0, &Windows::default(), DRAWS, SEED), None);
}

#[test]
fn what_is_kept_changes_no_answer_and_things_alike_are_drawn_apart() {
    let kept = KeptDraws::default();
    let straw = lot("wheat-straw", 300.0, &Own::default());
    let ask = |kept: &KeptDraws, lots: &[(Item, Uncertainty)]| {
        let (items, uncertainties): (Vec<_>, Vec<_>) = lots.iter().copied().unzip();
        kept.confidence(&items, &uncertainties, 60.0, &Windows::default(), DRAWS, SEED)
    };
    // More things than are kept, each asked twice, one of them in every mix.
    for row in all().iter().filter(|row| row.c_n.typical > 0.0).take(60) {
        let lots = [straw, lot(&row.id, 200.0, &Own::default())];
        let first = ask(&kept, &lots);
        assert_eq!(first, ask(&kept, &lots));
        assert_eq!(first, ask(&KeptDraws::default(), &lots), "{}", row.id);
        let (items, uncertainties): (Vec<_>, Vec<_>) = lots.iter().copied().unzip();
        let whole = confidence(&items, &uncertainties, 60.0, &Windows::default(), DRAWS, SEED);
        assert_eq!(first, whole.map(|whole| Confidence { helps: Vec::new(), ..whole }));
    }
    // Two heaps of straw from two places err apart, so that together they err less than one.
    let half = (Item { wet_mass_kg: straw.0.wet_mass_kg / 2.0, ..straw.0 }, straw.1);
    let (one, two) = (ask(&kept, &[straw]).expect("sums"), ask(&kept, &[half, half]).expect("sums"));
    assert!(width(two.middles.c_n) < 0.85 * width(one.middles.c_n));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]

    #[test]
    fn shares_are_shares_and_the_line_holds_four_fifths(
        first in 0..120_usize, second in 0..120_usize,
        litres in (1.0..2000.0_f64, 1.0..2000.0_f64), water_l in 0.0..300.0_f64,
    ) {
        let own = Own::default();
        let lots = [lot(&all()[first].id, litres.0, &own), lot(&all()[second].id, litres.1, &own)];
        let (items, uncertainties): (Vec<_>, Vec<_>) = lots.iter().copied().unzip();
        let Some(sure) = confidence(&items, &uncertainties, water_l, &Windows::default(), 400, SEED) else { return Ok(()) };
        prop_assert!((0.0..=1.0).contains(&sure.in_aim) && sure.in_aim <= sure.in_workable);
        for middle in [sure.middles.c_n, sure.middles.moisture, sure.middles.free_air_space] {
            prop_assert!(middle.low.is_finite() && middle.low <= middle.high);
        }
        prop_assert!(sure.outline.iter().all(|place| place.c_n > 0.0 && (0.0..=1.0).contains(&place.moisture)));
        prop_assert!(sure.helps.iter().all(|help| (0.0..=1.0 + 1e-9).contains(&help.narrows)));
    }
}
