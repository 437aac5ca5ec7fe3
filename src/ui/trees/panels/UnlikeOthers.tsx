'use client';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { switchById } from '../../../core/design';
import type { Switch } from '../../../core/design';
import { Wiring } from '../../../core/editing';
import { unlikeSettings, usualOf } from '../../../core/editing/tables';
import { portsOfBridge } from '../../../core/network';
import { grouped } from '../../../core/standard';
import { roleAt } from '../../../core/trees';
import type { SolvedDesign, SolvedTree } from '../../../core/trees';
import { groupsOf } from '../../chart/groups';
import { newId } from '../../session/new-id';
import { useBench, useSession, useTree } from '../../session/context';

/** With fewer others nothing is usual. */
const LEAST = 3;

/** What stands at a switch in a tree, as rows of a comparison. */
function standing(solved: SolvedDesign, of: SolvedTree, bridge: number): Record<string, string> {
  const { rootPathCost, rootPort, root } = of.outcome;
  const port = rootPort[bridge]!;
  const cost = root[bridge]! < 0 ? 'not in the tree' : grouped(rootPathCost[bridge]!);
  const roles = [...portsOfBridge(solved.topology, bridge)].map((p) => roleAt(of, p));
  return {
    'root port': port < 0 ? 'none' : solved.topology.ports[port]!.element.name,
    'cost to the root': cost,
    'blocked ports': String(roles.filter((r) => r === 'alternate' || r === 'backup' || r === 'disputed').length),
  };
}

/** Switches of the same tier in the same group, or of those that are in none. */
function peersOf(solved: SolvedDesign, own: Switch): Switch[] {
  const { design } = solved.topology;
  const groups = groupsOf(design);
  const group = groups[design.switches.indexOf(own)];
  if (own.tier === undefined) return [];
  return design.switches.filter((s, i) => s !== own && s.tier === own.tier && groups[i] === group);
}

/** In what a switch differs from the others of its tier in its group: what stands there, and how it is set. */
function useUnlike(id: string) {
  const solved = useSession((s) => s.solved);
  const of = useTree()!;
  return useMemo(() => {
    const { design, bridgeIndex } = solved.topology;
    const own = switchById(design, id)!;
    const peers = peersOf(solved, own);
    if (peers.length < LEAST) return { own, peers, stands: [], settings: [] };
    const theirs = peers.map((s) => standing(solved, of, bridgeIndex.get(s.id)!));
    const stands = Object.entries(standing(solved, of, bridgeIndex.get(id)!)).flatMap(([what, value]) => {
      const most = usualOf(theirs.map((t) => t[what]!));
      return most === null || most === value ? [] : [{ what, value, most }];
    });
    return { own, peers, stands, settings: unlikeSettings(new Wiring(design, newId), own, peers) };
  }, [solved, of, id]);
}

/** The name of a setting where a sentence goes on; its abbreviations stay as they are. */
const inSentence = (setting: string) => setting.replace(/\b[A-Z](?=[a-z]+\b)/g, (letter) => letter.toLowerCase());

/** A value in a narrow column: a list breaks after its commas. */
const listed = (value: string) => value.replaceAll(/,(?=\S)/g, ', ') || '–';

/** In what a switch differs from the others of its tier in its group, and how to make it like them. */
export function UnlikeOthers({ id }: { id: string }) {
  const { edit } = useBench();
  const { own, peers, stands, settings } = useUnlike(id);
  if (stands.length === 0 && settings.length === 0) return null;
  const edits = settings.flatMap((s) => s.edits);
  return (
    <section aria-label="Unlike the others">
      <table className="rows">
        <caption>Unlike most of the other {peers.length} of its tier here</caption>
        <thead>
          <tr>
            <td />
            <th scope="col">usual</th>
            <th scope="col">{own.name}</th>
          </tr>
        </thead>
        <tbody>
          {stands.map(({ what, value, most }) => (
            <tr key={what}>
              <th scope="row">{what}</th>
              <td className="mono">{most}</td>
              <td className="mono alarm">{value}</td>
            </tr>
          ))}
          {settings.map(({ port, setting, own: value, usual: most }) => (
            <tr key={`${port} ${setting}`}>
              <th scope="row">
                {port === null ? '' : `port ${port}: `}
                {inSentence(setting)}
              </th>
              <td className="mono">{listed(most)}</td>
              <td className="mono alarm">{listed(value)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {edits.length > 0 && (
        <div className="buttons">
          <Button onClick={() => edit(`${own.name} like the others`, edits)}>Make it like the others</Button>
        </div>
      )}
    </section>
  );
}
