/** Who asks: a community of SNMPv2c, or a user of SNMPv3 with its keys. Kept for as long as the asking takes, and never written down. */
import snmp from 'net-snmp';
import type { SnmpCredentials } from '../../api/observe';

const AUTH: Readonly<Record<string, number>> = {
  md5: snmp.AuthProtocols.md5,
  sha: snmp.AuthProtocols.sha,
  sha224: snmp.AuthProtocols.sha224,
  sha256: snmp.AuthProtocols.sha256,
  sha384: snmp.AuthProtocols.sha384,
  sha512: snmp.AuthProtocols.sha512,
};
const PRIV: Readonly<Record<string, number>> = {
  des: snmp.PrivProtocols.des,
  aes: snmp.PrivProtocols.aes,
  aes256: snmp.PrivProtocols.aes256b,
};

export interface SessionTimes {
  readonly port: number;
  /** Milliseconds until a request is sent again, and how often it is. */
  readonly timeout: number;
  readonly retries: number;
}

/** The user as the package wants it; a session and an agent take the same. */
export function userOf(of: Extract<SnmpCredentials, { version: '3' }>): snmp.User {
  const { noAuthNoPriv, authNoPriv, authPriv } = snmp.SecurityLevel;
  return {
    name: of.user,
    level: of.privKey ? authPriv : of.authKey ? authNoPriv : noAuthNoPriv,
    ...(of.authKey ? { authProtocol: AUTH[of.authProtocol ?? 'sha']!, authKey: of.authKey } : {}),
    ...(of.privKey ? { privProtocol: PRIV[of.privProtocol ?? 'aes']!, privKey: of.privKey } : {}),
  };
}

/** A session with one agent, with v3 in one of its contexts. Answers in which a walk would go back are let through: the walk itself sees to that. */
export function sessionWith(address: string, of: SnmpCredentials, times: SessionTimes, context = ''): snmp.Session {
  const options = { ...times, transport: 'udp4' as const, backwardsGetNexts: true, idBitsSize: 32 as const };
  return of.version === '3'
    ? snmp.createV3Session(address, userOf(of), { ...options, version: snmp.Version3, context })
    : snmp.createSession(address, of.community, { ...options, version: snmp.Version2c });
}

/** Credentials from the environment; null where it has none. */
export function credentialsFrom(env: Readonly<Record<string, string | undefined>>): SnmpCredentials | null {
  const user = env.KNOT_PATH_SNMP_USER;
  if (user) {
    const lower = (value: string | undefined) => value?.toLowerCase();
    return {
      version: '3',
      user,
      ...(env.KNOT_PATH_SNMP_USER_AUTH_KEY ? { authKey: env.KNOT_PATH_SNMP_USER_AUTH_KEY } : {}),
      ...(env.KNOT_PATH_SNMP_USER_PRIV_KEY ? { privKey: env.KNOT_PATH_SNMP_USER_PRIV_KEY } : {}),
      ...(env.KNOT_PATH_SNMP_USER_AUTH ? { authProtocol: lower(env.KNOT_PATH_SNMP_USER_AUTH) as 'sha' } : {}),
      ...(env.KNOT_PATH_SNMP_USER_PRIV ? { privProtocol: lower(env.KNOT_PATH_SNMP_USER_PRIV) as 'aes' } : {}),
    };
  }
  const community = env.KNOT_PATH_SNMP_COMMUNITY;
  return community ? { version: '2c', community } : null;
}
