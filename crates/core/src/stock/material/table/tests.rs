//! Rows read, written back, and refused by cell.

use super::*;

fn shipped_with(from: &str, to: &str) -> String {
    let text: String = include_str!("../../../../data/materials.csv")
        .lines()
        .take(3)
        .map(|line| format!("{line}\n"))
        .collect();
    assert!(text.contains(from));
    text.replacen(from, to, 1)
}

#[test]
fn a_bad_cell_is_named_by_line_and_column() {
    let bad = read(&shipped_with(
        "paja;rastrojo de trigo;tamo de trigo,brown",
        "paja;rastrojo de trigo;tamo de trigo,beige",
    ))
    .expect_err("beige is not a kind");
    assert_eq!(bad.len(), 1);
    assert_eq!((bad[0].line, bad[0].path.to_string()), (Some(2), "kind".into()));
    assert_eq!(bad[0].code, FaultCode::UnknownWord);
    assert_eq!(bad[0].params[0], ("got", "beige".into()));
}

#[test]
fn every_bad_cell_is_named_and_nothing_is_taken() {
    let text = shipped_with("brown,crop residue,12,8,20", "brown,crop residue,wet,8,200");
    let bad = read(&text).expect_err("two bad cells");
    let columns: Vec<_> = bad.iter().map(|row| row.path.to_string()).collect();
    assert_eq!(columns, ["moisture_pct", "moisture_high"]);
}

#[test]
fn what_is_written_is_read_back() {
    let text = write(super::super::all());
    assert_eq!(read(&text).expect("reads"), super::super::all());
    assert_eq!(text.lines().next(), Some(COLUMNS.join(",").as_str()));
}

#[test]
fn a_cell_that_begins_like_a_formula_is_guarded_and_read_back_as_it_was() {
    let straw = crate::stock::material::find("wheat-straw").expect("in the table");
    for name in ["=HYPERLINK(1)", "+straw", "-straw", "@straw", "'=straw", "'straw", "straw=1", "''"] {
        let own = Material { name: name.into(), ..straw.clone() };
        let text = write([&own]);
        let guarded = ["=", "+", "-", "@"].iter().any(|one| text.contains(&format!(",{one}")));
        assert!(!guarded, "{text}");
        assert_eq!(read(&text).expect("is read")[0].name, name);
    }
}

#[test]
fn a_range_in_the_wrong_order_is_refused() {
    let bad = read(&shipped_with("brown,crop residue,12,8,20", "brown,crop residue,12,18,20"));
    assert_eq!(bad.expect_err("12 is not in 18 to 20")[0].path.to_string(), "moisture_pct");
}

#[test]
fn an_id_that_stands_twice_is_refused_the_second_time() {
    let bad = read(&shipped_with("barley-straw,Barley", "wheat-straw,Barley")).expect_err("twice");
    assert_eq!((bad[0].line, bad[0].path.to_string()), (Some(3), "id".into()));
}

#[test]
fn missing_and_unknown_columns_are_named() {
    let bad = rows("id,name,colour\nx,X,red\n").expect_err("not these columns");
    assert!(
        bad.iter().any(|row| row.path.to_string() == "kind")
            && bad.iter().any(|row| row.path.to_string() == "colour")
    );
    assert!(rows("").is_err());
}

#[test]
fn a_byte_order_mark_does_no_harm() {
    assert!(read(&format!("\u{feff}{}", shipped_with("wheat", "wheat"))).is_ok());
}

#[test]
fn a_row_with_too_many_cells_is_refused() {
    let bad = read(&shipped_with("Waxy stems", "Waxy, stems")).expect_err("a loose comma");
    assert_eq!(bad[0].path.to_string(), "row");
}

#[test]
fn an_unknown_caution_is_refused() {
    let bad =
        read(&shipped_with("spray-check;dust", "spray-check;smells-of-elderberries")).expect_err("unknown");
    assert_eq!(bad[0].path.to_string(), "cautions");
}

use proptest::prelude::*;

proptest! {
    /// Whatever stands in one cell: read or refused on its own line, and the other rows are not touched.
    #[test]
    fn one_odd_cell_spoils_its_own_row_only(
        column in 0..COLUMNS.len(),
        cell in prop_oneof![
            any::<f64>().prop_map(|value| value.to_string()),
            "[ -~]{0,40}".prop_map(|text| format!("\"{}\"", text.replace('"', "\"\""))),
            Just(String::new()),
            Just("NaN".to_owned()),
        ],
    ) {
        let rows: Vec<&Material> = super::super::all().iter().take(4).collect();
        let mut lines: Vec<Vec<String>> = rows.iter().map(|row| cells(row)).collect();
        let quote = |cell: &String| format!("\"{}\"", cell.replace('"', "\"\""));
        for line in &mut lines {
            for text in line.iter_mut() {
                *text = quote(text);
            }
        }
        lines[1][column] = cell;
        let text: String = std::iter::once(COLUMNS.join(","))
            .chain(lines.iter().map(|line| line.join(",")))
            .map(|line| line + "\n")
            .collect();
        let found = super::rows(&text).expect("the header is sound");
        prop_assert_eq!(found.len(), 4);
        for (index, row) in found.iter().enumerate() {
            prop_assert_eq!(row.line, index + 2);
            match &row.material {
                Ok(material) => prop_assert!(index == 1 || material == rows[index]),
                Err(bad) => {
                    // An id that is another row's spoils the later of the two.
                    prop_assert!(index == 1 || (column == 0 && bad[0].path.to_string() == "id"), "{:?}", bad);
                    prop_assert!(bad.iter().all(|cell| cell.line == Some(row.line)));
                }
            }
        }
    }
}
