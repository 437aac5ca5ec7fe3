'use client';
import { useMemo } from 'react';
import { MODES, isPerVlan, modeOf } from '../../../core/design';
import type { Design } from '../../../core/design';
import { blockedPorts, explainTree, nextRoot, rootsOf } from '../../../core/trees';
import type { SolvedTree } from '../../../core/trees';
import { formatVlanRanges } from '../../../core/standard';
import { useBench, useSession, useTree } from '../../session/context';
import { treeTitle } from '../../controls/tree-names';
import { MODE_WORDS } from '../../../core/messages';
import { DesignSettings } from '../../controls/DesignSettings';
import { Ledger } from './Ledger';
import { PlacePicker } from './PlacePicker';
import { Blocked } from './Blocked';
import { StandsOut } from './StandsOut';
import { Term } from '../../controls/Term';

const MOST_NAMED = 6;

/** The VLANs, or how many there are. */
const alikeWords = (vlans: readonly number[]) =>
  vlans.length <= MOST_NAMED ? formatVlanRanges(vlans).replaceAll(',', ', ') : `${vlans.length} other VLANs`;

/** What the switches of a tree run, in the order of the modes; one that follows another tree for a VLAN is not counted. */
function modeWords(design: Design, of: SolvedTree): string {
  const taking = design.switches.filter((_, b) => of.outcome.root[b]! >= 0);
  const all = taking.map((s) => modeOf(design, s)).filter((mode) => of.tree.vlan === null || isPerVlan(mode));
  const modes = MODES.filter((mode) => all.includes(mode));
  return modes.length === 0 ? MODE_WORDS[design.mode] : modes.map((mode) => MODE_WORDS[mode]).join('; ');
}

/** The tree in view as a whole: root, who comes next, blocked, why; and a way to ask for a path. */
export function TreePanel() {
  const solved = useSession((s) => s.solved);
  const of = useTree()!;
  const ledger = useMemo(() => explainTree(solved, of), [solved, of]);
  const alike = solved.trees.filter((t) => t.fold === of.fold && t !== of);
  return (
    <>
      <h2>{treeTitle(of.tree)}</h2>
      <p className="quiet">
        {modeWords(solved.topology.design, of)}
        {of.tree.instance !== null && of.tree.vlan === null && (
          <>
            {' '}
            · VLANs <span className="mono">{formatVlanRanges(of.tree.vlans).replaceAll(',', ', ') || 'none'}</span>
          </>
        )}
        {alike.length > 0 && <> · same outcome as {alikeWords(alike.flatMap((t) => t.tree.vlans))}</>}
      </p>
      <Roots />
      <Ledger ledger={ledger} />
      <PlacePicker />
      <StandsOut />
      <Blocked />
      <DesignSettings />
    </>
  );
}

/** Root, next root, and how many ports are blocked. */
function Roots() {
  const solved = useSession((s) => s.solved);
  const of = useTree()!;
  const { select } = useBench();
  const { design } = solved.topology;
  const root = rootsOf(of)[0];
  const next = root === undefined ? -1 : nextRoot(of, root);
  const place = (bridge: number) => (
    <button className="plain" onClick={() => select({ kind: 'switch', id: design.switches[bridge]!.id })}>
      {design.switches[bridge]!.name}
    </button>
  );
  return (
    <dl className="facts">
      <div>
        <dt>
          <Term id="root">root</Term>
        </dt>
        <dd>{root === undefined ? 'none' : place(root)}</dd>
      </div>
      <div>
        <dt>
          <Term id="nextRoot">next root</Term>
        </dt>
        <dd>{next < 0 ? 'none' : place(next)}</dd>
      </div>
      <div>
        <dt>
          <Term id="blocked">blocked ports</Term>
        </dt>
        <dd className="mono">{blockedPorts(of).length}</dd>
      </div>
    </dl>
  );
}
