import type { Schemas } from "../api/client";
import { Mark } from "../shared/Mark";

type Props = { supply: Schemas["SetSupply"] | undefined; state: string | undefined };

const age = (seconds: number) =>
  seconds < 90
    ? "just now"
    : seconds < 5400
      ? `${Math.round(seconds / 60)} min ago`
      : `${Math.round(seconds / 3600)} h ago`;

const days = (count: number) => (count === 1 ? "1 day" : `${count} days`);

/** When a set can be here, and how old that knowledge is. */
export function Supply({ supply, state }: Props) {
  if (!supply || state === "none")
    return (
      <span className="flex items-center gap-1" data-lead="ask">
        <Mark standing="unknown" size={13} />
        lead time: ask the supplier
      </span>
    );
  const asked = supply.seconds_old == null ? "" : `, asked ${age(supply.seconds_old)}`;
  if (supply.is_gone)
    return (
      <span className="flex items-center gap-1" data-lead="gone">
        <Mark standing="stop" size={13} />
        made no more, and not all there{asked}
      </span>
    );
  if (supply.lead_days == null)
    return (
      <span className="flex items-center gap-1" data-lead="unknown">
        <Mark standing="unknown" size={13} />
        lead time not known{asked}: ask by phone
      </span>
    );
  const toOrder = supply.parts.filter((part) => part.state === "to_order").length;
  return (
    <span className="flex items-center gap-1" data-lead={supply.lead_days}>
      <Mark standing={toOrder > 0 ? "mind" : "good"} size={13} />
      here in {days(supply.lead_days)}
      {toOrder > 0 && ", to order"}
      {asked}
    </span>
  );
}
