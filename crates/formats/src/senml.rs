//! SenML (RFC 8428): what a scale or a probe reads, as JSON.
//!
//! The open format that small measuring devices speak. Only what the devices
//! here need is written and read: a base name, a base time, and records with a
//! name, a unit and a number.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::tend::entry::Spot;

/// The media type of a pack.
pub const MEDIA_TYPE: &str = "application/senml+json";

/// One record of a pack.
#[derive(Debug, Clone, PartialEq, Default, Deserialize, Serialize, ToSchema)]
pub struct Record {
    /// Base name: the device.
    #[serde(rename = "bn", default, skip_serializing_if = "Option::is_none")]
    pub base_name: Option<String>,
    /// Base time, seconds since 1970.
    #[serde(rename = "bt", default, skip_serializing_if = "Option::is_none")]
    pub base_time: Option<f64>,
    /// Base unit.
    #[serde(rename = "bu", default, skip_serializing_if = "Option::is_none")]
    pub base_unit: Option<String>,
    /// Name of what is read.
    #[serde(rename = "n", default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    /// Unit, as `kg` or `Cel`.
    #[serde(rename = "u", default, skip_serializing_if = "Option::is_none")]
    pub unit: Option<String>,
    /// The number read.
    #[serde(rename = "v", default, skip_serializing_if = "Option::is_none")]
    pub value: Option<f64>,
    /// A yes or no.
    #[serde(rename = "vb", default, skip_serializing_if = "Option::is_none")]
    pub flag: Option<bool>,
    /// Seconds after the base time.
    #[serde(rename = "t", default, skip_serializing_if = "Option::is_none")]
    pub time: Option<f64>,
}

/// What a probe may send at once [records].
const MOST_RECORDS: usize = 10_000;

/// Times below this are told from now on, or back [s] (RFC 8428, 4.5.3).
const RELATIVE_BELOW_S: f64 = 268_435_456.0;

/// Water freezes at [K].
const FREEZES_K: f64 = 273.15;

/// What a probe read.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Read {
    /// A temperature [°C], where, and how deep [cm] if the name says so.
    Temperature(f64, Spot, Option<f64>),
    /// Rain since the record before [mm].
    Rain(f64),
}

/// What a probe read, and when.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Measured {
    /// When [ms since 1970].
    pub at_ms: i64,
    /// What.
    pub what: Read,
}

/// What a pack of a probe says, with its base name and base time worked in. A record without a time was read
/// just now.
///
/// A name ends in where it was read (`core`, `half-way`, `edge`, `air`), with the depth behind it where that
/// is known (`core-60`), or in `rain`; what stands before it is the device's own. Flags are passed over.
///
/// # Errors
/// Every record whose name, unit, number or time cannot be.
///
/// # Example
/// ```
/// use zymarch_core::tend::entry::Spot;
/// use zymarch_formats::senml::{Read, Record, measured};
/// let pack: Vec<Record> = serde_json::from_str(
///     r#"[{"bn":"urn:dev:ops:rod-","bt":1776240000,"bu":"Cel","n":"core-60","v":57.2},{"n":"edge","u":"K","v":304.15,"t":-60}]"#,
/// )?;
/// let read = measured(&pack, 1_776_240_005_000)?;
/// assert_eq!(read[0].what, Read::Temperature(57.2, Spot::Core, Some(60.0)));
/// assert_eq!((read[1].at_ms, read[1].what), (1_776_239_940_000, Read::Temperature(31.0, Spot::Edge, None)));
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
pub fn measured(pack: &[Record], now_ms: i64) -> Result<Vec<Measured>, Faults> {
    At::ROOT.holds(pack.len(), MOST_RECORDS)?;
    let (mut found, mut read) = (Vec::new(), Vec::with_capacity(pack.len()));
    let (mut name, mut unit, mut time) = ("", None, 0.0);
    for (place, record) in pack.iter().enumerate() {
        let at = At::ROOT.index(place);
        name = record.base_name.as_deref().unwrap_or(name);
        unit = record.base_unit.as_deref().or(unit);
        time = record.base_time.unwrap_or(time);
        if record.value.is_none() && record.flag.is_some() {
            continue;
        }
        // Base fields alone are no reading.
        if record.value.is_none() && record.name.is_none() && record.time.is_none() {
            continue;
        }
        let own = record.name.as_deref().unwrap_or_default();
        match one(record, &format!("{name}{own}"), record.unit.as_deref().or(unit)) {
            Ok(what) => match at_ms(time + record.time.unwrap_or(0.0), now_ms) {
                Some(at_ms) => read.push(Measured { at_ms, what }),
                None => found.push(at.key("t").fault(FaultCode::NotATime).with("got", time)),
            },
            Err(fault) => found.push(at.put(fault)),
        }
    }
    if read.is_empty() && found.is_empty() {
        return Err(Fault::new(FaultCode::NothingToRead).into());
    }
    Faults::or(found, || read)
}

