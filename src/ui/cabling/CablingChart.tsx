'use client';
import { useCallback, useMemo, useRef, useEffect } from 'react';
import type { Chosen } from '../../core/editing';
import { disagreement, disagreementSentence, tagging } from '../../core/editing';
import { endOwner, linkById, linkTypeOf, portById, portLabel } from '../../core/design';
import { pluggedInto } from '../chart/cabling-scene';
import { Chart } from '../chart/Chart';
import type { Hands } from '../chart/hands';
import type { Ref } from '../session/view';
import { useBench } from '../session/context';
import { vlanHue } from '../chart/hue';
import {
  addHostAction,
  addSegmentAction,
  addSwitchAction,
  cableAction,
  cableToNewAction,
  moveAction,
  paintAction,
  paintsOn,
  thingName,
} from './actions';
import { Gestures } from './gestures';
import { NameField } from './NameField';
import { newId } from '../session/new-id';
import type { Cabling } from './useCabling';

const NOTHING: ReadonlySet<string> = new Set();

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
    case 'switch':
    case 'host':
    case 'segment':
      return thingName(design, ref as Chosen);
  }
}

/** The drawing of the cabling, to be worked on. */
export function CablingChart({ cabling }: { cabling: Cabling }) {
  const { variantId, say } = useBench();
  const { design, scene, view, chart, naming, setNaming } = cabling;
  const latest = useRef(cabling);
  useEffect(() => {
    latest.current = cabling;
  });

  const hands = useMemo<Hands>(() => {
    const now = () => latest.current;
    const vlan = () => now().view.vlan;
    const gestures = new Gestures({
      chart: () => now().chart.current,
      tool: () => now().tool,
      looks: () => now().looks,
      places: () => now().places,
      selection: () => now().selection,
      selectMany: (refs) => now().selectMany(refs),
      moved: (to) => {
        const { design: d, placeOf, run } = now();
        const [only] = to.keys();
        const [kind, id] = (only ?? '').split(' ') as ['switch', string];
        run(
          moveAction(d, to, placeOf, to.size === 1 ? `Move ${thingName(d, { kind, id })}` : `Move ${to.size} things`),
        );
      },
      cabled: (from, to) => {
        const action = cableAction(now().design, from, [to], now().speed, newId);
        if (action.edits.length === 0) say({ text: 'A cable needs a switch at one end at least.' });
        else if (now().run(action) && action.made.length > 0) now().selectMany(action.made);
      },
      cabledTo: (from, at) => {
        if (from.kind === 'segment' || from.kind === 'switch' || from.kind === 'host') {
          const action = cableToNewAction(now().design, from, at, now().tier, now().speed, newId);
          if (now().make(action)) now().setNaming(action.made[0] as { kind: 'switch'; id: string });
        }
      },
      paintsOn: (wire) => vlan() !== null && paintsOn(now().design, [wire], vlan()!),
      painted: (wires, on) => {
        if (vlan() === null) return say({ text: 'Choose the VLAN to paint in the row above first.' });
        now().run(paintAction(now().design, wires, vlan()!, on));
      },
    });
    const place = (kind: 'switch' | 'host' | 'segment', at: { x: number; y: number }) => {
      const { design: d, tier, make, setNaming: name } = now();
      const action =
        kind === 'switch'
          ? addSwitchAction(d, at, tier, newId)
          : kind === 'host'
            ? addHostAction(d, at, vlan(), newId)
            : addSegmentAction(d, at, newId);
      if (make(action)) name(action.made[0] as { kind: 'switch'; id: string });
    };
    return {
      press: (event) => gestures.press(event),
      doubleClick: (at) => now().tool === 'select' && place('switch', at),
      click: (at) => {
        const { tool } = now();
        if (tool !== 'switch' && tool !== 'host' && tool !== 'segment') return false;
        place(tool, at);
        return true;
      },
    };
  }, [say]);
  const titleOf = useCallback((ref: Ref) => titleIn(latest.current, ref), []);
  const onSelect = useCallback((ref: Ref | null, add: boolean) => latest.current.select(ref, add), []);

  const inView = design.vlans.find((v) => v.number === view.vlan);
  return (
    <>
      <Chart
        scene={scene}
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
      />
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
