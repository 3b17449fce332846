import { saveAs } from 'file-saver';
import { safeFileName } from './exportFiles';

/** Saves a file as the browser saves files. Returns the name that it got. */
export function saveFile(file: Blob, name: string, extension: string): string {
  const full = `${safeFileName(name)}.${extension}`;
  saveAs(file, full);
  return full;
}

/** Whether the device has a sheet to hand such a file to another app. */
export function canShare(file: Blob, name: string): boolean {
  const data = { files: [new File([file], safeFileName(name), { type: file.type })] };
  return typeof navigator.canShare === 'function' && navigator.canShare(data);
}

/** Hands a file to another app by the device's own sheet. Whoever closes that has changed their mind. */
export async function shareFile(file: Blob, name: string): Promise<void> {
  const files = [new File([file], safeFileName(name), { type: file.type })];
  await navigator.share({ files }).catch((error: unknown) => {
    if (!(error instanceof DOMException && error.name === 'AbortError')) throw error;
  });
}
