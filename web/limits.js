// Cuts the limits of numbers that people type out of the OpenAPI document into src/api/limits.ts.
import { readFileSync, writeFileSync } from "node:fs";

const api = JSON.parse(readFileSync("src/api/openapi.json", "utf8"));
const wanted = [
  "Room",
  "Opening",
  "Slope",
  "Beam",
  "Leg",
  "Mains",
  "Person",
  "Recording",
  "GearMonitor",
  "GearBackdrop",
  "GearThing",
  "Surface",
  "Money",
  "BoughtFor",
  "Common",
  "GearCamera",
  "GearLens",
  "GearLight",
  "GearPanel",
  "GearSupport",
  "Camera",
  "Light",
  "Cloth",
  "Seat",
  "Noise",
  "Place",
  "GearTreatment",
  "GearMicrophone",
];

/** Properties of a schema, its allOf parts merged in. */
function properties(schema) {
  const own = schema.properties ?? {};
  return Object.assign({}, ...(schema.allOf ?? []).map((part) => (part.$ref ? {} : properties(part))), own);
}

const limits = {};
for (const name of wanted) {
  for (const [field, schema] of Object.entries(properties(api.components.schemas[name]))) {
    if (schema.minimum !== undefined || schema.maximum !== undefined) {
      limits[`${name}.${field}`] = [
        schema.minimum ?? schema.exclusiveMinimum ?? 0,
        schema.maximum ?? schema.exclusiveMaximum ?? 1e9,
      ];
    }
  }
}
const body = Object.keys(limits)
  .sort()
  .map((key) => `  ${JSON.stringify(key)}: [${limits[key].join(", ")}],`)
  .join("\n");
writeFileSync(
  "src/api/limits.ts",
  `// generated from openapi.json by limits.js\n/** Least and greatest accepted value by type and field. */\nexport const limits = {\n${body}\n} as const satisfies Record<string, readonly [number, number]>;\n`,
);
