/** The stages of the work, in their order. */
export const STAGES = [
  { id: 'cabling', name: 'Cabling' },
  { id: 'trees', name: 'Trees' },
  { id: 'bundles', name: 'Bundles' },
  { id: 'rehearsal', name: 'Rehearsal' },
  { id: 'review', name: 'Review' },
  { id: 'hand-over', name: 'Hand-over' },
  { id: 'as-built', name: 'As built' },
] as const;
export type StageId = (typeof STAGES)[number]['id'];

export const isStage = (id: string): id is StageId => STAGES.some((s) => s.id === id);
