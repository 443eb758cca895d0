//! The windows that a mix should lie in, as data.
//!
//! A window is a quotient of two sums over the mix, held within an aim and, more
//! widely, within what still works. Because both sums are linear in the amounts, the
//! same row judges a mix, measures how far it is off, solves for the amount that
//! mends it, and becomes a condition of the programme that formulates one. A new
//! window is a new row of [`ROWS`].

mod many;
mod standing;
mod table;

pub(crate) use many::{AT_A_TIME, Block, Drawn, Judged, NO_SUMS, Quotients, Weighed};
pub use standing::{Complaint, Standings};
pub use table::{ROWS, Row, Side};
use table::{STRUCTURED_MIN, Tolerance};

use crate::base::quantity::Band;
use crate::base::words::closed_list;
use crate::mix::MixFigures;

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

impl Standing {
    /// Whether a figure is too low, far or not.
    #[must_use]
    pub const fn is_below(self) -> bool {
        matches!(self, Self::Below | Self::FarBelow)
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

/// The usual wet edge of the aim. Who sets it lower wants it drier, whatever the mix could hold.
const USUAL_WET: f64 = 0.60;

/// Whether what a mix could hold counts beyond this edge of an aim.
fn stretches(aim: f64) -> bool {
    aim >= USUAL_WET - HAIR
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
        self.hold_within(value, HAIR)
    }

    fn hold_within(self, value: f64, play: f64) -> bool {
        value >= self.low - play && self.high.is_none_or(|high| value <= high + play)
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
        let wider = window.row().wider.and_then(|wider| (wider.of_mix)(mix));
        match (wider, self.aim(window).high, edges.high) {
            (Some(wider), Some(aim), Some(high)) if stretches(aim) => {
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
        let (value, aim, row) = (self.value(window, mix), self.aim(window), window.row());
        let works = row.holds(self.workable_in(window, mix), value);
        if row.holds(aim, value) {
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
        ROWS.iter().all(|row| row.holds(self.aim(row.window), self.value(row.window, mix)))
    }

    /// Whether every figure lies in what still works.
    #[must_use]
    pub fn work(&self, mix: &MixFigures) -> bool {
        ROWS.iter().all(|row| row.holds(self.workable_in(row.window, mix), self.value(row.window, mix)))
    }

    /// How far a figure lies outside its aim, one being where it stops working.
    fn margins(&self, row: &Row, mix: &MixFigures) -> f64 {
        let (value, aim) = (self.value(row.window, mix), self.aim(row.window));
        if row.holds(aim, value) {
            return 0.0;
        }
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

    /// Whether a change can be seen in what was wrong: a figure outside its aim comes into it, or
    /// nearer to it by a whole of what it is said in. One that rounds to nothing is no advice.
    #[must_use]
    pub fn shows(&self, before: &MixFigures, after: &MixFigures) -> bool {
        ROWS.iter().any(|row| {
            let (aim, whole) = (self.aim(row.window), row.finest * 10.0);
            let (was, is) = (self.value(row.window, before), self.value(row.window, after));
            if row.holds(aim, was) {
                return false;
            }
            let edge = if was < aim.low { aim.low } else { aim.high.unwrap_or(was) };
            let off = |value: f64| ((value / whole).round() - edge / whole).abs();
            row.holds(aim, is) || off(is) <= off(was) - 1.0 + HAIR
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

#[cfg(test)]
mod tests;
