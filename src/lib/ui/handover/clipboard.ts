/** Puts plain text on the clipboard. */
export const copyText = (text: string): Promise<void> => navigator.clipboard.writeText(text);

/** Puts a table on the clipboard as tab-separated text and as an HTML table at once. */
export function copyTable(text: string, html: string): Promise<void> {
  return navigator.clipboard.write([
    new ClipboardItem({
      'text/plain': new Blob([text], { type: 'text/plain' }),
      'text/html': new Blob([html], { type: 'text/html' }),
    }),
  ]);
}

/** Hands a text to the browser to save, in UTF-8. */
export const saveFile = (name: string, text: string, type: string): void =>
  saveBlob(name, new Blob([text], { type }));

export function saveBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** Puts a picture on the clipboard. */
export const copyPicture = (png: Blob): Promise<void> =>
  navigator.clipboard.write([new ClipboardItem({ 'image/png': png })]);

/** A file name from a list's name: letters and digits of any script, dashes for the rest. */
export const fileNameFor = (name: string, what: string): string =>
  `${name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-+|-+$/g, '') || 'list'}-${what}.csv`;
