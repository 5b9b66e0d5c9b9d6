/** A row of a list as it is changed. */
export function replaced<T>(rows: T[], at: number, change: Partial<T>): T[] {
  return rows.map((row, index) => (index === at ? { ...row, ...change } : row));
}

/** A list without one of its rows. */
export const without = <T>(rows: T[], at: number): T[] => rows.filter((_, index) => index !== at);
