//! Memory on a small board: a server begins itself again with few heaps.
//!
//! The C library gives each thread a heap of its own, and what one answer freed there no other thread can
//! use: half as much again as the farm needs. How many heaps there are is read before anything of this
//! program runs, so that it has to be said by whoever starts it.

/// Heaps of the C library: with two, threads do not wait for each other to be given memory.
#[cfg(all(target_os = "linux", target_env = "gnu"))]
const HEAPS: &str = "2";

/// Goes on as the same process with the same words, but with few heaps; where somebody has said how many, or
/// it cannot be, as it is.
#[cfg(all(target_os = "linux", target_env = "gnu"))]
pub(super) fn begin() {
    use std::os::unix::process::CommandExt as _;

    const SAID: &str = "MALLOC_ARENA_MAX";
    if std::env::var_os(SAID).is_some() {
        return;
    }
    let Ok(program) = std::env::current_exe() else { return };
    let mut words = std::env::args_os();
    let Some(name) = words.next() else { return };
    // It comes back only if it could not begin.
    let _error = std::process::Command::new(program).arg0(name).args(words).env(SAID, HEAPS).exec();
}

/// Other systems have allocators that share.
#[cfg(not(all(target_os = "linux", target_env = "gnu")))]
pub(super) const fn begin() {}
