/** Sentences of change plans, by code: why one step comes before another, what to see, and what to do if it is not so. */
import { count, grouped } from '../standard';

export const planMessages = {
  'map-first': ({ name }: { name: string }) =>
    `The VLANs of each instance are mapped at ${name} before the settings of its instances: until then they apply to nothing.`,
  'static-first': ({ bundle }: { bundle: string }) =>
    `Static bundle ${bundle} stands at both ends before its second cable is plugged in: with one end alone frames loop, and spanning tree does not see it.`,
  pinned: () => 'It is pinned: it stays in its place among the steps.',
  'static-shut': () =>
    'All members but one are shut until both ends of the static bundle stand: with one end alone frames loop, and spanning tree does not see it.',

  'no-common-switch': () =>
    'The two designs have no switch in common, so that no change leads from one to the other: take two variants of one design.',
  'nothing-to-do': () => 'The two designs do not differ in anything that is set on a device or plugged in.',
  'no-place': ({ place }: { place: string }) =>
    `There is no host and no switch called '${place}' in the design: name one of them as the place to work from.`,
  'no-watched': ({ name }: { name: string }) =>
    `There is no host called '${name}' to watch: name two hosts of one VLAN.`,
  'watched-apart': ({ a, b }: { a: string; b: string }) =>
    `Hosts ${a} and ${b} are in different VLANs, and frames pass between those by routing only: name two hosts of one VLAN.`,
  'not-here': ({ step, name }: { step: number; name: string }) =>
    `Step ${step} at ${name} cannot be carried out in this place: another step has to come first, or frames would loop.`,
  'loops-here': () => 'In this order frames would loop after a step: put what closes the loop later.',
  'no-order': ({ works }: { works: string }) =>
    `No order was found in which each step can be carried out without a standing loop. What is left over: ${works}.`,

  'else-loop': ({ ports }: { ports: string }) =>
    `If ${ports} forwards instead, frames may loop: take the step back at once, then compare bridge identifiers and costs.`,
  'else-root': ({ name }: { name: string }) =>
    `If another switch than ${name} is root: read its priority, take the step back, and set the priority that is missing.`,
  'else-bundle': () =>
    'If members stay individual or down: compare negotiation, speed and VLANs of both ends; take the step back before anything else.',
  'else-cable': () => 'If the port stays down: look at the cable and at the port in the drawing; take it out again.',
  'else-mode': () =>
    'If the switch does not agree with its neighbours: take the step back, and compare modes and region with theirs.',
  'else-back': () => 'If anything else changes: take the step back.',
};

/** What is to be seen, and what a plan is the best of: they stand inside a list or a sentence. */
export const seeMessages = {
  'see-root': ({ name, trees }: { name: string; trees: string }) => `${name} is root of ${trees}`,
  'see-no-root': ({ trees }: { trees: string }) => `no switch is root of ${trees}`,
  'see-port': ({ port, role, trees }: { port: string; role: string; trees: string }) => `${port}: ${role} in ${trees}`,
  'see-more-ports': ({ n }: { n: number }) => `and ${count(n, 'more port')}`,
  'see-bundle': ({ bundle, state, active, of }: { bundle: string; state: string; active: number; of: number }) =>
    `${bundle}: ${state}, ${active} of ${count(of, 'member')} active`,
  'see-nothing': () => 'no port changes its role',
  'see-reach': ({ name }: { name: string }) => `${name} can still be reached`,
  'see-pair': ({ a, b, vlan }: { a: string; b: string; vlan: number }) => `${a} reaches ${b} in VLAN ${vlan}`,
  'see-no-other-way': ({ name }: { name: string }) => `data still passes ${name}: for some of it there is no other way`,
  'see-empty': ({ name }: { name: string }) => `no data passes ${name} any more`,

  'orders-all': ({ orders }: { orders: number }) => `best of ${grouped(orders)} orders`,
  'orders-some': ({ looked }: { looked: number }) => `best of ${grouped(looked)} looked at`,
};
