//! Where a camera stood, from the four corners of a sheet of paper in its picture.
//!
//! A pinhole camera whose axis goes through the middle of the picture. Its turn, its place and its focal length are those under which the corners
//! fall where they were seen, the focal length held by what lenses usually have: a picture from straight above does not tell it.

use nalgebra::{Matrix3, Rotation3, SMatrix, SVector, Vector3};

/// The focal length of a picture that does not say it, of its diagonal, and how far lenses are from that (as a share): telephones have 24 to 28 mm
/// on film of 43.3 mm diagonal, small cameras up to 50. From memory.
const FOCAL: f64 = 0.70;
const FOCAL_FROM_THAT: f64 = 0.25;
/// The same where the file says it: it may have been cut down since. Our own choice.
const FOCAL_FROM_SAID: f64 = 0.05;
/// Diagonal of film of 36 by 24 mm.
const FILM_DIAGONAL_MM: f64 = 43.27;
/// Corners are laid this well, of the picture's diagonal. Our own choice.
const CORNER: f64 = 0.0004;
const STEPS: usize = 60;

/// A camera over a sheet of paper. Millimetres from the paper's first corner, x along its first side and y along its second, z into the table.
#[derive(Debug, Clone)]
pub(super) struct Pose {
    turn: Matrix3<f64>,
    shift: Vector3<f64>,
    /// How far the corners fall from where they were seen, px, root of the mean square.
    pub(super) off_px: f64,
}

/// What is known of a picture and the paper in it.
#[derive(Debug, Clone, Copy)]
pub(super) struct Seen {
    /// Width and height, px.
    pub(super) picture_px: (f64, f64),
    /// The paper's corners going round, px.
    pub(super) corners_px: [(f64, f64); 4],
    /// The paper's first and second side, mm.
    pub(super) paper_mm: (f64, f64),
    /// As the file says it.
    pub(super) focal_35mm: Option<f64>,
}

/// Turn by an axis, shift, and the logarithm of the focal length.
type State = SVector<f64, 7>;
type Off = SVector<f64, 9>;

/// The paper's corners, going round.
fn on_paper((w, h): (f64, f64)) -> [(f64, f64); 4] {
    [(0.0, 0.0), (w, 0.0), (w, h), (0.0, h)]
}

/// The projection that takes the paper's corners to those in the picture (direct linear transform, h33 = 1).
fn homography(from: [(f64, f64); 4], to: [(f64, f64); 4]) -> Option<Matrix3<f64>> {
    let mut a = SMatrix::<f64, 8, 8>::zeros();
    let mut b = SVector::<f64, 8>::zeros();
    for (i, ((x, y), (u, v))) in from.into_iter().zip(to).enumerate() {
        a.row_mut(2 * i).copy_from_slice(&[x, y, 1.0, 0.0, 0.0, 0.0, -u * x, -u * y]);
        a.row_mut(2 * i + 1).copy_from_slice(&[0.0, 0.0, 0.0, x, y, 1.0, -v * x, -v * y]);
        b[2 * i] = u;
        b[2 * i + 1] = v;
    }
    let h = a.lu().solve(&b)?;
    Some(Matrix3::new(h[0], h[1], h[2], h[3], h[4], h[5], h[6], h[7], 1.0))
}

fn camera(state: &State) -> (Matrix3<f64>, Vector3<f64>, f64) {
    let turn = Rotation3::new(state.fixed_rows::<3>(0).into_owned()).into_inner();
    (turn, state.fixed_rows::<3>(3).into_owned(), state[6].exp())
}

impl Seen {
    fn diagonal(&self) -> f64 {
        self.picture_px.0.hypot(self.picture_px.1)
    }

    /// The focal length as it is expected, px, and by what share it may differ.
    fn expected_focal(&self) -> (f64, f64) {
        match self.focal_35mm {
            Some(mm) => (mm / FILM_DIAGONAL_MM * self.diagonal(), FOCAL_FROM_SAID),
            None => (FOCAL * self.diagonal(), FOCAL_FROM_THAT),
        }
    }

    fn middle(&self) -> (f64, f64) {
        (self.picture_px.0 / 2.0, self.picture_px.1 / 2.0)
    }

    /// How far each corner and the focal length are from where they should be, in parts of what is usual.
    fn off(&self, state: &State) -> Off {
        let (turn, shift, focal) = camera(state);
        let (mx, my) = self.middle();
        let unit = CORNER * self.diagonal();
        let mut off = Off::zeros();
        for (i, ((x, y), (u, v))) in on_paper(self.paper_mm).into_iter().zip(self.corners_px).enumerate() {
            let p = turn * Vector3::new(x, y, 0.0) + shift;
            let z = p.z.max(1e-6);
            off[2 * i] = (mx + focal * p.x / z - u) / unit;
            off[2 * i + 1] = (my + focal * p.y / z - v) / unit;
        }
        let (expected, by) = self.expected_focal();
        off[8] = (state[6] - expected.ln()) / by;
        off
    }

    /// A first guess, with the focal length as it is expected.
    fn guess(&self, h: &Matrix3<f64>) -> State {
        let (focal, _) = self.expected_focal();
        let (mx, my) = self.middle();
        let inverse = Matrix3::new(1.0 / focal, 0.0, -mx / focal, 0.0, 1.0 / focal, -my / focal, 0.0, 0.0, 1.0);
        let b = inverse * h;
        let (first, second, shift) = (b.column(0).into_owned(), b.column(1).into_owned(), b.column(2).into_owned());
        let scale = 2.0 / (first.norm() + second.norm());
        let (first, second, shift) = (first * scale, second * scale, shift * scale);
        let svd = Matrix3::from_columns(&[first, second, first.cross(&second)]).svd(true, true);
        let turn = match (svd.u, svd.v_t) {
            (Some(u), Some(v)) => u * v,
            _ => Matrix3::identity(),
        };
        let axis = Rotation3::from_matrix(&turn).scaled_axis();
        State::from_column_slice(&[axis.x, axis.y, axis.z, shift.x, shift.y, shift.z, focal.ln()])
    }

