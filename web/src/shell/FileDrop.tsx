import { type ReactNode, useState } from "react";
import { useCanEdit } from "@/store/context";

interface Props {
  className: string;
  onFiles: (files: FileList) => void;
  children: ReactNode;
}

/** Takes files that are dropped anywhere on it. */
export function FileDrop({ className, onFiles, children }: Props) {
  const canEdit = useCanEdit();
  const [over, setOver] = useState(false);
  return (
    <div
      className={className}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes("Files") || !canEdit) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={(event) => event.currentTarget === event.target && setOver(false)}
      onDrop={(event) => {
        if (!event.dataTransfer.files.length) return;
        event.preventDefault();
        setOver(false);
        onFiles(event.dataTransfer.files);
      }}
    >
      {children}
      {over && (
        <div className="pointer-events-none absolute inset-3 z-50 grid place-content-center rounded-2xl border-2 border-dashed border-copper bg-glow text-title font-semibold">
          Let go to bring these files in
        </div>
      )}
    </div>
  );
}
