'use client';
import { useCallback, useMemo, useRef, useEffect } from 'react';
import type { Chosen } from '../../core/editing';
import { disagreement, disagreementSentence, tagging } from '../../core/editing';
import { endOwner, linkById, linkTypeOf, noteById, portById, portLabel } from '../../core/design';
import { pluggedInto } from '../chart/cabling-scene';
import { Chart } from '../chart/Chart';
import type { Hands } from '../chart/hands';
import type { Ref } from '../session/view';
import { NoteDialog } from '../controls/NoteDialog';
import { useFaultMarks } from '../controls/useFaultMarks';
import { useBench } from '../session/context';
import { vlanHue } from '../chart/hue';
import { thingName } from './actions';
import { cablingHands } from './cabling-hands';
import { NameField } from './NameField';
import type { Cabling } from './useCabling';

const NOTHING: ReadonlySet<string> = new Set();
const ABOVE_TABLES = { width: 1280, height: 443 };

/** What is pointed at, in words: who, where it is plugged in, how the VLAN in view leaves it, what does not agree. */
function titleIn({ design, lens }: Cabling, ref: Ref): string {
  switch (ref.kind) {
    case 'port':
    case 'bundle': {
      const port = portById(design, ref.id);
      if (!port) return '';
      const vlan = lens ? `, VLAN ${lens.vlan} ${tagging(design, port.id, lens.vlan)}` : '';
      return `Port ${portLabel(design, port.id)}: ${pluggedInto(design, port.id) ?? 'free'}, ${linkTypeOf(design, port)}${vlan}`;
    }
    case 'link': {
      const link = linkById(design, ref.id);
      if (!link) return '';
      const ends = [link.a, link.b].map((e) =>
        'port' in e ? portLabel(design, e.port) : (endOwner(design, e)?.name ?? ''),
      );
      const found = disagreement(design, link);
      const owners = [link.a, link.b].map((e) => endOwner(design, e)?.name ?? '') as [string, string];
      return [ends.join(' – '), found && disagreementSentence(found, owners)].filter(Boolean).join('\n');
    }
    case 'note':
      return noteById(design, ref.id)?.text ?? '';
    case 'switch':
    case 'host':
    case 'segment':
      return thingName(design, ref as Chosen);
  }
}

/** The drawing of the cabling, to be worked on. */
export function CablingChart({ cabling }: { cabling: Cabling }) {
  const { variantId, say } = useBench();
  const { design, scene, view, chart, naming, setNaming, noting, setNoting } = cabling;
  const marked = useFaultMarks(scene);
  const latest = useRef(cabling);
  useEffect(() => {
    latest.current = cabling;
  });
  const hands = useMemo<Hands>(() => cablingHands(() => latest.current, say), [say]);
  const titleOf = useCallback((ref: Ref) => titleIn(latest.current, ref), []);
  const onSelect = useCallback((ref: Ref | null, add: boolean) => latest.current.select(ref, add), []);

  const inView = design.vlans.find((v) => v.number === view.vlan);
  return (
    <>
      <Chart
        scene={marked}
        fitKey={`${variantId} drawing`}
        hue={inView ? vlanHue(design, inView) : null}
        selection={cabling.selection}
        onSelect={onSelect}
        pathPorts={NOTHING}
        pathPlaces={NOTHING}
        movedPorts={NOTHING}
        titleOf={titleOf}
        label="Drawing of the cabling. Arrow keys go from switch to switch, L lays a cable, F2 renames, Delete takes out."
        hands={hands}
        handle={chart}
        stillSize={ABOVE_TABLES}
      />
      {noting && <NoteDialog draft={noting} onClose={() => setNoting(null)} />}
      {naming && (
        <NameField
          key={`${naming.kind} ${naming.id}`}
          cabling={cabling}
          thing={naming}
          onClose={() => setNaming(null)}
        />
      )}
    </>
  );
}
