'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { ReactNode } from 'react';
import { snmpCredentials, snmpFence } from '../../api/observe';
import { OneOf } from '../controls/OneOf';
import type { Asking } from './reading';
import styles from './ObservedStage.module.css';

const VERSIONS = [
  { id: '2c', name: 'community' },
  { id: '3', name: 'user and keys' },
] as const;
type Version = (typeof VERSIONS)[number]['id'];

const words = (text: string): string[] => text.split(/[\s,;]+/).filter(Boolean);

interface Props {
  readonly onAsk: (asking: Asking) => void;
  readonly onClose: () => void;
}

interface Fields {
  readonly addresses: string;
  readonly community: string;
  readonly user: string;
  readonly authKey: string;
  readonly privKey: string;
  readonly networks: string;
  readonly depth: string;
  readonly most: string;
  readonly atOnce: string;
  readonly pause: string;
}
const EMPTY: Fields = {
  addresses: '',
  community: '',
  user: '',
  authKey: '',
  privKey: '',
  networks: '',
  depth: '16',
  most: '500',
  atOnce: '10',
  pause: '0',
};

/** Numbers of a fence: what each is called, and what the server takes. */
const LIMITS = [
  { name: 'depth', label: 'Hops at most', range: '0 to 64', follows: true },
  { name: 'most', label: 'Devices at most', range: '1 to 2000', follows: true },
  { name: 'atOnce', label: 'Devices at once', range: '1 to 50', follows: false },
  { name: 'pause', label: 'Pause (ms)', range: '0 to 5000', follows: false },
] as const;

/** What is to be asked, or the sentence that says what is missing. */
function askingOf(fields: Fields, version: Version, follow: boolean): Asking | string {
  const addresses = words(fields.addresses);
  if (addresses.length === 0) return 'Write the address of a device, such as 192.0.2.10, or several.';
  const { user, authKey, privKey, community } = fields;
  const keys = { ...(authKey ? { authKey } : {}), ...(privKey ? { privKey } : {}) };
  const credentials = snmpCredentials.safeParse(version === '2c' ? { version, community } : { version, user, ...keys });
  if (!credentials.success)
    return version === '2c'
      ? 'Write the community that the devices accept for reading.'
      : 'Write the user; keys have at least eight characters, and encryption needs both.';
  const numbers = Object.fromEntries(
    LIMITS.map(({ name }) => [name, fields[name].trim() === '' ? NaN : Number(fields[name])]),
  );
  const fence = snmpFence.safeParse({ follow, networks: words(fields.networks), ...numbers });
  if (!fence.success) {
    const limit = LIMITS.find(({ name }) => fence.error.issues[0]?.path[0] === name);
    return limit
      ? `${limit.label}: write a whole number from ${limit.range}.`
      : 'Write networks as 192.0.2.0/24, with blanks between them.';
  }
  return { addresses, credentials: credentials.data, fence: fence.data };
}

interface LimitsProps {
  readonly follow: boolean;
  readonly field: (name: keyof Fields, label: string, more?: object) => ReactNode;
}

/** How far a reading goes, and how gently. */
const Limits = ({ follow, field }: LimitsProps) => (
  <div className={styles.limits}>
    {LIMITS.filter((l) => follow || !l.follows).map(({ name, label }) => (
      <span key={name}>{field(name, label)}</span>
    ))}
  </div>
);

/** Whom to ask, by what right, and how far. */
export function AskDialog({ onAsk, onClose }: Props) {
  const [version, setVersion] = useState<Version>('2c');
  const [fields, setFields] = useState(EMPTY);
  const [follow, setFollow] = useState(true);
  const [fault, setFault] = useState<string | null>(null);
  const field = (name: keyof Fields, label: string, more: object = {}) => (
    <TextField
      label={label}
      size="small"
      slotProps={{ inputLabel: { shrink: true } }}
      value={fields[name]}
      onChange={(e) => setFields({ ...fields, [name]: e.target.value })}
      {...more}
    />
  );
  const secret = { type: 'password', autoComplete: 'off' };
  const ask = () => {
    const asking = askingOf(fields, version, follow);
    if (typeof asking === 'string') setFault(asking);
    else onAsk(asking);
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle>Ask devices by SNMP</DialogTitle>
      <DialogContent>
        <div className={styles.fields}>
          {field('addresses', 'Addresses', {
            autoFocus: true,
            placeholder: '192.0.2.10, or 192.0.2.10:1161 with a port',
          })}
          <label className={styles.follow}>
            <input type="checkbox" checked={follow} onChange={(e) => setFollow(e.target.checked)} /> go on to the
            neighbours that devices report by LLDP
          </label>
          {follow && field('networks', 'Only in these networks', { placeholder: 'the /24 of each address' })}
          <Limits follow={follow} field={field} />
          <OneOf label="Credentials" options={VERSIONS} value={version} onPick={setVersion} />
          {version === '2c' && field('community', 'Community (v2c)', secret)}
          {version === '3' && field('user', 'User (v3)', { autoComplete: 'off' })}
          {version === '3' && field('authKey', 'Authentication key (SHA)', secret)}
          {version === '3' && field('privKey', 'Encryption key (AES)', secret)}
        </div>
        <p className="quiet small">
          The server only reads. Credentials are not stored: they stay in this page, for a watch.
        </p>
        {fault && (
          <p className="alarm" role="alert">
            {fault}
          </p>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" onClick={ask}>
          Ask
        </Button>
      </DialogActions>
    </Dialog>
  );
}
