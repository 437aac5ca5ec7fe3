/** Where the queue is; null where none is named. Throws a sentence where the name is no address. */
export function queueUrl(env: Readonly<NodeJS.ProcessEnv> = process.env): string | null {
  const url = env.KNOT_PATH_QUEUE;
  if (!url) return null;
  if (!/^rediss?:\/\/[^/]+/.test(url) || !URL.canParse(url))
    throw new Error(
      `KNOT_PATH_QUEUE is '${url}', which is no address of a queue: name one such as redis://10.0.0.5:6379.`,
    );
  return url;
}
