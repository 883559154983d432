//! The program itself: computing from the shell, and a bakery that survives being killed.

use serde_json::{Value, json};
use std::io::{BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::process::{Child, Command, Stdio};

const PROGRAM: &str = env!("CARGO_BIN_EXE_ready-slab");

fn compute(what: &str, input: &str) -> (i32, Value) {
    let mut child = Command::new(PROGRAM)
        .args(["compute", what])
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::null())
        .spawn()
        .unwrap();
    child.stdin.take().unwrap().write_all(input.as_bytes()).unwrap();
    let done = child.wait_with_output().unwrap();
    (done.status.code().unwrap(), serde_json::from_slice(&done.stdout).unwrap())
}

#[test]
fn it_computes_from_standard_input() {
    let formula = json!({ "name": "Plain", "lines": [
        { "ingredient": "flour-ap", "grams": 300 }, { "ingredient": "butter", "grams": 100 }, { "ingredient": "sugar", "grams": 100 } ] });
    let ask = json!({
        "formula": formula, "piece": { "kind": "disc", "thickness_mm": 22, "diameter_mm": 180 }, "wrap": "wrapped",
        "support": { "kind": "rack" }, "start_c": 21, "place": { "air_c": 4, "film_w_m2k": 7 }, "target": { "kind": "rolling" }
    });
    let (code, answer) = compute("chill", &ask.to_string());
    assert_eq!(code, 0, "{answer}");
    let ready = answer["ready_after_min"].as_f64().unwrap();
    // Common practice, no source: a 20-25 mm disc is firm enough in 15-30 min.
    assert!((10.0..40.0).contains(&ready), "{ready}");
    let sheet = json!({ "cutter": { "kind": "builtin", "name": "Round", "form": "round", "width_mm": 65 },
        "width_mm": 310, "length_mm": 440, "web_mm": 3, "edge_mm": 4, "dough": { "mass_g": 500, "thickness_mm": 6, "formula": formula } });
    let (code, answer) = compute("sheet", &sheet.to_string());
    assert_eq!(code, 0, "{answer}");
    assert!(answer["needs_length_mm"].as_f64().unwrap() < 240.0);
}

/// A chilled cut-out (common practice, no source: 8 to 14 min at 175 degC, it holds its shape and rises a little).
#[test]
fn it_bakes_from_standard_input() {
    let mut ask = json!({
        "formula": { "name": "Cut-out", "lines": [
            { "ingredient": "butter", "grams": 100 }, { "ingredient": "sugar", "grams": 90 }, { "ingredient": "flour-ap", "grams": 170 },
            { "ingredient": "egg", "grams": 22 }, { "ingredient": "salt", "grams": 1 } ] },
        "air": 0.08, "piece": { "thickness_mm": 6, "diameter_mm": 65 }, "start_c": 6,
        "oven": { "set_c": 175, "fan": false, "offset_c": 0, "tray": "light", "liner": "parchment", "cover": null, "altitude_m": 0 },
        "end": "just_golden"
    });
    let (code, answer) = compute("bake", &ask.to_string());
    assert_eq!(code, 0, "{answer}");
    let of =
        |field: &str| answer.pointer(field).and_then(Value::as_f64).unwrap_or_else(|| panic!("{field} in {answer}"));
    assert!((8.0..14.0).contains(&of("/minutes")), "{answer}");
    assert!(of("/minutes_band/0") < of("/minutes") && of("/minutes") < of("/minutes_band/1"));
    assert!((1.0..8.0).contains(&of("/spread_percent")) && of("/thickness_mm") > 6.0);
    assert!((of("/grows_mm") - 32.5 * of("/spread_percent") / 100.0).abs() < 1e-9);
    assert!((600.0..950.0).contains(&of("/density_kg_m3")) && (5.0..13.0).contains(&of("/loss_percent")));
    assert!(of("/fat_min") < of("/set_min") && of("/set_min") < of("/dull_min"));
    assert_eq!((answer["edge"]["word"].as_str(), answer["done_by"].as_str()), (Some("just golden"), Some("rim")));
    assert!(answer["edge"]["lab"].as_array().is_some_and(|lab| lab.len() == 3));
    assert!(answer["curve"].as_array().is_some_and(|c| c.len() > 20));
    // Not done is an answer without minutes.
    let mut never = ask.clone();
    never["oven"] = json!({ "set_c": 140, "offset_c": -30 });
    never["piece"]["thickness_mm"] = json!(20);
    never["end"] = json!("brown");
    let (code, answer) = compute("bake", &never.to_string());
    assert_eq!((code, answer["done_by"].as_str()), (0, Some("not done")), "{answer}");
    assert!(answer["minutes"].is_null() && answer["minutes_band"].is_null() && answer["spread_percent"].is_number());
    // What the model does not know is named with its range.
    ask["piece"]["thickness_mm"] = json!(40);
    let (code, problem) = compute("bake", &ask.to_string());
    assert_eq!(code, 2);
    assert!(problem.to_string().contains("piece.thickness_mm") && problem.to_string().contains("2 to 25"), "{problem}");
}

