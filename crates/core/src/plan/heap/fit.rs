//! Both ways between a mix and a heap: the sides a mix needs, and how much of a
//! mix a heap takes.

use std::sync::OnceLock;

use super::{LONGEST_CM, SIDE_CM, Shape, air, foundation_l};
use crate::base::quantity::Band;
use crate::plan::method::{Method, ShapeKind};

/// Sides are said to so many centimetres.
const STEP_CM: usize = 5;

/// Wider than this nobody reaches the middle with a fork from the sides [cm].
const WIDEST_CM: f64 = 200.0;

/// How far a free heap's side leans in, per height [-]: about 75 degrees, as
/// stable manure and straw stand when they are built up with care.
const LEAN: f64 = 0.25;

/// A steel drum of about 200 L, inside [cm].
const DRUM_CM: (f64, f64) = (57.0, 85.0);

/// Heights of a heap whose method is not chosen [cm].
const USUAL_HEIGHT_CM: Band = Band::fixed(100.0, 150.0);

/// What a heap holds of which nothing is known [L].
const USUAL_VOLUME_L: Band = Band::fixed(1000.0, 2000.0);

/// Most heaps that a mix is divided over.
pub const MOST_HEAPS: f64 = 1000.0;

/// What of a mix a heap takes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Fit {
    /// The mix times this fills it to the rim [-].
    pub factor: f64,
    /// Heaps alike that hold the whole mix between them.
    pub heaps: u32,
    /// The sides that hold the whole mix in one heap of this kind; none for a
    /// drum, which comes as it is.
    pub sides: Option<Shape>,
    /// A sensible heap of every kind for this mix: sides that hold it, or as the kind usually comes.
    pub shapes: [Shape; ShapeKind::ALL.len()],
}

/// How a volume fits a shape that a method may found with twigs, with so much
/// more laid above the mix [L].
///
/// # Example
/// 1,500 L for a bay of 1,000: two thirds of it fit, or two bays hold it.
/// ```
/// use zymarch_core::plan::heap::{Shape, fit};
/// let bay = Shape::Box { length_cm: 100.0, width_cm: 100.0, height_cm: 100.0 };
/// let found = fit::fit(bay, 1500.0, 0.0, None);
/// assert!((found.factor - 2.0 / 3.0).abs() < 1e-12);
/// assert_eq!(found.heaps, 2);
/// assert!(found.sides.is_some_and(|shape| shape.capacity_l() >= 1500.0));
/// ```
#[must_use]
pub fn fit(shape: Shape, mix_l: f64, above_l: f64, method: Option<&Method>) -> Fit {
    let height_cm = method.map_or(USUAL_HEIGHT_CM, |method| method.height_cm);
    let holds = |shape| room_l(shape, above_l, method) >= mix_l;
    let of_kind = |kind| sides_with(kind, mix_l, height_cm, &holds);
    Fit {
        factor: factor(shape, mix_l, above_l, method),
        heaps: heaps(shape, mix_l, above_l, method),
        sides: of_kind(shape.kind()),
        shapes: std::array::from_fn(|at| {
            let kind = ShapeKind::ALL[at];
            of_kind(kind).unwrap_or_else(|| usual(kind, USUAL_VOLUME_L, height_cm))
        }),
    }
}

/// What a shape holds of a mix, beside a foundation, which covers the ground and so grows with the
/// heap, and what is laid above [L].
fn room_l(shape: Shape, above_l: f64, method: Option<&Method>) -> f64 {
    (shape.capacity_l() - foundation_l(shape, method) - above_l).max(0.0)
}

/// The mix times this fills a shape to the rim [-].
#[must_use]
pub fn factor(shape: Shape, mix_l: f64, above_l: f64, method: Option<&Method>) -> f64 {
    if mix_l > 0.0 { room_l(shape, above_l, method) / mix_l } else { 0.0 }
}

/// Heaps alike that hold a mix between them.
#[must_use]
pub fn heaps(shape: Shape, mix_l: f64, above_l: f64, method: Option<&Method>) -> u32 {
    let room = room_l(shape, above_l, method);
    if room > 0.0 { (mix_l / room - 1e-9).ceil().clamp(1.0, MOST_HEAPS) as u32 } else { 1 }
}

/// An amount made larger or smaller: in halves of a measure (in quarters under
/// two), or to three figures of a weight or volume, and never down to nothing.
///
/// # Example
/// Two thirds of 4 barrows are 2½ barrows; of 10 kg, 6.67 kg.
/// ```
/// use zymarch_core::plan::heap::fit::scaled;
/// assert_eq!(scaled(4.0, true, 2.0 / 3.0), 2.5);
/// assert_eq!(scaled(10.0, false, 2.0 / 3.0), 6.67);
/// assert_eq!(scaled(2.0, true, 0.2), 0.5);
/// assert_eq!(scaled(1.0, true, 0.1), 0.25);
/// ```
#[must_use]
pub fn scaled(amount: f64, is_counted: bool, factor: f64) -> f64 {
    let exact = amount * factor;
    if exact <= 0.0 {
        return 0.0;
    }
    let step = if is_counted {
        if exact < 2.0 { 0.25 } else { 0.5 }
    } else {
        10_f64.powf(exact.log10().floor() - 2.0)
    };
    let steps = (exact / step).round().max(1.0);
    // Divided where the step is a fraction, so that 6.67 stays 6.67.
    if step < 1.0 { steps / (1.0 / step).round() } else { steps * step }
}

