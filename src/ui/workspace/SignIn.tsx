'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { FormEvent } from 'react';
import { api } from '../session/api';
import { Mark } from '../controls/Mark';
import { ThemeChoice } from '../controls/ThemeChoice';

/** Asks for the password of this server, then goes on to the page that was wanted. */
export function SignIn({ to }: { to: string }) {
  const [password, setPassword] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    try {
      await api.signIn(password);
      window.location.assign(to);
    } catch (error) {
      setFault(error instanceof Error ? error.message : String(error));
      setBusy(false);
    }
  };
  return (
    <>
      <header className="head">
        <span className="brand">
          <Mark /> Knot Path
        </span>
        <span className="grow" />
        <ThemeChoice />
      </header>
      <main className="sign-in">
        <h1>Sign in</h1>
        <p className="quiet">
          This server can be reached from other machines. Its password was set by whoever started it.
        </p>
        <form onSubmit={(event) => void submit(event)}>
          <TextField
            label="Password"
            type="password"
            autoFocus
            fullWidth
            value={password}
            autoComplete="current-password"
            onChange={(e) => setPassword(e.target.value)}
            error={fault !== null}
            helperText={fault ?? ' '}
          />
          <Button type="submit" variant="contained" disabled={busy || password === ''}>
            {busy ? 'Signing in…' : 'Sign in'}
          </Button>
        </form>
      </main>
    </>
  );
}
