'use client';
import { useMemo } from 'react';
import type { Chosen } from '../../core/editing';
import type { Point } from '../chart/geometry';
import { useBench } from '../session/context';
import type { Command } from '../session/commands';
import {
  alignedPlaces,
  cableAction,
  chosenPart,
  isThing,
  moveAction,
  oneMoreAction,
  paintAction,
  paintsOn,
  pasteAction,
  removeAction,
  tierPlaces,
} from './actions';
import { WAYS } from './arrange-job';
import type { Way } from './arrange-job';
import { toolByKey } from './Tools';
import { newId } from '../session/new-id';
import { draftOf } from '../session/notes';
import type { Cabling } from './useCabling';

interface Doings {
  readonly pattern: () => void;
  readonly files: () => void;
  readonly cableFrom: (thing: Chosen) => void;
  readonly arrange: (way: Way) => void;
  readonly tables: () => void;
  readonly check: () => void;
}

const STEP: Record<string, Point> = {
  ArrowLeft: { x: -10, y: 0 },
  ArrowRight: { x: 10, y: 0 },
  ArrowUp: { x: 0, y: -10 },
  ArrowDown: { x: 0, y: 10 },
};

type Say = (notice: { text: string }) => void;

/** Commands for what is selected: each says what to select where that is missing. */
function selectionCommands(cabling: Cabling, doings: Doings, say: Say): Command[] {
  const { design, selection, make, run, selectMany, setNaming, setNoting, speed, view } = cabling;
  const things = selection.filter(isThing);
  const needs = (n: number, what: string, then: () => void) => () => (things.length < n ? say({ text: what }) : then());
  const cable = () => {
    const [first, ...rest] = things;
    if (!first) return say({ text: 'Select what the cable should start from first.' });
    if (rest.length === 0) return doings.cableFrom(first);
    const action = cableAction(design, first, rest, speed, newId);
    if (action.edits.length === 0) return say({ text: 'A cable needs a switch at one end at least.' });
    run(action);
  };
  return [
    {
      id: 'do-more',
      title: 'Copy the selected switches with their cabling',
      keys: ['M'],
      run: () =>
        make(oneMoreAction(design, selection, newId)) || say({ text: 'Select the switches of a closet first.' }),
    },
    { id: 'do-cable', title: 'Cable the selected things', keys: ['L'], run: cable },
    {
      id: 'do-copy',
      title: 'Duplicate what is selected',
      keys: ['Ctrl+D'],
      run: needs(1, 'Select what should be duplicated first.', () =>
        make(pasteAction(design, chosenPart(design, selection), newId)),
      ),
    },
    {
      id: 'do-rename',
      title: 'Rename what is selected',
      keys: ['F2'],
      run: () => {
        if (selection.at(-1)?.kind === 'note') return setNoting(draftOf(design, selection.slice(-1)));
        needs(1, 'Select what should be renamed first.', () => setNaming(things.at(-1)!))();
      },
    },
    {
      id: 'do-delete',
      title: 'Delete what is selected',
      keys: ['Delete', 'Backspace'],
      run: () => {
        if (selection.length === 0) return say({ text: 'Select what should be deleted first.' });
        if (run(removeAction(design, selection))) selectMany([]);
      },
    },
    {
      id: 'do-paint',
      title: 'Put the VLAN in view on the selected links, or take it off',
      keys: ['P'],
      run: () => {
        const wires = selection.flatMap((r) => (r.kind === 'link' || r.kind === 'segment' ? [r.id] : []));
        if (view.vlan === null) return say({ text: 'Choose the VLAN in the row above the drawing first.' });
        if (wires.length === 0) return say({ text: 'Select the links first, in the drawing or in their table.' });
        run(paintAction(design, wires, view.vlan, paintsOn(design, wires, view.vlan)));
      },
    },
  ];
}

/** Commands that put things in their places. */
function placeCommands(cabling: Cabling, doings: Doings, say: Say): Command[] {
  const { design, selection, placeOf, run } = cabling;
  const things = selection.filter(isThing);
  const needs = (n: number, what: string, then: () => void) => () => (things.length < n ? say({ text: what }) : then());
  const placed = () => things.map((t) => ({ key: `${t.kind} ${t.id}`, at: placeOf(t)! }));
  const align = (how: 'row' | 'column' | 'spread', label: string) =>
    needs(how === 'spread' ? 3 : 2, `Select ${how === 'spread' ? 'three' : 'two'} or more things first.`, () =>
      run(moveAction(design, alignedPlaces(placed(), how), placeOf, label)),
    );
  const nudge =
    ({ x, y }: Point) =>
    () =>
      run(
        moveAction(
          design,
          new Map(placed().map(({ key, at }) => [key, { x: at.x + x, y: at.y + y }])),
          placeOf,
          things.length === 1 ? 'Move a thing' : `Move ${things.length} things`,
        ),
      );
  return [
    {
      id: 'arrange-tiers',
      title: 'In rows by tier',
      keys: [],
      run: () => run(moveAction(design, tierPlaces(design, placeOf), placeOf, 'Arrange in rows by tier')),
    },
    ...WAYS.map((w): Command => ({
      id: `arrange-${w.id}`,
      title: w.name,
      keys: [],
      run: () => doings.arrange(w.id),
    })),
    { id: 'arrange-row', title: 'Selected things in one row', keys: [], run: align('row', 'Align in a row') },
    {
      id: 'arrange-column',
      title: 'Selected things in one column',
      keys: [],
      run: align('column', 'Align in a column'),
    },
    { id: 'arrange-spread', title: 'Selected things evenly spread', keys: [], run: align('spread', 'Spread evenly') },
    ...Object.entries(STEP).map(([key, by]): Command => ({
      id: `nudge-${key}`,
      title: `Move what is selected ${key.slice(5).toLowerCase()}`,
      keys: [`Ctrl+${key}`],
      run: nudge(by),
    })),
  ];
}

/** Everything that can be done in the cabling stage, with its keys. */
export function useCablingCommands(cabling: Cabling, doings: Doings): readonly Command[] {
  const { say } = useBench();
  return useMemo(() => {
    const { design, selectMany, setTool } = cabling;
    const all = () =>
      selectMany([
        ...design.switches.map((s) => ({ kind: 'switch' as const, id: s.id })),
        ...design.hosts.map((h) => ({ kind: 'host' as const, id: h.id })),
        ...design.segments.map((s) => ({ kind: 'segment' as const, id: s.id })),
      ]);
    return [
      ...toolByKey.map((t): Command => ({
        id: `tool-${t.id}`,
        title: `Tool: ${t.name}`,
        keys: [t.key],
        run: () => setTool(t.id),
      })),
      { id: 'do-pattern', title: 'Start from a pattern…', keys: ['N'], run: doings.pattern },
      ...selectionCommands(cabling, doings, say),
      { id: 'do-all', title: 'Select everything', keys: ['Ctrl+A'], run: all },
      { id: 'do-import', title: 'Import files…', keys: ['I'], run: doings.files },
      { id: 'do-check', title: 'Check against LLDP neighbours', keys: [], run: doings.check },
      { id: 'do-tables', title: 'Show or hide the tables', keys: ['T'], run: doings.tables },
      ...placeCommands(cabling, doings, say),
    ];
  }, [cabling, doings, say]);
}
