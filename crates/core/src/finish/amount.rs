//! What a finish takes: grams a piece, grams in all, of what. The arithmetic, not the art.

use super::coat::{Coat, FillingKind, GlazeWay, SugarCoat};
use super::colour::ColourPart;
use super::reason::Reason;
use crate::units::{Area, Length, Mass, Share};

/// Of what is mixed, this much stays on bowl and brush. Common practice, no source.
const STAYS_IN_THE_BOWL: f64 = 0.10;
/// Nothing smaller can be dipped into: a cup as deep as a piece is held. Common practice, no source.
const LEAST_DIP: Mass = Mass::new_g(200.0);
/// Nothing smaller is stirred smooth in a bowl or runs from a spoon: 3/4 cup of powdered sugar with its water. Common practice, no source.
const LEAST_BOWL: Mass = Mass::new_g(90.0);
/// Grams a square centimetre: coarse sugar pressed on once, powdered sugar dusted on once. Common practice, no source.
const COARSE_G_CM2: f64 = 0.030;
const POWDERED_G_CM2: f64 = 0.010;
/// Densities, g/mL: sucrose and water as in the dough (handbooks, from memory), melted chocolate 1.27, jam 1.33, chocolate and cream
/// 1.15, icing of butter 1.05; from memory.
const SUGAR_G_ML: f64 = 1.59;
const CHOCOLATE_G_ML: f64 = 1.27;
/// A little oil makes chocolate run thin: of the chocolate. Common practice, no source.
const OIL_IN_CHOCOLATE: f64 = 0.05;
const THIN_CHOCOLATE: [(CoatStuff, f64); 2] = [
    (CoatStuff::Chocolate, 1.0 / (1.0 + OIL_IN_CHOCOLATE)),
    (CoatStuff::Oil, OIL_IN_CHOCOLATE / (1.0 + OIL_IN_CHOCOLATE)),
];
/// Lines of a drizzle: as far apart, as wide and as high, mm; a line is round on top, of which 0.7 is there. Our own choice.
const LINES_MM: (f64, f64, f64) = (10.0, 2.0, 0.8);
const LINE_FULL: f64 = 0.7;
/// Royal icing: a line round the top of 2 mm, 3.1 mm2 of it, 1.45 g/mL; thinned it fills what is inside, 1.4 g/mL. To 100 of powdered
/// sugar 4.5 of meringue powder and 16 of water, or 17 of fresh white; 2.5 more of water where it is thinned. Common practice, no source.
const ROYAL_LINE_MM2: f64 = 3.1;
const ROYAL_LINE_WIDE: Length = Length::new_mm(2.0);
const ROYAL_G_ML: (f64, f64) = (1.45, 1.40);
const ROYAL_PARTS: (f64, f64, f64, f64) = (4.5, 16.0, 17.0, 2.5);
/// Rolled fondant, g/mL, and how much more is rolled than is cut out of it; what goes back is kneaded in again. Common practice, no source.
const FONDANT_G_ML: f64 = 1.4;
const FONDANT_SCRAP: Share = Share::new(0.30);
/// Buttercream: to 100 of butter 200 of powdered sugar and 7.5 of milk; g/mL beaten. Common practice, no source.
const BUTTERCREAM_PARTS: [(CoatStuff, f64); 3] =
    [(CoatStuff::Butter, 100.0 / 307.5), (CoatStuff::PowderedSugar, 200.0 / 307.5), (CoatStuff::Milk, 7.5 / 307.5)];
const BUTTERCREAM_G_ML: f64 = 1.05;
/// A filling is spread to so far from the rim. Common practice, no source.
const FILLING_RIM: Length = Length::new_mm(3.0);

impl FillingKind {
    const fn density_g_ml(self) -> f64 {
        match self {
            Self::Jam => 1.33,
            Self::Chocolate => 1.15,
            Self::Icing => 1.05,
        }
    }
}

/// A piece as it is finished.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FinishedPiece {
    /// Of its top, baked.
    pub top: Area,
    /// Round its edge, baked.
    pub edge: Length,
    /// As high as it is, baked.
    pub thickness: Length,
    /// How many there are.
    pub pieces: u32,
}

