//! The ingredients known by name, and the pantry in which a bakery's own stand beside them.
//!
//! Grams per 100 g and household weights after USDA FoodData Central, SR Legacy, from memory; rounded. Where an entry is a
//! mean or an estimate of ours its source says so. Butter's lactose is that of British and German tables (0.5 to 0.7 %, from memory): SR has
//! it in its water. Flours hold about 0.2 % of sugars that brown (cereal chemists, from memory).

use super::FatKind::{self, Butter, Coconut, Lard, Liquid, Margarine, Shortening};
use super::household::{Household, SCOOPED_OVER_SPOONED, SIFTED_OVER_SPOONED};
use super::ingredient::{Analysis, Ingredient, Kind};
use crate::error::InputError;
use crate::units::Mass;
use std::borrow::Cow;
use std::collections::HashMap;
use std::sync::{Arc, LazyLock};

const SR: &str = "USDA FoodData Central, SR Legacy (from memory)";
const TYPICAL: &str = "typical value, from memory";
const TRADE: &str = "common practice, no source";

/// A row while it is written down.
struct Row(Ingredient);

/// Water, fat, protein, carbohydrate (without fibre), of it sugars, fibre, ash.
fn row(key: &'static str, name: &'static str, kind: Kind, parts: [f64; 7]) -> Row {
    let [water, fat, protein, carbohydrate, sugars, fibre, ash] = parts;
    Row(Ingredient {
        key: Cow::Borrowed(key),
        name: Cow::Borrowed(name),
        kind,
        analysis: Analysis { water, fat, protein, carbohydrate, sugars, fibre, ash, ..Analysis::default() },
        fat_kind: Liquid,
        household: Household::default(),
        allergens: vec![],
        aliases: vec![],
        source: Cow::Borrowed(SR),
    })
}

impl Row {
    fn fat(mut self, kind: FatKind) -> Self {
        self.0.fat_kind = kind;
        self
    }
    fn salt(mut self, g: f64) -> Self {
        self.0.analysis.salt = g;
        self
    }
    fn alcohol(mut self, g: f64) -> Self {
        self.0.analysis.alcohol = g;
        self
    }
    fn reducing(mut self, g: f64) -> Self {
        self.0.analysis.reducing = g;
        self
    }
    /// A cup that nobody fills in different ways.
    fn cup(mut self, g: f64) -> Self {
        self.0.household.cup = Some(g);
        self
    }
    /// A cup of something dry that packs: scooped and sifted follow by the trade's ratios.
    fn cup_dry(mut self, spooned: f64) -> Self {
        self.0.household.cup = Some(spooned);
        self.0.household.cup_scooped = Some((spooned * SCOOPED_OVER_SPOONED).round());
        self.0.household.cup_sifted = Some((spooned * SIFTED_OVER_SPOONED).round());
        self
    }
    fn packed(mut self, g: f64) -> Self {
        self.0.household.cup_packed = Some(g);
        self
    }
    fn tsp(mut self, g: f64) -> Self {
        self.0.household.tsp = Some(g);
        self
    }
    fn each(mut self, g: f64) -> Self {
        self.0.household.each = Some(g);
        self
    }
    fn stick(mut self, g: f64) -> Self {
        self.0.household.stick = Some(g);
        self
    }
    fn allergen(mut self, name: &'static str) -> Self {
        self.0.allergens.push(Cow::Borrowed(name));
        self
    }
    /// Other names, apart by `|`.
    fn aka(mut self, names: &'static str) -> Self {
        self.0.aliases = names.split('|').map(Cow::Borrowed).collect();
        self
    }
    fn source(mut self, source: &'static str) -> Self {
        self.0.source = Cow::Borrowed(source);
        self
    }
}

