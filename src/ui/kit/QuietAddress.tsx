/** An address whose shared beginning is written in second ink. */
export function QuietAddress({ text, quiet }: { text: string; quiet: string }) {
  if (quiet === "" || !text.startsWith(quiet)) return <span className="mono">{text}</span>;
  return (
    <span className="mono">
      <span className="text-ink2">{quiet}</span>
      {text.slice(quiet.length)}
    </span>
  );
}
