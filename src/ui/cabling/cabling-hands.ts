/** What the pointer does on the drawing, tool by tool. */
import { setField } from '../../core/design';
import type { Hands } from '../chart/hands';
import { newId } from '../session/new-id';
import { draftOf } from '../session/notes';
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
import type { Cabling } from './useCabling';

type Say = (notice: { text: string }) => void;

/** `now` gives the cabling as it is when the pointer moves. */
function gesturesOn(now: () => Cabling, say: Say): Gestures {
  const vlan = () => now().view.vlan;
  return new Gestures({
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
      run(moveAction(d, to, placeOf, to.size === 1 ? `Move ${thingName(d, { kind, id })}` : `Move ${to.size} things`));
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
    noteMoved: (id, place) =>
      now().run({
        label: 'Move a note',
        edits: (Object.keys(place) as (keyof typeof place)[]).map((f) => setField('note', id, f, place[f])),
      }),
    noteBegun: (draft) => now().setNoting(draft),
    paintsOn: (wire) => vlan() !== null && paintsOn(now().design, [wire], vlan()!),
    painted: (wires, on) => {
      if (vlan() === null) return say({ text: 'Choose the VLAN to paint in the row above first.' });
      now().run(paintAction(now().design, wires, vlan()!, on));
    },
  });
}

function placeThing(cabling: Cabling, kind: 'switch' | 'host' | 'segment', at: { x: number; y: number }): void {
  const { design, tier, make, setNaming, view } = cabling;
  const action =
    kind === 'switch'
      ? addSwitchAction(design, at, tier, newId)
      : kind === 'host'
        ? addHostAction(design, at, view.vlan, newId)
        : addSegmentAction(design, at, newId);
  if (make(action)) setNaming(action.made[0] as { kind: 'switch'; id: string });
}

export function cablingHands(now: () => Cabling, say: Say): Hands {
  const gestures = gesturesOn(now, say);
  return {
    press: (event) => gestures.press(event),
    openNote: (id) => now().setNoting(draftOf(now().design, [{ kind: 'note', id }])),
    doubleClick: (at) => now().tool === 'select' && placeThing(now(), 'switch', at),
    click: (at) => {
      const { tool } = now();
      if (tool !== 'switch' && tool !== 'host' && tool !== 'segment') return false;
      placeThing(now(), tool, at);
      return true;
    },
  };
}
