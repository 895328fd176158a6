/** The roles, in the words of who hands them out. */
export const ROLES = [
  { key: 'lead', name: 'Shop lead', what: 'everything, and the shop itself' },
  { key: 'technician', name: 'Technician', what: 'walk-arounds, findings, services, fitting' },
  { key: 'parts', name: 'Parts', what: 'the parts list, sourcing, orders, stock, cost' },
  { key: 'owner', name: 'Machine owner', what: 'looks at their own machines, and what they cost' },
] as const
