const FLOOR = 296;

/** The idea of the product as a picture: speech stands above the water line, the rest rises towards it like a tide and sinks where somebody speaks. */
export function Horizon() {
  const bars = Array.from({ length: 96 }, (_, i) => {
    const speaking = [
      [8, 26],
      [36, 58],
      [69, 88],
    ].some(([a = 0, b = 0]) => i >= a && i < b);
    const wobble = Math.abs(Math.sin(i * 1.9) * 0.6 + Math.sin(i * 0.73 + 2) * 0.4);
    return {
      up: speaking ? 14 + 74 * wobble : 0,
      tide:
        (speaking ? 42 : 118) *
        (0.45 + 0.55 * Math.abs(Math.sin(i * 0.51 + 1) * 0.7 + Math.sin(i * 2.3) * 0.3)),
    };
  });
  return (
    <svg
      aria-hidden
      viewBox="0 0 960 300"
      preserveAspectRatio="xMidYMid slice"
      className="h-full w-full bg-sunk max-md:hidden"
    >
      {bars.map((bar, i) => (
        <g key={i}>
          <rect x={i * 10 + 2} width={6} y={150 - bar.up} height={bar.up} className="fill-speech" rx={1} />
          <rect
            x={i * 10 + 2}
            width={6}
            y={FLOOR - bar.tide}
            height={bar.tide}
            className="fill-music"
            opacity={0.8}
            rx={1}
          />
        </g>
      ))}
      <rect y={150} width={960} height={1.6} className="fill-ink" />
    </svg>
  );
}
