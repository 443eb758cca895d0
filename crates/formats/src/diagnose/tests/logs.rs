//! Mixes, and logs of known trouble: at least two a cause.

use zymarch_core::tend::diagnose::CauseCode;

/// Mixes that logs are of: material and kg, and water last.
pub(super) const GOOD: &str = "wheat-straw 130, sheep-manure 330, vegetable-scraps 120, water 160";
pub(super) const GREEN: &str = "grass-clippings 420, layer-hen-manure 60, wheat-straw 50, water 0";
pub(super) const BROWN: &str = "wheat-straw 260, cattle-manure-fresh 60, water 380";
pub(super) const ASHEN: &str =
    "wheat-straw 130, sheep-manure 330, vegetable-scraps 120, wood-ash 14, water 160";
pub(super) const LIMP: &str =
    "vegetable-scraps 300, grass-clippings 300, cattle-manure-fresh 200, tree-leaves-dry 120, water 0";
pub(super) const CHIPS: &str = "wood-chips-hardwood 260, layer-hen-manure 60, sheep-manure 120, water 150";
pub(super) const STALKS: &str = "maize-stover 140, quinoa-amaranth-stalks 60, layer-hen-manure 80, water 260";
pub(super) const DRY: &str = "wheat-straw 160, sheep-manure 330, water 20";
pub(super) const BUCKETS: &str = "wheat-straw 22, sheep-manure 60, vegetable-scraps 20, water 26";
pub(super) const GREAT: &str = "wheat-straw 800, horse-manure-bedding 2600, sheep-manure 900, water 900";

pub(super) const HEATED: &str = "1 temperature 41; 2 temperature 56; 3 temperature 62; 5 temperature 60;";

