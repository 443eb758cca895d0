//! The mixes of practice are judged as practice judges them, and the paper says so.

#[path = "../examples/practice.rs"]
mod practice;

use practice::{paper, practised};

#[test]
fn mixes_are_judged_as_practice_judges_them() {
    let all = practised();
    assert!(all.len() >= 30, "{}", all.len());
    for one in all {
        let far: Vec<&str> = one
            .judged
            .figures
            .complaints
            .iter()
            .filter(|flaw| flaw.far)
            .map(|flaw| flaw.flaw.as_str())
            .collect();
        if one.expect == ["works"] {
            assert_eq!(far, [""; 0], "{}", one.said);
        } else {
            for flaw in &one.expect {
                assert!(far.contains(&flaw.as_str()), "{}: {flaw} is not in {far:?}", one.said);
            }
        }
    }
}

#[test]
fn whatever_does_not_work_is_mended_by_something() {
    for one in practised().iter().filter(|one| one.expect != ["works"]) {
        assert!(one.mended.is_some(), "{}", one.said);
    }
}

#[test]
fn the_paper_is_what_the_command_writes() {
    let kept = include_str!("../../../docs/practice.md");
    assert_eq!(kept, paper(), "make practice writes it anew");
}
