import { vid as asVid, type VoicePolicy } from "../../plan";
import type { EditContext, Refusal } from "../planner";

/** What calls are usually marked with: priority 5 in the tag, expedited forwarding (RFC 3246) in the packet. */
export const USUAL_VOICE = { priority: 5, dscp: 46 } as const;

/** What a port announces to phones (LLDP-MED) as it is typed: "30 priority 5 DSCP 46"; empty for nothing. */
export const voicePolicyText = (policy: VoicePolicy | null): string =>
  policy === null ? "" : `${policy.vid} priority ${policy.priority} DSCP ${policy.dscp}`;

function readPolicy(text: string): VoicePolicy | null | string {
  if (/^(|none|-)$/i.test(text)) return null;
  const read = /^(?:VLAN\s*)?(\d{1,4})(?:[\s,]+priority\s+(\d))?(?:[\s,]+DSCP\s+(\d{1,2}))?$/i.exec(text);
  const [vid, priority, dscp] = [
    asVid(Number(read?.[1])),
    Number(read?.[2] ?? USUAL_VOICE.priority),
    Number(read?.[3] ?? USUAL_VOICE.dscp),
  ];
  if (read === null || vid === null || priority > 7 || dscp > 63)
    return (
      `"${text}" is nothing to announce; write the voice VLAN, and if you like ` +
      "its priority (0 to 7) and DSCP (0 to 63): 30 priority 5 DSCP 46."
    );
  return { vid, priority, dscp };
}

/** What some ports announce to phones, as typed. */
export function setVoicePolicy(
  { edits }: Pick<EditContext, "edits">,
  ports: readonly string[],
  typed: string,
): Refusal {
  const policy = readPolicy(typed.trim());
  if (typeof policy === "string") return policy;
  for (const id of ports) edits.patch("port", id, { voicePolicy: policy });
  return null;
}
