//! What is worth saying about a mix, as findings.
//!
//! Where each figure stands is told by its [`window`](super::window); here that
//! becomes findings with the numbers of their sentences, with what is wrong with an
//! item or was taken on trust. What to do about it is in [`mend`](super::mend).

use crate::base::finding::{Code, Finding, Severity};
use crate::mix::window::{Standing, Window, Windows};
use crate::mix::{Item, MixFigures, water_to_add};
use crate::stock::Origin;
use crate::stock::material::CARBON_PER_ORGANIC;

/// What is worth saying about a mix: what leaves its window in the order of gravity, then the rest.
#[must_use]
pub fn findings(items: &[Item], mix: &MixFigures, windows: &Windows) -> Vec<Finding> {
    let mut found: Vec<Finding> = windows
        .standings(mix)
        .complaints()
        .into_iter()
        .map(|complaint| {
            let severity = if complaint.is_far { Severity::Fail } else { Severity::Warn };
            of_window(complaint.window, complaint.standing, severity, mix, windows)
        })
        .collect();
    if mix.locked > LOCKED_ABOVE {
        let params = [("locked_pct", mix.locked * 100.0), ("c_n", mix.c_n), ("c_n_counted", mix.c_n_counted)];
        found.push(Finding::new(Code::AvailableDiffers, Severity::Info, &params));
    }
    if mix.free_air_space > AIRY_ABOVE && mix.heap_volume_l < SMALL_L {
        let params = [("free_air_space_pct", mix.free_air_space * 100.0)];
        found.push(Finding::new(Code::TooAiry, Severity::Info, &params));
    }
    for (index, item) in items.iter().enumerate() {
        found.extend(on_trust(item).into_iter().map(|finding| finding.about(index)));
    }
    found.sort_by_key(|finding| std::cmp::Reverse(finding.severity));
    found
}

/// From this share of carbon in wood and lignin on it is said what that means [-].
const LOCKED_ABOVE: f64 = 0.30;

/// Above this share of air a small heap cools and dries [-]. Our judgement.
const AIRY_ABOVE: f64 = 0.75;

/// A heap below this minds the wind [L].
const SMALL_L: f64 = 1000.0;

/// The finding of a window that is left, with the numbers of its sentence.
fn of_window(
    window: Window,
    standing: Standing,
    severity: Severity,
    mix: &MixFigures,
    windows: &Windows,
) -> Finding {
    let (value, aim) = (windows.value(window, mix), windows.aim(window));
    let code = window.row().side(standing).map_or(Code::CnLow, |side| side.code);
    let water = || water_to_add(mix.dry_matter_kg, mix.wet_mass_kg, windows.moisture());
    match code {
        Code::TooDry => {
            Finding::new(code, severity, &[("moisture_pct", value * 100.0), ("litres", water().aim)])
        }
        Code::TooWet => {
            Finding::new(code, severity, &[("moisture_pct", value * 100.0), ("litres", -water().high)])
        }
        Code::Packs => {
            Finding::new(code, severity, &[("structured_pct", value * 100.0), ("aim_pct", aim.low * 100.0)])
        }
        Code::TooDense if value < 0.0 => {
            Finding::new(Code::NoRoomForAir, Severity::Fail, &[("free_air_space_pct", value * 100.0)])
        }
        Code::TooDense => {
            let params = [("free_air_space_pct", value * 100.0), ("aim_pct", aim.low * 100.0)];
            Finding::new(code, severity, &params)
        }
        _ => {
            let params = [("c_n", value), ("aim_low", aim.low), ("aim_high", aim.high.unwrap_or(aim.low))];
            Finding::new(code, severity, &params)
        }
    }
}

/// What is wrong with one item, or was taken on trust.
fn on_trust(item: &Item) -> Vec<Finding> {
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
    if figures.structure.is_none() || figures.wet_max.is_none() {
        found.push(Finding::new(Code::NatureUnknown, Severity::Info, &[]));
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
    use crate::base::quantity::Fraction;
    use crate::mix::sum;
    use crate::stock::material::find;
    use crate::stock::{Own, figures};

    fn item(id: &str, wet_mass_kg: f64) -> Item {
        Item { wet_mass_kg, figures: figures(find(id), &Own::default()).expect("in the table") }
    }

    fn codes(items: &[Item], water_l: f64) -> Vec<Code> {
        let mix = sum(items, water_l).expect("has nitrogen");
        findings(items, &mix, &Windows::default()).iter().map(|f| f.code).collect()
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
        let doubted = findings(&[straw], &mix, &Windows::default())
            .into_iter()
            .find(|f| f.code == Code::CarbonImplausible)
            .expect("2 % N at 92:1 is 1.84 carbon per dry matter");
        assert_eq!(doubted.item, Some(0));
    }
}
