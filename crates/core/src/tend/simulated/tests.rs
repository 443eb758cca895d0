//! Stand-ins do what they say, and are the same again.

use super::*;
use crate::stock::climate::{Climate, Month};
use crate::tend::entry::{ReadBy, Spot};
use crate::tend::heat::{Form, Geometry, Hour, Part, Setting, Start, run};
use crate::tend::reading::{Faulty, Reading, faulty};

fn hours() -> Vec<Hour> {
    let mix = Part {
        kg: 500.0,
        moisture: 0.57,
        ash: 0.10,
        nitrogen: 0.017,
        c_n: 27.0,
        lignin: 0.06,
        degradability: crate::stock::material::Degradability::Medium,
        density_kg_m3: 320.0,
        settle: 0.8,
        ammonia_share: 0.05,
    };
    let setting =
        Setting { step_h: 1.0, ..Setting::of(Geometry::of(Form::Box { length_m: 1.2, width_m: 1.2 })) };
    run(&Start::of(&[mix]), &setting, 20).expect("can be reckoned").hours
}

fn rod(fault: Option<(RodFault, f64)>) -> Rod {
    Rod { every_min: 30, seed: 11, fault }
}

/// What a rod says, as it is written down, with when it came.
fn written(hours: &[Hour], rod: &Rod) -> Vec<Reading> {
    let ms = |at_h: f64| (at_h * 3_600_000.0) as i64;
    let mut all: Vec<Reading> = (0..20 * 48)
        .filter_map(|number| rod.reading(hours, number))
        .flat_map(|sent| {
            ROD_PLACES.into_iter().zip(sent.temp_c).map(move |(place, temp_c)| Reading {
                at_ms: ms(sent.said_h),
                recorded_ms: ms(sent.at_h),
                place,
                depth_cm: None,
                temp_c,
                by: ReadBy::Probe,
                source: 0,
            })
        })
        .collect();
    all.sort_by_key(|of| of.at_ms);
    all
}

#[test]
fn a_sound_rod_reads_near_the_model_and_nothing_of_it_is_faulty() {
    let hours = hours();
    let all = written(&hours, &rod(None));
    assert_eq!(all.len(), 20 * 48 * 3);
    assert!(faulty(&all, 0).iter().all(Option::is_none));
    for reading in all.iter().filter(|of| of.place == Spot::Core) {
        let [core, _] =
            crate::tend::expected::temp_at(&hours, reading.at_ms as f64 / 3_600_000.0).expect("is");
        assert!((reading.temp_c - core).abs() < 5.0, "{reading:?} {core}");
    }
    assert_eq!(all, written(&hours, &rod(None)), "the same again");
    assert_ne!(all, written(&hours, &Rod { seed: 12, ..rod(None) }));
}

#[test]
fn a_fault_on_request_is_found_where_it_can_be() {
    let hours = hours();
    let marks = |fault| {
        let all = written(&hours, &rod(Some((fault, 48.0))));
        let marks = faulty(&all, 0);
        (all, marks)
    };
    let counted =
        |marks: &[Option<Faulty>], of: Faulty| marks.iter().filter(|mark| **mark == Some(of)).count();
    let (_, stuck) = marks(RodFault::Stuck);
    assert!(counted(&stuck, Faulty::Stuck) > 500);
    let (_, clock) = marks(RodFault::Clock);
    assert_eq!(counted(&clock, Faulty::Clock), 18 * 48 * 3);
    let (all, spikes) = marks(RodFault::Spike);
    assert!(counted(&spikes, Faulty::Absurd) > 10);
    let good = all.iter().zip(&spikes).filter(|(_, mark)| mark.is_none());
    assert!(good.clone().count() > 2500);
    let (all, _) = marks(RodFault::Dropped);
    assert!((800..2300).contains(&all.len()), "{}", all.len());
    let (all, _) = marks(RodFault::Battery);
    assert!(all.last().expect("some").at_ms <= 97 * 3_600_000);
}

#[test]
fn a_year_of_weather_is_like_its_months() {
    let months = [Month { mean_c: 12.0, swing_c: 7.0, rain_mm: 70.0 }; 12];
    let climate = Climate(months);
    let station = Station { climate: Some(&climate), seed: 3 };
    let days: Vec<Day> = (1..=365).map(|day| station.day(day, 20_000 + i64::from(day))).collect();
    let mean = days.iter().flat_map(|day| day.air_c).sum::<f64>() / (365.0 * 24.0);
    assert!((mean - 12.0).abs() < 0.6, "{mean}");
    let rain: f64 = days.iter().filter_map(|day| day.rain).map(|(_, _, mm)| mm).sum();
    assert!((500.0..1200.0).contains(&rain), "{rain}");
    assert!(
        days.iter().all(|day| day.rain.is_none_or(|(hour, hours, mm)| hour < 16 && hours >= 1.0 && mm > 0.0))
    );
    assert_eq!(station.day(40, 20_040), days[39]);
}
