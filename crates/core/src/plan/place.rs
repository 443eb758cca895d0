//! The place first: what heap a corner of ground holds, with room to work and to turn it,
//! and by when it has to be built to be ready in time.

use super::heap::{LEAST_HOT_SIDE_CM, Shape};
use super::method::{Method, ShapeKind, Turned};
use crate::base::fault::{Fault, FaultCode};
use crate::base::quantity;

/// Ground that is taken, smallest and largest side [cm].
pub const GROUND_CM: (f64, f64) = (80.0, 10_000.0);

/// A strip to stand on with a fork, along the long side [cm].
///
/// # Source
/// A person with a fork or barrow wants about 60 cm; our judgement.
const WORK_CM: f64 = 60.0;

/// Wider than this nobody reaches the middle with a fork from one side [cm].
const REACH_CM: f64 = 150.0;

/// How far a free heap's side leans in, per height [-]. As in [`fit`](super::heap::fit).
const LEAN: f64 = 0.25;

/// Sides are said to so many centimetres.
const STEP_CM: f64 = 5.0;

/// A piece of ground within the whole, from its corner [cm].
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Plot {
    /// Along.
    pub x_cm: f64,
    /// Across.
    pub y_cm: f64,
    /// How long it is.
    pub length_cm: f64,
    /// How wide.
    pub width_cm: f64,
    /// Whether it is kept free, to turn the heap into.
    pub is_free: bool,
}

/// One way to lay a corner out.
#[derive(Debug, Clone, PartialEq)]
pub struct Layout {
    /// The heap.
    pub shape: Shape,
    /// How many of them are filled.
    pub heaps: u32,
    /// Where they stand, and where there is room to turn them.
    pub plots: Vec<Plot>,
    /// What the filled ones hold together, settled [L].
    pub volume_l: f64,
}

/// The ways to lay out a corner for a method, or for any turned heap: bays, and a free heap.
///
/// A strip is kept to work from. A heap that is turned has room as large as itself beside it;
/// three bays or more keep one free. What would be thinner than keeps warm is left out.
///
/// # Errors
/// A side that is no ground to build on.
///
/// # Example
/// Two metres by three: two bays of 150 by 140 cm, one of them free to turn into.
/// ```
/// use zymarch_core::plan::{heap::Shape, place::layouts};
/// let ways = layouts(300.0, 200.0, None)?;
/// assert!(matches!(ways[0].shape, Shape::Box { length_cm, width_cm, .. } if length_cm == 140.0 && width_cm == 150.0));
/// assert_eq!(ways[0].plots.iter().filter(|plot| plot.is_free).count(), 1);
/// # Ok::<(), zymarch_core::base::fault::Fault>(())
/// ```
pub fn layouts(length_cm: f64, width_cm: f64, method: Option<&Method>) -> Result<Vec<Layout>, Fault> {
    let side = |field: &'static str, value: f64| {
        quantity::within(value, GROUND_CM.0, GROUND_CM.1)
            .map_err(|fault| Fault { path: field.into(), ..fault })
    };
    let (one, other) = (side("length_cm", length_cm)?, side("width_cm", width_cm)?);
    let (along, across) = (one.max(other), one.min(other));
    let depth = step(across - WORK_CM).min(REACH_CM);
    if depth < LEAST_HOT_SIDE_CM {
        return Err(
            Fault::of("width_cm", FaultCode::TooSmall).with("least", step(LEAST_HOT_SIDE_CM + WORK_CM))
        );
    }
    let is_turned = method.is_none_or(|method| method.turned != Turned::Never);
    let kinds = [ShapeKind::Box, ShapeKind::Pile];
    let ways = kinds
        .into_iter()
        .filter(|kind| method.is_none_or(|method| method.shapes.contains(kind)))
        .filter_map(|kind| layout(kind, (along, depth), is_turned, method))
        .collect();
    Ok(ways)
}

