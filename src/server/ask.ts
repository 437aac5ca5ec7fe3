/** Operations for pages: their answers as text, or why there is none. */
import { cookies } from 'next/headers';
import { COOKIE, isSignedIn, password } from './session-cookie';
import { store } from './store';
import type { OperationName } from '../api/operations';

export type Asked = { ok: true; text: string } | { ok: false; status: number; sentence: string };

/** Asks for what a page shows. The text is passed on as it is, so that large designs are not taken apart here. */
export async function ask(name: OperationName, params: Record<string, string> = {}): Promise<Asked> {
  const { status, content } = await store().ask({ name, params, query: {}, body: '' });
  const text = String(content);
  if (status < 400) return { ok: true, text };
  const { error } = JSON.parse(text) as { error: { sentence: string } };
  return { ok: false, status, sentence: error.sentence };
}

/** Texts up to this length go out with the page; larger ones are fetched by it, so that no page holds the server up. */
const WITH_PAGE = 40_000;

export const withPage = (text: string): string | null => (text.length <= WITH_PAGE ? text : null);

/** Whether the reader of a page has a session that can be ended. */
export async function hasSession(): Promise<boolean> {
  return password() !== null && (await isSignedIn((await cookies()).get(COOKIE)?.value));
}
