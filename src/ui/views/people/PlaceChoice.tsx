"use client";

import { ROLES, type PeopleAnswer, type Role, type Scope } from "@/http/contracts/answers";
import { placeKey, placeOfKey } from "./words";

/** Chooses where a role holds: everywhere, a customer's folder, a site. */
export function PlaceChoice({
  people: { ownsAll, customers, sites },
  value,
  onChoose,
  label = "Where",
}: {
  people: PeopleAnswer;
  value: Scope;
  onChoose: (on: Scope) => void;
  label?: string;
}) {
  return (
    <label className="flex flex-col gap-1">
      {label}
      <select
        className="field max-w-72"
        value={placeKey(value)}
        onChange={(event) => onChoose(placeOfKey(event.target.value))}
      >
        {ownsAll ? <option value="all">All sites</option> : null}
        <optgroup label="Customers">
          {customers.map(({ id, name }) => (
            <option key={id} value={`customer ${id}`}>
              {name}
            </option>
          ))}
        </optgroup>
        <optgroup label="Sites">
          {sites.map(({ id, name }) => (
            <option key={id} value={`site ${id}`}>
              {name}
            </option>
          ))}
        </optgroup>
      </select>
    </label>
  );
}

/** The first place that somebody may give roles on. */
export function firstPlace({ ownsAll, customers, sites }: PeopleAnswer): Scope {
  const [customer] = customers;
  const [site] = sites;
  if (ownsAll) return { kind: "all" };
  if (customer !== undefined) return { kind: "customer", id: customer.id };
  return site === undefined ? { kind: "all" } : { kind: "site", id: site.id };
}

export function RoleChoice({ value, onChoose }: { value: Role; onChoose: (role: Role) => void }) {
  return (
    <label className="flex flex-col gap-1">
      Role
      <select
        className="field"
        value={value}
        onChange={(event) => onChoose(ROLES.find((role) => role === event.target.value) ?? value)}
      >
        {ROLES.map((role) => (
          <option key={role} value={role}>
            {role}
          </option>
        ))}
      </select>
    </label>
  );
}
