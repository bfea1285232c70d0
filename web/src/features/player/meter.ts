/** Reads the highest sample of the last moments, left and right, from a node. */
export class PeakMeter {
  private readonly analysers: AnalyserNode[];
  private readonly buffer = new Float32Array(2048);

  constructor(context: BaseAudioContext, input: AudioNode) {
    const splitter = new ChannelSplitterNode(context, { numberOfOutputs: 2 });
    input.connect(splitter);
    this.analysers = [0, 1].map((channel) => {
      const analyser = new AnalyserNode(context, { fftSize: 2048 });
      splitter.connect(analyser, channel);
      return analyser;
    });
  }

  /** dBFS of left and right; −Infinity in silence. */
  read(): [number, number] {
    return [this.peak(0), this.peak(1)];
  }

  private peak(channel: number): number {
    this.analysers[channel]?.getFloatTimeDomainData(this.buffer);
    let peak = 0;
    for (const sample of this.buffer) {
      const size = sample < 0 ? -sample : sample;
      if (size > peak) peak = size;
    }
    return 20 * Math.log10(peak);
  }
}
