//! How far the innermost of a heap that is not turned lies from air.
//!
//! A heap that nobody turns breathes only through its skin and its pipes. Air
//! comes in through the walls of a ring or a tower, down the pipes, from the top,
//! and through the pallet under a tower.

use std::f64::consts::TAU;

use super::{COLUMN_CM, MOST_COLUMNS, Shape};

/// Steps of the grid on which distances are looked at, from the middle to the rim.
const GRID_STEPS: i32 = 24;

/// Where pipes stand, from the middle [cm], so that the farthest point is near to one.
///
/// Pipes stand evenly on a circle, with or without one in the middle, whichever
/// is better; from eight on they stand on two circles.
#[must_use]
pub fn pipes(diameter_cm: f64, count: u8) -> Vec<(f64, f64)> {
    let mut best = (f64::INFINITY, Vec::new());
    for places in layouts(diameter_cm, count) {
        let reach = across_cm(diameter_cm, &places);
        if reach < best.0 - 1e-9 {
            best = (reach, places);
        }
    }
    best.1
}

/// The ways to place so many pipes that are looked at.
fn layouts(diameter_cm: f64, count: u8) -> impl Iterator<Item = Vec<(f64, f64)>> {
    (0..=u8::from(count > 0)).flat_map(move |middle| {
        let around = count - middle;
        let inner = if around >= 8 { around / 3 } else { 0 };
        (4..=8_u8).map(move |step| {
            let outer_at = diameter_cm / 2.0 * f64::from(step) / 10.0;
            let mut places = vec![(0.0, 0.0); usize::from(middle)];
            places.extend(circle(inner, outer_at / 2.0));
            places.extend(circle(around - inner, outer_at));
            places
        })
    })
}

fn circle(count: u8, radius: f64) -> impl Iterator<Item = (f64, f64)> {
    (0..count).map(move |place| {
        let (sin, cos) = (TAU * f64::from(place) / f64::from(count)).sin_cos();
        (radius * cos, radius * sin)
    })
}

/// How far a place lies from the middle. A heap has no lengths for which the careful way (`hypot`,
/// several times slower) would be needed, and thousands are looked at on every tap.
fn far(x: f64, y: f64) -> f64 {
    (x * x + y * y).sqrt()
}

/// Farthest that any point of a disc lies from its rim or a pipe [cm].
fn across_cm(diameter_cm: f64, pipes: &[(f64, f64)]) -> f64 {
    let radius = diameter_cm / 2.0;
    let grid_cm = radius / f64::from(GRID_STEPS);
    let mut farthest: f64 = 0.0;
    for x in -GRID_STEPS..=GRID_STEPS {
        for y in -GRID_STEPS..=GRID_STEPS {
            let (x, y) = (f64::from(x) * grid_cm, f64::from(y) * grid_cm);
            let to_wall = radius - far(x, y);
            if to_wall <= farthest {
                continue;
            }
            let to_pipe = pipes.iter().map(|(px, py)| far(x - px, y - py) - COLUMN_CM / 2.0);
            farthest = farthest.max(to_pipe.fold(to_wall, f64::min));
        }
    }
    farthest
}

/// Farthest that any point lies from air, filled to a height, with so many pipes [cm].
///
/// # Example
/// A mesh ring of 90 cm: 45 cm from the middle to the mesh; a pipe down the
/// middle brings that to 20 cm.
/// ```
/// use zymarch_core::plan::heap::{Shape, air};
/// let ring = Shape::Ring { diameter_cm: 90.0, height_cm: 110.0 };
/// assert!((air::farthest_cm(ring, 110.0, 0) - 45.0).abs() < 2.0);
/// assert!((air::farthest_cm(ring, 110.0, 1) - 20.0).abs() < 2.0);
/// ```
#[must_use]
pub fn farthest_cm(shape: Shape, up_cm: f64, count: u8) -> f64 {
    match shape {
        Shape::Tower { diameter_cm, .. } => {
            across_cm(diameter_cm, &pipes(diameter_cm, count)).min(up_cm / 2.0)
        }
        Shape::Ring { diameter_cm, .. } => across_cm(diameter_cm, &pipes(diameter_cm, count)).min(up_cm),
        _ => (shape.least_side_cm() / 2.0).min(up_cm),
    }
}

