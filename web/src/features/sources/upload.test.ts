import { afterEach, describe, expect, it, vi } from "vitest";
import { api } from "@/api/client";
import { ApiError } from "@/api/problem";
import type { Source } from "@/api/schema";
import { sendFile, type Upload } from "./upload";

const source = (received: number): Source => ({
  id: "s1",
  name: "take.wav",
  state: "uploading",
  size: 20_000_000,
  received,
  progress: 0,
  problem: null,
  warning: null,
  format: null,
  fileRate: null,
  channels: null,
  frames: null,
  peakDbfs: null,
  averageDbfs: null,
  loudness: null,
  advice: null,
  picture: "none",
  beganAt: null,
  marks: 0,
});

const refused = (status: number) => new ApiError({ type: "about:blank", title: "", status, detail: "no" });
const file = () => new File([new Uint8Array(20_000_000)], "take.wav");

afterEach(() => vi.restoreAllMocks());

function server(answers: (number | Error)[]) {
  const offsets: number[] = [];
  vi.spyOn(api, "announceSource").mockResolvedValue(source(0));
  vi.spyOn(api, "sendBytes").mockImplementation((_id, offset) => {
    offsets.push(offset);
    const answer = answers.shift();
    return answer instanceof Error || answer === undefined
      ? Promise.reject(answer ?? refused(500))
      : Promise.resolve(source(answer));
  });
  return offsets;
}

describe("sending a file", () => {
  it("goes piece by piece and tells how far it is", async () => {
    const offsets = server([8_388_608, 16_777_216, 20_000_000]);
    const told: Partial<Upload>[] = [];
    expect(await sendFile("p", file(), (part) => told.push(part), new AbortController().signal)).toBe(true);
    expect(offsets).toEqual([0, 8_388_608, 16_777_216]);
    expect(told).toEqual([{ source: "s1" }, { sent: 8_388_608 }, { sent: 16_777_216 }, { sent: 20_000_000 }]);
  });

  it("goes on from where the server is", async () => {
    const offsets = server([4_000_000, 12_000_000, 20_000_000]);
    await sendFile("p", file(), () => undefined, new AbortController().signal);
    expect(offsets).toEqual([0, 4_000_000, 12_000_000]);
  });

  it("sends a piece again when the connection was lost", async () => {
    vi.useFakeTimers();
    const offsets = server([8_388_608, refused(0), refused(502), 16_777_216, 20_000_000]);
    const sent = sendFile("p", file(), () => undefined, new AbortController().signal);
    await vi.runAllTimersAsync();
    expect(await sent).toBe(true);
    expect(offsets).toEqual([0, 8_388_608, 8_388_608, 8_388_608, 16_777_216]);
    vi.useRealTimers();
  });

  it("gives up at once when the server says no", async () => {
    const offsets = server([refused(409)]);
    await expect(sendFile("p", file(), () => undefined, new AbortController().signal)).rejects.toThrow("no");
    expect(offsets).toHaveLength(1);
  });

  it("ends quietly when it is stopped", async () => {
    const stop = new AbortController();
    server([8_388_608, refused(0)]);
    stop.abort();
    vi.spyOn(api, "sendBytes").mockRejectedValue(new DOMException("stopped", "AbortError"));
    expect(await sendFile("p", file(), () => undefined, stop.signal)).toBe(false);
  });
});
