//! How finished pieces are stacked and packed. Common practice, no source, all of it.

use super::{Coat, SugarCoat};
use crate::dough::Texture;
use crate::units::Span;

/// What decides how high pieces lie.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum PiledBy {
    /// How they eat.
    Texture(Texture),
    /// What is on them.
    Coat(Coat),
}

/// Stacks and papers of a lot.
#[derive(Debug, Clone, PartialEq)]
pub struct Packing {
    /// Pieces on each other, at most.
    pub on_each_other: u32,
    /// Whether paper lies between them.
    pub paper_between: bool,
    /// Papers for all of them.
    pub papers: u32,
    /// After the last of it is put on, until they may be packed; nothing where they only have to be cool.
    pub after: Option<Span>,
    /// The same in one layer with a fan, where that is sooner.
    pub one_layer_after: Option<Span>,
    /// What decides.
    pub reason: PiledBy,
}

/// Dry ones in a pile, ones that give in a pile.
const FIRM_PILE: u32 = 8;
const SOFT_PILE: u32 = 4;

impl Coat {
    /// Pieces on each other at most and whether paper lies between; nothing where it makes no difference.
    const fn pile(&self) -> Option<(u32, bool)> {
        match self {
            Self::Sugar(SugarCoat::Coarse) => None,
            Self::Sugar(SugarCoat::CoarseAfter | SugarCoat::Powdered) | Self::Royal { .. } => Some((4, true)),
            Self::Dip { .. } | Self::Drizzle | Self::Fondant { .. } | Self::Filling { .. } => Some((3, true)),
            Self::Glaze { .. } | Self::JamBaked { .. } => Some((2, true)),
            Self::Buttercream { .. } => Some((1, false)),
        }
    }
}

/// How pieces that eat so are packed once these coats are on: the most delicate decides.
#[must_use]
pub fn packing(texture: Texture, coats: &[Coat], pieces: u32) -> Packing {
    let (mut pile, mut paper, mut reason) = match texture {
        Texture::Soft | Texture::Chewy => (SOFT_PILE, true, PiledBy::Texture(texture)),
        Texture::Crisp | Texture::Short => (FIRM_PILE, false, PiledBy::Texture(texture)),
    };
    for coat in coats {
        if let Some((most, between)) = coat.pile()
            && most < pile
        {
            (pile, paper, reason) = (most, between || paper, PiledBy::Coat(*coat));
        }
    }
    paper &= pile > 1;
    // Two that are filled are one to be packed.
    let to_pack = if coats.iter().any(|c| matches!(c, Coat::Filling { .. })) { pieces / 2 } else { pieces };
    let works = || coats.iter().map(Coat::work);
    let after = works().map(|w| w.dries).fold(None, |most: Option<Span>, dries| {
        (dries.s() > 0.0).then_some(most.filter(|m| *m > dries).unwrap_or(dries)).or(most)
    });
    let alone = works().map(|w| w.one_layer.unwrap_or(w.dries)).reduce(|a, b| if b > a { b } else { a });
    Packing {
        on_each_other: pile,
        paper_between: paper,
        papers: if paper { to_pack - to_pack.div_ceil(pile) } else { 0 },
        after,
        one_layer_after: alone.filter(|sooner| after.is_some_and(|all| *sooner < all)),
        reason,
    }
}

#[cfg(test)]
mod tests {
    use super::super::FillingKind;
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn iced_ones_lie_four_high_with_paper_and_are_packed_when_dry_through() {
        let iced = packing(Texture::Crisp, &[Coat::usual_royal(false)], 48);
        // 48 in piles of four: twelve piles, three papers in each. Dry through 8 to 12 h, 4 to 6 in one layer with a fan: common practice.
        assert_eq!((iced.on_each_other, iced.papers), (4, 36));
        let hours = |s: Option<Span>| s.map(|s| s.min() / 60.0).unwrap();
        assert!((8.0..=12.0).contains(&hours(iced.after)) && (4.0..=6.0).contains(&hours(iced.one_layer_after)));
    }

    #[test]
    fn plain_ones_need_no_paper_and_no_wait_and_the_most_delicate_coat_decides() {
        let plain = packing(Texture::Short, &[Coat::Sugar(SugarCoat::Coarse)], 48);
        assert_eq!((plain.on_each_other, plain.papers, plain.after), (FIRM_PILE, 0, None));
        let both = packing(Texture::Short, &[Coat::usual_royal(false), Coat::usual_buttercream()], 48);
        assert_eq!((both.on_each_other, both.paper_between), (1, false));
        let filled = packing(Texture::Short, &[Coat::usual_filling(FillingKind::Jam)], 48);
        assert_eq!((filled.on_each_other, filled.papers), (3, 16), "24 pairs in eight piles");
    }

    proptest! {
        #[test]
        fn no_coat_lets_them_lie_higher(pieces in 1u32..500, which in 0usize..4) {
            let coat = [Coat::Drizzle, Coat::usual_jam_baked(), Coat::usual_fondant(), Coat::usual_royal(true)][which];
            for texture in [Texture::Crisp, Texture::Short, Texture::Soft, Texture::Chewy] {
                let coated = packing(texture, &[coat], pieces);
                prop_assert!(coated.on_each_other <= packing(texture, &[], pieces).on_each_other);
                prop_assert!(coated.papers < pieces);
            }
        }
    }
}
