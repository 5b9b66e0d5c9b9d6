import type { Axle, AxleFit } from "../api/client";
import { Phrase } from "../shared/Figures";

type Props = { axle: Axle; proposal: NonNullable<AxleFit["proposal"]>; onTake: () => void };

/** The mildest mend in a sentence, what it costs, and one press to try it. */
export function ProposalNote({ axle, proposal, onTake }: Props) {
  return (
    <div
      className="bg-accent/10 border-accent mx-3 mb-1 border-l-3 px-2 py-1 text-body leading-5"
      data-proposal={axle}
    >
      <p>
        <strong className="capitalize">{axle}:</strong> <Phrase fragments={proposal.says} />
        <button type="button" className="plain-button text-accent ml-1 py-0 font-medium" onClick={onTake}>
          Try it
        </button>
      </p>
      <details className="text-small leading-[18px]">
        <summary className="cursor-pointer">
          what it costs{proposal.can_be_undone ? "" : "; cannot be undone"}
        </summary>
        {proposal.costs.map((cost) => (
          <p key={cost.title}>
            <strong>{cost.title}.</strong> {cost.costs} {cost.caution}
          </p>
        ))}
      </details>
    </div>
  );
}