/// The sides of a heap that holds a volume: about as high as it is wide, within
/// the heights, no wider than can be reached, in steps of 5 cm. None for a drum,
/// and for more than a heap of [`SIDE_CM`] (a windrow of [`LONGEST_CM`]) holds.
///
/// # Example
/// ```
/// use zymarch_core::plan::heap::{Shape, fit};
/// use zymarch_core::plan::method::ShapeKind;
/// use zymarch_core::base::quantity::Band;
/// let bay = fit::sides_for(ShapeKind::Box, 2300.0, Band::new(100.0, 120.0)?);
/// assert_eq!(bay, Some(Shape::Box { length_cm: 140.0, width_cm: 140.0, height_cm: 120.0 }));
/// # Ok::<(), zymarch_core::base::fault::Fault>(())
/// ```
#[must_use]
pub fn sides_for(kind: ShapeKind, volume_l: f64, height_cm: Band) -> Option<Shape> {
    sides_with(kind, volume_l, height_cm, &|shape| shape.capacity_l() >= volume_l)
}

fn sides_with(
    kind: ShapeKind,
    volume_l: f64,
    height_cm: Band,
    holds: &dyn Fn(Shape) -> bool,
) -> Option<Shape> {
    let edge = (volume_l * 1000.0).cbrt();
    let (low, high) = (height_cm.low().max(SIDE_CM.0), height_cm.high().min(SIDE_CM.1));
    let up = (edge.clamp(low, high) / STEP_CM as f64).floor() * STEP_CM as f64;
    let up = up.max(low);
    // One side grows until it holds: both sides together up to what can be reached, then the length.
    let square = |make: &dyn Fn(f64, f64) -> Shape| {
        grown((SIDE_CM.0, WIDEST_CM), &|side| make(side, side), holds)
            .or_else(|| grown((WIDEST_CM, SIDE_CM.1), &|length| make(length, WIDEST_CM), holds))
    };
    match kind {
        ShapeKind::Box => square(&|length_cm, width_cm| Shape::Box { length_cm, width_cm, height_cm: up }),
        ShapeKind::Pile => square(&|length_cm, width_cm| {
            let top_cm = ((width_cm - 2.0 * LEAN * up) / STEP_CM as f64).floor().max(0.0) * STEP_CM as f64;
            Shape::Pile { length_cm, width_cm, top_cm, height_cm: up }
        }),
        ShapeKind::Windrow => grown(
            (WIDEST_CM, LONGEST_CM),
            &|length_cm| Shape::Windrow { length_cm, width_cm: (2.0 * up).min(SIDE_CM.1), height_cm: up },
            holds,
        ),
        ShapeKind::Ring => grown(SIDE_CM, &|diameter_cm| Shape::Ring { diameter_cm, height_cm: up }, holds),
        ShapeKind::Tower => {
            let tower = |diameter_cm, columns| Shape::Tower { diameter_cm, height_cm: up, columns };
            // Columns take room, and are dear to count: none is narrower than one without them.
            let bare = grown(SIDE_CM, &|diameter_cm| tower(diameter_cm, 0), holds)?;
            let from = bare.least_side_cm();
            (0..)
                .map(|step| from + f64::from(step) * STEP_CM as f64)
                .take_while(|side| *side <= SIDE_CM.1)
                .map(|diameter_cm| tower(diameter_cm, columns_for(diameter_cm, up)))
                .find(|&shape| holds(shape))
        }
        ShapeKind::Drum | ShapeKind::LyingDrum => None,
    }
}

/// Columns for a tower that never has a point farther from air than 30 cm; four if none suffice. Whatever is
/// mixed, towers are as wide as one of these steps, so that each is counted once.
fn columns_for(diameter_cm: f64, up_cm: f64) -> u8 {
    /// See the row `static-tower` of the methods.
    const REACH_CM: f64 = 30.0;
    const STEPS: usize = (SIDE_CM.1 - SIDE_CM.0) as usize / STEP_CM + 1;
    static COUNTED: [OnceLock<u8>; STEPS] = [const { OnceLock::new() }; STEPS];
    let counted = || {
        let tower = Shape::Tower { diameter_cm, height_cm: up_cm, columns: 0 };
        air::columns_needed(tower, up_cm, REACH_CM).unwrap_or(4)
    };
    let step = (diameter_cm - SIDE_CM.0) / STEP_CM as f64;
    match COUNTED.get(step as usize) {
        // What is low breathes through its top and its pallet; all others are alike.
        Some(known) if up_cm / 2.0 > REACH_CM && step.fract() == 0.0 => *known.get_or_init(counted),
        _ => counted(),
    }
}

