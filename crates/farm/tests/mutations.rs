//! Whatever bytes a parser is given, it answers or refuses: it never falls, and it never takes
//! long. Sound documents are changed at random, a few seconds each; `ZYMARCH_FUZZ_SECONDS`
//! makes it as many as a campaign wants.

use std::time::{Duration, Instant};

use proptest::prelude::*;
use proptest::strategy::ValueTree;
use proptest::test_runner::{Config, RngAlgorithm, TestRng, TestRunner};
use zymarch_core::base::fault::Faults;
use zymarch_core::base::quantity::Band;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::confidence::KeptDraws;
use zymarch_core::stock::material;
use zymarch_farm::clock::Clock;
use zymarch_farm::{mix, plan, tend};
use zymarch_formats::field::{self, Document};
use zymarch_formats::field_test::Readings;
use zymarch_formats::logger::LoggerFile;
use zymarch_formats::material::MaterialFields;
use zymarch_formats::method::MethodFields;
use zymarch_formats::{farm, log_table, senml, text};

/// One document may take this long even in a build that is not optimized.
const SLOW: Duration = Duration::from_secs(5);

/// What is put in place of something, or between two things.
const PIECES: [&str; 40] = [
    "0",
    "-1",
    "1e308",
    "1e-320",
    "1e999",
    "-0",
    "NaN",
    "null",
    "true",
    "\"\"",
    "[]",
    "{}",
    "[[[[",
    "\"\u{0}\"",
    "\u{feff}",
    "\u{202e}",
    "é",
    "💧",
    "\\u0000",
    "\\",
    "\"",
    ",",
    ":",
    "}",
    "]",
    "{",
    "\n",
    "\r",
    ";",
    "=1+1",
    "'",
    "\"kg\":",
    "\"material\":\"wheat-straw\",",
    "\"moisture_pct\":",
    "9999999999999999999999",
    "0.1",
    "100",
    "99.9",
    "2026-02-30",
    "../../x",
];

/// One change of a text.
#[derive(Debug, Clone)]
enum Change {
    Put(usize, usize),
    Cut(usize, usize),
    Double(usize, usize),
    Byte(usize, u8),
}

fn changes() -> impl Strategy<Value = Vec<Change>> {
    let one = prop_oneof![
        4 => (any::<usize>(), 0..PIECES.len()).prop_map(|(at, piece)| Change::Put(at, piece)),
        2 => (any::<usize>(), 1..30_usize).prop_map(|(at, length)| Change::Cut(at, length)),
        1 => (any::<usize>(), 1..80_usize).prop_map(|(at, length)| Change::Double(at, length)),
        1 => (any::<usize>(), any::<u8>()).prop_map(|(at, byte)| Change::Byte(at, byte)),
    ];
    proptest::collection::vec(one, 1..6)
}

fn changed(seed: &[u8], changes: &[Change]) -> Vec<u8> {
    let mut now = seed.to_vec();
    for change in changes {
        let place = |at: usize| at % (now.len() + 1);
        let end = |from: usize, length: usize| (from + length).min(now.len());
        match *change {
            Change::Put(at, piece) => {
                let at = place(at);
                // Over what stands there as often as before it.
                let until = if piece % 2 == 0 { end(at, PIECES[piece].len()) } else { at };
                now.splice(at..until, PIECES[piece].bytes());
            }
            Change::Cut(at, length) => {
                let at = place(at);
                now.drain(at..end(at, length));
            }
            Change::Double(at, length) => {
                let at = place(at);
                let part = now[at..end(at, length)].to_vec();
                now.splice(at..at, part);
            }
            Change::Byte(at, byte) => {
                let at = place(at);
                if let Some(old) = now.get_mut(at) {
                    *old = byte;
                }
            }
        }
    }
    now
}

/// Changes `seed` for some seconds and gives each to `parser`.
fn worn(seed: &str, parser: impl Fn(&[u8])) {
    let seconds = std::env::var("ZYMARCH_FUZZ_SECONDS").ok().and_then(|text| text.parse().ok()).unwrap_or(2);
    let begun = Instant::now();
    let rng = TestRng::deterministic_rng(RngAlgorithm::ChaCha);
    let mut runner = TestRunner::new_with_rng(Config::default(), rng);
    let mut tried = 0_u64;
    while begun.elapsed() < Duration::from_secs(seconds) {
        let changes = changes().new_tree(&mut runner).expect("a change").current();
        let bytes = changed(seed.as_bytes(), &changes);
        let asked = Instant::now();
        parser(&bytes);
        assert!(asked.elapsed() < SLOW, "{:?} for {:?}", asked.elapsed(), String::from_utf8_lossy(&bytes));
        tried += 1;
    }
    println!("{tried} tried");
    assert!(tried > 100, "only {tried} were tried");
}

