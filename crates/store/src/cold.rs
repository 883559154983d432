//! Pieces in the cold and their readings: kept as they happen, outside the undo history.

use crate::error::StoreError;
use crate::from_row::row;
use crate::rows::word;
use crate::store::Store;
use crate::things::{ChillId, JobId, NewChill, StoredChill, StoredReading, StoredStay};
use chrono::{DateTime, NaiveDateTime, Utc};
use ready_slab_core::cold::{Piece, ProbeInput, ProbeKind, Spot, Target, enough_to_draw};
use ready_slab_core::job::{ColdPlace, Whereabouts};
use ready_slab_core::units::{Length, Temperature};
use serde::{Deserialize, Serialize};
use std::collections::HashMap;

const MOMENT_FORMAT: &str = "%Y-%m-%dT%H:%M:%S%.3fZ";
const THING: &str = "dough in the fridge or freezer";

row! {
    struct ChillRow {
        id: i64,
        job_id: i64,
        name: String,
        piece: String,
        purpose: String,
        start_c: f64,
        clock_speed: f64,
        put_in_at: String,
        ended_at: Option<String>,
        taught: bool,
        left_out: bool,
        readings_taken: Option<i64>,
    }
}

row! {
    struct StayRow {
        chill_id: i64,
        place: String,
        busy: bool,
        from_at: String,
    }
}

row! {
    struct ProbeRow {
        chill_id: i64,
        seed: i64,
        noise_k: f64,
        drop_out: f64,
        film_factor: f64,
        air_off_k: f64,
        every_s: f64,
    }
}

row! {
    pub(crate) struct ReadingRow {
        pub(crate) id: i64,
        pub(crate) read_at: String,
        pub(crate) shows_c: f64,
        pub(crate) spot: String,
        pub(crate) simulated: bool,
    }
}

impl ReadingRow {
    pub(crate) fn into_core(self) -> Result<StoredReading, StoreError> {
        let damaged = |why: String| StoreError::Damaged { thing: "reading", id: self.id, why };
        Ok(StoredReading {
            id: self.id,
            read_at: moment("reading", self.id, &self.read_at)?,
            shows: Temperature::from_c(self.shows_c).map_err(|e| damaged(e.to_string()))?,
            simulated: self.simulated,
            spot: match self.spot.as_str() {
                "core" => Spot::Core,
                "surface" => Spot::Surface,
                other => return Err(damaged(format!("unknown thermometer spot {other}"))),
            },
        })
    }
}

/// The forms a job chills its dough in.
#[derive(Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "snake_case")]
enum PieceJson {
    Sheet { thickness_mm: f64 },
    Disc { thickness_mm: f64, diameter_mm: f64 },
    Ball { diameter_mm: f64 },
    Sphere { diameter_mm: f64 },
    Log { diameter_mm: f64 },
    Bar { width_mm: f64, height_mm: f64 },
    Stack { thickness_mm: f64, count: u32 },
}

fn piece_json(piece: Piece) -> String {
    let json = match piece {
        Piece::Sheet { thickness } => PieceJson::Sheet { thickness_mm: thickness.mm() },
        Piece::Stack { thickness, count } => PieceJson::Stack { thickness_mm: thickness.mm(), count },
        Piece::Disc { thickness, diameter } => {
            PieceJson::Disc { thickness_mm: thickness.mm(), diameter_mm: diameter.mm() }
        }
        Piece::Ball { diameter } => PieceJson::Ball { diameter_mm: diameter.mm() },
        Piece::Sphere { diameter } => PieceJson::Sphere { diameter_mm: diameter.mm() },
        Piece::Log { diameter } => PieceJson::Log { diameter_mm: diameter.mm() },
        Piece::Bar { width, height } => PieceJson::Bar { width_mm: width.mm(), height_mm: height.mm() },
    };
    serde_json::to_string(&json).expect("numbers serialise")
}

