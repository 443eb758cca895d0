//! Writes `docs/practice.md`: mixes from practice, how each is judged, and what mends it.
//!
//! Each mix of `docs/practice-mixes.csv` is read as a person would say it, judged, and corrected
//! with what is commonly to hand. A test holds the paper against this and each verdict against
//! what practice says of the mix.

use std::fmt::Write as _;

use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::correct::Act;
use zymarch_core::stock::say::{SaidOf, SayMeasure, read};
use zymarch_farm::mix::{correct, sum};
use zymarch_formats::correct::{CorrectChoice, CorrectRequest};
use zymarch_formats::mix::MixAnswer;
use zymarch_formats::recipe::{FORMAT, Recipe, RecipeItem, RecipeMeasure, RecipeTarget};

/// A mix from practice, and what practice says of it.
pub struct Practised {
    /// As a person says it.
    pub said: String,
    /// `works`, or what is wrong with it.
    pub expect: Vec<String>,
    /// Who says so.
    pub source: String,
    /// How it is judged.
    pub judged: MixAnswer,
    /// What mends it: the best for the gravest flaw.
    pub mended: Option<(String, bool)>,
}

const BARROW_L: f64 = 70.0;
const BUCKET_L: f64 = 12.0;

/// Every mix, judged and mended.
///
/// # Panics
/// If a mix cannot be read.
#[must_use]
pub fn practised() -> Vec<Practised> {
    let mut rows = csv::Reader::from_reader(include_str!("../../../docs/practice-mixes.csv").as_bytes());
    rows.records().map(|row| one(&row.expect("is CSV"))).collect()
}

fn one(row: &csv::StringRecord) -> Practised {
    let [said, expect, source] = [0, 1, 2].map(|at| row.get(at).expect("three columns").to_owned());
    let catalogue = Catalogue::book();
    let recipe = recipe_of(&said, &catalogue);
    let judged = sum(&catalogue, &recipe).unwrap_or_else(|faults| panic!("{said}: {faults:?}"));
    let request = CorrectRequest {
        format: zymarch_formats::correct::FORMAT.into(),
        recipe: recipe.clone(),
        with: Vec::new(),
        fetched_in_l: Some(BARROW_L),
        air_c: None,
    };
    let found = correct(&catalogue, &request).expect("is sound").flaws;
    let gravest = judged.figures.complaints.first().map(|complaint| complaint.flaw);
    let choices = found.into_iter().find(|one| Some(one.flaw) == gravest).map(|one| one.choices);
    let best = choices.and_then(|choices| {
        let right = choices.iter().position(|choice| choice.puts_right);
        choices.into_iter().nth(right.unwrap_or(0))
    });
    let mended = best.map(|choice| (in_words(&choice, &recipe), choice.puts_right));
    let expect = expect.split(' ').map(str::to_owned).collect();
    Practised { said, expect, source, judged, mended }
}

fn recipe_of(said: &str, catalogue: &Catalogue) -> Recipe {
    let measures = [("barrow", BARROW_L), ("bucket", BUCKET_L)];
    let named = measures.map(|(id, litres)| SayMeasure { id, litres, names: Vec::new() });
    let got = read(said, &named, &[], &catalogue.materials);
    assert_eq!(got.unknown, [], "{said}");
    let item = |one: zymarch_core::stock::say::SaidItem| {
        let item = RecipeItem { material: one.material, ..RecipeItem::default() };
        match one.of {
            SaidOf::Measures(amount, id) => RecipeItem { amount: Some(amount), measure: Some(id), ..item },
            SaidOf::Kilograms(kg) => RecipeItem { kg: Some(kg), ..item },
            SaidOf::Litres(litres) => RecipeItem { litres: Some(litres), ..item },
            SaidOf::Number(_) => unreachable!("asked back"),
        }
    };
    Recipe {
        format: FORMAT.into(),
        name: None,
        items: got.items.into_iter().map(item).collect(),
        measures: measures.map(|(id, litres)| RecipeMeasure { id: id.into(), litres }).to_vec(),
        water_l: got.water_l,
        target: RecipeTarget::default(),
        method: None,
    }
}

