import { z } from 'zod'
import {
  API_BASE,
  CSRF_HEADER,
  IDEMPOTENCY_HEADER,
  PROBLEMS,
  ROUTES,
  type ProblemCode,
  type RouteName,
} from '#contracts'
import { ENDPOINTS } from '#contracts/endpoints'
import type { Endpoint } from '#contracts'

/** The OpenAPI 3.1 description of every route, made from the contracts and nothing else. */
export function openApi(version: string) {
  const paths: Record<string, Record<string, unknown>> = {}
  const schemas: Record<string, unknown> = { Problem: problemSchema }
  for (const name of Object.keys(ROUTES) as RouteName[]) {
    const [method, path] = ROUTES[name]
    const key = path.replace(/:(\w+)/g, '{$1}')
    paths[key] = { ...paths[key], [method.toLowerCase()]: operation(name, ENDPOINTS[name], method, schemas) }
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Jadefell', version },
    servers: [{ url: API_BASE }],
    security: [{ session: [] }],
    paths,
    components: {
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'jadefell_session' } },
      schemas,
    },
  }
}

function operation(name: RouteName, endpoint: Endpoint, method: string, schemas: Record<string, unknown>) {
  const schemaOf = (schema: z.ZodType, io: 'input' | 'output') => jsonSchema(schema, io, schemas)
  const codes: ProblemCode[] = [
    ...(endpoint.isPublic ? [] : (['not_signed_in'] as const)),
    ...(endpoint.isPublic || method === 'GET' ? [] : (['csrf_failed'] as const)),
    ...(endpoint.needs ? (['not_allowed'] as const) : []),
    ...(endpoint.params ? (['not_found'] as const) : []),
    ...(endpoint.body || endpoint.query ? (['invalid_request'] as const) : []),
    ...(endpoint.problems ?? []),
  ]
  return {
    operationId: name,
    summary: endpoint.summary,
    ...(endpoint.isPublic ? { security: [] } : {}),
    parameters: [
      ...parameters(endpoint.params, 'path', schemaOf),
      ...parameters(endpoint.query, 'query', schemaOf),
      ...(endpoint.isPublic || method === 'GET' ? [] : [header(CSRF_HEADER)]),
      ...(endpoint.creates ? [header(IDEMPOTENCY_HEADER)] : []),
    ],
    ...(endpoint.body
      ? {
          requestBody: {
            required: true,
            content: { 'application/json': { schema: schemaOf(endpoint.body, 'input') } },
          },
        }
      : {}),
    ...(endpoint.upload ? { requestBody: { required: true, content: bytesOf(endpoint.upload.types) } } : {}),
    responses: {
      ...(endpoint.download
        ? { 200: { description: 'The file', content: bytesOf(endpoint.download.types) } }
        : endpoint.response instanceof z.ZodNull
          ? { 204: { description: 'Done' } }
          : {
              200: {
                description: 'Done',
                content: { 'application/json': { schema: schemaOf(endpoint.response, 'output') } },
              },
            }),
      ...problemResponses(codes),
    },
  }
}

/** A body that is a file of one of these types. */
function bytesOf(types: readonly string[]) {
  return Object.fromEntries(types.map((type) => [type, { schema: { type: 'string', format: 'binary' } }]))
}

function problemResponses(codes: readonly ProblemCode[]) {
  const statuses = new Set(codes.map((code) => PROBLEMS[code].status))
  return Object.fromEntries(
    [...statuses].map((status) => [
      status,
      {
        description: codes.filter((code) => PROBLEMS[code].status === status).join(', '),
        content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
      },
    ]),
  )
}

function parameters(
  schema: z.ZodObject | undefined,
  where: 'path' | 'query',
  schemaOf: (schema: z.ZodType, io: 'input' | 'output') => unknown,
) {
  return Object.entries(schema?.shape ?? {}).map(([name, type]) => ({
    name,
    in: where,
    required: where === 'path',
    schema: schemaOf(type as z.ZodType, 'input'),
  }))
}

function header(name: string) {
  return { name, in: 'header', required: true, schema: { type: 'string' } }
}

/** A schema's JSON form; what carries a name goes to the shared `schemas` and is referred to. */
function jsonSchema(schema: z.ZodType, io: 'input' | 'output', schemas: Record<string, unknown>): unknown {
  const text = JSON.stringify(z.toJSONSchema(schema, { io, unrepresentable: 'any' }))
  const {
    $schema: _,
    $defs,
    ...json
  } = JSON.parse(text.replaceAll('#/$defs/', '#/components/schemas/')) as {
    $schema?: string
    $defs?: Record<string, unknown>
    id?: string
  }
  Object.assign(schemas, $defs)
  if (json.id === undefined) return json
  schemas[json.id] = json
  return { $ref: `#/components/schemas/${json.id}` }
}

const problemSchema = {
  type: 'object',
  required: ['type', 'title', 'status', 'code'],
  properties: {
    type: { type: 'string' },
    title: { type: 'string' },
    status: { type: 'integer' },
    code: { enum: Object.keys(PROBLEMS) },
    detail: { type: 'string' },
    fields: {
      type: 'array',
      items: { type: 'object', properties: { path: { type: 'string' }, message: { type: 'string' } } },
    },
    data: {},
    requestId: { type: 'string' },
  },
}
