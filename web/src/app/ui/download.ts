/** Hands a text to the browser as a file to keep. */
export function downloadText(name: string, text: string, type = 'application/x-ndjson'): void {
  const url = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // The browser reads it after the click: a moment later nobody needs it.
  setTimeout(() => URL.revokeObjectURL(url), 30_000);
}
