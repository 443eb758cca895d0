//! Files as loggers write them.

use super::*;

fn read(text: &str) -> (LoggerColumns, LoggerRead) {
    let file = LoggerFile::read(text).expect("is a file");
    let columns = file.guessed("UTC");
    let read = file.told(&columns).expect("is read");
    (columns, read)
}

fn at(text: &str) -> i64 {
    text.parse::<jiff::Timestamp>().expect("a time").as_millisecond()
}

#[test]
fn a_plain_file_is_read_as_it_stands() {
    let (columns, got) = read("time,core,edge\n2026-03-14T08:00:00Z,57.2,31.5\n2026-03-14T09:00:00Z,57.4,\n");
    assert_eq!((columns.time, columns.unit, columns.order), (0, TempUnit::C, DateOrder::Ymd));
    let told: Vec<_> = got.readings.iter().map(|of| (of.at_ms, of.place, of.temp_c)).collect();
    let (eight, nine) = (at("2026-03-14T08:00:00Z"), at("2026-03-14T09:00:00Z"));
    assert_eq!(told, [(eight, Spot::Core, 57.2), (eight, Spot::Edge, 31.5), (nine, Spot::Core, 57.4)]);
    assert_eq!((got.rows, got.bad_rows), (2, 0));
}

#[test]
fn months_first_degrees_fahrenheit_and_words_in_front() {
    let text = "Plot Title: heap 4\n\n\"#\",\"Date Time, GMT-05:00\",\"Temp, °F\",\"RH, %\"\n\
                1,03/14/26 01:00:00 PM,134.6,88\n2,03/14/26 02:00:00 PM,136.4,87\n";
    let (columns, got) = read(text);
    assert_eq!((columns.time, columns.unit, columns.order), (1, TempUnit::F, DateOrder::Mdy));
    assert_eq!(columns.temps, [TempColumn { column: 2, place: Spot::Core, depth_cm: None }]);
    assert_eq!(got.readings[0].at_ms, at("2026-03-14T13:00:00Z"));
    assert!((got.readings[0].temp_c - 57.0).abs() < 1e-9);
}

#[test]
fn semicolons_commas_and_the_hour_apart() {
    let (columns, got) =
        read("Datum;Zeit;Temp innen;Temp air\n14.03.2026;08:15;57,3;12,0\n14.03.2026;08:30;57,5;12,2\n");
    assert_eq!((columns.time, columns.hour, columns.decimal_comma), (0, Some(1), true));
    assert_eq!(columns.temps.iter().map(|of| of.place).collect::<Vec<_>>(), [Spot::Core, Spot::Air]);
    assert_eq!((got.readings[0].at_ms, got.readings[0].temp_c), (at("2026-03-14T08:15:00Z"), 57.3));
}

#[test]
fn seconds_since_1970_and_no_names_at_all() {
    let (columns, got) = read("1773475200\t56.1\n1773478800\t56.4\n");
    assert_eq!((columns.time, columns.temps.len()), (0, 1));
    assert_eq!(got.readings[0].at_ms, at("2026-03-14T08:00:00Z"));
}

#[test]
fn every_bad_row_is_named_and_the_rest_is_read() {
    let text = "time,core,edge\n2026-03-14 08:00,57.2,30\nyesterday,57.2,30\n2026-03-14 09:00,warm,31\n\
                2026-02-30 10:00,57,30\n2026-03-14 08:00,58,33\n";
    let (_, got) = read(text);
    let told: Vec<_> = got.bad.iter().map(|of| (of.line, of.path.to_string(), of.code)).collect();
    assert_eq!(
        told,
        [
            (Some(3), "time".into(), FaultCode::NotATime),
            (Some(4), "core".into(), FaultCode::NotNumeric),
            (Some(5), "time".into(), FaultCode::NotATime),
            (Some(6), "core".into(), FaultCode::TimeTwice),
            (Some(6), "edge".into(), FaultCode::TimeTwice),
        ]
    );
    assert_eq!((got.rows, got.bad_rows, got.readings.len()), (5, 4, 3));
}

#[test]
fn an_hour_that_there_are_two_of_is_read_twice() {
    let file = LoggerFile::read(
        "time,core\n2026-10-25 01:30,50\n2026-10-25 02:30,51\n2026-10-25 02:30,52\n2026-10-25 03:30,53\n",
    )
    .expect("is a file");
    let columns = LoggerColumns { zone: "Europe/Berlin".into(), ..file.guessed("UTC") };
    let got = file.told(&columns).expect("is read");
    let at: Vec<i64> = got.readings.iter().map(|of| of.at_ms / 3_600_000).collect();
    assert!(at.windows(2).all(|two| two[1] == two[0] + 1), "{at:?}");
    assert_eq!(got.bad_rows, 0);
}

#[test]
fn what_is_no_file_of_a_logger_is_refused() {
    for text in ["", "\n\n", "a,b\nc,d\n", "name,kg\nstraw,4\n"] {
        assert_eq!(LoggerFile::read(text).expect_err("refused").code, FaultCode::NoTimeColumn, "{text:?}");
    }
    let file = LoggerFile::read("time,core\n2026-03-14 08:00,57\n").expect("is a file");
    let good = file.guessed("UTC");
    let refused = |columns: LoggerColumns| file.told(&columns).expect_err("refused").0[0].path.to_string();
    assert_eq!(refused(LoggerColumns { zone: "Mars".into(), ..good.clone() }), "zone");
    assert_eq!(refused(LoggerColumns { time: 9, ..good.clone() }), "time");
    assert_eq!(refused(LoggerColumns { temps: Vec::new(), ..good.clone() }), "temps");
    let twice = [good.temps.clone(), good.temps.clone()].concat();
    assert_eq!(refused(LoggerColumns { temps: twice, ..good }), "temps[1].place");
}