fn in_words(choice: &CorrectChoice, recipe: &Recipe) -> String {
    let name = |id: &str| id.replace('-', " ");
    // What is fetched comes in halves.
    let barrows = |count: Option<f64>| (count.unwrap_or(0.0) * 2.0).round() / 2.0;
    let items: Vec<String> = choice.items.iter().map(|&at| name(&recipe.items[at].material)).collect();
    let what = match choice.act {
        Act::Add | Act::AddTwo => {
            let first = choice.material.as_deref().map(name).unwrap_or_default();
            let and = choice.and.as_ref().map_or(String::new(), |part| {
                format!(" and {} barrows of {}", barrows(part.count), name(&part.material))
            });
            format!("{} barrows of {first}{and}", barrows(choice.count))
        }
        Act::Water => format!("{:.0} L of water", choice.litres),
        Act::LessWater => format!("{:.0} L less water", choice.litres),
        Act::Wilt => format!("wilt the {}: {:.0} kg of water to lose", items.join(" and "), choice.kg),
        Act::Drain => format!("drain the {}: {:.0} kg of water", items.join(" and "), choice.kg),
        Act::Soak => format!("soak the {} in {:.0} L", items.join(" and "), choice.kg),
        Act::Chop => format!("chop the {}", items.join(" and ")),
    };
    let days = choice.days.map_or(String::new(), |[low, high]| format!(", {low:.1} to {high:.1} days"));
    let then = if choice.then_water_l > 0.0 {
        format!(", then {:.0} L of water", choice.then_water_l)
    } else {
        String::new()
    };
    what + &days + &then
}

/// The paper.
#[must_use]
pub fn paper() -> String {
    let mut text = String::from(
        "# Mixes from practice\n\n\
         How mixes that people make are judged, and the first thing that would mend each, with what is commonly\n\
         to hand. A barrow holds 70 L, a bucket 12 L; the figures are the reference table's. Written by\n\
         `make practice` from `practice-mixes.csv`; a test holds both against each other, and each verdict against\n\
         what practice says of the mix.\n\n\
         C:N is that which counts: wood by the share that decays within a heap's life. *Holds* is the wettest the\n\
         mix may be while airy, *frame* the share of the loose volume that holds it open.\n\n\
         | Mix | Practice says | C:N | Water, % | Holds, % | Air, % | Frame, % | Judged | First mended by |\n\
         |---|---|---|---|---|---|---|---|---|\n",
    );
    for one in practised() {
        let sums = &one.judged.figures;
        let judged: Vec<String> = sums
            .complaints
            .iter()
            .map(|complaint| {
                format!("{}{}", if complaint.far { "" } else { "a little " }, complaint.flaw.as_str())
            })
            .collect();
        let share = |value: Option<f64>| value.map_or(String::from("?"), |value| format!("{value:.0}"));
        let mended = one.mended.as_ref().map_or(String::from("—"), |(what, is_right)| {
            format!("{what}{}", if *is_right { "; puts all right" } else { "" })
        });
        writeln!(
            text,
            "| {} | {} ({}) | {:.0} | {:.0} | {} | {:.0} | {} | {} | {mended} |",
            one.said,
            one.expect.join(", "),
            one.source,
            sums.c_n_counted,
            sums.moisture_pct,
            share(sums.wet_max_pct),
            sums.free_air_space_pct,
            share(sums.structured_pct),
            if judged.is_empty() { String::from("right") } else { judged.join(", ") },
        )
        .expect("memory takes every row");
    }
    text.push_str(SOURCES);
    text
}

const SOURCES: &str = "\n## Sources\n\n\
    - Allison F. E. 1965, Decomposition of wood and bark sawdusts in soil, nitrogen requirements and effects on plants, USDA Technical Bulletin 1332.\n\
    - FAO 1987, Soil management: compost production and use in tropical and subtropical environments, Soils Bulletin 56.\n\
    - Gotaas H. B. 1956, Composting: sanitary disposal and reclamation of organic wastes, WHO Monograph 31.\n\
    - Haug R. T. 1993, The Practical Handbook of Compost Engineering.\n\
    - Lekasi J. K. et al. 2001, Managing manure to sustain smallholder livelihoods in the East African highlands.\n\
    - Palm C. A. et al. 2001, Organic inputs for soil fertility management in tropical agroecosystems, Agriculture, Ecosystems & Environment 83.\n\
    - Rynk R. (ed.) 1992, On-Farm Composting Handbook, NRAES-54.\n\n\
    What practice says of a mix is ours to have read out of them: that such mixes are made and heat, or that they\n\
    stink, pack or stay cold. None of these books tables this very mix.\n";

#[allow(dead_code)]
fn main() {
    print!("{}", paper());
}
