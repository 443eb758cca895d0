//! The bean test: whether a weed-killer came along with hay, straw or dung.
//!
//! Some sprays against broad-leaved weeds pass through an animal and a heap and
//! still deform beans, peas and tomatoes. Beans sown in the suspect stuff are
//! judged beside beans in soil known to be clean.

use crate::base::fault::{Fault, FaultCode};
use crate::base::words::closed_list;

/// The first day on which signs can be judged.
pub const SOONEST_DAYS: i64 = 14;

/// After this the plants outgrow a pot, and other wants show like damage.
pub const LATEST_DAYS: i64 = 21;

/// Of the control's beans at least this share must have come up well [-], or
/// the seed or the soil is at fault.
const CONTROL_COMES_UP: f64 = 0.7;

/// Beans sown: fewer than this come up by chance.
pub const SOWN: (u32, u32) = (3, 1000);

/// Beans in the suspect stuff and beside it in clean soil.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Bean {
    /// Sown in the suspect stuff.
    pub sown: u32,
    /// Of those, came up.
    pub up: u32,
    /// Of those, with cupped, curled or fern-like leaves or twisted stems.
    pub deformed: u32,
    /// Sown in clean soil.
    pub control_sown: u32,
    /// Of those, came up.
    pub control_up: u32,
    /// Of those, deformed.
    pub control_deformed: u32,
}

closed_list! {
    /// What a bean test says.
    BeanVerdict {
        /// Not two weeks yet.
        TooSoon = "too-soon",
        /// The clean beans failed too: nothing can be said.
        ControlFailed = "control-failed",
        /// They grew as the clean ones did: no sign was seen.
        NoSign = "no-sign",
        /// They grew worse, without the marks of a spray.
        Weak = "weak",
        /// The marks of a spray: not into any heap.
        Signs = "signs",
    }
}

/// What a bean test found.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BeanResult {
    /// What it says.
    pub verdict: BeanVerdict,
    /// Came up, as a share of the control's [-]; none if the control had none.
    pub against_control: Option<f64>,
}

impl Bean {
    /// What the beans say after so many days.
    ///
    /// Signs count when more than one plant in ten, and more than in the
    /// control, is deformed; a test judged after three weeks still counts.
    ///
    /// # Source
    /// The bioassay with beans or peas that agricultural extension services
    /// publish for clopyralid, aminopyralid and picloram in compost and dung.
    ///
    /// # Errors
    /// A [`Fault`] if fewer than three were sown, or more came up than were.
    ///
    /// # Example
    /// Nine of ten came up, four with cupped leaves; in clean soil ten of ten, none.
    /// ```
    /// use zymarch_core::stock::field_test::{Bean, BeanVerdict};
    /// let dung = Bean { sown: 10, up: 9, deformed: 4, control_sown: 10, control_up: 10, control_deformed: 0 };
    /// assert_eq!(dung.result(16)?.verdict, BeanVerdict::Signs);
    /// assert_eq!(dung.result(9)?.verdict, BeanVerdict::TooSoon);
    /// # Ok::<(), zymarch_core::base::fault::Fault>(())
    /// ```
    pub fn result(&self, days: i64) -> Result<BeanResult, Fault> {
        self.check()?;
        let share = |of: u32, all: u32| if all > 0 { f64::from(of) / f64::from(all) } else { 0.0 };
        let (up, control_up) = (share(self.up, self.sown), share(self.control_up, self.control_sown));
        let against_control = (control_up > 0.0).then(|| up / control_up);
        let marked = share(self.deformed, self.up);
        let control_marked = share(self.control_deformed, self.control_up);
        let verdict = if days < SOONEST_DAYS {
            BeanVerdict::TooSoon
        } else if control_up < CONTROL_COMES_UP || control_marked > 0.1 {
            BeanVerdict::ControlFailed
        } else if marked > 0.1 && marked > control_marked {
            BeanVerdict::Signs
        } else if against_control.is_some_and(|against| against < 0.8) {
            BeanVerdict::Weak
        } else {
            BeanVerdict::NoSign
        };
        Ok(BeanResult { verdict, against_control })
    }

    fn check(&self) -> Result<(), Fault> {
        for (field, sown) in [("sown", self.sown), ("control_sown", self.control_sown)] {
            if !(SOWN.0..=SOWN.1).contains(&sown) {
                return Err(Fault::of(field, FaultCode::OutOfRange)
                    .with("low", f64::from(SOWN.0))
                    .with("high", f64::from(SOWN.1))
                    .with("got", f64::from(sown)));
            }
        }
        for (field, part, whole, code) in [
            ("up", self.up, self.sown, FaultCode::MoreThanSown),
            ("deformed", self.deformed, self.up, FaultCode::MoreThanUp),
            ("control_up", self.control_up, self.control_sown, FaultCode::MoreThanSown),
            ("control_deformed", self.control_deformed, self.control_up, FaultCode::MoreThanUp),
        ] {
            if part > whole {
                return Err(Fault::of(field, code)
                    .with("got", f64::from(part))
                    .with("most", f64::from(whole)));
            }
        }
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const CLEAN: Bean =
        Bean { sown: 10, up: 10, deformed: 0, control_sown: 10, control_up: 10, control_deformed: 0 };

    fn verdict(bean: Bean) -> BeanVerdict {
        bean.result(15).expect("is sound").verdict
    }

    #[test]
    fn each_verdict_has_its_case() {
        assert_eq!(verdict(CLEAN), BeanVerdict::NoSign);
        assert_eq!(verdict(Bean { up: 7, ..CLEAN }), BeanVerdict::Weak);
        assert_eq!(verdict(Bean { deformed: 2, ..CLEAN }), BeanVerdict::Signs);
        assert_eq!(verdict(Bean { control_up: 5, ..CLEAN }), BeanVerdict::ControlFailed);
        assert_eq!(verdict(Bean { deformed: 5, control_deformed: 4, ..CLEAN }), BeanVerdict::ControlFailed);
        assert_eq!(verdict(Bean { up: 0, ..CLEAN }), BeanVerdict::Weak);
        assert_eq!(CLEAN.result(13).expect("is sound").verdict, BeanVerdict::TooSoon);
    }

    #[test]
    fn more_plants_than_beans_are_refused_by_field() {
        let field = |bean: Bean| bean.result(15).expect_err("refused").path.to_string();
        assert_eq!(field(Bean { sown: 2, ..CLEAN }), "sown");
        assert_eq!(field(Bean { up: 11, ..CLEAN }), "up");
        assert_eq!(field(Bean { up: 3, deformed: 4, ..CLEAN }), "deformed");
        assert_eq!(field(Bean { control_up: 11, ..CLEAN }), "control_up");
        assert_eq!(field(Bean { control_deformed: 11, ..CLEAN }), "control_deformed");
    }
}
