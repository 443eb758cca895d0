//! The worst documents of the largest size: how long each takes to be answered, or refused.
//!
//! Nothing here fails on a slow machine: it measures, it does not judge.

use std::fmt::Write as _;
use std::time::Instant;

use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::confidence::KeptDraws;
use zymarch_core::stock::material;
use zymarch_farm::{mix, plan};
use zymarch_formats::field::{self, Document, LARGEST_DOCUMENT};

/// `head`, as many of `item` as fit into the largest document, `tail`.
fn filled(head: &str, item: impl Fn(usize) -> String, tail: &str) -> String {
    let mut text = head.to_owned();
    for place in 0.. {
        let one = item(place);
        if text.len() + one.len() + tail.len() + 1 > LARGEST_DOCUMENT {
            break;
        }
        if place > 0 {
            text.push(',');
        }
        text.push_str(&one);
    }
    text + tail
}

/// What the command line and the API both do with a document.
fn answered<T: Document, A>(text: &str, of: impl Fn(&Catalogue, &T) -> Result<A, Faults>) -> usize {
    let book = Catalogue::book();
    let answer = field::document::<T>(text)
        .and_then(|sent| of(&book, &sent).map_err(|faults| field::located(faults, text)));
    answer.map_or_else(|faults| faults.0.len(), |_| 0)
}