/// What goes into a finish.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum CoatStuff {
    /// Coarse sugar.
    CoarseSugar,
    /// Powdered sugar.
    PowderedSugar,
    /// Water.
    Water,
    /// A spirit.
    Spirit,
    /// Chocolate.
    Chocolate,
    /// Oil.
    Oil,
    /// Jam, cooked until it holds.
    Jam,
    /// Cream.
    Cream,
    /// Butter.
    Butter,
    /// Milk.
    Milk,
    /// Dried egg white with sugar.
    MeringuePowder,
    /// White of a fresh egg.
    EggWhite,
    /// Rolled fondant, bought or made.
    Fondant,
}

/// A part of what is mixed for a finish.
#[derive(Debug, Clone, PartialEq)]
pub struct CoatPart {
    /// What.
    pub stuff: CoatStuff,
    /// In all.
    pub mass: Mass,
}

/// What a part of an icing is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum CoatUse {
    /// Piped round the edge, stiff.
    Line,
    /// Thinned, within it.
    Flood,
}

/// A part of an icing by its use.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct UsePart {
    /// For what.
    pub what: CoatUse,
    /// All of it, with the water that thins it.
    pub mass: Mass,
    /// Of that, water stirred in when it is set aside.
    pub thinner: Mass,
}

/// What a finish takes.
#[derive(Debug, Clone, PartialEq)]
pub struct CoatPlan {
    /// Which: its name and when it goes on follow from it.
    pub coat: Coat,
    /// On each piece, or between two.
    pub each: Mass,
    /// To be made, with what stays in the bowl.
    pub total: Mass,
    /// Of what.
    pub parts: Vec<CoatPart>,
    /// Of an icing that is used in two ways, each; empty otherwise.
    pub uses: Vec<UsePart>,
    /// Portions of it that are coloured.
    pub colours: Vec<ColourPart>,
    /// How many are finished: pieces, or pairs of them.
    pub count: u32,
    /// How the figures come about.
    pub reason: Reason,
    /// What to mind.
    pub cautions: Vec<Reason>,
}

/// What a finish takes for a lot.
#[must_use]
pub fn coat_plan(coat: Coat, piece: FinishedPiece) -> CoatPlan {
    let on = Coating { coat, piece };
    match coat {
        Coat::Sugar(SugarCoat::Coarse | SugarCoat::CoarseAfter) => on.takes(
            COARSE_G_CM2 * on.top_cm2(),
            &[(CoatStuff::CoarseSugar, 1.0)],
            Reason::SugarOnTop { mass_a_cm2: Mass::new_g(COARSE_G_CM2), top: piece.top },
        ),
        Coat::Sugar(SugarCoat::Powdered) => on.takes(
            2.0 * POWDERED_G_CM2 * on.round_cm2(),
            &[(CoatStuff::PowderedSugar, 1.0)],
            Reason::SugarAllRound { mass_a_cm2: Mass::new_g(POWDERED_G_CM2), round: on.round() },
        ),
        Coat::Glaze { way, sugar_parts, film_mm, spirit } => on.glaze(way, sugar_parts, film_mm, spirit),
        Coat::Dip { part, film_mm } => {
            let each = part.value() * on.round_cm2() * film_mm / 10.0 * CHOCOLATE_G_ML;
            let film = Length::new_mm(film_mm);
            let mut plan = on.takes(each, &THIN_CHOCOLATE, Reason::DipFilm { film, part, round: on.round() });
            plan.at_least(LEAST_DIP, |least, _| Reason::DeepEnough { least });
            plan.cautions.push(Reason::MeltedBurnsAndHoldsMilk);
            plan
        }
        Coat::Drizzle => {
            let (apart, wide, high) = LINES_MM;
            let each = piece.top.mm2() / apart * wide * high * LINE_FULL / 1000.0 * CHOCOLATE_G_ML;
            let [wide, high, apart] = [wide, high, apart].map(Length::new_mm);
            let mut plan = on.takes(each, &THIN_CHOCOLATE, Reason::Lines { wide, high, apart, top: piece.top });
            plan.at_least(LEAST_BOWL, enough_to_mix);
            plan.cautions.push(Reason::ChocolateHoldsMilk);
            plan
        }
        Coat::Royal { film_mm, fresh_white } => on.royal(film_mm, fresh_white),
        Coat::Fondant { film_mm } => {
            let each = piece.top.mm2() * film_mm / 1000.0 * FONDANT_G_ML;
            let film = Length::new_mm(film_mm);
            let reason = Reason::RolledOn { film, top: piece.top, density_g_ml: FONDANT_G_ML, more: FONDANT_SCRAP };
            let mut plan = on.takes(each, &[(CoatStuff::Fondant, 1.0)], reason);
            let rolled = plan.each * f64::from(plan.count) * (1.0 + FONDANT_SCRAP.value());
            plan.parts[0].mass = rolled;
            plan.total = rolled;
            plan
        }
        Coat::Buttercream { film_mm } => {
            let each = piece.top.mm2() * film_mm / 1000.0 * BUTTERCREAM_G_ML;
            let film = Length::new_mm(film_mm);
            let reason = Reason::SpreadOn { film, top: piece.top, density_g_ml: BUTTERCREAM_G_ML };
            let mut plan = on.takes(each, &BUTTERCREAM_PARTS, reason);
            plan.cautions.push(Reason::ButterIsMilk);
            plan
        }
        Coat::Filling { kind, layer_mm } => on.filling(kind, layer_mm),
        Coat::JamBaked { each_g } => {
            let reason = Reason::InEachDent { each: Mass::new_g(each_g) };
            let mut plan = on.takes(each_g, &[(CoatStuff::Jam, 1.0)], reason);
            plan.cautions.push(Reason::JamBurns);
            plan
        }
    }
}

