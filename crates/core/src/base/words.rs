//! Closed lists that data files and open formats write as words.
//!
//! Each is one enum here and, with the feature `schema`, one union of words in the
//! description of the API: renaming a word breaks every client that spells it.

/// Makes an enum whose every value has a word, a list of all, and a reader.
#[macro_export]
macro_rules! closed_list {
    ($(#[$doc:meta])* $name:ident { $($(#[$vdoc:meta])* $variant:ident = $text:literal),* $(,)? }) => {
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
        pub enum $name { $($(#[$vdoc])* $variant),* }

        impl $name {
            /// Every value, in the order of the list.
            pub const ALL: &'static [Self] = &[$(Self::$variant),*];

            /// The word the data files and the open formats use.
            #[must_use]
            pub const fn as_str(self) -> &'static str {
                match self { $(Self::$variant => $text),* }
            }

            /// The value for a word, if it is on the list.
            #[must_use]
            pub fn parse(word: &str) -> Option<Self> {
                Self::ALL.iter().copied().find(|value| value.as_str() == word)
            }

            /// All words of the list, for the sentence that refuses another.
            #[must_use]
            pub fn known() -> $crate::base::fault::Param {
                Self::ALL.iter().map(|value| value.as_str()).collect()
            }
        }

        impl serde::Serialize for $name {
            fn serialize<S: serde::Serializer>(&self, to: S) -> Result<S::Ok, S::Error> {
                to.serialize_str(self.as_str())
            }
        }

        impl<'de> serde::Deserialize<'de> for $name {
            fn deserialize<D: serde::Deserializer<'de>>(from: D) -> Result<Self, D::Error> {
                let word = <std::borrow::Cow<'de, str>>::deserialize(from)?;
                Self::parse(&word).ok_or_else(|| {
                    serde::de::Error::unknown_variant(&word, &[$($text),*])
                })
            }
        }

        $crate::describe_list!($name [$($text),*]);
    };
}

/// Tells the words of a list to the description of the API.
#[doc(hidden)]
#[cfg(feature = "schema")]
#[macro_export]
macro_rules! describe_list {
    ($name:ident [$($text:literal),*]) => {
        impl utoipa::PartialSchema for $name {
            fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::schema::Schema> {
                utoipa::openapi::schema::ObjectBuilder::new()
                    .schema_type(utoipa::openapi::schema::Type::String)
                    .enum_values(Some([$($text),*]))
                    .into()
            }
        }

        impl utoipa::ToSchema for $name {}
    };
}

/// Nothing describes itself without the feature `schema`.
#[doc(hidden)]
#[cfg(not(feature = "schema"))]
#[macro_export]
macro_rules! describe_list {
    ($name:ident [$($text:literal),*]) => {};
}

pub use closed_list;
