//! `zymarch-mix/1`: what a recipe comes to.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::origin::{Origin, Sourced};
use zymarch_core::base::quantity::Fraction;
use zymarch_core::mix::window::{self, Basis, Complaint, Edges, Flaw, Standing, Standings, Window};
use zymarch_core::mix::{self as core, Item, MixFigures, judge, water_to_add};
use zymarch_core::plan::mind;
use zymarch_core::stock::field_test::TestKind;

use crate::caution::CautionNote;
use crate::finding::{self, Finding};
use crate::recipe::{Recipe, RecipeFigure, RecipeItem, Resolved};

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-mix/1";

/// What a recipe comes to.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MixAnswer {
    /// `zymarch-mix/1`.
    pub format: &'static str,
    /// The sums and how they stand.
    #[serde(flatten)]
    pub figures: MixSums,
    /// What it was judged by.
    pub windows: Windows,
    /// Further water to the dry edge, the middle and the wet edge of the band.
    pub water_to_add_l: WaterToAdd,
    /// Each item as it was reckoned with.
    pub items: Vec<MixItem>,
    /// What is worth saying, gravest first.
    pub findings: Vec<Finding>,
    /// What the cautions say of the mix and its method, gravest first.
    pub cautions: Vec<CautionNote>,
}

/// The sums of a mix.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MixSums {
    /// Fresh mass, water included, kg.
    pub wet_mass_kg: f64,
    /// Dry matter, kg.
    pub dry_matter_kg: f64,
    /// Carbon that counts, kg.
    pub carbon_kg: f64,
    /// Nitrogen that counts, kg.
    pub nitrogen_kg: f64,
    /// Carbon to nitrogen, by mass.
    pub c_n: f64,
    /// What counts: wood by the share that decays within a heap's life, all else whole.
    pub c_n_counted: f64,
    /// The same with the carbon that microbes reach.
    pub available_c_n: f64,
    /// Water, % of fresh mass.
    pub moisture_pct: f64,
    /// Loose volume, litres.
    pub volume_l: f64,
    /// Volume in the built heap, litres.
    pub heap_volume_l: f64,
    /// Fresh mass per heap volume, kg/L.
    pub density_kg_l: f64,
    /// Air, % of the heap volume.
    pub free_air_space_pct: f64,
    /// What holds a frame once wet, % of the loose volume; none if that is known of nothing in it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub structured_pct: Option<f64>,
    /// The wettest it may be while airy, %; none if that is known of nothing in it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub wet_max_pct: Option<f64>,
    /// Where the figures stand against the windows.
    pub standing: MixStandings,
    /// What is wrong, gravest first; none if all is in its aim.
    pub complaints: Vec<MixComplaint>,
}

/// Where the figures of a mix stand.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
pub struct MixStandings {
    /// Below is green.
    pub c_n: Standing,
    /// Below is dry.
    pub moisture: Standing,
    /// Below is dense.
    pub free_air_space: Standing,
    /// Below packs.
    pub structure: Standing,
}

/// A window that a mix leaves.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
pub struct MixComplaint {
    /// Which.
    pub window: Window,
    /// What that is called.
    pub flaw: Flaw,
    /// Where it stands.
    pub standing: Standing,
    /// Whether it no longer works.
    pub far: bool,
}

/// The windows a mix was judged by: aimed for, and still working. Ranges are low and high.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Windows {
    /// Aim for C:N.
    pub c_n: [f64; 2],
    /// Aim for moisture, %.
    pub moisture_pct: [f64; 2],
    /// Least free air space aimed for, %.
    pub free_air_space_min_pct: f64,
    /// C:N that still works.
    pub workable_c_n: [f64; 2],
    /// Moisture that still works, %; of a mix, up to what it holds.
    pub workable_moisture_pct: [f64; 2],
    /// Least share of the loose volume that should hold a frame, %.
    pub structured_min_pct: f64,
    /// The same that still works.
    pub workable_structured_pct: f64,
    /// Which C:N counts.
    pub basis: Basis,
}

