//! The viewfinder over its channel, and pictures by themselves.

use std::time::{Duration, Instant};

use serde_json::{Value, json};
use tungstenite::{Message, WebSocket, stream::MaybeTlsStream};

use crate::running::{Server, folder};

type Channel = WebSocket<MaybeTlsStream<std::net::TcpStream>>;

/// A picture as it comes: generation, width, height, samples, whether it is the last, what it tells, pixels.
struct Frame {
    generation: u32,
    size: [u32; 2],
    samples: u32,
    is_last: bool,
    told: Value,
    pixels: Vec<u8>,
}

enum Came {
    Frame(Frame),
    Told(Value),
}

fn open(server: &Server) -> Channel {
    let (channel, _) =
        tungstenite::connect(format!("{}/api/v1/view", server.base.replace("http", "ws"))).unwrap();
    if let MaybeTlsStream::Plain(stream) = channel.get_ref() {
        stream.set_read_timeout(Some(Duration::from_secs(60))).unwrap();
    }
    channel
}

fn ask(channel: &mut Channel, what: Value) {
    channel.send(Message::Text(what.to_string().into())).unwrap();
}

fn next(channel: &mut Channel) -> Came {
    loop {
        match channel.read().unwrap() {
            Message::Text(text) => return Came::Told(serde_json::from_str(&text).unwrap()),
            Message::Binary(bytes) => {
                let number = |at: usize| u32::from_le_bytes(bytes[4 * at..4 * at + 4].try_into().unwrap());
                let told = number(4) as usize;
                return Came::Frame(Frame {
                    generation: number(0),
                    size: [number(1), number(2)],
                    samples: number(3) & (u32::MAX >> 1),
                    is_last: number(3) >> 31 == 1,
                    told: serde_json::from_slice(&bytes[20..20 + told]).unwrap(),
                    pixels: bytes[20 + told..].to_vec(),
                });
            }
            _ => {}
        }
    }
}

/// The next picture, said to be seen.
fn frame(channel: &mut Channel) -> Frame {
    loop {
        if let Came::Frame(frame) = next(channel) {
            ask(channel, json!({ "seen": frame.generation }));
            return frame;
        }
    }
}

fn demo() -> Value {
    serde_json::from_str(include_str!("../../../../docs/examples/box-room.fogon.json")).unwrap()
}

/// Of red, green and blue.
fn mean(pixels: &[u8]) -> f64 {
    let colours = || pixels.chunks(4).flat_map(|pixel| &pixel[..3]);
    colours().map(|byte| f64::from(*byte)).sum::<f64>() / colours().count() as f64
}

/// Coarse at first, ever finer to the last; a dial turned is mixed anew from what was gathered, darker; a look tells what is there;
/// a lamp moved begins again; what is refused says why, and the channel goes on.
#[test]
fn a_picture_gets_finer_follows_dials_and_tells_what_is_there() {
    let folder = folder();
    let server = Server::on(&folder.path().join("fogon.db"));
    let mut channel = open(&server);
    let mut plan = demo();
    ask(&mut channel, json!({ "generation": 1, "plan": plan, "width": 400 }));
    let first = frame(&mut channel);
    assert_eq!((first.generation, first.size, first.samples), (1, [320, 180], 1));
    let mut before = 0;
    let finished = loop {
        let found = frame(&mut channel);
        assert_eq!((found.size, found.pixels.len()), ([400, 225], 4 * 400 * 225));
        assert!(found.samples > before);
        before = found.samples;
        if found.is_last {
            break found;
        }
    };
    assert!(finished.samples >= 8 && finished.told["sides_stops"][1].as_f64().unwrap() < 0.0);
    ask(&mut channel, json!({ "look": [0.5, 0.36] }));
    let Came::Told(looked) = next(&mut channel) else { panic!("a look is answered in words") };
    assert_eq!(looked["thing"], "skin");
    assert!(looked["over_face_stops"].as_f64().unwrap().abs() < 2.0, "{looked}");
    // Dials: nothing is gathered anew.
    plan["layout"]["lights"]["key"]["dim"] = json!(0.125);
    ask(&mut channel, json!({ "generation": 2, "plan": plan, "width": 400 }));
    let dimmed = frame(&mut channel);
    assert_eq!((dimmed.generation, dimmed.samples, dimmed.is_last), (2, finished.samples, true));
    assert!(mean(&dimmed.pixels) < 0.7 * mean(&finished.pixels));
    // An overlay over the same picture.
    ask(&mut channel, json!({ "generation": 3, "overlay": "stops" }));
    let lined = frame(&mut channel);
    assert!(lined.generation == 3 && lined.is_last && lined.pixels != dimmed.pixels);
    // Refused, and on.
    for (wrong, field) in [
        (json!({ "width": 9 }), "width"),
        (json!({ "plan": { "name": 3 } }), ""),
        (json!({ "draw": 1 }), "message"),
    ] {
        ask(&mut channel, wrong);
        let Came::Told(details) = next(&mut channel) else { panic!("a refusal in words") };
        assert_eq!(details["status"], 422, "{details}");
        assert!(details["title"].as_str().unwrap().contains(field), "{details}");
    }
    plan["layout"]["lights"]["key"]["position_m"] = json!([0.9, 1.9, 1.8]);
    ask(&mut channel, json!({ "generation": 4, "plan": plan, "overlay": "none" }));
    let moved = frame(&mut channel);
    assert_eq!((moved.generation, moved.samples), (4, 1));
}