#[test]
fn what_it_cannot_compute_it_says_on_standard_output_with_code_two() {
    for input in ["", "{", "{\"start_c\": 1}"] {
        let (code, problem) = compute("chill", input);
        assert_eq!(code, 2);
        assert!(problem["detail"].as_str().is_some_and(|d| !d.is_empty()));
    }
}

struct Server {
    child: Child,
    address: String,
}

impl Server {
    fn start(db: &std::path::Path) -> Self {
        let mut child = Command::new(PROGRAM)
            .args(["serve", "--demo", "--listen", "127.0.0.1:0", "--db"])
            .arg(db)
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .spawn()
            .unwrap();
        let mut line = String::new();
        BufReader::new(child.stdout.take().unwrap()).read_line(&mut line).unwrap();
        let address = line.split("http://").nth(1).unwrap().trim().trim_end_matches('/').to_owned();
        Self { child, address }
    }

    fn ask(&self, method: &str, path: &str, body: &str) -> String {
        let mut stream = TcpStream::connect(&self.address).unwrap();
        write!(
            stream,
            "{method} {path} HTTP/1.1\r\nhost: {}\r\nconnection: close\r\ncontent-length: {}\r\n\r\n{body}",
            self.address,
            body.len()
        )
        .unwrap();
        let mut answer = String::new();
        stream.read_to_string(&mut answer).unwrap();
        answer
    }
}

impl Drop for Server {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}

#[test]
fn what_was_answered_as_saved_survives_a_kill() {
    let dir = tempfile::tempdir().unwrap();
    let db = dir.path().join("bakery.db");
    for pieces in [50, 51, 52] {
        let mut server = Server::start(&db);
        let answer = server.ask("PATCH", "/api/jobs/1", &format!("{{\"pieces\": {pieces}}}"));
        assert!(answer.starts_with("HTTP/1.1 200"), "{answer}");
        // SIGKILL on Unix: no time to tidy up.
        server.child.kill().unwrap();
        server.child.wait().unwrap();
        let server = Server::start(&db);
        assert!(server.ask("GET", "/api/jobs/1", "").contains(&format!("\"pieces\":{pieces}")));
        let undone = server.ask("POST", "/api/undo", "");
        assert!(undone.contains("cookies from"), "{undone}");
        server.ask("POST", "/api/redo", "");
    }
}

fn a_day() -> Value {
    let batch = |id: &str, trays: u32, bake_c: u32| {
        json!({ "id": id, "n_trays": trays, "mix_min": 12, "form_min": 4, "chill_min": 30, "chill_max": 120, "temper_min": 10,
            "roll_cut_min": 8, "work_window_min": 25, "tray_chill_min": 10, "tray_chill_max": 120, "bake_temp_c": bake_c,
            "bake_min": 12, "cool_on_tray_min": 6 })
    };
    json!({ "kitchen": { "hands": 1, "mixers": 1, "fridge_slots": 3, "freezer_slots": 2, "trays": 4, "ovens": 1, "racks_per_oven": 1,
            "preheat_min": 20, "temp_change_min": 10, "rechill_min": 15, "cooling_slots": 3 },
        "batches": [batch("gulls", 3, 175), batch("boats", 2, 190)], "finish_by_min": 840, "seconds": 0.2 })
}

