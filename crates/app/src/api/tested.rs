//! The figures that the tests on a lot give it.

use jiff::civil::Date;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::field_test::{TestKind, TestedFigure};
use zymarch_core::stock::Figures;
use zymarch_formats::field;
use zymarch_formats::field_test::Readings;
use zymarch_formats::recipe::{OwnFigures, RecipeFigure, RecipeTest};
use zymarch_store::field_test::FieldTest;
use zymarch_store::held::Held;

use super::convert::{Said, days_since};

/// The best figure each test gave a lot of a material: the newest counts, and
/// of one day the more exact one. `tests` are those of the lot; `weighed` those
/// on other lots of the material at the site, whose density stands in.
pub(super) fn figures(
    material: &str,
    own: &OwnFigures,
    (tests, weighed): (&[&FieldTest], &[&FieldTest]),
    catalogue: &Catalogue,
    today: Date,
) -> Vec<RecipeTest> {
    let mut newest: Vec<_> = tests.iter().filter_map(|test| Some((*test, readings(test)?))).collect();
    newest.sort_by(|(a, _), (b, _)| {
        b.fields.made_on.cmp(&a.fields.made_on).then(exactness(a.fields.kind).cmp(&exactness(b.fields.kind)))
    });
    let mut best: Vec<RecipeTest> = Vec::new();
    let keep = |given: Vec<RecipeTest>, best: &mut Vec<RecipeTest>| {
        for test in given {
            if best.iter().all(|known| known.figure != test.figure) {
                best.push(test);
            }
        }
    };
    let is_plain = |kind| !matches!(kind, TestKind::Bucket | TestKind::Bean);
    for (test, readings) in newest.iter().filter(|(test, _)| is_plain(test.fields.kind)) {
        keep(readings.gives(None, 0, &test.fields.made_on), &mut best);
    }
    if best.iter().all(|known| known.figure != RecipeFigure::DensityKgL) && own.density_kg_l.is_none() {
        for test in weighed {
            if let Some(readings) = readings(test) {
                keep(readings.gives(None, 0, &test.fields.made_on), &mut best);
            }
        }
    }
    // Signs once seen keep the lot out for as long as their record stands: a later
    // sowing that failed says nothing, and sprays lie in patches.
    for (test, readings) in newest.iter().filter(|(test, _)| test.fields.kind == TestKind::Bean) {
        let days = bean_days(readings, &test.fields.made_on, today);
        keep(readings.gives(None, days, &test.fields.made_on), &mut best);
    }
    // The bucket test leans on the figures found so far.
    if let Some((test, readings)) = newest.iter().find(|(test, _)| test.fields.kind == TestKind::Bucket) {
        let lot = lot_figures(material, own, &best, catalogue);
        keep(readings.gives(lot.as_ref(), 0, &test.fields.made_on), &mut best);
    }
    best
}

/// The figures of a lot of a material, with what tests gave.
pub(super) fn lot_figures(
    material: &str,
    own: &OwnFigures,
    tests: &[RecipeTest],
    catalogue: &Catalogue,
) -> Option<Figures> {
    let said = Said { material, held: Held::Kilograms(1.0), litres_each: None, own, tests };
    said.resolve(catalogue, "").ok().map(|item| item.figures)
}

/// What was read in a test; none if a later version wrote it.
pub(super) fn readings(test: &FieldTest) -> Option<Readings> {
    field::read(&test.fields.readings).ok()
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
        TestKind::Weigh | TestKind::Drying | TestKind::Bucket | TestKind::Bean => 0,
        TestKind::Squeeze => 1,
    }
}

/// A figure of a test as the core takes it: shares, not percent.
pub(super) fn core_value(figure: RecipeFigure, value: f64) -> f64 {
    if figure == RecipeFigure::MoisturePct { value / 100.0 } else { value }
}

/// A figure of a test as it is sent.
pub(super) fn wire_value(figure: TestedFigure, value: f64) -> f64 {
    if figure == TestedFigure::Moisture { (value * 1e11).round() / 1e9 } else { value }
}
