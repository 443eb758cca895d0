//! What has to be ready before the first layer: chopping, soaking, water, what is
//! still to be fetched, tools, the site and hands.
//!
//! # Source
//! Rynk 1992, On-Farm Composting Handbook (NRAES-54), on siting and on particle
//! size; FAO 1987, Soils Bulletin 56, on building layered heaps. The distance to
//! wells and streams is the usual one; a local rule comes first.

use crate::base::words::closed_list;
use crate::plan::heap::{Shape, foundation_l};
use crate::plan::layers::LayerItem;
use crate::plan::method::{Build, Method, PatternLayer, ShapeKind, Turned, Vent};
use crate::plan::starter::{Hazard, Starter};
use crate::plan::suit::CHOPPING_H_M3;
use crate::stock::caution::Kit;
use crate::stock::material::{Kind, Material, Particle};

/// Distance to wells and streams, where no local rule says otherwise [m].
pub const FROM_WATER_M: f64 = 30.0;

/// Drier than this a brown sheds water when it is laid, and is better soaked [-].
const SHEDS_WATER: f64 = 0.2;

/// Sappier than this is better wilted where the mix is wet enough [-]. Our judgement.
const WILTS_ABOVE: f64 = 0.7;

/// Two dry days take the worst of the water off.
const WILTING_DAYS: u8 = 2;

/// What a mask is worn against, in making a starter.
const DUSTY: [Hazard; 3] = [Hazard::Dust, Hazard::Spores, Hazard::Char];

/// How short long stuff is chopped, least and most [cm]: shorter where it is mixed and turned often.
const CHOPPED_CM: (f64, f64) = (5.0, 15.0);
/// See [`CHOPPED_CM`].
const CHOPPED_FINE_CM: (f64, f64) = (2.0, 5.0);

/// A working morning [h].
const MORNING_H: f64 = 4.0;

closed_list! {
    /// What is to be done or had, in the order of the list.
    Job {
        /// More of a lot is needed than there is.
        Fetch = "fetch",
        /// Twigs or stalks for the ground.
        FetchTwigs = "fetch-twigs",
        /// Something dry to lie on top.
        FetchCover = "fetch-cover",
        /// Something spoils before build day.
        Spoils = "spoils",
        /// Wet stuff wilts first.
        Wilt = "wilt",
        /// Long stuff is chopped.
        Chop = "chop",
        /// Dry stuff is soaked through.
        Soak = "soak",
        /// Tap water stands open, in case it is chlorinated.
        StandWater = "stand-water",
        /// Water is at hand.
        Water = "water",
        /// Far enough from wells and streams.
        FarFromWater = "far-from-water",
        /// Level, drained and in shade.
        LevelAndShade = "level-and-shade",
        /// On open soil.
        OpenSoil = "open-soil",
        /// Something under a drum that catches what runs out.
        CatchLiquid = "catch-liquid",
        /// A trench around it that leads rain off.
        Trench = "trench",
        /// Not where people sit, and not against a wall that burns.
        AwayFromPeople = "away-from-people",
        /// Fork and chopping knife.
        Fork = "fork",
        /// Sticks for air, one of them the thermometer.
        Sticks = "sticks",
        /// Perforated pipes.
        Pipes = "pipes",
        /// A pallet for air from below.
        Pallet = "pallet",
        /// A drill and mesh against flies.
        DrillAndMesh = "drill-and-mesh",
        /// A clean floor or a sheet to mix on.
        MixingFloor = "mixing-floor",
        /// A cover against rain and sun.
        Cover = "cover",
        /// Gloves, and soap for after.
        Gloves = "gloves",
        /// A mask against dust or spores.
        Mask = "mask",
        /// People for a morning.
        People = "people",
    }
}

