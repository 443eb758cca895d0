//! A document of a heap, checked field by field, as the model takes it.

use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::quantity;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::stock::material::{Degradability, Material};
use zymarch_core::tend::heat::constants::TURN_MIXES;
use zymarch_core::tend::heat::start::USUAL_LIGNIN;
use zymarch_core::tend::heat::{
    Columns, Event, Form, Geometry, Happening, Part, Rain, Setting, Start, Weather, ammonia_share,
};

use super::{
    FORMAT, HeatColumns, HeatEvent, HeatForm, HeatGeometry, HeatMaterial, HeatRain, HeatRequest, HeatWeather,
    MOST_DAYS,
};
use crate::field;

/// Steps of the reckoning at most: finer ones make nothing truer, and keep others waiting.
const MOST_STEPS: f64 = 100_000.0;
/// Materials, events and rains at most.
const MOST_LISTED: usize = 1000;

/// What is wrong with a document, as it is gone through.
struct Checked<'a> {
    catalogue: &'a Catalogue,
    found: Vec<Fault>,
}

impl HeatRequest {
    /// The mix and its setting, as the model takes them.
    ///
    /// # Errors
    /// Every field that is wrong.
    pub fn asked(&self, catalogue: &Catalogue) -> Result<(Start, Setting), Faults> {
        let mut check = Checked { catalogue, found: Vec::new() };
        field::is_format(&self.format, FORMAT, &mut check.found);
        let root = At::ROOT;
        check.within(&root.key("days"), f64::from(self.days), 1.0, f64::from(MOST_DAYS));
        let least_step = (24.0 * f64::from(self.days) / MOST_STEPS).max(0.05);
        check.within(&root.key("step_h"), self.step_h, least_step, 1.0);
        check.temp(&root.key("start_temp_c"), self.start_temp_c);
        let mix = check.mix(&self.materials, &root.key("materials"));
        let geometry = check.geometry(&self.geometry, &root.key("geometry"));
        let weather = check.weather(&self.weather, &root.key("weather"));
        let rain = check.rain(&self.rain, &root.key("rain"));
        let events = check.events(&self.events, self.days, &root.key("events"));
        let (start_c, step_h) = (self.start_temp_c, self.step_h);
        Faults::or(check.found, || {
            let geometry = geometry.expect("a fault was told otherwise");
            (mix, Setting { geometry, weather, rain, events, start_c, step_h })
        })
    }
}

