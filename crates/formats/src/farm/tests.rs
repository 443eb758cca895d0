//! Packages, sound and unsound.

use super::*;

fn package(lots: &str) -> impl Fn(&str) -> Option<String> {
    let lots = lots.to_owned();
    move |name| {
        Some(match name {
            "datapackage.json" => r#"{"profile":"zymarch-farm/1","title":"Velluma Terraces"}"#.into(),
            "measures.csv" => "id,name,plural,litres,glyph\nbarrow,barrow,barrows,70,barrow\n".into(),
            "lots.csv" => format!("material,label,amount,unit,moisture_pct,n_pct,c_n,density_kg_l\n{lots}"),
            "batches.csv" => {
                "name,water_l,shape,length_cm,width_cm,diameter_cm,height_cm\nTerrace heap,70,box,110,110,,120\n".into()
            }
            "batch-items.csv" => {
                "batch,material,label,amount,unit,moisture_pct,n_pct,c_n,density_kg_l\nTerrace heap,barley-straw,,4,barrow,,,,\n"
                    .into()
            }
            _ => return None,
        })
    }
}

/// A package of texts, as files would hold it.
fn told(file: impl Fn(&str) -> Option<String>) -> Result<Farm, Faults> {
    let missing = std::io::ErrorKind::NotFound;
    read(|name| file(name).map(String::into_bytes).ok_or_else(|| missing.into()))
}

#[test]
fn a_file_that_cannot_be_read_is_told_and_only_an_absent_one_may_be_absent() {
    let with_tests = |tests: std::io::Result<Vec<u8>>| {
        let tests = std::cell::RefCell::new(Some(tests));
        read(|name| match name {
            "tests.csv" => tests.borrow_mut().take().expect("asked for once"),
            other => {
                package("")(other).map(String::into_bytes).ok_or_else(|| std::io::ErrorKind::NotFound.into())
            }
        })
    };
    let code = |tests| {
        let fault = with_tests(tests).expect_err("refused").0.remove(0);
        (fault.path.to_string(), fault.code)
    };
    assert_eq!(
        code(Ok(b"lot,made_on,readings\nna\xEFve,,\n".to_vec())),
        ("tests.csv".into(), FaultCode::NotUtf8)
    );
    let denied = std::io::ErrorKind::PermissionDenied;
    assert_eq!(code(Err(denied.into())), ("tests.csv".into(), FaultCode::FileUnread));
    assert!(with_tests(Err(std::io::ErrorKind::NotFound.into())).is_ok());
    let marked = b"\xEF\xBB\xBFlot,made_on,readings\n".to_vec();
    assert!(with_tests(Ok(marked)).is_ok(), "as spreadsheets save it");
}

#[test]
fn a_package_is_read_whole() {
    let farm = told(package("sheep-manure,,3,barrow,58,,,\nwood-ash,,5,kg,,,,\n")).expect("is sound");
    assert_eq!(farm.name, "Velluma Terraces");
    assert_eq!(farm.lots[0].moisture_pct, Some(58.0));
    assert_eq!(farm.batches[0].items.len(), 1);
}

#[test]
fn every_bad_row_is_named_and_nothing_is_taken() {
    let refusal = told(package(
        "sheep-manure,,-3,barrow,,,,\nwood-ash,,5,kg,,,,\nmoon-dust,,1,kg,,,,\nlime,,many,kg,,,,\n",
    ))
    .expect_err("three bad rows");
    let lines: Vec<_> = refusal.0.iter().filter_map(|error| error.line).collect();
    assert_eq!(lines, [5, 2, 4], "{refusal}");
}

