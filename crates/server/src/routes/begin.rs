//! A new job from nothing: its dough, its shape, how many and for when.

use super::read;
use crate::bakeries::Of;
use crate::board::Board;
use crate::problem::{ApiError, Problem};
use crate::whole::{Planned, WholeDate};
use crate::wire::{DoughWanted, JobView, NewJobBody, PlanView, ShapeWanted, StarterView, capital};
use actix_web::{get, post, web};
use ready_slab_core::dough::{FormulaInput, RecipeSays, STARTERS, Starter};
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::geometry::{Builtin, BuiltinKind, Outline};
use ready_slab_core::job::{Asked, Job, Making, usually_wanted};
use ready_slab_store::{CutterId, FormulaId, JobId, Store};
use ready_slab_words::Name;

/// The basic doughs.
#[utoipa::path(tag = "jobs", operation_id = "starters_list", responses((status = 200, body = Vec<StarterView>)))]
#[get("/api/starters")]
pub async fn starters() -> web::Json<Vec<StarterView>> {
    web::Json(STARTERS.iter().map(|s| StarterView::new(s, &s.formula())).collect())
}

/// Adds a job, with what it needs and is not on the shelf yet.
#[utoipa::path(tag = "jobs", operation_id = "jobs_begin", request_body = NewJobBody, responses((status = 200, body = JobView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/jobs/new")]
pub async fn begin(store: Of<Store>, payload: web::Payload) -> Result<web::Json<JobView>, ApiError> {
    let body: NewJobBody = read(payload).await?;
    let w = store.begin(Some(&format!("new job {}", called(&store, &body).await?))).await?;
    let id = begun(&w, body).await?;
    let kept = w.job(id).await?;
    w.commit().await?;
    Ok(web::Json((&kept).into()))
}

/// The plan of a job before it is added; nothing is kept.
#[utoipa::path(tag = "jobs", operation_id = "jobs_begin_plan", request_body = NewJobBody, responses((status = 200, body = PlanView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/jobs/new/plan")]
pub async fn begin_plan(
    store: Of<Store>,
    board: Of<Board>,
    payload: web::Payload,
) -> Result<web::Json<PlanView>, ApiError> {
    let body: NewJobBody = read(payload).await?;
    // Added in a transaction that is dropped: what is shown is exactly what would come of it.
    let w = store.begin(Some("new job")).await?;
    let id = begun(&w, body).await?;
    let date = w.job(id).await?.job.input().order.ready_by.date();
    let day = WholeDate::plan(&w, date, None, Some(board.date(date).await?)).await?;
    drop(w);
    let planned = day.of(id).ok_or(ApiError::Broken)??;
    let Planned { whole, plan } = &*planned;
    Ok(web::Json(PlanView::new(plan, &whole.stored.job, &whole.kitchen, &whole.cutter)))
}

/// What a job is called, where nobody said: what its pieces are.
async fn called(store: &Store, body: &NewJobBody) -> Result<String, ApiError> {
    if let Some(name) = &body.name {
        return Ok(name.clone());
    }
    Ok(match &body.shape {
        ShapeWanted::Cutter { cutter_id } => store.cutter(CutterId(*cutter_id)).await?.name,
        shape => match shape.new_cutter() {
            Some(crate::wire::NewCutter::Builtin { name, .. }) => name,
            _ if matches!(shape, ShapeWanted::Balls { .. }) => "Balls".to_owned(),
            _ => "Sliced log".to_owned(),
        },
    })
}

async fn begun(w: &Store, body: NewJobBody) -> Result<JobId, ApiError> {
    let zone = w.kitchen().await?.zone();
    let ready_by = body.ready_by.map_or_else(|| usually_wanted(zone.shown(chrono::Utc::now())), |m| m.0);
    zone.moment("ready_by", ready_by)?;
    let name = called(w, &body).await?;
    let mut says = RecipeSays::default();
    let (formula, of) = match &body.dough {
        DoughWanted::Recipe { formula_id } => {
            let kept = w.formula(FormulaId(*formula_id)).await?;
            says = kept.formula.says().copied().unwrap_or_default();
            (kept.id, None)
        }
        DoughWanted::Starter { starter } => {
            let of = Starter::of(starter).ok_or_else(|| {
                InputErrors::from(InputError::refused(
                    "dough.starter",
                    "No such basic dough. Choose one from the list.",
                ))
            })?;
            (from_the_shelf(w, of).await?, Some(of))
        }
    };
    body.refuse.iter().for_each(|word| word.out_of(&mut says));
    let making = body.shape.making();
    let cutter = match &body.shape {
        ShapeWanted::Cutter { cutter_id } => w.cutter(CutterId(*cutter_id)).await?.id,
        shape => cutter_for(w, shape, &making).await?,
    };
    let like = match body.like {
        Some(id) => Some(w.job(JobId(id)).await?),
        None => None,
    };
    let kitchen = w.kitchen().await?;
    let asked = Asked {
        name: &name,
        formula_id: formula.0,
        cutter_id: cutter.0,
        making,
        pieces: body.pieces,
        thickness_mm: body.thickness_mm,
        ready_by,
        finishes: body.finishes.clone(),
        of,
        says,
        like: like.as_ref().map(|l| l.job.input()),
        rods_mm: &kitchen.input().trays.rods_mm,
    };
    Ok(w.add_job(&Job::new(asked.input())?, &format!("new job {name}")).await?)
}

/// The basic dough as it lies on the shelf, put there unless it does.
async fn from_the_shelf(w: &Store, of: &Starter) -> Result<FormulaId, ApiError> {
    let formula = of.formula();
    let same = w.formulas().await?.into_iter().find(|f| FormulaInput::from(&f.formula) == FormulaInput::from(&formula));
    match same {
        Some(kept) => Ok(kept.id),
        None => Ok(w.add_formula(&formula, &format!("new recipe {}", of.name)).await?),
    }
}

/// The cutter of a shape. One that is sliced or portioned names one too, for when it is cut after all: the first there is, or a round.
async fn cutter_for(w: &Store, shape: &ShapeWanted, making: &Making) -> Result<CutterId, ApiError> {
    let shelf = w.cutters().await?;
    if *making != Making::Cut
        && let Some(any) = shelf.first()
    {
        return Ok(any.id);
    }
    let (name, origin, outline): (String, String, Outline) = match shape.new_cutter() {
        Some(new) => new.build().map_err(|e| e.within("shape"))?,
        None => (
            capital(BuiltinKind::Round.name()),
            BuiltinKind::Round.name().to_owned(),
            Builtin::usual(BuiltinKind::Round)?.outline()?,
        ),
    };
    match shelf.into_iter().find(|c| c.name == name && c.origin == origin && same_size(&c.outline, &outline)) {
        Some(kept) => Ok(kept.id),
        None => Ok(w.add_cutter(&name, &origin, &outline, &format!("new cutter {name}")).await?),
    }
}

/// Of one form: as kept, its corners are rounded.
fn same_size(kept: &Outline, wanted: &Outline) -> bool {
    let ((w, h), (other_w, other_h)) = (kept.extent(), wanted.extent());
    (w.mm() - other_w.mm()).abs() < 0.05 && (h.mm() - other_h.mm()).abs() < 0.05
}
