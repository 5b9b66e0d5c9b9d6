import { type Ref, useImperativeHandle } from "react";
import type { Lines } from "../api/client";
import { SetupSays } from "./SetupSays";
import { useSetupLine } from "./useSetupLine";

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

/**
 * The setup line: one field that reads a setup as it is typed, pasted or said. Every piece is marked as it is
 * recognised; a piece that cannot be read is marked where it stands, with the reason and an example; one that could
 * mean two things is asked, with the answers to press.
 */
export function SetupField(props: Props) {
  const { label, value, placeholder, onRead, onEnter, keptAs, whose, tone, handle } = props;
  const line = useSetupLine({ value, onRead, keptAs, whose, tone });
  const { field, text, typed, type, current, dropped, fault, question, trouble, isOnItsWay } = line;
  const { finish, leave, takeBack, choose } = line;
  useImperativeHandle(handle, () => ({
    focus: () => {
      field.current?.focus();
      field.current?.select();
    },
  }));

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
        <SetupSays
          id={faultId}
          current={current}
          fault={fault}
          question={question}
          trouble={trouble}
          onChoose={choose}
        />
      )}
    </div>
  );
}
