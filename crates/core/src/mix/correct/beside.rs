//! What mends a mix without anything going in: drying, draining, soaking, chopping, less water.

use super::{Act, Correction, Ranked, Sums};
use crate::base::quantity::Band;
use crate::mix::window::{Flaw, Windows};
use crate::mix::{Item, MixFigures, Totals, sum, water_to_add};

/// From this moisture on something wilts or drains worth the work, share of fresh mass [-].
const WET: f64 = 0.65;

/// Wilted to here it is limp and dry to the hand; drying on is making hay [-].
const WILTED: f64 = 0.50;

/// Share of its water that runs off a dripping thing in a day [-]. Our judgement.
const RUNS_OFF: f64 = 0.10;

/// From this moisture on it drips, share of fresh mass [-].
const DRIPS: f64 = 0.80;

/// Share of its water that a thin layer gives off in a day of mild weather [1/d], slow and
/// fast: under cloud, and in sun and wind.
///
/// # Source
/// Drying falls off exponentially with the water that is left (Rotz & Chen 1985, Alfalfa
/// drying model for the field environment, Transactions of the ASAE 28); cut green wilts
/// from 80 to 60 % in one to two fair days.
const DRIES_A_DAY: (f64, f64) = (0.35, 0.80);

/// The mild weather these hold for [°C]; drying doubles for each ten degrees.
const MILD_C: f64 = 18.0;

/// Below this something is dry enough to stand in water first [-].
const DRY: f64 = 0.30;

/// A day of waiting weighs as much as this many margins left wrong.
const EFFORT_A_DAY: f64 = 0.15;

pub(super) fn beside(sums: &Sums<'_>, flaw: Flaw) -> Vec<Ranked> {
    match flaw {
        Flaw::TooDry => [water(sums), soak(sums)].into_iter().flatten().collect(),
        Flaw::TooWet | Flaw::TooDense => {
            [less_water(sums), drain(sums), wilt(sums)].into_iter().flatten().collect()
        }
        Flaw::TooGreen | Flaw::TooBrown => chop(sums).into_iter().collect(),
        Flaw::Packs => Vec::new(),
    }
}

/// Water to the middle: it is at hand and light work, so it stands first.
fn water(sums: &Sums<'_>) -> Option<Ranked> {
    let windows = sums.asked.windows;
    let line = sums.line(Flaw::TooDry, &Totals::of_water(1.0), windows.moisture().middle());
    let litres = line.result;
    let after = (litres > 0.0).then(|| with_water(sums, litres))??;
    sums.rank(&after, 0.0)?;
    Some((f64::NEG_INFINITY, Correction { line: Some(line), ..sums.done(Act::Water, litres, after, 0.0) }))
}

/// The dry frame of the heap stood in water overnight, so that it does not shed what is poured.
fn soak(sums: &Sums<'_>) -> Option<Ranked> {
    let windows = sums.asked.windows;
    let need = water_to_add(sums.mix.dry_kg, sums.mix.mass_kg(), windows.moisture()).aim;
    let room = |item: &Item| (item.held_kg().unwrap_or(0.0) - item.water_kg()).max(0.0);
    let is_dry = |item: &Item| {
        item.figures.moisture.value.get() < DRY && item.is_framed() && item.figures.wet_max.is_some()
    };
    let items = places(sums, |item| is_dry(item) && item.dry_matter_kg() > 0.0);
    let kg = need.min(items.iter().map(|&at| room(&sums.asked.items[at])).sum());
    let after = (kg > 0.0).then(|| with_water(sums, kg))??;
    let rank = sums.rank(&after, EFFORT_A_DAY)?;
    Some((rank, Correction { items, days: Band::new(0.5, 1.0).ok(), ..sums.done(Act::Soak, kg, after, 0.0) }))
}

/// Poured water that stays out.
fn less_water(sums: &Sums<'_>) -> Option<Ranked> {
    let windows = sums.asked.windows;
    let line = sums.to_lose(windows.moisture().middle());
    let litres = line.result.min(sums.asked.water_l);
    let after = (litres > 0.0).then(|| with_water(sums, -litres))??;
    let rank = sums.rank(&after, 0.0)?;
    Some((rank, Correction { line: Some(line), ..sums.done(Act::LessWater, litres, after, 0.0) }))
}

