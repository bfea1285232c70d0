/** What stands at a point of the graph: highest sample and average (RMS) of the last moments in dBFS; −Infinity in silence. */
export interface Reading {
  peak: [number, number];
  average: [number, number];
}

export const SILENT: Reading = { peak: [-Infinity, -Infinity], average: [-Infinity, -Infinity] };

const WINDOW = 16384;
/** A VU meter takes 300 ms to come up (IEC 60268-17). */
const AVERAGED_SECONDS = 0.3;

/** Reads levels left and right from a node. */
export class LevelMeter {
  private readonly analysers: AnalyserNode[];
  private readonly buffer = new Float32Array(WINDOW);
  private lastRead = -Infinity;
  private last = SILENT;

  constructor(
    private readonly context: BaseAudioContext,
    input: AudioNode,
  ) {
    const splitter = new ChannelSplitterNode(context, { numberOfOutputs: 2 });
    input.connect(splitter);
    this.analysers = [0, 1].map((channel) => {
      const analyser = new AnalyserNode(context, { fftSize: WINDOW });
      splitter.connect(analyser, channel);
      return analyser;
    });
  }

  /** Peaks since it was last read, so that none between two frames is missed. */
  read(): Reading {
    const { currentTime, sampleRate } = this.context;
    // Several that ask within a frame see the same.
    if (currentTime - this.lastRead < 0.01) return this.last;
    const fresh = Math.min(WINDOW, Math.max(2048, Math.ceil((currentTime - this.lastRead) * sampleRate)));
    const averaged = Math.min(WINDOW, Math.round(AVERAGED_SECONDS * sampleRate));
    this.lastRead = currentTime;
    const [left, right] = [0, 1].map((channel) => this.channel(channel, fresh, averaged));
    if (!left || !right) return SILENT;
    this.last = { peak: [left.peak, right.peak], average: [left.average, right.average] };
    return this.last;
  }

  private channel(channel: number, fresh: number, averaged: number): { peak: number; average: number } {
    this.analysers[channel]?.getFloatTimeDomainData(this.buffer);
    let peak = 0;
    for (let i = WINDOW - fresh; i < WINDOW; i++) peak = Math.max(peak, Math.abs(this.buffer[i] ?? 0));
    let sum = 0;
    for (let i = WINDOW - averaged; i < WINDOW; i++) sum += (this.buffer[i] ?? 0) ** 2;
    return { peak: 20 * Math.log10(peak), average: 10 * Math.log10(sum / averaged) };
  }
}
