'use client';
import { setField, switchById } from '../../core/design';
import type { Bundle, Switch } from '../../core/design';
import { BUNDLE_KIND_WORDS } from '../../core/messages';
import { bundleNotes } from '../../core/network';
import { Field } from '../controls/Field';
import { Choice } from '../controls/DesignSettings';
import { useBench, useSession } from '../session/context';
import styles from './BundleEnd.module.css';
const whole = (text: string) => (text.trim() === '' ? null : Number.isFinite(Number(text)) ? Number(text) : text);

type Setter = (field: keyof Bundle & string, value: unknown, words: string) => boolean;

interface PartProps {
  readonly bundle: Bundle;
  readonly set: Setter;
}

/** One end: its switch and number, its kind and what it asks for. */
export function BundleEnd({ bundle }: { bundle: Bundle }) {
  const { edit } = useBench();
  const design = useSession((s) => s.design);
  const s = switchById(design, bundle.switch)!;
  const where = `${s.name} ${bundle.name}`;
  const set = (field: keyof Bundle & string, value: unknown, words: string) =>
    edit(`${where}: ${words}`, [setField('bundle', bundle.id, field, value)]);
  return (
    <section className="bundle-end" aria-label={`End at ${s.name}`}>
      <h3>{s.name}</h3>
      <div className="bundle-fields">
        <NameField bundle={bundle} set={set} />
        <NumberField bundle={bundle} set={set} label="number" field="number" otherwise={0} />
      </div>
      <Choice
        label={`Kind at ${s.name}`}
        value={bundle.kind}
        options={BUNDLE_KIND_WORDS}
        onPick={(v, words) => set('kind', v, words)}
      />
      <Negotiation bundle={bundle} set={set} at={s.name} />
      <div className="bundle-fields">
        <NumberField bundle={bundle} set={set} label="minimum links" field="minActive" otherwise={1} />
        <NumberField bundle={bundle} set={set} label="maximum links" field="maxActive" otherwise={8} />
        {bundle.kind === 'lacp' && (
          <>
            <NumberField bundle={bundle} set={set} label="key" field="key" otherwise={bundle.number} />
            <SystemPriority of={s} />
          </>
        )}
      </div>
      <Further bundle={bundle} set={set} />
      <PortSettings bundle={bundle} set={set} />
    </section>
  );
}

const TEXTS = [
  { field: 'minRate', label: 'minimum rate, Mb/s', width: 110, usual: 'none', always: true },
  { field: 'returnDelay', label: 'return delay, s', width: 90, usual: '0', always: false },
  { field: 'systemPriority', label: 'own system priority', width: 128, usual: 'the switch’s', always: false },
  { field: 'systemMac', label: 'own system address', width: 160, usual: 'the switch’s', always: false },
] as const;

/** How much must carry, what happens when members return, and a system of the end's own. */
function Further({ bundle, set }: PartProps) {
  const design = useSession((state) => state.design);
  const negotiates = bundle.kind !== 'static';
  return (
    <>
      <div className="bundle-fields">
        {TEXTS.filter(({ always }) => always || negotiates).map(({ field, label, width, usual }) => (
          <Field
            key={`${bundle.id} ${field}`}
            label={label}
            width={width}
            usual={usual}
            value={String(bundle[field] ?? '')}
            onSet={(text) => set(field, field === 'systemMac' ? text.trim() || null : whole(text), `${label} ${text}`)}
          />
        ))}
        {negotiates && (
          <label className={styles.edgeBox}>
            <input
              type="checkbox"
              checked={bundle.keepsWorking ?? false}
              onChange={({ target: { checked } }) =>
                set('keepsWorking', checked || null, checked ? 'keeps members' : 'members give way')
              }
            />{' '}
            keeps members
          </label>
        )}
      </div>
      {bundleNotes(design, bundle.id).map((note) => (
        <p key={note} className="quiet small" role="note">
          {note}
        </p>
      ))}
    </>
  );
}

function NameField({ bundle, set }: PartProps) {
  return (
    <Field
      key={bundle.id}
      label="name"
      width={150}
      value={bundle.name}
      onSet={(text) => set('name', text, `name ${text}`)}
    />
  );
}

