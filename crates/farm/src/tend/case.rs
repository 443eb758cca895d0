//! A heap of the records as what judges it takes it: what it was made of, its course, its log.

use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::catalogue::Catalogue;
use zymarch_core::finish::nutrients::{Estimated, estimated};
use zymarch_core::mix::{self, Item as Mixed};
use zymarch_core::stock::material::{Kind, Material};
use zymarch_core::stock::{self, Own};
use zymarch_core::tend::diagnose::{Case, Helper, Stuff};
use zymarch_core::tend::entry::{Spot, Tended};
use zymarch_store::heap::Heap;
use zymarch_store::item::Item;
use zymarch_store::log::Body;

use super::course::{self, Course, HOUR_MS};
use super::series::Series;
use crate::Transaction;
use crate::build::standing;
use crate::said::of_item;
use crate::stock::on_hand::{self, Stock};

/// The method of a heap that names none: the everyday hot heap.
const USUAL_METHOD: &str = "bay-turned";
/// What is at hand where nothing fit is in stock.
const USUAL_BROWN: &str = "wheat-straw";
const USUAL_GREEN: &str = "goat-manure";
/// More readings than this are told by the coldest and the hottest of each hour.
const MOST_READINGS: usize = 3000;

/// A heap that was built.
pub(crate) fn of<'t>(
    tx: &'t Transaction<'_>,
    heap: &Heap,
    series: &Series,
    course: &Course,
) -> Result<Case<'t>, Faults> {
    let (supplies, laid) = standing::laid(tx, heap)?;
    let row = |material: &str| tx.catalogue().material(material);
    let kg = |supply: usize| -> f64 {
        let portions = laid.iter().flat_map(|step| &step.portions);
        portions.filter(|portion| portion.supply == supply).map(|portion| portion.kg).sum()
    };
    let mut stuff: Vec<Stuff<'t>> = (0..supplies.len())
        .map(|at| Stuff {
            item: Mixed { wet_mass_kg: kg(at), figures: supplies[at].figures },
            row: row(&heap.stand.items[at].material),
        })
        .filter(|stuff| stuff.item.wet_mass_kg > 0.0)
        .collect();
    for item in put_in(heap) {
        let mixed = of_item(item, |noted| noted.item(tx.catalogue()))?;
        stuff.push(Stuff { item: mixed, row: row(&item.material) });
    }
    let water_l = laid.iter().map(|step| step.water_l).sum();
    let items: Vec<Mixed> = stuff.iter().map(|of| of.item).collect();
    let at_h = |ms: i64| (ms - course.built_ms) as f64 / HOUR_MS as f64;
    let core: Vec<(f64, f64)> = series.at(Spot::Core).map(|of| (at_h(of.at_ms), of.temp_c)).collect();
    let method = standing::method(tx, heap).or_else(|| tx.catalogue().method(USUAL_METHOD));
    let missing = || Fault::new(FaultCode::Broken).with("why", USUAL_METHOD);
    let at_hand = on_hand::stock(tx, heap.row.site)?;
    let (built_l, built_cm) = course.built;
    Ok(Case {
        mix: mix::sum(&items, water_l)?,
        stuff,
        method: method.ok_or_else(missing)?,
        built_m3: built_l / 1000.0,
        built_cm: Some(built_cm),
        age_h: at_h(course::until_ms(tx, &heap.row)),
        hours: course.hours.all(),
        now: course.now,
        is_roofed: course.is_roofed,
        core: thinned(core),
        log: course.log.clone(),
        was_hot_for_seeds: false,
        brown: helper(tx.catalogue(), &at_hand, USUAL_BROWN, dry_brown)?,
        green: helper(tx.catalogue(), &at_hand, USUAL_GREEN, rich_in_nitrogen)?,
    })
}

/// What the compost of a heap should hold; none if it was just built.
pub(crate) fn holds(case: &Case<'_>, course: &Course) -> Option<Estimated> {
    let n_lost_kg = course.hours.last()?.n_lost_kg;
    estimated(&case.stuff, &course.whole?, n_lost_kg, course.is_roofed)
}

/// What was put in since it was built.
fn put_in(heap: &Heap) -> impl Iterator<Item = &Item> {
    heap.entries.iter().flat_map(|entry| match &entry.body {
        Body::Tended(of) => match &of.what {
            Tended::Add { items } | Tended::Feed { items } => items.as_slice(),
            _ => &[],
        },
        _ => &[],
    })
}

/// The coldest and the hottest of each hour, where there are very many.
fn thinned(core: Vec<(f64, f64)>) -> Vec<(f64, f64)> {
    if core.len() <= MOST_READINGS {
        return core;
    }
    let of_an_hour = core.chunk_by(|a, b| a.0.floor() == b.0.floor());
    let mut kept = Vec::new();
    for hour in of_an_hour {
        let by = |a: &&(f64, f64), b: &&(f64, f64)| a.1.total_cmp(&b.1);
        let (Some(cold), Some(hot)) = (hour.iter().min_by(by), hour.iter().max_by(by)) else { continue };
        kept.push(*cold);
        if cold != hot {
            kept.push(*hot);
        }
    }
    kept.sort_by(|a, b| a.0.total_cmp(&b.0));
    kept
}

/// How much good a lot would do: none if it is not of the kind that is wanted.
type Worth = fn(&Material, &Mixed) -> Option<f64>;

/// Dry brown stuff with a frame: the more of it the better.
fn dry_brown(row: &Material, item: &Mixed) -> Option<f64> {
    let figures = &item.figures;
    let is_dry = figures.moisture.value.get() < 0.3;
    let is_framed = figures.structure.is_none_or(|of| of.value >= 1);
    let is_brown = matches!(row.kind, Kind::Brown | Kind::Bulking) && !figures.inert;
    (is_brown && is_dry && is_framed).then_some(item.wet_mass_kg)
}

/// Stuff rich in nitrogen: the more of that the better.
fn rich_in_nitrogen(row: &Material, item: &Mixed) -> Option<f64> {
    let is_rich = item.figures.c_n.value < 20.0 && !item.figures.inert;
    (is_rich && matches!(row.kind, Kind::Green | Kind::Manure)).then(|| item.nitrogen_kg())
}

/// What is at hand of a kind, in stock or as the book has it.
fn helper(catalogue: &Catalogue, stock: &Stock, usual: &str, worth: Worth) -> Result<Helper, Faults> {
    let fit = stock.each().filter(|(lot, item)| item.wet_mass_kg > 1.0 && !lot.must_not_go_in);
    let best = fit
        .filter_map(|(lot, item)| {
            let row = catalogue.material(&lot.fields.material)?;
            Some((worth(row, item)?, lot, item))
        })
        .max_by(|a, b| a.0.total_cmp(&b.0));
    if let Some((_, lot, item)) = best {
        return Ok(Helper { material: lot.fields.material.clone(), figures: item.figures });
    }
    let figures = stock::figures(catalogue.material(usual), &Own::default())?;
    Ok(Helper { material: usual.to_owned(), figures })
}
