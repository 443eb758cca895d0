//! Every code of the list, by what it makes the tool do.

use super::*;
use crate::plan::method;
use crate::stock::caution::{Moment, all, find};

/// Code, moments it is said at, methods that refuse it, methods that mind it.
/// Methods by their first letters: R(apid) B(ay) L(ayered) M(straw-manure)
/// S(low bin) H(sheet) W(ire) T(ower) D(rum) U(tumbler) F(ibre) C(har) O(worm bin) P(it) Q(worm bed).
const TABLE: &[(&str, &str, &str, &str)] = &[
    ("never", "stock", "RBLMSHWTDUFCOPQ", ""),
    ("not-open-heap", "stock", "RBLMSHWTDUFCOPQ", ""),
    ("faecal-parasites", "stock", "RBLMSHWTDUFCOPQ", ""),
    ("persistent-herbicide", "stock", "RBLMSHWTDUFCOPQ", ""),
    ("hot-only", "method", "SHWTDUFCOQ", "RBLMP"),
    ("pathogens-raw-manure", "stock build use", "", "SHWTDUFCOQ"),
    ("zoonotic", "stock build", "", "OQ"),
    ("local-rules", "stock use", "", ""),
    ("small-doses", "mix", "", ""),
    ("high-ph-drives-off-ammonia", "mix", "", ""),
    ("avoid-static", "method", "", "WTC"),
    ("toxic-raw", "stock build", "", ""),
    ("not-for-worms", "method", "OQ", "T"),
    ("plant-disease", "method use", "", "LMSHWTDUFCOPQ"),
    ("regrows", "method", "", "LMSHWTDUFCOPQ"),
    ("weed-seeds", "method", "", "LMSHWTDUFCOPQ"),
    ("attracts-pests", "stock", "", "SHW"),
    ("bury-deep", "build", "", ""),
    ("spray-check", "stock", "", ""),
    ("drug-residues", "stock", "", "TCOQ"),
    ("heavy-metal", "stock use", "", ""),
    ("saline", "mix use", "", "TOQ"),
    ("chloride", "use", "", ""),
    ("ammonia-loss", "stock", "", ""),
    ("leachate", "stock", "", "DUOQ"),
    ("odour", "stock build", "", ""),
    ("allelopathic", "use", "", "SHWDUFC"),
    ("caustic", "stock build", "OQ", ""),
    ("dust", "build", "", ""),
    ("tetanus", "build", "", ""),
    ("sharp", "build", "", ""),
    ("fire-risk", "stock", "", ""),
    ("foreign-bits", "stock", "", "OQ"),
    ("mats-when-wet", "build", "", "HWTCOQ"),
    ("acidic", "stock", "", "FOQ"),
    ("soak-first", "build", "", "WTCOQ"),
    ("chop-first", "build", "", ""),
    ("gloves", "build", "", ""),
];

const LETTERS: &str = "RBLMSHWTDUFCOPQ";

fn letters(caution: Caution, stance: Stance) -> String {
    method::all()
        .iter()
        .zip(LETTERS.chars())
        .filter(|(method, _)| in_method(caution, method) == stance)
        .map(|(_, letter)| letter)
        .collect()
}

#[test]
fn every_code_is_said_refused_and_minded_as_the_table_has_it() {
    assert_eq!(TABLE.len(), all().count(), "a code is missing here");
    for (code, moments, refused, minded) in TABLE {
        let caution = find(code).unwrap_or_else(|| panic!("{code} is not on the list"));
        let said: Vec<_> = caution.moments().map(Moment::as_str).collect();
        assert_eq!(said.join(" "), *moments, "{code}");
        assert_eq!(letters(caution, Stance::Refused), *refused, "{code} refused");
        let sorted = |text: &str| LETTERS.chars().filter(|c| text.contains(*c)).collect::<String>();
        assert_eq!(letters(caution, Stance::Minded), sorted(minded), "{code} minded");
    }
}

#[test]
fn every_word_of_the_list_means_something() {
    for caution in all() {
        for word in [caution.refused_in, caution.minded_in, caution.share].iter().flat_map(|c| c.split(';')) {
            assert!(
                word.is_empty() || method::all().iter().any(|method| method.is_meant_by(word)),
                "{}: {word}",
                caution.code
            );
        }
        assert!(caution.moments().count() > 0, "{} is never said", caution.code);
        assert!(all().filter(|other| other.code == caution.code).count() == 1);
    }
}
