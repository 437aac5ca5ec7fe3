'use client';
import { useColorScheme } from '@mui/material/styles';

const NEXT = { system: 'light', light: 'dark', dark: 'system' } as const;
const SIGN = { system: '◐', light: '○', dark: '●' } as const;

/** Cycles: as the system, light, dark. */
export function ThemeChoice() {
  const { mode, setMode } = useColorScheme();
  const now = mode ?? 'system';
  return (
    <button
      className="tool"
      onClick={() => setMode(NEXT[now])}
      aria-label={`Theme: ${now}. Change to ${NEXT[now]}`}
      title={`Theme: ${now}`}
      suppressHydrationWarning
    >
      <span aria-hidden="true" suppressHydrationWarning>
        {SIGN[now]}
      </span>
    </button>
  );
}
