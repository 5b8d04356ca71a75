import { useRouter } from "next/navigation";
import { useState } from "react";
import { formSentence } from "../../kit/form-sentence";
import { call } from "../../plan-store/api";
import type { AccountBody } from "@/http/contracts/account-contracts";

/** Does something with one's account; the answer, or null where it was refused and `refusal` says why. */
export function useAccountOrder() {
  const router = useRouter();
  const [refusal, setRefusal] = useState<string | null>(null);
  const order = async <T extends object>(body: AccountBody): Promise<T | null> => {
    const answer = await call<T>("/api/account", "POST", body);
    setRefusal(answer.ok ? null : formSentence(answer.refused.sentence));
    if (!answer.ok) return null;
    if (body.do !== "newSecret" && body.do !== "beginPasskey") router.refresh();
    return answer.value;
  };
  return { refusal, order };
}
