<script setup lang="ts">
/** What an account needs: how people call them, a name to log in with, a password. */
import InputText from '@/design/controls/inputtext'
import Field from '@/app/Field.vue'
import type { Attempt } from '@/app/useAttempt'

defineProps<{ at: Attempt }>()
const name = defineModel<string>('name', { required: true })
const username = defineModel<string>('username', { required: true })
const password = defineModel<string>('password', { required: true })
</script>

<template>
  <Field label="Your name" name="name" :at="at"><InputText v-model="name" autocomplete="name" maxlength="120" /></Field>
  <Field label="A name to log in with" hint="short, or your e-mail" name="username" :at="at"
    ><InputText v-model="username" autocomplete="username" autocapitalize="none" maxlength="60"
  /></Field>
  <Field label="Password" hint="at least 12 characters" name="password" :at="at"
    ><InputText v-model="password" maxlength="128" type="password" autocomplete="new-password"
  /></Field>
</template>
