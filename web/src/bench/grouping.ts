import type { LedgerLine } from "../api/client";
import { same } from "../job/content";

export type Group = { title: string; lines: LedgerLine[] };

/** By axle; a line that reads the same front and rear is shown once for both. */
export function grouped(ledger: LedgerLine[]): Group[] {
  const front = ledger.filter((line) => line.axle === "front");
  const rear = ledger.filter((line) => line.axle === "rear");
  const car = ledger.filter((line) => !line.axle);
  const twin = (line: LedgerLine, others: LedgerLine[]) =>
    others.some(
      (other) => other.code === line.code && same({ ...other, axle: null }, { ...line, axle: null }),
    );
  const isSquare =
    front.length > 0 && front.length === rear.length && front.every((line) => twin(line, rear));
  const groups: Group[] = isSquare
    ? [{ title: "Front and rear alike", lines: front }]
    : [
        { title: "Front", lines: front },
        { title: "Rear", lines: rear },
      ];
  return [...groups, { title: "The car", lines: car }].filter((group) => group.lines.length > 0);
}
