/** Headers of our own. */

/** Whose request it is; the server refuses it under anybody else's login. */
export const MEMBER = 'X-Lumvek-Member'
/** Of a request that the outbox sends, whatever screen is open. */
export const FROM_BOX = 'X-Lumvek-Box'
/** The place in line, of an answer that is none yet: what costs much is done in turn. */
export const PLACE = 'X-Lumvek-Place'
/** The server's clock, with every answer: milliseconds since 1970. */
export const CLOCK = 'X-Lumvek-Time'
/** When an answer was so that is kept on this device: an ISO moment. */
export const KEPT_AT = 'X-Lumvek-Kept'