fn one(record: &Record, name: &str, unit: Option<&str>) -> Result<Read, Fault> {
    let value = record.value.ok_or_else(|| Fault::of("v", FaultCode::Missing).with("field", "v"))?;
    if !value.is_finite() {
        return Err(Fault::of("v", FaultCode::NotANumber));
    }
    let last = name.rsplit([':', '/', '_', ' ']).next().unwrap_or_default().to_ascii_lowercase();
    if ends_in(&last, "rain").is_some() {
        return match unit {
            Some("mm") if (0.0..=2000.0).contains(&value) => Ok(Read::Rain(value)),
            Some("mm") => Err(Fault::of("v", FaultCode::OutOfRange)
                .with("low", 0.0)
                .with("high", 2000.0)
                .with("got", value)),
            other => Err(unknown_unit(other, &["mm"])),
        };
    }
    let (place, depth_cm) = placed(&last).ok_or_else(|| {
        Fault::of("n", FaultCode::UnknownWord).with("got", name).with("known", Spot::known())
    })?;
    let temp_c = match unit {
        Some("Cel") => value,
        Some("K") => value - FREEZES_K,
        other => return Err(unknown_unit(other, &["Cel", "K"])),
    };
    Ok(Read::Temperature((temp_c * 1e6).round() / 1e6, place, depth_cm))
}

fn unknown_unit(got: Option<&str>, known: &[&'static str]) -> Fault {
    let known = known.iter().copied().collect::<zymarch_core::base::fault::Param>();
    Fault::of("u", FaultCode::UnknownUnit).with("got", got.unwrap_or_default()).with("known", known)
}

/// A name that ends in a word, and what comes after it.
fn ends_in<'n>(name: &'n str, word: &str) -> Option<&'n str> {
    let at = name.rfind(word)?;
    let before = name[..at].chars().next_back();
    let is_whole = before.is_none_or(|sign| !sign.is_alphabetic());
    Some(&name[at + word.len()..]).filter(|rest| is_whole && !rest.starts_with(char::is_alphabetic))
}

fn placed(name: &str) -> Option<(Spot, Option<f64>)> {
    Spot::ALL.iter().find_map(|place| {
        let rest = ends_in(name, place.as_str())?;
        let depth = rest.trim_start_matches('-');
        if depth.is_empty() {
            return Some((*place, None));
        }
        let cm: f64 = depth.parse().ok()?;
        (0.0..=500.0).contains(&cm).then_some((*place, Some(cm)))
    })
}

fn at_ms(seconds: f64, now_ms: i64) -> Option<i64> {
    let ms = seconds * 1000.0;
    // Until the year 9999: what a wrong clock says is kept, what is no time is not.
    if !ms.is_finite() || ms.abs() > 253_402_300_799_000.0 {
        return None;
    }
    let ms = ms.round() as i64;
    Some(if seconds < RELATIVE_BELOW_S { now_ms + ms } else { ms })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn pack(text: &str) -> Vec<Record> {
        serde_json::from_str(text).expect("is a pack")
    }

    #[test]
    fn names_end_in_a_place() {
        for (name, want) in [
            ("core", Some((Spot::Core, None))),
            ("rod1-half-way", Some((Spot::HalfWay, None))),
            ("edge-15.5", Some((Spot::Edge, Some(15.5)))),
            ("air", Some((Spot::Air, None))),
            ("hardcore", None),
            ("corex", None),
            ("core-9999", None),
            ("temperature", None),
        ] {
            assert_eq!(placed(name), want, "{name}");
        }
    }

    #[test]
    fn what_cannot_be_is_named_by_its_record() {
        let refused = |text: &str| {
            let faults = measured(&pack(text), 0).expect_err("refused").0;
            faults.iter().map(|fault| (fault.path.to_string(), fault.code)).collect::<Vec<_>>()
        };
        assert_eq!(
            refused(
                r#"[{"n":"core","u":"Cel","v":1},{"n":"core","v":1},{"n":"deep","u":"Cel","v":1},{"n":"core","u":"Cel"}]"#
            ),
            [
                ("[1].u".into(), FaultCode::UnknownUnit),
                ("[2].n".into(), FaultCode::UnknownWord),
                ("[3].v".into(), FaultCode::Missing),
            ]
        );
        assert_eq!(refused("[]"), [(String::new(), FaultCode::NothingToRead)]);
        assert_eq!(
            refused(r#"[{"n":"core","u":"Cel","v":1,"t":1e300}]"#),
            [("[0].t".into(), FaultCode::NotATime)]
        );
    }

    #[test]
    fn times_are_told_from_now_or_from_1970() {
        let read = measured(
            &pack(r#"[{"bu":"Cel","n":"core","v":50},{"n":"core","v":51,"t":-3600},{"n":"core","v":52,"t":1776240000.5}]"#),
            1_776_243_600_000,
        )
        .expect("is read");
        let at: Vec<i64> = read.iter().map(|of| of.at_ms).collect();
        assert_eq!(at, [1_776_243_600_000, 1_776_240_000_000, 1_776_240_000_500]);
    }

    #[test]
    fn rain_is_read_in_millimetres() {
        let read = measured(&pack(r#"[{"n":"rain","u":"mm","v":4.2},{"n":"steady","vb":true}]"#), 5)
            .expect("is read");
        assert_eq!(read, [Measured { at_ms: 5, what: Read::Rain(4.2) }]);
    }

    #[test]
    fn a_pack_is_written_as_the_standard_has_it() {
        let pack = vec![
            Record {
                base_name: Some("urn:dev:ops:zymarch-scale:".into()),
                base_time: Some(1.0),
                name: Some("weight".into()),
                unit: Some("kg".into()),
                value: Some(8.02),
                ..Record::default()
            },
            Record { name: Some("steady".into()), flag: Some(true), ..Record::default() },
        ];
        let text = serde_json::to_string(&pack).expect("writes");
        assert_eq!(
            text,
            r#"[{"bn":"urn:dev:ops:zymarch-scale:","bt":1.0,"n":"weight","u":"kg","v":8.02},{"n":"steady","vb":true}]"#
        );
        assert_eq!(serde_json::from_str::<Vec<Record>>(&text).expect("reads"), pack);
    }
}