#[rustfmt::skip]
fn rows() -> Vec<Row> {
    vec![
        // Flours. A cup spooned and levelled; scooped 20 % more, sifted 8 % less.
        row("flour-ap", "All-purpose flour", Kind::Flour, [11.9, 1.0, 10.3, 73.6, 0.3, 2.7, 0.5]).reducing(0.2).cup_dry(125.0).allergen("wheat").aka("plain flour|white flour|flour|ap flour|wheat flour|refined flour|refined wheat flour|maida"),
        row("flour-bread", "Bread flour", Kind::Flour, [13.4, 1.7, 12.0, 70.1, 0.3, 2.4, 0.5]).reducing(0.2).cup_dry(127.0).allergen("wheat").aka("strong flour|strong white flour"),
        row("flour-pastry", "Pastry flour", Kind::Flour, [11.9, 0.9, 8.8, 75.9, 0.3, 2.0, 0.5]).reducing(0.2).cup_dry(114.0).allergen("wheat").source(TYPICAL),
        row("flour-cake", "Cake flour", Kind::Flour, [12.5, 0.9, 8.2, 76.3, 0.3, 1.7, 0.4]).reducing(0.2).cup_dry(114.0).allergen("wheat").aka("soft flour"),
        row("flour-self-raising", "Self-rising flour", Kind::Flour, [11.4, 1.0, 9.9, 71.3, 0.2, 2.7, 3.7]).reducing(0.2).salt(1.0).cup_dry(125.0).allergen("wheat").aka("self raising flour|self rising flour"),
        row("flour-wholewheat", "Whole wheat flour", Kind::Flour, [10.7, 2.5, 13.2, 61.3, 0.4, 10.7, 1.6]).reducing(0.2).cup_dry(120.0).allergen("wheat").aka("wholemeal flour|whole meal flour|wholewheat flour|graham flour"),
        row("flour-spelt", "Spelt flour", Kind::Flour, [11.0, 2.4, 14.6, 60.0, 1.0, 10.4, 1.6]).reducing(0.2).cup_dry(120.0).allergen("wheat").source(TYPICAL),
        row("flour-rye", "Medium rye flour", Kind::Flour, [9.8, 1.5, 10.9, 63.9, 0.8, 12.3, 1.6]).reducing(0.2).cup_dry(102.0).allergen("rye").aka("rye flour"),
        row("flour-rice", "White rice flour", Kind::Flour, [11.9, 1.4, 6.0, 77.7, 0.1, 2.4, 0.6]).cup_dry(158.0).aka("rice flour"),
        row("flour-buckwheat", "Buckwheat flour", Kind::Flour, [11.2, 3.1, 12.6, 60.6, 2.6, 10.0, 2.5]).cup_dry(120.0),
        row("oats", "Rolled oats", Kind::Flour, [10.8, 6.5, 13.2, 57.6, 1.0, 10.1, 1.8]).cup(81.0).allergen("oats").aka("oat|porridge oats|oatmeal|old fashioned oats"),
        row("semolina", "Semolina", Kind::Flour, [12.7, 1.1, 12.7, 68.9, 0.3, 3.9, 0.8]).cup(167.0).allergen("wheat"),
        row("flour-maize", "Maize flour", Kind::Flour, [10.9, 3.9, 6.9, 69.6, 0.6, 7.3, 1.4]).cup_dry(117.0).aka("masa harina|fine cornmeal"),
        row("cornmeal", "Cornmeal", Kind::Flour, [11.2, 1.7, 7.1, 75.4, 1.6, 3.9, 0.6]).cup(157.0).aka("polenta|maize meal"),
        row("flour-oat", "Oat flour", Kind::Flour, [8.6, 9.1, 14.7, 59.1, 0.8, 6.5, 2.0]).reducing(0.2).cup(104.0).allergen("oats"),
        row("flour-barley", "Barley flour", Kind::Flour, [12.1, 1.6, 10.5, 64.4, 0.8, 10.1, 1.3]).reducing(0.2).cup(148.0).allergen("barley"),
        row("flour-coconut", "Coconut flour", Kind::Flour, [4.0, 14.0, 19.0, 20.0, 9.0, 38.0, 5.0]).cup(112.0).source(TYPICAL),
        row("flour-gluten-free", "Gluten-free flour blend", Kind::Flour, [11.0, 1.0, 4.0, 81.0, 0.3, 2.5, 0.5]).cup(140.0).aka("gluten free flour|gluten-free flour|gluten free flour blend|gluten free baking flour").source(TYPICAL),
        row("wheat-germ", "Wheat germ", Kind::Flour, [11.1, 9.7, 23.2, 38.6, 7.8, 13.2, 4.2]).reducing(0.5).cup(115.0).allergen("wheat"),
        // Starches.
        row("cornstarch", "Cornstarch", Kind::Starch, [8.3, 0.1, 0.3, 90.3, 0.0, 0.9, 0.1]).cup_dry(128.0).aka("cornflour|corn starch|maize starch"),
        row("potato-starch", "Potato starch", Kind::Starch, [12.0, 0.1, 0.2, 87.2, 0.0, 0.0, 0.5]).cup(160.0).source(TYPICAL),
        row("tapioca-starch", "Tapioca starch", Kind::Starch, [11.0, 0.0, 0.2, 87.8, 0.0, 0.9, 0.1]).cup(120.0).aka("tapioca flour").source(TYPICAL),
        row("xanthan", "Xanthan gum", Kind::Starch, [11.0, 0.0, 6.0, 5.0, 0.0, 70.0, 8.0]).tsp(2.7).aka("xanthan").source(TYPICAL),
        // Fats.
        row("butter", "Unsalted butter", Kind::Fat, [17.3, 81.1, 0.9, 0.6, 0.6, 0.0, 0.1]).fat(Butter).reducing(0.6).cup(227.0).tsp(4.73).stick(113.4).allergen("milk").aka("butter|sweet butter|sweet cream butter"),
        row("butter-salted", "Salted butter", Kind::Fat, [15.6, 81.1, 0.9, 0.6, 0.6, 0.0, 1.8]).fat(Butter).salt(1.6).reducing(0.6).cup(227.0).tsp(4.73).stick(113.4).allergen("milk"),
        row("butter-rich", "European-style butter", Kind::Fat, [14.4, 84.0, 0.9, 0.6, 0.6, 0.0, 0.1]).fat(Butter).reducing(0.6).cup(227.0).tsp(4.73).stick(113.4).allergen("milk").aka("high fat butter|european style butter|european butter|high fat european butter").source(TYPICAL),
        row("butter-clarified", "Clarified butter", Kind::Fat, [0.2, 99.5, 0.3, 0.0, 0.0, 0.0, 0.0]).fat(Butter).cup(205.0).allergen("milk").aka("ghee|butter oil"),
        row("shortening", "Shortening", Kind::Fat, [0.0, 100.0, 0.0, 0.0, 0.0, 0.0, 0.0]).fat(Shortening).cup(205.0).tsp(4.27).aka("vegetable shortening|baking fat"),
        row("margarine", "Stick margarine", Kind::Fat, [16.5, 80.7, 0.2, 0.7, 0.0, 0.0, 1.9]).fat(Margarine).salt(1.7).cup(227.0).tsp(4.73).stick(113.4).allergen("soy").aka("margarine|baking margarine|block margarine"),
        row("vegan-block", "Plant-based butter sticks", Kind::Fat, [16.6, 80.7, 0.4, 0.8, 0.2, 0.0, 1.5]).fat(Margarine).salt(1.2).cup(227.0).tsp(4.73).stick(113.4).aka("plant based baking block|baking block|vegan butter|plant butter|vegan block|plant based butter|dairy free butter|non dairy butter|vegan baking block").source(TYPICAL),
        row("spread", "Tub margarine", Kind::Fat, [37.0, 60.0, 0.3, 0.9, 0.0, 0.0, 1.8]).fat(Liquid).salt(1.5).cup(229.0).allergen("soy").aka("soft spread|tub margarine|soft margarine|baking spread").source(TYPICAL),
        row("lard", "Lard", Kind::Fat, [0.0, 100.0, 0.0, 0.0, 0.0, 0.0, 0.0]).fat(Lard).cup(205.0),
        row("coconut-oil", "Coconut oil", Kind::Fat, [0.0, 100.0, 0.0, 0.0, 0.0, 0.0, 0.0]).fat(Coconut).cup(218.0),
        row("oil", "Vegetable oil", Kind::Fat, [0.0, 100.0, 0.0, 0.0, 0.0, 0.0, 0.0]).cup(218.0).tsp(4.5).aka("oil|sunflower oil|rapeseed oil|canola oil|neutral oil|corn oil"),
        row("oil-olive", "Olive oil", Kind::Fat, [0.0, 100.0, 0.0, 0.0, 0.0, 0.0, 0.0]).cup(216.0).tsp(4.5).aka("extra virgin olive oil"),
        // Sugars by crystal.
        row("sugar", "Granulated sugar", Kind::Sugar, [0.0, 0.0, 0.0, 100.0, 100.0, 0.0, 0.0]).cup(200.0).tsp(4.2).aka("sugar|white sugar|granulated white sugar|white granulated sugar|cane sugar|table sugar|beet sugar"),
        row("sugar-caster", "Superfine sugar", Kind::Sugar, [0.0, 0.0, 0.0, 100.0, 100.0, 0.0, 0.0]).cup(200.0).tsp(4.2).aka("caster sugar|superfine sugar|castor sugar|super fine sugar|fine sugar"),
        row("sugar-vanilla", "Vanilla sugar", Kind::Sugar, [0.2, 0.0, 0.0, 99.8, 99.5, 0.0, 0.0]).cup(200.0).tsp(4.2).source(TYPICAL),
        row("sugar-powdered", "Powdered sugar", Kind::Sugar, [0.2, 0.0, 0.0, 99.8, 97.0, 0.0, 0.0]).cup_dry(120.0).tsp(2.5).aka("icing sugar|confectioners sugar|confectioner sugar|confectionery sugar|10x sugar"),
        row("sugar-brown", "Brown sugar", Kind::Sugar, [1.3, 0.0, 0.1, 98.1, 97.0, 0.0, 0.5]).reducing(3.5).cup(145.0).packed(220.0).tsp(4.6).aka("soft brown sugar|light brown sugar|muscovado sugar|light muscovado sugar"),
        row("sugar-dark", "Dark brown sugar", Kind::Sugar, [2.0, 0.0, 0.2, 97.0, 95.5, 0.0, 0.8]).reducing(4.5).cup(145.0).packed(220.0).tsp(4.6).aka("dark muscovado sugar|dark soft brown sugar").source(TYPICAL),
        row("sugar-raw", "Raw cane sugar", Kind::Sugar, [0.5, 0.0, 0.0, 99.3, 99.0, 0.0, 0.2]).reducing(0.5).cup(210.0).tsp(4.6).aka("demerara sugar|turbinado sugar|coarse sugar|sanding sugar").source(TYPICAL),
        row("sugar-coconut", "Coconut sugar", Kind::Sugar, [2.5, 0.5, 1.5, 93.0, 85.0, 0.5, 2.0]).reducing(6.0).cup(155.0).aka("coconut palm sugar").source(TYPICAL),
        row("sugar-pearl", "Pearl sugar", Kind::Sugar, [0.1, 0.0, 0.0, 99.9, 99.9, 0.0, 0.0]).cup(180.0).tsp(3.8).aka("nib sugar|hail sugar|sugar nibs").source(TYPICAL),
        row("sprinkles", "Sugar sprinkles", Kind::Sugar, [1.0, 5.0, 0.0, 93.0, 88.0, 0.0, 1.0]).fat(Coconut).cup(190.0).tsp(4.0).aka("sprinkles|nonpareils|rainbow sprinkles|hundreds and thousands").source(TYPICAL),
        row("dextrose", "Dextrose", Kind::Sugar, [9.0, 0.0, 0.0, 91.0, 91.0, 0.0, 0.0]).reducing(91.0).cup_dry(130.0).tsp(2.8).aka("glucose powder|grape sugar").source(TYPICAL),
        // Syrups.
        row("honey", "Honey", Kind::Syrup, [17.1, 0.0, 0.3, 82.2, 82.1, 0.2, 0.2]).reducing(75.0).cup(339.0).tsp(7.0),
        row("molasses", "Molasses", Kind::Syrup, [21.9, 0.1, 0.0, 74.7, 74.7, 0.0, 3.3]).reducing(24.0).cup(337.0).tsp(7.0).aka("treacle|black treacle"),
        row("golden-syrup", "Golden syrup", Kind::Syrup, [19.0, 0.0, 0.3, 79.7, 79.0, 0.0, 1.0]).reducing(45.0).cup(340.0).tsp(7.1).aka("light treacle").source(TYPICAL),
        row("corn-syrup", "Light corn syrup", Kind::Syrup, [22.8, 0.0, 0.0, 77.0, 28.0, 0.0, 0.2]).reducing(28.0).cup(328.0).tsp(6.8).aka("corn syrup|glucose syrup"),
        row("maple-syrup", "Maple syrup", Kind::Syrup, [32.4, 0.1, 0.0, 67.0, 60.5, 0.0, 0.5]).reducing(2.5).cup(315.0).tsp(6.6),
        row("agave", "Agave syrup", Kind::Syrup, [22.9, 0.5, 0.1, 76.3, 68.0, 0.2, 0.0]).reducing(67.0).cup(330.0).tsp(6.9).aka("agave|agave nectar"),
        row("malt-syrup", "Malt syrup", Kind::Syrup, [21.0, 0.0, 6.0, 71.8, 71.0, 0.0, 1.2]).reducing(60.0).cup(340.0).tsp(8.0).allergen("barley").aka("malt extract|barley malt syrup"),
        // Eggs. One of each part follows the size class.
        row("egg", "Whole egg", Kind::Egg, [76.2, 9.5, 12.6, 0.7, 0.4, 0.0, 1.0]).reducing(0.3).cup(243.0).each(50.0).allergen("egg").aka("egg|beaten egg"),
        row("yolk", "Egg yolk", Kind::Egg, [52.3, 26.5, 15.9, 3.6, 0.6, 0.0, 1.7]).reducing(0.2).cup(243.0).each(17.0).allergen("egg").aka("yolk|yolk of egg"),
        row("white", "Egg white", Kind::Egg, [87.6, 0.2, 10.9, 0.7, 0.7, 0.0, 0.6]).reducing(0.4).cup(243.0).each(33.0).allergen("egg").aka("white of egg"),
        // Liquids.
        row("milk", "Whole milk", Kind::Liquid, [88.1, 3.3, 3.2, 4.7, 4.7, 0.0, 0.7]).fat(Butter).reducing(4.7).cup(244.0).tsp(5.1).allergen("milk").aka("milk|full fat milk"),
        row("milk-skim", "Skim milk", Kind::Liquid, [90.8, 0.1, 3.4, 5.0, 5.0, 0.0, 0.7]).fat(Butter).reducing(5.0).cup(245.0).tsp(5.1).allergen("milk").aka("skimmed milk|nonfat milk|fat free milk"),
        row("cream", "Heavy cream", Kind::Liquid, [57.7, 37.0, 2.0, 2.8, 2.8, 0.0, 0.5]).fat(Butter).reducing(2.8).cup(238.0).tsp(5.0).allergen("milk").aka("cream|double cream|whipping cream|heavy whipping cream"),
        row("buttermilk", "Buttermilk", Kind::Liquid, [90.1, 0.9, 3.3, 4.8, 4.8, 0.0, 0.9]).fat(Butter).reducing(4.8).cup(245.0).tsp(5.1).allergen("milk"),
        row("cream-cheese", "Cream cheese", Kind::Liquid, [53.0, 34.0, 6.0, 5.5, 3.8, 0.0, 1.3]).fat(Butter).reducing(3.8).salt(0.8).cup(232.0).tsp(4.8).allergen("milk").aka("soft cheese"),
        row("sour-cream", "Sour cream", Kind::Liquid, [73.0, 19.4, 2.4, 4.6, 3.4, 0.0, 0.6]).fat(Butter).reducing(3.4).cup(230.0).tsp(4.8).allergen("milk").aka("soured cream"),
        row("creme-fraiche", "Cr\u{e8}me fra\u{ee}che", Kind::Liquid, [59.0, 35.0, 2.3, 3.0, 3.0, 0.0, 0.7]).fat(Butter).reducing(3.0).cup(230.0).tsp(4.8).allergen("milk").aka("creme fraiche").source(TYPICAL),
        row("yogurt", "Plain yogurt", Kind::Liquid, [87.9, 3.3, 3.5, 4.6, 4.6, 0.0, 0.7]).fat(Butter).reducing(4.6).cup(245.0).tsp(5.1).allergen("milk").aka("yogurt|yoghurt|natural yoghurt|plain yoghurt|natural yogurt|whole milk yogurt"),
        row("yogurt-greek", "Greek yogurt", Kind::Liquid, [81.3, 5.0, 9.0, 4.0, 4.0, 0.0, 0.7]).fat(Butter).reducing(4.0).cup(245.0).tsp(5.1).allergen("milk").aka("greek yoghurt|greek style yoghurt|strained yogurt"),
        row("ricotta", "Ricotta", Kind::Liquid, [71.7, 13.0, 11.3, 3.0, 0.3, 0.0, 1.0]).fat(Butter).reducing(0.3).cup(246.0).tsp(5.1).allergen("milk").aka("ricotta cheese"),
        row("mascarpone", "Mascarpone", Kind::Liquid, [47.0, 44.0, 4.5, 4.0, 4.0, 0.0, 0.5]).fat(Butter).reducing(4.0).cup(225.0).tsp(4.7).allergen("milk").source(TYPICAL),
        row("milk-condensed", "Sweetened condensed milk", Kind::Liquid, [27.2, 8.7, 7.9, 54.4, 54.4, 0.0, 1.8]).fat(Butter).reducing(10.0).cup(306.0).tsp(6.4).allergen("milk").aka("condensed milk"),
        row("milk-evaporated", "Evaporated milk", Kind::Liquid, [74.0, 7.6, 6.8, 10.0, 10.0, 0.0, 1.6]).fat(Butter).reducing(10.0).cup(252.0).tsp(5.2).allergen("milk"),
        row("milk-oat", "Oat milk", Kind::Liquid, [90.6, 1.5, 1.0, 6.0, 4.0, 0.8, 0.1]).reducing(3.5).cup(240.0).tsp(5.0).allergen("oats").aka("oat drink|oat milk").source(TYPICAL),
        row("milk-almond", "Almond milk", Kind::Liquid, [97.0, 1.1, 0.5, 0.4, 0.2, 0.3, 0.7]).cup(240.0).tsp(5.0).allergen("almond").aka("almond drink|almond milk").source(TYPICAL),
        row("milk-soy", "Soy milk", Kind::Liquid, [93.2, 1.8, 3.3, 0.8, 0.6, 0.4, 0.5]).cup(243.0).tsp(5.1).allergen("soy").aka("soy drink|soy milk|soya milk|soya drink").source(TYPICAL),
        row("water", "Water", Kind::Liquid, [100.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0]).cup(236.6).tsp(4.93).aka("ice water|cold water"),
        row("lemon-juice", "Lemon juice", Kind::Liquid, [92.3, 0.2, 0.4, 6.6, 2.5, 0.3, 0.2]).reducing(2.0).cup(244.0).tsp(5.1).each(45.0),
        row("orange-juice", "Orange juice", Kind::Liquid, [88.3, 0.2, 0.7, 10.2, 8.4, 0.2, 0.4]).reducing(4.5).cup(248.0).tsp(5.2).each(70.0),
        // Leaveners and salt.
        row("baking-powder", "Baking powder", Kind::Leavener, [5.0, 0.0, 0.0, 28.0, 0.0, 0.0, 67.0]).tsp(4.6),
        row("baking-soda", "Baking soda", Kind::Leavener, [0.2, 0.0, 0.0, 0.0, 0.0, 0.0, 99.8]).tsp(4.6).aka("bicarbonate of soda|bicarb|bicarbonate|bicarb soda|sodium bicarbonate"),
        row("bakers-ammonia", "Baker's ammonia", Kind::Leavener, [0.5, 0.0, 0.0, 0.0, 0.0, 0.0, 99.5]).tsp(3.8).aka("ammonium bicarbonate|hartshorn|baking ammonia").source(TYPICAL),
        row("cream-of-tartar", "Cream of tartar", Kind::Leavener, [1.7, 0.0, 0.0, 61.3, 0.0, 0.2, 36.8]).tsp(3.0).aka("tartar"),
        row("salt", "Fine salt", Kind::Salt, [0.2, 0.0, 0.0, 0.0, 0.0, 0.0, 99.8]).salt(99.8).tsp(6.0).aka("salt|table salt|sea salt|fine sea salt"),
        row("salt-flaky", "Coarse flaky salt", Kind::Salt, [0.4, 0.0, 0.0, 0.0, 0.0, 0.0, 99.6]).salt(99.6).tsp(3.0).aka("kosher salt|flaky salt|flaky sea salt|coarse salt|flaked salt").source(TRADE),
        // Cocoa, meals, chocolate.
        row("cocoa", "Unsweetened cocoa", Kind::Cocoa, [3.0, 13.7, 19.6, 24.7, 1.8, 33.2, 5.8]).fat(Coconut).cup_dry(86.0).tsp(1.8).aka("cocoa|cocoa powder|unsweetened cocoa powder|natural cocoa|dutch cocoa|dutch process cocoa"),
        row("malt-powder", "Malted milk powder", Kind::Meal, [3.0, 8.0, 11.0, 74.0, 50.0, 1.0, 3.0]).fat(Butter).reducing(35.0).cup_dry(120.0).tsp(3.5).allergen("barley").allergen("wheat").allergen("milk").aka("malted milk|malt powder").source(TYPICAL),
        row("milk-powder", "Whole milk powder", Kind::Meal, [2.5, 26.7, 26.3, 38.4, 38.4, 0.0, 6.1]).fat(Butter).reducing(38.4).cup_dry(128.0).tsp(2.7).allergen("milk").aka("milk powder|dried milk|dry milk|powdered milk|dried milk powder|dry milk powder"),
        row("almond-meal", "Almond meal", Kind::Meal, [4.4, 49.9, 21.2, 9.1, 4.4, 12.5, 2.9]).cup_dry(96.0).tsp(2.3).allergen("almond").aka("almond flour|ground almond|ground almonds"),
        row("hazelnut-meal", "Hazelnut meal", Kind::Meal, [5.3, 60.8, 15.0, 7.0, 4.3, 9.7, 2.3]).cup_dry(90.0).allergen("hazelnut").aka("ground hazelnut|ground hazelnuts|hazelnut flour"),
        row("sesame-black", "Ground black sesame", Kind::Meal, [4.7, 49.7, 17.7, 11.6, 0.3, 11.8, 4.5]).cup(120.0).tsp(2.7).allergen("sesame").aka("ground sesame|black sesame powder"),
        row("custard-powder", "Custard powder", Kind::Meal, [10.0, 0.2, 0.4, 88.4, 0.0, 0.5, 0.5]).cup_dry(125.0).tsp(2.7).source(TYPICAL),
        row("coconut", "Unsweetened shredded coconut", Kind::Meal, [3.0, 64.5, 6.9, 7.4, 7.4, 16.3, 1.9]).fat(Coconut).cup(85.0).tsp(1.8).aka("dried coconut|desiccated coconut|shredded coconut|unsweetened coconut"),
        row("chocolate", "Chopped dark chocolate", Kind::Chocolate, [1.4, 42.6, 7.8, 34.9, 24.0, 10.9, 2.4]).fat(Coconut).cup(168.0).allergen("soy").aka("dark chocolate|chocolate chips|chocolate|chocolate chip|bittersweet chocolate|semisweet chocolate|semi sweet chocolate|semi sweet chocolate chip|dark chocolate chip|semisweet chocolate chip"),
        row("chocolate-milk", "Milk chocolate", Kind::Chocolate, [1.5, 29.7, 7.7, 56.0, 51.5, 3.4, 1.7]).fat(Coconut).reducing(8.0).cup(168.0).allergen("milk").allergen("soy").aka("milk chocolate chips"),
        row("chocolate-white", "White chocolate", Kind::Chocolate, [1.3, 32.1, 5.9, 59.0, 59.0, 0.2, 1.5]).fat(Coconut).reducing(8.0).cup(170.0).allergen("milk").allergen("soy").aka("white chocolate chips"),
        row("toffee", "Toffee bits", Kind::Chocolate, [1.5, 32.0, 1.0, 64.5, 60.0, 0.0, 1.0]).fat(Butter).reducing(4.0).cup(160.0).allergen("milk").aka("toffee|toffee pieces|toffee bit").source(TYPICAL),
        row("butterscotch", "Butterscotch chips", Kind::Chocolate, [1.0, 29.0, 2.2, 67.0, 66.0, 0.0, 0.8]).fat(Coconut).cup(170.0).allergen("milk").aka("butterscotch|butterscotch chip").source(TYPICAL),
        row("chocolate-sweets", "Candy-coated chocolates", Kind::Chocolate, [1.7, 21.1, 4.3, 69.4, 63.7, 2.5, 1.0]).fat(Coconut).cup(208.0).allergen("milk").aka("sugar coated chocolates|candy coated chocolate|candy coated chocolates|chocolate candies|sugar coated chocolate"),
        row("cocoa-nibs", "Cocoa nibs", Kind::Chocolate, [2.5, 50.0, 13.0, 11.0, 1.0, 20.0, 3.5]).fat(Coconut).cup(120.0).aka("cacao nibs").source(TYPICAL),
        row("matcha", "Matcha", Kind::Flavour, [5.0, 5.3, 30.6, 12.0, 0.0, 39.0, 8.1]).tsp(2.0).aka("matcha powder|green tea powder").source(TYPICAL),
        row("pudding-mix", "Instant pudding mix", Kind::Starch, [4.0, 0.8, 0.2, 92.0, 80.0, 0.5, 2.5]).cup(150.0).tsp(3.1).aka("instant pudding|vanilla pudding mix|pudding powder").source(TYPICAL),
        // Nuts and seeds.
        row("walnut", "Chopped walnuts", Kind::Nut, [4.1, 65.2, 15.2, 7.0, 2.6, 6.7, 1.8]).cup(117.0).tsp(2.4).allergen("walnut").aka("walnut|walnut pieces"),
        row("pecan", "Chopped pecans", Kind::Nut, [3.5, 72.0, 9.2, 4.3, 4.0, 9.6, 1.5]).cup(109.0).tsp(2.3).allergen("pecan").aka("pecan"),
        row("almond", "Chopped almonds", Kind::Nut, [4.4, 49.9, 21.2, 9.1, 4.4, 12.5, 2.9]).cup(130.0).allergen("almond").aka("almond|slivered almonds|sliced almonds|flaked almonds"),
        row("hazelnut", "Chopped hazelnuts", Kind::Nut, [5.3, 60.8, 15.0, 7.0, 4.3, 9.7, 2.3]).cup(115.0).allergen("hazelnut").aka("hazelnut|filbert"),
        row("pistachio", "Chopped pistachios", Kind::Nut, [4.4, 45.3, 20.2, 16.6, 7.7, 10.6, 3.0]).cup(123.0).allergen("pistachio").aka("pistachio"),
        row("peanut-butter", "Peanut butter", Kind::Meal, [1.2, 51.4, 22.2, 17.3, 10.5, 5.0, 2.9]).salt(1.1).cup(258.0).tsp(5.3).allergen("peanut"),
        row("cashew", "Chopped cashews", Kind::Nut, [5.2, 43.9, 18.2, 26.9, 5.9, 3.3, 2.5]).cup(137.0).tsp(2.9).allergen("cashew").aka("cashew|cashew nut"),
        row("macadamia", "Chopped macadamias", Kind::Nut, [1.4, 75.8, 7.9, 5.2, 4.6, 8.6, 1.1]).cup(134.0).tsp(2.8).allergen("macadamia").aka("macadamia|macadamia nut"),
        row("peanut", "Chopped peanuts", Kind::Nut, [1.8, 49.7, 24.4, 12.9, 4.9, 8.4, 2.8]).cup(146.0).tsp(3.0).allergen("peanut").aka("peanut|roasted peanut|unsalted peanut"),
        row("pine-nut", "Pine nuts", Kind::Nut, [2.3, 68.4, 13.7, 9.3, 3.6, 3.7, 2.6]).cup(135.0).tsp(2.8).aka("pine nut|pine kernel"),
        row("almond-paste", "Almond paste", Kind::Nut, [14.1, 27.7, 9.0, 43.0, 36.3, 4.8, 1.4]).reducing(2.0).cup(227.0).tsp(4.7).allergen("almond").aka("marzipan"),
        row("sunflower-seed", "Sunflower seeds", Kind::Seed, [4.7, 51.5, 20.8, 11.4, 2.6, 8.6, 3.0]).cup(140.0).tsp(2.9).aka("sunflower kernel|sunflower seed"),
        row("pumpkin-seed", "Pumpkin seeds", Kind::Seed, [5.2, 49.1, 30.2, 4.7, 1.4, 6.0, 4.8]).cup(129.0).tsp(2.7).aka("pepitas|pumpkin seed"),
        row("flaxseed", "Ground flaxseed", Kind::Seed, [7.0, 42.2, 18.2, 1.6, 1.6, 27.3, 3.7]).cup(112.0).tsp(2.3).aka("flaxseed|linseed|ground linseed|flax meal|flaxseed meal"),
        row("tahini", "Tahini", Kind::Nut, [3.1, 53.8, 17.0, 11.9, 0.5, 9.3, 4.9]).cup(240.0).tsp(5.0).allergen("sesame").aka("sesame paste"),
        row("sesame", "Sesame seeds", Kind::Seed, [4.7, 49.7, 17.7, 11.6, 0.3, 11.8, 4.5]).cup(144.0).tsp(3.0).allergen("sesame").aka("sesame|black sesame|white sesame"),
        row("poppy", "Poppy seeds", Kind::Seed, [5.9, 41.6, 18.0, 8.6, 3.0, 19.5, 6.4]).cup(141.0).tsp(2.8).aka("poppy"),
        row("caraway", "Caraway seeds", Kind::Seed, [9.9, 14.6, 19.8, 11.9, 0.6, 38.0, 5.8]).tsp(2.1).aka("caraway"),
        // Fruit.
        row("raisin", "Raisins", Kind::Fruit, [15.4, 0.5, 3.1, 75.5, 59.2, 3.7, 1.8]).reducing(58.0).cup(145.0).packed(165.0).aka("sultana"),
        row("currant", "Dried currants", Kind::Fruit, [19.2, 0.3, 4.1, 67.3, 67.3, 6.8, 2.3]).reducing(66.0).cup(144.0).aka("currant"),
        row("cranberry", "Dried cranberries", Kind::Fruit, [15.8, 1.1, 0.2, 77.5, 72.6, 5.3, 0.2]).reducing(40.0).cup(120.0).aka("cranberry"),
        row("candied-peel", "Candied peel", Kind::Fruit, [16.7, 0.1, 0.3, 80.6, 80.0, 1.9, 0.4]).reducing(30.0).cup(150.0).aka("mixed peel|candied orange peel|candied lemon peel").source(TYPICAL),
        row("candied-cherry", "Candied cherries", Kind::Fruit, [20.0, 0.2, 0.4, 78.3, 70.0, 0.9, 0.2]).reducing(30.0).cup(200.0).each(5.0).aka("glace cherry|candied cherry").source(TYPICAL),
        row("dried-cherry", "Dried cherries", Kind::Fruit, [16.0, 0.7, 1.3, 78.5, 67.0, 2.5, 1.0]).reducing(60.0).cup(140.0).aka("dried cherry").source(TYPICAL),
        row("date", "Chopped dates", Kind::Fruit, [20.5, 0.4, 2.5, 67.0, 63.4, 8.0, 1.6]).reducing(60.0).cup(147.0).tsp(3.1).aka("date|medjool date|dried date"),
        row("apricot", "Dried apricots", Kind::Fruit, [30.9, 0.5, 3.4, 55.3, 53.4, 7.3, 2.6]).reducing(45.0).cup(130.0).tsp(2.7).aka("dried apricot"),
        row("fig", "Dried figs", Kind::Fruit, [30.1, 0.9, 3.3, 54.1, 47.9, 9.8, 1.8]).reducing(47.0).cup(149.0).tsp(3.1).aka("dried fig"),
        row("jam", "Jam", Kind::Fruit, [30.5, 0.1, 0.4, 67.7, 48.5, 1.1, 0.2]).reducing(30.0).cup(320.0).tsp(6.7).aka("raspberry jam|strawberry jam|apricot jam|redcurrant jam|blackcurrant jam|preserves|marmalade|raspberry preserves|apricot preserves"),
        row("pumpkin", "Pumpkin pur\u{e9}e", Kind::Fruit, [90.0, 0.3, 1.1, 5.2, 3.3, 2.9, 0.5]).reducing(2.5).cup(245.0).tsp(5.1).aka("pumpkin puree|canned pumpkin|pumpkin"),
        row("banana", "Mashed banana", Kind::Fruit, [74.9, 0.3, 1.1, 20.2, 12.2, 2.6, 0.8]).reducing(9.8).cup(225.0).tsp(4.7).aka("banana|ripe banana|mashed ripe banana|ripe mashed banana"),
        row("apple-sauce", "Applesauce", Kind::Fruit, [88.2, 0.1, 0.2, 10.2, 9.4, 1.1, 0.2]).reducing(8.0).cup(244.0).tsp(5.1).aka("apple sauce|applesauce|apple puree|unsweetened applesauce"),
        // Flavours.
        row("vanilla", "Vanilla extract", Kind::Flavour, [52.6, 0.1, 0.1, 12.7, 12.7, 0.0, 0.1]).alcohol(34.4).cup(208.0).tsp(4.2).aka("vanilla|pure vanilla extract|vanilla essence"),
        row("vanilla-paste", "Vanilla paste", Kind::Flavour, [40.0, 0.1, 0.3, 59.0, 50.0, 0.4, 0.2]).tsp(5.5).aka("vanilla bean paste").source(TYPICAL),
        row("almond-extract", "Almond extract", Kind::Flavour, [52.0, 3.0, 0.0, 0.0, 0.0, 0.0, 0.0]).alcohol(45.0).tsp(4.2).source(TYPICAL),
        row("lemon-extract", "Lemon extract", Kind::Flavour, [15.0, 5.0, 0.0, 0.0, 0.0, 0.0, 0.0]).alcohol(80.0).tsp(4.2).source(TYPICAL),
        row("orange-extract", "Orange extract", Kind::Flavour, [15.0, 5.0, 0.0, 0.0, 0.0, 0.0, 0.0]).alcohol(80.0).tsp(4.2).source(TYPICAL),
        row("peppermint-extract", "Peppermint extract", Kind::Flavour, [52.0, 3.0, 0.0, 0.0, 0.0, 0.0, 0.0]).alcohol(45.0).tsp(4.2).aka("mint extract").source(TYPICAL),
        row("rose-water", "Rose water", Kind::Flavour, [100.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0]).tsp(4.9).aka("rosewater").source(TYPICAL),
        row("orange-blossom", "Orange blossom water", Kind::Flavour, [100.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0]).tsp(4.9).aka("orange flower water").source(TYPICAL),
        row("lemon-zest", "Lemon zest", Kind::Flavour, [81.6, 0.3, 1.5, 5.4, 4.2, 10.6, 0.6]).tsp(2.0).each(6.0).aka("grated lemon zest|lemon peel|lemon rind"),
        row("orange-zest", "Orange zest", Kind::Flavour, [72.5, 0.2, 1.5, 14.4, 10.0, 10.6, 0.8]).tsp(2.0).each(9.0).aka("grated orange zest|orange peel|orange rind"),
        row("thyme", "Fresh thyme leaves", Kind::Flavour, [65.1, 1.7, 5.6, 10.4, 0.0, 14.0, 3.2]).tsp(0.8).aka("thyme|fresh thyme|thyme leaves"),
        row("rosemary", "Fresh rosemary", Kind::Flavour, [67.8, 5.9, 3.3, 6.5, 0.0, 14.1, 2.4]).tsp(0.7).aka("rosemary"),
        row("lavender", "Dried lavender", Kind::Flavour, [8.0, 4.0, 10.0, 30.0, 0.0, 42.0, 6.0]).tsp(0.6).aka("lavender|culinary lavender|lavender buds|lavender bud|lavender flowers").source(TYPICAL),
        row("cinnamon", "Ground cinnamon", Kind::Flavour, [10.6, 1.2, 4.0, 27.5, 2.2, 53.1, 3.6]).tsp(2.6).aka("cinnamon"),
        row("ginger", "Ground ginger", Kind::Flavour, [9.9, 4.2, 9.0, 57.5, 3.4, 14.1, 5.2]).tsp(1.8).aka("ginger|powdered ginger|dried ginger"),
        row("cardamom", "Ground cardamom", Kind::Flavour, [8.3, 6.7, 10.8, 40.5, 0.0, 28.0, 5.8]).tsp(2.0).aka("cardamom"),
        row("nutmeg", "Ground nutmeg", Kind::Flavour, [6.2, 36.3, 5.8, 28.5, 3.0, 20.8, 2.3]).tsp(2.2).aka("nutmeg|grated nutmeg"),
        row("cloves", "Ground cloves", Kind::Flavour, [9.9, 13.0, 6.0, 31.6, 2.4, 33.9, 5.6]).tsp(2.1).aka("clove"),
        row("allspice", "Ground allspice", Kind::Flavour, [8.5, 8.7, 6.1, 50.5, 0.0, 21.6, 4.6]).tsp(1.9).aka("allspice|pimento"),
        row("mixed-spice", "Mixed spice", Kind::Flavour, [8.5, 8.7, 6.1, 50.5, 5.0, 21.6, 4.6]).tsp(1.9).aka("pumpkin spice|gingerbread spice|apple pie spice").source(TYPICAL),
        row("anise", "Anise seeds", Kind::Flavour, [9.5, 15.9, 17.6, 35.4, 0.0, 14.6, 7.0]).tsp(2.1).aka("aniseed|anise|ground anise"),
        row("fennel", "Fennel seeds", Kind::Flavour, [8.8, 14.9, 15.8, 12.5, 0.0, 39.8, 8.2]).tsp(2.0).aka("fennel"),
        row("pepper", "Ground black pepper", Kind::Flavour, [12.5, 3.3, 10.4, 44.0, 0.6, 25.3, 4.5]).tsp(2.3).aka("black pepper|pepper").source(TYPICAL),
        row("espresso", "Instant coffee powder", Kind::Flavour, [3.1, 0.5, 12.2, 75.4, 0.0, 0.0, 8.8]).tsp(1.0).aka("instant coffee|espresso powder|instant espresso|coffee powder"),
        // Spirits and colours.
        row("rum", "Rum", Kind::Spirit, [66.6, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0]).alcohol(33.4).cup(222.0).tsp(4.6).aka("dark rum|white rum"),
        row("brandy", "Brandy", Kind::Spirit, [66.6, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0]).alcohol(33.4).cup(222.0).tsp(4.6).aka("cognac|armagnac"),
        row("whisky", "Whiskey", Kind::Spirit, [66.6, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0]).alcohol(33.4).cup(222.0).tsp(4.6).aka("whisky|whiskey|bourbon"),
        row("kirsch", "Kirsch", Kind::Spirit, [66.6, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0]).alcohol(33.4).cup(222.0).tsp(4.6).aka("cherry brandy"),
        row("vodka", "Vodka", Kind::Spirit, [66.6, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0]).alcohol(33.4).cup(222.0).tsp(4.6).aka("plain spirit"),
        row("colour-paste", "Gel food coloring", Kind::Colour, [20.0, 0.0, 0.0, 79.0, 50.0, 0.0, 1.0]).tsp(6.0).aka("paste colour|paste color|gel colour|gel color|gel food coloring|paste food colour|gel food colouring").source(TRADE),
        row("colour-liquid", "Liquid food coloring", Kind::Colour, [95.0, 0.0, 0.0, 4.5, 0.0, 0.0, 0.5]).tsp(5.0).aka("liquid colour|liquid color|food colouring|food coloring|liquid food coloring|liquid food colouring|food color|food colour").source(TRADE),
    ]
}

