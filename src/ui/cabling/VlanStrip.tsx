'use client';
import { count, vlanTreeId } from '../../core/standard';
import { useEffect, useMemo, useRef, useState } from 'react';
import { vlanHue } from '../chart/hue';
import type { Cabling } from './useCabling';
import styles from './VlanStrip.module.css';

const MOST = 60;

/** The VLANs of the design: one of them can be laid over the drawing, to see where it is and to paint it. */
export function VlanStrip({ cabling }: { cabling: Cabling }) {
  const { design, lens, setView, view } = cabling;
  const [filter, setFilter] = useState('');
  const strip = useRef<HTMLDivElement>(null);
  const pick = (vlan: number | null) => {
    const tree = vlan === null || design.mode === 'rstp' || design.mode === 'stp' ? {} : { tree: vlanTreeId(vlan) };
    setView({ vlan, ...tree });
  };
  const shown = useMemo(() => {
    const word = filter.trim().toLowerCase();
    const fits = design.vlans.filter(
      (v) => word === '' || String(v.number).startsWith(word) || v.name?.toLowerCase().includes(word),
    );
    const first = fits.slice(0, MOST);
    const current = design.vlans.find((v) => v.number === view.vlan);
    return {
      list: current && !first.includes(current) ? [current, ...first] : first,
      more: fits.length - first.length,
    };
  }, [design.vlans, filter, view.vlan]);
  useEffect(() => {
    strip.current?.querySelector('[aria-checked="true"]')?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [view.vlan]);
  return (
    <nav className="vlan-strip" aria-label="VLANs">
      <div role="radiogroup" aria-label="VLAN laid over the drawing" className="vlan-list" ref={strip}>
        <button role="radio" aria-checked={view.vlan === null} className={styles.vlanItem} onClick={() => pick(null)}>
          all cables
        </button>
        {shown.list.map((v) => (
          <button
            key={v.id}
            role="radio"
            aria-checked={view.vlan === v.number}
            className={styles.vlanItem}
            onClick={() => pick(v.number)}
            style={{ '--tree': `var(--hue-${vlanHue(design, v)})` } as React.CSSProperties}
          >
            <b>{v.number}</b> {v.name}
          </button>
        ))}
        {shown.more > 0 && <span className="quiet">{shown.more} more: type to find</span>}
      </div>
      {lens && <LensWords lens={lens} vlanKnown={design.vlans.some((v) => v.number === lens.vlan)} />}
      {design.vlans.length > 12 && (
        <input
          className="strip-filter"
          placeholder="Find a VLAN"
          aria-label="Find a VLAN"
          value={filter}
          onChange={(e) => setFilter(e.target.value)}
        />
      )}
    </nav>
  );
}

/** How the VLAN in view stands: in how many parts, who is unreachable, where the ends do not agree. */
function LensWords({ lens, vlanKnown }: { lens: NonNullable<Cabling['lens']>; vlanKnown: boolean }) {
  const { parts, cutOff, half, links } = lens.presence;
  if (!vlanKnown) return <p className="lens-words alarm">The design has no VLAN {lens.vlan}.</p>;
  const faults = [
    parts.length > 1 && `in ${parts.length} partitions`,
    cutOff.size > 0 && `${count(cutOff.size, 'host', 'hosts')} unreachable`,
    half.size > 0 && `${count(half.size, 'link carries', 'links carry')} it at one end only`,
  ].filter(Boolean);
  return (
    <p className="lens-words" role="status">
      <span className="quiet">
        on {count(links.size, 'link', 'links')}, {count(lens.presence.part.size, 'switch', 'switches')}
      </span>
      {faults.length > 0 && <span className="alarm"> · {faults.join(' · ')}</span>}
    </p>
  );
}
