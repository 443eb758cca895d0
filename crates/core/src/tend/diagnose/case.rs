//! What is known of a heap: what it was made of, what the model says of it, and what was logged.

use crate::mix::{Item, MixFigures};
use crate::plan::method::{Heat, Method};
use crate::stock::Figures;
use crate::stock::material::Material;
use crate::tend::entry::{Sign, Smell, SqueezeFeel, Tended};
use crate::tend::heat::{Hour, Start};
use crate::tend::now::Now;

/// Something logged, so many hours after the heap was built.
pub type Logged = (f64, Tended<Start>);

/// Some of a material in a heap.
#[derive(Debug, Clone, Copy)]
pub struct Stuff<'a> {
    /// How much, with which figures.
    pub item: Item,
    /// Its row of the table, if it has one.
    pub row: Option<&'a Material>,
}

/// A material that is at hand to mend a mix with.
#[derive(Debug, Clone, PartialEq)]
pub struct Helper {
    /// Its id.
    pub material: String,
    /// Its figures.
    pub figures: Figures,
}

/// What is known of a heap.
#[derive(Debug, Clone)]
pub struct Case<'a> {
    /// What it was made of and what was added since.
    pub stuff: Vec<Stuff<'a>>,
    /// The sums of that, with the water it was built with.
    pub mix: MixFigures,
    /// The way it is made.
    pub method: &'a Method,
    /// Room as it was built [m³].
    pub built_m3: f64,
    /// Height as it was built [cm], if that is known.
    pub built_cm: Option<f64>,
    /// How old it is [h].
    pub age_h: f64,
    /// Each hour of its course by the model, until now; may be empty.
    pub hours: Vec<Hour>,
    /// What is left of it.
    pub now: Option<Now>,
    /// Whether rain was kept off from the start.
    pub is_roofed: bool,
    /// Readings of the core that can be used, in order: hours after it was built, °C.
    pub core: Vec<(f64, f64)>,
    /// What was logged, in order.
    pub log: Vec<Logged>,
    /// Whether the heat that kills seeds was recorded.
    pub was_hot_for_seeds: bool,
    /// Dry brown stuff that is at hand.
    pub brown: Helper,
    /// Stuff rich in nitrogen that is at hand.
    pub green: Helper,
}

/// The air where nobody read it [°C].
const USUAL_AIR_C: f64 = 18.0;
/// Air over so long is what matters to a heap [h].
const AIR_H: f64 = 72.0;
/// What was read or felt longer ago says nothing of how warm it is now [h]; of an old heap, that changes
/// slowly, so large a share of its age.
const CORE_H: f64 = 60.0;
const CORE_SHARE: f64 = 0.1;
/// What was smelled or seen longer ago says nothing of now [h].
const SENSED_H: f64 = 9.0 * 24.0;
/// What belongs to one look at a heap lies within so long [h].
const ONE_LOOK_H: f64 = 12.0;
/// Rain so strong wets a heap that was felt dry [mm].
const WETTING_MM: f64 = 8.0;

