//! What is wrong with an input: where, what, and the numbers of the sentence.
//!
//! A fault is not a sentence. The locale files turn its code and parameters into
//! one, for the screen, the API and the terminal alike. A path is built on the way
//! down as a chain of borrowed steps ([`At`]), so that nothing is allocated until
//! something is wrong.

use std::fmt;

use crate::base::words::closed_list;

closed_list! {
    /// What is wrong. Its words stand in the locale files under `fault`.
    FaultCode {
        // Numbers.
        /// NaN or infinite.
        NotANumber = "not-a-number",
        /// Text where a number belongs: `got`.
        NotNumeric = "not-numeric",
        /// Less than nothing: `got`.
        Negative = "negative",
        /// More than is accepted: `got`, `most`.
        TooLarge = "too-large",
        /// Outside of what is met: `low`, `high`, `got`.
        OutOfRange = "out-of-range",
        /// Must be above an edge: `above`, `most`, `got`.
        NotAbove = "not-above",
        /// Must be above zero.
        NotAboveZero = "not-above-zero",
        /// A share is from 0 to 1: `got`.
        NotAFraction = "not-a-fraction",
        /// Not a whole number: `got`, `most`.
        NotWhole = "not-whole",
        /// A band runs from low to high within edges: `least`, `most`, `low`, `high`.
        NotABand = "not-a-band",
        /// Two numbers, the lower one first.
        NotInOrder = "not-in-order",
        /// A usual value outside its own range: `got`, `low`, `high`.
        NotInItsRange = "not-in-its-range",
        /// Steps are whole or halves: `got`.
        NotAStep = "not-a-step",
        /// Nothing to divide by there.
        NeedsSize = "needs-size",
        /// Smaller than what it is compared with: `least`.
        TooSmall = "too-small",
        // Words and names.
        /// None of a closed list: `got`, `known`.
        UnknownWord = "unknown-word",
        /// A field that nothing reads: `got`.
        UnknownField = "unknown-field",
        /// A material that is not known: `got`.
        UnknownMaterial = "unknown-material",
        /// The same, when one is spelled alike: `got`, `near`.
        UnknownMaterialNear = "unknown-material-near",
        /// Not a material known at this farm.
        NoSuchMaterial = "no-such-material",
        /// A material outside the table lacks a figure.
        MissingFigure = "missing-figure",
        /// Not among the measures: `got`.
        UnknownMeasure = "unknown-measure",
        /// Not a measure of this site.
        NoSuchMeasure = "no-such-measure",
        /// Comes back to itself.
        MeasureOfItself = "measure-of-itself",
        /// Not a method known here.
        NoSuchMethod = "no-such-method",
        /// Not a starter known here.
        NoSuchStarter = "no-such-starter",
        /// Points to something that is not there: `got`.
        NoSuchReference = "no-such-reference",
        /// Not a caution: `got`.
        UnknownCaution = "unknown-caution",
        /// Not in lower case with hyphens: `got`.
        NotASlug = "not-a-slug",
        /// The reference table has it already: `got`.
        TakenByTable = "taken-by-table",
        /// Empty where a name belongs.
        EmptyName = "empty-name",
        /// Longer than allowed: `most`.
        TooLong = "too-long",
        /// Signs that are no letters.
        ControlSigns = "control-signs",
        /// Not a day such as 2026-03-14: `got`.
        NotADay = "not-a-day",
        /// Not a time such as 2026-03-14T08:00Z: `got`.
        NotATime = "not-a-time",
        /// A day in the future.
        InFuture = "in-future",
        /// More than ten years away.
        TooFarAway = "too-far-away",
        // Shape of a document.
        /// Left out.
        Missing = "missing",
        /// Empty list: at least one is needed.
        Empty = "empty",
        /// More than allowed: `got`, `most`.
        TooMany = "too-many",
        /// Fewer or more than allowed: `got`, `least`, `most`.
        CountOutside = "count-outside",
        /// Stands there twice.
        Twice = "twice",
        /// Of another format: `got`, `expected`.
        WrongFormat = "wrong-format",
        /// Names no format: `expected`.
        NoFormat = "no-format",
        /// Larger than read here: `most_kb`.
        DocumentTooLarge = "document-too-large",
        /// Not JSON.
        NotJson = "not-json",
        /// Something after the end.
        AfterEnd = "after-end",
        /// Of another type: `got`, `expected`.
        WrongType = "wrong-type",
        /// A value that cannot be read.
        Unreadable = "unreadable",
        /// Not text in UTF-8.
        NotUtf8 = "not-utf8",
        /// Sent as something else than JSON.
        NotSentAsJson = "not-sent-as-json",
        /// A body that could not be read.
        BodyUnread = "body-unread",
        /// Cells that do not fit the columns: `got`, `columns`.
        WrongCells = "wrong-cells",
        /// A row of a table that could not be read.
        UnreadRow = "unread-row",
        /// A column is missing.
        ColumnMissing = "column-missing",
        /// A column stands twice.
        ColumnTwice = "column-twice",
        /// A column is not known.
        ColumnUnknown = "column-unknown",
        /// Twelve months are needed: `got`.
        TwelveMonths = "twelve-months",
        /// The data file, or its folder, cannot be used: `why`.
        FileUnusable = "file-unusable",
        /// The data file was written by a later version: `version`.
        LaterVersion = "later-version",
        /// No data file of this program: `why`.
        NotADataFile = "not-a-data-file",
        /// Where it cannot listen: `why`.
        CannotListen = "cannot-listen",
        /// Only this machine's own addresses: `got`.
        NotLoopback = "not-loopback",
        /// A format that is not known: `got`, `known`.
        UnknownFormat = "unknown-format",
        /// A file that could not be opened: `why`.
        FileUnread = "file-unread",
        // Amounts.
        /// Says no amount.
        NoAmount = "no-amount",
        /// Says its amount twice.
        TwoAmounts = "two-amounts",
        /// Says an amount where none belongs.
        AmountUnwanted = "amount-unwanted",
        /// Counted in which measure?
        MeasureMissing = "measure-missing",
        /// A measure where none belongs.
        MeasureUnwanted = "measure-unwanted",
        /// How many measures?
        CountMissing = "count-missing",
        /// What one holds belongs with the unit, and only with it.
        MeasureLitresMismatch = "measure-litres-mismatch",
        /// More than there is: `got`, `most`.
        MoreThanThereIs = "more-than-there-is",
        /// Lignin and ash are more than the dry matter.
        MoreThanDryMatter = "more-than-dry-matter",
        /// Names one of kind and material.
        OneOfKindAndMaterial = "one-of-kind-and-material",
        /// A lot becomes impossibly large by it.
        LotTooLarge = "lot-too-large",
        // What goes into a heap.
        /// Must not go into a heap.
        MustNotGoIn = "must-not-go-in",
        /// Goes into no heap and is no stock.
        NoStock = "no-stock",
        /// A mix without any mass.
        MixEmpty = "mix-empty",
        /// A mix without nitrogen.
        NoNitrogen = "no-nitrogen",
        /// Not the next step, nor one that was laid.
        NotTheStep = "not-the-step",
        /// Not in the heap, nor among the new things.
        NotInHeap = "not-in-heap",
        /// Nothing laid, or nothing to come.
        NothingToEnd = "nothing-to-end",
        /// Nothing to put it right with.
        NothingToMend = "nothing-to-mend",
        /// Not in the recipe.
        NotInRecipe = "not-in-recipe",
        // Shapes, methods, tests.
        /// A side that the shape has and that is not given: `shape`.
        SideMissing = "side-missing",
        /// A side that the shape does not have: `shape`.
        SideUnwanted = "side-unwanted",
        /// Turned too seldom for a hot heap: `most`.
        TurnedTooSeldom = "turned-too-seldom",
        /// Given where the method copied has none, or the other way round.
        UnlikeBase = "unlike-base",
        /// Layers named twice, or where there are none.
        BadPattern = "bad-pattern",
        /// Not heavier than the empty container.
        NotHeavier = "not-heavier",
        /// Drier than its own solids, or gaining weight while it dries.
        GainsWeight = "gains-weight",
        /// More than were sown.
        MoreThanSown = "more-than-sown",
        /// More than came up.
        MoreThanUp = "more-than-up",
        /// Judged before they were sown.
        BeforeSown = "before-sown",
        /// The kind of a test stays.
        KindStays = "kind-stays",
        /// Heavier than the volume can hold.
        TooHeavy = "too-heavy",
        // Records.
        /// There is none, or it was removed: `kind`.
        NotFound = "not-found",
        /// Changed elsewhere since it was read: `kind`, `current`, `given`.
        Stale = "stale",
        /// A name that another has: `kind`, `name`.
        NameTaken = "name-taken",
        /// The last of its kind must stay: `kind`.
        LastOne = "last-one",
        /// Another leans on it: `kind`.
        InUse = "in-use",
        /// More asked than is left: `left`.
        NotEnough = "not-enough",
        /// Points to a record that is not there.
        Dangling = "dangling",
        /// An entry of that id says something else.
        EntryTaken = "entry-taken",
        /// Taken from stock already.
        TakenAlready = "taken-already",
        /// A heap built of it took what went in.
        HeapHasTaken = "heap-has-taken",
        /// Cannot be undone by itself.
        NotUndoable = "not-undoable",
        /// No version or id was given for what must have one.
        NoVersion = "no-version",
        // The machine.
        /// The data file is busy.
        Busy = "busy",
        /// A defect, or the data file refused: `why`.
        Broken = "broken",
        /// An address that has nothing.
        NothingThere = "nothing-there",
        /// Only to be read.
        OnlyRead = "only-read",
        /// Not from this machine's own pages: `header`.
        Stranger = "stranger",
    }
}

