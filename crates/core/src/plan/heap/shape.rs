//! The shapes a heap is built in, and what each holds up to a height.

use std::f64::consts::PI;

/// Width of a column of air: a perforated pipe or a tied bundle of stalks [cm].
pub const COLUMN_CM: f64 = 10.0;

/// A container or a pile, with the sides that are measured on it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Shape {
    /// A box or bay.
    Box {
        /// Front to back [cm].
        length_cm: f64,
        /// Side to side, the side drawn in section [cm].
        width_cm: f64,
        /// Rim above ground [cm].
        height_cm: f64,
    },
    /// A ring of mesh or boards.
    Ring {
        /// Across [cm].
        diameter_cm: f64,
        /// Rim above ground [cm].
        height_cm: f64,
    },
    /// A free heap with sloping sides and a flat top: a cut pyramid.
    Pile {
        /// Front to back on the ground [cm].
        length_cm: f64,
        /// Side to side on the ground [cm].
        width_cm: f64,
        /// Side to side on top; all sides slope alike [cm].
        top_cm: f64,
        /// Top above ground [cm].
        height_cm: f64,
    },
    /// A long ridge with a rounded back: in section a parabola.
    Windrow {
        /// Along the ridge [cm].
        length_cm: f64,
        /// Across on the ground [cm].
        width_cm: f64,
        /// Ridge above ground [cm].
        height_cm: f64,
    },
    /// A drum standing up.
    Drum {
        /// Across [cm].
        diameter_cm: f64,
        /// Rim above its bottom [cm].
        height_cm: f64,
    },
    /// A drum lying down, as a tumbler does.
    LyingDrum {
        /// Across; as high as it is wide [cm].
        diameter_cm: f64,
        /// From end to end [cm].
        length_cm: f64,
    },
    /// A tower of mesh on a pallet, with columns of air in it.
    Tower {
        /// Across [cm].
        diameter_cm: f64,
        /// Rim above the pallet [cm].
        height_cm: f64,
        /// Columns of air, each [`COLUMN_CM`] across.
        columns: u8,
    },
}

impl Shape {
    /// Ground it covers [cm²].
    #[must_use]
    pub fn footprint_cm2(self) -> f64 {
        match self {
            Self::Box { length_cm, width_cm, .. }
            | Self::Pile { length_cm, width_cm, .. }
            | Self::Windrow { length_cm, width_cm, .. } => length_cm * width_cm,
            Self::Ring { diameter_cm, .. }
            | Self::Drum { diameter_cm, .. }
            | Self::Tower { diameter_cm, .. } => disc_cm2(diameter_cm),
            Self::LyingDrum { diameter_cm, length_cm } => length_cm * diameter_cm,
        }
    }

    /// Rim, top or ridge above ground [cm].
    #[must_use]
    pub const fn height_cm(self) -> f64 {
        match self {
            Self::Box { height_cm, .. }
            | Self::Ring { height_cm, .. }
            | Self::Pile { height_cm, .. }
            | Self::Windrow { height_cm, .. }
            | Self::Drum { height_cm, .. }
            | Self::Tower { height_cm, .. } => height_cm,
            Self::LyingDrum { diameter_cm, .. } => diameter_cm,
        }
    }

    /// Width of the section at its widest [cm].
    #[must_use]
    pub const fn section_width_cm(self) -> f64 {
        match self {
            Self::Box { width_cm, .. } | Self::Pile { width_cm, .. } | Self::Windrow { width_cm, .. } => {
                width_cm
            }
            Self::Ring { diameter_cm, .. }
            | Self::Drum { diameter_cm, .. }
            | Self::LyingDrum { diameter_cm, .. }
            | Self::Tower { diameter_cm, .. } => diameter_cm,
        }
    }

    /// Width of the section at a height; straight walls go on above the rim [cm].
    #[must_use]
    pub fn width_at_cm(self, up_cm: f64) -> f64 {
        match self {
            Self::Pile { width_cm, top_cm, height_cm, .. } => {
                width_cm - (width_cm - top_cm) * (up_cm / height_cm).clamp(0.0, 1.0)
            }
            Self::Windrow { width_cm, height_cm, .. } => {
                width_cm * (1.0 - (up_cm / height_cm).clamp(0.0, 1.0)).sqrt()
            }
            Self::LyingDrum { diameter_cm, .. } => {
                let from_middle = up_cm.clamp(0.0, diameter_cm) - diameter_cm / 2.0;
                2.0 * ((diameter_cm / 2.0).powi(2) - from_middle.powi(2)).max(0.0).sqrt()
            }
            _ => self.section_width_cm(),
        }
    }

    /// Whether its walls stand straight, so that what is too much stands above the rim.
    #[must_use]
    pub const fn is_straight(self) -> bool {
        !matches!(self, Self::Pile { .. } | Self::Windrow { .. } | Self::LyingDrum { .. })
    }

