//! What is worth saying about a result, as a code with numbers.
//!
//! The core never words anything for the screen: it answers with findings, and
//! the locale files turn a code and its parameters into a sentence. Adding a
//! code here means adding its wording there; a test of the web side walks over
//! [`Code::ALL`].

use crate::base::words::closed_list;

closed_list! {
    /// How much a finding weighs.
    Severity {
        /// Good to know; nothing to do.
        Info = "info",
        /// Something to mend or to keep in mind.
        Warn = "warn",
        /// The result does not work as it stands.
        Fail = "fail",
    }
}

closed_list! {
    /// What was found.
    Code {
        /// C:N below the aim.
        CnLow = "c-n-low",
        /// C:N above the aim.
        CnHigh = "c-n-high",
        /// Moisture below the aim; `litres` mends it.
        TooDry = "too-dry",
        /// Moisture above the aim by `litres` of water.
        TooWet = "too-wet",
        /// Free air space below the aim.
        TooDense = "too-dense",
        /// Too little holds a frame: it collapses and shuts the air out.
        Packs = "packs",
        /// So much air that a small heap cools and dries.
        TooAiry = "too-airy",
        /// Nothing is known of how an item holds air and water.
        NatureUnknown = "nature-unknown",
        /// Solids and water together do not fit the heap volume reckoned.
        NoRoomForAir = "no-room-for-air",
        /// Much of the carbon is locked in wood or lignin: less heat is to be expected.
        AvailableDiffers = "available-c-n-differs",
        /// An item's figures give it more or less carbon than organic matter holds.
        CarbonImplausible = "carbon-implausible",
        /// No lignin is known for an item; it is counted as having none.
        LigninUnknown = "lignin-unknown",
        /// An item's settle is not known; it is counted as not settling.
        SettleUnknown = "settle-unknown",
        /// A reference caution that refuses the item in every heap.
        MustNotGoIn = "must-not-go-in",
        /// The heap is too small to hold its heat.
        TooSmallToHeat = "too-small-to-heat",
        /// The heap will heat, but only just.
        JustBigEnough = "just-big-enough",
        /// Above about two metres a heap packs and chokes.
        TooTall = "too-tall",
        /// The mix is more than the container holds, by `litres`.
        Overflows = "overflows",
        /// The mix fills less than the container holds, by `litres`.
        RoomLeft = "room-left",
        /// Once settled it fits; as it is thrown it is more than the container holds, by `litres`.
        HeapedAtFirst = "heaped-at-first",
        /// It stays cool, as its method means it to.
        StaysCool = "stays-cool",
        /// It is smaller than its method works at.
        BelowMethod = "below-method",
        /// It is larger or higher than its method works at.
        AboveMethod = "above-method",
        /// Some of a heap that is not turned lies too far from air.
        TooFarFromAir = "too-far-from-air",
        /// All of a heap that is not turned lies near enough to air.
        NearAir = "near-air",
        /// A layer is thicker than is good for its kind.
        LayerThick = "layer-thick",
        /// A layer is thinner than a person can spread.
        LayerThin = "layer-thin",
    }
}

/// One thing worth saying.
#[derive(Debug, Clone, PartialEq)]
pub struct Finding {
    /// What was found.
    pub code: Code,
    /// How much it weighs.
    pub severity: Severity,
    /// The item it is about, by its place in the mix.
    pub item: Option<usize>,
    /// The numbers that go into the sentence, named.
    pub params: Vec<(&'static str, f64)>,
}

impl Finding {
    /// A finding about the whole.
    #[must_use]
    pub fn new(code: Code, severity: Severity, params: &[(&'static str, f64)]) -> Self {
        Self { code, severity, item: None, params: params.to_vec() }
    }

    /// The same finding, about one item of the mix.
    #[must_use]
    pub fn about(mut self, item: usize) -> Self {
        self.item = Some(item);
        self
    }
}