closed_list! {
    /// What kind of no a fault is.
    FaultClass {
        /// The input is at fault.
        Refused = "refused",
        /// There is nothing of that name.
        NotFound = "not-found",
        /// It does not go with what is there now.
        Conflict = "conflict",
        /// Not now.
        Busy = "busy",
        /// Not the input's fault.
        Broken = "broken",
    }
}

impl FaultCode {
    /// What kind of no it is.
    #[must_use]
    pub const fn class(self) -> FaultClass {
        match self {
            Self::NotFound | Self::NothingThere => FaultClass::NotFound,
            Self::Stale | Self::NameTaken | Self::LastOne | Self::InUse | Self::EntryTaken => {
                FaultClass::Conflict
            }
            Self::Busy => FaultClass::Busy,
            Self::Broken => FaultClass::Broken,
            _ => FaultClass::Refused,
        }
    }
}

/// A number or word of a fault's sentence.
#[derive(Debug, Clone, PartialEq)]
pub enum Param {
    /// A number.
    Number(f64),
    /// A word, as it was given or as the formats spell it.
    Text(String),
    /// Several.
    Words(Vec<String>),
}

impl From<f64> for Param {
    fn from(value: f64) -> Self {
        Self::Number(value)
    }
}

impl From<usize> for Param {
    fn from(value: usize) -> Self {
        Self::Number(value as f64)
    }
}

