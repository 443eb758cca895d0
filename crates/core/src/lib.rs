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
//! | [`caution`] | the closed list of cautions that materials carry |
//! | [`method`] | the ways of composting: sizes, windows, work, heat, what is left |
//! | [`catalogue`] | materials and methods looked up: a person's own beside the book's |
//! | [`field_test`] | small tests with a bucket, a scale and the hands, and the figures they give |
//! | [`freshness`] | how long a lot keeps, and what spoils first |
//! | [`climate`] | what a year is like at a site |
//! | [`stock`] | an amount of a material on hand, with the best figures known |
//! | [`mix`] | amounts put together: C:N, moisture, volume, air, water to add |
//! | [`confidence`] | how sure a mix is, since book figures are ranges |
//! | [`thumb`] | what a rule of thumb truly gives |
//! | [`mind`] | what must not go in, and what must be minded, where it is decided |
//! | [`judge`] | how the mix stands against the windows it should lie in |
//! | [`mend`] | the one step that would mend the mix most |
//! | [`correct`] | what to add, and how much, to reach the middle |
//! | [`formulate`] | from stock with limits to the best mix, in any amounts or whole measures |
//! | [`suit`] | which method suits a batch, with the reasons for and against |
//! | [`heap`] | the physical pile: its shape, what it holds, whether it can heat |
//! | [`starter`] | what can help a heap begin, scaled and scheduled back from build day |
//! | [`prepare`] | what is to be ready before the first layer |
//! | [`layers`] | the mix divided into layers, with the water for each |
//! | [`build`] | build day: what really went in, and the rest planned anew |
//! | [`working`] | every figure as it would stand on a board |
//! | [`finding`] | what is worth saying, as codes and numbers |

pub mod build;
pub mod catalogue;
pub mod caution;
pub mod climate;
pub mod confidence;
pub mod correct;
pub mod field_test;
pub mod finding;
pub mod formulate;
pub mod freshness;
pub mod heap;
pub mod judge;
pub mod layers;
pub mod material;
pub mod measure;
pub mod mend;
pub mod method;
pub mod mind;
pub mod mix;
pub mod prepare;
pub mod quantity;
pub mod starter;
pub mod stock;
pub mod suit;
pub mod thumb;
mod words;
pub mod working;
