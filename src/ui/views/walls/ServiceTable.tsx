"use client";

import { addService, pasteServices, removeServices, writeService } from "@/core/commands";
import { useState, type FormEvent, type ReactNode, type RefObject } from "react";
import { toast } from "sonner";
import type { OwnService } from "@/core/plan";
import { SERVICE_COLUMNS, serviceCellText, type ServiceColumn } from "@/core/planners";
import { useUi } from "../../frame/use-ui";
import { TextTable } from "../../grid/TextTable";
import { useIndex, usePlan } from "../../plan-store/use-plan";

const CELL_OF: Readonly<Record<string, ServiceColumn>> = { "service-unclear": "is" };
const MONO: ReadonlySet<ServiceColumn> = new Set(["is"]);

/** Services that the site has beside those of the catalogue, each with ports of its own or others by name. */
export function ServiceTable({
  scroller,
  head,
}: {
  scroller: RefObject<HTMLDivElement | null>;
  head: ReactNode;
}) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  return (
    <TextTable<OwnService, ServiceColumn>
      label="Services"
      about="a name for ports, or for several together"
      what="service"
      rows={index.plan.service}
      columns={SERVICE_COLUMNS}
      text={serviceCellText}
      cellOf={CELL_OF}
      mono={MONO}
      actions={{
        edit: (id, column, text) =>
          edit(
            id === null
              ? pasteServices({ rows: [[text]], from: column, onto: [] })
              : writeService({ service: id, column, text }),
          ),
        paste: (rows, from, onto) => edit(pasteServices({ rows, from, onto })),
        remove: (ids) => edit(removeServices({ services: ids })),
        select: (id) => select({ what: "service", id }),
      }}
      scroller={scroller}
      head={head}
      newRow={{ name: "paste rows here" }}
      add={<AddService />}
      isHiddenEmpty
    />
  );
}

/** A new service from its name and what it is. */
function AddService() {
  const edit = usePlan((state) => state.edit);
  const [name, setName] = useState("");
  const [is, setIs] = useState("");
  const add = (event: FormEvent) => {
    event.preventDefault();
    const refusal = edit(addService({ name, is }));
    if (refusal !== null) return toast.error(refusal);
    setName("");
    setIs("");
  };
  return (
    <form className="flex flex-wrap items-center gap-2" onSubmit={add}>
      <input
        aria-label="Name of a service"
        className="field h-7 w-32"
        placeholder="backup"
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <input
        aria-label="What it is"
        className="field mono h-7 w-48"
        placeholder="https, tcp 8007"
        value={is}
        onChange={(event) => setIs(event.target.value)}
      />
      <button type="submit" className="button !min-h-7">
        Add a service
      </button>
    </form>
  );
}
