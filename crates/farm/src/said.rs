//! Amounts of the records as the core takes them.

use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::Item;
use zymarch_core::stock::field_test::TestedFigure;
use zymarch_core::stock::measure::Amount;
use zymarch_core::stock::{Checked, Given, Said, Tested};
use zymarch_formats::recipe::RecipeTest;
use zymarch_store::held::Held;
use zymarch_store::item::{self, ItemTest};

/// A material in an amount, with all that the records know of it.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Noted<'a> {
    pub(crate) material: &'a str,
    pub(crate) held: Held,
    /// What one measure holds [L], if it is counted in measures.
    pub(crate) litres_each: Option<f64>,
    pub(crate) given: Given,
    pub(crate) tests: &'a [RecipeTest],
}

impl Noted<'_> {
    /// Checked by the one way there is. Records hold known materials only.
    pub(crate) fn checked<'m>(
        &self,
        catalogue: &'m Catalogue,
        at: &At<'_>,
        found: &mut Vec<Fault>,
    ) -> Option<Checked<'m>> {
        if catalogue.material(self.material).is_none() {
            found.push(at.key("material").fault(FaultCode::NoSuchMaterial).with("got", self.material));
            return None;
        }
        let tests: Vec<Tested<'_>> = self.tests.iter().map(Tested::from).collect();
        let amount = match self.held {
            Held::Kilograms { amount } => Amount::Kilograms(amount),
            Held::Litres { amount } => Amount::Litres(amount),
            Held::Measures { amount: count, .. } => {
                Amount::Measures { count, litres_each: self.litres_each.unwrap_or(0.0) }
            }
        };
        let (material, given) = (self.material, self.given);
        Said { material, amount, amount_field: "amount", given, tests: &tests }.checked(
            &catalogue.materials,
            at,
            found,
        )
    }

    /// The same as something that can be summed.
    pub(crate) fn item(&self, catalogue: &Catalogue) -> Result<Item, Faults> {
        let mut found = Vec::new();
        match self.checked(catalogue, &At::ROOT, &mut found) {
            Some(checked) => Ok(checked.into()),
            None => Err(Faults(found)),
        }
    }
}

/// What an item of a batch or heap says, for as long as `ask` looks at it.
pub(crate) fn of_item<T>(item: &item::Item, ask: impl FnOnce(&Noted<'_>) -> T) -> T {
    let tests: Vec<_> = item.tests.iter().map(recipe_test).collect();
    ask(&Noted {
        material: &item.material,
        held: item.held,
        litres_each: item.measure_litres,
        given: Given::from(&item.own),
        tests: &tests,
    })
}

/// Figures that are said in percent and kept as shares.
const fn is_share(figure: TestedFigure) -> bool {
    matches!(figure, TestedFigure::Moisture | TestedFigure::Nitrogen)
}

/// A figure of a test as it is kept: shares, not percent.
pub(crate) fn item_test(test: &RecipeTest) -> ItemTest {
    let figure = TestedFigure::from(test.figure);
    let value = if is_share(figure) { test.value / 100.0 } else { test.value };
    ItemTest { figure, value, kind: test.test, made_on: test.on.clone() }
}

/// A figure of a test as it is sent.
pub(crate) fn recipe_test(test: &ItemTest) -> RecipeTest {
    RecipeTest {
        figure: test.figure.into(),
        value: if is_share(test.figure) { (test.value * 1e11).round() / 1e9 } else { test.value },
        test: test.kind,
        on: test.made_on.clone(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_was_typed_comes_back_as_typed() {
        for tenth in 0..=990 {
            let typed = Given { moisture_pct: Some(f64::from(tenth) / 10.0), ..Given::default() };
            assert_eq!(Given::from(&typed.checked(&At::ROOT, &mut Vec::new())), typed);
        }
    }
}
