/** What a picture or a printed sheet is called: design, variant, and the tree or VLAN that it shows. */
import { treeTitle } from '../controls/tree-names';
import { treeInView } from '../session/context';
import type { Bench } from '../session/context';
import { STAGES } from '../session/stages';

/** Stages whose drawing is of the tree in view. */
const OF_A_TREE: ReadonlySet<string> = new Set(['trees', 'rehearsal', 'review', 'hand-over', 'as-built']);

export function sheetTitle({ session, head, variantId, view, stage }: Bench, withStage = false): string {
  const variant = head.variants.find((v) => v.id === variantId) ?? head.variants[0]!;
  const tree = OF_A_TREE.has(stage) ? treeInView(session.store.getState(), view)?.tree : undefined;
  const vlan = stage === 'cabling' && view.vlan !== null ? `VLAN ${view.vlan}` : undefined;
  const name = withStage ? STAGES.find((s) => s.id === stage)?.name : undefined;
  return [head.name, variant.name, name, tree ? treeTitle(tree) : vlan].filter(Boolean).join(' · ');
}
