import { acceptFinding as acceptFindingOf, type Accepting } from "../planners";
import { counted } from "../repairs";
import { command } from "./command";

export const acceptFinding = command<Accepting>("accept-finding", {
  says: ({ reason, until }) => `Accepted a finding: ${reason}${until === "" ? "" : `, until ${until}`}`,
  run: (context, args) => acceptFindingOf(context, args),
});

export const wakeFindings = command<{ readonly acceptances: readonly string[] }>("wake-findings", {
  says: ({ acceptances }) =>
    `${counted(acceptances.length, "accepted finding is", "accepted findings are")} open again`,
  run: ({ edits }, { acceptances }) => {
    for (const acceptance of acceptances) edits.remove("acceptance", edits.need("acceptance", acceptance).id);
  },
});
