import type { Bench, Refusal } from "../planner";

/** A new template of the user's own. */
export function addTemplate({ draft, ids }: Bench, name: string, ending: string, text: string): Refusal {
  const title = name.trim();
  if (title === "" || title.length > 80) return "Give the template a name of 1 to 80 characters.";
  if (draft.all("template").some((one) => one.name.toLowerCase() === title.toLowerCase()))
    return `There is a template called ${title} already; give this one another name.`;
  draft.put("template", { id: ids(), name: title, ending, text });
  return null;
}

export function editTemplate(
  { draft }: Pick<Bench, "draft">,
  id: string,
  fields: { readonly name?: string; readonly ending?: string; readonly text?: string },
): Refusal {
  const name = fields.name?.trim();
  if (name === "") return "A template needs a name.";
  if (
    name !== undefined &&
    draft.all("template").some((one) => one.id !== id && one.name.toLowerCase() === name.toLowerCase())
  )
    return `There is a template called ${name} already; give this one another name.`;
  draft.patch("template", id, { ...fields, ...(name === undefined ? {} : { name }) });
  return null;
}

export function removeTemplate({ draft }: Pick<Bench, "draft">, id: string): void {
  draft.remove("template", id);
}
