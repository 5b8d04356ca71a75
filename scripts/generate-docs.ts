// Writes the documents that are made from the code: the lists of findings and of refusals, and the plan
// file's JSON Schema.
import { writeFileSync } from "node:fs";
import { CHECKS } from "../src/core/checks";
import { planFileJsonSchema } from "../src/core/formats";
import { ERRORS } from "../src/http/errors";

const findings = CHECKS.map(
  (check) =>
    `## \`${check.code}\`\n${check.severity} · ${check.family}\n\n**${check.title}.** ${check.why}\n`,
);
writeFileSync(
  "docs/findings.md",
  `# Findings\nMade by \`npm run docs\` from \`src/core/checks\`; ` +
    `a test compares the two.\n\n${findings.join("\n")}`,
);
writeFileSync("docs/plan.schema.json", `${JSON.stringify(planFileJsonSchema(), null, 1)}\n`);
const refusals = Object.entries(ERRORS).map(
  ([code, { status, text }]) => `| \`${code}\` | ${status} | ${text} |`,
);
writeFileSync(
  "docs/errors.md",
  `# Refusals\nMade by \`npm run docs\` from \`src/http/errors.ts\`; a test compares ` +
    "the two. Where a use case has a better sentence, it takes the place of the one " +
    `here.\n\n| code | status | sentence |\n| --- | --- | --- |\n${refusals.join("\n")}\n`,
);
