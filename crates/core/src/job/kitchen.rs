//! The kitchen as things with sizes.

use crate::air::standard_pressure_pa;
use crate::clock::Zone;
use crate::cold::{ColdPlace, Lies, Place, PlaceKnowledge, TrayKind};
use crate::dough::{EggClass, MixerLimits, WeighRules};
use crate::error::{Checks, InputErrors, Problem};
use crate::geometry::straight_between;
use crate::oven::{HotSpots, HotSpotsInput, OvenSetup};
use crate::shape::TrayRules;
use crate::units::{Length, Mass, Span, Temperature, TemperatureDifference};
#[cfg(feature = "wire")]
use serde::{Deserialize, Serialize};

/// Films of cold places, radiation included, W/m2K. Common practice, no source.
const STILL_FRIDGE: f64 = 7.0;
const FAN_FRIDGE: f64 = 14.0;
const STILL_FREEZER: f64 = 8.0;

/// Raw kitchen values, units in the names; the only door to [`Kitchen`]. What is left out of a kitchen is as it is usual.
#[derive(Debug, Clone, PartialEq)]
#[cfg_attr(feature = "wire", derive(Serialize, Deserialize, utoipa::ToSchema), schema(as = KitchenBody))]
#[cfg_attr(feature = "wire", serde(deny_unknown_fields))]
pub struct KitchenInput {
    /// Its name, 1 to 80 characters.
    pub name: String,
    /// Room, 5 to 40.
    pub room_c: f64,
    /// Fridge air, -2 to 15.
    pub fridge_c: f64,
    /// Whether the fridge has a fan.
    pub fridge_fan: bool,
    /// Freezer air, -40 to -5.
    pub freezer_c: f64,
    /// The oven's air on a thermometer at settings, at most 12.
    #[cfg_attr(feature = "wire", serde(default))]
    pub oven_readings: Vec<OvenMeasured>,
    /// How far the oven's air falls when its door is opened, 0 to 80.
    #[cfg_attr(feature = "wire", serde(default = "usual::dip"))]
    pub door_dip_k: f64,
    /// Until two thirds of that are back, 0.2 to 15.
    #[cfg_attr(feature = "wire", serde(default = "usual::recovery"))]
    pub recovery_min: f64,
    /// Where the oven is hotter; null while nobody has tried.
    #[cfg_attr(feature = "wire", serde(default))]
    pub hot_spots: Option<HotSpotsInput>,
    /// Whether a covered pot on a burner stands in for an oven.
    #[cfg_attr(feature = "wire", serde(default))]
    pub cover_pot: bool,
    /// Whether it is a small one on the worktop, its elements near the tray.
    #[cfg_attr(feature = "wire", serde(default))]
    pub small_oven: bool,
    /// Above the sea, -400 to 4500.
    #[cfg_attr(feature = "wire", serde(default))]
    pub altitude_m: f64,
    /// Usable tray, 100 to 900.
    pub tray_width_mm: f64,
    /// Usable tray, 100 to 900.
    pub tray_length_mm: f64,
    /// What the trays are of.
    pub tray_kind: TrayKind,
    /// 1 to 200.
    pub trays_owned: u32,
    /// Least gap between pieces on a tray, 5 to 80.
    pub least_gap_mm: f64,
    /// Most dough in one mix, 100 to 100,000.
    pub mixer_limit_g: f64,
    /// The mixer's bowl, 300 to 200,000; null while unknown.
    #[cfg_attr(feature = "wire", serde(default))]
    pub bowl_ml: Option<f64>,
    /// Smallest step of the scale, 0.01 to 50.
    #[cfg_attr(feature = "wire", serde(default = "usual::step"))]
    pub scale_step_g: f64,
    /// Smallest step of the fine scale, 0.01 to 50.
    #[cfg_attr(feature = "wire", serde(default = "usual::fine_step"))]
    pub fine_step_g: f64,
    /// Size class of the eggs.
    #[cfg_attr(feature = "wire", serde(default = "usual::eggs"))]
    pub egg_class: EggClass,
    /// The sign of the money prices are in, 1 to 4 characters.
    #[cfg_attr(feature = "wire", serde(default = "usual::currency"))]
    pub currency: String,
    /// Guide rods owned, each 1 to 40.
    pub rods_mm: Vec<f64>,
    /// 1 to 20.
    pub ovens: u32,
    /// Trays an oven takes at once, 1 to 20.
    pub racks_per_oven: u32,
    /// Pairs of hands, 1 to 20.
    #[cfg_attr(feature = "wire", serde(default = "usual::hands"))]
    pub hands: u32,
    /// Mixers, 1 to 20; a bowl and a spoon is one.
    #[cfg_attr(feature = "wire", serde(default = "usual::mixers"))]
    pub mixers: u32,
    /// Places in the fridge, each for a tray or the dough of a mix, 0 to 200.
    #[cfg_attr(feature = "wire", serde(default = "usual::fridge_places"))]
    pub fridge_places: u32,
    /// Places in the freezer, 0 to 200.
    #[cfg_attr(feature = "wire", serde(default = "usual::freezer_places"))]
    pub freezer_places: u32,
    /// Trays that can stand to cool, 1 to 200.
    #[cfg_attr(feature = "wire", serde(default = "usual::cooling_places"))]
    pub cooling_places: u32,
    /// Fan ovens.
    pub oven_fan: bool,
    /// To heat the oven, 0 to 120.
    pub preheat_min: f64,
    /// To roll one sheet, 0 to 60.
    pub roll_min: f64,
    /// To cut one piece and place it, 0 to 120.
    pub cut_s: f64,
    /// Where its clocks are: a name of the IANA time zone database, such as `Europe/Lisbon`; empty is UTC.
    #[cfg_attr(feature = "wire", serde(default))]
    pub zone: String,
}

