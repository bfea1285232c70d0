import { type APIResponse } from "@playwright/test";
import { expect, test } from "./support";

/** What the servers say beside what was asked for: read from real answers, through nginx. */
const everywhere = {
  "x-content-type-options": "nosniff",
  "referrer-policy": "same-origin",
  "cross-origin-opener-policy": "same-origin",
  "cross-origin-resource-policy": "same-origin",
};

function guarded(answer: APIResponse) {
  const headers = answer.headers();
  expect(headers).toMatchObject(everywhere);
  expect(headers["content-security-policy"]).toContain("default-src 'self'");
  expect(headers["content-security-policy"]).toContain("frame-ancestors 'none'");
  expect(headers["content-security-policy"]).not.toMatch(/script-src[^;]*unsafe-inline/);
  expect(headers["permissions-policy"]).toContain("microphone=()");
  expect(headers["x-request-id"]).toMatch(/^[0-9a-f]{32}$/);
  expect(headers["server"]).toBe("nginx");
  expect(headers["x-powered-by"]).toBeUndefined();
  expect(headers["access-control-allow-origin"]).toBeUndefined();
}

test("every answer carries the same headers, whoever gives it", async ({ request }) => {
  const page = await request.get("/");
  const script = /assets\/[\w.-]+\.js/.exec(await page.text())?.[0] ?? "";
  const answers = [
    page,
    await request.get("/index.html"),
    await request.get(`/${script}`),
    await request.get("/assets/none.js"),
    await request.get("/api/session"),
    await request.get("/api/projects"),
    await request.get("/api/none"),
    await request.put("/api/sources/x/bytes", { data: Buffer.alloc(21_000_000) }),
  ];
  expect(answers.map((answer) => answer.status())).toEqual([200, 200, 200, 404, 200, 401, 404, 413]);
  answers.forEach(guarded);
});

test("what goes wrong under /api is a problem document, even where nginx says it", async ({ request }) => {
  for (const answer of [
    await request.get("/api/projects"),
    await request.put("/api/sources/x/bytes", { data: Buffer.alloc(21_000_000) }),
  ]) {
    expect(answer.headers()["content-type"]).toContain("application/problem+json");
    const problem = await answer.json();
    expect(problem.status).toBe(answer.status());
    expect(problem.detail).toMatch(/\w.*\./);
  }
});

test("the cookie of a session is kept from scripts and other sites, and answers are kept by nobody else", async ({
  request,
}) => {
  const session = await request.get("/api/session");
  expect(session.headers()["cache-control"]).toContain("no-store");
  const signedIn = await request.post("/api/session", {
    headers: { "X-Csrf-Token": (await session.json()).csrf },
    data: { email: "demo@wattage.example", password: "salt-ferry" },
  });
  const cookie = signedIn.headers()["set-cookie"] ?? "";
  expect(cookie).toMatch(/^wattage=[\w,-]{22,};/);
  expect(cookie.toLowerCase()).toContain("httponly");
  expect(cookie.toLowerCase()).toContain("samesite=strict");
  expect(cookie.toLowerCase()).not.toContain("domain=");
  const list = await request.get("/api/projects");
  expect(list.headers()["cache-control"]).toContain("private");
});

test("files are sent by the web server, with ranges, and only to whoever may have them", async ({
  request,
  browser,
}) => {
  const { csrf } = await (await request.get("/api/session")).json();
  await request.post("/api/session", {
    headers: { "X-Csrf-Token": csrf },
    data: { email: "demo@wattage.example", password: "salt-ferry" },
  });
  const { projects } = await (await request.get("/api/projects")).json();
  const demo = projects.find((p: { name: string }) => p.name === "The Salt Ferry").id;
  const { sources } = await (await request.get(`/api/projects/${demo}/sources`)).json();
  const address = `/api/sources/${sources[0].id}/outline/0`;
  const part = await request.get(address, {
    headers: { Range: "bytes=10-19", "Accept-Encoding": "identity" },
  });
  expect(part.status()).toBe(206);
  expect((await part.body()).length).toBe(10);
  guarded(part);
  const stranger = await browser.newContext();
  expect((await stranger.request.get(address)).status()).toBe(401);
  expect((await stranger.request.get(`/stored/sources/${sources[0].id}/pcm`)).status()).toBe(404);
  await stranger.close();
});
