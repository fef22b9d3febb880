//! A measured recording in sentences: each measure beside its band and beside what the plan promised, with its cause and the one
//! thing to do. Bands are those of practice, no source, where nothing else is said.

use super::measure::{MeasureTold, TakeMeasure};
use super::promise::Promise;
use super::sound::{ChannelMeasures, SoundMeasures};
use crate::reading::Standing;
use crate::sound::gain::TARGET_PEAK_DBFS;
use crate::sound::reverberation;
use crate::units::decimals;

/// Peak of the loudest word: too soft, a little soft, right, a little hot, dBFS.
const PEAK_DBFS: [f64; 4] = [-20.0, -12.0, -6.0, -3.0];
/// Noise, dBFS(A), and speech over it, dB.
const NOISE_DBFS: [f64; 2] = [-60.0, -50.0];
const SNR_DB: [f64; 2] = [20.0, 30.0];
/// Less speech tells nothing, s. Fogon's own rule.
const SPEECH_S: f64 = 1.0;
/// Hum so far under the noise is not heard, dB.
const HUM_UNDER_DB: f64 = 10.0;
/// A wave off its middle.
const OFFSET: [f64; 2] = [0.001, 0.01];
/// Channels: nothing at all, nothing beside the other, alike, dBFS and dB.
const DEAD_DBFS: f64 = -70.0;
const NO_SIGNAL_DBFS: f64 = -60.0;
const UNDER_DB: f64 = 40.0;
const ALIKE_DB: f64 = 1.0;
/// Correlation of one signal twice, and of one turned over.
const TWICE: f64 = 0.9999;
const TURNED: f64 = -0.9;
/// Reverberation: best and tolerable, s; further off the plan than this part, its table is off.
const RT_S: [f64; 4] = [0.15, 0.20, 0.40, 0.60];
const RT_OFF: f64 = 0.3;
/// Speech that changes by so much, dB. Fogon's own rule.
const STEADY_DB: [f64; 2] = [3.0, 6.0];
/// A gate, or a muted input: so much digital silence, s. Fogon's own rule.
const GATED_S: f64 = 1.0;
/// Signs of another microphone: so far under the plan, dB, and noise that rises by so much in a pause, dB. Fogon's own rule.
const SNR_UNDER_DB: f64 = 10.0;
const ECHO_UNDER_DB: f64 = 6.0;
const PUMPING_DB: f64 = 4.0;
/// A test that tells is so long, s (common practice, no source).
const LENGTH_S: [f64; 2] = [10.0, 20.0];
/// What two channels of one signal add, LU.
const DUAL_MONO_LU: f64 = 3.01;

/// A number with a minus sign as it is printed.
fn signed(value: f64, digits: usize) -> String {
    decimals(value, digits).replace('-', "\u{2212}")
}

fn db(value: f64) -> String {
    format!("{} dB", signed(value, 1))
}

fn dbfs(value: f64) -> String {
    format!("{} dBFS", signed(value, 1))
}

/// `0:07.3`: where in a file.
fn place(seconds: f64) -> String {
    let tenths = (seconds * 10.0).floor().max(0.0) as u64;
    format!("{}:{:02}.{}", tenths / 600, tenths / 10 % 60, tenths % 10)
}

/// Every measure in words, in the order in which it matters.
pub fn told(measured: &SoundMeasures, promise: Option<&Promise>) -> Vec<MeasureTold> {
    let Some(channel) = measured.loudest() else { return Vec::new() };
    let plan = promise.copied().unwrap_or_default();
    let mut all = Vec::new();
    all.extend(microphone(measured, channel, &plan));
    all.push(peak(channel));
    all.push(clipping(measured, channel));
    all.push(speech_to_noise(channel, &plan));
    all.push(noise(channel, &plan));
    all.push(hum(channel));
    all.push(dropouts(measured));
    all.push(channels(measured));
    all.push(offset(measured));
    all.push(reverberation(measured, &plan));
    all.push(steadiness(measured));
    all.extend(loudness(measured));
    all.extend(length(measured));
    all
}

/// The file as a whole, in one sentence: what to mend first, or that it can be recorded.
pub fn summary(all: &[MeasureTold]) -> (bool, String) {
    let poor: Vec<&MeasureTold> = all.iter().filter(|told| told.standing == Standing::Poor).collect();
    let fair = all.iter().filter(|told| told.standing == Standing::Fair).count();
    match poor.as_slice() {
        [] if fair == 0 => (true, "Record: the test take is in order.".into()),
        [] => {
            let could = if fair == 1 { "one thing".to_owned() } else { format!("{fair} things") };
            (true, format!("You can record; {could} could be better."))
        }
        [one] => (false, format!("Mend one thing first: {}.", one.label.to_lowercase())),
        [first, ..] => (
            false,
            format!("Mend {} things first, beginning with the {}.", poor.len(), first.label.to_lowercase()),
        ),
    }
}

