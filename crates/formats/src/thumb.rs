//! `zymarch-thumb/1`: a rule of thumb, and what it truly gives.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::quantity;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::thumb::{By, RulePart, Rung, Thumb, WeighedBy};
use zymarch_core::mix::window::Windows;

use crate::field::{self, Document};
use crate::mix::{MixSums, WaterToAdd};
use crate::recipe::check::Check;
use crate::recipe::{RecipeItem, RecipeTarget};
use crate::working::Line;

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-thumb/1";

/// More parts than this is no rule of thumb.
pub const MOST_PARTS: usize = 12;

/// Largest number in a rule of thumb.
pub const LARGEST_PART: f64 = 1000.0;

/// A rule of thumb, with the materials that stand for its parts.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ThumbRule {
    /// `zymarch-thumb/1`.
    #[schema(example = "zymarch-thumb/1")]
    pub format: String,
    /// What the parts are parts of.
    pub by: By,
    /// The parts, in the order of the rule.
    pub parts: Vec<ThumbPart>,
    /// The windows to judge it by; the usual ones if left out.
    #[serde(default)]
    pub target: RecipeTarget,
}

/// One part of a rule.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ThumbPart {
    /// How many parts.
    #[schema(example = 2.0)]
    pub parts: f64,
    /// What stands for it, as items without an amount; several share it evenly.
    pub of: Vec<RecipeItem>,
}

/// What a rule truly gives.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ThumbAnswer {
    /// `zymarch-thumb/1`.
    pub format: &'static str,
    /// The sums of the rule measured out, of 1,000 L loose or of 1,000 kg, without water added.
    pub mix: MixSums,
    /// Water that would bring that into the moisture band.
    pub water_to_add_l: WaterToAdd,
    /// The materials as they were measured out, in the order of the rule.
    pub items: Vec<ThumbItem>,
    /// From the shortcut of averaging the ratios to the true C:N, each step weighing by one thing more.
    pub ladder: Vec<ThumbRung>,
    /// Of each part, how many parts of it would bring the C:N to the middle of
    /// the window, the others as they are; null where no number would.
    pub mended: Vec<Option<f64>>,
}

/// A material as it was measured out.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ThumbItem {
    /// As the rule names it.
    pub material: String,
    /// Which part it stands for, by its place.
    pub part: usize,
    /// Fresh mass, kg.
    pub kg: f64,
    /// Loose volume, litres.
    pub litres: f64,
    /// Its own C:N.
    pub c_n: f64,
    /// Its own water, % of fresh mass.
    pub moisture_pct: f64,
    /// Nitrogen in it, kg.
    pub nitrogen_kg: f64,
}

/// The average of the ratios under one weighing.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ThumbRung {
    /// What they are weighed by.
    pub by: WeighedBy,
    /// The average.
    pub c_n: f64,
    /// How it comes about, as it would stand on a board.
    pub lines: Vec<Line>,
}

impl Document for ThumbRule {
    const FORMAT: &'static str = FORMAT;
}

/// Reads a rule.
///
/// # Errors
/// [`Faults`] that name the field and, where it is known, the line.
pub fn parse(text: &str) -> Result<ThumbRule, Faults> {
    field::document(text)
}

impl ThumbRule {
    /// The parts as the core takes them, with the windows.
    ///
    /// # Errors
    /// Every fault of the rule.
    pub fn asked(&self, catalogue: &Catalogue) -> Result<(Vec<RulePart>, Windows), Faults> {
        let mut check = Check::new(catalogue);
        field::is_format(&self.format, FORMAT, &mut check.found);
        let list = At::ROOT.key("parts");
        count(self.parts.len(), &list)?;
        let mut parts = Vec::with_capacity(self.parts.len());
        for (place, part) in self.parts.iter().enumerate() {
            let at = list.index(place);
            if let Err(fault) = quantity::above(part.parts, 0.0, LARGEST_PART) {
                check.found.push(at.key("parts").put(fault));
            }
            let of = at.key("of");
            if let Err(fault) = count(part.of.len(), &of) {
                check.found.push(fault);
                continue;
            }
            let mut figures = Vec::with_capacity(part.of.len());
            for (place, item) in part.of.iter().enumerate() {
                let at = of.index(place);
                if item.kg.is_some()
                    || item.litres.is_some()
                    || item.amount.is_some()
                    || item.measure.is_some()
                {
                    check.found.push(at.fault(FaultCode::AmountUnwanted));
                    continue;
                }
                let mut said = item.said();
                said.amount.litres = Some(1.0);
                figures.extend(check.lot(&at, &said, &[]).map(|lot| lot.figures));
            }
            parts.push(RulePart { parts: part.parts, of: figures });
        }
        let windows = check.windows(&self.target, None);
        Faults::or(check.found, || (parts, windows))
    }
}

fn count(got: usize, at: &At<'_>) -> Result<(), Fault> {
    if (1..=MOST_PARTS).contains(&got) {
        return Ok(());
    }
    let fault = at.fault(FaultCode::CountOutside).with("got", got).with("least", 1.0);
    Err(fault.with("most", MOST_PARTS))
}

impl ThumbAnswer {
    /// What a rule gives, on the wire.
    #[must_use]
    pub fn new(rule: &ThumbRule, got: &Thumb, windows: &Windows) -> Self {
        let places =
            rule.parts.iter().enumerate().flat_map(|(place, part)| part.of.iter().map(move |of| (place, of)));
        let items = places.zip(&got.items).map(|((part, of), item)| ThumbItem {
            material: of.material.clone(),
            part,
            kg: item.wet_mass_kg,
            litres: item.volume_l(),
            c_n: item.figures.c_n.value,
            moisture_pct: item.figures.moisture.value.percent(),
            nitrogen_kg: item.nitrogen_kg(),
        });
        let rung = |rung: &Rung| ThumbRung {
            by: rung.by,
            c_n: rung.c_n,
            lines: rung.lines.iter().map(Line::from).collect(),
        };
        Self {
            format: FORMAT,
            mix: MixSums::new(&got.mix, &windows.standings(&got.mix)),
            water_to_add_l: got.water.into(),
            items: items.collect(),
            ladder: got.ladder.iter().map(rung).collect(),
            mended: got.mended.clone(),
        }
    }
}
