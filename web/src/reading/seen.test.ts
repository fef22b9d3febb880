// Which findings bring pictures: those of light and frame, the eyes where it is about them, none of what is heard or paid.
import { describe, expect, it } from "vitest";

import { seenIn } from "./seen";

describe("where a finding is seen", () => {
  it.each([
    "light.key.glare_percent",
    "light.face.socket_stops",
    "light.key.nose_shadow_mm",
    "shot.seat.gaze_deg",
  ])("%s: at the eyes", (id) => expect(seenIn(id)).toBe("eyes"));

  it.each([
    "legal.picture.key",
    "legal.picture.back",
    "light.key.elevation_deg",
    "light.face.ratio",
    "light.screen.spill_stops",
    "light.background.stops",
    "light.back.missing",
    "shot.frame.headroom_fraction",
    "shot.background.blur_percent",
    "shot.cloth.keyed",
  ])("%s: in the whole picture", (id) => expect(seenIn(id)).toBe("whole"));

  it.each([
    "sound.room.rt_mid_s",
    "microphone.missing",
    "shot.recording.session",
    "legal.exit.person",
    "legal.support.key",
    "light.key.hot",
  ])("%s: not", (id) => expect(seenIn(id)).toBeNull());
});
