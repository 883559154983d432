//! The kitchen as things with sizes.

use crate::air::standard_pressure_pa;
use crate::clock::Zone;
use crate::cold::{ColdPlace, Lies, Place, PlaceKnowledge, TrayKind};
use crate::dough::{EggClass, MixerLimits, WeighRules};
use crate::error::{Checks, InputErrors};
use crate::geometry::straight_between;
use crate::oven::{HotSpots, HotSpotsInput, OvenSetup};
use crate::shape::TrayRules;
use crate::units::{Length, Mass, Span, Temperature, TemperatureDifference};
use serde::{Deserialize, Serialize};

/// Films of cold places, radiation included, W/m2K. Common practice, no source.
const STILL_FRIDGE: f64 = 7.0;
const FAN_FRIDGE: f64 = 14.0;
const STILL_FREEZER: f64 = 8.0;

/// A half-sheet over its rims, 13 by 18 in, and what of it is usable inside them, 12 by 17 in. Common practice, no source.
const HALF_SHEET_MM: [f64; 2] = [330.2, 457.2];
const HALF_SHEET_INSIDE_MM: (f64, f64) = (304.8, 431.8);

room! {
    /// The place, and who works there.
    pub struct HouseInput as KitchenHouse {
        /// Its name, 1 to 80 characters.
        #[schema(required)]
        pub name: String = "My kitchen".to_owned(),
        /// Where its clocks are: a name of the IANA time zone database, such as `Europe/Lisbon`; empty is UTC.
        pub zone: String = String::new(),
        /// Above the sea, -400 to 4500.
        pub altitude_m: f64 = 0.0,
        /// Room, 5 to 40.
        #[schema(required)]
        pub room_c: f64 = 22.0,
        /// The sign of the money prices are in, 1 to 4 characters.
        pub currency: String = "\u{20ac}".to_owned(),
        /// Pairs of hands, 1 to 20.
        pub hands: u32 = 1,
        /// To roll one sheet, 0 to 60.
        #[schema(required)]
        pub roll_min: f64 = 4.0,
        /// To cut one piece and place it, 0 to 120.
        #[schema(required)]
        pub cut_s: f64 = 6.0,
    }
}

room! {
    /// What dough is weighed and mixed with.
    pub struct MixingInput as KitchenMixing {
        /// Most dough in one mix, 100 to 100,000.
        #[schema(required)]
        pub mixer_limit_g: f64 = 1200.0,
        /// The mixer's bowl, 300 to 200,000; null while unknown.
        pub bowl_ml: Option<f64> = None,
        /// Mixers, 1 to 20; a bowl and a spoon is one.
        pub mixers: u32 = 1,
        /// Smallest step of the scale, 0.01 to 50.
        pub scale_step_g: f64 = 1.0,
        /// Smallest step of the fine scale, 0.01 to 50.
        pub fine_step_g: f64 = 0.1,
        /// Size class of the eggs.
        pub egg_class: EggClass = EggClass::UsLarge,
    }
}

room! {
    /// Fridge and freezer.
    pub struct ColdPlacesInput as KitchenCold {
        /// Fridge air, -2 to 15.
        #[schema(required)]
        pub fridge_c: f64 = 4.0,
        /// Whether the fridge has a fan.
        #[schema(required)]
        pub fridge_fan: bool = false,
        /// Places in the fridge, each for a tray or the dough of a mix, 0 to 200.
        pub fridge_places: u32 = 6,
        /// Freezer air, -40 to -5.
        #[schema(required)]
        pub freezer_c: f64 = -18.0,
        /// Places in the freezer, 0 to 200.
        pub freezer_places: u32 = 4,
    }
}

