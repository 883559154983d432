//! What of a recipe goes onto the pieces or between them, as a finish: sugar for rolling, jam for filling, the icing at its end.

use super::reading::{LineKind, Reading};
use super::reason::LeftOut;
use crate::dough::{Ingredient, Kind};
use crate::finish::{Coat, FillingKind, Finish, GlazeWay, MOST_COATS, SugarCoat};
use std::sync::Arc;

/// Words of a line or heading, and what stands under it.
struct Group {
    said: String,
    of: Vec<Arc<Ingredient>>,
}

impl Reading {
    /// The finishes its left-out lines speak of, each once; flour for the board and fat for the tray are none.
    #[must_use]
    pub fn finishes(&self) -> Vec<Finish> {
        let mut groups: Vec<Group> = Vec::new();
        for line in &self.lines {
            let LineKind::Ingredient(read) = &line.kind else { continue };
            let (Some(ingredient), Some(left_out)) = (&read.ingredient, &read.left_out) else { continue };
            let said = match left_out {
                LeftOut::ForTheFinish | LeftOut::ForTheBoard => line.text.to_lowercase(),
                LeftOut::Under { section } => section.clone(),
                LeftOut::ByYou | LeftOut::NoIngredient => continue,
            };
            match groups.last_mut() {
                Some(group) if matches!(left_out, LeftOut::Under { .. }) && group.said == said => {
                    group.of.push(Arc::clone(ingredient));
                }
                _ => groups.push(Group { said, of: vec![Arc::clone(ingredient)] }),
            }
        }
        let mut found: Vec<Coat> = Vec::new();
        for coat in groups.iter().filter_map(Group::coat) {
            if !found.contains(&coat) && found.len() < MOST_COATS {
                found.push(coat);
            }
        }
        found.into_iter().map(Finish::from).collect()
    }
}

impl Group {
    fn coat(&self) -> Option<Coat> {
        let says = |words: &[&str]| words.iter().any(|w| self.said.contains(w));
        let has = |wanted: &dyn Fn(&Ingredient) -> bool| self.of.iter().any(|i| wanted(i));
        let named = |part: &'static str| move |i: &Ingredient| i.key.contains(part);
        let powdered = has(&named("powdered"));
        let between = says(&["filling", "sandwich", "between"]);
        if says(&["board", "flouring", "greas", "tray", "pan"]) && !powdered {
            return None;
        }
        Some(match () {
            () if powdered && has(&named("white")) => Coat::usual_royal(true),
            () if powdered && has(&named("meringue")) => Coat::usual_royal(false),
            () if powdered && has(&named("butter")) && between => Coat::usual_filling(FillingKind::Icing),
            () if powdered && has(&named("butter")) => Coat::usual_buttercream(),
            () if powdered && says(&["drizzl"]) => Coat::usual_glaze(GlazeWay::Drizzled, false),
            () if powdered && says(&["icing", "glaz", "frosting"]) && !says(&["icing sugar"]) => {
                Coat::usual_glaze(GlazeWay::Spread, false)
            }
            () if powdered && self.of.len() > 1 => Coat::usual_glaze(GlazeWay::Spread, false),
            () if powdered => Coat::Sugar(SugarCoat::Powdered),
            () if has(&|i| i.kind == Kind::Chocolate) && has(&|i| i.kind == Kind::Liquid) => {
                Coat::usual_filling(FillingKind::Chocolate)
            }
            () if has(&|i| i.kind == Kind::Chocolate) && says(&["drizzl"]) => Coat::Drizzle,
            () if has(&|i| i.kind == Kind::Chocolate) => Coat::usual_dip(),
            () if has(&named("jam")) && says(&["thumb", "dent", "centre", "center", "middle"]) => {
                Coat::usual_jam_baked()
            }
            () if has(&named("jam")) => Coat::usual_filling(FillingKind::Jam),
            () if has(&|i| i.kind == Kind::Sugar) => Coat::Sugar(SugarCoat::Coarse),
            () => return None,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::dough::Pantry;
    use crate::recipe::{ReadSettings, read_recipe};
    use rstest::rstest;

    const DOUGH: &str = "225 g butter\n110 g sugar\n330 g flour\n";

    fn finishes(more: &str) -> Vec<Coat> {
        let text = format!("{DOUGH}{more}");
        let (_, reading) = read_recipe(&text, Pantry::built_in(), &ReadSettings::default(), &[]).unwrap();
        // What goes on is no part of the dough.
        assert!((reading.known_mass().g() - 665.0).abs() < 0.5, "{more}: {}", reading.known_mass().g());
        reading.finishes().into_iter().map(|f| f.coat).collect()
    }

    #[rstest]
    #[case("50 g granulated sugar, for rolling", Some(Coat::Sugar(SugarCoat::Coarse)))]
    #[case("powdered sugar, for dusting", Some(Coat::Sugar(SugarCoat::Powdered)))]
    #[case("flour, for dusting", None)]
    #[case("100 g jam, for the filling", Some(Coat::usual_filling(FillingKind::Jam)))]
    #[case("150 g dark chocolate, for dipping", Some(Coat::usual_dip()))]
    #[case("For the icing:\n200 g powdered sugar\n35 g egg white", Some(Coat::usual_royal(true)))]
    #[case("For the glaze:\n100 g powdered sugar\n15 g lemon juice", Some(Coat::usual_glaze(GlazeWay::Spread, false)))]
    #[case("For the drizzle:\n100 g powdered sugar\n20 g milk", Some(Coat::usual_glaze(GlazeWay::Drizzled, false)))]
    #[case("For the filling:\n100 g butter\n200 g powdered sugar", Some(Coat::usual_filling(FillingKind::Icing)))]
    #[case("For the frosting:\n100 g butter\n200 g powdered sugar", Some(Coat::usual_buttercream()))]
    #[case("For the ganache:\n100 g dark chocolate\n60 g cream", Some(Coat::usual_filling(FillingKind::Chocolate)))]
    fn what_is_for_rolling_coating_or_filling_goes_to_the_finish(#[case] more: &str, #[case] coat: Option<Coat>) {
        assert_eq!(finishes(more), coat.into_iter().collect::<Vec<_>>(), "{more}");
    }
}