/// What drips, on a slope or a rack for a day.
fn drain(sums: &Sums<'_>) -> Option<Ranked> {
    let items = places(sums, |item| {
        item.figures.moisture.value.get() >= DRIPS && !item.is_poured() && !item.figures.inert
    });
    let water: f64 = items.iter().map(|&at| sums.asked.items[at].water_kg()).sum();
    let line = sums.to_lose(dry_edge(sums.asked.windows));
    let kg = (RUNS_OFF * water).min(line.result);
    let after = (kg > 0.0).then(|| with_water(sums, -kg))??;
    let rank = sums.rank(&after, EFFORT_A_DAY)?;
    let days = Band::new(0.5, 1.0).ok();
    Some((rank, Correction { items, days, line: Some(line), ..sums.done(Act::Drain, kg, after, 0.0) }))
}

/// What is wet spread thin in sun and wind, the wettest first, until the mix is dry enough.
fn wilt(sums: &Sums<'_>) -> Option<Ranked> {
    let line = sums.to_lose(dry_edge(sums.asked.windows));
    // Down to where a half of it is water.
    let spare = |at: &usize| {
        let item = &sums.asked.items[*at];
        item.water_kg() - item.dry_matter_kg() * WILTED / (1.0 - WILTED)
    };
    let mut wet = places(sums, |item| item.figures.wilts && item.figures.moisture.value.get() >= WET);
    wet.retain(|at| spare(at) > 0.0);
    wet.sort_by(|a, b| spare(b).total_cmp(&spare(a)));
    let (mut items, mut most, mut held) = (Vec::new(), 0.0, 0.0);
    for at in wet {
        if most >= line.result {
            break;
        }
        most += spare(&at);
        held += sums.asked.items[at].water_kg();
        items.push(at);
    }
    let kg = line.result.min(most);
    let after = (kg > 0.0).then(|| with_water(sums, -kg))??;
    let days = days_to_lose(kg / held, sums.asked.air_c);
    let rank = sums.rank(&after, EFFORT_A_DAY * days.middle())?;
    Some((
        rank,
        Correction { items, days: Some(days), line: Some(line), ..sums.done(Act::Wilt, kg, after, 0.0) },
    ))
}

/// Coarse things chopped, where the carbon that microbes reach is what counts.
fn chop(sums: &Sums<'_>) -> Option<Ranked> {
    let mut items = sums.asked.items.to_vec();
    let mut places = Vec::new();
    for (place, item) in items.iter_mut().enumerate() {
        let chopped = item.figures.particle.map(crate::stock::material::Particle::chopped);
        if item.wet_mass_kg > 0.0 && chopped != item.figures.particle {
            item.figures.particle = chopped;
            places.push(place);
        }
    }
    let after = sum(&items, sums.asked.water_l).ok()?;
    let rank = sums.rank(&after, EFFORT_A_DAY)?;
    let kg = places.iter().map(|&at| items[at].wet_mass_kg).sum();
    Some((rank, Correction { items: places, ..sums.done(Act::Chop, kg, after, 0.0) }))
}

/// How long a thin layer takes to lose a share of its water, in sun and under cloud [d].
fn days_to_lose(share: f64, air_c: Option<f64>) -> Band {
    let warmth = ((air_c.unwrap_or(MILD_C) - MILD_C) / 10.0).exp2();
    let days = |a_day: f64| -(1.0 - share.min(0.99)).ln() / (a_day * warmth);
    let (slow, fast) = DRIES_A_DAY;
    Band::new(days(fast), days(slow)).unwrap_or(Band::fixed(1.0, 2.0))
}

/// The wet edge of the aim, and a hair within.
fn dry_edge(windows: &Windows) -> f64 {
    windows.moisture().high() - 1e-6
}

fn with_water(sums: &Sums<'_>, litres: f64) -> Option<MixFigures> {
    sums.mix.plus(Totals::of_water(litres)).figures().ok()
}

fn places(sums: &Sums<'_>, is_so: impl Fn(&Item) -> bool) -> Vec<usize> {
    let items = sums.asked.items.iter().enumerate();
    items.filter(|(_, item)| item.wet_mass_kg > 0.0 && is_so(item)).map(|(place, _)| place).collect()
}
