//! Many corners, many requests: all answered, none refused. By hand it runs longer and says how long answers took
//! (docs/RELIABILITY.md); here it is short and only counts.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

mod running;

use std::sync::Mutex;
use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};
use std::time::{Duration, Instant};

use fogon_store::{Document, Store};
use fogon_testkit::{BOX_ROOM, set};
use serde_json::{Value, json};

use running::{Running, from_env};

/// Times of one kind of request, ms.
#[derive(Default)]
struct Times(Mutex<Vec<f64>>);

impl Times {
    fn take<T>(&self, work: impl FnOnce() -> T) -> T {
        let began = Instant::now();
        let done = work();
        self.0.lock().unwrap().push(began.elapsed().as_secs_f64() * 1000.0);
        done
    }

    fn told(&self, what: &str) {
        let mut all = self.0.lock().unwrap().clone();
        all.sort_by(f64::total_cmp);
        let at = |part: f64| all.get(((all.len() as f64 - 1.0) * part) as usize).copied().unwrap_or(f64::NAN);
        println!(
            "{what}: {} answers, median {:.1} ms, 95 of 100 within {:.1} ms, longest {:.1} ms",
            all.len(),
            at(0.5),
            at(0.95),
            at(1.0)
        );
    }
}

fn plan_of(server: &Running, id: &Value) -> Value {
    server.send("GET", &format!("/api/v1/corners/{id}/file"), "", "").1
}

/// Saves a corner under another figure; its new revision.
fn saved(server: &Running, id: &Value, plan: &Value, revision: i64) -> i64 {
    let mut plan = plan.clone();
    set(&mut plan, "/layout/camera/iso", json!(100 + revision % 1000));
    let headers = format!("If-Match: \"{revision}\"\r\n");
    let (status, kept) = server.send("PUT", &format!("/api/v1/corners/{id}"), &headers, &plan.to_string());
    assert_eq!(status, 200, "{kept}");
    kept["revision"].as_i64().unwrap()
}

/// Fifty requests a second for FOGON_LOAD_S seconds (2), half of them to judge a plan; then saves while eight proposals run.
#[test]
fn fifty_requests_a_second_are_answered() {
    let seconds = from_env("FOGON_LOAD_S", 2);
    let folder = tempfile::tempdir().unwrap();
    let server = &Running::start("serve", &folder.path().join("corners.sqlite3"));
    let ids: Vec<Value> = (0..4).map(|_| server.made(BOX_ROOM)["id"].clone()).collect();
    let plan = &plan_of(server, &ids[0]);
    let text = &plan.to_string();
    let [assess, list, open, save] = &std::array::from_fn(|_| Times::default());
    let next = AtomicUsize::new(0);
    let began = Instant::now();
    std::thread::scope(|scope| {
        for id in &ids {
            let next = &next;
            scope.spawn(move || {
                let mut revision = 1;
                loop {
                    let number = next.fetch_add(1, Ordering::Relaxed);
                    let due = Duration::from_millis(20 * number as u64);
                    if due > Duration::from_secs(seconds) {
                        return;
                    }
                    std::thread::sleep(due.saturating_sub(began.elapsed()));
                    let status = match number % 10 {
                        0..=4 => assess.take(|| server.send("POST", "/api/v1/assess", "", text).0),
                        5 | 6 => list.take(|| server.send("GET", "/api/v1/corners", "", "").0),
                        7 | 8 => open.take(|| server.send("GET", &format!("/api/v1/corners/{id}"), "", "").0),
                        _ => {
                            revision = save.take(|| saved(server, id, plan, revision));
                            200
                        }
                    };
                    assert_eq!(status, 200);
                }
            });
        }
    });
    for (times, what) in [(assess, "assess"), (list, "list"), (open, "open"), (save, "save")] {
        times.told(what);
    }
    let (save, propose) = (&Times::default(), &Times::default());
    let over = &AtomicBool::new(false);
    std::thread::scope(|scope| {
        for _ in 0..8 {
            scope.spawn(move || {
                while !over.load(Ordering::Relaxed) {
                    assert_eq!(propose.take(|| server.send("POST", "/api/v1/propose", "", BOX_ROOM).0), 200);
                }
            });
        }
        let id = &server.made(text)["id"];
        let mut revision = 1;
        let began = Instant::now();
        while began.elapsed() < Duration::from_secs(seconds) {
            revision = save.take(|| saved(server, id, plan, revision));
            std::thread::sleep(Duration::from_millis(30));
        }
        over.store(true, Ordering::Relaxed);
    });
    save.told("save while eight proposals run");
    propose.told("propose, eight at a time");
}

/// FOGON_MANY corners (200), FOGON_SAVES saves each (3): the list comes in pages, each corner opens, nothing is judged twice.
#[test]
fn many_corners_are_listed_and_opened() {
    let (many, saves) = (from_env("FOGON_MANY", 200), from_env("FOGON_SAVES", 3));
    let folder = tempfile::tempdir().unwrap();
    let database = folder.path().join("corners.sqlite3");
    let server = Running::start("serve", &database);
    let made = server.made(BOX_ROOM);
    let file = plan_of(&server, &made["id"]);
    drop(server);
    {
        let store = Store::open(&database).unwrap();
        let began = Instant::now();
        for corner in 1..many {
            let document = |save: u64| {
                let mut plan = file.clone();
                set(&mut plan, "/name", json!(format!("Corner {corner}")));
                set(&mut plan, "/layout/camera/iso", json!(100 + save));
                set(&mut plan, "/brief/person/stature_m", json!(1.5 + corner as f64 / 1e5));
                Document::read(plan.to_string().as_bytes()).unwrap()
            };
            let mut kept = store.create(&document(0)).unwrap();
            for save in 1..saves {
                kept = store.save(kept.id, kept.revision, &document(save), None).unwrap();
            }
        }
        let per_save = began.elapsed().as_secs_f64() * 1000.0 / (many * saves) as f64;
        println!("{many} corners with {saves} saves each written, {per_save:.2} ms a save");
    }
    let bytes = std::fs::metadata(&database).unwrap().len();
    println!(
        "the file has {:.1} MB, {:.0} bytes a save",
        bytes as f64 / 1e6,
        bytes as f64 / (many * saves) as f64
    );
    let server = Running::start("serve", &database);
    let (first, again, open) = (Times::default(), Times::default(), Times::default());
    let page = || server.send("GET", "/api/v1/corners", "", "").1;
    let listed = first.take(page);
    for _ in 0..20 {
        assert_eq!(again.take(page), listed);
    }
    let all = listed.as_array().unwrap();
    assert!(all.len() == 60 && all.iter().all(|one| one["told"]["score"].is_number()));
    for one in all {
        let path = format!("/api/v1/corners/{}", one["id"]);
        assert_eq!(open.take(|| server.send("GET", &path, "", "").1["name"].clone()), one["name"]);
    }
    let found = server.send("GET", &format!("/api/v1/corners?name=Corner%20{}", many - 1), "", "").1;
    assert_eq!(found[0]["name"], json!(format!("Corner {}", many - 1)));
    first.told("a page of the list that was never judged");
    again.told("the same page again");
    open.told("open");
}
