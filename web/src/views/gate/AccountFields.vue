<script setup lang="ts">
/** What an account needs: how people call them, a name to log in with, a password. */
import InputText from '@/design/controls/inputtext'

defineProps<{ field: string }>()
const name = defineModel<string>('name', { required: true })
const username = defineModel<string>('username', { required: true })
const password = defineModel<string>('password', { required: true })
</script>

<template>
  <label for="your-name">Your name</label>
  <InputText id="your-name" v-model="name" autocomplete="name" maxlength="120" :invalid="field === 'name'" />
  <label for="log-in-name">A name to log in with <small class="quiet">short, or your e-mail</small></label>
  <InputText
    id="log-in-name"
    v-model="username"
    autocomplete="username"
    autocapitalize="none"
    maxlength="60"
    :invalid="field === 'username'"
  />
  <label for="password">Password <small class="quiet">at least 10 characters</small></label>
  <InputText id="password" v-model="password" type="password" autocomplete="new-password" :invalid="field === 'password'" />
</template>

<style scoped src="./gate.css"></style>
