/** What brings the fullest link with a failure below its limit: costs that lead trees away, and one cable more beside it. */
import { busiest, loadsOf } from '../../analysis';
import { addElement, addMember, applyEdits, bundleById, bundleLinks, farEnd, linkAt, portById } from '../../design';
import type { Bundle, Design, Edit, Port } from '../../design';
import { costOptions } from '../../goals';
import { verdictOf } from '../../network';
import { solveDesign } from '../../trees';
import type { SolvedDesign } from '../../trees';
import { withFailed } from '../elements';
import type { Failure } from '../sweep';
import { portLike, step } from './step';
import type { NewId, Step } from './step';

const MOST_TREES = 4;
const MOST_OPTIONS = 6;

/** What members have alike. */
const LIKE_MEMBERS = ['duplex', 'vlans', 'native'] as const;

/** A cable beside that of a port, and the bundle that both are in then. */
function memberEdits(design: Design, of: Port, bundle: Bundle | undefined, newId: NewId): Edit[] {
  const link = linkAt(design, of.id);
  const far = link && farEnd(link, of.id);
  const other = far && 'port' in far ? portById(design, far.port) : undefined;
  if (!other || other.switch === of.switch) return [];
  const ports = [of, other].map((p) => portLike(design, p, p.switch, LIKE_MEMBERS, newId)) as [Port, Port];
  const id = newId('link');
  const cable: Edit[] = [
    ...ports.map((p) => addElement('port', p)),
    addElement('link', { id, a: { port: ports[0].id }, b: { port: ports[1].id } }),
  ];
  const cabled = applyEdits(design, cable);
  if (!cabled.ok) return [];
  const partner = bundle && verdictOf(design, bundle.id)?.partner;
  const farBundle = partner?.kind === 'bundle' ? bundleById(design, partner.id) : undefined;
  if (bundle && !farBundle) return [];
  const made = bundle
    ? addMember(cabled.design, bundle, farBundle!, id)
    : bundleLinks(cabled.design, [link!.id, id], newId);
  return made.ok ? [...cable, ...made.edits] : [];
}

export function relievingSteps(solved: SolvedDesign, failure: Failure, newId: NewId): Step[] {
  const { design } = solved.topology;
  const failed = solveDesign(withFailed(design, failure.elements), solved);
  const loads = loadsOf(failed);
  const [worst] = busiest(failed, loads);
  if (!worst) return [];
  const trees = [...loads.byTree]
    .filter(([, out]) => out[worst.port]! > 0)
    .sort((a, b) => b[1][worst.port]! - a[1][worst.port]!)
    .slice(0, MOST_TREES);
  const costs = trees.flatMap(([id]) => costOptions(failed, failed.byId.get(id)!, worst.port).slice(0, MOST_OPTIONS));
  const { kind, element } = failed.topology.ports[worst.port]!;
  const bundle = kind === 'bundle' ? (element as Bundle) : undefined;
  const of = portById(design, bundle ? bundle.members[0]! : element.id);
  return [
    ...costs.flatMap((edits) => step('cost', edits)),
    ...(of ? step('member', memberEdits(design, of, bundle, newId)) : []),
  ];
}
