import { Away, matching, type Problem, Refused, type Tag } from "./client";
import { fileId, isAnother, OF_FILE } from "./file";

/** A key under which a request may be sent twice and is done once. */
export const newKey = () => crypto.randomUUID();

/** The header parameter of a request that may be sent twice. */
export const keyed = (key: string = newKey()) => ({ "idempotency-key": key });

/** Sends a file as it is; what was answered, or why not. */
export async function upload<T>(path: string, file: Blob, key: string = newKey(), of?: Tag): Promise<T> {
  const response = await fetch(path, {
    method: "POST",
    headers: {
      "content-type": "application/octet-stream",
      ...keyed(key),
      ...(fileId() && { [OF_FILE]: fileId() }),
      ...(of && matching(of)),
    },
    body: file,
  }).catch(() => {
    throw new Away();
  });
  // A proxy or a stopped program may answer without a body of ours.
  const body: unknown = await response.json().catch(() => {
    throw new Away();
  });
  const problem = body as Problem;
  if (!response.ok && problem.type === "other-file") isAnother();
  if (!response.ok) throw new Refused(problem);
  return body as T;
}

/** Why something was not done, in the program's words. */
export const saidBy = (error: unknown): string =>
  error instanceof Refused ? error.problem.errors[0]?.detail || error.message : (error as Error).message;
