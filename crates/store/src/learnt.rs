//! What was learnt: of the places from accepted readings, of the doughs from hands.

use crate::cold::{moment, purpose_from, purpose_word, written};
use crate::error::StoreError;
use crate::from_row::row;
use crate::rows::{from_word, list, text, word};
use crate::store::Store;
use crate::things::{ChillId, FormulaId, JobId, RecordId, StoredKnowledge, StoredTouch};
use chrono::{DateTime, Utc};
use ready_slab_core::cold::{Finding, PlaceKnowledge, Touch};
use ready_slab_core::job::{ColdPlace, Kitchen, OvenMeasured};
use ready_slab_core::oven::{BakeKnowledge, DoughKnowledge, HeatKnowledge, OvenKnowledge};
use ready_slab_core::units::{Temperature, TemperatureDifference};
use serde::{Deserialize, Serialize};

/// What the oven's thermometer showed: set, read, swing; older files have no swing.
fn readings_text(readings: &[OvenMeasured]) -> String {
    text(&readings.iter().map(|r| [r.set_c, r.read_c, r.swing_k]).collect::<Vec<_>>())
}

fn readings_from(id: i64, text: &str) -> Result<Vec<OvenMeasured>, StoreError> {
    list::<Vec<f64>>("kitchen", id, text)?
        .into_iter()
        .map(|r| match r[..] {
            [set_c, read_c] => Ok(OvenMeasured { set_c, read_c, swing_k: 0.0 }),
            [set_c, read_c, swing_k] => Ok(OvenMeasured { set_c, read_c, swing_k }),
            _ => Err(StoreError::Damaged {
                thing: "kitchen",
                id,
                why: "a reading of the oven is not of two or three figures".to_owned(),
            }),
        })
        .collect()
}

row! {
    struct KnowledgeRow {
        ln_film: f64,
        ln_film_sd: f64,
        air_k: f64,
        air_sd_k: f64,
        correlation: f64,
        air_taught: bool,
        pieces: u32,
        taught_at: String,
    }
}

row! {
    struct TouchRow {
        id: i64,
        job_id: i64,
        noted_at: String,
        purpose: String,
        touch: String,
        dough_c: f64,
    }
}

/// What a piece taught of one place, as JSON beside it.
#[derive(Serialize, Deserialize)]
struct TaughtOf {
    place: String,
    busy: bool,
    before: [f64; 5],
    after: [f64; 5],
}

fn figures(k: &PlaceKnowledge) -> [f64; 5] {
    [k.ln_film.0, k.ln_film.1, k.air.0.k(), k.air.1.k(), k.correlation]
}

fn knowledge_of([film, film_sd, air, air_sd, correlation]: [f64; 5]) -> Option<PlaceKnowledge> {
    let k = |v: f64| TemperatureDifference::from_k(v).ok();
    Some(PlaceKnowledge { ln_film: (film, film_sd), air: (k(air)?, k(air_sd)?), correlation, air_taught: true })
}

fn touch_from(id: i64, word: &str) -> Result<Touch, StoreError> {
    match word {
        "cracked" => Ok(Touch::Cracked),
        "right" => Ok(Touch::Right),
        "stuck" => Ok(Touch::Stuck),
        "squashed" => Ok(Touch::Squashed),
        other => Err(StoreError::Damaged { thing: "touch", id, why: format!("unknown touch {other}") }),
    }
}

async fn forget_all(tx: &mut sqlx::SqliteConnection) -> Result<(), StoreError> {
    sqlx::query("DELETE FROM oven_knowledge").execute(&mut *tx).await?;
    sqlx::query("DELETE FROM dough_knowledge").execute(&mut *tx).await?;
    Ok(())
}

row! {
    struct OvenKnowledgeRow {
        offset_k: f64,
        offset_sd_k: f64,
        records: u32,
        measured: String,
        heat: Option<f64>,
        heat_sd: Option<f64>,
        heat_with_offset: Option<f64>,
    }
}

