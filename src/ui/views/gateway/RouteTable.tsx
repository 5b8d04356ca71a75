"use client";

import { pasteRoutes, removeRoutes } from "@/core/commands";
import type { RefObject } from "react";
import { toast } from "sonner";
import type { Device, Route } from "@/core/plan";
import { ROUTE_COLUMNS, routeCellText, type RouteColumn } from "@/core/planners";
import { useUi } from "../../frame/use-ui";
import type { Column, GridActions } from "../../grid/column";
import { EditGrid } from "../../grid/EditGrid";
import { usePlan } from "../../plan-store/use-plan";

/** A route by its place in the device's list: it has no other name. */
interface Placed {
  readonly route: Route;
  readonly place: number;
}

const COLUMNS = ROUTE_COLUMNS.map(([id, head]): Column<Placed, RouteColumn> => ({
  id,
  head,
  mono: true,
  text: ({ route }) => routeCellText(route, id),
}));
const placesOf = (ids: readonly string[]): number[] => ids.map(Number);

/** Routes entered by hand on a device, edited in place. */
export function RouteTable({
  device,
  scroller,
}: {
  device: Device;
  scroller: RefObject<HTMLDivElement | null>;
}) {
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const write = (rows: readonly (readonly string[])[], from: RouteColumn, onto: readonly string[]) =>
    edit(pasteRoutes({ device: device.id, rows, from, onto: placesOf(onto) }));
  const actions: GridActions<RouteColumn> = {
    edit: (id, column, text) => write([[text]], column, id === null ? [] : [id]),
    paste: write,
    clear: () => "A route has a subnet and a next hop; remove the route instead.",
    remove: (ids) => {
      const refusal = edit(removeRoutes({ device: device.id, places: placesOf(ids) }));
      if (refusal !== null) toast.error(refusal);
    },
    select: (id) => {
      if (id !== null) select({ what: "device", id: device.id });
    },
  };
  return (
    <section aria-label="Routes">
      <h2 className="flex min-h-10 items-center gap-2 px-4 text-15">
        Routes{" "}
        <span className="text-13 font-normal text-ink2">
          entered by hand on {device.name}, beside those to its own segments
        </span>
      </h2>
      <EditGrid<Placed, RouteColumn>
        label={`Routes on ${device.name}`}
        rows={device.routes.map((route, place) => ({ route, place }))}
        idOf={({ place }) => `${place}`}
        columns={COLUMNS}
        actions={actions}
        scroller={scroller}
        selected={null}
        newRow={{ prefix: "New route, like 10.24.96.0/20", via: "next hop", metric: "1" }}
      />
    </section>
  );
}
