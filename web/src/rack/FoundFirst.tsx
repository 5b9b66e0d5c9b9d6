import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { asLine } from "../job/content";
import { Caution } from "../shared/Caution";

type Props = { found: Schemas["FinderView"]; id: number };

/** What is said before the setups: facts to be read first, rows left out, and what stands in the way of all. */
export function FoundFirst({ found, id }: Props) {
  return (
    <>
      {found.asks_first.map((one) => (
        <Caution key={one.fact} className="mt-1 text-body" data-asks-first>
          <strong>{one.title} is not known.</strong> Read it off the car before anything is ordered: what is
          proposed here is only alike in itself.{" "}
          <Link className="link" to={`/jobs/${id}/car`}>
            Write it into the car's record
          </Link>
        </Caution>
      ))}
      {found.unreadable.map((said) => (
        <Caution key={said} className="mt-1">
          {said}.
        </Caution>
      ))}
      {found.obstruction && (
        <div className="alert caution alert-error mt-2 text-body" data-obstruction={found.obstruction.code}>
          <p>
            <strong>Nothing fits.</strong> What stands most in the way is {found.obstruction.title}.{" "}
            {found.obstruction.opens}
          </p>
          <p className="text-small">Without it the best would be {asLine(found.obstruction.lines)}.</p>
        </div>
      )}
      {found.setups.length === 0 && !found.obstruction && (
        <p className="mt-2 text-body">
          {found.looked_at.wheels === 0 || found.looked_at.tires === 0 ? (
            <>
              There are no {found.looked_at.wheels === 0 ? "wheels" : "tires"} on the price lists yet: bring a
              supplier's list, and every setup it makes is tried here.{" "}
              <Link className="link" to="?view=lists">
                Bring a price list
              </Link>
            </>
          ) : (
            "Nothing fits, and no single condition opens it: ask for less at once, or put more on the price lists."
          )}
        </p>
      )}
    </>
  );
}
