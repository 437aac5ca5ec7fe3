/** The name that goes with the changes made in this browser. */
const KEY = 'knot-path.name';
export const NAME_MOST = 60;

export function authorName(): string {
  try {
    return (localStorage.getItem(KEY) ?? '').slice(0, NAME_MOST);
  } catch {
    return '';
  }
}

/** Keeps the name; false when the browser forbids its storage. */
export function setAuthorName(name: string): boolean {
  try {
    localStorage.setItem(KEY, name.trim().slice(0, NAME_MOST));
    return true;
  } catch {
    return false;
  }
}
