//! What a site knows that bears on its lots: measures, tests, the weather of the month.

use std::collections::HashMap;

use jiff::civil::Date;
use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::Item;
use zymarch_core::stock::Given;
use zymarch_core::stock::field_test::TestKind;
use zymarch_formats::recipe::RecipeTest;
use zymarch_store::StoreError;
use zymarch_store::field_test::{self, FieldTest};
use zymarch_store::held::Held;
use zymarch_store::id::{LotId, MeasureId, SiteId};
use zymarch_store::{Connection, lot, measure, site};

use super::tested;
use crate::Transaction;
use crate::said::Noted;
use crate::words::days_since;

/// Older than this a lot has lost what it loses [d].
const OLDEST_DAYS: i64 = 3650;

/// Days that a lot had lain on a day, as far as it matters; stored dung loses nitrogen.
pub(crate) fn age_days(lot: &lot::Lot, on: Date) -> f64 {
    let days = days_since(lot.gathered_on.as_deref().unwrap_or(&lot.created_at), on);
    days.clamp(0, OLDEST_DAYS) as f64
}

/// What a site knows that bears on its lots.
pub(crate) struct Known<'a> {
    litres: HashMap<MeasureId, f64>,
    tests: Tests<'a>,
    pub(super) air_c: Option<f64>,
    pub(super) catalogue: &'a Catalogue,
    pub(super) today: Date,
}

/// The tests on a site's lots: read at once where all lots are asked for, else lot by lot.
enum Tests<'a> {
    Read { of_lot: HashMap<LotId, Vec<FieldTest>>, weighed: HashMap<String, Vec<FieldTest>> },
    Asked(&'a Connection),
}

impl<'a> Known<'a> {
    /// For a few lots.
    pub(crate) fn of(tx: &'a Transaction<'_>, site: SiteId) -> Result<Self, StoreError> {
        let climate = site::get(tx.conn, site)?.fields.climate;
        let month = u8::try_from(tx.today.month()).unwrap_or(1);
        let measures = measure::ever_of_site(tx.conn, site)?;
        Ok(Self {
            litres: measures.into_iter().map(|measure| (measure.id, measure.fields.litres)).collect(),
            tests: Tests::Asked(tx.conn),
            air_c: climate.map(|climate| climate.month(month).mean_c),
            catalogue: tx.catalogue(),
            today: tx.today,
        })
    }

    /// For all of these lots of a site.
    pub(super) fn of_all(
        tx: &'a Transaction<'_>,
        site: SiteId,
        lots: &[lot::Lot],
    ) -> Result<Self, StoreError> {
        let material: HashMap<LotId, &str> =
            lots.iter().map(|lot| (lot.id, lot.fields.material.as_str())).collect();
        let mut of_lot: HashMap<LotId, Vec<FieldTest>> = HashMap::new();
        let mut weighed: HashMap<String, Vec<FieldTest>> = HashMap::new();
        for test in field_test::of_site(tx.conn, site)? {
            if test.kind == TestKind::Weigh
                && let Some(material) = material.get(&test.lot)
            {
                weighed.entry((*material).to_owned()).or_default().push(test.clone());
            }
            of_lot.entry(test.lot).or_default().push(test);
        }
        Ok(Self { tests: Tests::Read { of_lot, weighed }, ..Self::of(tx, site)? })
    }

    /// What one of a measure holds [L]; none if it is not counted in measures.
    pub(crate) fn litres_each(&self, held: Held) -> Option<f64> {
        self.litres.get(&held.measure()?).copied()
    }

    /// The figures that tests gave a lot; the density of others of its material stands in.
    pub(super) fn tests_of(&self, lot: &lot::Lot) -> Result<Vec<RecipeTest>, StoreError> {
        let material = &lot.fields.material;
        let (asked_of_lot, asked_weighed);
        let (of_lot, weighed): (&[FieldTest], &[FieldTest]) = match &self.tests {
            Tests::Read { of_lot, weighed } => (
                of_lot.get(&lot.id).map_or(&[], Vec::as_slice),
                weighed.get(material).map_or(&[], Vec::as_slice),
            ),
            Tests::Asked(conn) => {
                asked_of_lot = field_test::of_lot(conn, lot.id)?;
                asked_weighed = field_test::weighed(conn, lot.site, material)?;
                (&asked_of_lot, &asked_weighed)
            }
        };
        let of_lot: Vec<&FieldTest> = of_lot.iter().collect();
        let weighed: Vec<&FieldTest> = weighed.iter().filter(|test| test.lot != lot.id).collect();
        let given = Given::from(&lot.fields.own);
        Ok(tested::figures(material, given, (&of_lot, &weighed), self.catalogue, self.today))
    }

    /// A lot as an item that can be summed.
    pub(crate) fn item(&self, lot: &lot::Lot) -> Result<Item, Faults> {
        self.item_with(lot, &self.tests_of(lot)?)
    }

    /// The same, where its tests were looked up already.
    pub(super) fn item_with(&self, lot: &lot::Lot, tests: &[RecipeTest]) -> Result<Item, Faults> {
        let noted = Noted {
            material: &lot.fields.material,
            held: lot.held,
            litres_each: self.litres_each(lot.held),
            given: Given { age_days: Some(age_days(lot, self.today)), ..Given::from(&lot.fields.own) },
            tests,
        };
        noted.item(self.catalogue)
    }
}
