//! Each use by hand, and both ways round.

use proptest::prelude::*;

use super::*;

fn compost(litres: f64) -> Compost {
    Compost {
        density_kg_l: 0.6,
        moisture: 0.4,
        nitrogen: Some(0.015),
        phosphorus: Some(0.004),
        potassium: None,
        litres: Some(litres),
        ec_ds_m: Some(5.0),
    }
}

#[test]
fn each_use_by_hand() {
    let need = |of: Use| applied(&compost(1000.0), &of, N_LIMIT_KG_HA);
    // 10 t/ha on 500 m² are 500 kg, which take 833 L.
    let field = need(Use::Field { area_m2: 500.0, t_per_ha: 10.0 });
    assert!((field.need_kg - 500.0).abs() < 1e-9 && (field.need_l - 833.333).abs() < 1e-2);
    assert!((field.n_kg_per_ha.expect("is spread") - 90.0).abs() < 1e-9);
    assert!((field.goes_how_far.expect("is asked") - 600.0).abs() < 1e-9);
    let pits = need(Use::Pits { count: 60.0, litres_each: 20.0 });
    assert_eq!((pits.need_l, pits.enough, pits.goes_how_far), (1200.0, Some(false), Some(50.0)));
    assert_eq!(pits.minds[0], Mind { what: Minded::NotEnough, value: Some(200.0), limit: Some(1000.0) });
    let trees = need(Use::Trees { count: 10.0, litres_each: 25.0, times_per_year: 2.0 });
    assert_eq!((trees.need_l, trees.goes_how_far, trees.n_kg_per_ha), (500.0, Some(20.0), None));
    let pots = need(Use::Mix { volume_l: 200.0, compost_parts: 1.0, other_parts: 3.0 });
    assert_eq!((pots.need_l, pots.goes_how_far), (50.0, Some(4000.0)));
    let brew = need(Use::Extract { volume_l: 100.0, kg_per_20_l: 1.0 });
    assert!(
        (brew.need_kg - 5.0).abs() < 1e-9 && (brew.goes_how_far.expect("is asked") - 12_000.0).abs() < 1e-6
    );
    assert_eq!((field.k_kg, field.p_kg.map(|p| (p * 1000.0).round())), (None, Some(1200.0)));
}

#[test]
fn what_is_too_much_is_minded() {
    let whats = |of: Use, limit: f64| {
        let got = applied(&compost(1e6), &of, limit);
        got.minds.iter().map(|mind| mind.what).collect::<Vec<_>>()
    };
    let deep = Use::Topdress { area_m2: 10.0, depth_cm: 6.0 };
    assert_eq!(whats(deep, 170.0), [Minded::NitrogenLimit, Minded::MuchAtOnce]);
    let field = Use::Field { area_m2: 1e4, t_per_ha: 18.0 };
    assert_eq!(whats(field, 170.0), []);
    assert_eq!(whats(field, 160.0), [Minded::NitrogenLimit], "the local limit");
    let rich = Use::Mix { volume_l: 100.0, compost_parts: 2.0, other_parts: 1.0 };
    assert_eq!(whats(rich, 170.0), [Minded::SaltsForSeedlings, Minded::SaltsMeasured]);
    assert_eq!(whats(Use::Extract { volume_l: 20.0, kg_per_20_l: 1.0 }, 170.0), [Minded::ExtractCare]);
}

proptest! {
    /// Both ways round: what the compost would do needs just that compost.
    #[test]
    fn how_far_it_goes_needs_what_there_is(
        litres in 1.0..5000.0_f64, size in 1.0..500.0_f64, rate in 0.5..30.0_f64, kind in 0..6_usize,
    ) {
        let of = |size: f64| match kind {
            0 => Use::Topdress { area_m2: size, depth_cm: rate },
            1 => Use::Field { area_m2: size, t_per_ha: rate },
            2 => Use::Pits { count: size, litres_each: rate },
            3 => Use::Trees { count: size, litres_each: rate, times_per_year: 2.0 },
            4 => Use::Mix { volume_l: size, compost_parts: rate, other_parts: 3.0 },
            _ => Use::Extract { volume_l: size, kg_per_20_l: rate },
        };
        let there = compost(litres);
        let far = applied(&there, &of(size), N_LIMIT_KG_HA).goes_how_far.expect("is asked");
        let back = applied(&there, &of(far), N_LIMIT_KG_HA);
        prop_assert!((back.need_l - litres).abs() < 1e-6 * litres, "{} {}", back.need_l, litres);
        prop_assert_eq!(back.enough, Some(true));
    }
}
