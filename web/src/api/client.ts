import type {
  Comparison,
  PastMix,
  Peak,
  Snapshot,
  Delivery,
  Edit,
  EvenUpPlan,
  Figures,
  Measured,
  Moments,
  DuckingPlan,
  Rule,
  History,
  OpenedMix,
  ProblemDocument,
  Project,
  Session,
  Side,
  Source,
  SteadyPlan,
  Step,
} from "./types";

/** What the server refused, with its own sentence about it. */
export class ApiError extends Error {
  constructor(readonly problem: ProblemDocument) {
    super(problem.detail);
  }
}

let csrf = "";

async function request(
  method: string,
  path: string,
  body?: BodyInit | object,
  headers: Record<string, string> = {},
  signal?: AbortSignal,
) {
  const raw =
    body instanceof Blob || body instanceof ArrayBuffer || typeof body === "string" || body === undefined;
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers: {
        ...(method === "GET" ? {} : { "X-Csrf-Token": csrf }),
        ...(raw ? {} : { "Content-Type": "application/json" }),
        ...headers,
      },
      body: raw ? (body ?? null) : JSON.stringify(body),
      ...(signal ? { signal } : {}),
    });
  } catch (error) {
    if (signal?.aborted) throw error;
    throw new ApiError({
      type: "about:blank",
      title: "No connection",
      status: 0,
      detail:
        "The server cannot be reached. Your work up to the last edit is saved; check the connection and try again.",
    });
  }
  if (!response.ok) throw new ApiError(await problemOf(response));
  return response;
}

async function problemOf(response: Response): Promise<ProblemDocument> {
  const fallback = {
    type: "about:blank",
    title: response.statusText,
    status: response.status,
    detail: "The server could not do this. Try again in a moment.",
  };
  if (!response.headers.get("Content-Type")?.includes("json")) return fallback;
  return { ...fallback, ...((await response.json()) as Partial<ProblemDocument>) };
}

async function json<T>(
  method: string,
  path: string,
  body?: BodyInit | object,
  headers?: Record<string, string>,
  signal?: AbortSignal,
) {
  return (await (await request(method, path, body, headers, signal)).json()) as T;
}

async function session(method: string, body?: object) {
  const answer = await json<Session>(method, "/api/session", body);
  csrf = answer.csrf;
  return answer;
}

