'use client';
/** Which steps are done and what was seen: kept in the browser while a change is carried out. */
import { useState } from 'react';
import { useBench } from '../session/context';

interface Kept {
  readonly done: readonly string[];
  readonly ticked: readonly string[];
}
const NOTHING: Kept = { done: [], ticked: [] };

function read(key: string): Kept {
  try {
    const { done, ticked } = JSON.parse(localStorage.getItem(key) ?? 'null') ?? NOTHING;
    const texts = (list: unknown) => (Array.isArray(list) ? list.filter((t) => typeof t === 'string') : []);
    return { done: texts(done), ticked: texts(ticked) };
  } catch {
    return NOTHING;
  }
}

const turned = (list: readonly string[], one: string) =>
  list.includes(one) ? list.filter((x) => x !== one) : [...list, one];

export function useDone(title: string) {
  const { head } = useBench();
  const key = `knot-path:plan ${head.id} ${title}`;
  const [kept, setKept] = useState<Kept>(() => read(key));
  const keep = (next: Kept) => {
    setKept(next);
    try {
      localStorage.setItem(key, JSON.stringify(next));
    } catch {
      // Without room in the browser they are kept as long as the page.
    }
  };
  return {
    done: new Set(kept.done),
    ticked: new Set(kept.ticked),
    turn: (id: string) => keep({ ...kept, done: turned(kept.done, id) }),
    tick: (id: string) => keep({ ...kept, ticked: turned(kept.ticked, id) }),
  };
}
