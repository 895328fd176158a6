<script setup lang="ts">
/** What each machine costs, who bears it, and what was agreed to. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { onMounted, reactive, ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'
import AskOnce from '@/app/AskOnce.vue'
import { counted } from '@/app/counted'
import { date } from '@/app/words'
import SupplyTabs from './SupplyTabs.vue'
import { useAttempt } from '@/app/useAttempt'

type Machine = Schemas['MachineCostOut']
const data = ref<Schemas['CostsOut'] | null>(null)
const at = useAttempt('The costs could not be read.')
const open = reactive({ machine: 0, how: '', uuid: '' })
const load = (): Promise<boolean> => at.read(async () => void (data.value = await answer(api.GET('/api/supply/costs'))))
onMounted(load)
const agreed = (machine: Machine): Schemas['ApprovalOut'] | undefined => machine.approvals[0]
const since = (machine: Machine): number => Number(machine.total) - Number(agreed(machine)?.amount ?? 0)
function begin(machine: Machine): void {
  Object.assign(open, { machine: machine.machine, how: '', uuid: newUuid() })
  at.problem = ''
}
const bearing = reactive({ key: '', percent: '' })
const dividing = useAttempt('The share could not be saved.')
const own = (machine: Machine, name: string): string => machine.shares.find((one) => one.name === name)?.percent ?? ''
function divide(machine: Machine, owner: Schemas['OwnerOut']): void {
  Object.assign(bearing, { key: `${machine.machine}:${owner.id}`, percent: own(machine, owner.name) })
  dividing.problem = ''
}
const keepShare = (machine: Machine, owner: Schemas['OwnerOut']): Promise<boolean> =>
  dividing.run(async () => {
    data.value = await write(() =>
      api.POST('/api/supply/costs/{machine_id}/shares', {
        params: { path: { machine_id: machine.machine } },
        body: { owner: owner.id, percent: bearing.percent },
      }),
    )
    bearing.key = ''
  })
function agreeAsOwner(machine: Machine): void {
  begin(machine)
  void agree(machine)
}
const takeBack = (machine: Machine): Promise<boolean> =>
  at.run(
    async () =>
      void (data.value = await write(() =>
        api.POST('/api/supply/costs/{machine_id}/approvals/{approval}/take-back', {
          params: { path: { machine_id: machine.machine, approval: agreed(machine)!.uuid } },
        }),
      )),
  )
async function agree(machine: Machine): Promise<void> {
  const done = await at.run(async () => {
    data.value = await write(() =>
      api.POST('/api/supply/costs/{machine_id}/approve', {
        params: { path: { machine_id: machine.machine } },
        body: { uuid: open.uuid, amount: machine.total, how: open.how },
      }),
    )
  })
  if (done) open.machine = 0
}
</script>

<template>
  <SupplyTabs />
  <section class="desk">
    <p v-if="at.problem && !open.machine" class="trouble" role="alert">
      {{ at.problem }} <Button v-if="!data" label="Try again" severity="secondary" @click="load" />
    </p>
    <template v-if="data">
      <header class="tools">
        <div class="grow">
          <h1>Cost</h1>
          <p class="quiet">
            Estimates in {{ data.currency }}: parts at the last price or the lowest offer, strip-downs at {{ data.labour_rate }}
            {{ data.currency }} an hour.
          </p>
        </div>
        <ul v-if="data.owners.length" class="owners">
          <li v-for="owner in data.owners" :key="owner.name">
            <span class="quiet">{{ owner.name }}</span> <b>{{ owner.amount }} {{ data.currency }}</b>
          </li>
        </ul>
      </header>
      <p v-if="!data.machines.length" class="quiet">Nothing is needed, so there is nothing to pay.</p>
      <div class="grid">
        <article v-for="machine in data.machines" :key="machine.machine" class="card" :aria-label="machine.name">
          <header class="tools">
            <h2 class="grow">{{ machine.name }}</h2>
            <p class="total">
              <b>{{ machine.total }}</b> {{ data.currency }}
            </p>
          </header>
          <p>
            Parts {{ machine.parts }} {{ data.currency }}, work {{ machine.labour }} {{ data.currency }}
            <span class="quiet">for {{ machine.hours }} h of strip-downs</span>
          </p>
          <p v-if="machine.unpriced || machine.without_hours" class="warn">
            <template v-if="machine.unpriced">{{ machine.unpriced }} without a price. </template
            ><template v-if="machine.without_hours">{{ machine.without_hours }} whose work is not estimated.</template>
          </p>
          <p v-for="share in machine.shares" :key="share.name" class="share">
            <span>{{ share.name }}, {{ share.percent }} %</span><b>{{ share.amount }} {{ data.currency }}</b>
          </p>
          <template v-if="data.may_record"
            ><template v-for="owner in machine.may_bear" :key="owner.id">
              <form
                v-if="bearing.key === `${machine.machine}:${owner.id}`"
                class="tools"
                @submit.prevent="keepShare(machine, owner)"
              >
                <label
                  >{{ owner.name }} bears
                  <InputText
                    v-model="bearing.percent"
                    v-focus
                    class="percent"
                    inputmode="decimal"
                    :invalid="dividing.field === 'percent'"
                  />
                  %</label
                ><Button type="submit" label="Save" :disabled="dividing.busy" />
                <p v-if="dividing.problem" class="problem" role="alert">{{ dividing.problem }}</p>
              </form>
              <button
                v-else
                type="button"
                class="link"
                :aria-label="`Change the share of ${owner.name} in ${machine.name}`"
                @click="divide(machine, owner)"
              >
                Change the share of {{ owner.name }}
              </button>
            </template></template
          >
          <details>
            <summary>
              {{ counted(machine.lines.length, 'part')
              }}<template v-if="machine.strip_downs.length">, {{ counted(machine.strip_downs.length, 'strip-down') }}</template>
            </summary>
            <p v-for="line in machine.lines" :key="line.number + line.name" class="share">
              <span
                >{{ line.quantity }}{{ line.unit ? ' ' + line.unit : '' }} × {{ line.name }}
                <small class="quiet">{{ line.price ? `at ${line.price} ${data!.currency}` : 'no price yet' }}</small></span
              ><b>{{ line.amount ? `${line.amount} ${data.currency}` : '–' }}</b>
            </p>
            <p v-for="down in machine.strip_downs" :key="down" class="quiet">{{ down }}</p>
          </details>
          <p v-if="agreed(machine)" class="agreed">
            <b>Agreed: {{ agreed(machine)!.amount }} {{ agreed(machine)!.currency }}</b
            >, {{ agreed(machine)!.how }}, {{ agreed(machine)!.by }}, {{ date(agreed(machine)!.at)
            }}<template v-if="since(machine)"
              >. Since then {{ since(machine) > 0 ? '+' : '−' }}{{ Math.abs(since(machine)).toFixed(2) }}
              {{ data.currency }}</template
            >
            <button
              v-if="data.is_owner || data.may_record"
              type="button"
              class="link"
              :aria-label="`Take back what was agreed for ${machine.name}`"
              :disabled="at.busy"
              @click="takeBack(machine)"
            >
              Take back
            </button>
          </p>
          <form v-if="open.machine === machine.machine && !data.is_owner" class="tools" @submit.prevent="agree(machine)">
            <InputText
              v-model="open.how"
              maxlength="120"
              v-focus
              placeholder="Who agreed, and how"
              aria-label="Who agreed, and how"
              :invalid="at.field === 'how'"
            /><Button type="submit" label="Save" :disabled="at.busy" /><Button
              text
              severity="secondary"
              label="Cancel"
              data-out
              @click="open.machine = 0"
            />
          </form>
          <p v-if="at.problem && open.machine === machine.machine" class="problem" role="alert">{{ at.problem }}</p>
          <template v-if="(!agreed(machine) || since(machine)) && open.machine !== machine.machine">
            <AskOnce
              v-if="data.is_owner"
              :label="`Agree to ${machine.total} ${data.currency}`"
              :named="`Agree to ${machine.total} ${data.currency} for ${machine.name}`"
              :question="`You agree to ${machine.total} ${data.currency} for ${machine.name}: parts ${machine.parts} ${data.currency}, work ${machine.labour} ${data.currency}.`"
              :yes="`Yes, agree to ${machine.total} ${data.currency}`"
              :disabled="at.busy"
              @yes="agreeAsOwner(machine)"
            />
            <Button
              v-else-if="data.may_record"
              severity="secondary"
              label="Owner agreed"
              :aria-label="`Owner agreed for ${machine.name}`"
              @click="begin(machine)"
            />
          </template>
        </article>
      </div>
    </template>
    <p v-else-if="!at.problem" class="quiet" role="status">Adding up …</p>
  </section>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(360px, 1fr));
  gap: 14px;
  align-items: start;
}
details {
  min-width: 0;
}
.percent {
  width: 80px;
}
.link {
  justify-self: start;
}
.total {
  font-size: 1.3rem;
}
.owners {
  display: grid;
  gap: 2px;
}
.owners li {
  display: flex;
  gap: 12px;
  justify-content: space-between;
}
.share {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  border-bottom: 1px solid var(--line);
  padding: 3px 0;
}
.warn {
  color: var(--due);
  font-weight: 600;
}
.agreed {
  padding-left: 10px;
  border-left: 4px solid var(--sound);
}
summary {
  min-height: var(--target);
  display: flex;
  align-items: center;
  cursor: pointer;
  font-weight: 600;
  color: var(--accent);
}
@media (max-width: 700px) {
  .grid {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
