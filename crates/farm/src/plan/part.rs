//! One lot's part of a batch, as it is kept and as it is said.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, FaultCode, Faults};
use zymarch_core::catalogue::Catalogue;
use zymarch_core::stock::Given;
use zymarch_formats::recipe::{OwnFigures, RecipeTest};
use zymarch_store::id::{LotId, MeasureId, SiteId};
use zymarch_store::item::Item;
use zymarch_store::whose::site_of;

use crate::Transaction;
use crate::said::{self, Noted};
use crate::words::{self, Unit};

/// One lot's part, as it stands when the batch is saved.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BatchPart {
    /// The lot it comes from, if any.
    pub lot_id: Option<LotId>,
    /// Id in the reference table.
    pub material: String,
    /// The person's own name for it.
    pub label: Option<String>,
    /// How much, in `unit`.
    pub amount: f64,
    /// How the amount is said.
    pub unit: Unit,
    /// The measure it is counted in, if the unit is `measure`.
    pub measure_id: Option<MeasureId>,
    /// What one measure holds, litres, if the unit is `measure`.
    pub measure_litres: Option<f64>,
    /// Figures in place of the book's.
    #[serde(default)]
    pub own: OwnFigures,
    /// Figures that tests gave.
    #[serde(default)]
    pub tests: Vec<RecipeTest>,
}

impl BatchPart {
    /// The part as it is kept, its faults under `at`.
    pub(crate) fn checked(self, at: &At<'_>, catalogue: &Catalogue) -> Result<Item, Faults> {
        let held = words::held(self.amount, self.unit, self.measure_id).map_err(|fault| at.put(fault))?;
        if (self.unit == Unit::Measure) != self.measure_litres.is_some() {
            return Err(at.key("measure_litres").fault(FaultCode::MeasureLitresMismatch).into());
        }
        let given = Given::from(self.own);
        let noted = Noted {
            material: &self.material,
            held,
            litres_each: self.measure_litres,
            given,
            tests: &self.tests,
        };
        let mut found = Vec::new();
        let Some(checked) = noted.checked(catalogue, at, &mut found) else { return Err(Faults(found)) };
        if checked.figures.must_not_go_in && checked.wet_mass_kg > 0.0 {
            return Err(at.key("material").fault(FaultCode::MustNotGoIn).into());
        }
        Ok(Item {
            lot: self.lot_id,
            label: words::label("label", self.label.as_deref()).map_err(|fault| at.put(fault))?,
            held,
            measure_litres: self.measure_litres,
            own: given.checked(at, &mut found),
            tests: self.tests.iter().map(said::item_test).collect(),
            material: self.material,
        })
    }
}

/// Parts of a list as they are kept; every fault of every one. A part comes from a lot of the same site or
/// from none: nobody takes from another's stock.
pub(crate) fn checked_all(
    tx: &Transaction<'_>,
    site: SiteId,
    parts: Vec<BatchPart>,
    list: &At<'_>,
) -> Result<Vec<Item>, Faults> {
    let (mut found, mut items) = (Vec::new(), Vec::with_capacity(parts.len()));
    for (index, part) in parts.into_iter().enumerate() {
        if let Some(lot) = part.lot_id
            && site_of(tx.conn, lot.into())? != Some(site)
        {
            found.push(list.index(index).key("lot_id").fault(FaultCode::NoSuchLot));
        }
        match part.checked(&list.index(index), tx.catalogue()) {
            Ok(item) => items.push(item),
            Err(Faults(faults)) => found.extend(faults),
        }
    }
    Faults::or(found, || items)
}

impl From<Item> for BatchPart {
    fn from(item: Item) -> Self {
        let (amount, unit, measure_id) = words::amount(item.held);
        Self {
            tests: item.tests.iter().map(said::recipe_test).collect(),
            lot_id: item.lot,
            material: item.material,
            label: item.label,
            amount,
            unit,
            measure_id,
            measure_litres: item.measure_litres,
            own: Given::from(&item.own).into(),
        }
    }
}
