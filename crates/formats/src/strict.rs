//! Lists are no objects.
//!
//! A reader of `serde` takes a list for an object whose fields stand in order. No open
//! format here is written so, and a document that is would silently mean something else
//! when a field is added; so it is refused, however deep it stands.

use std::fmt;

use serde::de::{
    DeserializeSeed, Deserializer, EnumAccess, Error, MapAccess, SeqAccess, VariantAccess, Visitor,
};

/// Stands around a part of a reader and passes everything on, but asks for a map where an
/// object is meant.
pub(crate) struct Strict<T>(pub(crate) T);

macro_rules! pass_on {
    ($($method:ident($($name:ident: $of:ty),*)),* $(,)?) => {
        $(fn $method<V: Visitor<'de>>(self, $($name: $of,)* visitor: V) -> Result<V::Value, Self::Error> {
            self.0.$method($($name,)* Strict(visitor))
        })*
    };
}

impl<'de, D: Deserializer<'de>> Deserializer<'de> for Strict<D> {
    type Error = D::Error;

    fn deserialize_struct<V: Visitor<'de>>(
        self,
        _name: &'static str,
        _fields: &'static [&'static str],
        visitor: V,
    ) -> Result<V::Value, Self::Error> {
        self.0.deserialize_map(Strict(visitor))
    }

    pass_on! {
        deserialize_any(), deserialize_bool(), deserialize_i8(), deserialize_i16(), deserialize_i32(),
        deserialize_i64(), deserialize_i128(), deserialize_u8(), deserialize_u16(), deserialize_u32(),
        deserialize_u64(), deserialize_u128(), deserialize_f32(), deserialize_f64(), deserialize_char(),
        deserialize_str(), deserialize_string(), deserialize_bytes(), deserialize_byte_buf(),
        deserialize_option(), deserialize_unit(), deserialize_seq(), deserialize_map(),
        deserialize_identifier(), deserialize_ignored_any(),
        deserialize_unit_struct(name: &'static str), deserialize_newtype_struct(name: &'static str),
        deserialize_tuple(len: usize), deserialize_tuple_struct(name: &'static str, len: usize),
        deserialize_enum(name: &'static str, variants: &'static [&'static str]),
    }
}

macro_rules! seen {
    ($($method:ident($of:ty)),* $(,)?) => {
        $(fn $method<E: Error>(self, value: $of) -> Result<Self::Value, E> {
            self.0.$method(value)
        })*
    };
}

impl<'de, V: Visitor<'de>> Visitor<'de> for Strict<V> {
    type Value = V::Value;

    fn expecting(&self, to: &mut fmt::Formatter<'_>) -> fmt::Result {
        self.0.expecting(to)
    }

    seen! {
        visit_bool(bool), visit_i8(i8), visit_i16(i16), visit_i32(i32), visit_i64(i64), visit_i128(i128),
        visit_u8(u8), visit_u16(u16), visit_u32(u32), visit_u64(u64), visit_u128(u128), visit_f32(f32),
        visit_f64(f64), visit_char(char), visit_str(&str), visit_borrowed_str(&'de str),
        visit_string(String), visit_bytes(&[u8]), visit_borrowed_bytes(&'de [u8]), visit_byte_buf(Vec<u8>),
    }

    fn visit_none<E: Error>(self) -> Result<Self::Value, E> {
        self.0.visit_none()
    }

    fn visit_unit<E: Error>(self) -> Result<Self::Value, E> {
        self.0.visit_unit()
    }

    fn visit_some<D: Deserializer<'de>>(self, inner: D) -> Result<Self::Value, D::Error> {
        self.0.visit_some(Strict(inner))
    }

    fn visit_newtype_struct<D: Deserializer<'de>>(self, inner: D) -> Result<Self::Value, D::Error> {
        self.0.visit_newtype_struct(Strict(inner))
    }

    fn visit_seq<A: SeqAccess<'de>>(self, seq: A) -> Result<Self::Value, A::Error> {
        self.0.visit_seq(Strict(seq))
    }

    fn visit_map<A: MapAccess<'de>>(self, map: A) -> Result<Self::Value, A::Error> {
        self.0.visit_map(Strict(map))
    }

    fn visit_enum<A: EnumAccess<'de>>(self, of: A) -> Result<Self::Value, A::Error> {
        self.0.visit_enum(Strict(of))
    }
}

