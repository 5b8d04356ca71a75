const ENTITIES: Readonly<Record<string, string>> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" };
const SIGNS: Readonly<Record<string, string>> = Object.fromEntries(
  Object.entries(ENTITIES).map(([sign, entity]) => [entity, sign]),
);

/** A text as it stands in markup (W3C XML 1.0, section 2.4). */
export const escaped = (text: string): string => text.replace(/[&<>"]/g, (sign) => ENTITIES[sign] ?? sign);
/** What such markup says. */
export const plain = (markup: string): string =>
  markup.replace(/&(?:amp|lt|gt|quot);/g, (entity) => SIGNS[entity] ?? entity);

/** A number as it stands in a picture: exact to a thousandth. */
export const short = (value: number): string => String(Math.round(value * 1000) / 1000);
