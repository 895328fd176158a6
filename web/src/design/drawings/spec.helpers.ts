import { mount as mounted, type VueWrapper } from '@vue/test-utils'
import type { Component } from 'vue'

/** Mount a drawing with only those of its facts that a test is about. */
export const mount = (drawing: Component, { props }: { props: object }): VueWrapper =>
  mounted(drawing, { props: props as Record<string, unknown> })
