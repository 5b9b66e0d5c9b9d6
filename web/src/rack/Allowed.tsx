import type { Axle, Schemas } from "../api/client";
import { NumberBox } from "../shared/NumberBox";
import { useRegistry } from "../shared/registry";

type Levers = NonNullable<Schemas["FinderRequest"]["allowed"]>;
type Props = { allowed: Levers | null; onChange: (allowed: Levers | null) => void };

const AXLES: Axle[] = ["front", "rear"];

/** Work that may be done on the car: the fit window is counted with it, and each setup says what of it it needs. */
export function Allowed({ allowed, onChange }: Props) {
  const registry = useRegistry();
  const levers = registry?.levers.filter((lever) => lever.step != null) ?? [];
  const amount = (axle: Axle, code: string) =>
    allowed?.[axle].find((one) => one.lever === code)?.amount ?? null;
  const put = (axle: Axle, lever: string, value: number | null) => {
    const now = allowed ?? { front: [], rear: [] };
    const others = now[axle].filter((one) => one.lever !== lever);
    const next = { ...now, [axle]: value ? [...others, { lever, amount: value }] : others };
    onChange(next.front.length + next.rear.length > 0 ? next : null);
  };
  const count = allowed ? allowed.front.length + allowed.rear.length : 0;
  return (
    <details>
      <summary className="cursor-pointer">
        work allowed on the car: {count > 0 ? `${count} levers` : "as on the bench"}
      </summary>
      <table className="w-full text-small">
        <thead>
          <tr className="text-note">
            <th className="text-left font-normal">up to</th>
            <th className="font-normal">front</th>
            <th className="font-normal">rear</th>
          </tr>
        </thead>
        <tbody>
          {levers.map((lever) => (
            <tr key={lever.code} title={`${lever.least} to ${lever.most} ${lever.unit}. ${lever.does}`}>
              <td>
                {lever.title}, {lever.unit}
              </td>
              {AXLES.map((axle) => (
                <td key={axle} className="pl-1 text-right">
                  <NumberBox
                    label={`Allowed: ${lever.title}, ${axle}`}
                    placeholder="–"
                    value={amount(axle, lever.code)}
                    onPut={(value) => put(axle, lever.code, value)}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
