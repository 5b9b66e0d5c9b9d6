/** A change in per cent with its sign, none on what is shown as nothing. */
export function percent(change: number): string {
  const shown = Math.abs(change).toFixed(1);
  const sign = Number(shown) === 0 ? "" : change > 0 ? "+" : "−";
  return `${sign}${shown} %`;
}
