import type { Session } from "./schema";
import { ApiError, problemOf, unreachable } from "./problem";
import { type Answer, type Body, type Named, type Route, addressOf } from "./routes";

let csrf = "";

export function csrfToken(): string {
  return csrf;
}

export interface Extras {
  query?: Record<string, string | number | undefined>;
  headers?: Record<string, string>;
  /** Sent as it is, in place of JSON. */
  raw?: BodyInit;
  signal?: AbortSignal;
  /** Of what waits for a connection: sound goes before pictures of it. */
  priority?: RequestPriority;
}

/** Sends a request, and once more where the session was begun anew meanwhile; @throws ApiError with what the server says. */
export async function request<R extends Route>(
  route: R,
  named: Named<R>,
  body?: Body<R>,
  extras: Extras = {},
): Promise<Response> {
  const [method, path] = addressOf(route, named);
  const send = () => reached(method, path + queryOf(extras.query ?? {}), body, extras);
  const response = await send();
  if (response.ok) return response;
  const problem = await problemOf(response);
  // The token goes with the session; where that was begun anew in another window, there is another one.
  if (problem.code === "csrf" && (await renewed())) {
    const again = await send();
    if (again.ok) return again;
    throw new ApiError(await problemOf(again));
  }
  throw new ApiError(problem);
}

/** The same, for its JSON. */
export async function json<R extends Route>(
  route: R,
  named: Named<R>,
  body?: Body<R>,
  extras?: Extras,
): Promise<Answer<R>> {
  const response = await request(route, named, body, extras);
  try {
    return (await response.json()) as Answer<R>;
  } catch {
    throw unreachable(); // The answer was cut off on its way.
  }
}

export async function session(
  method: "GET" | "POST" | "DELETE",
  body?: Body<"POST /api/session">,
): Promise<Session> {
  const answer =
    method === "POST" ? await json("POST /api/session", {}, body) : await json(`${method} /api/session`, {});
  csrf = answer.csrf;
  return answer;
}

async function reached(method: string, path: string, body: unknown, extras: Extras): Promise<Response> {
  const { headers, raw, signal, priority } = extras;
  try {
    return await fetch(path, {
      method,
      headers: {
        ...(method === "GET" ? {} : { "X-Csrf-Token": csrf }),
        ...(body === undefined ? {} : { "Content-Type": "application/json" }),
        ...headers,
      },
      body: body === undefined ? (raw ?? null) : JSON.stringify(body),
      ...(signal ? { signal } : {}),
      ...(priority ? { priority } : {}),
    });
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw unreachable();
  }
}

async function renewed(): Promise<boolean> {
  const before = csrf;
  await session("GET").catch(() => undefined);
  return csrf !== before;
}

function queryOf(part: Record<string, string | number | undefined>): string {
  const named = Object.entries(part).flatMap(([name, value]) =>
    value === undefined ? [] : [[name, String(value)]],
  );
  return named.length ? `?${new URLSearchParams(named)}` : "";
}
