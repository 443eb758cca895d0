//! The hours of a course as they are kept: half the room, and exact to the seventh digit, which is far beyond
//! what a model knows. Fifty heaps of a season would else hold more than all the rest of the program.

use zymarch_core::tend::heat::Hour;

/// The figures of an hour beside its number.
const FIGURES: usize = 19;

/// Hours, one after another.
#[derive(Debug, Clone)]
pub(crate) struct PackedHours {
    first: u32,
    figures: Box<[[f32; FIGURES]]>,
}

impl PackedHours {
    /// Packs hours that follow each other without a gap.
    pub(super) fn of(hours: &[Hour]) -> Self {
        debug_assert!(hours.windows(2).all(|two| two[0].hour + 1 == two[1].hour), "a gap");
        let first = hours.first().map_or(0, |hour| hour.hour);
        Self { first, figures: hours.iter().map(packed).collect() }
    }

    /// How many there are.
    pub(crate) const fn len(&self) -> usize {
        self.figures.len()
    }

    /// The last of them.
    pub(crate) fn last(&self) -> Option<Hour> {
        self.each().last()
    }

    /// One after another.
    pub(crate) fn each(&self) -> impl DoubleEndedIterator<Item = Hour> + ExactSizeIterator + '_ {
        self.figures.iter().enumerate().map(|(nth, figures)| unpacked(self.first + nth as u32, figures))
    }

    /// All of them.
    pub(crate) fn all(&self) -> Vec<Hour> {
        self.each().collect()
    }
}

fn packed(of: &Hour) -> [f32; FIGURES] {
    [
        of.temp_c[0],
        of.temp_c[1],
        of.air_c,
        of.zone_moisture[0],
        of.zone_moisture[1],
        of.moisture,
        of.free_air[0],
        of.free_air[1],
        of.c_n,
        of.wet_kg,
        of.dry_kg,
        of.volume_m3,
        of.height_m,
        of.n_lost_kg,
        of.chimney_kg_h,
        of.oxygen[0],
        of.oxygen[1],
        of.shortage,
        of.uptake,
    ]
    .map(|figure| figure as f32)
}

fn unpacked(hour: u32, figures: &[f32; FIGURES]) -> Hour {
    let [
        core_c,
        shell_c,
        air_c,
        core_wet,
        shell_wet,
        moisture,
        core_free,
        shell_free,
        c_n,
        wet_kg,
        dry_kg,
        volume_m3,
        height_m,
        n_lost_kg,
        chimney_kg_h,
        core_oxygen,
        shell_oxygen,
        shortage,
        uptake,
    ] = figures.map(f64::from);
    Hour {
        hour,
        temp_c: [core_c, shell_c],
        air_c,
        zone_moisture: [core_wet, shell_wet],
        moisture,
        free_air: [core_free, shell_free],
        c_n,
        wet_kg,
        dry_kg,
        volume_m3,
        height_m,
        n_lost_kg,
        chimney_kg_h,
        oxygen: [core_oxygen, shell_oxygen],
        shortage,
        uptake,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// An hour of which every figure is another.
    fn hour(number: u32) -> Hour {
        let figures = std::array::from_fn(|nth| 1.0 / 3.0 + nth as f32 + 100.0 * number as f32);
        unpacked(number, &figures)
    }

    #[test]
    fn an_hour_comes_out_as_it_went_in() {
        let hours: Vec<Hour> = (7..10).map(hour).collect();
        let kept = PackedHours::of(&hours);
        assert_eq!(kept.all(), hours);
        assert_eq!((kept.len(), kept.last()), (3, Some(hours[2])));
        assert_eq!(PackedHours::of(&[]).last(), None);
    }
}
