/** Reads an answer that comes line by line as JSON, and hears each line as it comes. */
export async function followLines(
  body: ReadableStream<Uint8Array>,
  hear: (line: unknown) => void,
): Promise<void> {
  const reader = body
    .pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array>)
    .getReader();
  for (let rest = ''; ;) {
    const { done, value } = await reader.read();
    if (done) return;
    const lines = (rest + value).split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) hear(JSON.parse(line));
  }
}