fn piece_from(id: i64, text: &str) -> Result<Piece, StoreError> {
    let json: PieceJson = serde_json::from_str(text).map_err(|e| damaged(id, e))?;
    let mm = |v: f64| Length::from_mm(v).map_err(|e| damaged(id, e));
    let piece = match json {
        PieceJson::Sheet { thickness_mm } => Piece::Sheet { thickness: mm(thickness_mm)? },
        PieceJson::Stack { thickness_mm, count } => Piece::Stack { thickness: mm(thickness_mm)?, count },
        PieceJson::Disc { thickness_mm, diameter_mm } => {
            Piece::Disc { thickness: mm(thickness_mm)?, diameter: mm(diameter_mm)? }
        }
        PieceJson::Ball { diameter_mm } => Piece::Ball { diameter: mm(diameter_mm)? },
        PieceJson::Sphere { diameter_mm } => Piece::Sphere { diameter: mm(diameter_mm)? },
        PieceJson::Log { diameter_mm } => Piece::Log { diameter: mm(diameter_mm)? },
        PieceJson::Bar { width_mm, height_mm } => Piece::Bar { width: mm(width_mm)?, height: mm(height_mm)? },
    };
    piece.checked().map_err(|e| StoreError::damaged(THING, id, &e))
}

fn damaged(id: i64, why: impl ToString) -> StoreError {
    StoreError::Damaged { thing: THING, id, why: why.to_string() }
}

pub(crate) fn moment(thing: &'static str, id: i64, text: &str) -> Result<DateTime<Utc>, StoreError> {
    NaiveDateTime::parse_from_str(text, MOMENT_FORMAT).map(|t| t.and_utc()).map_err(|e| StoreError::Damaged {
        thing,
        id,
        why: e.to_string(),
    })
}

pub(crate) fn written(at: DateTime<Utc>) -> String {
    at.format(MOMENT_FORMAT).to_string()
}

pub(crate) fn whereabouts(id: i64, word: &str) -> Result<Whereabouts, StoreError> {
    match word {
        "fridge" => Ok(Whereabouts::Cold(ColdPlace::Fridge)),
        "freezer" => Ok(Whereabouts::Cold(ColdPlace::Freezer)),
        "bench" => Ok(Whereabouts::Bench),
        other => Err(damaged(id, format!("unknown place {other}"))),
    }
}

pub(crate) fn purpose_word(purpose: Target) -> &'static str {
    match purpose {
        Target::Slicing => "slicing",
        Target::Oven => "oven",
        // A piece of a job is never followed to a bare temperature.
        Target::Rolling | Target::RolledLater | Target::Core(_) => "rolling",
    }
}

pub(crate) fn purpose_from(thing: &'static str, id: i64, word: &str) -> Result<Target, StoreError> {
    match word {
        "rolling" => Ok(Target::Rolling),
        "slicing" => Ok(Target::Slicing),
        "oven" => Ok(Target::Oven),
        other => Err(StoreError::Damaged { thing, id, why: format!("unknown purpose {other}") }),
    }
}

impl ChillRow {
    fn into_core(self, stays: Vec<StoredStay>, probe: Option<ProbeKind>) -> Result<StoredChill, StoreError> {
        let id = self.id;
        let first = stays.first().ok_or_else(|| damaged(id, "no place recorded"))?;
        Ok(StoredChill {
            id: ChillId(id),
            kept: NewChill {
                job_id: JobId(self.job_id),
                name: self.name,
                place: first.place,
                busy: first.busy,
                piece: piece_from(id, &self.piece)?,
                purpose: purpose_from(THING, id, &self.purpose)?,
                start: Temperature::from_c(self.start_c).map_err(|e| damaged(id, e))?,
                clock_speed: self.clock_speed,
                put_in_at: moment(THING, id, &self.put_in_at)?,
            },
            ended_at: self.ended_at.as_deref().map(|t| moment(THING, id, t)).transpose()?,
            stays,
            taught: self.taught,
            left_out: self.left_out,
            probe,
            readings_taken: self.readings_taken.map(i64::unsigned_abs),
        })
    }
}