/// One thing to be ready.
#[derive(Debug, Clone, PartialEq)]
pub struct Need {
    /// What.
    pub job: Job,
    /// Days before build day by which it is done.
    pub days_before: u8,
    /// The part of the mix it is about, by its place.
    pub item: Option<usize>,
    /// Numbers of its sentence.
    pub params: Vec<(&'static str, f64)>,
}

/// A heap that is to be built.
#[derive(Debug, Clone, Copy)]
pub struct Planned<'a> {
    /// What goes in, with its material where that is known, and what is missing of it in the unit it is said in.
    pub parts: &'a [(LayerItem, Option<&'a Material>, f64)],
    /// Water of the mix [L].
    pub water_l: f64,
    /// The mix, as it settles [L].
    pub heap_volume_l: f64,
    /// The heap.
    pub shape: Shape,
    /// How many of them alike hold the mix.
    pub heaps: u32,
    /// What is laid below and above the mix in one of them [L].
    pub beside_l: f64,
    /// The way it is composted.
    pub method: Option<&'a Method>,
    /// Days from today that each part keeps, in their order; none of what lasts. Below zero when past.
    pub keeps_days: &'a [Option<i64>],
    /// Days from today until build day.
    pub days: i64,
    /// The starters chosen, with how much of each is made, in its unit.
    pub starters: &'a [(&'a Starter, f64)],
}

/// Everything that has to be ready, what takes longest first within each kind of work.
#[must_use]
pub fn needs(planned: &Planned) -> Vec<Need> {
    let mut needs = materials(planned);
    needs.extend(water(planned));
    needs.extend(site(planned));
    needs.extend(tools(planned));
    needs.extend(hands(planned));
    needs
}

const fn need(job: Job, days_before: u8) -> Need {
    Need { job, days_before, item: None, params: Vec::new() }
}

impl Need {
    fn of(mut self, item: usize) -> Self {
        self.item = Some(item);
        self
    }

