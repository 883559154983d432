//! Values between scattered points.

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
    fn it_passes_through_its_points_and_lies_between_them() {
        let points = [(0.0, 0.0, 4.0), (10.0, 0.0, 8.0)];
        assert!((between_points(&points, 0.0, 0.0).unwrap() - 4.0).abs() < 1e-6);
        assert!((between_points(&points, 5.0, 0.0).unwrap() - 6.0).abs() < 1e-9);
        assert!((4.0..=8.0).contains(&between_points(&points, 90.0, 70.0).unwrap()));
        assert_eq!(between_points(&[], 0.0, 0.0), None);
    }
}
