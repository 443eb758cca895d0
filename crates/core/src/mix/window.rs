//! The windows that a mix should lie in, as data.
//!
//! A window is a quotient of two sums over the mix, held within an aim and, more
//! widely, within what still works. Because both sums are linear in the amounts, the
//! same row judges a mix, measures how far it is off, solves for the amount that
//! mends it, and becomes a condition of the programme that formulates one. A new
//! window is a new row of [`ROWS`].

use crate::base::finding::Code;
use crate::base::quantity::Band;
use crate::base::words::closed_list;
use crate::mix::{MixFigures, Totals};

closed_list! {
    /// A figure of the mix that has a window.
    Window {
        /// Carbon to nitrogen, by mass.
        CN = "c_n",
        /// Water, share of fresh mass.
        Moisture = "moisture",
        /// Air, share of the heap volume.
        FreeAirSpace = "free_air_space",
        /// What holds a frame once wet, share of the loose volume.
        Structure = "structure",
    }
}

closed_list! {
    /// Which C:N counts.
    Basis {
        /// What decays within a heap's life: of wood a share, all else whole.
        Counted = "counted",
        /// All carbon.
        Total = "total",
        /// The carbon that microbes reach.
        Available = "available",
    }
}

closed_list! {
    /// Where a figure lies against its aim and what still works.
    Standing {
        /// Below what works.
        FarBelow = "far-below",
        /// Works, but below the aim.
        Below = "below",
        /// In the aim.
        Right = "right",
        /// Works, but above the aim.
        Above = "above",
        /// Above what works.
        FarAbove = "far-above",
    }
}

closed_list! {
    /// What is wrong with a mix: a window left on one side.
    Flaw {
        /// C:N below its aim.
        TooGreen = "too-green",
        /// C:N above it.
        TooBrown = "too-brown",
        /// Moisture below its aim.
        TooDry = "too-dry",
        /// Moisture above it.
        TooWet = "too-wet",
        /// Free air space below its least.
        TooDense = "too-dense",
        /// Too little that holds a frame: it collapses.
        Packs = "packs",
    }
}

/// How far beyond the aim a figure still works.
#[derive(Debug, Clone, Copy, PartialEq)]
enum Tolerance {
    /// The lower edge times the first, the higher times the second; measured in logarithms.
    Times(f64, f64),
    /// So much below and above, as a share.
    Points(f64, f64),
}

/// One side of a window, and what it is called in each part of the work.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Side {
    /// What is wrong beyond it.
    pub flaw: Flaw,
    /// The finding that says so.
    pub code: Code,
    /// How grave it is beyond what works, and beyond the aim alone: the least is said first.
    pub gravity: [u8; 2],
    /// Whether it counts when steps are compared: dryness does not, since water follows.
    pub counts: bool,
}

/// A window's row.
#[derive(Debug)]
pub struct Row {
    /// Which.
    pub window: Window,
    over: fn(&Totals, Basis) -> f64,
    under: fn(&Totals, Basis) -> f64,
    of_mix: fn(&MixFigures, Basis) -> f64,
    tolerance: Tolerance,
    /// What of a mix lets it lie further above, where its aim is not set narrower than usual.
    wider: Option<fn(&MixFigures) -> Option<f64>>,
    /// Lowest and highest that still work, whatever the aim.
    limits: (f64, f64),
    /// The lower side.
    pub below: Side,
    /// The higher side, if there is one.
    pub above: Option<Side>,
    /// What a miss by all of its own edge costs the nearest mix, per unit of `under`: a C:N or a
    /// moisture off by its own edge counts like a quarter of the volume missing as air. Our judgement.
    pub price: f64,
    /// Whether `price` is for a miss by the edge itself, or for a whole unit of `under`.
    pub price_by_edge: bool,
}

impl PartialEq for Row {
    fn eq(&self, other: &Self) -> bool {
        self.window == other.window
    }
}

const fn side(flaw: Flaw, code: Code, gravity: [u8; 2]) -> Side {
    Side { flaw, code, gravity, counts: true }
}