room! {
    /// What cookies are rolled, laid out and cooled on.
    pub struct TraysInput as KitchenTrays {
        /// Guide rods owned, each 1 to 40.
        #[schema(required)]
        pub rods_mm: Vec<f64> = vec![3.0, 5.0, 6.0, 8.0, 10.0],
        /// Usable tray, 100 to 900.
        #[schema(required)]
        pub tray_width_mm: f64 = 310.0,
        /// Usable tray, 100 to 900.
        #[schema(required)]
        pub tray_length_mm: f64 = 440.0,
        /// What the trays are of.
        #[schema(required)]
        pub tray_kind: TrayKind = TrayKind::Aluminium,
        /// 1 to 200.
        #[schema(required)]
        pub trays_owned: u32 = 2,
        /// Least gap between pieces on a tray, 5 to 80.
        #[schema(required)]
        pub least_gap_mm: f64 = 25.0,
        /// Trays that can stand to cool, 1 to 200.
        pub cooling_places: u32 = 8,
    }
}

room! {
    /// Its ovens.
    pub struct OvensInput as KitchenOvens {
        /// 1 to 20.
        #[schema(required)]
        pub ovens: u32 = 1,
        /// Trays an oven takes at once, 1 to 20.
        #[schema(required)]
        pub racks_per_oven: u32 = 1,
        /// Fan ovens.
        #[schema(required)]
        pub oven_fan: bool = false,
        /// To heat the oven, 0 to 120.
        #[schema(required)]
        pub preheat_min: f64 = 20.0,
        /// The oven's air on a thermometer at settings, at most 12.
        pub oven_readings: Vec<OvenMeasured> = vec![],
        /// How far the oven's air falls when its door is opened, 0 to 80.
        pub door_dip_k: f64 = OvenSetup::usual(175.0, false).door_dip.k(),
        /// Until two thirds of that are back, 0.2 to 15.
        pub recovery_min: f64 = OvenSetup::usual(175.0, false).recovery.min(),
        /// Where the oven is hotter; null while nobody has tried.
        pub hot_spots: Option<HotSpotsInput> = None,
        /// Whether a covered pot on a burner stands in for an oven.
        pub cover_pot: bool = false,
        /// Whether it is a small one on the worktop, its elements near the tray.
        pub small_oven: bool = false,
    }
}

document! {
    /// Raw kitchen values, units in the names, by what they belong to; the only door to [`Kitchen`]. On the wire and in files all its fields lie beside each
    /// other; what is left out of a kitchen is as it is usual.
    pub struct KitchenInput as KitchenBody, "a kitchen" {
        /// The place, and who works there.
        pub house: HouseInput,
        /// What dough is weighed and mixed with.
        pub mixing: MixingInput,
        /// Fridge and freezer.
        pub cold: ColdPlacesInput,
        /// What cookies are rolled, laid out and cooled on.
        pub trays: TraysInput,
        /// Its ovens.
        pub oven: OvensInput,
    }
    needs []
}

impl KitchenInput {
    /// A home kitchen as most are, until somebody says or measures. Common practice, no source; trays 310 by 440 mm inside their rims.
    #[must_use]
    pub fn usual() -> Self {
        Self::default()
    }

    /// A home kitchen as most are where things come in inches. Rolling guides of 1/8, 3/16, 1/4, 3/8 and 1/2 in; half-sheet trays; an inch between cookies. Common
    /// practice, no source.
    #[must_use]
    pub fn usual_us() -> Self {
        Self::default().with(|k| {
            k.trays.rods_mm = vec![3.175, 4.7625, 6.35, 9.525, 12.7];
            (k.trays.tray_width_mm, k.trays.tray_length_mm) = HALF_SHEET_INSIDE_MM;
            k.trays.least_gap_mm = 25.4;
            k.house.currency = "$".to_owned();
        })
    }

    /// A home kitchen as most are, equipped one way or the other.
    #[must_use]
    pub fn usual_of(equipment: Equipment) -> Self {
        match equipment {
            Equipment::Metric => Self::usual(),
            Equipment::Us => Self::usual_us(),
        }
    }

