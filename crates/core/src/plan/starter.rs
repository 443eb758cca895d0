//! Starters: what can be stirred in to help a heap begin, and when to prepare it.
//!
//! A balanced, moist, airy heap starts by itself; starters help mostly where the
//! feed is poor in life, and some are disputed. Each is a row of
//! `data/starters.csv`, with its ingredients and steps in two tables beside it.
//! [`plan`] scales one to a heap and schedules it back from build day.
//!
//! # Source
//! Mature compost and dung slurry as practised (FAO 1987, Soils Bulletin 56).
//! On inoculants and how little of it could be shown: Golueke, Card & McGauhey
//! 1954, Applied Microbiology 2; Rynk 1992, On-Farm Composting Handbook
//! (NRAES-54). Recipes of ferments are farm practice; their amounts are orders
//! of size.

mod table;

use std::sync::LazyLock;

use crate::base::quantity::Band;
use crate::base::words::closed_list;
use crate::mix::MixFigures;
use crate::plan::layers::LayerItem;
use crate::stock::material::Kind;

closed_list! {
    /// What a starter is for.
    Purpose {
        /// To begin a heap.
        Build = "build",
        /// To use finished compost.
        Use = "use",
    }
}

closed_list! {
    /// What a starter is measured by.
    Per {
        /// Litres of heap.
        HeapVolume = "heap-volume",
        /// Litres of the water that goes into the mix.
        Water = "water",
        /// Kilograms of dry matter of the browns.
        DryBrowns = "dry-browns",
        /// Kilograms of the whole mix.
        WetMass = "wet-mass",
        /// Nothing of a heap.
        None = "none",
    }
}

closed_list! {
    /// How a starter is measured out.
    StarterUnit {
        /// Litres.
        Litre = "litre",
        /// Kilograms.
        Kg = "kg",
    }
}

closed_list! {
    /// How well it is shown that it helps.
    Evidence {
        /// Shown in some trials and not in others.
        Some = "some",
        /// Much practised, little tested.
        Little = "little",
        /// Tested with answers that contradict each other.
        Disputed = "disputed",
    }
}

closed_list! {
    /// What to beware of in making or handling it.
    Hazard {
        /// Fine dust.
        Dust = "dust",
        /// Raw dung.
        Dung = "dung",
        /// Urine.
        Urine = "urine",
        /// Gas that presses in a closed container.
        Gas = "gas",
        /// Spores that are breathed in.
        Spores = "spores",
        /// Charcoal dust, and embers.
        Char = "char",
        /// Only from compost that was shown hot, and not on leaves eaten raw.
        HotCompostOnly = "hot-compost-only",
    }
}

closed_list! {
    /// Something to be done on the way to a starter.
    Chore {
        /// Dung is stirred into water.
        StirIn = "stir-in",
        /// The barrel is filled and covered with a cloth.
        Fill = "fill",
        /// It is stirred.
        Stir = "stir",
        /// Coarse stuff is strained off.
        Strain = "strain",
        /// It is mixed and closed.
        Close = "close",
        /// The lid is opened for a moment.
        Vent = "vent",
        /// It is smelled at.
        Smell = "smell",
        /// It is sprinkled on the layers.
        Sprinkle = "sprinkle",
        /// It is scattered on the layers.
        Scatter = "scatter",
        /// Charcoal is wetted, so that it does not dust.
        WetChar = "wet-char",
        /// Air is bubbled through it.
        Bubble = "bubble",
        /// It is used at once.
        UseAtOnce = "use-at-once",
    }
}

/// What goes into a starter.
#[derive(Debug, Clone, PartialEq)]
pub struct Ingredient {
    /// Stable word.
    pub id: String,
    /// How much, for one unit of the starter.
    pub each: Band,
    /// In what it is measured.
    pub unit: StarterUnit,
    /// Ids or groups of materials that can stand for it; none if it is bought or made.
    pub stock: Vec<String>,
}

impl Ingredient {
    /// Whether it is plain water, which is carried with that of the heap.
    #[must_use]
    pub fn is_water(&self) -> bool {
        self.id == WATER && self.unit == StarterUnit::Litre
    }
}

/// The ingredient that is plain water.
const WATER: &str = "water";

/// A step, and when it is done.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TimedStep {
    /// What.
    pub step: Chore,
    /// From when it is ready, or else from its start.
    pub from_ready: bool,
    /// Until it is ready, or else only then.
    pub to_ready: bool,
    /// How often a day, if it is repeated.
    pub times_a_day: Option<f64>,
}

/// A starter.
#[derive(Debug, Clone, PartialEq)]
pub struct Starter {
    /// Stable word.
    pub id: String,
    /// What it is for.
    pub purpose: Purpose,
    /// What it is measured by.
    pub per: Per,
    /// So much of it for one of that.
    pub rate: Band,
    /// In what it is measured.
    pub unit: StarterUnit,
    /// Days until it is ready.
    pub ready_days: Band,
    /// Days that it keeps then; none if it keeps.
    pub keeps_days: Option<f64>,
    /// How well it is shown to help.
    pub evidence: Evidence,
    /// What to beware of.
    pub hazards: Vec<Hazard>,
    /// What goes in.
    pub ingredients: Vec<Ingredient>,
    /// What is done, in order.
    pub steps: Vec<TimedStep>,
}

/// A heap, as far as starters are measured by it.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct HeapNeeds {
    /// Settled volume [L].
    pub volume_l: f64,
    /// Water that goes into the mix [L].
    pub water_l: f64,
    /// Dry matter of its browns [kg].
    pub dry_browns_kg: f64,
    /// Fresh mass, water included [kg].
    pub wet_mass_kg: f64,
}

