/** Reads files of a network in a worker: captures piece by piece, everything else whole; then one network and its drawing. */
import type { ObservedNetwork } from '../core/design';
import { asBuilt, captureLanes, captureLines, captureReader, isCapture, readObservedFiles } from '../core/observe';
import type { CaptureLaneWords, CaptureLine, FileRead, Observation, ObservedFile } from '../core/observe';
import { observeMessages as say } from '../core/messages';
import { serveJob } from './job';

export interface PickedFile {
  readonly path: string;
  readonly file: File;
}

export interface ObserveRequest {
  readonly files: readonly PickedFile[];
  /** What agents answered already. */
  readonly observations: readonly Observation[];
  /** Name of the drawing. */
  readonly name: string;
}

export interface ObserveProgress {
  readonly path: string;
  /** Octets read, of how many. */
  readonly read: number;
  readonly of: number;
}

export interface CaptureRead {
  readonly path: string;
  readonly frames: number;
  /** Seconds from its first frame to its last. */
  readonly seconds: number;
  readonly lines: readonly CaptureLine[];
  /** Ports that speak, those that change first; the most that are shown. */
  readonly lanes: readonly CaptureLaneWords[];
  readonly lanesLeft: number;
  /** Events beyond those listed. */
  readonly left: number;
}

export interface ObserveAnswer {
  readonly network: ObservedNetwork;
  readonly files: readonly FileRead[];
  readonly captures: readonly CaptureRead[];
}

/** What is no capture is read whole. */
const MOST_OCTETS = 200_000_000;
const MOST_LANES = 150;

/** Inside the folder that was given: without its own name, where all paths begin with it. */
function insideOf(paths: readonly string[]): (path: string) => string {
  const [first] = paths;
  const top = first?.includes('/') ? `${first.split('/')[0]!}/` : '';
  const within =
    top !== '' && paths.every((p) => p.startsWith(top)) && paths.some((p) => p.slice(top.length).includes('/'));
  return (path) =>
    within || (top !== '' && paths.every((p) => p.startsWith(top)) && paths.length > 1) ? path.slice(top.length) : path;
}

serveJob<ObserveRequest, ObserveProgress, ObserveAnswer>(async ({ files, observations, name }, { report, stopped }) => {
  const read: FileRead[] = [];
  const found: Observation[] = [...observations];
  const whole: ObservedFile[] = [];
  const captured: { path: string; reader: ReturnType<typeof captureReader> }[] = [];
  const inside = insideOf(files.map((f) => f.path));
  for (const { path, file } of files) {
    if (stopped()) break;
    const at = new Date(file.lastModified).toISOString();
    if (isCapture(new Uint8Array(await file.slice(0, 4).arrayBuffer()))) {
      const reader = captureReader(path, at);
      let octets = 0;
      const stream = file.stream().getReader();
      for (
        let part = await stream.read();
        !part.done && !stopped() && reader.fault === null;
        part = await stream.read()
      ) {
        reader.push(part.value);
        octets += part.value.length;
        report({ path, read: octets, of: file.size });
      }
      const of = reader.end();
      found.push(...of);
      captured.push({ path, reader });
      read.push({ path, kind: 'capture', fault: of.flatMap((o) => o.unread)[0] ?? null });
    } else if (file.size > MOST_OCTETS)
      read.push({
        path,
        kind: 'not readable',
        fault: say['file-too-large']({ file: path, size: file.size, most: MOST_OCTETS }),
      });
    else whole.push({ path, inside: inside(path), octets: new Uint8Array(await file.arrayBuffer()), at });
  }
  const rest = readObservedFiles(whole);
  const { network } = asBuilt([...found, ...rest.observations], name);
  const nameOf = (mac: string) => network.switches.find((s) => s.mac === mac)?.name ?? mac;
  const captures = captured.map(({ path, reader: { frames, story } }): CaptureRead => {
    const seconds = (story.until - story.from) / 1e6;
    const lanes = captureLanes(story.lanes(), seconds, nameOf);
    return {
      path,
      frames,
      seconds,
      lines: captureLines(story.events, story.from, nameOf),
      left: story.left,
      lanes: lanes.slice(0, MOST_LANES),
      lanesLeft: Math.max(0, lanes.length - MOST_LANES),
    };
  });
  return { network, files: [...read, ...rest.files], captures };
});
