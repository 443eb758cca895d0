//! A text as a picture for a phone's camera (QR code, ISO/IEC 18004).

use qrcode::{Color, QrCode};
use serde::Serialize;
use utoipa::ToSchema;

/// The picture, as rows of squares.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub(crate) struct Qr {
    /// Each row from the top: `1` for a dark square, `0` for a light one; without the light rim.
    rows: Vec<String>,
}

/// Light squares that a camera needs around it (ISO/IEC 18004, 6.3.8).
const RIM: usize = 4;

impl Qr {
    /// The picture of a text; of one that is too long for any, nothing.
    pub(crate) fn of(text: &str) -> Self {
        let Ok(code) = QrCode::new(text) else { return Self { rows: Vec::new() } };
        let is_dark = |color: &Color| if *color == Color::Dark { '1' } else { '0' };
        let rows =
            code.to_colors().chunks(code.width()).map(|row| row.iter().map(is_dark).collect()).collect();
        Self { rows }
    }

    /// The picture for a terminal of light letters on a dark ground: two rows in each line.
    pub(crate) fn in_a_terminal(&self) -> String {
        let across = self.rows.len() + 2 * RIM;
        let is_light = |x: usize, y: usize| {
            let row = y.checked_sub(RIM).and_then(|y| self.rows.get(y));
            let square = row.and_then(|row| x.checked_sub(RIM).and_then(|x| row.as_bytes().get(x)));
            y < across && square != Some(&b'1')
        };
        let sign = |x: usize, y: usize| match (is_light(x, y), is_light(x, y + 1)) {
            (true, true) => '█',
            (true, false) => '▀',
            (false, true) => '▄',
            (false, false) => ' ',
        };
        let line = |y: usize| (0..across).map(|x| sign(x, y)).collect::<String>();
        (0..across).step_by(2).map(line).collect::<Vec<_>>().join("\n")
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_picture_has_its_three_corners_and_a_rim() {
        let qr = Qr::of("https://192.168.1.20:8420/join#7K3QD-2M9XT");
        let last = qr.rows.len() - 7;
        for (row, column) in [(0, 0), (0, last), (last, 0)] {
            assert_eq!(qr.rows[row][column..column + 7], *"1111111");
            assert_eq!(qr.rows[row + 1][column..column + 7], *"1000001");
        }
        let drawn = qr.in_a_terminal();
        assert_eq!(drawn.lines().count(), (qr.rows.len() + 8).div_ceil(2));
        assert!(drawn.lines().next().is_some_and(|line| line.chars().all(|sign| sign == '█')));
    }

    #[test]
    fn what_is_too_long_has_no_picture() {
        assert_eq!(Qr::of(&"x".repeat(5000)).rows, [""; 0]);
    }
}