/// The ingredients a bakery can use: the built-in ones, its own, and what they cost.
#[derive(Debug, Clone, PartialEq)]
pub struct Pantry {
    entries: Vec<Arc<Ingredient>>,
    by_key: HashMap<String, usize>,
    price_per_kg: HashMap<String, f64>,
}

static BUILT_IN: LazyLock<Pantry> = LazyLock::new(|| Pantry::of(rows().into_iter().map(|r| Arc::new(r.0)).collect()));

impl Pantry {
    fn of(entries: Vec<Arc<Ingredient>>) -> Self {
        let by_key = entries.iter().enumerate().map(|(i, e)| (e.key.to_string(), i)).collect();
        Self { entries, by_key, price_per_kg: HashMap::new() }
    }

    /// The built-in ingredients alone, without prices.
    #[must_use]
    pub fn built_in() -> &'static Self {
        &BUILT_IN
    }

    /// The built-in ingredients, a bakery's own before them, and prices per kilogram by key.
    ///
    /// Fails when an own ingredient has a key twice or that of a built-in one, or a price is negative, not finite or of
    /// something unknown.
    pub fn with(own: Vec<Ingredient>, price_per_kg: Vec<(String, f64)>) -> Result<Self, InputError> {
        let mut entries: Vec<Arc<Ingredient>> = own.into_iter().map(Arc::new).collect();
        entries.extend(BUILT_IN.entries.iter().cloned());
        let mut pantry = Self::of(entries);
        if pantry.by_key.len() != pantry.entries.len() {
            return Err(InputError::refused("key", "two ingredients have one key"));
        }
        for (key, price) in price_per_kg {
            if pantry.get(&key).is_none() {
                return Err(InputError::refused("price_per_kg", format!("\u{201c}{key}\u{201d} is not in the pantry")));
            }
            let mut checks = crate::error::Checks::new();
            checks.range("price_per_kg", price, 0.0, 100_000.0, "per kilogram");
            checks.finish(()).map_err(|e| e.all()[0].clone())?;
            pantry.price_per_kg.insert(key, price);
        }
        Ok(pantry)
    }

    /// The ingredient kept under `key`.
    #[must_use]
    pub fn get(&self, key: &str) -> Option<&Arc<Ingredient>> {
        self.by_key.get(key).map(|&i| &self.entries[i])
    }

    /// All ingredients, a bakery's own first.
    #[must_use]
    pub fn all(&self) -> &[Arc<Ingredient>] {
        &self.entries
    }

    /// What a kilogram costs, where a price was given.
    #[must_use]
    pub fn price_per_kg(&self, key: &str) -> Option<f64> {
        self.price_per_kg.get(key).copied()
    }

    /// What a mass of it costs, where a price was given.
    #[must_use]
    pub fn cost(&self, key: &str, mass: Mass) -> Option<f64> {
        self.price_per_kg(key).map(|p| p * mass.g() / 1000.0)
    }
}

