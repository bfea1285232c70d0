import { ExternalLink } from "lucide-react";
import { useState } from "react";
import { useMixStore } from "@/store/context";
import { connected, type Port, simulated } from "./ports";
import { useBank } from "./useBank";

/** Connects a fader bank: a real one, or the page that stands in for it. */
export function BankChoice() {
  const store = useMixStore();
  const [port, setPort] = useState<Port | null>(null);
  const [real, setReal] = useState<Port[]>([]);
  useBank(port);
  const look = async () => {
    try {
      const found = await connected();
      setReal(found);
      if (found.length === 0)
        store.getState().set({
          notice: { kind: "error", text: "No MIDI fader bank was found. Plug it in, then look again." },
        });
    } catch {
      store.getState().set({
        notice: {
          kind: "error",
          text: "The browser does not allow MIDI here. Allow it for this page, then look again.",
        },
      });
    }
  };
  const choose = (name: string) => {
    if (name === "look") void look();
    else setPort(name === "simulated" ? simulated("desk") : (real.find((p) => p.name === name) ?? null));
  };
  return (
    <label className="flex items-center gap-2 text-faint">
      Bank
      <select
        className="field !w-auto py-0.5 text-aside"
        aria-label="Fader bank"
        value={port ? (real.includes(port) ? port.name : "simulated") : "none"}
        onChange={(event) => choose(event.target.value)}
      >
        <option value="none">none</option>
        <option value="simulated">simulated</option>
        {real.map((p) => (
          <option key={p.name} value={p.name}>
            {p.name}
          </option>
        ))}
        <option value="look">look for MIDI…</option>
      </select>
      {port && !real.includes(port) && (
        <a
          className="button p-1"
          href="#fader-bank"
          target="_blank"
          aria-label="Open the simulated bank"
          title="Open it in a window of its own"
        >
          <ExternalLink size={14} />
        </a>
      )}
    </label>
  );
}
