import { type Ref, useCallback, useEffect, useImperativeHandle, useRef, useState } from "react";
import { answer, api, type Lines, type LineView, Refused } from "../api/client";

export type SetupFieldHandle = { focus: () => void };

type Props = {
  label: string;
  /** The canonical line shown while nothing is being typed. */
  value: string;
  placeholder: string;
  /** Called with every sound reading, as it is typed. */
  onRead: (view: { lines: Lines; namesAxles: boolean }) => void;
  onEnter?: () => void;
  /** Where a text that could not be read is kept across a reload. */
  keptAs: string;
  tone: "planned" | "fitted" | "new";
  handle?: Ref<SetupFieldHandle>;
};

const NAMES: Partial<Record<LineView["stretches"][number]["kind"], string>> = {
  wheel: "wheel",
  offset: "offset",
  backspacing: "backspacing",
  bolt_circle: "bolt circle",
  center_bore: "bore",
  tire: "tire",
  service: "load, speed",
  spacer: "spacer",
  date_code: "date code",
  axle: "axle",
};

/**
 * The setup line: one field that reads a setup as it is typed, pasted or said. Every piece is marked as it is
 * recognised; a piece that cannot be read is marked where it stands, with the reason and an example.
 */
export function SetupField({ label, value, placeholder, onRead, onEnter, keptAs, tone, handle }: Props) {
  const [typed, setTyped] = useState<string | null>(() => sessionStorage.getItem(keptAs));
  const [view, setView] = useState<LineView | null>(null);
  const [trouble, setTrouble] = useState("");
  const field = useRef<HTMLTextAreaElement>(null);
  const latest = useRef(0);
  const read = useRef(onRead);
  read.current = onRead;
  const text = typed ?? value;
  useImperativeHandle(handle, () => ({
    focus: () => {
      field.current?.focus();
      field.current?.select();
    },
  }));

  const forget = useCallback(() => {
    setTyped(null);
    sessionStorage.removeItem(keptAs);
  }, [keptAs]);

  const ask = useCallback(
    async (line: string, takeOver: boolean) => {
      const asked = ++latest.current;
      if (!line.trim()) {
        setView(null);
        setTrouble("");
        if (takeOver) read.current({ lines: {}, namesAxles: false });
        return;
      }
      try {
        const answered = await answer(api.POST("/api/v1/setups/read", { body: { text: line } }));
        if (asked !== latest.current) return;
        setView(answered);
        setTrouble("");
        if (takeOver && answered.is_sound && (answered.lines.front || answered.lines.rear)) {
          read.current({ lines: answered.lines, namesAxles: answered.names_axles });
          // The field was left before this answer came: the canonical line takes the place of what was typed.
          if (tone !== "new" && document.activeElement !== field.current) forget();
        }
      } catch (error) {
        if (asked !== latest.current) return;
        setTrouble(
          error instanceof Refused
            ? error.message
            : "The program does not answer. What you typed stays here; trying again.",
        );
        if (!(error instanceof Refused))
          window.setTimeout(() => asked === latest.current && ask(line, takeOver), 1500);
      }
    },
    [forget, tone],
  );

  const isTyped = typed !== null;
  useEffect(() => {
    if (isTyped) {
      void ask(text, true);
      return;
    }
    // While the wheel is dragged the line changes with every millimetre: its pieces are marked once it rests.
    const rest = window.setTimeout(() => void ask(text, false), 120);
    return () => window.clearTimeout(rest);
  }, [text, isTyped, ask]);

  const type = (line: string) => {
    setTyped(line);
    sessionStorage.setItem(keptAs, line);
  };
  const current = view && view.stretches.map((stretch) => stretch.text).join("") === text ? view : null;
  // A sound line gives way to its canonical form when the field is left; an unsound one stays.
  const leave = () => {
    if (typed !== null && (current?.is_sound || !typed.trim()) && !trouble && tone !== "new") forget();
  };

  const fault = current?.stretches.find((stretch) => stretch.problem);
  const aside =
    current?.stretches.filter((stretch) => stretch.kind === "left_aside").map((stretch) => stretch.text) ??
    [];
  const faultId = `${keptAs}-fault`;
  return (
    <div className={`setup-field setup-${tone} min-w-0 flex-1`}>
      <div className="flex items-center gap-2">
        <label htmlFor={keptAs} className="label-small w-[52px] shrink-0">
          {label}
        </label>
        <div className="relative min-w-0 flex-1">
          <div
            aria-hidden="true"
            className="setup-text pointer-events-none absolute inset-0 overflow-hidden text-transparent"
          >
            {current
              ? current.stretches.map((stretch, at) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: stretches have no identity but their place
                  <span key={at} data-kind={stretch.kind}>
                    {stretch.text}
                  </span>
                ))
              : text}
          </div>
          <textarea
            id={keptAs}
            ref={field}
            rows={1}
            spellCheck={false}
            autoComplete="off"
            maxLength={2000}
            className="setup-text caret-accent relative block w-full resize-none overflow-hidden bg-transparent outline-none"
            value={text}
            placeholder={placeholder}
            aria-invalid={fault ? true : undefined}
            aria-describedby={fault || trouble ? faultId : undefined}
            onChange={(event) => type(event.target.value)}
            onBlur={leave}
            onKeyDown={(event) => {
              if (event.key === "Enter" && !event.shiftKey) {
                event.preventDefault();
                if (onEnter) onEnter();
                else event.currentTarget.blur();
              } else if (event.key === "Escape") {
                forget();
                event.currentTarget.blur();
              }
            }}
          />
        </div>
      </div>
      {(fault || trouble || (typed !== null && tone !== "fitted")) && (
        <div className="mt-0.5 min-h-[20px] pl-[60px] text-[14px]">
          {fault ? (
            <p id={faultId} role="alert" className="text-error">
              <strong>{fault.text.trim()}</strong> {fault.problem}.{" "}
              <span className="opacity-90">Write it as in {fault.example}.</span>
            </p>
          ) : trouble ? (
            <p id={faultId} role="alert" className="text-error">
              {trouble}
            </p>
          ) : current ? (
            <p className="opacity-80">
              {current.stretches
                .filter((stretch) => NAMES[stretch.kind])
                .map((stretch) => `${NAMES[stretch.kind]} ${stretch.text.trim()}`)
                .join(" · ")}
              {aside.length > 0 && ` — left aside: ${aside.join(" ")}`}
            </p>
          ) : null}
        </div>
      )}
    </div>
  );
}
