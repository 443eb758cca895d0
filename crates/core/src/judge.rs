//! How a mix stands against the windows it should lie in.
//!
//! Each figure gets a standing, and what is off becomes a finding. Windows have
//! an aim and a wider band that still works; a method or a person may shift the
//! aim, and the working band moves with it. Does not say what to do about it
//! (see [`mend`](crate::mend)).

use crate::finding::{Code, Finding, Severity};
use crate::material::CARBON_PER_ORGANIC;
use crate::mix::{Item, MixFigures, water_to_add};
use crate::quantity::Band;
use crate::stock::Origin;

/// Which C:N the target is set on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Basis {
    /// All carbon.
    #[default]
    Total,
    /// The carbon that microbes reach.
    Available,
}

/// The windows a mix should lie in.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Target {
    /// Aim for C:N [-].
    pub c_n: Band,
    /// Aim for moisture, share of fresh mass [-].
    pub moisture: Band,
    /// Least free air space aimed for [-].
    pub free_air_space_min: f64,
    /// Which C:N counts.
    pub basis: Basis,
}

impl Default for Target {
    /// C:N 25–30, moisture 50–60 %, free air space 35 % or more.
    ///
    /// # Source
    /// Rynk 1992, On-Farm Composting Handbook (NRAES-54), table of reasonable
    /// and preferred conditions; Haug 1993 for free air space.
    fn default() -> Self {
        Self {
            c_n: Band::fixed(25.0, 30.0),
            moisture: Band::fixed(0.50, 0.60),
            free_air_space_min: 0.35,
            basis: Basis::Total,
        }
    }
}

impl Target {
    /// The wider C:N band that still works: 20–40 around the usual aim of 25–30.
    #[must_use]
    pub fn workable_c_n(&self) -> Band {
        Band::new(self.c_n.low() * 20.0 / 25.0, self.c_n.high() * 40.0 / 30.0).unwrap_or(self.c_n)
    }

    /// The wider moisture band that still works: five points either side.
    #[must_use]
    pub fn workable_moisture(&self) -> Band {
        Band::new((self.moisture.low() - 0.05).max(0.0), (self.moisture.high() + 0.05).min(0.99))
            .unwrap_or(self.moisture)
    }

    /// The least free air space that still works: five points below the aim.
    #[must_use]
    pub fn workable_free_air_space(&self) -> f64 {
        (self.free_air_space_min - 0.05).max(0.0)
    }

    /// The carbon of an item that counts under this target [kg].
    #[must_use]
    pub fn carbon_of(&self, item: &Item) -> f64 {
        match self.basis {
            Basis::Total => item.carbon_kg(),
            Basis::Available => item.available_carbon_kg(),
        }
    }

    /// The C:N that counts under this target.
    #[must_use]
    pub fn c_n_of(&self, mix: &MixFigures) -> f64 {
        match self.basis {
            Basis::Total => mix.c_n,
            Basis::Available => mix.available_c_n,
        }
    }
}

/// Where a figure lies against its aim and its working band.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Standing {
    /// Below what works.
    FarBelow,
    /// Works, but below the aim.
    Below,
    /// In the aim.
    Right,
    /// Works, but above the aim.
    Above,
    /// Above what works.
    FarAbove,
}

impl Standing {
    /// The word used in open formats.
    #[must_use]
    pub const fn as_str(self) -> &'static str {
        match self {
            Self::FarBelow => "far-below",
            Self::Below => "below",
            Self::Right => "right",
            Self::Above => "above",
            Self::FarAbove => "far-above",
        }
    }

    fn of(value: f64, aim: Band, workable: Band) -> Self {
        if aim.holds(value) {
            Self::Right
        } else if value < aim.low() {
            if workable.holds(value) { Self::Below } else { Self::FarBelow }
        } else if workable.holds(value) {
            Self::Above
        } else {
            Self::FarAbove
        }
    }

    fn severity(self) -> Severity {
        match self {
            Self::Right => Severity::Info,
            Self::Below | Self::Above => Severity::Warn,
            Self::FarBelow | Self::FarAbove => Severity::Fail,
        }
    }
}

