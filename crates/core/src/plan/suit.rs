//! Which method suits a batch, with the reasons for and against.
//!
//! Nothing is hidden and nothing forced: every method is weighed on the same
//! points, and each point that speaks for or against it is told with its
//! numbers. What a method is stands in [`method`](crate::plan::method); which
//! materials it cannot take in [`mind`](crate::plan::mind).

use crate::base::words::closed_list;
use crate::mix::window::{Standing, Window};
use crate::mix::{Item, MixFigures};
use crate::plan::method::{Build, Heat, Method, ShapeKind, Turned};
use crate::plan::mind;
use crate::stock::caution::Stance;
use crate::stock::material::{Material, Particle};

closed_list! {
    /// What speaks for or against a method.
    SuitCode {
        /// The size suits it.
        SizeFits = "size-fits",
        /// Too little of it: `litres`, `least_l`.
        TooSmall = "too-small",
        /// More than one heap of it: `litres`, `most_l`.
        TooLarge = "too-large",
        /// It is built in the container there is.
        ContainerFits = "container-fits",
        /// It is not.
        OtherContainer = "other-container",
        /// The work a week can be done: `hours`, `most_h`.
        WorkFits = "work-fits",
        /// It cannot.
        TooMuchWork = "too-much-work",
        /// Ready in time: `weeks`, `most_weeks`.
        InTime = "in-time",
        /// Only if all goes fast: `weeks`, `most_weeks`.
        JustInTime = "just-in-time",
        /// Not ready in time.
        TooLate = "too-late",
        /// It gets hot enough for seed and disease, if it is kept and turned well.
        GetsHot = "gets-hot",
        /// Only when it is turned.
        HotIfTurned = "hot-if-turned",
        /// It does not.
        NotHot = "not-hot",
        /// C:N in its window: `c_n`.
        CnFits = "c-n-fits",
        /// C:N outside: `c_n`, `low`, `high`.
        CnOutside = "c-n-outside",
        /// Too dense for a heap that nobody turns: `air_pct`, `least_pct`.
        TooDense = "too-dense",
        /// Too little coarse stuff: `coarse_pct`, `least_pct`.
        CoarseMissing = "coarse-missing",
        /// Too wet for it, whatever holds the water: `moisture_pct`, `most_pct`.
        TooWet = "too-wet",
        /// It would pack: `structured_pct`, `least_pct`.
        Packs = "packs",
        /// Coarse stuff has to be chopped by hand: `hours_low`, `hours_high`.
        ChopByHand = "chop-by-hand",
        /// Cold air takes the heat of a small heap: `air_c`.
        ColdAir = "cold-air",
        /// Sunk into the ground it keeps its water: `rain_mm`.
        KeepsItsWater = "keeps-its-water",
        /// It must be dug, and floods in the rains.
        DugAndFloods = "dug-and-floods",
        /// Its water must be free of chlorine.
        WantsOpenWater = "wants-open-water",
        /// It cannot take some of the materials.
        Refuses = "refuses",
        /// There is too little of what it is made for: `share_pct`, `least_pct`.
        OtherStuff = "other-stuff",
        /// Most of the nitrogen stays: `kept_pct`.
        KeepsNitrogen = "keeps-nitrogen",
        /// Heat kills most seeds, as pots and lawns want.
        FewSeeds = "few-seeds",
        /// Seeds live on and come up in pots and lawns.
        SeedsSurvive = "seeds-survive",
        /// One heap gives much, as a field wants: `litres`.
        MuchOfIt = "much-of-it",
        /// One heap gives little: `litres`.
        LittleOfIt = "little-of-it",
        /// Coarse and slow is good enough for trees.
        CoarseWillDo = "coarse-will-do",
    }
}

closed_list! {
    /// What the compost is for.
    UsedFor {
        /// Beds of food that is cooked or peeled.
        Beds = "beds",
        /// Beds of food that is eaten raw.
        RawFood = "raw-food",
        /// Seedlings and pots.
        Pots = "pots",
        /// Lawns.
        Lawn = "lawn",
        /// Fields, where much of it is spread.
        Field = "field",
        /// Trees and planting pits.
        Trees = "trees",
    }
}

closed_list! {
    /// How a point weighs.
    Weighs {
        /// Speaks for it.
        For = "for",
        /// Speaks against it.
        Against = "against",
        /// Will not do as things stand.
        Stops = "stops",
    }
}