/// Every window.
///
/// # Source
/// Aims: Rynk 1992, On-Farm Composting Handbook (NRAES-54), table of reasonable and
/// preferred conditions; Haug 1993, The Practical Handbook of Compost Engineering, for
/// free air space and for the wettest that a material may be while airy. The share that
/// must hold a frame, a third, is our judgement. Gravity is our judgement: far too green or brown first, since what
/// mends it brings water and volume; then what shuts out the air.
pub static ROWS: [Row; 4] = [
    Row {
        window: Window::CN,
        over: |of, basis| match basis {
            Basis::Counted => of.counted_carbon_kg,
            Basis::Total => of.carbon_kg,
            Basis::Available => of.available_carbon_kg,
        },
        under: |of, basis| match basis {
            Basis::Counted => of.counted_nitrogen_kg,
            Basis::Total | Basis::Available => of.nitrogen_kg,
        },
        of_mix: |mix, basis| match basis {
            Basis::Counted => mix.c_n_counted,
            Basis::Total => mix.c_n,
            Basis::Available => mix.available_c_n,
        },
        tolerance: Tolerance::Times(20.0 / 25.0, 40.0 / 30.0),
        wider: None,
        limits: (0.0, f64::INFINITY),
        below: side(Flaw::TooGreen, Code::CnLow, [10, 50]),
        above: Some(side(Flaw::TooBrown, Code::CnHigh, [10, 51])),
        price: 1.0,
        price_by_edge: true,
    },
    Row {
        window: Window::Moisture,
        over: |of, _| of.water_kg,
        under: |of, _| of.mass_kg(),
        of_mix: |mix, _| mix.moisture,
        tolerance: Tolerance::Points(0.10, 0.05),
        wider: Some(|mix| mix.wet_max),
        limits: (0.0, 0.99),
        below: Side { counts: false, ..side(Flaw::TooDry, Code::TooDry, [40, 61]) },
        above: Some(side(Flaw::TooWet, Code::TooWet, [20, 60])),
        price: 2.0,
        price_by_edge: false,
    },
    Row {
        window: Window::FreeAirSpace,
        over: |of, _| of.heap_volume_l - of.water_kg - of.solids_l(),
        under: |of, _| of.heap_volume_l,
        of_mix: |mix, _| mix.free_air_space,
        tolerance: Tolerance::Points(0.05, 0.0),
        wider: None,
        limits: (0.0, 1.0),
        below: side(Flaw::TooDense, Code::TooDense, [30, 31]),
        above: None,
        price: 4.0,
        price_by_edge: false,
    },
    Row {
        window: Window::Structure,
        over: |of, _| of.structured_l,
        under: |of, _| of.forked_l,
        of_mix: |mix, _| mix.structured,
        tolerance: Tolerance::Points(STRUCTURED_MIN - STRUCTURED_LEAST, 0.0),
        wider: None,
        limits: (0.0, 1.0),
        below: side(Flaw::Packs, Code::Packs, [25, 32]),
        above: None,
        price: 1.0,
        price_by_edge: false,
    },
];

/// Share of the loose volume that should hold a frame [-].
const STRUCTURED_MIN: f64 = 1.0 / 3.0;

/// Below this it packs for sure [-].
const STRUCTURED_LEAST: f64 = 1.0 / 5.0;

/// The usual wet edge of the aim. Who sets it lower wants it drier, whatever the mix could hold.
const USUAL_WET: f64 = 0.60;

impl Window {
    /// Its row.
    #[must_use]
    pub fn row(self) -> &'static Row {
        &ROWS[self as usize]
    }
}

impl Row {
    /// The sum above the line, of a mix or of a kilogram of a lot.
    #[must_use]
    pub fn over(&self, of: &Totals, basis: Basis) -> f64 {
        (self.over)(of, basis)
    }

    /// The sum below the line.
    #[must_use]
    pub fn under(&self, of: &Totals, basis: Basis) -> f64 {
        (self.under)(of, basis)
    }

    /// How much a mix, or a kilogram, adds to the condition that the figure is at
    /// least an edge: `edge · under − over`, at or below zero where it is met.
    #[must_use]
    pub fn short_of(&self, edge: f64, of: &Totals, basis: Basis) -> f64 {
        edge * self.under(of, basis) - self.over(of, basis)
    }

    /// The same for an edge that the figure is at most: `over − edge · under`.
    #[must_use]
    pub fn beyond(&self, edge: f64, of: &Totals, basis: Basis) -> f64 {
        -self.short_of(edge, of, basis)
    }

    /// How far a figure lies from an edge, one being the way from the edge to where it stops working.
    fn margins(&self, from: f64, to: f64, is_above: bool) -> f64 {
        match self.tolerance {
            Tolerance::Times(low, high) => {
                let unit = if is_above { high.ln() } else { (1.0 / low).ln() };
                (to / from).max(1e-300).ln().abs() / unit
            }
            Tolerance::Points(low, high) => (to - from).abs() / if is_above { high } else { low },
        }
    }
}

