//! The ways of composting: what each is made of, wants, does and gives.
//!
//! A method is a row of `data/methods.csv`: its windows and sizes, how it is
//! built, turned and wetted, how warm it should get at what age, and what is
//! left at the end. How hot it gets and whether it is turned also decides which
//! materials it cannot take (see [`caution`](crate::stock::caution)). Which method
//! suits a batch is in [`suit`](crate::plan::suit).
//!
//! # Source
//! The schools as practised; sizes and windows after Rynk 1992, On-Farm
//! Composting Handbook (NRAES-54), and FAO 1987, Soils Bulletin 56. Volume,
//! mass and nitrogen left are orders of size after Rynk 1992 and Bernal et al.
//! 2009, Bioresource Technology 100; their spread over the methods, and hours of
//! work with a fork, are our judgement.

pub mod own;
mod table;

use std::sync::LazyLock;

use crate::base::quantity::Band;
use crate::base::words::closed_list;
use crate::mix::window::Windows;
use crate::stock::material::Material;

closed_list! {
    /// How hot a method's heap gets.
    Heat {
        /// Hot throughout, since turning brings the outside in.
        Hot = "hot",
        /// Hot throughout only when the person turns it.
        HotIfTurned = "hot-if-turned",
        /// Warm inside; no proof against seed or disease.
        Warm = "warm",
        /// Not hot.
        Cool = "cool",
        /// Kept cool for worms.
        Worms = "worms",
    }
}

closed_list! {
    /// How often a method's heap is turned.
    Turned {
        /// As a rule of the method.
        Often = "often",
        /// Now and then, or not.
        Sometimes = "sometimes",
        /// Not ever.
        Never = "never",
    }
}

closed_list! {
    /// How the materials go in.
    Build {
        /// In repeated layers, built at once.
        Layers = "layers",
        /// Mixed first, then piled.
        Mixed = "mixed",
        /// Bit by bit, as they come.
        AsItComes = "as-it-comes",
    }
}

closed_list! {
    /// The kinds of container or pile.
    ShapeKind {
        /// A box or bay.
        Box = "box",
        /// A ring of mesh or boards.
        Ring = "ring",
        /// A free heap with sloping sides.
        Pile = "pile",
        /// A long rounded ridge.
        Windrow = "windrow",
        /// A drum standing up.
        Drum = "drum",
        /// A drum lying down.
        LyingDrum = "lying-drum",
        /// A tower with columns of air in it.
        Tower = "tower",
    }
}

closed_list! {
    /// When water goes on.
    Watering {
        /// While turning.
        AtTurns = "at-turns",
        /// On each layer, and then weekly if no rain falls.
        EachLayer = "each-layer",
        /// So that it never dries.
        KeepDamp = "keep-damp",
        /// On the sheets of card.
        DampSheets = "damp-sheets",
        /// Down the pipe in the middle.
        ThroughPipe = "through-pipe",
        /// A little every day.
        Daily = "daily",
        /// A little every week.
        LightlyWeekly = "lightly-weekly",
        /// Only if it is dry.
        IfDry = "if-dry",
        /// Sprinkled daily, by the squeeze test.
        SprinkleDaily = "sprinkle-daily",
        /// Hardly ever.
        Rarely = "rarely",
        /// Kept damp through and through.
        Damp = "damp",
    }
}

closed_list! {
    /// A layer of a method's pattern.
    PatternLayer {
        /// Dry, carbon-rich, and coarse stuff.
        Brown = "brown",
        /// Fresh greens and scraps.
        Green = "green",
        /// Dung.
        Manure = "manure",
        /// A sprinkle of soil or old compost.
        Soil = "soil",
        /// A sheet of damp plain card.
        Card = "card",
    }
}

closed_list! {
    /// What lets air into the middle of a heap.
    Vent {
        /// Nothing: it is turned, or small.
        None = "none",
        /// An arm-thick stick, pulled out once the heap stands; also its thermometer.
        Stick = "stick",
        /// A perforated pipe that stays in.
        Pipe = "pipe",
        /// Several perforated pipes or bundles of stalks.
        Columns = "columns",
    }
}

