//! Methods on the wire: as they are shown, and as a person changes a copy.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{FaultCode, Faults};
use zymarch_core::base::quantity::Band;
use zymarch_core::plan::heap::fit;
use zymarch_core::plan::method::own::Changes;
use zymarch_core::plan::method::{self, Build, Heat, PatternLayer, ShapeKind, Turned, Vent, Watering};
use zymarch_core::plan::mind::in_method;
use zymarch_core::stock::caution::{self, Stance};

use crate::layers::HeapShape;

/// A method. Ranges are low and high.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Method {
    /// Stable word.
    pub id: String,
    /// The method it was copied from, if it is a person's own.
    pub base: Option<String>,
    /// What a person calls it, if it is their own.
    pub name: Option<String>,
    /// How hot its heap gets.
    pub heat: Heat,
    /// How often it is turned.
    pub turned: Turned,
    /// How the materials go in.
    pub build: Build,
    /// What it is built in, the usual one first.
    pub shapes: Vec<ShapeKind>,
    /// Sides of each of these to begin with.
    pub usual: Vec<HeapShape>,
    /// Heap volume it works at, litres.
    pub volume_l: [f64; 2],
    /// Height it is built to, cm.
    pub height_cm: [f64; 2],
    /// Window for C:N.
    pub c_n: [f64; 2],
    /// Window for moisture, %.
    pub moisture_pct: [f64; 2],
    /// Least free air space, %.
    pub free_air_space_min_pct: f64,
    /// How warm its core should be, by age.
    pub expected: Vec<MethodHeat>,
    /// Day of the first turn; none if it is not turned by rule.
    pub first_turn_day: Option<u16>,
    /// Days between turns.
    pub turn_every_days: Option<[f64; 2]>,
    /// When water goes on.
    pub water: Watering,
    /// Days between looks at it.
    pub check_days: [f64; 2],
    /// Weeks until it is no longer active.
    pub active_weeks: [f64; 2],
    /// The same if a method that may be turned is not.
    pub unturned_weeks: Option<[f64; 2]>,
    /// Weeks of curing after that.
    pub cure_weeks: [f64; 2],
    /// Volume left at the end, %.
    pub volume_left_pct: [f64; 2],
    /// Dry matter left, %.
    pub mass_left_pct: [f64; 2],
    /// Nitrogen kept, %.
    pub n_kept_pct: [f64; 2],
    /// Hours of work to build, each m³.
    build_h_m3: [f64; 2],
    /// Hours of work for one turn, each m³.
    turn_h_m3: Option<[f64; 2]>,
    /// The layers of one cycle, from below; none if it is mixed first.
    pub pattern: Vec<PatternLayer>,
    /// Coarse stuff below, cm.
    pub foundation_cm: f64,
    /// Dry stuff on top, cm.
    pub cap_cm: f64,
    /// What lets air into the middle.
    pub vent: Vent,
    /// Farthest that any point may be from air, cm.
    pub air_reach_cm: Option<f64>,
    /// Least coarse material, % of loose volume.
    pub coarse_min_pct: Option<f64>,
    /// Its water must be free of chlorine.
    pub wants_open_water: bool,
    /// The cautions that keep a material out of it.
    pub refuses: Vec<&'static str>,
}

/// How warm the core should be at an age.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MethodHeat {
    /// Days since it was built.
    pub day: u16,
    /// Low and high, degrees C.
    pub core_c: [f64; 2],
}

impl From<&method::Method> for Method {
    fn from(method: &method::Method) -> Self {
        let range = |band: Band| [band.low(), band.high()];
        let percent = |band: Band| [tidy(band.low() * 100.0), tidy(band.high() * 100.0)];
        Self {
            id: method.id.clone(),
            base: method.base.clone(),
            name: method.name.clone(),
            heat: method.heat,
            turned: method.turned,
            build: method.build,
            shapes: method.shapes.clone(),
            usual: method
                .shapes
                .iter()
                .map(|shape| fit::usual(*shape, method.volume_l, method.height_cm).into())
                .collect(),
            volume_l: range(method.volume_l),
            height_cm: range(method.height_cm),
            c_n: range(method.c_n),
            moisture_pct: percent(method.moisture),
            free_air_space_min_pct: tidy(method.free_air_space_min * 100.0),
            expected: method
                .expected
                .iter()
                .map(|at| MethodHeat { day: at.day, core_c: range(at.core_c) })
                .collect(),
            first_turn_day: method.first_turn_day,
            turn_every_days: method.turn_every_days.map(range),
            water: method.water,
            check_days: range(method.check_days),
            active_weeks: range(method.active_weeks),
            unturned_weeks: method.unturned_weeks.map(range),
            cure_weeks: range(method.cure_weeks),
            volume_left_pct: percent(method.volume_left),
            mass_left_pct: percent(method.mass_left),
            n_kept_pct: percent(method.nitrogen_kept),
            build_h_m3: range(method.build_h_m3),
            turn_h_m3: method.turn_h_m3.map(range),
            pattern: method.pattern.clone(),
            foundation_cm: method.foundation_cm,
            cap_cm: method.cap_cm,
            vent: method.vent,
            air_reach_cm: method.air_reach_cm,
            coarse_min_pct: method.coarse_min.map(|share| share * 100.0),
            wants_open_water: method.wants_open_water,
            refuses: caution::all()
                .filter(|caution| in_method(*caution, method) == Stance::Refused)
                .map(|caution| caution.code)
                .collect(),
        }
    }
}

