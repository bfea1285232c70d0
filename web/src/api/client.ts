import type { Asked } from "./asked";
import type {
  Comment,
  Comparison,
  Invitation,
  JoinOffer,
  Letter,
  Members,
  OwnTarget,
  Presence,
  ProjectRecord,
  Role,
  PastMix,
  Peak,
  Snapshot,
  Cut,
  Delivery,
  Handover,
  NewRecipe,
  Recipe,
  Edit,
  EvenUpPlan,
  Figures,
  Measured,
  Moments,
  DuckingPlan,
  Rule,
  History,
  OpenedMix,
  Project,
  Session,
  Side,
  Source,
  SteadyPlan,
  Step,
} from "./types";
import { ApiError, problemOf, unreachable } from "./problem";

let csrf = "";

/** After so long an answer is taken for lost, ms. */
const STEP_MS = 45_000;

type Sent = BodyInit | object;

async function request(
  method: string,
  path: string,
  body?: Sent,
  headers: Record<string, string> = {},
  signal?: AbortSignal,
): Promise<Response> {
  const response = await reached(method, path, body, headers, signal);
  if (response.ok) return response;
  const problem = await problemOf(response);
  // The token goes with the session; where that was begun anew in another window, there is another one.
  if (problem.code === "csrf" && (await renewed())) {
    const again = await reached(method, path, body, headers, signal);
    if (again.ok) return again;
    throw new ApiError(await problemOf(again));
  }
  throw new ApiError(problem);
}