/// What is asked later takes the place of what is under way: of many plans only the newest is finished.
#[test]
fn the_newest_plan_is_looked_at() {
    let folder = folder();
    let server = Server::on(&folder.path().join("fogon.db"));
    let mut channel = open(&server);
    let mut plan = demo();
    for generation in 1..=12 {
        plan["layout"]["lights"]["key"]["position_m"] = json!([0.7 + 0.02 * f64::from(generation), 1.6, 1.8]);
        ask(&mut channel, json!({ "generation": generation, "plan": plan, "width": 200 }));
    }
    let mut frames = 0;
    let last = loop {
        let found = frame(&mut channel);
        frames += 1;
        if found.is_last {
            break found;
        }
    };
    assert_eq!(last.generation, 12);
    assert!(frames < 30, "{frames}");
}

/// Other requests are answered while a picture is under way, and another page's first picture does not wait for what makes this
/// one's finer.
#[test]
fn two_pages_look_at_once_and_others_are_answered() {
    let folder = folder();
    let server = Server::on(&folder.path().join("fogon.db"));
    let [mut one, mut other] = [open(&server), open(&server)];
    // Large, so that its finer picture takes far longer than the other's first one on a busy machine too.
    ask(&mut one, json!({ "generation": 1, "plan": demo(), "width": 1600 }));
    assert_eq!(frame(&mut one).samples, 1);
    let finer = std::thread::spawn(move || (frame(&mut one).size, Instant::now()));
    ask(&mut other, json!({ "generation": 1, "plan": demo(), "width": 960 }));
    assert_eq!(server.get("/api/v1/corners").status, 200);
    let answered = Instant::now();
    assert_eq!(frame(&mut other).size, [320, 180]);
    let first = Instant::now();
    let (size, second) = finer.join().unwrap();
    assert!(size == [1600, 900] && first < second, "a first picture waited for a finer one");
    assert!(answered < second, "the list came before the finer picture");
    assert_eq!(frame(&mut other).size, [960, 540]);
}

/// Pictures by themselves: a PNG of the asked size, the eyes closer, exposed like another plan; refusals in words.
#[test]
fn a_picture_by_itself_is_a_png() {
    let folder = folder();
    let server = Server::on(&folder.path().join("fogon.db"));
    let size = |bytes: &[u8]| {
        assert_eq!(&bytes[..8], b"\x89PNG\r\n\x1a\n");
        [16, 20].map(|at| u32::from_be_bytes(bytes[at..at + 4].try_into().unwrap()))
    };
    let mut like = demo();
    like["layout"]["camera"]["iso"] = json!(400.0);
    let whole = server.post("/api/v1/picture", &json!({ "plan": demo(), "width": 160 }));
    assert_eq!((whole.status, whole.kind.as_str(), size(&whole.bytes)), (200, "image/png", [160, 90]));
    let asked = json!({ "plan": demo(), "width": 160, "of": "eyes", "like": like });
    let eyes = server.post("/api/v1/picture", &asked);
    assert_eq!((eyes.status, size(&eyes.bytes)), (200, [160, 80]));
    for wrong in [
        json!({ "plan": demo(), "width": 100_000 }),
        json!({ "plan": demo(), "width": 160, "of": "ears" }),
        json!({ "width": 160 }),
    ] {
        let answer = server.post("/api/v1/picture", &wrong);
        assert_eq!(answer.status, 422, "{wrong}");
        answer.problem();
    }
    let id = server.demo();
    let kept = server.get(&format!("/api/v1/corners/{id}/picture?width=96"));
    assert_eq!((kept.status, size(&kept.bytes)), (200, [96, 54]));
    assert_eq!(server.get("/api/v1/corners/99/picture").status, 404);
}

