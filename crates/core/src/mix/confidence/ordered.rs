//! What stands at a place of many values, were they in order.

use multiversion::multiversion;

/// Stretches that the values are told apart by: a few of some thousand draws fall in each.
const STRETCHES: usize = 512;

/// Values that are passed over together where none of them is looked for.
const TOGETHER: usize = 32;

/// The values at some places of all of them in rising order, [`f32::total_cmp`]'s, without putting them in
/// it: they are counted in stretches, and only the stretch that holds the place is put in order.
pub(super) fn at_places<const N: usize>(values: &[f32], places: [usize; N]) -> [f32; N] {
    let (keys, stretches) = in_stretches(values);
    let mut counts = [0_usize; STRETCHES];
    stretches.iter().for_each(|&at| counts[usize::from(at) % STRETCHES] += 1);
    places.map(|place| {
        let (mut before, mut at) = (0, 0);
        while before + counts[usize::from(at)] <= place {
            before += counts[usize::from(at)];
            at += 1;
        }
        let mut among = Vec::with_capacity(counts[usize::from(at)]);
        for (stretches, keys) in stretches.chunks(TOGETHER).zip(keys.chunks(TOGETHER)) {
            if stretches.contains(&at) {
                let of = keys.iter().zip(stretches).filter(|(_, stretch)| **stretch == at);
                among.extend(of.map(|(key, _)| *key));
            }
        }
        let (_, key, _) = among.select_nth_unstable(place - before);
        f32::from_bits(turned(*key).cast_unsigned())
    })
}

/// The values as whole numbers that rise with them, and the stretch that each lies in.
#[multiversion(targets("x86_64+avx2"))]
fn in_stretches(values: &[f32]) -> (Vec<i32>, Vec<u16>) {
    let keys: Vec<i32> = values.iter().map(|value| turned(value.to_bits().cast_signed())).collect();
    let (mut least, mut most) = (i32::MAX, i32::MIN);
    for &key in &keys {
        (least, most) = (least.min(key), most.max(key));
    }
    // As few bits as leave no more stretches than there is room for.
    let bits = u32::BITS - most.abs_diff(least).leading_zeros();
    let fine = bits.saturating_sub(STRETCHES.ilog2());
    let stretches = keys.iter().map(|key| (key.wrapping_sub(least).cast_unsigned() >> fine) as u16);
    let stretches = stretches.collect();
    (keys, stretches)
}

/// The bits of a number as a whole number that rises with it, and back: those below nought fall with it.
const fn turned(bits: i32) -> i32 {
    if bits < 0 { bits ^ i32::MAX } else { bits }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn what_stands_at_a_place_is_what_a_sort_puts_there(
            values in prop::collection::vec(prop_oneof![
                0.0_f32..60.0, -1e-6_f32..1e-6, Just(7.0_f32), prop::num::f32::ANY,
            ], 1..300),
            place in any::<prop::sample::Index>(),
        ) {
            let (first, second) = (place.index(values.len()), values.len() - 1 - place.index(values.len()));
            let mut sorted = values.clone();
            sorted.sort_by(f32::total_cmp);
            let found = at_places(&values, [first, second]);
            prop_assert_eq!(found.map(f32::to_bits), [sorted[first], sorted[second]].map(f32::to_bits));
        }
    }
}
