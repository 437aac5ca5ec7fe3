'use client';
import { count, formatVlanRanges, parseVlanRanges } from '../../../core/standard';
import { useSession } from '../../session/context';
import { HUES, vlanHue } from '../../chart/hue';
import styles from './InstanceColumn.module.css';

/** More VLANs than this in one instance are shown as ranges. */
const MOST_SINGLE = 18;

export const instanceName = (instance: number) => (instance === 0 ? 'CIST' : `Instance ${instance}`);

/** Runs of VLANs, or single ones where there are few. */
function chipsOf(vlans: readonly number[]): string[] {
  return vlans.length <= MOST_SINGLE ? vlans.map(String) : formatVlanRanges(vlans).split(',');
}

export const vlansIn = (chip: string): number[] => {
  const parsed = parseVlanRanges(chip);
  return parsed.ok ? [...parsed.vlans] : [];
};

interface ColumnProps {
  instance: number;
  vlans: readonly number[];
  total: number;
  chosen: ReadonlySet<number>;
  deviates: boolean;
  onToggle: (chip: string) => void;
  onDrop: (chip: string) => void;
  onOpen: () => void;
  onRemove: (() => void) | null;
}

/** One instance with the design's VLANs in it; how many others it has. */
export function InstanceColumn({
  instance,
  vlans,
  total,
  chosen,
  deviates,
  onToggle,
  onDrop,
  onOpen,
  onRemove,
}: ColumnProps) {
  return (
    <section
      className={styles.instanceColumn}
      aria-label={instanceName(instance)}
      style={{ borderTopColor: `var(--hue-${instance % HUES})` }}
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        const chip = e.dataTransfer.getData('text/x-vlans');
        if (chip) onDrop(chip);
      }}
    >
      <h3>
        <button className="plain" onClick={onOpen} title="Show its tree">
          {instanceName(instance)}
        </button>
        {deviates && <small className="alarm"> differs here</small>}
        {onRemove && (
          <button className="plain quiet remove" aria-label={`Delete instance ${instance}`} onClick={onRemove}>
            ×
          </button>
        )}
      </h3>
      <div className={styles.chips}>
        {chipsOf(vlans).map((chip) => (
          <Chip
            key={chip}
            chip={chip}
            chosen={vlansIn(chip).every((v) => chosen.has(v))}
            onToggle={() => onToggle(chip)}
          />
        ))}
      </div>
      <small className="quiet">
        {total === 0
          ? 'no VLAN: it runs on no switch yet'
          : total > vlans.length
            ? `${count(total - vlans.length, 'VLAN')} not in use`
            : ''}
      </small>
    </section>
  );
}

/** One VLAN, or a run of those that the design does not name. */
function Chip({ chip, chosen, onToggle }: { chip: string; chosen: boolean; onToggle: () => void }) {
  const design = useSession((s) => s.design);
  const vlan = design.vlans.find((v) => String(v.number) === chip);
  return (
    <button
      className={`${styles.chip} mono`}
      draggable
      aria-pressed={chosen}
      title={vlan?.name}
      style={vlan ? { borderLeftColor: `var(--hue-${vlanHue(design, vlan)})` } : undefined}
      onClick={onToggle}
      onDragStart={(e) => e.dataTransfer.setData('text/x-vlans', chip)}
    >
      {chip} {vlan?.name && <span>{vlan.name}</span>}
    </button>
  );
}
