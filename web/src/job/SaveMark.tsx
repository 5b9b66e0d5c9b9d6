import type { OpenJob } from "./useJob";

/** Whether what is on the sheet is in the shop's file. */
export function SaveMark({ open }: { open: OpenJob }) {
  const { save, message, isConnected } = open;
  const time = (at: string) =>
    new Date(at).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit", hour12: false });
  const words =
    save.is === "saved" && !isConnected
      ? "program away: what is shown may be old"
      : save.is === "saved"
        ? `saved ${time(save.at)}`
        : save.is === "saving"
          ? "saving…"
          : save.is === "away"
            ? "not saved: program away, kept here, trying again"
            : save.is === "held"
              ? `all saved but: ${save.errors.map((error) => error.detail).join("; ") || save.why}`
              : save.is === "refused"
                ? `not saved: ${save.why}`
                : "not saved: changed elsewhere";
  const tone = (save.is === "saved" && isConnected) || save.is === "saving" ? "" : "text-error font-semibold";
  return (
    <output className={`px-2 text-small ${tone}`} data-save={save.is} title={message || undefined}>
      {words}
    </output>
  );
}