/// One point.
#[derive(Debug, Clone, PartialEq)]
pub struct Point {
    /// What.
    pub code: SuitCode,
    /// How it weighs.
    pub weighs: Weighs,
    /// The numbers of the sentence.
    pub params: Vec<(&'static str, f64)>,
}

/// A method and what speaks for and against it.
#[derive(Debug, Clone, PartialEq)]
pub struct Suit<'m> {
    /// The method.
    pub method: &'m Method,
    /// Gravest first.
    pub points: Vec<Point>,
    /// The points summed: the more, the better it suits.
    pub score: f64,
    /// Places in the mix of what it cannot take.
    pub refused: Vec<usize>,
}

/// What is known of the batch and of the person; what is not is left out.
#[derive(Debug, Clone, Default)]
pub struct Wish<'a> {
    /// What goes in, with its material where that is known.
    pub parts: Vec<(Option<&'a Material>, Item)>,
    /// The sums of the mix.
    pub mix: Option<MixFigures>,
    /// The container there is.
    pub container: Option<ShapeKind>,
    /// Hours a week that somebody has for it [h].
    pub hours_a_week: Option<f64>,
    /// Weeks until the compost is needed.
    pub weeks: Option<f64>,
    /// Mean temperature of the air [°C].
    pub air_c: Option<f64>,
    /// Rain of the month [mm].
    pub rain_mm: Option<f64>,
    /// Seeds, roots or disease must be dealt with.
    pub wants_hot: bool,
    /// What the compost is for.
    pub used_for: Option<UsedFor>,
    /// There is only chlorinated water, and nowhere to let it stand.
    pub only_chlorinated: bool,
}

impl Wish<'_> {
    /// Share of the mix that is so, by loose volume [-]; none of an empty one.
    fn share(&self, is_so: impl Fn(Option<&Material>, &Item) -> bool) -> Option<f64> {
        let litres = |of: &dyn Fn(Option<&Material>, &Item) -> bool| -> f64 {
            self.parts
                .iter()
                .filter(|(material, item)| of(*material, item))
                .map(|(_, item)| item.volume_l())
                .sum()
        };
        let all = litres(&|_, _| true);
        (all > 0.0).then(|| litres(&is_so) / all)
    }
}

/// All methods, the best suited first; of equal ones that with the least work.
///
/// The weights are our judgement: what speaks for a method counts one, what
/// speaks against it two, and what will not do as things stand ten.
#[must_use]
pub fn rank<'m>(wish: &Wish<'_>, methods: impl IntoIterator<Item = &'m Method>) -> Vec<Suit<'m>> {
    let mut ranked: Vec<Suit<'m>> = methods.into_iter().map(|method| weigh(method, wish)).collect();
    let work = |suit: &Suit<'m>| suit.method.weekly_hours(suit.method.volume_l.low());
    ranked.sort_by(|a, b| b.score.total_cmp(&a.score).then(work(a).total_cmp(&work(b))));
    ranked
}

/// Places of what a method cannot take.
fn refused(method: &Method, wish: &Wish<'_>) -> Vec<usize> {
    let parts: Vec<_> = wish.parts.iter().map(|(material, item)| (*material, item)).collect();
    let notes = mind::of_mix(&parts, wish.mix.map_or(0.0, |mix| mix.c_n_counted), Some(method));
    let mut items: Vec<usize> =
        notes.iter().filter(|note| note.stance == Stance::Refused).map(|note| note.item).collect();
    items.sort_unstable();
    items.dedup();
    items
}

