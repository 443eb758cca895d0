//! What a hand, a nose and an eye say: closed lists, and what a word means as a figure.

use crate::base::words::closed_list;

closed_list! {
    /// Where in a heap something is read.
    Spot {
        /// In the middle.
        Core = "core",
        /// Half way from the outside to the middle.
        HalfWay = "half-way",
        /// A hand deep from the outside.
        Edge = "edge",
        /// The air beside it.
        Air = "air",
    }
}

closed_list! {
    /// What read a temperature.
    ReadBy {
        /// A thermometer that a person held.
        Thermometer = "thermometer",
        /// A probe that writes down by itself.
        Probe = "probe",
    }
}

closed_list! {
    /// What a stick feels like that stood in the middle for ten minutes: no proof of heat.
    StickFeel {
        /// It cannot be held: over 60 °C.
        CannotHold = "cannot-hold",
        /// 50 to 60 °C.
        Hot = "hot",
        /// 35 to 50 °C.
        Warm = "warm",
        /// Under 35 °C.
        Cool = "cool",
    }
}

impl StickFeel {
    /// Between which temperatures that is felt [°C].
    #[must_use]
    pub const fn between_c(self) -> [f64; 2] {
        match self {
            Self::CannotHold => [60.0, 75.0],
            Self::Hot => [50.0, 60.0],
            Self::Warm => [35.0, 50.0],
            Self::Cool => [10.0, 35.0],
        }
    }
}

closed_list! {
    /// What a handful squeezed hard feels like.
    SqueezeFeel {
        /// It falls apart.
        Dusty = "dusty",
        /// It holds together for a moment.
        Damp = "damp",
        /// It holds, and a drop or two come.
        Right = "right",
        /// Water runs out of it.
        Wet = "wet",
        /// It drips by itself.
        Sodden = "sodden",
    }
}

impl SqueezeFeel {
    /// The water that it is read as, share of fresh mass [-]; a hand is right to five points or so.
    ///
    /// # Example
    /// ```
    /// use zymarch_core::tend::entry::SqueezeFeel;
    /// assert_eq!(SqueezeFeel::Right.moisture(), 0.55);
    /// ```
    #[must_use]
    pub const fn moisture(self) -> f64 {
        match self {
            Self::Dusty => 0.35,
            Self::Damp => 0.45,
            Self::Right => 0.55,
            Self::Wet => 0.64,
            Self::Sodden => 0.72,
        }
    }
}

closed_list! {
    /// What a heap smells of.
    Smell {
        /// Nothing.
        None = "none",
        /// Of earth, as woods do.
        Earthy = "earthy",
        /// It stings.
        Ammonia = "ammonia",
        /// Of vinegar.
        Sour = "sour",
        /// Of bad eggs.
        Rotten = "rotten",
        /// Of a cellar.
        Musty = "musty",
        /// Of fire.
        Burnt = "burnt",
    }
}

closed_list! {
    /// What is seen at a heap.
    Sign {
        /// It steams.
        Steam = "steam",
        /// White threads of fungi.
        WhiteThreads = "white-threads",
        /// Dry grey powder, as of ash.
        AshGrey = "ash-grey",
        /// Flies.
        Flies = "flies",
        /// Rats or mice.
        Rodents = "rodents",
        /// Seeds come up.
        Sprouts = "sprouts",
        /// Worms.
        Worms = "worms",
        /// Liquid runs out.
        Liquid = "liquid",
        /// Scraps lie open.
        ScrapsOnTop = "scraps-on-top",
        /// The outside is as it was put there.
        RawOutside = "raw-outside",
        /// Dry pockets.
        DryPatches = "dry-patches",
        /// It lies in mats.
        Matted = "matted",
        /// Mould.
        Mould = "mould",
        /// Dark and crumbly.
        DarkCrumbly = "dark-crumbly",
        /// What went in can still be told.
        Recognisable = "recognisable",
    }
}

closed_list! {
    /// What a heap is covered with.
    CoverWith {
        /// A roof above it: keeps rain off.
        Roof = "roof",
        /// A sheet on it: keeps rain off and hinders air.
        Sheet = "sheet",
        /// Straw or dry leaves.
        Straw = "straw",
        /// Soil or old compost.
        Soil = "soil",
    }
}

closed_list! {
    /// How air is given without turning.
    AeratedBy {
        /// Holes, pushed with a bar or a stick.
        Holes = "holes",
        /// A fork, pushed in and lifted.
        Fork = "fork",
        /// A pipe that is put in.
        Pipe = "pipe",
    }
}

closed_list! {
    /// Where many temperatures come from.
    Source {
        /// A probe in the heap.
        Probe = "probe",
        /// A stand-in for one.
        Simulated = "simulated",
        /// A file of a logger.
        File = "file",
    }
}

closed_list! {
    /// How beans grew in it.
    BeansGrew {
        /// As they do in soil.
        Well = "well",
        /// Stunted, or with curled leaves: what a weed-killer does that persists.
        Stunted = "stunted",
    }
}
