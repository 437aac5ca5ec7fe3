import { clipped } from '../core/messages';
import { OPERATIONS } from '../api/operations';
import { findRoute } from './routes';
import { isLoopback } from './gate';
import { isSignedIn, newSession, sessionOf, setSecret } from './session-cookie';

test('every operation is found by its method and path', () => {
  for (const [operation, { method, path }] of Object.entries(OPERATIONS)) {
    const parts = path
      .split('/')
      .slice(1)
      .map((p) => p.replace(':', 'a-'));
    expect(findRoute(method, parts)).toMatchObject({ kind: 'route', operation });
  }
});

test('a path that takes other methods names them, and one that is none is none', () => {
  expect(findRoute('PUT', ['designs', 'x'])).toEqual({ kind: 'method', allowed: ['GET', 'PATCH', 'DELETE'] });
  expect(findRoute('HEAD', ['designs'])).toMatchObject({ operation: 'listDesigns' });
  for (const parts of [[], ['x'], ['designs', 'x', 'y'], ['__proto__'], ['designs', 'x', 'variants', 'y', 'z']])
    expect(findRoute('GET', parts)).toEqual({ kind: 'nothing' });
  expect(findRoute('GET', ['variants', '__proto__', 'steps'])).toMatchObject({ params: { variant: '__proto__' } });
});

test('loopback addresses are known as such', () => {
  for (const host of ['127.0.0.1', '127.1.2.3', 'localhost', '::1', '[::1]']) expect(isLoopback(host)).toBe(true);
  for (const host of ['0.0.0.0', '::', '192.168.1.4', '127.0.0.1.example', '']) expect(isLoopback(host)).toBe(false);
});

describe('sessions', () => {
  const before = { ...process.env };
  afterEach(() => {
    process.env = { ...before };
  });
  test('a session holds as long as password and secret are the same', async () => {
    setSecret('s1');
    process.env.KNOT_PATH_PASSWORD = 'tide table';
    const token = await newSession();
    expect(await isSignedIn(token)).toBe(true);
    expect(await isSignedIn(undefined)).toBe(false);
    expect(await isSignedIn(`${token.slice(0, -4)}aaaa`)).toBe(false);
    process.env.KNOT_PATH_PASSWORD = 'another';
    expect(await isSignedIn(token)).toBe(false);
    process.env.KNOT_PATH_PASSWORD = 'tide table';
    setSecret('s2');
    expect(await isSignedIn(token)).toBe(false);
    delete process.env.KNOT_PATH_PASSWORD;
    expect(await isSignedIn(undefined)).toBe(true);
  });
  test('the cookie is found among others', () => {
    const of = (cookie: string) => sessionOf({ headers: new Headers({ cookie }) });
    expect(of('a=b; knot-path-session=x.y.z; c=d')).toBe('x.y.z');
    expect(of('other-knot-path-session=1')).toBeUndefined();
  });
});

test('long texts are shortened', () => {
  expect(clipped('x'.repeat(100))).toHaveLength(60);
  expect(clipped('short')).toBe('short');
});
