//! A person's own method: a copy of a known one with other figures.
//!
//! Windows, sizes, turning, times and layers may be changed. What decides over
//! safety may not: how hot the heap gets, and with that what it cannot take,
//! stays as it is in the way it was copied from.

use super::{Build, Heat, Method, PatternLayer};
use crate::base::fault::{Fault, FaultCode};
use crate::base::quantity::Band;

/// The figures of a method that a person may change.
#[derive(Debug, Clone, PartialEq)]
pub struct Changes {
    /// Window for C:N [-].
    pub c_n: Band,
    /// Window for moisture [-].
    pub moisture: Band,
    /// Least free air space [-].
    pub free_air_space_min: f64,
    /// Heap volume [L].
    pub volume_l: Band,
    /// Height [cm].
    pub height_cm: Band,
    /// Day of the first turn.
    pub first_turn_day: Option<u16>,
    /// Days between turns; none exactly where the method copied has none.
    pub turn_every_days: Option<Band>,
    /// Days between looks.
    pub check_days: Band,
    /// Weeks it is active.
    pub active_weeks: Band,
    /// Weeks of curing.
    pub cure_weeks: Band,
    /// Volume left [-].
    pub volume_left: Band,
    /// Dry matter left [-].
    pub mass_left: Band,
    /// Nitrogen kept [-].
    pub nitrogen_kept: Band,
    /// Hours to build [h/m³].
    pub build_h_m3: Band,
    /// Hours for one turn [h/m³].
    pub turn_h_m3: Option<Band>,
    /// Layers of one cycle, from below.
    pub pattern: Vec<PatternLayer>,
    /// Coarse stuff below [cm].
    pub foundation_cm: f64,
    /// Dry stuff on top [cm].
    pub cap_cm: f64,
}

/// A hot method may be turned half as often as it was, and no less.
const MOST_TIMES_BETWEEN_TURNS: f64 = 2.0;

/// What the figures may be, by their names in the open formats and in their units.
pub const LIMITS: [(&str, (f64, f64)); 17] = [
    ("c_n", (5.0, 200.0)),
    ("moisture_pct", (20.0, 90.0)),
    ("free_air_space_min_pct", (0.0, 90.0)),
    ("volume_l", (10.0, 100_000.0)),
    ("height_cm", (10.0, 300.0)),
    ("first_turn_day", (0.0, 365.0)),
    ("turn_every_days", (0.5, 365.0)),
    ("check_days", (0.5, 90.0)),
    ("active_weeks", (0.5, 200.0)),
    ("cure_weeks", (0.0, 200.0)),
    ("volume_left_pct", (5.0, 100.0)),
    ("mass_left_pct", (5.0, 100.0)),
    ("n_kept_pct", (5.0, 100.0)),
    ("build_h_m3", (0.0, 50.0)),
    ("turn_h_m3", (0.0, 50.0)),
    ("foundation_cm", (0.0, 60.0)),
    ("cap_cm", (0.0, 60.0)),
];

impl Changes {
    /// The figures of a method as they are.
    #[must_use]
    pub fn of(method: &Method) -> Self {
        Self {
            c_n: method.c_n,
            moisture: method.moisture,
            free_air_space_min: method.free_air_space_min,
            volume_l: method.volume_l,
            height_cm: method.height_cm,
            first_turn_day: method.first_turn_day,
            turn_every_days: method.turn_every_days,
            check_days: method.check_days,
            active_weeks: method.active_weeks,
            cure_weeks: method.cure_weeks,
            volume_left: method.volume_left,
            mass_left: method.mass_left,
            nitrogen_kept: method.nitrogen_kept,
            build_h_m3: method.build_h_m3,
            turn_h_m3: method.turn_h_m3,
            pattern: method.pattern.clone(),
            foundation_cm: method.foundation_cm,
            cap_cm: method.cap_cm,
        }
    }

