import { readFileSync } from "node:fs";
import { join } from "node:path";
import { must } from "../src/core/kernel";
import { FONT_FILES, type FontFiles } from "../src/paper/pdf";

/** The fonts of paper, read from the packages that they come in. */
export const paperFonts = (): FontFiles =>
  Object.fromEntries(
    FONT_FILES.map((name) => {
      const family = must(/^(atkinson-hyperlegible-(?:next|mono)|noto-sans)-/.exec(name)?.[1], name);
      const file = join("node_modules", "@fontsource", family, "files", name);
      return [name, readFileSync(file).toString("base64")];
    }),
  );