/// A coat on a lot's pieces.
struct Coating {
    coat: Coat,
    piece: FinishedPiece,
}

impl Coating {
    fn top_cm2(&self) -> f64 {
        self.piece.top.mm2() / 100.0
    }

    fn round_cm2(&self) -> f64 {
        2.0 * self.top_cm2() + self.piece.edge.mm() * self.piece.thickness.mm() / 100.0
    }

    fn round(&self) -> Area {
        Area::new_mm2(100.0 * self.round_cm2())
    }

    fn takes(&self, each_g: f64, of: &[(CoatStuff, f64)], reason: Reason) -> CoatPlan {
        self.takes_on(self.piece.pieces, each_g, of, reason)
    }

    fn takes_on(&self, count: u32, each_g: f64, of: &[(CoatStuff, f64)], reason: Reason) -> CoatPlan {
        let total = Mass::new_g(each_g * f64::from(count) * (1.0 + STAYS_IN_THE_BOWL));
        let parts = of.iter().map(|(stuff, share)| CoatPart { stuff: *stuff, mass: total * *share }).collect();
        CoatPlan {
            coat: self.coat,
            each: Mass::new_g(each_g),
            total,
            parts,
            uses: vec![],
            colours: vec![],
            count,
            reason,
            cautions: vec![],
        }
    }

    fn glaze(&self, way: GlazeWay, sugar_parts: f64, film_mm: f64, spirit: bool) -> CoatPlan {
        let density = (sugar_parts + 1.0) / (sugar_parts / SUGAR_G_ML + 1.0);
        let liquid = if spirit { CoatStuff::Spirit } else { CoatStuff::Water };
        let (film, top) = (Length::new_mm(film_mm), self.piece.top);
        let (each, reason) = match way {
            GlazeWay::Drizzled => {
                let (apart, wide, _) = LINES_MM;
                let ml = top.mm2() / apart * wide * film_mm * LINE_FULL / 1000.0;
                let [wide, apart] = [wide, apart].map(Length::new_mm);
                (ml * density, Reason::Lines { wide, high: film, apart, top })
            }
            GlazeWay::Spread | GlazeWay::Dipped => (
                self.top_cm2() * film_mm / 10.0 * density,
                Reason::GlazeFilm { film, top, density_g_ml: density, sugar_parts, spirit },
            ),
        };
        let of = [(CoatStuff::PowderedSugar, sugar_parts / (sugar_parts + 1.0)), (liquid, 1.0 / (sugar_parts + 1.0))];
        let mut plan = self.takes(each, &of, reason);
        match way {
            GlazeWay::Dipped => plan.at_least(LEAST_DIP, |least, _| Reason::DeepEnough { least }),
            GlazeWay::Spread | GlazeWay::Drizzled => plan.at_least(LEAST_BOWL, enough_to_mix),
        }
        let usual = way.usual_parts();
        if !(usual.0..=usual.1).contains(&sugar_parts) {
            plan.cautions.push(Reason::UnusualGlaze { usual });
        }
        if spirit {
            plan.cautions.push(Reason::SpiritStays);
        }
        plan
    }

