"use client";

import type { LabelForm } from "@/paper/label-sheets";
import { Line } from "../Line";

/** The measures of a form of one's own, as they are typed. */
const OWN_FIELDS = [
  ["pageWidth", "Sheet, width mm"],
  ["pageHeight", "Sheet, height mm"],
  ["columns", "Labels side by side"],
  ["rows", "Labels one below another"],
  ["width", "Label, width mm"],
  ["height", "Label, height mm"],
  ["left", "From the left edge mm"],
  ["top", "From the top edge mm"],
  ["across", "Blank between columns mm"],
  ["down", "Blank between rows mm"],
] as const;
type OwnField = (typeof OWN_FIELDS)[number][0];
export type OwnForm = Readonly<Record<OwnField, string>>;

/** As the first of the common forms has it. */
export const USUAL_FORM: OwnForm = {
  pageWidth: "210",
  pageHeight: "297",
  columns: "3",
  rows: "8",
  width: "70",
  height: "37",
  left: "0",
  top: "0.5",
  across: "0",
  down: "0",
};

const number = (text: string): number => (text.trim() === "" ? Number.NaN : Number(text.replace(",", ".")));

/** What was typed, as a form; its fault is asked of it. */
export function formOf(own: OwnForm): LabelForm {
  const read = (field: OwnField) => number(own[field]);
  const whole = (field: OwnField) => (Number.isInteger(read(field)) ? read(field) : Number.NaN);
  return {
    page: [read("pageWidth"), read("pageHeight")],
    columns: whole("columns"),
    rows: whole("rows"),
    width: read("width"),
    height: read("height"),
    left: read("left"),
    top: read("top"),
    gap: [read("across"), read("down")],
  };
}

/** The measures of labels that are none of the common ones. */
export const LabelFormFields = ({ own, onChange }: { own: OwnForm; onChange: (own: OwnForm) => void }) => (
  <div className="grid grid-cols-2 gap-2 px-4 pt-2">
    {OWN_FIELDS.map(([field, label]) => (
      <Line
        key={field}
        label={label}
        value={own[field]}
        most={8}
        onChange={(text) => onChange({ ...own, [field]: text })}
      />
    ))}
  </div>
);
