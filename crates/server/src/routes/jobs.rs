//! Jobs, their plans, and whole jobs as files.

use super::days::calendar_file;
use super::{label, read};
use crate::bakeries::Of;
use crate::board::Board;
use crate::days::Day;
use crate::problem::{ApiError, Problem, Query};
use crate::revise::{Base, Tagged, made_from, merged};
use crate::whole::{Family, Planned, may_be_lot, may_share_dough};
use crate::wire::{
    CutterInFile, DamagedView, DayFile, JobFile, JobView, JobsView, LotView, PlanView, RecordBody, RecordInFile,
    RecordView, TogetherView, ring,
};
use actix_web::http::header;
use actix_web::{HttpRequest, HttpResponse, delete, get, patch, post, web};
use chrono::{NaiveDate, Utc};
use ready_slab_core::dough::{Formula, Ingredient, Pantry};
use ready_slab_core::error::{Checks, InputError, InputErrors};
use ready_slab_core::geometry::Outline;
use ready_slab_core::job::{Conditions, Job, JobInput, Kitchen, LotInput, Plan, changed_with};
use ready_slab_core::ledger::{BakeRecord, ExpectedBake};
use ready_slab_core::units::{Length, Temperature};
use ready_slab_store::{JobId, JobPage, JobsWanted, NewRecord, Store, StoredJob};
use ready_slab_words::job_word;
use serde::Deserialize;
use utoipa::IntoParams;

/// Jobs of a page, so many of them without their lots, when nothing else is said.
const PAGE: usize = 40;
const MOST_ON_A_PAGE: usize = 200;
const MOST_NAMED: usize = 80;

/// Which jobs are asked for.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct JobsQuery {
    /// Part of the name of the job, its recipe or its cutter, up to 80 characters.
    #[serde(default)]
    named: String,
    /// So many are left out.
    #[serde(default)]
    from: usize,
    /// So many at most, 1 to 200; 40 when absent.
    most: Option<usize>,
    /// Instead of a page: all that have to do with this job. Its lots or the job it is a lot of, what is mixed with it, and what is wanted on its date.
    about: Option<i64>,
}

/// Jobs, a page at a time, or those that have to do with one.
#[utoipa::path(tag = "jobs", operation_id = "jobs_list", params(JobsQuery), responses((status = 200, body = JobsView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs")]
pub async fn list(store: Of<Store>, query: Query<JobsQuery>) -> Result<web::Json<JobsView>, ApiError> {
    let most = query.most.unwrap_or(PAGE);
    let mut checks = Checks::new();
    checks.limit("named", query.named.chars().count(), MOST_NAMED, "characters");
    if most == 0 || most > MOST_ON_A_PAGE {
        checks.push(InputError::refused("most", format!("Ask for 1 to {MOST_ON_A_PAGE} jobs. You asked for {most}.")));
    }
    checks.finish(())?;
    let today = store.kitchen().await?.zone().shown(Utc::now()).date();
    let page = match query.about {
        Some(id) => about(&store, JobId(id), today).await?,
        None => store.job_page(&JobsWanted { today, named: query.named.clone(), from: query.from, most }).await?,
    };
    let damaged = page.damaged.into_iter().map(|(id, why)| DamagedView { id: id.0, why }).collect();
    let jobs = page.jobs.iter().map(Into::into).collect();
    Ok(web::Json(JobsView { jobs, total: page.total, coming: page.coming, damaged }))
}

/// All that have to do with a job, the soonest first.
async fn about(store: &Store, id: JobId, today: NaiveDate) -> Result<JobPage, ApiError> {
    let own = store.job(id).await?;
    let near: Vec<JobId> = std::iter::once(own.id).chain(own.lot_of()).chain(own.dough_with()).collect();
    let mut jobs = store.related_jobs(&near).await?;
    for other in store.jobs_on(own.job.input().order.ready_by.date()).await? {
        if !jobs.iter().any(|j| j.id == other.id) {
            jobs.push(other);
        }
    }
    jobs.sort_by_key(|j| (j.job.input().order.ready_by, j.id));
    let leads = || jobs.iter().filter(|j| j.lot_of().is_none());
    let coming = leads().filter(|j| j.job.input().order.ready_by.date() >= today).count();
    Ok(JobPage { total: leads().count(), coming, damaged: vec![], jobs })
}

