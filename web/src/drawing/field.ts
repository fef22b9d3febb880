// What is computed at every place, to lay under the drawings.
import type { Schemas } from "../api/client";

export type FieldName = "light" | "sound" | "shot";
export type Area = Schemas["Area"];
