//! The squeeze test: moisture by hand.

use crate::base::quantity::Fraction;
use crate::base::words::closed_list;

closed_list! {
    /// What a hand feels when it squeezes chopped material or a mix.
    Feel {
        /// Will not hold a shape.
        Dusty = "dusty",
        /// A little damp; the ball falls apart at once.
        FallsApart = "falls-apart",
        /// The ball holds, the skin shines, a drop or two at most.
        Holds = "holds",
        /// Several drops run between the fingers.
        Drops = "drops",
        /// A stream runs.
        Stream = "stream",
    }
}

impl Feel {
    /// The moisture it is read as, share of fresh mass [-].
    ///
    /// Schools differ on the right one: some read it as 40 %, some as 50 or 60.
    ///
    /// # Source
    /// The hand test of Rynk 1992, On-Farm Composting Handbook (NRAES-54), and
    /// Gotaas 1956, WHO Monograph 31, in five steps; the middles are ours.
    #[must_use]
    pub fn moisture(self) -> Fraction {
        let share = match self {
            Self::Dusty => 0.35,
            Self::FallsApart => 0.45,
            Self::Holds => 0.55,
            Self::Drops => 0.64,
            Self::Stream => 0.72,
        };
        Fraction::new(share).expect("a share, as read above")
    }

    /// The band it stands for, low and high [-].
    #[must_use]
    pub const fn band(self) -> (f64, f64) {
        match self {
            Self::Dusty => (0.0, 0.40),
            Self::FallsApart => (0.40, 0.50),
            Self::Holds => (0.50, 0.60),
            Self::Drops => (0.60, 0.68),
            Self::Stream => (0.68, 1.0),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_feel_is_read_inside_its_band_and_the_bands_meet() {
        let mut before = 0.0;
        for feel in Feel::ALL {
            let (low, high) = feel.band();
            assert!(low == before && (low..=high).contains(&feel.moisture().get()), "{feel:?}");
            before = high;
        }
        assert_eq!(before, 1.0);
    }
}
