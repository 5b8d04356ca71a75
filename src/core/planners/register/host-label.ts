/**
 * A text as a host name's label (RFC 1123 section 2.1): lower-case letters, digits and hyphens, none at
 * either end. Empty when nothing is left.
 */
export const asLabel = (text: string): string =>
  text
    .normalize("NFD")
    .replace(/[\u0300-\u036f]/g, "")
    .toLowerCase()
    .replace(/['’]/g, "")
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "");

const HYPHEN = 45;
const isLetterOrDigit = (code: number): boolean =>
  (code >= 97 && code <= 122) || (code >= 65 && code <= 90) || (code >= 48 && code <= 57);

/**
 * Whether a name can stand as one label of a host name as it is. Walked by code: every host of an estate is
 * asked at each edit of a name.
 */
export function isHostName(name: string): boolean {
  const last = name.length - 1;
  if (last < 0 || last > 62) return false;
  for (let i = 0; i <= last; i += 1) {
    const code = name.charCodeAt(i);
    if (!isLetterOrDigit(code) && (code !== HYPHEN || i === 0 || i === last)) return false;
  }
  return true;
}
