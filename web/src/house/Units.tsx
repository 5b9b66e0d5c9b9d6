import type { House } from "../api/client";

type Props = { shown: House["units"]; onChange: (units: House["units"]) => void };

/** Units a new screen starts with. */
export function Units({ shown, onChange }: Props) {
  return (
    <section>
      <h2 className="label-small font-semibold">Units a new screen starts with</h2>
      <select
        className="bg-base-200 mt-1 h-[32px] px-2 text-body"
        aria-label="Units a new screen starts with"
        value={shown}
        onChange={(event) => onChange(event.target.value)}
      >
        <option value="metric">mm, km/h</option>
        <option value="mixed">mm, mph</option>
        <option value="imperial">inches, mph</option>
      </select>
    </section>
  );
}
