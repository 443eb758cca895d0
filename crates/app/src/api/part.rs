//! One lot's part of a batch, as it is kept and as it is said.

use zymarch_core::field_test::TestKind;
use zymarch_formats::recipe::RecipeTest;
use zymarch_store::batch::{BatchItem, ItemTest};

use super::convert::{self, Said};
use super::tested;

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
pub(super) fn said_of<T>(item: &BatchItem, ask: impl FnOnce(&Said<'_>) -> T) -> T {
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