/// A document is answered or refused, and every refusal names a place that can be told.
fn document<T: Document, A: serde::Serialize>(
    bytes: &[u8],
    of: impl Fn(&Catalogue, &T) -> Result<A, Faults>,
) {
    let book = Catalogue::book();
    let Ok(text) = text::decoded(bytes.to_vec()) else { return };
    let answer = field::document::<T>(&text)
        .and_then(|sent| of(&book, &sent).map_err(|faults| field::located(faults, &text)));
    match answer {
        Ok(answer) => {
            let written = serde_json::to_string(&answer).expect("can be written");
            // What is no number would be written as null where a number is promised.
            let back: serde_json::Value = serde_json::from_str(&written).expect("can be read");
            assert!(back.is_object());
        }
        Err(faults) => {
            assert!(!faults.0.is_empty() && faults.0.len() <= 101, "{} faults", faults.0.len());
            assert!(faults.to_string().len() < 200_000);
        }
    }
}

const RECIPE: &str = r#"{"format":"zymarch-recipe/1","water_l":60,
  "measures":[{"id":"barrow","litres":70}],"method":"bay-turned",
  "target":{"c_n":[25,30],"moisture_pct":[50,60],"free_air_space_min_pct":35},
  "items":[{"material":"wheat-straw","kg":90,"moisture_pct":12,"chopped":true},
    {"material":"sheep-manure","amount":4,"measure":"barrow",
     "tests":[{"figure":"moisture_pct","value":61,"test":"drying","on":"2026-03-14"}]},
    {"material":"mine","litres":30,"moisture_pct":50,"n_pct":2,"c_n":15,"ash_pct":10,"density_kg_l":0.4,"settle":0.8}]}"#;

#[test]
fn recipes() {
    worn(RECIPE, |bytes| document(bytes, mix::sum));
}

#[test]
fn recipes_worked_out() {
    worn(RECIPE, |bytes| document(bytes, mix::working));
}

#[test]
fn recipes_and_how_sure_they_are() {
    worn(RECIPE, |bytes| document(bytes, mix::confidence));
}

#[test]
fn corrections() {
    let seed = format!(
        r#"{{"format":"zymarch-correct/1","recipe":{RECIPE},"fetched_in_l":70,
            "with":[{{"with":{{"material":"goat-manure","kg":30}},"can_add":2}}]}}"#
    );
    worn(&seed, |bytes| document(bytes, mix::correct));
}

#[test]
fn heaps_that_are_to_heat() {
    let seed = r#"{"format":"zymarch-heat/1","days":2,"step_h":1,
        "geometry":{"shape":"box","length_m":1.2,"width_m":1.2,"air_columns":{"count":1}},
        "materials":[{"material":"barley-straw","kg":150},{"material":"sheep-manure","kg":260}],
        "weather":{"mean_c":12,"hourly_c":[]},"rain":[{"at_h":3,"hours":2,"mm":4}],
        "events":[{"kind":"turn","at_h":20},{"kind":"water","at_h":20,"litres":3,"spread":"top"}]}"#;
    worn(seed, |bytes| document(bytes, |book, asked| tend::heat(book, asked, false)));
}

#[test]
fn recorded_heat() {
    let seed = r#"{"format":"zymarch-hygiene/1","criterion":"turned","now":"2026-04-20T08:00Z",
        "readings":[{"at":"2026-03-01T08:00Z","core_c":57.5},{"at":"2026-03-02T08:00Z","core_c":60,"faulty":true}],
        "turns":["2026-03-05T09:00Z"],"additions":["2026-02-20T09:00Z"]}"#;
    worn(seed, |bytes| document(bytes, tend::hygiene));
}

#[test]
fn rules_of_thumb() {
    let seed = r#"{"format":"zymarch-thumb/1","by":"volume","parts":[
        {"parts":2,"of":[{"material":"wheat-straw"}]},{"parts":1,"of":[{"material":"sheep-manure"},{"material":"green-weeds"}]}]}"#;
    worn(seed, |bytes| document(bytes, mix::thumb));
}

