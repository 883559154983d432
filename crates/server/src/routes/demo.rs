//! The demo: a bakery apart.

use crate::bakeries::Bakeries;
use crate::paths::DEMO;
use crate::problem::{ApiError, Problem};
use actix_web::{HttpResponse, delete, get, post, web};
use serde::Serialize;
use utoipa::ToSchema;

/// The demo beside this bakery.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DemoView {
    /// Whether it is there.
    pub open: bool,
    /// Where its pages are; its routes are the same as here, below this.
    pub at: String,
}

async fn as_it_is(bakeries: &Bakeries) -> web::Json<DemoView> {
    web::Json(DemoView { open: bakeries.demo().await.is_some(), at: format!("{DEMO}/") })
}

/// Whether the demo is there.
#[utoipa::path(tag = "demo", operation_id = "demo_show", responses((status = 200, body = DemoView)))]
#[get("/api/demo")]
pub async fn show(bakeries: web::Data<Bakeries>) -> web::Json<DemoView> {
    as_it_is(&bakeries).await
}

/// Opens the demo, a bakery of its own beside this one; made anew where it is not there.
#[utoipa::path(tag = "demo", operation_id = "demo_open", responses((status = 200, body = DemoView), (status = 404, body = Problem)))]
#[post("/api/demo")]
pub async fn open(bakeries: web::Data<Bakeries>) -> Result<web::Json<DemoView>, ApiError> {
    bakeries.open_demo().await?;
    Ok(as_it_is(&bakeries).await)
}

/// Removes the demo whole, with all that was done in it.
#[utoipa::path(tag = "demo", operation_id = "demo_remove", responses((status = 204)))]
#[delete("/api/demo")]
pub async fn remove(bakeries: web::Data<Bakeries>) -> Result<HttpResponse, ApiError> {
    bakeries.remove_demo().await?;
    Ok(HttpResponse::NoContent().finish())
}