impl ProbeRow {
    fn into_core(self) -> Result<ProbeKind, StoreError> {
        let id = self.chill_id;
        let asked = ProbeInput {
            seed: u32::try_from(self.seed).map_err(|e| damaged(id, e))?,
            noise_k: self.noise_k,
            drop_out: self.drop_out,
            film_factor: self.film_factor,
            air_off_k: self.air_off_k,
            every_s: self.every_s,
        };
        asked.kind().map_err(|e| StoreError::damaged(THING, id, &e))
    }
}

impl Store {
    /// Notes that a piece was put into the cold.
    pub async fn put_in(&self, chill: &NewChill) -> Result<ChillId, StoreError> {
        let w = self.begin(None).await?;
        w.job(chill.job_id).await?;
        let id = w.next(THING).await?;
        sqlx::query(
            "INSERT INTO chill (id, job_id, name, piece, purpose, start_c, clock_speed, put_in_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
        )
        .bind(id)
        .bind(chill.job_id.0)
        .bind(&chill.name)
        .bind(piece_json(chill.piece))
        .bind(purpose_word(chill.purpose))
        .bind(chill.start.c())
        .bind(chill.clock_speed)
        .bind(written(chill.put_in_at))
        .execute(&mut *w.conn().await?)
        .await?;
        let stay = StoredStay { place: chill.place, busy: chill.busy, from: chill.put_in_at };
        insert_stay(&mut *w.conn().await?, id, 0, stay).await?;
        w.commit().await?;
        Ok(ChillId(id))
    }

    /// Pieces of a job, those no longer followed too, in the order they went in.
    pub async fn chills(&self, job: JobId) -> Result<Vec<StoredChill>, StoreError> {
        let rows = sqlx::query_as("SELECT * FROM chill WHERE job_id = ? ORDER BY put_in_at, id")
            .bind(job.0)
            .fetch_all(&mut *self.conn().await?)
            .await?;
        self.whole(rows).await
    }

    /// All pieces that are followed, in the order they went in.
    pub async fn followed(&self) -> Result<Vec<StoredChill>, StoreError> {
        let rows = sqlx::query_as("SELECT * FROM chill WHERE ended_at IS NULL ORDER BY put_in_at, id")
            .fetch_all(&mut *self.conn().await?)
            .await?;
        self.whole(rows).await
    }

    /// One piece.
    pub async fn chill(&self, id: ChillId) -> Result<StoredChill, StoreError> {
        let rows =
            sqlx::query_as("SELECT * FROM chill WHERE id = ?").bind(id.0).fetch_all(&mut *self.conn().await?).await?;
        self.whole(rows).await?.pop().ok_or(StoreError::NotFound { thing: THING, id: id.0 })
    }

    async fn whole(&self, rows: Vec<ChillRow>) -> Result<Vec<StoredChill>, StoreError> {
        let mut found = Vec::with_capacity(rows.len());
        if rows.is_empty() {
            return Ok(found);
        }
        let probes: Vec<ProbeRow> = sqlx::query_as("SELECT * FROM probe").fetch_all(&mut *self.conn().await?).await?;
        let mut probes: HashMap<i64, ProbeRow> = probes.into_iter().map(|p| (p.chill_id, p)).collect();
        for row in rows {
            let stays: Vec<StayRow> =
                sqlx::query_as("SELECT chill_id, place, busy, from_at FROM stay WHERE chill_id = ? ORDER BY position")
                    .bind(row.id)
                    .fetch_all(&mut *self.conn().await?)
                    .await?;
            let stays = stays
                .into_iter()
                .map(|s| {
                    Ok(StoredStay {
                        place: whereabouts(s.chill_id, &s.place)?,
                        busy: s.busy,
                        from: moment(THING, s.chill_id, &s.from_at)?,
                    })
                })
                .collect::<Result<Vec<_>, StoreError>>()?;
            let probe = probes.remove(&row.id).map(ProbeRow::into_core).transpose()?;
            found.push(row.into_core(stays, probe)?);
        }
        Ok(found)
    }

