/** The programs that run outside the pages, compiled as the application does it. */
import { execFileSync } from 'node:child_process';

export function compilePrograms(): void {
  const code = "import('./scripts/build.mjs').then((m) => m.buildPrograms())";
  execFileSync(process.execPath, ['--input-type=module', '-e', code], { stdio: 'pipe' });
}
