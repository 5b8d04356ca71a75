/** A text as a host name's label (RFC 1123 section 2.1): lower-case letters, digits and hyphens, none at either end. Empty when nothing is left. */
export const asLabel = (text: string): string =>
  text.normalize("NFD").replace(/[\u0300-\u036f]/g, "").toLowerCase().replace(/['’]/g, "").replace(/[^a-z0-9]+/g, "-").replace(/^-+|-+$/g, "");

const HOST_NAME = /^[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?$/i;

/** Whether a name can stand as one label of a host name as it is. */
export const isHostName = (name: string): boolean => HOST_NAME.test(name);
