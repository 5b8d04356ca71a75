"use client";

/** What is shown once: a link or a token, to be copied. */
export const MadeKey = ({ words, text }: { words: string; text: string }) => (
  <label className="mt-3 flex flex-col gap-1 text-13">
    {words}
    <input
      className="field mono w-full text-12"
      readOnly
      value={text}
      onFocus={(event) => event.target.select()}
    />
  </label>
);
