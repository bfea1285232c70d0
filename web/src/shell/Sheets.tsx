import { useCallback, useState } from "react";
import type { Sheet } from "@/commands";
import { CloseUp, LevelSheet } from "@/features/levels";
import { KeySheet } from "./KeySheet";
import type { Room } from "./TopBar";

/** Which sheet lies over the view; the guide goes to Balance, since it points at what is there. */
export function useSheets(setRoom: (room: Room) => void, setGuide: (shown: boolean) => void) {
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const show = useCallback(
    (next: Sheet) => {
      if (next === "guide") {
        setRoom("balance");
        setGuide(true);
      }
      setSheet(next === "guide" ? null : next);
    },
    [setGuide, setRoom],
  );
  return { sheet, setSheet, show };
}

interface Props {
  sheets: ReturnType<typeof useSheets>;
}

export function Sheets({ sheets }: Props) {
  const { sheet, setSheet, show } = sheets;
  return (
    <>
      <KeySheet
        open={sheet === "keys"}
        onOpenChange={(open) => setSheet(open ? "keys" : null)}
        onGuide={() => show("guide")}
      />
      <LevelSheet sheet={sheet} onClose={() => setSheet(null)} />
      <CloseUp open={sheet === "close-up"} onOpenChange={(open) => setSheet(open ? "close-up" : null)} />
    </>
  );
}
