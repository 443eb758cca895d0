//! What speaks for or against a cause: felt, smelled, seen, read, or reckoned.

use super::case::{Case, Stuff};
use crate::base::words::closed_list;
use crate::plan::mind::doses;
use crate::stock::material::{Kind, Material, Particle};
use crate::tend::entry::{BeansGrew, Sign, Smell, SqueezeFeel, Tended};

closed_list! {
    /// Something that speaks for or against a cause.
    Clue {
        /// Under three days old, or five in the cold [days].
        Young = "young",
        /// Cooler than its method should have it [°C].
        Cool = "cool",
        /// The same after five days, and never warm [°C].
        CoolFiveDays = "cool-five-days",
        /// Under 45 °C, whatever its age [°C].
        Cooled = "cooled",
        /// It was never warm [°C].
        NotWarm = "not-warm",
        /// It was warm once [°C].
        WasWarm = "was-warm",
        /// It was over 55 °C once [°C].
        WasHot = "was-hot",
        /// It is over 50 °C [°C].
        HotNow = "hot-now",
        /// It is over 68 °C [°C].
        Over68 = "over-68",
        /// It is over 70 °C [°C].
        Over70 = "over-70",
        /// It is over 75 °C [°C].
        Over75 = "over-75",
        /// It was hot, and fell under 45 °C before its time [°C].
        FellEarly = "fell-early",
        /// It was warm, and fell within three days [°C].
        FellFast = "fell-fast",
        /// It did not warm again after it was turned [°C].
        NoReheat = "no-reheat",
        /// Its method's hot time is over [days].
        PastHotTime = "past-hot-time",
        /// Within five degrees of the air [°C].
        NearAir = "near-air",
        /// A handful is dusty.
        SqueezeDusty = "squeeze-dusty",
        /// A handful is damp.
        SqueezeDamp = "squeeze-damp",
        /// A handful is right.
        SqueezeRight = "squeeze-right",
        /// A handful is wet.
        SqueezeWet = "squeeze-wet",
        /// A handful is sodden.
        SqueezeSodden = "squeeze-sodden",
        /// It is cool, and nobody has squeezed a handful.
        NotSqueezed = "not-squeezed",
        /// It stings.
        SmellAmmonia = "smell-ammonia",
        /// It smells sour.
        SmellSour = "smell-sour",
        /// It smells rotten.
        SmellRotten = "smell-rotten",
        /// It smells musty.
        SmellMusty = "smell-musty",
        /// It smells burnt.
        SmellBurnt = "smell-burnt",
        /// It smells of earth.
        SmellEarthy = "smell-earthy",
        /// It steams.
        Steam = "steam",
        /// Dry grey powder.
        AshGrey = "ash-grey",
        /// Flies.
        Flies = "flies",
        /// Rats or mice.
        Rodents = "rodents",
        /// Seeds come up.
        Sprouts = "sprouts",
        /// Liquid runs out.
        Liquid = "liquid",
        /// Scraps lie open.
        ScrapsOnTop = "scraps-on-top",
        /// The outside is raw.
        RawOutside = "raw-outside",
        /// Dry pockets.
        DryPatches = "dry-patches",
        /// It lies in mats.
        Matted = "matted",
        /// Dark and crumbly.
        DarkCrumbly = "dark-crumbly",
        /// What went in can still be told.
        Recognisable = "recognisable",
        /// C:N that counts is near 40 or over [-].
        CNHigh = "c-n-high",
        /// C:N that counts is under 23 [-].
        CNLow = "c-n-low",
        /// C:N that counts is in order [-].
        CNInOrder = "c-n-in-order",
        /// More than 1 % ash or lime, with dung or urine [%].
        AshWithDung = "ash-with-dung",
        /// More than 60 % coarse stalks or wood [%].
        Coarse = "coarse",
        /// Too little that holds a frame once wet [%].
        NoFrame = "no-frame",
        /// Too little room for air [%].
        Dense = "dense",
        /// Very airy [%].
        Airy = "airy",
        /// Smaller than its method works at [m³].
        Small = "small",
        /// So large that it keeps heat in [m³].
        Large = "large",
        /// Higher than its method is built [cm].
        Deep = "deep",
        /// The model has it dry, and nobody felt otherwise [%].
        ModelDry = "model-dry",
        /// The model has it wet, and nobody felt otherwise [%].
        ModelWet = "model-wet",
        /// The model has it moist [%].
        ModelMoist = "model-moist",
        /// The air is under 5 °C by day and night [°C].
        ColdAir = "cold-air",
        /// More than 20 mm of rain fell on it uncovered [mm].
        RainUncovered = "rain-uncovered",
        /// Nothing lies over it.
        Uncovered = "uncovered",
        /// It was not turned since it was hot.
        NotTurnedSinceHot = "not-turned-since-hot",
        /// It was turned less than twice.
        FewTurns = "few-turns",
        /// No heat that kills seeds was recorded.
        NoHotRun = "no-hot-run",
        /// Heat that kills seeds was recorded.
        HotForSeeds = "hot-for-seeds",
        /// Beans grew badly in it.
        BeansStunted = "beans-stunted",
        /// Beans grew well in it.
        BeansWell = "beans-well",
    }
}