impl Case<'_> {
    /// The mean of the air lately [°C]: as it was read beside the heap, else as the model has it.
    pub(in crate::tend) fn air_c(&self) -> f64 {
        let since = self.age_h - AIR_H;
        let last = self.hours.len().saturating_sub(AIR_H as usize);
        let hours = &self.hours[last..];
        if hours.is_empty() {
            return USUAL_AIR_C;
        }
        let mean = |sum: f64, count: usize| sum / count.max(1) as f64;
        let read: Vec<f64> = self
            .log
            .iter()
            .filter_map(|(at, what)| match what {
                Tended::Temperature { temp_c, place: crate::tend::entry::Spot::Air, .. } if *at >= since => {
                    Some(*temp_c)
                }
                _ => None,
            })
            .collect();
        if read.len() >= 2 {
            return mean(read.iter().sum(), read.len());
        }
        mean(hours.iter().map(|hour| hour.air_c).sum(), hours.len())
    }

    /// How warm the core was, by thermometer or stick, in order: hours, °C, and whether it was read.
    pub(in crate::tend) fn warmth(&self) -> Vec<(f64, f64, bool)> {
        let felt = self.log.iter().filter_map(|(at, what)| match what {
            Tended::Stick { feel } => {
                let [low, high] = feel.between_c();
                Some((*at, (low + high) / 2.0, false))
            }
            _ => None,
        });
        let mut all: Vec<_> = self.core.iter().map(|(at, temp)| (*at, *temp, true)).chain(felt).collect();
        all.retain(|(at, ..)| (0.0..=self.age_h).contains(at));
        all.sort_by(|a, b| a.0.total_cmp(&b.0));
        all
    }

    /// How warm it was last, if that is not long ago.
    pub(in crate::tend) fn newest(&self, warmth: &[(f64, f64, bool)]) -> Option<(f64, f64, bool)> {
        warmth.last().copied().filter(|(at, ..)| self.age_h - at <= CORE_H.max(CORE_SHARE * self.age_h))
    }

    /// Between which temperatures its method should have the core at an age [°C].
    pub(in crate::tend) fn expected_c(&self, age_h: f64) -> [f64; 2] {
        let day = age_h / 24.0;
        let mut before = (0.0, [10.0, 25.0]);
        for at in &self.method.expected {
            let here = (f64::from(at.day), [at.core_c.low(), at.core_c.high()]);
            if day < here.0 {
                let part = (day - before.0) / (here.0 - before.0);
                return [0, 1].map(|edge| before.1[edge] + part * (here.1[edge] - before.1[edge]));
            }
            before = here;
        }
        before.1
    }

    /// The age at which its method's hot time ends [h]: when the middle of what is expected falls below 45 °C
    /// for good, or, of a method that is never so warm, when it is no longer active.
    pub(in crate::tend) fn hot_until_h(&self) -> f64 {
        const HOT_C: f64 = 45.0;
        let last = self.method.expected.last().map_or(0.0, |at| f64::from(at.day)) * 24.0;
        let is_hot = |hour: f64| {
            let [low, high] = self.expected_c(hour);
            (low + high) / 2.0 >= HOT_C
        };
        let steps = (last / 12.0) as u32;
        let hot = (0..=steps).rev().map(|step| f64::from(step) * 12.0).find(|hour| is_hot(*hour));
        hot.unwrap_or_else(|| self.method.active_weeks.low() * 7.0 * 24.0)
    }

    /// Whether its method is to get hot at all.
    pub(in crate::tend) fn is_of_hot_method(&self) -> bool {
        matches!(self.method.heat, Heat::Hot | Heat::HotIfTurned)
    }

    /// When it was turned [h].
    pub(in crate::tend) fn turns(&self) -> Vec<f64> {
        let turn = |(at, what): &Logged| matches!(what, Tended::Turn { .. }).then_some(*at);
        self.log.iter().filter_map(turn).collect()
    }

    /// The newest handful that still says how wet it is: nothing was poured on since.
    pub(in crate::tend) fn squeeze(&self) -> Option<(f64, SqueezeFeel)> {
        let (at, feel) = self.log.iter().rev().find_map(|(at, what)| match what {
            Tended::Squeeze { feel, .. } => Some((*at, *feel)),
            _ => None,
        })?;
        let wetted = self.log.iter().filter(|(other, _)| *other > at).any(|(_, what)| match what {
            Tended::Water { .. } | Tended::Add { .. } => true,
            Tended::Rain { mm, .. } => *mm >= WETTING_MM,
            _ => false,
        });
        (!wetted && self.age_h - at <= SENSED_H).then_some((at, feel))
    }

    /// What it smelled of at the newest look, unless air was given since.
    pub(in crate::tend) fn smells(&self) -> Vec<(f64, Smell)> {
        let smelled = |(at, what): &Logged| match what {
            Tended::Smell { smell } => Some((*at, smell.clone())),
            _ => None,
        };
        let all: Vec<_> = self.log.iter().filter_map(smelled).collect();
        let Some(last) = all.last().map(|(at, _)| *at) else { return Vec::new() };
        let is_aired = self
            .log
            .iter()
            .any(|(at, what)| *at > last && matches!(what, Tended::Turn { .. } | Tended::Aerate { .. }));
        if is_aired || self.age_h - last > SENSED_H {
            return Vec::new();
        }
        let look = all.into_iter().filter(|(at, _)| last - at <= ONE_LOOK_H);
        look.flat_map(|(at, smells)| smells.into_iter().map(move |smell| (at, smell))).collect()
    }

    /// When a sign was seen last, unless what was done since made it old.
    pub(in crate::tend) fn seen(&self, sign: Sign) -> Option<f64> {
        let at = self.log.iter().rev().find_map(|(at, what)| match what {
            Tended::Seen { signs } if signs.contains(&sign) => Some(*at),
            _ => None,
        })?;
        // What shows what it has become stays true when it is turned.
        let lasts = matches!(sign, Sign::DarkCrumbly | Sign::Recognisable | Sign::Sprouts | Sign::Worms);
        let is_gone = self.log.iter().filter(|(other, _)| *other > at).any(|(_, what)| match what {
            Tended::Turn { .. } => !lasts,
            Tended::Cover { .. } => {
                matches!(sign, Sign::Flies | Sign::Rodents | Sign::ScrapsOnTop)
            }
            _ => false,
        });
        let old_h = if lasts { 2.5 * SENSED_H } else { SENSED_H };
        (!is_gone && self.age_h - at <= old_h).then_some(at)
    }

    /// Whether rain is kept off now.
    pub(in crate::tend) fn is_covered(&self) -> bool {
        self.log.iter().rev().find_map(|(_, what)| match what {
            Tended::Cover { .. } => Some(true),
            Tended::Uncover => Some(false),
            _ => None,
        }) == Some(true)
            || (self.is_roofed && !self.log.iter().any(|(_, what)| matches!(what, Tended::Uncover)))
    }

    /// Water, share of fresh mass [-]: of a handful that still says so, else as it is reckoned; none if neither.
    pub(in crate::tend) fn moisture(&self) -> Option<f64> {
        self.squeeze().map(|(_, feel)| feel.moisture()).or_else(|| self.now.map(|now| now.moisture.value))
    }

    /// Water that brings what is left to a moisture [L]: `W = d/(1 − M) − d/(1 − m)`; less than nothing if it
    /// is wetter than that.
    pub(in crate::tend) fn water_to_l(&self, aim: f64) -> Option<f64> {
        let (dry, moist) = (self.now?.dry_kg.value, self.moisture()?);
        Some(dry / (1.0 - aim) - dry / (1.0 - moist))
    }

    /// The mean of the air a day before and after an hour [°C].
    pub(in crate::tend) fn air_at_c(&self, at_h: f64) -> f64 {
        let near: Vec<f64> = self
            .hours
            .iter()
            .filter(|hour| (f64::from(hour.hour) - at_h).abs() <= 24.0)
            .map(|hour| hour.air_c)
            .collect();
        if near.is_empty() { self.air_c() } else { near.iter().sum::<f64>() / near.len() as f64 }
    }

    /// Room now [m³].
    pub(in crate::tend) fn volume_m3(&self) -> f64 {
        self.now.map_or(self.built_m3, |now| now.volume_m3.value)
    }
}
