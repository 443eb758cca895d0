//! A whole farm from a data package, written by the same commands that a person uses.

mod finish;
mod heaps;

use jiff::civil::Date;
use zymarch_core::base::fault::{At, Faults};
use zymarch_formats::farm::{self, LotRow};
use zymarch_store::id::{LotId, MeasureId, SiteId};
use zymarch_store::material as own_material;

use crate::command::Add;
use crate::plan::BatchPart;
use crate::plan::batch::{self, BatchFields};
use crate::stock::field_test::{self, FieldTestFields};
use crate::stock::lot::{self, LotFields};
use crate::stock::measure::{self, Glyph, MeasureFields, VolumeWay};
use crate::stock::site::{self, SiteFields, SiteMonth};
use crate::words::Unit;
use crate::{Transaction, Who};

/// A measure of the package, as the records have it.
struct Known<'a> {
    word: &'a str,
    id: MeasureId,
    litres: f64,
}

/// Adds a farm as a site of its own, all or nothing.
///
/// # Errors
/// The row that is at fault, by its place in its table.
pub fn load(tx: &mut Transaction<'_>, who: &Who, farm: &farm::Farm) -> Result<SiteId, Faults> {
    let month = |of: zymarch_core::stock::climate::Month| SiteMonth {
        mean_c: of.mean_c,
        swing_c: of.swing_c,
        rain_mm: of.rain_mm,
    };
    let climate = farm.climate.map(|climate| climate.0.into_iter().map(month).collect());
    let fields = SiteFields { name: farm.name.clone(), altitude_m: farm.altitude_m, climate };
    let id = site::bare(tx, fields)?;
    let now = tx.now_text();
    for row in &farm.materials {
        own_material::put(tx.conn, row, &now)?;
    }
    tx.read_catalogue()?;
    let mut measures = Vec::with_capacity(farm.measures.len());
    let table = At::ROOT.key("measures.csv");
    for (place, row) in farm.measures.iter().enumerate() {
        let what = MeasureFields {
            name: row.name.clone(),
            plural: row.plural.clone(),
            glyph: Glyph::parse(&row.glyph).unwrap_or(Glyph::Other),
            way: VolumeWay::Litres { litres: row.litres },
            heaped: 1.0,
        };
        let measure = measure::add(tx, who, Add { site: id, id: None, what })
            .map_err(|faults| faults.under(&table.index(place)))?;
        measures.push(Known { word: &row.id, id: measure.id, litres: measure.litres });
    }
    let mut lots: Vec<(Option<&str>, LotId)> = Vec::with_capacity(farm.lots.len());
    let table = At::ROOT.key("lots.csv");
    for (place, row) in farm.lots.iter().enumerate() {
        let what = lot_fields(row, &measures);
        let lot = lot::add(tx, who, Add { site: id, id: None, what })
            .map_err(|faults| faults.under(&table.index(place)))?;
        lots.push((row.id.as_deref(), lot.id));
    }
    let table = At::ROOT.key("tests.csv");
    for (place, row) in farm.tests.iter().enumerate() {
        let Some((_, lot)) = lots.get(row.lot) else { continue };
        let fields = FieldTestFields { made_on: row.made_on.to_string(), readings: row.readings.clone() };
        field_test::add(tx, who, (*lot, None, fields)).map_err(|faults| faults.under(&table.index(place)))?;
    }
    let table = At::ROOT.key("batches.csv");
    for (place, row) in farm.batches.iter().enumerate() {
        let what = batch_fields(row, &measures, &lots);
        batch::add(tx, who, Add { site: id, id: None, what })
            .map_err(|faults| faults.under(&table.index(place)))?;
    }
    let table = At::ROOT.key("heaps.csv");
    let fields = |of: &farm::Batch| batch_fields(of, &measures, &lots);
    let heaps = heaps::load(tx, who, (id, farm), fields).map_err(|faults| faults.under(&table))?;
    finish::load(tx, who, (id, &farm.finished), &heaps)?;
    Ok(id)
}

/// Puts a farm into records that have none, with its days moved to today.
///
/// # Errors
/// As [`load`].
pub fn first(tx: &mut Transaction<'_>, who: &Who, farm: farm::Farm) -> Result<(), Faults> {
    if site::list(tx)?.is_empty() {
        let today: Date = tx.today();
        load(tx, who, &farm.moved_to(today))?;
    }
    Ok(())
}

fn said(row: &LotRow, measures: &[Known<'_>]) -> (Unit, Option<MeasureId>, Option<f64>) {
    match measures.iter().find(|known| known.word == row.unit) {
        Some(known) => (Unit::Measure, Some(known.id), Some(known.litres)),
        None if row.unit == "litre" => (Unit::Litre, None, None),
        None => (Unit::Kg, None, None),
    }
}

fn lot_fields(row: &LotRow, measures: &[Known<'_>]) -> LotFields {
    let (unit, measure_id, _) = said(row, measures);
    LotFields {
        material: row.material.clone(),
        label: row.label.clone(),
        amount: row.amount,
        unit,
        measure_id,
        own: row.own(),
        gathered_on: row.gathered_on.map(|day| day.to_string()),
        price: row.price,
    }
}

fn batch_fields(row: &farm::Batch, measures: &[Known<'_>], lots: &[(Option<&str>, LotId)]) -> BatchFields {
    let part = |item: &LotRow| {
        let (unit, measure_id, measure_litres) = said(item, measures);
        let lot = item.id.as_deref().and_then(|id| lots.iter().find(|(known, _)| *known == Some(id)));
        BatchPart {
            lot_id: lot.map(|(_, lot)| *lot),
            material: item.material.clone(),
            label: item.label.clone(),
            amount: item.amount,
            unit,
            measure_id,
            measure_litres,
            own: item.own(),
            tests: Vec::new(),
        }
    };
    BatchFields {
        name: row.name.clone(),
        water_l: row.water_l,
        heap: row.heap.clone(),
        heaps: row.heaps,
        method: row.method.clone(),
        build_on: row.build_on,
        starters: row.starters.clone(),
        items: row.items.iter().map(part).collect(),
    }
}
