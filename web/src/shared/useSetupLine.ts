import { useCallback, useEffect, useRef, useState } from "react";
import { answer, api, type Lines, type LineView, Refused } from "../api/client";
import { keptHere, LINES } from "./kept";

/** A readable line counts as whole when nothing was typed for so long, in milliseconds. */
const PAUSE = 900;
const AWAY = "The program does not answer. What you typed stays here; trying again.";

type Line = {
  /** The canonical line shown while nothing is being typed. */
  value: string;
  onRead: (view: { lines: Lines; namesAxles: boolean }) => void;
  keptAs: string;
  whose?: string;
  tone: "planned" | "fitted" | "new";
};

/** What is typed of a setup line, how it reads, and when it is whole and handed on. */
export function useSetupLine({ value, onRead, keptAs, whose, tone }: Line) {
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
  /** An answer to the question takes the place of the piece that was asked about. */
  const choose = (choice: string) => {
    const stretches = (current?.stretches ?? []).map((stretch, place) =>
      place === faultAt ? ` ${choice} ` : stretch.text,
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
  return {
    field,
    text,
    typed,
    type,
    current,
    dropped,
    fault,
    question,
    trouble,
    isOnItsWay,
    finish,
    leave,
    takeBack,
    choose,
  };
}
