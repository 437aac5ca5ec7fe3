'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
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
}
const EMPTY: Fields = { addresses: '', community: '', user: '', authKey: '', privKey: '', networks: '' };

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
  const fence = snmpFence.safeParse({ follow, networks: words(fields.networks) });
  if (!fence.success) return 'Write networks as 192.0.2.0/24, with blanks between them.';
  return { addresses, credentials: credentials.data, fence: fence.data };
}

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
          <OneOf label="Credentials" options={VERSIONS} value={version} onPick={setVersion} />
          {version === '2c' && field('community', 'Community (v2c)', secret)}
          {version === '3' && field('user', 'User (v3)', { autoComplete: 'off' })}
          {version === '3' && field('authKey', 'Authentication key (SHA)', secret)}
          {version === '3' && field('privKey', 'Encryption key (AES)', secret)}
        </div>
        <p className="quiet small">
          The server asks ten devices at once, and only reads. Credentials are not stored: they stay in this page, for a
          watch.
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