/// A window's two edges; the higher is open where a figure cannot be too high.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Edges {
    /// The lower.
    pub low: f64,
    /// The higher, if there is one.
    pub high: Option<f64>,
}

impl Edges {
    /// Whether a figure lies within, edges included, allowing for the last digits that arithmetic loses.
    #[must_use]
    pub fn hold(self, value: f64) -> bool {
        value >= self.low - HAIR && self.high.is_none_or(|high| value <= high + HAIR)
    }

    /// Half-way between the edges; the lower where there is no other.
    #[must_use]
    pub fn middle(self) -> f64 {
        self.high.map_or(self.low, |high| f64::midpoint(self.low, high))
    }

    /// Both edges as a band.
    #[must_use]
    pub fn band(self) -> Option<Band> {
        self.high.and_then(|high| Band::new(self.low, high).ok())
    }
}

/// Digits that arithmetic may lose.
const HAIR: f64 = 1e-9;

/// A change of a margin that nobody would notice.
const SOME: f64 = 0.02;

impl From<Band> for Edges {
    fn from(band: Band) -> Self {
        Self { low: band.low(), high: Some(band.high()) }
    }
}

/// The windows a mix should lie in: of each the aim, from which what still works follows.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Windows {
    aims: [Edges; ROWS.len()],
    /// Which C:N counts.
    pub basis: Basis,
}

impl Default for Windows {
    /// C:N 25–30, moisture 50–60 %, free air space 35 % or more.
    ///
    /// # Source
    /// As [`ROWS`].
    fn default() -> Self {
        Self::new(Band::fixed(25.0, 30.0), Band::fixed(0.50, 0.60), 0.35)
    }
}

impl Windows {
    /// Windows with these aims, on what counts; a third must hold a frame.
    #[must_use]
    pub fn new(c_n: Band, moisture: Band, free_air_space_min: f64) -> Self {
        let air = Edges { low: free_air_space_min, high: None };
        let structure = Edges { low: STRUCTURED_MIN, high: None };
        Self { aims: [c_n.into(), moisture.into(), air, structure], basis: Basis::Counted }
    }

    /// The same with another least share that holds a frame [-].
    #[must_use]
    pub fn structured(self, least: f64) -> Self {
        let aim = Edges { low: least, high: None };
        self.each(|window, edges| if window == Window::Structure { aim } else { edges })
    }

    /// The same on another C:N.
    #[must_use]
    pub const fn on(self, basis: Basis) -> Self {
        Self { basis, ..self }
    }

    /// The aim of a window.
    #[must_use]
    pub const fn aim(&self, window: Window) -> Edges {
        self.aims[window as usize]
    }

    /// The aim for C:N [-].
    #[must_use]
    pub fn c_n(&self) -> Band {
        self.both(Window::CN)
    }

    /// The aim for moisture, share of fresh mass [-].
    #[must_use]
    pub fn moisture(&self) -> Band {
        self.both(Window::Moisture)
    }

    /// The least free air space aimed for [-].
    #[must_use]
    pub const fn free_air_space_min(&self) -> f64 {
        self.aim(Window::FreeAirSpace).low
    }

    fn both(&self, window: Window) -> Band {
        self.aim(window).band().expect("made of a band")
    }

    /// What still works of a window, whatever the mix is made of: 20–40 around the usual C:N of
    /// 25–30, moisture 40–65 % around 50–60 %. See [`workable_in`](Self::workable_in).
    #[must_use]
    pub fn workable(&self, window: Window) -> Edges {
        let (row, aim) = (window.row(), self.aim(window));
        let (least, most) = row.limits;
        let (low, high) = match row.tolerance {
            Tolerance::Times(low, high) => (aim.low * low, aim.high.map(|edge| edge * high)),
            Tolerance::Points(below, above) => (aim.low - below, aim.high.map(|edge| edge + above)),
        };
        Edges { low: low.max(least), high: high.map(|high| high.min(most)) }
    }

    /// What still works of a window in a mix: straw stays airy wetter than dung does.
    #[must_use]
    pub fn workable_in(&self, window: Window, mix: &MixFigures) -> Edges {
        let edges = self.workable(window);
        let wider = window.row().wider.and_then(|of| of(mix));
        match (wider, self.aim(window).high, edges.high) {
            (Some(wider), Some(aim), Some(high)) if aim >= USUAL_WET - HAIR => {
                Edges { high: Some(high.max(wider)), ..edges }
            }
            _ => edges,
        }
    }

