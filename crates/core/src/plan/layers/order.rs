//! In what order the parts of a cycle are laid.

use super::LayerItem;
use crate::plan::method::{Method, PatternLayer};
use crate::stock::material::Kind;

/// The usual cycle, from below.
const USUAL: &[PatternLayer] =
    &[PatternLayer::Brown, PatternLayer::Green, PatternLayer::Manure, PatternLayer::Soil, PatternLayer::Card];

/// The parts that have mass, in the order of a cycle.
///
/// A layer that the method's pattern does not name follows the one that it
/// follows in the usual cycle. Within a layer stiff stuff lies below and fine
/// stuff on top, where it sifts down. Ash and lime lie where they touch no dung,
/// neither in their cycle nor at the foot of the next; where there is no such place,
/// lowest of all ([`lies_lowest`]).
pub(super) fn of(parts: &[LayerItem], method: Option<&Method>) -> Vec<usize> {
    let pattern =
        method.map_or(USUAL, |method| if method.pattern.is_empty() { USUAL } else { &method.pattern });
    let mut order: Vec<usize> = (0..parts.len()).filter(|&part| parts[part].grams() > 0).collect();
    order.sort_by_key(|&part| (place(parts[part].layer, pattern), stiffness(parts[part].kind), part));
    let (apart, mut order): (Vec<usize>, Vec<usize>) =
        order.into_iter().partition(|&part| parts[part].drives_off_ammonia);
    if !apart.is_empty() {
        let at = away_from_dung(parts, &order).unwrap_or(0);
        order.splice(at..at, apart);
    }
    order
}

/// The place in a cycle, which repeats, where what goes in touches no dung: the highest of them,
/// and within the browns rather than on the greens.
fn away_from_dung(parts: &[LayerItem], order: &[usize]) -> Option<usize> {
    let is_dung = |at: usize| parts[order[at]].layer == PatternLayer::Manure;
    let is_brown = |at: usize| parts[order[at]].layer == PatternLayer::Brown;
    let n = order.len();
    (0..n)
        .filter(|&at| !is_dung(at) && !is_dung((at + n - 1) % n))
        .max_by_key(|&at| (is_brown((at + n - 1) % n), at))
}

/// Whether a part lies under the first cycle alone, since every other place touches dung.
pub(super) fn lies_lowest(parts: &[LayerItem], order: &[usize], part: usize) -> bool {
    let others: Vec<usize> =
        order.iter().copied().filter(|&other| !parts[other].drives_off_ammonia).collect();
    parts[part].drives_off_ammonia && away_from_dung(parts, &others).is_none()
}

/// Twice the place in the pattern; odd for a layer that it does not name.
fn place(layer: PatternLayer, pattern: &[PatternLayer]) -> usize {
    let named = |layer: PatternLayer| pattern.iter().position(|&other| other == layer);
    if let Some(place) = named(layer) {
        return 2 * place + 2;
    }
    let before = USUAL.iter().take_while(|&&other| other != layer).filter_map(|&other| named(other)).max();
    before.map_or(1, |place| 2 * place + 3)
}

const fn stiffness(kind: Kind) -> u8 {
    match kind {
        Kind::Bulking => 0,
        Kind::Brown => 1,
        Kind::Green => 2,
        Kind::Household => 3,
        Kind::Manure => 4,
        Kind::Starter => 5,
        Kind::Mineral => 6,
        Kind::Liquid => 7,
    }
}