    /// The same kitchen equipped another way: whatever is still as usual becomes what is usual there, and what somebody has said stays.
    #[must_use]
    pub fn equipped(mut self, equipment: Equipment) -> Self {
        let now = Self::usual_of(equipment);
        for before in [Self::usual(), Self::usual_us()] {
            let (own, was, to) = (&mut self.trays, &before.trays, &now.trays);
            if own.rods_mm == was.rods_mm {
                own.rods_mm.clone_from(&to.rods_mm);
            }
            if (own.tray_width_mm, own.tray_length_mm) == (was.tray_width_mm, was.tray_length_mm) {
                (own.tray_width_mm, own.tray_length_mm) = (to.tray_width_mm, to.tray_length_mm);
            }
            if own.least_gap_mm == was.least_gap_mm {
                own.least_gap_mm = to.least_gap_mm;
            }
            if self.house.currency == before.house.currency {
                self.house.currency.clone_from(&now.house.currency);
            }
        }
        self
    }

    /// The size its trays are sold by, over their rims, where they are half-sheets as they are usual in the US.
    #[must_use]
    pub fn half_sheet_mm(&self) -> Option<[f64; 2]> {
        ((self.trays.tray_width_mm, self.trays.tray_length_mm) == HALF_SHEET_INSIDE_MM).then_some(HALF_SHEET_MM)
    }

    /// The same, changed.
    #[must_use]
    pub fn with(mut self, change: impl FnOnce(&mut Self)) -> Self {
        change(&mut self);
        self
    }
}

/// What a kitchen's guides and trays are measured in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Equipment {
    /// Millimetres.
    Metric,
    /// Inches.
    Us,
}

impl HouseInput {
    fn checked(&self, checks: &mut Checks) -> Option<Zone> {
        checks.text("name", &self.name, 80, "a name");
        checks.range("room_c", self.room_c, 5.0, 40.0, "\u{b0}C");
        checks.range("altitude_m", self.altitude_m, -400.0, 4500.0, "m");
        checks.text("currency", &self.currency, 4, "a currency sign such as $ or \u{20ac}");
        checks.range("hands", f64::from(self.hands), 1.0, 20.0, "people");
        checks.range("roll_min", self.roll_min, 0.0, 60.0, "min");
        checks.range("cut_s", self.cut_s, 0.0, 120.0, "s");
        checks.keep(Zone::named(&self.zone))
    }
}

impl MixingInput {
    fn check(&self, checks: &mut Checks) {
        checks.range("mixer_limit_g", self.mixer_limit_g, 100.0, 100_000.0, "g");
        if let Some(ml) = self.bowl_ml {
            checks.range("bowl_ml", ml, 300.0, 200_000.0, "mL");
        }
        checks.range("mixers", f64::from(self.mixers), 1.0, 20.0, "mixers");
        checks.keep(WeighRules::new(self.scale_step_g, self.fine_step_g, 0.0, None));
    }
}

impl ColdPlacesInput {
    fn check(&self, checks: &mut Checks) {
        checks.range("fridge_c", self.fridge_c, -2.0, 15.0, "\u{b0}C");
        checks.range("freezer_c", self.freezer_c, -40.0, -5.0, "\u{b0}C");
        checks.range("fridge_places", f64::from(self.fridge_places), 0.0, 200.0, "spaces");
        checks.range("freezer_places", f64::from(self.freezer_places), 0.0, 200.0, "spaces");
    }
}

impl TraysInput {
    fn checked(&self, checks: &mut Checks) -> Option<TrayRules> {
        for (i, rod) in self.rods_mm.iter().enumerate() {
            checks.range(&format!("rods_mm[{i}]"), *rod, 1.0, 40.0, "mm");
        }
        checks.limit("rods_mm", self.rods_mm.len(), 20, "rolling guides");
        checks.range("cooling_places", f64::from(self.cooling_places), 1.0, 200.0, "spaces");
        let trays = TrayRules::new(self.tray_width_mm, self.tray_length_mm, self.trays_owned, self.least_gap_mm);
        checks.keep(trays)
    }
}

