import { api } from "@/api/client";
import { ApiError } from "@/api/problem";

const PIECE = 8 * 1024 * 1024;
const TRIES = 4;

export interface Upload {
  key: string;
  name: string;
  size: number;
  sent: number;
  /** Set once the server knows the file. */
  source: string | null;
  problem: string | null;
}

/**
 * Sends a file piece by piece. A piece that does not get through is sent again from where the server is.
 * @returns false when it was stopped
 */
export async function sendFile(
  project: string,
  file: File,
  tell: (part: Partial<Upload>) => void,
  signal: AbortSignal,
): Promise<boolean> {
  const source = await api.announceSource(project, file.name, file.size);
  tell({ source: source.id });
  let offset = 0;
  for (let tries = 0; offset < file.size;) {
    try {
      offset = (await api.sendBytes(source.id, offset, file.slice(offset, offset + PIECE), signal)).received;
      tries = 0;
      tell({ sent: offset });
    } catch (error) {
      if (signal.aborted) return false;
      if (error instanceof ApiError && error.problem.status !== 0 && error.problem.status < 500) throw error;
      if (++tries >= TRIES) throw error;
      await new Promise((resolve) => setTimeout(resolve, 500 * 2 ** tries));
    }
  }
  return true;
}
