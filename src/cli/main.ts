/**
 * The command line: the same core from a shell. Results go to standard output, complaints to standard error. Each command
 * is loaded when it is called, so that none waits for what another one needs.
 */
import { Command, CommanderError } from 'commander';
import { VERSION } from '../api/version';
import type { HistoryOptions } from './history';
import type { ImportOptions } from './import';
import type { RehearseOptions } from './rehearse';
import type { ObserveOptions } from './observe';
import type { PlanCommandOptions } from './plan';
import type { ReportOptions } from './report';
import type { ReviewOptions } from './review';
import type { StandInCommandOptions } from './stand-in';

type Ends = (status: number) => void;

/** Commands that read and write files. */
function fileCommands(program: Command, ends: Ends): void {
  program
    .command('import')
    .description('make a design from tables of switches, links and VLANs')
    .requiredOption('--switches <csv>', 'table of switches')
    .requiredOption('--links <csv>', 'table of links')
    .option('--vlans <csv>', 'table of VLANs')
    .option('--name <name>', 'name of the design; otherwise taken from the output file')
    .requiredOption('--out <design>', 'design file to write')
    .action(async (options: ImportOptions) => {
      ends(await (await import('./import')).importTables(options));
    });
  program
    .command('export')
    .description('write a design as GraphML, RFC 8345 topology or a table')
    .argument('<design>', 'design file (JSON)')
    .requiredOption(
      '--format <format>',
      'json, graphml, topology, linux-lab, openconfig, ieee-yang, settings, networkd, switches, links or vlans',
    )
    .option('--out <file>', 'file to write; otherwise standard output')
    .option('--since <design>', 'of openconfig and ieee-yang: only what differs from this design')
    .action(async (file: string, options: { format: string; out?: string; since?: string }) => {
      ends(await (await import('./export')).exportDesign(file, options));
    });
  program
    .command('neighbours')
    .description('compare LLDP neighbours of switches with a design')
    .argument('<design>', 'design file (JSON)')
    .argument('<lists...>', 'LLDP neighbours as JSON, one file named after each switch, or as CSV')
    .option('--json', 'as JSON instead of lines')
    .action(async (file: string, lists: string[], options: { json?: boolean }) => {
      ends(await (await import('./neighbours')).neighbours(file, lists, options));
    });
  program
    .command('digest')
    .description('print the MST configuration digest of every region and switch')
    .argument('<design>', 'design file (JSON)')
    .option('--json', 'as JSON instead of lines')
    .action(async (file: string, options: { json?: boolean }) => {
      ends(await (await import('./digest')).digest(file, options));
    });
  program
    .command('diff')
    .description('print what differs between two designs and what it changes; status 1 when something does')
    .argument('<a>', 'design file (JSON)')
    .argument('<b>', 'design file (JSON)')
    .option('--json', 'as JSON instead of lines')
    .action(async (a: string, b: string, options: { json?: boolean }) => {
      ends(await (await import('./diff')).diff(a, b, options));
    });
  program
    .command('check')
    .description('validate a design; status 1 and one line per fault')
    .argument('<design>', 'design file (JSON)')
    .action(async (file: string) => {
      ends(await (await import('./check')).check(file));
    });
}

/** Commands that answer what a design does. */
function answerCommands(program: Command, ends: Ends): void {
  program
    .command('solve')
    .description('print the converged state of every tree')
    .argument('<design>', 'design file (JSON)')
    .option('--tree <id>', 'one tree only, such as vlan-110')
    .option('--json', 'as JSON instead of a table')
    .action(async (file: string, options: { tree?: string; json?: boolean }) => {
      ends(await (await import('./solve')).solve(file, options));
    });
  program
    .command('bundles')
    .description('print the state of every bundle and member; status 1 when a bundle does not come up')
    .argument('<design>', 'design file (JSON)')
    .option('--json', 'as JSON instead of lines')
    .action(async (file: string, options: { json?: boolean }) => {
      ends(await (await import('./bundles')).bundles(file, options));
    });
  program
    .command('goals')
    .description('print which goals of a design are met; status 1 when one is broken')
    .argument('<design>', 'design file (JSON)')
    .option('--json', 'as JSON instead of lines')
    .action(async (file: string, options: { json?: boolean }) => {
      ends(await (await import('./goals')).goals(file, options));
    });
  program
    .command('propose')
    .description('find the smallest changes that meet the broken goals')
    .argument('<design>', 'design file (JSON)')
    .option('--json', 'as JSON instead of lines')
    .action(async (file: string, options: { json?: boolean }) => {
      ends(await (await import('./goals')).propose(file, options));
    });
  program
    .command('rehearse')
    .description('rehearse a script over a design; status 1 when a pair is unreachable at the end')
    .argument('<design>', 'design file (JSON)')
    .option('--script <file>', 'script (JSON), or the name of one of the design; the first of the design if absent')
    .option('--json', 'final roles, timelines, gaps and story as JSON instead of lines')
    .option('--pcapng <file>', 'write the control frames there')
    .option('--one-for-alike', 'one BPDU for all VLANs that go alike, with a comment that names them')
    .option('--until <time>', 'how long, such as 60s or 2m')
    .action(async (file: string, options: RehearseOptions) => {
      ends(await (await import('./rehearse')).rehearseDesign(file, options));
    });
}