    /// Windows whose aims are what still works of these.
    #[must_use]
    pub fn widened(&self) -> Self {
        self.each(|window, _| self.workable(window))
    }

    /// The same with another aim for each window.
    #[must_use]
    pub fn each(&self, of: impl Fn(Window, Edges) -> Edges) -> Self {
        let mut aims = self.aims;
        for &window in Window::ALL {
            aims[window as usize] = of(window, self.aim(window));
        }
        Self { aims, ..*self }
    }

    /// The figure of a mix that a window is about.
    #[must_use]
    pub fn value(&self, window: Window, mix: &MixFigures) -> f64 {
        (window.row().of_mix)(mix, self.basis)
    }

    /// The C:N that counts under these windows.
    #[must_use]
    pub fn c_n_of(&self, mix: &MixFigures) -> f64 {
        self.value(Window::CN, mix)
    }

    /// Where a mix stands in one window.
    #[must_use]
    pub fn standing(&self, window: Window, mix: &MixFigures) -> Standing {
        let (value, aim) = (self.value(window, mix), self.aim(window));
        let works = self.workable_in(window, mix).hold(value);
        if aim.hold(value) {
            Standing::Right
        } else if value < aim.low {
            if works { Standing::Below } else { Standing::FarBelow }
        } else if works {
            Standing::Above
        } else {
            Standing::FarAbove
        }
    }

    /// Where a mix stands in every window.
    #[must_use]
    pub fn standings(&self, mix: &MixFigures) -> Standings {
        Standings(ROWS.each_ref().map(|row| self.standing(row.window, mix)))
    }

    /// Whether every figure lies in its aim.
    #[must_use]
    pub fn are_met(&self, mix: &MixFigures) -> bool {
        Window::ALL.iter().all(|&window| self.aim(window).hold(self.value(window, mix)))
    }

    /// Whether every figure lies in what still works.
    #[must_use]
    pub fn work(&self, mix: &MixFigures) -> bool {
        Window::ALL.iter().all(|&window| self.workable_in(window, mix).hold(self.value(window, mix)))
    }

    /// How far a figure lies outside its aim, one being where it stops working.
    fn margins(&self, row: &Row, mix: &MixFigures) -> f64 {
        let (value, aim) = (self.value(row.window, mix), self.aim(row.window));
        if value < aim.low {
            return row.margins(aim.low, value, false);
        }
        let Some(high) = aim.high.filter(|high| value > *high) else { return 0.0 };
        match (row.tolerance, self.workable_in(row.window, mix).high) {
            (Tolerance::Points(..), Some(edge)) => (value - high) / (edge - high),
            _ => row.margins(high, value, true),
        }
    }

    /// Whether a change leaves a figure outside what works, and further out than it was.
    #[must_use]
    pub fn pushes_out(&self, before: &MixFigures, after: &MixFigures) -> bool {
        ROWS.iter().any(|row| {
            let now = self.margins(row, after);
            now > 1.0 + SOME && now > self.margins(row, before) + SOME
        })
    }

    /// How far a mix lies outside of its aims, in margins between aim and what still works.
    /// Where `with_dryness` is not set, what water would mend is left out.
    #[must_use]
    pub fn distance(&self, mix: &MixFigures, with_dryness: bool) -> f64 {
        let off = |row: &Row| {
            let is_below = self.value(row.window, mix) < self.aim(row.window).low;
            if is_below && !row.below.counts && !with_dryness { 0.0 } else { self.margins(row, mix) }
        };
        let total: f64 = ROWS.iter().map(off).sum();
        if total < HAIR { 0.0 } else { total }
    }
}

/// Where a mix stands in every window.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Standings([Standing; ROWS.len()]);

impl Standings {
    /// In one of them.
    #[must_use]
    pub const fn of(&self, window: Window) -> Standing {
        self.0[window as usize]
    }

    /// Whether everything is in its aim.
    #[must_use]
    pub fn are_right(&self) -> bool {
        self.0.iter().all(|standing| *standing == Standing::Right)
    }

