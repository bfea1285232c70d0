declare module "signalsmith-stretch" {
  interface StretchNode extends AudioWorkletNode {
    schedule(change: { active?: boolean; semitones?: number; rate?: number }): Promise<unknown>;
  }
  const create: { (context: AudioContext): Promise<StretchNode>; moduleUrl?: string };
  export default create;
}

declare module "*?url" {
  const url: string;
  export default url;
}