#[test]
fn dates_move_with_the_day_the_package_was_written() {
    let with_dates = |name: &str| {
        Some(match name {
            "datapackage.json" => {
                r#"{"profile":"zymarch-farm/1","title":"x","created":"2026-03-14","altitude_m":2900}"#.into()
            }
            "lots.csv" => {
                "id,material,label,amount,unit,moisture_pct,n_pct,c_n,density_kg_l,gathered_on\n\
                 dung,sheep-manure,,3,barrow,,,,,2026-03-10\n"
                    .into()
            }
            "tests.csv" => {
                "lot,made_on,readings\ndung,2026-03-12,\"{\"\"kind\"\":\"\"squeeze\"\",\"\"feel\"\":\"\"holds\"\"}\"\n".into()
            }
            other => return package("")(other),
        })
    };
    let farm = told(with_dates).expect("is sound").moved_to(jiff::civil::date(2027, 1, 14));
    assert_eq!(farm.lots[0].gathered_on, Some(jiff::civil::date(2027, 1, 10)));
    assert_eq!(farm.tests[0].made_on, jiff::civil::date(2027, 1, 12));
}

#[test]
fn bad_months_and_tests_are_named_by_file_and_line() {
    let refusal = told(|name: &str| {
        Some(match name {
            "climate.csv" => "month,mean_c,swing_c,rain_mm\n1,10,5,80\n13,10,5,80\n2,99,5,80\n".into(),
            "tests.csv" => "lot,made_on,readings\nnone,2026-03-12,{}\n".into(),
            other => return package("")(other),
        })
    })
    .expect_err("three bad rows");
    let found: Vec<(String, Option<usize>)> =
        refusal.0.iter().map(|fault| (fault.path.to_string(), fault.line)).collect();
    assert_eq!(
        found,
        [("climate.csv.month", 3), ("climate.csv.mean_c", 4), ("tests.csv.lot", 2)]
            .map(|(path, line)| (path.to_owned(), Some(line)))
    );
}

