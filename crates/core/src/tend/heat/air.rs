//! How air gets in and out, and how far its oxygen goes.

use super::constants::{
    BREATHES, COLUMNS, CREST, DIFFUSES, GRAVITY, HALF_OXYGEN, LEAVES_HOT, OXYGEN_IN_AIR, PERMEABLE,
    SHEET_OPEN, SHUT_CHIMNEY, VISCOSITY,
};
use super::functions::oxygen_left;
use super::shape::{Cover, Form};
use super::state::{Make, Standing};

/// Flows of air [kg dry air/h]: a chimney through shell and core, and what is exchanged between them.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Air {
    /// Up through shell and core.
    pub(super) chimney: f64,
    /// Between ambient and shell.
    pub(super) ambient_shell: f64,
    /// Between core and shell.
    pub(super) core_shell: f64,
    /// Between ambient and core, by columns.
    pub(super) ambient_core: f64,
}

impl Air {
    /// The flows at temperatures of core, shell and ambient [°C].
    pub(super) fn of(
        make: &Make,
        standing: &Standing,
        [core_c, shell_c, ambient_c]: [f64; 3],
        (pressure_pa, density): (f64, f64),
    ) -> Self {
        let (geometry, surfaces) = (&make.geometry, &standing.surfaces);
        let sheet = if geometry.cover == Cover::Sheet { SHEET_OPEN } else { 1.0 };
        let open = surfaces.top * sheet + surfaces.side * geometry.side_open;
        let [core_air, shell_air] = standing.air;
        let diffuses = |t: f64, air: f64| {
            let warm = (t + 273.15) / 273.15;
            // To the power 1.75, by roots alone.
            let warm = warm * warm.sqrt() * warm.sqrt().sqrt();
            3600.0 * DIFFUSES * warm * (101_325.0 / pressure_pa) * air * air.sqrt()
        };
        let (in_core, in_shell) = (diffuses(core_c, core_air), diffuses(shell_c, shell_air));
        let half_shell = make.shell_m / 2.0;
        let core_depth = standing.zone_m3[0] / surfaces.core;
        Self {
            chimney: Self::chimney(make, standing, [core_c, ambient_c], density) * sheet.sqrt(),
            ambient_shell: density * in_shell * open / half_shell + BREATHES * open,
            core_shell: density * surfaces.core / (half_shell / in_shell + core_depth / in_core),
            ambient_core: match geometry.columns.count {
                0 => 0.0,
                count => {
                    let count = f64::from(count);
                    let reach = (surfaces.foot / (count * std::f64::consts::PI)).sqrt();
                    let far = ((reach / (geometry.columns.diameter_m / 2.0)).ln() - 0.75).max(0.2);
                    COLUMNS * density * in_core * count * surfaces.height_m * std::f64::consts::TAU / far
                }
            },
        }
    }

    fn chimney(make: &Make, standing: &Standing, [core_c, ambient_c]: [f64; 2], density: f64) -> f64 {
        let (geometry, surfaces) = (&make.geometry, &standing.surfaces);
        let difference = core_c - ambient_c;
        let lighter = density * (difference * difference + 0.25).sqrt() / (core_c.max(ambient_c) + 273.15);
        let permeable = |air: f64| PERMEABLE * (air / 0.5) * (air / 0.5) * (air / 0.5);
        let (core, shell) = (permeable(standing.air[0]), permeable(standing.air[1]));
        let both = 2.0 * core * shell / (core + shell);
        let speed = both * GRAVITY * lighter / VISCOSITY;
        let height = surfaces.height_m;
        let crest = if matches!(geometry.form, Form::Windrow { .. }) { CREST } else { 1.0 };
        3600.0
            * density
            * speed
            * surfaces.core_foot
            * (height / (height + geometry.half_width_m()))
            * crest
            * (SHUT_CHIMNEY + (1.0 - SHUT_CHIMNEY) * geometry.side_open)
    }

    /// What core and shell gain of something that the air carries at these levels [per hour].
    pub(super) fn gains(&self, ambient: f64, core: f64, shell: f64) -> [f64; 2] {
        let Self { chimney, ambient_shell, core_shell, ambient_core } = self;
        [
            chimney * (shell - core) + core_shell * (shell - core) + ambient_core * (ambient - core),
            chimney * (ambient - shell)
                + ambient_shell * (ambient - shell)
                + core_shell * (core - shell)
                + (1.0 - LEAVES_HOT) * chimney * (core - shell),
        ]
    }

    /// Oxygen in core and shell over that of the air [-], where decay wants so much as air [kg/h].
    pub(super) fn oxygen(&self, [core, shell]: [f64; 2]) -> [f64; 2] {
        let Self { chimney, ambient_shell, core_shell, ambient_core } = self;
        let back = (1.0 - LEAVES_HOT) * chimney + core_shell;
        let into_shell = chimney * (2.0 - LEAVES_HOT) + ambient_shell + core_shell;
        let into_core = chimney + core_shell + ambient_core;
        let shell_by = |in_core: f64| {
            oxygen_left(into_shell, (chimney + ambient_shell + back * in_core) / into_shell, shell)
        };
        let core_by = |in_shell: f64| {
            oxygen_left(into_core, ((chimney + core_shell) * in_shell + ambient_core) / into_core, core)
        };
        // Each follows from the other; the way from guess to guess is a line that is followed to its end.
        let mut in_core = 1.0;
        let mut last: Option<(f64, f64)> = None;
        for _ in 0..60 {
            let next = core_by(shell_by(in_core));
            let moved = next - in_core;
            if moved.abs() < 1e-12 {
                in_core = next;
                break;
            }
            let ahead = last.and_then(|(before, moved_before)| {
                let slope = (moved - moved_before) / (in_core - before);
                let ahead = in_core - moved / slope;
                (slope.abs() > 1e-12 && ahead > 0.0 && ahead <= 1.0).then_some(ahead)
            });
            last = Some((in_core, moved));
            in_core = ahead.unwrap_or(next);
        }
        [in_core, shell_by(in_core)]
    }
}

/// How well microbes breathe at a level of oxygen over that of the air [-].
pub(super) fn breathing(level: f64) -> f64 {
    level / (level + HALF_OXYGEN)
}

/// What so much oxygen is as air [kg/kg].
pub(super) const fn as_air(oxygen_kg: f64) -> f64 {
    oxygen_kg / OXYGEN_IN_AIR
}
