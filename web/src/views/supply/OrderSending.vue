<script setup lang="ts">
/** An order on its way to somebody outside: what is under way, what went wrong, and what can be done about it. */
import Button from '@/design/controls/button'
import type { Schemas } from '@/api/client'
import AskOnce from '@/app/AskOnce.vue'
import { date } from '@/app/words'

defineProps<{ order: Schemas['OrderOut']; buys: boolean; busy: boolean }>()
const emit = defineEmits<{ post: [way: 'send' | 'by-hand']; takeBack: [] }>()
</script>

<template>
  <div class="sending">
    <p v-if="order.under_way" class="way" role="status">
      <b>{{ order.mail === 'going' ? 'The letter is on its way to the mail server …' : 'The desk is being asked …' }}</b>
    </p>
    <p v-else-if="order.mail === 'failed'" class="problem" role="alert">
      The letter was not sent. {{ order.mail_trouble }}
      <template v-if="order.state === 'to-send' && !order.received">The order is still to be sent.</template>
    </p>
    <p v-else-if="order.mail === 'unsure'" class="problem" role="alert">
      Nobody knows whether the letter went out: ask {{ order.supplier }}. {{ order.mail_trouble }}
    </p>
    <p v-else-if="order.mail === 'sent'" class="quiet">
      By e-mail{{ order.email ? ` to ${order.email}` : '' }}, {{ date(order.mail_at!) }}.
    </p>
    <div v-if="order.state === 'to-send' && buys && !order.under_way && !order.received" class="unsure" role="status">
      <p>
        <b>{{ order.tries || order.mail === 'unsure' ? 'Nobody has confirmed this order.' : 'Not sent yet.' }}</b>
        {{ order.trouble }}
        <template v-if="order.desk && order.tries">It may have arrived: asking again orders nothing twice.</template>
      </p>
      <Button v-if="order.desk" label="Ask the desk again" :disabled="busy" @click="emit('post', 'send')" /><AskOnce
        v-if="!order.desk || !order.tries"
        severity="secondary"
        :label="order.mail === 'unsure' ? 'They have it' : 'Said by telephone'"
        :question="`From now on it counts as ordered from ${order.supplier}, and Lumvek sends nothing more.`"
        yes="It was said"
        :disabled="busy"
        @yes="emit('post', 'by-hand')"
      />
      <AskOnce
        v-if="order.may_drop"
        severity="secondary"
        label="Take back"
        :question="`The order to ${order.supplier} is dropped before it is sent; its parts are needed again.`"
        yes="Drop the order"
        :disabled="busy"
        @yes="emit('takeBack')"
      />
    </div>
    <AskOnce
      v-else-if="order.state === 'by-hand' && order.may_drop && buys"
      plain
      label="Take back"
      :question="`Lumvek forgets this order, and its parts are needed again. Tell ${order.supplier} yourself.`"
      yes="Take it back"
      :disabled="busy"
      @yes="emit('takeBack')"
    />
  </div>
</template>

<style scoped>
.sending {
  display: grid;
  gap: 8px;
}
.sending:empty {
  display: none;
}
.unsure {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  padding: 8px 12px;
  border-left: 4px solid var(--stop);
  background: var(--paper);
}
</style>
