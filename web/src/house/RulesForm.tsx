import { useId } from "react";
import type { Problem, Registry, Schemas } from "../api/client";
import { InlineFault } from "../shared/Caution";
import { NumberBox } from "../shared/NumberBox";
import type { Rules } from "./Clubs";

type Class = Schemas["ClassView"];
type Clause = Schemas["ClauseView"];

type Props = {
  title: string;
  rules: Rules;
  registry: Registry;
  errors: Problem["errors"];
  onChange: (rules: Rules) => void;
  onSave: () => void;
  onCancel: () => void;
};

const replaced = <T,>(rows: T[], at: number, row: T): T[] =>
  rows.map((one, index) => (index === at ? row : one));
const without = <T,>(rows: T[], at: number): T[] => rows.filter((_, index) => index !== at);

/** A rule file as a form. */
export function RulesForm({ title, rules, registry, errors, onChange, onSave, onCancel }: Props) {
  const faultOf = (pointer: string) =>
    errors.find((one) => one.pointer === pointer || one.pointer.startsWith(`${pointer}/`))?.detail;
  const putClass = (at: number, change: Partial<Class>) => {
    const one = rules.classes[at];
    if (one) onChange({ ...rules, classes: replaced(rules.classes, at, { ...one, ...change }) });
  };
  return (
    <form
      aria-label={title}
      className="border-accent flex flex-col gap-3 border-2 p-3"
      onSubmit={(event) => {
        event.preventDefault();
        onSave();
      }}
    >
      <h2 className="text-lead font-semibold">{title}</h2>
      <div className="flex flex-wrap gap-4">
        <Text
          label="Club"
          value={rules.club}
          fault={faultOf("/club")}
          onPut={(club) => onChange({ ...rules, club })}
        />
        <label className="text-small">
          <span className="block text-note">Counts from</span>
          <input
            type="date"
            className="bg-base-200 h-[30px] px-2"
            value={rules.from}
            onChange={(event) => onChange({ ...rules, from: event.target.value })}
          />
          <Fault says={faultOf("/from")} />
        </label>
      </div>
      <Fault says={errors.find((one) => one.pointer === "/classes")?.detail} />
      {rules.classes.map((one, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a class's name is what is being typed
        <fieldset key={at} className="border-base-300 border-t pt-2" data-class={at}>
          <div className="flex items-end gap-4">
            <Text
              label="Class"
              value={one.name ?? ""}
              fault={faultOf(`/classes/${at}/name`)}
              onPut={(name) => putClass(at, { name })}
            />
            <button
              type="button"
              className="plain-button"
              aria-label={`Take away class ${one.name || at + 1}`}
              onClick={() => onChange({ ...rules, classes: without(rules.classes, at) })}
            >
              Take away
            </button>
          </div>
          <table className="mt-1 text-body">
            <tbody>
              {(one.clauses ?? []).map((clause, index) => (
                <ClauseRow
                  // biome-ignore lint/suspicious/noArrayIndexKey: two clauses may be alike
                  key={index}
                  clause={clause}
                  registry={registry}
                  fault={faultOf(`/classes/${at}/clauses/${index}`)}
                  onPut={(next) => putClass(at, { clauses: replaced(one.clauses ?? [], index, next) })}
                  onTakeAway={() => putClass(at, { clauses: without(one.clauses ?? [], index) })}
                />
              ))}
            </tbody>
          </table>
          <button
            type="button"
            className="plain-button text-accent font-medium"
            onClick={() =>
              putClass(at, { clauses: [...(one.clauses ?? []), { clause: registry.clauses[0]?.code ?? "" }] })
            }
          >
            Add a clause
          </button>
        </fieldset>
      ))}
      <div className="flex gap-3">
        <button
          type="button"
          className="plain-button text-accent font-medium"
          onClick={() => onChange({ ...rules, classes: [...rules.classes, { name: "", clauses: [] }] })}
        >
          Add a class
        </button>
        <button type="submit" className="btn btn-primary btn-sm ml-auto">
          Save
        </button>
        <button type="button" className="btn btn-sm" onClick={onCancel}>
          Leave as it was
        </button>
      </div>
    </form>
  );
}