/** Commands that look at a design as a whole. */
function wholeCommands(program: Command, ends: Ends): void {
  program
    .command('compare')
    .description('print the figures of designs side by side, and what is better or worse than in the first')
    .argument('<designs...>', 'design files (JSON), two or more')
    .option('--json', 'as JSON instead of a table')
    .action(async (files: string[], options: { json?: boolean }) => {
      ends(await (await import('./compare')).compare(files, options));
    });
  program
    .command('review')
    .description('find what is set wrongly and what each failure does; status 1 on faults that are not accepted')
    .argument('<design>', 'design file (JSON)')
    .option('--pairs', 'failures of two at a time as well')
    .option('--measure <which>', 'rehearse the worst failure, all, or none', 'worst')
    .option('--json', 'as JSON instead of lines')
    .option('--progress', 'JSON a line: what is found as it is found, then the whole')
    .action(async (file: string, options: ReviewOptions) => {
      ends(await (await import('./review')).review(file, options));
    });
  program
    .command('worker')
    .description('look at failures for reviews on other machines, by the queue that KNOT_PATH_QUEUE names')
    .option('--threads <number>', 'threads; otherwise one a core')
    .action(async (options: { threads?: string }) => {
      ends(await (await import('./worker')).work(options));
    });
  program
    .command('report')
    .description('write a design as one printable HTML file')
    .argument('<design>', 'design file (JSON)')
    .option('--out <file>', 'file to write; otherwise standard output')
    .option('--sections <list>', 'sections by name, such as summary,trees,findings; otherwise all')
    .option('--paper <size>', 'A4 or Letter', 'A4')
    .action(async (file: string, options: ReportOptions) => {
      ends(await (await import('./report')).report(file, options));
    });
}

function planCommand(program: Command, ends: Ends): void {
  program
    .command('plan')
    .description('plan the change from one design to another, step by step; status 1 where a device cannot be reached')
    .argument('<from>', 'design as it is (JSON)')
    .argument('<to>', 'design as it is to be (JSON)')
    .option(
      '--watch <hosts>',
      'two hosts of one VLAN that should keep contact, such as desk,server; as often as needed',
      (hosts: string, all: readonly string[] | undefined) => [...(all ?? []), hosts],
    )
    .option('--at <place>', 'host or switch that you work from; otherwise the workplace of the design')
    .option('--no-temporary', 'without steps that are taken back again')
    .option('--seconds <number>', 'how long orders are compared', '20')
    .option('--json', 'as JSON instead of lines')
    .option('--progress', 'JSON a line: how far it is, then the plan')
    .option('--markdown', 'as a work sheet in Markdown')
    .option('--csv', 'as a work sheet in CSV')
    .option('--html', 'as a work sheet to print')
    .option('--states <folder>', 'write the design before the first step, and after each, as 00.json, 01.json …')
    .action(async (from: string, to: string, options: PlanCommandOptions) => {
      ends(await (await import('./plan')).plan(from, to, options));
    });
}

