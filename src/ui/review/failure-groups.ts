/** Failures in groups, and names in few words. */
import { groupBy, hostById, switchById } from '../../core/design';
import type { Design } from '../../core/design';
import { outageWords } from '../../core/review';
import type { Failure } from '../../core/review';
import { someNames } from '../../core/standard';
import { kindWords } from './words';

export const names = (design: Design, ids: readonly string[]): string =>
  ids.map((id) => switchById(design, id)?.name ?? id).join(', ');

export const GROUPINGS = [
  { id: 'nothing', name: 'harm' },
  { id: 'kind', name: 'kind' },
  { id: 'outage', name: 'outage' },
  { id: 'separated', name: 'who is separated' },
] as const;
export type GroupBy = (typeof GROUPINGS)[number]['id'];

/** Failures in groups, each in the place of its worst one. */
export function inGroups(
  design: Design,
  failures: readonly Failure[],
  by: GroupBy,
): { name: string; failures: Failure[] }[] {
  const nameOf = (f: Failure): string => {
    switch (by) {
      case 'nothing':
        return '';
      case 'kind':
        return kindWords(f);
      case 'outage':
        return `outage: ${outageWords({ ...f.outage, measured: null })}`;
      case 'separated': {
        const { switches, hosts } = f.separates;
        const apart = names(design, switches) || someNames(hosts.map((id) => hostById(design, id)?.name ?? id));
        return apart === '' ? 'separates no one' : `separates ${apart}`;
      }
    }
  };
  return [...groupBy(failures, nameOf)].map(([name, own]) => ({ name, failures: own }));
}
