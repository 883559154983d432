//! Values between known ones: on a line and over a plane.

/// The value at a place on a line: straight between rows in their order, the first and the last held beyond them; `None` without any.
pub(crate) fn straight_between(rows: &[(f64, f64)], at: f64) -> Option<f64> {
    let next = rows.partition_point(|r| r.0 < at);
    match (next.checked_sub(1).and_then(|i| rows.get(i)), rows.get(next)) {
        // The one before lies below, the next one does not: they are apart.
        (Some(a), Some(b)) => Some(a.1 + (b.1 - a.1) * (at - a.0) / (b.0 - a.0)),
        (None, Some(one)) | (Some(one), None) => Some(one.1),
        (None, None) => None,
    }
}

/// The value at a place: the mean of all known ones with weights that fall off with the square of the distance (Shepard 1968, from
/// memory). It passes through every point and never goes beyond them; `None` without any.
pub(crate) fn between_points(points: &[(f64, f64, f64)], x: f64, y: f64) -> Option<f64> {
    let (mut sum, mut weights) = (0.0, 0.0);
    for (px, py, value) in points {
        let weight = 1.0 / ((px - x).powi(2) + (py - y).powi(2)).max(1e-6);
        sum += weight * value;
        weights += weight;
    }
    (weights > 0.0).then(|| sum / weights)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn on_a_line_it_goes_straight_and_holds_beyond_its_rows() {
        let rows = [(4.0, 1.0), (6.0, 3.0), (9.0, 4.5)];
        let at = |x| straight_between(&rows, x).unwrap();
        // By hand: half way from 4 to 6, a third of the way from 6 to 9.
        assert_eq!((at(5.0), at(7.0), at(6.0), at(1.0), at(20.0)), (2.0, 3.5, 3.0, 1.0, 4.5));
        assert_eq!((straight_between(&rows[..1], 5.0), straight_between(&[], 5.0)), (Some(1.0), None));
        assert_eq!(straight_between(&[(4.0, 1.0), (4.0, 2.0)], 4.0), Some(1.0));
    }

    #[test]
    fn it_passes_through_its_points_and_lies_between_them() {
        let points = [(0.0, 0.0, 4.0), (10.0, 0.0, 8.0)];
        assert!((between_points(&points, 0.0, 0.0).unwrap() - 4.0).abs() < 1e-6);
        assert!((between_points(&points, 5.0, 0.0).unwrap() - 6.0).abs() < 1e-9);
        assert!((4.0..=8.0).contains(&between_points(&points, 90.0, 70.0).unwrap()));
        assert_eq!(between_points(&[], 0.0, 0.0), None);
    }
}