impl OvenKnowledgeRow {
    fn heat(&self) -> Option<HeatKnowledge> {
        Some(HeatKnowledge { heat: self.heat?, heat_sd: self.heat_sd?, with_offset: self.heat_with_offset? })
    }
}

row! {
    struct DoughKnowledgeRow {
        spread: f64,
        spread_sd: f64,
        time: f64,
        browning: f64,
        time_sd: f64,
        records: u32,
    }
}

impl Store {
    /// What accepted bakes have taught of the oven and of a formula; nothing before the first. A reading on a thermometer that is newer
    /// than what bakes taught of the oven counts instead of it.
    pub async fn taught_by_bakes(&self, formula: FormulaId) -> Result<Option<BakeKnowledge>, StoreError> {
        let oven: Option<OvenKnowledgeRow> =
            sqlx::query_as(
                "SELECT offset_k, offset_sd_k, records, measured, heat, heat_sd, heat_with_offset FROM oven_knowledge WHERE id = 1",
            )
            .fetch_optional(&mut *self.conn().await?)
            .await?;
        let dough: Option<DoughKnowledgeRow> = sqlx::query_as(
            "SELECT spread, spread_sd, time, browning, time_sd, records FROM dough_knowledge WHERE formula_id = ?",
        )
        .bind(formula.0)
        .fetch_optional(&mut *self.conn().await?)
        .await?;
        let damaged =
            || StoreError::Damaged { thing: "knowledge of bakes", id: formula.0, why: "no number".to_owned() };
        let k = |v: f64| TemperatureDifference::from_k(v).map_err(|_| damaged());
        let oven = match oven {
            Some(o) => {
                let known = OvenKnowledge {
                    offset: k(o.offset_k)?,
                    offset_sd: k(o.offset_sd_k)?,
                    heat: o.heat(),
                    records: o.records,
                };
                Some((known, readings_from(1, &o.measured)?))
            }
            None => None,
        };
        let dough = dough.map(|d| DoughKnowledge {
            spread: d.spread,
            spread_sd: d.spread_sd,
            time: d.time,
            browning: d.browning,
            time_sd: d.time_sd,
            records: d.records,
        });
        let kitchen = self.kitchen().await?;
        let readings = &kitchen.input().oven.oven_readings;
        Ok(BakeKnowledge::standing(oven.as_ref().map(|(o, beside)| (*o, beside.as_slice())), readings, dough))
    }

