/** A reading kept in a design: packed, so that a design with thousands of ports stays one that is quick to save. */
import { addElement, observedNetworkSchema } from '../design';
import type { Design, Edit, KeptReading, ObservedNetwork } from '../design';

async function through(octets: Uint8Array<ArrayBuffer>, way: ReadableWritablePair): Promise<Uint8Array> {
  return new Uint8Array(await new Response(new Blob([octets]).stream().pipeThrough(way)).arrayBuffer());
}

/** Characters at once: a call takes only so many arguments. */
const PIECE = 0x8000;

function base64Of(octets: Uint8Array): string {
  let text = '';
  for (let at = 0; at < octets.length; at += PIECE) text += String.fromCharCode(...octets.subarray(at, at + PIECE));
  return btoa(text);
}

/** An observed network as a design keeps it: JSON, gzip, base64. */
export async function packObserved(network: ObservedNetwork): Promise<string> {
  const octets = new TextEncoder().encode(JSON.stringify(network));
  return base64Of(await through(octets, new CompressionStream('gzip')));
}

/** The network that was packed; null where the text is damaged, or of another form. */
export async function unpackObserved(packed: string): Promise<ObservedNetwork | null> {
  try {
    const octets = Uint8Array.from(atob(packed), (c) => c.charCodeAt(0));
    const text = new TextDecoder().decode(await through(octets, new DecompressionStream('gzip')));
    return observedNetworkSchema.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}

/** Edits after which a design keeps this reading, and no earlier one; without one, none. */
export function keepReading(design: Design, reading: KeptReading | null): Edit[] {
  const gone = design.readings.map((r): Edit => ({ type: 'remove', kind: 'reading', id: r.id }));
  return reading ? [...gone, addElement('reading', reading)] : gone;
}
