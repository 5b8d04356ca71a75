"use client";

import { giveChannels, setChannels, setNameSchool, setRadioRules } from "@/core/commands";
import { useState } from "react";
import { toast } from "sonner";
import { BANDS, type Band } from "@/core/plan";
import { BAND_WORDS, channelsText } from "@/core/planners";
import { assignChannels, channelsSummary, RADIO_SET_NAMES, RADIO_SETS } from "@/core/wireless";
import { Radios } from "../../kit/Radios";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Caution, Fact, MarginHead, Section } from "../parts";
import { ProposalPanel, useProposal } from "../findings/Proposal";

/**
 * What holds for all wireless names and radios of the site: which channels may be used, who gets which, one
 * name or many.
 */
export function WirelessMargin() {
  return (
    <>
      <MarginHead kick="Wireless of the site">Channels and rules</MarginHead>
      <Assign />
      <Rules />
      <School />
    </>
  );
}

/** A channel for every radio, so that none is disturbed by one that it hears; shown before it is done. */
function Assign() {
  const index = useIndex();
  const { shown, look, apply, cancel } = useProposal();
  const [radar, setRadar] = useState(true);
  const [bands, setBands] = useState<readonly Band[]>(BANDS);
  const useDfs = radar ? "with radar channels" : "without radar channels";
  const inUse = BANDS.filter((band) =>
    [...index.plan.radio.values()].some((radio) => radio.band === band && radio.enabled),
  );
  const chosen = inUse.filter((band) => bands.includes(band));
  const assigned = shown === null ? [] : chosen.flatMap((band) => assignChannels(index, band, useDfs));
  const left = assigned.filter(({ clashes }) => clashes.length > 0).length / 2;
  const without = assigned.filter(({ option }) => option === null).length;
  const start = () => {
    const refusal =
      chosen.length === 0
        ? "Choose a band in which the site has a radio."
        : look(giveChannels({ bands: chosen, useDfs }));
    if (refusal !== null) toast.error(refusal);
  };
  return (
    <Section title="Assign channels">
      <p className="px-4 pb-1 text-13 text-ink2">
        Access points that hear one another get channels that don’t overlap, as far as there are enough; who
        need not change keeps its own.
      </p>
      <div className="flex flex-wrap gap-x-4 px-4 text-13">
        {inUse.map((band) => (
          <label key={band} className="flex min-h-7 items-center gap-2">
            <input
              type="checkbox"
              checked={bands.includes(band)}
              onChange={(event) => {
                setBands(event.target.checked ? [...bands, band] : bands.filter((other) => other !== band));
                cancel();
              }}
            />
            {BAND_WORDS[band]}
          </label>
        ))}
      </div>
      <label className="flex min-h-7 items-center gap-2 px-4 text-13">
        <input
          type="checkbox"
          checked={radar}
          onChange={(event) => {
            setRadar(event.target.checked);
            cancel();
          }}
        />
        radar channels, too (DFS)
      </label>
      <p className="px-4 text-12 text-ink2">
        A radar channel is listened to for a minute before use and left at once when radar is heard.
      </p>
      <div className="px-4 pt-2">
        <button type="button" className="button go" disabled={inUse.length === 0} onClick={start}>
          Assign channels
        </button>
        {shown === null ? null : (
          <ProposalPanel shown={shown} apply={apply} cancel={cancel}>
            <p className={`mt-1 ${left + without > 0 ? "font-semibold text-warn" : "text-sound"}`}>
              {left === 0 && without === 0
                ? "No two that hear each other overlap."
                : [
                    left === 0
                      ? ""
                      : `${left} pairs still overlap: there are not enough channels of that width`,
                    without === 0 ? "" : `${without} radios find no channel of their width in the list`,
                  ]
                    .filter((text) => text !== "")
                    .join("; ")}
            </p>
          </ProposalPanel>
        )}
      </div>
    </Section>
  );
}

const listSource = (region: string) =>
  region === "" ? "A list of your own." : `Begun with the list for ${region}.`;

/** The channels that may be used here: a set to begin with, each band editable. */
function Rules() {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const rules = index.plan.site.radio;
  return (
    <Section title="Channels that may be used">
      <p className="px-4 pb-1 text-13">
        {rules.channels.length === 0 ? "No list yet: begin with a region’s." : listSource(rules.region)}
      </p>
      <div className="flex flex-wrap gap-[6px] px-4 pb-1">
        {RADIO_SET_NAMES.map((name) => (
          <button
            key={name}
            type="button"
            className="button"
            aria-pressed={rules.region === RADIO_SETS[name].region}
            onClick={() => edit(setRadioRules({ set: name }))}
          >
            {RADIO_SETS[name].region}
          </button>
        ))}
      </div>
      <dl className="facts">
        {BANDS.map((band) => (
          <Fact key={band} name={BAND_WORDS[band]}>
            {channelsSummary(rules, band)}
          </Fact>
        ))}
      </dl>
      {BANDS.map((band) => (
        <TextField
          key={band}
          label={BAND_WORDS[band]}
          mono
          value={channelsText(rules, band)}
          placeholder="36, 40, 52 dfs, 56 dfs indoor"
          write={(text) => edit(setChannels({ band, text }))}
        />
      ))}
      <Caution head="Check your regulator.">
        These lists are a beginning, not the law: which channels, how wide, how strong, indoors or out, and
        what changes, is for your regulator to say.
      </Caution>
    </Section>
  );
}

/** One name everywhere or one for each access point, with what each costs. */
function School() {
  const index = useIndex();
  const { shown, look, apply, cancel } = useProposal();
  const school = index.plan.site.conventions.wifiNames;
  const choose = (next: "one" | "each") => {
    const refusal = look(setNameSchool({ school: next }));
    if (refusal !== null) toast.error(refusal);
  };
  return (
    <Section title="One name or many">
      <Radios
        label="Names"
        value={school}
        choices={[
          ["one", "the same name at every access point"],
          ["each", "a name for each access point"],
        ]}
        onChoose={choose}
      />
      <p className="px-4 pt-1 text-13 text-ink2">
        {school === "one"
          ? "Stations choose the access point themselves and change it as they walk; a " +
            "call goes on. Some cling to a far one, and nobody sees which one they are on."
          : "One sees which access point a station is on, and can pin a device to the " +
            "near one; walking through the house means choosing anew, and calls break off."}
      </p>
      {shown === null ? null : (
        <div className="px-4 pt-1">
          <ProposalPanel shown={shown} apply={apply} cancel={cancel} />
        </div>
      )}
    </Section>
  );
}