    fn royal(&self, film_mm: f64, fresh_white: bool) -> CoatPlan {
        let edge = self.piece.edge;
        let line_g = edge.mm() * ROYAL_LINE_MM2 / 1000.0 * ROYAL_G_ML.0;
        let inside = (self.piece.top.mm2() - edge.mm() * ROYAL_LINE_WIDE.mm()).max(0.0);
        let flood_g = inside * film_mm / 1000.0 * ROYAL_G_ML.1;
        let (powder, water, white, thinner) = ROYAL_PARTS;
        let thinner = thinner * flood_g / (line_g + flood_g);
        let of: Vec<(CoatStuff, f64)> = if fresh_white {
            vec![(CoatStuff::PowderedSugar, 100.0), (CoatStuff::EggWhite, white), (CoatStuff::Water, thinner)]
        } else {
            vec![
                (CoatStuff::PowderedSugar, 100.0),
                (CoatStuff::MeringuePowder, powder),
                (CoatStuff::Water, water + thinner),
            ]
        };
        let all: f64 = of.iter().map(|(_, parts)| parts).sum();
        let of: Vec<(CoatStuff, f64)> = of.into_iter().map(|(stuff, parts)| (stuff, parts / all)).collect();
        let reason = Reason::LineAndFlood {
            line: Mass::new_g(line_g),
            round: edge,
            flood: Mass::new_g(flood_g),
            film: Length::new_mm(film_mm),
        };
        let mut plan = self.takes(line_g + flood_g, &of, reason);
        // All is mixed stiff; what floods is set aside and thinned.
        let use_of = |what, each_g: f64, thinner: f64| UsePart {
            what,
            mass: plan.total * (each_g / (line_g + flood_g)),
            thinner: plan.total * (thinner / all),
        };
        plan.uses = vec![use_of(CoatUse::Line, line_g, 0.0), use_of(CoatUse::Flood, flood_g, thinner)];
        plan.cautions.push(if fresh_white { Reason::RawWhite } else { Reason::EggOnTheLabel });
        plan
    }

    fn filling(&self, kind: FillingKind, layer_mm: f64) -> CoatPlan {
        // Drawn in from the rim: the edge's band goes off, and comes back where it overlaps itself in a full turn.
        let (rim, top) = (FILLING_RIM.mm(), self.piece.top.mm2());
        let spread = (top - rim * self.piece.edge.mm() + std::f64::consts::PI * rim * rim).max(0.25 * top);
        let of: &[(CoatStuff, f64)] = match kind {
            FillingKind::Jam => &[(CoatStuff::Jam, 1.0)],
            FillingKind::Chocolate => &[(CoatStuff::Chocolate, 0.6), (CoatStuff::Cream, 0.4)],
            FillingKind::Icing => &[(CoatStuff::PowderedSugar, 0.6), (CoatStuff::Butter, 0.4)],
        };
        let reason = Reason::Layer {
            layer: Length::new_mm(layer_mm),
            over: Area::new_mm2(spread),
            rim: FILLING_RIM,
            density_g_ml: kind.density_g_ml(),
        };
        let each_g = spread * layer_mm / 1000.0 * kind.density_g_ml();
        let mut plan = self.takes_on(self.piece.pieces / 2, each_g, of, reason);
        if self.piece.pieces % 2 == 1 {
            plan.cautions.push(Reason::OddOneLeft);
        }
        match kind {
            FillingKind::Jam => {}
            FillingKind::Chocolate => plan.cautions.push(Reason::CreamInTheCold),
            FillingKind::Icing => plan.cautions.push(Reason::ButterIsMilk),
        }
        plan
    }
}

fn enough_to_mix(least: Mass, goes_on: Mass) -> Reason {
    Reason::EnoughToMix { least, goes_on }
}

