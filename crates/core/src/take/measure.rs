//! A measure in words: which, how it stands, as found, as planned, what it means, the one thing to do.

use serde::Serialize;
use utoipa::ToSchema;

use crate::reading::Standing;

macro_rules! measures {
    ($($name:ident = $label:literal, $good:expr;)+) => {
        /// What was measured of a recording or of a still.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, ToSchema)]
        #[serde(rename_all = "kebab-case")]
        #[allow(missing_docs)]
        pub enum TakeMeasure {
            $($name,)+
        }

        impl TakeMeasure {
            /// Its name, and what is good of it; none of what has no band.
            fn told(self) -> (&'static str, Option<&'static str>) {
                match self { $(TakeMeasure::$name => ($label, $good),)+ }
            }
        }
    };
}

measures! {
    Microphone = "Which microphone", None;
    Peak = "Loudest word", Some("\u{2212}12 to \u{2212}6 dBFS");
    Clipping = "Clipping", Some("none");
    SpeechToNoise = "Speech over noise", Some("30 dB and more");
    Noise = "Noise", Some("\u{2212}60 dBFS(A) and less");
    Hum = "Mains hum", Some("none");
    Dropouts = "Dropouts", Some("none");
    Channels = "Channels", Some("one, or two within 1 dB");
    Offset = "DC offset", Some("under 0.1 %");
    Reverberation = "Reverberation", Some("0.20 to 0.40 s");
    Steadiness = "Steadiness", Some("3 dB and less");
    Loudness = "Loudness", None;
    Length = "Length", Some("10 to 20 s");
    Camera = "Camera", Some("within 3 cm, 4 % of the distance and 1\u{b0}");
    Headroom = "Headroom", Some("within 3 % of the height");
    Face = "Face", Some("within 3 % of the width");
    Level = "Level", Some("within 0.5\u{b0}");
    Exposure = "Exposure of the face", Some("within half a stop");
    Background = "Background", Some("within half a stop");
    WhiteBalance = "White balance", Some("within 8 mired");
    Burnt = "Burnt out", Some("up to 1 %, and 0.2 % of the face");
    Screen = "Screen", Some("up to a third of a stop");
}

/// One measure in words.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MeasureTold {
    /// Which.
    pub measure: TakeMeasure,
    /// Its name.
    pub label: &'static str,
    /// How it stands in its band.
    pub standing: Standing,
    /// As measured.
    pub found: String,
    /// As planned.
    pub promised: Option<String>,
    /// What is good; none of what has no band.
    pub good: Option<&'static str>,
    /// What it means, and what it comes from.
    pub sentence: String,
    /// The one thing to do.
    pub action: Option<String>,
}

impl MeasureTold {
    pub(super) fn new(
        measure: TakeMeasure,
        standing: Standing,
        found: impl Into<String>,
        sentence: impl Into<String>,
    ) -> Self {
        let (label, good) = measure.told();
        let (found, sentence) = (found.into(), sentence.into());
        Self { measure, label, standing, found, promised: None, good, sentence, action: None }
    }

    pub(super) fn promised(mut self, words: impl Into<Option<String>>) -> Self {
        self.promised = words.into();
        self
    }

    pub(super) fn action(self, words: impl Into<String>) -> Self {
        self.action_if(Some(words.into()))
    }

    pub(super) fn action_if(mut self, words: Option<String>) -> Self {
        self.action = words;
        self
    }
}