    /// Leaves out of pieces that have ended before a moment, at most so many of them, the readings that are not needed to draw them again within
    /// `within_k`: how many were left out. Readings of another spot, or of a stand-in, are drawn by themselves.
    pub async fn thin_readings(&self, before: DateTime<Utc>, within_k: f64, most: u32) -> Result<u64, StoreError> {
        let ids: Vec<(i64,)> = sqlx::query_as(
            "SELECT id FROM chill WHERE readings_taken IS NULL AND ended_at IS NOT NULL AND ended_at < ? ORDER BY ended_at LIMIT ?",
        )
        .bind(written(before))
        .bind(most)
        .fetch_all(&mut *self.conn().await?)
        .await?;
        let mut left_out = 0;
        for (id,) in ids {
            let w = self.begin(None).await?;
            let readings = w.readings(ChillId(id)).await?;
            let mut kept: Vec<i64> = vec![];
            let mut kinds: Vec<(Spot, bool)> = vec![];
            readings.iter().map(|r| (r.spot, r.simulated)).for_each(|k| {
                if !kinds.contains(&k) {
                    kinds.push(k)
                }
            });
            for kind in kinds {
                let alike: Vec<_> = readings.iter().filter(|r| (r.spot, r.simulated) == kind).collect();
                let minutes = |r: &StoredReading| (r.read_at - readings[0].read_at).as_seconds_f64() / 60.0;
                let curve: Vec<(f64, f64)> = alike.iter().map(|r| (minutes(r), r.shows.c())).collect();
                kept.extend(enough_to_draw(&curve, within_k).into_iter().map(|i| alike[i].id));
            }
            let kept = serde_json::to_string(&kept).map_err(|e| damaged(id, e))?;
            left_out +=
                sqlx::query("DELETE FROM reading WHERE chill_id = ? AND id NOT IN (SELECT value FROM json_each(?))")
                    .bind(id)
                    .bind(kept)
                    .execute(&mut *w.conn().await?)
                    .await?
                    .rows_affected();
            sqlx::query("UPDATE chill SET readings_taken = ? WHERE id = ?")
                .bind(i64::try_from(readings.len()).unwrap_or(i64::MAX))
                .bind(id)
                .execute(&mut *w.conn().await?)
                .await?;
            w.commit().await?;
        }
        Ok(left_out)
    }

