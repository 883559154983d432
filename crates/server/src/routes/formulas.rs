//! Formulas and the ingredients they are made of.

use super::read;
use crate::problem::{ApiError, Problem};
use crate::wire::{FormulaBody, FormulaView, IngredientView};
use actix_web::{get, post, put, web};
use ready_slab_core::dough::{Formula, INGREDIENTS};
use ready_slab_store::{FormulaId, Store};

/// All formulas by name.
#[utoipa::path(tag = "formulas", operation_id = "formulas_list", responses((status = 200, body = Vec<FormulaView>)))]
#[get("/api/formulas")]
pub async fn list(store: web::Data<Store>) -> Result<web::Json<Vec<FormulaView>>, ApiError> {
    Ok(web::Json(store.formulas().await?.iter().map(Into::into).collect()))
}

/// Puts a formula on the shelf.
#[utoipa::path(tag = "formulas", operation_id = "formulas_add", request_body = FormulaBody, responses((status = 200, body = FormulaView), (status = 422, body = Problem)))]
#[post("/api/formulas")]
pub async fn add(store: web::Data<Store>, payload: web::Payload) -> Result<web::Json<FormulaView>, ApiError> {
    let formula = Formula::try_from(read::<FormulaBody>(payload).await?)?;
    let id = store.add_formula(&formula, &format!("new formula {}", formula.name())).await?;
    Ok(web::Json((&store.formula(id).await?).into()))
}

/// Changes a formula.
#[utoipa::path(tag = "formulas", operation_id = "formulas_change", request_body = FormulaBody, responses((status = 200, body = FormulaView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/formulas/{id}")]
pub async fn change(
    store: web::Data<Store>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<FormulaView>, ApiError> {
    let id = FormulaId(*id);
    let before = store.formula(id).await?;
    let formula = Formula::try_from(read::<FormulaBody>(payload).await?)?;
    if before.formula != formula {
        store.save_formula(id, &formula, &format!("formula {}", formula.name())).await?;
    }
    Ok(web::Json((&store.formula(id).await?).into()))
}

/// All ingredients that a formula can use.
#[utoipa::path(tag = "formulas", operation_id = "formulas_ingredients", responses((status = 200, body = Vec<IngredientView>)))]
#[get("/api/ingredients")]
pub async fn ingredients() -> web::Json<Vec<IngredientView>> {
    web::Json(INGREDIENTS.iter().map(Into::into).collect())
}
