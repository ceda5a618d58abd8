import { z } from 'zod'
import { PROGRAM_ENDPOINTS } from './outsideEndpoints'

interface Described {
  method: string
  path: string
  params?: z.ZodObject
  query?: z.ZodObject
  body?: z.ZodType
  answer: z.ZodType
}

/** What each request is for. */
const ABOUT: Record<keyof typeof PROGRAM_ENDPOINTS, string> = {
  listByKey: 'Reads responses, the oldest first. Needs the right to read.',
  loadByKey: 'Reads one response by its number. Needs the right to read.',
  sendByKey:
    'Sends a response in, as if somebody had sent it by the address of the form. Needs the right to send.',
  listHooksByKey: 'Lists the web hooks of this key. Needs the right to read.',
  makeHookByKey:
    'Has an address called whenever something happens to a response, with the response as JSON. Ends with the key. Needs the right to read.',
  removeHookByKey: 'Ends a web hook of this key. Needs the right to read.',
}

const schemaOf = (schema: z.ZodType, io: 'input' | 'output') => {
  const { $schema: _, ...rest } = z.toJSONSchema(schema, {
    io,
    target: 'draft-2020-12',
    unrepresentable: 'any',
  })
  return rest
}

const jsonOf = (schema: z.ZodType, io: 'input' | 'output') => ({
  content: { 'application/json': { schema: schemaOf(schema, io) } },
})

const parametersIn = (place: 'path' | 'query', shape: z.ZodObject | undefined) =>
  Object.entries(shape?.shape ?? {}).map(([name, schema]) => ({
    name,
    in: place,
    required: place === 'path',
    schema: schemaOf(schema, 'input'),
  }))

const REFUSED = {
  description: 'Refused: a sentence that says why, and the place of each problem.',
  ...jsonOf(
    z.object({
      message: z.string(),
      data: z.object({ code: z.string(), sentence: z.string() }),
    }),
    'output',
  ),
}

function operationOf(name: keyof typeof PROGRAM_ENDPOINTS, { params, query, body, answer }: Described) {
  return {
    operationId: name,
    summary: ABOUT[name],
    parameters: [...parametersIn('path', params), ...parametersIn('query', query)],
    ...(body ? { requestBody: { required: true, ...jsonOf(body, 'input') } } : {}),
    responses: { 200: { description: 'Done.', ...jsonOf(answer, 'output') }, default: REFUSED },
  }
}

const isName = (name: string): name is keyof typeof PROGRAM_ENDPOINTS =>
  Object.hasOwn(PROGRAM_ENDPOINTS, name)

/** The interface for programs, described by OpenAPI 3.1, made of the schemas that the server reads and answers by. */
export function describeApi(): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {}
  for (const name of Object.keys(PROGRAM_ENDPOINTS).filter(isName)) {
    const endpoint: Described = PROGRAM_ENDPOINTS[name]
    const path = endpoint.path.replaceAll(/:(\w+)/g, '{$1}')
    paths[path] = { ...paths[path], [endpoint.method.toLowerCase()]: operationOf(name, endpoint) }
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Tobbin', version: '1' },
    security: [{ key: [] }],
    components: { securitySchemes: { key: { type: 'http', scheme: 'bearer' } } },
    paths,
  }
}
