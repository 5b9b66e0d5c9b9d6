import { type Ref, useCallback, useEffect, useImperativeHandle, useRef, useState } from "react";
import { answer, api, type Lines, type LineView, Refused } from "../api/client";
import { Fault } from "./Caution";
import { keptHere, LINES } from "./kept";

export type SetupFieldHandle = { focus: () => void };

type Props = {
  label: string;
  /** The canonical line shown while nothing is being typed. */
  value: string;
  placeholder: string;
  /** Called with a sound reading once its line is whole: at Enter, on leaving the field, or after a pause. */
  onRead: (view: { lines: Lines; namesAxles: boolean }) => void;
  onEnter?: () => void;
  /** By what a text that could not be read is kept across a reload, besides whose it is. */
  keptAs: string;
  /** The job's uid, for a line of a job. */
  whose?: string;
  tone: "planned" | "fitted" | "new";
  handle?: Ref<SetupFieldHandle>;
};

/** A readable line counts as whole when nothing was typed for so long, in milliseconds. */
const PAUSE = 900;
const AWAY = "The program does not answer. What you typed stays here; trying again.";

const NAMES: Partial<Record<LineView["stretches"][number]["kind"], string>> = {
  wheel: "wheel",
  offset: "offset",
  backspacing: "backspacing",
  bolt_circle: "bolt circle",
  center_bore: "bore",
  center_lock: "center lock",
  tire: "tire",
  service: "load, speed",
  spacer: "spacer",
  date_code: "date code",
  axle: "axle",
};

/**
 * The setup line: one field that reads a setup as it is typed, pasted or said. Every piece is marked as it is
 * recognised; a piece that cannot be read is marked where it stands, with the reason and an example; one that could
 * mean two things is asked, with the answers to press.
 */
