//! A document of a heap, checked field by field, run through the model, as diagnosis takes it.

use jiff::Timestamp;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults, Param};
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix;
use zymarch_core::plan::heap::fit;
use zymarch_core::plan::method::Method;
use zymarch_core::stock::{self, Own};
use zymarch_core::tend::diagnose::{Case, Helper, Logged, Stuff};
use zymarch_core::tend::entry::{ReadBy, Spot, Tended};
use zymarch_core::tend::expected::{geometry, happenings, part, water};
use zymarch_core::tend::heat::run::COARSE_STEP_H;
use zymarch_core::tend::heat::{Cover, Hour, Part, Setting, Start, onward};
use zymarch_core::tend::hygiene::{self, CriterionId, HeatStatus, Record, evidence};
use zymarch_core::tend::now::{Measured, Now, now};
use zymarch_core::tend::reading::{Reading, faulty};

use super::{DiagnoseEntry, DiagnoseRequest, LogLeft, LogLeftOut};
use crate::field::{self, time};
use crate::heat::{HeatRequest, MOST_DAYS};
use crate::recipe::{Recipe, RecipeItem, Resolved};

/// Entries at most.
const MOST_ENTRIES: usize = 20_000;
const HOUR_MS: f64 = 3_600_000.0;

/// What is at hand where nothing is said of stock.
const BROWN: &str = "wheat-straw";
const GREEN: &str = "goat-manure";

/// A heap, checked and run through the model.
pub(super) struct Known<'a> {
    pub(super) built_ms: i64,
    pub(super) left_out: Vec<LogLeftOut>,
    pub(super) case: Case<'a>,
}

/// An entry with its time.
struct Timed<'e, 'a> {
    at_ms: i64,
    entry: &'e DiagnoseEntry,
    put_in: Option<Resolved<'a>>,
}

impl<'a> Known<'a> {
    /// A document of a heap.
    ///
    /// # Errors
    /// Every field that is wrong, or a heap that cannot be reckoned.
    pub(super) fn of(asked: &DiagnoseRequest, catalogue: &'a Catalogue) -> Result<Self, Faults> {
        let (mut found, root) = (Vec::new(), At::ROOT);
        field::is_format(&asked.format, super::FORMAT, &mut found);
        let recipe = asked.recipe.resolve(catalogue);
        let recipe = recipe.map_err(|of| found.extend(of.under(&root.key("recipe")).0)).ok();
        let method = catalogue.method(&asked.method);
        if method.is_none() {
            let known: Param = catalogue.methods.all().map(|method| method.id.as_str()).collect();
            let fault = root.key("method").fault(FaultCode::UnknownWord);
            found.push(fault.with("got", asked.method.clone()).with("known", known));
        }
        let built_ms = time(&asked.built_at, &root.key("built_at"), &mut found);
        let now_ms = time(&asked.now, &root.key("now"), &mut found);
        let list = root.key("log");
        found.extend(list.holds(asked.log.len(), MOST_ENTRIES).err());
        let mut log = Vec::new();
        for (place, entry) in asked.log.iter().take(MOST_ENTRIES).enumerate() {
            log.push((time(&entry.at, &list.index(place).key("at"), &mut found), entry));
        }
        let mut timed = Vec::with_capacity(log.len());
        for (place, (at_ms, entry)) in log.into_iter().enumerate() {
            let at = list.index(place);
            found.extend(entry.what.faults(&at));
            let put_in = resolved(&asked.recipe, entry.what.items(), catalogue);
            match put_in {
                Ok(put_in) => timed.push(Timed { at_ms, entry, put_in }),
                Err(faults) => found.extend(faults.under(&at).0),
            }
        }
        if now_ms < built_ms && found.is_empty() {
            found.push(root.key("now").fault(FaultCode::NotInOrder));
        }
        Faults::or(found, || ())?;
        let setting = setting(asked, catalogue)?;
        let (Some(recipe), Some(method)) = (recipe, method) else {
            return Err(Fault::new(FaultCode::Broken).with("why", "checked").into());
        };
        Self::checked(Checked { recipe, method, setting, built_ms, now_ms, timed }, catalogue)
    }

