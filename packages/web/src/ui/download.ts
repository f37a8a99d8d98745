/** Hands a file to the user. */
export function download(name: string, content: Blob | string | Uint8Array, type = 'text/plain'): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(content instanceof Blob ? content : new Blob([content as BlobPart], { type }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
