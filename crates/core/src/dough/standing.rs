//! Where a dough stands among those that practitioners know.

use super::Ratio;
use super::reason::Handling;
use super::school::Standing;

/// Flour to one of butter and sugar together from which a dough is a soft cut-out, a firm one, a dry one: 1 : 1 : 3 by cups has 0.88, 1 : 2 : 3 0.60.
/// Common practice, no source.
pub const DRYNESS: [f64; 3] = [0.65, 0.80, 1.20];
/// Sugar to one of butter under which a dough is short, from which it is sweet; flour to one of butter from which it is crisp rather than rich. Common
/// practice, no source.
const SHORT: f64 = 0.66;
const SWEET: f64 = 1.5;
const CRISP: f64 = 1.55;

/// Where a dough of that balance stands that handles like that: what is rolled every day is never called one to be piped.
pub(super) fn standing_of(ratio: Ratio, handling: Handling) -> Standing {
    let dryness = ratio.flour_over_rest();
    let [soft, firm, dry] = DRYNESS;
    if handling == Handling::Pipeable {
        Standing::Piped
    } else if dryness >= dry {
        Standing::Dry
    } else if ratio.sugar < SHORT {
        Standing::ShortAndTender
    } else if dryness >= firm {
        Standing::CutOut
    } else if ratio.sugar >= SWEET && ratio.flour >= CRISP {
        Standing::SweetAndCrisp
    } else if dryness >= soft {
        Standing::SoftCutOut
    } else {
        Standing::SweetAndRich
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case(0.88, 1.65, Standing::CutOut)]
    #[case(1.76, 1.65, Standing::SweetAndCrisp)]
    #[case(0.5, 1.5, Standing::ShortAndTender)]
    #[case(1.3, 1.5, Standing::SoftCutOut)]
    #[case(1.3, 1.2, Standing::SweetAndRich)]
    #[case(1.0, 3.0, Standing::Dry)]
    fn a_balance_stands_where_bakers_put_it(#[case] sugar: f64, #[case] flour: f64, #[case] standing: Standing) {
        assert_eq!(standing_of(Ratio { sugar, flour }, Handling::Right), standing);
        assert_eq!(standing_of(Ratio { sugar, flour }, Handling::Pipeable), Standing::Piped);
    }
}