impl From<i64> for Param {
    fn from(value: i64) -> Self {
        Self::Number(value as f64)
    }
}

impl From<&str> for Param {
    /// What was given may be of any length; a sentence keeps to what can be read.
    fn from(text: &str) -> Self {
        Self::Text(text.chars().take(LONGEST_SHOWN).collect())
    }
}

impl From<String> for Param {
    fn from(text: String) -> Self {
        Self::from(text.as_str())
    }
}

impl<'a> FromIterator<&'a str> for Param {
    fn from_iter<I: IntoIterator<Item = &'a str>>(words: I) -> Self {
        Self::Words(words.into_iter().map(str::to_owned).collect())
    }
}

const LONGEST_SHOWN: usize = 60;

/// A step of a path.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Seg {
    /// A field.
    Key(std::borrow::Cow<'static, str>),
    /// A place in a list, from 0.
    Index(usize),
}

/// Where in an input something stands, as `items[1].moisture_pct`; empty for the whole.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Path(Vec<Seg>);

impl Path {
    /// A path from its steps.
    #[must_use]
    pub fn new(steps: Vec<Seg>) -> Self {
        Self(steps)
    }

    /// Its steps, from the outside in.
    #[must_use]
    pub fn steps(&self) -> &[Seg] {
        &self.0
    }

    /// Whether it is the whole.
    #[must_use]
    pub fn is_whole(&self) -> bool {
        self.0.is_empty()
    }
}

impl From<&'static str> for Path {
    fn from(field: &'static str) -> Self {
        if field.is_empty() { Self::default() } else { Self(vec![Seg::Key(field.into())]) }
    }
}

impl fmt::Display for Path {
    fn fmt(&self, to: &mut fmt::Formatter<'_>) -> fmt::Result {
        for (place, step) in self.0.iter().enumerate() {
            match step {
                Seg::Key(key) if place == 0 => write!(to, "{key}")?,
                Seg::Key(key) => write!(to, ".{key}")?,
                Seg::Index(index) => write!(to, "[{index}]")?,
            }
        }
        Ok(())
    }
}

/// A place on the way down into an input. Costs nothing until a fault asks for its path.
///
/// # Example
/// ```
/// use zymarch_core::base::fault::At;
/// let (root, items) = (At::ROOT, At::ROOT.key("items"));
/// let second = items.index(1);
/// assert_eq!(second.key("moisture_pct").path().to_string(), "items[1].moisture_pct");
/// assert_eq!(root.path().to_string(), "");
/// ```
#[derive(Debug, Clone, Copy)]
pub struct At<'a> {
    up: Option<&'a At<'a>>,
    step: Option<Here>,
}

#[derive(Debug, Clone, Copy)]
enum Here {
    Key(&'static str),
    Index(usize),
}

impl<'a> At<'a> {
    /// The whole.
    pub const ROOT: At<'static> = At { up: None, step: None };

    /// A field of what stands here.
    #[must_use]
    pub const fn key(&'a self, key: &'static str) -> Self {
        Self { up: Some(self), step: Some(Here::Key(key)) }
    }

    /// A place in the list that stands here.
    #[must_use]
    pub const fn index(&'a self, index: usize) -> Self {
        Self { up: Some(self), step: Some(Here::Index(index)) }
    }