/// The standing of each figure of a mix.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Standings {
    /// Below is green, above is brown.
    pub c_n: Standing,
    /// Below is dry, above is wet.
    pub moisture: Standing,
    /// Below is dense; there is no too airy.
    pub free_air_space: Standing,
}

impl Standings {
    /// Whether everything is in its aim.
    #[must_use]
    pub fn are_right(&self) -> bool {
        [self.c_n, self.moisture, self.free_air_space].into_iter().all(|standing| standing == Standing::Right)
    }
}

/// How each figure of a mix stands.
#[must_use]
pub fn standings(mix: &MixFigures, target: &Target) -> Standings {
    let air = mix.free_air_space;
    Standings {
        c_n: Standing::of(target.c_n_of(mix), target.c_n, target.workable_c_n()),
        moisture: Standing::of(mix.moisture, target.moisture, target.workable_moisture()),
        free_air_space: if air >= target.free_air_space_min - 1e-9 {
            Standing::Right
        } else if air >= target.workable_free_air_space() - 1e-9 {
            Standing::Below
        } else {
            Standing::FarBelow
        },
    }
}

/// What is worth saying about a mix, gravest first.
#[must_use]
pub fn findings(items: &[Item], mix: &MixFigures, target: &Target) -> Vec<Finding> {
    let mut found = windows(mix, target);
    let plain = mix.c_n;
    let apart = (plain - mix.available_c_n) / plain;
    if plain > 0.0 && apart > AVAILABLE_DIFFERS_ABOVE {
        found.push(Finding::new(
            Code::AvailableDiffers,
            Severity::Info,
            &[("c_n", plain), ("available_c_n", mix.available_c_n)],
        ));
    }
    for (index, item) in items.iter().enumerate() {
        found.extend(doubts(item).into_iter().map(|finding| finding.about(index)));
    }
    found.sort_by_key(|finding| std::cmp::Reverse(finding.severity));
    found
}

/// Plain and available C:N further apart than this are both shown, with the reason.
const AVAILABLE_DIFFERS_ABOVE: f64 = 0.15;

fn windows(mix: &MixFigures, target: &Target) -> Vec<Finding> {
    let stand = standings(mix, target);
    let mut found = Vec::new();
    let c_n = target.c_n_of(mix);
    let c_n_params = [("c_n", c_n), ("aim_low", target.c_n.low()), ("aim_high", target.c_n.high())];
    match stand.c_n {
        Standing::Right => {}
        Standing::Below | Standing::FarBelow => {
            found.push(Finding::new(Code::CnLow, stand.c_n.severity(), &c_n_params));
        }
        Standing::Above | Standing::FarAbove => {
            found.push(Finding::new(Code::CnHigh, stand.c_n.severity(), &c_n_params));
        }
    }
    let water = water_to_add(mix.dry_matter_kg, mix.wet_mass_kg, target.moisture);
    let percent = ("moisture_pct", mix.moisture * 100.0);
    match stand.moisture {
        Standing::Right => {}
        Standing::Below | Standing::FarBelow => found.push(Finding::new(
            Code::TooDry,
            stand.moisture.severity(),
            &[percent, ("litres", water.aim)],
        )),
        Standing::Above | Standing::FarAbove => found.push(Finding::new(
            Code::TooWet,
            stand.moisture.severity(),
            &[percent, ("litres", -water.high)],
        )),
    }
    let air = ("free_air_space_pct", mix.free_air_space * 100.0);
    if mix.free_air_space < 0.0 {
        found.push(Finding::new(Code::NoRoomForAir, Severity::Fail, &[air]));
    } else if stand.free_air_space != Standing::Right {
        let aim = ("aim_pct", target.free_air_space_min * 100.0);
        found.push(Finding::new(Code::TooDense, stand.free_air_space.severity(), &[air, aim]));
    }
    found
}