/// Whether there is a second of speech beside the claps.
fn speaks(channel: &ChannelMeasures) -> bool {
    channel.speech_dbfs_a.is_some() && channel.speech_s >= SPEECH_S
}

fn peak(channel: &ChannelMeasures) -> MeasureTold {
    let found = channel.speech_peak_dbfs;
    if !speaks(channel) {
        return MeasureTold::new(
            TakeMeasure::Peak,
            Standing::Poor,
            "no speech",
            "Nobody speaks in this file.",
        )
        .action("Say two sentences as you will say them in the take.");
    }
    let [soft, low, high, hot] = PEAK_DBFS;
    let turn = |by: f64| {
        let way = if by > 0.0 { "up" } else { "down" };
        format!("Turn the input {way} by {} dB", decimals(by.abs().max(1.0), 0))
    };
    let by = TARGET_PEAK_DBFS - found;
    let (standing, words, action) = match found {
        p if p > hot => (Standing::Poor, "Too hot: a laugh will clip.", Some(turn(by))),
        p if p > high => (Standing::Fair, "A little hot: little is left for a laugh.", Some(turn(by))),
        p if p >= low => {
            (Standing::Good, "The loudest word leaves room for a laugh and is far from the noise.", None)
        }
        p if p >= soft => (Standing::Fair, "A little soft.", Some(turn(by))),
        _ => (
            Standing::Poor,
            "Too soft: what is added later lifts the noise with it.",
            Some(turn(by) + ", or come nearer"),
        ),
    };
    let told = MeasureTold::new(TakeMeasure::Peak, standing, dbfs(found), words);
    match action {
        Some(action) => told.action(action + "."),
        None => told,
    }
}

fn clipping(measured: &SoundMeasures, channel: &ChannelMeasures) -> MeasureTold {
    let found = &channel.clipping;
    if found.runs_ge3 == 0 {
        if found.flat_tops > 0 {
            let tops =
                if found.flat_tops == 1 { "1 top".to_owned() } else { format!("{} tops", found.flat_tops) };
            let standing = if found.flat_tops > 2 { Standing::Poor } else { Standing::Fair };
            let words = "Cut off below full scale: something before the recorder was too loud.";
            return MeasureTold::new(TakeMeasure::Clipping, standing, tops, words)
                .action("Turn the microphone or its transmitter down, and the recorder up.");
        }
        return MeasureTold::new(TakeMeasure::Clipping, Standing::Good, "none", "Nothing is cut off.");
    }
    let runs = if found.runs_ge3 == 1 { "once".to_owned() } else { format!("{} times", found.runs_ge3) };
    let at = found.first_run_s.map_or(String::new(), place);
    let of_clap = |seconds: Option<f64>| {
        let onset = measured.clap.as_ref().map(|clap| clap.onset_s);
        onset.zip(seconds).is_some_and(|(onset, at)| (onset - 0.05..=onset + 0.3).contains(&at))
    };
    if of_clap(found.first_run_s) && of_clap(found.last_run_s) {
        let words = format!("The clap clips at {at}, the voice does not.");
        return MeasureTold::new(TakeMeasure::Clipping, Standing::Fair, runs, words)
            .action("Clap more softly, or further away: a clipped clap tells no reverberation time.");
    }
    let mild = found.runs_ge3 <= 2 && found.longest_run <= 3;
    let standing = if mild { Standing::Fair } else { Standing::Poor };
    MeasureTold::new(
        TakeMeasure::Clipping,
        standing,
        runs,
        format!("Clipped, first at {at}: that cannot be mended afterwards."),
    )
    .action("Turn the input down until the loudest sentence peaks at \u{2212}9 dBFS.")
}