impl CoatPlan {
    /// More of it where less cannot be worked with.
    fn at_least(&mut self, least: Mass, why: fn(Mass, Mass) -> Reason) {
        if self.total < least {
            let up = least / self.total;
            self.parts.iter_mut().for_each(|p| p.mass = p.mass * up);
            self.total = least;
            self.cautions.push(why(least, self.each * f64::from(self.count)));
        }
    }
}

impl GlazeWay {
    /// Parts of sugar to one of water that are usual, by the brief of [`Coat::usual_glaze`].
    const fn usual_parts(self) -> (f64, f64) {
        match self {
            Self::Spread => (6.0, 8.5),
            Self::Drizzled => (4.0, 5.6),
            Self::Dipped => (4.0, 5.0),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    /// A round of 70 mm, 5 mm high, baked.
    fn round(pieces: u32) -> FinishedPiece {
        let r = 35.0;
        FinishedPiece {
            top: Area::new_mm2(std::f64::consts::PI * r * r),
            edge: Length::new_mm(std::f64::consts::TAU * r),
            thickness: Length::new_mm(5.0),
            pieces,
        }
    }

    #[test]
    fn a_water_glaze_is_worked_out_by_hand() {
        let plan = coat_plan(Coat::usual_glaze(GlazeWay::Spread, false), round(48));
        // 38.48 cm2 x 0.05 cm x 8 / (7 / 1.59 + 1) g/mL = 2.849 g; 48 of them and a tenth: 150.4 g, one eighth of it water.
        assert!((plan.each.g() - 2.849).abs() < 0.01, "{plan:?}");
        assert!((plan.total.g() - 150.4).abs() < 0.5, "{plan:?}");
        assert!((plan.parts[1].mass / plan.total - 0.125).abs() < 1e-9 && plan.parts[1].stuff == CoatStuff::Water);
        assert!(plan.cautions.is_empty());
    }

    #[test]
    fn royal_icing_of_a_75_mm_piece_is_eight_to_ten_grams() {
        // 'A 75 mm piece about 8-10 g in all': common practice. By hand: 235.6 mm x 3.1 mm2 x 1.45 g/mL = 1.06 g of line, and
        // (44.18 - 4.71) cm2 x 0.175 cm x 1.4 g/mL = 9.67 g within.
        let r = 37.5;
        let piece = FinishedPiece {
            top: Area::new_mm2(std::f64::consts::PI * r * r),
            edge: Length::new_mm(std::f64::consts::TAU * r),
            ..round(24)
        };
        let plan = coat_plan(Coat::usual_royal(false), piece);
        assert!((plan.each.g() - 10.73).abs() < 0.05, "{plan:?}");
        let thin = coat_plan(Coat::Royal { film_mm: 1.5, fresh_white: false }, piece);
        assert!((8.0..=10.0).contains(&thin.each.g()), "{thin:?}");
        // 100 of sugar, 4.5 of powder, 16 and a little of water.
        let of = |stuff| plan.parts.iter().find(|p| p.stuff == stuff).map(|p| p.mass.g()).unwrap();
        assert!((of(CoatStuff::MeringuePowder) / of(CoatStuff::PowderedSugar) - 0.045).abs() < 1e-9);
        let water = of(CoatStuff::Water) / of(CoatStuff::PowderedSugar);
        assert!((0.16..=0.185).contains(&water), "{water}");
        let fresh = coat_plan(Coat::usual_royal(true), piece);
        assert!(fresh.cautions.contains(&Reason::RawWhite), "raw egg is told");
    }

    #[test]
    fn fondant_is_rolled_with_more_than_is_cut_and_buttercream_is_of_its_parts() {
        // 38.48 cm2 x 0.25 cm x 1.4 g/mL = 13.47 g.
        let fondant = coat_plan(Coat::usual_fondant(), round(10));
        assert!(
            (fondant.each.g() - 13.47).abs() < 0.02 && (fondant.total.g() - 13.47 * 13.0).abs() < 0.3,
            "{fondant:?}"
        );
        let cream = coat_plan(Coat::usual_buttercream(), round(10));
        assert!((cream.parts[1].mass / cream.parts[0].mass - 2.0).abs() < 1e-9, "{cream:?}");
    }

    #[test]
    fn a_filling_takes_two_pieces_and_keeps_off_the_rim() {
        let plan = coat_plan(Coat::Filling { kind: FillingKind::Jam, layer_mm: 2.0 }, round(49));
        // A disc of 32 mm: 32.17 cm2 x 0.2 cm x 1.33 g/mL.
        assert!((plan.each.g() - 8.557).abs() < 0.02, "{plan:?}");
        assert_eq!((plan.count, plan.cautions.len()), (24, 1));
    }

    #[test]
    fn little_chocolate_is_rounded_up_to_what_can_be_dipped_into() {
        let plan = coat_plan(Coat::Dip { part: Share::new(0.5), film_mm: 1.0 }, round(6));
        // Half of 2 x 38.48 + 219.9 x 0.5 = 87.96 cm2, 0.1 cm, 1.27 g/mL.
        assert!((plan.each.g() - 5.586).abs() < 0.01, "{plan:?}");
        assert_eq!(plan.total, LEAST_DIP);
        let sum: f64 = plan.parts.iter().map(|p| p.mass.g()).sum();
        assert!((sum - 200.0).abs() < 1e-9 && plan.cautions.contains(&Reason::DeepEnough { least: LEAST_DIP }));
        // A glaze to dip into wants as much: 'vessel of 200 g at least', common practice.
        assert_eq!(coat_plan(Coat::usual_glaze(GlazeWay::Dipped, false), round(6)).total, LEAST_DIP);
    }

    #[test]
    fn spirit_and_odd_glazes_are_cautioned() {
        let plan =
            coat_plan(Coat::Glaze { way: GlazeWay::Spread, sugar_parts: 4.0, film_mm: 0.5, spirit: true }, round(10));
        let [spirit, odd] = [Reason::SpiritStays, Reason::UnusualGlaze { usual: GlazeWay::Spread.usual_parts() }];
        assert!(plan.cautions.contains(&spirit) && plan.cautions.contains(&odd), "{plan:?}");
        assert_eq!(plan.parts[1].stuff, CoatStuff::Spirit);
    }

    #[test]
    fn a_drizzle_is_told_by_what_goes_on_and_by_the_bowl_it_is_stirred_in() {
        let few = coat_plan(Coat::usual_glaze(GlazeWay::Drizzled, false), round(12));
        let goes_on = few.each * 12.0;
        assert!((2.0..12.0).contains(&goes_on.g()), "{few:?}");
        assert_eq!(few.total, LEAST_BOWL);
        assert!(few.cautions.contains(&Reason::EnoughToMix { least: LEAST_BOWL, goes_on }));
        let many = coat_plan(Coat::Drizzle, round(400));
        assert!(many.total > LEAST_BOWL && many.cautions == [Reason::ChocolateHoldsMilk], "{many:?}");
    }

    proptest! {
        #[test]
        fn the_parts_make_up_the_whole(pieces in 1u32..500, kind in 0usize..14) {
            let coat = [
                Coat::Sugar(SugarCoat::Coarse),
                Coat::Sugar(SugarCoat::Powdered),
                Coat::usual_glaze(GlazeWay::Spread, false),
                Coat::usual_glaze(GlazeWay::Drizzled, false),
                Coat::usual_glaze(GlazeWay::Dipped, false),
                Coat::Sugar(SugarCoat::CoarseAfter),
                Coat::usual_jam_baked(),
                Coat::Dip { part: Share::new(0.4), film_mm: 0.9 },
                Coat::Drizzle,
                Coat::Filling { kind: FillingKind::Chocolate, layer_mm: 3.0 },
                Coat::Filling { kind: FillingKind::Icing, layer_mm: 3.0 },
                Coat::Royal { film_mm: 2.0, fresh_white: pieces % 2 == 0 },
                Coat::Fondant { film_mm: 3.0 },
                Coat::Buttercream { film_mm: 5.0 },
            ][kind];
            let plan = coat_plan(coat, round(pieces));
            let sum: f64 = plan.parts.iter().map(|p| p.mass.g()).sum();
            prop_assert!((sum - plan.total.g()).abs() < 1e-6);
            let used: f64 = plan.uses.iter().map(|u| u.mass.g()).sum();
            prop_assert!(plan.uses.is_empty() || (used - plan.total.g()).abs() < 1e-6);
            prop_assert!(plan.total.g() >= plan.each.g() * f64::from(plan.count) - 1e-9);
        }
    }
}