interface NumberProps extends PartProps {
  readonly label: string;
  readonly field: 'minActive' | 'maxActive' | 'key' | 'number';
  readonly otherwise: number;
}

function NumberField({ bundle, set, label, field, otherwise }: NumberProps) {
  return (
    <Field
      key={`${bundle.id} ${field}`}
      label={label}
      width={84}
      value={String(bundle[field] ?? otherwise)}
      onSet={(text) =>
        set(field, whole(text) === otherwise && field !== 'number' ? null : whole(text), `${label} ${text}`)
      }
    />
  );
}

/** Who starts, how long a partner may be silent, and what members do without one. */
function Negotiation({ bundle, set, at }: PartProps & { at: string }) {
  if (bundle.kind === 'static') return null;
  return (
    <>
      <Choice
        label={`Negotiation at ${at}`}
        value={bundle.activity ?? 'active'}
        options={{ active: 'active: starts it', passive: 'passive: waits for the partner' }}
        onPick={(v, words) => set('activity', v === 'active' ? null : v, words)}
      />
      {bundle.kind === 'lacp' && (
        <Choice
          label={`Timeout at ${at}`}
          value={bundle.timeout ?? 'long'}
          options={{ long: 'long, 90 s', short: 'short, 3 s' }}
          onPick={(v, words) => set('timeout', v === 'long' ? null : v, `timeout ${words}`)}
        />
      )}
      <Choice
        label={`While there is no partner, at ${at}`}
        value={bundle.individual === false ? 'no' : 'yes'}
        options={{ yes: 'members are individual', no: 'members stay down' }}
        onPick={(v, words) => set('individual', v === 'yes' ? null : false, words)}
      />
    </>
  );
}

function SystemPriority({ of: s }: { of: Switch }) {
  const { edit } = useBench();
  return (
    <Field
      key={`${s.id} system`}
      label="system priority"
      width={96}
      value={String(s.lacpPriority ?? 32768)}
      onSet={(text) =>
        edit(`System priority of ${s.name}: ${text}`, [
          setField('switch', s.id, 'lacpPriority', whole(text) === 32768 ? null : whole(text)),
        ])
      }
    />
  );
}

/** What the bundle is as a port: VLANs, cost, priority, edge. */
function PortSettings({ bundle, set }: PartProps) {
  const { edit } = useBench();
  const s = useSession((state) => switchById(state.design, bundle.switch)!);
  const where = `${s.name} ${bundle.name}`;
  /** VLANs belong to the bundle; its members follow, so that one that leaves does not carry others. */
  const setAll = (field: 'vlans' | 'native', value: unknown, words: string) =>
    edit(`${where}: ${words} ${String(value ?? 'as by default')}`, [
      setField('bundle', bundle.id, field, value),
      ...bundle.members.map((m) => setField('port', m, field, value)),
    ]);
  return (
    <div className="bundle-fields">
      <Field
        key={`${bundle.id} vlans`}
        label="VLANs"
        width={170}
        value={bundle.vlans ?? 'all'}
        onSet={(text) => setAll('vlans', text.trim() === 'all' || text.trim() === '' ? null : text.trim(), 'VLANs')}
      />
      <Field
        key={`${bundle.id} native`}
        label="native VLAN"
        width={70}
        value={bundle.native === undefined ? '' : String(bundle.native)}
        onSet={(text) => setAll('native', whole(text), 'native VLAN')}
      />
      <Field
        key={`${bundle.id} cost`}
        label="cost"
        width={96}
        value={bundle.cost === undefined ? 'by speed' : String(bundle.cost)}
        onSet={(text) => set('cost', text.trim() === 'by speed' ? null : whole(text), `cost ${text}`)}
      />
      <Field
        key={`${bundle.id} priority`}
        label="port priority"
        width={84}
        value={String(bundle.priority ?? 128)}
        onSet={(text) => set('priority', whole(text) === 128 ? null : whole(text), `port priority ${text}`)}
      />
      <label className={styles.edgeBox}>
        <input
          type="checkbox"
          checked={bundle.edge ?? false}
          onChange={(e) => set('edge', e.target.checked || null, e.target.checked ? 'edge' : 'no edge')}
        />{' '}
        edge
      </label>
    </div>
  );
}
