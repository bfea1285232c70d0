/** Our key map, as the sheet shows it. What each does stands in useKeys. */
export const KEY_SHEET: { title: string; keys: [string, string][] }[] = [
  {
    title: "Listen",
    keys: [
      ["Space", "play, stop"],
      ["← →", "a frame back, forth (Shift: a second)"],
      ["Home, End", "to the start, to the end"],
      ["X", "solo the track of the selected clip"],
    ],
  },
  {
    title: "Select",
    keys: [
      ["I, O", "range starts, ends at the playhead"],
      ["Tab", "from clip to clip"],
      ["B, N", "keyframe before, next"],
      ["Escape", "give up a drag, drop the range"],
    ],
  },
  {
    title: "Levels",
    keys: [
      ["↑ ↓", "selected keyframe or clip 1 dB up, down (Shift: 0.1)"],
      ["D", "dip the range by the last amount"],
      ["K", "keyframe at the playhead"],
      ["digits", "over a wire, keyframe or range: type the level"],
      ["U", "mute the track of the selected clip"],
    ],
  },
  {
    title: "Arrange",
    keys: [
      ["Delete", "remove the selected keyframe or clip"],
      ["Ctrl+Z", "undo"],
      ["Ctrl+Shift+Z", "redo"],
      ["Alt while dragging", "no snapping"],
      ["Ctrl while dragging", "a tenth of the way"],
      ["Shift while dragging", "one axis"],
    ],
  },
  {
    title: "View",
    keys: [
      ["+ −", "closer, farther"],
      ["A", "the whole programme"],
      ["R", "the range"],
      ["Ctrl+wheel", "zoom at the pointer"],
      ["?", "this sheet"],
    ],
  },
];
