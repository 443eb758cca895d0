//! `zymarch-heat/1`: a heap, its weather and what is done to it, and the heat that should be.

mod answer;
mod asked;
mod told;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::words::closed_list;
use zymarch_core::stock::material::Degradability;
use zymarch_core::tend::heat::{Cover, Pouring};

use crate::field::Document;

pub use answer::{HeatAnswer, HeatDay, HeatHour, HeatStart, HeatSummary};

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-heat/1";

/// Days that are reckoned at most.
pub const MOST_DAYS: u32 = 730;

/// A heap, its weather and what is done to it.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HeatRequest {
    /// `zymarch-heat/1`.
    #[schema(example = "zymarch-heat/1")]
    pub format: String,
    /// For how many days.
    #[schema(minimum = 1, maximum = 730, example = 60)]
    pub days: u32,
    /// Longest step of the reckoning, hours: 0.25 is as good as exact.
    #[serde(default = "fine")]
    pub step_h: f64,
    /// How warm it is built, °C; the mean of the air if left out.
    #[serde(default)]
    pub start_temp_c: Option<f64>,
    /// How it stands.
    pub geometry: HeatGeometry,
    /// What it is built of.
    pub materials: Vec<HeatMaterial>,
    /// The weather; a mild day if left out.
    #[serde(default)]
    pub weather: HeatWeather,
    /// Rain.
    #[serde(default)]
    pub rain: Vec<HeatRain>,
    /// What is done to it.
    #[serde(default)]
    pub events: Vec<HeatEvent>,
}

const fn fine() -> f64 {
    zymarch_core::tend::heat::run::FINE_STEP_H
}

closed_list! {
    /// The form of a heap, as the model knows them.
    HeatForm {
        /// A box or a bay.
        Box = "box",
        /// A ring or a barrel.
        Cylinder = "cylinder",
        /// A long heap.
        Windrow = "windrow",
    }
}

/// How a heap stands.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HeatGeometry {
    /// Its form.
    pub shape: HeatForm,
    /// Of a box or a windrow, metres.
    #[serde(default)]
    pub length_m: Option<f64>,
    /// The same.
    #[serde(default)]
    pub width_m: Option<f64>,
    /// Of a cylinder, metres.
    #[serde(default)]
    pub diameter_m: Option<f64>,
    /// Share of its sides that lets air through, 0 to 1.
    #[serde(default = "open")]
    pub side_open: f64,
    /// What its walls keep in, m² K/W.
    #[serde(default)]
    pub wall_r_m2k_w: f64,
    /// What lies over it.
    #[serde(default = "no_cover")]
    pub cover: Cover,
    /// Air columns from foot to top.
    #[serde(default)]
    pub air_columns: HeatColumns,
}

const fn open() -> f64 {
    1.0
}

const fn no_cover() -> Cover {
    Cover::None
}

/// Air columns.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HeatColumns {
    /// How many.
    #[serde(default)]
    pub count: u32,
    /// How wide, metres.
    #[serde(default = "column")]
    pub diameter_m: f64,
}

const fn column() -> f64 {
    0.1
}

impl Default for HeatColumns {
    fn default() -> Self {
        Self { count: 0, diameter_m: column() }
    }
}

/// So much of a material: one of the reference table, or all its figures.
#[derive(Debug, Clone, Default, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HeatMaterial {
    /// The id of a material of the table, whose figures stand where none are given.
    #[serde(default)]
    pub material: Option<String>,
    /// What it is called, of one that is not in the table.
    #[serde(default)]
    pub name: Option<String>,
    /// Fresh mass, kg.
    pub kg: f64,
    /// Water, % of fresh mass; 100 is plain water.
    #[serde(default)]
    pub moisture_pct: Option<f64>,
    /// Ash, % of dry matter.
    #[serde(default)]
    pub ash_pct: Option<f64>,
    /// Nitrogen, % of dry matter.
    #[serde(default)]
    pub n_pct: Option<f64>,
    /// Carbon to nitrogen, by mass.
    #[serde(default)]
    pub c_n: Option<f64>,
    /// Lignin, % of dry matter; 10 where it is not known.
    #[serde(default)]
    pub lignin_pct: Option<f64>,
    /// How fast it is eaten.
    #[serde(default)]
    pub degradability: Option<Degradability>,
    /// Loose density, kg/L; 0 of what takes no room.
    #[serde(default)]
    pub density_kg_l: Option<f64>,
    /// Room in the heap over loose room.
    #[serde(default)]
    pub settle: Option<f64>,
    /// Share of its nitrogen that is ammoniacal, 0 to 1.
    #[serde(default)]
    pub ammonia_share: Option<f64>,
}

/// The weather of a place; what is left out is that of a mild day.
#[derive(Debug, Clone, Default, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HeatWeather {
    /// Mean of the air, °C.
    pub mean_c: Option<f64>,
    /// How far day and night lie from it, K.
    pub day_swing_c: Option<f64>,
    /// How far summer and winter do, K.
    pub season_swing_c: Option<f64>,
    /// The warmest day of the year, 1 to 366.
    pub warmest_day_of_year: Option<f64>,
    /// The day of the year at the start.
    pub start_day_of_year: Option<f64>,
    /// The hour of the day at the start.
    pub start_hour: Option<f64>,
    /// Relative humidity, %.
    pub humidity_pct: Option<f64>,
    /// Height above the sea, metres.
    pub altitude_m: Option<f64>,
    /// What was measured instead, °C, hour by hour from the start.
    #[serde(default)]
    pub hourly_c: Vec<f64>,
}

/// Rain, evenly over some hours.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HeatRain {
    /// When it begins, hours after the start.
    pub at_h: f64,
    /// For how long, hours.
    pub hours: f64,
    /// How much in all, mm.
    pub mm: f64,
}

/// Something done at an hour after the start.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(tag = "kind", rename_all = "lowercase", deny_unknown_fields)]
pub enum HeatEvent {
    /// It is turned.
    Turn {
        /// When, hours.
        at_h: f64,
        /// How well core and shell are mixed, 0 to 1; 0.85 if left out.
        #[serde(default)]
        mixing: Option<f64>,
    },
    /// It is watered.
    Water {
        /// When, hours.
        at_h: f64,
        /// With so much, litres.
        litres: f64,
        /// How; evenly if left out.
        #[serde(default = "evenly")]
        spread: Pouring,
        /// How warm it is, °C; as the air if left out.
        #[serde(default)]
        temp_c: Option<f64>,
    },
    /// More is added.
    Add {
        /// When, hours.
        at_h: f64,
        /// What.
        materials: Vec<HeatMaterial>,
        /// How warm it is, °C; as the air if left out.
        #[serde(default)]
        temp_c: Option<f64>,
    },
}

/// How water is spread where nothing is said.
const fn evenly() -> Pouring {
    Pouring::Even
}

impl Document for HeatRequest {
    const FORMAT: &'static str = FORMAT;
}
