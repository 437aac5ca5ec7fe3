/** Small designs to open as copies, each with a question that it answers. */
import type { Design } from '../../core/design';
import { practiceNetwork } from '../practice';
import { guardedEdge, sharedCore, silentBundle } from './edges';
import { accidentalRoot, instances, mixedCloset, pyramid, twoTrunks } from './trees';

export interface Example {
  readonly id: string;
  readonly question: string;
  /** Stage in which the answer is seen, and what is selected there. */
  readonly stage: 'trees' | 'bundles' | 'rehearsal';
  readonly query: Readonly<Record<string, string>>;
  readonly design: () => Design;
}

export const EXAMPLES: readonly Example[] = [
  {
    id: 'accidental-root',
    question: 'Why is the switch in the cellar the root, and how is the hall made root instead?',
    stage: 'trees',
    query: {},
    design: accidentalRoot,
  },
  {
    id: 'pyramid',
    question: 'Which way do frames go, and which ports are blocked, when one side is faster than the other?',
    stage: 'trees',
    query: { sel: 'switch~library' },
    design: pyramid,
  },
  {
    id: 'two-trunks',
    question: 'The second of two cables carries nothing: how do two of the four VLANs get to use it?',
    stage: 'trees',
    query: { panel: 'goals' },
    design: twoTrunks,
  },
  {
    id: 'instances',
    question: 'All switches have the same region: why is one of them a region of its own?',
    stage: 'trees',
    query: { board: 'instances' },
    design: instances,
  },
  {
    id: 'silent-bundle',
    question: 'Two cables are to be one bundle: why does it never come up?',
    stage: 'bundles',
    query: {},
    design: silentBundle,
  },
  {
    id: 'mixed-closet',
    question: 'A closet of standard switches on a core with a tree per VLAN: which ports block with its second uplink?',
    stage: 'trees',
    query: { tree: 'vlan-31' },
    design: mixedCloset,
  },
  {
    id: 'shared-core',
    question: 'Two core switches act as one: what is left of the trees when one of them fails?',
    stage: 'bundles',
    query: {},
    design: sharedCore,
  },
  {
    id: 'guarded-edge',
    question: 'A visitor plugs a switch in at a desk: what happens with BPDU guard, and what without?',
    stage: 'rehearsal',
    query: {},
    design: guardedEdge,
  },
];

/** Exercises without end, beside the examples. */
export const PRACTICE: Example = {
  id: 'practice',
  question: 'Networks made at random: work out root, costs and roles, have them checked, and keep the score.',
  stage: 'trees',
  query: { board: 'predict' },
  design: () => practiceNetwork({ switches: 4, kind: 'plain', seed: Date.now() }),
};

export const exampleById = (id: string): Example | undefined => [...EXAMPLES, PRACTICE].find((e) => e.id === id);