/// A clue that was found.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Found {
    /// Which.
    pub clue: Clue,
    /// How plainly it was, 0 to 1.
    pub strength: f64,
    /// Its figure, if it has one, in the unit that the clue's own words name.
    pub value: Option<f64>,
    /// When it was felt, seen or read, hours after the heap was built.
    pub at_h: Option<f64>,
}

/// What is found, as it is gone through.
struct Finding(Vec<Found>);

impl Finding {
    /// A clue, as plainly as a strength above zero says.
    fn add(&mut self, clue: Clue, strength: f64, value: Option<f64>, at_h: Option<f64>) {
        if strength > 0.0 {
            self.0.push(Found { clue, strength: strength.min(1.0), value, at_h });
        }
    }

    fn is(&mut self, clue: Clue, holds: bool, value: Option<f64>, at_h: Option<f64>) {
        self.add(clue, if holds { 1.0 } else { 0.0 }, value, at_h);
    }
}

/// How far a figure lies past an edge, over so much that it is plain.
fn past(value: f64, from: f64, plain: f64) -> f64 {
    ((value - from) / (plain - from)).clamp(0.0, 1.0)
}

/// Every clue that is found of a heap.
pub(super) fn all(case: &Case<'_>) -> Vec<Found> {
    let mut found = Finding(Vec::new());
    warmth(case, &mut found);
    senses(case, &mut found);
    made_of(case, &mut found);
    around(case, &mut found);
    found.0
}

fn warmth(case: &Case<'_>, found: &mut Finding) {
    const WARM_C: f64 = 45.0;
    let all = case.warmth();
    let age_days = case.age_h / 24.0;
    let is_cold = case.air_c() < 5.0;
    found.is(Clue::Young, age_days < if is_cold { 5.0 } else { 3.0 }, Some(age_days), None);
    let hottest = all.iter().copied().max_by(|a, b| a.1.total_cmp(&b.1));
    let peak = hottest.map_or(f64::MIN, |(_, temp, _)| temp);
    let peak_at = hottest.map(|(at, ..)| at);
    found.is(Clue::NotWarm, peak < WARM_C, hottest.map(|of| of.1), peak_at);
    found.is(Clue::WasWarm, peak >= WARM_C, Some(peak), peak_at);
    found.is(Clue::WasHot, peak >= 55.0, Some(peak), peak_at);
    let until_h = case.hot_until_h();
    found.is(Clue::PastHotTime, case.age_h > until_h, Some(until_h / 24.0), None);
    let Some((at, temp, is_read)) = case.newest(&all) else { return };
    let (value, when) = (Some(temp), Some(at));
    found.is(Clue::HotNow, temp >= 50.0, value, when);
    if is_read {
        found.is(Clue::Over68, temp > 68.0, value, when);
        found.is(Clue::Over70, temp > 70.0, value, when);
        found.add(
            Clue::Over75,
            if temp > 75.0 { 0.8 + past(temp, 75.0, 80.0) * 0.2 } else { 0.0 },
            value,
            when,
        );
    }
    found.is(Clue::Cooled, temp < WARM_C, value, when);
    found.is(Clue::NearAir, temp <= case.air_c() + 5.0, value, when);
    let expected = case.expected_c(at)[0];
    let short = if case.is_of_hot_method() { 3.0 } else { 6.0 };
    let is_cool = temp < WARM_C && temp < expected - short && at <= until_h;
    // A day or two after it was turned it may be cool, which says nothing.
    let turned = case.turns().into_iter().rfind(|turn| *turn <= at);
    let is_settling = turned.is_some_and(|turn| at - turn < 36.0);
    if is_cool && !is_settling {
        let strength = past(expected - temp, 0.0, 12.0).max(0.4) * if age_days < 3.0 { 0.5 } else { 1.0 };
        found.add(Clue::Cool, strength, value, when);
        found.is(Clue::NotSqueezed, case.squeeze().is_none() && age_days >= 3.0, None, None);
        found.is(Clue::CoolFiveDays, age_days >= 5.0 && peak < WARM_C, value, when);
    }
    let fell = fell(&all);
    let before_time = |at: f64| at <= until_h && case.expected_c(at)[0] > WARM_C - 10.0;
    if let Some((hot_at, fell_at)) = fell.filter(|_| temp < WARM_C && !is_settling) {
        let is_early = fell_at - hot_at <= 14.0 * 24.0 && before_time(fell_at);
        found.is(Clue::FellEarly, is_early && temp < case.expected_c(at)[0] + 3.0, value, Some(fell_at));
        let turned_since = case.turns().into_iter().any(|turn| turn > hot_at);
        found.is(Clue::NotTurnedSinceHot, !turned_since, None, None);
        let turned_after = case.turns().into_iter().find(|turn| *turn >= fell_at);
        let again = turned_after.is_some_and(|turn| at - turn >= 60.0);
        found.is(Clue::NoReheat, again, value, when);
    }
    let lost = all.iter().rfind(|(_, temp, _)| *temp >= WARM_C).map(|(was_at, ..)| at - was_at);
    let is_fast = temp < WARM_C - 5.0 && age_days < 12.0 && lost.is_some_and(|hours| hours <= 72.0);
    found.is(Clue::FellFast, is_fast && !is_settling, value, when);
}

