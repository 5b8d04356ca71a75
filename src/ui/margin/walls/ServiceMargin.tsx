"use client";

import { removeServices, writeService } from "@/core/commands";
import { partsText, SERVICE_COLUMNS, serviceCellText, serviceUses } from "@/core/planners";
import { servicesCalled } from "@/core/policy";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { ColumnsMargin, Gone } from "../ColumnsMargin";
import { Fact } from "../parts";

/** One service of the site's own: what it stands for in all, and where it is used. */
export function ServiceMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const service = index.plan.service.get(id);
  if (service === undefined) return <Gone word="service" />;
  return (
    <ColumnsMargin
      word="service"
      id={id}
      name={service.name}
      columns={SERVICE_COLUMNS}
      text={(column) => serviceCellText(service, column)}
      write={(column, text) => edit(writeService({ service: id, column, text }))}
      remove={() => edit(removeServices({ services: [id] }))}
      facts={
        <dl className="facts">
          <Fact name="Stands for">
            {partsText(servicesCalled(index.plan, service.name)).join(", ") || "nothing"}
          </Fact>
          <Fact name="Used by">{serviceUses(index, service.name) || "nothing yet"}</Fact>
        </dl>
      }
    />
  );
}
