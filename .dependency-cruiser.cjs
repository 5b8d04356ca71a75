/** The walls of docs/architecture.md, by file and transitively. */
const only = (name, from, allowed) => ({
  name,
  severity: "error",
  from: { path: from, pathNot: "\\.test\\.tsx?$" },
  to: { path: "^src/", pathNot: allowed },
});

module.exports = {
  forbidden: [
    {
      name: "core-is-pure",
      severity: "error",
      from: { path: "^src/core", pathNot: "\\.test\\.ts$" },
      to: { pathNot: "^src/core|node_modules/zod/" },
    },
    only("workers-know-core", "^src/workers/", "^src/(workers|core)"),
    only("application-knows-core", "^src/application/", "^src/(application|core)"),
    only("storage-knows-application", "^src/storage/", "^src/(storage|application|core)"),
    only("http-knows-application", "^src/http/", "^src/(http|application|core|composition|config)"),
    only("ui-knows-core", "^src/ui/", "^src/(ui|core|workers|http/contracts)"),
    only("app-is-thin", "^src/app/", "^src/(app/|ui|http)"),
    { name: "no-circles", severity: "error", from: {}, to: { circular: true } },
  ],
  options: {
    // The compiler counts this import into every file because of the jsx setting; no file of the core has a tag in it.
    exclude: { path: "node_modules/react/jsx-runtime" },
    doNotFollow: { path: "node_modules" },
    tsConfig: { fileName: "tsconfig.json" },
    tsPreCompilationDeps: false,
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "require", "node", "default"],
    },
  },
};
