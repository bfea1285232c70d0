import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { beginProject, bringIn, expect, makeMedia, mix, settled, signIn, test } from "./support";

const time = (value: number) => ({ OTIO_SCHEMA: "RationalTime.1", value, rate: 25 });
const clip = (name: string, from: number, frames: number) => ({
  OTIO_SCHEMA: "Clip.2",
  name,
  source_range: { OTIO_SCHEMA: "TimeRange.1", start_time: time(from), duration: time(frames) },
  media_references: {
    DEFAULT_MEDIA: { OTIO_SCHEMA: "ExternalReference.1", target_url: `file:///rushes/${name}` },
  },
});

const otio = (tracks: { name: string; clips: object[] }[]) =>
  JSON.stringify({
    OTIO_SCHEMA: "Timeline.1",
    name: "Reel 2",
    tracks: {
      OTIO_SCHEMA: "Stack.1",
      children: tracks.map(({ name, clips }) => ({
        OTIO_SCHEMA: "Track.1",
        kind: "Audio",
        name,
        children: clips,
      })),
    },
  });

test("a cut from elsewhere is looked at, completed, and laid in one step that can be undone", async ({
  page,
  dir,
}) => {
  const host = makeMedia(dir, "host.wav", "0.2*sin(2*PI*220*t)", 8);
  const bed = makeMedia(dir, "harbour bed.wav", "0.1*sin(2*PI*330*t)", 12);
  const file = join(dir, "reel.otio");
  const tracks = [
    { name: "Dialogue", clips: [clip("host.wav", 0, 50), clip("host.wav", 100, 75)] },
    { name: "Music", clips: [clip("harbour bed.wav", 0, 200)] },
  ];
  writeFileSync(file, otio(tracks));
  await signIn(page);
  await beginProject(page, `Cut ${Date.now()}`);
  await bringIn(page, host);
  await expect(page.getByRole("button", { name: "Place host.wav at the playhead" })).toBeVisible();
  await page.getByRole("button", { name: "Intake" }).click();
  await page.getByLabel("A cut, OTIO or EDL").setInputFiles(file);
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByText("3 clips on 2 tracks of sound; the sources of 2 are here.")).toBeVisible();
  await expect(dialog.getByRole("listitem").filter({ hasText: "harbour bed.wav" })).toContainText("1 clip");
  await page.keyboard.press("Escape");
  await page.getByRole("tab", { name: "Sources" }).click();
  await bringIn(page, bed);
  await expect(page.getByRole("button", { name: "Place harbour bed.wav at the playhead" })).toBeVisible();
  await page.getByLabel("A cut, OTIO or EDL").setInputFiles(file);
  await expect(dialog.getByText("the sources of 3 are here")).toBeVisible();
  await dialog.getByRole("button", { name: "Lay it" }).click();
  await expect(dialog).toHaveCount(0);
  await settled(page);
  const laid = await mix(page);
  expect(laid.tracks.map((t) => [t.name, t.stem])).toEqual([
    ["Dialogue", "speech"],
    ["Music", "music"],
  ]);
  expect(laid.clips).toHaveLength(3);
  expect(laid.label).toBe("Lay the cut Reel 2, 3 clips");
  await page.keyboard.press("Control+z");
  await settled(page);
  expect((await mix(page)).clips).toHaveLength(0);

  const list = join(dir, "reel.edl");
  writeFileSync(
    list,
    "TITLE: Reel 3\nFCM: NON-DROP FRAME\n001  HOST  A  C  00:00:01:00 00:00:03:00 01:00:00:00 01:00:02:00\n* FROM CLIP NAME: HOST.WAV\n",
  );
  await page.getByLabel("A cut, OTIO or EDL").setInputFiles(list);
  await expect(dialog.getByText("1 clip on 1 track of sound; the sources of 1 are here.")).toBeVisible();
  await expect(dialog.getByText(/begins at 01:00:00:00/)).toBeVisible();
  await page.keyboard.press("Escape");

  writeFileSync(file, "<something else>");
  await page.getByLabel("A cut, OTIO or EDL").setInputFiles(file);
  await expect(dialog.getByRole("alert")).toContainText("neither OpenTimelineIO nor an edit decision list");
});

test("the cut has changed: it is brought in again, says what is new and gone, and the balance is kept", async ({
  page,
  dir,
}) => {
  const host = makeMedia(dir, "host.wav", "0.2*sin(2*PI*220*t)", 12);
  const bell = makeMedia(dir, "bell.wav", "0.1*sin(2*PI*880*t)", 4);
  const file = join(dir, "reel.otio");
  writeFileSync(
    file,
    otio([{ name: "Dialogue", clips: [clip("host.wav", 0, 50), clip("host.wav", 100, 75)] }]),
  );
  await signIn(page);
  await beginProject(page, `Changed cut ${Date.now()}`);
  await bringIn(page, host, bell);
  await expect(page.getByRole("button", { name: "Place bell.wav at the playhead" })).toBeVisible();
  await page.getByRole("button", { name: "Intake" }).click();
  const dialog = page.getByRole("dialog");
  await page.getByLabel("A cut, OTIO or EDL").setInputFiles(file);
  await dialog.getByRole("button", { name: "Lay it" }).click();
  await expect(dialog).toHaveCount(0);
  const second = (await mix(page)).clips.find((c) => c.at > 0)?.id ?? "";
  await page.evaluate(
    (id) => void window.wattage?.store.getState().edit({ edit: "set-clip-gain", clips: [id], gain: -6.5 }),
    second,
  );
  await settled(page);

  writeFileSync(
    file,
    otio([
      {
        name: "Dialogue",
        clips: [clip("bell.wav", 0, 25), clip("host.wav", 0, 40), clip("host.wav", 100, 75)],
      },
    ]),
  );
  await page.getByLabel("A cut, OTIO or EDL").setInputFiles(file);
  await expect(dialog.getByRole("radio", { name: /A new version of what lies on Dialogue/ })).toBeChecked();
  await expect(dialog.getByRole("region", { name: "New" })).toContainText("bell.wav");
  await expect(dialog.getByRole("region", { name: /Begins or ends elsewhere/ })).toContainText("host.wav");
  await dialog.getByRole("button", { name: "Bring in the changed cut" }).click();
  await expect(dialog).toHaveCount(0);
  await settled(page);
  const after = await mix(page);
  expect(after.tracks).toHaveLength(1);
  const kept = after.clips.find((c) => c.id === second);
  expect([kept?.at, kept?.gain]).toEqual([65 * 1920, -6.5]);
  await page.keyboard.press("Control+z");
  await settled(page);
  expect((await mix(page)).clips.find((c) => c.id === second)?.at).toBe(50 * 1920);
});