impl KitchenInput {
    /// A home kitchen as most are, until somebody says or measures. Common practice, no source; trays 310 by 440 mm inside their rims.
    #[must_use]
    pub fn usual() -> Self {
        let oven = OvenSetup::usual(175.0, false);
        Self {
            name: "My kitchen".to_owned(),
            room_c: 22.0,
            fridge_c: 4.0,
            fridge_fan: false,
            freezer_c: -18.0,
            oven_readings: vec![],
            door_dip_k: oven.door_dip.k(),
            recovery_min: oven.recovery.min(),
            hot_spots: None,
            cover_pot: false,
            small_oven: false,
            altitude_m: 0.0,
            tray_width_mm: 310.0,
            tray_length_mm: 440.0,
            tray_kind: TrayKind::Aluminium,
            trays_owned: 2,
            least_gap_mm: 25.0,
            mixer_limit_g: 1200.0,
            bowl_ml: None,
            scale_step_g: 1.0,
            fine_step_g: 0.1,
            egg_class: EggClass::UsLarge,
            currency: "\u{20ac}".to_owned(),
            rods_mm: vec![3.0, 5.0, 6.0, 8.0, 10.0],
            ovens: 1,
            racks_per_oven: 1,
            hands: usual::hands(),
            mixers: usual::mixers(),
            fridge_places: usual::fridge_places(),
            freezer_places: usual::freezer_places(),
            cooling_places: usual::cooling_places(),
            oven_fan: false,
            preheat_min: 20.0,
            roll_min: 4.0,
            cut_s: 6.0,
            zone: String::new(),
        }
    }
}

/// The oven's air at a setting.
#[derive(Debug, Clone, Copy, PartialEq)]
#[cfg_attr(feature = "wire", derive(Serialize, Deserialize, utoipa::ToSchema), schema(as = OvenReadingBody))]
#[cfg_attr(feature = "wire", serde(deny_unknown_fields))]
pub struct OvenMeasured {
    /// Set to, 100 to 260.
    pub set_c: f64,
    /// Read on a thermometer, within 60 of the setting.
    pub read_c: f64,
    /// How far it swings to either side, 0 to 40; 0 where that was not looked at.
    #[cfg_attr(feature = "wire", serde(default))]
    pub swing_k: f64,
}