fn weigh<'m>(method: &'m Method, wish: &Wish<'_>) -> Suit<'m> {
    let mut scale = Scale { points: Vec::new() };
    let refused = refused(method, wish);
    if !refused.is_empty() {
        scale.put(SuitCode::Refuses, Weighs::Stops, &[]);
    }
    if let Some((_, least)) = &method.wants
        && let Some(share) = wish.share(|material, _| material.is_some_and(|row| method.is_made_for(row)))
        && share < *least
    {
        let params = [("share_pct", share * 100.0), ("least_pct", least * 100.0)];
        scale.put(SuitCode::OtherStuff, Weighs::Stops, &params);
    }
    if let Some(mix) = &wish.mix {
        of_mix(method, mix, wish, &mut scale);
    }
    if let Some(container) = wish.container {
        let fits = method.shapes.contains(&container);
        let code = if fits { SuitCode::ContainerFits } else { SuitCode::OtherContainer };
        scale.put(code, if fits { Weighs::For } else { Weighs::Against }, &[]);
    }
    of_time(method, wish, &mut scale);
    if wish.wants_hot || wish.used_for == Some(UsedFor::RawFood) {
        match method.heat {
            Heat::Hot => scale.put(SuitCode::GetsHot, Weighs::For, &[]),
            // Seldom turned, it gets hot and does not show it throughout.
            Heat::HotIfTurned => scale.put(SuitCode::HotIfTurned, Weighs::Against, &[]),
            _ => scale.put(SuitCode::NotHot, Weighs::Stops, &[]),
        }
    }
    of_use(method, wish, &mut scale);
    if method.wants_open_water {
        let weighs = if wish.only_chlorinated { Weighs::Stops } else { Weighs::Against };
        scale.put(SuitCode::WantsOpenWater, weighs, &[]);
    }
    if method.for_dry_places {
        match wish.rain_mm.filter(|rain| *rain <= DRY_MONTH_MM) {
            Some(rain) => scale.put(SuitCode::KeepsItsWater, Weighs::For, &[("rain_mm", rain)]),
            None => scale.put(SuitCode::DugAndFloods, Weighs::Against, &[]),
        }
    }
    if method.nitrogen_kept.middle() >= KEEPS_NITROGEN {
        scale.put(
            SuitCode::KeepsNitrogen,
            Weighs::For,
            &[("kept_pct", method.nitrogen_kept.middle() * 100.0)],
        );
    }
    scale.points.sort_by_key(|point| std::cmp::Reverse(point.weighs as u8));
    let score = scale.points.iter().map(|point| worth(point.weighs)).sum();
    Suit { method, points: scale.points, score, refused }
}

/// From here on it is worth saying that nitrogen stays [-].
const KEEPS_NITROGEN: f64 = 0.75;

/// A month with no more rain than this is dry [mm].
const DRY_MONTH_MM: f64 = 40.0;

/// Below this a heap of less than two cubic metres is slow to start [°C].
const COLD_C: f64 = 5.0;

/// The size from which cold air matters less [L].
const MINDS_NO_COLD_L: f64 = 2000.0;

const fn worth(weighs: Weighs) -> f64 {
    match weighs {
        Weighs::For => 1.0,
        Weighs::Against => -2.0,
        Weighs::Stops => -10.0,
    }
}

struct Scale {
    points: Vec<Point>,
}