    fn slopes(&self, state: &State, at: &Off) -> SMatrix<f64, 9, 7> {
        let mut slopes = SMatrix::<f64, 9, 7>::zeros();
        for k in 0..7 {
            let by = if (3..6).contains(&k) { 1e-3 } else { 1e-6 };
            let mut beside = *state;
            beside[k] += by;
            slopes.set_column(k, &((self.off(&beside) - at) / by));
        }
        slopes
    }

    /// Where the camera stood; nothing where the corners do not make a picture of the paper.
    pub(super) fn pose(&self) -> Option<Pose> {
        let h = homography(on_paper(self.paper_mm), self.corners_px)?;
        let mut state = self.guess(&h);
        let mut off = self.off(&state);
        // Levenberg and Marquardt.
        let mut damped = 1e-3;
        for _ in 0..STEPS {
            let slopes = self.slopes(&state, &off);
            let mut normal = slopes.transpose() * slopes;
            for k in 0..7 {
                normal[(k, k)] *= 1.0 + damped;
            }
            let Some(step) = normal.lu().solve(&(slopes.transpose() * off)) else { break };
            let next = state - step;
            let then = self.off(&next);
            if then.norm_squared() < off.norm_squared() {
                let gained = off.norm_squared() - then.norm_squared();
                (state, off, damped) = (next, then, (damped * 0.3).max(1e-12));
                if gained < 1e-12 {
                    break;
                }
            } else if damped > 1e9 {
                break;
            } else {
                damped *= 8.0;
            }
        }
        let (turn, shift, _) = camera(&state);
        let unit = CORNER * self.diagonal();
        let off_px = (off.fixed_rows::<8>(0).norm_squared() / 4.0).sqrt() * unit;
        let sound = state.iter().all(|v| v.is_finite()) && shift.z > 0.0;
        sound.then_some(Pose { turn, shift, off_px })
    }
}

impl Pose {
    /// Where the camera was, mm; its z is less than nothing.
    fn place(&self) -> Vector3<f64> {
        -(self.turn.transpose() * self.shift)
    }

    /// The place on the paper that the camera was over, and how high, mm.
    pub(super) fn over(&self) -> ((f64, f64), f64) {
        let place = self.place();
        ((place.x, place.y), -place.z)
    }

    /// By how much the camera looked aside from straight down, degrees.
    pub(super) fn tilt_deg(&self) -> f64 {
        self.turn[(2, 2)].clamp(-1.0, 1.0).acos().to_degrees()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    /// What a camera sees that stands as it is told, made by a look-at matrix.
    fn seen(tilt_deg: f64, around_deg: f64, focal: f64) -> (Seen, (f64, f64), f64) {
        let (w, h) = (4000.0, 3000.0);
        let (tilt, around) = (tilt_deg.to_radians(), around_deg.to_radians());
        let at = Vector3::new(148.5, 105.0, 0.0);
        let back = Vector3::new(tilt.sin() * around.cos(), tilt.sin() * around.sin(), -tilt.cos());
        let place = at + back * 430.0;
        let ahead = -back;
        let right = Vector3::new(0.0, 1.0, 0.0).cross(&ahead).normalize();
        let down = ahead.cross(&right);
        let f = focal * f64::hypot(w, h);
        let px = |(x, y): (f64, f64)| {
            let d = Vector3::new(x, y, 0.0) - place;
            (w / 2.0 + f * d.dot(&right) / d.dot(&ahead), h / 2.0 + f * d.dot(&down) / d.dot(&ahead))
        };
        let paper_mm = (297.0, 210.0);
        let seen = Seen { picture_px: (w, h), corners_px: on_paper(paper_mm).map(px), paper_mm, focal_35mm: None };
        (seen, (place.x, place.y), -place.z)
    }

    #[test]
    fn a_picture_from_straight_above_is_taken_as_with_the_usual_lens() {
        let (seen, over, high) = seen(0.0, 0.0, FOCAL);
        let pose = seen.pose().unwrap();
        let ((x, y), found) = pose.over();
        assert!((x - over.0).hypot(y - over.1) < 0.5, "{x} {y} {over:?}");
        assert!((found / high - 1.0).abs() < 0.01 && pose.tilt_deg() < 0.1 && pose.off_px < 0.01);
        // The file's word goes before it.
        let said = Seen { focal_35mm: Some(0.9 * FOCAL * FILM_DIAGONAL_MM), ..seen };
        assert!((said.pose().unwrap().over().1 / high - 0.9).abs() < 0.01);
    }

    proptest! {
        #[test]
        fn where_the_camera_stood_is_found_again(tilt in 8.0..35.0_f64, around in 0.0..360.0_f64, focal in 0.55..1.0_f64) {
            let (seen, over, high) = seen(tilt, around, focal);
            let pose = seen.pose().unwrap();
            let ((x, y), found) = pose.over();
            prop_assert!((pose.tilt_deg() - tilt).abs() < 2.0, "{} of {tilt}", pose.tilt_deg());
            prop_assert!((found / high - 1.0).abs() < 0.09, "{found} of {high}");
            prop_assert!((x - over.0).hypot(y - over.1) < 0.06 * high);
            prop_assert!(pose.off_px < 2.0, "{}", pose.off_px);
        }
    }
}