impl HeapNeeds {
    /// A mix, in the parts it is laid in, with its water [L].
    #[must_use]
    pub fn of(parts: &[LayerItem], mix: &MixFigures, water_l: f64) -> Self {
        let is_brown = |part: &&LayerItem| matches!(part.kind, Kind::Brown | Kind::Bulking);
        Self {
            volume_l: mix.heap_volume_l,
            water_l,
            dry_browns_kg: parts.iter().filter(is_brown).map(|part| part.item.dry_matter_kg()).sum(),
            wet_mass_kg: mix.wet_mass_kg,
        }
    }
}

/// The first day, from today, on which all of these are sure to be ready: tomorrow at the soonest.
#[must_use]
pub fn soonest(starters: &[&Starter]) -> i32 {
    starters.iter().map(|one| one.ready_days.high() as i32).fold(1, i32::max)
}

closed_list! {
    /// Whether a starter is ready on build day.
    Timing {
        /// If it is begun on the day named.
        InTime = "in-time",
        /// If it is begun today, and it is warm.
        JustInTime = "just-in-time",
        /// It is not.
        TooLate = "too-late",
    }
}

/// A task, on days counted from today.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Task {
    /// What.
    pub step: Chore,
    /// First day.
    pub from_day: i32,
    /// Last day.
    pub to_day: i32,
    /// How often a day, if it is repeated.
    pub times_a_day: Option<f64>,
}

/// A starter for a heap, on days counted from today.
#[derive(Debug, Clone, PartialEq)]
pub struct Schedule {
    /// How much is made, in its unit.
    pub make: Band,
    /// What goes in, by its place in the starter's list.
    pub ingredients: Vec<Band>,
    /// Whether it is ready on build day.
    pub timing: Timing,
    /// Day it is begun.
    pub start_day: i32,
    /// Day it is sure to be ready.
    pub ready_day: i32,
    /// Last day to use it; none if it keeps.
    pub use_by_day: Option<i32>,
    /// What is to be done, in order.
    pub tasks: Vec<Task>,
}

/// Scales a starter to a heap and schedules it back from build day, so many days from today.
///
/// It is begun as late as it is sure to be ready; if that has passed, today, and
/// then it is ready in time at best. One that cannot be ready is scheduled from
/// today, so that it is seen when the heap could be built with it.
///
/// # Example
/// A ferment of 5 to 7 days for a heap built in 8: it is begun tomorrow, and
/// keeps ten days. For 160 kg of dry browns 40 to 80 L are made.
/// ```
/// use zymarch_core::plan::starter::{self, HeapNeeds, Timing};
/// let ferment = starter::find("farm-ferment").expect("listed");
/// let heap = HeapNeeds { dry_browns_kg: 160.0, ..HeapNeeds::default() };
/// let plan = starter::plan(ferment, &heap, 8);
/// assert_eq!((plan.timing, plan.start_day, plan.ready_day), (Timing::InTime, 1, 8));
/// assert_eq!(plan.use_by_day, Some(18));
/// assert_eq!((plan.make.low(), plan.make.high()), (40.0, 80.0));
/// assert_eq!(starter::plan(ferment, &heap, 3).timing, Timing::TooLate);
/// ```
#[must_use]
pub fn plan(starter: &Starter, heap: &HeapNeeds, build_day: i32) -> Schedule {
    let measured = match starter.per {
        Per::HeapVolume => heap.volume_l,
        Per::Water => heap.water_l,
        Per::DryBrowns => heap.dry_browns_kg,
        Per::WetMass => heap.wet_mass_kg,
        Per::None => 0.0,
    };
    let scaled = |band: Band, by: f64| Band::fixed(band.low() * by, band.high() * by);
    let make = scaled(starter.rate, measured);
    let (soonest, surely) = (starter.ready_days.low() as i32, starter.ready_days.high() as i32);
    let (timing, start_day) = if build_day >= surely {
        (Timing::InTime, build_day - surely)
    } else if build_day >= soonest {
        (Timing::JustInTime, 0)
    } else {
        (Timing::TooLate, 0)
    };
    // Begun today and needed before it is sure: it is looked at on build day.
    let ready_day = if timing == Timing::JustInTime { build_day } else { start_day + surely };
    let day = |is_ready: bool| if is_ready { ready_day } else { start_day };
    Schedule {
        make,
        ingredients: starter
            .ingredients
            .iter()
            .map(|one| Band::fixed(one.each.low() * make.middle(), one.each.high() * make.middle()))
            .collect(),
        timing,
        start_day,
        ready_day,
        use_by_day: starter.keeps_days.map(|keeps| ready_day + keeps as i32),
        tasks: starter
            .steps
            .iter()
            .map(|timed| Task {
                step: timed.step,
                from_day: day(timed.from_ready),
                to_day: day(timed.to_ready),
                times_a_day: timed.times_a_day,
            })
            .collect(),
    }
}

/// Every starter, in the order of the data file.
#[must_use]
pub fn all() -> &'static [Starter] {
    &LIST
}

/// The starter of an id.
#[must_use]
pub fn find(id: &str) -> Option<&'static Starter> {
    LIST.iter().find(|starter| starter.id == id)
}

static LIST: LazyLock<Vec<Starter>> =
    LazyLock::new(|| table::read().expect("the shipped tables are read by a test of this module"));

#[cfg(test)]
mod tests;
