/** Bytes that a request may carry: enough for a design of thousands of switches. */
export const BODY_LIMIT = 8 * 1024 * 1024;

export const TOO_LARGE = `The request is larger than ${BODY_LIMIT / 1024 / 1024} MB, the most that is accepted at once.`;
