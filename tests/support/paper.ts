import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { must } from "@/core/kernel";
import type { Inks } from "@/paper/inks";
import { FONT_FILES, type FontFiles } from "@/paper/pdf";

/** The fonts of paper, read from the packages that they come in. */
export const paperFonts = (): FontFiles =>
  Object.fromEntries(
    FONT_FILES.map((name) => {
      const font = must(/^(atkinson-hyperlegible-(?:next|mono)|noto-sans)-/.exec(name)?.[1], name);
      const file = join("node_modules", "@fontsource", font, "files", name);
      return [name, readFileSync(file).toString("base64")];
    }),
  );

export const INKS: Inks = {
  blue: { base: "#2a62a6", on: "#ffffff" },
  yellow: { base: "#f3d24b", on: "#0b0e11" },
};

/** What a program that reads PDF files prints of one. */
export function readPdf(program: "pdftotext" | "pdfinfo", bytes: Uint8Array, ...options: string[]): string {
  const dir = mkdtempSync(join(tmpdir(), "paper-"));
  try {
    const file = join(dir, "a.pdf");
    writeFileSync(file, bytes);
    return execFileSync(program, [...options, file, ...(program === "pdftotext" ? ["-"] : [])], {
      maxBuffer: 2 ** 26,
    }).toString("utf8");
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}