impl From<&window::Windows> for Windows {
    fn from(windows: &window::Windows) -> Self {
        let tidy = |value: f64| (value * 1e9).round() / 1e9;
        let of = |edges: Edges, per: f64| [tidy(edges.low * per), tidy(edges.high.unwrap_or(1.0) * per)];
        Self {
            c_n: of(windows.aim(Window::CN), 1.0),
            moisture_pct: of(windows.aim(Window::Moisture), 100.0),
            free_air_space_min_pct: tidy(windows.free_air_space_min() * 100.0),
            workable_c_n: of(windows.workable(Window::CN), 1.0),
            workable_moisture_pct: of(windows.workable(Window::Moisture), 100.0),
            structured_min_pct: tidy(windows.aim(Window::Structure).low * 100.0),
            workable_structured_pct: tidy(windows.workable(Window::Structure).low * 100.0),
            basis: windows.basis,
        }
    }
}

/// Further litres of water; negative is too wet by that much.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct WaterToAdd {
    /// To the dry edge of the band.
    pub low: f64,
    /// To the middle.
    pub aim: f64,
    /// To the wet edge.
    pub high: f64,
}

/// An item as it was reckoned with.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MixItem {
    /// As the recipe names it.
    pub material: String,
    /// Fresh mass, kg.
    pub kg: f64,
    /// Loose volume, litres.
    pub litres: f64,
    /// Volume in the built heap, litres.
    pub heap_litres: f64,
    /// Each figure and where it came from.
    pub figures: ItemFigures,
}

/// The figures of an item.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ItemFigures {
    /// Water, % of fresh mass.
    pub moisture_pct: SourcedFigure,
    /// Nitrogen, % of dry matter.
    pub n_pct: SourcedFigure,
    /// Carbon to nitrogen, by mass.
    pub c_n: SourcedFigure,
    /// Ash, % of dry matter.
    pub ash_pct: SourcedFigure,
    /// Acid-detergent lignin, % of dry matter.
    pub lignin_pct: SourcedFigure,
    /// Loose density, kg/L.
    pub density_kg_l: SourcedFigure,
    /// Volume in the built heap, share of the loose volume.
    pub settle: SourcedFigure,
    /// Share of its carbon and nitrogen that decays within a heap's life, %.
    pub decays_pct: SourcedFigure,
    /// The wettest it may be while airy, %; none if not known.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub wet_max_pct: Option<SourcedFigure>,
    /// How well it holds air space open once wet, 0 to 3; none if not known.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub structure: Option<SourcedFigure>,
    /// Stays out of the C:N sums.
    pub inert: bool,
}

/// A figure and where it came from.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SourcedFigure {
    /// The number.
    pub value: f64,
    /// Where it came from.
    pub origin: Origin,
    /// Of a measured one: by which test, and when.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub test: Option<FigureTest>,
}

/// The test that a measured figure rests on.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct FigureTest {
    /// Which test.
    pub kind: TestKind,
    /// The day, as 2026-03-10.
    pub on: String,
}

impl MixAnswer {
    /// What a recipe comes to, on the wire.
    #[must_use]
    pub fn new(recipe: &Recipe, resolved: &Resolved<'_>, mix: &MixFigures, notes: &[mind::Note]) -> Self {
        let Resolved { items, windows, .. } = resolved;
        let water = water_to_add(mix.dry_matter_kg, mix.wet_mass_kg, windows.moisture());
        Self {
            format: FORMAT,
            figures: MixSums::new(mix, &windows.standings(mix)),
            windows: Windows {
                workable_moisture_pct: {
                    let edges = windows.workable_in(Window::Moisture, mix);
                    [edges.low, edges.high.unwrap_or(1.0)].map(|edge| (edge * 1e11).round() / 1e9)
                },
                ..windows.into()
            },
            water_to_add_l: water.into(),
            items: recipe
                .items
                .iter()
                .zip(items)
                .map(|(written, item)| MixItem::new(written, item))
                .collect(),
            findings: finding::all(&judge::findings(items, mix, windows)),
            cautions: notes.iter().map(CautionNote::from).collect(),
        }
    }
}