/// What a kitchen has of which nobody has said anything yet.
mod usual {
    #[cfg(feature = "wire")]
    pub use of_older_files::*;

    /// One person with one mixer. Common practice, no source.
    pub fn hands() -> u32 {
        1
    }

    pub fn mixers() -> u32 {
        1
    }

    /// A home fridge and a home freezer cleared for a day's baking, and a table to cool on. Common practice, no source.
    pub fn fridge_places() -> u32 {
        6
    }

    pub fn freezer_places() -> u32 {
        4
    }

    pub fn cooling_places() -> u32 {
        8
    }

    #[cfg(feature = "wire")]
    mod of_older_files {
        use crate::dough::EggClass;
        use crate::oven::OvenSetup;

        pub fn step() -> f64 {
            1.0
        }

        pub fn fine_step() -> f64 {
            0.1
        }

        pub fn dip() -> f64 {
            OvenSetup::usual(175.0, false).door_dip.k()
        }

        pub fn recovery() -> f64 {
            OvenSetup::usual(175.0, false).recovery.min()
        }

        pub fn eggs() -> EggClass {
            EggClass::UsLarge
        }

        pub fn currency() -> String {
            "\u{20ac}".to_owned()
        }
    }
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
        checks.text("name", &input.name, 80, "a name");
        checks.range("room_c", input.room_c, 5.0, 40.0, "\u{b0}C");
        checks.range("fridge_c", input.fridge_c, -2.0, 15.0, "\u{b0}C");
        checks.range("freezer_c", input.freezer_c, -40.0, -5.0, "\u{b0}C");
        checks.range("mixer_limit_g", input.mixer_limit_g, 100.0, 100_000.0, "g");
        if let Some(ml) = input.bowl_ml {
            checks.range("bowl_ml", ml, 300.0, 200_000.0, "mL");
        }
        checks.text("currency", &input.currency, 4, "a sign such as \u{20ac} or $");
        let weigh = WeighRules::new(input.scale_step_g, input.fine_step_g, 0.0, None);
        if let Err(errors) = &weigh {
            errors.all().iter().cloned().for_each(|e| checks.push(e));
        }
        checks.range("ovens", f64::from(input.ovens), 1.0, 20.0, "ovens");
        checks.range("racks_per_oven", f64::from(input.racks_per_oven), 1.0, 20.0, "racks");
        checks.range("hands", f64::from(input.hands), 1.0, 20.0, "pairs of hands");
        checks.range("mixers", f64::from(input.mixers), 1.0, 20.0, "mixers");
        checks.range("fridge_places", f64::from(input.fridge_places), 0.0, 200.0, "places");
        checks.range("freezer_places", f64::from(input.freezer_places), 0.0, 200.0, "places");
        checks.range("cooling_places", f64::from(input.cooling_places), 1.0, 200.0, "places");
        checks.range("preheat_min", input.preheat_min, 0.0, 120.0, "min");
        checks.limit("oven_readings", input.oven_readings.len(), 12, "readings");
        for (i, r) in input.oven_readings.iter().enumerate() {
            let field = |name: &str| format!("oven_readings[{i}].{name}");
            checks.range(&field("set_c"), r.set_c, 100.0, 260.0, "\u{b0}C");
            checks.range(&field("read_c"), r.read_c, r.set_c - 60.0, r.set_c + 60.0, "\u{b0}C, near the setting");
            checks.range(&field("swing_k"), r.swing_k, 0.0, 40.0, "\u{b0}C to either side");
        }
        checks.range("door_dip_k", input.door_dip_k, 0.0, 80.0, "\u{b0}C");
        checks.range("recovery_min", input.recovery_min, 0.2, 15.0, "min");
        checks.range("altitude_m", input.altitude_m, -400.0, 4500.0, "m");
        checks.range("roll_min", input.roll_min, 0.0, 60.0, "min");
        checks.range("cut_s", input.cut_s, 0.0, 120.0, "s");
        for (i, rod) in input.rods_mm.iter().enumerate() {
            checks.range(&format!("rods_mm[{i}]"), *rod, 1.0, 40.0, "mm");
        }
        if input.rods_mm.len() > 20 {
            checks.push(crate::error::InputError::new(
                "rods_mm",
                Problem::TooMany { count: input.rods_mm.len(), max: 20, unit: "rods" },
            ));
        }
        let hot_spots = input.hot_spots.as_ref().map(HotSpotsInput::checked).transpose();
        if let Err(errors) = &hot_spots {
            errors.all().iter().cloned().for_each(|e| checks.push(e));
        }
        let zone = Zone::named(&input.zone);
        if let Err(errors) = &zone {
            errors.all().iter().cloned().for_each(|e| checks.push(e));
        }
        let film = if input.fridge_fan { FAN_FRIDGE } else { STILL_FRIDGE };
        let trays = TrayRules::new(input.tray_width_mm, input.tray_length_mm, input.trays_owned, input.least_gap_mm);
        let trays = match trays {
            Ok(trays) => Some(trays),
            Err(errors) => {
                errors.all().iter().cloned().for_each(|e| checks.push(e));
                None
            }
        };
        checks.finish(())?;
        input.rods_mm.sort_by(f64::total_cmp);
        input.rods_mm.dedup();
        Ok(Self {
            fridge: Place::new(input.fridge_c, film)?.being(Lies::In(ColdPlace::Fridge)),
            freezer: Place::new(input.freezer_c, STILL_FREEZER)?.being(Lies::In(ColdPlace::Freezer)),
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
        let kitchen = Self::new(KitchenInput { room_c: room.c(), ..self.input.clone() })?;
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
        let mut known: Vec<(f64, f64)> = self.input.oven_readings.iter().map(|r| (r.set_c, of(r))).collect();
        known.sort_by(|a, b| a.0.total_cmp(&b.0));
        straight_between(&known, set.c()).unwrap_or(0.0)
    }

    /// Where the oven is hotter; nothing of a pot, or while nobody has tried.
    #[must_use]
    pub fn hot_spots(&self) -> Option<&HotSpots> {
        self.hot_spots.as_ref().filter(|_| !self.input.cover_pot)
    }

    /// Whether its oven is a small one on the worktop.
    #[must_use]
    pub fn small_oven(&self) -> bool {
        self.input.small_oven && !self.input.cover_pot
    }

    /// Whether a covered pot on a burner stands in for an oven.
    #[must_use]
    pub fn cover_pot(&self) -> bool {
        self.input.cover_pot
    }

    /// The air's pressure at its altitude, Pa.
    #[must_use]
    pub fn pressure_pa(&self) -> f64 {
        standard_pressure_pa(self.input.altitude_m)
    }

    /// How far the oven's air falls with its door, and until two thirds of that are back.
    #[must_use]
    pub fn door(&self) -> (TemperatureDifference, Span) {
        (TemperatureDifference::new_k(self.input.door_dip_k), Span::new_min(self.input.recovery_min))
    }

    /// The room.
    #[must_use]
    pub fn room(&self) -> Temperature {
        Temperature::new_c(self.input.room_c)
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
        self.input.tray_kind
    }

    /// What limits one mix.
    #[must_use]
    pub fn mixer(&self) -> MixerLimits {
        MixerLimits { dough: Mass::new_g(self.input.mixer_limit_g), bowl_ml: self.input.bowl_ml }
    }

    /// The fridge's air.
    #[must_use]
    pub fn fridge_air(&self) -> Temperature {
        Temperature::new_c(self.input.fridge_c)
    }

    /// Ovens; a pot is one, of one tray and without a fan.
    #[must_use]
    pub fn ovens(&self) -> OvenKit {
        if self.input.cover_pot {
            return OvenKit { count: 1, racks: 1, fan: false, preheat_min: self.input.preheat_min };
        }
        OvenKit {
            count: self.input.ovens,
            racks: self.input.racks_per_oven,
            fan: self.input.oven_fan,
            preheat_min: self.input.preheat_min,
        }
    }

    /// Whether guide rods of this height are owned.
    #[must_use]
    pub fn has_rods(&self, thickness: Length) -> bool {
        self.input.rods_mm.iter().any(|r| (r - thickness.mm()).abs() < 0.05)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn input() -> KitchenInput {
        KitchenInput {
            name: "Tern Street Bakehouse".to_owned(),
            room_c: 22.0,
            fridge_c: 4.0,
            fridge_fan: false,
            freezer_c: -18.0,
            tray_width_mm: 310.0,
            tray_length_mm: 440.0,
            tray_kind: TrayKind::Aluminium,
            trays_owned: 4,
            least_gap_mm: 25.0,
            mixer_limit_g: 1200.0,
            bowl_ml: Some(4500.0),
            scale_step_g: 1.0,
            fine_step_g: 0.1,
            egg_class: EggClass::UsLarge,
            currency: "\u{20ac}".to_owned(),
            rods_mm: vec![10.0, 3.0, 6.0, 6.0],
            ovens: 1,
            racks_per_oven: 1,
            hands: 1,
            mixers: 1,
            fridge_places: 6,
            freezer_places: 4,
            cooling_places: 8,
            oven_fan: false,
            oven_readings: vec![],
            door_dip_k: 15.0,
            recovery_min: 1.5,
            hot_spots: None,
            cover_pot: false,
            small_oven: false,
            altitude_m: 0.0,
            preheat_min: 20.0,
            roll_min: 4.0,
            cut_s: 6.0,
            zone: "Europe/Lisbon".into(),
        }
    }

    #[test]
    fn between_two_settings_offset_and_swing_go_straight() {
        let measured = |set_c, read_c, swing_k| OvenMeasured { set_c, read_c, swing_k };
        let oven_readings = vec![measured(200.0, 190.0, 8.0), measured(160.0, 158.0, 4.0)];
        let kitchen = Kitchen::new(KitchenInput { oven_readings, ..input() }).unwrap();
        let at = |c| (kitchen.oven_offset(Temperature::new_c(c)).k(), kitchen.oven_swing(Temperature::new_c(c)).k());
        // By hand: half way from 160 (-2, 4) to 200 (-10, 8); held beyond them.
        assert_eq!((at(180.0), at(140.0), at(220.0)), ((-6.0, 6.0), (-2.0, 4.0), (-10.0, 8.0)));
    }

    #[test]
    fn a_pot_is_one_oven_of_one_tray_without_a_fan() {
        let pot = KitchenInput { cover_pot: true, ovens: 3, racks_per_oven: 2, oven_fan: true, ..input() };
        let kit = Kitchen::new(pot).unwrap().ovens();
        assert_eq!((kit.count, kit.racks, kit.fan), (1, 1, false));
    }

    #[test]
    fn rods_are_put_in_order_once() {
        let kitchen = Kitchen::new(input()).unwrap();
        assert_eq!(kitchen.input().rods_mm, [3.0, 6.0, 10.0]);
        assert!(kitchen.has_rods(Length::new_mm(6.0)) && !kitchen.has_rods(Length::new_mm(7.0)));
    }

    #[test]
    fn all_faults_come_at_once_each_with_its_field() {
        let bad = KitchenInput { fridge_c: 40.0, room_c: f64::NAN, trays_owned: 0, rods_mm: vec![0.0], ..input() };
        let errors = Kitchen::new(bad).unwrap_err();
        let fields: Vec<_> = errors.all().iter().map(crate::error::InputError::field).collect();
        assert_eq!(fields, ["room_c", "fridge_c", "rods_mm[0]", "trays_owned"]);
    }
}
