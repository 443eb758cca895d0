//! The heat that should be, on the wire.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::tend::heat::{Course, Day, Hour, Summary};

/// What a heap of this make is expected to do: a model that has not been validated, to be read as a band.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HeatAnswer {
    /// `zymarch-heat/1`.
    pub format: &'static str,
    /// How far real readings may lie from it, K either way.
    pub band_c: f64,
    /// As it was built.
    pub start: HeatStart,
    /// In few figures.
    pub summary: HeatSummary,
    /// Each whole day from 0.
    pub days: Vec<HeatDay>,
    /// Each whole hour, where it was asked for.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub hours: Vec<HeatHour>,
}

/// A heap as it was built.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct HeatStart {
    /// Fresh mass, kg.
    pub wet_kg: f64,
    /// Dry matter, kg.
    pub dry_kg: f64,
    /// Water, % of fresh mass.
    pub moisture_pct: f64,
    /// Carbon to nitrogen.
    pub c_n: f64,
    /// Room, m³.
    pub volume_m3: f64,
    /// Height, metres.
    pub height_m: f64,
    /// Share of it that is core, 0 to 1.
    pub core_share: f64,
    /// Free air space, %.
    pub fas_pct: f64,
}

/// A heap's course in few figures.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct HeatSummary {
    /// Hottest core, °C.
    pub peak_core_c: f64,
    /// When, days.
    pub peak_core_day: f64,
    /// Hottest shell, °C.
    pub peak_shell_c: f64,
    /// Days with the core at 55 °C and more.
    pub days_over_55: f64,
    /// Days with the core at 45 °C and more.
    pub days_over_45: f64,
    /// When the core first is at 50 °C, days; null if never.
    pub first_50_day: Option<f64>,
    /// When it last is at 45 °C, days; null if never.
    pub last_45_day: Option<f64>,
    /// How short of oxygen it gets, 0 to 1.
    pub shortage_max: f64,
}

/// A heap at a whole hour, before what is done then.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct HeatHour {
    /// Hours after the start.
    pub hour: u32,
    #[serde(flatten)]
    is: HeatIs,
}

/// A heap at the end of a day.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct HeatDay {
    /// Days after the start.
    pub day: u32,
    #[serde(flatten)]
    is: HeatIs,
}

/// How a heap stands.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
struct HeatIs {
    /// Of the core, °C.
    core_c: f64,
    /// Of the shell, °C.
    shell_c: f64,
    /// Of the air, °C.
    air_c: f64,
    /// Water, % of fresh mass.
    moisture_pct: f64,
    /// Free air space of the core, %.
    fas_core_pct: f64,
    /// Carbon to nitrogen.
    c_n: f64,
    /// Fresh mass, kg.
    wet_kg: f64,
    /// Dry matter gone, % of the start.
    dry_matter_lost_pct: f64,
    /// Room left, % of the start.
    volume_left_pct: f64,
    /// Nitrogen gone, % of the start.
    n_lost_pct: f64,
    /// Oxygen it could still take up, g per kg organic matter and hour: above 1 active, under 0.3 ripe as
    /// far as the model can tell.
    uptake: f64,
    /// How short of oxygen it is, 0 to 1.
    shortage: f64,
}

impl HeatIs {
    fn of(day: &Day) -> Self {
        let Hour {
            temp_c: [core_c, shell_c], air_c, moisture, free_air, c_n, wet_kg, uptake, shortage, ..
        } = day.hour;
        Self {
            core_c,
            shell_c,
            air_c,
            moisture_pct: moisture * 100.0,
            fas_core_pct: free_air[0] * 100.0,
            c_n,
            wet_kg,
            dry_matter_lost_pct: day.dry_lost * 100.0,
            volume_left_pct: day.volume_left * 100.0,
            n_lost_pct: day.n_lost * 100.0,
            uptake,
            shortage,
        }
    }
}

impl HeatAnswer {
    /// A course, on the wire; with every hour where they are asked for.
    #[must_use]
    pub fn new(course: &Course, with_hours: bool) -> Self {
        let Summary {
            peak_core_c,
            peak_core_day,
            peak_shell_c,
            days_over_55,
            days_over_45,
            first_50_day,
            last_45_day,
            shortage_max,
        } = course.summary();
        let first = &course.hours[0];
        let hours = if with_hours { course.each_hour().collect() } else { Vec::new() };
        Self {
            format: super::FORMAT,
            band_c: zymarch_core::tend::heat::BAND_C,
            start: HeatStart {
                wet_kg: first.wet_kg,
                dry_kg: first.dry_kg,
                moisture_pct: first.moisture * 100.0,
                c_n: first.c_n,
                volume_m3: first.volume_m3,
                height_m: first.height_m,
                core_share: course.core_share,
                fas_pct: course.free_air * 100.0,
            },
            summary: HeatSummary {
                peak_core_c,
                peak_core_day,
                peak_shell_c,
                days_over_55,
                days_over_45,
                first_50_day,
                last_45_day,
                shortage_max,
            },
            days: course.days().map(|day| HeatDay { day: day.day, is: HeatIs::of(&day) }).collect(),
            hours: hours
                .into_iter()
                .map(|day: Day| HeatHour { hour: day.hour.hour, is: HeatIs::of(&day) })
                .collect(),
        }
    }
}