    /// What it holds up to a height [L].
    ///
    /// # Source
    /// A cut pyramid by integrating its area over the height; a windrow as a
    /// parabola, two thirds of the box around it (Rynk 1992, On-Farm Composting
    /// Handbook, NRAES-54); a lying drum by the segment of a circle.
    ///
    /// # Example
    /// A windrow 2 m across, 1 m high and 3 m long holds two thirds of 6 m³;
    /// a drum that lies half full holds half.
    /// ```
    /// use zymarch_core::plan::heap::Shape;
    /// let ridge = Shape::Windrow { length_cm: 300.0, width_cm: 200.0, height_cm: 100.0 };
    /// assert!((ridge.capacity_l() - 4000.0).abs() < 1e-9);
    /// let drum = Shape::LyingDrum { diameter_cm: 60.0, length_cm: 90.0 };
    /// assert!((drum.volume_below_l(30.0) - drum.capacity_l() / 2.0).abs() < 1e-9);
    /// ```
    #[must_use]
    pub fn volume_below_l(self, up_cm: f64) -> f64 {
        let up = if self.is_straight() { up_cm.max(0.0) } else { up_cm.clamp(0.0, self.height_cm()) };
        let cm3 = match self {
            Self::Pile { length_cm, width_cm, top_cm, height_cm } => {
                let slope = (width_cm - top_cm) / height_cm;
                length_cm * width_cm * up - (length_cm + width_cm) * slope * up.powi(2) / 2.0
                    + slope.powi(2) * up.powi(3) / 3.0
            }
            Self::Windrow { length_cm, width_cm, height_cm } => {
                length_cm * width_cm * height_cm * (2.0 / 3.0) * (1.0 - (1.0 - up / height_cm).powf(1.5))
            }
            Self::LyingDrum { diameter_cm, length_cm } => {
                let radius = diameter_cm / 2.0;
                let from_middle = radius - up;
                let chord = (2.0 * radius * up - up.powi(2)).max(0.0).sqrt();
                length_cm
                    * (radius.powi(2) * (from_middle / radius).clamp(-1.0, 1.0).acos() - from_middle * chord)
            }
            Self::Tower { diameter_cm, columns, .. } => {
                (disc_cm2(diameter_cm) - f64::from(columns) * disc_cm2(COLUMN_CM)).max(1.0) * up
            }
            Self::Box { .. } | Self::Ring { .. } | Self::Drum { .. } => self.footprint_cm2() * up,
        };
        cm3 / 1000.0
    }

    /// What it holds, filled to the rim [L].
    ///
    /// # Example
    /// A bay of 110 × 110 × 100 cm holds 1,210 L.
    /// ```
    /// use zymarch_core::plan::heap::Shape;
    /// let bay = Shape::Box { length_cm: 110.0, width_cm: 110.0, height_cm: 100.0 };
    /// assert!((bay.capacity_l() - 1210.0).abs() < 1e-9);
    /// ```
    #[must_use]
    pub fn capacity_l(self) -> f64 {
        self.volume_below_l(self.height_cm())
    }

    /// How high a volume stands in it [cm].
    ///
    /// Straight walls are thought to go on above the rim; a pile, a ridge and a
    /// lying drum are full at their top, whatever is left over.
    #[must_use]
    pub fn height_of_cm(self, volume_l: f64) -> f64 {
        if self.is_straight() {
            return volume_l / self.volume_below_l(1.0);
        }
        if volume_l >= self.capacity_l() {
            return self.height_cm();
        }
        // Halved until nothing is left to halve: no formula for the height of a segment.
        let (mut low, mut high) = (0.0, self.height_cm());
        for _ in 0..60 {
            let middle = f64::midpoint(low, high);
            if self.volume_below_l(middle) < volume_l {
                low = middle;
            } else {
                high = middle;
            }
        }
        f64::midpoint(low, high)
    }

    /// Its smallest side across [cm]: where the cold comes in first.
    #[must_use]
    pub fn least_side_cm(self) -> f64 {
        match self {
            Self::Box { length_cm, width_cm, .. } | Self::Windrow { length_cm, width_cm, .. } => {
                length_cm.min(width_cm)
            }
            // At half height, where a sloping heap has its middle width.
            Self::Pile { length_cm, width_cm, top_cm, .. } => {
                length_cm.min(width_cm) - (width_cm - top_cm) / 2.0
            }
            Self::Ring { diameter_cm, .. }
            | Self::Drum { diameter_cm, .. }
            | Self::Tower { diameter_cm, .. } => diameter_cm,
            Self::LyingDrum { diameter_cm, length_cm } => diameter_cm.min(length_cm),
        }
    }
}

fn disc_cm2(diameter_cm: f64) -> f64 {
    PI * diameter_cm.powi(2) / 4.0
}
