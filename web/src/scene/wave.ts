/** Samples of a piece of sound, by channel, full scale 1.0. */
export type Segment = Float32Array[];

/** Bytes before the sound in the WAV files that the server cuts: RIFF, fmt and data, each as short as it can be. */
const HEADER = 44;

/** Takes a segment apart: 16 or 24 bits, one or two channels. */
export function segmentOf(bytes: ArrayBuffer): Segment {
  const view = new DataView(bytes);
  const channels = view.getUint16(22, true);
  const bits = view.getUint16(34, true);
  const frames = Math.floor((bytes.byteLength - HEADER) / ((channels * bits) / 8));
  return Array.from({ length: channels }, (_, channel) =>
    bits === 16 ? sixteen(bytes, channel, channels, frames) : twentyFour(bytes, channel, channels, frames),
  );
}

// A loop for each channel and width, with nothing called in it: half a million samples are taken apart while somebody waits for a picture.

function sixteen(bytes: ArrayBuffer, channel: number, channels: number, frames: number): Float32Array {
  const samples = new Int16Array(bytes, HEADER, frames * channels);
  const taken = new Float32Array(frames);
  for (let frame = 0, at = channel; frame < frames; frame++, at += channels)
    taken[frame] = (samples[at] ?? 0) / 0x8000;
  return taken;
}

function twentyFour(bytes: ArrayBuffer, channel: number, channels: number, frames: number): Float32Array {
  const data = new Uint8Array(bytes, HEADER);
  const taken = new Float32Array(frames);
  for (let frame = 0, at = 3 * channel; frame < frames; frame++, at += 3 * channels) {
    // Put to the top of 32 bits, it has its sign.
    const top = ((data[at + 2] ?? 0) << 24) | ((data[at + 1] ?? 0) << 16) | ((data[at] ?? 0) << 8);
    taken[frame] = top / 0x80000000;
  }
  return taken;
}
