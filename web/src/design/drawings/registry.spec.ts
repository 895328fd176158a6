import { readdirSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import openapi from '@/api/openapi.json'
import { DRAWINGS } from './registry'

const schemas = openapi.components.schemas as Record<string, { properties?: { kind?: { const?: string } } }>
const told = Object.entries(schemas).flatMap(([name, schema]) =>
  name.endsWith('Drawing') && schema.properties?.kind?.const ? [schema.properties.kind.const] : [],
)

describe('the drawings', () => {
  it('are one for everything the server can tell of', () => {
    expect(told.length).toBeGreaterThan(20)
    expect(Object.keys(DRAWINGS).sort()).toEqual(told.sort())
  })

  it('are all there is in this folder', () => {
    const files = readdirSync(__dirname).filter((name) => name.endsWith('.vue') && name !== 'DrawingOf.vue')
    expect(files).toHaveLength(Object.keys(DRAWINGS).length)
  })
})
