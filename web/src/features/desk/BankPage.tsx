import { useEffect, useRef, useState } from "react";
import { dbAt, Fader, partOf } from "@/parts/Fader";
import { Decoder, encode } from "./midi";
import { type Port, simulated } from "./ports";

const STRIPS = 8;

/** A small bank of eight faders, in a window of its own, that stands in for a real one. It speaks nothing but MIDI. */
export function BankPage() {
  const port = useRef<Port | null>(null);
  const [places, setPlaces] = useState<number[]>(Array<number>(STRIPS).fill(partOf(0)));
  const put = (strip: number, place: number) =>
    setPlaces((all) => all.map((old, i) => (i === strip ? place : old)));
  useEffect(() => {
    const decoder = new Decoder();
    const bank = simulated("bank");
    port.current = bank;
    return bank.listen((message) => {
      const move = decoder.read(message);
      if (move?.control === "level") put(move.strip, move.place);
    });
  }, []);
  return (
    <main className="flex h-full flex-col gap-3 p-4">
      <h1 className="text-head font-semibold">Simulated fader bank</h1>
      <p className="text-aside text-faint">
        Eight faders, one for each track of the open Desk, in its order. They send and follow MIDI control
        changes.
      </p>
      <div className="flex min-h-0 flex-1 justify-around">
        {places.map((place, strip) => (
          <div key={strip} className="flex flex-col items-center gap-1">
            <div className="min-h-0 flex-1">
              <Fader
                of={`strip ${strip + 1}`}
                ink="speech"
                value={dbAt(place)}
                disabled={false}
                onMove={(db) => {
                  put(strip, partOf(db));
                  for (const message of encode({ strip, control: "level", place: partOf(db) }))
                    port.current?.send(message);
                }}
              />
            </div>
            <span className="figure text-note">{strip + 1}</span>
          </div>
        ))}
      </div>
    </main>
  );
}
