/** Hands a file to the user. */
export function download(name: string, content: Blob | string | Uint8Array, type = 'text/plain'): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(content instanceof Blob ? content : new Blob([content as BlobPart], { type }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** Fetches a file of the server and hands it to the user under the server's name for it; throws an Error with the server's sentence. */
export async function downloadFrom(address: string): Promise<void> {
  const response = await fetch(address);
  if (!response.ok)
    throw new Error(((await response.json().catch(() => ({}))) as { detail?: string }).detail ?? `the server answered ${response.status}.`);
  const name = /filename="?([^";]+)/.exec(response.headers.get('Content-Disposition') ?? '')?.[1] ?? 'file';
  download(name, await response.blob());
}
