'use client';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useBench, useSession } from '../../session/context';
import type { PlaceRef } from '../usePath';
import { PLACE_WORDS } from './place-ends';
import type { FieldsProps } from './place-ends';

interface Option {
  readonly ref: PlaceRef;
  readonly name: string;
}

/** The two fields, each with the hosts and switches to choose from. */
export function PlaceFields({ from = null, to = null, asked }: FieldsProps) {
  const { setView } = useBench();
  const switches = useSession((s) => s.design.switches);
  const hosts = useSession((s) => s.design.hosts);
  const [ends, setEnds] = useState<readonly [PlaceRef | null, PlaceRef | null]>([from, to]);
  const first = useRef<HTMLInputElement>(null);
  const options = useMemo(
    (): Option[] => [
      ...hosts.map((h) => ({ ref: { kind: 'host' as const, id: h.id }, name: h.name })),
      ...switches.map((s) => ({ ref: { kind: 'switch' as const, id: s.id }, name: s.name })),
    ],
    [switches, hosts],
  );
  useEffect(() => {
    if (asked > 0) first.current?.focus();
  }, [asked]);
  const find = (ref: PlaceRef | null) => options.find((o) => o.ref.kind === ref?.kind && o.ref.id === ref?.id) ?? null;
  const pick = (side: 0 | 1, option: Option | null) => {
    const next: [PlaceRef | null, PlaceRef | null] = [...ends];
    next[side] = option?.ref ?? null;
    setEnds(next);
    if (next[0] && next[1]) setView({ selection: [next[0], next[1]], path: true });
  };
  return (
    <div className="places" role="group" aria-label="Path between two places">
      {([0, 1] as const).map((side) => (
        <Autocomplete
          key={side}
          options={options}
          value={find(ends[side])}
          getOptionLabel={(o) => o.name}
          getOptionKey={(o) => `${o.ref.kind} ${o.ref.id}`}
          groupBy={(o) => (o.ref.kind === 'host' ? 'Hosts' : 'Switches')}
          isOptionEqualToValue={(a, b) => a.ref.id === b.ref.id && a.ref.kind === b.ref.kind}
          onChange={(_, option) => pick(side, option)}
          renderInput={(params) => (
            <TextField
              {...params}
              inputRef={side === 0 ? first : undefined}
              placeholder={PLACE_WORDS[side].hint}
              slotProps={{
                ...params.slotProps,
                htmlInput: { ...params.slotProps?.htmlInput, 'aria-label': PLACE_WORDS[side].label },
              }}
            />
          )}
        />
      ))}
    </div>
  );
}