fn speech_to_noise(channel: &ChannelMeasures, plan: &Promise) -> MeasureTold {
    let promised = plan.snr_db.map(db);
    let Some(found) = channel.snr_db_a.filter(|_| speaks(channel)) else {
        let words = "Speech and silence are needed for it, and one of them is missing.";
        return MeasureTold::new(TakeMeasure::SpeechToNoise, Standing::Plain, "not measured", words)
            .promised(promised)
            .action("Speak, then say nothing for two seconds.");
    };
    if !channel.snr_reliable {
        let words = "Not reliable: no second of silence was found.";
        return MeasureTold::new(TakeMeasure::SpeechToNoise, Standing::Plain, db(found), words)
            .promised(promised)
            .action("Say nothing for two seconds before you stop.");
    }
    let (standing, words) = match found {
        s if s < SNR_DB[0] => (Standing::Poor, "The noise is heard under the voice."),
        s if s < SNR_DB[1] => (Standing::Fair, "The noise is heard in pauses."),
        _ => (Standing::Good, "The noise is not heard under the voice."),
    };
    let short = plan.snr_db.map(|promised| promised - found).filter(|short| *short > SNR_UNDER_DB / 2.0);
    let words = match short {
        Some(short) => format!("{words} The plan promised {} dB more.", decimals(short, 0)),
        None => words.to_owned(),
    };
    let told = MeasureTold::new(TakeMeasure::SpeechToNoise, standing, db(found), words).promised(promised);
    if standing == Standing::Good && short.is_none() {
        return told;
    }
    told.action(
        "Look for what hums or blows: a fan, a fridge, an open window. Then come nearer to the microphone.",
    )
}

fn noise(channel: &ChannelMeasures, plan: &Promise) -> MeasureTold {
    let promised = plan.noise_dbfs().map(|level| format!("{}(A)", dbfs(level)));
    let gated = channel.digital_silence_s >= GATED_S || channel.noise_dbfs_a.is_none();
    if gated {
        let words = "Digital silence between the words: a gate is on, or the input is muted.";
        return MeasureTold::new(TakeMeasure::Noise, Standing::Fair, "digital silence", words)
            .promised(promised)
            .action("Switch the gate or noise suppression off; take noise out in the edit.");
    }
    let found = channel.noise_dbfs_a.unwrap_or_default();
    let told = |standing, words: &str| {
        MeasureTold::new(TakeMeasure::Noise, standing, format!("{}(A)", dbfs(found)), words)
            .promised(promised.clone())
    };
    if !channel.snr_reliable {
        return told(
            Standing::Plain,
            "Taken from the softest tenth of the file: somebody speaks all the time.",
        );
    }
    match found {
        n if n <= NOISE_DBFS[0] => told(Standing::Good, "Quiet."),
        n if n <= NOISE_DBFS[1] => told(Standing::Fair, "A little noisy.").action(
            "Switch off what can be switched off, and turn the input no higher than the loudest word needs.",
        ),
        _ => told(Standing::Poor, "Noisy: it is heard in every pause.").action(
            "Find the noise with headphones on, turned down first; switch it off or turn your back to it.",
        ),
    }
}

fn hum(channel: &ChannelMeasures) -> MeasureTold {
    let hum = &channel.hum;
    let (Some(present), Some(mains)) = (hum.present, hum.mains_hz) else {
        let words = "Looked for only where nobody speaks for a second.";
        return MeasureTold::new(TakeMeasure::Hum, Standing::Plain, "not measured", words)
            .action("Say nothing for two seconds before you stop.");
    };
    let total = hum.total_dbfs.filter(|_| present);
    let Some(total) = total else {
        return MeasureTold::new(
            TakeMeasure::Hum,
            Standing::Good,
            "none",
            "No line of the mains stands out.",
        );
    };
    let under = channel.noise_dbfs_a.is_some_and(|noise| total <= noise - HUM_UNDER_DB);
    if under {
        return MeasureTold::new(
            TakeMeasure::Hum,
            Standing::Fair,
            dbfs(total),
            format!("A trace of {mains} Hz, under the noise."),
        );
    }
    let words = format!(
        "The mains can be heard, {mains} Hz and above: it comes from a cable, a dimmer or a laptop charger."
    );
    MeasureTold::new(TakeMeasure::Hum, Standing::Poor, dbfs(total), words)
        .action("Unplug the laptop charger, keep the microphone cable away from mains leads, and test again.")
}

fn dropouts(measured: &SoundMeasures) -> MeasureTold {
    let all: Vec<[f64; 2]> =
        measured.per_channel.iter().flat_map(|channel| channel.dropouts_s.clone()).collect();
    if all.is_empty() {
        return MeasureTold::new(TakeMeasure::Dropouts, Standing::Good, "none", "Nothing is missing.");
    }
    let named: Vec<String> = all.iter().take(3).map(|[at, _]| place(*at)).collect();
    let more = if all.len() > 3 { " and later" } else { "" };
    let words = format!(
        "Sound is missing at {}{more}: a slow card, a wireless link, or the USB port.",
        named.join(", ")
    );
    let count = if all.len() == 1 { "1 gap".to_owned() } else { format!("{} gaps", all.len()) };
    MeasureTold::new(TakeMeasure::Dropouts, Standing::Poor, count, words).action(
        "Use another card, port or cable; keep the transmitter in sight of its receiver; then test again.",
    )
}

