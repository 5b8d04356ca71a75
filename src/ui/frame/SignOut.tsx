"use client";

import { LogOut } from "lucide-react";
import { toast } from "sonner";
import { call } from "../plan-store/api";
import { forgetRecords } from "../record-store/outbox";
import { forgetPages } from "./use-offline";

/** Ends the session here; what is not saved yet stays in this browser for when the same person comes back. */
async function signOut(): Promise<void> {
  const answer = await call("/api/enter", "DELETE");
  if (answer.ok) await Promise.all([forgetRecords(), forgetPages()]);
  if (answer.ok || answer.status === 401) location.assign("/enter");
  else toast.error(answer.refused.sentence);
}

export const SignOut = () => (
  <button
    type="button"
    className="button square"
    aria-label="Sign out"
    title="Sign out"
    onClick={() => void signOut()}
  >
    <LogOut size={15} />
  </button>
);
