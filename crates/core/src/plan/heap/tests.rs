//! What shapes hold, what fits them, and what is said about it.

use proptest::prelude::*;

use super::*;
use crate::base::fault::{Fault, FaultCode};
use crate::plan::method::{self, ShapeKind};

const BAY: Shape = Shape::Box { length_cm: 100.0, width_cm: 120.0, height_cm: 100.0 };
const PILE: Shape = Shape::Pile { length_cm: 200.0, width_cm: 150.0, top_cm: 90.0, height_cm: 120.0 };
const DRUM: Shape = Shape::Drum { diameter_cm: 57.0, height_cm: 85.0 };

fn filled(shape: Shape, heap_volume_l: f64) -> Filled<'static> {
    Filled { shape, heap_volume_l, loose_l: heap_volume_l, beside_l: 0.0, method: None }
}

fn said(filled: &Filled) -> Vec<Code> {
    findings(filled).iter().map(|finding| finding.code).collect()
}

fn codes(shape: Shape, litres: f64) -> Vec<Code> {
    said(&filled(shape, litres))
}

#[test]
fn a_ring_holds_a_cylinder() {
    // π · 50² · 100 cm³ = 785.4 L.
    let ring = Shape::Ring { diameter_cm: 100.0, height_cm: 100.0 };
    assert!((ring.capacity_l() - 785.398).abs() < 0.001);
    assert!((ring.height_of_cm(392.699) - 50.0).abs() < 0.001);
}

#[test]
fn a_cut_pyramid_holds_what_the_prismoid_formula_says() {
    // h/6 · (A₁ + 4 Aₘ + A₂): 200 × 150, 170 × 120, 140 × 90 cm over 120 cm.
    let by_hand = 120.0 / 6.0 * (30_000.0 + 4.0 * 20_400.0 + 12_600.0) / 1000.0;
    assert!((PILE.capacity_l() - by_hand).abs() < 1e-6, "{}", PILE.capacity_l());
    assert_eq!((PILE.width_at_cm(0.0), PILE.width_at_cm(120.0)), (150.0, 90.0));
}

#[test]
fn a_tower_loses_the_room_of_its_columns() {
    let tower = |columns| Shape::Tower { diameter_cm: 120.0, height_cm: 180.0, columns };
    // Four pipes of 10 cm over 180 cm: 4 · π · 5² · 180 cm³ = 56.5 L.
    assert!((tower(0).capacity_l() - tower(4).capacity_l() - 56.549).abs() < 0.001);
}

#[test]
fn what_does_not_fit_is_said_in_litres() {
    let found = findings(&filled(BAY, 1500.0));
    assert_eq!(found[0].code, Code::Overflows);
    assert_eq!(found[0].params, [("litres", 300.0), ("height_cm", 125.0)]);
    // What is too much for a sloping heap does not stand higher: it rolls off.
    let pile = findings(&filled(PILE, 3000.0));
    assert_eq!((pile[0].code, pile[0].params.len()), (Code::Overflows, 1));
}

#[test]
fn what_fits_once_settled_may_be_heaped_at_first() {
    let thrown = Filled { loose_l: 1350.0, ..filled(BAY, 1150.0) };
    let found = findings(&thrown);
    assert_eq!((found[0].code, found[0].params[0]), (Code::HeapedAtFirst, ("litres", 150.0)));
}

#[test]
fn half_a_cubic_metre_is_too_small_to_heat() {
    assert!(codes(BAY, 500.0).contains(&Code::TooSmallToHeat));
    assert!(codes(BAY, 990.0).contains(&Code::JustBigEnough));
    assert_eq!(codes(BAY, 1150.0), []);
}

#[test]
fn a_wide_flat_heap_does_not_heat_though_it_is_large() {
    let field = Shape::Box { length_cm: 400.0, width_cm: 400.0, height_cm: 100.0 };
    assert!(codes(field, 4800.0).contains(&Code::TooSmallToHeat));
}

#[test]
fn above_two_metres_it_packs() {
    let tall = Shape::Box { length_cm: 150.0, width_cm: 150.0, height_cm: 300.0 };
    assert!(codes(tall, 6000.0).contains(&Code::TooTall));
}

#[test]
fn a_drum_that_is_meant_to_stay_cool_is_not_scolded_for_it() {
    let method = method::find("drilled-drum");
    let found = said(&Filled { method, ..filled(DRUM, 210.0) });
    assert!(found.contains(&Code::StaysCool) && !found.contains(&Code::TooSmallToHeat), "{found:?}");
    let hot = said(&Filled { method: method::find("rapid-turned"), ..filled(DRUM, 210.0) });
    assert!(hot.contains(&Code::TooSmallToHeat) && hot.contains(&Code::BelowMethod), "{hot:?}");
}

