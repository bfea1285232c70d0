import { useCanEdit } from "@/store/context";
import { FileRow } from "./FileRow";
import { useFiles } from "./useFiles";
import { useHearFile } from "./useHearFile";

/** The files made so far, newest first: what each is, measured at, and what the peak guard did for it. */
export function Files({ onGo }: { onGo: () => void }) {
  const files = useFiles();
  const canEdit = useCanEdit();
  const hearing = useHearFile();
  return (
    <section aria-label="Files" className="min-h-0 overflow-y-auto px-4 py-3">
      <h2 className="caps mb-1">Files</h2>
      {files.length === 0 && (
        <p className="text-faint">
          Nothing has been made yet. Make a recipe, or render one file as it is; both run behind.
        </p>
      )}
      <ul>
        {files.map((file) => (
          <FileRow key={file.id} file={file} canEdit={canEdit} hearing={hearing} onGo={onGo} />
        ))}
      </ul>
    </section>
  );
}