function ClauseRow({
  clause,
  registry,
  fault,
  onPut,
  onTakeAway,
}: {
  clause: Clause;
  registry: Registry;
  fault: string | undefined;
  onPut: (clause: Clause) => void;
  onTakeAway: () => void;
}) {
  const known = registry.clauses.find((one) => one.code === clause.clause);
  const anyOf = clause.any_of ?? [];
  return (
    <tr className="rule align-top" data-clause={clause.clause}>
      <td className="py-0.5 pr-3">
        <select
          className="bg-base-200 h-[30px] px-2"
          aria-label="Clause"
          value={known ? known.code : ""}
          // Figures of one clause say nothing in another.
          onChange={(event) => onPut({ clause: event.target.value })}
        >
          {registry.clauses.map((one) => (
            <option key={one.code} value={one.code}>
              {one.title}
            </option>
          ))}
          <option value="">another, in words</option>
        </select>
        <Fault says={fault} />
      </td>
      <td className="pr-3">
        {!known && (
          <span>
            <input
              className="bg-base-200 h-[30px] w-[260px] px-2"
              aria-label="The clause in words"
              maxLength={80}
              value={clause.clause}
              onChange={(event) => onPut({ ...clause, clause: event.target.value })}
            />
            <span className="block text-note">is kept and not judged: nothing is legal by it</span>
          </span>
        )}
        {known?.asks === "most" && (
          <span className="flex items-center gap-1">
            at most
            <NumberBox
              label={`${known.title}, at most`}
              value={clause.most}
              placeholder="figure"
              onPut={(most) => onPut({ ...clause, most })}
            />
            {known.unit}
          </span>
        )}
        {known?.asks === "least" && (
          <span className="flex items-center gap-1">
            at least
            <NumberBox
              label={`${known.title}, at least`}
              value={clause.least}
              placeholder="figure"
              onPut={(least) => onPut({ ...clause, least })}
            />
            {known.unit}
          </span>
        )}
        {known?.asks === "makes" && (
          <span className="flex gap-3">
            {registry.wheel_makes.map(({ code, name }) => (
              <label key={code} className="flex items-center gap-1">
                <input
                  type="checkbox"
                  checked={anyOf.includes(code)}
                  onChange={(event) =>
                    onPut({
                      ...clause,
                      any_of: event.target.checked ? [...anyOf, code] : anyOf.filter((one) => one !== code),
                    })
                  }
                />
                {name}
              </label>
            ))}
          </span>
        )}
        {known?.asks === "lines" && (
          <textarea
            className="bg-base-200 w-[320px] px-2"
            aria-label="Tires of the list, one a line"
            placeholder="one line of tires in each row"
            rows={Math.min(8, anyOf.length + 1)}
            value={anyOf.join("\n")}
            onChange={(event) => onPut({ ...clause, any_of: event.target.value.split("\n") })}
            onBlur={() => onPut({ ...clause, any_of: anyOf.map((one) => one.trim()).filter(Boolean) })}
          />
        )}
      </td>
      <td className="text-right whitespace-nowrap">
        <button
          type="button"
          className="plain-button py-0"
          aria-label="Take away the clause"
          onClick={onTakeAway}
        >
          Take away
        </button>
      </td>
    </tr>
  );
}

function Text({
  label,
  value,
  fault,
  onPut,
}: {
  label: string;
  value: string;
  fault: string | undefined;
  onPut: (value: string) => void;
}) {
  const id = useId();
  return (
    <label className="text-small" htmlFor={id}>
      <span className="block text-note">{label}</span>
      <input
        id={id}
        className="bg-base-200 h-[30px] w-[300px] px-2"
        maxLength={120}
        value={value}
        onChange={(event) => onPut(event.target.value)}
      />
      <Fault says={fault} />
    </label>
  );
}

function Fault({ says }: { says: string | undefined }) {
  return says ? <InlineFault className="block text-note">{says}</InlineFault> : null;
}
