// Who may do what: a role is held everywhere, in a customer's folder or on one site. Of several that apply the
// highest counts, so that a role is never taken away by giving another.

/** From the least to the most: each may do what those before it may. */
export const ROLES = ["viewer", "field", "editor", "owner"] as const;
export type Role = (typeof ROLES)[number];

/** Where a role holds. */
export type Scope =
  | { readonly kind: "all" }
  | { readonly kind: "customer"; readonly id: string }
  | { readonly kind: "site"; readonly id: string };

export interface Grant {
  readonly on: Scope;
  readonly role: Role;
}

/** Whether a role is that one or a higher one; null is no role at all. */
export const reaches = (role: Role | null, needed: Role): boolean =>
  role !== null && ROLES.indexOf(role) >= ROLES.indexOf(needed);

/** The highest of some roles; null without any. */
export const highest = (roles: readonly Role[]): Role | null =>
  roles.reduce<Role | null>((best, role) => (reaches(best, role) ? best : role), null);

/** Whether two places are the same. */
export const isSameScope = (a: Scope, b: Scope): boolean =>
  a.kind === b.kind && (a.kind === "all" || (b.kind !== "all" && a.id === b.id));
