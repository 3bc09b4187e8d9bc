import { Validator } from '@seriousme/openapi-schema-validator'
import { expect, it } from 'vitest'
import { ROUTES } from '#contracts'
import { openApi } from './http/openapi'

it('is a valid OpenAPI 3.1 document (against the published schema) with every route in it', async () => {
  const document = openApi('1.0.0')
  const validator = new Validator()
  const result = await validator.validate(JSON.parse(JSON.stringify(document)) as Record<string, unknown>)
  expect(JSON.stringify(result.errors)?.slice(0, 400)).toBeUndefined()
  expect(result.valid).toBe(true)
  const operations = Object.values(document.paths).flatMap((path) => Object.keys(path))
  expect(operations).toHaveLength(Object.keys(ROUTES).length)
})

it('refers only to schemas that it has', () => {
  const text = JSON.stringify(openApi('1.0.0'))
  const referred = [...text.matchAll(/#\/components\/schemas\/(\w+)/g)].map((match) => match[1] ?? '')
  const { schemas } = openApi('1.0.0').components
  expect(referred.length).toBeGreaterThan(20)
  expect(referred.filter((name) => !(name in schemas))).toEqual([])
})
