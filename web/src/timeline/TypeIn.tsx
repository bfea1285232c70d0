import { useLayoutEffect, useRef } from "react";

export interface TypeInRequest {
  x: number;
  y: number;
  /** What is being typed, for the label: "Level of Slow accordion". */
  label: string;
  text: string;
  submit(text: string): Promise<boolean>;
}

/** A small field that opens where the pointer is when one starts to type a number. */
export function TypeIn({ request, close }: { request: TypeInRequest; close: () => void }) {
  const input = useRef<HTMLInputElement>(null);
  useLayoutEffect(() => {
    const field = input.current;
    field?.focus();
    field?.setSelectionRange(field.value.length, field.value.length);
  }, [request]);
  return (
    <form
      className="absolute z-30 flex items-center gap-2 rounded-lg border border-copper bg-sheet px-2 py-1 shadow-lg"
      style={{ left: Math.max(4, request.x - 60), top: Math.max(4, request.y - 40) }}
      onSubmit={(event) => {
        event.preventDefault();
        const text = input.current?.value ?? "";
        void request.submit(text).then((done) => {
          if (done) close();
          else input.current?.select();
        });
      }}
    >
      <label className="flex items-center gap-2">
        <span className="text-faint">{request.label}</span>
        <input
          ref={input}
          defaultValue={request.text}
          className="field figure w-24"
          onBlur={close}
          onKeyDown={(event) => {
            if (event.key === "Escape") close();
            event.stopPropagation();
          }}
        />
      </label>
    </form>
  );
}