/** Commands on the network that is there. */
function observeCommands(program: Command, ends: Ends): void {
  program
    .command('observe')
    .description('read the network that is there, draw it, hold it against a design; status 1 where something differs')
    .argument('<sources...>', 'files, folders with a folder or a file a device, or snmp://ADDRESS[:PORT]')
    .option('--against <design>', 'design to compare with (JSON)')
    .option('--out <design>', 'design file to write, drawn from what was read')
    .option('--json', 'as JSON instead of lines')
    .option('--report <file>', 'differences and questions as a page, Markdown or a table: FILE.html, .md or .csv')
    .option('--credentials <file>', 'credentials of SNMP as JSON; otherwise from the environment')
    .option('--no-follow', 'ask the given addresses alone, and not what their neighbours tell')
    .option(
      '--fence <network>',
      'networks that may be asked, such as 192.0.2.0/24, as often as needed; otherwise the /24 of each address',
      (network: string, all: readonly string[] | undefined) => [...(all ?? []), network],
    )
    .option('--depth <number>', 'hops that are followed, at most')
    .option('--at-once <number>', 'devices that are asked at once')
    .option('--most <number>', 'devices that are asked, at most')
    .option('--pause <milliseconds>', 'between two requests to one device')
    .action(async (sources: string[], options: ObserveOptions) => {
      ends(await (await import('./observe')).observe(sources, options));
    });
  program
    .command('stand-in')
    .description('serve a design as a network of SNMP agents, as it runs in the simulation')
    .argument('<design>', 'design file (JSON)')
    .option('--script <script>', 'script to run: a file, or one of the design')
    .option(
      '--fail <link>',
      "link that fails at the start: its id, or both ends as 'name port – name port'; as often as needed",
      (link: string, all: readonly string[] | undefined) => [...(all ?? []), link],
    )
    .option('--port <number>', 'UDP port, the same at the address of every switch', '1161')
    .option('--speed <number>', 'seconds of the network in one of ours', '1')
    .option('--json', 'the switches in one line of JSON')
    .action(async (file: string, options: StandInCommandOptions) => {
      ends(await (await import('./stand-in')).standIn(file, options));
    });
}

/** Commands on the database of the application. */
function databaseCommands(program: Command, ends: Ends): void {
  program
    .command('history')
    .description('print what happened to a design in the database that KNOT_PATH_DB names')
    .argument('<design>', 'id or name of a design')
    .option('--variant <variant>', 'id or name of a variant; otherwise the first')
    .option('--state <number>', 'print the document of this state')
    .option('--from <number>', 'print what differs between this state and --to; otherwise 0')
    .option('--to <number>', 'state to compare with; otherwise the newest')
    .option('--name <text>', 'give --state this name; an empty one takes the name away')
    .option('--copy <name>', 'make a new variant from --state')
    .option('--go-back <number>', 'make the newest state what this one was, as a step that can be undone')
    .option('--json', 'as JSON instead of lines')
    .action(async (design: string, options: HistoryOptions) => {
      ends(await (await import('./history')).history(design, options));
    });
  program
    .command('backup')
    .description('copy the database that KNOT_PATH_DB names, also while its server runs')
    .argument('<file>', 'file to write')
    .action(async (file: string) => {
      ends(await (await import('./backup')).backup(file));
    });
  program
    .command('restore')
    .description('replace the database that KNOT_PATH_DB names by a copy, also while its server runs')
    .argument('<file>', 'copy that backup wrote')
    .action(async (file: string) => {
      ends(await (await import('./backup')).restore(file));
    });
}

async function main(argv: readonly string[]): Promise<number> {
  let status = 0;
  const program = new Command('knot-path')
    .description('Spanning trees of a design, from the shell.')
    .version(VERSION, '--version', 'print the version')
    .exitOverride()
    .showHelpAfterError('(--help lists the commands and options)');
  for (const add of [answerCommands, wholeCommands, planCommand, observeCommands, fileCommands, databaseCommands])
    add(program, (ended) => void (status = ended));
  try {
    await program.parseAsync([...argv], { from: 'user' });
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode;
    throw error;
  }
  return status;
}

/** Ends with a sentence: what a person can do never ends in a stack trace. */
function giveUp(error: unknown): never {
  const { code, message } = error as NodeJS.ErrnoException;
  // The reader has seen enough.
  if (code === 'EPIPE') process.exit(0);
  const reason = code === 'ENOSPC' ? 'the disk or device is full' : String(message ?? error).split('\n')[0];
  process.stderr.write(`knot-path: ${reason}\n`);
  process.exit(1);
}

process.stdout.on('error', giveUp);
process.on('uncaughtException', giveUp);
process.on('unhandledRejection', giveUp);
void main(process.argv.slice(2)).then((status) => (process.exitCode = status), giveUp);
