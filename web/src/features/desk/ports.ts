/** Something with faders that speaks MIDI: a real one, or the one that stands in for it. */
export interface Port {
  name: string;
  send(message: Uint8Array): void;
  /** @returns the way to stop listening */
  listen(heard: (message: Uint8Array, when: number) => void): () => void;
}

const CHANNEL = "wattage-fader-bank";

/** The bank that ships with Wattage: a page of its own, which sends and gets the same bytes as a real one. */
export function simulated(end: "desk" | "bank"): Port {
  const channel = new BroadcastChannel(CHANNEL);
  return {
    name: "Simulated bank",
    send: (message) => channel.postMessage({ from: end, bytes: [...message] }),
    listen: (heard) => {
      const onMessage = ({ data }: MessageEvent<{ from: string; bytes: number[] }>) => {
        if (data.from !== end) heard(Uint8Array.from(data.bytes), performance.now());
      };
      channel.addEventListener("message", onMessage);
      return () => {
        channel.removeEventListener("message", onMessage);
        channel.close();
      };
    },
  };
}

/** Real banks, through the browser's Web MIDI; the browser asks first. Inputs and outputs of the same name are one bank. */
export async function connected(): Promise<Port[]> {
  if (!("requestMIDIAccess" in navigator)) return [];
  const access = await navigator.requestMIDIAccess();
  const outputs = [...access.outputs.values()];
  return [...access.inputs.values()].map((input) => ({
    name: input.name ?? "MIDI",
    send: (message) => outputs.find((o) => o.name === input.name)?.send(message),
    listen: (heard) => {
      const onMessage = (event: MIDIMessageEvent) => event.data && heard(event.data, event.timeStamp);
      input.addEventListener("midimessage", onMessage);
      return () => input.removeEventListener("midimessage", onMessage);
    },
  }));
}