fn channels(measured: &SoundMeasures) -> MeasureTold {
    let levels: Vec<f64> = measured.per_channel.iter().map(|channel| channel.rms_dbfs).collect();
    let most = levels.iter().copied().fold(f64::NEG_INFINITY, f64::max);
    let told = |standing, found: &str, words: String| {
        MeasureTold::new(TakeMeasure::Channels, standing, found, words)
    };
    if most < NO_SIGNAL_DBFS {
        return told(Standing::Poor, "no signal", "No microphone is heard: nothing is louder than an open input.".into())
            .action("Push the plug home, choose the microphone in the input menu, and look at its switch and battery.");
    }
    let [left, right] = levels.as_slice() else {
        return told(Standing::Good, "one", "One channel, as a voice needs.".into());
    };
    let weak = if left < right { "left" } else { "right" };
    let strong = if left < right { "right" } else { "left" };
    let (less, apart) = (left.min(*right), (left - right).abs());
    if less < DEAD_DBFS || apart > UNDER_DB {
        return told(Standing::Poor, "one is dead", format!("The {weak} channel is dead."))
            .action(format!("Take the {strong} channel alone in the edit, or plug the {weak} one in."));
    }
    match measured.correlation {
        Some(c) if c < TURNED => {
            let words = "One channel is the other upside down: as one channel they cancel each other.";
            told(Standing::Poor, "polarity reversed", words.into())
                .action("Use one of the channels alone in the edit.")
        }
        Some(c) if c > TWICE && apart <= ALIKE_DB => {
            told(Standing::Good, "dual mono", "The same signal twice, which is fine for a voice.".into())
        }
        _ if apart <= ALIKE_DB => {
            told(Standing::Good, "two", "Both channels are as loud as each other.".into())
        }
        _ => told(Standing::Fair, "two", format!("The {strong} channel is {} louder.", db(apart)))
            .action("Turn to the middle of the microphone, or use the louder channel alone."),
    }
}

fn offset(measured: &SoundMeasures) -> MeasureTold {
    let most = measured.per_channel.iter().map(|channel| channel.dc_offset.abs()).fold(0.0, f64::max);
    let found = format!("{} %", decimals(100.0 * most, 2));
    match most {
        o if o < OFFSET[0] => {
            MeasureTold::new(TakeMeasure::Offset, Standing::Good, found, "The wave is centred.")
        }
        o if o <= OFFSET[1] => MeasureTold::new(
            TakeMeasure::Offset,
            Standing::Fair,
            found,
            "The wave is a little off centre; a low cut at 80 Hz mends it.",
        ),
        _ => MeasureTold::new(
            TakeMeasure::Offset,
            Standing::Poor,
            found,
            "The wave is off centre: a fault of the input.",
        )
        .action("Try another input or another cable."),
    }
}

fn reverberation(measured: &SoundMeasures, plan: &Promise) -> MeasureTold {
    let promised = plan.rt_mid_s.map(|(seconds, _)| format!("{} s", decimals(seconds, 2)));
    let plain = |words: String| {
        MeasureTold::new(TakeMeasure::Reverberation, Standing::Plain, "not measured", words)
            .promised(promised.clone())
            .action("Wait half a second, clap once at your mouth, and stop two seconds later.")
    };
    let Some(rt) = &measured.rt else { return plain("There is no clap in the file.".into()) };
    let Some(mid) = rt.mid_s else {
        let why = rt.why_not.clone().unwrap_or_else(|| "the sound does not die away evenly".into());
        let about = rt.about_s.map_or(String::new(), |s| format!(" It is about {} s.", decimals(s, 2)));
        return plain(format!("The clap cannot be used: {why}.{about}"))
            .action("Clap three times, two seconds apart, at your mouth, after half a second of silence.");
    };
    let [low, good, most, poor] = RT_S;
    let standing = match mid {
        s if (good..=most).contains(&s) => Standing::Good,
        s if (low..=poor).contains(&s) => Standing::Fair,
        _ => Standing::Poor,
    };
    let room = match reverberation::words(mid) {
        "good" => "good for a voice",
        other => other,
    };
    let off = plan.rt_mid_s.filter(|(planned, _)| (mid / planned - 1.0).abs() > RT_OFF);
    let words = match off {
        Some((planned, _)) => format!(
            "The room is {room}, and the plan reckons with {} s: what is on its walls is not what the plan thinks.",
            decimals(planned, 2)
        ),
        None => format!("The room is {room}."),
    };
    let within = format!("{} s \u{b1} {}", decimals(mid, 2), decimals(0.1 * mid, 2));
    let told = MeasureTold::new(TakeMeasure::Reverberation, standing, within, words).promised(promised);
    if off.is_some() {
        return told.action(if rt.claps > 1 {
            "Take it as the room's measured time."
        } else {
            "Take it as the room's measured time; three claps in one file give a surer one."
        });
    }
    told
}

