/** Several files as one package, to be read as one that came packed; a file alone stays as it is. */
export async function asOneFile(files: readonly File[]): Promise<File | null> {
  const [first] = files;
  if (!first || files.length === 1) return first ?? null;
  const { zipSync } = await import('fflate');
  const taken: Record<string, Uint8Array> = {};
  for (const file of files) {
    let { name } = file;
    for (let n = 2; name in taken; n++) name = `${n} ${file.name}`;
    taken[name] = new Uint8Array(await file.arrayBuffer());
  }
  return new File([zipSync(taken, { level: 0 }).slice()], `${files.length} files.zip`);
}
