"use client";

import { useState } from "react";
import { parseMac } from "@/core/address";
import { TAP_WORDS, type Tap, type TapPosition } from "@/core/listening";
import { Segmented } from "../../../kit/Segmented";

const CHOICES: readonly (readonly [TapPosition, string])[] = [
  ["access", "Ordinary port"],
  ["trunk", "Trunk"],
  ["own", "Own laptop"],
  ["mirror", "Mirror"],
  ["inline", "In the cable"],
];

/** Where the tap sat: what is heard means something else at each place. */
export function TapChoice({
  tap,
  isGuess,
  onChoose,
}: {
  tap: Tap;
  isGuess: boolean;
  onChoose: (tap: Tap) => void;
}) {
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2 border-b border-hair px-4 py-2 text-13">
      <Segmented
        label="Where one listened"
        value={tap.position}
        choices={CHOICES}
        onChoose={(position) => onChoose({ ...tap, position })}
      />
      {tap.position === "own" ? <OwnMac key={tap.mac ?? ""} tap={tap} onChoose={onChoose} /> : null}
      <p className="text-ink2">
        {isGuess ? "Guessed from the file: " : ""}
        {TAP_WORDS[tap.position]}.{isGuess ? " Say so if it was another place." : ""}
      </p>
    </div>
  );
}

/** The laptop's own frames are no strangers'. */
function OwnMac({ tap, onChoose }: { tap: Tap; onChoose: (tap: Tap) => void }) {
  const [text, setText] = useState<string>(tap.mac ?? "");
  const mac = parseMac(text.trim());
  const isWrong = text.trim() !== "" && mac === null;
  const leave = () => {
    if (!isWrong && mac !== tap.mac) onChoose({ ...tap, mac });
  };
  return (
    <label className="flex flex-wrap items-center gap-2">
      <span className="text-ink2">Its MAC address</span>
      <input
        className={`field mono w-44 ${isWrong ? "wrong" : ""}`}
        value={text}
        aria-invalid={isWrong}
        onChange={(event) => setText(event.target.value)}
        onBlur={leave}
        onKeyDown={(event) => {
          if (event.key === "Enter") leave();
        }}
      />
      {isWrong ? (
        <span role="alert" className="text-stop">
          {text.trim()} is no MAC address: twelve digits, as 02:00:5e:00:53:01.
        </span>
      ) : null}
    </label>
  );
}
