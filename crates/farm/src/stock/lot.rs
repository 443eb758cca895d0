//! Stock: amounts of materials on hand.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::quantity::{self, LARGEST_AMOUNT};
use zymarch_core::mix::Item;
use zymarch_core::stock::freshness::{self, Freshness, Rescue};
use zymarch_core::stock::{Given, material as table};
use zymarch_formats::mix::{ItemFigures, MixItem};
use zymarch_formats::recipe::{OwnFigures, RecipeItem, RecipeTest};
use zymarch_store::held::Held;
use zymarch_store::id::{LotId, MeasureId, SiteId};
use zymarch_store::log::{About, Body, Set};
use zymarch_store::{lot, material, measure, site};

use super::Known;
use crate::command::{Add, Change, Remove, Restore};
use crate::said::Noted;
use crate::transaction::Writing;
use crate::words::{self, Unit, days_since};
use crate::{Transaction, Who};

/// An amount of a material on hand, with the figures to reckon with.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Lot {
    /// Its id.
    pub id: LotId,
    /// Counts changes of what it is.
    pub version: i64,
    /// When it was first written down, RFC 3339.
    pub created_at: String,
    /// What it is.
    #[serde(flatten)]
    pub fields: LotFields,
    /// What it weighs, kg.
    pub kg: f64,
    /// What room it takes loose, litres.
    pub litres: f64,
    /// Each figure and where it came from.
    pub figures: ItemFigures,
    /// The figures that tests gave, ready for a recipe.
    pub tests: Vec<RecipeTest>,
    /// Days since it was gathered.
    pub age_days: i64,
    /// Days it keeps yet, below zero when past; none if it lasts.
    pub days_left: Option<i64>,
    /// What to do with it now that it is past its days.
    pub rescue: Option<Rescue>,
    /// Refused in every heap, by its material or by a bean test.
    pub must_not_go_in: bool,
}

/// What a lot is.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LotFields {
    /// Id of the material.
    pub material: String,
    /// The person's own name for it.
    pub label: Option<String>,
    /// How much, in `unit`.
    pub amount: f64,
    /// How the amount is said.
    pub unit: Unit,
    /// The measure it is counted in, if the unit is `measure`.
    pub measure_id: Option<MeasureId>,
    /// Figures in place of the book's.
    #[serde(default)]
    pub own: OwnFigures,
    /// The day it was gathered, as 2026-03-14; the day it was written down if not said.
    #[serde(default)]
    pub gathered_on: Option<String>,
    /// What one of its unit costs, in the farm's own money.
    #[serde(default)]
    pub price: Option<f64>,
}

/// A lot, checked: the record, and what is counted of it.
struct Sound {
    fields: lot::LotFields,
    held: Held,
    gathered_on: Option<String>,
}

impl LotFields {
    /// Checked as an item of a recipe would be. The measure is only known to
    /// exist once the record is written, so any volume stands in for it here.
    fn checked(self, tx: &Transaction<'_>) -> Result<Sound, Faults> {
        let held = words::held(self.amount, self.unit, self.measure_id)?;
        let given = Given::from(self.own);
        let noted = Noted { material: &self.material, held, litres_each: Some(1.0), given, tests: &[] };
        noted.item(tx.catalogue())?;
        if let Some(Err(fault)) = self.price.map(|price| quantity::within(price, 0.0, LARGEST_AMOUNT)) {
            return Err(At::ROOT.key("price").put(fault).into());
        }
        let gathered_on =
            self.gathered_on.map(|day| words::day("gathered_on", &day, tx.today)).transpose()?;
        let label = words::label("label", self.label.as_deref())?;
        let own = given.checked(&At::ROOT, &mut Vec::new());
        let fields = lot::LotFields { material: self.material, label, own, price: self.price };
        Ok(Sound { fields, held, gathered_on })
    }
}

impl Lot {
    pub(super) fn new(lot: lot::Lot, known: &Known<'_>) -> Result<(Self, Item), Faults> {
        let tests = known.tests_of(&lot)?;
        let item = known.item_with(&lot, &tests)?;
        let lot::Lot { id, version, created_at, held, gathered_on, fields, .. } = lot;
        let lot::LotFields { material, label, own, price } = fields;
        let (amount, unit, measure_id) = words::amount(held);
        let written =
            RecipeItem { material: material.clone(), tests: tests.clone(), ..RecipeItem::default() };
        let reckoned = MixItem::new(&written, &item);
        let age_days = days_since(gathered_on.as_deref().unwrap_or(&created_at), known.today);
        let row = known.catalogue.material(&material);
        let fresh = row.map(|row| freshness::freshness(row, age_days, known.air_c));
        let is_past = matches!(fresh, Some(Freshness::Past { .. }));
        let own = Given::from(&own).into();
        let shown = Self {
            id,
            version,
            created_at,
            kg: reckoned.kg,
            litres: reckoned.litres,
            figures: reckoned.figures,
            age_days,
            days_left: fresh.and_then(Freshness::days_left),
            rescue: row.filter(|_| is_past).map(freshness::rescue),
            must_not_go_in: item.figures.must_not_go_in,
            tests,
            fields: LotFields { material, label, amount, unit, measure_id, own, gathered_on, price },
        };
        Ok((shown, item))
    }

