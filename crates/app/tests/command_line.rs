//! `zymarch mix` as a person or a script calls it.

mod support;

use std::io::Write;
use std::process::{Command, Output, Stdio};

use serde_json::{Value, json};

const GOOD: &str = r#"{"format":"zymarch-recipe/1","water_l":10,
 "items":[{"material":"wheat-straw","kg":24.0},
          {"material":"goat-manure","amount":2,"measure":"barrow","moisture_pct":60,"n_pct":2.2,"c_n":17,
           "density_kg_l":0.55,"ash_pct":25,"lignin_pct":10,"settle":0.9}],
 "measures":[{"id":"barrow","litres":70}],
 "target":{"c_n":[25,30],"moisture_pct":[50,60],"free_air_space_min_pct":35}}"#;

fn run(arguments: &[&str], input: &str) -> Output {
    let mut child = Command::new(env!("CARGO_BIN_EXE_zymarch"))
        .args(arguments)
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .expect("the program starts");
    // It may close its input early, having read enough.
    let _ = child.stdin.take().expect("stdin is piped").write_all(input.as_bytes());
    child.wait_with_output().expect("it ends")
}

fn refused(input: &str) -> String {
    let output = run(&["mix", "-"], input);
    assert_eq!(output.status.code(), Some(2), "{output:?}");
    assert!(output.stdout.is_empty(), "{output:?}");
    String::from_utf8(output.stderr).expect("is text")
}

#[test]
fn a_recipe_is_summed_and_the_figures_are_those_of_the_formulas() {
    let output = run(&["mix", "-"], GOOD);
    assert_eq!(output.status.code(), Some(0), "{output:?}");
    let mix: Value = serde_json::from_slice(&output.stdout).expect("is JSON");
    // By hand: straw 21.12 kg dry, 0.1056 N, 9.7152 C; manure 77 kg, 30.8 dry, 0.6776 N, 11.5192 C.
    let close = |field: &str, wanted: f64| {
        let got = mix[field].as_f64().unwrap_or(f64::NAN);
        assert!((got - wanted).abs() < 1e-6 * wanted.abs(), "{field}: {got}, not {wanted}");
    };
    close("wet_mass_kg", 111.0);
    close("dry_matter_kg", 51.92);
    close("nitrogen_kg", 0.7832);
    close("carbon_kg", 21.2344);
    close("c_n", 21.2344 / 0.7832);
    close("moisture_pct", 100.0 * (2.88 + 46.2 + 10.0) / 111.0);
    close("volume_l", 480.0 + 140.0);
    close("heap_volume_l", 240.0 + 126.0);
    close("density_kg_l", 111.0 / 366.0);
    // Ash 1.4784 + 7.7 = 9.1784; organic 42.7416.
    close("free_air_space_pct", 100.0 * (1.0 - (59.08 + 42.7416 / 1.6 + 9.1784 / 2.65) / 366.0));
    // Straw: L = 9/0.93, B = 0.559032, × 0.9. Manure: L = 10/0.75 = 13.333, B = 0.456667, medium × 0.9.
    let available =
        9.7152 * 0.559_032_258_064_516_1 / 0.83 * 0.9 + 11.5192 * 0.456_666_666_666_666_7 / 0.83 * 0.9;
    close("available_c_n", available / 0.7832);
    assert!((mix["water_to_add_l"]["aim"].as_f64().expect("a number") - (51.92 / 0.45 - 111.0)).abs() < 1e-6);
    assert_eq!(mix["items"][1]["figures"]["c_n"], json!({"value": 17.0, "origin": "own"}));
    assert_eq!(mix["items"][0]["figures"]["c_n"]["origin"], "book");
}

#[test]
fn the_api_gives_the_same_answer() {
    let folder = tempfile::TempDir::new().expect("a folder");
    let server = support::Server::start(&folder.path().join("farm.sqlite"));
    let answer = server.ask(support::Asked::new("POST", "/api/mix").text(GOOD));
    assert_eq!(answer.status, 200, "{answer:?}");
    let output = run(&["mix", "-"], GOOD);
    let from_file: Value = serde_json::from_slice(&output.stdout).expect("is JSON");
    assert_eq!(answer.json(), from_file);
}

