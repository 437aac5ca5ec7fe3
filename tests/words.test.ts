/** Whatever a design holds: explanations, findings, failures, reports and plans speak in words, and of names. */
import fc from 'fast-check';
import { differenceWords } from '@/core/design';
import type { Design } from '@/core/design';
import { SECTION_IDS, planHtml, planMarkdown, reportOf } from '@/core/report';
import { failingWords, findingsOf, outageWords, singleFailures, sweepBase } from '@/core/review';
import { planChange } from '@/core/plan';
import { portsOfBridge } from '@/core/network';
import { explainPort, explainSwitch, explainTree, solveDesign } from '@/core/trees';
import { smallDesign } from './support/small-design';
import { bundledNetworks } from './support/bundled-networks';
import { mstNetworks } from './support/mst-networks';
import { runs } from './support/runs';
import { wordsOf } from './support/screens';
import { STRANGE, withStrangeIds } from './support/strange-words';
import { variantsOf } from './support/variants';
import { vlanNetworks } from './support/vlan-networks';
import { wholeNetworks } from './support/whole-networks';

const KINDS = [
  ['whole networks', wholeNetworks],
  ['networks with bundles', bundledNetworks],
  ['networks with regions', mstNetworks],
  ['networks with VLANs', vlanNetworks],
] as const;

/** Orders of a plan that are compared. */
const ENOUGH = 60;

const expectWords = (what: string, lines: readonly string[]) =>
  expect({ what, strange: lines.filter((line) => STRANGE.test(line)) }).toEqual({ what, strange: [] });

function explanations(design: Design): string[] {
  const solved = solveDesign(design);
  return solved.trees.flatMap((of) => [
    explainTree(solved, of).sentence,
    ...design.switches.flatMap((_, bridge) => [
      explainSwitch(solved, of, bridge).sentence,
      ...[...portsOfBridge(solved.topology, bridge)].map((port) => explainPort(solved, of, port).sentence),
    ]),
  ]);
}

const findings = (design: Design): string[] =>
  findingsOf(solveDesign(design)).flatMap(({ sentence, fix }) => [sentence, fix?.label ?? '']);

const failures = (design: Design): string[] =>
  [...singleFailures(sweepBase(solveDesign(design)))].flatMap(({ elements, outage }) => [
    failingWords(design, elements),
    outageWords(outage),
  ]);

test.each(KINDS)('explanations, findings and failures of %s', (_, networks) => {
  fc.assert(
    fc.property(networks, (network) => {
      const [design] = withStrangeIds(network) as [Design];
      expectWords('explanations', explanations(design));
      expectWords('findings', findings(design));
      expectWords('failures', failures(design));
    }),
    { ...runs(40), endOnFailure: true },
  );
});

test.each(KINDS)('reports of %s', (_, networks) => {
  fc.assert(
    fc.property(networks, (network) => {
      const [design] = withStrangeIds(network) as [Design];
      expectWords('report', wordsOf(reportOf(design, SECTION_IDS, 'A4')));
    }),
    { ...runs(8), endOnFailure: true },
  );
});

test('of a design with everything', () => {
  const [design] = withStrangeIds(smallDesign()) as [Design];
  expectWords('explanations', explanations(design));
  expectWords('findings', findings(design));
  expectWords('failures', failures(design));
  expectWords('report', wordsOf(reportOf(design, SECTION_IDS, 'A4')));
});

test.each([
  ['of every kind', variantsOf(wholeNetworks)],
  ['of some VLANs', variantsOf(vlanNetworks)],
])('plans %s', (_, pairs) => {
  fc.assert(
    fc.property(pairs, (variants) => {
      const [from, to] = withStrangeIds(...variants) as [Design, Design];
      expectWords('differences', differenceWords(from, to));
      const found = planChange(from, to, {}, ({ looked }) => looked > ENOUGH);
      if (!found.ok) return expectWords('no plan', [found.sentence]);
      const options = { title: 'as it is → as meant', date: '2026-12-01' };
      expectWords('plan', planMarkdown(found.plan, options).split('\n'));
      expectWords('sheet', wordsOf(planHtml(found.plan, options)));
    }),
    { ...runs(8), endOnFailure: true },
  );
});
