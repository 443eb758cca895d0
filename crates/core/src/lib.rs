//! What Zymarch knows about making compost: rules and computation, and nothing else.
//!
//! No input or output, no clock, no hidden randomness and no wording for the
//! screen: the core answers with figures, typed [findings](finding) and
//! [workings](working). The modules stand in the order of the work, so that a
//! reader meets them as a practitioner does.
//!
//! | module | the part of the practice it holds |
//! |---|---|
//! | [`quantity`] | fractions and bands, checked once |
//! | [`measure`] | the person's own containers, and amounts counted in them |
//! | [`material`] | kinds of things that go in a heap, with their reference figures |
//! | [`stock`] | an amount of a material on hand, with its own figures |
//! | [`mix`] | amounts put together: C:N, moisture, volume, air, water to add |
//! | [`judge`] | how the mix stands against the windows it should lie in |
//! | [`mend`] | the one step that would mend the mix most |
//! | [`heap`] | the physical pile: its shape, what it holds, whether it can heat |
//! | [`layers`] | the mix divided into layers, with the water for each |
//! | [`working`] | every figure as it would stand on a board |
//! | [`finding`] | what is worth saying, as codes and numbers |

pub mod finding;
pub mod heap;
pub mod judge;
pub mod layers;
pub mod material;
pub mod measure;
pub mod mend;
pub mod mix;
pub mod quantity;
pub mod stock;
pub mod working;
