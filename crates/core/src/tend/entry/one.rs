//! A list of words of which there is mostly one: that one may stand by itself.

use std::fmt;
use std::marker::PhantomData;

use serde::de::value::{SeqAccessDeserializer, StrDeserializer};
use serde::de::{Deserialize, Deserializer, Error, SeqAccess, Visitor};

struct OneOrMore<T>(PhantomData<T>);

impl<'de, T: Deserialize<'de>> Visitor<'de> for OneOrMore<T> {
    type Value = Vec<T>;

    fn expecting(&self, to: &mut fmt::Formatter<'_>) -> fmt::Result {
        to.write_str("a sequence")
    }

    fn visit_str<E: Error>(self, word: &str) -> Result<Vec<T>, E> {
        T::deserialize(StrDeserializer::new(word)).map(|one| vec![one])
    }

    fn visit_seq<A: SeqAccess<'de>>(self, words: A) -> Result<Vec<T>, A::Error> {
        Vec::deserialize(SeqAccessDeserializer::new(words))
    }
}

pub(super) fn one_or_more<'de, D: Deserializer<'de>, T: Deserialize<'de>>(
    from: D,
) -> Result<Vec<T>, D::Error> {
    from.deserialize_any(OneOrMore(PhantomData))
}
