//! Many readings as few points, so that a picture looks the same and no extreme is lost.

/// A point of a course: when [ms], and how much.
pub type Point = (i64, f64);

/// Of points in the order of time, those that a picture of so many columns needs: of each column the
/// first, the last, the lowest and the highest.
///
/// # Source
/// Jugel U. et al. 2014, M4: a visualization-oriented time series data aggregation, Proc. VLDB 7(10): lines
/// drawn through these points fill the same pixels as through all.
///
/// # Example
/// ```
/// use zymarch_core::tend::thin::thin;
/// let all: Vec<(i64, f64)> = (0..1000).map(|at| (at, if at == 517 { 91.0 } else { 55.0 })).collect();
/// let few = thin(&all, 10);
/// assert!(few.len() <= 40 && few.contains(&(517, 91.0)));
/// ```
#[must_use]
pub fn thin(points: &[Point], columns: usize) -> Vec<Point> {
    let (Some(first), Some(last)) = (points.first(), points.last()) else { return Vec::new() };
    if points.len() <= 4 * columns || columns == 0 {
        return points.to_vec();
    }
    let (from, span) = (first.0, (last.0 - first.0).max(1) + 1);
    let column = |point: &Point| ((point.0 - from) as i128 * columns as i128 / span as i128) as usize;
    let mut few = Vec::with_capacity(4 * columns);
    for of_column in points.chunk_by(|a, b| column(a) == column(b)) {
        let by = |a: &usize, b: &usize| of_column[*a].1.total_cmp(&of_column[*b].1);
        let lowest = (0..of_column.len()).min_by(by).unwrap_or(0);
        let highest = (0..of_column.len()).max_by(by).unwrap_or(0);
        let mut kept = [0, lowest, highest, of_column.len() - 1];
        kept.sort_unstable();
        let mut before = None;
        for at in kept {
            if before != Some(at) {
                few.push(of_column[at]);
            }
            before = Some(at);
        }
    }
    few
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    proptest! {
        /// Every column keeps its extremes and its ends, and nothing is made up.
        #[test]
        fn no_extreme_is_lost(temps in proptest::collection::vec(-20.0..95.0_f64, 1..600), columns in 1..40_usize) {
            let all: Vec<Point> = temps.iter().enumerate().map(|(at, temp)| (at as i64 * 7, *temp)).collect();
            let few = thin(&all, columns);
            prop_assert!(few.len() <= (4 * columns).max(all.len().min(4 * columns)));
            prop_assert!(few.iter().all(|point| all.contains(point)));
            prop_assert!(few.windows(2).all(|two| two[0].0 < two[1].0));
            let most = |of: &[Point]| of.iter().map(|point| point.1).fold(f64::MIN, f64::max);
            let least = |of: &[Point]| of.iter().map(|point| point.1).fold(f64::MAX, f64::min);
            prop_assert_eq!((most(&all), least(&all)), (most(&few), least(&few)));
            prop_assert_eq!((all.first(), all.last()), (few.first(), few.last()));
        }
    }
}