#[test]
fn stocks_to_formulate_from() {
    let seed = r#"{"format":"zymarch-formulate/1","aim":"largest","whole_measures":true,"cautious":false,
        "target":{"volume_l":[800,2000]},"measures":[{"id":"b","litres":70}],"water_max_l":400,
        "share_caps":[{"kind":"manure","max_wet_pct":40}],
        "stock":[{"material":"wheat-straw","kg_available":120,"measure":"b"},
          {"material":"sheep-manure","kg_available":200,"measure":"b","kg_min":10},
          {"material":"green-weeds","kg_available":90,"measure":"b","urgency":2,"cost_per_kg":0.1}]}"#;
    worn(seed, |bytes| document(bytes, |book, asked| plan::formulate(book, &KeptDraws::default(), asked)));
}

#[test]
fn field_tests_materials_and_methods() {
    let seeds = [
        r#"{"kind":"drying","dish_g":200,"wet_g":500,"dried_g":[340,291,290]}"#,
        r#"{"kind":"bucket","litres":10,"full_kg":5.1,"empty_kg":0.6,"water_l":4.2}"#,
        r#"{"name":"Mine","kind":"brown","group":"crop residue","moisture_pct":12,"n_pct":0.6,"c_n":80,"ash_pct":7,
            "density_kg_l":0.05,"settle":0.4,"degradability":"slow","particle":"medium","source":"weighed","cautions":["dust"]}"#,
    ];
    for seed in seeds {
        worn(seed, |bytes| {
            let text = String::from_utf8_lossy(bytes);
            if let Ok(readings) = field::read::<Readings>(&text) {
                let _ = readings.answer(None, 3);
            }
            if let Ok(fields) = field::read::<MaterialFields>(&text) {
                let _ = fields.checked();
            }
            let _ = field::read::<MethodFields>(&text);
        });
    }
}

#[test]
fn tables_of_materials() {
    let book = material::write(material::all());
    let seed: String = book.lines().take(4).map(|line| format!("{line}\n")).collect();
    worn(&seed, |bytes| {
        let Ok(text) = text::decoded(bytes.to_vec()) else { return };
        if let Ok(materials) = material::read(&text) {
            // What was taken in is written so that it is taken in again.
            let again = material::read(&material::write(&materials)).expect("is read again");
            assert_eq!(again.len(), materials.len());
        }
    });
}

#[test]
fn files_of_loggers_and_logs() {
    let logger = "Heap 4\nDate;Hour;Core, °F;Air\n14/03/2026;08:15;134,6;12\n14/03/2026;09:15;135,0;13\n";
    worn(logger, |bytes| {
        let Ok(text) = text::decoded(bytes.to_vec()) else { return };
        if let Ok(file) = LoggerFile::read(&text) {
            let _ = file.columns();
            let _ = file.told(&file.guessed("America/Lima"));
        }
    });
    let log = "time,kind,value,unit,place,note\n2026-03-14T08:00Z,temperature,57,C,core,\n2026-03-14T09:00Z,seen,flies worms,,,x\n";
    worn(log, |bytes| {
        let Ok(text) = text::decoded(bytes.to_vec()) else { return };
        let _ =
            log_table::read(&text).map(|table| log_table::write(table.rows.into_iter().map(|(_, row)| row)));
    });
    let pack = r#"[{"bn":"urn:dev:","bt":1776240000,"bu":"Cel","n":"core-60","v":57.2},{"n":"edge","u":"K","v":304.15,"t":-60}]"#;
    worn(pack, |bytes| {
        let Ok(text) = text::decoded(bytes.to_vec()) else { return };
        let read: Result<Vec<senml::Record>, Faults> = field::read(&text);
        let _ = read.map(|pack| senml::measured(&pack, 1_776_240_005_000));
    });
}

#[test]
fn packages_of_a_farm() {
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/");
    let whole = |name: &str| std::fs::read(format!("{folder}{name}"));
    for worn_one in [
        "datapackage.json",
        "lots.csv",
        "batches.csv",
        "batch-items.csv",
        "tests.csv",
        "climate.csv",
        "heaps.csv",
        "heap-items.csv",
        "heap-log.csv",
    ] {
        let seed = String::from_utf8(whole(worn_one).expect("is there")).expect("is text");
        worn(&seed, |bytes| {
            let _ = farm::read(|name| if name == worn_one { Ok(bytes.to_vec()) } else { whole(name) });
        });
    }
}

#[test]
fn words_of_the_command_line() {
    worn("2026-03-14T08:00", |bytes| {
        let _ = String::from_utf8_lossy(bytes).parse::<Clock>();
    });
    worn("25..30", |bytes| {
        let _ = Band::parse(&String::from_utf8_lossy(bytes));
    });
}