#[test]
fn it_plans_a_day_from_standard_input() {
    let mut day = a_day();
    let (code, answer) = compute("schedule", &day.to_string());
    assert_eq!(code, 0, "{answer}");
    let length = answer["makespan_min"].as_i64().expect("a length");
    assert_eq!(answer["latest_start_min"].as_f64(), Some(840.0 - f64::from(i32::try_from(length).unwrap())));
    assert!(answer["bound_min"].as_i64().unwrap() <= length && answer["forbidden"] == json!([]));
    let tasks = answer["tasks"].as_array().expect("tasks");
    let of =
        |step: &str, batch: &str| tasks.iter().filter(|t| t["step"] == step && t["batch"] == batch).collect::<Vec<_>>();
    let start = |t: &Value| t["start_min"].as_i64().unwrap();
    let end = |t: &Value| t["end_min"].as_i64().unwrap();
    for (batch, trays) in [("gulls", 3), ("boats", 2)] {
        for step in ["roll_cut", "tray_chill", "bake", "cool"] {
            assert_eq!(of(step, batch).len(), trays, "{step} of {batch}");
        }
        let (chill, form) = (of("dough_chill", batch)[0], of("form", batch)[0]);
        assert_eq!((start(chill), &chill["tray"], &chill["place"]), (end(form), &json!(0), &json!("fridge")));
    }
    // One oven: no two bakes at once, and ten minutes between the heats.
    let mut bakes: Vec<&Value> = tasks.iter().filter(|t| t["step"] == "bake").collect();
    bakes.sort_by_key(|t| start(t));
    for pair in bakes.windows(2) {
        let settle = if pair[0]["batch"] == pair[1]["batch"] { 0 } else { 10 };
        assert!(end(pair[0]) + settle <= start(pair[1]), "{pair:?}");
    }
    assert!(start(bakes[0]) >= 20 && tasks.iter().map(end).max() == Some(length));
    assert!(tasks.iter().all(|t| t["why"].as_str().is_some_and(|why| !why.is_empty())));
    // A day that can not be says which rule forbids it.
    day["batches"][1]["work_window_min"] = json!(7);
    let (code, answer) = compute("schedule", &day.to_string());
    assert_eq!((code, answer["makespan_min"].is_null()), (0, true));
    assert_eq!(
        (&answer["forbidden"][0]["rule"], &answer["forbidden"][0]["batch"]),
        (&json!("work_window"), &json!("boats"))
    );
    // What is out of range is named, all of it.
    day["batches"][0]["bake_min"] = json!(0);
    day["batches"][1]["id"] = json!("gulls");
    day["seconds"] = json!(900);
    let (code, problem) = compute("schedule", &day.to_string());
    let fields: Vec<&str> = problem["errors"].as_array().unwrap().iter().filter_map(|e| e["field"].as_str()).collect();
    assert_eq!((code, fields), (2, vec!["seconds", "batches[0].bake_min", "batches[1].id"]), "{problem}");
}

/// Starts it with a certificate of its own making on a port of the network; what it said, and where.
fn with_certificate(dir: &std::path::Path) -> (Child, String, u16, rustls::pki_types::CertificateDer<'static>) {
    let made = rcgen::generate_simple_self_signed(["localhost".to_owned()]).unwrap();
    let (cert, key) = (dir.join("cert.pem"), dir.join("key.pem"));
    std::fs::write(&cert, made.cert.pem()).unwrap();
    std::fs::write(&key, made.signing_key.serialize_pem()).unwrap();
    let mut child = Command::new(PROGRAM)
        .args(["serve", "--listen", "0.0.0.0:0", "--db"])
        .arg(dir.join("bakery.db"))
        .args([std::ffi::OsStr::new("--cert"), cert.as_os_str(), std::ffi::OsStr::new("--key"), key.as_os_str()])
        .stdout(Stdio::piped())
        .stderr(Stdio::null())
        .spawn()
        .unwrap();
    let mut lines = BufReader::new(child.stdout.take().unwrap()).lines();
    let first = lines.next().unwrap().unwrap();
    let port = first.trim_end_matches('/').rsplit(':').next().unwrap().parse().unwrap();
    let second = lines.next().unwrap().unwrap();
    // What it says later goes nowhere, and does not end it.
    std::thread::spawn(move || lines.for_each(drop));
    (child, format!("{first}\n{second}"), port, made.cert.der().clone())
}

