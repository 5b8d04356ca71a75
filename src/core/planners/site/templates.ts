import type { EditContext, Refusal } from "../planner";

/** A new template of the user's own. */
export function addTemplate(
  { edits, ids }: EditContext,
  name: string,
  ending: string,
  text: string,
): Refusal {
  const title = name.trim();
  if (title === "" || title.length > 80) return "Give the template a name of 1 to 80 characters.";
  if (edits.all("template").some((template) => template.name.toLowerCase() === title.toLowerCase()))
    return `There is a template called ${title} already; give this one another name.`;
  edits.put("template", { id: ids(), name: title, ending, text });
  return null;
}

export function editTemplate(
  { edits }: Pick<EditContext, "edits">,
  id: string,
  fields: { readonly name?: string; readonly ending?: string; readonly text?: string },
): Refusal {
  const name = fields.name?.trim();
  if (name === "") return "A template needs a name.";
  if (
    name !== undefined &&
    edits
      .all("template")
      .some((template) => template.id !== id && template.name.toLowerCase() === name.toLowerCase())
  )
    return `There is a template called ${name} already; give this one another name.`;
  edits.patch("template", id, { ...fields, ...(name === undefined ? {} : { name }) });
  return null;
}

export function removeTemplate({ edits }: Pick<EditContext, "edits">, id: string): void {
  edits.remove("template", id);
}