impl From<core::WaterToAdd> for WaterToAdd {
    fn from(water: core::WaterToAdd) -> Self {
        Self { low: water.low, aim: water.aim, high: water.high }
    }
}

impl From<&Standings> for MixStandings {
    fn from(standings: &Standings) -> Self {
        Self {
            c_n: standings.of(Window::CN),
            moisture: standings.of(Window::Moisture),
            free_air_space: standings.of(Window::FreeAirSpace),
            structure: standings.of(Window::Structure),
        }
    }
}

impl From<Complaint> for MixComplaint {
    fn from(of: Complaint) -> Self {
        Self { window: of.window, flaw: of.flaw, standing: of.standing, far: of.is_far }
    }
}

impl MixSums {
    /// The sums on the wire.
    #[must_use]
    pub fn new(mix: &MixFigures, standings: &Standings) -> Self {
        Self {
            wet_mass_kg: mix.wet_mass_kg,
            dry_matter_kg: mix.dry_matter_kg,
            carbon_kg: mix.carbon_kg,
            nitrogen_kg: mix.nitrogen_kg,
            c_n: mix.c_n,
            c_n_counted: mix.c_n_counted,
            available_c_n: mix.available_c_n,
            moisture_pct: mix.moisture * 100.0,
            volume_l: mix.volume_l,
            heap_volume_l: mix.heap_volume_l,
            density_kg_l: mix.density_kg_l,
            free_air_space_pct: mix.free_air_space * 100.0,
            structured_pct: mix.is_structure_known.then_some(mix.structured * 100.0),
            wet_max_pct: mix.wet_max.map(|wettest| wettest * 100.0),
            standing: standings.into(),
            complaints: standings.complaints().into_iter().map(MixComplaint::from).collect(),
        }
    }
}

impl MixItem {
    /// An item on the wire; `written` tells what it is called and which tests its figures rest on.
    #[must_use]
    pub fn new(written: &RecipeItem, item: &Item) -> Self {
        let figures = &item.figures;
        let test = |origin: Origin, figure: RecipeFigure| {
            let test =
                written.tests.iter().find(|test| origin == Origin::Measured && test.figure == figure)?;
            Some(FigureTest { kind: test.test, on: test.on.clone() })
        };
        let share = |sourced: Sourced<Fraction>| SourcedFigure {
            value: sourced.value.percent(),
            origin: sourced.origin,
            test: None,
        };
        let plain = |sourced: Sourced<f64>| SourcedFigure {
            value: sourced.value,
            origin: sourced.origin,
            test: None,
        };
        let tested =
            |figure: SourcedFigure, origin, which| SourcedFigure { test: test(origin, which), ..figure };
        Self {
            material: written.material.clone(),
            kg: item.wet_mass_kg,
            litres: item.volume_l(),
            heap_litres: item.heap_volume_l(),
            figures: ItemFigures {
                moisture_pct: tested(
                    share(figures.moisture),
                    figures.moisture.origin,
                    RecipeFigure::MoisturePct,
                ),
                n_pct: tested(share(figures.nitrogen), figures.nitrogen.origin, RecipeFigure::NPct),
                c_n: tested(plain(figures.c_n), figures.c_n.origin, RecipeFigure::CN),
                ash_pct: share(figures.ash),
                lignin_pct: share(figures.lignin),
                density_kg_l: tested(
                    plain(figures.density_kg_l),
                    figures.density_kg_l.origin,
                    RecipeFigure::DensityKgL,
                ),
                settle: tested(plain(figures.settle), figures.settle.origin, RecipeFigure::Settle),
                decays_pct: SourcedFigure { value: figures.decays.value * 100.0, ..plain(figures.decays) },
                wet_max_pct: figures.wet_max.map(share),
                structure: figures.structure.map(|class| SourcedFigure {
                    value: f64::from(class.value),
                    origin: class.origin,
                    test: None,
                }),
                inert: figures.inert,
            },
        }
    }
}
