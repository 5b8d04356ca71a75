import { useRouter } from "next/navigation";
import { useState } from "react";
import type { PeopleOrder } from "@/http/contracts/answers";
import { formSentence } from "../../kit/form-sentence";
import { call } from "../../plan-store/api";

/** Does something with people or folders; the answer, or null where it was refused and `refusal` says why. */
export function usePeopleOrder() {
  const router = useRouter();
  const [refusal, setRefusal] = useState<string | null>(null);
  const order = async (body: PeopleOrder): Promise<{ readonly key: string | null } | null> => {
    const answer = await call<{ key: string | null }>("/api/people", "POST", body);
    setRefusal(answer.ok ? null : formSentence(answer.refused.sentence));
    // What is refused may have changed meanwhile: the page is read again either way.
    router.refresh();
    return answer.ok ? answer.value : null;
  };
  return { refusal, order };
}