/// When it was over 55 °C last, and when it was under 45 °C after that.
fn fell(all: &[(f64, f64, bool)]) -> Option<(f64, f64)> {
    let last = all.iter().rposition(|(_, temp, _)| *temp >= 55.0)?;
    let fell = all[last..].iter().find(|(_, temp, _)| *temp < 45.0)?;
    Some((all[last].0, fell.0))
}

fn senses(case: &Case<'_>, found: &mut Finding) {
    if let Some((at, feel)) = case.squeeze() {
        // Worms live in what would drown a hot heap: right is what the method wants.
        let is_wanted = feel.moisture() > 0.6 && feel.moisture() <= case.method.moisture.high();
        let feel = if is_wanted { SqueezeFeel::Right } else { feel };
        let clue = match feel {
            SqueezeFeel::Dusty => Clue::SqueezeDusty,
            SqueezeFeel::Damp => Clue::SqueezeDamp,
            SqueezeFeel::Right => Clue::SqueezeRight,
            SqueezeFeel::Wet => Clue::SqueezeWet,
            SqueezeFeel::Sodden => Clue::SqueezeSodden,
        };
        found.is(clue, true, Some(feel.moisture() * 100.0), Some(at));
    }
    for (at, smell) in case.smells() {
        let clue = match smell {
            Smell::None => continue,
            Smell::Earthy => Clue::SmellEarthy,
            Smell::Ammonia => Clue::SmellAmmonia,
            Smell::Sour => Clue::SmellSour,
            Smell::Rotten => Clue::SmellRotten,
            Smell::Musty => Clue::SmellMusty,
            Smell::Burnt => Clue::SmellBurnt,
        };
        if !found.0.iter().any(|one| one.clue == clue) {
            found.is(clue, true, None, Some(at));
        }
    }
    for (sign, clue) in SIGNS {
        if let Some(at) = case.seen(sign) {
            found.is(clue, true, None, Some(at));
        }
    }
    let beans = case.log.iter().rev().find_map(|(at, what)| match what {
        Tended::BeanTest { grew } => Some((*at, *grew)),
        _ => None,
    });
    if let Some((at, grew)) = beans {
        let clue = if grew == BeansGrew::Well { Clue::BeansWell } else { Clue::BeansStunted };
        found.is(clue, true, None, Some(at));
    }
}

const SIGNS: [(Sign, Clue); 12] = [
    (Sign::Steam, Clue::Steam),
    (Sign::AshGrey, Clue::AshGrey),
    (Sign::Flies, Clue::Flies),
    (Sign::Rodents, Clue::Rodents),
    (Sign::Sprouts, Clue::Sprouts),
    (Sign::Liquid, Clue::Liquid),
    (Sign::ScrapsOnTop, Clue::ScrapsOnTop),
    (Sign::RawOutside, Clue::RawOutside),
    (Sign::DryPatches, Clue::DryPatches),
    (Sign::Matted, Clue::Matted),
    (Sign::DarkCrumbly, Clue::DarkCrumbly),
    (Sign::Recognisable, Clue::Recognisable),
];

/// The rows of small doses that are alkaline: with dung they drive ammonia off.
const ALKALINE: [&str; 2] = ["ash", "lime"];

fn is_alkaline(row: &Material) -> bool {
    doses().iter().any(|dose| ALKALINE.contains(&dose.id) && dose.names(&row.id))
}

/// Urine, by its rows: it stings like dung.
const URINE: [&str; 5] = ["livestock-urine", "human-urine", "dung-slurry", "bioslurry", "urea"];