    /// Takes over what bakes teach of the oven and of formulas, in place of what they taught of these before. A formula that is not among
    /// them keeps what it was taught while a bake of it stands in the ledger.
    pub async fn teach_by_bakes(
        &self,
        oven: &OvenKnowledge,
        doughs: &[(FormulaId, DoughKnowledge)],
        rests_on: &[RecordId],
    ) -> Result<(), StoreError> {
        let measured = readings_text(&self.kitchen().await?.input().oven.oven_readings);
        let w = self.begin(None).await?;
        sqlx::query("DELETE FROM oven_knowledge").execute(&mut *w.conn().await?).await?;
        sqlx::query(
            "DELETE FROM dough_knowledge WHERE formula_id NOT IN
             (SELECT formula_id FROM bake_record WHERE struck_at IS NULL AND formula_id IS NOT NULL)",
        )
        .execute(&mut *w.conn().await?)
        .await?;
        sqlx::query(
            "INSERT INTO oven_knowledge (id, offset_k, offset_sd_k, records, measured, taught_at, heat, heat_sd, heat_with_offset, rests_on)
             VALUES (1, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
        )
        .bind(oven.offset.k())
        .bind(oven.offset_sd.k())
        .bind(oven.records)
        .bind(measured)
        .bind(crate::store::now())
        .bind(oven.heat.map(|h| h.heat))
        .bind(oven.heat.map(|h| h.heat_sd))
        .bind(oven.heat.map(|h| h.with_offset))
        .bind(text(&rests_on.iter().map(|r| r.0).collect::<Vec<_>>()))
        .execute(&mut *w.conn().await?)
        .await?;
        for (formula, k) in doughs {
            // What only all doughs have in common takes nothing away that was learnt of one by bakes that are long past.
            sqlx::query(if k.records > 0 {
                "INSERT OR REPLACE INTO dough_knowledge (formula_id, spread, spread_sd, time, browning, time_sd, records)
                 VALUES (?, ?, ?, ?, ?, ?, ?)"
            } else {
                "INSERT OR IGNORE INTO dough_knowledge (formula_id, spread, spread_sd, time, browning, time_sd, records)
                 VALUES (?, ?, ?, ?, ?, ?, ?)"
            })
            .bind(formula.0)
            .bind(k.spread)
            .bind(k.spread_sd)
            .bind(k.time)
            .bind(k.browning)
            .bind(k.time_sd)
            .bind(k.records)
            .execute(&mut *w.conn().await?)
            .await?;
        }
        w.commit().await
    }

    /// Which records what bakes have taught rests on, the newest first; nothing where they have taught nothing.
    pub async fn taught_by(&self) -> Result<Vec<RecordId>, StoreError> {
        let row: Option<(String,)> = sqlx::query_as("SELECT rests_on FROM oven_knowledge WHERE id = 1")
            .fetch_optional(&mut *self.conn().await?)
            .await?;
        let ids: Vec<i64> = row.map_or_else(|| Ok(vec![]), |(ids,)| list("knowledge of the oven", 1, &ids))?;
        Ok(ids.into_iter().map(RecordId).collect())
    }

    /// Forgets all that bakes have taught.
    pub async fn forget_bakes(&self) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        forget_all(&mut *w.conn().await?).await?;
        w.commit().await
    }

    /// What accepted readings have taught of a place in one of its uses; nothing before the first.
    pub async fn taught(&self, place: ColdPlace, busy: bool) -> Result<Option<StoredKnowledge>, StoreError> {
        let row: Option<KnowledgeRow> = sqlx::query_as(
            "SELECT ln_film, ln_film_sd, air_k, air_sd_k, correlation, air_taught, pieces, taught_at
             FROM place_knowledge WHERE place = ? AND busy = ?",
        )
        .bind(word(place))
        .bind(busy)
        .fetch_optional(&mut *self.conn().await?)
        .await?;
        let Some(row) = row else { return Ok(None) };
        let damaged = |why: String| StoreError::Damaged { thing: "knowledge of a place", id: 0, why };
        let k = |v: f64| TemperatureDifference::from_k(v).map_err(|e| damaged(e.to_string()));
        if !(row.ln_film.is_finite() && row.ln_film_sd > 0.0 && row.air_sd_k > 0.0 && row.correlation.abs() < 1.0) {
            return Err(damaged("its range is missing".to_owned()));
        }
        Ok(Some(StoredKnowledge {
            knowledge: PlaceKnowledge {
                ln_film: (row.ln_film, row.ln_film_sd),
                air: (k(row.air_k)?, k(row.air_sd_k)?),
                correlation: row.correlation,
                air_taught: row.air_taught,
            },
            pieces: row.pieces,
            taught_at: moment("knowledge of a place", 0, &row.taught_at)?,
        }))
    }

    /// What is thought of a place in one of its uses, from readings or from before any.
    pub async fn knowledge(&self, place: ColdPlace, busy: bool) -> Result<PlaceKnowledge, StoreError> {
        Ok(self.taught(place, busy).await?.map_or_else(|| PlaceKnowledge::before_any(busy), |k| k.knowledge))
    }