    fn checked(of: Checked<'_, 'a>, catalogue: &'a Catalogue) -> Result<Self, Faults> {
        let Checked { recipe, method, setting, built_ms, now_ms, timed } = of;
        let at_h = |ms: i64| (ms - built_ms) as f64 / HOUR_MS;
        let (mut timed, mut left_out) = within(timed, built_ms, now_ms);
        timed.sort_by_key(|of| of.at_ms);
        let core = core(&timed, (built_ms, now_ms), &mut left_out);
        let mut stuff: Vec<Stuff<'_>> = both(&recipe).collect();
        let mut log: Vec<Logged> = Vec::with_capacity(timed.len());
        for Timed { at_ms, entry, put_in } in &timed {
            stuff.extend(put_in.iter().flat_map(both));
            let start = |of: &Resolved<'_>| both(of).map(|of| part(&of.item, of.row)).collect::<Vec<_>>();
            let starts = put_in.iter().map(|of| Start::of(&start(of))).collect();
            let what = entry.what.clone().with_items(|_| Ok::<Vec<Start>, Faults>(starts))?;
            log.push((at_h(*at_ms), what));
        }
        let items: Vec<_> = stuff.iter().map(|of| of.item).collect();
        let mix = mix::sum(&items, recipe.water_l)?;
        let built_m3 = mix::sum(&recipe.items, recipe.water_l)?.heap_volume_l / 1000.0;
        let mut parts: Vec<Part> = both(&recipe).map(|of| part(&of.item, of.row)).collect();
        parts.push(water(recipe.water_l));
        let setting = setting.unwrap_or_else(|| usual(method, built_m3));
        let (hours, now) = course(&parts, setting.clone(), &log, at_h(now_ms))?;
        left_out.sort_by(|a, b| a.at.cmp(&b.at));
        let case = Case {
            stuff,
            mix,
            method,
            built_m3,
            built_cm: hours.first().map(|hour| hour.height_m * 100.0),
            age_h: at_h(now_ms),
            hours,
            now,
            is_roofed: setting.geometry.cover != Cover::None,
            was_hot_for_seeds: was_hot(&core, &timed, (built_ms, now_ms)),
            core: core.iter().map(|(ms, temp)| (at_h(*ms), *temp)).collect(),
            log,
            brown: helper(BROWN, catalogue)?,
            green: helper(GREEN, catalogue)?,
        };
        Ok(Self { built_ms, left_out, case })
    }
}

/// A document whose every field was checked.
struct Checked<'e, 'a> {
    recipe: Resolved<'a>,
    method: &'a Method,
    setting: Option<Setting>,
    built_ms: i64,
    now_ms: i64,
    timed: Vec<Timed<'e, 'a>>,
}

fn both<'r, 'a>(of: &'r Resolved<'a>) -> impl Iterator<Item = Stuff<'a>> + use<'r, 'a> {
    of.items.iter().zip(&of.materials).map(|(item, row)| Stuff { item: *item, row: *row })
}

/// What was put in, with the measures of the recipe; none if nothing was.
fn resolved<'a>(
    recipe: &Recipe,
    items: &[RecipeItem],
    catalogue: &'a Catalogue,
) -> Result<Option<Resolved<'a>>, Faults> {
    if items.is_empty() {
        return Ok(None);
    }
    let put_in = Recipe { items: items.to_vec(), water_l: 0.0, ..recipe.clone() };
    put_in.resolve(catalogue).map(Some)
}

/// How it stands, in its weather, where that is said.
fn setting(asked: &DiagnoseRequest, catalogue: &Catalogue) -> Result<Option<Setting>, Faults> {
    let Some(geometry) = &asked.geometry else {
        let Some(weather) = &asked.weather else { return Ok(None) };
        let recipe = asked.recipe.resolve(catalogue)?;
        let litres = mix::sum(&recipe.items, recipe.water_l)?.heap_volume_l;
        let Some(method) = catalogue.method(&asked.method) else { return Ok(None) };
        let usual = HeatRequest::telling(&[], &usual(method, litres / 1000.0), 1);
        let asked = HeatRequest { weather: weather.clone(), ..usual };
        return asked.asked(catalogue).map(|(_, setting)| Some(setting));
    };
    let asked = HeatRequest {
        format: crate::heat::FORMAT.to_owned(),
        days: 1,
        step_h: COARSE_STEP_H,
        start_temp_c: None,
        geometry: geometry.clone(),
        materials: Vec::new(),
        weather: asked.weather.clone().unwrap_or_default(),
        rain: Vec::new(),
        events: Vec::new(),
    };
    asked.asked(catalogue).map(|(_, setting)| Some(setting))
}

/// The usual heap of a method, of so much room, in mild weather.
fn usual(method: &Method, m3: f64) -> Setting {
    let shape = fit::sides_for(method.shapes[0], m3 * 1000.0, method.height_cm)
        .unwrap_or_else(|| fit::usual(method.shapes[0], method.volume_l, method.height_cm));
    Setting { step_h: COARSE_STEP_H, ..Setting::of(geometry(shape, Some(method))) }
}