    /// What is wrong, gravest first: the one order that every screen and list follows.
    #[must_use]
    pub fn complaints(&self) -> Vec<Complaint> {
        let mut found: Vec<(u8, Complaint)> = ROWS
            .iter()
            .filter_map(|row| {
                let standing = self.of(row.window);
                let side = row.side(standing)?;
                let is_far = matches!(standing, Standing::FarBelow | Standing::FarAbove);
                let gravity = side.gravity[usize::from(!is_far)];
                Some((gravity, Complaint { window: row.window, standing, flaw: side.flaw, is_far }))
            })
            .collect();
        found.sort_by_key(|(gravity, _)| *gravity);
        found.into_iter().map(|(_, complaint)| complaint).collect()
    }
}

impl Row {
    /// The side a standing is on; none if it is right.
    #[must_use]
    pub fn side(&self, standing: Standing) -> Option<Side> {
        match standing {
            Standing::Right => None,
            Standing::Below | Standing::FarBelow => Some(self.below),
            Standing::Above | Standing::FarAbove => self.above,
        }
    }
}

/// A window that a mix leaves.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Complaint {
    /// Which.
    pub window: Window,
    /// Where it stands.
    pub standing: Standing,
    /// What that is called.
    pub flaw: Flaw,
    /// Whether it no longer works.
    pub is_far: bool,
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;
    use crate::mix::{Item, sum};
    use crate::stock::{Own, figures, material};

    #[test]
    fn the_usual_working_edges_follow_from_the_usual_aims() {
        let windows = Windows::default();
        assert_eq!(windows.workable(Window::CN), Edges { low: 20.0, high: Some(40.0) });
        assert!((windows.workable(Window::Moisture).low - 0.40).abs() < 1e-9);
        let air = windows.workable(Window::FreeAirSpace);
        assert!((air.low - 0.30).abs() < 1e-9 && air.high.is_none());
    }

    #[test]
    fn every_window_stands_at_its_own_place() {
        for (place, row) in ROWS.iter().enumerate() {
            assert_eq!(row.window as usize, place);
            assert_eq!(row.window.row(), row);
        }
    }

    #[test]
    fn the_gravest_is_said_first() {
        let standings = Standings([Standing::Below, Standing::FarAbove, Standing::Below, Standing::Right]);
        let flaws: Vec<_> = standings.complaints().iter().map(|one| one.flaw).collect();
        assert_eq!(flaws, [Flaw::TooWet, Flaw::TooDense, Flaw::TooGreen]);
        assert!(Standings([Standing::Right; 4]).complaints().is_empty());
    }

    fn item(place: usize, kg: f64) -> Item {
        Item {
            wet_mass_kg: kg,
            figures: figures(Some(&material::all()[place]), &Own::default()).expect("in the table"),
        }
    }

    proptest! {
        /// The linear row and the figure itself must say the same of every mix.
        #[test]
        fn a_row_is_met_exactly_where_its_figure_lies_within(
            a in 0..167_usize, b in 0..167_usize, kg in 0.1..500.0_f64, water in 0.0..300.0_f64, edge in 0.05..0.95_f64,
        ) {
            let items = [item(a, kg), item(b, 40.0)];
            let Ok(mix) = sum(&items, water) else { return Ok(()) };
            let totals = items.iter().map(Totals::of).fold(Totals::of_water(water), Totals::plus);
            for row in &ROWS {
                for basis in Basis::ALL {
                    let windows = Windows::default().on(*basis);
                    let edge = if row.window == Window::CN { edge * 80.0 } else { edge };
                    let value = windows.value(row.window, &mix);
                    prop_assume!((value - edge).abs() > 1e-6 * (1.0 + edge));
                    prop_assert_eq!(row.short_of(edge, &totals, *basis) <= 0.0, value >= edge);
                    prop_assert_eq!(row.beyond(edge, &totals, *basis) <= 0.0, value <= edge);
                }
            }
        }

        /// A mix is at no distance exactly where all its windows are met, but for dryness.
        #[test]
        fn what_is_met_is_at_no_distance(a in 0..167_usize, b in 0..167_usize, kg in 0.1..500.0_f64, water in 0.0..300.0_f64) {
            let Ok(mix) = sum(&[item(a, kg), item(b, 40.0)], water) else { return Ok(()) };
            let windows = Windows::default();
            prop_assert_eq!(windows.distance(&mix, true) == 0.0, windows.are_met(&mix));
            prop_assert!(windows.distance(&mix, false) <= windows.distance(&mix, true));
            prop_assert!(!windows.are_met(&mix) || windows.work(&mix));
            prop_assert!(!windows.widened().are_met(&mix) || windows.work(&mix));
        }
    }
}
