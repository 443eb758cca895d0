//! What mends a heap, with amounts from what is left of it now.

use super::case::{Case, Helper};
use super::cause::Cause;
use crate::base::words::closed_list;

closed_list! {
    /// Something to do about a cause.
    ActKind {
        /// Turn it.
        Turn = "turn",
        /// Turn it so that the outside comes in.
        TurnOutsideIn = "turn-outside-in",
        /// Pour so many litres on it, while it is turned.
        Water = "water",
        /// Mix in so much dry brown stuff that it is no longer wet.
        AddBrownForWet = "add-brown-for-wet",
        /// Mix in so much that its nitrogen finds carbon.
        AddBrownForCN = "add-brown-for-c-n",
        /// Cover it with so much dry brown stuff that ammonia is held.
        AddBrownForAmmonia = "add-brown-for-ammonia",
        /// Mix in so much stuff rich in nitrogen.
        AddGreen = "add-green",
        /// Mix in so much coarse stuff that air finds a way.
        AddCoarse = "add-coarse",
        /// Keep rain off.
        CoverRoof = "cover-roof",
        /// Cover it with straw or dry leaves.
        CoverStraw = "cover-straw",
        /// Bury what lies open so deep.
        Bury = "bury",
        /// Catch what runs out and give it back.
        CatchLiquid = "catch-liquid",
        /// Add so much room to it.
        Enlarge = "enlarge",
        /// Pack it round with straw, sacks or leaves.
        Insulate = "insulate",
        /// Chop what is coarse.
        Chop = "chop",
        /// Tread it down a little.
        Tread = "tread",
        /// Wait until a time.
        Wait = "wait",
        /// Wait for milder days.
        WaitMild = "wait-mild",
        /// Keep people and animals away from it.
        KeepAway = "keep-away",
        /// Call the fire service.
        CallFireService = "call-fire-service",
        /// With help and water at hand: spread it thin, and wet it.
        SpreadAndWet = "spread-and-wet",
        /// Give it neither water nor air by halves: both feed it.
        NoMoreHeat = "no-more-heat",
        /// Put no more ash or lime in.
        NoMoreAsh = "no-more-ash",
        /// Build it into a hot heap.
        RebuildHot = "rebuild-hot",
        /// Keep it off beds of seedlings, beans, potatoes and tomatoes.
        KeepOffBeds = "keep-off-beds",
        /// Grow beans in it first.
        BeanTest = "bean-test",
        /// Turn it, water it, and see whether it warms again.
        TurnAndWatch = "turn-and-watch",
        /// Leave it to cure.
        Cure = "cure",
    }
}

/// Something to do, with how much of it.
#[derive(Debug, Clone, PartialEq)]
pub struct Act {
    /// What.
    pub kind: ActKind,
    /// Water, or loose room of what is added [L].
    pub litres: Option<f64>,
    /// Fresh mass of what is added [kg].
    pub kg: Option<f64>,
    /// Of which material.
    pub material: Option<String>,
    /// How deep [cm].
    pub depth_cm: Option<f64>,
    /// Until so many hours after the heap was built.
    pub until_h: Option<f64>,
}

/// Water that a heap is brought to, share of fresh mass [-].
const AIM_MOISTURE: f64 = 0.55;
/// Water that one which is too wet is brought down to [-].
const WET_EDGE: f64 = 0.60;
/// C:N that one with too much nitrogen is brought up to, and one with too little down to [-].
const AIM_C_N: [f64; 2] = [28.0, 30.0];
/// Coarse stuff that opens a packed heap, share of its room [-].
const OPENING: f64 = 0.2;
/// Dry stuff that holds ammonia back, as a layer over it [cm].
const HOLDING_CM: f64 = 10.0;
/// Scraps are buried so deep [cm].
const BURIED_CM: f64 = 15.0;
/// More than this, loose, is not mixed in at once, share of its room [-]: the rest has to dry and drain.
const MOST_ADDED: f64 = 0.5;

/// What mends a cause.
pub(super) fn of(cause: &Cause, case: &Case<'_>) -> Vec<Act> {
    cause.acts.iter().filter_map(|kind| act(*kind, case)).collect()
}

