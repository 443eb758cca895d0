//! Everything that can be wrong, and what kind of no it is.

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
        /// All ash, and yet it is said to hold carbon.
        CarbonInAsh = "carbon-in-ash",
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
        /// Of another format: `is`, `must_be`.
        WrongFormat = "wrong-format",
        /// Names no format: `expected`.
        NoFormat = "no-format",
        /// Larger than read here: `most_kb`.
        DocumentTooLarge = "document-too-large",
        /// Not JSON.
        NotJson = "not-json",
        /// Something after the end.
        AfterEnd = "after-end",
        /// Of another type: `is`, `must_be`.
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
        /// A heap that is reckoned runs empty of what it holds: `hour`.
        RunsEmpty = "runs-empty",
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
        /// So many more: `count`.
        AndMore = "and-more",
        // The machine.
        /// The data file is busy.
        Busy = "busy",
        /// Another program keeps the data file locked.
        FileLocked = "file-locked",
        /// The data file was deleted while it was open.
        FileGone = "file-gone",
        /// Another file stands in its place.
        FileReplaced = "file-replaced",
        /// The data file may only be read.
        FileOnlyRead = "file-only-read",
        /// The data file cannot be reached: `why`.
        FileUnreachable = "file-unreachable",
        /// No room on the disk.
        DiskFull = "disk-full",
        /// SQLite finds the file damaged: `why`.
        FileDamaged = "file-damaged",
        /// Another server has the file: `process`.
        FileTaken = "file-taken",
        /// Not the made-up farm's file.
        NotDemo = "not-demo",
        /// A defect, or the data file refused: `why`.
        Broken = "broken",
        /// An address that has nothing.
        NothingThere = "nothing-there",
        /// Only to be read.
        OnlyRead = "only-read",
        /// It did not come whole, or was not answered, in time.
        TooSlow = "too-slow",
        /// An address that is asked otherwise.
        OtherMethod = "other-method",
        /// Not from this machine's own pages: `header`.
        Stranger = "stranger",
        // People.
        /// Nobody is signed in, or was cut off, or it was too long ago.
        SignInFirst = "sign-in-first",
        /// Not for this role: `role`.
        NotYourRole = "not-your-role",
        /// Name and passphrase do not go together.
        WrongPassphrase = "wrong-passphrase",
        /// A code that lets nobody in: mistyped, used, withdrawn or too old.
        WrongCode = "wrong-code",
        /// Too many failures: `seconds`.
        Slowed = "slowed",
        /// Somebody is there already, so nobody is the first.
        NotTheFirst = "not-the-first",
        /// Only on the machine itself.
        OnlyOnTheMachine = "only-on-the-machine",
        /// Without an owner nobody could let anybody in.
        LastOwner = "last-owner",
        /// Too short: `least`.
        PassphraseShort = "passphrase-short",
        /// Too long: `most`.
        PassphraseLong = "passphrase-long",
        /// Guessed soon.
        PassphraseEasy = "passphrase-easy",
        /// Nobody is given no site.
        NoSiteGiven = "no-site-given",
        /// Not a site of one's own.
        NoSuchSite = "no-such-site",
        /// No name of a machine: `got`.
        NotAHostName = "not-a-host-name",
        /// Not a scheme and a host: `got`.
        NotAnOrigin = "not-an-origin",
        /// A certificate that cannot be read or made: `why`.
        CannotSeal = "cannot-seal",
        /// Nobody is an owner yet.
        OwnerFirst = "owner-first",
        /// Not a lot of this site.
        NoSuchLot = "no-such-lot",
        /// Nothing, and something beside it.
        NoneAndMore = "none-and-more",
        /// A time before the heap was begun: `begun`.
        BeforeBegun = "before-begun",
        /// A photo without a picture, or a picture where none belongs.
        PhotoMissing = "photo-missing",
        /// Not a JPEG, WebP or PNG.
        NoPicture = "no-picture",
        /// No probe is known by that.
        NoSuchProbe = "no-such-probe",
        /// A unit that is not read here: `got`, `known`.
        UnknownUnit = "unknown-unit",
        /// A file without a column that holds times.
        NoTimeColumn = "no-time-column",
        /// A file without a column of temperatures.
        NoTempColumn = "no-temp-column",
        /// A zone that is not known: `got`.
        UnknownZone = "unknown-zone",
        /// Nothing in a file can be read.
        NothingToRead = "nothing-to-read",
        /// A time that stands in a file twice: `got`.
        TimeTwice = "time-twice",
        /// Something that cannot be taken in from a file: `got`.
        NotFromAFile = "not-from-a-file",
        /// It could not be sent: `why`.
        NotSent = "not-sent",
        /// The heap was not built yet.
        NotBuilt = "not-built",
        /// A result without a figure.
        NothingMeasured = "nothing-measured",
        /// Shares as received, and the water is not told.
        MoistureMissing = "moisture-missing",
        /// Compost that was used since, or of which rejects went on.
        UsedSince = "used-since",
        /// Neither ground nor number tells how much: one of them is wanted.
        SizeMissing = "size-missing",
        /// Not a place of this site.
        NoSuchGround = "no-such-ground",
        /// All of it was taken out before.
        Emptied = "emptied",
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
            Self::Stale
            | Self::NameTaken
            | Self::LastOne
            | Self::InUse
            | Self::UsedSince
            | Self::EntryTaken
            | Self::NotTheFirst
            | Self::LastOwner => FaultClass::Conflict,
            Self::Busy
            | Self::FileLocked
            | Self::FileGone
            | Self::FileReplaced
            | Self::FileOnlyRead
            | Self::FileUnreachable
            | Self::DiskFull => FaultClass::Busy,
            Self::Broken => FaultClass::Broken,
            _ => FaultClass::Refused,
        }
    }
}