/// Switched off, everything else goes on: who looks through a viewfinder is told why there is none, and a card has its line drawing.
#[test]
fn without_pictures_the_rest_goes_on() {
    let folder = folder();
    let server = Server::without_pictures(&folder.path().join("fogon.db"));
    let mut channel = open(&server);
    let Came::Told(told) = next(&mut channel) else { panic!("told in words") };
    assert_eq!((&told["status"], &told["type"]), (&json!(409), &json!("problem:pictures_off")));
    assert!(told["title"].as_str().unwrap().contains("--no-pictures"), "{told}");
    // The channel stays open: nobody has to open it again and again.
    ask(&mut channel, json!({ "generation": 1, "plan": demo(), "width": 320 }));
    let id = server.demo();
    for picture in [
        server.post("/api/v1/picture", &json!({ "plan": demo(), "width": 160 })),
        server.get(&format!("/api/v1/corners/{id}/picture")),
    ] {
        assert_eq!((picture.status, picture.problem().as_str()), (409, "pictures_off"));
    }
    let card = server.get(&format!("/api/v1/corners/{id}/card/html?paper=a4"));
    assert!(card.status == 200 && card.text.contains("<svg") && !card.text.contains("data:image/png"));
    assert_eq!(server.post("/api/v1/assess", &demo()).status, 200);
}

/// Only so many look at once; when one leaves there is room again.
#[test]
fn so_many_viewfinders_and_no_more() {
    let folder = folder();
    let server = Server::on(&folder.path().join("fogon.db"));
    let mut channels: Vec<Channel> = (0..12).map(|_| open(&server)).collect();
    // Each is served before the next one is counted.
    for channel in &mut channels {
        ask(channel, json!({ "width": 9 }));
        let Came::Told(_) = next(channel) else { panic!("a refusal in words") };
    }
    let mut late = open(&server);
    let Came::Told(told) = next(&mut late) else { panic!("told in words") };
    assert_eq!((&told["status"], &told["type"]), (&json!(503), &json!("problem:too_many_viewfinders")));
    channels.truncate(11);
    let until = Instant::now() + Duration::from_secs(20);
    loop {
        let mut again = open(&server);
        ask(&mut again, json!({ "generation": 1, "plan": demo(), "width": 64 }));
        match next(&mut again) {
            Came::Frame(frame) => break assert_eq!(frame.generation, 1),
            Came::Told(told) => assert_eq!(told["type"], "problem:too_many_viewfinders"),
        }
        assert!(Instant::now() < until, "nobody gets in although one has left");
        std::thread::sleep(Duration::from_millis(50));
    }
}

/// At an hour with sun the window is open and the picture brighter than at night; without a place the hour is refused by its field.
#[test]
fn a_picture_can_be_taken_at_an_hour() {
    let folder = folder();
    let server = Server::on(&folder.path().join("fogon.db"));
    let mut channel = open(&server);
    let mut plan = demo();
    fogon_testkit::set(
        &mut plan,
        "/brief/place",
        json!({ "latitude_deg": 40.0, "longitude_deg": -4.0, "time_zone": "Europe/Madrid" }),
    );
    fogon_testkit::set(&mut plan, "/brief/room/north_deg", json!(30));
    let mut at = |generation: u32, hour: Value| {
        ask(&mut channel, json!({ "generation": generation, "plan": plan, "width": 96, "hour": hour }));
        loop {
            let found = frame(&mut channel);
            if found.generation == generation {
                return mean(&found.pixels);
            }
        }
    };
    let day = at(1, json!({ "utc": "2026-11-28T14:00:00Z", "sky": "clear" }));
    let night = at(2, json!({ "utc": "2026-11-28T22:00:00Z", "sky": "clear" }));
    assert!(day > night + 10.0, "{day} by day, {night} at night");
    fogon_testkit::set(&mut plan, "/brief/place", Value::Null);
    ask(
        &mut channel,
        json!({ "generation": 4, "plan": plan, "hour": { "utc": "2026-11-28T14:00:00Z", "sky": "clear" } }),
    );
    loop {
        if let Came::Told(told) = next(&mut channel) {
            assert!(told.to_string().contains("brief.place"), "{told}");
            break;
        }
    }
}