/// Adds a job.
#[utoipa::path(tag = "jobs", operation_id = "jobs_add", request_body = JobInput, responses((status = 200, body = JobView), (status = 422, body = Problem)))]
#[post("/api/jobs")]
pub async fn add(store: Of<Store>, payload: web::Payload) -> Result<web::Json<JobView>, ApiError> {
    // What refers to other jobs, or to a version, is said of a job that is there.
    let new = Job::new(read::<JobInput>(payload).await?.with(|j| j.order.formula_version = None))?.alone();
    let w = store.begin(None).await?;
    w.kitchen().await?.zone().moment("ready_by", new.input().order.ready_by)?;
    let id = w.add_job(&new, &format!("new job {}", new.input().order.name)).await?;
    let kept = w.job(id).await?;
    w.commit().await?;
    Ok(web::Json((&kept).into()))
}

/// One job.
#[utoipa::path(tag = "jobs", operation_id = "jobs_show", responses((status = 200, body = JobView), (status = 404, body = Problem)))]
#[get("/api/jobs/{id}")]
pub async fn show(store: Of<Store>, id: web::Path<i64>) -> Result<Tagged<JobView>, ApiError> {
    let found = store.job(JobId(*id)).await?;
    Ok(Tagged((&found).into(), found.revision))
}

/// Changes some fields of a job. Fields that somebody else has changed since the revision named are asked about (412).
#[utoipa::path(
    tag = "jobs", operation_id = "jobs_change",
    params(("id" = i64, Path), ("If-Match" = Option<String>, Header, description = "The revision that the change was made from")),
    request_body(content = Object, content_type = "application/json", description = "Fields of JobBody to change"),
    responses((status = 200, body = JobView), (status = 404, body = Problem), (status = 412, body = Problem), (status = 422, body = Problem))
)]
#[patch("/api/jobs/{id}")]
pub async fn change(
    store: Of<Store>,
    id: web::Path<i64>,
    request: HttpRequest,
    payload: web::Payload,
) -> Result<Tagged<JobView>, ApiError> {
    let id = JobId(*id);
    let (patch, from) = (read(payload).await?, made_from(&request)?);
    // Read, merged, checked and saved in one transaction: of two changes at once neither is lost.
    let w = store.begin(None).await?;
    let before = w.job(id).await?;
    let older = match from {
        Some(from) => w.job_at(id, from).await?.map(|j| j.job.input().clone()),
        None => None,
    };
    let base = Base::of(from, before.revision, older);
    let (input, changed) = merged(patch, before.job.input(), &base, before.revision)?;
    let has = |name: &str| changed.iter().any(|(field, ..)| field == name);
    let stored = StoredJob::new(id, Job::new(input)?);
    may_be_lot(&w, &stored).await?;
    if stored.lot_of().is_none() || has("dough_with") {
        may_share_dough(&w, &stored).await?;
    }
    if has("ready_by") {
        w.kitchen().await?.zone().moment("ready_by", stored.job.input().order.ready_by)?;
    }
    if let Some(version) = stored.formula_version()
        && !w.versions(stored.formula_id()).await?.iter().any(|v| v.number == version)
    {
        return Err(InputError::refused(
            "formula_version",
            "The recipe has no such version. Choose one from the list.",
        )
        .into());
    }
    if !changed.is_empty() {
        let mut family = Family::of(&w, &stored).await?.jobs();
        if let Some((_, own)) = family.iter_mut().find(|(number, _)| *number == id.0) {
            own.clone_from(&before.job);
        }
        let all = changed_with(&family, id.0, &stored.job)?;
        let all: Vec<_> = all.into_iter().map(|(number, job)| StoredJob::new(JobId(number), job)).collect();
        w.save_jobs(&all, &label(&changed, job_word)).await?;
    }
    let kept = w.job(id).await?;
    w.commit().await?;
    Ok(Tagged((&kept).into(), kept.revision))
}

