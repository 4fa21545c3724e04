import { afterEach, describe, expect, it, vi } from 'vitest'

import { Gone, noticing } from './away'

const answers = (answer: () => Promise<Response>) => vi.stubGlobal('fetch', answer)
const asked = () => noticing(new Request('http://car.test/'))

afterEach(() => vi.unstubAllGlobals())

describe('what is asked of the server', () => {
  it('is answered as it was', async () => {
    answers(() => Promise.resolve(new Response('{"a":1}', { status: 422, headers: { 'x-who': 'Ann' } })))
    const answer = await asked()
    expect([answer.status, answer.headers.get('x-who'), await answer.json()]).toEqual([422, 'Ann', { a: 1 }])
  })

  it('may be answered with nothing', async () => {
    answers(() => Promise.resolve(new Response(null, { status: 204 })))
    expect((await asked()).status).toBe(204)
  })

  it('is gone where nobody answers', async () => {
    answers(() => Promise.reject(new TypeError('no route')))
    await expect(asked()).rejects.toBeInstanceOf(Gone)
  })

  it('is gone where the answer breaks off halfway', async () => {
    const broken = new ReadableStream({ pull: (body) => body.error(new TypeError('broken off')) })
    answers(() => Promise.resolve(new Response(broken)))
    await expect(asked()).rejects.toBeInstanceOf(Gone)
  })
})
