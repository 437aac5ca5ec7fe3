'use client';
/** The drawing of the tree in view, folded by choice or so that it can be read. */
import { useMemo } from 'react';
import { linkById, linksOfHost, bundleById, portById, segmentById } from '../../core/design';
import type { Design } from '../../core/design';
import { nextRoot, rootsOf } from '../../core/trees';
import type { SolvedDesign, SolvedTree } from '../../core/trees';
import { arrangeAsCabled } from '../chart/arrange';
import { mayFold, sheetOf } from '../chart/folded';
import type { Area } from '../chart/arrange';
import type { Sheet } from '../chart/folded';
import { groupsOf } from '../chart/groups';
import type { Ref, View } from '../session/view';

/** More than this at a time stay folded: all of them are one kind of thing. */
const MOST_KEPT = 4;
const MOST_MOVED = 12;

/** Switches that something selected is or ends at. */
function switchesAt(design: Design, { kind, id }: Ref): string[] {
  const ofPort = (port: string) => portById(design, port)?.switch ?? bundleById(design, port)?.switch ?? [];
  if (kind === 'switch') return [id];
  if (kind === 'port' || kind === 'bundle') return [ofPort(id)].flat();
  if (kind === 'segment') return segmentById(design, id)?.ports.flatMap(ofPort) ?? [];
  const links = kind === 'link' ? [linkById(design, id)] : linksOfHost(design, id);
  return links.flatMap((link) =>
    link ? [link.a, link.b].flatMap((end) => ('port' in end ? ofPort(end.port) : [])) : [],
  );
}

interface Shown {
  readonly solved: SolvedDesign;
  readonly of: SolvedTree | null;
  readonly view: View;
  /** Switches that stand by themselves, whatever is folded: those on a path, those that change. */
  readonly apart: ReadonlySet<string>;
  readonly moved: ReadonlySet<string>;
  /** Shape of the area that arrangements aim at. */
  readonly area: Area;
}

/** Switches that stand by themselves: roots, what is selected, on the path, or moved by the last change. */
function kept({ solved, of, view, apart, moved }: Shown & { of: SolvedTree }): Set<number> {
  const { design } = solved.topology;
  const index = new Map(design.switches.map((s, i) => [s.id, i]));
  const few = (ids: readonly string[], most: number) => (ids.length <= most ? ids : []);
  const ids = [
    ...few([...new Set(view.selection.flatMap((ref) => switchesAt(design, ref)))], MOST_KEPT),
    ...apart,
    ...few([...new Set([...moved].flatMap((id) => switchesAt(design, { kind: 'port', id })))], MOST_MOVED),
  ];
  const roots = rootsOf(of).flatMap((root) => [root, nextRoot(of, root)]);
  return new Set([...ids.flatMap((id) => index.get(id) ?? []), ...roots.filter((r) => r >= 0)]);
}

export function useSheet({ solved, of, view, apart, moved, area }: Shown): Sheet | null {
  const { design } = solved.topology;
  const { arrangement, fold } = view;
  // Wiring and places decide the arrangement as cabled; settings do not.
  const cabled = useMemo(
    () => arrangeAsCabled(design, area),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [design.switches, design.links, design.segments, area],
  );
  const groups = useMemo(
    () => groupsOf(design),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [design.switches, design.links, design.segments],
  );
  const keepers =
    of && mayFold(design.switches.length, fold)
      ? [...kept({ solved, of, view, apart, moved, area })].sort((a, b) => a - b).join()
      : '';
  const opened = view.open.join('\n');
  return useMemo(() => {
    if (!of) return null;
    const keep = new Set(keepers === '' ? [] : keepers.split(',').map(Number));
    const open = new Set(opened.split('\n'));
    const byDepth = arrangement === 'depth';
    return sheetOf({ solved, of, cabled, byDepth, area, fold, groups, keep, open, moved });
  }, [solved, of, cabled, arrangement, fold, groups, keepers, opened, moved, area]);
}