export function SetupField(props: Props) {
  const { label, value, placeholder, onRead, onEnter, keptAs, whose, tone, handle } = props;
  const lineName = LINES + (whose ? `${whose}.` : "") + keptAs;
  const [typed, setTyped] = useState<string | null>(() => keptHere.get(lineName));
  const [view, setView] = useState<LineView | null>(null);
  const [said, setSaid] = useState("");
  const field = useRef<HTMLTextAreaElement>(null);
  const latest = useRef(0);
  const read = useRef(onRead);
  read.current = onRead;
  /** The line last handed on, and whether the one being read is to be handed on at once. */
  const handedOn = useRef<string | null>(null);
  const [handed, setHanded] = useState<string | null>(null);
  const atOnce = useRef(false);
  const isTakenBack = useRef(false);
  /** Words of the line last handed on that are no part of a wheel or tire: its canonical form is without them. */
  const [dropped, setDropped] = useState("");
  const text = typed ?? value;
  useImperativeHandle(handle, () => ({
    focus: () => {
      field.current?.focus();
      field.current?.select();
    },
  }));

  const forget = useCallback(() => {
    setTyped(null);
    keptHere.drop(lineName);
  }, [lineName]);

  const handOn = useCallback(
    (line: string, reading: LineView | null) => {
      atOnce.current = false;
      const says = reading?.lines.front || reading?.lines.rear;
      if (handedOn.current === line || (line.trim() && !(reading?.is_sound && says))) return;
      handedOn.current = line;
      setHanded(line);
      setDropped(reading?.left_aside.join(" ") ?? "");
      read.current({ lines: reading?.lines ?? {}, namesAxles: reading?.names_axles ?? false });
      // The field was left: the canonical line takes the place of what was typed.
      if (tone !== "new" && document.activeElement !== field.current) forget();
    },
    [forget, tone],
  );

  const ask = useCallback(
    async (line: string) => {
      const asked = ++latest.current;
      if (!line.trim()) {
        setView(null);
        setSaid("");
        return;
      }
      try {
        const answered = await answer(api.POST("/api/v1/setups/read", { body: { text: line } }));
        if (asked !== latest.current) return;
        setView(answered);
        setSaid("");
        if (atOnce.current) handOn(line, answered);
      } catch (error) {
        if (asked !== latest.current) return;
        setSaid(error instanceof Refused ? error.message : AWAY);
        if (!(error instanceof Refused)) window.setTimeout(() => asked === latest.current && ask(line), 1500);
      }
    },
    [handOn],
  );

  const isTyped = typed !== null;
  useEffect(() => {
    if (isTyped) {
      void ask(text);
      return;
    }
    handedOn.current = null;
    setHanded(null);
    // While the wheel is dragged the line changes with every millimetre: its pieces are marked once it rests.
    const rest = window.setTimeout(() => void ask(text), 120);
    return () => window.clearTimeout(rest);
  }, [text, isTyped, ask]);

  const type = (line: string) => {
    isTakenBack.current = false;
    setTyped(line);
    setDropped("");
    keptHere.put(lineName, line);
  };
  const current = view && view.stretches.map((stretch) => stretch.text).join("") === text ? view : null;
  useEffect(() => {
    if (typed === null || (typed.trim() && !current?.is_sound)) return;
    const pause = window.setTimeout(() => handOn(typed, current), PAUSE);
    return () => window.clearTimeout(pause);
  }, [typed, current, handOn]);
  // Half a word is no plan: the line is handed on when it is whole. A sound one then gives way to its canonical form,
  // an unsound one stays.
  const finish = () => {
    if (typed === null || isTakenBack.current) return;
    if (current || !typed.trim()) handOn(typed, current);
    else atOnce.current = true;
  };
  const leave = () => {
    finish();
    if (typed !== null && (current?.is_sound || !typed.trim()) && !said && tone !== "new") forget();
  };
  /** What was typed is given up: an answer about it that is still to come hands nothing on. */
  const takeBack = () => {
    isTakenBack.current = true;
    atOnce.current = false;
    latest.current += 1;
    forget();
  };
  const choose = (at: number, choice: string) => {
    const stretches = (current?.stretches ?? []).map((stretch, place) =>
      place === at ? ` ${choice} ` : stretch.text,
    );
    type(stretches.join("").replace(/ {2,}/g, " ").trim());
    field.current?.focus();
  };

  /** Typed, and neither handed on nor found at fault yet. */
  const isOnItsWay = typed !== null && handed !== typed && (!typed.trim() || current?.is_sound !== false);
  // A line that nobody types is only marked anew when the program is back: who shows it says that it is away.
  const trouble = said === AWAY && typed === null ? "" : said;
  const faultAt = current?.stretches.findIndex((stretch) => stretch.problem) ?? -1;
  const fault = current?.stretches[faultAt];
  const question =
    fault?.kind === "question" && current?.ask.find((asked) => asked.text === fault.text.trim());
  const aside =
    current?.stretches.filter((stretch) => stretch.kind === "left_aside").map((stretch) => stretch.text) ??
    [];
  const faultId = `${keptAs}-fault`;
  return (
    <div className={`setup-field setup-${tone} min-w-0 flex-1`} data-on-its-way={isOnItsWay || undefined}>
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
                finish();
                if (onEnter) onEnter();
                else event.currentTarget.blur();
              } else if (event.key === "Escape") {
                takeBack();
                event.currentTarget.blur();
              }
            }}
          />
        </div>
      </div>
      {typed === null && dropped && (
        <p role="status" className="pl-[60px] text-small opacity-80" data-dropped>
          Left aside, as no part of a wheel or tire: {dropped}.
        </p>
      )}
      {(fault || trouble || (typed !== null && tone !== "fitted")) && (
        <div className="mt-0.5 min-h-[20px] pl-[60px] text-small">
          {fault && question ? (
            <p id={faultId} role="alert" className="flex flex-wrap items-center gap-x-2 gap-y-1">
              <span>
                <strong>{question.text}</strong> {question.question}
              </span>
              {question.choices.map((choice) => (
                <button
                  key={choice}
                  type="button"
                  className="plain-button px-2"
                  onMouseDown={(event) => event.preventDefault()}
                  onClick={() => choose(faultAt, choice)}
                >
                  {choice}
                </button>
              ))}
            </p>
          ) : fault ? (
            <Fault id={faultId}>
              <strong>{fault.text.trim()}</strong> {fault.problem}.{" "}
              {fault.example && <span className="opacity-90">Write it as in {fault.example}.</span>}
            </Fault>
          ) : trouble ? (
            <Fault id={faultId}>{trouble}</Fault>
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
