/** The walls of docs/architecture.md, by file and transitively. */
const only = (name, from, allowed) => ({
  name,
  severity: "error",
  from: { path: from, pathNot: "\\.test\\.tsx?$" },
  to: { path: "^src/", pathNot: allowed },
});

/** The core's folders from the ground up: each imports only from those before it, through their `index.ts`. */
const CORE = [
  "kernel",
  "address",
  "heard",
  "plan",
  "catalogue",
  "fabric",
  "cabling",
  "spanning-tree",
  "forwarding",
  "dhcp",
  "policy",
  "rules",
  "routing",
  "walls",
  "power",
  "wireless",
  "planners",
  "survey",
  "places",
  "repairs",
  "probe",
  "reach",
  "failure",
  "ways-in",
  "guards",
  "checks",
  "register",
  "sheets",
  "device-sheet",
  "runbook",
  "commissioning",
  "listening",
  "diagnosis",
  "drills",
  "capture",
  "formats",
  "comparison",
  "records",
  "labels",
  "pack",
  "readback",
  "commands",
  "testing",
];
const layers = CORE.map((folder, at) => ({
  name: `core-${folder}-knows-what-lies-below`,
  severity: "error",
  from: { path: `^src/core/${folder}/`, pathNot: "\\.test\\.ts$" },
  to: { path: "^src/core/", pathNot: `^src/core/(${CORE.slice(0, at + 1).join("|")})/` },
}));
const NOT_A_TEST = "\\.test\\.tsx?$|^src/core/testing/";

module.exports = {
  forbidden: [
    {
      name: "core-is-pure",
      severity: "error",
      from: { path: "^src/core", pathNot: "\\.test\\.ts$" },
      to: { pathNot: "^src/core|node_modules/zod/" },
    },
    only("workers-know-core", "^src/workers/", "^src/(workers|core|paper)"),
    only("application-knows-core", "^src/application/", "^src/(application|core)"),
    only("storage-knows-application", "^src/storage/", "^src/(storage|application|core)"),
    only("http-knows-application", "^src/http/", "^src/(http|application|core|composition|config)"),
    only("paper-knows-core", "^src/paper/", "^src/(paper|core)"),
    only("ui-knows-core", "^src/ui/", "^src/(ui|core|paper|workers|http/contracts|service-worker/kept)"),
    only("service-worker-knows-nothing", "^src/service-worker/", "^src/service-worker/"),
    only("wire-knows-application", "^src/wire/", "^src/(wire|application|core)"),
    only("stand-in-knows-core", "^src/stand-in/", "^src/(stand-in|core)"),
    only("app-is-thin", "^src/app/", "^src/(app/|ui|http)"),
    ...layers,
    {
      name: "core-folders-by-their-index",
      severity: "error",
      from: { path: "^src/core/([^/]+)/", pathNot: NOT_A_TEST },
      to: { path: "^src/core/[^/]+/", pathNot: "^src/core/$1/|^src/core/[^/]+/index\\.ts$" },
    },
    {
      name: "core-by-its-indexes",
      severity: "error",
      from: { path: "^src/(?!core/)", pathNot: "\\.test\\.tsx?$" },
      to: { path: "^src/core/[^/]+/", pathNot: "^src/core/[^/]+/index\\.ts$" },
    },
    {
      name: "testing-is-for-tests",
      severity: "error",
      from: { path: "^src/", pathNot: NOT_A_TEST },
      to: { path: "^src/core/testing/" },
    },
    { name: "no-circles", severity: "error", from: {}, to: { circular: true } },
  ],
  options: {
    // The compiler counts this import into every file because of the jsx setting; no file of the core has a
    // tag in it.
    exclude: { path: "node_modules/react/jsx-runtime" },
    doNotFollow: { path: "node_modules" },
    tsConfig: { fileName: "tsconfig.json" },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "require", "node", "default"],
    },
  },
};
