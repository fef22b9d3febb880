//! Codes, guesses and sessions. A code is good for one phone and for some minutes; wrong ones are counted, whoever tries them; a
//! session belongs to the address that it was given to, and ends by itself.

use std::net::IpAddr;
use std::time::{Duration, Instant};

use uuid::Uuid;

use super::Paired;
use crate::access::same;

/// A session lasts so long, s.
pub(crate) const SESSION_S: u64 = 12 * 3600;
const SESSION: Duration = Duration::from_secs(SESSION_S);
/// A code is good for so long.
const CODE: Duration = Duration::from_secs(300);
/// So many wrong codes are answered at once; then comes a pause, which every further one doubles.
const GUESSES: u32 = 5;
const PAUSE: Duration = Duration::from_secs(30);
const LONGEST: Duration = Duration::from_secs(3600);
/// So many phones at once.
const PHONES: usize = 8;

/// Why a phone is not let in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Refusal {
    /// Not the code.
    Wrong,
    /// No code is taken for so many seconds.
    Pause(u64),
    /// As many phones as there may be.
    Full,
}

struct Session {
    number: u32,
    token: String,
    at: IpAddr,
    since: Instant,
    seen: Instant,
}

/// All of one door.
pub(crate) struct Sessions {
    code: String,
    made: Instant,
    wrong: u32,
    until: Option<Instant>,
    count: u32,
    phones: Vec<Session>,
}

impl Sessions {
    pub(crate) fn new(now: Instant) -> Self {
        Self { code: new_code(), made: now, wrong: 0, until: None, count: 0, phones: Vec::new() }
    }

    /// The code of now, and for how many seconds it is good.
    pub(crate) fn code(&mut self, now: Instant) -> (String, u64) {
        self.renew(now);
        (self.code.clone(), (CODE - now.duration_since(self.made)).as_secs())
    }

    fn renew(&mut self, now: Instant) {
        if now.duration_since(self.made) >= CODE {
            self.code = new_code();
            self.made = now;
        }
    }

    /// For how many seconds no code is taken.
    pub(crate) fn pause_s(&self, now: Instant) -> Option<u64> {
        let left = self.until?.checked_duration_since(now)?;
        (!left.is_zero()).then(|| left.as_secs() + 1)
    }

    /// Lets a phone in that knows the code, and gives it its token; the code is used up by that.
    pub(crate) fn pair(&mut self, code: &str, at: IpAddr, now: Instant) -> Result<String, Refusal> {
        if let Some(pause_s) = self.pause_s(now) {
            return Err(Refusal::Pause(pause_s));
        }
        self.renew(now);
        self.end_old(now);
        if !same(code, &self.code) {
            self.wrong += 1;
            if self.wrong >= GUESSES {
                let doubled = PAUSE.saturating_mul(1 << (self.wrong - GUESSES).min(16));
                self.until = Some(now + doubled.min(LONGEST));
            }
            return Err(Refusal::Wrong);
        }
        if self.phones.len() >= PHONES {
            return Err(Refusal::Full);
        }
        (self.code, self.made, self.wrong, self.until) = (new_code(), now, 0, None);
        self.count += 1;
        let token = format!("{}{}", Uuid::new_v4().simple(), Uuid::new_v4().simple());
        self.phones.push(Session { number: self.count, token: token.clone(), at, since: now, seen: now });
        Ok(token)
    }

    /// The phone to which a token belongs, at the address that it was given to.
    pub(crate) fn known(&mut self, token: &str, at: IpAddr, now: Instant) -> Option<u32> {
        self.end_old(now);
        let session = self.phones.iter_mut().find(|own| same(token, &own.token) && own.at == at)?;
        session.seen = now;
        Some(session.number)
    }

