import { useEffect, useRef, useState } from "react";
import { useLocation } from "react-router";
import type { Axle, Schemas } from "../api/client";
import { InlineFault } from "../shared/Caution";
import { numberOf } from "../shared/number";
import { inOwnUnit, useUnits } from "../shared/units";

type Props = {
  entry: Schemas["FactEntry"];
  axle: Axle | null;
  value: string;
  fault: string | null;
  onChange: (text: string) => void;
};

/** Where a fact stands on the car's page: a link may lead to it. */
export const factId = (code: string, axle: Axle | null | undefined) =>
  `fact-${code}${axle ? `-${axle}` : ""}`;

/** One fact: its name, its unit, its value or that nobody knows it. */
export function FactField({ entry, axle, value, fault, onChange }: Props) {
  const [text, setText] = useState(value);
  const field = useRef<HTMLInputElement>(null);
  const id = factId(entry.code, axle);
  const isAskedFor = useLocation().hash === `#${id}`;
  useEffect(() => {
    if (isAskedFor) document.getElementById(id)?.focus();
  }, [id, isAskedFor]);
  // Not while it is typed into: what the program tidied ("19." to "19") would take the next figure's place.
  useEffect(() => {
    if (document.activeElement !== field.current) setText(value);
  }, [value]);
  const name = axle ? `${entry.title}, ${axle}` : entry.title;
  const look = `bg-base-200 w-full min-w-0 border px-2 text-lead leading-[30px] ${
    fault ? "border-error" : "border-transparent"
  } placeholder:text-base-content/75`;
  const own = inOwnUnit(numberOf(text), entry.unit, useUnits().units);
  const put = (next: string) => {
    setText(next);
    onChange(next);
  };
  return (
    <div className="min-w-0" title={entry.note || undefined}>
      <label htmlFor={id} className="flex items-baseline justify-between gap-2 text-note">
        <span className="truncate">
          {entry.title}
          {entry.individual && <span className="opacity-80"> · this car</span>}
        </span>
        {entry.unit && (
          <span className="opacity-80">
            {own && <span data-own-unit>{own} · </span>}
            {entry.unit}
          </span>
        )}
      </label>
      {entry.kind === "one_of" ? (
        <select
          id={id}
          className={`${look} h-[32px]`}
          value={value}
          aria-label={name}
          onChange={(event) => put(event.target.value)}
        >
          <option value="">not known</option>
          {entry.choices.map((choice) => (
            <option key={choice}>{choice}</option>
          ))}
        </select>
      ) : (
        <input
          id={id}
          ref={field}
          className={look}
          aria-label={name}
          aria-invalid={fault ? true : undefined}
          value={text}
          placeholder={entry.least == null ? "not known" : `not known (${entry.least} to ${entry.most})`}
          inputMode={entry.kind === "number" ? "decimal" : "text"}
          maxLength={160}
          onChange={(event) => put(event.target.value)}
          // A figure that stands is typed anew, not added to.
          onFocus={(event) => entry.kind === "number" && event.target.select()}
          onBlur={() => setText(value)}
        />
      )}
      {fault && <InlineFault className="block text-note">{fault}</InlineFault>}
    </div>
  );
}
