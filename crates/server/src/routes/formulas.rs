//! Formulas: kept, compared, changed by levers, with their versions, and as files.

use super::read;
use crate::bakeries::Of;
use crate::problem::{ApiError, Problem, Query};
use crate::revise::{Base, Tagged, made_from, merged};
use crate::wire::{BesideView, FormulaView, PulledView, VersionView};
use actix_web::http::header;
use actix_web::{HttpRequest, HttpResponse, delete, get, post, put, web};
use ready_slab_core::dough::{
    FormulaInput, Lever, MixMethod, MixerLimits, WeighRules, divide_into_mixes, mixing_sheet, rolled_density,
};
use ready_slab_core::recipe::{write_csv, write_json, write_json_ld, write_text};
use ready_slab_store::{FormulaId, Store, StoredFormula};
use ready_slab_words::{System, mix_step};
use serde::Deserialize;
use utoipa::{IntoParams, ToSchema};

/// All formulas by name.
#[utoipa::path(tag = "formulas", operation_id = "formulas_list", responses((status = 200, body = Vec<FormulaView>)))]
#[get("/api/formulas")]
pub async fn list(store: Of<Store>) -> Result<web::Json<Vec<FormulaView>>, ApiError> {
    Ok(web::Json(store.formulas().await?.iter().map(Into::into).collect()))
}

/// Puts a formula on the shelf.
#[utoipa::path(tag = "formulas", operation_id = "formulas_add", request_body = FormulaInput, responses((status = 200, body = FormulaView), (status = 422, body = Problem)))]
#[post("/api/formulas")]
pub async fn add(store: Of<Store>, payload: web::Payload) -> Result<web::Json<FormulaView>, ApiError> {
    let formula = read::<FormulaInput>(payload).await?.formula(&store.pantry().await?)?;
    let id = store.add_formula(&formula, &format!("new recipe {}", formula.name())).await?;
    Ok(web::Json((&store.formula(id).await?).into()))
}

/// Changes a formula, as a further version. What somebody else has changed since the revision named is asked about (412).
#[utoipa::path(tag = "formulas", operation_id = "formulas_change", params(("id" = i64, Path), ("If-Match" = Option<String>, Header, description = "The revision the change was based on")), request_body = FormulaInput, responses((status = 200, body = FormulaView), (status = 404, body = Problem), (status = 412, body = Problem), (status = 422, body = Problem)))]
#[put("/api/formulas/{id}")]
pub async fn change(
    store: Of<Store>,
    id: web::Path<i64>,
    request: HttpRequest,
    payload: web::Payload,
) -> Result<Tagged<FormulaView>, ApiError> {
    let id = FormulaId(*id);
    let (wanted, from) = (read::<FormulaInput>(payload).await?, made_from(&request)?);
    let w = store.begin(None).await?;
    let before = w.formula(id).await?;
    let older = match from {
        Some(from) => w.formula_at_revision(id, from).await?.map(|f| FormulaInput::from(&f.formula)),
        None => None,
    };
    // A formula is sent whole: what it leaves as it was is no change of it.
    let fields = |body: &FormulaInput| match serde_json::to_value(body) {
        Ok(serde_json::Value::Object(fields)) => Ok(fields),
        Ok(_) | Err(_) => Err(ApiError::Broken),
    };
    let mut patch = fields(&wanted)?;
    let base = Base::of(from, before.revision, older);
    if let Base::Older(older) = &base {
        let older = fields(older)?;
        patch.retain(|name, value| older.get(name) != Some(value));
    }
    let (body, _) = merged(patch, &FormulaInput::from(&before.formula), &base, before.revision)?;
    let formula = body.formula(&w.pantry().await?)?;
    if before.formula != formula {
        w.save_formula(id, &formula, &format!("recipe {}", formula.name())).await?;
    }
    let kept = w.formula(id).await?;
    w.commit().await?;
    Ok(Tagged((&kept).into(), kept.revision))
}

/// Takes a formula off the shelf, with its versions.
#[utoipa::path(tag = "formulas", operation_id = "formulas_delete", responses((status = 204), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[delete("/api/formulas/{id}")]
pub async fn delete(store: Of<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    let id = FormulaId(*id);
    let name = store.formula(id).await?.formula.name().to_owned();
    store.delete_formula(id, &format!("recipe {name} removed")).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// What to compare with.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct BesideQuery {
    /// `formula:3` or `school:0`; the nearest on the shelf when absent.
    pub with: Option<String>,
    /// A version of the formula; the newest when absent.
    pub version: Option<u32>,
}