async function reached(
  method: string,
  path: string,
  body: Sent | undefined,
  headers: Record<string, string>,
  signal: AbortSignal | undefined,
): Promise<Response> {
  const raw =
    body instanceof Blob || body instanceof ArrayBuffer || typeof body === "string" || body === undefined;
  try {
    return await fetch(path, {
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
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw unreachable();
  }
}

async function renewed(): Promise<boolean> {
  const before = csrf;
  await session("GET").catch(() => undefined);
  return csrf !== before;
}

async function json<T>(
  method: string,
  path: string,
  body?: Sent,
  headers?: Record<string, string>,
  signal?: AbortSignal,
) {
  const response = await request(method, path, body, headers, signal);
  try {
    return (await response.json()) as T;
  } catch {
    throw unreachable(); // The answer was cut off on its way.
  }
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
  createProject: (name: string, frameRate: string, key: string) =>
    json<Project>("POST", "/api/projects", { name, frameRate }, once(key)),
  renameProject: (id: string, name: string) => json<Project>("PATCH", `/api/projects/${id}`, { name }),
  deleteProject: (id: string) => json<Project>("DELETE", `/api/projects/${id}`),
  restoreProject: (id: string) => json<Project>("POST", `/api/projects/${id}/restore`),

  mix: (id: string) => json<OpenedMix>("GET", `/api/projects/${id}/mix`),
  changes: (id: string, from: number) => json<Step>("GET", `/api/projects/${id}/changes?from=${from}`),
  step: (id: string, asked: Asked, base: number) => {
    const [method, path, body] = routeOf(id, asked);
    const headers = { "If-Match": `"${base}"`, "Idempotency-Key": asked.key };
    // An answer that does not come is a lost one; asking again does no harm.
    return json<Step>(method, path, body, headers, AbortSignal.timeout(STEP_MS));
  },
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
  copyProject: (id: string, name: string, key: string) =>
    json<Project>("POST", `/api/projects/${id}/copy`, { name }, once(key)),
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
  takeSnapshot: (id: string, name: string, revision: number) =>
    json<Snapshot>("POST", `/api/projects/${id}/snapshots`, { name, revision }),
  renameSnapshot: (id: string, name: string) => json<Snapshot>("PATCH", `/api/snapshots/${id}`, { name }),
  removeSnapshot: async (id: string) => {
    await request("DELETE", `/api/snapshots/${id}`);
  },
  history: (id: string, part: { after?: number; before?: number } = {}) =>
    json<History>("GET", `/api/projects/${id}/history${queryOf(part)}`),

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
  /** The text is sent as it is; what is wrong in it the server says. */
  lookAtCut: async (id: string, text: string) =>
    (await (await request("POST", `/api/projects/${id}/cut`, text)).json()) as Cut,
  layTogether: async (id: string, asked: { sources: string[]; at: number; byTime: boolean }) =>
    (await json<{ edit: object }>("POST", `/api/projects/${id}/together`, asked)).edit as Edit,
  handOver: async (id: string, asked: Handover, key: string) =>
    (await json<{ deliveries: Delivery[] }>("POST", `/api/projects/${id}/handovers`, asked, once(key)))
      .deliveries,
  ownTargets: async () => (await json<{ targets: OwnTarget[] }>("GET", "/api/targets")).targets,
  keepTargets: async (targets: OwnTarget[]) =>
    (await json<{ targets: OwnTarget[] }>("PUT", "/api/targets", { targets })).targets,
  keepCover: (id: string, picture: Blob) => request("PUT", `/api/projects/${id}/cover`, picture),
  removeCover: (id: string) => request("DELETE", `/api/projects/${id}/cover`),
  recipes: async () => (await json<{ recipes: Recipe[] }>("GET", "/api/recipes")).recipes,
  keepRecipe: (recipe: NewRecipe) => json<Recipe>("POST", "/api/recipes", recipe),
  changeRecipe: (id: string, recipe: NewRecipe) => json<Recipe>("PUT", `/api/recipes/${id}`, recipe),
  removeRecipe: (id: string) => request("DELETE", `/api/recipes/${id}`),
  /** Stops one that is not finished, removes one that is over. */
  removeDelivery: (id: string) => request("DELETE", `/api/deliveries/${id}`),

  presence: (id: string, screen: string, holds: string | null) =>
    json<Presence>("PUT", `/api/projects/${id}/presence/${screen}`, holds === null ? {} : { holds }),
  /** The page may be gone before the answer. */
  leave: (id: string, screen: string) =>
    void fetch(`/api/projects/${id}/presence/${screen}`, {
      method: "DELETE",
      headers: { "X-Csrf-Token": csrf },
      keepalive: true,
    }).catch(() => undefined),

  members: (id: string) => json<Members>("GET", `/api/projects/${id}/members`),
  record: (id: string) => json<ProjectRecord>("GET", `/api/projects/${id}/members/record`),
  changeRole: (id: string, account: string, role: Role) =>
    request("PATCH", `/api/projects/${id}/members/${account}`, { role }),
  removeMember: (id: string, account: string) => request("DELETE", `/api/projects/${id}/members/${account}`),
  invite: (id: string, email: string, role: Role, key: string) =>
    json<Invitation>("POST", `/api/projects/${id}/invitations`, { email, role }, once(key)),
  withdraw: (invitation: string) => request("DELETE", `/api/invitations/${invitation}`),
  joinOffer: (token: string) => json<JoinOffer>("GET", `/api/join/${token}`),
  join: (token: string, account: { name?: string; password?: string }) =>
    json<{ project: string }>("POST", `/api/join/${token}`, account),

  renameMe: (name: string) => request("PATCH", "/api/account", { name }),
  changePassword: (current: string, password: string) =>
    request("PUT", "/api/account/password", { current, password }),
  signOutEverywhere: () => request("POST", "/api/account/sign-out-everywhere"),
  forgotten: (email: string) => request("POST", "/api/forgotten-password", { email }),
  newPassword: (token: string, password: string) =>
    request("POST", `/api/new-password/${token}`, { password }),
  letters: async () => (await json<{ letters: Letter[] }>("GET", "/api/post-box")).letters,

  comments: (id: string) =>
    json<{ version: number; comments: Comment[] }>("GET", `/api/projects/${id}/comments`),
  comment: (id: string, at: number, text: string, key: string) =>
    json<Comment>("POST", `/api/projects/${id}/comments`, { at, text }, once(key)),
  changeComment: (id: string, change: { text?: string; done?: boolean }) =>
    json<Comment>("PATCH", `/api/comments/${id}`, change),
  removeComment: (id: string) => request("DELETE", `/api/comments/${id}`),
};

function once(key: string): Record<string, string> {
  return { "Idempotency-Key": key };
}

function queryOf(part: Record<string, number | undefined>): string {
  const named = Object.entries(part).flatMap(([name, value]) =>
    value === undefined ? [] : [[name, String(value)]],
  );
  return named.length ? `?${new URLSearchParams(named)}` : "";
}

function routeOf(id: string, asked: Asked): [string, string, object?] {
  switch (asked.kind) {
    case "edit":
      return ["POST", `/api/projects/${id}/edits${asked.instead ? "?instead=1" : ""}`, asked.edit];
    case "undo":
      return ["POST", `/api/projects/${id}/undo`, { evenOthers: asked.evenOthers }];
    case "redo":
      return ["POST", `/api/projects/${id}/redo`];
    case "goTo":
      return ["PUT", `/api/projects/${id}/head`, { revision: asked.revision }];
    case "takeUp":
      return ["POST", `/api/snapshots/${asked.snapshot}/take-up`];
  }
}
