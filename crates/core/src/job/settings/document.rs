//! Documents of decisions: in the code a struct for each station, on the wire and in files one object in which all fields lie beside each other. A field
//! stands once, with what it says, its kind and what it is until somebody decides.

use serde::Deserialize;
use serde::de::{DeserializeSeed, Deserializer, Error, IgnoredAny, MapAccess, Visitor};
use serde_json::{Map, Value};
use std::fmt;

/// The settings of one station: `pub name: Kind = what it usually is`.
macro_rules! room {
    ($(#[$about:meta])* pub struct $name:ident as $wire:ident {
        $($(#[$of:meta])* pub $field:ident: $kind:ty = $usual:expr,)*
    }) => {
        $(#[$about])*
        #[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
        #[schema(as = $wire)]
        #[serde(default, deny_unknown_fields)]
        pub struct $name { $($(#[$of])* pub $field: $kind,)* }

        impl Default for $name {
            fn default() -> Self {
                Self { $($field: $usual,)* }
            }
        }

        impl $name {
            pub(crate) const FIELDS: &'static [&'static str] = &[$(stringify!($field),)*];
        }
    };
}

/// Rooms put together to one document. What it `needs` is never left out.
macro_rules! document {
    ($(#[$about:meta])* pub struct $name:ident as $wire:ident, $called:literal {
        $($(#[$of:meta])* pub $room:ident: $kind:ident,)*
    }
    needs [$($need:literal),*]) => {
        $(#[$about])*
        #[derive(Debug, Clone, Default, PartialEq, serde::Serialize, utoipa::ToSchema)]
        #[schema(as = $wire)]
        pub struct $name { $($(#[$of])* #[serde(flatten)] pub $room: $kind,)* }

        impl<'de> serde::Deserialize<'de> for $name {
            fn deserialize<D: serde::Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
                use crate::job::settings::document::{Shape, read_as, takes};
                static SHAPE: Shape = Shape {
                    called: $called,
                    needs: &[$($need),*],
                    rooms: &[$(($kind::FIELDS, takes::<$kind>),)*],
                };
                let mut parts = SHAPE.read(deserializer)?.into_iter();
                Ok(Self { $($room: read_as(parts.next())?,)* })
            }
        }
    };
}

/// Whether a room takes these fields; why not.
type Takes = fn(Map<String, Value>) -> Result<(), String>;

/// What a document is made of.
pub(crate) struct Shape {
    pub called: &'static str,
    pub needs: &'static [&'static str],
    pub rooms: &'static [(&'static [&'static str], Takes)],
}

/// Whether a room takes these fields.
pub(crate) fn takes<T: for<'a> Deserialize<'a>>(fields: Map<String, Value>) -> Result<(), String> {
    serde_json::from_value::<T>(Value::Object(fields)).map(|_| ()).map_err(|e| e.to_string())
}

/// A room from its fields.
pub(crate) fn read_as<T: for<'a> Deserialize<'a>, E: Error>(fields: Option<Map<String, Value>>) -> Result<T, E> {
    serde_json::from_value(Value::Object(fields.unwrap_or_default())).map_err(E::custom)
}

impl Shape {
    /// The fields of each room.
    pub fn read<'de, D: Deserializer<'de>>(&self, deserializer: D) -> Result<Vec<Map<String, Value>>, D::Error> {
        deserializer.deserialize_map(Rooms(self))
    }

    fn room_of(&self, field: &str) -> Option<usize> {
        self.rooms.iter().position(|(fields, _)| fields.contains(&field))
    }
}

struct Rooms<'a>(&'a Shape);

impl<'de> Visitor<'de> for Rooms<'_> {
    type Value = Vec<Map<String, Value>>;

    fn expecting(&self, f: &mut fmt::Formatter) -> fmt::Result {
        f.write_str(self.0.called)
    }

    fn visit_map<A: MapAccess<'de>>(self, mut map: A) -> Result<Self::Value, A::Error> {
        let mut parts = vec![Map::new(); self.0.rooms.len()];
        while let Some(field) = map.next_key::<String>()? {
            let Some(at) = self.0.room_of(&field) else {
                map.next_value::<IgnoredAny>()?;
                let known: Vec<String> = self.0.rooms.iter().flat_map(|r| r.0).map(|f| format!("`{f}`")).collect();
                return Err(Error::custom(format_args!(
                    "unknown field `{field}`, expected one of {}",
                    known.join(", ")
                )));
            };
            let value = map.next_value_seed(One { field: &field, takes: self.0.rooms[at].1 })?;
            if parts[at].insert(field.clone(), value).is_some() {
                return Err(Error::custom(format_args!("duplicate field `{field}`")));
            }
        }
        match self.0.needs.iter().find(|need| self.0.room_of(need).is_none_or(|at| !parts[at].contains_key(**need))) {
            Some(need) => Err(Error::missing_field(need)),
            None => Ok(parts),
        }
    }
}

/// One field, checked while the reader still knows where it is.
struct One<'a> {
    field: &'a str,
    takes: Takes,
}

impl<'de> DeserializeSeed<'de> for One<'_> {
    type Value = Value;

    fn deserialize<D: Deserializer<'de>>(self, deserializer: D) -> Result<Value, D::Error> {
        let value = Value::deserialize(deserializer)?;
        (self.takes)(Map::from_iter([(self.field.to_owned(), value.clone())])).map_err(Error::custom)?;
        Ok(value)
    }
}
