//! What an entry may say.

use super::{Smell, Tended};
use crate::base::fault::{At, Fault, FaultCode};
use crate::base::quantity;

/// The longest note, and what else is said in a person's words [letters].
pub const LONGEST_NOTE: usize = 500;

/// What can be read by a thermometer at all [°C]: what no heap has is kept, and marked as faulty.
const ON_A_SCALE_C: (f64, f64) = (-273.0, 1000.0);

/// Seeds of a trial: of fewer than five nothing can be said.
const MOST_SEEDS: (f64, f64) = (5.0, 1000.0);

/// Things put in at once, at most.
const MOST_ITEMS: usize = 50;

impl<I> Tended<I> {
    /// Every field that cannot be, under `at`. What was put in is checked by whoever knows it.
    #[must_use]
    pub fn faults(&self, at: &At<'_>) -> Vec<Fault> {
        let mut found = Vec::new();
        let within = |field: &'static str, value: f64, (low, high): (f64, f64)| {
            quantity::within(value, low, high).err().map(|fault| at.key(field).put(fault))
        };
        match self {
            Self::Temperature { temp_c, depth_cm, .. } => {
                found.extend(within("temp_c", *temp_c, ON_A_SCALE_C));
                found.extend(depth_cm.and_then(|depth| within("depth_cm", depth, (0.0, 500.0))));
            }
            Self::Smell { smell } => found.extend(smelled(at, smell)),
            Self::ClosedBag { smell, days } => {
                found.extend(smelled(at, smell));
                found.extend(days.and_then(|days| within("days", days, (0.0, 60.0))));
            }
            Self::Germination { sown, up, control_sown, control_up } => {
                for (field, all, count) in
                    [("sown", *sown, *up), ("control_sown", *control_sown, *control_up)]
                {
                    found.extend(within(field, f64::from(all), MOST_SEEDS));
                    let counted = if field == "sown" { "up" } else { "control_up" };
                    found.extend(within(counted, f64::from(count), (0.0, f64::from(all))));
                }
            }
            Self::Height { height_cm } => found.extend(within("height_cm", *height_cm, (1.0, 1000.0))),
            Self::Seen { signs } => found.extend(listed(at, "signs", signs)),
            Self::Turn { mixing, to } => {
                found.extend(mixing.and_then(|mixing| within("mixing", mixing, (0.0, 1.0))));
                found.extend(to.as_deref().and_then(|to| said(at, "to", to)));
            }
            Self::Water { litres, .. } => {
                found.extend(above(at, "litres", *litres, 100_000.0));
            }
            Self::Liquid { litres, to } => {
                found.extend(above(at, "litres", *litres, 100_000.0));
                found.extend(to.as_deref().and_then(|to| said(at, "to", to)));
            }
            Self::Add { items } | Self::Feed { items } => {
                if items.is_empty() {
                    found.push(at.key("items").fault(FaultCode::Empty));
                }
                found.extend(at.key("items").holds(items.len(), MOST_ITEMS).err());
            }
            Self::Rain { mm, hours } => {
                found.extend(above(at, "mm", *mm, 2000.0));
                found.extend(hours.and_then(|hours| within("hours", hours, (0.1, 720.0))));
            }
            Self::Worms { kg } => found.extend(kg.and_then(|kg| above(at, "kg", kg, 1000.0))),
            Self::Stick { .. }
            | Self::Squeeze { .. }
            | Self::Cover { .. }
            | Self::Uncover
            | Self::Aerate { .. }
            | Self::Move
            | Self::Note
            | Self::BeanTest { .. }
            | Self::Photo => {}
        }
        found
    }
}

fn above(at: &At<'_>, field: &'static str, value: f64, most: f64) -> Option<Fault> {
    quantity::above(value, 0.0, most).err().map(|fault| at.key(field).put(fault))
}

/// What was smelled: nothing, or smells each once.
fn smelled(at: &At<'_>, smell: &[Smell]) -> Vec<Fault> {
    let mut found: Vec<Fault> = listed(at, "smell", smell).into_iter().collect();
    if smell.len() > 1 && smell.contains(&Smell::None) {
        found.push(at.key("smell").fault(FaultCode::NoneAndMore));
    }
    found
}

/// A list with something in it, each once.
fn listed<T: PartialEq>(at: &At<'_>, field: &'static str, all: &[T]) -> Option<Fault> {
    let list = at.key(field);
    if all.is_empty() {
        return Some(list.fault(FaultCode::Empty));
    }
    let twice = (1..all.len()).find(|&place| all[..place].contains(&all[place]))?;
    Some(list.index(twice).fault(FaultCode::Twice).with("field", twice))
}

/// A person's words.
fn said(at: &At<'_>, field: &'static str, words: &str) -> Option<Fault> {
    let long = words.chars().count() > LONGEST_NOTE;
    long.then(|| at.key(field).fault(FaultCode::TooLong).with("most", LONGEST_NOTE))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tend::entry::{ReadBy, Sign, Spot};

    fn paths(of: &Tended<u8>) -> Vec<String> {
        of.faults(&At::ROOT).into_iter().map(|fault| fault.to_string()).collect()
    }

    #[test]
    fn what_cannot_be_is_named_by_its_field() {
        let read = |temp_c, depth_cm| Tended::Temperature {
            temp_c,
            place: Spot::Core,
            depth_cm,
            by: ReadBy::Thermometer,
        };
        assert!(paths(&read(57.0, Some(40.0))).is_empty());
        assert!(paths(&read(140.0, None)).is_empty(), "kept, and marked as faulty");
        assert!(
            paths(&read(f64::NAN, Some(-1.0))).iter().all(|path| path.contains("_c") || path.contains("_cm"))
        );
        assert_eq!(paths(&read(f64::NAN, Some(-1.0))).len(), 2);
        assert!(
            paths(&Tended::Water { litres: 0.0, spread: super::super::Pouring::Even })[0]
                .starts_with("litres")
        );
        assert!(paths(&Tended::Seen { signs: vec![Sign::Flies, Sign::Flies] })[0].starts_with("signs[1]"));
        assert!(paths(&Tended::Seen { signs: vec![] })[0].starts_with("signs"));
        assert!(paths(&Tended::Smell { smell: vec![Smell::None, Smell::Sour] })[0].starts_with("smell"));
        assert!(paths(&Tended::Add { items: vec![] })[0].starts_with("items"));
        assert!(paths(&Tended::Note).is_empty());
    }
}
