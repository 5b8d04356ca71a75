"use client";

import { editAdminSignIn, setAdminSignIn } from "@/core/commands";
import type { Device } from "@/core/plan";
import { adminPort, serversText } from "@/core/planners";
import { Choose } from "../../kit/Choose";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

/** How administrators sign in to a device: by its own accounts or by servers, and what is left without them. */
export function AdminFields({ device }: { device: Device }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const { adminSignIn: admin } = device;
  return (
    <Section title="Administrators sign in">
      <Choose
        label="By"
        value={admin.by}
        choices={[
          ["local", "its own accounts"],
          ["radius", "RADIUS (RFC 2865)"],
          ["tacacs", "TACACS+ (RFC 8907)"],
        ]}
        onChoose={(by) => {
          edit(setAdminSignIn({ device: device.id, fields: { by } }));
        }}
      />
      {admin.by === "local" ? null : (
        <>
          <TextField
            label="Servers"
            value={serversText(index, admin.servers)}
            placeholder="names from the register, commas"
            write={(text) => edit(editAdminSignIn({ device: device.id, field: "servers", text }))}
          />
          <TextField
            label="Port"
            mono
            value={admin.port === null ? "" : String(admin.port)}
            placeholder={String(adminPort({ ...admin, port: null }))}
            write={(text) => edit(editAdminSignIn({ device: device.id, field: "port", text }))}
          />
          <label className="flex min-h-7 items-center gap-2 px-4 text-13">
            <input
              type="checkbox"
              checked={admin.localAccount}
              onChange={(event) =>
                edit(setAdminSignIn({ device: device.id, fields: { localAccount: event.target.checked } }))
              }
            />
            a local account while no server answers
          </label>
        </>
      )}
    </Section>
  );
}
