/** Where a line of the parts list may stand, in words. */
export const STATES = {
  number: 'Find its number',
  order: 'To order',
  coming: 'On its way',
  here: 'On the shelf',
  fitted: 'Fitted',
}
