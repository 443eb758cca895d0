//! A line around most of the draws, to be drawn in the balance field.

use super::{Place, ordered};

/// Share of the draws that the line holds [-].
const INSIDE: f64 = 0.8;

/// Draws that are enough for a line: no eye tells it from that of twice as many.
pub(super) const OUTLINED: usize = 1000;

/// The hull of the four fifths of the places that lie nearest their middle, in
/// the field's own measure: moisture across, the logarithm of C:N up. Near is
/// by the Mahalanobis distance, which counts a step along the cloud for less
/// than one across it.
pub(super) fn around(places: &[Place]) -> Vec<Place> {
    let points: Vec<(f64, f64)> =
        places.iter().map(|place| (place.moisture, place.c_n.max(1e-6).ln())).collect();
    let count = points.len() as f64;
    let (x, y) = points.iter().fold((0.0, 0.0), |(x, y), point| (x + point.0 / count, y + point.1 / count));
    let (mut xx, mut yy, mut xy) = (0.0, 0.0, 0.0);
    for (px, py) in &points {
        xx += (px - x).powi(2) / count;
        yy += (py - y).powi(2) / count;
        xy += (px - x) * (py - y) / count;
    }
    let is_flat = xx * yy - xy * xy <= 1e-18;
    let far = |(px, py): &(f64, f64)| {
        let (dx, dy) = (px - x, py - y);
        // Times what is the same for all, which changes no order.
        if is_flat { dx * dx + dy * dy } else { yy * dx * dx - 2.0 * xy * dx * dy + xx * dy * dy }
    };
    let distances: Vec<f32> = points.iter().map(|point| far(point) as f32).collect();
    let inside = (count * INSIDE).ceil() as usize;
    let edge = if inside < points.len() {
        let [edge] = ordered::at_places(&distances, [inside]);
        edge
    } else {
        f32::INFINITY
    };
    let near = points
        .iter()
        .zip(&distances)
        .filter(|(_, distance)| **distance < edge || is_flat && **distance <= edge);
    hull(near.map(|(point, _)| *point).collect())
        .into_iter()
        .map(|(moisture, ln)| Place { moisture, c_n: ln.exp() })
        .collect()
}

/// The convex hull, anticlockwise.
///
/// # Source
/// Andrew A.M. 1979, Another efficient algorithm for convex hulls in two
/// dimensions, Information Processing Letters 9.
fn hull(points: Vec<(f64, f64)>) -> Vec<(f64, f64)> {
    let mut points = without_the_inner(points);
    points.sort_unstable_by(|a, b| a.0.total_cmp(&b.0).then(a.1.total_cmp(&b.1)));
    points.dedup();
    if points.len() < 3 {
        return points;
    }
    let turns_left = |a: (f64, f64), b: (f64, f64), c: (f64, f64)| {
        (b.0 - a.0) * (c.1 - a.1) - (b.1 - a.1) * (c.0 - a.0) > 0.0
    };
    let half = |points: &mut dyn Iterator<Item = (f64, f64)>| {
        let mut line: Vec<(f64, f64)> = Vec::new();
        for point in points {
            while line.len() > 1 && !turns_left(line[line.len() - 2], line[line.len() - 1], point) {
                line.pop();
            }
            line.push(point);
        }
        line.pop();
        line
    };
    let mut around = half(&mut points.iter().copied());
    around.extend(half(&mut points.iter().rev().copied()));
    around
}

/// The outermost in eight directions make a figure; what lies within it is no corner of the hull. Most
/// points do, and need not be sorted then.
///
/// # Source
/// Akl S.G. and Toussaint G.T. 1978, A fast convex hull algorithm, Information Processing Letters 7.
fn without_the_inner(mut points: Vec<(f64, f64)>) -> Vec<(f64, f64)> {
    let spread = |of: fn(&(f64, f64)) -> f64| {
        let (low, high) = points.iter().map(of).fold((f64::MAX, f64::MIN), |(l, h), v| (l.min(v), h.max(v)));
        (high - low).max(f64::MIN_POSITIVE)
    };
    // The cloud is far longer one way than the other: slanted directions are those of its own square.
    let (wide, high) = (spread(|point| point.0).recip(), spread(|point| point.1).recip());
    let ways = WAYS.map(|(x, y)| (x * wide, y * high));
    let mut farthest = [(f64::MIN, (0.0, 0.0)); WAYS.len()];
    for &point in &points {
        for ((x, y), corner) in ways.iter().zip(&mut farthest) {
            let out = x * point.0 + y * point.1;
            if out > corner.0 {
                *corner = (out, point);
            }
        }
    }
    // Each side as what grows inwards from it; where two corners are one there is no side.
    let corner = |at: usize| farthest[at % WAYS.len()].1;
    let side = |at: usize| {
        let (a, b) = (corner(at), corner(at + 1));
        let (dx, dy) = (b.0 - a.0, b.1 - a.1);
        (a != b).then_some((-dy, dx, dy * a.0 - dx * a.1))
    };
    let sides: Vec<(f64, f64, f64)> = (0..WAYS.len()).filter_map(side).collect();
    if sides.len() > 2 {
        points.retain(|(px, py)| !sides.iter().all(|(x, y, past)| x * px + y * py + past > ROUNDED));
    }
    points
}

/// What lies so near a side may be a corner of it: sums are rounded.
const ROUNDED: f64 = 1e-12;

/// Eight ways out of a square, one after the other around it.
const WAYS: [(f64, f64); 8] =
    [(1.0, 0.0), (1.0, 1.0), (0.0, 1.0), (-1.0, 1.0), (-1.0, 0.0), (-1.0, -1.0), (0.0, -1.0), (1.0, -1.0)];

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_hull_of_a_square_leaves_out_what_is_inside() {
        let got = hull(vec![(0.0, 0.0), (1.0, 1.0), (0.5, 0.4), (1.0, 0.0), (0.0, 1.0), (0.5, 0.0)]);
        assert_eq!(got, vec![(0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0)]);
    }

    #[test]
    fn a_cloud_lies_within_its_hull_and_every_corner_is_of_the_cloud() {
        // Evenly strewn by the golden ratio; long and narrow as clouds of mixes are.
        let cloud: Vec<(f64, f64)> = (0..400)
            .map(|at| (f64::from(at) * 0.618_034 % 1.0, f64::from(at) * 0.754_878 % 1.0))
            .map(|(x, y)| (0.5 + 0.1 * x, 3.0 + 2.0 * x + 0.3 * y))
            .collect();
        let corners = hull(cloud.clone());
        assert!(corners.len() > 5 && corners.iter().all(|corner| cloud.contains(corner)));
        for (a, b) in corners.iter().zip(corners.iter().cycle().skip(1)) {
            for p in &cloud {
                let side = (b.0 - a.0) * (p.1 - a.1) - (b.1 - a.1) * (p.0 - a.0);
                assert!(side > -1e-12, "{p:?} lies outside of {a:?} to {b:?}");
            }
        }
    }

    #[test]
    fn all_at_one_place_is_a_place() {
        let got = around(&[Place { moisture: 0.5, c_n: 30.0 }; 5]);
        assert_eq!(got.len(), 1);
        assert!((got[0].c_n - 30.0).abs() < 1e-9);
    }
}