    /// A copy of a method with these figures.
    ///
    /// # Errors
    /// A [`Fault`] names the first figure that cannot be.
    ///
    /// # Example
    /// Bays turned once a month would not be hot throughout.
    /// ```
    /// use zymarch_core::{plan::method::{self, own::Changes}, base::quantity::Band};
    /// let bays = method::find("bay-turned").expect("listed");
    /// let mut changes = Changes::of(bays);
    /// changes.c_n = Band::new(28.0, 35.0)?;
    /// let mine = changes.clone().applied(bays, "my-bays", "My bays")?;
    /// assert_eq!((mine.c_n.high(), mine.heat), (35.0, bays.heat));
    /// changes.turn_every_days = Some(Band::new(25.0, 35.0)?);
    /// assert!(changes.applied(bays, "my-bays", "My bays").is_err());
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn applied(self, base: &Method, id: &str, name: &str) -> Result<Method, Fault> {
        self.check(base)?;
        Ok(Method {
            id: id.to_owned(),
            base: Some(base.base.clone().unwrap_or_else(|| base.id.clone())),
            name: Some(name.to_owned()),
            c_n: self.c_n,
            moisture: self.moisture,
            free_air_space_min: self.free_air_space_min,
            volume_l: self.volume_l,
            height_cm: self.height_cm,
            first_turn_day: self.first_turn_day,
            turn_every_days: self.turn_every_days,
            check_days: self.check_days,
            active_weeks: self.active_weeks,
            cure_weeks: self.cure_weeks,
            volume_left: self.volume_left,
            mass_left: self.mass_left,
            nitrogen_kept: self.nitrogen_kept,
            build_h_m3: self.build_h_m3,
            turn_h_m3: self.turn_h_m3,
            pattern: self.pattern,
            foundation_cm: self.foundation_cm,
            cap_cm: self.cap_cm,
            ..base.clone()
        })
    }

    /// A figure by its name, as the open formats give it: percent where the name says so.
    fn in_units_of_the_formats(&self, field: &str) -> Option<(f64, f64)> {
        let one = |value: f64| (value, value);
        let ends = |band: Band| (band.low(), band.high());
        let percent = |band: Band| (band.low() * 100.0, band.high() * 100.0);
        match field {
            "c_n" => Some(ends(self.c_n)),
            "moisture_pct" => Some(percent(self.moisture)),
            "free_air_space_min_pct" => Some(one(self.free_air_space_min * 100.0)),
            "volume_l" => Some(ends(self.volume_l)),
            "height_cm" => Some(ends(self.height_cm)),
            "first_turn_day" => self.first_turn_day.map(|day| one(f64::from(day))),
            "turn_every_days" => self.turn_every_days.map(ends),
            "check_days" => Some(ends(self.check_days)),
            "active_weeks" => Some(ends(self.active_weeks)),
            "cure_weeks" => Some(ends(self.cure_weeks)),
            "volume_left_pct" => Some(percent(self.volume_left)),
            "mass_left_pct" => Some(percent(self.mass_left)),
            "n_kept_pct" => Some(percent(self.nitrogen_kept)),
            "build_h_m3" => Some(ends(self.build_h_m3)),
            "turn_h_m3" => self.turn_h_m3.map(ends),
            "foundation_cm" => Some(one(self.foundation_cm)),
            "cap_cm" => Some(one(self.cap_cm)),
            _ => None,
        }
    }

