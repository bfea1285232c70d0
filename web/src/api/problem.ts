import type { Problem } from "./schema";

/** What the server refused, with its own sentence about it; or that it could not be reached, status 0. */
export class ApiError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

export function unreachable(): ApiError {
  return new ApiError({
    type: "about:blank",
    title: "No connection",
    status: 0,
    detail:
      "The server cannot be reached. Your work is kept; check the connection, and it is sent again by itself.",
  });
}

export async function problemOf(response: Response): Promise<Problem> {
  const fallback = {
    type: "about:blank",
    title: response.statusText,
    status: response.status,
    detail: "The server could not do this. Try again in a moment.",
  };
  if (!response.headers.get("Content-Type")?.includes("json")) return fallback;
  const document = (await response.json().catch(() => ({}))) as Partial<Problem>;
  return { ...fallback, ...document };
}

/** Whether what stands in the way will pass by itself: no connection, a server at a loss, being signed out. */
export function willPass(error: ApiError): boolean {
  const { status, code } = error.problem;
  return status === 0 || status >= 500 || [401, 408, 425, 429].includes(status) || code === "csrf";
}

/** For requests with a key, which are done once however often they are sent: a lost answer is asked for again. */
export const askedAgain = {
  retry: (count: number, error: Error) =>
    count < 6 && error instanceof ApiError && (error.problem.status === 0 || error.problem.status >= 500),
  retryDelay: (count: number) => Math.min(8000, 400 * 2 ** count),
};
