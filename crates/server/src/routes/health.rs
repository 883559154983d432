//! Whether it is well, for whoever looks after it.

use crate::bakeries::Bakeries;
use crate::problem::{ApiError, Problem};
use crate::wire::HealthView;
use actix_web::{get, web};

/// That it runs, and that the bakery's file can be read.
#[utoipa::path(tag = "health", operation_id = "health", responses((status = 200, body = HealthView), (status = 503, body = Problem)))]
#[get("/api/health")]
pub async fn health(bakeries: web::Data<Bakeries>) -> Result<web::Json<HealthView>, ApiError> {
    bakeries.own().store.kitchen().await?;
    Ok(web::Json(HealthView { version: env!("CARGO_PKG_VERSION").to_owned() }))
}