/// The first shape that holds it as a side grows in steps. A larger one holds more, so that the
/// range is halved rather than walked.
fn grown(
    (from, to): (f64, f64),
    make: &dyn Fn(f64) -> Shape,
    holds: &dyn Fn(Shape) -> bool,
) -> Option<Shape> {
    let at = |step: usize| make(from + (step * STEP_CM) as f64);
    let (mut fails, mut fits) = (0, (to - from) as usize / STEP_CM);
    if holds(at(fails)) {
        return Some(at(fails));
    }
    if !holds(at(fits)) {
        return None;
    }
    while fits - fails > 1 {
        let half = usize::midpoint(fails, fits);
        if holds(at(half)) { fits = half } else { fails = half }
    }
    Some(at(fits))
}

/// The usual sides of a kind, to begin with: what holds a middling heap of a method.
///
/// # Example
/// ```
/// use zymarch_core::plan::heap::fit;
/// use zymarch_core::plan::method::{self, ShapeKind};
/// let drums = method::find("drilled-drum").expect("listed");
/// let drum = fit::usual(ShapeKind::Drum, drums.volume_l, drums.height_cm);
/// assert!((200.0..230.0).contains(&drum.capacity_l()));
/// ```
#[must_use]
pub fn usual(kind: ShapeKind, volume_l: Band, height_cm: Band) -> Shape {
    let (diameter_cm, length_cm) = DRUM_CM;
    match kind {
        ShapeKind::Drum => Shape::Drum { diameter_cm, height_cm: length_cm },
        ShapeKind::LyingDrum => Shape::LyingDrum { diameter_cm, length_cm },
        _ => {
            // The geometric middle: a method for 1 to 4 m³ begins at 2.
            let middling = (volume_l.low() * volume_l.high()).sqrt();
            let cube = Shape::Box { length_cm: 120.0, width_cm: 120.0, height_cm: 120.0 };
            sides_for(kind, middling, height_cm).unwrap_or(cube)
        }
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    #[test]
    fn a_foundation_takes_its_room() {
        let pile = Shape::Pile { length_cm: 200.0, width_cm: 150.0, top_cm: 100.0, height_cm: 120.0 };
        let layered = crate::plan::method::find("layered-heap");
        let (bare, founded) = (fit(pile, 2000.0, 0.0, None), fit(pile, 2000.0, 0.0, layered));
        assert!(founded.factor < bare.factor);
        let sides = founded.sides.expect("some hold it");
        assert!(sides.capacity_l() - foundation_l(sides, layered) >= 2000.0);
        assert!((fit(sides, 2000.0, 0.0, layered).factor - 1.0).abs() < 0.1);
    }

    #[test]
    fn columns_that_were_counted_before_are_those_that_are_needed() {
        for (diameter_cm, up_cm) in
            [(150.0, 180.0), (150.0, 90.0), (150.0, 50.0), (152.0, 180.0), (90.0, 61.0)]
        {
            let tower = Shape::Tower { diameter_cm, height_cm: up_cm, columns: 0 };
            for _ in 0..2 {
                let needed = air::columns_needed(tower, up_cm, 30.0).unwrap_or(4);
                assert_eq!(columns_for(diameter_cm, up_cm), needed, "{diameter_cm} {up_cm}");
            }
        }
    }

    #[test]
    fn nothing_and_too_much_have_an_answer() {
        let bay = Shape::Box { length_cm: 100.0, width_cm: 100.0, height_cm: 100.0 };
        assert_eq!(fit(bay, 0.0, 0.0, None).heaps, 1);
        let found = fit(bay, 1e9, 0.0, None);
        assert_eq!((found.heaps, found.sides), (1000, None));
        assert_eq!(fit(bay, 500.0, 2000.0, None).factor.to_bits(), 0.0_f64.to_bits());
    }

    proptest! {
        #[test]
        fn the_sides_found_hold_the_volume_and_not_much_more(volume in 300.0..9_000.0_f64) {
            for kind in [ShapeKind::Box, ShapeKind::Pile, ShapeKind::Ring, ShapeKind::Windrow] {
                let shape = sides_for(kind, volume, Band::fixed(60.0, 170.0)).expect("holds it");
                prop_assert!(shape.capacity_l() >= volume);
                // Windrows are not made shorter than two metres; a pile is no smaller than its slope allows.
                if matches!(kind, ShapeKind::Box | ShapeKind::Ring) {
                    prop_assert!(shape.capacity_l() <= volume * 1.16 + 50.0, "{shape:?} for {volume}");
                }
                let sides = shape.sides();
                prop_assert_eq!(Shape::of(kind, &sides), Ok(shape));
            }
        }
    }
}
