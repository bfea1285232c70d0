import type { ComponentProps } from "react";
import { Divider } from "@/parts/Divider";
import { Panel } from "./Panel";

interface Props extends ComponentProps<typeof Panel> {
  width: number;
  onWidth: (width: number) => void;
}

/** The panel at the right, as wide as its edge is dragged. */
export function Side({ width, onWidth, ...panel }: Props) {
  return (
    <div className="relative flex min-h-0 min-w-0">
      <Panel {...panel} />
      <Divider
        label="Width of the panel"
        className="absolute inset-y-0 -left-[3px] z-20 w-[6px]"
        orientation="vertical"
        value={width}
        min={250}
        max={640}
        reversed
        onChange={onWidth}
      />
    </div>
  );
}
