/**
 * Lets the player choose a file.
 * @param accept kinds of files, as an input of HTML has them
 */
export function pickFile(accept: string, take: (file: File) => void): void {
  pick(accept, false, ([file]) => take(file!));
}

/** The same for several at once. */
export function pickFiles(accept: string, take: (files: readonly File[]) => void): void {
  pick(accept, true, take);
}

function pick(accept: string, multiple: boolean, take: (files: readonly File[]) => void): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.accept = accept;
  input.multiple = multiple;
  input.addEventListener('change', () => {
    const files = [...(input.files ?? [])];
    if (files.length > 0) take(files);
  });
  input.click();
}