impl<'de, S: DeserializeSeed<'de>> DeserializeSeed<'de> for Strict<S> {
    type Value = S::Value;

    fn deserialize<D: Deserializer<'de>>(self, inner: D) -> Result<Self::Value, D::Error> {
        self.0.deserialize(Strict(inner))
    }
}

impl<'de, A: SeqAccess<'de>> SeqAccess<'de> for Strict<A> {
    type Error = A::Error;

    fn next_element_seed<T: DeserializeSeed<'de>>(
        &mut self,
        seed: T,
    ) -> Result<Option<T::Value>, Self::Error> {
        self.0.next_element_seed(Strict(seed))
    }

    fn size_hint(&self) -> Option<usize> {
        self.0.size_hint()
    }
}

impl<'de, A: MapAccess<'de>> MapAccess<'de> for Strict<A> {
    type Error = A::Error;

    fn next_key_seed<K: DeserializeSeed<'de>>(&mut self, seed: K) -> Result<Option<K::Value>, Self::Error> {
        self.0.next_key_seed(Strict(seed))
    }

    fn next_value_seed<V: DeserializeSeed<'de>>(&mut self, seed: V) -> Result<V::Value, Self::Error> {
        self.0.next_value_seed(Strict(seed))
    }

    fn size_hint(&self) -> Option<usize> {
        self.0.size_hint()
    }
}

impl<'de, A: EnumAccess<'de>> EnumAccess<'de> for Strict<A> {
    type Error = A::Error;
    type Variant = Strict<A::Variant>;

    fn variant_seed<V: DeserializeSeed<'de>>(
        self,
        seed: V,
    ) -> Result<(V::Value, Self::Variant), Self::Error> {
        self.0.variant_seed(Strict(seed)).map(|(value, variant)| (value, Strict(variant)))
    }
}

impl<'de, A: VariantAccess<'de>> VariantAccess<'de> for Strict<A> {
    type Error = A::Error;

    fn unit_variant(self) -> Result<(), Self::Error> {
        self.0.unit_variant()
    }

    fn newtype_variant_seed<T: DeserializeSeed<'de>>(self, seed: T) -> Result<T::Value, Self::Error> {
        self.0.newtype_variant_seed(Strict(seed))
    }

    fn tuple_variant<V: Visitor<'de>>(self, len: usize, visitor: V) -> Result<V::Value, Self::Error> {
        self.0.tuple_variant(len, Strict(visitor))
    }

    fn struct_variant<V: Visitor<'de>>(
        self,
        fields: &'static [&'static str],
        visitor: V,
    ) -> Result<V::Value, Self::Error> {
        self.0.struct_variant(fields, Strict(visitor))
    }
}

#[cfg(test)]
mod tests {
    use crate::field::read;
    use crate::recipe::{Recipe, RecipeItem};

    #[test]
    fn a_list_is_no_object_however_deep_it_stands() {
        let place = |text: &str| read::<Recipe>(text).expect_err("refused").0.remove(0).path.to_string();
        assert_eq!(place(r#"["zymarch-recipe/1"]"#), "");
        assert_eq!(place(r#"{"format":"zymarch-recipe/1","items":[["wheat-straw",5]]}"#), "items[0]");
        assert_eq!(place(r#"{"format":"zymarch-recipe/1","items":[],"target":[[25,30]]}"#), "target");
        assert_eq!(place(r#"{"format":"zymarch-recipe/1","items":[],"measures":[["b",12]]}"#), "measures[0]");
    }

    #[test]
    fn what_is_written_as_it_should_be_is_read_as_before() {
        let text = r#"{"material":"wheat-straw","kg":5,"tests":[{"figure":"moisture_pct","value":12,"test":"drying","on":"2026-03-14"}]}"#;
        let strict = read::<RecipeItem>(text).expect("is sound");
        let plain: RecipeItem = serde_json::from_str(text).expect("is sound");
        assert_eq!(strict, plain);
    }
}
