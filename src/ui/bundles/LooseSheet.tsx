'use client';
import Button from '@mui/material/Button';
import { Suspense } from 'react';
import { switchById } from '../../core/design';
import { useSession } from '../session/context';
import { CompareOptions } from './charts';

interface Props {
  a: string;
  b: string;
  links: readonly string[];
  onBundle: (links: readonly string[]) => void;
}

/** Parallel cables that are no bundle yet: what could become of them. */
export function LooseSheet({ a, b, links, onBundle }: Props) {
  const design = useSession((s) => s.design);
  const name = `${switchById(design, a)?.name} – ${switchById(design, b)?.name}`;
  return (
    <section className="bundle-sheet" aria-label={`Parallel cables ${name}`}>
      <header>
        <h2>{name}: parallel, not bundled</h2>
        <span className="grow" />
        <Button onClick={() => onBundle(links)}>Bundle</Button>
      </header>
      <Suspense>
        <CompareOptions links={links.slice(0, 2)} />
      </Suspense>
    </section>
  );
}