#[cfg(test)]
mod tests {
    use super::super::household::{CupWay, US_CUP_ML};
    use super::*;
    use rstest::rstest;
    use std::collections::HashSet;

    fn entry(key: &str) -> &'static Ingredient {
        Pantry::built_in().get(key).unwrap()
    }

    #[test]
    fn every_ingredient_adds_up_and_has_a_key_and_a_name_of_its_own() {
        let (mut keys, mut names) = (HashSet::new(), HashSet::new());
        assert!(Pantry::built_in().all().len() >= 60);
        for i in Pantry::built_in().all() {
            let a = &i.analysis;
            assert!((a.total() - 100.0).abs() <= 0.6, "{}: {}", i.key, a.total());
            assert!(a.sugars <= a.carbohydrate && a.reducing <= a.sugars && a.salt <= a.ash, "{}", i.key);
            assert!(keys.insert(&i.key), "{} twice", i.key);
            for name in i.aliases.iter().map(|a| a.to_lowercase()).chain([i.name.to_lowercase()]) {
                // A name may stand twice within one entry, never in two.
                assert!(names.insert((name.clone(), i.key.clone())) || i.name.to_lowercase() == name);
                assert_eq!(names.iter().filter(|(n, _)| *n == name).count(), 1, "{name}");
            }
            assert!(!i.source.is_empty());
        }
    }

    #[test]
    fn everything_can_be_measured_by_volume_somehow() {
        for i in Pantry::built_in().all() {
            let spoon = i.household.of_volume(5.0, CupWay::Spooned);
            assert!(spoon.is_some_and(|m| (0.4..9.0).contains(&m.g())), "{}: {spoon:?}", i.key);
        }
    }

    #[test]
    fn food_tables_agree_on_the_main_ones() {
        // USDA FoodData Central, SR Legacy, from memory.
        let butter = &entry("butter").analysis;
        assert!((16.2..=17.9).contains(&butter.water) && butter.fat == 81.1 && butter.protein == 0.9);
        let flour = &entry("flour-ap").analysis;
        assert_eq!((flour.water, flour.protein, flour.fat), (11.9, 10.3, 1.0));
        assert!((flour.carbohydrate + flour.fibre - 76.3).abs() < 0.1);
        let egg = &entry("egg").analysis;
        assert_eq!((egg.water, egg.protein, egg.fat), (76.2, 12.6, 9.5));
        assert_eq!(entry("honey").analysis.water, 17.1);
        let cocoa = &entry("cocoa").analysis;
        assert_eq!((cocoa.fat, cocoa.protein), (13.7, 19.6));
        assert!((33.0..=37.0).contains(&cocoa.fibre));
    }

    // USDA FoodData Central, SR Legacy (from memory): grams of a US cup.
    #[rstest]
    #[case("flour-ap", CupWay::Spooned, 125.0)]
    #[case("sugar", CupWay::Spooned, 200.0)]
    #[case("sugar-brown", CupWay::Packed, 220.0)]
    #[case("sugar-powdered", CupWay::Spooned, 120.0)]
    #[case("butter", CupWay::Spooned, 227.0)]
    #[case("shortening", CupWay::Spooned, 205.0)]
    #[case("cornstarch", CupWay::Spooned, 128.0)]
    #[case("cocoa", CupWay::Spooned, 86.0)]
    #[case("honey", CupWay::Spooned, 339.0)]
    #[case("molasses", CupWay::Spooned, 337.0)]
    #[case("milk", CupWay::Spooned, 244.0)]
    #[case("walnut", CupWay::Spooned, 117.0)]
    fn a_cup_weighs_what_the_food_tables_say(#[case] key: &str, #[case] way: CupWay, #[case] grams: f64) {
        let cup = entry(key).household.of_volume(US_CUP_ML, way).unwrap();
        assert!((cup.g() - grams).abs() < 1e-6, "{cup:?}");
    }

    // The same source: grams of a US teaspoon, a stick, one egg.
    #[rstest]
    #[case("salt", 6.0)]
    #[case("baking-soda", 4.6)]
    #[case("baking-powder", 4.6)]
    #[case("vanilla", 4.2)]
    fn a_teaspoon_weighs_what_the_food_tables_say(#[case] key: &str, #[case] grams: f64) {
        let spoon = entry(key).household.of_volume(US_CUP_ML / 48.0, CupWay::Spooned).unwrap();
        assert!((spoon.g() - grams).abs() < 1e-6, "{spoon:?}");
    }

    #[test]
    fn scooped_flour_is_15_to_25_per_cent_heavier_and_a_stick_is_113_grams() {
        // Common practice, no source, for the first; SR Legacy for the second.
        for i in Pantry::built_in().all().iter().filter(|i| i.kind == Kind::Flour) {
            if let (Some(spooned), Some(scooped)) = (i.household.cup, i.household.cup_scooped) {
                assert!((1.15..=1.25).contains(&(scooped / spooned)), "{}", i.key);
            }
        }
        assert_eq!(entry("butter").household.stick, Some(113.4));
    }

    #[test]
    fn own_ingredients_stand_first_and_prices_are_of_known_things() {
        let mut own = entry("salt").clone();
        own.key = Cow::Borrowed("own-1");
        own.name = Cow::Borrowed("Kelp salt");
        let pantry = Pantry::with(vec![own.clone()], vec![("butter".to_owned(), 9.5)]).unwrap();
        assert_eq!(pantry.all()[0].name, "Kelp salt");
        assert!((pantry.cost("butter", Mass::new_g(200.0)).unwrap() - 1.9).abs() < 1e-12);
        assert_eq!(pantry.cost("salt", Mass::new_g(5.0)), None);
        assert!(Pantry::with(vec![own.clone(), own], vec![]).is_err());
        assert!(Pantry::with(vec![], vec![("moon".to_owned(), 1.0)]).is_err());
        assert!(Pantry::with(vec![], vec![("butter".to_owned(), -1.0)]).unwrap_err().to_string().contains("0 to 100"));
    }
}
