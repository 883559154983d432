//! Quantities in JSON: plain numbers, the unit in the name of the field that holds them.

use super::{Length, Mass, Temperature};
use serde::de::{Deserialize, Deserializer, Error};
use serde::ser::{Serialize, Serializer};
use std::borrow::Cow;
use utoipa::openapi::{KnownFormat, ObjectBuilder, RefOr, Schema, SchemaFormat, Type};
use utoipa::{PartialSchema, ToSchema};

macro_rules! on_the_wire {
    ($name:ident, $from:ident, $get:ident, $said:literal) => {
        impl Serialize for $name {
            fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
                serializer.serialize_f64(self.$get())
            }
        }

        impl<'de> Deserialize<'de> for $name {
            fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
                Self::$from(f64::deserialize(deserializer)?).map_err(D::Error::custom)
            }
        }

        impl PartialSchema for $name {
            fn schema() -> RefOr<Schema> {
                let number = ObjectBuilder::new().schema_type(Type::Number);
                let number = number.format(Some(SchemaFormat::KnownFormat(KnownFormat::Double)));
                number.description(Some($said)).build().into()
            }
        }

        impl ToSchema for $name {
            fn name() -> Cow<'static, str> {
                stringify!($name).into()
            }
        }
    };
}

on_the_wire!(Length, from_mm, mm, "A length, mm.");
on_the_wire!(Mass, from_g, g, "A mass, g.");
on_the_wire!(Temperature, from_c, c, "A temperature, degC.");
