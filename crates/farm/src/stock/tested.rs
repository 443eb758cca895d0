//! The figures that the tests on a lot give it.

use jiff::civil::Date;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::stock::field_test::TestKind;
use zymarch_core::stock::{Figures, Given};
use zymarch_formats::field;
use zymarch_formats::field_test::Readings;
use zymarch_formats::recipe::{RecipeFigure, RecipeTest};
use zymarch_store::field_test::FieldTest;
use zymarch_store::held::Held;

use crate::said::Noted;
use crate::words::days_since;

/// The best figure each test gave a lot of a material: the newest counts, and
/// of one day the more exact one. `tests` are those of the lot; `weighed` those
/// on other lots of the material at the site, whose density stands in.
pub(super) fn figures(
    material: &str,
    given: Given,
    (tests, weighed): (&[&FieldTest], &[&FieldTest]),
    catalogue: &Catalogue,
    today: Date,
) -> Vec<RecipeTest> {
    let mut newest: Vec<_> = tests.iter().filter_map(|test| Some((*test, readings(test)?))).collect();
    newest
        .sort_by(|(a, _), (b, _)| b.made_on.cmp(&a.made_on).then(exactness(a.kind).cmp(&exactness(b.kind))));
    let mut best: Vec<RecipeTest> = Vec::new();
    let keep = |given: Vec<RecipeTest>, best: &mut Vec<RecipeTest>| {
        for test in given {
            if best.iter().all(|known| known.figure != test.figure) {
                best.push(test);
            }
        }
    };
    let is_plain = |kind| !matches!(kind, TestKind::Bucket | TestKind::Bean);
    for (test, readings) in newest.iter().filter(|(test, _)| is_plain(test.kind)) {
        keep(readings.gives(None, 0, &test.made_on), &mut best);
    }
    if best.iter().all(|known| known.figure != RecipeFigure::DensityKgL) && given.density_kg_l.is_none() {
        for test in weighed {
            if let Some(readings) = readings(test) {
                keep(readings.gives(None, 0, &test.made_on), &mut best);
            }
        }
    }
    // Signs once seen keep the lot out for as long as their record stands: a later
    // sowing that failed says nothing, and sprays lie in patches.
    for (test, readings) in newest.iter().filter(|(test, _)| test.kind == TestKind::Bean) {
        let days = bean_days(readings, &test.made_on, today);
        keep(readings.gives(None, days, &test.made_on), &mut best);
    }
    // The bucket test leans on the figures found so far.
    if let Some((test, readings)) = newest.iter().find(|(test, _)| test.kind == TestKind::Bucket) {
        let lot = lot_figures(material, given, &best, catalogue);
        keep(readings.gives(lot.as_ref(), 0, &test.made_on), &mut best);
    }
    best
}

fn lot_figures(material: &str, given: Given, tests: &[RecipeTest], catalogue: &Catalogue) -> Option<Figures> {
    let held = Held::Kilograms { amount: 1.0 };
    let noted = Noted { material, held, litres_each: None, given, tests };
    noted.item(catalogue).ok().map(|item| item.figures)
}

/// What was read in a test; none if a later version wrote it.
pub(super) fn readings(test: &FieldTest) -> Option<Readings> {
    field::read(&test.readings).ok()
}

/// Days that beans had grown when they were judged, or until today.
pub(super) fn bean_days(readings: &Readings, sown_on: &str, today: Date) -> i64 {
    match readings {
        Readings::Bean { judged_on: Some(judged), .. } => {
            judged.parse::<Date>().map_or(0, |judged| days_since(sown_on, judged))
        }
        _ => days_since(sown_on, today),
    }
}

/// Of one day, a scale beats a hand.
const fn exactness(kind: TestKind) -> u8 {
    match kind {
        TestKind::Weigh | TestKind::Drying | TestKind::Bucket | TestKind::Bean | TestKind::Lab => 0,
        TestKind::Squeeze => 1,
    }
}
