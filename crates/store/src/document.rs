//! Jobs and the kitchen as they are kept: the core's own JSON in a column, and beside it the keys they are looked up by.

use crate::error::StoreError;
use crate::from_row::row;
use crate::older;
use crate::things::{JobId, StoredJob};
use ready_slab_core::clock::MINUTE_FORMAT;
use ready_slab_core::job::{Job, JobInput, Kitchen, KitchenInput};
use serde::{Deserialize, Serialize};
use serde_json::{Map, Value};

row! {
    #[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
    #[serde(try_from = "Map<String, Value>")]
    pub(crate) struct KitchenRow {
        pub id: i64,
        pub document: String,
    }
}

row! {
    #[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
    #[serde(try_from = "Map<String, Value>")]
    pub(crate) struct JobRow {
        pub id: i64,
        pub name: String,
        pub formula_id: i64,
        pub cutter_id: i64,
        pub ready_by: String,
        pub lot_of: Option<i64>,
        pub dough_with: Option<i64>,
        pub document: String,
        /// How often it has changed; read along, never written.
        #[serde(skip)]
        pub revision: i64,
    }
}

/// What documents of a table hold; nothing of a table without any.
pub(crate) fn fields(table: &str) -> Option<Vec<String>> {
    let usual = match table {
        "job" => serde_json::to_value(JobInput::default()),
        "kitchen" => serde_json::to_value(KitchenInput::default()),
        _ => return None,
    };
    let Ok(Value::Object(usual)) = usual else { return None };
    Some(usual.into_iter().map(|(field, _)| field).collect())
}

fn json(value: &impl Serialize) -> String {
    serde_json::to_string(value).expect("words and figures serialise")
}

impl KitchenRow {
    pub fn of(kitchen: &Kitchen) -> Self {
        Self { id: 1, document: json(kitchen.input()) }
    }

    pub fn into_core(self) -> Result<Kitchen, StoreError> {
        let damaged = |e: serde_json::Error| StoreError::Damaged { thing: "kitchen", id: self.id, why: e.to_string() };
        let input: KitchenInput = serde_json::from_str(&self.document).map_err(damaged)?;
        Kitchen::new(input).map_err(|e| StoreError::damaged("kitchen", self.id, &e))
    }
}

impl JobRow {
    pub fn of(id: i64, job: &Job) -> Self {
        let order = &job.input().order;
        Self {
            id,
            name: order.name.clone(),
            formula_id: order.formula_id,
            cutter_id: order.cutter_id,
            ready_by: order.ready_by.format(MINUTE_FORMAT).to_string(),
            lot_of: order.lot_of,
            dough_with: order.dough_with,
            document: json(job.input()),
            revision: 0,
        }
    }

    pub fn into_core(self) -> Result<StoredJob, StoreError> {
        let id = self.id;
        let damaged = |e: serde_json::Error| StoreError::Damaged { thing: "job", id, why: e.to_string() };
        let mut input: JobInput = serde_json::from_str(&self.document).map_err(damaged)?;
        // A job that is gone is nobody's any more: the file itself sees to that.
        (input.order.lot_of, input.order.dough_with) = (self.lot_of, self.dough_with);
        let job = Job::new(input).map_err(|e| StoreError::damaged("job", id, &e))?;
        let keys = Self::of(id, &job);
        let apart = [
            ("name", keys.name != self.name),
            ("formula_id", keys.formula_id != self.formula_id),
            ("cutter_id", keys.cutter_id != self.cutter_id),
            ("ready_by", keys.ready_by != self.ready_by),
        ];
        if let Some((key, _)) = apart.iter().find(|(_, apart)| *apart) {
            return Err(StoreError::Damaged { thing: "job", id, why: format!("{key} is not as in its document") });
        }
        Ok(StoredJob { revision: self.revision, ..StoredJob::new(JobId(id), job) })
    }
}

/// A row as an edit noted it: with its document, or of the days when each setting was a column.
impl TryFrom<Map<String, Value>> for KitchenRow {
    type Error = String;

    fn try_from(mut row: Map<String, Value>) -> Result<Self, String> {
        let document = match row.remove("document") {
            Some(Value::String(document)) => document,
            _ => json(&older::kitchen(row)?),
        };
        Ok(Self { id: 1, document })
    }
}

impl TryFrom<Map<String, Value>> for JobRow {
    type Error = String;

    fn try_from(row: Map<String, Value>) -> Result<Self, String> {
        let number = |name: &str| row.get(name).and_then(Value::as_i64);
        let text = |name: &str| row.get(name).and_then(Value::as_str).unwrap_or_default().to_owned();
        let key = |name: &str| number(name).ok_or_else(|| format!("{name} is missing"));
        let document = match row.get("document") {
            Some(Value::String(document)) => document.clone(),
            _ => json(&older::job(row.clone())?),
        };
        Ok(Self {
            id: key("id")?,
            name: text("name"),
            formula_id: key("formula_id")?,
            cutter_id: key("cutter_id")?,
            ready_by: text("ready_by"),
            lot_of: number("lot_of"),
            dough_with: number("dough_with"),
            document,
            revision: 0,
        })
    }
}
