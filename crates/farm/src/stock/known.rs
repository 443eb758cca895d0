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
use zymarch_store::{lot, measure, site};

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
    tests: HashMap<LotId, Vec<FieldTest>>,
    weighed: Vec<(String, FieldTest)>,
    pub(super) air_c: Option<f64>,
    pub(super) catalogue: &'a Catalogue,
    pub(super) today: Date,
}

impl<'a> Known<'a> {
    pub(crate) fn of(tx: &'a Transaction<'_>, site: SiteId) -> Result<Self, StoreError> {
        let climate = site::get(tx.conn, site)?.fields.climate;
        let month = u8::try_from(tx.today.month()).unwrap_or(1);
        let measures = measure::ever_of_site(tx.conn, site)?;
        let material: HashMap<LotId, String> =
            lot::of_site(tx.conn, site)?.into_iter().map(|lot| (lot.id, lot.fields.material)).collect();
        let mut tests: HashMap<LotId, Vec<FieldTest>> = HashMap::new();
        let mut weighed = Vec::new();
        for test in field_test::of_site(tx.conn, site)? {
            if test.kind == TestKind::Weigh
                && let Some(material) = material.get(&test.lot)
            {
                weighed.push((material.clone(), test.clone()));
            }
            tests.entry(test.lot).or_default().push(test);
        }
        Ok(Self {
            litres: measures.into_iter().map(|measure| (measure.id, measure.fields.litres)).collect(),
            tests,
            weighed,
            air_c: climate.map(|climate| climate.month(month).mean_c),
            catalogue: tx.catalogue(),
            today: tx.today,
        })
    }

    /// What one of a measure holds [L]; none if it is not counted in measures.
    pub(crate) fn litres_each(&self, held: Held) -> Option<f64> {
        self.litres.get(&held.measure()?).copied()
    }

    /// The figures that tests gave a lot; the density of others of its material stands in.
    pub(super) fn tests_of(&self, lot: &lot::Lot) -> Vec<RecipeTest> {
        let of_lot: Vec<&FieldTest> = self.tests.get(&lot.id).into_iter().flatten().collect();
        let weighed: Vec<&FieldTest> = self
            .weighed
            .iter()
            .filter(|(material, test)| test.lot != lot.id && *material == lot.fields.material)
            .map(|(_, test)| test)
            .collect();
        let given = Given::from(&lot.fields.own);
        tested::figures(&lot.fields.material, given, (&of_lot, &weighed), self.catalogue, self.today)
    }

    /// A lot as an item that can be summed.
    pub(crate) fn item(&self, lot: &lot::Lot) -> Result<Item, Faults> {
        let tests = self.tests_of(lot);
        let noted = Noted {
            material: &lot.fields.material,
            held: lot.held,
            litres_each: self.litres_each(lot.held),
            given: Given { age_days: Some(age_days(lot, self.today)), ..Given::from(&lot.fields.own) },
            tests: &tests,
        };
        noted.item(self.catalogue)
    }
}
