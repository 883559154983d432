//! Pieces on trays with room to grow.

use super::demand::Roll;
use super::lattice::LatticeTable;
use super::layout::{Layout, least_gap};
use super::nest::KeptFault;
use super::nest::kept_on_tray;
use super::spacing::Spacing;
use crate::error::{Checks, InputError, InputErrors};
use crate::geometry::{Outline, Placement};
use crate::units::{Length, Share};

/// Room kept beyond the predicted growth of two neighbours. Common practice, no source.
const BEYOND_GROWTH: Length = Length::new_mm(8.0);
/// Room to the tray's edge. Common practice, no source.
const TO_EDGE: Length = Length::new_mm(10.0);

/// Pieces whose bake times lie within this share of each other are one size class and may go on one tray. Common practice,
/// no source.
pub const ONE_CLASS: Share = Share::new(0.12);

/// A kitchen's trays.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TrayRules {
    width: Length,
    length: Length,
    owned: u32,
    least_gap: Length,
}

impl TrayRules {
    /// Usable size of 100 to 900 mm each way, 1 to 200 trays, and a least gap of 5 to 80 mm.
    pub fn new(width_mm: f64, length_mm: f64, owned: u32, least_gap_mm: f64) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.range("tray_width_mm", width_mm, 100.0, 900.0, "mm");
        checks.range("tray_length_mm", length_mm, 100.0, 900.0, "mm");
        checks.range("trays_owned", f64::from(owned), 1.0, 200.0, "trays");
        checks.range("least_gap_mm", least_gap_mm, 5.0, 80.0, "mm");
        checks.finish(())?;
        Ok(Self {
            width: Length::new_mm(width_mm.min(length_mm)),
            length: Length::new_mm(width_mm.max(length_mm)),
            owned,
            least_gap: Length::new_mm(least_gap_mm),
        })
    }

    /// The shorter side.
    #[must_use]
    pub fn width(&self) -> Length {
        self.width
    }

    /// The longer side.
    #[must_use]
    pub fn length(&self) -> Length {
        self.length
    }

    /// The gap between pieces whose rim grows outward by `growth`.
    fn gap_for(&self, growth: Length) -> Length {
        let both_neighbours = growth * 2.0 + BEYOND_GROWTH;
        if both_neighbours > self.least_gap { both_neighbours } else { self.least_gap }
    }

    /// The least that is kept between pieces.
    #[must_use]
    pub fn least_gap(&self) -> Length {
        self.least_gap
    }

    /// How many there are.
    #[must_use]
    pub fn owned(&self) -> u32 {
        self.owned
    }
}

/// How the pieces fill the trays.
#[derive(Debug, Clone, PartialEq)]
pub struct TrayAnswer {
    /// The gap kept between pieces as cut.
    pub gap: Length,
    /// The gap that they need to grow; more than is kept only where they were cut on the tray's paper.
    pub needs: Length,
    /// Where they lie on a full tray.
    pub layout: Layout,
    /// Pieces on each tray in the order they are filled.
    pub fill: Vec<u32>,
    /// How often the trays owned go round.
    pub rounds: u32,
    /// Kept to the tray's edge.
    pub edge: Length,
    /// Why a layout laid by hand is not used.
    pub fault: Option<KeptFault>,
}

/// From which rolls the pieces of each tray come, in the order they are cut: the roll's number and how many.
#[must_use]
pub fn tray_sources(rolls: &[Roll], fill: &[u32]) -> Vec<Vec<(u32, u32)>> {
    let mut left: Vec<(u32, u32)> = rolls.iter().map(|r| (r.number, r.pieces)).collect();
    fill.iter()
        .map(|room| {
            let mut room = *room;
            let mut from = Vec::new();
            for (number, pieces) in &mut left {
                let taken = room.min(*pieces);
                if taken > 0 {
                    from.push((*number, taken));
                    *pieces -= taken;
                    room -= taken;
                }
            }
            from
        })
        .collect()
}

/// Fills trays with `pieces` whose rim grows outward by `growth`: in rows or staggered rows, whichever holds most, or as a
/// hand has laid them (`kept`, empty for none) while that keeps the room they need.
pub fn fill_trays(
    outline: &Outline,
    pieces: u32,
    growth: Length,
    rules: &TrayRules,
    kept: &[Placement],
) -> Result<TrayAnswer, InputError> {
    let gap = rules.gap_for(growth);
    let by_hand = if kept.is_empty() {
        None
    } else {
        let spacing = Spacing::on_tray(gap.mm(), TO_EDGE.mm()).ok();
        spacing.map(|spacing| kept_on_tray(outline, rules.width, rules.length, spacing, kept))
    };
    let (by_hand, fault) = match by_hand {
        Some(Ok(layout)) => (Some(layout), None),
        Some(Err(fault)) => (None, Some(fault)),
        None => (None, None),
    };
    let layout = match by_hand {
        Some(layout) => layout,
        None => LatticeTable::with_gap(outline, rules.width, rules.length, TO_EDGE, gap)?.layout(rules.length),
    };
    let each = u32::try_from(layout.pieces.len()).unwrap_or(u32::MAX);
    let mut fill = Vec::new();
    let mut left = pieces;
    while left > 0 {
        fill.push(left.min(each));
        left -= left.min(each);
    }
    let trays = u32::try_from(fill.len()).unwrap_or(u32::MAX);
    Ok(TrayAnswer { gap, needs: gap, layout, rounds: trays.div_ceil(rules.owned), fill, edge: TO_EDGE, fault })
}

