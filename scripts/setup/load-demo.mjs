// Loads the made-up sites once: a site that was deleted since does not come back until the demo is reset.
import { join } from "node:path";
import { connectTo } from "./connection.mjs";
import { lastLines, runProgram } from "./run-program.mjs";
import { Problem, say, stage } from "./stage.mjs";

async function isLoaded(url) {
  const connection = await connectTo(url);
  try {
    const [rows] = await connection.query("SELECT 1 FROM setting WHERE name = 'demo-loaded'");
    return rows.length > 0;
  } finally {
    await connection.end();
  }
}

export async function loadDemo(root, url) {
  if (await isLoaded(url)) {
    say("  the demo sites are there, with all that was changed in them");
    return;
  }
  await stage("loading the demo sites", async () => {
    const { code, output } = await runProgram(
      process.execPath,
      ["--conditions=react-server", "--import", "tsx", join(root, "scripts", "write-demo.mts")],
      {
        cwd: root,
        env: { ...process.env, DATABASE_URL: url },
      },
    );
    if (code !== 0) throw new Problem(`The demo sites could not be loaded:\n${lastLines(output, 20)}`);
  });
}
