"use client";

import type { AccountAnswer } from "@/http/contracts/answers";
import { FormRefusal } from "../../kit/FormField";
import { hereText } from "../sites/here-text";
import { useAccountOrder } from "./use-account-order";

/** Where one is signed in; any of it can be ended. */
export function Sessions({ sessions }: { sessions: AccountAnswer["sessions"] }) {
  const { refusal, order } = useAccountOrder();
  return (
    <section className="border-t border-hair p-4" aria-label="Sessions">
      <h2 className="mb-2 text-15">Signed in</h2>
      <div className="overflow-x-auto">
        <table className="table" aria-label="Sessions">
          <thead>
            <tr>
              <th scope="col">From</th>
              <th scope="col">Since</th>
              <th scope="col">Last used</th>
              <th scope="col">
                <span className="sr-only">What to do</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {sessions.map(({ id, madeAt, usedAt, cameFrom, isThis }) => (
              <tr key={id}>
                <td>
                  <span className="mono">{cameFrom === "" ? "unknown" : cameFrom}</span>
                  {isThis ? <b className="pl-2 font-semibold">this browser</b> : null}
                </td>
                <td suppressHydrationWarning>{hereText(madeAt)}</td>
                <td suppressHydrationWarning>{hereText(usedAt)}</td>
                <td className="right">
                  {isThis ? null : (
                    <button
                      type="button"
                      className="button"
                      aria-label={`End the session since ${hereText(madeAt)}`}
                      onClick={() => void order({ do: "endSession", id })}
                    >
                      End it
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <FormRefusal sentence={refusal} />
      {sessions.length < 2 ? null : (
        <button
          type="button"
          className="button mt-3"
          onClick={() => void order({ do: "endSession", id: null })}
        >
          End all others
        </button>
      )}
    </section>
  );
}