#[test]
fn bad_input_is_refused_with_its_field_and_line() {
    for (input, wanted) in [
        (GOOD.replace("wheat-straw", "moon-dust"), "line 2: items[0].material"),
        (GOOD.replace("\"kg\":24.0", "\"kg\":-24.0"), "line 2: items[0].kg"),
        (GOOD.replace("\"kg\":24.0", "\"kg\":1e12"), "line 2: items[0].kg"),
        (GOOD.replace("\"moisture_pct\":60", "\"moisture_pct\":100"), "line 3: items[1].moisture_pct"),
        (GOOD.replace("\"water_l\":10", "\"water_l\":-1"), "water_l"),
        (GOOD.replace("recipe/1", "recipe/9"), "line 1: format"),
        (GOOD.replace("\"amount\":2,", ""), "items[1].amount"),
        (GOOD[..60].to_owned(), "standard input"),
        (r#"{"format":"zymarch-recipe/1","items":[{"material":"lime","kg":5}]}"#.into(), "items"),
        (
            r#"{"format":"zymarch-recipe/1","items":[{"material":"my-dung","kg":5,"moisture_pct":50}]}"#
                .into(),
            "items[0].n_pct",
        ),
        (r#"{"format":"zymarch-recipe/1","items":[]}"#.into(), "items"),
        (String::new(), "standard input"),
    ] {
        let said = refused(&input);
        assert!(said.contains(wanted), "`{wanted}` is not in: {said}");
    }
}

#[test]
fn ten_megabytes_are_refused_quickly_and_plainly() {
    let huge = format!("{{\"format\":\"zymarch-recipe/1\",\"name\":\"{}\"}}", "x".repeat(10 << 20));
    assert!(refused(&huge).contains("larger than the 1024 kB"));
}

#[test]
fn bytes_that_are_no_text_are_refused() {
    let folder = tempfile::TempDir::new().expect("a folder");
    let file = folder.path().join("recipe.json");
    std::fs::write(&file, [0xff, 0xfe, 0x00]).expect("writes");
    let output = run(&["mix", &file.display().to_string()], "");
    assert_eq!(output.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&output.stderr).contains("not text in UTF-8"));
}

#[test]
fn a_file_that_is_not_there_is_named() {
    let output = run(&["mix", "no-such-recipe.json"], "");
    assert_eq!(output.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&output.stderr).contains("no-such-recipe.json"));
}

#[test]
fn addresses_beyond_this_machine_are_refused() {
    let folder = tempfile::TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite").display().to_string();
    let output = run(&["serve", "--data", &data, "--bind", "0.0.0.0", "--port", "0"], "");
    assert_eq!(output.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&output.stderr).contains("only this machine’s own addresses"));
}

#[test]
fn a_farm_is_imported_whole_or_not_at_all() {
    let folder = tempfile::TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let demo = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo");
    let import = |from: &str| run(&["import", from, "--data", &data.display().to_string()], "");
    assert_eq!(import(demo).status.code(), Some(0));

    let bad = folder.path().join("bad");
    std::fs::create_dir(&bad).expect("a folder");
    for file in std::fs::read_dir(demo).expect("is there").flatten() {
        std::fs::copy(file.path(), bad.join(file.file_name())).expect("copies");
    }
    let lots = std::fs::read_to_string(bad.join("lots.csv")).expect("is there");
    let lots = lots.replace("sheep-manure,,5,", "sheep-manure,,-5,").replace("wood-ash,,4,", "stardust,,4,");
    std::fs::write(bad.join("lots.csv"), lots).expect("writes");
    let refused = import(&bad.display().to_string());
    assert_eq!(refused.status.code(), Some(2));
    let said = String::from_utf8_lossy(&refused.stderr).into_owned();
    assert!(
        said.contains("line 5: lots.csv.amount") && said.contains("line 13: lots.csv.material"),
        "{said}"
    );

    let server = support::Server::start(&data);
    assert_eq!(server.get("/api/sites").json().as_array().map(Vec::len), Some(1));
}

#[test]
fn a_mix_is_formulated_and_a_bad_stock_is_named_by_field_and_line() {
    let stock = r#"{"format":"zymarch-formulate/1","aim":"largest",
        "stock":[{"material":"wheat-straw","kg_available":60,"measure":"barrow"},
                 {"material":"sheep-manure","kg_available":150,"measure":"barrow"}],
        "measures":[{"id":"barrow","litres":70}],"whole_measures":true}"#;
    let output = run(&["formulate", "-"], stock);
    assert_eq!(output.status.code(), Some(0), "{output:?}");
    let found: Value = serde_json::from_slice(&output.stdout).expect("is JSON");
    assert_eq!((found["status"].as_str(), found["proven"].as_bool()), (Some("ok"), Some(true)));
    // 60 kg are 17.1 barrows of straw, 150 kg are 3.9 of dung.
    assert_eq!(found["items"][1]["count"].as_f64(), Some(3.0), "{found}");
    let c_n = found["mix"]["c_n"].as_f64().expect("a number");
    assert!((25.0..=30.0).contains(&c_n), "{c_n}");
    // The same question has the same answer.
    assert_eq!(run(&["formulate", "-"], stock).stdout, output.stdout);

    let bad = run(&["formulate", "-"], &stock.replace("\"kg_available\":150", "\"kg_available\":-150"));
    assert_eq!(bad.status.code(), Some(2));
    let said = String::from_utf8_lossy(&bad.stderr).into_owned();
    assert!(said.contains("line 3: stock[1].kg_available"), "{said}");
}

