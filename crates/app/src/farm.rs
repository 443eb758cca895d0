//! Loading a whole farm from a data package, the demo farm among them.

use rust_embed::RustEmbed;
use zymarch_formats::farm::{self, Farm, LotRow};
use zymarch_formats::field::Refusal;
use zymarch_store::batch::{self, NewBatch};
use zymarch_store::field_test::{self, NewFieldTest};
use zymarch_store::held::Held;
use zymarch_store::id::{LotId, MeasureId, SiteId};
use zymarch_store::item::Item;
use zymarch_store::lot::{self, NewLot};
use zymarch_store::measure::{self, NewMeasure};
use zymarch_store::site::{self, NewSite};
use zymarch_store::{Store, StoreError, material};

use crate::api::convert;
use crate::clock::Clock;

/// The demo farm, as open files.
#[derive(RustEmbed)]
#[folder = "../../demo"]
struct DemoFiles;

/// Why a farm could not be loaded.
#[derive(Debug, thiserror::Error)]
pub enum LoadError {
    /// A row is at fault.
    #[error(transparent)]
    Refused(#[from] Refusal),
    /// It could not be written.
    #[error(transparent)]
    Store(#[from] StoreError),
}

/// The two containers nearly everyone has: name, plural, litres. Their names are
/// their glyphs too.
pub(crate) const FIRST_MEASURES: [(&str, &str, f64); 2] =
    [("bucket", "buckets", 12.0), ("barrow", "barrows", 70.0)];

/// What a farm finds that has written nothing down yet: a place, and the two
/// containers nearly everyone has, which can be changed at once.
///
/// # Errors
/// [`StoreError`].
pub async fn first_start(store: &Store, clock: Clock) -> Result<(), StoreError> {
    let now = clock.now();
    store
        .write(move |conn| {
            if site::all(conn)?.is_empty() {
                let site = site::insert(conn, &NewSite::named("My farm"), &now)?.id;
                for (name, plural, litres) in FIRST_MEASURES {
                    measure::insert(conn, site, &NewMeasure::of_litres(name, plural, litres, name), &now)?;
                }
            }
            Ok(())
        })
        .await
}

/// Puts the demo farm into a data file that has none.
///
/// # Errors
/// [`LoadError`].
pub async fn first_demo(store: &Store, clock: Clock) -> Result<(), LoadError> {
    if !store.read(|conn| site::all(conn)).await?.is_empty() {
        return Ok(());
    }
    let text = |name: &str| {
        let file = DemoFiles::get(name)?;
        String::from_utf8(file.data.into_owned()).ok()
    };
    load(store, farm::read(text)?.moved_to(clock.today()), clock).await
}

/// Adds a farm as a site of its own, all or nothing.
///
/// # Errors
/// [`LoadError`].
pub async fn load(store: &Store, farm: Farm, clock: Clock) -> Result<(), LoadError> {
    let now = clock.now();
    Ok(store.write(move |conn| write(conn, &farm, &now)).await?)
}

fn write(conn: &zymarch_store::Connection, farm: &Farm, now: &str) -> Result<(), StoreError> {
    let site = NewSite { name: farm.name.clone(), altitude_m: farm.altitude_m, climate: farm.climate };
    let site = site::insert(conn, &site, now)?.id;
    for row in &farm.materials {
        material::put(conn, row, now)?;
    }
    let mut measures = Vec::new();
    for row in &farm.measures {
        let new = NewMeasure::of_litres(&row.name, &row.plural, row.litres, &row.glyph);
        measures.push((row.id.as_str(), measure::insert(conn, site, &new, now)?));
    }
    let known: Vec<_> =
        measures.iter().map(|(id, measure)| (*id, measure.id, measure.fields.litres)).collect();
    let mut lots: Vec<LotId> = Vec::new();
    for row in &farm.lots {
        lots.push(lot::insert(conn, site, &new_lot(row, &known), now)?.id);
    }
    for row in &farm.tests {
        let Some(&lot) = lots.get(row.lot) else { continue };
        let readings = serde_json::to_string(&row.readings).unwrap_or_default();
        let made_on = row.made_on.to_string();
        field_test::insert(conn, lot, &NewFieldTest { kind: row.readings.kind(), made_on, readings }, now)?;
    }
    for row in &farm.batches {
        let named = farm.lots.iter().map(|lot| lot.id.as_deref()).zip(lots.iter().copied());
        insert_batch(conn, site, (row, &named.collect::<Vec<_>>()), &known, now)?;
    }
    Ok(())
}

type Known<'a> = (&'a str, MeasureId, f64);

fn held(row: &LotRow, known: &[Known<'_>]) -> (Held, Option<f64>) {
    match known.iter().find(|(id, ..)| *id == row.unit) {
        Some(&(_, measure, litres)) => (Held::Measures { count: row.amount, measure }, Some(litres)),
        None if row.unit == "litre" => (Held::Litres(row.amount), None),
        None => (Held::Kilograms(row.amount), None),
    }
}

fn new_lot(row: &LotRow, known: &[Known<'_>]) -> NewLot {
    NewLot {
        material: row.material.clone(),
        label: row.label.clone(),
        held: held(row, known).0,
        own: convert::own(&row.own()),
        gathered_on: row.gathered_on.map(|day| day.to_string()),
        price: row.price,
    }
}

fn insert_batch(
    conn: &zymarch_store::Connection,
    site: SiteId,
    (row, lots): (&farm::Batch, &[(Option<&str>, LotId)]),
    known: &[Known<'_>],
    now: &str,
) -> Result<(), StoreError> {
    let items =
        row.items
            .iter()
            .map(|item| {
                let (held, measure_litres) = held(item, known);
                Item {
                    lot: item.id.as_deref().and_then(|id| {
                        lots.iter().find(|(known, _)| *known == Some(id)).map(|(_, lot)| *lot)
                    }),
                    material: item.material.clone(),
                    label: item.label.clone(),
                    held,
                    measure_litres,
                    own: convert::own(&item.own()),
                    tests: Vec::new(),
                }
            })
            .collect();
    // The package's shapes were checked when it was read.
    if let Ok(shape) = row.heap.resolve("heap") {
        batch::insert(
            conn,
            site,
            &NewBatch {
                name: row.name.clone(),
                water_l: row.water_l,
                shape,
                method: row.method.clone(),
                build_on: row.build_on.map(|day| day.to_string()),
                starters: row.starters.clone(),
                items,
            },
            now,
        )?;
    }
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[tokio::test]
    async fn the_demo_farm_loads_through_the_import_and_only_once() {
        let folder = tempfile::TempDir::new().expect("a folder");
        let store = Store::open(&folder.path().join("demo.sqlite")).await.expect("opens");
        for _ in 0..2 {
            first_demo(&store, Clock::Real).await.unwrap_or_else(|error| panic!("{error}"));
        }
        let sites = store.read(|conn| site::all(conn)).await.expect("reads");
        assert_eq!(sites.len(), 1);
        let lots = store.read(move |conn| lot::of_site(conn, sites[0].id)).await.expect("reads");
        assert!(lots.len() >= 10);
    }
}