#[test]
fn a_missing_file_is_named() {
    let refusal = told(|name| {
        (name == "datapackage.json").then(|| r#"{"profile":"zymarch-farm/1","title":"x"}"#.into())
    })
    .expect_err("no tables");
    assert_eq!(refusal.0[0].path.to_string(), "measures.csv");
}

/// The farm with other batches.
fn with_batches(rows: &str) -> Result<Farm, zymarch_core::base::fault::Faults> {
    let plain = package("");
    told(|name| match name {
        "batches.csv" => {
            let columns = "name,water_l,shape,length_cm,width_cm,top_cm,diameter_cm,height_cm,columns,build_on,starters";
            Some(format!("{columns}\n{rows}"))
        }
        "batch-items.csv" => {
            Some("batch,material,label,amount,unit,moisture_pct,n_pct,c_n,density_kg_l\n".into())
        }
        other => plain(other),
    })
}

#[test]
fn batches_come_in_every_shape_with_their_day_and_their_starters() {
    let farm = with_batches(
        "Free,0,pile,200,180,120,,130,,2026-03-22,farm-ferment;charcoal\n\
         Drum,0,lying-drum,85,,,57,,,,\n\
         Tower,0,tower,,,,120,170,4,,\n",
    )
    .expect("is sound");
    let shapes: Vec<_> = farm.batches.iter().map(|batch| batch.heap.shape.as_str()).collect();
    assert_eq!(shapes, ["pile", "lying-drum", "tower"]);
    assert_eq!(farm.batches[0].build_on, Some(jiff::civil::date(2026, 3, 22)));
    assert_eq!(farm.batches[0].starters, ["farm-ferment", "charcoal"]);
}

#[test]
fn a_batch_with_a_wrong_shape_day_or_starter_is_named_by_its_line() {
    let refusal = with_batches(
        "A,0,cone,200,180,120,,130,,,\nB,0,pile,200,180,,,130,,,\nC,0,ring,,,,100,100,,,magic\n",
    )
    .expect_err("three bad rows");
    let named: Vec<(String, Option<usize>)> =
        refusal.0.iter().map(|fault| (fault.path.to_string(), fault.line)).collect();
    assert_eq!(
        named,
        [("batches.csv.shape", 2), ("batches.csv.top_cm", 3), ("batches.csv.starters", 4)]
            .map(|(path, line)| (path.to_owned(), Some(line)))
    );
}

/// A package with a heap, and what came of it.
fn finished(table: &'static str, rows: &'static str) -> Result<Farm, Faults> {
    let heads = [
        ("heaps.csv", "id,name,water_l,shape,length_cm,width_cm,diameter_cm,height_cm,method,built_at\n"),
        ("grounds.csv", "id,name,kind,area_m2,count,crop,touches_soil,is_eaten_raw,harvest_on\n"),
        ("harvests.csv", "id,heap,at,litres,rejects_l,mesh_mm,moisture_pct,is_last\n"),
        ("uses.csv", "compost,ground,at,use\n"),
        ("results.csv", "of,made_on,by,basis,figures\n"),
    ];
    let whole = [
        ("heaps.csv", "bay,Bay,0,box,120,120,,120,bay-turned,2026-01-10T09:00\n"),
        ("grounds.csv", "oca,Oca bed,bed,12,,oca,true,false,\n"),
        ("harvests.csv", "first,bay,2026-03-01T09:00,200,,,45,false\n"),
        (
            "uses.csv",
            "first,oca,2026-03-02T09:00,\"{\"\"kind\"\":\"\"pits\"\",\"\"count\"\":4,\"\"litres_each\"\":10}\"\n",
        ),
        ("results.csv", "oca,2026-03-02,kit,dry,\"[[\"\"ph\"\",6.2]]\"\n"),
    ];
    told(move |name| {
        let head = heads.iter().find(|(file, _)| *file == name).map(|(_, head)| *head);
        let of = whole.iter().find(|(file, _)| *file == name).map(|(_, rows)| *rows);
        let rows = if name == table { Some(rows) } else { of };
        head.zip(rows).map(|(head, rows)| format!("{head}{rows}")).or_else(|| package("")(name))
    })
}

#[test]
fn what_came_of_heaps_is_read_and_moves_with_the_rest() {
    let mut farm = finished("", "").expect("is sound");
    let of = &farm.finished;
    assert_eq!((of.grounds.len(), of.harvests.len(), of.uses.len(), of.results.len()), (1, 1, 1, 1));
    assert_eq!(of.harvests[0].moisture_pct, Some(45.0));
    let days = |farm: &Farm| (farm.finished.harvests[0].at, farm.finished.results[0].made_on);
    let before = days(&farm);
    farm.created = Some(jiff::civil::date(2026, 3, 14));
    let after = days(&farm.moved_to(jiff::civil::date(2026, 3, 24)));
    assert_eq!(after.0.duration_since(before.0).as_hours(), 240);
    assert_eq!(after.1.to_string(), "2026-03-12");
}

#[test]
fn what_came_of_heaps_is_named_by_file_and_line_where_it_is_wrong() {
    let refused = |table, rows| {
        let fault = finished(table, rows).expect_err("refused").0.remove(0);
        (fault.path.to_string(), fault.line, fault.code)
    };
    for (table, rows, path, code) in [
        ("harvests.csv", "first,none,2026-03-01T09:00,200,,,45,false\n", "heap", FaultCode::NoSuchReference),
        ("uses.csv", "first,oca,2026-03-02T09:00,{}\n", "use", FaultCode::UnreadRow),
        ("uses.csv", "none,oca,2026-03-02T09:00,{}\n", "compost", FaultCode::NoSuchReference),
        ("results.csv", "none,2026-03-02,kit,dry,[]\n", "of", FaultCode::NoSuchReference),
        ("results.csv", "oca,2026-03-02,kit,wet,[]\n", "basis", FaultCode::UnreadRow),
        ("grounds.csv", "oca,Oca bed,sea,12,,oca,true,false,\n", "kind", FaultCode::UnreadRow),
    ] {
        let (got, line, why) = refused(table, rows);
        assert!(got.starts_with(table), "{got}");
        assert!(why == code && line == Some(2), "{table} {rows}: {got} {line:?} {why:?}");
        assert!(got.ends_with(path) || got == table, "{got}");
    }
}
