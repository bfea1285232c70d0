import type { ReactNode } from "react";
import { Horizon } from "./Horizon";

/** The page before one is in: the name, a form, and the horizon. */
export function Door({ line, children }: { line: string; children: ReactNode }) {
  return (
    <main className="grid h-full grid-cols-[minmax(340px,2fr)_3fr] bg-paper max-md:grid-cols-1">
      <div className="flex flex-col justify-center px-12">
        <h1 className="mb-1 text-sign leading-none font-semibold tracking-tight">
          W<span className="text-copper">a</span>ttage
        </h1>
        <p className="mb-8 max-w-[320px] text-faint">{line}</p>
        {children}
      </div>
      <Horizon />
    </main>
  );
}

interface FieldProps {
  label: string;
  name: string;
  type?: "text" | "email" | "password";
  autoComplete: string;
  autoFocus?: boolean;
  minLength?: number;
}

export function DoorField({ label, type = "text", ...input }: FieldProps) {
  return (
    <label className="grid gap-1">
      <span className="font-semibold">{label}</span>
      <input className="field py-2" type={type} required maxLength={200} {...input} />
    </label>
  );
}

export function Problem({ error }: { error: Error | null }) {
  return error ? (
    <p role="alert" className="rounded-md bg-trouble-sheet px-3 py-2 text-trouble">
      {error.message}
    </p>
  ) : null;
}

/** The password rule of the server, so that the field says it at once. */
export const LEAST_PASSWORD = 8;