impl Checked<'_> {
    fn within(&mut self, at: &At<'_>, value: f64, low: f64, high: f64) -> f64 {
        if let Err(fault) = quantity::within(value, low, high) {
            self.found.push(at.put(fault));
        }
        value
    }

    fn or(&mut self, at: &At<'_>, value: Option<f64>, usual: f64, (low, high): (f64, f64)) -> f64 {
        value.map_or(usual, |value| self.within(at, value, low, high))
    }

    fn temp(&mut self, at: &At<'_>, value: Option<f64>) {
        self.or(at, value, 0.0, (-20.0, 95.0));
    }

    fn listed(&mut self, at: &At<'_>, got: usize) {
        self.found.extend(at.holds(got, MOST_LISTED).err());
    }

    fn mix(&mut self, materials: &[HeatMaterial], at: &At<'_>) -> Start {
        self.listed(at, materials.len());
        let each = materials.iter().take(MOST_LISTED).enumerate();
        let parts: Vec<Part> =
            each.filter_map(|(place, material)| self.part(material, &at.index(place))).collect();
        Start::of(&parts)
    }

    fn part(&mut self, given: &HeatMaterial, at: &At<'_>) -> Option<Part> {
        let before = self.found.len();
        if let Err(fault) = quantity::amount(given.kg) {
            self.found.push(at.key("kg").put(fault));
        }
        let catalogue = self.catalogue;
        let row = given.material.as_deref().and_then(|id| catalogue.material(id));
        if let (Some(id), None) = (&given.material, row) {
            self.found.push(at.key("material").fault(FaultCode::UnknownMaterial).with("got", id.clone()));
            return None;
        }
        let is_water = given.moisture_pct == Some(100.0);
        let mut figure =
            |name: &'static str, given: Option<f64>, book: Option<f64>, usual: Option<f64>, most: f64| {
                let of_water = is_water.then_some(0.0);
                match given.or(book).or(usual).or(of_water) {
                    Some(value) => self.within(&at.key(name), value, 0.0, most),
                    None => {
                        self.found.push(at.key(name).fault(FaultCode::MissingFigure));
                        0.0
                    }
                }
            };
        let percent = |of: f64| of * 100.0;
        let book = |of: fn(&Material) -> f64| row.map(of);
        let lignin = row.and_then(|row| row.lignin).map(|of| of.percent());
        let part = Part {
            kg: given.kg,
            moisture: figure(
                "moisture_pct",
                given.moisture_pct,
                book(|of| of.moisture.typical * 100.0),
                None,
                100.0,
            ) / 100.0,
            ash: figure("ash_pct", given.ash_pct, book(|of| of.ash.percent()), None, 100.0) / 100.0,
            nitrogen: figure("n_pct", given.n_pct, book(|of| of.nitrogen.typical * 100.0), None, 47.0)
                / 100.0,
            c_n: figure("c_n", given.c_n, book(|of| of.c_n.typical), None, 2000.0),
            lignin: figure("lignin_pct", given.lignin_pct, lignin, Some(percent(USUAL_LIGNIN)), 100.0)
                / 100.0,
            degradability: given
                .degradability
                .or(row.map(|of| of.degradability))
                .unwrap_or(Degradability::Medium),
            density_kg_m3: 1000.0
                * figure("density_kg_l", given.density_kg_l, book(|of| of.density_kg_l.typical), None, 5.0),
            settle: figure("settle", given.settle, book(|of| of.settle), Some(1.0), 1.0),
            ammonia_share: figure(
                "ammonia_share",
                given.ammonia_share,
                row.map(|row| ammonia_share(row.kind)),
                Some(0.05),
                1.0,
            ),
        };
        (self.found.len() == before).then_some(part)
    }

    fn geometry(&mut self, given: &HeatGeometry, at: &At<'_>) -> Option<Geometry> {
        let before = self.found.len();
        let form = {
            let mut side = |name: &'static str, value: Option<f64>| match value {
                Some(value) => self.within(&at.key(name), value, 0.3, 1000.0),
                None => {
                    let fault = at.key(name).fault(FaultCode::SideMissing);
                    self.found.push(fault.with("shape", given.shape.as_str()));
                    0.0
                }
            };
            match given.shape {
                HeatForm::Box => Form::Box {
                    length_m: side("length_m", given.length_m),
                    width_m: side("width_m", given.width_m),
                },
                HeatForm::Windrow => Form::Windrow {
                    length_m: side("length_m", given.length_m),
                    width_m: side("width_m", given.width_m),
                },
                HeatForm::Cylinder => Form::Cylinder { diameter_m: side("diameter_m", given.diameter_m) },
            }
        };
        let is_round = given.shape == HeatForm::Cylinder;
        let unwanted = [
            ("length_m", given.length_m.filter(|_| is_round)),
            ("width_m", given.width_m.filter(|_| is_round)),
            ("diameter_m", given.diameter_m.filter(|_| !is_round)),
        ];
        for (name, _) in unwanted.iter().filter(|(_, value)| value.is_some()) {
            let fault = at.key(name).fault(FaultCode::SideUnwanted);
            self.found.push(fault.with("shape", given.shape.as_str()));
        }
        let columns = at.key("air_columns");
        let HeatColumns { count, diameter_m } = given.air_columns;
        self.within(&columns.key("count"), f64::from(count), 0.0, 100.0);
        self.within(&columns.key("diameter_m"), diameter_m, 0.02, 1.0);
        let geometry = Geometry {
            form,
            side_open: self.within(&at.key("side_open"), given.side_open, 0.0, 1.0),
            wall_r: self.within(&at.key("wall_r_m2k_w"), given.wall_r_m2k_w, 0.0, 20.0),
            cover: given.cover,
            columns: Columns { count, diameter_m },
        };
        (self.found.len() == before).then_some(geometry)
    }

    fn weather(&mut self, given: &HeatWeather, at: &At<'_>) -> Weather {
        let usual = Weather::default();
        let measured = at.key("hourly_c");
        self.found.extend(measured.holds(given.hourly_c.len(), 24 * (MOST_DAYS as usize + 1)).err());
        for (place, air) in given.hourly_c.iter().enumerate() {
            self.within(&measured.index(place), *air, -60.0, 60.0);
        }
        Weather {
            mean_c: self.or(&at.key("mean_c"), given.mean_c, usual.mean_c, (-40.0, 45.0)),
            day_swing_c: self.or(&at.key("day_swing_c"), given.day_swing_c, usual.day_swing_c, (0.0, 30.0)),
            season_swing_c: self.or(
                &at.key("season_swing_c"),
                given.season_swing_c,
                usual.season_swing_c,
                (0.0, 40.0),
            ),
            warmest_day: self.or(
                &at.key("warmest_day_of_year"),
                given.warmest_day_of_year,
                usual.warmest_day,
                (0.0, 366.0),
            ),
            start_day: self.or(
                &at.key("start_day_of_year"),
                given.start_day_of_year,
                usual.start_day,
                (0.0, 366.0),
            ),
            start_hour: self.or(&at.key("start_hour"), given.start_hour, usual.start_hour, (0.0, 24.0)),
            humidity: self.or(
                &at.key("humidity_pct"),
                given.humidity_pct,
                usual.humidity * 100.0,
                (0.0, 100.0),
            ) / 100.0,
            altitude_m: self.or(&at.key("altitude_m"), given.altitude_m, usual.altitude_m, (-500.0, 6000.0)),
            measured_c: given.hourly_c.clone(),
        }
    }

    fn rain(&mut self, given: &[HeatRain], at: &At<'_>) -> Vec<Rain> {
        self.listed(at, given.len());
        let far = 24.0 * f64::from(MOST_DAYS);
        let each = given.iter().take(MOST_LISTED).enumerate();
        each.map(|(place, rain)| {
            let at = at.index(place);
            Rain {
                at_h: self.within(&at.key("at_h"), rain.at_h, 0.0, far),
                hours: self.within(&at.key("hours"), rain.hours, 0.01, far),
                mm: self.within(&at.key("mm"), rain.mm, 0.0, 2000.0),
            }
        })
        .collect()
    }

    fn events(&mut self, given: &[HeatEvent], days: u32, at: &At<'_>) -> Vec<Event> {
        self.listed(at, given.len());
        let each = given.iter().take(MOST_LISTED).enumerate();
        each.map(|(place, event)| {
            let at = at.index(place);
            let (at_h, what) = match event {
                HeatEvent::Turn { at_h, mixing } => {
                    let mixing = self.or(&at.key("mixing"), *mixing, TURN_MIXES, (0.0, 1.0));
                    (at_h, Happening::Turn { mixing })
                }
                HeatEvent::Water { at_h, litres, spread, temp_c } => {
                    self.temp(&at.key("temp_c"), *temp_c);
                    let litres = self.within(&at.key("litres"), *litres, 0.0, 100_000.0);
                    (at_h, Happening::Water { litres, spread: *spread, temp_c: *temp_c })
                }
                HeatEvent::Add { at_h, materials, temp_c } => {
                    self.temp(&at.key("temp_c"), *temp_c);
                    let what = self.mix(materials, &at.key("materials"));
                    (at_h, Happening::Add { what, temp_c: *temp_c })
                }
            };
            let far = 24.0 * f64::from(if (1..=MOST_DAYS).contains(&days) { days } else { MOST_DAYS });
            Event { at_h: self.within(&at.key("at_h"), *at_h, 0.0, far), what }
        })
        .collect()
    }
}