    /// The path to here.
    #[must_use]
    pub fn path(&self) -> Path {
        let mut steps = Vec::new();
        let mut at = Some(self);
        while let Some(here) = at {
            steps.extend(here.step.map(|step| match step {
                Here::Key(key) => Seg::Key(key.into()),
                Here::Index(index) => Seg::Index(index),
            }));
            at = here.up;
        }
        steps.reverse();
        Path(steps)
    }

    /// A fault here.
    #[must_use]
    pub fn fault(&self, code: FaultCode) -> Fault {
        Fault { path: self.path(), ..Fault::new(code) }
    }

    /// A fault found further down, with the path to here before its own.
    #[must_use]
    pub fn put(&self, mut fault: Fault) -> Fault {
        let mut path = self.path();
        path.0.append(&mut fault.path.0);
        Fault { path, ..fault }
    }
}

/// One thing wrong with an input.
#[derive(Debug, Clone, PartialEq)]
pub struct Fault {
    /// Where; empty for the whole.
    pub path: Path,
    /// Line of the text it stands on, from 1, where there is a text.
    pub line: Option<usize>,
    /// What.
    pub code: FaultCode,
    /// The numbers and words of its sentence, named.
    pub params: Vec<(&'static str, Param)>,
}

impl Fault {
    /// A fault of the whole.
    #[must_use]
    pub fn new(code: FaultCode) -> Self {
        Self { path: Path::default(), line: None, code, params: Vec::new() }
    }

    /// A fault of a field.
    #[must_use]
    pub fn of(field: &'static str, code: FaultCode) -> Self {
        Self { path: field.into(), ..Self::new(code) }
    }

    /// The same, with a number or word for its sentence.
    #[must_use]
    pub fn with(mut self, name: &'static str, value: impl Into<Param>) -> Self {
        self.params.push((name, value.into()));
        self
    }

    /// The same, on a line of its text.
    #[must_use]
    pub fn on_line(mut self, line: usize) -> Self {
        self.line = Some(line);
        self
    }
}

/// Where and what, for logs and tests: the sentence is made from the locale files.
impl fmt::Display for Fault {
    fn fmt(&self, to: &mut fmt::Formatter<'_>) -> fmt::Result {
        if let Some(line) = self.line {
            write!(to, "{line}:")?;
        }
        write!(to, "{}:{}", self.path, self.code.as_str())?;
        self.params.iter().try_for_each(|(name, value)| write!(to, " {name}={value:?}"))
    }
}

impl std::error::Error for Fault {}

/// Everything found wrong with an input; at least one fault.
#[derive(Debug, Clone, PartialEq)]
pub struct Faults(pub Vec<Fault>);

impl Faults {
    /// One fault of a field.
    #[must_use]
    pub fn one(field: &'static str, code: FaultCode) -> Self {
        Fault::of(field, code).into()
    }

    /// What was made, if nothing was found wrong with it.
    ///
    /// # Errors
    /// The faults, if there are any.
    pub fn or<T>(found: Vec<Fault>, made: impl FnOnce() -> T) -> Result<T, Self> {
        if found.is_empty() { Ok(made()) } else { Err(Self(found)) }
    }

    /// The same, each with the path to here before its own.
    #[must_use]
    pub fn under(self, at: &At<'_>) -> Self {
        Self(self.0.into_iter().map(|fault| at.put(fault)).collect())
    }
}

impl From<Fault> for Faults {
    fn from(fault: Fault) -> Self {
        Self(vec![fault])
    }
}

impl fmt::Display for Faults {
    fn fmt(&self, to: &mut fmt::Formatter<'_>) -> fmt::Result {
        for (place, fault) in self.0.iter().enumerate() {
            write!(to, "{}{fault}", if place > 0 { "\n" } else { "" })?;
        }
        Ok(())
    }
}

impl std::error::Error for Faults {}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_fault_found_below_bears_the_whole_path() {
        let (items, kg) = (At::ROOT.key("items"), Fault::of("kg", FaultCode::Negative).with("got", -2.0));
        let fault = items.index(3).put(kg);
        assert_eq!(fault.path.to_string(), "items[3].kg");
        assert_eq!(fault.params, [("got", Param::Number(-2.0))]);
    }

    #[test]
    fn a_long_word_is_cut_to_what_can_be_read() {
        let fault = Fault::new(FaultCode::UnknownWord).with("got", "x".repeat(5000));
        assert_eq!(fault.params[0].1, Param::Text("x".repeat(60)));
    }

    #[test]
    fn no_code_is_spelled_twice() {
        for (place, code) in FaultCode::ALL.iter().enumerate() {
            assert!(FaultCode::ALL[place + 1..].iter().all(|other| other.as_str() != code.as_str()));
        }
    }
}
