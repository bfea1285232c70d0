import { execFileSync, spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { beginProject, bringIn, expect, makeMedia, signIn, test } from "./support";

const run = process.env.WATTAGE_RUN ?? "";

/** Ends every PHP process of the workers at once, without a word; their supervisors go on. */
function killWorkers(): number {
  let killed = 0;
  for (const number of [1, 2, 3]) {
    const group = readFileSync(`${run}/worker-${number}.pid`, "utf8").trim();
    const found = spawnSync("pgrep", ["-g", group, "-x", "php"], { encoding: "utf8" })
      .stdout.split("\n")
      .filter(Boolean);
    for (const pid of found) {
      execFileSync("kill", ["-KILL", pid]);
      killed++;
    }
  }
  return killed;
}

test("a worker killed in the middle of a job: the job is picked up again and ends once", async ({
  page,
  dir,
}) => {
  test.skip(run === "", "needs to know the workers: bin/test says where");
  test.setTimeout(180_000);
  const long = makeMedia(dir, "long.flac", "0.2*(random(0)-0.5)|0.2*(random(1)-0.5)", 900);
  await signIn(page);
  await beginProject(page, `Killed ${Date.now()}`);
  await bringIn(page, long);
  const analysing = page.getByRole("progressbar", { name: "Analysing long.flac" });
  await expect.poll(async () => Number(await analysing.getAttribute("aria-valuenow"))).toBeGreaterThan(5);
  expect(killWorkers()).toBeGreaterThan(0);
  await expect(page.getByRole("button", { name: "Place long.flac at the playhead" })).toBeVisible({
    timeout: 120_000,
  });
  await expect(page.getByRole("listitem").filter({ hasText: "long.flac" })).toHaveCount(1);
});