/// How warm the core should be at an age.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Expected {
    /// Days since it was built.
    pub day: u16,
    /// Low and high [°C].
    pub core_c: Band,
}

/// A method of composting.
#[derive(Debug, Clone, PartialEq)]
pub struct Method {
    /// Stable word.
    pub id: String,
    /// The way it was copied from, if it is a person's own.
    pub base: Option<String>,
    /// What a person calls it, if it is their own.
    pub name: Option<String>,
    /// How hot its heap gets.
    pub heat: Heat,
    /// How often it is turned.
    pub turned: Turned,
    /// How the materials go in.
    pub build: Build,
    /// The containers and piles it is built in, the usual one first.
    pub shapes: Vec<ShapeKind>,
    /// Sizes it works at, as heap volume [L].
    pub volume_l: Band,
    /// Heights it is built to [cm].
    pub height_cm: Band,
    /// Its window for C:N [-].
    pub c_n: Band,
    /// Its window for moisture, share of fresh mass [-].
    pub moisture: Band,
    /// Least free air space it aims for [-].
    pub free_air_space_min: f64,
    /// Least share of the loose volume that holds a frame once wet [-].
    pub structured_min: f64,
    /// How warm its core should be, by age.
    pub expected: Vec<Expected>,
    /// Day of the first turn; none if it is not turned by rule.
    pub first_turn_day: Option<u16>,
    /// Days between turns.
    pub turn_every_days: Option<Band>,
    /// When water goes on.
    pub water: Watering,
    /// Days between looks at it.
    pub check_days: Band,
    /// Weeks until it is no longer active.
    pub active_weeks: Band,
    /// The same if a method that may be turned is not.
    pub unturned_weeks: Option<Band>,
    /// Weeks of curing after that.
    pub cure_weeks: Band,
    /// Volume left at the end, share of the built heap [-].
    pub volume_left: Band,
    /// Dry matter left [-].
    pub mass_left: Band,
    /// Nitrogen kept [-].
    pub nitrogen_kept: Band,
    /// Hours of work to gather, chop and build [h/m³].
    pub build_h_m3: Band,
    /// Hours of work for one turn [h/m³].
    pub turn_h_m3: Option<Band>,
    /// The layers of one cycle, from below; none if it is mixed first.
    pub pattern: Vec<PatternLayer>,
    /// Coarse stuff below [cm].
    pub foundation_cm: f64,
    /// Dry stuff on top [cm].
    pub cap_cm: f64,
    /// What lets air into the middle.
    pub vent: Vent,
    /// Farthest that any point may be from air [cm].
    pub air_reach_cm: Option<f64>,
    /// Least coarse material, share of loose volume [-].
    pub coarse_min: Option<f64>,
    /// Its water must be free of chlorine.
    pub wants_open_water: bool,
    /// Whether it is for dry places: it is dug, and floods in the rains.
    pub for_dry_places: bool,
    /// What it is made for: ids or groups of materials, and the least of them
    /// together, share of loose volume [-].
    pub wants: Option<(Vec<String>, f64)>,
}

impl Method {
    /// Its windows.
    #[must_use]
    pub fn windows(&self) -> Windows {
        Windows::new(self.c_n, self.moisture, self.free_air_space_min).structured(self.structured_min)
    }

    /// Hours of work a week over its active time, after it is built, for a heap of a size [h].
    ///
    /// # Example
    /// Bays of 1.2 m³, turned every 7 to 14 days at 0.6 to 1 h/m³: about half an hour a week.
    /// ```
    /// let bays = zymarch_core::plan::method::find("bay-turned").expect("listed");
    /// let hours = bays.weekly_hours(1200.0);
    /// assert!((0.6..0.8).contains(&hours), "{hours}");
    /// ```
    #[must_use]
    pub fn weekly_hours(&self, volume_l: f64) -> f64 {
        /// A look at the heap, a stick pushed in and a squeeze [h].
        const LOOK_H: f64 = 0.1;
        let turning = match (self.turn_every_days, self.turn_h_m3) {
            (Some(every), Some(hours)) => 7.0 / every.middle() * hours.middle() * volume_l / 1000.0,
            _ => 0.0,
        };
        turning + LOOK_H * (7.0 / self.check_days.middle()).min(7.0)
    }

