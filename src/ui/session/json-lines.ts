/** Answers of the server that come as JSON a line, while something goes on. */

/** Sends a request and hands over each line as it comes; fails with the sentence of a refusal. */
export async function jsonLines<Line>(
  address: string,
  body: unknown,
  signal: AbortSignal,
  tell: (line: Line) => void,
): Promise<void> {
  const response = await fetch(address, {
    method: 'POST',
    signal,
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!response.ok || !response.body) {
    const answer = (await response.json().catch(() => null)) as { error?: { sentence?: string } } | null;
    throw new Error(answer?.error?.sentence ?? `The server answered with error ${response.status}.`);
  }
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = '';
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    const lines = (rest + part.value).split('\n');
    rest = lines.pop()!;
    for (const line of lines) if (line !== '') tell(JSON.parse(line) as Line);
  }
}