/// Hundred times a share such as 0.55 leaves its last digits behind.
fn tidy(percent: f64) -> f64 {
    (percent * 1e6).round() / 1e6
}

/// The figures of a copy that a person may change; all of them are given. Ranges are low and high.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MethodFields {
    /// What it is called.
    pub name: String,
    /// Window for C:N.
    pub c_n: [f64; 2],
    /// Window for moisture, %.
    pub moisture_pct: [f64; 2],
    /// Least free air space, %.
    pub free_air_space_min_pct: f64,
    /// Heap volume it works at, litres.
    pub volume_l: [f64; 2],
    /// Height it is built to, cm.
    pub height_cm: [f64; 2],
    /// Day of the first turn; given exactly where the method copied has one.
    pub first_turn_day: Option<u16>,
    /// Days between turns; given exactly where the method copied has them.
    pub turn_every_days: Option<[f64; 2]>,
    /// Days between looks at it.
    pub check_days: [f64; 2],
    /// Weeks until it is no longer active.
    pub active_weeks: [f64; 2],
    /// Weeks of curing after that.
    pub cure_weeks: [f64; 2],
    /// Volume left at the end, %.
    pub volume_left_pct: [f64; 2],
    /// Dry matter left, %.
    pub mass_left_pct: [f64; 2],
    /// Nitrogen kept, %.
    pub n_kept_pct: [f64; 2],
    /// Hours of work to build, each m³.
    pub build_h_m3: [f64; 2],
    /// Hours of work for one turn, each m³; given exactly where the method copied has them.
    pub turn_h_m3: Option<[f64; 2]>,
    /// The layers of one cycle, from below; none if it is mixed first.
    pub pattern: Vec<PatternLayer>,
    /// Coarse stuff below, cm.
    pub foundation_cm: f64,
    /// Dry stuff on top, cm.
    pub cap_cm: f64,
}

impl MethodFields {
    /// A copy of a method with these figures.
    ///
    /// # Errors
    /// [`Faults`] that name the field that cannot be.
    pub fn checked(&self, base: &method::Method, id: &str) -> Result<method::Method, Faults> {
        let band = |field: &'static str, [low, high]: [f64; 2], per: f64| {
            Band::new(low / per, high / per).map_err(|_| Faults::one(field, FaultCode::NotInOrder))
        };
        let maybe = |field: &'static str, of: Option<[f64; 2]>| of.map(|of| band(field, of, 1.0)).transpose();
        let changes = Changes {
            c_n: band("c_n", self.c_n, 1.0)?,
            moisture: band("moisture_pct", self.moisture_pct, 100.0)?,
            free_air_space_min: self.free_air_space_min_pct / 100.0,
            volume_l: band("volume_l", self.volume_l, 1.0)?,
            height_cm: band("height_cm", self.height_cm, 1.0)?,
            first_turn_day: self.first_turn_day,
            turn_every_days: maybe("turn_every_days", self.turn_every_days)?,
            check_days: band("check_days", self.check_days, 1.0)?,
            active_weeks: band("active_weeks", self.active_weeks, 1.0)?,
            cure_weeks: band("cure_weeks", self.cure_weeks, 1.0)?,
            volume_left: band("volume_left_pct", self.volume_left_pct, 100.0)?,
            mass_left: band("mass_left_pct", self.mass_left_pct, 100.0)?,
            nitrogen_kept: band("n_kept_pct", self.n_kept_pct, 100.0)?,
            build_h_m3: band("build_h_m3", self.build_h_m3, 1.0)?,
            turn_h_m3: maybe("turn_h_m3", self.turn_h_m3)?,
            pattern: self.pattern.clone(),
            foundation_cm: self.foundation_cm,
            cap_cm: self.cap_cm,
        };
        changes.applied(base, id, &self.name).map_err(Faults::from)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// What is shown, sent back as it is, is the same method.
    #[test]
    fn what_is_shown_can_be_sent_back() {
        for base in method::all() {
            let shown = Method::from(base);
            let fields = MethodFields {
                name: "Mine".into(),
                c_n: shown.c_n,
                moisture_pct: shown.moisture_pct,
                free_air_space_min_pct: shown.free_air_space_min_pct,
                volume_l: shown.volume_l,
                height_cm: shown.height_cm,
                first_turn_day: shown.first_turn_day,
                turn_every_days: shown.turn_every_days,
                check_days: shown.check_days,
                active_weeks: shown.active_weeks,
                cure_weeks: shown.cure_weeks,
                volume_left_pct: shown.volume_left_pct,
                mass_left_pct: shown.mass_left_pct,
                n_kept_pct: shown.n_kept_pct,
                build_h_m3: shown.build_h_m3,
                turn_h_m3: shown.turn_h_m3,
                pattern: shown.pattern.clone(),
                foundation_cm: shown.foundation_cm,
                cap_cm: shown.cap_cm,
            };
            let copy = fields.checked(base, "mine").unwrap_or_else(|bad| panic!("{}: {bad:?}", base.id));
            let again = Method { id: shown.id.clone(), base: None, name: None, ..Method::from(&copy) };
            assert_eq!(again, shown);
            let odd = MethodFields { c_n: [30.0, 20.0], ..fields };
            assert_eq!(odd.checked(base, "mine").expect_err("upside down").0[0].path.to_string(), "c_n");
        }
    }
}