/// What is wrong with one item, or was taken on trust.
fn doubts(item: &Item) -> Vec<Finding> {
    let figures = &item.figures;
    let mut found = Vec::new();
    if figures.must_not_go_in && item.wet_mass_kg > 0.0 {
        found.push(Finding::new(Code::MustNotGoIn, Severity::Fail, &[]));
    }
    if figures.lignin.origin == Origin::Assumed && !figures.inert {
        found.push(Finding::new(Code::LigninUnknown, Severity::Info, &[]));
    }
    if figures.settle.origin == Origin::Assumed {
        found.push(Finding::new(Code::SettleUnknown, Severity::Info, &[]));
    }
    let own = figures.nitrogen.origin != Origin::Book || figures.c_n.origin != Origin::Book;
    let share = figures.nitrogen.value.get() * figures.c_n.value / figures.ash.value.rest().max(1e-9);
    if own && !figures.inert && !CARBON_PER_ORGANIC.holds(share) {
        let params = [("carbon_of_organic_pct", share * 100.0)];
        found.push(Finding::new(Code::CarbonImplausible, Severity::Warn, &params));
    }
    found
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::material::find;
    use crate::mix::sum;
    use crate::quantity::Fraction;
    use crate::stock::{Own, figures};

    fn item(id: &str, wet_mass_kg: f64) -> Item {
        Item { wet_mass_kg, figures: figures(find(id), &Own::default()).expect("in the table") }
    }

    fn codes(items: &[Item], water_l: f64) -> Vec<Code> {
        let mix = sum(items, water_l).expect("has nitrogen");
        findings(items, &mix, &Target::default()).iter().map(|f| f.code).collect()
    }

    #[test]
    fn the_usual_working_bands_follow_from_the_usual_aims() {
        let target = Target::default();
        assert_eq!(target.workable_c_n(), Band::fixed(20.0, 40.0));
        assert!((target.workable_moisture().low() - 0.45).abs() < 1e-9);
        assert!((target.workable_free_air_space() - 0.30).abs() < 1e-9);
    }

    #[test]
    fn standings_change_at_the_edges() {
        let of = |value| Standing::of(value, Band::fixed(25.0, 30.0), Band::fixed(20.0, 40.0));
        assert_eq!(
            [of(19.9), of(20.0), of(25.0), of(30.0), of(30.1), of(40.1)],
            [
                Standing::FarBelow,
                Standing::Below,
                Standing::Right,
                Standing::Right,
                Standing::Above,
                Standing::FarAbove,
            ]
        );
    }

    #[test]
    fn dry_straw_alone_is_too_brown_and_too_dry() {
        let found = codes(&[item("wheat-straw", 50.0)], 0.0);
        assert!(found.contains(&Code::CnHigh) && found.contains(&Code::TooDry), "{found:?}");
    }

    #[test]
    fn scraps_alone_are_too_green_too_wet_and_dense() {
        let found = codes(&[item("vegetable-scraps", 50.0)], 0.0);
        assert!(found.contains(&Code::CnLow) && found.contains(&Code::TooWet), "{found:?}");
    }

    #[test]
    fn what_must_not_go_in_is_refused_first() {
        let found = codes(&[item("barley-straw", 20.0), item("pet-faeces", 0.5)], 20.0);
        assert!(found.contains(&Code::MustNotGoIn), "{found:?}");
        assert!(
            !codes(&[item("barley-straw", 20.0), item("pet-faeces", 0.0)], 20.0).contains(&Code::MustNotGoIn)
        );
    }

    #[test]
    fn flooding_leaves_no_room_for_air() {
        assert!(codes(&[item("cattle-manure-fresh", 50.0)], 50.0).contains(&Code::NoRoomForAir));
    }

    #[test]
    fn wood_chips_show_both_ratios() {
        assert!(
            codes(&[item("wood-chips-hardwood", 50.0), item("layer-hen-manure", 20.0)], 0.0)
                .contains(&Code::AvailableDiffers)
        );
    }

    #[test]
    fn own_figures_that_imply_impossible_carbon_are_doubted() {
        let own = Own { nitrogen: Fraction::new(0.02).ok(), ..Own::default() };
        let straw =
            Item { wet_mass_kg: 10.0, figures: figures(find("wheat-straw"), &own).expect("in the table") };
        let mix = sum(&[straw], 0.0).expect("has nitrogen");
        let doubted = findings(&[straw], &mix, &Target::default())
            .into_iter()
            .find(|f| f.code == Code::CarbonImplausible)
            .expect("2 % N at 92:1 is 1.84 carbon per dry matter");
        assert_eq!(doubted.item, Some(0));
    }
}