/// Adds a lot to a job: like the job itself but for what is said of it. Lots of one formula are mixed together.
#[utoipa::path(tag = "jobs", operation_id = "jobs_add_lot", params(("id" = i64, Path)), request_body = LotInput, responses((status = 200, body = JobView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/jobs/{id}/lots")]
pub async fn add_lot(
    store: Of<Store>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<JobView>, ApiError> {
    let lot: LotInput = read(payload).await?;
    let w = store.begin(None).await?;
    let id = Family::add_lot(&w, JobId(*id), lot).await?;
    let kept = w.job(id).await?;
    w.commit().await?;
    Ok(web::Json((&kept).into()))
}

/// All lots of a job together: their plans, the day they share, and which pieces may share a tray.
#[utoipa::path(tag = "jobs", operation_id = "jobs_together", params(("id" = i64, Path)), responses((status = 200, body = TogetherView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/together")]
pub async fn together(board: Of<Board>, id: web::Path<i64>) -> Result<web::Json<TogetherView>, ApiError> {
    let day = Day::of(&board, JobId(*id)).await??;
    let views = day.lots.iter().enumerate().map(|(i, planned)| {
        let (whole, job) = (&planned.whole, &planned.whole.stored.job);
        let view = PlanView::new(&planned.plan, job, &whole.kitchen, &whole.cutter);
        LotView::new(whole.stored.id, job, whole.formula.formula.name(), day.family.mixed_by(i), view)
    });
    let all: Vec<(&Job, &Plan)> = day.lots.iter().map(|l| (&l.whole.stored.job, &l.plan)).collect();
    let view = TogetherView::new(views.collect(), &all, &day.together);
    Ok(web::Json(view))
}

/// The steps of a job and its lots as an iCalendar file (RFC 5545), with alarms.
#[utoipa::path(tag = "jobs", operation_id = "jobs_calendar", responses((status = 200, content_type = "text/calendar", body = String), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/calendar")]
pub async fn calendar(board: Of<Board>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    let day = Day::of(&board, JobId(*id)).await??;
    let lots: Vec<(i64, &Job, &Plan)> =
        day.lots.iter().map(|l| (l.whole.stored.id.0, &l.whole.stored.job, &l.plan)).collect();
    let lead = day.family.all[0].job.input();
    let file = DayFile {
        name: &lead.order.name,
        lots: &lots,
        relay: &day.together.relay,
        wanted: lead.order.ready_by,
        zone: day.together.zone,
        now: Utc::now(),
    };
    Ok(calendar_file(&file))
}

/// Deletes a job with its lots; their records and pieces in the cold stay, for when it is brought back.
#[utoipa::path(tag = "jobs", operation_id = "jobs_delete", responses((status = 204), (status = 404, body = Problem)))]
#[delete("/api/jobs/{id}")]
pub async fn delete(store: Of<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    let id = JobId(*id);
    let w = store.begin(None).await?;
    let name = w.job(id).await?.job.input().order.name.clone();
    w.delete_job(id, &format!("job {name} deleted")).await?;
    w.commit().await?;
    Ok(HttpResponse::NoContent().finish())
}

/// The plan: all stations' answers for a job as it stands.
#[utoipa::path(tag = "jobs", operation_id = "jobs_plan_of", responses((status = 200, body = PlanView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/plan")]
pub async fn plan_of(board: Of<Board>, id: web::Path<i64>) -> Result<web::Json<PlanView>, ApiError> {
    let planned = board.planned(JobId(*id)).await?;
    let Planned { whole, plan } = &*planned;
    Ok(web::Json(PlanView::new(plan, &whole.stored.job, &whole.kitchen, &whole.cutter)))
}

/// A job as a file.
#[utoipa::path(tag = "jobs", operation_id = "jobs_export", responses((status = 200, body = JobFile), (status = 404, body = Problem)))]
#[get("/api/jobs/{id}/export")]
pub async fn export(store: Of<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    let id = JobId(*id);
    let stored = store.job(id).await?;
    let formula = store.formula_at(stored.formula_id(), stored.formula_version()).await?;
    let cutter = store.cutter(stored.cutter_id()).await?;
    let kitchen = store.kitchen().await?;
    // A file holds one lot: what refers to other jobs stays behind.
    let alone = stored.job.alone();
    let mut records = Vec::new();
    for record in store.records(id).await? {
        let mut view = RecordView::from(&record);
        // A file holds one formula: a bake of another version of it goes along without what it was baked with.
        if record.kept.as_baked.as_ref().is_some_and(|b| b.formula != formula.formula) {
            view.body.conditions = Conditions::default();
        }
        records.push(RecordInFile {
            recorded_at: view.recorded_at,
            cut_width_mm: view.cut_width_mm,
            cut_thickness_mm: view.cut_thickness_mm,
            // The number of a run means nothing elsewhere.
            measured: RecordBody { of_tray: None, ..view.body },
            expected_bake_min: [view.expected_bake_least_min, view.expected_bake_most_min],
            expected_spread_percent: [view.expected_spread_least_percent, view.expected_spread_most_percent],
        });
    }
    let file = JobFile::new(
        alone.input().clone(),
        &formula.formula,
        CutterInFile {
            name: cutter.name,
            origin: cutter.origin,
            outline_mm: ring(&cutter.outline.points()),
            holes_mm: cutter.outline.holes().iter().map(|hole| ring(hole)).collect(),
        },
        kitchen.input().clone(),
        records,
    );
    Ok(HttpResponse::Ok().insert_header((header::CONTENT_DISPOSITION, "attachment")).json(file))
}

/// Reads a job back from a file, as a new job. What it needs and is not on the shelf yet is put there.
#[utoipa::path(tag = "jobs", operation_id = "jobs_read_back", request_body = JobFile, responses((status = 200, body = JobView), (status = 422, body = Problem)))]
#[post("/api/jobs/read-back")]
pub async fn read_back(store: Of<Store>, payload: web::Payload) -> Result<web::Json<JobView>, ApiError> {
    let mut file: JobFile = read(payload).await?;
    file.check_version()?;
    let job = Job::new(file.job.clone().with(|j| j.order.formula_version = None)).map_err(|e| e.within("job"))?.alone();
    let pantry = store.pantry().await?;
    let missing = file.settle_ingredients(&pantry)?;
    // The formula is checked with what it will bring before anything is put into the pantry.
    let whole: Vec<Ingredient> = missing
        .iter()
        .cloned()
        .chain(pantry.all().iter().filter(|i| i.key.starts_with("own-")).map(|i| i.as_ref().clone()))
        .collect();
    let mut formula = file.formula.formula(&Pantry::with(whole, vec![])?).map_err(|e| e.within("formula"))?;
    let points = |ring: &Vec<[f64; 2]>| ring.iter().map(|p| (p[0], p[1])).collect::<Vec<_>>();
    let holes: Vec<_> = file.cutter.holes_mm.iter().map(points).collect();
    let outline = Outline::with_holes(&points(&file.cutter.outline_mm), &holes).map_err(|e| e.within("cutter"))?;
    let mut checks = ready_slab_core::error::Checks::new();
    checks.text("cutter.name", &file.cutter.name, 80, "a name");
    checks.text("cutter.origin", &file.cutter.origin, 20, "an origin");
    checks.finish(())?;
    // All of it is one edit: undone together, or not there at all.
    let label = format!("job {} imported", job.input().order.name);
    let w = store.begin(Some(&label)).await?;
    if !missing.is_empty() {
        for own in missing {
            let old = own.key.to_string();
            let make = |key: String| Ok::<_, ApiError>(Ingredient { key: key.into(), ..own });
            let key = w.add_ingredient(make, &label).await?;
            for line in file.formula.lines.iter_mut().filter(|l| l.ingredient == old) {
                line.ingredient.clone_from(&key);
            }
        }
        formula = file.formula.formula(&w.pantry().await?).map_err(|e| e.within("formula"))?;
    }
    let kitchen = Kitchen::new(file.kitchen.clone()).map_err(|e| e.within("kitchen"))?;
    let mut records = Vec::new();
    for (i, r) in file.records.iter().enumerate() {
        let record = record_of(r, &job, &formula, &outline, &kitchen);
        records.push(record.map_err(|e| e.within(&format!("records[{i}]")))?);
    }
    let cutter = (file.cutter.name.as_str(), file.cutter.origin.as_str(), &outline);
    let id = w.add_whole_job(&formula, cutter, &job, &records, &label).await?;
    let kept = w.job(id).await?;
    w.commit().await?;
    Ok(web::Json((&kept).into()))
}

fn record_of(
    r: &RecordInFile,
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    kitchen: &Kitchen,
) -> Result<NewRecord, InputErrors> {
    let mut checks = ready_slab_core::error::Checks::new();
    checks.range("cut_width_mm", r.cut_width_mm, 5.0, 600.0, "mm");
    checks.range("cut_thickness_mm", r.cut_thickness_mm, 0.5, 60.0, "mm");
    checks.text("recorded_at", &r.recorded_at, 20, "a time");
    checks.finish(())?;
    let expected = ExpectedBake::new(
        r.expected_bake_min.map(|min| ("expected_bake_min", min)),
        r.expected_spread_percent.map(|percent| ("expected_spread_percent", percent)),
    )?;
    let m = &r.measured;
    // Only a file that says how cold the pieces went in knows what the bake was baked with.
    let as_baked = match m.conditions.start_c {
        Some(c) => Some(m.conditions.as_baked(job, formula, outline, kitchen, Temperature::new_c(c))?),
        None => None,
    };
    Ok(NewRecord {
        job_id: JobId(0),
        recorded_at: r.recorded_at.clone(),
        formula_id: None,
        formula_version: None,
        as_baked,
        record: BakeRecord::new(
            Length::new_mm(r.cut_width_mm),
            Length::new_mm(r.cut_thickness_mm),
            &m.widths_mm,
            &m.thicknesses_mm,
            m.baked_min,
            m.edge_colour,
            &m.notes,
        )
        .map_err(|e| e.within("measured"))?,
        of_run: None,
        expected_bake: expected.bake,
        expected_spread: expected.spread,
    })
}
