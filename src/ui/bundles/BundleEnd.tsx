'use client';
import { setField, switchById } from '../../core/design';
import type { Bundle } from '../../core/design';
import { BUNDLE_KIND_WORDS } from '../../core/messages';
import { Field } from '../controls/Field';
import { Choice } from '../controls/DesignSettings';
import { useBench, useSession } from '../session/context';

/** One end: its switch and number, its kind and what it asks for. */
export function BundleEnd({ bundle }: { bundle: Bundle }) {
  const { edit } = useBench();
  const design = useSession((s) => s.design);
  const s = switchById(design, bundle.switch)!;
  const where = `${s.name} ${bundle.name}`;
  const set = (field: keyof Bundle & string, value: unknown, words: string) =>
    edit(`${where}: ${words}`, [setField('bundle', bundle.id, field, value)]);
  const whole = (text: string) => (text.trim() === '' ? null : Number.isFinite(Number(text)) ? Number(text) : text);
  const number = (label: string, field: 'minActive' | 'maxActive' | 'key' | 'number', otherwise: number) => (
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
  /** VLANs belong to the bundle; its members follow, so that one that leaves does not carry others. */
  const setAll = (field: 'vlans' | 'native', value: unknown, words: string) =>
    edit(`${where}: ${words} ${String(value ?? 'as by default')}`, [
      setField('bundle', bundle.id, field, value),
      ...bundle.members.map((m) => setField('port', m, field, value)),
    ]);
  const negotiates = bundle.kind !== 'static';
  return (
    <section className="bundle-end" aria-label={`End at ${s.name}`}>
      <h3>{s.name}</h3>
      <div className="bundle-fields">
        <Field
          key={bundle.id}
          label="name"
          width={150}
          value={bundle.name}
          onSet={(text) => set('name', text, `name ${text}`)}
        />
        {number('number', 'number', 0)}
      </div>
      <Choice
        label={`Kind at ${s.name}`}
        value={bundle.kind}
        options={BUNDLE_KIND_WORDS}
        onPick={(v, words) => set('kind', v, words)}
      />
      {negotiates && (
        <Choice
          label={`Negotiation at ${s.name}`}
          value={bundle.activity ?? 'active'}
          options={{ active: 'active: starts it', passive: 'passive: waits for the partner' }}
          onPick={(v, words) => set('activity', v === 'active' ? null : v, words)}
        />
      )}
      {bundle.kind === 'lacp' && (
        <Choice
          label={`Timeout at ${s.name}`}
          value={bundle.timeout ?? 'long'}
          options={{ long: 'long, 90 s', short: 'short, 3 s' }}
          onPick={(v, words) => set('timeout', v === 'long' ? null : v, `timeout ${words}`)}
        />
      )}
      {negotiates && (
        <Choice
          label={`While there is no partner, at ${s.name}`}
          value={bundle.individual === false ? 'no' : 'yes'}
          options={{ yes: 'members are individual', no: 'members stay down' }}
          onPick={(v, words) => set('individual', v === 'yes' ? null : false, words)}
        />
      )}
      <div className="bundle-fields">
        {number('minimum links', 'minActive', 1)}
        {number('maximum links', 'maxActive', 8)}
        {bundle.kind === 'lacp' && number('key', 'key', bundle.number)}
        {bundle.kind === 'lacp' && (
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
        )}
      </div>
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
        <label className="edge-box">
          <input
            type="checkbox"
            checked={bundle.edge ?? false}
            onChange={(e) => set('edge', e.target.checked || null, e.target.checked ? 'edge' : 'no edge')}
          />{' '}
          edge
        </label>
      </div>
    </section>
  );
}
