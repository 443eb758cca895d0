//! A line around most of the draws, to be drawn in the balance field.

use multiversion::multiversion;

use super::{Place, ordered};

/// Share of the draws that the line holds [-].
const INSIDE: f64 = 0.8;

/// Draws that are enough for a line: no eye tells it from that of twice as many.
const OUTLINED: usize = 1000;

/// Places in the field's own measure, a column each: moisture across, the logarithm of C:N up. Seven
/// digits are more than are drawn, and a processor works through several at a time.
struct Cloud {
    across: Vec<f32>,
    up: Vec<f32>,
}

/// The hull of the four fifths of the places that lie nearest their middle. Near is by the Mahalanobis
/// distance, which counts a step along the cloud for less than one across it.
pub(super) fn around(moisture: &[f32], c_n: &[f32]) -> Vec<Place> {
    let count = OUTLINED.min(c_n.len());
    let up = c_n[..count].iter().map(|c_n| c_n.max(1e-6).ln()).collect();
    let cloud = Cloud { across: moisture[..count].to_vec(), up };
    hull(cloud.nearest().outermost())
        .into_iter()
        .map(|(moisture, ln)| Place { moisture, c_n: ln.exp() })
        .collect()
}

impl Cloud {
    fn points(&self) -> impl Iterator<Item = (f32, f32)> {
        self.across.iter().copied().zip(self.up.iter().copied())
    }

    /// Those of it that something holds of.
    fn those(&self, each: &[f32], holds: impl Fn(f32) -> bool) -> impl Iterator<Item = (f32, f32)> {
        self.points().zip(each).filter(move |(_, of)| holds(**of)).map(|(point, _)| point)
    }

    /// The four fifths nearest the middle.
    fn nearest(&self) -> Self {
        let (distances, is_flat) = distances(&self.across, &self.up);
        let inside = (distances.len() as f64 * INSIDE).ceil() as usize;
        let edge = if inside < distances.len() {
            let [edge] = ordered::at_places(&distances, [inside]);
            edge
        } else {
            f32::INFINITY
        };
        let (across, up) = self.those(&distances, |far| far < edge || is_flat && far <= edge).unzip();
        Self { across, up }
    }

    /// The outermost in eight directions make a figure; what lies within it is no corner of the hull.
    /// Most points do, and need not be sorted then.
    ///
    /// # Source
    /// Akl S.G. and Toussaint G.T. 1978, A fast convex hull algorithm, Information Processing Letters 7.
    fn outermost(&self) -> Vec<(f64, f64)> {
        let depths = depths(&self.across, &self.up);
        self.those(&depths, |depth| depth <= ROUNDED).map(|(x, y)| (x.into(), y.into())).collect()
    }
}

/// What is made of each place, taken together: in several parts first, which a processor makes at once.
#[inline(always)]
fn taken<T: Fn(f32, f32) -> f32>(
    xs: &[f32],
    ys: &[f32],
    of: impl Fn(f32, f32) -> f32,
    (begin, join): (f32, T),
) -> f32 {
    const PARTS: usize = 8;
    let ((xs, last_xs), (ys, last_ys)) = (xs.as_chunks::<PARTS>(), ys.as_chunks::<PARTS>());
    let mut parts = [begin; PARTS];
    for (xs, ys) in xs.iter().zip(ys) {
        for (part, (x, y)) in parts.iter_mut().zip(xs.iter().zip(ys)) {
            *part = join(*part, of(*x, *y));
        }
    }
    let last = last_xs.iter().zip(last_ys).map(|(x, y)| of(*x, *y));
    parts.into_iter().chain(last).fold(begin, join)
}

