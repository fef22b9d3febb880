// What each school is called, and which change the picture.

export const SCHOOL_NAMES: Record<string, string> = {
  placement: "Where the eyes are in the picture",
  lens: "Lens and distance",
  aperture: "Aperture",
  "camera-height": "Camera height",
  lights: "How many lights",
  source: "Kind of key",
  microphone: "Microphone",
  spending: "What to buy first",
  "frame-rate": "Frame rate",
  monitor: "How you see yourself",
  window: "The window",
  record: "Where sound is recorded",
  rig: "What the gear stands on",
  background: "What lights the background",
};

/** Their choices are seen in the picture. */
export const SEEN = [
  "placement",
  "lens",
  "aperture",
  "camera-height",
  "lights",
  "source",
  "microphone",
  "monitor",
  "window",
  "background",
];
