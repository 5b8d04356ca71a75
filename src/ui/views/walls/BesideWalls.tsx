"use client";

import { useState, type RefObject } from "react";
import { Segmented } from "../../kit/Segmented";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";
import { ConduitTable } from "./ConduitTable";
import { ExceptionTable } from "./ExceptionTable";
import { ServiceTable } from "./ServiceTable";

type Shown = "exception" | "conduit" | "service";

/** What stands beside the walls: exceptions, the conduits that doors belong to, the site's own services. */
export function BesideWalls({ scroller }: { scroller: RefObject<HTMLDivElement | null> }) {
  const { plan } = useIndex();
  const selected = useUi((state) => state.selection?.what);
  const [chosen, setChosen] = useState<Shown>("exception");
  const [before, setBefore] = useState(selected);
  // What is gone to by name or by a finding is shown; what is then chosen here stays.
  if (selected !== before) {
    setBefore(selected);
    if (selected === "exception" || selected === "conduit" || selected === "service") setChosen(selected);
  }
  const hasConduits = plan.site.kind === "industrial" || plan.conduit.size > 0;
  const shown = chosen === "conduit" && !hasConduits ? "exception" : chosen;
  const head = (
    <Segmented
      label="Beside the walls"
      value={shown}
      choices={[
        ["exception", `Exceptions, ${plan.exception.size}`],
        ...(hasConduits ? ([["conduit", `Conduits, ${plan.conduit.size}`]] as const) : []),
        ["service", `Services, ${plan.service.size}`],
      ]}
      onChoose={setChosen}
    />
  );
  switch (shown) {
    case "exception":
      return <ExceptionTable scroller={scroller} head={head} />;
    case "conduit":
      return <ConduitTable scroller={scroller} head={head} />;
    case "service":
      return <ServiceTable scroller={scroller} head={head} />;
  }
}
