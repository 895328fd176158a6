import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { defineComponent, nextTick } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import { useAsked, type Asking } from './useAsked'

async function opened(address: string) {
  let asking!: Asking<'search' | 'state'>
  const list = defineComponent({
    setup: () => {
      asking = useAsked('search', 'state')
      return () => null
    },
  })
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/list', name: 'list', component: list },
      { path: '/other', name: 'other', component: { render: () => null } },
    ],
  })
  await router.push(address)
  mount({ components: {}, template: '<RouterView />' }, { global: { plugins: [router] } })
  await flushPromises()
  return { router, asking: () => asking }
}

describe('what is asked of a list', () => {
  it('is taken from the address', async () => {
    const { asking } = await opened('/list?search=disc&page=3')
    expect(asking().asked).toEqual({ search: 'disc', state: '', page: '3' })
    expect(asking().query.value).toEqual({ search: 'disc', page: '3' })
  })

  it('stands in the address, beside what others put there', async () => {
    const { router, asking } = await opened('/list?theme=dark')
    asking().asked.search = 'row 3'
    await flushPromises()
    expect(router.currentRoute.value.query).toEqual({ theme: 'dark', search: 'row 3' })
    asking().asked.search = ''
    await flushPromises()
    expect(router.currentRoute.value.query).toEqual({ theme: 'dark' })
  })

  it('begins at the first page when something else is asked', async () => {
    const { router, asking } = await opened('/list?search=disc&page=3')
    asking().asked.state = 'order'
    await flushPromises()
    expect(router.currentRoute.value.query).toEqual({ search: 'disc', state: 'order' })
  })

  it('keeps every letter however fast they are typed', async () => {
    const { router, asking } = await opened('/list')
    for (const letter of 'bearing') {
      asking().asked.search += letter
      await nextTick()
    }
    await flushPromises()
    expect(asking().asked.search).toBe('bearing')
    expect(router.currentRoute.value.query.search).toBe('bearing')
  })

  it('follows a link to the same list, page and all', async () => {
    const { router, asking } = await opened('/list?search=disc')
    await router.push('/list?state=coming&page=2')
    await flushPromises()
    expect(asking().asked).toEqual({ search: '', state: 'coming', page: '2' })
  })

  it('leaves the address of the next screen alone', async () => {
    const { router } = await opened('/list?search=disc')
    await router.push('/other?state=x')
    await flushPromises()
    expect(router.currentRoute.value.fullPath).toBe('/other?state=x')
  })
})
