/** Screens by what people call them, for the search. */
import type { Right } from './session'

interface Screen {
  title: string
  path: string
  /** Other words for it. */
  also: string
  right?: Right
}
const SCREENS: Screen[] = [
  { title: 'Machines', path: '/', also: 'board start home' },
  {
    title: 'Add a machine',
    path: '/machines/new',
    also: 'new planter combine header seeder import table csv',
    right: 'add machines',
  },
  { title: 'Daily cards', path: '/daily', also: 'today grease streak looked at', right: 'see daily cards' },
  { title: 'Season’s end', path: '/wear', also: 'wear ahead forecast counters' },
  { title: 'Work plan', path: '/plan', also: 'season schedule who when jobs late', right: 'see the season’s plan' },
  { title: 'My day', path: '/plan/mine', also: 'next job start stop done', right: 'work by the plan' },
  {
    title: 'Hands and weather',
    path: '/plan/hands',
    also: 'shifts days off away holiday ill skills dry',
    right: 'see the season’s plan',
  },
  { title: 'Parts list', path: '/parts', also: 'needed missing', right: 'see the parts of the whole shop' },
  { title: 'Sourcing', path: '/parts/sourcing', also: 'plan trips', right: 'see the parts of the whole shop' },
  { title: 'Orders', path: '/parts/orders', also: 'ordered receive', right: 'see the parts of the whole shop' },
  { title: 'Fit', path: '/parts/fit', also: 'fitting parts', right: 'see the parts of the whole shop' },
  { title: 'Stock', path: '/parts/stock', also: 'shelf truck bin', right: 'see the parts of the whole shop' },
  { title: 'Parts book', path: '/parts/book', also: 'numbers models', right: 'see the parts of the whole shop' },
  {
    title: 'Suppliers and rates',
    path: '/parts/suppliers',
    also: 'currency labour prices',
    right: 'see the parts of the whole shop',
  },
  { title: 'Cost', path: '/parts/cost', also: 'estimate owners shares' },
  { title: 'Bench', path: '/bench', also: 'calculate calculator' },
  { title: 'Catalogue', path: '/catalogue', also: 'checks how' },
  { title: 'The shop', path: '/shop', also: 'name address mark logo second factor settings', right: 'change the shop' },
  {
    title: 'Units, time and days',
    path: '/shop/ways',
    also: 'time zone date form inches millimetres',
    right: 'change the shop',
  },
  { title: 'Working hours', path: '/shop/hours', also: 'open closed holidays', right: 'change the shop' },
  { title: 'Bays, yard and lifts', path: '/shop/places', also: 'door width height shed bench', right: 'change the shop' },
  { title: 'Crops and seasons', path: '/shop/crops', also: 'grown group planting harvest', right: 'change the shop' },
  {
    title: 'Mail and desk',
    path: '/shop/outside',
    also: 'e-mail smtp letter supplier modem outside',
    right: 'change the shop',
  },
  { title: 'Rates', path: '/shop/rates', also: 'currency labour standing hour money', right: 'change rates' },
  { title: 'Schools', path: '/rules?tab=schools', also: 'way of doing', right: 'see rules' },
  { title: 'Feelers', path: '/rules?tab=feelers', also: 'card paper thickness', right: 'see rules' },
  { title: 'People', path: '/people', also: 'invite members roles technicians', right: 'see people' },
  { title: 'Rules', path: '/rules', also: 'models limits sizes schools feelers copy', right: 'see rules' },
  {
    title: 'Own checks',
    path: '/own-checks',
    also: 'add check reword leave out switch off catalogue yaml',
    right: 'change checks',
  },
  { title: 'Changes', path: '/shop/changes', also: 'log history who', right: 'see changes' },
  { title: 'Your account', path: '/account', also: 'password e-mail second factor devices sign out' },
]
const MOST = 4

/** The screens that every word is in, as far as they open. */
export function screensCalled(text: string, may: (right: Right) => boolean): { title: string; path: string }[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  if (words.join('').length < 2) return []
  return SCREENS.filter(
    (one) => (!one.right || may(one.right)) && words.every((word) => `${one.title} ${one.also}`.toLowerCase().includes(word)),
  ).slice(0, MOST)
}