/// What lies between the day it was built and now; the rest is told.
fn within<'e, 'a>(
    timed: Vec<Timed<'e, 'a>>,
    built_ms: i64,
    now_ms: i64,
) -> (Vec<Timed<'e, 'a>>, Vec<LogLeftOut>) {
    let (mut kept, mut left_out) = (Vec::new(), Vec::new());
    for of in timed {
        let reason = match of.at_ms {
            at if at < built_ms => LogLeft::BeforeBuilt,
            at if at > now_ms => LogLeft::InFuture,
            _ => {
                kept.push(of);
                continue;
            }
        };
        left_out.push(LogLeftOut { at: of.entry.at.clone(), reason });
    }
    (kept, left_out)
}

/// The readings of the core that can be used; the others are told.
fn core(
    timed: &[Timed<'_, '_>],
    (built_ms, now_ms): (i64, i64),
    left_out: &mut Vec<LogLeftOut>,
) -> Vec<(i64, f64)> {
    let read = |of: &Timed<'_, '_>| match of.entry.what {
        Tended::Temperature { temp_c, place, depth_cm, by } => {
            let source = u32::from(by == ReadBy::Probe);
            let (at_ms, recorded_ms) = (of.at_ms, now_ms);
            Some(Reading { at_ms, recorded_ms, place, depth_cm, temp_c, by, source })
        }
        _ => None,
    };
    let readings: Vec<Reading> = timed.iter().filter_map(read).collect();
    let marks = faulty(&readings, built_ms);
    let mut core = Vec::new();
    for (reading, mark) in readings.iter().zip(marks) {
        match mark {
            Some(why) => {
                let at = Timestamp::from_millisecond(reading.at_ms).map(|at| at.to_string());
                left_out.push(LogLeftOut { at: at.unwrap_or_default(), reason: why.into() });
            }
            None if reading.place == Spot::Core => core.push((reading.at_ms, reading.temp_c)),
            None => {}
        }
    }
    core
}

/// Whether the heat that kills seeds was recorded.
fn was_hot(core: &[(i64, f64)], timed: &[Timed<'_, '_>], (built_ms, now_ms): (i64, i64)) -> bool {
    let reading = |&(at_ms, temp): &(i64, f64)| hygiene::Reading {
        at_ms,
        core_c: Some(temp),
        is_faulty: at_ms < built_ms,
    };
    let readings: Vec<_> = core.iter().map(reading).collect();
    let when = |is: fn(&Tended<RecipeItem>) -> bool| -> Vec<i64> {
        timed.iter().filter(|of| is(&of.entry.what)).map(|of| of.at_ms).collect()
    };
    let turns = when(|what| matches!(what, Tended::Turn { .. }));
    let additions = when(|what| matches!(what, Tended::Add { .. } | Tended::Feed { .. }));
    let record = Record { readings: &readings, turns: &turns, additions: &additions, now_ms };
    evidence(&record, CriterionId::Weeds.row()).status == HeatStatus::Shown
}

/// Its course by the model until now, and what is left of it.
fn course(
    parts: &[Part],
    mut setting: Setting,
    log: &[Logged],
    age_h: f64,
) -> Result<(Vec<Hour>, Option<Now>), Faults> {
    let (events, rain) = happenings(log);
    setting.rain.extend(rain);
    setting.events = events;
    setting.step_h = COARSE_STEP_H;
    let hours = (age_h.floor() as u32).min(MOST_DAYS * 24);
    let start = Start::of(parts);
    let start_c = setting.start_c.unwrap_or_else(|| setting.weather.air_c(0.0));
    let (make, state) = start.built(setting.geometry, start_c)?;
    let hours = onward((make, state), &setting, 0..hours)?.hours;
    let first = hours.first().map_or((1.0, 1.0), |hour| (hour.volume_m3, hour.height_m * 100.0));
    let measured = |(at, what): &Logged| match what {
        Tended::Squeeze { feel, .. } => Some((*at, Measured::Moisture(feel.moisture()))),
        Tended::Height { height_cm } => Some((*at, Measured::Volume(first.0 * height_cm / first.1))),
        _ => None,
    };
    let now = now(&hours, &log.iter().filter_map(measured).collect::<Vec<_>>());
    Ok((hours, now))
}

fn helper(material: &'static str, catalogue: &Catalogue) -> Result<Helper, Faults> {
    let figures = stock::figures(catalogue.material(material), &Own::default())?;
    Ok(Helper { material: material.to_owned(), figures })
}