fn steadiness(measured: &SoundMeasures) -> MeasureTold {
    let Some(range) = measured.stability.range_db.filter(|_| measured.stability.parts > 1) else {
        return MeasureTold::new(
            TakeMeasure::Steadiness,
            Standing::Plain,
            "not measured",
            "It takes six seconds of speech to tell.",
        );
    };
    match range {
        r if r <= STEADY_DB[0] => MeasureTold::new(
            TakeMeasure::Steadiness,
            Standing::Good,
            db(range),
            "You are as loud at the end as at the beginning.",
        ),
        r if r <= STEADY_DB[1] => MeasureTold::new(
            TakeMeasure::Steadiness,
            Standing::Fair,
            db(range),
            "You move or turn away while you speak.",
        )
        .action("Keep your mouth at one distance, or wear the microphone."),
        _ => MeasureTold::new(
            TakeMeasure::Steadiness,
            Standing::Poor,
            db(range),
            "You leave the microphone while you speak.",
        )
        .action("Keep your mouth at one distance, or wear the microphone."),
    }
}

fn loudness(measured: &SoundMeasures) -> Option<MeasureTold> {
    let lufs = measured.integrated_lufs?;
    let words = match measured.channels {
        1 => format!(
            "One channel counted once: played on both sides it is {} LU louder.",
            decimals(DUAL_MONO_LU, 0)
        ),
        _ => "Both channels together.".to_owned(),
    };
    Some(MeasureTold::new(TakeMeasure::Loudness, Standing::Plain, format!("{} LUFS", signed(lufs, 1)), words))
}

fn length(measured: &SoundMeasures) -> Option<MeasureTold> {
    let [least, most] = LENGTH_S;
    let seconds = measured.duration_s;
    (seconds < least).then(|| {
        let words = format!("Short: {} to {} seconds tell more.", decimals(least, 0), decimals(most, 0));
        MeasureTold::new(TakeMeasure::Length, Standing::Plain, format!("{} s", decimals(seconds, 1)), words)
    })
}

/// Which microphone records cannot be proved from a file: signs that speak for another one, as likelihood.
fn microphone(measured: &SoundMeasures, channel: &ChannelMeasures, plan: &Promise) -> Option<MeasureTold> {
    let noisier = plan
        .snr_db
        .zip(channel.snr_db_a.filter(|_| channel.snr_reliable))
        .is_some_and(|(promised, found)| promised - found > SNR_UNDER_DB);
    let echo =
        measured.clap.and_then(|clap| clap.direct_to_reverberant_db).zip(plan.direct_to_reverberant_db);
    let far = echo.is_some_and(|(found, promised)| promised - found > ECHO_UNDER_DB)
        || measured
            .rt
            .as_ref()
            .and_then(|rt| rt.mid_s)
            .zip(plan.rt_mid_s)
            .is_some_and(|(found, (promised, _))| found > promised * (1.0 + RT_OFF));
    let pumps = measured.pumping_db.is_some_and(|rise| rise > PUMPING_DB);
    let signs: Vec<&str> = [
        (noisier, "it is far noisier than planned"),
        (far, "the room is heard more than planned"),
        (pumps, "the noise rises in pauses"),
    ]
    .into_iter()
    .filter_map(|(is, words)| is.then_some(words))
    .collect();
    let (standing, found) = match (noisier, signs.len()) {
        (true, 3) => (Standing::Poor, "likely the wrong one"),
        (true, 2) => (Standing::Fair, "perhaps the wrong one"),
        _ => return None,
    };
    let words = format!(
        "This may be the camera's own microphone: {}. A file alone cannot prove it.",
        signs.join(if signs.len() == 2 { " and " } else { ", " })
    );
    Some(MeasureTold::new(TakeMeasure::Microphone, standing, found, words).action(
        "Scratch the microphone while it records: the file must show it. Else push the plug home, choose the input, look at the battery and at the adapter.",
    ))
}
