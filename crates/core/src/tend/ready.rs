//! Whether compost is ready: signs, trials and time, weighed into a stage; and when it should be.
//!
//! Working while it is warm or in its hot time; cooling while it falls; curing once it is about as warm as the
//! air; ready when it has cured its time, nothing speaks against it and at least two signs or trials speak for
//! it. A stage is what was recorded and seen, and no laboratory's word.
//!
//! # Source
//! Within 5 °C of the air and no re-heating after turning and wetting, germination of at least 80 % of a control,
//! closed bag without bad smell: Rynk 1992 (NRAES-54); TMECC 2002, Test Methods for the Examination of Composting and
//! Compost, maturity.

use super::diagnose::Case;
use super::entry::{Sign, Smell, Tended};
use crate::base::words::closed_list;
use crate::plan::method::Build;

closed_list! {
    /// How far compost is.
    Stage {
        /// Warm, or in its hot time.
        Working = "working",
        /// Falling.
        Cooling = "cooling",
        /// About as warm as the air.
        Curing = "curing",
        /// Ripe, as far as was recorded and seen.
        Ready = "ready",
    }
}

closed_list! {
    /// What tells how far it is.
    Ripeness {
        /// The core lies within 5 °C of the air [°C over it].
        NearAir = "near-air",
        /// It did not warm again after it was turned and watered [°C].
        NoReheat = "no-reheat",
        /// The time of its method is over [days].
        Time = "time",
        /// Dark and crumbly.
        DarkCrumbly = "dark-crumbly",
        /// It smells of earth.
        Earthy = "earthy",
        /// Nothing of what went in can be told.
        NotRecognisable = "not-recognisable",
        /// A closed bag smelled of nothing bad.
        ClosedBag = "closed-bag",
        /// Seeds came up as they do in soil [% of the control].
        Germination = "germination",
    }
}

/// Something that tells how far it is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Told {
    /// What.
    pub of: Ripeness,
    /// Whether it speaks for being ready.
    pub speaks_for: bool,
    /// Its figure, if it has one.
    pub value: Option<f64>,
    /// When, hours after the heap was built.
    pub at_h: Option<f64>,
}

/// How far a heap is.
#[derive(Debug, Clone, PartialEq)]
pub struct Readiness {
    /// The stage.
    pub stage: Stage,
    /// What speaks for and against being ready.
    pub told: Vec<Told>,
    /// What would settle it: what is not known yet, the most telling first.
    pub settle: Vec<Ripeness>,
    /// When it should begin to cure, hours after it was built, at the earliest and the latest; none once it does.
    pub cures_h: Option<[f64; 2]>,
    /// When it should be ready; none once it is.
    pub ready_h: Option<[f64; 2]>,
}

const WEEK_H: f64 = 168.0;
/// The core is about as warm as the air within [K].
const NEAR_C: f64 = 5.0;
/// As many seeds came up, share of the control [-].
pub const GERMINATED: f64 = 0.8;
/// A bag stands closed so long at least [days].
const BAG_DAYS: f64 = 3.0;
/// Signs and trials that must speak for it.
const LEAST_FOR: usize = 2;

