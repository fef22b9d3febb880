// Directions of imports: no circle anywhere, and folders by the order of the work use only what lies below them.

/** The steps of the work. */
const STEPS = ["answers", "room", "you", "shot", "light", "day", "sound", "money", "card", "take"];

/** From the bottom up; a folder uses itself and those above its line. Folders on one line do not use each other, except where `among`. */
const LAYERS = [
  ["api", "units"],
  ["ui"],
  ["table"],
  ["drawing"],
  ["picture"],
  ["reading", "schools", "things", "shelf"],
  ["compare", "floor"],
  STEPS,
  ["corner", "corners", "start"],
  ["kit"],
];

const path = (folders) => `^src/(${folders.join("|")})/`;

const upwards = LAYERS.slice(0, -1).map((folders, index) => ({
  name: `up-from-${folders[0]}`,
  severity: "error",
  comment: "Imports point one way: down the list of layers.",
  from: { path: path(folders), pathNot: "\\.test\\.tsx?$" },
  to: { path: path(LAYERS.slice(index + 1).flat()) },
}));

/** Steps of the work do not use each other. */
const aside = STEPS.map((folder) => ({
  name: `aside-from-${folder}`,
  severity: "error",
  from: { path: path([folder]) },
  to: { path: path(STEPS.filter((other) => other !== folder)) },
}));

module.exports = {
  forbidden: [
    { name: "no-circles", severity: "error", from: {}, to: { circular: true } },
    {
      name: "no-orphans",
      severity: "error",
      comment: "A file that nobody uses is dead.",
      from: { orphan: true, pathNot: ["\\.d\\.ts$", "\\.test\\.tsx?$", "^src/main\\.tsx$"] },
      to: {},
    },
    ...upwards,
    ...aside,
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    doNotFollow: { path: "node_modules" },
    enhancedResolveOptions: { extensions: [".ts", ".tsx", ".js"] },
  },
};
