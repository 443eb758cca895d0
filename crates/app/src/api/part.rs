//! One lot's part of a batch, as it is kept and as it is said.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::field_test::TestKind;
use zymarch_formats::field::Refusal;
use zymarch_formats::recipe::{OwnFigures, RecipeTest};
use zymarch_store::id::LotId;
use zymarch_store::item::{Item, ItemTest};

use super::convert::{self, Said, Unit};
use super::tested;

/// One lot's part, as it stands when the batch is saved.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct BatchPart {
    /// The lot it comes from, if any.
    pub(super) lot_id: Option<i64>,
    /// Id in the reference table.
    pub(super) material: String,
    /// The person's own name for it.
    pub(super) label: Option<String>,
    /// How much, in `unit`.
    pub(super) amount: f64,
    /// How the amount is said.
    pub(super) unit: Unit,
    /// The measure it is counted in, if the unit is `measure`.
    pub(super) measure_id: Option<i64>,
    /// What one measure holds, litres, if the unit is `measure`.
    pub(super) measure_litres: Option<f64>,
    /// Figures in place of the book's.
    #[serde(default)]
    pub(super) own: OwnFigures,
    /// Figures that tests gave.
    #[serde(default)]
    pub(super) tests: Vec<RecipeTest>,
}

impl BatchPart {
    /// The part as it is kept, its fields named under `field`.
    pub(super) fn checked(self, field: &str, catalogue: &Catalogue) -> Result<Item, Refusal> {
        let under = |mut refusal: Refusal| {
            for error in &mut refusal.errors {
                error.field = format!("{field}.{}", error.field);
            }
            refusal
        };
        let held = convert::held(self.amount, self.unit, self.measure_id).map_err(under)?;
        if (self.unit == Unit::Measure) != self.measure_litres.is_some() {
            return Err(Refusal::one(
                format!("{field}.measure_litres"),
                "belongs with the unit `measure`, and only with it",
            ));
        }
        let said = Said {
            material: &self.material,
            held,
            litres_each: self.measure_litres,
            own: &self.own,
            tests: &self.tests,
        };
        let item = said.resolve(catalogue, field)?;
        if item.figures.must_not_go_in && item.wet_mass_kg > 0.0 {
            return Err(Refusal::one(format!("{field}.material"), "must not go into a heap; take it out"));
        }
        Ok(Item {
            lot: self.lot_id.map(LotId),
            label: convert::label("label", self.label.as_deref()).map_err(under)?,
            held,
            measure_litres: self.measure_litres,
            own: convert::own(&self.own),
            tests: self.tests.into_iter().filter_map(item_test).collect(),
            material: self.material,
        })
    }
}

impl From<Item> for BatchPart {
    fn from(item: Item) -> Self {
        let (amount, unit, measure_id) = convert::amount(item.held);
        Self {
            tests: item.tests.iter().map(recipe_test).collect(),
            lot_id: item.lot.map(|lot| lot.0),
            material: item.material,
            label: item.label,
            amount,
            unit,
            measure_id,
            measure_litres: item.measure_litres,
            own: convert::own_figures(&item.own),
        }
    }
}

/// A figure of a test as it is kept; its words were checked before.
pub(super) fn item_test(test: RecipeTest) -> Option<ItemTest> {
    Some(ItemTest {
        figure: test.figure.into(),
        value: tested::core_value(test.figure, test.value),
        kind: TestKind::parse(&test.test)?,
        made_on: test.on,
    })
}

/// A figure of a test as it is sent.
pub(super) fn recipe_test(test: &ItemTest) -> RecipeTest {
    RecipeTest {
        figure: test.figure.into(),
        value: tested::wire_value(test.figure, test.value),
        test: test.kind.as_str().into(),
        on: test.made_on.clone(),
    }
}

/// What an item of a batch says, for as long as `ask` looks at it.
pub(super) fn said_of<T>(item: &Item, ask: impl FnOnce(&Said<'_>) -> T) -> T {
    let own = convert::own_figures(&item.own);
    let tests: Vec<_> = item.tests.iter().map(recipe_test).collect();
    ask(&Said {
        material: &item.material,
        held: item.held,
        litres_each: item.measure_litres,
        own: &own,
        tests: &tests,
    })
}
