"use client";

import { useState } from "react";
import { v7 } from "uuid";
import { counted } from "@/core/repairs";
import type { PeopleAnswer } from "@/http/contracts/answers";
import { FormRefusal } from "../../kit/FormField";
import { useOneAtATime } from "../../kit/use-one-at-a-time";
import { usePeopleOrder } from "./use-people-order";

/** Customers as folders of sites: a role on a folder holds on every site in it. */
export function Folders({ people }: { people: PeopleAnswer }) {
  const { refusal, order } = usePeopleOrder();
  const once = useOneAtATime();
  const [name, setName] = useState("");
  const add = async () => {
    if (name.trim() !== "" && (await order({ do: "putCustomer", id: v7(), name })) !== null) setName("");
  };
  const sitesOf = (customer: string) => people.sites.filter((site) => site.customer === customer).length;
  return (
    <div className="text-13">
      <p className="px-4 pt-3 text-ink2">
        A customer is a folder of sites. Who has a role on the folder has it on every site in it.
      </p>
      <ul className="px-4 py-2" aria-label="Customers">
        {people.customers.map((customer) => (
          <li key={customer.id} className="flex flex-wrap items-center gap-2 border-b border-hair py-2">
            <Rename
              customer={customer}
              onRename={(to) => void order({ do: "putCustomer", ...customer, name: to })}
            />
            <span className="w-24 text-ink2">{counted(sitesOf(customer.id), "site", "sites")}</span>
            {people.ownsAll ? (
              <button
                type="button"
                className="button"
                aria-label={`Remove ${customer.name}`}
                onClick={() => void order({ do: "removeCustomer", id: customer.id })}
              >
                Remove
              </button>
            ) : null}
          </li>
        ))}
      </ul>
      {people.ownsAll ? (
        <form
          className="flex flex-wrap items-end gap-3 px-4 pb-3"
          onSubmit={(event) => {
            event.preventDefault();
            void once(add);
          }}
        >
          <label className="flex flex-col gap-1">
            New customer
            <input
              className="field w-72"
              value={name}
              maxLength={100}
              onChange={(event) => setName(event.target.value)}
            />
          </label>
          <button type="submit" className="button go">
            Add
          </button>
        </form>
      ) : null}
      <div className="px-4">
        <FormRefusal sentence={refusal} />
      </div>
      <ul className="border-t border-hair px-4 py-2" aria-label="Sites and their folders">
        {people.sites.map((site) => (
          <li
            key={site.id}
            className="flex flex-wrap items-center gap-2 border-b border-hair py-2 last:border-0"
          >
            <span className="min-w-[14rem] flex-1 font-semibold">{site.name}</span>
            <FolderOf
              key={site.customer}
              site={site}
              people={people}
              onMove={(customer) => void order({ do: "moveSite", site: site.id, customer })}
            />
          </li>
        ))}
      </ul>
    </div>
  );
}

/**
 * The folder of a site. It is moved by the button alone: on the way through a list by arrow keys other
 * customers' people would see it.
 */
function FolderOf({
  site,
  people: { ownsAll, customers },
  onMove,
}: {
  site: PeopleAnswer["sites"][number];
  people: PeopleAnswer;
  onMove: (customer: string | null) => void;
}) {
  const [chosen, setChosen] = useState(site.customer);
  return (
    <form
      className="flex gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (chosen !== site.customer) onMove(chosen);
      }}
    >
      <select
        className="field"
        aria-label={`Folder of ${site.name}`}
        disabled={!ownsAll}
        value={chosen ?? ""}
        onChange={(event) => setChosen(event.target.value || null)}
      >
        <option value="">no customer</option>
        {customers.map(({ id, name: title }) => (
          <option key={id} value={id}>
            {title}
          </option>
        ))}
      </select>
      {chosen === site.customer ? null : (
        <button type="submit" className="button go">
          Move it
        </button>
      )}
    </form>
  );
}

/** A name that is written by Enter or by leaving it; Esc takes it back. */
function Rename({
  customer,
  onRename,
}: {
  customer: PeopleAnswer["customers"][number];
  onRename: (name: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const finish = () => {
    if (typed !== null && typed.trim() !== "" && typed !== customer.name) onRename(typed);
    setTyped(null);
  };
  return (
    <input
      className="field min-w-[14rem] flex-1 font-semibold"
      aria-label={`Name of ${customer.name}`}
      value={typed ?? customer.name}
      maxLength={100}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={finish}
      onKeyDown={(event) => {
        if (event.key === "Enter") finish();
        if (event.key === "Escape") setTyped(null);
      }}
    />
  );
}