impl Scale {
    fn put(&mut self, code: SuitCode, weighs: Weighs, params: &[(&'static str, f64)]) {
        self.points.push(Point { code, weighs, params: params.to_vec() });
    }
}

fn of_mix(method: &Method, mix: &MixFigures, wish: &Wish<'_>, scale: &mut Scale) {
    let litres = mix.heap_volume_l;
    let is_hot = matches!(method.heat, Heat::Hot | Heat::HotIfTurned | Heat::Warm);
    let most = method.volume_l.high();
    if litres < method.volume_l.low() {
        // Too small a hot heap stays cool; a bin that is fed fills up in time.
        let weighs = match method.build {
            Build::AsItComes => None,
            _ if is_hot => Some(Weighs::Stops),
            _ => Some(Weighs::Against),
        };
        if let Some(weighs) = weighs {
            let params = [("litres", litres), ("least_l", method.volume_l.low())];
            scale.put(SuitCode::TooSmall, weighs, &params);
        }
    } else if litres > most {
        scale.put(SuitCode::TooLarge, Weighs::Against, &[("litres", litres), ("most_l", most)]);
    } else {
        scale.put(SuitCode::SizeFits, Weighs::For, &[("litres", litres)]);
    }
    let (window, windows) = (method.c_n, method.windows());
    let c_n = windows.c_n_of(mix);
    if window.holds(c_n) {
        scale.put(SuitCode::CnFits, Weighs::For, &[("c_n", c_n)]);
    } else if !windows.workable(Window::CN).hold(c_n) {
        let params = [("c_n", c_n), ("low", window.low()), ("high", window.high())];
        scale.put(SuitCode::CnOutside, Weighs::Against, &params);
    }
    // Dryness is mended with water; what is too wet has to lose it first.
    if windows.standing(Window::Moisture, mix) == Standing::FarAbove {
        let most = windows.workable_in(Window::Moisture, mix).high.unwrap_or(1.0);
        let params = [("moisture_pct", mix.moisture * 100.0), ("most_pct", most * 100.0)];
        scale.put(SuitCode::TooWet, Weighs::Against, &params);
    }
    if windows.standing(Window::Structure, mix) == Standing::FarBelow {
        let params =
            [("structured_pct", mix.structured * 100.0), ("least_pct", method.structured_min * 100.0)];
        let weighs = if method.turned == Turned::Never { Weighs::Stops } else { Weighs::Against };
        scale.put(SuitCode::Packs, weighs, &params);
    }
    if method.turned == Turned::Never && mix.free_air_space < method.free_air_space_min {
        let params =
            [("air_pct", mix.free_air_space * 100.0), ("least_pct", method.free_air_space_min * 100.0)];
        scale.put(SuitCode::TooDense, Weighs::Stops, &params);
    }
    let is_coarse = |_: Option<&Material>, item: &Item| item.figures.particle == Some(Particle::Coarse);
    if let (Some(least), Some(coarse)) = (method.coarse_min, wish.share(is_coarse))
        && coarse < least
    {
        let params = [("coarse_pct", coarse * 100.0), ("least_pct", least * 100.0)];
        scale.put(SuitCode::CoarseMissing, Weighs::Stops, &params);
    }
    let coarse_m3 = wish.share(is_coarse).unwrap_or(0.0) * mix.volume_l / 1000.0;
    if method.build == Build::Mixed && method.turned == Turned::Often && coarse_m3 > SOME_COARSE_M3 {
        let (low, high) = CHOPPING_H_M3;
        let params = [("hours_low", low * coarse_m3), ("hours_high", high * coarse_m3)];
        scale.put(SuitCode::ChopByHand, Weighs::Against, &params);
    }
    if let Some(air_c) = wish.air_c
        && air_c < COLD_C
        && method.volume_l.low().min(litres) < MINDS_NO_COLD_L
    {
        scale.put(SuitCode::ColdAir, Weighs::Against, &[("air_c", air_c)]);
    }
    if let Some(most_h) = wish.hours_a_week {
        let hours = method.weekly_hours(litres.clamp(method.volume_l.low(), most));
        let fits = hours <= most_h;
        scale.put(
            if fits { SuitCode::WorkFits } else { SuitCode::TooMuchWork },
            if fits { Weighs::For } else { Weighs::Against },
            &[("hours", hours), ("most_h", most_h)],
        );
    }
}

/// Hours of chopping coarse stuff by hand, for each loose cubic metre [h/m³].
///
/// # Source
/// Labour of smallholder compost making, FAO 1987, Soils Bulletin 56; the range is our judgement.
pub const CHOPPING_H_M3: (f64, f64) = (3.0, 6.0);

/// Less coarse stuff than this is chopped in passing [m³].
const SOME_COARSE_M3: f64 = 0.1;

/// A field takes loads; a heap that gives less than a cubic metre hardly shows on it [L].
const MUCH_L: f64 = 1000.0;

fn of_use(method: &Method, wish: &Wish<'_>, scale: &mut Scale) {
    match wish.used_for {
        Some(UsedFor::Pots | UsedFor::Lawn) => match method.heat {
            Heat::Hot => scale.put(SuitCode::FewSeeds, Weighs::For, &[]),
            _ => scale.put(SuitCode::SeedsSurvive, Weighs::Against, &[]),
        },
        Some(UsedFor::Field) => {
            let litres = method.volume_l.high() * method.volume_left.middle();
            let is_much = litres >= MUCH_L;
            let code = if is_much { SuitCode::MuchOfIt } else { SuitCode::LittleOfIt };
            let weighs = if is_much { Weighs::For } else { Weighs::Against };
            scale.put(code, weighs, &[("litres", litres)]);
        }
        Some(UsedFor::Trees) if method.turned == Turned::Never => {
            scale.put(SuitCode::CoarseWillDo, Weighs::For, &[]);
        }
        _ => {}
    }
}

fn of_time(method: &Method, wish: &Wish<'_>, scale: &mut Scale) {
    let Some(most_weeks) = wish.weeks else { return };
    let fast = method.active_weeks.low() + method.cure_weeks.low();
    let usual = method.active_weeks.high() + method.cure_weeks.high();
    let (code, weighs, weeks) = if usual <= most_weeks {
        (SuitCode::InTime, Weighs::For, usual)
    } else if fast <= most_weeks {
        (SuitCode::JustInTime, Weighs::Against, fast)
    } else {
        (SuitCode::TooLate, Weighs::Stops, fast)
    };
    scale.put(code, weighs, &[("weeks", weeks), ("most_weeks", most_weeks)]);
}

#[cfg(test)]
mod tests;
