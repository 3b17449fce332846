/**
 * Lets the player choose a file.
 * @param accept kinds of files, as an input of HTML has them
 */
export function pickFile(accept: string, take: (file: File) => void): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.accept = accept;
  input.addEventListener('change', () => {
    const file = input.files?.[0];
    if (file) take(file);
  });
  input.click();
}