/// Each log with the cause that a seasoned composter would name first.
pub(super) const LOGS: &[(CauseCode, &str, &str, f64, &str)] = &[
    (
        CauseCode::FireRisk,
        GREAT,
        "straw-manure",
        30.0,
        "20 temperature 71; 28 temperature 77; 29.5 temperature 79; 29.5 squeeze dusty",
    ),
    (
        CauseCode::FireRisk,
        GREAT,
        "straw-manure",
        24.0,
        "12 temperature 68; 23.5 temperature 74; 23.8 smell burnt; 23.8 seen steam",
    ),
    (
        CauseCode::TooHot,
        GOOD,
        "bay-turned",
        5.0,
        "2 temperature 60; 4 temperature 70; 4.9 temperature 73; 4.9 squeeze right",
    ),
    (
        CauseCode::TooHot,
        GREAT,
        "straw-manure",
        9.0,
        "3 temperature 64; 8.5 temperature 72; 8.9 temperature 73.5; 8.9 smell none",
    ),
    (CauseCode::Leaking, GOOD, "bay-turned", 4.0, "3 temperature 55; 3.5 seen liquid; 3.6 squeeze wet"),
    (CauseCode::Leaking, LIMP, "bay-turned", 6.0, "4 seen liquid; 5.5 seen liquid flies; 5.6 temperature 38"),
    (
        CauseCode::WeedKiller,
        GOOD,
        "bay-turned",
        120.0,
        "10 temperature 60; 100 temperature 22; 118 beans stunted",
    ),
    (CauseCode::WeedKiller, GOOD, "layered-heap", 90.0, "60 seen dark-crumbly; 85 beans stunted; 88 note"),
    (CauseCode::ScrapsExposed, GOOD, "slow-bin", 20.0, "10 temperature 24; 19 seen flies scraps-on-top"),
    (
        CauseCode::ScrapsExposed,
        GOOD,
        "bay-turned",
        8.0,
        "3 temperature 58; 7 temperature 57; 7.5 seen rodents; 7.5 squeeze right",
    ),
    (
        CauseCode::TooWet,
        LIMP,
        "bay-turned",
        8.0,
        "4 temperature 32; 7 temperature 29; 7 squeeze sodden; 7 smell sour",
    ),
    (
        CauseCode::TooWet,
        GOOD,
        "layered-heap",
        16.0,
        "5 temperature 57; 10 rain 40; 12 rain 25; 14 temperature 37; 15 squeeze wet; 15 smell rotten; 15 seen matted",
    ),
    (
        CauseCode::Packed,
        LIMP,
        "bay-turned",
        7.0,
        "3 temperature 34; 6.5 temperature 31; 6.5 squeeze right; 6.5 smell rotten; 6.5 seen matted",
    ),
    (
        CauseCode::Packed,
        LIMP,
        "layered-heap",
        9.0,
        "3 stick warm; 8.5 stick cool; 8.5 squeeze right; 8.6 smell sour rotten",
    ),
    (CauseCode::TooDry, DRY, "bay-turned", 7.0, "2 temperature 27; 6.5 temperature 29; 6.5 squeeze dusty"),
    (
        CauseCode::TooDry,
        DRY,
        "layered-heap",
        10.0,
        "4 stick cool; 9 stick cool; 9 seen ash-grey; 9 smell musty",
    ),
    (
        CauseCode::DriedOut,
        GOOD,
        "bay-turned",
        12.0,
        "2 temperature 58; 5 temperature 64; 8 temperature 55; 10 temperature 41; 11.5 temperature 38; 11.5 squeeze dusty; 11.5 seen ash-grey",
    ),
    (
        CauseCode::DriedOut,
        GOOD,
        "rapid-turned",
        11.0,
        "1.5 temperature 56; 3 temperature 65; 4 turn; 6 temperature 61; 7 turn; 9 temperature 43; 10.5 temperature 37; 10.6 squeeze damp; 10.6 seen dry-patches",
    ),
    (
        CauseCode::AirUsedUp,
        GOOD,
        "bay-turned",
        10.0,
        "2 temperature 57; 4 temperature 63; 6 temperature 54; 8 temperature 43; 9.5 temperature 40; 9.5 squeeze right",
    ),
    (
        CauseCode::AirUsedUp,
        GOOD,
        "layered-heap",
        13.0,
        "2 stick hot; 4 stick cannot-hold; 7 stick warm; 10 stick warm; 12.5 temperature 39; 12.5 squeeze right; 12.6 seen recognisable",
    ),
    (
        CauseCode::TooBrown,
        BROWN,
        "bay-turned",
        9.0,
        "3 temperature 27; 6 temperature 31; 8.5 temperature 29; 8.5 squeeze right; 8.5 smell none",
    ),
    (
        CauseCode::TooBrown,
        BROWN,
        "layered-heap",
        12.0,
        "5 stick cool; 9 stick cool; 11.5 stick cool; 11.5 squeeze right",
    ),
    (
        CauseCode::TooGreen,
        GREEN,
        "bay-turned",
        5.0,
        "2 temperature 62; 4.5 temperature 66; 4.5 smell ammonia",
    ),
    (
        CauseCode::TooGreen,
        GREEN,
        "rapid-turned",
        4.0,
        "1 stick hot; 3 stick cannot-hold; 3.5 smell ammonia; 3.5 squeeze right; 3.5 seen steam",
    ),
    (
        CauseCode::AshWithManure,
        ASHEN,
        "bay-turned",
        5.0,
        "2 temperature 57; 4.5 temperature 60; 4.5 smell ammonia",
    ),
    (
        CauseCode::AshWithManure,
        ASHEN,
        "layered-heap",
        7.0,
        "3 stick hot; 6.5 stick hot; 6.5 smell ammonia; 6.5 squeeze right",
    ),
    (
        CauseCode::TooCoarse,
        CHIPS,
        "bay-turned",
        9.0,
        "3 temperature 33; 8.5 temperature 31; 8.5 squeeze right",
    ),
    (
        CauseCode::TooCoarse,
        STALKS,
        "layered-heap",
        9.0,
        "4 stick cool; 8.5 stick cool; 8.5 squeeze right; 8.5 smell none",
    ),
    (
        CauseCode::TooSmall,
        BUCKETS,
        "bay-turned",
        6.0,
        "1 temperature 30; 2.5 temperature 38; 5.5 temperature 26; 5.5 squeeze right",
    ),
    (
        CauseCode::TooSmall,
        BUCKETS,
        "rapid-turned",
        8.0,
        "1.5 temperature 47; 2.5 temperature 40; 7.5 temperature 24; 7.5 squeeze right; 7.5 smell none",
    ),
    (
        CauseCode::OutsideRaw,
        GOOD,
        "bay-turned",
        40.0,
        "4 temperature 61; 12 temperature 58; 30 temperature 49; 39 seen raw-outside dark-crumbly; 39 temperature 41",
    ),
    (
        CauseCode::OutsideRaw,
        GOOD,
        "layered-heap",
        50.0,
        "6 temperature 59; 30 turn; 49 seen raw-outside; 49 squeeze right",
    ),
    (
        CauseCode::WasNotHot,
        GOOD,
        "slow-bin",
        200.0,
        "20 temperature 28; 100 temperature 18; 198 seen sprouts dark-crumbly",
    ),
    (CauseCode::WasNotHot, GOOD, "layered-heap", 80.0, "5 stick warm; 10 stick warm; 78 seen sprouts"),
    (
        CauseCode::Done,
        GOOD,
        "bay-turned",
        75.0,
        "4 temperature 61; 7 turn; 17 turn; 30 temperature 50; 55 turn; 55 water 20; 62 temperature 27; 74 temperature 23; 74 seen dark-crumbly; 74 smell earthy",
    ),
    (
        CauseCode::Done,
        GOOD,
        "rapid-turned",
        35.0,
        "2 temperature 60; 4 turn; 6 turn; 8 turn; 10 turn; 14 temperature 55; 20 turn; 26 temperature 36; 34 temperature 27; 34 smell earthy; 34 squeeze right",
    ),
    (CauseCode::TooSoon, GOOD, "bay-turned", 1.0, "0.9 temperature 24"),
    (CauseCode::TooSoon, GOOD, "layered-heap", 2.0, "1 stick cool; 1.9 stick cool; 1.9 squeeze right"),
];