fn is_dung(stuff: &Stuff<'_>) -> bool {
    stuff.row.is_some_and(|row| row.kind == Kind::Manure || URINE.contains(&row.id.as_str()))
}

fn made_of(case: &Case<'_>, found: &mut Finding) {
    let mix = &case.mix;
    let c_n = Some(mix.c_n_counted);
    found.add(Clue::CNHigh, past(mix.c_n_counted, 37.5, 41.0), c_n, None);
    found.add(Clue::CNLow, past(-mix.c_n_counted, -23.0, -19.0), c_n, None);
    found.is(Clue::CNInOrder, (20.0..=40.0).contains(&mix.c_n_counted), c_n, None);
    let total = |of: &dyn Fn(&Stuff<'_>) -> f64| case.stuff.iter().map(of).sum::<f64>();
    let kg = total(&|stuff| stuff.item.wet_mass_kg).max(f64::MIN_POSITIVE);
    let alkaline = total(&|stuff| match stuff.row {
        Some(row) if is_alkaline(row) => stuff.item.wet_mass_kg,
        _ => 0.0,
    });
    let has_dung = case.stuff.iter().any(is_dung);
    found.is(Clue::AshWithDung, has_dung && alkaline / kg > 0.01, Some(100.0 * alkaline / kg), None);
    let is_coarse = |stuff: &Stuff<'_>| {
        stuff.item.figures.particle == Some(Particle::Coarse)
            && stuff.item.figures.structure.is_some_and(|of| of.value >= 3)
    };
    let share = |of: &dyn Fn(&Stuff<'_>) -> f64| {
        let coarse = total(&|stuff| if is_coarse(stuff) { of(stuff) } else { 0.0 });
        coarse / total(of).max(f64::MIN_POSITIVE)
    };
    let coarse = share(&|stuff| stuff.item.dry_matter_kg()).max(share(&|stuff| stuff.item.heap_volume_l()));
    found.add(Clue::Coarse, past(coarse, 0.55, 0.65), Some(100.0 * coarse), None);
    if mix.is_structure_known {
        let framed = mix.structured;
        found.add(
            Clue::NoFrame,
            past(-framed, -case.method.structured_min, -0.15),
            Some(100.0 * framed),
            None,
        );
    }
    let air = mix.free_air_space;
    found.add(Clue::Dense, past(-air, -0.31, -0.2), Some(100.0 * air), None);
    found.add(Clue::Airy, past(air, 0.68, 0.78), Some(100.0 * air), None);
    let least = case.method.volume_l.low() / 1000.0;
    let short = case.built_m3 / least;
    found.add(
        Clue::Small,
        if short < 0.97 { 0.5 + past(-short, -0.9, -0.5) * 0.5 } else { 0.0 },
        Some(case.built_m3),
        None,
    );
    let room = case.volume_m3();
    found.add(Clue::Large, past(room, 2.0, 5.0), Some(room), None);
    let most = case.method.height_cm.high();
    if let Some(height) = case.built_cm {
        found.add(Clue::Deep, past(height, most, 1.4 * most), Some(height), None);
    }
    if let Some(now) = case.now.filter(|_| case.squeeze().is_none()) {
        let moist = now.moisture.value;
        let told = Some(100.0 * moist);
        found.add(Clue::ModelDry, past(-moist, -0.44, -0.37), told, None);
        let edge = mix.wet_max.unwrap_or(0.65).max(0.65);
        found.add(Clue::ModelWet, past(moist, edge - 0.02, edge + 0.05), told, None);
        found.is(Clue::ModelMoist, (0.46..edge - 0.02).contains(&moist), told, None);
    }
}

fn around(case: &Case<'_>, found: &mut Finding) {
    let air = case.air_c();
    found.add(Clue::ColdAir, if air < 6.0 { past(-air, -6.0, -4.0) } else { 0.0 }, Some(air), None);
    let is_covered = case.is_covered();
    found.is(Clue::Uncovered, !is_covered, None, None);
    let fallen: f64 = case
        .log
        .iter()
        .filter(|(at, _)| case.age_h - at <= 12.0 * 24.0)
        .filter_map(|(_, what)| match what {
            Tended::Rain { mm, .. } => Some(*mm),
            _ => None,
        })
        .sum();
    found.add(
        Clue::RainUncovered,
        if is_covered { 0.0 } else { past(fallen, 15.0, 30.0) },
        Some(fallen),
        None,
    );
    found.is(Clue::FewTurns, case.turns().len() < 2, Some(case.turns().len() as f64), None);
    found.is(Clue::NoHotRun, !case.was_hot_for_seeds, None, None);
    found.is(Clue::HotForSeeds, case.was_hot_for_seeds, None, None);
}
