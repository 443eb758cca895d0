//! What a mix brings into the model.

use super::constants::START_UP;
use super::shape::{Form, Geometry};
use super::state::{Course, Make, State, Totals, Zone};
use crate::base::fault::{At, Fault, FaultCode};
use crate::stock::material::{Degradability, Kind};

/// So much of a material, as the model knows it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Part {
    /// Fresh [kg].
    pub kg: f64,
    /// Water, share of fresh mass [-].
    pub moisture: f64,
    /// Ash, share of dry matter [-].
    pub ash: f64,
    /// Nitrogen, share of dry matter [-].
    pub nitrogen: f64,
    /// Carbon to nitrogen [-].
    pub c_n: f64,
    /// Lignin, share of dry matter [-].
    pub lignin: f64,
    /// How fast it is eaten.
    pub degradability: Degradability,
    /// Loose density [kg/m³]; zero of what takes no room, as water does.
    pub density_kg_m3: f64,
    /// Room in the heap over loose room [-].
    pub settle: f64,
    /// Share of its nitrogen that is ammoniacal [-].
    pub ammonia_share: f64,
}

/// Lignin where none is known, share of dry matter [-].
pub const USUAL_LIGNIN: f64 = 0.10;

/// Share of the nitrogen of a kind that is ammoniacal [-].
#[must_use]
pub const fn ammonia_share(of: Kind) -> f64 {
    if matches!(of, Kind::Manure | Kind::Liquid) { 0.20 } else { 0.05 }
}

/// Share of what can be eaten that is eaten fast, by class [-]. Fitted.
const fn fast_share(of: Degradability) -> f64 {
    match of {
        Degradability::Fast => 0.68,
        Degradability::Medium => 0.38,
        Degradability::Slow => 0.22,
        Degradability::VerySlow => 0.06,
        Degradability::Inert => 0.0,
    }
}

/// A mix, before it stands anywhere.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Start {
    /// What is in it, without heat.
    pub held: Zone,
    /// Room in the heap before its weight squeezes it [m³].
    pub room_m3: f64,
}

impl Start {
    /// What some parts bring.
    ///
    /// # Source
    /// What can be eaten falls with lignin: Chandler J.A. et al. 1980, Predicting methane fermentation
    /// biodegradability, Biotechnol. Bioeng. Symp. 10.
    #[must_use]
    pub fn of(parts: &[Part]) -> Self {
        parts.iter().fold(Self::default(), |sum, part| {
            let of = Self::of_one(part);
            Self { held: sum.held.plus(&of.held, 1.0), room_m3: sum.room_m3 + of.room_m3 }
        })
    }

    fn of_one(part: &Part) -> Self {
        let dry = part.kg * (1.0 - part.moisture);
        let room_m3 = if part.density_kg_m3 > 0.0 { part.kg * part.settle / part.density_kg_m3 } else { 0.0 };
        let water = part.kg * part.moisture;
        if part.degradability == Degradability::Inert {
            return Self { held: Zone { ash: dry, water, ..Zone::default() }, room_m3 };
        }
        let ash = dry * part.ash;
        let organic = dry - ash;
        let nitrogen = dry * part.nitrogen;
        let lignin = if organic > 0.0 { 100.0 * part.lignin * dry / organic } else { 0.0 };
        let eaten = (0.83 - 0.028 * lignin).clamp(0.10, 0.80);
        let fast = fast_share(part.degradability);
        let held = Zone {
            fast: organic * eaten * fast,
            slow: organic * eaten * (1.0 - fast),
            resistant: organic * (1.0 - eaten),
            ash,
            water,
            carbon: (nitrogen * part.c_n).min(0.60 * organic),
            organic_n: nitrogen * (1.0 - part.ammonia_share),
            ammonia_n: nitrogen * part.ammonia_share,
            heat: 0.0,
        };
        Self { held, room_m3 }
    }

    /// A heap of it, as it was just built at a temperature [°C].
    ///
    /// # Errors
    /// There is nothing to eat in it, no nitrogen, it takes no room, its carbon cannot be; a form that is none.
    pub fn built(&self, geometry: Geometry, at_c: f64) -> Result<(Make, State), Fault> {
        self.checked()?;
        checked(&geometry)?;
        let held = self.held;
        let course = Course { settled: 0.0, access: 1.0, microbes: START_UP[0] };
        let warm = Zone { heat: held.capacity() * at_c, ..held };
        let halves =
            State { core: warm.times(0.5), shell: warm.times(0.5), course, totals: Totals::default() };
        let (dry_density, organic_put_in) = (held.dry() / self.room_m3, held.organic());
        let bare = Make { geometry, dry_density, organic_put_in, shell_m: 0.0 };
        let volume_m3: f64 = bare.zone_m3(&halves).iter().sum();
        let height_m = geometry.height_m(volume_m3);
        if height_m > MOST_HEIGHT_M {
            let fault = At::ROOT.key("geometry").fault(FaultCode::TooLarge);
            return Err(fault.with("most", MOST_HEIGHT_M).with("got", height_m));
        }
        let make = Make { shell_m: geometry.shell_m(volume_m3), ..bare };
        let core_share = geometry.surfaces(volume_m3, make.shell_m).core_share;
        let state = State { core: warm.times(core_share), shell: warm.times(1.0 - core_share), ..halves };
        Ok((make, state))
    }

    fn checked(&self) -> Result<(), Fault> {
        let held = &self.held;
        if held.each().any(|of| !of.is_finite()) {
            return Err(Fault::of("materials", FaultCode::NotANumber));
        }
        if held.organic() <= 0.0 || self.room_m3 <= 0.0 {
            return Err(Fault::of("materials", FaultCode::MixEmpty));
        }
        if held.organic_n + held.ammonia_n <= 0.0 {
            return Err(Fault::of("materials", FaultCode::NoNitrogen));
        }
        let carbon = held.carbon / held.organic();
        if !(0.30..=0.60).contains(&carbon) {
            return Err(Fault::of("materials", FaultCode::OutOfRange)
                .with("low", 0.30)
                .with("high", 0.60)
                .with("got", carbon));
        }
        Ok(())
    }

    /// What of it goes into a heap at a temperature [°C].
    pub(super) fn at(&self, at_c: f64) -> Zone {
        Zone { heat: self.held.capacity() * at_c, ..self.held }
    }
}

/// A heap at most so high [m].
const MOST_HEIGHT_M: f64 = 5.0;

/// Sides of a footprint at least [m].
const LEAST_SIDE_M: f64 = 0.3;

fn checked(geometry: &Geometry) -> Result<(), Fault> {
    let at = At::ROOT.key("geometry");
    let sides: &[(&str, f64)] = match geometry.form {
        Form::Box { length_m, width_m } | Form::Windrow { length_m, width_m } => {
            &[("length_m", length_m), ("width_m", width_m)]
        }
        Form::Cylinder { diameter_m } => &[("diameter_m", diameter_m)],
    };
    for &(name, side) in sides {
        if !(side >= LEAST_SIDE_M && side.is_finite()) {
            return Err(at
                .key(name)
                .fault(FaultCode::TooSmall)
                .with("least", LEAST_SIDE_M)
                .with("got", side));
        }
    }
    Ok(())
}
