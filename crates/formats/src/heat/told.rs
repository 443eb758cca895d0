//! A heap as the model takes it, told as a document: to be reckoned elsewhere, or changed and reckoned again.

use zymarch_core::tend::heat::{Event, Form, Geometry, Happening, Part, Setting};

use super::{
    FORMAT, HeatColumns, HeatEvent, HeatForm, HeatGeometry, HeatMaterial, HeatRain, HeatRequest, HeatWeather,
};

impl HeatRequest {
    /// A heap of parts, each with its name, in its setting, for some days. What a cover does later is left
    /// out, and so is what was added: neither can be said of a heap as it begins.
    #[must_use]
    pub fn telling(parts: &[(String, Part)], setting: &Setting, days: u32) -> Self {
        let weather = &setting.weather;
        Self {
            format: FORMAT.to_owned(),
            days,
            step_h: setting.step_h,
            start_temp_c: setting.start_c,
            geometry: geometry(&setting.geometry),
            materials: parts.iter().map(|(name, part)| material(name, part)).collect(),
            weather: HeatWeather {
                start_day_of_year: Some(weather.start_day),
                start_hour: Some(weather.start_hour),
                altitude_m: Some(weather.altitude_m),
                hourly_c: weather.measured_c.iter().map(|air| (air * 100.0).round() / 100.0).collect(),
                ..HeatWeather::default()
            },
            rain: setting
                .rain
                .iter()
                .map(|rain| HeatRain { at_h: rain.at_h, hours: rain.hours, mm: rain.mm })
                .collect(),
            events: setting.events.iter().filter_map(event).collect(),
        }
    }
}

fn geometry(of: &Geometry) -> HeatGeometry {
    let (shape, length_m, width_m, diameter_m) = match of.form {
        Form::Box { length_m, width_m } => (HeatForm::Box, Some(length_m), Some(width_m), None),
        Form::Windrow { length_m, width_m } => (HeatForm::Windrow, Some(length_m), Some(width_m), None),
        Form::Cylinder { diameter_m } => (HeatForm::Cylinder, None, None, Some(diameter_m)),
    };
    HeatGeometry {
        shape,
        length_m,
        width_m,
        diameter_m,
        side_open: of.side_open,
        wall_r_m2k_w: of.wall_r,
        cover: of.cover,
        air_columns: HeatColumns { count: of.columns.count, diameter_m: of.columns.diameter_m },
    }
}

fn material(name: &str, part: &Part) -> HeatMaterial {
    let percent = |share: f64| Some((share * 1e6).round() / 1e4);
    HeatMaterial {
        material: None,
        name: Some(name.to_owned()),
        kg: part.kg,
        moisture_pct: percent(part.moisture),
        ash_pct: percent(part.ash),
        n_pct: percent(part.nitrogen),
        c_n: Some(part.c_n),
        lignin_pct: percent(part.lignin),
        degradability: Some(part.degradability),
        density_kg_l: Some(part.density_kg_m3 / 1000.0),
        settle: Some(part.settle),
        ammonia_share: Some(part.ammonia_share),
    }
}

fn event(of: &Event) -> Option<HeatEvent> {
    match of.what {
        Happening::Turn { mixing } => Some(HeatEvent::Turn { at_h: of.at_h, mixing: Some(mixing) }),
        Happening::Water { litres, spread, temp_c } => {
            Some(HeatEvent::Water { at_h: of.at_h, litres, spread, temp_c })
        }
        Happening::Add { .. } | Happening::Cover(_) => None,
    }
}

#[cfg(test)]
mod tests {
    use zymarch_core::catalogue::Catalogue;
    use zymarch_core::stock::material::Degradability;
    use zymarch_core::tend::heat::{Pouring, Start};

    use super::*;

    #[test]
    fn what_is_told_is_taken_back_as_it_was() {
        let part = Part {
            kg: 222.0,
            moisture: 0.15,
            ash: 0.07,
            nitrogen: 0.007,
            c_n: 66.0,
            lignin: 0.05,
            degradability: Degradability::Medium,
            density_kg_m3: 110.0,
            settle: 0.7,
            ammonia_share: 0.05,
        };
        let mut setting = Setting::of(Geometry::of(Form::Cylinder { diameter_m: 1.2 }));
        setting.weather.measured_c = vec![12.5, 13.0];
        setting.events = vec![
            Event { at_h: 72.0, what: Happening::Turn { mixing: 0.8 } },
            Event { at_h: 90.0, what: Happening::Water { litres: 30.0, spread: Pouring::Top, temp_c: None } },
        ];
        let told = HeatRequest::telling(&[("stover".into(), part)], &setting, 20);
        let text = serde_json::to_string(&told).expect("is written");
        let read: HeatRequest = crate::field::document(&text).expect("is read");
        let (start, back) = read.asked(&Catalogue::book()).expect("is sound");
        assert_eq!(back, setting);
        let want = Start::of(&[part]);
        for (got, want) in start.held.each().zip(want.held.each()) {
            assert!((got - want).abs() < 1e-9, "{got} {want}");
        }
    }
}
