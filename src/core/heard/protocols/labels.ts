import type { Octets } from "../octets";

/**
 * Names one after the other, each as labels with their lengths (RFC 1035 section 3.1); one that is cut off
 * counts as far as it goes.
 */
export function namesIn(field: Octets): string[] {
  const names: string[] = [];
  let labels: string[] = [];
  for (let at = 0; at < field.length;) {
    const length = field.u8(at);
    if (length > 0) labels.push(field.from(at + 1, length).text());
    else if (labels.length > 0) {
      names.push(labels.join("."));
      labels = [];
    }
    at += 1 + length;
  }
  if (labels.length > 0) names.push(labels.join("."));
  return names;
}
