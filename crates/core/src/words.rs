//! Closed lists that data files and open formats write as words.

/// Makes an enum whose every value has a word, a list of all, and a reader.
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
        }
    };
}

pub(crate) use closed_list;