export const api = {
  session: () => session("GET"),
  signIn: (email: string, password: string) => session("POST", { email, password }),
  signOut: () => session("DELETE"),

  projects: async () => (await json<{ projects: Project[] }>("GET", "/api/projects")).projects,
  createProject: (name: string, frameRate: string) =>
    json<Project>("POST", "/api/projects", { name, frameRate }),
  renameProject: (id: string, name: string) => json<Project>("PATCH", `/api/projects/${id}`, { name }),
  deleteProject: (id: string) => json<Project>("DELETE", `/api/projects/${id}`),
  restoreProject: (id: string) => json<Project>("POST", `/api/projects/${id}/restore`),

  mix: (id: string) => json<OpenedMix>("GET", `/api/projects/${id}/mix`),
  /** @param instead whether it takes the place of the newest edit, which must be the one that made `revision` */
  edit: (id: string, revision: number, edit: Edit, instead = false) =>
    json<Step>("POST", `/api/projects/${id}/edits${instead ? "?instead=1" : ""}`, edit, {
      "If-Match": `"${revision}"`,
    }),
  undo: (id: string) => json<Step>("POST", `/api/projects/${id}/undo`),
  redo: (id: string) => json<Step>("POST", `/api/projects/${id}/redo`),
  goTo: (id: string, revision: number) => json<Step>("PUT", `/api/projects/${id}/head`, { revision }),
  past: (id: string, revision: number) =>
    json<PastMix>("GET", `/api/projects/${id}/revisions/${revision}/mix`),
  figures: (id: string, revision: number) =>
    json<Figures>("GET", `/api/projects/${id}/revisions/${revision}/figures`),
  moments: (id: string, revision: number, minute: number) =>
    json<Moments>("GET", `/api/projects/${id}/revisions/${revision}/moments/${minute}`),
  measure: (
    id: string,
    part: { clips: string[]; from?: number | undefined; to?: number | undefined },
    edit: Edit | null,
  ) => json<Measured>("POST", `/api/projects/${id}/measure`, { ...part, ...(edit ? { edit } : {}) }),
  copyProject: (id: string, name: string) => json<Project>("POST", `/api/projects/${id}/copy`, { name }),
  evenUp: (
    id: string,
    wanted: {
      clips: string[];
      by: "average" | "peak";
      to: number | "stem" | { clip: string };
      ceiling?: number;
    },
  ) => json<EvenUpPlan>("POST", `/api/projects/${id}/even-up`, wanted),
  ducking: (id: string, wanted: { rule?: Rule; without?: string }) =>
    json<DuckingPlan>("POST", `/api/projects/${id}/ducking`, wanted),
  steady: (
    id: string,
    wanted: {
      clips: string[];
      to: number | "stem" | "own";
      window: number;
      up: number;
      down: number;
      tolerance: number;
    },
  ) => json<SteadyPlan>("POST", `/api/projects/${id}/steady`, wanted),
  compare: (id: string, from: number, to: number) =>
    json<Comparison>("GET", `/api/projects/${id}/compare?from=${from}&to=${to}`),
  peaks: async (id: string, wanted: { clips: string[]; ceiling: number; from?: number; to?: number }) =>
    (await json<{ peaks: Peak[] }>("POST", `/api/projects/${id}/peaks`, wanted)).peaks,
  snapshots: async (id: string) =>
    (await json<{ snapshots: Snapshot[] }>("GET", `/api/projects/${id}/snapshots`)).snapshots,
  takeSnapshot: (id: string, name: string) =>
    json<Snapshot>("POST", `/api/projects/${id}/snapshots`, { name }),
  renameSnapshot: (id: string, name: string) => json<Snapshot>("PATCH", `/api/snapshots/${id}`, { name }),
  removeSnapshot: async (id: string) => {
    await request("DELETE", `/api/snapshots/${id}`);
  },
  takeUp: (snapshot: string) => json<Step>("POST", `/api/snapshots/${snapshot}/take-up`),
  history: (id: string) => json<History>("GET", `/api/projects/${id}/history`),

  sources: async (id: string) =>
    (await json<{ sources: Source[] }>("GET", `/api/projects/${id}/sources`)).sources,
  announceSource: (id: string, name: string, size: number) =>
    json<Source>("POST", `/api/projects/${id}/sources`, { name, size }),
  sendBytes: (id: string, offset: number, bytes: Blob, signal: AbortSignal) =>
    json<Source>(
      "PUT",
      `/api/sources/${id}/bytes?offset=${offset}`,
      bytes,
      { "Content-Type": "application/octet-stream" },
      signal,
    ),
  retrySource: (id: string) => json<Source>("POST", `/api/sources/${id}/retry`),
  removeSource: async (id: string) => {
    await request("DELETE", `/api/sources/${id}`);
  },
  segment: async (id: string, number: number) =>
    (await request("GET", `/api/sources/${id}/segments/${number}`)).arrayBuffer(),
  heard: async (id: string, from: number, to: number) =>
    (
      await json<{ heard: { from: number; to: number } | null }>(
        "GET",
        `/api/sources/${id}/heard?from=${from}&to=${to}`,
      )
    ).heard,
  outline: async (id: string, level: number, channel?: Side) =>
    new Uint16Array(
      await (
        await request("GET", `/api/sources/${id}/outline/${level}${channel ? `?channel=${channel}` : ""}`)
      ).arrayBuffer(),
    ),

  deliveries: async (id: string) =>
    (await json<{ deliveries: Delivery[] }>("GET", `/api/projects/${id}/deliveries`)).deliveries,
  render: (id: string, format: Delivery["format"]) =>
    json<Delivery>("POST", `/api/projects/${id}/deliveries`, { format }),
  cancelDelivery: (id: string) => json<Delivery>("DELETE", `/api/deliveries/${id}`),
};
