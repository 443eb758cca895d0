//! A simulated hanging scale: what hangs on it swings, settles, and is read.

use std::sync::{Arc, Mutex};
use std::time::Instant;

use zymarch_formats::senml::Record;

/// What the device calls itself.
const NAME: &str = "urn:dev:ops:zymarch-simulated-scale:";

/// Reads in steps of this [kg].
const STEP_KG: f64 = 0.01;

/// Time in which a swing falls to a third [s], and the length of one swing [s].
const DAMPED_S: f64 = 0.5;
const SWING_S: f64 = 0.7;

/// Still enough to be read [kg].
const STILL_KG: f64 = 0.005;

/// A simulated hanging scale.
#[derive(Debug, Clone, Default)]
pub struct Scale {
    hung: Arc<Mutex<Option<Hung>>>,
}

#[derive(Debug, Clone, Copy)]
struct Hung {
    kg: f64,
    before_kg: f64,
    at: Instant,
}

impl Scale {
    /// Hangs a load on it in place of what hangs there; 0 empties it.
    pub fn hang(&self, kg: f64) {
        let mut hung = self.hung.lock().expect("nothing panics while it holds this");
        let before_kg = hung.map_or(0.0, |hung| hung.kg);
        *hung = Some(Hung { kg, before_kg, at: Instant::now() });
    }

    /// What it shows now: the weight, and whether it hangs still.
    pub fn read(&self) -> Vec<Record> {
        let hung = *self.hung.lock().expect("nothing panics while it holds this");
        let (kg, is_still) =
            hung.map_or((0.0, true), |hung| shown(hung.kg, hung.before_kg, hung.at.elapsed().as_secs_f64()));
        vec![
            Record {
                base_name: Some(NAME.into()),
                name: Some("weight".into()),
                unit: Some("kg".into()),
                value: Some(kg),
                ..Record::default()
            },
            Record { name: Some("steady".into()), flag: Some(is_still), ..Record::default() },
            Record { name: Some("simulated".into()), flag: Some(true), ..Record::default() },
        ]
    }
}

/// A damped swing from what hung before to what hangs now.
fn shown(kg: f64, before_kg: f64, seconds: f64) -> (f64, bool) {
    let left = (before_kg - kg) * (-seconds / DAMPED_S).exp();
    let swung = kg + left * (seconds / SWING_S * std::f64::consts::TAU).cos();
    let read = (swung.max(0.0) / STEP_KG).round() * STEP_KG;
    ((read * 100.0).round() / 100.0, left.abs() < STILL_KG)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_load_swings_and_settles_to_its_weight() {
        assert_eq!(shown(8.0, 0.0, 0.0), (0.0, false));
        let (swinging, is_still) = shown(8.0, 0.0, 0.35);
        assert!(swinging > 8.0 && !is_still);
        assert_eq!(shown(8.0, 0.0, 5.0), (8.0, true));
        assert_eq!(shown(8.123, 0.0, 9.0).0, 8.12);
    }

    #[test]
    fn nothing_on_it_reads_nothing_and_says_it_is_simulated() {
        let pack = Scale::default().read();
        assert_eq!((pack[0].value, pack[1].flag), (Some(0.0), Some(true)));
        assert_eq!((pack[2].name.as_deref(), pack[2].flag), (Some("simulated"), Some(true)));
    }
}
