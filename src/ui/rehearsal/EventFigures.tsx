'use client';
import { LOST_FRAMES, linkById, portLabel } from '../../core/design';
import type { Design, Edit, ScriptEvent } from '../../core/design';
import { lostFrames } from '../../core/messages';
import { BRIDGE_PRIORITIES } from '../../core/standard';
import { Field } from '../controls/Field';
import styles from './EventFigures.module.css';

interface Props {
  design: Design;
  event: ScriptEvent;
  onChange: (event: ScriptEvent) => boolean;
}

const number = (text: string): number =>
  text.trim() !== '' && Number.isFinite(Number(text)) ? Number(text) : (text as never);

/** The one value that a `set` event gives, where it gives only one. */
function valueSet(
  event: ScriptEvent,
): { edits: Extract<Edit, { type: 'set' }>[]; value: number; priority: boolean } | null {
  if (event.kind !== 'set') return null;
  const edits = event.edits as unknown as Edit[];
  const set = edits.flatMap((e) => (e.type === 'set' ? [e] : []));
  const value = set[0]?.value;
  if (set.length !== edits.length || typeof value !== 'number' || set.some((e) => e.value !== value)) return null;
  return { edits: set, value, priority: set.every((e) => e.kind === 'switch' && /riority/.test(e.field)) };
}

/** `Cost of gate 1 for VLAN 110: 4` with another value. */
const relabelled = (label: string, value: number): string => label.replace(/: [^:]*$/, `: ${value}`);

/** Both ends of a link in words. */
function endsOf(design: Design, id: string): [string, string] {
  const link = linkById(design, id);
  const words = (end: 'a' | 'b') => {
    const at = link?.[end];
    return at && 'port' in at ? portLabel(design, at.port) : (at?.host ?? `end ${end}`);
  };
  return [words('a'), words('b')];
}

/** What can be chosen about an event in addition to its time: an end, a count, a priority, a value. */
export function EventFigures({ design, event, onChange }: Props) {
  switch (event.kind) {
    case 'link-down':
      return <LostCarrier design={design} event={event} onChange={onChange} />;
    case 'bpdu-loss':
      return <LostFrames design={design} event={event} onChange={onChange} />;
    case 'flap':
      return (
        <span className={styles.eventFigures}>
          <Field
            label="times"
            width={54}
            value={String(event.times)}
            onSet={(t) => onChange({ ...event, times: number(t) })}
          />
          <Field
            label="every, s"
            width={58}
            value={String(event.every)}
            onSet={(t) => onChange({ ...event, every: number(t) })}
          />
        </span>
      );
    case 'intruder':
      return (
        <Priorities
          label="Priority of the rogue switch"
          value={event.priority}
          onPick={(priority) => onChange({ ...event, priority })}
        />
      );
    case 'root-off':
      return (
        <select
          aria-label="VLAN whose root goes off"
          value={event.vlan}
          onChange={(e) => onChange({ ...event, vlan: Number(e.target.value) })}
        >
          {design.vlans.map((v) => (
            <option key={v.id} value={v.number}>
              VLAN {v.number} {v.name ?? ''}
            </option>
          ))}
        </select>
      );
    case 'set':
      return <SetValue event={event} onChange={onChange} />;
    default:
      return null;
  }
}

type Figures<Kind extends ScriptEvent['kind']> = Omit<Props, 'event'> & {
  readonly event: Extract<ScriptEvent, { kind: Kind }>;
};

function LostCarrier({ design, event, onChange }: Figures<'link-down'>) {
  const [a, b] = endsOf(design, event.link);
  return (
    <select
      aria-label="Which end loses carrier"
      value={event.end ?? ''}
      onChange={({ target: { value } }) => {
        onChange({ ...event, end: value === '' ? undefined : (value as 'a' | 'b') });
      }}
    >
      <option value="">at both ends</option>
      <option value="a">at {a} alone</option>
      <option value="b">at {b} alone</option>
    </select>
  );
}

function LostFrames({ design, event, onChange }: Figures<'bpdu-loss'>) {
  const [a, b] = endsOf(design, event.link);
  return (
    <span className={styles.eventFigures}>
      <select
        aria-label="Frames that are lost"
        value={event.frames ?? 'bpdus'}
        onChange={({ target: { value } }) =>
          onChange({ ...event, frames: value === 'bpdus' ? undefined : (value as typeof event.frames) })
        }
      >
        {LOST_FRAMES.map((frames) => (
          <option key={frames} value={frames}>
            {lostFrames[frames]}
          </option>
        ))}
      </select>
      <select
        aria-label="Whose frames are lost"
        value={event.from}
        onChange={(e) => onChange({ ...event, from: e.target.value as 'a' | 'b' })}
      >
        <option value="a">from {a}</option>
        <option value="b">from {b}</option>
      </select>
    </span>
  );
}

/** The value of a change, where it gives only one. */
function SetValue({ event, onChange }: Omit<Figures<'set'>, 'design'>) {
  const set = valueSet(event);
  if (!set) return null;
  const give = (value: number) =>
    onChange({
      ...event,
      label: relabelled(event.label, value),
      edits: set.edits.map((e) => ({ ...e, value })),
    });
  return set.priority ? (
    <Priorities label="New priority" value={set.value} onPick={give} />
  ) : (
    <span className="bare-label">
      <Field key={set.value} label="New value" width={90} value={String(set.value)} onSet={(t) => give(number(t))} />
    </span>
  );
}

function Priorities({ label, value, onPick }: { label: string; value: number; onPick: (value: number) => void }) {
  return (
    <select className="mono" aria-label={label} value={value} onChange={(e) => onPick(Number(e.target.value))}>
      {BRIDGE_PRIORITIES.map((p) => (
        <option key={p} value={p}>
          {p}
        </option>
      ))}
    </select>
  );
}