fn over_tls(port: u16, certificate: rustls::pki_types::CertificateDer<'static>, request: &str) -> String {
    let mut roots = rustls::RootCertStore::empty();
    roots.add(certificate).unwrap();
    let provider = std::sync::Arc::new(rustls::crypto::ring::default_provider());
    let config = rustls::ClientConfig::builder_with_provider(provider)
        .with_safe_default_protocol_versions()
        .unwrap()
        .with_root_certificates(roots)
        .with_no_client_auth();
    let line = rustls::ClientConnection::new(std::sync::Arc::new(config), "localhost".try_into().unwrap()).unwrap();
    let mut stream = rustls::StreamOwned::new(line, TcpStream::connect(("127.0.0.1", port)).unwrap());
    stream.write_all(request.as_bytes()).unwrap();
    let mut answer = vec![];
    // Whoever closes without saying so has sent all before.
    let _ = stream.read_to_end(&mut answer);
    String::from_utf8_lossy(&answer).into_owned()
}

#[test]
fn with_a_certificate_it_is_served_by_https_and_the_cookie_is_for_that_alone() {
    let dir = tempfile::tempdir().unwrap();
    let (mut child, said, port, certificate) = with_certificate(dir.path());
    assert!(said.contains("https://0.0.0.0:") && said.contains("/pair on it within 10 minutes"), "{said}");
    let code = said.trim_end_matches('.').rsplit("enter ").next().unwrap().to_owned();
    let ask = |request: String| over_tls(port, certificate.clone(), &request);
    let refused = ask("GET /api/jobs HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n".to_owned());
    assert!(refused.starts_with("HTTP/1.1 401"), "{refused}");
    let body = json!({ "code": code, "name": "Office" }).to_string();
    let pair = |code_and_name: &str| {
        format!(
            "POST /api/pair HTTP/1.1\r\nHost: localhost\r\nOrigin: https://localhost\r\nContent-Type: application/json\r\nConnection: close\r\nContent-Length: {}\r\n\r\n{code_and_name}",
            code_and_name.len()
        )
    };
    let paired = ask(pair(&body));
    let cookie =
        paired.lines().find_map(|l| l.strip_prefix("set-cookie: ")).unwrap_or_else(|| panic!("{paired}")).to_owned();
    assert!(cookie.contains("Secure") && cookie.contains("HttpOnly"), "{cookie}");
    let shown = cookie.split(';').next().unwrap();
    let heard =
        ask(format!("GET /api/health HTTP/1.1\r\nHost: localhost\r\nCookie: {shown}\r\nConnection: close\r\n\r\n"));
    assert!(heard.starts_with("HTTP/1.1 200") && heard.contains(env!("CARGO_PKG_VERSION")), "{heard}");
    child.kill().unwrap();
    child.wait().unwrap();
}

#[test]
fn a_certificate_that_is_none_is_told_by_its_file() {
    let dir = tempfile::tempdir().unwrap();
    let none = dir.path().join("none.pem");
    std::fs::write(&none, "not a certificate").unwrap();
    let done = Command::new(PROGRAM)
        .args(["serve", "--listen", "127.0.0.1:0", "--db"])
        .arg(dir.path().join("bakery.db"))
        .arg("--cert")
        .arg(&none)
        .arg("--key")
        .arg(&none)
        .output()
        .unwrap();
    assert!(!done.status.success());
    assert!(String::from_utf8_lossy(&done.stderr).contains("none.pem"), "{done:?}");
}