    /// A lot as it stands, reckoned.
    pub(super) fn read(tx: &Transaction<'_>, id: LotId) -> Result<Self, Faults> {
        let lot = lot::get(tx.conn, id)?;
        let known = Known::of(tx, lot.site)?;
        Ok(Self::new(lot, &known)?.0)
    }
}

/// What may become stock: a material that is there, and that goes into some heap.
fn allowed(tx: &Transaction<'_>, id: &str) -> Result<(), Faults> {
    let at = At::ROOT.key("material");
    if table::find(id).is_none() && material::get(tx.conn, id).is_err() {
        return Err(at.fault(FaultCode::NoSuchMaterial).with("got", id).into());
    }
    match tx.catalogue().material(id) {
        Some(row) if row.must_not_go_in() => Err(at.fault(FaultCode::NoStock).into()),
        _ => Ok(()),
    }
}

/// A new lot: something came.
///
/// # Errors
/// Its fields; a material that is no stock.
pub fn add(
    tx: &mut Transaction<'_>,
    who: &Who,
    Add { site, id, what }: Add<LotId, LotFields>,
) -> Result<Lot, Faults> {
    site::get(tx.conn, site)?;
    let id = id.unwrap_or_else(LotId::fresh);
    if lot::was_ever(tx.conn, id)? {
        return Lot::read(tx, id);
    }
    let new = what.checked(tx)?;
    allowed(tx, &new.fields.material)?;
    lot::insert(tx.conn, id, site, &new.fields, &tx.now_text())?;
    let body = Body::Came(counted(tx, site, None, new.held, new.gathered_on)?);
    tx.write(who, Writing::now(site, About::Lot(id), body))?;
    Lot::read(tx, id)
}

/// What was counted, with what its measure holds now. What was counted in a measure that is
/// removed since goes on in it; nothing else is.
fn counted(
    tx: &Transaction<'_>,
    site: SiteId,
    was: Option<MeasureId>,
    held: Held,
    gathered_on: Option<String>,
) -> Result<Set, Faults> {
    let litres_each = Known::of(tx, site)?.litres_each(held);
    let is_there = |id| was == Some(id) || measure::get(tx.conn, id).is_ok();
    if held.measure().is_some_and(|id| litres_each.is_none() || !is_there(id)) {
        return Err(Fault::of("measure_id", FaultCode::NoSuchMeasure).into());
    }
    Ok(Set { held, litres_each, gathered_on })
}

/// Changes what a lot is; an amount that is another one is a count.
///
/// # Errors
/// Its fields, or that it was changed elsewhere since.
pub fn change(
    tx: &mut Transaction<'_>,
    who: &Who,
    Change { id, version, to }: Change<LotId, LotFields>,
) -> Result<Lot, Faults> {
    let new = to.checked(tx)?;
    let was = lot::get(tx.conn, id)?;
    // What is there already may still be counted; nothing becomes it.
    if was.fields.material != new.fields.material {
        allowed(tx, &new.fields.material)?;
    }
    lot::update(tx.conn, id, version, &new.fields, &tx.now_text())?;
    let gathered_on = new.gathered_on.filter(|day| was.gathered_on.as_ref() != Some(day));
    let body = if was.held == new.held {
        gathered_on.map(|on| Body::Gathered { on })
    } else {
        Some(Body::Counted(counted(tx, was.site, was.held.measure(), new.held, gathered_on)?))
    };
    if let Some(body) = body {
        tx.write(who, Writing::now(was.site, About::Lot(id), body))?;
    }
    Lot::read(tx, id)
}

/// Removes a lot; it can be brought back.
///
/// # Errors
/// There is none.
pub fn remove(tx: &mut Transaction<'_>, _who: &Who, Remove(id): Remove<LotId>) -> Result<(), Faults> {
    Ok(lot::remove(tx.conn, id, &tx.now_text())?)
}

/// Brings a removed lot back.
///
/// # Errors
/// There was never one.
pub fn restore(tx: &mut Transaction<'_>, _who: &Who, Restore(id): Restore<LotId>) -> Result<Lot, Faults> {
    lot::restore(tx.conn, id)?;
    Lot::read(tx, id)
}