    pub(crate) fn phones(&mut self, now: Instant) -> Vec<Paired> {
        self.end_old(now);
        let told = |own: &Session| Paired {
            number: own.number,
            at: own.at.to_string(),
            paired_s: now.duration_since(own.since).as_secs(),
            seen_s: now.duration_since(own.seen).as_secs(),
            left_s: SESSION.saturating_sub(now.duration_since(own.since)).as_secs(),
        };
        self.phones.iter().map(told).collect()
    }

    pub(crate) fn put_out(&mut self, number: u32) -> bool {
        let before = self.phones.len();
        self.phones.retain(|own| own.number != number);
        self.phones.len() < before
    }

    pub(crate) fn put_out_all(&mut self) {
        self.phones.clear();
    }

    fn end_old(&mut self, now: Instant) {
        self.phones.retain(|own| now.duration_since(own.since) < SESSION);
    }
}

/// Six digits that nobody can know beforehand.
fn new_code() -> String {
    // The last 48 bits of such an id are random.
    format!("{:06}", (Uuid::new_v4().as_u128() & 0xffff_ffff_ffff) % 1_000_000)
}

#[cfg(test)]
mod tests {
    use std::net::Ipv4Addr;

    use super::*;

    const PHONE: IpAddr = IpAddr::V4(Ipv4Addr::new(192, 168, 1, 7));
    const OTHER: IpAddr = IpAddr::V4(Ipv4Addr::new(192, 168, 1, 8));

    #[test]
    fn a_code_lets_one_phone_in_at_one_address_for_one_day() {
        let now = Instant::now();
        let mut sessions = Sessions::new(now);
        let (code, code_s) = sessions.code(now);
        assert_eq!((code.len(), code_s), (6, 300));
        let token = sessions.pair(&code, PHONE, now).unwrap();
        assert_eq!(sessions.pair(&code, OTHER, now), Err(Refusal::Wrong), "a code is used up");
        assert_eq!(sessions.known(&token, PHONE, now), Some(1));
        assert_eq!(sessions.known(&token, OTHER, now), None, "a stolen cookie");
        assert_eq!(sessions.known("", PHONE, now), None);
        let later = now + SESSION;
        assert_eq!(sessions.known(&token, PHONE, later), None, "it ends by itself");
        let (second, _) = sessions.code(later);
        let token = sessions.pair(&second, OTHER, later).unwrap();
        assert_eq!(sessions.phones(later).len(), 1);
        assert!(sessions.put_out(2) && !sessions.put_out(2));
        assert_eq!(sessions.known(&token, OTHER, later), None, "put out");
        // A code that nobody used gives way to another.
        let (old, _) = sessions.code(later);
        assert_eq!(sessions.pair(&old, PHONE, later + CODE), Err(Refusal::Wrong));
    }

    #[test]
    fn after_five_wrong_codes_comes_a_pause_that_doubles() {
        let mut now = Instant::now();
        let mut sessions = Sessions::new(now);
        let wrong = |sessions: &mut Sessions, now| {
            let code = if sessions.code(now).0 == "000000" { "000001" } else { "000000" };
            sessions.pair(code, PHONE, now)
        };
        for _ in 0..5 {
            assert_eq!(wrong(&mut sessions, now), Err(Refusal::Wrong));
        }
        let (code, _) = sessions.code(now);
        assert_eq!(
            sessions.pair(&code, OTHER, now),
            Err(Refusal::Pause(31)),
            "for everybody, the right one too"
        );
        for doubled in [30, 60, 120] {
            now += Duration::from_secs(doubled);
            assert_eq!(sessions.pause_s(now), None, "{doubled}");
            assert_eq!(wrong(&mut sessions, now), Err(Refusal::Wrong));
            assert_eq!(sessions.pause_s(now), Some(2 * doubled + 1));
        }
        now += Duration::from_secs(240);
        let (code, _) = sessions.code(now);
        assert!(sessions.pair(&code, OTHER, now).is_ok());
        assert_eq!(sessions.pause_s(now), None);
    }
}
