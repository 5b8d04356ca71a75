"use client";

import { useState } from "react";
import { toast } from "sonner";
import { FormField, FormRefusal } from "../../kit/FormField";
import { useOneAtATime } from "../../kit/use-one-at-a-time";
import { useAccountOrder } from "./use-account-order";

/** Changes the password; all other sessions end. */
export function NewPassword() {
  const [old, setOld] = useState("");
  const [password, setPassword] = useState("");
  const { refusal, order } = useAccountOrder();
  const once = useOneAtATime();
  const send = async () => {
    if ((await order({ do: "password", old, password })) === null) return;
    setOld("");
    setPassword("");
    toast("The password is changed. Other sessions have ended.");
  };
  return (
    <form
      aria-label="Password"
      onSubmit={(event) => {
        event.preventDefault();
        void once(send);
      }}
    >
      <h2 className="mb-2 text-15">Password</h2>
      <FormField
        label="Current password"
        type="password"
        value={old}
        onChange={setOld}
        autoComplete="current-password"
      />
      <FormField
        label="New password"
        type="password"
        value={password}
        onChange={setPassword}
        autoComplete="new-password"
        help="At least 12 characters; several words do well. Other sessions end."
      />
      <FormRefusal sentence={refusal} />
      <button type="submit" className="button go">
        Change the password
      </button>
    </form>
  );
}