/// An act with its amounts; none if there is nothing of it to do.
fn act(kind: ActKind, case: &Case<'_>) -> Option<Act> {
    let plain = Act { kind, litres: None, kg: None, material: None, depth_cm: None, until_h: None };
    let added = |helper: &Helper, kg: Option<f64>| {
        let most_l = MOST_ADDED * 1000.0 * case.volume_m3();
        let density = helper.figures.density_kg_l.value;
        let kg = kg.filter(|kg| *kg > 0.5)?.min(most_l * density);
        let litres = kg / density;
        Some(Act {
            kg: Some(kg),
            litres: Some(litres),
            material: Some(helper.material.clone()),
            ..plain.clone()
        })
    };
    Some(match kind {
        ActKind::Water => {
            Act { litres: Some(case.water_to_l(AIM_MOISTURE).filter(|litres| *litres >= 1.0)?), ..plain }
        }
        ActKind::SpreadAndWet => {
            Act { litres: case.water_to_l(WET_EDGE).filter(|litres| *litres >= 1.0), ..plain }
        }
        ActKind::AddBrownForWet => added(&case.brown, brown_for_wet_kg(case))?,
        ActKind::AddBrownForCN => added(&case.brown, for_c_n_kg(case, &case.brown, AIM_C_N[0]))?,
        ActKind::AddGreen => added(&case.green, for_c_n_kg(case, &case.green, AIM_C_N[1]))?,
        ActKind::AddBrownForAmmonia => {
            let litres = surface_m2(case) * HOLDING_CM * 10.0;
            let kg = litres * case.brown.figures.density_kg_l.value;
            Act { depth_cm: Some(HOLDING_CM), ..added(&case.brown, Some(kg))? }
        }
        ActKind::AddCoarse => {
            let litres = OPENING * case.volume_m3() * 1000.0;
            added(&case.brown, Some(litres * case.brown.figures.density_kg_l.value))?
        }
        ActKind::CoverRoof => {
            if case.is_covered() {
                return None;
            }
            plain
        }
        ActKind::Bury => Act { depth_cm: Some(BURIED_CM), ..plain },
        ActKind::Enlarge => {
            let short = case.method.volume_l.low() - case.volume_m3() * 1000.0;
            Act { litres: Some(short).filter(|litres| *litres >= 10.0), ..plain }
        }
        ActKind::Wait => {
            let days = if case.air_c() < 5.0 { 5.0 } else { 3.0 };
            Act { until_h: Some(days * 24.0), ..plain }
        }
        _ => plain,
    })
}

/// Its surface to the air, about [m²]: five sides of a cube of its room.
fn surface_m2(case: &Case<'_>) -> f64 {
    case.volume_m3().max(0.0).powf(2.0 / 3.0)
}

/// Dry stuff that brings what is left down to a moisture [kg]: `(w − M·q) / (M − m)`.
fn brown_for_wet_kg(case: &Case<'_>) -> Option<f64> {
    let own = case.brown.figures.moisture.value.get();
    let wet = case.now?.dry_kg.value / (1.0 - case.moisture()?);
    let water = wet - case.now?.dry_kg.value;
    (own < WET_EDGE - 0.05).then(|| (water - WET_EDGE * wet) / (WET_EDGE - own))
}

/// So much of a material that what is left comes to a C:N [kg]: `(R·N − C) / (c − R·n)`.
fn for_c_n_kg(case: &Case<'_>, helper: &Helper, aim: f64) -> Option<f64> {
    let lost = case.hours.last().map_or(0.0, |hour| hour.n_lost_kg);
    let nitrogen = (case.mix.nitrogen_kg - lost).max(0.1 * case.mix.nitrogen_kg);
    // Carbon goes as the model has it; what never counted does not count now.
    let ratio = case.now.map_or(case.mix.c_n, |now| now.c_n.value) / case.mix.c_n * case.mix.c_n_counted;
    let carbon = ratio * nitrogen;
    let dry = helper.figures.moisture.value.rest();
    let n = dry * helper.figures.nitrogen.value.get() * helper.figures.decays.value;
    let c = n * helper.figures.c_n.value;
    let needed = (aim * nitrogen - carbon) / (c - aim * n);
    needed.is_finite().then_some(needed)
}
