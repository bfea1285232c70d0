import type { Asked } from "./asked";
import { csrfToken, json, request, session } from "./request";
import type { Body } from "./routes";
import type { Edit, Handover, NewRecipe, OwnTarget, Role, Rule, Side, Step } from "./schema";

/** After so long an answer is taken for lost, ms. */
const STEP_MS = 45_000;

/** What the server is asked, by name; docs/openapi.yaml describes each, and the types come from there. */
export const api = {
  session: () => session("GET"),
  signIn: (email: string, password: string) => session("POST", { email, password }),
  signOut: () => session("DELETE"),

  projects: async () => (await json("GET /api/projects", {})).projects,
  createProject: (name: string, frameRate: string, key: string) =>
    json("POST /api/projects", {}, { name, frameRate }, once(key)),
  glance: (id: string) => json("GET /api/projects/{id}/glance", { id }),
  renameProject: (id: string, name: string) => json("PATCH /api/projects/{id}", { id }, { name }),
  deleteProject: (id: string) => json("DELETE /api/projects/{id}", { id }),
  restoreProject: (id: string) => json("POST /api/projects/{id}/restore", { id }),

  mix: (id: string) => json("GET /api/projects/{id}/mix", { id }),
  changes: (id: string, from: number) =>
    json("GET /api/projects/{id}/changes", { id }, undefined, { query: { from } }),
  step: (id: string, asked: Asked, base: number): Promise<Step> => {
    const headers = { "If-Match": `"${base}"`, "Idempotency-Key": asked.key };
    // An answer that does not come is a lost one; asking again does no harm.
    const extras = { headers, signal: AbortSignal.timeout(STEP_MS) };
    switch (asked.kind) {
      case "edit":
        return json("POST /api/projects/{id}/edits", { id }, asked.edit, {
          ...extras,
          query: { instead: asked.instead ? 1 : undefined },
        });
      case "undo":
        return json("POST /api/projects/{id}/undo", { id }, { evenOthers: asked.evenOthers }, extras);
      case "redo":
        return json("POST /api/projects/{id}/redo", { id }, undefined, extras);
      case "goTo":
        return json("PUT /api/projects/{id}/head", { id }, { revision: asked.revision }, extras);
      case "takeUp":
        return json("POST /api/snapshots/{id}/take-up", { id: asked.snapshot }, undefined, extras);
    }
  },
  past: (id: string, revision: number) =>
    json("GET /api/projects/{id}/revisions/{number}/mix", { id, number: revision }),
  figures: (id: string, revision: number) =>
    json("GET /api/projects/{id}/revisions/{number}/figures", { id, number: revision }),
  clarity: (id: string, revision: number) =>
    json("GET /api/projects/{id}/revisions/{number}/clarity", { id, number: revision }),
  moments: (id: string, revision: number, minute: number) =>
    json("GET /api/projects/{id}/revisions/{number}/moments/{minute}", { id, number: revision, minute }),
  measure: (id: string, part: { clips: string[]; from?: number; to?: number }, edit: Edit | null) =>
    json("POST /api/projects/{id}/measure", { id }, { ...part, ...(edit ? { edit } : {}) }),
  copyProject: (id: string, name: string, key: string) =>
    json("POST /api/projects/{id}/copy", { id }, { name }, once(key)),
  evenColour: (id: string, wanted: Body<"POST /api/projects/{id}/even-colour">) =>
    json("POST /api/projects/{id}/even-colour", { id }, wanted),
  evenUp: (id: string, wanted: Body<"POST /api/projects/{id}/even-up">) =>
    json("POST /api/projects/{id}/even-up", { id }, wanted),
  ducking: (id: string, wanted: { rule?: Rule; without?: string }) =>
    json("POST /api/projects/{id}/ducking", { id }, wanted),
  steady: (id: string, wanted: Body<"POST /api/projects/{id}/steady">) =>
    json("POST /api/projects/{id}/steady", { id }, wanted),
  compare: (id: string, from: number, to: number) =>
    json("GET /api/projects/{id}/compare", { id }, undefined, { query: { from, to } }),
  peaks: async (id: string, wanted: Body<"POST /api/projects/{id}/peaks">) =>
    (await json("POST /api/projects/{id}/peaks", { id }, wanted)).peaks,
  snapshots: async (id: string) => (await json("GET /api/projects/{id}/snapshots", { id })).snapshots,
  takeSnapshot: (id: string, name: string, revision: number) =>
    json("POST /api/projects/{id}/snapshots", { id }, { name, revision }),
  renameSnapshot: (id: string, name: string) => json("PATCH /api/snapshots/{id}", { id }, { name }),
  removeSnapshot: async (id: string) => {
    await request("DELETE /api/snapshots/{id}", { id });
  },
  history: (id: string, part: { after?: number; before?: number } = {}) =>
    json("GET /api/projects/{id}/history", { id }, undefined, { query: part }),

  sources: async (id: string) => (await json("GET /api/projects/{id}/sources", { id })).sources,
  announceSource: (id: string, name: string, size: number) =>
    json("POST /api/projects/{id}/sources", { id }, { name, size }),
  sendBytes: (id: string, offset: number, bytes: Blob, signal: AbortSignal) =>
    json("PUT /api/sources/{id}/bytes", { id }, undefined, {
      query: { offset },
      raw: bytes,
      headers: { "Content-Type": "application/octet-stream" },
      signal,
    }),
  retrySource: (id: string) => json("POST /api/sources/{id}/retry", { id }),
  removeSource: async (id: string) => {
    await request("DELETE /api/sources/{id}", { id });
  },
  segment: async (id: string, number: number) =>
    (
      await request("GET /api/sources/{id}/segments/{number}", { id, number }, undefined, {
        priority: "high",
      })
    ).arrayBuffer(),
  heard: async (id: string, from: number, to: number, speech: boolean) =>
    (
      await json("GET /api/sources/{id}/heard", { id }, undefined, {
        query: { from, to, speech: speech ? 1 : 0 },
      })
    ).heard,
  outline: async (id: string, level: number, channel?: Side) => {
    const answer = await request("GET /api/sources/{id}/outline/{level}", { id, level }, undefined, {
      query: { channel },
      priority: "low",
    });
    return new Uint16Array(await answer.arrayBuffer());
  },
  cuts: async (id: string) =>
    (await json("GET /api/sources/{id}/cuts", { id }, undefined, { priority: "low" })).cuts,
  average: async (id: string, level: number, channel?: Side) => {
    const answer = await request("GET /api/sources/{id}/average/{level}", { id, level }, undefined, {
      query: { channel },
      priority: "low",
    });
    return new Uint16Array(await answer.arrayBuffer());
  },

  deliveries: async (id: string) => (await json("GET /api/projects/{id}/deliveries", { id })).deliveries,
  /** The text is sent as it is; what is wrong in it the server says. */
  lookAtCut: (id: string, text: string) =>
    json("POST /api/projects/{id}/cut", { id }, undefined, { raw: text }),
  layTogether: async (id: string, asked: Body<"POST /api/projects/{id}/together">) =>
    (await json("POST /api/projects/{id}/together", { id }, asked)).edit,
  handOver: async (id: string, asked: Handover, key: string) =>
    (await json("POST /api/projects/{id}/handovers", { id }, asked, once(key))).deliveries,
  ownTargets: async () => (await json("GET /api/targets", {})).targets,
  keepTargets: async (targets: OwnTarget[]) => (await json("PUT /api/targets", {}, { targets })).targets,
  keepCover: (id: string, picture: Blob) =>
    request("PUT /api/projects/{id}/cover", { id }, undefined, { raw: picture }),
  removeCover: (id: string) => request("DELETE /api/projects/{id}/cover", { id }),
  recipes: async () => (await json("GET /api/recipes", {})).recipes,
  keepRecipe: (recipe: NewRecipe) => json("POST /api/recipes", {}, recipe),
  changeRecipe: (id: string, recipe: NewRecipe) => json("PUT /api/recipes/{id}", { id }, recipe),
  removeRecipe: (id: string) => request("DELETE /api/recipes/{id}", { id }),
  /** Stops one that is not finished, removes one that is over. */
  removeDelivery: (id: string) => request("DELETE /api/deliveries/{id}", { id }),

  presence: (id: string, screen: string, holds: string | null) =>
    json("PUT /api/projects/{id}/presence/{screen}", { id, screen }, holds === null ? {} : { holds }),
  /** The page may be gone before the answer. */
  leave: (id: string, screen: string) =>
    void fetch(`/api/projects/${id}/presence/${screen}`, {
      method: "DELETE",
      headers: { "X-Csrf-Token": csrfToken() },
      keepalive: true,
    }).catch(() => undefined),

  members: (id: string) => json("GET /api/projects/{id}/members", { id }),
  record: (id: string) => json("GET /api/projects/{id}/members/record", { id }),
  changeRole: (id: string, account: string, role: Role) =>
    request("PATCH /api/projects/{id}/members/{account}", { id, account }, { role }),
  removeMember: (id: string, account: string) =>
    request("DELETE /api/projects/{id}/members/{account}", { id, account }),
  invite: (id: string, email: string, role: Role, key: string) =>
    json("POST /api/projects/{id}/invitations", { id }, { email, role }, once(key)),
  withdraw: (invitation: string) => request("DELETE /api/invitations/{id}", { id: invitation }),
  joinOffer: (token: string) => json("GET /api/join/{token}", { token }),
  join: (token: string, account: { name?: string; password?: string }) =>
    json("POST /api/join/{token}", { token }, account),

  renameMe: (name: string) => request("PATCH /api/account", {}, { name }),
  changePassword: (current: string, password: string) =>
    request("PUT /api/account/password", {}, { current, password }),
  signOutEverywhere: () => request("POST /api/account/sign-out-everywhere", {}),
  forgotten: (email: string) => request("POST /api/forgotten-password", {}, { email }),
  newPassword: (token: string, password: string) =>
    request("POST /api/new-password/{token}", { token }, { password }),
  letters: async () => (await json("GET /api/post-box", {})).letters,

  comments: (id: string) => json("GET /api/projects/{id}/comments", { id }),
  comment: (id: string, at: number, text: string, key: string) =>
    json("POST /api/projects/{id}/comments", { id }, { at, text }, once(key)),
  changeComment: (id: string, change: { text?: string; done?: boolean }) =>
    json("PATCH /api/comments/{id}", { id }, change),
  removeComment: (id: string) => request("DELETE /api/comments/{id}", { id }),
};

function once(key: string): { headers: Record<string, string> } {
  return { headers: { "Idempotency-Key": key } };
}