/// What a formula is, beside a neighbour.
#[utoipa::path(tag = "formulas", operation_id = "formulas_beside", params(("id" = i64, Path), BesideQuery), responses((status = 200, body = BesideView), (status = 404, body = Problem)))]
#[get("/api/formulas/{id}/beside")]
pub async fn beside(
    store: Of<Store>,
    id: web::Path<i64>,
    query: Query<BesideQuery>,
) -> Result<web::Json<BesideView>, ApiError> {
    let own = store.formula_at(FormulaId(*id), query.version).await?;
    let shelf = store.formulas().await?;
    Ok(web::Json(BesideView::new(&own, &shelf, query.with.as_deref())))
}

/// Pulls a lever on a formula and shows what comes of it; nothing is kept.
#[utoipa::path(tag = "formulas", operation_id = "formulas_pull", request_body = Lever, responses((status = 200, body = PulledView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/formulas/{id}/pull")]
pub async fn pull(
    store: Of<Store>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<PulledView>, ApiError> {
    let formula = store.formula(FormulaId(*id)).await?.formula;
    let lever: Lever = read(payload).await?;
    let pulled = lever.pull(&formula, &store.pantry().await?)?;
    Ok(web::Json(PulledView::new(&formula, &pulled)))
}

/// All versions of a formula, the latest first.
#[utoipa::path(tag = "formulas", operation_id = "formulas_versions", responses((status = 200, body = Vec<VersionView>), (status = 404, body = Problem)))]
#[get("/api/formulas/{id}/versions")]
pub async fn versions(store: Of<Store>, id: web::Path<i64>) -> Result<web::Json<Vec<VersionView>>, ApiError> {
    Ok(web::Json(VersionView::list(&store.versions(FormulaId(*id)).await?)))
}

/// A format that formulas are written in.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum WrittenAs {
    /// Plain text.
    Text,
    /// schema.org Recipe in JSON-LD.
    JsonLd,
    /// A table.
    Csv,
    /// This program's own JSON.
    Json,
}

/// A formula as a file.
#[utoipa::path(
    tag = "formulas", operation_id = "formulas_as_file",
    params(("id" = i64, Path), ("format" = WrittenAs, Path)),
    responses((status = 200, content_type = "text/plain", body = String), (status = 404, body = Problem))
)]
#[get("/api/formulas/{id}/as/{format}")]
pub async fn as_file(store: Of<Store>, path: web::Path<(i64, WrittenAs)>) -> Result<HttpResponse, ApiError> {
    let (id, format) = path.into_inner();
    let stored = store.formula(FormulaId(id)).await?;
    let steps = steps_of(&stored, &store).await?;
    let (kind, ending, text) = match format {
        WrittenAs::Text => ("text/plain; charset=utf-8", "txt", write_text(&stored.formula, &steps)),
        WrittenAs::JsonLd => ("application/ld+json", "jsonld", write_json_ld(&stored.formula, &steps)),
        WrittenAs::Csv => ("text/csv; charset=utf-8", "csv", write_csv(&stored.formula)),
        WrittenAs::Json => ("application/json", "json", write_json(&stored.formula)),
    };
    Ok(HttpResponse::Ok()
        .content_type(kind)
        .insert_header((header::CONTENT_DISPOSITION, format!("attachment; filename=\"recipe.{ending}\"")))
        .body(text))
}

/// The steps of a batch as the formula stands, mixed just to combined.
async fn steps_of(stored: &StoredFormula, store: &Store) -> Result<Vec<String>, ApiError> {
    let kitchen = store.kitchen().await?;
    let formula = &stored.formula;
    let density = rolled_density(&formula.composition(), MixMethod::JustCombined);
    let limits = MixerLimits { dough: formula.total(), bowl_ml: None };
    let mixes = divide_into_mixes(formula, formula.total(), limits, density, &WeighRules::plain());
    let sheet = mixing_sheet(&mixes, MixMethod::JustCombined, &[], kitchen.room(), kitchen.fridge_air());
    let told = |step| {
        let (title, what, stop) = mix_step(step);
        format!("{title}. {} {stop}", what.text(System::Metric))
    };
    Ok(sheet.steps.iter().map(told).collect())
}
