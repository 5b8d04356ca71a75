import { isValidElement, type ReactNode } from "react";
import { equal } from "@/core/kernel";

/** Lists and plain values are compared by what is in them; a thing of a class is the same only if it is one. */
const isPlain = (value: unknown): boolean =>
  typeof value === "object" &&
  value !== null &&
  (Array.isArray(value) || Object.getPrototypeOf(value) === Object.prototype);

/**
 * Whether two pieces of a page show the same: the same elements with the same values in them. Functions are the
 * same only when they are one, so a piece with a handler made anew is another.
 */
export function sameNode(a: ReactNode, b: ReactNode): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((part: ReactNode, i) => sameNode(part, b[i] as ReactNode));
  if (!isValidElement<Record<string, unknown>>(a) || !isValidElement<Record<string, unknown>>(b))
    return false;
  return a.type === b.type && a.key === b.key && sameProps(a.props, b.props);
}

function sameProps(a: Readonly<Record<string, unknown>>, b: Readonly<Record<string, unknown>>): boolean {
  const keys = Object.keys(a);
  return (
    keys.length === Object.keys(b).length &&
    keys.every((key) => {
      if (key === "children") return sameNode(a[key] as ReactNode, b[key] as ReactNode);
      return a[key] === b[key] || (isPlain(a[key]) && isPlain(b[key]) && equal(a[key], b[key]));
    })
  );
}