    /// Whether a material is of those it is made for.
    #[must_use]
    pub fn is_made_for(&self, material: &Material) -> bool {
        self.wants.as_ref().is_some_and(|(words, _)| {
            words.iter().any(|word| *word == material.id || word == material.group.as_str())
        })
    }

    /// Whether a word of the caution list means this method: its id, that of
    /// the way it was copied from, its heat,
    /// `never-turned`, or `all`.
    pub(crate) fn is_meant_by(&self, word: &str) -> bool {
        word == "all"
            || word == self.id
            || self.base.as_deref() == Some(word)
            || word == self.heat.as_str()
            || (word == "never-turned" && self.turned == Turned::Never)
    }
}

/// Every method, in the order of the data file.
///
/// # Example
/// ```
/// use zymarch_core::plan::method;
/// assert_eq!(method::all().len(), 15);
/// assert_eq!(method::find("worm-bin").map(|method| method.heat.as_str()), Some("worms"));
/// ```
#[must_use]
pub fn all() -> &'static [Method] {
    &LIST
}

/// The method of an id.
#[must_use]
pub fn find(id: &str) -> Option<&'static Method> {
    LIST.iter().find(|method| method.id == id)
}

static LIST: LazyLock<Vec<Method>> = LazyLock::new(|| {
    table::read(include_str!("../../data/methods.csv"))
        .expect("the shipped table is read by a test of this module")
});

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_list_reads_and_its_ids_are_unique() {
        table::read(include_str!("../../data/methods.csv")).unwrap_or_else(|bad| panic!("{bad}"));
        for (index, method) in all().iter().enumerate() {
            assert!(all()[index + 1..].iter().all(|other| other.id != method.id));
        }
    }

    #[test]
    fn every_row_hangs_together() {
        for method in all() {
            let id = &method.id;
            assert!(!method.shapes.is_empty(), "{id}");
            assert_eq!(method.build == Build::Layers, !method.pattern.is_empty(), "{id}");
            assert_eq!(method.turn_every_days.is_some(), method.first_turn_day.is_some(), "{id}");
            assert!(method.turn_every_days.is_none() || method.turn_h_m3.is_some(), "{id}");
            assert!(method.turned != Turned::Never || method.turn_every_days.is_none(), "{id}");
            assert!(method.expected.is_sorted_by(|a, b| a.day < b.day), "{id}");
            assert!(method.unturned_weeks.is_none() || method.turned == Turned::Sometimes, "{id}");
            // Turning loses nitrogen, and no method loses or keeps all.
            for left in [method.volume_left, method.mass_left, method.nitrogen_kept] {
                assert!(left.low() > 0.1 && left.high() < 1.0, "{id}");
            }
        }
    }

    #[test]
    fn what_a_method_is_made_for_is_in_the_reference_table() {
        for (method, word) in
            all().iter().flat_map(|m| m.wants.iter().flat_map(move |(w, _)| w.iter().map(move |w| (m, w))))
        {
            let known =
                crate::stock::material::all().iter().any(|row| row.id == *word || row.group.as_str() == word);
            assert!(known, "{}: {word}", method.id);
        }
    }

    #[test]
    fn hot_methods_are_expected_hot_and_are_large_enough_for_it() {
        for method in all() {
            let peak = method.expected.iter().map(|at| at.core_c.high()).fold(0.0, f64::max);
            match method.heat {
                Heat::Hot | Heat::HotIfTurned => {
                    assert!(peak >= 60.0, "{}", method.id);
                    assert!(method.volume_l.low() >= crate::plan::heap::SURE_HOT_VOLUME_L, "{}", method.id);
                }
                Heat::Worms => assert!(peak < 30.0, "{}", method.id),
                Heat::Warm | Heat::Cool => {}
            }
        }
    }

    #[test]
    fn words_mean_methods_by_id_heat_or_habit() {
        let tower = find("static-tower").expect("listed");
        for word in ["all", "static-tower", "warm", "never-turned"] {
            assert!(tower.is_meant_by(word), "{word}");
        }
        assert!(!tower.is_meant_by("cool"));
    }
}