#[test]
fn a_rule_a_doubt_and_a_correction_are_answered_alike_here_and_over_the_api() {
    let recipe = r#"{"format":"zymarch-recipe/1","items":[{"material":"wheat-straw","kg":60},{"material":"sheep-manure","kg":60}],"water_l":40}"#;
    let ill = r#"{"format":"zymarch-diagnose/1","method":"bay-turned","built_at":"2026-04-12T08:00Z","now":"2026-04-20T08:00Z","recipe":{"format":"zymarch-recipe/1","items":[{"material":"wheat-straw","kg":160},{"material":"sheep-manure","kg":330}]},"log":[{"at":"2026-04-20T07:00Z","kind":"squeeze","feel":"dusty"}]}"#;
    let spread = r#"{"format":"zymarch-apply/1","compost":{"density_kg_l":0.55,"moisture_pct":45},"use":{"kind":"pits","count":12,"litres_each":20}}"#;
    let record = r#"{"format":"zymarch-hygiene/1","criterion":"closed","now":"2026-04-20T08:00Z","readings":[{"at":"2026-04-20T07:00Z","core_c":60}]}"#;
    let heap = r#"{"format":"zymarch-heat/1","days":3,"geometry":{"shape":"cylinder","diameter_m":1},"materials":[{"material":"barley-straw","kg":40},{"material":"sheep-manure","kg":90}]}"#;
    let rule = r#"{"format":"zymarch-thumb/1","by":"weight","parts":[{"parts":1,"of":[{"material":"wheat-straw"}]},{"parts":1,"of":[{"material":"sheep-manure"}]}]}"#;
    let correct = format!(r#"{{"format":"zymarch-correct/1","recipe":{recipe}}}"#);
    let folder = tempfile::TempDir::new().expect("a folder");
    let server = support::Server::start(&folder.path().join("farm.sqlite"));
    for (command, input, key) in [
        ("confidence", recipe, "in_workable_pct"),
        ("thumb", rule, "ladder"),
        ("heat", heap, "summary"),
        ("hygiene", record, "status"),
        ("diagnose", ill, "causes"),
        ("apply", spread, "need_l"),
        ("correct", &correct, "faults"),
    ] {
        let output = run(&[command, "-"], input);
        assert!(output.status.success(), "{command}: {output:?}");
        let here: Value = serde_json::from_slice(&output.stdout).expect("is JSON");
        assert!(!here[key].is_null(), "{command}: {here}");
        // Drawn twice, it comes out the same.
        let there = server.ask(support::Asked::new("POST", &format!("/api/{command}")).text(input));
        assert_eq!(there.json(), here, "{command}");
    }
}

#[test]
fn a_data_file_is_checked_against_its_log() {
    let folder = tempfile::TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let demo = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo");
    assert_eq!(run(&["import", demo, "--data", &data.display().to_string()], "").status.code(), Some(0));
    let check = || run(&["check", &data.display().to_string()], "");
    let sound = check();
    assert_eq!(sound.status.code(), Some(0), "{sound:?}");
    assert!(String::from_utf8_lossy(&sound.stdout).contains("entries of the log"), "{sound:?}");

    // Somebody puts another amount into the file by hand; the log knows better.
    let conn = zymarch_store::Connection::open(&data).expect("opens");
    conn.execute("UPDATE lot_stock SET amount = 999 WHERE amount = 24", []).expect("writes");
    drop(conn);
    let odd = check();
    assert_eq!(odd.status.code(), Some(1), "{odd:?}");
    let said = String::from_utf8_lossy(&odd.stderr).into_owned();
    assert!(said.contains("lot_stock") && said.contains("999") && said.contains("24"), "{said}");
    assert_eq!(run(&["check", demo], "").status.code(), Some(2), "a folder is no data file");
}