fn layout(
    kind: ShapeKind,
    (along, depth): (f64, f64),
    is_turned: bool,
    method: Option<&Method>,
) -> Option<Layout> {
    let places =
        if is_turned { (along / REACH_CM).floor().max(2.0) } else { (along / REACH_CM).floor().max(1.0) };
    // A free heap is one, with room beside it; bays stand in a row.
    let places = if kind == ShapeKind::Pile { if is_turned { 2.0 } else { 1.0 } } else { places };
    let wide = step(along / places).min(REACH_CM);
    if wide < LEAST_HOT_SIDE_CM {
        return None;
    }
    let (low, high) =
        method.map_or((100.0, 130.0), |method| (method.height_cm.low(), method.height_cm.high()));
    let height_cm = step(wide.min(depth).clamp(low, high));
    let shape = match kind {
        ShapeKind::Box => Shape::Box { length_cm: depth, width_cm: wide, height_cm },
        _ => {
            let narrow = wide.min(depth);
            let top_cm = step((narrow - 2.0 * LEAN * height_cm).max((wide - depth).max(0.0)));
            Shape::Pile { length_cm: depth.max(wide), width_cm: narrow, top_cm, height_cm }
        }
    };
    let count = places as u32;
    let heaps = if is_turned { count - 1 } else { count };
    let plots = (0..count)
        .map(|at| Plot {
            x_cm: f64::from(at) * wide,
            y_cm: 0.0,
            length_cm: wide,
            width_cm: depth,
            is_free: at >= heaps,
        })
        .collect();
    Some(Layout { shape, heaps, plots, volume_l: shape.capacity_l() * f64::from(heaps) })
}

fn step(cm: f64) -> f64 {
    (cm / STEP_CM).floor() * STEP_CM
}

/// Days from build day until a method's compost is ready for use: as a rule, and if all goes fast.
///
/// # Example
/// ```
/// use zymarch_core::plan::{method, place::days_until_ready};
/// let bays = method::find("bay-turned").expect("listed");
/// let (fast, usual) = days_until_ready(bays);
/// assert!(fast < usual && fast >= 7.0 * (bays.active_weeks.low() + bays.cure_weeks.low()));
/// ```
#[must_use]
pub fn days_until_ready(method: &Method) -> (f64, f64) {
    let days = |active: f64, cure: f64| 7.0 * (active + cure);
    (
        days(method.active_weeks.low(), method.cure_weeks.low()),
        days(method.active_weeks.high(), method.cure_weeks.high()),
    )
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;
    use crate::plan::method;

    #[test]
    fn what_is_not_turned_needs_no_room_beside_it() {
        let still = method::all()
            .iter()
            .find(|row| row.turned == Turned::Never && row.shapes.contains(&ShapeKind::Box));
        let still = still.expect("there is one");
        let ways = layouts(300.0, 200.0, Some(still)).expect("is ground");
        assert!(ways.iter().all(|way| way.plots.iter().all(|plot| !plot.is_free)));
    }

    #[test]
    fn a_corner_too_narrow_to_work_in_is_refused_and_a_narrow_one_has_none_that_heats() {
        assert_eq!(layouts(300.0, 100.0, None).expect_err("narrow").path.to_string(), "width_cm");
        assert_eq!(layouts(f64::NAN, 200.0, None).expect_err("no number").path.to_string(), "length_cm");
        assert!(layouts(140.0, 140.0, None).expect("is ground").is_empty());
    }

    proptest! {
        #[test]
        fn nothing_stands_outside_or_over_another(long in 135.0..3000.0_f64, wide in 135.0..3000.0_f64) {
            for way in layouts(long, wide, None).expect("is ground") {
                let (along, across) = (long.max(wide), long.min(wide));
                for plot in &way.plots {
                    prop_assert!(plot.x_cm + plot.length_cm <= along + 1e-6);
                    prop_assert!(plot.y_cm + plot.width_cm <= across - WORK_CM + 1e-6);
                }
                for two in way.plots.windows(2) {
                    prop_assert!(two[0].x_cm + two[0].length_cm <= two[1].x_cm + 1e-6);
                }
                prop_assert!(way.heaps >= 1 && way.plots.iter().any(|plot| plot.is_free));
                prop_assert_eq!(Shape::of(way.shape.kind(), &way.shape.sides()), Ok(way.shape));
            }
        }
    }
}
