//! The words of the log: what is read of a heap, seen at it and done to it.
//!
//! One vocabulary for the screen, files, devices and diagnosis. A kind is a variant of [`Tended`] with
//! its fields; where a hand or a nose judges, the words are closed lists, and what a word means
//! as a figure stands beside it.

use serde::{Deserialize, Serialize};

use super::heat::Spread;
use crate::base::words::closed_list;
use crate::log::EntryKind;

mod check;

pub use check::LONGEST_NOTE;

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

/// What was read, seen or done. What was put in is given as whatever the records, the API or the model
/// know of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "kebab-case", deny_unknown_fields)]
pub enum Tended<I> {
    /// A temperature at one point.
    Temperature {
        /// How warm, °C.
        temp_c: f64,
        /// Where.
        #[serde(default = "core")]
        place: Spot,
        /// How deep, cm.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        depth_cm: Option<f64>,
        /// By what.
        #[serde(default = "thermometer")]
        by: ReadBy,
    },
    /// A stick that stood in the middle.
    Stick {
        /// What it felt like.
        feel: StickFeel,
    },
    /// A handful squeezed.
    Squeeze {
        /// What it felt like.
        feel: SqueezeFeel,
        /// From where.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        place: Option<Spot>,
    },
    /// What it smelled of.
    Smell {
        /// Each smell.
        smell: Vec<Smell>,
    },
    /// How high it stood.
    Height {
        /// Above ground, cm.
        height_cm: f64,
    },
    /// What was seen.
    Seen {
        /// Each sign.
        signs: Vec<Sign>,
    },
    /// It was turned.
    Turn {
        /// How well outside and inside were mixed, 0 to 1.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        mixing: Option<f64>,
        /// Into which bay, in the person's words.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        to: Option<String>,
    },
    /// It was watered.
    Water {
        /// With so much, litres.
        litres: f64,
        /// How.
        #[serde(default = "even")]
        spread: Spread,
    },
    /// More was put in.
    Add {
        /// What.
        items: Vec<I>,
    },
    /// It was covered.
    Cover {
        /// With what.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        with: Option<CoverWith>,
    },
    /// The cover was taken off.
    Uncover,
    /// It rained.
    Rain {
        /// How much, mm.
        mm: f64,
        /// For how long, hours.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        hours: Option<f64>,
    },
    /// Air was given without turning.
    Aerate {
        /// How.
        how: AeratedBy,
    },
    /// Worms were put in.
    Worms {
        /// How many, kg.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        kg: Option<f64>,
    },
    /// What a bin or worm bed was fed.
    Feed {
        /// What.
        items: Vec<I>,
    },
    /// Liquid that was drained or caught, and given back.
    Liquid {
        /// How much, litres.
        litres: f64,
        /// Where it went, in the person's words.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        to: Option<String>,
    },
    /// It was moved.
    Move,
    /// Something else worth keeping; the note says what.
    Note,
    /// A photo.
    Photo,
}

const fn core() -> Spot {
    Spot::Core
}

const fn thermometer() -> ReadBy {
    ReadBy::Thermometer
}

const fn even() -> Spread {
    Spread::Even
}

impl<I> Tended<I> {
    /// What happened, as a word.
    #[must_use]
    pub const fn kind(&self) -> EntryKind {
        match self {
            Self::Temperature { .. } => EntryKind::Temperature,
            Self::Stick { .. } => EntryKind::Stick,
            Self::Squeeze { .. } => EntryKind::Squeeze,
            Self::Smell { .. } => EntryKind::Smell,
            Self::Height { .. } => EntryKind::Height,
            Self::Seen { .. } => EntryKind::Seen,
            Self::Turn { .. } => EntryKind::Turn,
            Self::Water { .. } => EntryKind::Water,
            Self::Add { .. } => EntryKind::Add,
            Self::Cover { .. } => EntryKind::Cover,
            Self::Uncover => EntryKind::Uncover,
            Self::Rain { .. } => EntryKind::Rain,
            Self::Aerate { .. } => EntryKind::Aerate,
            Self::Worms { .. } => EntryKind::Worms,
            Self::Feed { .. } => EntryKind::Feed,
            Self::Liquid { .. } => EntryKind::Liquid,
            Self::Move => EntryKind::Move,
            Self::Note => EntryKind::Note,
            Self::Photo => EntryKind::Photo,
        }
    }

    /// What was put in, of kinds that put something in.
    #[must_use]
    pub fn items(&self) -> &[I] {
        match self {
            Self::Add { items } | Self::Feed { items } => items,
            _ => &[],
        }
    }

    /// The same, with what was put in as somebody else knows it.
    ///
    /// # Errors
    /// What `other` refuses.
    pub fn with_items<J, E>(self, other: impl FnOnce(Vec<I>) -> Result<Vec<J>, E>) -> Result<Tended<J>, E> {
        Ok(match self {
            Self::Add { items } => Tended::Add { items: other(items)? },
            Self::Feed { items } => Tended::Feed { items: other(items)? },
            Self::Temperature { temp_c, place, depth_cm, by } => {
                Tended::Temperature { temp_c, place, depth_cm, by }
            }
            Self::Stick { feel } => Tended::Stick { feel },
            Self::Squeeze { feel, place } => Tended::Squeeze { feel, place },
            Self::Smell { smell } => Tended::Smell { smell },
            Self::Height { height_cm } => Tended::Height { height_cm },
            Self::Seen { signs } => Tended::Seen { signs },
            Self::Turn { mixing, to } => Tended::Turn { mixing, to },
            Self::Water { litres, spread } => Tended::Water { litres, spread },
            Self::Cover { with } => Tended::Cover { with },
            Self::Uncover => Tended::Uncover,
            Self::Rain { mm, hours } => Tended::Rain { mm, hours },
            Self::Aerate { how } => Tended::Aerate { how },
            Self::Worms { kg } => Tended::Worms { kg },
            Self::Liquid { litres, to } => Tended::Liquid { litres, to },
            Self::Move => Tended::Move,
            Self::Note => Tended::Note,
            Self::Photo => Tended::Photo,
        })
    }
}
