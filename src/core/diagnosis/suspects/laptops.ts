import type { ProbeQuestion } from "../../plan";
import type { Expected } from "../../commissioning";
import { beside, type Suspect } from "../suspect";

const isLaptop = ({ from, as }: ProbeQuestion): boolean =>
  (from.at === "port" || from.at === "ssid") && as.as === "client";

/** An address that nobody on the site gives: which one it is, nobody knows. */
const OF_ITS_OWN: Expected = {
  is: "lease",
  segment: null,
  address: null,
  ranges: [],
  gateway: null,
  dns: [],
  leaseSeconds: null,
};

/** What can be wrong with the laptop that readings are taken with. */
export function laptopSuspects(questions: readonly ProbeQuestion[]): Suspect[] {
  if (!questions.some(isLaptop)) return [];
  return [
    beside(
      {
        id: "laptop entered",
        kind: "laptop",
        words: "The laptop still has an address of its own entered",
        mend: "Set the laptop to ask DHCP for its address, and read again.",
        subjects: [],
      },
      {
        reads: (question, expected) => {
          if (!isLaptop(question)) return expected;
          if (question.goal.to === "address") return expected.is === "no link" ? expected : OF_ITS_OWN;
          return { is: "silence", why: "Its address is none of this segment." };
        },
      },
    ),
  ];
}
