import type { Family } from "@/core/address";

/** Whether something is asked by IPv4 or by IPv6. */
export function FamilyField({ family, write }: { family: Family; write: (family: Family) => void }) {
  return (
    <select
      aria-label="Address family"
      className="field"
      value={family}
      onChange={(event) => write(event.target.value === "6" ? 6 : 4)}
    >
      <option value={4}>IPv4</option>
      <option value={6}>IPv6</option>
    </select>
  );
}