/// How far a heap is.
///
/// # Example
/// See the tests of this module, and those of the farm.
#[must_use]
pub fn readiness(case: &Case<'_>) -> Readiness {
    let method = case.method;
    let warmth = case.warmth();
    let newest = case.newest(&warmth);
    let air = case.air_c();
    let until_h = case.hot_until_h();
    let cooled_h = cooled_since(&warmth, air);
    let fed_h = last_fed_h(case);
    let active_h = by_model(case, active_weeks(case).map(|weeks| fed_h + weeks * WEEK_H));
    let cure_h = [method.cure_weeks.low(), method.cure_weeks.high()].map(|weeks| weeks * WEEK_H);
    let told = told(case, newest, air, active_h[0] + cure_h[0]);
    let is_warm = newest.is_some_and(|(_, temp, _)| temp >= 45.0);
    let near = newest.is_some_and(|(_, temp, _)| temp <= air + NEAR_C);
    // Nobody read it: its method's time is all there is to go by.
    let by_time = newest.is_none() && case.age_h >= active_h[1];
    let is_old = case.age_h >= until_h;
    let speak_for = told.iter().filter(|of| of.speaks_for && of.of != Ripeness::Time).count();
    let is_against = told.iter().any(|of| !of.speaks_for);
    // Cold before its time is trouble, and not ripeness.
    let stage = if is_warm || !is_old || (newest.is_none() && !by_time) {
        Stage::Working
    } else if !near && !by_time {
        Stage::Cooling
    } else if !is_against && speak_for >= LEAST_FOR && case.age_h >= active_h[0] + cure_h[0] {
        Stage::Ready
    } else {
        Stage::Curing
    };
    let from = |low: f64| low.max(case.age_h);
    let cures = match stage {
        Stage::Working | Stage::Cooling => {
            Some([from(active_h[0]), from(active_h[1]).max(from(active_h[0]))])
        }
        Stage::Curing | Stage::Ready => None,
    };
    let ready = match (stage, cooled_h) {
        (Stage::Ready, _) => None,
        (Stage::Curing, Some(since)) => {
            let since = since.max(active_h[0].min(case.age_h));
            Some([from(since + cure_h[0]), from(since + cure_h[1])])
        }
        _ => Some([from(active_h[0] + cure_h[0]), from(active_h[1] + cure_h[1])]),
    };
    let settle = settle(&told, stage);
    Readiness { stage, told, settle, cures_h: cures, ready_h: ready }
}

/// Weeks that it is active: as its method has it, longer if it may be turned and was not.
fn active_weeks(case: &Case<'_>) -> [f64; 2] {
    let usual = [case.method.active_weeks.low(), case.method.active_weeks.high()];
    let is_turned = !case.turns().is_empty();
    let late = case.method.first_turn_day.is_some_and(|day| case.age_h > (f64::from(day) + 21.0) * 24.0);
    match case.method.unturned_weeks {
        Some(unturned) if !is_turned && late => [unturned.low(), unturned.high()],
        _ => usual,
    }
}

/// When something fresh was put in last, of a bin that is filled as it comes [h]: its time counts from then.
fn last_fed_h(case: &Case<'_>) -> f64 {
    let is_fed = |what: &Tended<super::heat::Start>| matches!(what, Tended::Add { .. } | Tended::Feed { .. });
    let fed = case.log.iter().rev().find(|(_, what)| is_fed(what)).map_or(0.0, |(at, _)| *at);
    if case.method.build == Build::AsItComes { fed } else { 0.0 }
}

/// The same, narrowed by the model: once it takes up little oxygen by what was logged, it is not active for
/// long; while it takes up much, it is not done tomorrow.
fn by_model(case: &Case<'_>, [low, high]: [f64; 2]) -> [f64; 2] {
    /// It is lively above this [g/kg organic matter and hour].
    const LIVELY: f64 = 1.0;
    /// The model may be so far off, share of the time until it is no longer lively [-].
    const OFF: f64 = 0.5;
    let calm = case.hours.iter().rposition(|hour| hour.uptake >= LIVELY).map(|last| last + 1);
    match calm.filter(|_| !case.hours.is_empty()) {
        Some(calm) if calm < case.hours.len() => {
            let calm_h = f64::from(case.hours[calm].hour);
            [low, high.min((calm_h * (1.0 + OFF)).max(low))]
        }
        Some(_) => [low.max((case.age_h + WEEK_H).min(high)), high],
        None => [low, high],
    }
}

/// Since when it has been about as warm as the air [h].
fn cooled_since(warmth: &[(f64, f64, bool)], air_c: f64) -> Option<f64> {
    let near = warmth.iter().rev().take_while(|(_, temp, _)| *temp <= air_c + NEAR_C);
    near.last().map(|(at, ..)| *at)
}

