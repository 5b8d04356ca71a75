"use client";

import { useState } from "react";
import { FormRefusal } from "../../kit/FormField";
import { Modal } from "../../kit/Modal";
import { usePeopleOrder } from "./use-people-order";

/** Takes somebody's account away; what was drawn stays. */
export function TakeOut({
  person,
  close,
}: {
  person: { readonly id: string; readonly name: string };
  close: () => void;
}) {
  const [forgetName, setForgetName] = useState(false);
  const { refusal, order } = usePeopleOrder();
  const send = async () => {
    if ((await order({ do: "takeOut", person: person.id, forgetName })) !== null) close();
  };
  return (
    <Modal
      open
      onOpenChange={close}
      title={`Take ${person.name} out?`}
      description={
        "Password, second factor, sessions, roles and links go now. What was drawn and done stays in the " +
        "plans, their history and record."
      }
    >
      <label className="mb-3 flex items-start gap-2 text-13">
        <input
          type="checkbox"
          className="mt-1"
          checked={forgetName}
          onChange={(event) => setForgetName(event.target.checked)}
        />
        <span>
          Forget the name, too: history, record and log show “Somebody” with a number then. Names that were
          written into remarks, notes and plan files stay there. It can’t be undone.
        </span>
      </label>
      <FormRefusal sentence={refusal} />
      <button type="button" className="button danger" onClick={() => void send()}>
        Take {person.name} out
      </button>
    </Modal>
  );
}
