//! SenML (RFC 8428): what a scale or a probe reads, as JSON.
//!
//! The open format that small measuring devices speak. Only what the devices
//! here need is written and read: a base name, a base time, and records with a
//! name, a unit and a number.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

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

#[cfg(test)]
mod tests {
    use super::*;

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
