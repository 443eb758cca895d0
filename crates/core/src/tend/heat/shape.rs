//! The surfaces of a heap, whatever it has shrunk to: the footprint stays, the height follows.

use std::f64::consts::PI;

use super::constants::SHELL;
use crate::base::words::closed_list;

/// What holds it, or does not.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Form {
    /// A box or a bay.
    Box {
        /// One side [m].
        length_m: f64,
        /// The other [m].
        width_m: f64,
    },
    /// A ring or a barrel.
    Cylinder {
        /// Across [m].
        diameter_m: f64,
    },
    /// A long heap, a parabola in section.
    Windrow {
        /// Along [m].
        length_m: f64,
        /// Across its foot [m].
        width_m: f64,
    },
}

closed_list! {
    /// What lies over it.
    Cover {
        /// Nothing.
        None = "none",
        /// A roof: it keeps rain off.
        Roof = "roof",
        /// A sheet: it keeps rain off, hinders air and keeps some warmth.
        Sheet = "sheet",
    }
}

/// Air columns from foot to top.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Columns {
    /// How many.
    pub count: u32,
    /// How wide [m].
    pub diameter_m: f64,
}

/// How a heap stands.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Geometry {
    /// Its form.
    pub form: Form,
    /// Share of the side that lets air through: pallet bay 0.5, shut drum 0.02 [-].
    pub side_open: f64,
    /// What its walls keep in [m² K/W].
    pub wall_r: f64,
    /// What lies over it.
    pub cover: Cover,
    /// Air columns.
    pub columns: Columns,
}

impl Geometry {
    /// A form with open sides and nothing else.
    #[must_use]
    pub const fn of(form: Form) -> Self {
        let columns = Columns { count: 0, diameter_m: 0.1 };
        Self { form, side_open: 1.0, wall_r: 0.0, cover: Cover::None, columns }
    }

    /// Its footprint [m²].
    #[must_use]
    pub const fn foot_m2(&self) -> f64 {
        match self.form {
            Form::Box { length_m, width_m } | Form::Windrow { length_m, width_m } => length_m * width_m,
            Form::Cylinder { diameter_m } => PI * diameter_m * diameter_m / 4.0,
        }
    }

    /// How high so much of it stands [m].
    #[must_use]
    pub fn height_m(&self, volume_m3: f64) -> f64 {
        match self.form {
            Form::Box { .. } | Form::Cylinder { .. } => volume_m3 / self.foot_m2(),
            Form::Windrow { length_m, width_m } => volume_m3 / (2.0 / 3.0 * width_m * length_m),
        }
    }

    /// Half of its least breadth [m].
    #[must_use]
    pub const fn half_width_m(&self) -> f64 {
        self.least_side_m() / 2.0
    }

    const fn least_side_m(&self) -> f64 {
        match self.form {
            Form::Box { length_m, width_m } | Form::Windrow { length_m, width_m } => length_m.min(width_m),
            Form::Cylinder { diameter_m } => diameter_m,
        }
    }

    /// How thick its shell is when so much of it stands [m].
    #[must_use]
    pub fn shell_m(&self, volume_m3: f64) -> f64 {
        let [most, share] = SHELL;
        most.min(share * self.least_side_m().min(self.height_m(volume_m3)))
    }

    /// All surfaces of so much of it with a shell of a thickness.
    #[must_use]
    pub fn surfaces(&self, volume_m3: f64, shell_m: f64) -> Surfaces {
        let height_m = self.height_m(volume_m3);
        let core_m = (height_m - shell_m).max(0.05 * height_m);
        let foot = self.foot_m2();
        match self.form {
            Form::Box { length_m, width_m } => {
                let (l, b) = (length_m - 2.0 * shell_m, width_m - 2.0 * shell_m);
                Surfaces {
                    height_m,
                    foot,
                    top: foot,
                    side: 2.0 * (length_m + width_m) * height_m,
                    core_foot: l * b,
                    core: l * b + 2.0 * (l + b) * core_m,
                    core_share: l * b * core_m / volume_m3,
                }
            }
            Form::Cylinder { diameter_m } => {
                let d = diameter_m - 2.0 * shell_m;
                let core_foot = PI * d * d / 4.0;
                Surfaces {
                    height_m,
                    foot,
                    top: foot,
                    side: PI * diameter_m * height_m,
                    core_foot,
                    core: core_foot + PI * d * core_m,
                    core_share: core_foot * core_m / volume_m3,
                }
            }
            Form::Windrow { length_m, width_m } => {
                let (l, b) = (length_m - 2.0 * shell_m, width_m - 2.0 * shell_m);
                Surfaces {
                    height_m,
                    foot,
                    top: arc_m(width_m, height_m) * length_m,
                    side: 4.0 / 3.0 * width_m * height_m,
                    core_foot: l * b,
                    core: arc_m(b, core_m) * l + 4.0 / 3.0 * b * core_m,
                    core_share: 2.0 / 3.0 * b * core_m * l / volume_m3,
                }
            }
        }
    }
}

/// The surfaces of a heap [m²].
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Surfaces {
    /// How high it stands [m].
    pub height_m: f64,
    /// Its footprint.
    pub foot: f64,
    /// Its top.
    pub top: f64,
    /// Its sides.
    pub side: f64,
    /// The footprint of its core.
    pub core_foot: f64,
    /// Between core and shell.
    pub core: f64,
    /// Share of the whole that is core [-].
    pub core_share: f64,
}

/// Length of a parabola over a base, so high [m].
fn arc_m(base: f64, height: f64) -> f64 {
    let r = (base * base + 16.0 * height * height).sqrt();
    r / 2.0 + base * base / (8.0 * height) * ((4.0 * height + r) / base).ln()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn near(got: f64, want: f64) {
        assert!((got - want).abs() < 1e-6, "{got} is not {want}");
    }

    #[test]
    fn surfaces_are_those_of_their_bodies() {
        let of = |form, volume| Geometry::of(form).surfaces(volume, 0.2);
        let bay = of(Form::Box { length_m: 1.2, width_m: 1.2 }, 1.7);
        near(bay.height_m, 1.180_556);
        near(bay.side, 5.666_667);
        near(bay.core, 3.777_778);
        near(bay.core_foot, 0.64);
        near(bay.core_share, 0.369_150);
        let ring = of(Form::Cylinder { diameter_m: 1.0 }, 1.4);
        near(ring.height_m, 1.782_535);
        near(ring.top, std::f64::consts::FRAC_PI_4);
        near(ring.side, 5.6);
        near(ring.core, 3.265_752);
        near(ring.core_foot, 0.282_743);
        near(ring.core_share, 0.319_608);
        let row = of(Form::Windrow { length_m: 10.0, width_m: 2.6 }, 20.0);
        near(row.height_m, 1.153_846);
        near(row.top, 36.287_555);
        near(row.side, 4.0);
        near(row.core, 31.963_947);
        near(row.core_foot, 21.12);
        near(row.core_share, 0.671_508);
    }

    #[test]
    fn a_small_heap_has_a_thin_shell() {
        let bay = Geometry::of(Form::Box { length_m: 1.2, width_m: 1.2 });
        near(bay.shell_m(1.7), 0.2);
        near(bay.shell_m(0.144), 0.025);
    }
}
