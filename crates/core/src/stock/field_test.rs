//! Small tests with a bucket, a scale and the hands, and the figures they give.
//!
//! Book figures do not fit a person's own straw and dung. Each test here takes
//! what was read and gives a figure that then stands in place of the book's
//! (see [`stock::Measured`](super::Measured)). When it was done, and on
//! which lot, is kept elsewhere.

mod bean;
mod bucket;
mod drying;
mod lab;
mod squeeze;
mod weigh;

pub use bean::{Bean, BeanResult, BeanVerdict, LATEST_DAYS, SOONEST_DAYS, SOWN};
pub use bucket::{Bucket, BucketResult, air_from_density};
pub use drying::{Drying, DryingResult, HEAVIEST_G, Steadiness};
pub use lab::{Lab, LabBasis, LabResult, LabSample};
pub use squeeze::Feel;
pub use weigh::Weigh;

use crate::base::fault::Fault;
use crate::base::quantity;
use crate::base::words::closed_list;

closed_list! {
    /// The tests there are.
    TestKind {
        /// One full measure on a scale.
        Weigh = "weigh",
        /// A sample weighed wet and dry.
        Drying = "drying",
        /// By hand.
        Squeeze = "squeeze",
        /// Packed in a bucket, filled up with water.
        Bucket = "bucket",
        /// Beans sown in it.
        Bean = "bean",
        /// A laboratory's sheet of carbon and nitrogen.
        Lab = "lab",
    }
}

closed_list! {
    /// The figures of a lot that a test can give.
    TestedFigure {
        /// Water, share of fresh mass.
        Moisture = "moisture",
        /// Total nitrogen, share of dry matter.
        Nitrogen = "nitrogen",
        /// Carbon to nitrogen, by mass.
        CN = "c_n",
        /// Loose density [kg/L].
        Density = "density",
        /// Volume in the built heap, share of the loose volume.
        Settle = "settle",
        /// Signs of weed-killer were seen.
        Herbicide = "herbicide",
    }
}

/// The heaviest thing a person hangs on a scale [kg].
pub const HEAVIEST_KG: f64 = 500.0;

/// A number above zero, or not below where `or_zero`.
fn reading(field: &'static str, value: f64, or_zero: bool, most: f64) -> Result<f64, Fault> {
    let checked =
        if or_zero { quantity::within(value, 0.0, most) } else { quantity::above(value, 0.0, most) };
    checked.map_err(|fault| Fault { path: field.into(), ..fault })
}
