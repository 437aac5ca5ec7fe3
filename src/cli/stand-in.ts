/** Serves a design as a network of agents that can be asked by SNMP, until it is stopped. */
import { createInterface } from 'node:readline';
import type { Design, Link, ScriptEvent } from '../core/design';
import { endOwner, portById } from '../core/design';
import { credentialsFrom } from '../server/snmp/credentials';
import { StandIn } from '../server/snmp/stand-in';
import { complain, print, readDesignFile } from './files';
import { scriptCalled } from './script-file';

export interface StandInCommandOptions {
  readonly script?: string;
  readonly port: string;
  readonly speed: string;
  readonly fail?: readonly string[];
  readonly json?: boolean;
}

/** A link by its id, or by both ends as `quay-a 1 – yard 3`, in any order. */
function linkCalled(design: Design, text: string): Link | undefined {
  const words = (l: Link) =>
    [l.a, l.b].map((e) =>
      [endOwner(design, e)?.name, 'port' in e ? portById(design, e.port)?.name : ''].filter(Boolean).join(' '),
    );
  const wanted = text
    .split(/\s*[–,]\s*|\s+-\s+/)
    .map((t) => t.trim())
    .sort()
    .join('\n');
  return design.links.find((l) => l.id === text) ?? design.links.find((l) => words(l).sort().join('\n') === wanted);
}

/** `fail LINK`, `restore LINK`, `off SWITCH`, `on SWITCH`: an event, or null for what is none. */
export function eventOf(design: Design, line: string): ScriptEvent | null {
  const match = /^\s*(fail|restore|off|on)\s+(.+?)\s*$/.exec(line);
  if (!match) return null;
  const [, verb, what] = match as unknown as [string, string, string];
  const base = { id: `typed-${verb}`, at: 0 };
  if (verb === 'fail' || verb === 'restore') {
    const link = linkCalled(design, what);
    return link ? { ...base, kind: verb === 'fail' ? 'link-down' : 'link-up', link: link.id } : null;
  }
  const s = design.switches.find((x) => x.name === what || x.id === what);
  return s ? { ...base, kind: verb === 'off' ? 'switch-off' : 'switch-on', switch: s.id } : null;
}

/** Prints `NAME ADDRESS PORT` a switch once all answer, then takes events line by line; ends when it is interrupted. */
export async function standIn(file: string, options: StandInCommandOptions): Promise<number> {
  const design = await readDesignFile(file);
  if (!design) return 2;
  const script = options.script === undefined ? undefined : await scriptCalled(design, options.script);
  if (script === null) return 2;
  const [port, speed] = [Number(options.port), Number(options.speed)];
  if (!Number.isInteger(port) || port < 1 || port > 65_535) {
    complain(`--port ${options.port}: write a number from 1 to 65535.`);
    return 2;
  }
  if (!(speed > 0 && speed <= 1000)) {
    complain(`--speed ${options.speed}: write a number above 0, at most 1000.`);
    return 2;
  }
  const failed = (options.fail ?? []).map((text) => ({ text, link: linkCalled(design, text) }));
  const unknown = failed.find((f) => !f.link);
  if (unknown) {
    complain(`--fail ${unknown.text}: there is no such link; write its id, or both ends as 'name port – name port'.`);
    return 2;
  }
  const credentials = credentialsFrom(process.env) ?? { version: '2c' as const, community: 'public' };
  const network = new StandIn(design, { ...(script ? { script } : {}), port, speed, credentials: [credentials] });
  try {
    await network.start();
  } catch (error) {
    const { code, address } = error as NodeJS.ErrnoException & { address?: string };
    complain(
      code === 'EADDRINUSE'
        ? `${address} port ${port} is taken: choose another one with --port.`
        : `Agents cannot be started: ${code ?? (error as Error).message}.`,
    );
    network.stop();
    return 1;
  }
  for (const { link } of failed) network.happen({ id: 'failed', at: 0, kind: 'link-down', link: link!.id });
  const told = network.switches.map(({ name, address, port: at }) => ({ name, address, port: at }));
  await print(
    options.json ? `${JSON.stringify(told)}\n` : told.map((s) => `${s.name} ${s.address} ${s.port}\n`).join(''),
  );
  const lines = createInterface({ input: process.stdin });
  lines.on('line', (line) => {
    const event = eventOf(design, line);
    if (event) network.happen(event);
    else if (line.trim() !== '')
      complain(`'${line.trim()}' is none of: fail LINK, restore LINK, off SWITCH, on SWITCH.`);
  });
  await new Promise<void>((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => resolve());
  });
  lines.close();
  network.stop();
  return 0;
}