    fn check(&self, base: &Method) -> Result<(), Fault> {
        for (field, (low, high)) in LIMITS {
            let Some(held) = self.in_units_of_the_formats(field) else { continue };
            // A share times a hundred may miss its edge by the last digit; NaN is never within.
            if !(held.0 >= low - 1e-7 && held.1 <= high + 1e-7) {
                return Err(Fault::of(field, FaultCode::OutOfRange).with("low", low).with("high", high));
            }
        }
        for (field, is_given, was_given) in [
            ("turn_every_days", self.turn_every_days.is_some(), base.turn_every_days.is_some()),
            ("turn_h_m3", self.turn_h_m3.is_some(), base.turn_h_m3.is_some()),
            ("first_turn_day", self.first_turn_day.is_some(), base.first_turn_day.is_some()),
        ] {
            if is_given != was_given {
                return Err(Fault::of(field, FaultCode::UnlikeBase));
            }
        }
        let is_hot = matches!(base.heat, Heat::Hot | Heat::HotIfTurned);
        if let (true, Some(now), Some(was)) = (is_hot, self.turn_every_days, base.turn_every_days) {
            let most = was.high() * MOST_TIMES_BETWEEN_TURNS;
            if now.high() > most {
                return Err(Fault::of("turn_every_days", FaultCode::TurnedTooSeldom).with("most", most));
            }
        }
        let is_twice = self.pattern.iter().enumerate().any(|(at, layer)| self.pattern[..at].contains(layer));
        if is_twice || (base.build != Build::Mixed && base.pattern.is_empty() != self.pattern.is_empty()) {
            return Err(Fault::of("pattern", FaultCode::BadPattern));
        }
        if base.build == Build::Mixed && !self.pattern.is_empty() {
            return Err(Fault::of("pattern", FaultCode::BadPattern));
        }
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::method::{all, find};
    use crate::plan::mind::in_method;
    use crate::stock::caution::{self, Stance};

    #[test]
    fn an_unchanged_copy_is_like_the_way_it_was_copied_from() {
        for base in all() {
            let copy = Changes::of(base).applied(base, "mine", "Mine").expect("nothing was changed");
            assert_eq!(copy.base.as_deref(), Some(base.id.as_str()));
            let again = Changes::of(&copy).applied(&copy, "mine-2", "Mine 2").expect("a copy of a copy");
            assert_eq!(again.base, copy.base, "a copy of a copy goes back to the book");
            for caution in caution::all() {
                assert_eq!(
                    in_method(caution, &copy),
                    in_method(caution, base),
                    "{} {}",
                    base.id,
                    caution.code
                );
            }
        }
    }

    #[test]
    fn what_it_cannot_take_is_not_changed_away() {
        let bin = find("slow-bin").expect("listed");
        let mut changes = Changes::of(bin);
        changes.volume_l = Band::fixed(2000.0, 4000.0);
        let mine = changes.applied(bin, "big-bin", "Big bin").expect("a large bin may be");
        assert_eq!(in_method(caution::find("hot-only").expect("listed"), &mine), Stance::Refused);
    }

    #[test]
    fn every_figure_with_limits_is_looked_at() {
        let bays = Changes::of(find("bay-turned").expect("listed"));
        for (field, _) in LIMITS {
            assert!(bays.in_units_of_the_formats(field).is_some(), "{field}");
        }
    }

    #[test]
    fn figures_that_cannot_be_are_named() {
        let bays = find("bay-turned").expect("listed");
        let bad = |change: &dyn Fn(&mut Changes)| {
            let mut changes = Changes::of(bays);
            change(&mut changes);
            changes.applied(bays, "mine", "Mine").expect_err("cannot be").path.to_string()
        };
        assert_eq!(bad(&|now| now.c_n = Band::fixed(1.0, 30.0)), "c_n");
        assert_eq!(bad(&|now| now.moisture = Band::fixed(0.5, 0.95)), "moisture_pct");
        assert_eq!(bad(&|now| now.free_air_space_min = -0.1), "free_air_space_min_pct");
        assert_eq!(bad(&|now| now.free_air_space_min = f64::NAN), "free_air_space_min_pct");
        assert_eq!(bad(&|now| now.cap_cm = 400.0), "cap_cm");
        assert_eq!(bad(&|now| now.turn_every_days = None), "turn_every_days");
        assert_eq!(bad(&|now| now.turn_every_days = Some(Band::fixed(7.0, 29.0))), "turn_every_days");
        assert_eq!(bad(&|now| now.pattern = vec![PatternLayer::Brown; 2]), "pattern");
        assert_eq!(bad(&|now| now.pattern = Vec::new()), "pattern");
    }
}
