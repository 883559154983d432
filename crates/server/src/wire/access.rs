//! Devices that are let in, on the wire.

use super::view;
use crate::access::{Access, CODE_GOOD_FOR};
use crate::problem::ApiError;
use chrono::{DateTime, Utc};
use qrcode::QrCode;
use qrcode::render::svg;
use ready_slab_core::clock::{MINUTE_FORMAT, Zone};
use ready_slab_core::error::Checks;
use ready_slab_store::{Role, StoredDevice};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a device may do.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RoleWord {
    /// All.
    Full,
    /// Read, and note what happens at the bench.
    Bench,
    /// Write readings, and nothing else.
    Thermometer,
}

impl From<Role> for RoleWord {
    fn from(role: Role) -> Self {
        match role {
            Role::Full => Self::Full,
            Role::Bench => Self::Bench,
            Role::Thermometer => Self::Thermometer,
        }
    }
}

view! {
    /// A device that is let in.
    pub struct DeviceView(device: &StoredDevice, zone: Zone, this: bool) {
        let said = |at: DateTime<Utc>| zone.shown(at).format(MINUTE_FORMAT).to_string();

        /// Its number.
        id: i64 = device.id.0,
        /// What it is called.
        name: String = device.name.clone(),
        /// What it may do.
        role: RoleWord = device.role.into(),
        /// When it was let in, local time.
        let_in_at: String = said(device.let_in_at),
        /// When it was there last, to some minutes, local time.
        seen_at: Option<String> = device.seen_at.map(said),
        /// It is the one that asks.
        this: bool = this,
    }
}

/// How the bakery is reached, and by whom.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct AccessView {
    /// Whether everybody who reaches it is let in: on this machine alone, or because it was started so.
    pub open: bool,
    /// The device that asks, where it was let in.
    pub this: Option<DeviceView>,
    /// Where a device on the network finds it; nothing where none does.
    pub address: Option<String>,
}

/// A code, and a name for the device that gives it.
#[derive(Debug, Clone, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PairBody {
    /// Eight digits; what else stands between them is left out.
    pub code: String,
    /// 1 to 80 characters.
    pub name: String,
}

/// What a device or thermometer is called.
#[derive(Debug, Clone, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DeviceName {
    /// 1 to 80 characters.
    pub name: String,
}

/// Longest name of a device.
const MOST_NAME: usize = 80;

/// The name, without space around it.
///
/// Fails where there is none or it is too long.
pub fn device_name(name: &str) -> Result<String, ApiError> {
    let name = name.trim();
    let mut checks = Checks::new();
    checks.text("name", name, MOST_NAME, "a name for the device");
    Ok(checks.finish(name.to_owned())?)
}

/// What the next device to be let in may do.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CodeBody {
    /// Not `thermometer`: that is given a token.
    pub role: RoleWord,
}

/// A code with which one device is let in.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CodeView {
    /// Eight digits in two groups.
    pub code: String,
    /// So long it is good.
    pub good_for_s: u64,
    /// What a device opens.
    pub address: String,
    /// The same with the code as a picture to point a camera at (ISO/IEC 18004), an SVG file.
    pub picture: String,
}

/// The page on which a device gives its code; the code stands behind the mark that browsers keep to themselves.
fn page_of(address: &str, code: &str) -> String {
    format!("{address}/pair#{code}")
}

/// As people read it out.
pub fn grouped(code: &str) -> String {
    let fours: Vec<&str> = (0..code.len()).step_by(4).filter_map(|at| code.get(at..(at + 4).min(code.len()))).collect();
    fours.join(" ")
}

impl CodeView {
    /// Of a code.
    pub fn new(access: &Access, code: &str) -> Result<Self, ApiError> {
        let picture = QrCode::new(page_of(access.address(), code)).map_err(|_| ApiError::Broken)?;
        Ok(Self {
            code: grouped(code),
            good_for_s: CODE_GOOD_FOR.as_secs(),
            address: format!("{}/pair", access.address()),
            picture: picture.render::<svg::Color>().min_dimensions(240, 240).build(),
        })
    }
}

/// The same picture in letters, for a terminal.
pub fn in_letters(access: &Access, code: &str) -> Option<String> {
    let picture = QrCode::new(page_of(access.address(), code)).ok()?;
    Some(picture.render::<qrcode::render::unicode::Dense1x2>().build())
}

/// What a thermometer shows, told once.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TokenView {
    /// Sent as `Authorization: Bearer TOKEN` with each reading.
    pub token: String,
}