/// How far each place lies from the middle of all, times what is the same for all; and whether all lie
/// on a line, where only the plain distance is one.
#[multiversion(targets("x86_64+avx2"))]
fn distances(xs: &[f32], ys: &[f32]) -> (Vec<f32>, bool) {
    let count = xs.len() as f32;
    let plus = || (0.0, |sum: f32, more: f32| sum + more);
    let (x, y) = (taken(xs, ys, |x, _| x, plus()) / count, taken(xs, ys, |_, y| y, plus()) / count);
    let xx = taken(xs, ys, |px, _| (px - x) * (px - x), plus()) / count;
    let yy = taken(xs, ys, |_, py| (py - y) * (py - y), plus()) / count;
    let xy = taken(xs, ys, |px, py| (px - x) * (py - y), plus()) / count;
    let is_flat = xx * yy - xy * xy <= FLAT * xx * yy;
    let (a, b, c) = if is_flat { (1.0, 0.0, 1.0) } else { (yy, -2.0 * xy, xx) };
    let far = |(px, py): (&f32, &f32)| {
        let (dx, dy) = (px - x, py - y);
        a * dx * dx + b * dx * dy + c * dy * dy
    };
    (xs.iter().zip(ys).map(far).collect(), is_flat)
}

/// What is as narrow as this, for its length and squared, is a line.
const FLAT: f32 = 1e-5;

/// So many are looked at for the outermost: whichever they are, what lies within their figure is no corner.
const LOOKED_AT: usize = 240;

/// How deep each place lies within the figure that the outermost in eight directions make, as a share of
/// how far the cloud reaches; infinitely little where they make none.
#[multiversion(targets("x86_64+avx2"))]
fn depths(xs: &[f32], ys: &[f32]) -> Vec<f32> {
    // The cloud is far longer one way than the other: it is looked at as a square.
    let square = |of: &[f32]| -> Vec<f32> {
        let low = taken(of, of, |at, _| at, (f32::MAX, f32::min));
        let high = taken(of, of, |at, _| at, (f32::MIN, f32::max));
        let each = (high - low).max(f32::MIN_POSITIVE).recip();
        of.iter().map(|at| (at - low) * each).collect()
    };
    let (xs, ys) = (square(xs), square(ys));
    let corners = WAYS.map(|(x, y)| {
        let (mut most, mut corner) = (f32::MIN, (0.0, 0.0));
        for (&px, &py) in xs.iter().zip(&ys).take(LOOKED_AT) {
            let out = x * px + y * py;
            if out > most {
                (most, corner) = (out, (px, py));
            }
        }
        corner
    });
    // Each side as what grows inwards from it; where two corners are one there is no side.
    let side = |at: usize| {
        let (a, b) = (corners[at], corners[(at + 1) % WAYS.len()]);
        let (dx, dy) = (b.0 - a.0, b.1 - a.1);
        (a != b).then_some((-dy, dx, dy * a.0 - dx * a.1))
    };
    let sides: Vec<(f32, f32, f32)> = (0..WAYS.len()).filter_map(side).collect();
    if sides.len() < 3 {
        return vec![f32::NEG_INFINITY; xs.len()];
    }
    let mut depths = vec![f32::INFINITY; xs.len()];
    for (x, y, past) in sides {
        for (depth, (px, py)) in depths.iter_mut().zip(xs.iter().zip(&ys)) {
            *depth = depth.min(x * px + y * py + past);
        }
    }
    depths
}

/// What lies so near a side may be a corner of it: sums are rounded [share of the reach].
const ROUNDED: f32 = 1e-5;

/// The convex hull, anticlockwise.
///
/// # Source
/// Andrew A.M. 1979, Another efficient algorithm for convex hulls in two
/// dimensions, Information Processing Letters 9.
fn hull(mut points: Vec<(f64, f64)>) -> Vec<(f64, f64)> {
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

/// Eight ways out of a square, one after the other around it.
const WAYS: [(f32, f32); 8] =
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
            .map(|(x, y)| (f64::from(x as f32), f64::from(y as f32)))
            .collect();
        let (across, up) = cloud.iter().map(|(x, y)| (*x as f32, *y as f32)).unzip();
        let corners = hull(Cloud { across, up }.outermost());
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
        let got = around(&[0.5; 5], &[30.0; 5]);
        assert_eq!(got.len(), 1);
        assert!((got[0].c_n - 30.0).abs() < 1e-4);
    }
}