    fn with(mut self, params: &[(&'static str, f64)]) -> Self {
        self.params = params.to_vec();
        self
    }
}

fn materials(planned: &Planned) -> Vec<Need> {
    let mut needs = Vec::new();
    for (item, (_, _, missing)) in planned.parts.iter().enumerate() {
        if *missing > 1e-6 {
            needs.push(need(Job::Fetch, 1).of(item).with(&[("missing", *missing)]));
        }
    }
    needs.extend(spoils(planned));
    needs.extend(wilts(planned));
    let heaps = f64::from(planned.heaps);
    let foundation = foundation_l(planned.shape, planned.method);
    if foundation > 0.0 {
        needs.push(need(Job::FetchTwigs, 1).with(&[("litres", foundation * heaps)]));
    }
    let cover = planned.beside_l - foundation;
    if cover > 1.0 {
        needs.push(need(Job::FetchCover, 1).with(&[("litres", cover * heaps)]));
    }
    let is_fine =
        planned.method.is_some_and(|method| method.turned == Turned::Often && method.build == Build::Mixed);
    let is_soaked = planned.method.is_some_and(|method| method.wants_open_water);
    for (item, (part, _, _)) in planned.parts.iter().enumerate() {
        let is_structure = part.kind == Kind::Bulking;
        if part.item.figures.particle == Some(Particle::Coarse) && !is_structure {
            let (low_cm, high_cm) = if is_fine { CHOPPED_FINE_CM } else { CHOPPED_CM };
            let m3 = part.item.volume_l() / 1000.0;
            let (low_h, high_h) = CHOPPING_H_M3;
            let params = [
                ("low_cm", low_cm),
                ("high_cm", high_cm),
                ("hours_low", low_h * m3),
                ("hours_high", high_h * m3),
            ];
            needs.push(need(Job::Chop, 1).of(item).with(&params));
        }
        let is_dry = part.item.figures.moisture.value.get() < SHEDS_WATER;
        let is_sheet = part.layer == PatternLayer::Card;
        if is_dry && (is_sheet || (is_soaked && part.layer == PatternLayer::Brown)) {
            needs.push(need(Job::Soak, 1).of(item));
        }
    }
    needs
}

/// What will have spoiled by build day: to be used before, or gathered anew.
fn spoils(planned: &Planned) -> impl Iterator<Item = Need> {
    planned.keeps_days.iter().enumerate().filter_map(|(item, keeps)| {
        let keeps = keeps.filter(|&keeps| keeps < planned.days)?;
        let before = u8::try_from(planned.days - keeps.max(0)).unwrap_or(u8::MAX);
        Some(need(Job::Spoils, before).of(item).with(&[("days", keeps as f64)]))
    })
}

/// Sappy stuff that brings more water than the mix wants: where none is poured, some is better lost.
fn wilts(planned: &Planned) -> impl Iterator<Item = Need> {
    let is_wet = planned.water_l < 1.0;
    planned.parts.iter().enumerate().filter_map(move |(item, (part, ..))| {
        let figures = &part.item.figures;
        let is_sappy =
            figures.moisture.value.get() > WILTS_ABOVE && figures.wilts && part.kind != Kind::Manure;
        (is_wet && is_sappy).then(|| {
            let params = [("moisture_pct", figures.moisture.value.get() * 100.0)];
            need(Job::Wilt, WILTING_DAYS).of(item).with(&params)
        })
    })
}

fn water(planned: &Planned) -> Vec<Need> {
    let for_starters: f64 = planned
        .starters
        .iter()
        .flat_map(|(starter, make)| starter.ingredients.iter().map(move |one| (one, make)))
        .filter(|(one, _)| one.is_water())
        .map(|(one, make)| one.each.middle() * make)
        .sum();
    // What is brewed is poured on the heap: it is part of its water, not on top of it.
    let litres = planned.water_l.max(for_starters);
    if litres < 0.5 {
        return Vec::new();
    }
    let mut needs = vec![need(Job::Water, 0).with(&[("litres", litres), ("in_starters", for_starters)])];
    // Chlorine does an ordinary heap no harm.
    if planned.method.is_some_and(|method| method.wants_open_water) || for_starters > 0.0 {
        let living =
            if planned.method.is_some_and(|method| method.wants_open_water) { litres } else { for_starters };
        needs.push(need(Job::StandWater, 2).with(&[("litres", living)]));
    }
    needs
}

fn site(planned: &Planned) -> Vec<Need> {
    let kind = planned.shape.kind();
    let is_drum = matches!(kind, ShapeKind::Drum | ShapeKind::LyingDrum);
    let mut needs =
        vec![need(Job::FarFromWater, 1).with(&[("metres", FROM_WATER_M)]), need(Job::LevelAndShade, 1)];
    if is_drum {
        needs.push(need(Job::CatchLiquid, 1));
    } else if kind != ShapeKind::Tower {
        needs.push(need(Job::OpenSoil, 1));
    }
    if matches!(kind, ShapeKind::Pile | ShapeKind::Windrow) {
        needs.push(need(Job::Trench, 1));
    }
    needs.push(need(Job::AwayFromPeople, 1));
    needs
}

fn tools(planned: &Planned) -> Vec<Need> {
    let kind = planned.shape.kind();
    let mut needs = vec![need(Job::Fork, 0)];
    match planned.method.map_or(Vent::None, |method| method.vent) {
        Vent::None => {}
        Vent::Stick => needs.push(need(Job::Sticks, 0)),
        Vent::Pipe | Vent::Columns => {
            let pipes = crate::plan::heap::pipes_in(planned.shape, planned.method);
            if pipes > 0 {
                needs.push(need(Job::Pipes, 1).with(&[("n", f64::from(pipes) * f64::from(planned.heaps))]));
            }
        }
    }
    if kind == ShapeKind::Tower {
        needs.push(need(Job::Pallet, 1));
    }
    if kind == ShapeKind::Drum {
        needs.push(need(Job::DrillAndMesh, 1));
    }
    if planned.method.is_some_and(|method| method.build == Build::Mixed) {
        needs.push(need(Job::MixingFloor, 0));
    }
    if !matches!(kind, ShapeKind::Drum | ShapeKind::LyingDrum) {
        needs.push(need(Job::Cover, 0));
    }
    needs.push(need(Job::Gloves, 0));
    let is_dusty = planned.parts.iter().any(|(_, material, _)| {
        material
            .is_some_and(|material| material.cautions.iter().any(|caution| caution.kit == Some(Kit::Mask)))
    }) || planned
        .starters
        .iter()
        .any(|(starter, _)| starter.hazards.iter().any(|hazard| DUSTY.contains(hazard)));
    if is_dusty {
        needs.push(need(Job::Mask, 0));
    }
    needs
}

/// People for one morning, from the hours of work that the method takes for each m³.
fn hands(planned: &Planned) -> Option<Need> {
    let method = planned.method?;
    let hours = method.build_h_m3.middle() * planned.heap_volume_l / 1000.0;
    let people = (hours / MORNING_H).ceil().max(1.0);
    Some(need(Job::People, 1).with(&[("n", people), ("hours", hours)]))
}

#[cfg(test)]
mod tests;
