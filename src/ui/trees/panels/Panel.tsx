'use client';
import { useEffect, useRef } from 'react';
import { linkAt, linkById } from '../../../core/design';
import type { Ref } from '../../session/view';
import { isThere, useBench, useSession, useTree } from '../../session/context';
import { WHY_EVENT } from '../../session/commands';
import { usePath } from '../usePath';
import { later } from '../../controls/later';
import { TreePanel } from './TreePanel';

const HostPanel = later(() => import('./of-selection').then((m) => m.HostPanel));
const ManyPanel = later(() => import('./of-selection').then((m) => m.ManyPanel));
const NotePanel = later(() => import('./of-selection').then((m) => m.NotePanel));
const PathPanel = later(() => import('./of-selection').then((m) => m.PathPanel));
const SegmentPanel = later(() => import('./of-selection').then((m) => m.SegmentPanel));
const SwitchPanel = later(() => import('./of-selection').then((m) => m.SwitchPanel));
const WirePanel = later(() => import('./of-selection').then((m) => m.WirePanel));

/** What is selected, its settings, and why it is as it is. */
export function Panel() {
  const { view } = useBench();
  const design = useSession((s) => s.design);
  const of = useTree();
  const path = usePath();
  const panel = useRef<HTMLElement>(null);
  useEffect(() => {
    const go = () => {
      const ledger = panel.current?.querySelector<HTMLElement>('.why');
      ledger?.scrollIntoView({ block: 'nearest' });
      ledger?.focus();
    };
    window.addEventListener(WHY_EVENT, go);
    return () => window.removeEventListener(WHY_EVENT, go);
  }, []);
  const selection = view.selection.filter((ref) => isThere(design, ref));
  return (
    <aside className="panel" aria-label="Selection" ref={panel}>
      {of && <PanelContent selection={selection} path={path} />}
    </aside>
  );
}

function PanelContent({ selection, path }: { selection: readonly Ref[]; path: ReturnType<typeof usePath> }) {
  const design = useSession((s) => s.design);
  const [only] = selection;
  if (selection.length === 0 || !only) return <TreePanel />;
  if (path && selection.length === 2) return <PathPanel shown={path} />;
  if (selection.length > 1) return <ManyPanel selection={selection} />;
  switch (only.kind) {
    case 'switch':
      return <SwitchPanel key={only.id} id={only.id} />;
    case 'port': {
      const link = linkAt(design, only.id);
      return <WirePanel key={only.id} focus={only.id} link={link?.id ?? null} />;
    }
    case 'bundle':
      return <WirePanel key={only.id} focus={only.id} link={null} />;
    case 'link': {
      const link = linkById(design, only.id)!;
      const end = 'port' in link.a ? link.a : link.b;
      return <WirePanel key={only.id} focus={'port' in end ? end.port : ''} link={only.id} whole />;
    }
    case 'segment':
      return <SegmentPanel id={only.id} />;
    case 'host':
      return <HostPanel id={only.id} />;
    case 'note':
      return <NotePanel id={only.id} />;
  }
}