    /// Keeps what a piece's readings taught of its places, and that they did, in one.
    pub async fn teach(
        &self,
        chill: ChillId,
        learnt: &[(ColdPlace, bool, PlaceKnowledge)],
        at: DateTime<Utc>,
    ) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        w.chill(chill).await?;
        let mut taught = Vec::with_capacity(learnt.len());
        for (place, busy, k) in learnt {
            taught.push(TaughtOf {
                place: word(*place),
                busy: *busy,
                before: figures(&w.knowledge(*place, *busy).await?),
                after: figures(k),
            });
            sqlx::query(
                "INSERT INTO place_knowledge
                 (place, busy, ln_film, ln_film_sd, air_k, air_sd_k, correlation, air_taught, pieces, taught_at)
                 VALUES (?, ?, ?, ?, ?, ?, ?, ?, 1, ?)
                 ON CONFLICT (place, busy) DO UPDATE SET ln_film = excluded.ln_film, ln_film_sd = excluded.ln_film_sd,
                 air_k = excluded.air_k, air_sd_k = excluded.air_sd_k, correlation = excluded.correlation,
                 air_taught = excluded.air_taught, pieces = pieces + 1, taught_at = excluded.taught_at",
            )
            .bind(word(*place))
            .bind(busy)
            .bind(k.ln_film.0)
            .bind(k.ln_film.1)
            .bind(k.air.0.k())
            .bind(k.air.1.k())
            .bind(k.correlation)
            .bind(k.air_taught)
            .bind(written(at))
            .execute(&mut *w.conn().await?)
            .await?;
        }
        sqlx::query("UPDATE chill SET taught = 1, left_out = 0, taught_of = ? WHERE id = ?")
            .bind(text(&taught))
            .bind(chill.0)
            .execute(&mut *w.conn().await?)
            .await?;
        w.commit().await
    }

    /// Takes away what a piece taught of its places; what others taught of them stays. With `left_out` it teaches no more.
    pub async fn unteach(&self, chill: ChillId, left_out: bool) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        w.chill(chill).await?;
        let (of,): (Option<String>,) = sqlx::query_as("SELECT taught_of FROM chill WHERE id = ? AND taught = 1")
            .bind(chill.0)
            .fetch_optional(&mut *w.conn().await?)
            .await?
            .unwrap_or((None,));
        let of: Vec<TaughtOf> = of.map_or_else(|| Ok(vec![]), |of| list("piece in the cold", chill.0, &of))?;
        for taught in of {
            let place: ColdPlace = from_word("piece in the cold", chill.0, &taught.place)?;
            let Some(now) = w.taught(place, taught.busy).await? else { continue };
            let known = |f: [f64; 5]| {
                knowledge_of(f).ok_or_else(|| StoreError::Damaged {
                    thing: "piece in the cold",
                    id: chill.0,
                    why: "what it taught is no number".to_owned(),
                })
            };
            let k = now.knowledge.without(&known(taught.before)?, &known(taught.after)?);
            if now.pieces <= 1 {
                w.reset_place(place, taught.busy).await?;
                continue;
            }
            sqlx::query(
                "UPDATE place_knowledge SET ln_film = ?, ln_film_sd = ?, air_k = ?, air_sd_k = ?, correlation = ?, pieces = pieces - 1 \
                 WHERE place = ? AND busy = ?",
            )
            .bind(k.ln_film.0)
            .bind(k.ln_film.1)
            .bind(k.air.0.k())
            .bind(k.air.1.k())
            .bind(k.correlation)
            .bind(word(place))
            .bind(taught.busy)
            .execute(&mut *w.conn().await?)
            .await?;
        }
        sqlx::query("UPDATE chill SET taught = 0, taught_of = NULL, left_out = ? WHERE id = ?")
            .bind(left_out)
            .bind(chill.0)
            .execute(&mut *w.conn().await?)
            .await?;
        w.commit().await
    }

    /// Forgets what was learnt of a place in one of its uses.
    pub async fn reset_place(&self, place: ColdPlace, busy: bool) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        sqlx::query("DELETE FROM place_knowledge WHERE place = ? AND busy = ?")
            .bind(word(place))
            .bind(busy)
            .execute(&mut *w.conn().await?)
            .await?;
        w.commit().await
    }

    /// Whether a place is crowded or often opened at present.
    pub async fn busy(&self, place: ColdPlace) -> Result<bool, StoreError> {
        let row: Option<(bool,)> = sqlx::query_as("SELECT busy FROM place_use WHERE place = ?")
            .bind(word(place))
            .fetch_optional(&mut *self.conn().await?)
            .await?;
        Ok(row.is_some_and(|(busy,)| busy))
    }

    /// Notes how a place is used at present.
    pub async fn set_busy(&self, place: ColdPlace, busy: bool) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        sqlx::query(
            "INSERT INTO place_use (place, busy) VALUES (?, ?) ON CONFLICT (place) DO UPDATE SET busy = excluded.busy",
        )
        .bind(word(place))
        .bind(busy)
        .execute(&mut *w.conn().await?)
        .await?;
        w.commit().await
    }

    /// The kitchen with what is thought of its places as they are used at present.
    pub async fn kitchen_as_known(&self) -> Result<Kitchen, StoreError> {
        let mut known = Vec::with_capacity(2);
        for place in [ColdPlace::Fridge, ColdPlace::Freezer] {
            known.push(self.knowledge(place, self.busy(place).await?).await?);
        }
        Ok(self.kitchen().await?.knowing(known[0], known[1]))
    }

    /// Keeps what hands found of a formula's dough.
    pub async fn add_touch(
        &self,
        formula: FormulaId,
        job: JobId,
        finding: Finding,
        at: DateTime<Utc>,
    ) -> Result<i64, StoreError> {
        let w = self.begin(None).await?;
        let id = w.next("touch").await?;
        sqlx::query(
            "INSERT INTO touch (id, formula_id, job_id, noted_at, purpose, touch, dough_c) VALUES (?, ?, ?, ?, ?, ?, ?)",
        )
        .bind(id)
        .bind(formula.0)
        .bind(job.0)
        .bind(written(at))
        .bind(purpose_word(finding.purpose))
        .bind(word(finding.touch))
        .bind(finding.dough.c())
        .execute(&mut *w.conn().await?)
        .await?;
        w.commit().await?;
        Ok(id)
    }

    /// What hands found of a formula's dough, the newest first.
    pub async fn touches(&self, formula: FormulaId) -> Result<Vec<StoredTouch>, StoreError> {
        let rows: Vec<TouchRow> = sqlx::query_as(
            "SELECT id, job_id, noted_at, purpose, touch, dough_c FROM touch WHERE formula_id = ? ORDER BY noted_at DESC, id DESC",
        )
        .bind(formula.0)
        .fetch_all(&mut *self.conn().await?)
        .await?;
        rows.into_iter()
            .map(|r| {
                let dough = Temperature::from_c(r.dough_c).map_err(|e| StoreError::Damaged {
                    thing: "touch",
                    id: r.id,
                    why: e.to_string(),
                })?;
                Ok(StoredTouch {
                    id: r.id,
                    job_id: JobId(r.job_id),
                    noted_at: moment("touch", r.id, &r.noted_at)?,
                    finding: Finding {
                        purpose: purpose_from("touch", r.id, &r.purpose)?,
                        touch: touch_from(r.id, &r.touch)?,
                        dough,
                    },
                })
            })
            .collect()
    }

    /// Takes a finding away.
    pub async fn delete_touch(&self, id: i64) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        let gone = sqlx::query("DELETE FROM touch WHERE id = ?").bind(id).execute(&mut *w.conn().await?).await?;
        if gone.rows_affected() == 0 {
            return Err(StoreError::NotFound { thing: "touch", id });
        }
        w.commit().await
    }
}
