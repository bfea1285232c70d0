/** A node that puts the pitch back where playing slower or faster has moved it. */
export async function pitchKeeper(context: AudioContext, speed: number): Promise<AudioNode> {
  const [{ default: SignalsmithStretch }, { default: moduleUrl }] = await Promise.all([
    import("signalsmith-stretch"),
    import("../../node_modules/signalsmith-stretch/SignalsmithStretch.mjs?url"),
  ]);
  SignalsmithStretch.moduleUrl = moduleUrl;
  const node = await SignalsmithStretch(context);
  await node.schedule({ active: true, semitones: -12 * Math.log2(speed) });
  return node;
}