/// Trays whose pieces were cut on their paper: each sheet is one, in the order in which they are rolled. `growth` says what gap they need.
#[must_use]
pub fn trays_in_place(rolls: &[Roll], growth: Length, rules: &TrayRules) -> TrayAnswer {
    let mut fill = Vec::new();
    for roll in rolls {
        let each = u32::try_from(roll.layout.pieces.len()).unwrap_or(u32::MAX).max(1);
        let mut left = roll.pieces;
        while left > 0 {
            fill.push(left.min(each));
            left -= left.min(each);
        }
    }
    let trays = u32::try_from(fill.len()).unwrap_or(u32::MAX);
    let layout = rolls[0].layout.clone();
    TrayAnswer {
        gap: Spacing::IN_PLACE.web(),
        needs: rules.gap_for(growth),
        layout,
        rounds: trays.div_ceil(rules.owned),
        fill,
        edge: Spacing::IN_PLACE.edge(),
        fault: None,
    }
}

/// Trays that are covered whole with dough and cut into `cells` (across, along) after baking; the last one as the others.
#[must_use]
pub fn trays_of_squares(
    outline: &Outline,
    pieces: u32,
    (width, length): (Length, Length),
    (columns, rows): (u32, u32),
    rules: &TrayRules,
) -> TrayAnswer {
    let (w, l) = (width.mm() / f64::from(columns), length.mm() / f64::from(rows));
    let at =
        |c: u32, r: u32| Placement { x_mm: w * (f64::from(c) + 0.5), y_mm: l * (f64::from(r) + 0.5), turn_deg: 0.0 };
    let cuts: Vec<Placement> = (0..rows).flat_map(|r| (0..columns).map(move |c| at(c, r))).collect();
    let each = columns * rows;
    let trays = pieces.div_ceil(each);
    let zero = Length::new_mm(0.0);
    let fill = (0..trays).map(|t| each.min(pieces - t * each)).collect();
    let layout = Layout { least_gap: least_gap(outline, &cuts), pieces: cuts, length, nested: false };
    TrayAnswer { gap: zero, needs: zero, layout, fill, rounds: trays.div_ceil(rules.owned), edge: zero, fault: None }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::{Builtin, BuiltinKind};

    #[test]
    fn a_spreading_dough_gets_more_room_and_more_trays() {
        let outline = Builtin::new(BuiltinKind::Round, 65.0, 0.0).unwrap().outline().unwrap();
        let rules = TrayRules::new(310.0, 440.0, 4, 25.0).unwrap();
        let firm = fill_trays(&outline, 48, Length::new_mm(1.6), &rules, &[]).unwrap();
        let soft = fill_trays(&outline, 48, Length::new_mm(18.0), &rules, &[]).unwrap();
        assert_eq!(firm.gap.mm(), 25.0);
        assert!((soft.gap.mm() - 44.0).abs() < 0.01);
        assert!(soft.fill.len() >= firm.fill.len());
        let flowing = fill_trays(&outline, 48, Length::new_mm(29.0), &rules, &[]).unwrap();
        assert!(flowing.fill.len() > firm.fill.len());
        assert_eq!(firm.fill.iter().sum::<u32>(), 48);
        assert!(firm.layout.least_gap.unwrap().mm() >= 24.95);
    }

    #[test]
    fn pieces_laid_by_hand_stay_while_they_keep_their_room() {
        let outline = Builtin::new(BuiltinKind::Round, 65.0, 0.0).unwrap().outline().unwrap();
        let rules = TrayRules::new(310.0, 440.0, 4, 25.0).unwrap();
        let at = |x_mm: f64, y_mm: f64| Placement { x_mm, y_mm, turn_deg: 0.0 };
        let hand = [at(60.0, 60.0), at(160.0, 60.0), at(60.0, 200.0)];
        let kept = fill_trays(&outline, 7, Length::new_mm(2.0), &rules, &hand).unwrap();
        assert_eq!((kept.layout.pieces.len(), kept.fill.clone(), kept.fault), (3, vec![3, 3, 1], None));
        assert!((kept.layout.least_gap.unwrap().mm() - 35.0).abs() < 0.2);
        // Growing 14 mm each they need 36 mm.
        let grown = fill_trays(&outline, 7, Length::new_mm(14.0), &rules, &hand).unwrap();
        assert!(matches!(grown.fault, Some(KeptFault::TooNear(_))) && grown.layout.pieces.len() > 3);
    }

    #[test]
    fn trays_are_filled_in_the_order_of_cutting() {
        let layout = Layout { pieces: vec![], length: Length::new_mm(300.0), least_gap: None, nested: false };
        let roll = |number: u32, pieces: u32| Roll {
            number,
            sheets: 1,
            form: crate::shape::SheetForm::round(300.0).unwrap(),
            mass: crate::units::Mass::new_g(500.0),
            layout: layout.clone(),
            pieces,
        };
        let from = tray_sources(&[roll(0, 32), roll(1, 12), roll(2, 4)], &[18, 18, 12]);
        assert_eq!(from, vec![vec![(0, 18)], vec![(0, 14), (1, 4)], vec![(1, 8), (2, 4)]]);
    }
}
