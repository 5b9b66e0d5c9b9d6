import type { Schemas } from "../api/client";
import { Caution } from "../shared/Caution";
import { Phrase } from "../shared/Figures";
import { Mark } from "../shared/Mark";
import { useVerdicts } from "../shared/registry";

const KINDS = { out: "stop", open: "good", to_find: "measure" } as const;

/** What each axle's trials come to, what to try next, and how what is at hand stands after them. */
export function Conclusions({ trials }: { trials: Schemas["TrialsView"] | undefined }) {
  const verdict = useVerdicts();
  if (!trials) return null;
  return (
    <aside
      // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
      tabIndex={0}
      className="border-base-300 shrink-0 overflow-y-auto border-t px-3 py-2 text-body min-[1000px]:w-[400px] min-[1000px]:border-t-0 min-[1000px]:border-l"
      aria-label="Conclusion"
    >
      {(["front", "rear"] as const).map((axle) => {
        const { lines, next, judged } = trials.axles[axle];
        return (
          <section key={axle} className="rule pb-2" aria-label={`${axle} axle`} data-conclusion={axle}>
            <h2 className="text-lead font-semibold capitalize">{axle}</h2>
            {lines.length === 0 && <p className="text-small">Nothing was tried on this axle.</p>}
            <ul>
              {lines.map((line, at) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: sentences come in their order
                <li key={at} className="flex items-baseline gap-1.5" data-kind={line.kind}>
                  <Mark standing={KINDS[line.kind as keyof typeof KINDS]} size={12} />
                  <span>
                    <Phrase fragments={line.says} />
                  </span>
                </li>
              ))}
            </ul>
            {next && (
              <p className="border-accent mt-1 border-l-3 pl-2" data-next>
                <strong>Next to try:</strong> <Phrase fragments={next} />
              </p>
            )}
            {judged.length > 0 && (
              <ul className="mt-1 text-small">
                {judged.map((one) => (
                  <li key={one.name} className="flex items-center gap-1.5" data-judged={one.name}>
                    <Mark standing={verdict(one.verdict).standing} size={12} />
                    <span className="font-semibold">{one.name}</span>
                    <span className="min-w-0 flex-1 truncate">{one.line}</span>
                    <span>
                      {verdict(one.verdict).word}
                      {one.was_tried && ", tried"}
                    </span>
                  </li>
                ))}
              </ul>
            )}
          </section>
        );
      })}
      <Caution className="mt-2">{trials.caution}</Caution>
      <p className="mt-1 text-note opacity-85">{trials.source.cite}</p>
    </aside>
  );
}
