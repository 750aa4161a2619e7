/** The text of a file: in UTF-8, or in UTF-16 where its first two bytes say so, as some spreadsheets save it. */
export async function textOf(file: Blob): Promise<string> {
  const bytes = await file.arrayBuffer();
  const [first, second] = new Uint8Array(bytes);
  if (first === 0xff && second === 0xfe) return new TextDecoder("utf-16le").decode(bytes);
  if (first === 0xfe && second === 0xff) return new TextDecoder("utf-16be").decode(bytes);
  return new TextDecoder().decode(bytes);
}