    /// Notes that a piece was moved.
    pub async fn move_chill(&self, id: ChillId, stay: StoredStay) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        w.chill(id).await?;
        w.unpack(id).await?;
        let (count,): (i64,) = sqlx::query_as("SELECT COUNT(*) FROM stay WHERE chill_id = ?")
            .bind(id.0)
            .fetch_one(&mut *w.conn().await?)
            .await?;
        insert_stay(&mut *w.conn().await?, id.0, count, stay).await?;
        sqlx::query("UPDATE chill SET ended_at = NULL WHERE id = ?").bind(id.0).execute(&mut *w.conn().await?).await?;
        w.commit().await
    }

    /// Takes back the last move, as if it had not happened; the first place stays.
    pub async fn unmove_chill(&self, id: ChillId) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        w.chill(id).await?;
        sqlx::query(
            "DELETE FROM stay WHERE chill_id = ?1 AND position > 0
             AND position = (SELECT MAX(position) FROM stay WHERE chill_id = ?1)",
        )
        .bind(id.0)
        .execute(&mut *w.conn().await?)
        .await?;
        w.commit().await
    }

    /// Notes that a piece was used or put away, or (with nothing) that it is followed still.
    pub async fn end_chill(&self, id: ChillId, at: Option<DateTime<Utc>>) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        w.chill(id).await?;
        w.unpack(id).await?;
        sqlx::query("UPDATE chill SET ended_at = ? WHERE id = ?")
            .bind(at.map(written))
            .bind(id.0)
            .execute(&mut *w.conn().await?)
            .await?;
        w.commit().await
    }

    /// Forgets a piece with its readings.
    pub async fn forget_chill(&self, id: ChillId) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        w.chill(id).await?;
        sqlx::query("DELETE FROM chill WHERE id = ?").bind(id.0).execute(&mut *w.conn().await?).await?;
        w.commit().await
    }

    /// Puts the stand-in thermometer into a piece, or takes it out.
    pub async fn set_probe(&self, id: ChillId, probe: Option<&ProbeKind>) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        w.chill(id).await?;
        sqlx::query("DELETE FROM probe WHERE chill_id = ?").bind(id.0).execute(&mut *w.conn().await?).await?;
        if let Some(p) = probe {
            sqlx::query(
                "INSERT INTO probe (chill_id, seed, noise_k, drop_out, film_factor, air_off_k, every_s) VALUES (?, ?, ?, ?, ?, ?, ?)",
            )
            .bind(id.0)
            .bind(p.seed.cast_signed())
            .bind(p.noise.k())
            .bind(p.drop_out)
            .bind(p.film_factor)
            .bind(p.air_off.k())
            .bind(p.every.s())
            .execute(&mut *w.conn().await?)
            .await?;
        }
        w.commit().await
    }

    /// How many readings a piece has.
    pub async fn count_readings(&self, id: ChillId) -> Result<u64, StoreError> {
        let (count,): (i64,) = sqlx::query_as(
            "SELECT (SELECT COUNT(*) FROM reading WHERE chill_id = ?1)
             + (SELECT COALESCE(SUM(json_array_length(readings)), 0) FROM packed_readings WHERE chill_id = ?1)",
        )
        .bind(id.0)
        .fetch_one(&mut *self.conn().await?)
        .await?;
        Ok(count.cast_unsigned())
    }

    /// Keeps readings, all or none; `simulated` where a stand-in showed them.
    pub async fn add_readings(
        &self,
        id: ChillId,
        readings: &[(DateTime<Utc>, Temperature, Spot)],
        simulated: bool,
    ) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        w.unpack(id).await?;
        for (at, shows, spot) in readings {
            let number = w.next("reading").await?;
            // A device that got no answer sends again what it has sent: that is the same reading.
            sqlx::query(
                "INSERT INTO reading (id, simulated, chill_id, read_at, shows_c, spot) SELECT ?1, ?2, ?3, ?4, ?5, ?6 \
                 WHERE NOT EXISTS (SELECT 1 FROM reading WHERE chill_id = ?3 AND read_at = ?4 AND shows_c = ?5 AND spot = ?6)",
            )
            .bind(number)
            .bind(simulated)
            .bind(id.0)
            .bind(written(*at))
            .bind(shows.c())
            .bind(match spot {
                Spot::Core => "core",
                Spot::Surface => "surface",
            })
            .execute(&mut *w.conn().await?)
            .await?;
        }
        w.commit().await
    }

    /// Takes a reading away and tells whose it was.
    pub async fn delete_reading(&self, id: i64) -> Result<ChillId, StoreError> {
        let w = self.begin(None).await?;
        let mut gone = w.take_reading(id).await?;
        // Packed ones are looked through only where it is none of the others.
        if gone.is_none()
            && let Some(piece) = w.packed_with(id).await?
        {
            w.unpack(piece).await?;
            gone = w.take_reading(id).await?;
        }
        w.commit().await?;
        gone.ok_or(StoreError::NotFound { thing: "reading", id })
    }

    async fn take_reading(&self, id: i64) -> Result<Option<ChillId>, StoreError> {
        let gone: Option<(i64,)> = sqlx::query_as("DELETE FROM reading WHERE id = ? RETURNING chill_id")
            .bind(id)
            .fetch_optional(&mut *self.conn().await?)
            .await?;
        Ok(gone.map(|(chill,)| ChillId(chill)))
    }
}

async fn insert_stay(
    tx: &mut sqlx::SqliteConnection,
    chill: i64,
    position: i64,
    stay: StoredStay,
) -> Result<(), StoreError> {
    sqlx::query("INSERT INTO stay (chill_id, position, place, busy, from_at) VALUES (?, ?, ?, ?, ?)")
        .bind(chill)
        .bind(position)
        .bind(word(stay.place))
        .bind(stay.busy)
        .bind(written(stay.from))
        .execute(tx)
        .await?;
    Ok(())
}
