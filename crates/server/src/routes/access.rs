//! Devices: let in with a code, called by a name, shut out again.

use super::{bytes, read};
use crate::access::Access;
use crate::bakeries::Bakeries;
use crate::problem::{ApiError, Problem, parse};
use crate::wire::{AccessView, CodeBody, CodeView, DeviceName, DeviceView, PairBody, RoleWord, TokenView, device_name};
use actix_web::{HttpMessage as _, HttpRequest, HttpResponse, delete, get, patch, post, web};
use ready_slab_store::{DeviceId, Role, StoredDevice};

/// Largest body of who is not let in yet.
const PAIR_LIMIT_BYTES: usize = 2_000;

fn asking(request: &HttpRequest) -> Option<StoredDevice> {
    request.extensions().get::<StoredDevice>().cloned()
}

async fn view(bakeries: &Bakeries, device: &StoredDevice, this: bool) -> Result<DeviceView, ApiError> {
    Ok(DeviceView::new(device, bakeries.own().store.kitchen().await?.zone(), this))
}

/// Lets a device in that gives the code. From then on it shows a cookie that no script reads.
#[utoipa::path(tag = "access", operation_id = "access_pair", request_body = PairBody, responses((status = 200, body = DeviceView), (status = 403, body = Problem), (status = 422, body = Problem), (status = 429, body = Problem)))]
#[post("/api/pair")]
pub async fn pair(
    request: HttpRequest,
    payload: web::Payload,
    access: web::Data<Access>,
    bakeries: web::Data<Bakeries>,
) -> Result<HttpResponse, ApiError> {
    let asked: PairBody = parse(&bytes(payload, PAIR_LIMIT_BYTES).await?)?;
    let (device, cookie) =
        access.pair(&asked.code, &device_name(&asked.name)?, request.peer_addr().map(|a| a.ip())).await?;
    Ok(HttpResponse::Ok().cookie(cookie).json(view(&bakeries, &device, true).await?))
}

/// How the bakery is reached, and who asks.
#[utoipa::path(tag = "access", operation_id = "access_show", responses((status = 200, body = AccessView), (status = 401, body = Problem)))]
#[get("/api/access")]
pub async fn show(
    request: HttpRequest,
    access: web::Data<Access>,
    bakeries: web::Data<Bakeries>,
) -> Result<web::Json<AccessView>, ApiError> {
    let this = match asking(&request) {
        Some(device) => Some(view(&bakeries, &device, true).await?),
        None => None,
    };
    let address = Some(access.address().to_owned()).filter(|a| !a.is_empty());
    Ok(web::Json(AccessView { open: access.is_open(), this, address }))
}

/// The devices and thermometers that are let in.
#[utoipa::path(tag = "access", operation_id = "devices_list", responses((status = 200, body = Vec<DeviceView>)))]
#[get("/api/devices")]
pub async fn list(request: HttpRequest, bakeries: web::Data<Bakeries>) -> Result<web::Json<Vec<DeviceView>>, ApiError> {
    let this = asking(&request).map(|d| d.id);
    let store = &bakeries.own().store;
    let zone = store.kitchen().await?.zone();
    let all = store.devices().await?;
    Ok(web::Json(all.iter().map(|d| DeviceView::new(d, zone, this == Some(d.id))).collect()))
}

/// Makes a code with which the next device is let in; one that was made before is good no more.
#[utoipa::path(tag = "access", operation_id = "devices_code", request_body = CodeBody, responses((status = 200, body = CodeView), (status = 403, body = Problem), (status = 422, body = Problem)))]
#[post("/api/devices/code")]
pub async fn code(payload: web::Payload, access: web::Data<Access>) -> Result<web::Json<CodeView>, ApiError> {
    let role = match read::<CodeBody>(payload).await?.role {
        RoleWord::Full => Role::Full,
        RoleWord::Bench => Role::Bench,
        RoleWord::Thermometer => return Err(ApiError::Forbidden("A thermometer gets a token, not a code.")),
    };
    if access.is_open() {
        return Err(ApiError::Forbidden("No code needed: this bakery is open to everyone on the network."));
    }
    let code = access.make_code(role)?;
    Ok(web::Json(CodeView::new(&access, &code)?))
}

/// Lets nobody in with the code that was made.
#[utoipa::path(tag = "access", operation_id = "devices_drop_code", responses((status = 204)))]
#[delete("/api/devices/code")]
pub async fn drop_code(access: web::Data<Access>) -> HttpResponse {
    access.drop_code();
    HttpResponse::NoContent().finish()
}

/// Lets a thermometer in: it may write readings, and nothing else.
#[utoipa::path(tag = "access", operation_id = "devices_thermometer", request_body = DeviceName, responses((status = 200, body = TokenView), (status = 422, body = Problem)))]
#[post("/api/devices/thermometer")]
pub async fn thermometer(payload: web::Payload, access: web::Data<Access>) -> Result<web::Json<TokenView>, ApiError> {
    let name = device_name(&read::<DeviceName>(payload).await?.name)?;
    Ok(web::Json(TokenView { token: access.thermometer(&name).await? }))
}

/// Calls a device something else.
#[utoipa::path(tag = "access", operation_id = "devices_rename", params(("id" = i64, Path)), request_body = DeviceName, responses((status = 204), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[patch("/api/devices/{id}")]
pub async fn rename(
    id: web::Path<i64>,
    payload: web::Payload,
    bakeries: web::Data<Bakeries>,
) -> Result<HttpResponse, ApiError> {
    let name = device_name(&read::<DeviceName>(payload).await?.name)?;
    bakeries.own().store.rename_device(DeviceId(*id), &name).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Shuts a device out, at once: what it listens to ends.
#[utoipa::path(tag = "access", operation_id = "devices_shut_out", params(("id" = i64, Path)), responses((status = 204), (status = 404, body = Problem)))]
#[delete("/api/devices/{id}")]
pub async fn shut_out(id: web::Path<i64>, access: web::Data<Access>) -> Result<HttpResponse, ApiError> {
    access.shut_out(DeviceId(*id)).await?;
    Ok(HttpResponse::NoContent().finish())
}
