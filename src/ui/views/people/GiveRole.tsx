"use client";

import { useState } from "react";
import type { PeopleAnswer, Role } from "@/http/contracts/answers";
import { FormRefusal } from "../../kit/FormField";
import { Modal } from "../../kit/Modal";
import { firstPlace, PlaceChoice, RoleChoice } from "./PlaceChoice";
import { usePeopleOrder } from "./use-people-order";
import { ROLE_MEANS } from "./words";

/** Gives somebody a role; one held there before is replaced. */
export function GiveRole({
  person,
  people,
  close,
}: {
  person: { readonly id: string; readonly name: string };
  people: PeopleAnswer;
  close: () => void;
}) {
  const [on, setOn] = useState(firstPlace(people));
  const [role, setRole] = useState<Role>("viewer");
  const { refusal, order } = usePeopleOrder();
  const send = async () => {
    if ((await order({ do: "grant", person: person.id, on, role })) !== null) close();
  };
  return (
    <Modal
      open
      onOpenChange={close}
      title={`A role for ${person.name}`}
      description="It takes the place of the one held there before; of several that apply the highest counts."
    >
      <form
        className="text-13"
        onSubmit={(event) => {
          event.preventDefault();
          void send();
        }}
      >
        <div className="mb-3 flex flex-wrap gap-3">
          <PlaceChoice people={people} value={on} onChoose={setOn} />
          <RoleChoice value={role} onChoose={setRole} />
        </div>
        <p className="mb-3 text-ink2">{ROLE_MEANS[role]}</p>
        <FormRefusal sentence={refusal} />
        <button type="submit" className="button go">
          Give the role
        </button>
      </form>
    </Modal>
  );
}
