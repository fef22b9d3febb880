//! Who gets in, what every answer carries, and that nobody who only pretends to ask keeps others out.

use std::io::{Read, Write};
use std::net::TcpStream;
use std::time::Duration;

use serde_json::{Value, json};

use crate::running::{Server, folder};

/// Without the cookie nothing is read or changed; the token in the address is exchanged for it, once and gone.
#[test]
fn only_a_browser_that_was_let_in_reads_and_changes() {
    let folder = folder();
    let file = folder.path().join("c.sqlite3");
    let server = Server::with_token(&file);
    for (method, path) in [
        ("GET", "/api/v1/corners"),
        ("POST", "/api/v1/corners"),
        ("DELETE", "/api/v1/corners/1"),
        ("GET", "/api/v1/archive"),
        ("GET", "/api/v1/openapi.json"),
        ("GET", "/api/v1/hand"),
    ] {
        let answer = server.send(method, path, &[], "");
        assert_eq!((answer.status, answer.problem().as_str()), (401, "not_let_in"), "{method} {path}");
    }
    // The page itself holds no data, and says what to do.
    assert_eq!(server.get("/").status, 200);
    let wrong = server.get("/?token=0123456789abcdef0123456789abcdef");
    assert_eq!((wrong.status, wrong.headers.get("set-cookie")), (303, None));
    let right = server.get(&format!("/corners/7{}", server.token));
    assert_eq!((right.status, right.headers["location"].to_str().unwrap()), (303, "/corners/7"));
    let cookie = right.headers["set-cookie"].to_str().unwrap().to_owned();
    assert!(cookie.contains("; HttpOnly") && cookie.contains("; SameSite=Strict"), "{cookie}");
    let cookie = cookie.split(';').next().unwrap().to_owned();
    let with =
        |server: &Server, path: &str, cookie: &str| server.send("GET", path, &[("cookie", cookie)], "");
    assert_eq!(with(&server, "/api/v1/corners", &cookie).status, 200);
    // Neither the key is readable by others, nor does it leave with what is handed out.
    let key = cookie.split('=').nth(1).unwrap();
    let archive = with(&server, "/api/v1/archive", &cookie);
    assert!(!String::from_utf8_lossy(&archive.bytes).contains(key));
    #[cfg(unix)]
    {
        use std::os::unix::fs::PermissionsExt;
        for name in ["c.sqlite3", "c.sqlite3.key"] {
            let mode = std::fs::metadata(folder.path().join(name)).unwrap().permissions().mode();
            assert_eq!(mode & 0o077, 0, "{name}");
        }
    }
    // Another start has another token, and the same key: a page that stayed open goes on.
    let (first, port) = (server.token.clone(), server.base.rsplit(':').next().unwrap().to_owned());
    drop(server);
    let again = Server::with_token(&file);
    assert_ne!(again.token, first);
    let cookie = cookie.replace(&port, again.base.rsplit(':').next().unwrap());
    assert_eq!(with(&again, "/api/v1/corners", &cookie).status, 200);
}

#[test]
fn every_answer_is_for_this_page_alone() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let id = server.demo();
    for path in ["/", "/api/v1/corners", "/api/v1/nothing", &format!("/api/v1/corners/{id}/card/html")] {
        let answer = server.get(path);
        for (name, value) in [
            ("x-content-type-options", "nosniff"),
            ("cross-origin-opener-policy", "same-origin"),
            ("cross-origin-resource-policy", "same-origin"),
            ("referrer-policy", "no-referrer"),
        ] {
            assert_eq!(answer.headers[name], value, "{path}");
        }
        let policy = answer.headers["content-security-policy"].to_str().unwrap();
        assert!(
            policy.starts_with("default-src 'none'") && !policy.contains("unsafe-eval"),
            "{path}: {policy}"
        );
        let runs = policy.split(';').find(|part| part.trim().starts_with("script-src"));
        assert!(runs.is_none_or(|part| part.trim() == "script-src 'self'"), "{path}: {policy}");
    }
    let card = server.get(&format!("/api/v1/corners/{id}/card/html"));
    assert!(card.headers["content-security-policy"].to_str().unwrap().contains("sandbox "));
    // What a browser says of where a request comes from.
    let told = |site: &str| server.send("GET", "/api/v1/corners", &[("sec-fetch-site", site)], "");
    assert_eq!(
        (told("same-origin").status, told("cross-site").problem().as_str()),
        (200, "forbidden_origin")
    );
    assert_eq!(server.send("GET", "/", &[("host", "LOCALHOST:4170")], "").status, 200);
}

