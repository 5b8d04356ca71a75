import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Inks } from "@/paper/inks";

export { paperFonts } from "../../scripts/paper-fonts";

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
