// Readings that say what a change of light does, in the order that they are told.

export const COMPARED = [
  "light.face.illuminance_lx",
  "light.face.exposure_stops",
  "light.face.ratio",
  "light.key.azimuth_deg",
  "light.key.elevation_deg",
  "light.key.angular_size_deg",
  "light.face.socket_stops",
  "light.background.stops",
  "light.face.cct_k",
];