fn told(case: &Case<'_>, newest: Option<(f64, f64, bool)>, air_c: f64, least_h: f64) -> Vec<Told> {
    let mut all = Vec::new();
    let mut tell = |of, speaks_for, value, at_h| all.push(Told { of, speaks_for, value, at_h });
    let is_over = case.age_h >= least_h;
    tell(Ripeness::Time, is_over, Some(least_h / 24.0), None);
    if let Some((at, temp, _)) = newest {
        tell(Ripeness::NearAir, temp <= air_c + NEAR_C, Some(temp - air_c), Some(at));
    }
    if let Some((at, temp)) = after_turn_and_water(case) {
        tell(Ripeness::NoReheat, temp <= case.air_at_c(at) + 2.0 * NEAR_C, Some(temp), Some(at));
    }
    if let Some(at) = case.seen(Sign::DarkCrumbly) {
        tell(Ripeness::DarkCrumbly, true, None, Some(at));
    }
    match (case.seen(Sign::Recognisable), case.seen(Sign::DarkCrumbly)) {
        (Some(raw), fine) if fine.is_none_or(|fine| fine <= raw) => {
            tell(Ripeness::NotRecognisable, false, None, Some(raw));
        }
        _ => {}
    }
    let smells = case.smells();
    if let Some((at, smell)) = smells.first() {
        let is_bad = smells.iter().any(|(_, smell)| is_bad(*smell));
        if is_bad || *smell == Smell::Earthy {
            tell(Ripeness::Earthy, !is_bad, None, Some(*at));
        }
    }
    let last = |is: fn(&Tended<super::heat::Start>) -> bool| case.log.iter().rev().find(|(_, what)| is(what));
    if let Some((at, Tended::ClosedBag { smell, days })) =
        last(|what| matches!(what, Tended::ClosedBag { .. }))
        && days.is_none_or(|days| days >= BAG_DAYS)
    {
        let is_bad = smell.iter().any(|smell| is_bad(*smell));
        tell(Ripeness::ClosedBag, !is_bad, *days, Some(*at));
    }
    if let Some((at, Tended::Germination { sown, up, control_sown, control_up })) =
        last(|what| matches!(what, Tended::Germination { .. }))
        && let Some(share) = germinated([*sown, *up], [*control_sown, *control_up])
    {
        tell(Ripeness::Germination, share >= GERMINATED, Some(100.0 * share), Some(*at));
    }
    all
}

/// How many seeds came up in compost, as a share of those in soil [-]; none where none came up there, which
/// tells of the seeds and not of the compost.
///
/// # Example
/// 16 of 20 in compost and 19 of 20 in soil: 84 %.
/// ```
/// use zymarch_core::tend::ready::germinated;
/// assert_eq!(germinated([20, 16], [20, 19]).map(|share| (share * 100.0).round()), Some(84.0));
/// assert_eq!(germinated([20, 16], [20, 0]), None);
/// ```
#[must_use]
pub fn germinated([sown, up]: [u32; 2], [control_sown, control_up]: [u32; 2]) -> Option<f64> {
    let share = |sown: u32, up: u32| f64::from(up) / f64::from(sown.max(1));
    (control_up > 0).then(|| share(sown, up) / share(control_sown, control_up))
}

const fn is_bad(smell: Smell) -> bool {
    matches!(smell, Smell::Ammonia | Smell::Sour | Smell::Rotten)
}

/// How warm it was some days after it was last turned and watered, if it was read then.
fn after_turn_and_water(case: &Case<'_>) -> Option<(f64, f64)> {
    const WATCHED_H: f64 = 60.0;
    // In its hot time it warms again, which is as it should be.
    let until_h = case.hot_until_h();
    let turn = case.turns().into_iter().rfind(|turn| *turn >= until_h && case.age_h - turn >= WATCHED_H)?;
    let is_moist =
        case.log.iter().any(|(at, what)| matches!(what, Tended::Water { .. }) && (at - turn).abs() <= 36.0)
            || case.now.is_some_and(|now| now.moisture.value >= 0.45);
    let hottest = case
        .warmth()
        .into_iter()
        .filter(|(at, ..)| *at - turn >= 24.0)
        .max_by(|a, b| a.1.total_cmp(&b.1))
        .map(|(at, temp, _)| (at, temp));
    hottest.filter(|_| is_moist)
}

/// What would settle it, of what is not known yet.
fn settle(told: &[Told], stage: Stage) -> Vec<Ripeness> {
    let wanted: &[Ripeness] = match stage {
        Stage::Working => &[],
        Stage::Cooling => &[Ripeness::NoReheat],
        Stage::Curing => &[
            Ripeness::NearAir,
            Ripeness::NoReheat,
            Ripeness::ClosedBag,
            Ripeness::Germination,
            Ripeness::DarkCrumbly,
        ],
        Stage::Ready => &[Ripeness::Germination],
    };
    let is_known = |of: &Ripeness| told.iter().any(|one| one.of == *of && one.speaks_for);
    wanted.iter().copied().filter(|of| !is_known(of)).collect()
}

#[cfg(test)]
mod tests;
