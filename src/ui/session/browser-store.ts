/** The storage of the browser for small settings: it may be forbidden, full, or hold what another program wrote. */
const area = (which: 'local' | 'session'): Storage => (which === 'local' ? localStorage : sessionStorage);

/** State under a key, as `read` makes of it; null when there is nothing, or nothing that can be read. */
export function readStored<T>(which: 'local' | 'session', key: string, read: (text: string) => T | null): T | null {
  try {
    const text = area(which).getItem(key);
    return text === null ? null : read(text);
  } catch {
    return null;
  }
}

/** Writes a text, or takes it away with null; false when the browser does not take it. */
export function writeStored(which: 'local' | 'session', key: string, text: string | null): boolean {
  try {
    if (text === null) area(which).removeItem(key);
    else area(which).setItem(key, text);
    return true;
  } catch {
    return false;
  }
}
