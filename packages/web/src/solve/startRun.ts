import { mutate } from '../api/mutate.ts';
import { sendJson } from '../api/client.ts';
import { useProject } from '../project/store.ts';

/** Queues a run of the document as it stands. Gives the reason if the server refuses. */
export async function startRun(project: string): Promise<string | null> {
  const { document, saveNow } = useProject.getState();
  if (!document) return null;
  try {
    await saveNow();
    await sendJson('POST', `/projects/${project}/runs`, { document });
    await mutate(`/projects/${project}/runs`);
    return null;
  } catch (error) {
    return (error as Error).message;
  }
}
