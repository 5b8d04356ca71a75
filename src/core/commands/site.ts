import { formatPrefix, type Prefix6 } from "../address";
import { diff, entityOf, nameOf, type Kind, type Line, type Plan, PlanIndex, type Site } from "../plan";
import {
  addKeptClear as addKeptClearTo,
  addLine as addLineTo,
  addTemplate as addTemplateTo,
  editLine,
  editLineText,
  editPaper as editPaperOf,
  editSite as editSiteText,
  editTemplate as editTemplateOf,
  removeKeptClear as removeKeptClearFrom,
  removeLine as removeLineFrom,
  removeTemplate as removeTemplateFrom,
  setConventions as setConventionsOf,
  setOutside,
  siteFieldText,
  type LineField,
  type OutsideField,
  type PaperField,
  type SiteField,
} from "../planners";
import { command } from "./command";
import { chose, wrote } from "./says";

export const editSite = command<{ readonly field: SiteField; readonly text: string }>("edit-site", {
  says: ({ field, text }) => wrote("Site", field, text),
  run: (context, { field, text }) => editSiteText(context, field, text),
});

export const setSiteKind = command<{ readonly kind: Site["kind"] }>("set-site-kind", {
  says: ({ kind }, index) => chose(index, "Site", { kind }),
  run: ({ edits, index }, { kind }) => edits.patch("site", index.plan.site.id, { kind }),
});

export const setConventions = command<Partial<Site["conventions"]>>("set-conventions", {
  says: (fields, index) => chose(index, "Site", fields),
  run: (context, fields) => setConventionsOf(context, fields),
});

export const editPaper = command<{ readonly field: PaperField; readonly text: string }>("edit-paper", {
  says: ({ field, text }) => wrote("Papers", field, text.replace(/\s+/g, " ")).slice(0, 120),
  run: (context, { field, text }) => editPaperOf(context, field, text),
  // The text itself stands in the change.
  log: ({ field }) => ({ field }),
});

export const addUniqueLocal = command<{ readonly prefix: Prefix6 }>("add-unique-local", {
  says: ({ prefix }) => `IPv6 block ${formatPrefix(prefix)}, drawn at random`,
  run: (context, { prefix }) =>
    editSiteText(
      context,
      "blocks",
      `${siteFieldText(context.index.plan.site, "blocks")} ${formatPrefix(prefix)}`,
    ),
  log: ({ prefix }) => ({ prefix: formatPrefix(prefix) }),
});

/** A whole plan in place of this one; the site stays the one it is. */
export const importPlan = command<{ readonly file: string; readonly plan: Plan }>("import-plan", {
  says: ({ file }) => `Imported the plan file ${file}`.slice(0, 120),
  run: ({ edits, index }, { plan }) => {
    const site = { ...plan.site, id: index.plan.site.id };
    for (const { kind, id, after } of diff(index.plan, { ...plan, site })) {
      if (after !== null) edits.put(kind, after as never);
      else if (kind !== "site") edits.remove(kind, id);
    }
  },
  log: ({ file }) => ({ file }),
});

interface Thing {
  readonly kind: Kind;
  readonly id: string;
}
/** What a thing is called, or was called while it was there. */
const nameThen = (index: PlanIndex, earlier: Plan, { kind, id }: Thing): string =>
  nameOf(entityOf(index.plan, kind, id) === undefined ? PlanIndex.of(earlier) : index, kind, id);

/**
 * Some things as an earlier state of the plan had them: what has changed is as it was, what is gone is there
 * again, what came since goes.
 */
export const bringBack = command<{
  /** What the earlier state is called: "A Offer". */
  readonly from: string;
  readonly earlier: Plan;
  readonly things: readonly Thing[];
}>("bring-back", {
  says: ({ from, earlier, things }, index) => {
    const [first] = things;
    const others = things.length > 1 ? ` and ${things.length - 1} more` : "";
    const what = first === undefined ? "nothing" : `${nameThen(index, earlier, first)}${others}`;
    return `As in ${from}: ${what}`.slice(0, 120);
  },
  run: ({ edits }, { earlier, things }) => {
    for (const { kind, id } of things) {
      const was = entityOf(earlier, kind, id);
      if (was !== undefined) edits.put(kind, was as never);
      else if (kind !== "site") edits.remove(kind, id);
    }
  },
  // What is brought back may be gone by now: its id stands for nothing in the plan.
  log: ({ from, things }) => ({ from, things: things.length }),
});

export const addKeptClear = command<{ readonly text: string }>("add-kept-clear", {
  says: ({ text }) => `Kept clear of ${text}`,
  run: (context, { text }) => addKeptClearTo(context, text),
});

export const removeKeptClear = command<{ readonly prefix: string }>("remove-kept-clear", {
  says: ({ prefix }) => `${prefix} need not be kept clear any more`,
  run: (context, { prefix }) => removeKeptClearFrom(context, prefix),
});

interface OfLine {
  readonly line: string;
}

export const addLine = command<{ readonly name: string }>("add-line", {
  says: ({ name }) => `Added ${name}`,
  run: (context, { name }) => addLineTo(context, name),
});

export const removeLine = command<OfLine>("remove-line", {
  says: ({ line }, index) => `Removed ${nameOf(index, "line", line)}`,
  run: (context, { line }) => removeLineFrom(context, line),
});

export const setLine = command<
  OfLine & {
    readonly fields: Partial<
      Pick<Line, "name" | "access" | "addressing" | "carrierNat" | "providerBox" | "dynamicName">
    >;
  }
>("set-line", {
  says: ({ line, fields }, index) => chose(index, nameOf(index, "line", line), fields),
  run: (context, { line, fields }) => editLine(context, line, fields),
});

export const editLineField = command<OfLine & { readonly field: LineField; readonly text: string }>(
  "edit-line",
  {
    says: ({ line, field, text }, index) => wrote(nameOf(index, "line", line), field, text),
    run: (context, { line, field, text }) => editLineText(context, line, field, text),
  },
);

export const editOutside = command<OfLine & { readonly field: OutsideField; readonly text: string }>(
  "edit-outside",
  {
    says: ({ line, field, text }, index) => wrote(nameOf(index, "line", line), field, text),
    run: (context, { line, field, text }) => setOutside(context, line, field, text),
  },
);

export const addTemplate = command<{
  readonly name: string;
  readonly ending: string;
  readonly text: string;
}>("add-template", {
  says: ({ name }) => `Template ${name}`,
  run: (context, { name, ending, text }) => addTemplateTo(context, name, ending, text),
  log: ({ name, ending }) => ({ name, ending }),
});

interface OfTemplate {
  readonly template: string;
}

export const writeTemplate = command<OfTemplate & { readonly text: string }>("write-template", {
  says: ({ template }, index) => `Template ${nameOf(index, "template", template)} rewritten`,
  run: (context, { template, text }) => editTemplateOf(context, template, { text }),
  log: ({ template }) => ({ template }),
});

export const editTemplate = command<
  OfTemplate & { readonly fields: { readonly name?: string; readonly ending?: string } }
>("edit-template", {
  says: ({ template, fields }, index) =>
    chose(index, `Template ${nameOf(index, "template", template)}`, fields),
  run: (context, { template, fields }) => editTemplateOf(context, template, fields),
});

export const removeTemplate = command<OfTemplate>("remove-template", {
  says: ({ template }, index) => `Removed the template ${nameOf(index, "template", template)}`,
  run: (context, { template }) => removeTemplateFrom(context, template),
});