impl OvensInput {
    fn checked(&self, checks: &mut Checks) -> Option<Option<HotSpots>> {
        checks.range("ovens", f64::from(self.ovens), 1.0, 20.0, "ovens");
        checks.range("racks_per_oven", f64::from(self.racks_per_oven), 1.0, 20.0, "racks");
        checks.range("preheat_min", self.preheat_min, 0.0, 120.0, "min");
        checks.limit("oven_readings", self.oven_readings.len(), 12, "readings");
        for (i, r) in self.oven_readings.iter().enumerate() {
            let field = |name: &str| format!("oven_readings[{i}].{name}");
            checks.range(&field("set_c"), r.set_c, 100.0, 260.0, "\u{b0}C");
            checks.range(&field("read_c"), r.read_c, r.set_c - 60.0, r.set_c + 60.0, "°C");
            checks.range(&field("swing_k"), r.swing_k, 0.0, 40.0, "°C");
        }
        checks.range("door_dip_k", self.door_dip_k, 0.0, 80.0, "\u{b0}C");
        checks.range("recovery_min", self.recovery_min, 0.2, 15.0, "min");
        checks.keep(self.hot_spots.as_ref().map(HotSpotsInput::checked).transpose())
    }
}

/// The oven's air at a setting.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = OvenReadingBody)]
#[serde(deny_unknown_fields)]
pub struct OvenMeasured {
    /// Set to, 100 to 260.
    pub set_c: f64,
    /// Read on a thermometer, within 60 of the setting.
    pub read_c: f64,
    /// How far it swings to either side, 0 to 40; 0 where that was not looked at.
    #[serde(default)]
    pub swing_k: f64,
}

/// Ovens and how they are worked.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OvenKit {
    /// How many.
    pub count: u32,
    /// Trays at once in each.
    pub racks: u32,
    /// With a fan.
    pub fan: bool,
    /// To heat up, min.
    pub preheat_min: f64,
}

/// A kitchen whose values were checked.
#[derive(Debug, Clone, PartialEq)]
pub struct Kitchen {
    input: KitchenInput,
    fridge: Place,
    freezer: Place,
    /// What readings have taught of fridge and freezer.
    known: [PlaceKnowledge; 2],
    trays: TrayRules,
    hot_spots: Option<HotSpots>,
    zone: Zone,
}

