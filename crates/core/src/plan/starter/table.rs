//! Reading the three tables of starters: a starter, what goes in, what is done.

use serde::Deserialize;
use serde::de::DeserializeOwned;

use super::{Chore, Evidence, Hazard, Ingredient, Per, Purpose, Starter, StarterUnit, TimedStep};
use crate::base::quantity::Band;

#[derive(Deserialize)]
struct StarterRow {
    id: String,
    purpose: String,
    per: String,
    rate_low: f64,
    rate_high: f64,
    unit: String,
    ready_low_days: f64,
    ready_high_days: f64,
    keeps_days: Option<f64>,
    evidence: String,
    cautions: String,
}

#[derive(Deserialize)]
struct IngredientRow {
    starter: String,
    ingredient: String,
    low: f64,
    high: f64,
    unit: String,
    /// The amounts are for so much of the starter.
    per: f64,
    stock: String,
}

#[derive(Deserialize)]
struct StepRow {
    starter: String,
    step: String,
    from: String,
    to: String,
    times_a_day: Option<f64>,
}

/// Reads the tables; an error names the table, the row and the word.
pub(super) fn read() -> Result<Vec<Starter>, String> {
    let mut starters = rows::<StarterRow>("starters", include_str!("../../../data/starters.csv"))?
        .into_iter()
        .map(starter)
        .collect::<Result<Vec<_>, _>>()?;
    for row in
        rows::<IngredientRow>("starter-ingredients", include_str!("../../../data/starter-ingredients.csv"))?
    {
        let each = band(&row.ingredient, row.low / row.per, row.high / row.per)?;
        let unit = word(&row.unit, StarterUnit::parse)?;
        let stock = row.stock.split(';').filter(|word| !word.is_empty()).map(str::to_owned).collect();
        of(&mut starters, &row.starter)?.ingredients.push(Ingredient {
            id: row.ingredient,
            each,
            unit,
            stock,
        });
    }
    for row in rows::<StepRow>("starter-steps", include_str!("../../../data/starter-steps.csv"))? {
        let is_ready = |text: &str| match text {
            "ready" => Ok(true),
            "start" => Ok(false),
            other => Err(format!("{}: `{other}`: start, ready?", row.starter)),
        };
        let step = TimedStep {
            step: word(&row.step, Chore::parse)?,
            from_ready: is_ready(&row.from)?,
            to_ready: is_ready(&row.to)?,
            times_a_day: row.times_a_day,
        };
        of(&mut starters, &row.starter)?.steps.push(step);
    }
    Ok(starters)
}

fn rows<T: DeserializeOwned>(name: &str, text: &str) -> Result<Vec<T>, String> {
    let mut reader = csv::Reader::from_reader(text.as_bytes());
    reader.deserialize().collect::<Result<_, _>>().map_err(|error| format!("{name}: {error}"))
}

fn starter(row: StarterRow) -> Result<Starter, String> {
    let hazards = row.cautions.split(';').map(|text| word(text, Hazard::parse)).collect::<Result<_, _>>()?;
    Ok(Starter {
        purpose: word(&row.purpose, Purpose::parse)?,
        per: word(&row.per, Per::parse)?,
        rate: band(&row.id, row.rate_low, row.rate_high)?,
        unit: word(&row.unit, StarterUnit::parse)?,
        ready_days: band(&row.id, row.ready_low_days, row.ready_high_days)?,
        keeps_days: row.keeps_days,
        evidence: word(&row.evidence, Evidence::parse)?,
        hazards,
        ingredients: Vec::new(),
        steps: Vec::new(),
        id: row.id,
    })
}

fn band(id: &str, low: f64, high: f64) -> Result<Band, String> {
    Band::new(low, high).map_err(|_| format!("{id}: {low}..{high} is no range"))
}

fn word<T>(text: &str, parse: impl Fn(&str) -> Option<T>) -> Result<T, String> {
    parse(text).ok_or_else(|| format!("`{text}`: unknown"))
}

fn of<'a>(starters: &'a mut [Starter], id: &str) -> Result<&'a mut Starter, String> {
    starters.iter_mut().find(|starter| starter.id == id).ok_or_else(|| format!("no starter `{id}`"))
}