/// Eleven hundred half-sent requests: others are still answered, and those who never finish are hung up on.
#[test]
fn nobody_is_kept_out_by_half_sent_requests() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let address = server.base.trim_start_matches("http://").to_owned();
    let half: Vec<TcpStream> = (0..1100)
        .map(|_| {
            let mut stream = TcpStream::connect(&address).unwrap();
            stream.write_all(b"GET /api/v1/corners HTTP/1.1\r\nHost: 127.0").unwrap();
            stream
        })
        .collect();
    assert_eq!(server.get("/api/v1/corners").status, 200);
    for mut stream in half {
        stream.set_read_timeout(Some(Duration::from_secs(40))).unwrap();
        let mut rest = Vec::new();
        // Closed or reset, not left hanging.
        if let Err(error) = stream.read_to_end(&mut rest) {
            assert_eq!(error.kind(), std::io::ErrorKind::ConnectionReset);
        }
    }
    // A body that never ends is answered too.
    let mut slow = TcpStream::connect(&address).unwrap();
    slow.write_all(b"POST /api/v1/corners HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 100\r\n\r\n{")
        .unwrap();
    slow.set_read_timeout(Some(Duration::from_secs(40))).unwrap();
    let mut head = [0; 12];
    slow.read_exact(&mut head).unwrap();
    assert_eq!(&head, b"HTTP/1.1 408");
}

/// The live channel answers whatever it is told, and only so many are open.
#[test]
fn live_channels_are_bounded_and_hold_what_they_are_told() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let address = server.base.replace("http://", "ws://") + "/api/v1/hand";
    let (mut channel, _) = tungstenite::connect(&address).unwrap();
    for nonsense in ["[]", "1", "\"plan\"", "null", "{}", "{", "{\"plan\":[]}", "{\"plan\":null,\"move\":3}"]
    {
        channel.send(nonsense.into()).unwrap();
        let answer: Value = serde_json::from_str(channel.read().unwrap().to_text().unwrap()).unwrap();
        assert_eq!(answer["status"], json!(422), "{nonsense}: {answer}");
    }
    let mut open = Vec::new();
    let refused = loop {
        match tungstenite::connect(&address) {
            Ok((channel, _)) => open.push(channel),
            Err(error) => break error,
        }
        assert!(open.len() < 100, "no bound");
    };
    assert!(matches!(&refused, tungstenite::Error::Http(answer) if answer.status() == 503), "{refused}");
    // Whoever closes one makes room.
    drop(channel);
    drop(open);
    let again = (0..50).any(|_| {
        std::thread::sleep(Duration::from_millis(100));
        tungstenite::connect(&address).is_ok()
    });
    assert!(again);
}

/// What is refused before it has come says that its connection ends, and the next request finds another; whatever was read whole
/// leaves it open. RFC 9112, 9.6 (from memory): who closes says so.
#[test]
fn an_answer_before_the_whole_request_ends_the_connection_and_says_so() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let address = server.base.trim_start_matches("http://");
    let asked = |head: &str, body: &str| {
        let mut stream = TcpStream::connect(address).unwrap();
        stream.set_read_timeout(Some(Duration::from_secs(60))).unwrap();
        write!(stream, "{head} HTTP/1.1\r\nHost: {address}\r\nContent-Type: application/json\r\n").unwrap();
        write!(stream, "Content-Length: 2\r\n\r\n{body}").unwrap();
        let mut answer = [0; 4096];
        let length = stream.read(&mut answer).unwrap();
        String::from_utf8_lossy(&answer[..length]).to_lowercase()
    };
    for head in ["PATCH /api/v1/corners/1", "POST /api/v1/nothing"] {
        let early = asked(head, "");
        assert!(early.starts_with("http/1.1 40") && early.contains("connection: close"), "{head}: {early}");
    }
    let whole = asked("POST /api/v1/assess", "{}");
    assert!(whole.starts_with("http/1.1 4") && !whole.contains("connection: close"), "{whole}");
}
