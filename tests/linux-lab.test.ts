/** The lab script run as root: what Linux bridges decide equals what the solver says, before and after a cable is lost. */
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { linkAt, setField, switchById } from '@/core/design';
import type { Design, ObservedNetwork } from '@/core/design';
import { asClassic, exportLinuxLab, solutionOf } from '@/core/formats';
import type { SolutionTree } from '@/core/formats';
import { asBuilt, readObservedFiles } from '@/core/observe';
import { rootsOf, solveDesign } from '@/core/trees';
import { asCabled } from '@/demo/brackwater';
import { after } from './support/edits';
import { networks } from './support/networks';

const folder = mkdtempSync(path.join(tmpdir(), 'knot-path-lab-'));
/** Why labs cannot be run here; null where they can. */
const hindrance = ((): string | null => {
  if (process.getuid?.() !== 0) return 'labs need root';
  const tried = spawnSync('sh', ['-c', 'ip netns add kp-try && ip -n kp-try link add name br type bridge']);
  spawnSync('ip', ['netns', 'del', 'kp-try']);
  return tried.status === 0 ? null : 'this machine lets no network namespace be made, or has no bridges';
})();
if (hindrance !== null) process.stdout.write(`Linux labs are not run: ${hindrance}.\n`);
const inLab = hindrance === null ? test : test.skip;

class Lab {
  private readonly script: string;
  constructor(
    readonly name: string,
    design: Design,
  ) {
    this.script = path.join(folder, `${name}.sh`);
    writeFileSync(this.script, exportLinuxLab(design));
  }
  run(...words: string[]): Promise<string> {
    const env = { ...process.env, KNOT_LAB: this.name, KNOT_LAB_QUICK: '1' };
    const child = spawn('sh', [this.script, ...words], { env, stdio: ['ignore', 'pipe', 'pipe'] });
    let [out, err] = ['', ''];
    child.stdout.on('data', (data: Buffer) => (out += data.toString()));
    child.stderr.on('data', (data: Buffer) => (err += data.toString()));
    return new Promise((resolve, reject) =>
      child.on('close', (code) => (code === 0 ? resolve(out) : reject(new Error(`${words.join(' ')}: ${err}`)))),
    );
  }
  async tree(): Promise<SolutionTree> {
    return (JSON.parse(await this.run('show')) as { trees: SolutionTree[] }).trees[0]!;
  }
  /** The roles once no port listens or learns any more, and the same are seen twice. */
  async settled(): Promise<SolutionTree> {
    for (let before = '', turns = 0; turns < 60; turns++) {
      const tree = await this.tree();
      const text = JSON.stringify(tree);
      if (text === before && !tree.ports.some((p) => ['listening', 'learning'].includes(p.state))) return tree;
      before = text;
      await new Promise((resolve) => setTimeout(resolve, 2_500));
    }
    throw new Error('The lab does not come to rest.');
  }
}

/** Ports with a cable at a switch that is on: the others are in no lab, or have no light. */
function expected(design: Design): Record<string, string> {
  const classic = asClassic(design);
  const solved = solveDesign(classic);
  const tree = solutionOf(solved, solved.trees[0]!);
  return Object.fromEntries(
    tree.ports.flatMap((p) =>
      p.role === 'disabled' ? [] : [[`${p.switch} ${p.port}`, `${p.role} ${p.state} ${p.cost}`]],
    ),
  );
}
const found = (tree: SolutionTree): Record<string, string> =>
  Object.fromEntries(
    tree.ports.flatMap((p) =>
      p.role === 'disabled' ? [] : [[`${p.switch} ${p.port}`, `${p.role} ${p.state} ${p.cost}`]],
    ),
  );

/** The switches of a lab, read as files that each would print. */
function readBack(lab: string) {
  const print = (...words: string[]) => spawnSync(words[0]!, words.slice(1)).stdout;
  const spaces =
    print('ip', 'netns', 'list')
      .toString()
      .match(new RegExp(`^${lab}-s\\S*`, 'gm')) ?? [];
  const file = (path_: string, octets: Uint8Array) => ({ path: path_, inside: path_, octets, at: null });
  const files = spaces.flatMap((ns) => [
    file(`${ns}/link.json`, print('ip', '-n', ns, '-d', '-j', 'link', 'show')),
    file(`${ns}/bridge.json`, print('ip', 'netns', 'exec', ns, 'bridge', '-d', '-j', 'link')),
  ]);
  return asBuilt(readObservedFiles(files).observations, 'read');
}

/** Address of the root, as read and as solved. */
const rootIn = ({ trees, switches }: ObservedNetwork) => switches.find((s) => s.name === trees[0]?.root)?.mac;
function rootOf(design: Design): string {
  const solved = solveDesign(asClassic(design));
  return solved.topology.design.switches[rootsOf(solved.trees[0]!)[0]!]!.mac;
}

inLab(
  'the demo with one classic tree: roles, a ping across, a cable lost and restored',
  async () => {
    const design = { ...asCabled(), mode: 'stp' as const };
    const lab = new Lab('kpdemo', design);
    try {
      await lab.run('up');
      expect(found(await lab.settled())).toEqual(expected(design));
      const tool = spawnSync('ping', ['-V']);
      if (tool.error) process.stdout.write('No ping is installed: contact across the lab is not tried.\n');
      else {
        // The first two hosts of VLAN 110 have the first two addresses of its subnet.
        const ping = spawnSync('ip', ['netns', 'exec', 'kpdemo-h1', 'ping', '-c', '3', '-W', '2', '10.0.110.2']);
        expect(ping.status).toBe(0);
      }
      const lost = linkAt(design, 'quay-a:3') ?? design.links[0]!;
      const end = 'port' in lost.a ? lost.a.port : '';
      const port = design.ports.find((p) => p.id === end)!;
      const names = [switchById(design, port.switch)!.name, port.name] as const;
      await lab.run('fail', ...names);
      expect(found(await lab.settled())).toEqual(expected(after(design, [setField('link', lost.id, 'down', true)])));
      await lab.run('restore', ...names);
      expect(found(await lab.settled())).toEqual(expected(design));
      await expect(lab.run('fail', 'attic', '1')).rejects.toThrow("There is no port '1' at a switch 'attic'.");
    } finally {
      await lab.run('down');
    }
    await expect(lab.run('show')).rejects.toThrow('bring it up first');
  },
  180_000,
);

inLab(
  'random designs: the kernel decides as the solver does',
  async () => {
    const count = Number(process.env.RUNS ?? 20);
    const seed = Number(process.env.SEED ?? 20261123);
    const designs = fc.sample(
      networks.filter((d) => d.links.length + d.segments.length > 2 && d.switches.length > 2),
      { numRuns: count, seed },
    );
    // Some at a time: each is mostly waiting for its timers.
    const AT_ONCE = 7;
    for (let i = 0; i < designs.length; i += AT_ONCE)
      await Promise.all(
        designs.slice(i, i + AT_ONCE).map(async (design, j) => {
          const lab = new Lab(`kpr${i + j}`, design);
          try {
            await lab.run('up');
            const same = { seed, nth: i + j };
            expect({ ...same, ...found(await lab.settled()) }).toEqual({ ...same, ...expected(design) });
            const { network } = readBack(lab.name);
            const deviates = network.questions.filter((q) => q.kind === 'deviates');
            expect({ ...same, deviates, root: rootIn(network) }).toEqual({
              ...same,
              deviates: [],
              root: rootOf(design),
            });
          } finally {
            await lab.run('down');
          }
        }),
      );
  },
  300_000,
);