#[test]
fn a_tower_without_columns_is_told_how_many_it_needs() {
    let shape = Shape::Tower { diameter_cm: 130.0, height_cm: 180.0, columns: 0 };
    let found = findings(&Filled { method: method::find("static-tower"), ..filled(shape, 2300.0) });
    let far = found.iter().find(|finding| finding.code == Code::TooFarFromAir).expect("too far");
    let needed = far.params.iter().find(|(name, _)| *name == "columns").expect("some help").1;
    let mended = Shape::Tower { diameter_cm: 130.0, height_cm: 180.0, columns: needed as u8 };
    let then = said(&Filled { method: method::find("static-tower"), ..filled(mended, 2300.0) });
    assert!(then.contains(&Code::NearAir), "{then:?}");
}

#[test]
fn sides_that_are_not_sides_are_named() {
    let ring =
        |diameter_cm| Sides { diameter_cm: Some(diameter_cm), height_cm: Some(100.0), ..Sides::default() };
    assert_eq!(
        Shape::of(ShapeKind::Ring, &ring(f64::NAN)).expect_err("refused").path.to_string(),
        "diameter_cm"
    );
    let lacking = Shape::of(ShapeKind::Box, &ring(90.0));
    assert_eq!(lacking, Err(Fault::of("length_cm", FaultCode::SideMissing).with("shape", "box")));
    let both = Sides { width_cm: Some(90.0), ..ring(90.0) };
    let fault = Shape::of(ShapeKind::Ring, &both).expect_err("a ring has no width");
    assert_eq!((fault.path.to_string(), fault.code), ("width_cm".into(), FaultCode::SideUnwanted));
    let wide_top = Sides { top_cm: Some(160.0), ..PILE.sides() };
    assert_eq!(Shape::of(ShapeKind::Pile, &wide_top).expect_err("refused").path.to_string(), "top_cm");
}

fn any_shape() -> impl Strategy<Value = Shape> {
    let side = 20.0..400.0_f64;
    (0..7_usize, side.clone(), side.clone(), side, 0.0..1.0_f64, 0..9_u8).prop_map(
        |(kind, length_cm, width_cm, height_cm, top, columns)| match ShapeKind::ALL[kind] {
            ShapeKind::Box => Shape::Box { length_cm, width_cm, height_cm },
            ShapeKind::Ring => Shape::Ring { diameter_cm: width_cm, height_cm },
            ShapeKind::Pile => {
                let least = (width_cm - length_cm).max(0.0);
                Shape::Pile { length_cm, width_cm, top_cm: least + (width_cm - least) * top, height_cm }
            }
            ShapeKind::Windrow => Shape::Windrow { length_cm, width_cm, height_cm },
            ShapeKind::Drum => Shape::Drum { diameter_cm: width_cm, height_cm },
            ShapeKind::LyingDrum => Shape::LyingDrum { diameter_cm: width_cm, length_cm },
            ShapeKind::Tower => Shape::Tower { diameter_cm: width_cm.max(60.0), height_cm, columns },
        },
    )
}

proptest! {
    #[test]
    fn every_shape_is_rebuilt_from_its_sides(shape in any_shape()) {
        prop_assert_eq!(Shape::of(shape.kind(), &shape.sides()), Ok(shape));
    }

    #[test]
    fn height_and_volume_are_each_others_inverse(shape in any_shape(), share in 0.01..0.99_f64) {
        let litres = shape.capacity_l() * share;
        let up = shape.height_of_cm(litres);
        prop_assert!(up > 0.0 && up < shape.height_cm());
        prop_assert!((shape.volume_below_l(up) - litres).abs() < litres * 1e-6 + 1e-6);
    }

    /// The volume is the area of each slice added up; the area of a slice is the
    /// width of the section times what lies behind it.
    #[test]
    fn the_section_drawn_and_the_volume_agree(shape in any_shape()) {
        let behind = |width: f64| match shape {
            Shape::Box { length_cm, .. } | Shape::Windrow { length_cm, .. } | Shape::LyingDrum { length_cm, .. } => length_cm,
            Shape::Pile { length_cm, width_cm, .. } => length_cm - (width_cm - width),
            Shape::Ring { .. } | Shape::Drum { .. } => width * std::f64::consts::PI / 4.0,
            Shape::Tower { columns, .. } => {
                width * std::f64::consts::PI / 4.0 - f64::from(columns) * 25.0 * std::f64::consts::PI / width
            }
        };
        let slices = 2000;
        let thick = shape.height_cm() / f64::from(slices);
        let summed: f64 = (0..slices)
            .map(|slice| shape.width_at_cm((f64::from(slice) + 0.5) * thick))
            .map(|width| width * behind(width) * thick / 1000.0)
            .sum();
        prop_assert!((summed - shape.capacity_l()).abs() < shape.capacity_l() * 1e-3, "{summed}");
    }
}
