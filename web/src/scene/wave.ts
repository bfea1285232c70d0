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
  const segment = Array.from({ length: channels }, () => new Float32Array(frames));
  const read = bits === 16 ? sixteen(view) : twentyFour(view);
  for (let frame = 0, n = 0; frame < frames; frame++)
    for (const channel of segment) channel[frame] = read(n++);
  return segment;
}

function sixteen(view: DataView) {
  return (n: number) => view.getInt16(HEADER + 2 * n, true) / 0x8000;
}

function twentyFour(view: DataView) {
  return (n: number) => {
    const at = HEADER + 3 * n;
    return (view.getInt16(at + 1, true) * 256 + view.getUint8(at)) / 0x800000;
  };
}