type Case = (&'static str, String, fn(&str) -> usize);

fn cases() -> Vec<Case> {
    let recipe = r#"{"format":"zymarch-recipe/1","#;
    let items = |count: usize, of: &dyn Fn(usize) -> String| {
        let all: Vec<String> = (0..count).map(of).collect();
        format!(r#"{recipe}"items":[{}]}}"#, all.join(","))
    };
    let summed: fn(&str) -> usize = |text| answered(text, mix::sum);
    let bad_test = r#"{"figure":"moisture_pct","value":500,"test":"drying","on":"never"}"#;
    let tests = filled("", |_| bad_test.into(), "");
    let unknown =
        |place: usize| format!(r#"{{"material":"{}{place}","kg":1}}"#, "straw-of-the-far-".repeat(40));
    let mut nested = String::new();
    write!(nested, "{}1{}", "[".repeat(500_000), "]".repeat(500_000)).expect("memory takes it");
    let sentence = |text: String| format!(r#"{{"format":"zymarch-say/1","text":"{text}"}}"#);
    let said: fn(&str) -> usize = |text| answered(text, mix::say);
    let stock = filled(
        r#"{"format":"zymarch-formulate/1","aim":"largest","stock":["#,
        |_| r#"{"material":"wheat-straw","kg_available":10,"measure":"none"}"#.into(),
        "]}",
    );
    let lots: Vec<String> = (0..300)
        .map(|place| {
            let material =
                ["wheat-straw", "sheep-manure", "layer-hen-manure", "green-weeds", "goat-manure"][place % 5];
            format!(r#"{{"material":"{material}","kg_available":{},"measure":"m{place}"}}"#, 10 + place)
        })
        .collect();
    let measures: Vec<String> =
        (0..500).map(|place| format!(r#"{{"id":"m{place}","litres":{}}}"#, 10 + place)).collect();
    let whole = |without_worth: bool| {
        format!(
            r#"{{"format":"zymarch-formulate/1","aim":"largest","target":{{"volume_l":[0,100000]}},"whole_measures":true,"without_worth":{without_worth},"measures":[{}],"stock":[{}]}}"#,
            measures.join(","),
            lots.join(",")
        )
    };
    let formulated: fn(&str) -> usize =
        |text| answered(text, |book, asked| plan::formulate(book, &KeptDraws::default(), asked));
    let thumb = filled(
        r#"{"format":"zymarch-thumb/1","by":"volume","parts":["#,
        |_| r#"{"parts":-1,"of":[]}"#.into(),
        "]}",
    );
    let steps = filled(
        r#"{"format":"zymarch-correct/1","recipe":{"format":"zymarch-recipe/1","items":[{"material":"wheat-straw","kg":5}]},"with":["#,
        |_| r#"{"with":{"material":"x","kg":-1},"can_add":1}"#.into(),
        "]}",
    );
    vec![
        ("a thousand sound items", items(1000, &|_| r#"{"material":"wheat-straw","kg":1}"#.into()), summed),
        (
            "items without end",
            filled(&format!(r#"{recipe}"items":["#), |_| r#"{"kg":-1}"#.into(), "]}"),
            summed,
        ),
        ("unknown materials of long names", items(1000, &unknown), summed),
        (
            "bad tests of one lot",
            format!(r#"{recipe}"items":[{{"material":"wheat-straw","kg":1,"tests":[{tests}]}}]}}"#),
            summed,
        ),
        (
            "fifty bad tests of each lot",
            items(300, &|_| {
                format!(r#"{{"material":"wheat-straw","kg":1,"tests":[{}]}}"#, vec![bad_test; 48].join(","))
            }),
            summed,
        ),
        (
            "measures without end",
            filled(
                &format!(r#"{recipe}"items":[],"measures":["#),
                |_| r#"{"id":"m","litres":-1}"#.into(),
                "]}",
            ),
            summed,
        ),
        ("lists in lists", format!(r#"{recipe}"items":{nested}}}"#), summed),
        ("one endless name", format!(r#"{recipe}"{}":1}}"#, "x".repeat(1_000_000)), summed),
        (
            "one endless line of faults",
            format!(
                "{recipe}\"items\":[{}]}}",
                vec!["{\"material\":\"wheat-straw\",\"kg\":-1,\"c_n\":-1}"; 1000].join(",\n")
            ),
            summed,
        ),
        ("a sentence of nothing known", sentence("1 xyzz, ".chars().cycle().take(5000).collect()), said),
        ("a sentence without a stop", sentence("a l ".chars().cycle().take(5000).collect()), said),
        ("lots without end", stock, formulated),
        ("three hundred lots in whole measures", whole(true), formulated),
        ("the same, and what one more is worth", whole(false), formulated),
        ("parts without end", thumb, |text| answered(text, mix::thumb)),
        ("steps without end", steps, |text| answered(text, mix::correct)),
        (
            "working of a thousand items",
            items(1000, &|_| r#"{"material":"sheep-manure","kg":1}"#.into()),
            |text| answered(text, mix::working),
        ),
        (
            "confidence of a thousand items",
            items(1000, &|_| r#"{"material":"sheep-manure","kg":1}"#.into()),
            |text| answered(text, mix::confidence),
        ),
        ("a table of materials, all cells bad", table(), |text| {
            material::read(text).map_or_else(|bad| bad.len(), |_| 0)
        }),
        (
            "corrections of a thousand items",
            format!(
                r#"{{"format":"zymarch-correct/1","recipe":{}}}"#,
                items(1000, &|_| r#"{"material":"wheat-straw","kg":1}"#.into())
            ),
            |text| answered(text, mix::correct),
        ),
    ]
}

/// A file of materials without a sound cell.
fn table() -> String {
    let header = material::COLUMNS.join(",");
    let row = ",".repeat(material::COLUMNS.len() - 1);
    (0..2000).fold(header, |text, _| text + "\n" + &row)
}

fn main() {
    println!("the worst documents, held to 200 ms but for what is asked apart");
    for (name, text, answer) in cases() {
        let times = (0..3).map(|_| {
            let begun = Instant::now();
            (answer(&text), begun.elapsed())
        });
        let (faults, took) = times.min_by_key(|(_, took)| *took).expect("was asked");
        println!(
            "{name:38} {:>7} kB {:>7.1} ms, {faults} faults told",
            text.len() / 1024,
            took.as_secs_f64() * 1000.0
        );
    }
}
