"use client";

import { useState, type FormEvent, type RefObject } from "react";
import { toast } from "sonner";
import { pasteSignIns, removeSignIns, writeSignIn } from "@/core/commands";
import type { SignIn } from "@/core/plan";
import { SIGN_IN_COLUMNS, signInCellText, type SignInColumn } from "@/core/planners";
import { useUi } from "../../frame/use-ui";
import { TextTable } from "../../grid/TextTable";
import { useIndex, usePlan } from "../../plan-store/use-plan";

/** Which cell a finding is about: there its sign stands. */
const CELL_OF: Readonly<Record<string, SignInColumn>> = {
  "gives-up-before-let-in": "asks",
  "phones-without-server": "serverDownVoice",
  "sign-in-server-unreachable": "servers",
  "limited-without-dhcp": "before",
  "sign-in-watches": "stage",
};
/** What is seen at a glance; everything else of a profile stands in its margin. */
const SHOWN = 12;
const COLUMNS = SIGN_IN_COLUMNS.slice(0, SHOWN);

/** How ports with sign-in let devices in: a row for each profile. */
export function SignInTable({ scroller }: { scroller: RefObject<HTMLDivElement | null> }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const { plan } = index;
  const yesNo = ["yes", "no"];
  const vlans = ["none", ...[...plan.vlan.values()].map(({ vid, name }) => `${vid} ${name}`)];
  return (
    <TextTable<SignIn, SignInColumn>
      label="Sign-in profiles"
      about="how ports let devices in; ports choose one in their margin"
      what="signIn"
      rows={plan.signIn}
      columns={COLUMNS}
      text={(profile, column) => signInCellText(index, profile, column)}
      cellOf={CELL_OF}
      offers={{
        servers: [...plan.host.values()].filter(({ kind }) => kind === "server").map(({ name }) => name),
        stage: ["watch", "limited", "closed"],
        byMac: yesNo,
        order: ["sign-in first", "MAC address first"],
        hosts: ["one device", "a phone and one", "several, each by itself", "any number once one is in"],
        visitors: vlans,
        failed: vlans,
        serverDown: vlans,
        serverDownVoice: vlans,
      }}
      actions={{
        edit: (id, column, text) =>
          edit(
            id === null
              ? pasteSignIns({ rows: [[text]], from: column, onto: [] })
              : writeSignIn({ profile: id, column, text }),
          ),
        paste: (rows, from, onto) => edit(pasteSignIns({ rows, from, onto })),
        remove: (ids) => edit(removeSignIns({ profiles: ids })),
        select: (id) => select({ what: "signIn", id }),
      }}
      scroller={scroller}
      newRow={{ name: "paste rows here" }}
      add={<AddProfile />}
      isHiddenEmpty
    />
  );
}

/** A new profile by its name; it begins at the stage watch, where nobody is cut off. */
function AddProfile() {
  const edit = usePlan((state) => state.edit);
  const [name, setName] = useState("");
  const add = (event: FormEvent) => {
    event.preventDefault();
    const refusal = edit(pasteSignIns({ rows: [[name, "", "watch"]], from: "name", onto: [] }));
    if (refusal === null) setName("");
    else toast.error(refusal);
  };
  return (
    <form className="flex flex-wrap items-center gap-2" onSubmit={add}>
      <input
        aria-label="Name of a profile"
        className="field h-7 w-40"
        placeholder="Desks"
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <button type="submit" className="button !min-h-7">
        Add a profile
      </button>
    </form>
  );
}