/// The fewest columns of air with which no point of a tower is farther than `reach_cm`;
/// none if even [`MOST_COLUMNS`] are too few.
#[must_use]
pub fn columns_needed(shape: Shape, up_cm: f64, reach_cm: f64) -> Option<u8> {
    let Shape::Tower { diameter_cm, .. } = shape else {
        return (0..=MOST_COLUMNS).find(|&count| farthest_cm(shape, up_cm, count) <= reach_cm);
    };
    if up_cm / 2.0 <= reach_cm {
        return Some(0);
    }
    let reaches = |places: &Vec<(f64, f64)>| is_within(diameter_cm, places, reach_cm);
    (0..=MOST_COLUMNS).find(|&count| layouts(diameter_cm, count).any(|places| reaches(&places)))
}

/// Whether every point of a disc lies so near to its rim or a pipe: looked at from the middle
/// outwards, since that is where it fails first.
fn is_within(diameter_cm: f64, pipes: &[(f64, f64)], reach_cm: f64) -> bool {
    let radius = diameter_cm / 2.0;
    let grid_cm = radius / f64::from(GRID_STEPS);
    let outwards = || (0..=GRID_STEPS).flat_map(|step| [step, -step]);
    outwards().all(|x| {
        outwards().all(|y| {
            let (x, y) = (f64::from(x) * grid_cm, f64::from(y) * grid_cm);
            radius - far(x, y) <= reach_cm
                || pipes.iter().any(|(px, py)| far(x - px, y - py) - COLUMN_CM / 2.0 <= reach_cm)
        })
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn more_columns_never_leave_a_point_farther_off() {
        let tower = Shape::Tower { diameter_cm: 150.0, height_cm: 180.0, columns: 0 };
        let far: Vec<_> = (0..=8).map(|count| farthest_cm(tower, 180.0, count)).collect();
        assert!(far.windows(2).all(|pair| pair[1] <= pair[0] + 1.0), "{far:?}");
        assert!((far[0] - 75.0).abs() < 2.5 && far[8] < 30.0, "{far:?}");
    }

    #[test]
    fn a_tower_of_a_metre_needs_one_column_and_a_wide_one_several() {
        let tower = |diameter_cm| Shape::Tower { diameter_cm, height_cm: 180.0, columns: 0 };
        assert_eq!(columns_needed(tower(100.0), 180.0, 30.0), Some(1));
        let wide = columns_needed(tower(150.0), 180.0, 30.0).expect("some do");
        assert!((3..=5).contains(&wide), "{wide}");
        assert_eq!(columns_needed(tower(1000.0), 180.0, 30.0), None);
    }

    #[test]
    fn the_quick_way_to_count_columns_agrees_with_the_distance() {
        for diameter_cm in [40.0, 90.0, 120.0, 155.0, 210.0, 400.0] {
            let tower = Shape::Tower { diameter_cm, height_cm: 180.0, columns: 0 };
            let by_distance = (0..=MOST_COLUMNS).find(|&count| farthest_cm(tower, 180.0, count) <= 30.0);
            assert_eq!(columns_needed(tower, 180.0, 30.0), by_distance, "{diameter_cm}");
        }
    }

    #[test]
    fn a_low_heap_breathes_through_its_top() {
        let ring = Shape::Ring { diameter_cm: 300.0, height_cm: 110.0 };
        assert!((farthest_cm(ring, 20.0, 0) - 20.0).abs() < 1e-9);
    }

    #[test]
    fn all_pipes_stand_inside() {
        for count in 0..=MOST_COLUMNS {
            let places = pipes(120.0, count);
            assert_eq!(places.len(), usize::from(count));
            assert!(places.iter().all(|(x, y)| far(*x, *y) < 60.0));
        }
    }
}