impl Kitchen {
    /// Checks all values and reports all faults at once.
    pub fn new(mut input: KitchenInput) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        let zone = input.house.checked(&mut checks);
        input.mixing.check(&mut checks);
        input.cold.check(&mut checks);
        let trays = input.trays.checked(&mut checks);
        let hot_spots = input.oven.checked(&mut checks);
        checks.finish(())?;
        input.trays.rods_mm.sort_by(f64::total_cmp);
        input.trays.rods_mm.dedup();
        let film = if input.cold.fridge_fan { FAN_FRIDGE } else { STILL_FRIDGE };
        Ok(Self {
            fridge: Place::new(input.cold.fridge_c, film)?.being(Lies::In(ColdPlace::Fridge)),
            freezer: Place::new(input.cold.freezer_c, STILL_FREEZER)?.being(Lies::In(ColdPlace::Freezer)),
            known: [PlaceKnowledge::default(); 2],
            trays: trays.expect("checked"),
            hot_spots: hot_spots.expect("checked"),
            zone: zone.expect("checked"),
            input,
        })
    }

    /// The same kitchen with what readings have taught of its fridge and its freezer.
    #[must_use]
    pub fn knowing(self, fridge: PlaceKnowledge, freezer: PlaceKnowledge) -> Self {
        Self { known: [fridge, freezer], ..self }
    }

    /// The same kitchen with its room at another temperature, 5 to 40 degC.
    pub fn at_room(&self, room: Temperature) -> Result<Self, InputErrors> {
        let kitchen = Self::new(self.input.clone().with(|k| k.house.room_c = room.c()))?;
        Ok(Self { known: self.known, ..kitchen })
    }

    /// The values as given, rods in order.
    #[must_use]
    pub fn input(&self) -> &KitchenInput {
        &self.input
    }

    /// How far the oven's air is from what it is set to: by readings on a thermometer, straight between two settings, the
    /// nearest beyond them; nothing while nobody has measured it.
    #[must_use]
    pub fn oven_offset(&self, set: Temperature) -> TemperatureDifference {
        TemperatureDifference::new_k(self.between_readings(set, |r| r.read_c - r.set_c))
    }

    /// How far the oven's air swings to either side of where it holds, as [`Kitchen::oven_offset`].
    #[must_use]
    pub fn oven_swing(&self, set: Temperature) -> TemperatureDifference {
        TemperatureDifference::new_k(self.between_readings(set, |r| r.swing_k))
    }

    fn between_readings(&self, set: Temperature, of: impl Fn(&OvenMeasured) -> f64) -> f64 {
        let mut known: Vec<(f64, f64)> = self.input.oven.oven_readings.iter().map(|r| (r.set_c, of(r))).collect();
        known.sort_by(|a, b| a.0.total_cmp(&b.0));
        straight_between(&known, set.c()).unwrap_or(0.0)
    }

    /// Where the oven is hotter; nothing of a pot, or while nobody has tried.
    #[must_use]
    pub fn hot_spots(&self) -> Option<&HotSpots> {
        self.hot_spots.as_ref().filter(|_| !self.input.oven.cover_pot)
    }

    /// Whether its oven is a small one on the worktop.
    #[must_use]
    pub fn small_oven(&self) -> bool {
        self.input.oven.small_oven && !self.input.oven.cover_pot
    }

    /// Whether a covered pot on a burner stands in for an oven.
    #[must_use]
    pub fn cover_pot(&self) -> bool {
        self.input.oven.cover_pot
    }

    /// The air's pressure at its altitude, Pa.
    #[must_use]
    pub fn pressure_pa(&self) -> f64 {
        standard_pressure_pa(self.input.house.altitude_m)
    }

    /// How far the oven's air falls with its door, and until two thirds of that are back.
    #[must_use]
    pub fn door(&self) -> (TemperatureDifference, Span) {
        (TemperatureDifference::new_k(self.input.oven.door_dip_k), Span::new_min(self.input.oven.recovery_min))
    }

    /// The room.
    #[must_use]
    pub fn room(&self) -> Temperature {
        Temperature::new_c(self.input.house.room_c)
    }

    /// A cold place with its air and film as they are thought to be, readings and all.
    #[must_use]
    pub fn place(&self, place: ColdPlace) -> Place {
        self.known(place).apply(&self.set_place(place))
    }

    /// What readings have taught of a place.
    #[must_use]
    pub fn known(&self, place: ColdPlace) -> PlaceKnowledge {
        match place {
            ColdPlace::Fridge => self.known[0],
            ColdPlace::Freezer => self.known[1],
        }
    }

    /// A cold place as its dial says, with the film of its kind.
    #[must_use]
    pub fn set_place(&self, place: ColdPlace) -> Place {
        match place {
            ColdPlace::Fridge => self.fridge,
            ColdPlace::Freezer => self.freezer,
        }
    }

    /// Where its clocks are.
    #[must_use]
    pub fn zone(&self) -> Zone {
        self.zone
    }

    /// Trays.
    #[must_use]
    pub fn trays(&self) -> &TrayRules {
        &self.trays
    }

    /// What the trays are of.
    #[must_use]
    pub fn tray_kind(&self) -> TrayKind {
        self.input.trays.tray_kind
    }

    /// What limits one mix.
    #[must_use]
    pub fn mixer(&self) -> MixerLimits {
        MixerLimits { dough: Mass::new_g(self.input.mixing.mixer_limit_g), bowl_ml: self.input.mixing.bowl_ml }
    }

    /// The fridge's air.
    #[must_use]
    pub fn fridge_air(&self) -> Temperature {
        Temperature::new_c(self.input.cold.fridge_c)
    }

    /// Ovens; a pot is one, of one tray and without a fan.
    #[must_use]
    pub fn ovens(&self) -> OvenKit {
        if self.input.oven.cover_pot {
            return OvenKit { count: 1, racks: 1, fan: false, preheat_min: self.input.oven.preheat_min };
        }
        OvenKit {
            count: self.input.oven.ovens,
            racks: self.input.oven.racks_per_oven,
            fan: self.input.oven.oven_fan,
            preheat_min: self.input.oven.preheat_min,
        }
    }

    /// Whether guide rods of this height are owned.
    #[must_use]
    pub fn has_rods(&self, thickness: Length) -> bool {
        self.input.trays.rods_mm.iter().any(|r| (r - thickness.mm()).abs() < 0.05)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn input() -> KitchenInput {
        KitchenInput::usual().with(|k| k.trays.rods_mm = vec![10.0, 3.0, 6.0, 6.0])
    }

    #[test]
    fn equipping_it_changes_what_nobody_has_said() {
        let us = KitchenInput::usual().equipped(Equipment::Us);
        assert_eq!(us, KitchenInput::usual_us());
        // Common practice: a half-sheet is told by what it measures over its rims.
        assert_eq!(us.half_sheet_mm(), Some([330.2, 457.2]));
        assert_eq!(KitchenInput::usual().half_sheet_mm(), None);
        assert!(Kitchen::new(us.clone()).is_ok());
        assert_eq!(us.clone().equipped(Equipment::Us), us);
        assert_eq!(us.equipped(Equipment::Metric), KitchenInput::usual());
        let said = KitchenInput::usual().with(|k| {
            k.trays.tray_width_mm = 280.0;
            k.house.currency = "kr".to_owned();
        });
        let said = said.equipped(Equipment::Us);
        assert_eq!(
            (said.trays.tray_width_mm, said.trays.tray_length_mm, said.house.currency.as_str()),
            (280.0, 440.0, "kr")
        );
        assert_eq!(said.trays.rods_mm, [3.175, 4.7625, 6.35, 9.525, 12.7]);
    }

    #[test]
    fn between_two_settings_offset_and_swing_go_straight() {
        let measured = |set_c, read_c, swing_k| OvenMeasured { set_c, read_c, swing_k };
        let oven_readings = vec![measured(200.0, 190.0, 8.0), measured(160.0, 158.0, 4.0)];
        let kitchen = Kitchen::new(input().with(|k| k.oven.oven_readings = oven_readings)).unwrap();
        let at = |c| (kitchen.oven_offset(Temperature::new_c(c)).k(), kitchen.oven_swing(Temperature::new_c(c)).k());
        // By hand: half way from 160 (-2, 4) to 200 (-10, 8); held beyond them.
        assert_eq!((at(180.0), at(140.0), at(220.0)), ((-6.0, 6.0), (-2.0, 4.0), (-10.0, 8.0)));
    }

    #[test]
    fn a_pot_is_one_oven_of_one_tray_without_a_fan() {
        let pot = input().with(|k| {
            k.oven.cover_pot = true;
            k.oven.ovens = 3;
            k.oven.racks_per_oven = 2;
            k.oven.oven_fan = true;
        });
        let kit = Kitchen::new(pot).unwrap().ovens();
        assert_eq!((kit.count, kit.racks, kit.fan), (1, 1, false));
    }

    #[test]
    fn rods_are_put_in_order_once() {
        let kitchen = Kitchen::new(input()).unwrap();
        assert_eq!(kitchen.input().trays.rods_mm, [3.0, 6.0, 10.0]);
        assert!(kitchen.has_rods(Length::new_mm(6.0)) && !kitchen.has_rods(Length::new_mm(7.0)));
    }

    #[test]
    fn all_faults_come_at_once_each_with_its_field() {
        let bad = input().with(|k| {
            k.cold.fridge_c = 40.0;
            k.house.room_c = f64::NAN;
            k.trays.trays_owned = 0;
            k.trays.rods_mm = vec![0.0];
        });
        let errors = Kitchen::new(bad).unwrap_err();
        let fields: Vec<_> = errors.all().iter().map(crate::error::InputError::field).collect();
        assert_eq!(fields, ["room_c", "fridge_c", "rods_mm[0]", "trays_owned"]);
    }
}
